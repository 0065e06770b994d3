package solve

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// small is a random plan of few channels on one to three pools.
func small(rng *rand.Rand, channels int) *plan.Plan {
	p := &plan.Plan{
		Format: plan.Format, Name: "Small", Site: plan.Site{Name: "Small", TimeZone: "UTC"},
		Duties: []plan.Duty{
			{ID: "clock", Name: "Round the clock", Base: &plan.Base{Stream: plan.Main}},
			{ID: "motion", Name: "Motion only", Event: &plan.Event{Stream: plan.Main, On: []plan.Trigger{plan.Motion}}},
			{ID: "low", Name: "Low, then full", Base: &plan.Base{Stream: plan.Sub},
				Event: &plan.Event{Stream: plan.Main, On: []plan.Trigger{plan.Motion, plan.Alarm}}},
		},
		Activities: []plan.Activity{
			{ID: "a", Name: "Carts", Known: "surveyed", MeanSeconds: 20, OtherwisePerHour: 1 + 10*rng.Float64()},
			{ID: "b", Name: "Hands", Known: "surveyed", MeanSeconds: 40, OtherwisePerHour: 0.5,
				Blocks: []plan.RateBlock{{Hours: plan.Hours{From: 420, To: 1140}, PerHour: 20 * rng.Float64()}}},
		},
	}
	pools := 1 + rng.IntN(3)
	r := plan.Recorder{ID: "r", Name: "R", Channels: 32, IngestMbps: 500}
	for k := range pools {
		r.Pools = append(r.Pools, plan.Pool{ID: fmt.Sprint("p", k), Name: "P", Layout: "span",
			Drives: []plan.DriveGroup{{Count: 1, Terabytes: 0.3 + rng.Float64()}}})
	}
	p.Recorders = []plan.Recorder{r}
	for i := range channels {
		catch := 0.6 + 0.4*rng.Float64()
		c := plan.Channel{ID: fmt.Sprint("c", i), Number: i + 1, Name: fmt.Sprint("C", i), Recorder: "r", Pool: fmt.Sprint("p",
			rng.IntN(pools)), Group: []string{"Yard", "Hall", ""}[i%3],
			Streams: plan.Streams{
				Main: &plan.Stream{Codec: "h265", Width: 2560, Height: 1440, FPS: 15, GOPSeconds: 2,
					Rate: plan.Rate{Kind: "variable", IdleKbps: 800 + 800*rng.Float64(), ActiveKbps: 2500 + 2000*rng.Float64(), Known: "datasheet"}},
				Sub: &plan.Stream{Codec: "h264", Width: 640, Height: 360, FPS: 8, GOPSeconds: 2,
					Rate: plan.Rate{Kind: "constant", Kbps: 400, Known: "datasheet"}},
			},
			PreSeconds: 5, PostSeconds: 10 + 40*rng.Float64(), Activity: []string{"a", "b"}[rng.IntN(2)],
			Detection: plan.Detection{On: true, Catch: &catch}, Keep: plan.Keep{AtLeastDays: 20},
			Week: plan.WeekRef{Own: &plan.OwnWeek{Otherwise: []string{"clock", "low", "motion"}[rng.IntN(3)]}},
		}
		if rng.IntN(2) == 0 {
			c.Week.Own.Blocks = []plan.DutyBlock{{Hours: plan.Hours{Days: []week.Weekday{0, 1, 2, 3, 4}, From: 420, To: 1140}, Duty: "clock"}}
		}
		if rng.IntN(4) == 0 {
			c.Keep.AtMostDays = 25 + 20*rng.Float64()
		}
		if rng.IntN(4) == 0 {
			c.Streams.Main.Rate = plan.Rate{Kind: "modelled", Quality: 4, Scene: "moderate"}
		}
		p.Channels = append(p.Channels, c)
	}
	return p
}

func prepared(t testing.TB, p *plan.Plan) *Prepared {
	t.Helper()
	if err := p.Check(); err != nil {
		t.Fatal(err)
	}
	out, err := Prepare(context.Background(), p, estimate.Figures(p, nil), nil, nil)
	if err != nil {
		t.Fatal(err)
	}
	return out
}

