package overview

import (
	"strings"

	"wakefield.example/core/check"
	"wakefield.example/core/plan"
)

// Word is something of a site that can be searched for.
type Word struct {
	Kind string `json:"kind" enum:"site,customer,place,tag,channel,recorder,address,finding" doc:"What it is"`
	Text string `json:"text" doc:"A name, an address, a sentence"`
	ID   string `json:"id,omitempty" doc:"Of the channel or recorder that it is of; of the finding"`

	Severity check.Severity `json:"severity,omitempty" doc:"Of a finding: error, warning or hint"`
}

// mostFindings is how many findings of a site are searched, the most severe first.
const mostFindings = 100

// Words are what of a plan can be searched for: its site, its channels and recorders with their addresses, and what is found.
func Words(p *plan.Plan, found []check.Finding) []Word {
	var out []Word
	add := func(kind, text, id string) {
		if text != "" {
			out = append(out, Word{Kind: kind, Text: text, ID: id})
		}
	}
	add("site", p.Site.Name, "")
	add("customer", p.Site.Customer, "")
	for i := range p.Recorders {
		r := &p.Recorders[i]
		add("recorder", r.Name, r.ID)
		add("address", r.Address, r.ID)
	}
	for i := range p.Channels {
		c := &p.Channels[i]
		if c.NoCamera {
			continue
		}
		add("channel", c.Name, c.ID)
		add("address", c.Address, c.ID)
	}
	for _, f := range found[:min(len(found), mostFindings)] {
		if f.Accepted == nil {
			out = append(out, Word{"finding", f.Sentence, f.ID, f.Severity})
		}
	}
	return out
}

// Asked is what somebody searches: every word of it has to be there, in any order, large or small.
type Asked []string

// Ask reads what is searched.
func Ask(text string) Asked { return strings.Fields(strings.ToLower(text)) }

// In tells which words of a site have what is asked: each of the asked words stands in the word itself or in the names of the site
// beside it, and at least one in the word itself; those that have all of them come first. most is how many are wanted.
func (a Asked) In(words []Word, most int) (out []Word) {
	if len(a) == 0 {
		return nil
	}
	var names strings.Builder
	for _, w := range words {
		if w.Kind == "site" || w.Kind == "customer" || w.Kind == "place" || w.Kind == "tag" {
			names.WriteString(strings.ToLower(w.Text) + "\n")
		}
	}
	beside := names.String()
	var partly []Word
	for _, w := range words {
		text, own, all := strings.ToLower(w.Text), 0, true
		for _, word := range a {
			switch {
			case strings.Contains(text, word):
				own++
			case !strings.Contains(beside, word):
				all = false
			}
		}
		switch {
		case own == len(a):
			out = append(out, w)
		case own > 0 && all:
			partly = append(partly, w)
		}
	}
	out = append(out, partly...)
	return out[:min(len(out), most)]
}
