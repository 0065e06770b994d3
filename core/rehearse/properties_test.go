package rehearse

import (
	"context"
	"errors"
	"fmt"
	"hash/fnv"
	"math"
	"path/filepath"
	"reflect"
	"slices"
	"strings"
	"testing"

	"wakefield.example/core/document"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/seeded"
	"wakefield.example/core/week"
)

var june = week.Date{Year: 2026, Month: 6, Day: 1}

func played(t testing.TB, site *estimate.Result, ask Ask) *Rehearsal {
	t.Helper()
	r, err := Play(context.Background(), site, ask)
	if err != nil {
		t.Fatal(err)
	}
	return r
}

// holdsTogether asks what must hold of any rehearsal: one fate with a reason for every wanted event and none for others, a
// cause for every second of the event layer, segments in order, in the days and never over each other.
func holdsTogether(t testing.TB, r *Rehearsal) {
	t.Helper()
	for k := range r.Events {
		e := &r.Events[k]
		if (e.Source == Wanted) != (e.Fate != "" && e.Why != "") || e.End < e.Start || k > 0 && e.Start < r.Events[k-1].Start {
			t.Fatalf("event %d: %+v", k, e)
		}
		if e.Gate == Passed && e.Trigger < e.Start {
			t.Fatalf("event %d is a trigger before it begins: %+v", k, e)
		}
	}
	for i, list := range r.Segments {
		for k, s := range list {
			switch {
			case s.From < 0 || s.To > r.Length || s.To <= s.From || k > 0 && s.From < list[k-1].To:
				t.Fatalf("channel %d, segment %d: %+v", i, k, s)
			case s.Event != (len(s.Causes) > 0):
				t.Fatalf("channel %d, segment %d has the causes %v: %+v", i, k, s.Causes, s)
			case math.IsNaN(s.Kbit) || s.Kbit < 0:
				t.Fatalf("channel %d, segment %d: %+v", i, k, s)
			}
			for _, n := range s.Causes {
				if r.Events[n].Gate != Passed {
					t.Fatalf("channel %d is held by an event that is no trigger: %+v", i, r.Events[n])
				}
			}
		}
	}
}

// TestEveryPlanHoldsTogether plays every test plan on ordinary dates and through both nights in which clocks change.
func TestEveryPlanHoldsTogether(t *testing.T) {
	files, _ := filepath.Glob("../estimate/testdata/plans/*.json")
	files = append(files, "../../internal/demo/pennywhistle-quay.json")
	for _, file := range files {
		p := plantest.Read(t, file)
		p.Site.TimeZone = "Europe/Berlin"
		site := estimate.Figures(p, nil)
		for n, from := range []week.Date{june, {Year: 2026, Month: 3, Day: 28}, {Year: 2026, Month: 10, Day: 24}} {
			ask := Ask{From: from, Days: 3, Seed: 5}
			r := played(t, site, ask)
			holdsTogether(t, r)
			if want := 3*Day + []Ms{0, -Hour, Hour}[n]; r.Length != want {
				t.Errorf("%s: %d days are %d ms long, want %d", file, 3, r.Length, want)
			}
			again := played(t, site, ask)
			if !reflect.DeepEqual(r.Events, again.Events) || !reflect.DeepEqual(r.Segments, again.Segments) ||
				!reflect.DeepEqual(r.Told, again.Told) {
				t.Errorf("%s: the same number is another week", file)
			}
			if ask.Seed++; len(r.Events) > 20 && reflect.DeepEqual(r.Events, played(t, site, ask).Events) {
				t.Errorf("%s: another number is the same week", file)
			}
		}
	}
}

