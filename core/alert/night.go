package alert

// Night is from 22:00 to 06:00.
const (
	nightFrom, nightTo = 22, 6
	NightHours         = 24 - nightFrom + nightTo
)

// Night tells whether an hour of the week lies in the night.
func Night(hour int) bool { return hour%24 >= nightFrom || hour%24 < nightTo }

// NightPerDay is the amount of a mean night.
func (h *Hours) NightPerDay() (n float64) {
	for k, v := range h {
		if Night(k) {
			n += v / 7
		}
	}
	return n
}

// Held is the share of each hour in which something is on that begins so often and is on for some seconds each time.
func (h *Hours) Held(seconds float64) (on Hours) {
	const parts = 12
	for k, n := range h {
		for p := range parts {
			from := 3600 * (float64(k) + (float64(p)+0.5)/parts)
			add(&on, from, from+seconds, n/parts*seconds/3600)
		}
	}
	return on
}
