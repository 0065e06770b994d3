package activity

import (
	"math"
	"slices"

	"wakefield.example/core/week"
)

// Detection turns events into triggers.
type Detection struct {
	Hours      week.Steps[bool] // when detection is on
	MinSeconds float64          // w: shorter events are ignored
	Catch      float64          // c: chance that an event long enough is noticed, 0 to 1
}

// Notices is the chance that an event of some mean length, in seconds, becomes a trigger
// in detection hours: c · exp(−w/d).
func (d Detection) Notices(meanSeconds float64) float64 {
	return d.Catch * math.Exp(-d.MinSeconds/meanSeconds)
}

// Always is detection that is on all week and misses nothing.
var Always = Detection{Hours: week.Constant(true), Catch: 1}

// Triggers returns the triggers that the detection makes of a process: an event
// becomes one when it lasts at least w, the instant start + w lies in the detection
// hours, and it is noticed. The trigger begins at start + w and ends with the event:
//
//	τ(u) = c · exp(−w/d) · λ(u − w) · h(u)
//
// with remaining lengths of the same mean d. Triggers of events that come in groups
// come together too, but not as a group of their own: who needs more than their rate
// asks for the events.
func (d Detection) Triggers(p Process) Process {
	kept := d.Notices(p.Mean)
	if d.MinSeconds == 0 && len(d.Hours) == 1 && d.Hours[0].Value {
		if kept == 1 {
			return p
		}
		return p.Scale(kept)
	}
	late := math.Mod(d.MinSeconds, week.Seconds)

	var cuts []float64
	for _, e := range p.Intensity.edges {
		cuts = append(cuts, math.Mod(e+late, week.Seconds))
	}
	for run := range d.Hours.Runs() {
		cuts = append(cuts, float64(run.From)*60)
	}
	slices.Sort(cuts)

	out := Intensity{}
	for _, t := range slices.Compact(cuts) {
		before := t - late
		if before < 0 {
			before += week.Seconds
		}
		rate := 0.0
		if d.Hours.At(week.Minute(t / 60)) {
			rate = kept * p.Intensity.At(before)
		}
		if n := len(out.rates); n > 0 && out.rates[n-1] == rate {
			continue
		}
		out.edges = append(out.edges, t)
		out.rates = append(out.rates, rate)
	}
	return Process{out, p.Mean, p.Group}
}

// Equal tells whether two detections are the same.
func (d Detection) Equal(o Detection) bool {
	return d.MinSeconds == o.MinSeconds && d.Catch == o.Catch && slices.Equal(d.Hours, o.Hours)
}
