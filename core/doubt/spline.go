package doubt

import "gonum.org/v1/gonum/interp"

// spline interpolates a rising figure between the knots without overshooting; beyond
// them it stays as it is, as a draw four standard deviations out is one in sixteen
// thousand.
type spline struct {
	flat   bool
	value  float64
	smooth interp.FritschButland
}

func newSpline(values [len(knots)]float64) spline {
	s := spline{flat: true, value: values[0]}
	for _, v := range values {
		s.flat = s.flat && v == s.value
	}
	if !s.flat {
		if err := s.smooth.Fit(knots[:], values[:]); err != nil {
			panic("estimate: knots not ascending: " + err.Error())
		}
	}
	return s
}

func (s *spline) at(z float64) float64 {
	if s.flat {
		return s.value
	}
	return s.smooth.Predict(min(max(z, knots[0]), knots[len(knots)-1]))
}
