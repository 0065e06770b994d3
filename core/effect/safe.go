package effect

// Safe is within how many seconds after an event its footage is off site.
type Safe struct {
	IdleSeconds float64 // with the uplink open and idle

	// On average, of nine in ten events and of 99 in 100; nil where the uplink never catches up.
	MeanSeconds, NinetySeconds, WorstSeconds *float64

	// Share of the events that are safe later than a person needs to take the recorder; nil where nobody says how long that is,
	// and where the uplink never catches up.
	LatePercent *float64
}

// Safe is when footage of channel i is; nil where none is copied.
func (e *Effects) Safe(i int) *Safe {
	if e.copies == nil || e.copies.channel[i] == nil {
		return nil
	}
	of := &e.copies.played.Channels[i]
	if of.Clips == 0 {
		return nil
	}
	out := &Safe{IdleSeconds: of.Idle}
	if e.copies.grows {
		return out
	}
	out.MeanSeconds, out.NinetySeconds, out.WorstSeconds = &of.Mean, &of.Ninety, &of.Worst
	if within := e.site.Plan.Offsite.TakenWithinSeconds; within > 0 {
		late := 100 * of.Later(within)
		out.LatePercent = &late
	}
	return out
}

// isLate tells whether so many events, in %, are safe too late that their channel is.
func isLate(percent float64) bool { return percent > 1 }
