package activity

// HourRates are how many there are in each hour of the week.
type HourRates []float64

// Add counts a process in.
func (h HourRates) Add(p Process) {
	for i := range h {
		h[i] += p.Intensity.Count(3600*float64(i), 3600*float64(i+1))
	}
}

// NewHourRates are those of some processes together.
func NewHourRates(list ...Process) HourRates {
	h := make(HourRates, 168)
	for _, p := range list {
		h.Add(p)
	}
	return h
}