// least tries every set of choices.
func (p *Prepared) least(ask *Ask) (loss float64, ok bool) {
	pools := p.pools()
	picks := make([]int, len(p.choices))
	loss = math.Inf(1)
	var try func(i int, lost float64)
	try = func(i int, lost float64) {
		if i < len(picks) {
			for k := range p.choices[i] {
				if p.allowed(ask, i, k) {
					picks[i] = k
					try(i+1, lost+p.loss(ask, i, &p.choices[i][k]))
				}
			}
			return
		}
		if lost >= loss {
			return
		}
		for k := range pools {
			if float64(p.days(&pools[k], picks)) < ask.Days*(1-1e-12) {
				return
			}
		}
		loss = lost
	}
	try(0, 0)
	return loss, !math.IsInf(loss, 1)
}

// TestTheAnswerIsWhatBruteForceFinds asks small plans for more days than they keep, with and without locks.
func TestTheAnswerIsWhatBruteForceFinds(t *testing.T) {
	rng := rand.New(rand.NewPCG(11, 12))
	reached, beyond := 0, 0
	for round := range 36 {
		p := prepared(t, small(rng, 2+rng.IntN(2)))
		ask := &Ask{LowCounts: DefaultLow, KeepFrames: round%5 == 4, WorsePictures: round%3 == 0,
			Matters: map[string]float64{"c0": 1 + 2*rng.Float64()}}
		frontier := p.Frontier(ask)
		most := frontier[len(frontier)-1].Days
		if !frontier[len(frontier)-1].Bounded {
			most = 3 * frontier[0].Days
		}
		ask.Days = frontier[0].Days + 1.1*rng.Float64()*(most-frontier[0].Days)
		if round%4 == 3 {
			ask.Locked = map[string]bool{"c1": true}
		}
		want, possible := p.least(ask)
		got, err := p.Answer(context.Background(), ask)
		if err != nil || got.Reached != possible {
			t.Fatalf("%d: reached %t, possible %t, %v", round, got.Reached, possible, err)
		}
		if !possible {
			beyond++
			continue
		}
		reached++
		if !got.Exact || math.Abs(got.Loss-want) > 1e-5 || got.Bounded && got.Days < ask.Days*(1-1e-9) {
			t.Errorf("%d: %v days lose %v, want %v days at %v", round, got.Days, got.Loss, ask.Days, want)
		}
	}
	if reached < 20 || beyond == 0 {
		t.Errorf("%d reached, %d beyond", reached, beyond)
	}
}

// TestEditsKeepWhatTheyPromise makes the edits of answers and of points on the frontier.
func TestEditsKeepWhatTheyPromise(t *testing.T) {
	rng := rand.New(rand.NewPCG(5, 6))
	for range 12 {
		plan := small(rng, 5)
		p := prepared(t, plan)
		ask := &Ask{LowCounts: DefaultLow}
		frontier := p.Frontier(ask)
		ask.Days = (frontier[0].Days + frontier[len(frontier)-1].Days) / 2
		answer, err := p.Answer(context.Background(), ask)
		if err != nil {
			t.Fatal(err)
		}
		before := p.site.Verdict.Evidence
		for _, at := range []*Point{&answer.Point, &frontier[len(frontier)/2], &frontier[len(frontier)-1]} {
			edits, changes := p.Edits(at)
			if len(edits) == 0 {
				continue
			}
			next, err := edit.After(plan, edits...)
			if err != nil {
				t.Fatal(err)
			}
			then := estimate.Figures(next, nil)
			lost := then.Verdict.Evidence.MissedPerDay - before.MissedPerDay + DefaultLow*(then.Verdict.Evidence.LowPerDay-before.LowPerDay)
			if math.Abs(then.Verdict.GigabytesPerDay-at.Gigabytes) > 1e-3*at.Gigabytes || math.Abs(lost-at.Loss) > 1e-3*(1+math.Abs(lost)) {
				t.Errorf("%v: %v GB a day, promised %v; %v lost, promised %v", changes, then.Verdict.GigabytesPerDay, at.Gigabytes, lost, at.Loss)
			}
			least := math.Inf(1)
			for _, pool := range then.Pools {
				if pool.RetentionDays != nil && pool.GigabytesPerDay > 0 {
					least = min(least, *pool.RetentionDays)
				}
			}
			if at.Bounded && math.Abs(least-at.Days) > 1e-3*at.Days {
				t.Errorf("%v: %v days, promised %v", changes, least, at.Days)
			}
		}
	}
}

