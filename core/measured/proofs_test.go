package measured

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/parallel"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// withDays is a site whose days differ by factors of their own.
func withDays(p *plan.Plan, days int, rng *rand.Rand) *plan.Plan {
	next := *p
	for d := range days {
		by := math.Exp(dayFactor*rng.NormFloat64() - dayFactor*dayFactor/2)
		date := october.Add(d)
		next.Site.SpecialDays = append(next.Site.SpecialDays, plan.SpecialDay{From: date, To: date, Name: date.String(), RateFactor: &by})
	}
	return &next
}

// scaled is a site in which an activity happens so many times as often.
func scaled(p *plan.Plan, id string, by float64) *plan.Plan {
	next := *p
	next.Activities = slices.Clone(p.Activities)
	for k := range next.Activities {
		if a := &next.Activities[k]; a.ID == id {
			a.SetRates(week.Map(a.Rates(), func(r float64) float64 { return r * by }))
		}
	}
	return &next
}

// TestASiteAsPlannedIsNotCalledDifferent plays out sites that are just as planned: their events come in groups, and their days
// differ. At most one in twenty is called different in anything.
func TestASiteAsPlannedIsNotCalledDifferent(t *testing.T) {
	p := yard()
	est := estimate.Run(p, nil)
	const sites = 40
	called := make([]string, sites)
	parallel.Do(sites, func(k int) {
		rng := rand.New(rand.NewPCG(3, uint64(k)))
		truth := estimate.Figures(withDays(p, 14, rng), nil)
		logs := playOut(t, truth, 14, uint64(1000+k))
		r := compared(t, est, &Data{Logs: logs, Rates: meterOut(truth, logs, rng), Oldest: ageOut(truth, rng)})
		for _, f := range r.Figures {
			if f.MoreThanChance {
				called[k] += f.Kind + " of " + f.Name + "; "
			}
		}
		if len(r.Gaps)+len(r.Silences) > 0 {
			called[k] += "a gap; "
		}
	})
	n := 0
	for _, c := range called {
		if c != "" {
			n++
			t.Log(c)
		}
	}
	if n > sites/20 {
		t.Errorf("%d of %d sites that are as planned are called different", n, sites)
	}
}

// TestAFactorIsFoundWithinTwoWeeks plays out sites in which one activity happens 1.5 times as often as planned, each in turn, and
// looks whether that is found, and is what explains it.
func TestAFactorIsFoundWithinTwoWeeks(t *testing.T) {
	p := yard()
	est := estimate.Run(p, nil)
	const sites = 32
	found := make([]bool, sites)
	parallel.Do(sites, func(k int) {
		rng := rand.New(rand.NewPCG(5, uint64(k)))
		id := p.Activities[k%len(p.Activities)].ID
		truth := estimate.Figures(withDays(scaled(p, id, 1.5), 14, rng), nil)
		r := compared(t, est, &Data{Logs: playOut(t, truth, 14, uint64(2000+k))})
		for _, f := range r.Figures {
			found[k] = found[k] || f.Kind == KindRate && f.MoreThanChance && f.ID == id
		}
	})
	n := 0
	for k, ok := range found {
		if ok {
			n++
		} else {
			t.Logf("%s is not found", p.Activities[k%len(p.Activities)].ID)
		}
	}
	if n < sites*9/10 {
		t.Errorf("a factor of 1.5 is found at %d of %d sites", n, sites)
	}
}

// played is a site as it is, of which something is done to the logs.
func played(t *testing.T, truth *plan.Plan, change func(logs []Log)) *Result {
	t.Helper()
	logs := playOut(t, estimate.Figures(truth, nil), 28, 9)
	if change != nil {
		change(logs)
	}
	return compared(t, estimate.Run(yard(), nil), &Data{Logs: logs})
}

func logOf(t *testing.T, logs []Log, id string) *Log {
	t.Helper()
	k := slices.IndexFunc(logs, func(l Log) bool { return l.Channel == id })
	if k < 0 {
		t.Fatal("no log of " + id)
	}
	return &logs[k]
}

// TestOneBadDayIsThatDay lets a festival be on one date, on which carts come six times as often: it is named, and everything else is
// as planned.
func TestOneBadDayIsThatDay(t *testing.T) {
	festival, by := october.Add(12), 6.0
	truth := yard()
	r := compared(t, estimate.Run(yard(), nil), &Data{Logs: playOut(t, estimate.Figures(withFestival(truth, festival, by), nil), 28, 9)})
	if len(r.OddDays) == 0 {
		t.Fatal("no day is named")
	}
	for _, d := range r.OddDays {
		if d.Date != festival || d.Times < by*0.6 || d.Times > by*1.6 {
			t.Errorf("%v is named, %.1f times", d.Date, d.Times)
		}
	}
	for _, f := range r.Figures {
		if f.MoreThanChance {
			t.Errorf("%s of %s is called different", f.Kind, f.Name)
		}
	}
}

