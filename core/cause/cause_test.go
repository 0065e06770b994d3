package cause

import (
	"testing"

	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/week"
)

func TestWhatCausesWhat(t *testing.T) {
	p := plantest.Whole(t)
	c := Of(p)
	hours := func(s week.Steps[bool]) float64 { return 168 * s.Share(func(on bool) bool { return on }) }
	for name, test := range map[string]struct {
		ties []Tie
		want []Kind
	}{
		"yard records":     {c.Records[0], []Kind{Motion, Alarm}},
		"gate records":     {c.Records[1], []Kind{Motion, Alarm, Motion}},
		"held by buttons":  {c.Held[1], []Kind{Button}},
		"night phone":      {c.Messages[0], []Kind{Alarm, Motion, Lost, Tampered}},
		"office":           {c.Messages[1], []Kind{Motion}},
		"lamp":             {c.Outputs[0], []Kind{Motion}},
		"lodge":            {c.Monitors[0], []Kind{Motion, Button}},
		"stills of gate":   {c.Stills[1], []Kind{Motion, Alarm}},
		"off site of gate": {c.Offsite[1], []Kind{Alarm}},
		"nothing of yard":  {c.Offsite[0], nil},
	} {
		if len(test.ties) != len(test.want) {
			t.Errorf("%s: %+v, want %v", name, test.ties, test.want)
			continue
		}
		for k, tie := range test.ties {
			if tie.Cause.Kind != test.want[k] {
				t.Errorf("%s: %v, want %v", name, tie.Cause, test.want[k])
			}
		}
	}
	if own := c.Records[1][0]; own.Effect != Unsaid || !own.Always() || own.Cause.At != 1 {
		t.Errorf("own motion: %+v", own)
	}
	if tie := c.Messages[0][1]; tie.Effect != 2 || tie.Cause.Area != "lane" || hours(tie.Hours) != 126 || tie.Always() {
		t.Errorf("motion in the lane: %+v", tie)
	}
	if lost := c.Messages[0][2].Cause; lost.PerMonth != 0.5 || lost.At != 0 {
		t.Errorf("%+v", lost)
	}
	if sent := c.Sends[1]; len(sent) != 1 || sent[0].Preset != "road" || sent[0].Seconds != 30 {
		t.Errorf("%+v", sent)
	}
	if n := c.Caused(Motion, 1); n != 7 { // itself, its stills, and five by the lane
		t.Errorf("motion at the gate does %d things", n)
	}
	if n := c.Caused(Button, 0); n != 3 {
		t.Errorf("the button does %d things", n)
	}
}

// TestACauseCountsOnce ties one cause to one thing at two stretches of hours.
func TestACauseCountsOnce(t *testing.T) {
	p := plantest.Whole(t)
	again := p.Effects[2]
	again.Hours = nil
	p.Effects = append(p.Effects, again, p.Effects[0])
	c := Of(p)
	if got := c.Messages[1]; len(got) != 1 || !got[0].Always() || got[0].Effect != 2 {
		t.Errorf("%+v", got)
	}
	if got := c.Sends[1]; len(got) != 1 || !got[0].Always() {
		t.Errorf("%+v", got)
	}
	if got := c.Records[0]; len(got) != 2 {
		t.Errorf("%+v", got)
	}
	// The same preset for longer is another sending.
	longer := again
	longer.Preset = append(longer.Preset[:0:0], longer.Preset...)
	longer.Preset[0].DwellSeconds++
	p.Effects = append(p.Effects, longer)
	if got := Of(p).Sends[1]; len(got) != 2 {
		t.Errorf("%+v", got)
	}
	// Switched off, its own motion records nothing.
	p.Channels[1].Detection.On = false
	if got := Of(p).Records[1]; got[0].Effect == Unsaid {
		t.Errorf("%+v", got)
	}
	if (Cause{Kind: Motion, At: 1}).Key() == (Cause{Kind: Motion, At: 1, Area: "lane"}).Key() {
		t.Error("an area is not told from its channel")
	}
}