// TestTheFrontierRises asks that more days cost more, that locks are obeyed, and that an answer is never worse than the way
// by slopes.
func TestTheFrontierRises(t *testing.T) {
	rng := rand.New(rand.NewPCG(21, 22))
	for range 8 {
		p := prepared(t, small(rng, 20))
		ask := &Ask{LowCounts: DefaultLow, Locked: map[string]bool{"c3": true, "c7": true}, KeepFrames: true}
		frontier := p.Frontier(ask)
		for k, at := range frontier {
			if k > 1 && (at.Days <= frontier[k-1].Days || at.Loss < frontier[k-1].Loss-1e-9) {
				t.Fatalf("%+v after %+v", at, frontier[k-1])
			}
			for i, pick := range at.picks {
				if pick != 0 && (ask.Locked[p.plan.Channels[i].ID] || p.choices[i][pick].frames || p.choices[i][pick].quality) {
					t.Fatalf("%s was changed: %v", p.plan.Channels[i].ID, p.choices[i][pick].Words)
				}
			}
		}
		at := frontier[len(frontier)*2/3]
		ask.Days = at.Days
		answer, err := p.Answer(context.Background(), ask)
		if err != nil || !answer.Reached || answer.Loss > at.Loss+1e-4 {
			t.Errorf("%v is lost for %v days, by slopes %v", answer.Loss, ask.Days, at.Loss)
		}
		for i, pick := range answer.picks {
			if pick != 0 && ask.Locked[p.plan.Channels[i].ID] {
				t.Error("a lock was broken")
			}
		}
		for _, lever := range p.Levers(ask) {
			if slices.ContainsFunc(lever.Channels, func(id string) bool { return ask.Locked[id] }) || lever.More <= 0 {
				t.Errorf("%+v", lever)
			}
		}
	}
}

// TestWhatCannotBeReached says the most, and which lock costs most; with nothing to change it says so too.
func TestWhatCannotBeReached(t *testing.T) {
	p := prepared(t, small(rand.New(rand.NewPCG(2, 9)), 4))
	all := map[string]bool{"c0": true, "c1": true, "c2": true, "c3": true}
	for _, ask := range []*Ask{{Days: 10_000, LowCounts: DefaultLow}, {Days: 10_000, Locked: all, LowCounts: DefaultLow}} {
		a, err := p.Answer(context.Background(), ask)
		if err != nil || a.Reached || a.Days <= 0 {
			t.Errorf("%+v, %v", a, err)
		}
		if ask.Locked != nil && (len(a.Edits) > 0 || a.Lock == "" || a.LockDays <= 0) {
			t.Errorf("%+v", a)
		}
	}
	if a, err := p.Answer(context.Background(), &Ask{Days: 0.001}); err != nil || !a.Reached || a.Loss > 1e-5 {
		t.Errorf("%+v, %v", a, err)
	}
	stopped, stop := context.WithCancel(context.Background())
	stop()
	if _, err := Prepare(stopped, p.plan, p.site, nil, nil); err == nil {
		t.Error("it goes on after it was stopped")
	}
	if _, err := p.Answer(stopped, &Ask{Days: 10}); err == nil {
		t.Error("it answers after it was stopped")
	}
	// Without activities there is no evidence to lose.
	none := small(rand.New(rand.NewPCG(2, 9)), 3)
	for i := range none.Channels {
		none.Channels[i].Activity = ""
	}
	q := prepared(t, none)
	if a, err := q.Answer(context.Background(), &Ask{Days: 2 * q.Frontier(&Ask{})[0].Days}); err != nil || math.Abs(a.Loss) > 1e-9 {
		t.Errorf("%+v, %v", a, err)
	}
}

// TestAnAskTwiceIsOneAnswer asks that the same comes twice, and that what is prepared once is used again.
func TestAnAskTwiceIsOneAnswer(t *testing.T) {
	plan := small(rand.New(rand.NewPCG(31, 9)), 12)
	p := prepared(t, plan)
	again, err := Prepare(context.Background(), plan, p.site, p, nil)
	if err != nil {
		t.Fatal(err)
	}
	if &again.choices[3][0] != &p.choices[3][0] {
		t.Error("choices are estimated anew")
	}
	ask := &Ask{LowCounts: DefaultLow}
	ask.Days = 1.4 * p.Frontier(ask)[0].Days
	a, _ := p.Answer(context.Background(), ask)
	b, _ := prepared(t, plan).Answer(context.Background(), ask)
	if fmt.Sprint(a.Changes, a.Point) != fmt.Sprint(b.Changes, b.Point) {
		t.Errorf("%v and %v", a.Changes, b.Changes)
	}
}

