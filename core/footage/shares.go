package footage

import (
	"wakefield.example/core/video"
	"wakefield.example/core/week"
)

// Shares is how one bin's time divides among what can be written, before anything
// has a price. Channels that see the same and are planned alike share it, whatever
// their cameras cost.
type Shares struct {
	Span           week.Span
	Written, Event float64

	base, motion, alarm, call layer

	Full, Low, Missed float64
}

// layer is the share of time for which something is written, and the part of it in
// which something moves.
type layer struct{ written, moving float64 }

func (l *layer) add(weight, moving, written float64) {
	l.written += weight * written
	l.moving += weight * moving
}

// cost is the bitrate of the layer, averaged over the bin.
func (l layer) cost(c video.Cost) video.Kbps {
	return video.Kbps(l.moving)*c.Active + video.Kbps(max(0, l.written-l.moving))*c.Idle
}

// Stirred is the part of the week's time, 0 to 2, that depends on what happens: in which
// the event layer is written, and in which the base layer is while something moves.
func Stirred(shares []Shares) float64 {
	sum := 0.0
	for i := range shares {
		s := &shares[i]
		sum += (s.Event + s.base.moving) * float64(s.Span.Minutes())
	}
	return sum / float64(week.Length)
}

// Price turns shares into bitrates. The regimes must be those the shares were played with,
// but for their costs.
func Price(shares []Shares, regimes week.Steps[Regime]) Week {
	w := make(Week, len(shares))
	next := 0
	var r Regime
	for i := range shares {
		s := &shares[i]
		for next < len(regimes) && regimes[next].From <= s.Span.From {
			r = regimes[next].Value
			next++
		}
		var button video.Kbps
		if s.call.written > 0 {
			button = s.call.cost(r.Call)
		}
		w[i] = Bin{
			Span: s.Span, Written: s.Written, Event: s.Event,
			Base: s.base.cost(r.Base), Motion: s.motion.cost(r.Event), Alarm: s.alarm.cost(r.Event) + button, Call: button,
			Full: s.Full, Low: s.Low, Missed: s.Missed,
		}
	}
	return w
}
