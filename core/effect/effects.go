// Package effect finds what the ties of a plan do beside recording, hour by hour: messages that go out or are held back, outputs
// and monitors, movable cameras that are sent away, snapshots, and the copy off site, whose clips queue for the uplink.
package effect

import (
	"wakefield.example/core/resolve"
)

// Effects are what the causes of a plan do beside recording.
type Effects struct {
	site   *resolve.Site
	played []*resolve.Played

	Messages []Told
	Outputs  []Switched
	Monitors []Shown
	Away     []*Absence // by channel; nil where nothing sends it
	Stills   []*Stills  // by channel; nil where it takes none
	Offsite  *Copied    // nil where nothing is copied

	alerts *alerts
	copies *copies // nil where nothing is copied
}

// Of finds what the causes of a site do, of whose channels the weeks were played. What does the same as in an earlier
// plan, which may be nil, is taken from there.
func Of(site *resolve.Site, played []*resolve.Played, earlier *Effects) *Effects {
	e := &Effects{site: site, played: played}
	e.findAlerts(earlier)
	e.findAbsences(earlier)
	e.findStills(earlier)
	e.findCopies(earlier)
	return e
}

// before is the place of a channel in an earlier plan in which all of them heard of the same.
func (e *Effects) before(earlier *Effects, channel string) (int, bool) {
	if earlier == nil || !e.site.HearsAsBefore(earlier.site) {
		return 0, false
	}
	i, ok := earlier.site.Channels[channel]
	return i, ok
}
