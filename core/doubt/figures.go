package doubt

import (
	"math"

	"wakefield.example/core/activity"
	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
)

// Figures is an activity with how far its figures may be off: standard deviations of
// logarithms.
type Figures struct {
	resolve.Origin
	Rate, length float64
	size         float64 // of the group's size beyond 1; 0 where events come singly
}

// Of events that are a guess which does not speak of groups it is taken that half of
// all such activities have none. In the other half the size beyond 1 is half-normal with
// this standard deviation, so 2 in the middle; they are spread over so many seconds.
const (
	UnknownSize    = 1.5
	UnknownSeconds = 60
)

// Of is how far the figures of what comes from somewhere may be off.
func Of(o resolve.Origin) Figures {
	d := Figures{Origin: o}
	switch o.Known {
	case "":
		return d
	case "measured":
		d.Rate, d.length, d.size = spread(1.15), spread(1.1), spread(1.15)
	case "surveyed":
		d.Rate, d.length, d.size = spread(1.4), spread(1.25), spread(1.4)
	default:
		d.Rate, d.length, d.size = spread(2), spread(1.5), spread(2)
	}
	if stated := o.Doubt; stated != (plan.Doubt{}) {
		d.Rate, d.length, d.size = spread(stated.Rate), spread(stated.Seconds), spread(stated.Size)
	}
	if !o.Group.Grouped() {
		d.size = 0
	}
	return d
}

// Stated is how far its figures may be off as a plan states it: factors, at least 1.
func (f *Figures) Stated() plan.Doubt {
	return plan.Doubt{Rate: max(1, Factor(f.Rate)), Seconds: max(1, Factor(f.length)), Size: max(1, Factor(f.size))}
}

// doubtsOf are those of several.
func doubtsOf(list []resolve.Origin) []Figures {
	out := make([]Figures, len(list))
	for i, o := range list {
		out[i] = Of(o)
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
func (c *Figures) off(z [axes]float64) resolve.Factor {
	f := resolve.Factor{Rate: math.Exp(c.Rate * z[rateAxis]), Length: math.Exp(c.length * z[lengthAxis]), Group: c.Group}
	switch {
	case c.OpenGroups && z[groupAxis] > 0:
		f.Group = activity.Group{Size: 1 + UnknownSize*z[groupAxis], Seconds: UnknownSeconds}
	case c.size > 0:
		f.Group.Size = 1 + (c.Group.Size-1)*math.Exp(c.size*z[groupAxis])
	}
	return f
}

// spreadAlong is the standard deviation along an axis; 0 where the figure is certain, or
// not a figure.
func (c *Figures) spreadAlong(axis int) float64 {
	switch axis {
	case rateAxis:
		return c.Rate
	case lengthAxis:
		return c.length
	}
	return c.size
}
