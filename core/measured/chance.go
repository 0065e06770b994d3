package measured

import (
	"cmp"
	"math"
	"slices"

	"gonum.org/v1/gonum/mathext"
)

// countChance is the two-sided probability of a count that lies as far out, or further, where mean are expected with some variance:
// negative binomial, or Poisson where the variance is no more than the mean.
func countChance(n, mean, variance float64) float64 {
	if mean <= 0 {
		if n == 0 {
			return 1
		}
		return 0
	}
	below := func(n float64) float64 { // that there are so many or fewer
		switch {
		case n < 0:
			return 0
		case variance <= mean*1.0001:
			return mathext.GammaIncRegComp(n+1, mean)
		}
		return mathext.RegIncBeta(mean*mean/(variance-mean), n+1, mean/variance)
	}
	return min(1, 2*min(below(n), 1-below(n-1)))
}

// normalChance is that of something so many standard deviations off.
func normalChance(z float64) float64 { return math.Erfc(math.Abs(z) / math.Sqrt2) }

// level is how improbable something must be to be more than chance, over all that is compared at a site.
const level = 0.01

// holm tells which of several are more than chance, by Holm's rule: the k-th least likely of m is where it and those before are
// below level/(m − k + 1).
func holm(chances []float64) []bool {
	order := make([]int, len(chances))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(chances[a], chances[b]) })
	out := make([]bool, len(chances))
	for k, i := range order {
		if chances[i] > level/float64(len(order)-k) {
			break
		}
		out[i] = true
	}
	return out
}
