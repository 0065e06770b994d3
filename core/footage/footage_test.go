package footage

import (
	"math"
	"testing"

	"wakefield.example/core/activity"
	"wakefield.example/core/video"
	"wakefield.example/core/week"
)

// busy alternates between quiet and crowded hours.
func busy(scale, mean float64) activity.Process {
	rate := week.Constant(2 * scale)
	for d := range week.Weekdays {
		day := week.Minute(d) * week.Day
		rate = rate.Paint(week.Span{From: day + 420, To: day + 540}, 60*scale)
		rate = rate.Paint(week.Span{From: day + 540, To: day + 1080}, 9*scale)
	}
	return activity.New(rate, mean)
}

var motionOnly = Regime{Admit: Motion, Event: video.Cost{Idle: 1000, Active: 4000}}

// byQuadrature integrates the covered share over the whole week in steps of half a
// second, with the integrals of the method written out as sums.
func byQuadrature(src Source) float64 {
	const step = 0.5
	const n = int(week.Seconds / step)
	τ := make([]float64, n)
	for i := range τ {
		τ[i] = src.Triggers.Intensity.At((float64(i) + 0.5) * step)
	}
	decay := math.Exp(-step / src.Triggers.Mean)
	y := 0.0
	going := make([]float64, n) // at the middle of each step
	for range 3 {
		for i := range τ {
			y = y*math.Sqrt(decay) + τ[i]*src.Triggers.Mean*(1-math.Sqrt(decay))
			going[i] = y
			y = y*math.Sqrt(decay) + τ[i]*src.Triggers.Mean*(1-math.Sqrt(decay))
		}
	}
	pre, post := int(src.Pre/step), int(src.Post/step)
	window := 0.0
	for k := -post; k < pre; k++ {
		window += τ[((k%n)+n)%n] * step
	}
	sum := 0.0
	for i := range τ {
		// The window is centred on the middle of step i by taking half of both ends.
		ahead, behind := τ[(i+pre)%n], τ[((i-post)%n+n)%n]
		sum += 1 - math.Exp(-(window + (ahead-behind)*step/2 + going[((i-post)%n+n)%n]))
		window += (ahead - behind) * step
	}
	return sum / float64(n)
}

func TestCoverIsExactToATenthOfAPercent(t *testing.T) {
	tests := []struct {
		name      string
		scale     float64
		mean      float64
		pre, post float64
	}{
		{"quiet door", 0.1, 20, 5, 15},
		{"hall", 1, 35, 10, 30},
		{"crowd", 20, 35, 10, 30},
		{"crush", 3000, 8, 5, 15},
		{"long stays", 0.2, 1800, 5, 60},
		{"blinks", 5, 1, 0, 0},
		{"a day's work", 0.01, 20000, 30, 600},
	}
	for _, test := range tests {
		src := Source{Triggers: busy(test.scale, test.mean), Pre: test.pre, Post: test.post}
		got := cover(Happening{Motion: []Source{src}}, week.Constant(motionOnly)).Mean()
		want := byQuadrature(src)
		if off := math.Abs(got.Written/want - 1); off > 0.001 {
			t.Errorf("%s: written %.6f, by quadrature %.6f: %.3f %% off", test.name, got.Written, want, 100*off)
		}
		if got.Written != got.Event {
			t.Errorf("%s: written %v, on events %v", test.name, got.Written, got.Event)
		}
	}
}

func TestConstantRateHasItsClosedForm(t *testing.T) {
	p := activity.New(week.Constant(30.0), 40)
	got := cover(Happening{Motion: []Source{{Triggers: p, Pre: 5, Post: 15}}}, week.Constant(motionOnly)).Mean()
	want := 1 - math.Exp(-30.0/3600*(5+15+40))
	if math.Abs(got.Written-want) > 1e-9 {
		t.Errorf("%v, want %v", got.Written, want)
	}
}

func TestAdmission(t *testing.T) {
	m, a := 1-math.Exp(-0.5), 1-math.Exp(-0.2)
	happening := Happening{
		Motion: []Source{{Triggers: activity.New(week.Constant(30.0), 40), Pre: 5, Post: 15}},
		Alarm:  []Source{{Triggers: activity.New(week.Constant(12.0), 30), Pre: 10, Post: 20}},
	}
	for admit, want := range map[Admit]float64{Nothing: 0, Motion: m, Alarm: a, Either: 1 - (1-m)*(1-a), Both: m * a} {
		r := Regime{Admit: admit, Event: video.Cost{Idle: 1000, Active: 1000}}
		if got := cover(happening, week.Constant(r)).Mean().Event; math.Abs(got-want) > 1e-9 {
			t.Errorf("admitting %d: %v, want %v", admit, got, want)
		}
		called := happening
		called.Call, r.Call = 0.25, video.Cost{Idle: 1000, Active: 1000}
		mean := cover(called, week.Constant(r)).Mean()
		if want := 1 - (1-want)*0.75; math.Abs(mean.Event-want) > 1e-9 || math.Abs(float64(mean.Total())/1000-want) > 1e-9 {
			t.Errorf("admitting %d, with a button: %v and %v kbit/s, want %v", admit, mean.Event, mean.Total(), want)
		}
	}
}

