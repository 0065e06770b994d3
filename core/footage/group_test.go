package footage

import (
	"math"
	"testing"

	"wakefield.example/core/activity"
	"wakefield.example/core/video"
	"wakefield.example/core/week"
)

// inGroups is a happening of one activity in groups, recorded by its own motion.
func inGroups(perHour, n, s, d, pre, post, w, c float64, hours week.Steps[bool]) Happening {
	p := activity.New(week.Constant(perHour), d)
	p.Group = activity.Group{Size: n, Seconds: s}
	detection := activity.Detection{Hours: hours, MinSeconds: w, Catch: c}
	src := Source{Triggers: detection.Triggers(p), Pre: pre, Post: post, Events: p, Detection: detection}
	return Happening{Motion: []Source{src}, Own: []activity.Process{p}, Caught: []Source{src}, Tied: true, Wanted: p,
		Noticed: week.Map(hours, func(on bool) float64 {
			if on {
				return c * math.Exp(-w/d)
			}
			return 0
		})}
}

// activeAndWritten is read off a price: 1 kbit/s while something moves, else nothing.
var activeAndWritten = Regime{Admit: Motion, Event: video.Cost{Idle: 0, Active: 1}}

// TestGroupsAgreeWithPlayedOnes holds coverage, and what is active and written, against
// figures of a play-out of events in groups.
func TestGroupsAgreeWithPlayedOnes(t *testing.T) {
	for _, test := range []struct {
		perHour, n, s, d, pre, post, w, c float64
		covered, both                     float64 // percent
	}{
		{10, 4, 60, 15, 5, 20, 0, 1, 5.28, 2.96},
		{40, 3, 45, 20, 5, 30, 0, 1, 26.4, 14.8},
		{2, 6, 120, 10, 10, 60, 0, 1, 1.50, 0.45},
		{40, 3, 45, 20, 5, 30, 4, 0.8, 21.9, 13.6},
		{12, 5, 90, 8, 2, 15, 3, 0.7, 3.02, 1.64},
	} {
		happening := inGroups(test.perHour, test.n, test.s, test.d, test.pre, test.post, test.w, test.c, week.Constant(true))
		mean := cover(happening, week.Constant(activeAndWritten)).Mean()
		if math.Abs(100*mean.Written/test.covered-1) > 0.005 {
			t.Errorf("%+v: covered %.3f %%", test, 100*mean.Written)
		}
		if math.Abs(100*float64(mean.Motion)/test.both-1) > 0.015 {
			t.Errorf("%+v: active and written %.3f %%", test, 100*float64(mean.Motion))
		}
	}
}

// TestGroupsOfOneAreNone comes near to groups of one, which must come near to events by
// themselves.
func TestGroupsOfOneAreNone(t *testing.T) {
	hours := week.Constant(true).Paint(week.Span{From: 600, To: 900}, false)
	alone := inGroups(25, 1, 60, 20, 5, 30, 3, 0.9, hours)
	alone.Caught[0].Pre, alone.Caught[0].Post = 3, 0 // as events by themselves have it
	grouped := inGroups(25, 1+1e-9, 60, 20, 5, 30, 3, 0.9, hours)
	want, got := cover(alone, week.Constant(activeAndWritten)), cover(grouped, week.Constant(activeAndWritten))
	for i := range want {
		a, b := want[i], got[i]
		for name, pair := range map[string][2]float64{"written": {a.Written, b.Written}, "active": {float64(a.Motion), float64(b.Motion)},
			"full": {a.Full, b.Full}} {
			// A group begins up to its spread before its event, so edges are smeared by that.
			near := 0.002*pair[0] + 1e-6
			if a.Span.From >= 570 && a.Span.From <= 930 {
				near = 0.08*pair[0] + 2e-3
			}
			if math.Abs(pair[0]-pair[1]) > near {
				t.Errorf("%v %s: %v by itself, %v in groups of one", a.Span, name, pair[0], pair[1])
			}
		}
	}
}

