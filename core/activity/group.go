package activity

// Group says that events come several at a time: a family, the vehicles off a ramp.
//
// λ stays the rate of events. Groups begin at rate λ/Size; a group has
// 1 + Poisson(Size − 1) events, each at an independent uniform offset within Seconds
// of its beginning. The zero Group, and Size 1, are events that come by themselves.
type Group struct {
	Size    float64 // mean events in a group, ≥ 1
	Seconds float64 // over how long they are spread, > 0
}

// Grouped tells whether events come together at all.
func (g Group) Grouped() bool { return g.Size > 1 && g.Seconds > 0 }