func TestBaseIsReplacedByTheEventLayer(t *testing.T) {
	src := Source{Triggers: activity.New(week.Constant(30.0), 40), Pre: 5, Post: 15}
	r := Regime{HasBase: true, Base: video.Cost{Idle: 100, Active: 100}, Admit: Motion, Event: video.Cost{Idle: 1000, Active: 1000}}
	mean := cover(Happening{Motion: []Source{src}}, week.Constant(r)).Mean()
	p := 1 - math.Exp(-0.5)
	if math.Abs(mean.Written-1) > 1e-9 || math.Abs(float64(mean.Base)-100*(1-p)) > 1e-6 || math.Abs(float64(mean.Motion)-1000*p) > 1e-6 {
		t.Errorf("%+v", mean)
	}
}

func TestRegimesBeginAndEndToTheMinute(t *testing.T) {
	full := Regime{HasBase: true, Base: video.Cost{Idle: 2000, Active: 2000}}
	w := cover(Happening{}, week.Constant(Regime{}).Paint(week.Span{From: 467, To: 468}, full))
	if b := w.At(467); b.Span != (week.Span{From: 467, To: 468}) || b.Base != 2000 || b.Written != 1 {
		t.Errorf("%+v", b)
	}
	if got := w.Mean().Written; math.Abs(got-1.0/10080) > 1e-12 {
		t.Errorf("written %v of the week", got)
	}
}

func TestExtremesStayFinite(t *testing.T) {
	for _, rate := range []float64{0, 1e-9, 1e6} {
		for _, mean := range []float64{0.1, 60, week.Seconds} {
			p := activity.New(week.Constant(rate).Paint(week.Span{From: 0, To: 1}, rate/2), mean)
			happening := Happening{Motion: []Source{{Triggers: p, Pre: 3600, Post: 86400}},
				Own: []activity.Process{p}, Caught: []Source{{Triggers: p}},
				Tied: true, Wanted: p, Noticed: week.Constant(1.0)}
			m := cover(happening, week.Constant(motionOnly)).Mean()
			for _, f := range []float64{m.Written, float64(m.Total()), m.Full, m.Missed} {
				if math.IsNaN(f) || math.IsInf(f, 0) || f < 0 {
					t.Fatalf("%v an hour of %v s: %+v", rate, mean, m)
				}
			}
			if m.Written > 1+1e-9 || m.Total() > 4000*(1+1e-9) {
				t.Errorf("%v an hour of %v s: more than all is written: %+v", rate, mean, m)
			}
		}
	}
}

// TestNoAllocationOnTheWay asks that a sweep along many edges allocates as little as
// one along few.
func TestNoAllocationOnTheWay(t *testing.T) {
	allocations := func(p activity.Process) float64 {
		happening := Happening{Motion: []Source{{Triggers: p, Pre: 5, Post: 15}},
			Own: []activity.Process{p}, Caught: []Source{{Triggers: p}}, Tied: true}
		return testing.AllocsPerRun(5, func() { cover(happening, week.Constant(motionOnly)) })
	}
	rate := week.Constant(1.0)
	for m := week.Minute(0); m < week.Length; m += 60 {
		rate = rate.Paint(week.Span{From: m, To: m + 60}, 1+float64(m/60%7))
	}
	few, many := allocations(activity.New(week.Constant(3.0), 20)), allocations(activity.New(rate, 20))
	if many > few {
		t.Errorf("%v allocations along 168 edges, %v along one", many, few)
	}
}

func BenchmarkCover(b *testing.B) {
	p := busy(1, 35)
	happening := Happening{Motion: []Source{{Triggers: p, Pre: 5, Post: 15}},
		Own: []activity.Process{p}, Caught: []Source{{Triggers: p}}, Tied: true}
	b.ReportAllocs()
	for b.Loop() {
		cover(happening, week.Constant(motionOnly))
	}
}

// cover is what is written of a happening, bin by bin.
func cover(happening Happening, regimes week.Steps[Regime]) Week {
	return Price(Play(happening, regimes), regimes)
}
