package estimate

import (
	"math"

	"wakefield/core/activity"
	"wakefield/core/plan"
)

// A figure of an activity that is not measured is off by a factor of its own, wherever
// the activity is seen. The logarithm of the factor is normal; half of its variance is
// common to the site (see [CommonShare]).

// doubtful is an activity with how far its figures may be off: standard deviations of
// logarithms.
type doubtful struct {
	id           string
	rate, length float64
	size         float64 // of the group's size beyond 1; 0 where events come singly
	group        activity.Group
	unknown      bool // a guess that does not say whether events come in groups
	season       bool // whether nobody says what seasons do to it
}

// Of events that are a guess which does not speak of groups it is taken that half of
// all such activities have none. In the other half the size beyond 1 is half-normal with
// this standard deviation, so 2 in the middle; they are spread over so many seconds.
const (
	unknownSize    = 1.5
	unknownSeconds = 60
)

// causeOf is how far the figures of an activity may be off; season is whether nobody says what seasons do to it.
func causeOf(a *plan.Activity, season bool) doubtful {
	c := doubtful{id: a.ID, group: a.Process().Group, season: season}
	switch a.Known {
	case "measured":
		c.rate, c.length, c.size = spread(1.15), spread(1.1), spread(1.15)
	case "surveyed":
		c.rate, c.length, c.size = spread(1.4), spread(1.25), spread(1.4)
	default:
		c.rate, c.length, c.size = spread(2), spread(1.5), spread(2)
	}
	if !c.group.Grouped() {
		c.size = 0
		c.unknown = a.Groups == nil && a.Known != "surveyed" && a.Known != "measured" && a.MeanSeconds <= plan.MaxGroupedSeconds
	}
	return c
}

// factor is how far the figures of one activity are off.
type factor struct {
	rate, length float64
	group        activity.Group
}

// Axes along which a cause may be off.
const (
	rateAxis = iota
	lengthAxis
	groupAxis
	axes
)

// off is the factor that so many standard deviations along each axis make.
func (c *doubtful) off(z [axes]float64) factor {
	f := factor{math.Exp(c.rate * z[rateAxis]), math.Exp(c.length * z[lengthAxis]), c.group}
	switch {
	case c.unknown && z[groupAxis] > 0:
		f.group = activity.Group{Size: 1 + unknownSize*z[groupAxis], Seconds: unknownSeconds}
	case c.size > 0:
		f.group.Size = 1 + (c.group.Size-1)*math.Exp(c.size*z[groupAxis])
	}
	return f
}

// of is a process with its figures off by the factor.
func (f factor) of(p activity.Process) activity.Process {
	p = p.Scale(f.rate)
	p.Mean *= f.length
	p.Group = f.group
	return p
}

// spreadAlong is the standard deviation along an axis; 0 where the figure is certain, or
// not a figure.
func (c *doubtful) spreadAlong(axis int) float64 {
	switch axis {
	case rateAxis:
		return c.rate
	case lengthAxis:
		return c.length
	}
	return c.size
}
