package compare

import (
	"reflect"
	"slices"
	"strings"
	"testing"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/week"
)

// template is a plan with duties, a week, an activity, special days and what a recorder takes, as a company has them.
func template(t *testing.T, of *plan.Plan) *plan.Plan {
	t.Helper()
	sunday := week.Sunday
	duty := of.Duties[0]
	duty.Name += " (company)"
	r := of.Recorders[0]
	r.Takes = &plan.Takes{StepMinutes: 15, PeriodsPerDay: 6}
	p, err := edit.After(of, edit.Edit{SetDuty: &edit.SetDuty{Duty: duty}},
		edit.Edit{SetDuty: &edit.SetDuty{Duty: plan.Duty{ID: "watch", Name: "Watch", Base: &plan.Base{Stream: plan.Main}}}},
		edit.Edit{SetWeek: &edit.SetWeek{Week: plan.Week{ID: "open", Name: "Open", OwnWeek: plan.OwnWeek{Otherwise: "watch"}}}},
		edit.Edit{SetRecorder: &edit.SetRecorder{Recorder: r}},
		edit.Edit{SetSpecialDays: &edit.SetSpecialDays{Days: []plan.SpecialDay{
			{Name: "Midwinter", From: week.Date{Year: 2026, Month: 12, Day: 25}, To: week.Date{Year: 2026, Month: 12, Day: 26},
				Yearly: true, UseDay: &sunday},
			{Name: "Fair", From: week.Date{Year: 2027, Month: 6, Day: 4}, To: week.Date{Year: 2027, Month: 6, Day: 4}, Week: "open"}}}})
	if err != nil {
		t.Fatal(err)
	}
	return p
}

// TestAPlanTakesFromAnother takes one thing after the other, and all at once, until nothing is offered; what only the plan has
// itself stays.
func TestAPlanTakesFromAnother(t *testing.T) {
	p := plantest.Read(t, full)
	own := plan.SpecialDay{Name: "Own", From: week.Date{Year: 2027, Month: 1, Day: 6}, To: week.Date{Year: 2027, Month: 1,
		Day: 6}, UseDay: ptr(week.Monday)}
	p, err := edit.After(p, edit.Edit{SetDuty: &edit.SetDuty{Duty: plan.Duty{ID: "mine", Name: "Mine"}}},
		edit.Edit{SetSpecialDays: &edit.SetSpecialDays{Days: []plan.SpecialDay{own}}})
	if err != nil {
		t.Fatal(err)
	}
	from := template(t, plantest.Read(t, full))
	offered := Takings(p, from)
	var kinds, all []string
	for _, o := range offered {
		kinds, all = append(kinds, o.Kind), append(all, o.ID)
	}
	for _, want := range []string{"duty", "week", "special day", "recorder"} {
		if !slices.Contains(kinds, want) {
			t.Errorf("no %s is offered: %+v", want, offered)
		}
	}
	for _, o := range offered {
		edits, err := Take(p, from, []string{o.ID})
		if err != nil {
			t.Fatal(err)
		}
		next, err := edit.After(p, edits...)
		if err != nil {
			t.Fatalf("%s: %v", o.Who, err)
		}
		if left := Takings(next, from); slices.ContainsFunc(left, func(l Taking) bool { return l.ID == o.ID }) {
			t.Errorf("%s is taken, and offered still", o.Who)
		}
	}
	edits, err := Take(p, from, all)
	if err != nil {
		t.Fatal(err)
	}
	next, err := edit.After(p, edits...)
	if err != nil {
		t.Fatal(err)
	}
	if left := Takings(next, from); len(left) > 0 {
		t.Errorf("all is taken, and offered still: %+v", left)
	}
	if next.Duty("mine") == nil || !slices.ContainsFunc(next.Site.SpecialDays, func(d plan.SpecialDay) bool { return d.Name == "Own" }) ||
		len(next.Site.SpecialDays) != 3 || len(next.Channels) != len(p.Channels) {
		t.Error("what was there is gone")
	}
	if _, err := Take(next, from, all[:1]); err == nil || !strings.Contains(err.Error(), "take[0]") {
		t.Errorf("%v", err)
	}
}

