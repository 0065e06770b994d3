package footage

// Evidence is the fate of the wanted events of a day.
type Evidence struct {
	EventsPerDay float64 `json:"eventsPerDay"`
	FullPerDay   float64 `json:"fullPerDay" doc:"Kept at full quality: as the event layer would write it, whichever layer does"`
	LowPerDay    float64 `json:"lowPerDay" doc:"Kept at a lower quality"`
	MissedPerDay float64 `json:"missedPerDay" doc:"Nothing is recorded"`

	// The same as shares of the events; all zero where there are none.
	FullPercent   float64 `json:"fullPercent"`
	LowPercent    float64 `json:"lowPercent"`
	MissedPercent float64 `json:"missedPercent"`

	KeptPercent float64 `json:"keptPercent" doc:"Share of the events of which something is on disk; 100 where there are none"`
}

// EvidenceOf is the evidence of events a day by their fate.
func EvidenceOf(full, base, missed float64) Evidence {
	e := Evidence{EventsPerDay: full + base + missed, FullPerDay: full, LowPerDay: base, MissedPerDay: missed, KeptPercent: 100}
	if e.EventsPerDay > 0 {
		e.FullPercent, e.LowPercent, e.MissedPercent = 100*full/e.EventsPerDay, 100*base/e.EventsPerDay, 100*missed/e.EventsPerDay
		e.KeptPercent = 100 - e.MissedPercent
	}
	return e
}

// Plus is the evidence of both.
func (e Evidence) Plus(f Evidence) Evidence {
	return EvidenceOf(e.FullPerDay+f.FullPerDay, e.LowPerDay+f.LowPerDay, e.MissedPerDay+f.MissedPerDay)
}

// Minus is the change since earlier; of the shares, in percentage points.
func (e Evidence) Minus(earlier Evidence) Evidence {
	return Evidence{
		e.EventsPerDay - earlier.EventsPerDay, e.FullPerDay - earlier.FullPerDay, e.LowPerDay - earlier.LowPerDay,
		e.MissedPerDay - earlier.MissedPerDay,
		e.FullPercent - earlier.FullPercent, e.LowPercent - earlier.LowPercent, e.MissedPercent - earlier.MissedPercent,
		e.KeptPercent - earlier.KeptPercent,
	}
}
