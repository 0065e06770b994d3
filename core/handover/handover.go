// Package handover takes a plan to the recorders: what can be entered there in place of what is planned, what a fitter types,
// in which order and how often, and what is to be seen when it is right.
//
// [Enter] makes of a plan the plan as its recorders take it (plan.Takes). Of every channel and day the cells of the recorder's
// step get one of the duties that hold on that day, in as many periods as it takes, so that least is lost: first wanted events
// that the duty entered keeps worse than the planned one (one that is missed counts 1, one that is kept low ½), then GB
// written beyond the plan, then minutes under another duty than planned, then the number of periods. Seconds go up to
// the next that can be chosen, frame rates and sensitivity too; areas become cells, or cells areas, so that no less is
// watched. Whatever is otherwise is a [Departure].
//
// [Sheets] makes of that the steps of each recorder. Typing a period of a day is an entry, so is a value, and so is copying a
// day to other days or a section of a channel to other channels. The order with the fewest entries is found by [fewest].
package handover

import (
	"fmt"
	"slices"

	"wakefield.example/core/plan"
)

// Kind is what of a plan cannot be entered as it is.
type Kind string

// Kinds of departures.
const (
	Times       Kind = "times"       // edges of a week stand on other times
	Periods     Kind = "periods"     // a day changes less often
	Layers      Kind = "layers"      // a duty has one layer in place of two
	Seconds     Kind = "seconds"     // pre- and post-event times
	Frames      Kind = "frames"      // frame rates of streams and duties
	Sensitivity Kind = "sensitivity" // of areas
	Outlines    Kind = "outlines"    // areas on a grid, or cells as polygons
	AreaHours   Kind = "areaHours"   // hours and durations of single areas
)

// Kinds are all kinds, in the order in which they are entered.
var Kinds = []Kind{Times, Periods, Layers, Seconds, Frames, Sensitivity, Outlines, AreaHours}

// Departure is something that is entered otherwise than planned.
type Departure struct {
	Kind     Kind   `json:"kind" enum:"times,periods,layers,seconds,frames,sensitivity,outlines,areaHours"`
	Recorder string `json:"recorder" doc:"Id"`
	Channel  string `json:"channel" doc:"Id"`
	Planned  string `json:"planned" doc:"In words"`
	Entered  string `json:"entered" doc:"In words"`
}

// Entered is a plan as its recorders take it.
type Entered struct {
	Plan       *plan.Plan
	Departures []Departure // by channel, in the order of the plan

	weeks map[string]map[string]dayWeek // of named weeks on special days, by recorder
}

// Differs tells whether anything is entered otherwise than planned.
func (e *Entered) Differs() bool { return len(e.Departures) > 0 }

// Of are the departures of a kind.
func (e *Entered) Of(kind Kind) (out []Departure) {
	for _, d := range e.Departures {
		if d.Kind == kind {
			out = append(out, d)
		}
	}
	return out
}

// Likeness are departures of a recorder that read the same on several channels.
type Likeness struct {
	Words    string   `json:"words" doc:"What becomes of what, and on which channels"`
	Channels []string `json:"channels" doc:"Ids"`
}

// Alike are the departures of a recorder, those that read the same as one, by the numbers of their channels.
func (e *Entered) Alike(recorder string) (out []Likeness) {
	of := make(map[string][]*plan.Channel)
	var order []string
	for _, d := range e.By(recorder) {
		words := d.Planned + " becomes " + d.Entered
		if of[words] == nil {
			order = append(order, words)
		}
		of[words] = append(of[words], e.Plan.Channel(d.Channel))
	}
	for _, words := range order {
		list := of[words]
		slices.SortStableFunc(list, func(a, b *plan.Channel) int { return a.Number - b.Number })
		l := Likeness{Words: fmt.Sprintf("%s: %s", numbers(list), words)}
		for _, c := range list {
			l.Channels = append(l.Channels, c.ID)
		}
		out = append(out, l)
	}
	return out
}

// By are the departures on a recorder.
func (e *Entered) By(recorder string) (out []Departure) {
	for _, d := range e.Departures {
		if d.Recorder == recorder {
			out = append(out, d)
		}
	}
	return out
}
