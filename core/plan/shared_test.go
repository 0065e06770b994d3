package plan

import (
	"slices"
	"testing"
)

// TestWhatPlansShare changes one thing of a plan at a time, as edits do, and asks what the two still have in common.
func TestWhatPlansShare(t *testing.T) {
	p := example(t)
	channel := func(set func(c *Channel)) func(q *Plan) {
		return func(q *Plan) {
			q.Channels = slices.Clone(q.Channels)
			set(&q.Channels[1])
		}
	}
	for name, test := range map[string]struct {
		change                func(q *Plan)
		heard, alerts, stills bool
	}{
		"nothing":          {func(*Plan) {}, true, true, true},
		"a name":           {channel(func(c *Channel) { c.Name = "Other" }), true, true, true},
		"pre-event time":   {channel(func(c *Channel) { c.PreSeconds = 99 }), true, true, true},
		"detection":        {channel(func(c *Channel) { c.Detection.MinSeconds = 3 }), false, true, true},
		"no camera":        {channel(func(c *Channel) { c.NoCamera = true }), false, true, true},
		"another activity": {channel(func(c *Channel) { c.Activity = "yard" }), false, true, true},
		"shape of picture": {channel(func(c *Channel) {
			c.Streams.Main = c.Streams.Main.Clone()
			c.Streams.Main.Height = 2560
		}), false, true, true},
		"snapshots":        {channel(func(c *Channel) { c.Stills = nil }), true, true, false},
		"one channel less": {func(q *Plan) { q.Channels = q.Channels[:1] }, false, true, true},
		"activities":       {func(q *Plan) { q.Activities = slices.Clone(q.Activities) }, false, true, true},
		"effects":          {func(q *Plan) { q.Effects = q.Effects[:1] }, false, true, true},
		"messages":         {func(q *Plan) { q.Messages = q.Messages[:1] }, true, false, true},
		"outputs":          {func(q *Plan) { q.Outputs = slices.Clone(q.Outputs) }, true, false, true},
		"monitors":         {func(q *Plan) { q.Monitors = nil }, true, false, true},
	} {
		q := *p
		test.change(&q)
		if got := q.SharesWhatChannelsHear(p); got != test.heard {
			t.Errorf("%s: shares what channels hear: %v", name, got)
		}
		if got := q.SharesAlerts(p); got != test.alerts {
			t.Errorf("%s: shares alerts: %v", name, got)
		}
		if len(q.Channels) == len(p.Channels) && q.SharesStills(p) != test.stills {
			t.Errorf("%s: shares snapshots: %v", name, !test.stills)
		}
	}
}

// TestChannelsBeyondTheirRecorder record nothing, and nobody else's plan is changed for it.
func TestChannelsBeyondTheirRecorder(t *testing.T) {
	p := example(t)
	if p.Connected() != p {
		t.Error("a plan whose channels are all connected is another one")
	}
	few := *p
	few.Recorders = slices.Clone(p.Recorders)
	few.Recorders[0].Channels = 1
	if few.Beyond(0) || !few.Beyond(1) {
		t.Errorf("channel 1 is beyond one channel: %v; channel 2: %v", few.Beyond(0), few.Beyond(1))
	}
	c := few.Connected()
	if c.Channels[0].NoCamera || !c.Channels[1].NoCamera || few.Channels[1].NoCamera {
		t.Error("it is not channel 2 alone, in a plan of its own, that has no camera")
	}
	if again := c.Connected(); again != c {
		t.Error("a plan that is as connected is copied again")
	}
}
