package edit

import (
	"fmt"
	"slices"
	"strings"

	"wakefield.example/core/document"
	"wakefield.example/core/plan"
)

// AddEffect ties a cause to what it does, beside what it does already. Hours tell apart: what holds at other hours stays
// as it is. How often a picture is lost or a camera tampered with holds for all ties of that cause.
type AddEffect struct {
	Effect plan.Effect `json:"effect"`
}

func (e *AddEffect) apply(p *plan.Plan) (*plan.Plan, error) {
	if e.Effect.Idle() {
		return nil, document.Wrong("effect", "does nothing; name what it records, sends, switches, shows, moves, takes or copies")
	}
	next, added := *p, e.Effect
	next.Effects = slices.Clone(p.Effects)
	for i := range next.Effects {
		if f := &next.Effects[i]; f.When.Same(added.When) {
			if added.When.PerMonth == 0 {
				added.When = f.When // as often as is known
			}
			f.When = added.When
		}
	}
	at := slices.IndexFunc(next.Effects, func(f plan.Effect) bool { return f.When == added.When && f.Hours.Same(added.Hours) })
	if at < 0 {
		next.Effects = append(next.Effects, added)
		return &next, nil
	}
	into := &next.Effects[at]
	lists := into.Lists()
	for k, more := range added.Lists() {
		joined := slices.Clone(*lists[k].IDs)
		for _, id := range *more.IDs {
			if !slices.Contains(joined, id) {
				joined = append(joined, id)
			}
		}
		*lists[k].IDs = joined
	}
	into.Preset = slices.Clone(into.Preset)
	for _, tie := range added.Preset {
		into.Preset = slices.DeleteFunc(into.Preset, func(t plan.PresetTie) bool { return t.Channel == tie.Channel && t.Preset == tie.Preset })
		into.Preset = append(into.Preset, tie)
	}
	return &next, nil
}

// TieInWords is a cause with what it does, in words.
func TieInWords(p *plan.Plan, e plan.Effect) string { return (&AddEffect{e}).sentence(p) }

func (e *AddEffect) sentence(p *plan.Plan) string {
	return p.CauseInWords(e.Effect.When) + " " + does(p, &e.Effect, "records", "tells", "switches", "shows on", "sends",
		"takes snapshots on", "copies off site")
}

// RemoveEffect unties a cause from some of what it does. Hours tell apart, as in AddEffect.
type RemoveEffect struct {
	Effect plan.Effect `json:"effect" doc:"The ties that go"`
}

func (e *RemoveEffect) apply(p *plan.Plan) (*plan.Plan, error) {
	next := *p
	next.Effects = nil
	goes := e.Effect
	gone := 0
	for _, f := range p.Effects {
		if !f.When.Same(goes.When) || !f.Hours.Same(goes.Hours) {
			next.Effects = append(next.Effects, f)
			continue
		}
		before := f.Ties()
		lists := f.Lists()
		for k, less := range goes.Lists() {
			rest := slices.DeleteFunc(slices.Clone(*lists[k].IDs), func(id string) bool { return slices.Contains(*less.IDs, id) })
			if len(rest) == 0 {
				rest = nil
			}
			*lists[k].IDs = rest
		}
		f.Preset = slices.DeleteFunc(slices.Clone(f.Preset), func(t plan.PresetTie) bool {
			return slices.ContainsFunc(goes.Preset, func(u plan.PresetTie) bool { return t.Channel == u.Channel && t.Preset == u.Preset })
		})
		if len(f.Preset) == 0 {
			f.Preset = nil
		}
		gone += before - f.Ties()
		if !f.Idle() {
			next.Effects = append(next.Effects, f)
		}
	}
	if gone == 0 {
		return nil, document.Wrong("effect", "%s is tied to none of that at these hours", p.CauseInWords(goes.When))
	}
	return &next, nil
}

func (e *RemoveEffect) sentence(p *plan.Plan) string {
	return p.CauseInWords(e.Effect.When) + " no longer " + does(p, &e.Effect, "records", "tells", "switches", "shows on", "sends",
		"takes snapshots on", "copies off site")
}

// does is what an effect does, in words: a verb for each list, that for presets before stills.
func does(p *plan.Plan, e *plan.Effect, record, message, output, monitor, preset, still, offsite string) string {
	several := func(ids []string, one string, name func(id string) string) string {
		if len(ids) > 3 {
			return fmt.Sprintf("%d %ss", len(ids), one)
		}
		list := make([]string, len(ids))
		for i, id := range ids {
			list[i] = name(id)
		}
		return plan.InList(list)
	}
	var parts []string
	add := func(n int, verb, what string) {
		if n > 0 {
			parts = append(parts, verb+" "+what)
		}
	}
	add(len(e.Record), record, names(p, e.Record))
	add(len(e.Message), message, several(e.Message, "receiver", func(id string) string {
		if m := p.Message(id); m != nil {
			return m.Name
		}
		return id
	}))
	add(len(e.Output), output, several(e.Output, "output", func(id string) string {
		if o := p.Output(id); o != nil {
			return o.Name
		}
		return id
	}))
	add(len(e.Monitor), monitor, several(e.Monitor, "monitor", func(id string) string {
		if m := p.Monitor(id); m != nil {
			return m.Name
		}
		return id
	}))
	for _, tie := range e.Preset {
		name := tie.Channel
		to := tie.Preset
		if c := p.Channel(tie.Channel); c != nil {
			name, to = c.Name, c.Movable.Name(tie.Preset)
		}
		parts = append(parts, preset+" "+name+" to "+to)
	}
	add(len(e.Still), still, names(p, e.Still))
	add(len(e.Offsite), offsite, names(p, e.Offsite))
	s := strings.Join(parts, ", ")
	if e.Hours != nil {
		s += ", " + holding(e.Hours)
	}
	return s
}
