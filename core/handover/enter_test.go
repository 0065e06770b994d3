package handover

import (
	"math/rand/v2"
	"strings"
	"testing"

	"wakefield.example/core/estimate"
	"wakefield.example/core/footage"
	"wakefield.example/core/picture"
	"wakefield.example/core/plan"
	"wakefield.example/core/seeded"
	"wakefield.example/core/week"
)

// TestNoOtherChoiceOfACellLosesLess gives every cell that was entered otherwise every other duty of its day: none loses less.
func TestNoOtherChoiceOfACellLosesLess(t *testing.T) {
	t.Parallel()
	tried := 0
	examples(t, func(name string, p *plan.Plan, _ *rand.Rand) {
		for i := range p.Recorders {
			p.Recorders[i].Takes = &plan.Takes{StepMinutes: 30}
		}
		s := estimate.Figures(p, nil)
		e := Enter(p, s)
		try := s.Alternatives(nil)
		for i := range p.Channels {
			planned, entered := p.WeekOf(&p.Channels[i]).Steps(), e.Plan.WeekOf(&e.Plan.Channels[i]).Steps()
			profiles := make(map[string]footage.Week)
			of := func(duty string) footage.Week {
				if _, ok := profiles[duty]; !ok {
					profiles[duty] = try.Profile(i, &p.Channels[i], duty)
				}
				return profiles[duty]
			}
			cost := func(duty string, from week.Minute) (l loss) {
				for run, at := range planned.Runs() {
					a, b := max(run.From, from), min(run.To, from+30)
					if a < b && at != duty {
						l = l.plus(worse(of(at), of(duty), week.Span{From: a, To: b}))
					}
				}
				return l
			}
			for from := week.Minute(0); from < week.Length; from += 30 {
				if planned.At(from) == planned.At(from+29) && entered.At(from) == planned.At(from) {
					continue
				}
				for _, period := range periodsOf(planned, from.Weekday()) {
					tried++
					if mine, other := cost(entered.At(from), from), cost(period.duty, from); other.less(mine) {
						t.Fatalf("%s: %s at %v: %s loses %+v, %s %+v", name, p.Channels[i].ID, from, entered.At(from), mine, period.duty, other)
					}
				}
			}
		}
	})
	if tried < 500 {
		t.Errorf("only %d choices were tried", tried)
	}
}

// FuzzStepsMakeThePlan plays the steps of a plan whose recorders take anything.
func FuzzStepsMakeThePlan(fuzz *testing.F) {
	f := seeded.Of(fuzz, 40)
	f.Add(uint64(1), uint8(0))
	f.Add(uint64(77), uint8(3))
	var plans []*plan.Plan
	examples(fuzz, func(_ string, p *plan.Plan, _ *rand.Rand) { plans = append(plans, p) })
	f.Fuzz(func(t *testing.T, seed uint64, which uint8) {
		p := *plans[int(which)%len(plans)]
		p.Recorders = append([]plan.Recorder(nil), p.Recorders...)
		random := rand.New(rand.NewPCG(seed, 1))
		for i := range p.Recorders {
			p.Recorders[i].Takes = takesOf(random)
		}
		e := Enter(&p, nil)
		if err := e.Plan.Check(); err != nil {
			t.Fatal(err)
		}
		for i := range e.Plan.Recorders {
			w := newWriter(e, i)
			sheet := SheetOf(e, i, nil, week.Date{Year: 2027, Month: 3, Day: 1})
			m := play(t, w.channels, "clock as delivered", sheet.Steps)
			w.compare(t, "fuzzed", m)
		}
	})
}

// TestEveryStepSaysWhenItIsRight asks it of all that is typed.
func TestEveryStepSaysWhenItIsRight(t *testing.T) {
	t.Parallel()
	steps := 0
	examples(t, func(name string, p *plan.Plan, _ *rand.Rand) {
		for _, r := range Sheets(Enter(p, nil), nil, week.Date{Year: 2027, Month: 3, Day: 1}).Recorders {
			for _, st := range r.Steps {
				if steps++; st.Entries > 0 && st.RightWhen == "" {
					t.Errorf("%s: %s %s", name, st.ID, st.Words)
				}
				if st.Words == "" || st.Section == "" {
					t.Errorf("%s: %+v", name, st)
				}
			}
		}
	})
	if steps < 1000 {
		t.Errorf("only %d steps", steps)
	}
}