// TestLargerGroupsCoverLess is why groups matter: the same events, closer together.
func TestLargerGroupsCoverLess(t *testing.T) {
	last := math.Inf(1)
	for _, n := range []float64{1, 1.5, 2, 4, 10, 100} {
		mean := cover(inGroups(40, n, 45, 20, 5, 30, 0, 1, week.Constant(true)), week.Constant(activeAndWritten)).Mean()
		if !(mean.Written < last) || mean.Written <= 0 {
			t.Errorf("groups of %v cover %v, smaller ones %v", n, mean.Written, last)
		}
		last = mean.Written
		if float64(mean.Motion) > mean.Written {
			t.Errorf("groups of %v: more is active and written than is written", n)
		}
	}
}

// TestExtremeGroupsHaveFigures tries the ends of what a plan may say.
func TestExtremeGroupsHaveFigures(t *testing.T) {
	for _, n := range []float64{1.01, 1000} {
		for _, s := range []float64{1, 21600} {
			for _, d := range []float64{0.1, 86400} {
				for _, post := range []float64{0, 86400} {
					mean := cover(inGroups(3, n, s, d, 0, post, 1, 0.5, week.Constant(true).Paint(week.Span{From: 0, To: 1}, false)),
						week.Constant(activeAndWritten)).Mean()
					if math.IsNaN(mean.Written) || mean.Written < -1e-12 || mean.Written > 1+1e-12 || math.IsNaN(float64(mean.Motion)) ||
						math.IsNaN(mean.Full) {
						t.Errorf("n %v, s %v, d %v, post %v: %+v", n, s, d, post, mean)
					}
				}
			}
		}
	}
}

// BenchmarkGroups is one channel whose activity, in groups, has another rate in every
// hour.
func BenchmarkGroups(b *testing.B) {
	steps := week.Constant(0.0)
	for h := range week.Minute(168) {
		steps = steps.Paint(week.Span{From: h * 60, To: h*60 + 60}, 1+float64(h%24))
	}
	p := activity.New(steps, 20)
	p.Group = activity.Group{Size: 3, Seconds: 45}
	src := Source{Triggers: p, Pre: 5, Post: 30, Events: p, Detection: activity.Always}
	happening := Happening{Motion: []Source{src}, Own: []activity.Process{p}, Caught: []Source{src}, Tied: true, Wanted: p,
		Noticed: week.Constant(1.0)}
	for b.Loop() {
		Play(happening, week.Constant(activeAndWritten))
	}
}

// TestGroupsBeforeShortHours has detection on for ten minutes at a time, shorter than a group is spread, and waits for a
// quarter of an hour: events that begin before the hours are noticed in them.
func TestGroupsBeforeShortHours(t *testing.T) {
	hours := week.Constant(false)
	for from := week.Minute(600); from < 640; from += 30 {
		hours = hours.Paint(week.Span{From: from, To: from + 10}, true)
	}
	rate := week.Constant(0.0).Paint(week.Span{From: 580, To: 590}, 40) // nothing but what begins before the hours
	happening := func(n float64) Happening {
		p := activity.New(rate, 3600)
		p.Group = activity.Group{Size: n, Seconds: 660}
		detection := activity.Detection{Hours: hours, MinSeconds: 900, Catch: 1}
		src := Source{Triggers: detection.Triggers(p), Pre: 5, Post: 30, Events: p, Detection: detection}
		return Happening{Motion: []Source{src},
			Own: []activity.Process{p}, Caught: []Source{src}, Tied: true, Wanted: p, Noticed: week.Constant(0.5)}
	}
	alone, grouped := cover(happening(1), week.Constant(activeAndWritten)).Mean(),
		cover(happening(1+1e-9), week.Constant(activeAndWritten)).Mean()
	if alone.Written < 1e-4 || grouped.Written < alone.Written/2 || grouped.Written > alone.Written*2 {
		t.Errorf("by itself %v, in groups of one %v", alone.Written, grouped.Written)
	}
}
