package check

import (
	"strings"
	"testing"

	"wakefield.example/core/plan"
)

// TestWhatIsNotWorse has duties in which an event is recorded otherwise than what is between events, and as well.
func TestWhatIsNotWorse(t *testing.T) {
	for name, test := range map[string]struct {
		base  plan.Base
		event plan.Event
		by    string
		found bool
	}{
		"more frames":           {plan.Base{Stream: plan.Main, FPS: 5}, plan.Event{Stream: plan.Main}, "", false},
		"as many as there are":  {plan.Base{Stream: plan.Main}, plan.Event{Stream: plan.Main, FPS: 20}, "", false},
		"fewer frames":          {plan.Base{Stream: plan.Main}, plan.Event{Stream: plan.Main, FPS: 14}, "", true},
		"the camera decides":    {plan.Base{Stream: plan.Main}, plan.Event{Stream: plan.Main, FPS: 5}, "camera", false},
		"keyframes":             {plan.Base{Stream: plan.Main, KeyframesOnly: true}, plan.Event{Stream: plan.Sub}, "", false},
		"a stream it has not":   {plan.Base{Stream: plan.Main}, plan.Event{Stream: plan.Third}, "", false},
		"a larger picture":      {plan.Base{Stream: plan.Sub}, plan.Event{Stream: plan.Main, FPS: 1}, "", false},
		"a smaller picture":     {plan.Base{Stream: plan.Main, FPS: 1}, plan.Event{Stream: plan.Sub}, "camera", true},
		"lower settings":        {plan.Base{Stream: plan.Main}, plan.Event{Stream: plan.Main, Settings: plan.Settings{Percent: 80}}, "", true},
		"as low as between":     {plan.Base{Stream: plan.Main, Settings: plan.Settings{Quality: -1}}, plan.Event{Stream: plan.Main}, "", false},
		"nobody has it entered": {plan.Base{Stream: plan.Main}, plan.Event{Stream: plan.Sub}, "none", false},
	} {
		p := soundPlan(t)
		test.event.On = []plan.Trigger{plan.Motion}
		p.Duties[4].Base, p.Duties[4].Event = &test.base, &test.event
		if test.by != "none" {
			p.Channels[0].Week, p.Channels[0].StreamsBy = own("low"), test.by
		}
		if f := find(findings(p), "worse-in-events"); (f != nil) != test.found {
			t.Errorf("%s: %+v", name, f)
		} else if name == "lower settings" && !strings.HasSuffix(f.Sentence, "worse than what is between events: a lower bitrate.") {
			t.Error(f.Sentence)
		}
	}
}