// TestTheWeekOfANumber holds one week against what it was when this was written, on whatever machine.
func TestTheWeekOfANumber(t *testing.T) {
	p := busy(5)
	p.Activities[0].OtherwisePerHour, p.Activities[0].Groups = 2.5, &plan.Groups{Size: 2.5, WithinSeconds: 60}
	h := fnv.New64a()
	r := played(t, estimate.Figures(p, nil), Ask{From: june, Days: 3, Seed: 42})
	for _, e := range r.Events {
		fmt.Fprintln(h, e.Channel, e.Source, e.Start, e.End, e.Trigger, e.Gate, e.Fate, e.Why, e.Records)
	}
	if got := h.Sum64(); got != 0x7af8aaff8ce47b16 || len(r.Events) != 1275 {
		t.Errorf("%d events with the mark %#x", len(r.Events), got)
	}
}

// FuzzAnyPlan plays whatever is a plan.
func FuzzAnyPlan(fuzz *testing.F) {
	f := seeded.Of(fuzz, 150)
	files, _ := filepath.Glob("../estimate/testdata/plans/*.json")
	for _, file := range files {
		data, err := plantest.Read(f, file).Write()
		if err != nil {
			f.Fatal(err)
		}
		f.Add(data, uint64(1), 2)
	}
	f.Fuzz(func(t *testing.T, data []byte, seed uint64, days int) {
		p, err := plan.Read(data)
		if err != nil || len(p.Channels) > 20 || len(data) > 40_000 {
			return
		}
		site := estimate.Figures(p, nil)
		r, err := Play(context.Background(), site, Ask{From: june, Days: 1 + (days&3+4)%4, Seed: seed})
		if wrong, many := new(document.Error), new(TooManyError); errors.As(err, &wrong) || errors.As(err, &many) {
			return
		}
		if err != nil {
			t.Fatal(err)
		}
		holdsTogether(t, r)
	})
}

// TestTheSameHappensUnderOtherSettings changes what is decided, not what happens.
func TestTheSameHappensUnderOtherSettings(t *testing.T) {
	p := plantest.Read(t, "../../internal/demo/pennywhistle-quay.json")
	before := played(t, estimate.Figures(p, nil), Ask{From: june, Days: 4, Seed: 3})
	other := *p
	other.Channels = append([]plan.Channel(nil), p.Channels...)
	for i := range other.Channels {
		other.Channels[i].PreSeconds, other.Channels[i].Detection.MinSeconds = 0, 3
		other.Channels[i].Week = plan.WeekRef{Own: &plan.OwnWeek{Otherwise: p.Duties[0].ID}}
	}
	after := played(t, estimate.Figures(&other, nil), Ask{From: june, Days: 4, Seed: 3})
	if len(before.Events) != len(after.Events) {
		t.Fatalf("%d events and %d", len(before.Events), len(after.Events))
	}
	fates := 0
	for k := range before.Events {
		a, b := before.Events[k], after.Events[k]
		if a.Start != b.Start || a.End != b.End || a.Channel != b.Channel || a.Source != b.Source || a.Walk != b.Walk {
			t.Fatalf("%+v and %+v", a, b)
		}
		if a.Fate != b.Fate {
			fates++
		}
	}
	if fates == 0 {
		t.Error("other settings change no fate")
	}
}

// TestSpecialDays plays a date on which nothing happens, and one with another week.
func TestSpecialDays(t *testing.T) {
	p := plantest.Read(t, "../../internal/demo/pennywhistle-quay.json")
	none := 0.0
	p.Site.SpecialDays = []plan.SpecialDay{{From: june, To: june, Name: "Closed", RateFactor: &none}}
	r := played(t, estimate.Figures(p, nil), Ask{From: june, Days: 2, Seed: 3})
	first, second := 0, 0
	for _, e := range r.Events {
		switch {
		case e.Source == Button || e.Start < 0 || e.Start >= 2*Day:
		case e.Start < Day:
			first++
		default:
			second++
		}
	}
	if first > 5 || second < 100 { // groups that began before midnight come in
		t.Errorf("%d events on the day on which nothing happens, %d on the next", first, second)
	}
}

