package walktest

import (
	"fmt"

	"wakefield.example/core/plan"
)

// does is what an effect does beside recording, a sentence each.
func does(p *plan.Plan, e *plan.Effect) (out []string) {
	for _, id := range e.Message {
		if m := p.Message(id); m != nil {
			out = append(out, fmt.Sprintf("“%s” arrives at %s, if none did within %s.", m.Name, m.To, plan.SecondsInWords(m.AtMostEverySeconds)))
		}
	}
	for _, id := range e.Output {
		if o := p.Output(id); o != nil {
			out = append(out, fmt.Sprintf("“%s” goes on for %s.", o.Name, plan.SecondsInWords(o.HoldSeconds)))
		}
	}
	for _, id := range e.Monitor {
		if m := p.Monitor(id); m != nil {
			out = append(out, fmt.Sprintf("“%s” shows it for %s.", m.Name, plan.SecondsInWords(m.DwellSeconds)))
		}
	}
	for _, t := range e.Preset {
		if c := p.Channel(t.Channel); c != nil {
			out = append(out, fmt.Sprintf("%s looks at %s for %s.", Called(c), c.Movable.Name(t.Preset), plan.SecondsInWords(t.DwellSeconds)))
		}
	}
	for _, id := range e.Still {
		if c := p.Channel(id); c != nil {
			out = append(out, Called(c)+" takes a snapshot.")
		}
	}
	for _, id := range e.Offsite {
		if c := p.Channel(id); c != nil {
			out = append(out, "The footage of "+Called(c)+" is copied off site.")
		}
	}
	return out
}
