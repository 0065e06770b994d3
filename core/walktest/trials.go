package walktest

import (
	"fmt"
	"hash/fnv"
	"slices"
	"strings"

	"wakefield.example/core/plan"
)

// Trial is something beside walks that is tried once: a contact, a button, a sounder, a message that is held back.
type Trial struct {
	ID       string      `json:"id" doc:"Its kind and the id of what it is about"`
	Kind     string      `json:"kind" enum:"picture,input,button,tampered,lost,uplink,output,monitor,preset,message"`
	Recorder string      `json:"recorder,omitempty" doc:"Id; empty of what belongs to no one recorder"`
	Channel  string      `json:"channel,omitempty" doc:"Id, of what is about one channel"`
	Name     string      `json:"name"`
	Do       string      `json:"do" doc:"What is done, in a sentence"`
	Lines    []TrialLine `json:"lines" doc:"What should be seen then"`
	Key      string      `json:"key" doc:"The same as long as the same is to be done and seen"`
}

// TrialLine is one thing that should be seen.
type TrialLine struct {
	ID    string `json:"id" doc:"The same as long as it says the same"`
	Words string `json:"words"`
}

// Trials are what is tried of a plan, each once: that every picture is the right one, causes with all that they do, then what is
// switched, shown, turned and told.
func Trials(p *plan.Plan) []Trial {
	t := trials{plan: p, out: []Trial{}}
	t.pictures()
	t.causes()
	t.effects()
	return t.out
}

type trials struct {
	plan *plan.Plan
	out  []Trial
}

func (t *trials) add(tr Trial, lines ...string) {
	h := fnv.New64a()
	fmt.Fprintf(h, "%s %q", tr.Do, lines)
	tr.Key = fmt.Sprintf("%016x", h.Sum64())
	tr.Lines = []TrialLine{}
	for _, words := range lines {
		h.Reset()
		fmt.Fprint(h, words)
		line := TrialLine{fmt.Sprintf("%08x", uint32(h.Sum64())), words}
		if !slices.Contains(tr.Lines, line) {
			tr.Lines = append(tr.Lines, line)
		}
	}
	t.out = append(t.out, tr)
}

func (t *trials) pictures() {
	for i := range t.plan.Channels {
		c := &t.plan.Channels[i]
		if c.NoCamera {
			continue
		}
		t.add(Trial{ID: "picture:" + c.ID, Kind: "picture", Recorder: c.Recorder, Channel: c.ID, Name: "Picture of " + Called(c),
			Do: fmt.Sprintf("Look at channel %d at the recorder.", c.Number)},
			"It shows "+c.Name+", upright and sharp.", "Its date and time are right.")
	}
}

// causes are contacts, buttons, tampering, lost pictures and a lost uplink.
func (t *trials) causes() {
	p := t.plan
	for i := range p.AlarmInputs {
		a := &p.AlarmInputs[i]
		lines := append([]string{"No alarm while it is at rest."}, t.caused(func(w plan.When) bool { return w.Alarm == a.ID })...)
		do := fmt.Sprintf("Set off “%s”, then let it rest.", a.Name)
		if a.Contact == "normallyClosed" {
			do, lines = do+" Pull one wire off, too.", append(lines, "A wire that is pulled off is an alarm.")
		}
		t.add(Trial{ID: "input:" + a.ID, Kind: "input", Recorder: a.Recorder, Name: a.Name, Do: do}, lines...)
	}
	for i := range p.CallButtons {
		b := &p.CallButtons[i]
		var lines []string
		for _, id := range b.Records {
			if c := p.Channel(id); c != nil {
				lines = append(lines, fmt.Sprintf("%s records for %s.", Called(c), plan.SecondsInWords(b.HoldSeconds)))
			}
		}
		lines = append(lines, t.caused(func(w plan.When) bool { return w.Button == b.ID })...)
		t.add(Trial{ID: "button:" + b.ID, Kind: "button", Name: b.Name, Do: fmt.Sprintf("Press “%s”.", b.Name)}, lines...)
	}
	for i := range p.Channels {
		c := &p.Channels[i]
		if lines := t.caused(func(w plan.When) bool { return w.Lost == c.ID }); len(lines) > 0 {
			t.add(Trial{ID: "lost:" + c.ID, Kind: "lost", Recorder: c.Recorder, Channel: c.ID, Name: "Picture lost on " + Called(c),
				Do: "Unplug the camera " + Called(c) + ", then plug it in again."}, lines...)
		}
		if lines := t.caused(func(w plan.When) bool { return w.Tampered == c.ID }); len(lines) > 0 {
			t.add(Trial{ID: "tampered:" + c.ID, Kind: "tampered", Recorder: c.Recorder, Channel: c.ID, Name: "Tampering with " + Called(c),
				Do: "Cover the lens of " + Called(c) + " for half a minute."}, lines...)
		}
	}
	if lines := t.caused(func(w plan.When) bool { return w.UplinkLost }); len(lines) > 0 {
		t.add(Trial{ID: "uplink:", Kind: "uplink", Name: plan.UplinkLostName, Do: "Unplug the uplink, then plug it in again."}, lines...)
	}
}

