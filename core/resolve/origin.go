package resolve

import (
	"wakefield.example/core/activity"
	"wakefield.example/core/plan"
)

// Origin is where a process comes from, and how well it is known.
type Origin struct {
	ID         string
	Known      string // "guess", "surveyed" or "measured"; empty for what the plan knows by itself
	Group      activity.Group
	OpenGroups bool       // a guess that does not say whether its events come in groups
	Season     bool       // whether nobody says what seasons do to it
	Doubt      plan.Doubt // what is stated of how far its figures may be off; zero where nothing is
}

// OriginOf is that of an activity; season is whether nobody says what seasons do to it.
func OriginOf(a *plan.Activity, season bool) Origin {
	o := Origin{ID: a.ID, Known: a.Known, Group: a.Process().Group, Season: season, Doubt: plan.Or(a.Doubt, plan.Doubt{})}
	if a.Known != "measured" && a.Known != "surveyed" {
		o.Known = "guess"
		o.OpenGroups = a.Groups == nil && !o.Group.Grouped() && a.MeanSeconds <= plan.MaxGroupedSeconds
	}
	return o
}

// RateKnown says how well the bitrate of a stream is known. The zero rateKnown is of a stream that the camera does not have.
type RateKnown struct {
	Known       string // "guess", "datasheet", "surveyed" or "measured"
	Modelled    bool   // nothing is known of it but what a model says
	NightUnsaid bool   // nobody has said what it comes to in the dark
}

func RateKnownOf(s *plan.Stream) RateKnown {
	out := RateKnown{Known: s.Rate.Known, Modelled: s.Rate.Kind == "modelled"}
	if out.Known == "" {
		out.Known = "guess"
	}
	out.NightUnsaid = s.Rate.Night == nil && (out.Modelled || s.Rate.Kind == "variable" && s.Rate.Known == "datasheet")
	return out
}

// Guessed tells whether it is a guess how reliably a channel notices what is in sight: nothing is stated, or what new
// channels have written in.
func Guessed(c *plan.Channel) bool {
	d := &c.Detection
	switch {
	case c.NoCamera || !d.On || d.Catch != nil:
		return false
	case d.Reliability != nil:
		return *d.Reliability == plan.GuessedReliability
	}
	return d.Drawn()
}
