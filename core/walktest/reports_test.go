package walktest

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"wakefield.example/core/plan/plantest"
)

// TestWhatReportsSay walks the first walks of cameras as planned, as each fifth of their faults would show them, with a sign that did not
// come, a shot that was not there, and times that nobody noted, and holds what is said of the camera.
func TestWhatReportsSay(t *testing.T) {
	var text strings.Builder
	at := time.Date(2026, 11, 29, 9, 0, 0, 0, time.UTC)
	for _, s := range plantest.Samples(t) {
		cameras, err := Of(t.Context(), s.Plan)
		if err != nil {
			t.Fatal(err)
		}
		for _, c := range cameras[:min(len(cameras), 2)] {
			if len(c.Walks) == 0 || len(c.Walks[0].Expected) == 0 {
				continue
			}
			walked := func(what string, shows func(w *Walk) Shown, spoil func(*Seen)) {
				var records []Record
				for k := range c.Walks[:min(len(c.Walks), 2)] {
					w := &c.Walks[k]
					of := shows(w)
					seen := Seen{Walk: w.ID, Sign: of[Sign], NoSign: of[Sign] == nil, First: of[First], Last: of[Last], NoShot: of[First] == nil}
					if w.Free && seen.Sign != nil { // the others are told from the sign, and from when the walker was out of view
						out := 20.0
						from, to := of[First], of[Last]
						seen.Out = &out
						if from != nil && to != nil {
							begins, ends := *seen.Sign+*from, out+*to
							seen.First, seen.Last = &begins, &ends
						}
					}
					spoil(&seen)
					e := &w.Expected[0]
					records = append(records, Record{ID: fmt.Sprint("r", k), About: c.Channel, Revision: 1, At: at.Add(time.Duration(k) * time.Minute),
						Said: Said{Walk: &WalkSaid{Seen: seen, Key: e.Key, Name: w.Name, Planned: e.Shown}}})
				}
				r := Reported(s.Plan, []Camera{c}, nil, records, 0).Cameras[0]
				fmt.Fprintf(&text, "%s, %s walked %s: %s", s.Name, c.Name, what, r.Status)
				for _, w := range r.Walks {
					for _, result := range w.Results {
						fmt.Fprintf(&text, " %v%s", result.Differ, result.Odd)
					}
				}
				for _, l := range r.Likely {
					fmt.Fprintf(&text, "; %s %.3f %s", l.Words, l.Chance, l.Speaks)
				}
				if r.Next != nil {
					fmt.Fprintf(&text, "; next %s %.2f bits", r.Next.Words, r.Next.Bits)
				}
				text.WriteString("\n")
			}
			planned := func(w *Walk) Shown { return w.Expected[0].Shown }
			as := func(*Seen) {}
			walked("as planned", planned, as)
			walked("without its sign", planned, func(seen *Seen) { seen.Sign, seen.NoSign = nil, true })
			walked("without a shot", planned, func(seen *Seen) { seen.First, seen.Last, seen.NoShot = nil, nil, true })
			walked("by somebody who noted no sign", planned, func(seen *Seen) { seen.Sign, seen.NoSign = nil, false })
			walked("by somebody who noted nothing", planned, func(seen *Seen) {
				seen.Sign, seen.NoSign, seen.First, seen.Last, seen.NoShot = nil, false, nil, nil, false
			})
			late := 90.0
			walked("with a first second that cannot be", planned, func(seen *Seen) { seen.First = &late })
			for k := 0; k < len(c.Cases); k += 5 {
				walked(fmt.Sprint("as ", c.Cases[k].Fault), func(w *Walk) Shown { return w.Shows[0][k] }, as)
			}
		}
	}
	plantest.Said(t, "reports", text.String())
}
