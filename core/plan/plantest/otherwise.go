package plantest

import (
	"testing"

	"wakefield.example/core/plan"
)

// Otherwise is a plan in which much is entered that few enter: events on the small stream, what nothing happens in on the large one,
// odd seconds, cameras that are not sure to notice.
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
		c.PreSeconds, c.PostSeconds = c.PreSeconds/2+1, c.PostSeconds/2+3
		if c.Detection.On && i%2 == 0 {
			share := 0.7
			c.Detection.Reliability, c.Detection.MinSeconds = &share, c.Detection.MinSeconds+2
		}
	}
	return out
}
