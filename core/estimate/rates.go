package estimate

import (
	"wakefield.example/core/doubt"
	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
	"wakefield.example/core/week"
)

// Rates is how often an activity happens over the week, and how far that may be off.
type Rates struct {
	Steps       []RateStep `json:"steps" doc:"The rate from each moment to the next"`
	PerDay      float64    `json:"perDay"`
	MostPerHour float64    `json:"mostPerHour" doc:"The highest rate"`
	OffBy       float64    `json:"offBy" doc:"Factor within which the rate lies four times out of five, either way"`
	OpenGroups  bool       `json:"openGroups" doc:"Whether it is left open if the events come in groups"`
}

// RateStep is a rate that holds from a minute of the week on.
type RateStep struct {
	From    week.Minute `json:"from" doc:"Minutes since Monday 00:00"`
	PerHour float64     `json:"perHour"`
}

// RatesOf tells how often an activity happens.
func RatesOf(a *plan.Activity) Rates {
	off := doubt.Of(resolve.OriginOf(a, false))
	out := Rates{PerDay: a.Process().PerDay(), OffBy: doubt.Factor(off.Rate), OpenGroups: off.OpenGroups}
	for run, perHour := range a.Rates().Runs() {
		out.Steps = append(out.Steps, RateStep{run.From, perHour})
		out.MostPerHour = max(out.MostPerHour, perHour)
	}
	return out
}