// TestChannelsAreCopiedWithWhatTheyName copies channels into a plan that has other things of the same names, and finds each as it was.
func TestChannelsAreCopiedWithWhatTheyName(t *testing.T) {
	from := plantest.Read(t, full)
	to, err := plan.Opening{Name: "Other", TimeZone: "UTC", Recorder: "Box", Channels: 64, IngestMbps: 200, Drives: 2, Terabytes: 4,
		Layout: "raid1", Cameras: 3, Codec: "h264", Width: 1280, Height: 720, FPS: 10, Activity: plan.ActivityTemplates()[0].ID,
		Duty: plan.ReadyMade()[0].ID}.Plan()
	if err != nil {
		t.Fatal(err)
	}
	clash := from.Duties[0]
	clash.Name = "Another of that id"
	if to, err = edit.After(to, edit.Edit{SetDuty: &edit.SetDuty{Duty: clash}}); err != nil {
		t.Fatal(err)
	}
	var ids []string
	for i := range from.Channels {
		if !from.Channels[i].NoCamera {
			ids = append(ids, from.Channels[i].ID)
		}
	}
	r := to.Recorders[0]
	got, err := CopyChannels(to, from, ids, r.ID, r.Pools[0].ID)
	if err != nil {
		t.Fatal(err)
	}
	next, err := edit.After(to, got.Edits...)
	if err != nil {
		t.Fatal(err)
	}
	if err := next.Check(); err != nil {
		t.Fatal(err)
	}
	if len(got.Channels) != len(ids) || len(got.Renamed) == 0 || len(next.Channels) != len(to.Channels) || len(got.Left) == 0 {
		t.Errorf("%+v", got)
	}
	for i, id := range got.Channels {
		was, is := from.Channel(ids[i]), next.Channel(id)
		if is == nil || is.Recorder != r.ID || !reflect.DeepEqual(was.Streams, is.Streams) || was.Name != is.Name {
			t.Fatalf("%+v", is)
		}
		a, b := from.WeekOf(was).Steps(), next.WeekOf(is).Steps()
		for k := range a {
			x, y := *from.Duty(a[k].Value), *next.Duty(b[k].Value)
			x.ID, x.Name, y.ID, y.Name = "", "", "", ""
			if a[k].From != b[k].From || !reflect.DeepEqual(x, y) {
				t.Fatalf("%s is recorded otherwise", was.Name)
			}
		}
	}
	if d := next.Duty(clash.ID); d.Name != clash.Name {
		t.Error("a duty of the plan was changed")
	}
	for i := range to.Channels {
		if c := &to.Channels[i]; !c.NoCamera && !reflect.DeepEqual(*c, *next.Channel(c.ID)) {
			t.Errorf("%s was changed", to.Channels[i].Name)
		}
	}
	for _, of := range []struct {
		ids            []string
		recorder, pool string
		want           string
	}{{ids, "none", "x", "recorder"}, {ids, r.ID, "none", "pool"}, {[]string{"none"}, r.ID, r.Pools[0].ID, "channels[0]"},
		{make([]string, 100), r.ID, r.Pools[0].ID, "has room for"}} {
		if _, err := CopyChannels(to, from, of.ids, of.recorder, of.pool); err == nil || !strings.Contains(err.Error(), of.want) {
			t.Errorf("%v", err)
		}
	}
}

// TestCopiedChannelsNameTheirPictures copies channels of which some have a snapshot: just these are told, to be copied too.
func TestCopiedChannelsNameTheirPictures(t *testing.T) {
	from := plantest.Read(t, "../estimate/testdata/plans/watched-yard.json")
	plain := plantest.Read(t, full)
	with, to := "", plan.Plan{}
	for i := range from.Channels {
		if c := &from.Channels[i]; c.Scene != nil && c.Scene.Picture != "" {
			with = c.ID
			copied, err := CopyChannels(plain, from, []string{c.ID}, plain.Recorders[0].ID, plain.Recorders[0].Pools[0].ID)
			if err != nil {
				t.Fatal(err)
			}
			if len(copied.Pictures) != 1 || copied.Pictures[0] != c.Scene.Picture {
				t.Errorf("%s names %q", c.ID, copied.Pictures)
			}
		}
	}
	to = *plantest.Copy(t, from)
	for i := range to.Channels {
		if s := to.Channels[i].Scene; s != nil {
			s.Picture = ""
		}
	}
	copied, err := CopyChannels(plain, &to, []string{with}, plain.Recorders[0].ID, plain.Recorders[0].Pools[0].ID)
	if err != nil || with == "" || len(copied.Pictures) != 0 {
		t.Errorf("%q without a picture names %q, %v", with, copied.Pictures, err)
	}
}