func withFestival(p *plan.Plan, on week.Date, by float64) *plan.Plan {
	next := *p
	next.Site.SpecialDays = []plan.SpecialDay{{From: on, To: on, Name: "Festival", RateFactor: &by}}
	return &next
}

// TestAStatedDayIsComparedWithItself lets the plan know of the festival: then it is like planned.
func TestAStatedDayIsComparedWithItself(t *testing.T) {
	p := withFestival(yard(), october.Add(12), 6)
	r := compared(t, estimate.Run(p, nil), &Data{Logs: playOut(t, estimate.Figures(p, nil), 28, 9)})
	for _, d := range r.OddDays {
		t.Errorf("%v is named", d.Date)
	}
	for _, f := range r.Figures {
		if f.MoreThanChance {
			t.Errorf("%s of %s is called different", f.Kind, f.Name)
		}
	}
}

// TestGapsAreNoQuiet takes three days out of all logs, as where a recorder was off: they are found, and nothing is called different.
func TestGapsAreNoQuiet(t *testing.T) {
	r := played(t, yard(), func(logs []Log) {
		for k := range logs {
			clear(logs[k].Counts[10*24+5 : 13*24+5])
		}
	})
	if len(r.Gaps) != 1 || len(r.Silences) != 0 {
		t.Fatalf("gaps %v, silences %v", r.Gaps, r.Silences)
	}
	g := r.Gaps[0]
	if from := october.Add(10).At(5*60, time.UTC); g.From.After(from) || from.Sub(g.From) > 14*time.Hour || g.To.Sub(g.From) > 4*24*time.Hour {
		t.Errorf("a gap from %v to %v", g.From, g.To)
	}
	for _, f := range r.Figures {
		if f.MoreThanChance {
			t.Errorf("%s of %s is called different", f.Kind, f.Name)
		}
	}
}

// TestASingleLogThatEndsIsNoSilence lets the only log there is end within a day: nobody can tell that from a channel that records
// nothing, and it is no quiet.
func TestASingleLogThatEndsIsNoSilence(t *testing.T) {
	logs := playOut(t, estimate.Figures(yard(), nil), 28, 9)
	one := *logOf(t, logs, "gate")
	clear(one.Counts[20*24+7:])
	r := compared(t, estimate.Run(yard(), nil), &Data{Logs: []Log{one}})
	if len(r.Silences) != 0 || len(r.Gaps) != 1 {
		t.Errorf("%+v, %+v", r.Silences, r.Gaps)
	}
	for _, f := range r.Figures {
		if f.MoreThanChance {
			t.Errorf("%s of %s is called different", f.Kind, f.Name)
		}
	}
}

// TestAChannelThatRecordsNothingStandsFirst lets one channel say nothing for its last eleven days.
func TestAChannelThatRecordsNothingStandsFirst(t *testing.T) {
	r := played(t, yard(), func(logs []Log) { clear(logOf(t, logs, "ramp").Counts[17*24:]) })
	if len(r.Silences) != 1 || !r.Silences[0].ToTheEnd || r.Silences[0].Channels[0] != "ramp" {
		t.Fatalf("silences %+v", r.Silences)
	}
	if f := r.Figures[0]; f.Kind != KindSilence || f.ID != "ramp" || f.Found != 0 || f.Planned == 0 || f.Words == "" || f.Since == nil {
		t.Errorf("first stands %+v", f)
	}
	for _, f := range r.Figures[1:] {
		if f.MoreThanChance {
			t.Errorf("%s of %s is called different", f.Kind, f.Name)
		}
	}
}

// TestAChannelThatDiffersFromItsLikeIsToldByItself lets one of two channels that see the same have half of it: that is no fault of
// the activity.
func TestAChannelThatDiffersFromItsLikeIsToldByItself(t *testing.T) {
	p := yard()
	truth := scaled(p, "carts", 1)
	truth.Activities = append(truth.Activities, truth.Activities[0])
	own := &truth.Activities[len(truth.Activities)-1]
	own.ID = "fewer"
	own.SetRates(week.Map(own.Rates(), func(r float64) float64 { return r / 2 }))
	truth.Channels = slices.Clone(truth.Channels)
	truth.Channels[1].Activity = "fewer"
	r := played(t, truth, nil)
	n := 0
	for _, f := range r.Figures {
		if !f.MoreThanChance {
			continue
		}
		n++
		if f.Kind != KindRate || f.ID != "dock" || len(f.Edits) != 2 {
			t.Errorf("%+v is called different", f)
		}
	}
	if n != 1 {
		t.Errorf("%d figures differ", n)
	}
	corrected, err := edit.After(p, r.Corrections...)
	if err != nil {
		t.Fatal(err)
	}
	if id := corrected.Channel("dock").Activity; id == "carts" || id == "" {
		t.Errorf("the dock sees %q", id)
	}
}

