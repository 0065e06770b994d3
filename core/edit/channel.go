package edit

import (
	"fmt"
	"strings"

	"wakefield.example/core/plan"
)

// SetTimes sets the seconds kept before and after an event. What is absent stays
// as it is.
type SetTimes struct {
	Channels         []string `json:"channels" minItems:"1" maxItems:"5000"`
	PreSeconds       *float64 `json:"preSeconds,omitempty" minimum:"0" maximum:"3600"`
	PostSeconds      *float64 `json:"postSeconds,omitempty" minimum:"0" maximum:"86400"`
	AlarmPreSeconds  *float64 `json:"alarmPreSeconds,omitempty" minimum:"0" maximum:"3600"`
	AlarmPostSeconds *float64 `json:"alarmPostSeconds,omitempty" minimum:"0" maximum:"86400"`
}

func (e *SetTimes) apply(p *plan.Plan) (*plan.Plan, error) {
	return eachChannel(p, e.Channels, func(c *plan.Channel) error {
		c.PreSeconds = plan.Or(e.PreSeconds, c.PreSeconds)
		c.PostSeconds = plan.Or(e.PostSeconds, c.PostSeconds)
		if e.AlarmPreSeconds != nil {
			c.AlarmPreSeconds = e.AlarmPreSeconds
		}
		if e.AlarmPostSeconds != nil {
			c.AlarmPostSeconds = e.AlarmPostSeconds
		}
		return nil
	})
}

func (e *SetTimes) sentence(p *plan.Plan) string {
	var parts []string
	for _, t := range []struct {
		seconds *float64
		what    string
	}{
		{e.PreSeconds, "%v s before an event"}, {e.PostSeconds, "%v s after an event"},
		{e.AlarmPreSeconds, "%v s before an alarm"}, {e.AlarmPostSeconds, "%v s after an alarm"},
	} {
		if t.seconds != nil {
			parts = append(parts, fmt.Sprintf(t.what, *t.seconds))
		}
	}
	return names(p, e.Channels) + ": " + strings.Join(parts, ", ")
}

// SetDetection sets how motion becomes a trigger.
type SetDetection struct {
	Channels  []string       `json:"channels" minItems:"1" maxItems:"5000"`
	Detection plan.Detection `json:"detection"`
}

func (e *SetDetection) apply(p *plan.Plan) (*plan.Plan, error) {
	return eachChannel(p, e.Channels, func(c *plan.Channel) error {
		c.Detection = e.Detection
		return nil
	})
}

func (e *SetDetection) sentence(p *plan.Plan) string {
	state := "off"
	if e.Detection.On {
		state = "on"
	}
	return fmt.Sprintf("%s: detection %s", names(p, e.Channels), state)
}

// SetKeep sets how long footage must and may be kept.
type SetKeep struct {
	Channels []string  `json:"channels" minItems:"1" maxItems:"5000"`
	Keep     plan.Keep `json:"keep"`
}

func (e *SetKeep) apply(p *plan.Plan) (*plan.Plan, error) {
	return eachChannel(p, e.Channels, func(c *plan.Channel) error {
		c.Keep = e.Keep
		return nil
	})
}

func (e *SetKeep) sentence(p *plan.Plan) string {
	var parts []string
	if e.Keep.AtLeastDays > 0 {
		parts = append(parts, plan.Say("keep at least %v days", e.Keep.AtLeastDays))
	}
	if e.Keep.AtMostDays > 0 {
		parts = append(parts, plan.Say("delete after %v days", e.Keep.AtMostDays))
	}
	if e.Keep.QuotaGB > 0 {
		parts = append(parts, fmt.Sprintf("quota %v GB", e.Keep.QuotaGB))
	}
	if parts == nil {
		parts = []string{"nothing required"}
	}
	return names(p, e.Channels) + ": " + strings.Join(parts, ", ")
}

// SetAudio sets the audio bitrate; 0 for no audio.
type SetAudio struct {
	Channels  []string `json:"channels" minItems:"1" maxItems:"5000"`
	AudioKbps float64  `json:"audioKbps" minimum:"0" maximum:"10000"`
}

func (e *SetAudio) apply(p *plan.Plan) (*plan.Plan, error) {
	return eachChannel(p, e.Channels, func(c *plan.Channel) error {
		c.AudioKbps = e.AudioKbps
		return nil
	})
}

func (e *SetAudio) sentence(p *plan.Plan) string {
	if e.AudioKbps == 0 {
		return names(p, e.Channels) + ": no audio"
	}
	return fmt.Sprintf("%s: audio at %v kbit/s", names(p, e.Channels), e.AudioKbps)
}

// SetChannel adds a channel, or replaces the one with its id.
type SetChannel struct {
	Channel plan.Channel `json:"channel"`
}

func (e *SetChannel) apply(p *plan.Plan) (*plan.Plan, error) {
	next := *p
	next.Channels = put(p.Channels, e.Channel, func(c *plan.Channel) bool { return c.ID == e.Channel.ID })
	return &next, nil
}

func (e *SetChannel) sentence(p *plan.Plan) string {
	if p.Channel(e.Channel.ID) == nil {
		return fmt.Sprintf("Channel %d added: %s", e.Channel.Number, e.Channel.Name)
	}
	return fmt.Sprintf("Channel %d changed: %s", e.Channel.Number, e.Channel.Name)
}