// TestAreasWatchNoLess enters drawn areas on grids, and painted ones as polygons.
func TestAreasWatchNoLess(t *testing.T) {
	random := rand.New(rand.NewPCG(8, 15))
	inside := func(s picture.Shape, box picture.Box) float64 { return picture.NewRegion(s, nil).Within(box) }
	for range 120 {
		a := plan.Area{ID: "a", Name: "A", Ignore: random.IntN(2) == 0}
		columns, rows := 1+random.IntN(9), 1+random.IntN(7)
		cells := make([]bool, columns*rows)
		bits := make([]byte, (columns*rows+7)/8)
		for i := range cells {
			if cells[i] = random.IntN(5) < 2; cells[i] {
				bits[i/8] |= 1 << (7 - i%8)
			}
		}
		a.Cells = &plan.AreaCells{Columns: columns, Rows: rows, On: encoded(bits)}
		var out picture.Shape
		for _, points := range outlines(&a) {
			var polygon picture.Polygon
			for _, p := range points {
				polygon = append(polygon, picture.Point{X: p[0], Y: p[1]})
			}
			if err := polygon.Check(); err != nil {
				t.Fatalf("%v: %v", points, err)
			}
			out = append(out, polygon)
		}
		for i, on := range cells {
			x, y := float64(i%columns)/float64(columns), float64(i/columns)/float64(rows)
			box := picture.Box{Left: x, Top: y, Right: x + 1/float64(columns), Bottom: y + 1/float64(rows)}
			covered := 0.0
			for _, one := range out { // parts do not lie over one another
				covered += inside(picture.Shape{one}, box)
			}
			whole := covered > box.Area()*(1-1e-6)
			if on && !whole || !on && a.Ignore && covered > box.Area()*1e-6 {
				t.Fatalf("ignored %v, cell %d of %d × %d painted %v: %v of %v", a.Ignore, i, columns, rows, on, covered, box.Area())
			}
		}
		grid := plan.Area{ID: "g", Name: "G", Ignore: a.Ignore, Points: []plan.Point{{random.Float64() * 0.4, random.Float64() * 0.4},
			{0.6 + 0.4*random.Float64(), random.Float64() * 0.5}, {0.5 * random.Float64(), 0.6 + 0.4*random.Float64()}}}
		onto := plan.Area{ID: "g", Name: "G", Ignore: a.Ignore, Cells: onGrid(&grid, 11, 9)}
		for range 60 {
			x, y := random.Float64()*0.98, random.Float64()*0.98
			box := picture.Box{Left: x, Top: y, Right: x + 0.02, Bottom: y + 0.02}
			was, is := inside(grid.Shape(), box), inside(onto.Shape(), box)
			if !a.Ignore && is < was-1e-9 || a.Ignore && is > was+1e-9 {
				t.Fatalf("ignored %v: %v on the grid, %v drawn", a.Ignore, is, was)
			}
		}
	}
}

// TestWhatIsTakenAwayIsSaid asks what is said, and typed, of values that a channel copied from another does not have.
func TestWhatIsTakenAwayIsSaid(t *testing.T) {
	for name, want := range map[string]string{"sub.codec": "sub stream off", "alarmPreSeconds": "no own time before an alarm",
		"detection.minSeconds": "motion however short", "main.rate.maxKbps": "main stream no largest bitrate"} {
		if got := inOneSentence([]value{{name, unset, notSet(name)}}); got != want || goesByItself(name) {
			t.Errorf("%s: %q, goes by itself %v", name, got, goesByItself(name))
		}
	}
	for _, name := range []string{"sub.width", "third.rate.kind", "main.rate.kbps", "main.rate.quality"} {
		if !goesByItself(name) {
			t.Errorf("%s is typed", name)
		}
	}
	examples(t, func(name string, p *plan.Plan, _ *rand.Rand) {
		for i := range p.Channels {
			if c := &p.Channels[i]; i%2 == 0 {
				c.Streams.Sub = plan.PlainStream(plan.Sub)
			} else {
				c.Streams.Sub = nil
			}
		}
		for _, r := range Sheets(Enter(p, nil), nil, week.Date{Year: 2027, Month: 3, Day: 1}).Recorders {
			for _, st := range r.Steps {
				if strings.HasSuffix(st.Words, ": ") || strings.Contains(st.Words, ", ,") {
					t.Errorf("%s: %s %q says nothing", name, st.ID, st.Words)
				}
			}
		}
	})
}