// TestAlarmsAreStillHeard asks that no choice stops listening to alarms.
func TestAlarmsAreStillHeard(t *testing.T) {
	p := small(rand.New(rand.NewPCG(4, 4)), 3)
	p.Duties = append(p.Duties, plan.Duty{ID: "either", Name: "Motion or alarm",
		Event: &plan.Event{Stream: plan.Main, On: []plan.Trigger{plan.Motion, plan.Alarm}}})
	for i := range p.Channels {
		p.Channels[i].Week = plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "low"}}
	}
	tried := 0
	found := prepared(t, p)
	all := slices.Concat(p.Duties, found.duties)
	for _, list := range found.choices {
		for _, choice := range list {
			for _, e := range choice.Edits {
				if e.Paint != nil {
					tried++
					k := slices.IndexFunc(all, func(d plan.Duty) bool { return d.ID == e.Paint.Duty })
					if to := all[k].Event; to == nil || !slices.Contains(to.On, plan.Alarm) {
						t.Errorf("%v", choice.Words)
					}
				}
			}
		}
	}
	if tried == 0 {
		t.Error("nothing was painted")
	}
}

// TestSettingsOfTheHour offers a step of quality where worse pictures are allowed, and says how doubtful it is what fewer frames of
// a modelled stream save.
func TestSettingsOfTheHour(t *testing.T) {
	p := small(rand.New(rand.NewPCG(4, 4)), 1)
	p.Duties = []plan.Duty{{ID: "clock", Name: "Round the clock", Base: &plan.Base{Stream: plan.Main}}}
	p.Channels[0].Week = plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "clock"}}
	main := *p.Channels[0].Streams.Main
	main.FPS, main.Rate = 25, plan.Rate{Kind: "modelled", Quality: 4, Scene: "moderate"}
	p.Channels[0].Keep = plan.Keep{}
	p.Channels[0].Streams.Main = &main
	found := prepared(t, p)
	for _, allowed := range []bool{true, false} {
		worse, frames := 0, 0
		for _, l := range found.Levers(&Ask{WorsePictures: allowed, LowCounts: DefaultLow}) {
			switch words := strings.Join(l.Words, "; "); {
			case strings.Contains(words, "quality a step lower"):
				worse++
			case strings.Contains(words, "12 frames"):
				frames++
				if l.Range == nil || !(l.Range.LeastPercent < l.Range.MostPercent) || l.Range.LeastPercent < 0 || l.Range.MostPercent > 100 {
					t.Errorf("%s saves %v", words, l.Range)
				}
			}
		}
		if (worse > 0) != allowed || frames == 0 {
			t.Errorf("worse pictures allowed %t: %d offers of them, %d of fewer frames", allowed, worse, frames)
		}
	}
}

// BenchmarkDepot is 192 channels on six pools.
func BenchmarkDepot(b *testing.B) {
	rng := rand.New(rand.NewPCG(1, 1))
	p := small(rng, 192)
	p.Recorders[0].Channels = 192
	site := estimate.Figures(p, nil)
	made, err := Prepare(context.Background(), p, site, nil, nil)
	if err != nil {
		b.Fatal(err)
	}
	n := 0
	for _, list := range made.choices {
		n += len(list)
	}
	b.Run("prepare", func(b *testing.B) {
		for b.Loop() {
			Prepare(context.Background(), p, site, nil, nil)
		}
		b.ReportMetric(float64(n)/192, "choices")
	})
	ask := &Ask{LowCounts: DefaultLow, Locked: map[string]bool{"c3": true}}
	frontier := made.Frontier(ask)
	ask.Days = (frontier[0].Days + frontier[len(frontier)-1].Days) / 2
	b.Run("frontier", func(b *testing.B) {
		for b.Loop() {
			made.Frontier(ask)
		}
	})
	b.Run("levers", func(b *testing.B) {
		for b.Loop() {
			made.Levers(ask)
		}
	})
	b.Run("answer", func(b *testing.B) {
		for b.Loop() {
			made.Answer(context.Background(), ask)
		}
	})
}
