// Package doubt tells how sure figures are. Every figure of a plan that is not measured may be off by a factor of its own: the
// logarithm is normal, its standard deviation that of what is known of it, half of the variance common to the site
// ([CommonShare]). A fixed number of sites is drawn ([Draws]), always the same ones, and of each it is found what its channels
// write ([Draw]) and how long its pools keep that ([DrawPool]); of these come the median and the range within which four of
// five lie ([Range]).
package doubt

import (
	"math"

	"wakefield.example/core/resolve"
)

// CommonShare is the part of every doubt, by the variance of the logarithm, that is
// common to the site: activities are all busier than was thought, or all quieter, to that
// extent, and streams all larger or smaller. The rest of it belongs to the activity,
// wherever it is seen, or to the channel whose streams they are.
const CommonShare = 0.5

// spread is the standard deviation of the logarithm of a figure whose 80 % range is
// ×/÷ factor: ln(factor) over the 90th percentile of the normal distribution.
func spread(factor float64) float64 { return math.Log(factor) / 1.2815515655446004 }

// Factor is the factor that a standard deviation of logarithms is the spread of.
func Factor(spread float64) float64 { return math.Exp(spread * 1.2815515655446004) }

// RateSpread tells how far a bitrate may be off. A figure typed as a guess is
// trusted more than the model, which knows nothing of the scene, one read off a camera
// on site a little less than a measured one.
func RateSpread(r resolve.RateKnown) float64 {
	switch {
	case r.Known == "":
		return 0 // there is no such stream
	case r.Modelled:
		return spread(1.8)
	case r.Known == "measured":
		return MeasuredSpread
	case r.Known == "surveyed":
		return spread(1.1)
	case r.Known == "datasheet":
		return spread(1.2)
	}
	return spread(1.5)
}

var MeasuredSpread = spread(1.05)
