package edit

import (
	"reflect"
	"strings"

	"wakefield.example/core/plan"
)

// part is something of a thing that a sentence tells where it changed.
type part struct {
	was, is any
	words   string
}

// changed are the words of the parts that are no longer what they were.
func changed(parts ...part) (out []string) {
	for _, p := range parts {
		if !reflect.DeepEqual(p.was, p.is) {
			out = append(out, p.words)
		}
	}
	return out
}

// also adds to a sentence what changed that it does not tell anyway.
func also(sentence string, parts ...part) string {
	return strings.Join(append([]string{sentence}, changed(parts...)...), ", ")
}

// either are words for what is so or is not.
func either(so bool, yes, no string) string {
	if so {
		return yes
	}
	return no
}

// nameOfRecorder is what a recorder is called; its id where there is none.
func nameOfRecorder(p *plan.Plan, id string) string {
	if r := p.Recorder(id); r != nil {
		return r.Name
	}
	return id
}
