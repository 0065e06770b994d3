package compare

import (
	"encoding/json"
	"slices"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
)

// tieKey tells ties apart: what is tied to what, at which hours; not how often it happens, nor how long it lasts.
func tieKey(e plan.Effect) string {
	e.When.PerMonth = 0
	e.Preset = slices.Clone(e.Preset)
	for i := range e.Preset {
		e.Preset[i].DwellSeconds = 0
	}
	text, err := json.Marshal(e)
	if err != nil {
		panic("compare: " + err.Error()) // parts of a plan can be written
	}
	return string(text)
}

// tieOf is the tie of a key, nil where the plan has none.
func tieOf(p *plan.Plan, key string) *plan.Effect {
	for _, e := range p.Effects {
		for _, one := range e.Single() {
			if tieKey(one) == key {
				return &one
			}
		}
	}
	return nil
}

// tiesOf are all ties of a plan in words.
func tiesOf(p *plan.Plan) map[string]string {
	out := make(map[string]string)
	for _, e := range p.Effects {
		for _, one := range e.Single() {
			out[tieKey(one)] = tieInWords(p, one)
		}
	}
	return out
}

func tieInWords(p *plan.Plan, e plan.Effect) string {
	s := edit.TieInWords(p, e)
	if e.When.PerMonth > 0 {
		s += plan.Say(", %v times a month", e.When.PerMonth)
	}
	for _, sent := range e.Preset {
		if sent.DwellSeconds > 0 {
			s += ", for " + plan.SecondsInWords(sent.DwellSeconds)
		}
	}
	return s
}

// sortedTies are the keys of a plan's ties in its order.
func sortedTies(p *plan.Plan) (out []string) {
	seen := make(map[string]bool)
	for _, e := range p.Effects {
		for _, one := range e.Single() {
			if key := tieKey(one); !seen[key] {
				seen[key] = true
				out = append(out, key)
			}
		}
	}
	return out
}

// namesGone tells whether a tie names something that a plan does not have: then it went with that.
func namesGone(key string, p *plan.Plan) (gone bool) {
	var e plan.Effect
	if err := json.Unmarshal([]byte(key), &e); err != nil {
		panic("compare: " + err.Error()) // it was written by tieKey
	}
	plan.MentionsIn(&e, func(m plan.Mention) bool {
		for _, id := range m.Keys() {
			if _, there := thing(p, m.Kind, id); !there {
				gone = true
			}
		}
		return !gone
	})
	return gone
}