// TestOneAnswer: what is said first of an event is what became of it, and says no other thing than asking for its middle does.
func TestOneAnswer(t *testing.T) {
	counted := make(map[string]int)
	for _, file := range []string{"../../internal/demo/pennywhistle-quay.json", "../estimate/testdata/plans/ties-of-every-kind.json",
		"../estimate/testdata/plans/cause-and-effect.json"} {
		r := played(t, estimate.Figures(plantest.Read(t, file), nil), Ask{From: june, Days: 3, Seed: 9})
		for n := range r.Events {
			e := &r.Events[n]
			middle := e.Start + (e.End-e.Start)/2
			if e.Source != Wanted || e.Start < 0 || middle >= r.Length {
				continue
			}
			s := r.Tell(n)
			word, _, _ := strings.Cut(s.Answer, ":")
			counted[word]++
			have := r.Have(e.Channel, middle, middle)
			ok := map[string]bool{"Yes": e.Fate == Full, "Only low": e.Fate == Low, "No": e.Fate == Missed &&
				(have.Fate == Missed || e.Why == AwayThen), "By chance": e.Fate == Missed && have.Fate != Missed && e.Why != AwayThen}[word]
			if !ok || s.Fate != e.Fate {
				t.Fatalf("%s: %q, fate %s, at its middle %s", s.Sentence, s.Answer, e.Fate, have.Fate)
			}
		}
	}
	for _, word := range []string{"Yes", "Only low", "No", "By chance"} {
		if counted[word] == 0 {
			t.Errorf("no event was answered with %q: %v", word, counted)
		}
	}
}

// TestAChannelByItselfIsThatOfTheWhole plays each channel with what it hears of alone, and all together: its footage is the same.
func TestAChannelByItselfIsThatOfTheWhole(t *testing.T) {
	recorded := 0
	for _, file := range []string{"../estimate/testdata/plans/ties-of-every-kind.json", "../estimate/testdata/plans/cause-and-effect.json"} {
		est := estimate.Figures(plantest.Read(t, file), nil)
		ask := Ask{From: june, Days: 3, Seed: 9}
		whole := played(t, est, ask)
		for i := range est.Plan().Channels {
			o, err := alone(t.Context(), est, ask, i)
			if err != nil {
				t.Fatal(err)
			}
			r, err := o.again(t.Context(), ask)
			if err != nil {
				t.Fatal(err)
			}
			if !slices.EqualFunc(r.Segments[i], whole.Segments[i], func(a, b Segment) bool {
				a.Causes, b.Causes = nil, nil // by their place among other events
				return reflect.DeepEqual(a, b)
			}) {
				t.Errorf("%s, %s: %d stretches, with all %d", file, est.Plan().Channels[i].Name, len(r.Segments[i]), len(whole.Segments[i]))
			}
			recorded += len(whole.Segments[i])
		}
	}
	if recorded < 100 {
		t.Errorf("only %d stretches", recorded)
	}
}

// TestWhatHappensOnASpecialDay: what comes on Wednesdays only comes on a Friday that is as a Wednesday, and on no other day.
func TestWhatHappensOnASpecialDay(t *testing.T) {
	p := busy(2)
	wednesday := week.Wednesday
	monday := week.Date{Year: 2026, Month: 6, Day: 1}
	for i := range p.Activities {
		p.Activities[i].OtherwisePerHour = 0
		p.Activities[i].Blocks = []plan.RateBlock{{Hours: plan.Hours{Days: []week.Weekday{wednesday}, From: 480, To: 1200}, PerHour: 20}}
	}
	p.Site.SpecialDays = []plan.SpecialDay{{From: monday.Add(4), To: monday.Add(4), Name: "Fair", ActivityDay: &wednesday}}
	var days [7]int
	for _, e := range played(t, estimate.Figures(p, nil), Ask{From: monday, Days: 7, Seed: 5}).Events {
		if (e.Source == Wanted || e.Source == Nuisance) && e.Start >= 0 && e.Start < 7*Day {
			days[e.Start/Day]++
		}
	}
	for day, n := range days {
		if happens := day == 2 || day == 4; happens != (n > 50) || !happens && n > 0 {
			t.Errorf("%d events on day %d", n, day)
		}
	}
}