// caused is what effects do whose cause is one that is asked for.
func (t *trials) caused(is func(plan.When) bool) (out []string) {
	for k := range t.plan.Effects {
		e := &t.plan.Effects[k]
		if !is(e.When) {
			continue
		}
		only := ""
		if e.Hours != nil {
			only = ", " + plan.HoursInWords(e.Hours.Blocks)
		}
		for _, id := range e.Record {
			if c := t.plan.Channel(id); c != nil {
				out = append(out, Called(c)+" records"+only+".")
			}
		}
		for _, words := range does(t.plan, e) {
			out = append(out, strings.TrimSuffix(words, ".")+only+".")
		}
	}
	return out
}

// by is the first cause of what an effect does, in words, and how it is brought about; empty where nothing causes it.
func (t *trials) by(has func(e *plan.Effect) bool) string {
	for k := range t.plan.Effects {
		if e := &t.plan.Effects[k]; has(e) {
			words := t.plan.CauseInWords(e.When)
			if e.Hours != nil {
				words += ", " + plan.HoursInWords(e.Hours.Blocks)
			}
			return words
		}
	}
	return ""
}

// effects are outputs, monitors, presets and messages, each set off by the first cause that it has.
func (t *trials) effects() {
	p := t.plan
	for i := range p.Outputs {
		o := &p.Outputs[i]
		if by := t.by(func(e *plan.Effect) bool { return slices.Contains(e.Output, o.ID) }); by != "" {
			t.add(Trial{ID: "output:" + o.ID, Kind: "output", Recorder: o.Recorder, Name: o.Name, Do: "Set it off by: " + by + "."},
				fmt.Sprintf("“%s” goes on for %s, and off again by itself.", o.Name, plan.SecondsInWords(o.HoldSeconds)))
		}
	}
	for i := range p.Monitors {
		m := &p.Monitors[i]
		if by := t.by(func(e *plan.Effect) bool { return slices.Contains(e.Monitor, m.ID) }); by != "" {
			t.add(Trial{ID: "monitor:" + m.ID, Kind: "monitor", Name: m.Name, Do: "Set it off by: " + by + "."},
				fmt.Sprintf("“%s” shows it for %s, then what it showed before.", m.Name, plan.SecondsInWords(m.DwellSeconds)))
		}
	}
	for i := range p.Channels {
		c := &p.Channels[i]
		if c.Movable == nil {
			continue
		}
		for _, preset := range c.Movable.Presets {
			sent := func(tie plan.PresetTie) bool { return tie.Channel == c.ID && tie.Preset == preset.ID }
			if by := t.by(func(e *plan.Effect) bool { return slices.ContainsFunc(e.Preset, sent) }); by != "" {
				t.add(Trial{ID: "preset:" + c.ID + ":" + preset.ID, Kind: "preset", Recorder: c.Recorder, Channel: c.ID,
					Name: Called(c) + " to " + preset.Name, Do: "Set it off by: " + by + "."},
					fmt.Sprintf("It looks at %s, and goes back to %s by itself.", preset.Name, c.Movable.Name(c.Movable.Home)))
			}
		}
	}
	for i := range p.Messages {
		m := &p.Messages[i]
		if by := t.by(func(e *plan.Effect) bool { return slices.Contains(e.Message, m.ID) }); by != "" {
			t.add(Trial{ID: "message:" + m.ID, Kind: "message", Name: m.Name,
				Do: fmt.Sprintf("Twice within %s: %s.", plan.SecondsInWords(m.AtMostEverySeconds), by)},
				fmt.Sprintf("One message arrives at %s.", m.To), "The second is held back.")
		}
	}
}
