package standin

import (
	"context"
	"math"
	"math/rand/v2"
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
	"wakefield.example/internal/onvif"
)

// incident is what goes on before a camera or at a contact: it begins at random as often as an activity says at that time of the week,
// and lasts as long.
type incident struct {
	channel *Channel // of a camera; nil of a contact
	input   string
	rates   week.Steps[float64]
	mean    float64 // seconds of an event
	zone    *time.Location
	on      bool
	until   time.Time // end of what goes on
	held    bool      // somebody holds it as it is
	draw    *rand.Rand
}

// incidentsOf are all of a recorder, in the order of its channels and inputs.
func incidentsOf(p *plan.Plan, recorder string, s *State, seed uint64) (out []*incident) {
	zone, err := time.LoadLocation(p.Site.TimeZone)
	if err != nil {
		zone = time.UTC
	}
	add := func(sc *incident, activity string, n int) {
		if a := p.Activity(activity); a != nil {
			sc.rates, sc.mean = a.Rates(), a.MeanSeconds
		}
		sc.zone, sc.draw = zone, rand.New(rand.NewPCG(seed, uint64(n)))
		out = append(out, sc)
	}
	for n, c := range s.Channels {
		activity := ""
		for i := range p.Channels {
			if planned := &p.Channels[i]; planned.Number == n+1 && !planned.NoCamera && planned.Name == c.Name {
				activity = planned.Activity
			}
		}
		add(&incident{channel: c}, activity, n)
	}
	k := 0
	for i := range p.AlarmInputs {
		if k < len(s.Inputs) && p.AlarmInputs[i].Recorder == recorder {
			add(&incident{input: s.Inputs[k].Token}, p.AlarmInputs[i].Activity, 1000+i)
			k++
		}
	}
	return out
}

// step lets a moment pass, and tells whether something began or ended.
func (s *incident) step(now time.Time, passed time.Duration) (changed bool) {
	if s.held || s.rates == nil {
		return false
	}
	if s.on {
		if now.After(s.until) {
			s.on = false
			return true
		}
		return false
	}
	at := now.In(s.zone)
	minute := week.Minute((int(at.Weekday())+6)%7)*week.Day + week.Minute(at.Hour()*60+at.Minute())
	if s.draw.Float64() >= 1-math.Exp(-s.rates.At(minute)/3600*passed.Seconds()) {
		return false
	}
	s.on, s.until = true, now.Add(time.Duration(s.draw.ExpFloat64()*s.mean*float64(time.Second)))
	return true
}

// tick is how often scenes are looked at.
const tick = 500 * time.Millisecond

// live lets scenes go on until ctx ends.
func (d *Device) live(ctx context.Context) {
	t := time.NewTicker(tick)
	defer t.Stop()
	for {
		select {
		case <-ctx.Done():
			return
		case now := <-t.C:
			d.mu.Lock()
			for _, s := range d.scenes {
				if s.step(now, tick) {
					d.tell(s.notices(d, "Changed")...)
				}
			}
			d.mu.Unlock()
		}
	}
}

// Move makes something move before the camera of a channel, by its number, or stop.
func (d *Device) Move(number int, on bool) {
	d.mu.Lock()
	defer d.mu.Unlock()
	s := d.scenes[number-1]
	if s.held, s.on = true, on; s.channel != nil {
		d.tell(s.notices(d, "Changed")...)
	}
}

// Close a contact, by its number, or open it: whether it triggers depends on how it rests.
func (d *Device) Trigger(number int, on bool) {
	d.mu.Lock()
	defer d.mu.Unlock()
	s := d.scenes[len(d.state.Channels)+number-1]
	s.held, s.on = true, on
	d.tell(s.notices(d, "Changed")...)
}

// notices are how a scene is told.
func (s *incident) notices(d *Device, operation string) []onvif.Notice {
	on := "false"
	if s.on {
		on = "true"
	}
	at := d.now()
	if s.input != "" {
		return []onvif.Notice{{Topic: onvif.TopicInput, At: at, Operation: operation, Source: map[string]string{"InputToken": s.input},
			Data: map[string]string{"LogicalState": on}}}
	}
	if len(s.channel.Encoders) == 0 {
		return nil
	}
	out := []onvif.Notice{{Topic: onvif.TopicMotionAlarm, At: at, Operation: operation, Source: map[string]string{"Source": s.channel.Source},
		Data: map[string]string{"State": on}}}
	if len(s.channel.Rules) == 0 {
		return nil
	}
	return out
}

// moving tells whether something moves before the camera of a channel.
func (d *Device) moving(c *Channel) bool {
	d.mu.Lock()
	defer d.mu.Unlock()
	for _, s := range d.scenes {
		if s.channel == c {
			return s.on
		}
	}
	return false
}