// TestWhatCannotBeRehearsed says so in words.
func TestWhatCannotBeRehearsed(t *testing.T) {
	p := busy(4)
	site := estimate.Figures(p, nil)
	for _, ask := range []Ask{{From: june}, {From: june, Days: 15}, {From: week.Date{Year: 1066, Month: 10, Day: 14}, Days: 1},
		{From: week.Date{Year: 3000, Month: 1, Day: 1}, Days: 1}} {
		if _, err := Play(context.Background(), site, ask); err == nil {
			t.Errorf("%+v was played", ask)
		}
	}
	p.Activities[0].OtherwisePerHour = 100_000
	many := new(TooManyError)
	if _, err := Play(context.Background(), estimate.Figures(p, nil), Ask{From: june, Days: 14}); !errors.As(err, &many) || many.Events < 1e8 {
		t.Errorf("%v", err)
	}
	stopped, stop := context.WithCancel(context.Background())
	stop()
	if _, err := Play(stopped, site, Ask{From: june, Days: 7}); err == nil {
		t.Error("it goes on after it was stopped")
	}
	none := busy(3)
	for i := range none.Channels {
		none.Channels[i].Activity = ""
	}
	if r := played(t, estimate.Figures(none, nil), Ask{From: june, Days: 1}); len(r.Events) != 0 {
		t.Errorf("%d events without activities", len(r.Events))
	}
}

// TestQuestions asks for moments, and how often; the odds must be those of the estimate.
func TestQuestions(t *testing.T) {
	p := plantest.Read(t, "../../internal/demo/pennywhistle-quay.json")
	p.Site.SpecialDays = nil
	site := estimate.Figures(p, nil)
	ask := Ask{From: june, Days: 2, Seed: 9}
	r := played(t, site, ask)
	for i := range r.Segments {
		for _, s := range r.Segments[i][:min(5, len(r.Segments[i]))] {
			if h := r.Have(i, s.From, s.From); h.Segment < 0 || h.Share != 1 && h.Why != AwayThen || h.Why == "" {
				t.Errorf("%+v of %+v", h, s)
			}
			if h := r.Have(i, s.From, s.To); h.Share < 1 && h.Why != AwayThen {
				t.Errorf("%+v of %+v", h, s)
			}
		}
	}
	// A channel on motion only: how often something is written at ten in the morning.
	i, at := -1, 10*Hour
	for k := range p.Channels {
		if g := site.DutyAt(k, r.DutyAt(k, at)).At(0); !p.Channels[k].NoCamera && !g.HasBase && site.Channels[k].TriggersPerDay > 20 {
			i = k
		}
	}
	if i < 0 {
		t.Skip("no channel is on motion only in the morning")
	}
	odds, err := OddsOf(context.Background(), site, ask, i, at, at)
	if err != nil || odds.Rehearsals != 200 {
		t.Fatalf("%+v, %v", odds, err)
	}
	written := 0.0
	for _, b := range site.Week(i) {
		if b.Span.From <= 600 && b.Span.To > 600 {
			written = b.Written
		}
	}
	if got := float64(odds.Full+odds.Low) / 200; math.Abs(got-written) > 5*math.Sqrt(written*(1-written)/200)+0.02 {
		t.Errorf("%s: %v of 200, expected %v", p.Channels[i].Name, got, written)
	}
	for _, g := range r.LongestGaps() {
		if h := r.Have(g.Channel, g.From, g.To); h.Share > 0 {
			t.Errorf("%+v has footage: %+v", g, h)
		}
	}
	if hour, missed := r.WorstHour(); missed > 0 {
		n := 0
		for _, e := range r.Events {
			if e.Fate == Missed && e.Start >= hour && e.Start < hour+Hour {
				n++
			}
		}
		if n != missed {
			t.Errorf("%d missed from %d, told %d", n, hour, missed)
		}
	}
}

