package plantest

import (
	"fmt"
	"testing"

	"wakefield.example/core/plan"
)

// Otherwise is a plan in which much is entered that few enter: events on the small stream, what nothing happens in on the large one,
// odd seconds, cameras that decide themselves, that are not sure to notice or do not look.
func Otherwise(t testing.TB, p *plan.Plan) *plan.Plan {
	t.Helper()
	turned := map[plan.StreamName]plan.StreamName{plan.Main: plan.Sub, plan.Sub: plan.Main, plan.Third: plan.Sub}
	out := Copy(t, p)
	for i := range out.Duties {
		d := &out.Duties[i]
		if d.Base != nil {
			d.Base.Stream = turned[d.Base.Stream]
		}
		if d.Event != nil {
			d.Event.Stream = turned[d.Event.Stream]
		}
	}
	for i := range out.Channels {
		c := &out.Channels[i]
		c.PreSeconds, c.PostSeconds, c.Address = c.PreSeconds/2+1, c.PostSeconds/2+3, fmt.Sprint("192.0.2.", i+10)
		if i%3 == 1 {
			c.StreamsBy = "camera"
		}
		if c.Detection.On && i%2 == 0 {
			share := 0.7
			c.Detection.Reliability, c.Detection.MinSeconds = &share, c.Detection.MinSeconds+2
		}
		c.Detection.On = c.Detection.On && i%5 != 4
	}
	return out
}