// TestCorrectionsComeToWhatWasFound corrects a site in which three things are off, and looks whether the plan says what is true then,
// and how sure it is of it.
func TestCorrectionsComeToWhatWasFound(t *testing.T) {
	p := yard()
	truth := scaled(p, "birds", 2.5)
	for k := range truth.Activities {
		switch a := &truth.Activities[k]; a.ID {
		case "carts":
			a.Groups = &plan.Groups{Size: 6, WithinSeconds: 40}
		case "vans":
			a.MeanSeconds = 100
		}
	}
	r := played(t, truth, nil)
	differ := make(map[string]bool)
	for _, f := range r.Figures {
		if f.MoreThanChance {
			differ[f.Kind+" "+f.ID] = true
		}
	}
	for _, want := range []string{"rate birds", "group carts", "length vans"} {
		if !differ[want] {
			t.Errorf("%s is not found: %v", want, differ)
		}
	}
	corrected, err := edit.After(p, r.Corrections...)
	if err != nil {
		t.Fatal(err)
	}
	for _, a := range corrected.Activities {
		switch a.ID {
		case "birds":
			if per := a.Process().PerDay() / 24; math.Abs(per/15-1) > 0.12 || a.Known != "measured" || a.Doubt.Rate > 1.2 || a.Doubt.Seconds < 1.4 {
				t.Errorf("birds: %.2f an hour, %s, %+v", per, a.Known, a.Doubt)
			}
		case "carts":
			if math.Abs(a.Groups.Size-6) > 0.9 || a.Doubt.Size > 1.3 {
				t.Errorf("carts come %.2f at a time, %+v", a.Groups.Size, a.Doubt)
			}
		case "vans":
			if math.Abs(a.MeanSeconds-100) > 8 || a.Doubt.Seconds > 1.15 {
				t.Errorf("vans stay %.1f s, %+v", a.MeanSeconds, a.Doubt)
			}
		}
	}
	if again := compared(t, estimate.Run(corrected, nil), &Data{Logs: playOut(t, estimate.Figures(truth, nil), 28,
		10)}); len(again.Corrections) > 0 {
		t.Errorf("of the corrected plan differ %+v", again.Corrections)
	}
}

// TestTheSameDataGiveTheSameAnswer compares twice.
func TestTheSameDataGiveTheSameAnswer(t *testing.T) {
	est := estimate.Run(yard(), nil)
	d := &Data{Logs: playOut(t, estimate.Figures(yard(), nil), 7, 4)}
	a, b := compared(t, est, d), compared(t, est, d)
	if len(a.Figures) == 0 || *a.Days[0].Found != *b.Days[0].Found || a.Worth != b.Worth {
		t.Errorf("%+v and %+v", a.Days[0].Found, b.Days[0].Found)
	}
}

// TestWhatIsCorrectedTogetherKeepsEach lets an activity be more often, longer and more at a time at once: each figure says the
// activity whole, and all three together say all of it.
func TestWhatIsCorrectedTogetherKeepsEach(t *testing.T) {
	p := yard()
	stood := *p.Activity("vans")
	change := func(of func(a *plan.Activity, d *plan.Doubt)) Figure {
		a, d := stood, doubtOf(&stood)
		of(&a, &d)
		a.Known, a.Doubt = "measured", &d
		return Figure{Edits: []edit.Edit{{SetActivity: &edit.SetActivity{Activity: a}}}}
	}
	rate := change(func(a *plan.Activity, d *plan.Doubt) { a.OtherwisePerHour, d.Rate = 7, 1.1 })
	length := change(func(a *plan.Activity, d *plan.Doubt) { a.MeanSeconds, d.Seconds = 99, 1.2 })
	group := change(func(a *plan.Activity, d *plan.Doubt) {
		a.Groups, d.Size = &plan.Groups{Size: 5, WithinSeconds: 30}, 1.3
	})
	for _, list := range [][]Figure{{rate, length, group}, {group, rate, length}, {length, group, rate}} {
		after, err := edit.After(p, Together(p, list)...)
		if err != nil {
			t.Fatal(err)
		}
		a := after.Activity("vans")
		if a.OtherwisePerHour != 7 || a.MeanSeconds != 99 || a.Groups.Size != 5 || *a.Doubt != (plan.Doubt{Rate: 1.1, Seconds: 1.2, Size: 1.3}) {
			t.Errorf("%+v, %+v", a, a.Doubt)
		}
	}
	after, err := edit.After(p, Together(p, []Figure{rate})...)
	if a := after.Activity("vans"); err != nil || a.MeanSeconds != stood.MeanSeconds || a.Doubt.Seconds < 1.2 {
		t.Errorf("%v, %+v", err, a)
	}
}
