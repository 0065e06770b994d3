package estimate

import (
	"wakefield.example/core/cause"
	"wakefield.example/core/parallel"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// CauseLine is something that can happen.
type CauseLine struct {
	When          plan.When `json:"when" doc:"As a tie names it"`
	Kind          string    `json:"kind" enum:"motion,alarm,button,lost,tampered,uplinkLost"`
	Name          string    `json:"name" doc:"Of the channel or area, the alarm input or the button"`
	Of            string    `json:"of,omitempty" doc:"Id of the channel whose area it is, or that it is about"`
	HappensPerDay *float64  `json:"happensPerDay,omitempty" doc:"Absent where nobody has said how often"`
	Keeps         string    `json:"keeps,omitempty" enum:"itself,others,nothing,off" doc:"Of a channel's motion, what it records: itself, maybe others too; others only; nothing; or its detection is off"`
}

// keeps is what motion on each channel records, as [CauseLine] says it.
func (s *Result) keeps() []string {
	keeps := make([]string, len(s.plan.Channels))
	for i := range keeps {
		keeps[i] = "nothing"
		if c := &s.plan.Channels[i]; c.NoCamera || !c.Detection.On {
			keeps[i] = "off"
		}
	}
	for i, from := range s.site.ToMotion {
		for _, k := range from {
			if k == i {
				keeps[k] = "itself"
			} else if keeps[k] == "nothing" {
				keeps[k] = "others"
			}
		}
	}
	return keeps
}

// CauseLines is all that can happen at a site: motion on every channel and in each of its areas, alarm inputs, buttons, lost
// pictures, tampering and a lost uplink.
func (s *Result) CauseLines() []CauseLine {
	p := s.plan
	out := []CauseLine{}
	add := func(kind cause.Kind, name, of string, w plan.When, keeps string) {
		out = append(out, CauseLine{When: w, Kind: string(kind), Name: name, Of: of, Keeps: keeps})
	}
	keeps := s.keeps()
	for i := range p.Channels {
		c := &p.Channels[i]
		if c.NoCamera {
			continue
		}
		add(cause.Motion, c.Name, c.ID, plan.When{Motion: c.ID}, keeps[i])
		for _, a := range c.Detection.List() {
			if !a.Ignore {
				add(cause.Motion, a.Name, c.ID, plan.When{Motion: c.ID, Area: a.ID}, "")
			}
		}
	}
	for _, a := range p.AlarmInputs {
		add(cause.Alarm, a.Name, "", plan.When{Alarm: a.ID}, "")
	}
	for _, b := range p.CallButtons {
		add(cause.Button, b.Name, "", plan.When{Button: b.ID}, "")
	}
	often := make(map[plan.When]float64)
	for _, e := range p.Effects {
		if w := e.When; w.PerMonth > 0 {
			w.PerMonth = 0
			often[w] = e.When.PerMonth
		}
	}
	for _, kind := range []cause.Kind{cause.Lost, cause.Tampered} {
		for i := range p.Channels {
			c := &p.Channels[i]
			if c.NoCamera {
				continue
			}
			w := plan.When{Lost: c.ID}
			if kind == cause.Tampered {
				w = plan.When{Tampered: c.ID}
			}
			w.PerMonth = often[w]
			add(kind, c.Name, c.ID, w, "")
		}
	}
	if lost := (plan.When{UplinkLost: true}); p.Offsite != nil || often[lost] > 0 {
		lost.PerMonth = often[lost]
		add(cause.UplinkLost, plan.UplinkLostName, "", lost, "")
	}
	parallel.Do(len(out), func(k int) {
		line := &out[k]
		if !line.When.Counted() || line.When.PerMonth > 0 {
			perDay := s.counterOf(line.When).PerDay(week.Constant(true))
			line.HappensPerDay = &perDay
		}
	})
	return out
}
