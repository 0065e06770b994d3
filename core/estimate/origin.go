package estimate

import (
	"wakefield/core/activity"
	"wakefield/core/plan"
)

// origin is where a process comes from, and how well it is known.
type origin struct {
	id         string
	known      string // "guess", "surveyed" or "measured"; empty for what the plan knows by itself
	group      activity.Group
	openGroups bool // a guess that does not say whether its events come in groups
	season     bool // whether nobody says what seasons do to it
}

// originOf is that of an activity; season is whether nobody says what seasons do to it.
func originOf(a *plan.Activity, season bool) origin {
	o := origin{id: a.ID, known: a.Known, group: a.Process().Group, season: season}
	if a.Known != "measured" && a.Known != "surveyed" {
		o.known = "guess"
		o.openGroups = a.Groups == nil && !o.group.Grouped() && a.MeanSeconds <= plan.MaxGroupedSeconds
	}
	return o
}

// rateKnown says how well the bitrate of a stream is known. The zero rateKnown is of a stream that the camera does not have.
type rateKnown struct {
	known    string // "guess", "datasheet", "surveyed" or "measured"
	modelled bool   // nothing is known of it but what a model says
	night    bool   // nobody has said what it comes to in the dark
}

func rateKnownOf(s *plan.Stream) rateKnown {
	out := rateKnown{known: s.Rate.Known, modelled: s.Rate.Kind == "modelled"}
	if out.known == "" {
		out.known = "guess"
	}
	out.night = s.Rate.Night == nil && (out.modelled || s.Rate.Kind == "variable" && s.Rate.Known == "datasheet")
	return out
}

// guessed tells whether it is a guess how reliably a channel notices what is in sight: nothing is stated, or what new
// channels have written in.
func guessed(c *plan.Channel) bool {
	d := &c.Detection
	switch {
	case c.NoCamera || !d.On || d.Catch != nil:
		return false
	case d.Reliability != nil:
		return *d.Reliability == plan.GuessedReliability
	}
	return d.Drawn()
}
