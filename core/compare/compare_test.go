package compare

import (
	"encoding"
	"fmt"
	"math/rand/v2"
	"reflect"
	"slices"
	"strings"
	"testing"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/week"
)

const full = "../estimate/testdata/plans/ties-of-every-kind.json"

// TestEveryMemberHasWords walks the format: what a member is called must be known, or that it is told otherwise.
func TestEveryMemberHasWords(t *testing.T) {
	otherwise := []string{"Plan.format", "Plan.name", "Plan.site", "Plan.effects"}
	named := make(map[string]bool)
	var walk func(t reflect.Type)
	seen := map[reflect.Type]bool{
		// Told as a whole, in words of their own.
		reflect.TypeFor[plan.HourList](): true, reflect.TypeFor[plan.DriveGroup](): true, reflect.TypeFor[plan.DrivePrice](): true,
		reflect.TypeFor[plan.SpecialDay](): true, reflect.TypeFor[plan.RateBlock](): true,
		reflect.TypeFor[plan.OwnWeek](): true, reflect.TypeFor[plan.WeekRef](): true, reflect.TypeFor[plan.Effect](): true,
		reflect.TypeFor[plan.ScenePerson](): true, reflect.TypeFor[plan.AreaCells](): true,
	}
	text := reflect.TypeFor[encoding.TextMarshaler]()
	walk = func(of reflect.Type) {
		for of.Kind() == reflect.Pointer || of.Kind() == reflect.Slice {
			of = of.Elem()
		}
		if of == areas {
			of = reflect.TypeFor[plan.Area]()
		}
		if of.Kind() != reflect.Struct || seen[of] || of.Implements(text) || reflect.PointerTo(of).Implements(text) {
			return
		}
		seen[of] = true
		for _, m := range membersOf(of) {
			name := of.Name() + "." + m.name
			field := of.FieldByIndex(m.index)
			ph, ok := phrases[name]
			named[name] = true
			isList := m.holds != "" && m.holds != plan.AsWhole
			switch {
			case !ok && !isList && !slices.Contains(otherwise, name):
				t.Errorf("%s has no words", name)
			case isList && of == reflect.TypeFor[plan.Plan]() && m.holds != "acceptance" && (setters[m.holds] == nil || removers[m.holds] == nil ||
				!slices.Contains(goingOrder, m.holds)):
				t.Errorf("a %s cannot be carried over", m.holds)
			case ok && field.Type.Kind() == reflect.Bool && (ph.on == "" || ph.off == ""):
				t.Errorf("%s is a switch of which one side has no words", name)
			}
			walk(field.Type)
		}
	}
	walk(reflect.TypeFor[plan.Plan]())
	for name := range phrases {
		if !named[name] {
			t.Errorf("there is no %s", name)
		}
	}
	if len(named) < 120 {
		t.Errorf("only %d members were seen", len(named))
	}
}

func TestSentences(t *testing.T) {
	a := plantest.Read(t, full)
	id := a.Channels[0].ID
	pre := 12.0
	all := make([]string, len(a.Channels))
	for i := range all {
		all[i] = a.Channels[i].ID
	}
	stream := *a.Channels[0].Streams.Main
	stream.FPS = 11
	duty := a.Duties[0]
	duty.ID, duty.Name = "quiet", "Quiet hours"
	for name, c := range map[string]struct {
		edits []edit.Edit
		want  string
	}{
		"times": {[]edit.Edit{{SetTimes: &edit.SetTimes{Channels: []string{id}, PreSeconds: &pre}}}, a.Channels[0].Name +
			": pre-event 12 s instead of " + plan.Say("%v s", a.Channels[0].PreSeconds)},
		"stream": {[]edit.Edit{{SetStream: &edit.SetStream{Channels: []string{id}, Stream: "main", Settings: &stream}}}, a.Channels[0].Name +
			": main stream: frames 11 a second instead of " + plan.Say("%v a second", a.Channels[0].Streams.Main.FPS)},
		"matters": {[]edit.Edit{{SetMatters: &edit.SetMatters{Channels: []string{id}, Matters: 3}}}, a.Channels[0].Name +
			": matters 3 of 3 instead of 2 of 3"},
		"new duty": {[]edit.Edit{{SetDuty: &edit.SetDuty{Duty: duty}}}, "Duty Quiet hours: new"},
		"prices":   {[]edit.Edit{{SetPrices: &edit.SetPrices{Prices: &plan.Prices{Currency: "EUR"}}}}, "The site: prices of drives added"},
		"painted": {[]edit.Edit{{SetDuty: &edit.SetDuty{Duty: duty}},
			{Paint: &edit.Paint{Channels: []string{id}, Hours: []plan.Hours{{Days: []week.Weekday{week.Monday}, From: 60, To: 120}},
				Duty: "quiet"}}},
			"Quiet hours instead of"},
	} {
		t.Run(name, func(t *testing.T) {
			b, err := edit.After(a, c.edits...)
			if err != nil {
				t.Fatal(err)
			}
			got := Plans(a, b)
			last := fmt.Sprint(got[len(got)-1])
			if !strings.Contains(last, c.want) && !strings.Contains(fmt.Sprint(got[0]), c.want) {
				t.Errorf("got %v, want %q", got, c.want)
			}
			carry(t, a, b, got)
		})
	}
	if got := Plans(a, a); len(got) != 0 {
		t.Errorf("a plan differs from itself: %v", got)
	}
}