// BenchmarkOdds plays a moment of one channel two hundred times.
func BenchmarkOdds(b *testing.B) {
	site := estimate.Figures(busy(192), nil)
	for b.Loop() {
		if _, err := OddsOf(context.Background(), site, Ask{From: june, Days: 7, Seed: 1}, 5, 30*Hour, 30*Hour); err != nil {
			b.Fatal(err)
		}
	}
}

// TestEveryEventHasAStory tells every event of a rehearsal, and holds its last step against its fate.
func TestEveryEventHasAStory(t *testing.T) {
	for _, file := range []string{"../estimate/testdata/plans/ties-of-every-kind.json", "../../internal/demo/pennywhistle-quay.json"} {
		p := plantest.Read(t, file)
		r := played(t, estimate.Figures(p, nil), Ask{From: june, Days: 2, Seed: 4})
		told := map[string]bool{}
		for n := range r.Events {
			story := r.Tell(n)
			if story.Sentence == "" || len(story.Steps) == 0 {
				t.Fatalf("%+v: %+v", r.Events[n], story)
			}
			for _, s := range story.Steps {
				told[s.Gate] = true
				if s.Words == "" || s.Words[len(s.Words)-1] != '.' {
					t.Errorf("%+v", s)
				}
			}
			if last := story.Steps[len(story.Steps)-1]; r.Events[n].Fate != "" &&
				(last.Gate != "fate" || last.Passed != (r.Events[n].Fate == Full)) {
				t.Errorf("%+v: %+v", r.Events[n], last)
			}
		}
		for _, gate := range []string{"noticed", "duty", "recorded", "message", "fate"} {
			if !told[gate] {
				t.Errorf("%s: no event tells of the gate %s", file, gate)
			}
		}
	}
}

// TestTwoTuesdaysAreToldApart tells a moment of one week and of two.
func TestTwoTuesdaysAreToldApart(t *testing.T) {
	site := estimate.Figures(busy(1), nil)
	for days, want := range map[int]string{7: "Tuesday 00:00:05", 14: "Tuesday 2 Jun 00:00:05"} {
		if got := played(t, site, Ask{From: june, Days: days}).Clock(Day + 5*Second); got != want {
			t.Errorf("%d days: %q, want %q", days, got, want)
		}
	}
}

// TestBeforeAndAfter holds two plans against each other over one week.
func TestBeforeAndAfter(t *testing.T) {
	p := plantest.Read(t, "../../internal/demo/pennywhistle-quay.json")
	before := played(t, estimate.Figures(p, nil), Ask{From: june, Days: 3, Seed: 2})
	if turned := before.Beside(before); len(turned) != 0 {
		t.Errorf("%d events turned against themselves", len(turned))
	}
	other := *p
	other.Channels = append([]plan.Channel(nil), p.Channels...)
	for i := range other.Channels {
		other.Channels[i].Detection.On = false
	}
	after := played(t, estimate.Figures(&other, nil), Ask{From: june, Days: 3, Seed: 2})
	lost := 0
	for _, x := range before.Beside(after) {
		if x.Before.Better(x.After) {
			lost++
		} else if x.After.Better(x.Before) {
			t.Errorf("%+v is better without detection", x)
		}
	}
	a, b := before.Sums(), after.Sums()
	if lost == 0 || a.Wanted != b.Wanted || a.Full <= b.Full || b.Unwanted != 0 || a.Gigabytes <= b.Gigabytes || a.Full+
		a.Low+a.Missed != a.Wanted {
		t.Errorf("%d lost; %+v, then %+v", lost, a, b)
	}
}
