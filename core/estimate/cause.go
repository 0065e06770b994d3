package estimate

import (
	"math"

	"wakefield/core/activity"
	"wakefield/core/resolve"
)

// A figure of an activity that is not measured is off by a factor of its own, wherever
// the activity is seen. The logarithm of the factor is normal; half of its variance is
// common to the site (see [CommonShare]).

// doubtful is an activity with how far its figures may be off: standard deviations of
// logarithms.
type doubtful struct {
	resolve.Origin
	rate, length float64
	size         float64 // of the group's size beyond 1; 0 where events come singly
}

// Of events that are a guess which does not speak of groups it is taken that half of
// all such activities have none. In the other half the size beyond 1 is half-normal with
// this standard deviation, so 2 in the middle; they are spread over so many seconds.
const (
	unknownSize    = 1.5
	unknownSeconds = 60
)

// doubtOf is how far the figures of what comes from somewhere may be off.
func doubtOf(o resolve.Origin) doubtful {
	d := doubtful{Origin: o}
	switch o.Known {
	case "":
		return d
	case "measured":
		d.rate, d.length, d.size = spread(1.15), spread(1.1), spread(1.15)
	case "surveyed":
		d.rate, d.length, d.size = spread(1.4), spread(1.25), spread(1.4)
	default:
		d.rate, d.length, d.size = spread(2), spread(1.5), spread(2)
	}
	if !o.Group.Grouped() {
		d.size = 0
	}
	return d
}

// doubtsOf are those of several.
func doubtsOf(list []resolve.Origin) []doubtful {
	out := make([]doubtful, len(list))
	for i, o := range list {
		out[i] = doubtOf(o)
	}
	return out
}

// Axes along which a cause may be off.
const (
	rateAxis = iota
	lengthAxis
	groupAxis
	axes
)

// off is the factor that so many standard deviations along each axis make.
func (c *doubtful) off(z [axes]float64) resolve.Factor {
	f := resolve.Factor{Rate: math.Exp(c.rate * z[rateAxis]), Length: math.Exp(c.length * z[lengthAxis]), Group: c.Group}
	switch {
	case c.OpenGroups && z[groupAxis] > 0:
		f.Group = activity.Group{Size: 1 + unknownSize*z[groupAxis], Seconds: unknownSeconds}
	case c.size > 0:
		f.Group.Size = 1 + (c.Group.Size-1)*math.Exp(c.size*z[groupAxis])
	}
	return f
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
