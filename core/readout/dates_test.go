package readout

import (
	"slices"
	"strings"
	"testing"
	"time"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

var today = week.Date{Year: 2026, Month: time.November, Day: 30}

// festive is the sample with days on which a day of the week holds, a named week does, and one that changes what happens alone.
func festive(t *testing.T) (*plan.Plan, []plan.SpecialDay) {
	t.Helper()
	sunday, factor := week.Sunday, 3.0
	days := []plan.SpecialDay{
		{Name: "Christmas", From: week.Date{Year: 2026, Month: 12, Day: 25}, To: week.Date{Year: 2026, Month: 12, Day: 26},
			Yearly: true, UseDay: &sunday},
		{Name: "Regatta", From: week.Date{Year: 2027, Month: 6, Day: 4}, To: week.Date{Year: 2027, Month: 6, Day: 6}, Week: "shut"},
		{Name: "Season", From: week.Date{Year: 2027, Month: 7, Day: 1}, To: week.Date{Year: 2027, Month: 8, Day: 31}, RateFactor: &factor},
	}
	p, err := edit.After(sample(t),
		edit.Edit{SetWeek: &edit.SetWeek{Week: plan.Week{ID: "shut", Name: "Shut", OwnWeek: plan.OwnWeek{Otherwise: "off",
			Blocks: []plan.DutyBlock{{Hours: plan.Hours{From: 9 * 60, To: 11 * 60}, Duty: sample(t).Duties[0].ID}}}}}},
		edit.Edit{SetSpecialDays: &edit.SetSpecialDays{Days: days}})
	if err != nil {
		t.Fatal(err)
	}
	return p, days
}

// followingDevice is a recorder set as planned that follows special days.
func followingDevice(p *plan.Plan, recorder string) *Device {
	d := asPlanned(p, recorder)
	d.Today, d.SpecialDays = today, 50
	for i := range d.Channels {
		for k := range p.Channels {
			if of := &p.Channels[k]; of.Recorder == recorder && of.Number == d.Channels[i].Number && !of.NoCamera {
				d.Channels[i].Layers = LayersOf(p, of, true, today)
			}
		}
	}
	return d
}

// TestSpecialDaysAreOfTheirDates asks layers of every date what they record, and finds what the plan means.
func TestSpecialDaysAreOfTheirDates(t *testing.T) {
	p, _ := festive(t)
	special := p.Site.SpecialDaysFrom(today, DatesTold)
	for i := range p.Channels {
		c := &p.Channels[i]
		own := p.WeekOf(c).Steps()
		layers := bare(LayersOf(p, c, true, today))
		for k, s := range special {
			date := today.Add(k)
			steps, day := own, date.Weekday()
			switch {
			case s == nil:
			case s.UseDay != nil:
				day = *s.UseDay
			case s.Week != "":
				steps = p.WeekOf(&plan.Channel{Week: plan.WeekRef{Named: s.Week}}).Steps()
			}
			want := wordsOn(bare(layersBy(p, c, true, week.Repeated(steps, day), nil)), date)
			if got := wordsOn(layers, date); got != want {
				t.Fatalf("%s on %s: %s, not %s", c.Name, date, got, want)
			}
		}
		for _, l := range layers {
			for _, o := range l.OnDates {
				for _, date := range o.Dates {
					if slices.Equal(o.Hours, ofDay(l.steps(), date.Weekday())) {
						t.Fatalf("%s: %s is told of %s, which is as other days are", c.Name, o.Name, date)
					}
				}
			}
		}
	}
}

// TestSpecialDaysAreHeldAndTaken sees no difference where there is none, one that is said where the device lacks special days, and
// takes those that the plan lacks.
func TestSpecialDaysAreHeldAndTaken(t *testing.T) {
	p, days := festive(t)
	to := Target{Recorder: p.Recorders[0].ID}
	d := followingDevice(entered(p), to.Recorder)
	if lines := Hold(p, entered(p), to, d).Lines; len(lines) > 0 {
		t.Fatalf("%+v", lines)
	}
	without := *p
	without.Site.SpecialDays = days[2:]
	plain := followingDevice(entered(&without), to.Recorder)
	lines := Hold(p, entered(p), to, plain).Lines
	if len(lines) == 0 || lines[0].What != "on special days" || !strings.Contains(lines[0].Plan, "Regatta, 4-6 Jun 2027: ") ||
		lines[0].Part == "" || len(lines[0].Take) != 1 {
		t.Fatalf("%+v", lines)
	}
	lines = Hold(&without, entered(&without), to, d).Lines
	if len(lines) == 0 {
		t.Fatal("nothing differs")
	}
	edits := Together(lines)
	taken, err := edit.After(&without, edits...)
	if err != nil || len(edits) != 1 {
		t.Fatalf("%d edits, %v", len(edits), err)
	}
	if left := Hold(taken, entered(taken), to, d).Lines; len(left) > 0 {
		t.Errorf("taken, and differs still: %+v", left)
	}
	set := taken.Site.SpecialDays
	if len(set) < 3 || !set[1].Yearly || set[1].Name != "Christmas" || set[len(set)-1].Name != "Regatta" {
		t.Errorf("%+v", set)
	}
	back, err := edit.After(p, Together(Hold(p, entered(p), to, plain).Lines)...)
	if err != nil {
		t.Fatal(err)
	}
	if left := Hold(back, entered(back), to, plain).Lines; len(left) > 0 {
		t.Errorf("ordinary days were taken, and differ still: %+v", left)
	}
}

// TestADayThatNoPlanCanSay is held, and cannot be taken: one camera alone has it.
func TestADayThatNoPlanCanSay(t *testing.T) {
	p, _ := festive(t)
	to := Target{Recorder: p.Recorders[0].ID}
	d := followingDevice(entered(p), to.Recorder)
	c := &d.Channels[slices.IndexFunc(d.Channels, func(c Channel) bool { return len(c.Layers) > 0 })]
	c.Layers[0].OnDates = append(c.Layers[0].OnDates, OnDates{"Odd", []week.Date{today.Add(9)}, []Between{{61, 73}}})
	lines := Hold(p, entered(p), to, d).Lines
	if len(lines) != 1 || lines[0].What != "on special days" || lines[0].Take != nil ||
		!strings.Contains(lines[0].Device, "Odd, 9 Dec 2026: ") ||
		!strings.Contains(lines[0].Device, "01:01-01:13") {
		t.Errorf("%+v", lines)
	}
}

// TestADeviceWithoutSpecialDays has them by hand, once for a channel and by name.
func TestADeviceWithoutSpecialDays(t *testing.T) {
	p, _ := festive(t)
	to := Target{Recorder: p.Recorders[0].ID}
	d := asPlanned(entered(p), to.Recorder)
	d.Today = today
	h := Hold(p, entered(p), to, d)
	if len(h.Lines) > 0 || !slices.ContainsFunc(h.ByHand, func(h ByHand) bool { return h.Words == "special days: Christmas, Regatta" }) {
		t.Errorf("%+v, %+v", h.Lines, h.ByHand)
	}
}

// TestLayersOnSpecialDaysAlone are never recorded in a week, which is not always.
func TestLayersOnSpecialDaysAlone(t *testing.T) {
	list := tidy([]Layer{{Stream: plan.Sub, Hours: []plan.Hours{}, OnDates: []OnDates{{"Fair", []week.Date{today}, []Between{{60, 120}}}}},
		{Stream: plan.Main, Hours: []plan.Hours{}}})
	if len(list) != 1 || list[0].Hours == nil || len(list[0].onDate(today)) != 1 || len(list[0].onDate(today.Add(1))) != 0 {
		t.Errorf("%+v", list)
	}
}

// TestDatesAreSaidShort leaves out what is said anyway.
func TestDatesAreSaidShort(t *testing.T) {
	for text, to := range map[string]week.Date{"30 Nov 2026": today, "30 Nov - 2 Dec 2026": today.Add(2),
		"30 Nov 2026 - 2 Jan 2027": today.Add(33)} {
		if got := datesInWords(today, to); got != text {
			t.Errorf("%s, not %s", got, text)
		}
	}
	if got := datesInWords(today.Add(1), today.Add(3)); got != "1-3 Dec 2026" {
		t.Error(got)
	}
}
