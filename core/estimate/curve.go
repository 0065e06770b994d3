package estimate

import (
	"math"

	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
	"wakefield.example/core/video"
)

// Curve is what a stream costs, and what its frame rate and keyframe interval do to
// that where it is modelled.
type Curve struct {
	IdleKbps   float64      `json:"idleKbps"`
	ActiveKbps float64      `json:"activeKbps"`
	Night      *NightCost   `json:"night,omitempty" doc:"At night, where that differs"`
	ByFPS      []CurvePoint `json:"byFPS" doc:"At other frame rates; empty where the bitrate is not modelled"`
	ByGOP      []CurvePoint `json:"byGOP" doc:"At other keyframe intervals"`
	As         RateAs       `json:"as" doc:"The bitrate as one of each kind, with figures near those of the stream"`
}

// RateAs is a bitrate said in each of the ways there are.
type RateAs struct {
	Constant plan.Rate `json:"constant"`
	Variable plan.Rate `json:"variable"`
	Modelled plan.Rate `json:"modelled"`
}

// rateAs is the bitrate of a stream in each way: what is said of it already stays, the rest
// is what the stream comes to, or a medium quality.
func rateAs(r plan.Rate, cost video.Cost) RateAs {
	known := r.Known
	if known == "" {
		known = "guess"
	}
	whole := func(k video.Kbps) float64 { return max(1, math.Round(float64(k))) }
	idle := whole(cost.Idle)
	if r.Kind == string(video.Constant) {
		idle = max(1, math.Round(float64(cost.Active)/idleShare))
	}
	as := RateAs{
		Constant: plan.Rate{Kind: string(video.Constant), Kbps: whole(cost.Active), Known: known},
		Variable: plan.Rate{Kind: string(video.Variable), IdleKbps: idle, ActiveKbps: whole(cost.Active), Known: known, Night: r.Night},
		Modelled: plan.Rate{Kind: string(video.Modelled), Quality: 3, Scene: string(video.Moderate), Night: r.Night},
	}
	switch r.Kind {
	case string(video.Constant):
		as.Constant = r
	case string(video.Variable):
		as.Variable = r
	case string(video.Modelled):
		as.Modelled = r
	}
	return as
}

// idleShare is how many times what it sends while nothing moves an encoder of unknown
// habits is taken to send while something does, where only one figure is known.
const idleShare = 3

// NightCost is what a stream costs in the dark.
type NightCost struct {
	IdleKbps   float64 `json:"idleKbps"`
	ActiveKbps float64 `json:"activeKbps"`
}

// CurvePoint is the cost of a stream with one setting changed.
type CurvePoint struct {
	At         float64 `json:"at" doc:"Frames a second, or seconds"`
	IdleKbps   float64 `json:"idleKbps"`
	ActiveKbps float64 `json:"activeKbps"`
}

// CurveOf tells what a stream costs.
func CurveOf(s *plan.Stream) Curve {
	cost := resolve.Encoded(s).Cost()
	c := Curve{IdleKbps: float64(cost.Idle), ActiveKbps: float64(cost.Active), ByFPS: []CurvePoint{}, ByGOP: []CurvePoint{}, As: rateAs(s.Rate,
		cost)}
	if n := s.Rate.Night; n != nil {
		dark := resolve.Encoded(s)
		dark.Rate.Noise = n.Factor
		cost := dark.Cost()
		c.Night = &NightCost{float64(cost.Idle), float64(cost.Active)}
	}
	if s.Rate.Kind != string(video.Modelled) {
		return c
	}
	at := func(x float64, change func(*video.Stream)) CurvePoint {
		v := resolve.Encoded(s)
		change(&v)
		cost := v.Cost()
		return CurvePoint{x, float64(cost.Idle), float64(cost.Active)}
	}
	for _, fps := range []float64{1, 2, 4, 6, 8, 10, 12, 15, 20, 25, 30} {
		c.ByFPS = append(c.ByFPS, at(fps, func(v *video.Stream) { v.FPS = fps }))
	}
	for _, gop := range []float64{0.5, 1, 1.5, 2, 3, 4, 6, 8, 10} {
		c.ByGOP = append(c.ByGOP, at(gop, func(v *video.Stream) { v.GOPSeconds = gop }))
	}
	return c
}