// TestChannelsOfAGroupAreOneSentence sets the same on several channels.
func TestChannelsOfAGroupAreOneSentence(t *testing.T) {
	a := plantest.Read(t, "../../internal/demo/pennywhistle-quay.json")
	group := a.Channels[0].Group
	var ids []string
	for i := range a.Channels {
		if a.Channels[i].Group == group {
			ids = append(ids, a.Channels[i].ID)
		}
	}
	b, err := edit.After(a, edit.Edit{SetMatters: &edit.SetMatters{Channels: ids, Matters: 3}})
	if err != nil {
		t.Fatal(err)
	}
	got := Plans(a, b)
	if len(got) != 1 || got[0].Who != "All of "+group || len(got[0].Parts) != len(ids) {
		t.Errorf("%+v", got)
	}
	if b, err = edit.After(a, edit.Edit{SetMatters: &edit.SetMatters{Channels: ids[:1], Matters: 3}}); err != nil || len(ids) < 2 {
		t.Fatal(err, len(ids))
	}
	if got := Plans(a, b); got[0].Who != a.Channel(ids[0]).Name {
		t.Errorf("%+v", got)
	}
}

// carry carries all differences over to a, which must then be as b.
func carry(t *testing.T, a, b *plan.Plan, all []Sentence) {
	t.Helper()
	var parts []Part
	for _, s := range all {
		parts = append(parts, s.Parts...)
	}
	edits, err := Carry(a, b, parts)
	if err != nil {
		t.Fatalf("carrying: %v %v", err, all)
	}
	got, err := edit.After(a, edits...)
	if err != nil {
		t.Fatalf("carrying: %v %v", err, all)
	}
	if left := Plans(got, b); len(left) != 0 {
		t.Errorf("of %v there is left %v", all, left)
	}
}

// TestAnyDifferenceIsToldAndCarried makes plans of two others by chance, tells every difference, and carries all of them.
func TestAnyDifferenceIsToldAndCarried(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 7))
	for _, file := range []string{full, "../../internal/demo/pennywhistle-quay.json"} {
		a := plantest.Read(t, file)
		for range 40 {
			b, changed := shaken(r, a)
			if !changed {
				continue
			}
			got := Plans(a, b)
			if len(got) == 0 {
				t.Fatalf("%s: two plans differ without words", file)
			}
			for _, s := range got {
				if s.Words == "" || s.Who == "" || strings.Contains(s.Words, "{") {
					t.Errorf("%+v", s)
				}
			}
			carry(t, a, b, got)
		}
	}
}

// shaken is a plan with some numbers and switches changed by chance, as far as it stays one.
func shaken(r *rand.Rand, p *plan.Plan) (*plan.Plan, bool) {
	next := p
	for range 1 + r.IntN(6) {
		i := r.IntN(len(p.Channels))
		id := p.Channels[i].ID
		pre, other := float64(r.IntN(60)), p.Channels[r.IntN(len(p.Channels))]
		duty := p.Duties[r.IntN(len(p.Duties))]
		edits := []edit.Edit{
			{SetTimes: &edit.SetTimes{Channels: []string{id}, PreSeconds: &pre}},
			{SetKeep: &edit.SetKeep{Channels: []string{id}, Keep: plan.Keep{AtLeastDays: 1 + pre}}},
			{Paint: &edit.Paint{Channels: []string{id}, Hours: []plan.Hours{{From: week.Clock(60 * r.IntN(12)),
				To: week.Clock(60 * (13 + r.IntN(11)))}}, Duty: duty.ID}},
			{SetDetection: &edit.SetDetection{Channels: []string{id}, Detection: plan.Detection{On: r.IntN(2) == 0, MinSeconds: pre}}},
			{AddEffect: &edit.AddEffect{Effect: plan.Effect{When: plan.When{Motion: id}, Record: []string{other.ID}}}},
			{RemoveChannels: &edit.RemoveChannels{Channels: []string{id}}},
			{SetMatters: &edit.SetMatters{Channels: []string{id}, Matters: 3}},
			{SetSpecialDays: &edit.SetSpecialDays{Days: []plan.SpecialDay{{From: week.Date{Year: 2027, Month: 5, Day: 1},
				To: week.Date{Year: 2027, Month: 5, Day: 2}, Name: "Quiet", RateFactor: &pre}}}},
			{SetMessage: &edit.SetMessage{Message: plan.Message{ID: "m-new", Name: "Watch", To: "The watch", AtMostEverySeconds: 60 + pre}}},
		}
		if then, err := edit.After(next, edits[r.IntN(len(edits))]); err == nil {
			next = then
		}
	}
	return next, !reflect.DeepEqual(next, p)
}

func TestNothingToCarry(t *testing.T) {
	a := plantest.Read(t, full)
	for _, parts := range [][]Part{nil, {{Kind: "channel", Key: "nowhere"}}, {{Kind: "planet"}}, {{Kind: "site", Member: "moon"}},
		{{Kind: "plan", Member: "moon"}}, {{Kind: "tie", Key: "{"}}, {{Kind: "channel", Key: a.Channels[0].ID, Member: "moon"}}} {
		if _, err := Carry(a, a, parts); err == nil {
			t.Errorf("%v was carried", parts)
		}
	}
}

// TestWhatIsNamedIsSaidByItsName sets other activities and recorders: people know them by their names, not by their ids.
func TestWhatIsNamedIsSaidByItsName(t *testing.T) {
	a, b := plantest.Read(t, full), plantest.Read(t, full)
	if len(a.Activities) < 2 {
		t.Fatal("of too few activities")
	}
	a.Channels[0].Activity, b.Channels[0].Activity = a.Activities[0].ID, a.Activities[1].ID
	got, want := fmt.Sprint(Plans(a, b)), a.Activities[1].Name+" instead of "+a.Activities[0].Name
	if !strings.Contains(got, want) || a.Activities[0].ID == a.Activities[0].Name {
		t.Errorf("%s, want %q", got, want)
	}
}
