package compare

import (
	"reflect"
	"strings"
	"testing"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
)

// TestEveryValueIsToldAndCarried changes every value of a plan of all members by itself: the difference has words, and what is
// carried over makes the plan as the other.
func TestEveryValueIsToldAndCarried(t *testing.T) {
	p := plantest.Copy(t, plantest.Whole(t)) // a copy is written as its copies are
	plans := 0
	plantest.EachChange(t, p, func(path string, changed *plan.Plan) {
		if changed.Check() != nil || path == ".Format" || path == ".Name" {
			return
		}
		plans++
		all := Plans(p, changed)
		if len(all) == 0 {
			t.Errorf("%s: two plans differ without words", path)
			return
		}
		told(t, path, all)
		carry(t, p, changed, all)
	})
	if plans < 200 {
		t.Errorf("only %d plans were compared", plans)
	}
}

// TestEveryThingComesAndGoes takes every entry of every list away that the plan can be without, and brings it back.
func TestEveryThingComesAndGoes(t *testing.T) {
	p := plantest.Copy(t, plantest.Whole(t))
	p.Effects, p.CallButtons[0].Records = p.Effects[3:4], []string{"c1"} // channel 2 is named nowhere
	p.Prices = &plan.Prices{Currency: "EUR", Drives: []plan.DrivePrice{{Terabytes: 4, Each: 90}, {Terabytes: 8, Each: 150}}}
	if err := p.Check(); err != nil {
		t.Fatal(err)
	}
	gone := make(map[string]int)
	for _, of := range []string{"Duties", "Weeks", "Activities", "Recorders", "AlarmInputs", "CallButtons", "Messages", "Outputs", "Monitors",
		"Effects", "Channels", "Objects", "Kinds", "Accepted"} {
		for i := range reflect.ValueOf(p).Elem().FieldByName(of).Len() {
			q := plantest.Copy(t, p)
			list := reflect.ValueOf(q).Elem().FieldByName(of)
			list.Set(reflect.AppendSlice(list.Slice(0, i), list.Slice(i+1, list.Len())))
			if q.Check() != nil {
				continue // something else names it
			}
			gone[of]++
			for _, way := range [][2]*plan.Plan{{p, q}, {q, p}} {
				all := Plans(way[0], way[1])
				if len(all) == 0 {
					t.Errorf("%s %d goes or comes without words", of, i)
					continue
				}
				told(t, of, all)
				carry(t, way[0], way[1], all)
			}
		}
	}
	if len(gone) < 10 {
		t.Errorf("only of these something went: %v", gone)
	}
}

// TestWordsOfARecorderBringTheirDuty carries what the fitter calls a duty that the other plan does not have.
func TestWordsOfARecorderBringTheirDuty(t *testing.T) {
	from := plantest.Whole(t)
	from.Duties = append(from.Duties, plan.Duty{ID: "new", Name: "New"})
	from.Recorders[0].Words = plan.Words{{Duty: "new", Name: "Mode 7"}}
	to := plantest.Whole(t)
	for _, s := range Plans(to, from) {
		if s.Parts[0].Kind == "recorder" {
			edits, err := Carry(to, from, s.Parts)
			if err != nil {
				t.Fatal(err)
			}
			if got, err := edit.After(to, edits...); err != nil || got.Duty("new") == nil || len(got.Recorders[0].Words) != 1 {
				t.Errorf("%v", err)
			}
			return
		}
	}
	t.Errorf("%v", Plans(to, from))
}

// TestPricesInWords tells what is paid for drives, one beside the other.
func TestPricesInWords(t *testing.T) {
	a, b := plantest.Whole(t), plantest.Whole(t)
	a.Prices = &plan.Prices{Currency: "EUR", Drives: []plan.DrivePrice{{Terabytes: 4, Each: 90}}}
	b.Prices = &plan.Prices{Currency: "EUR", Drives: []plan.DrivePrice{{Terabytes: 4, Each: 85.5}, {Terabytes: 8, Each: 150}}}
	all := Plans(a, b)
	if len(all) != 1 || !strings.Contains(all[0].Words, "4 TB at 85.5, 8 TB at 150 instead of 4 TB at 90") {
		t.Errorf("%v", all)
	}
	carry(t, a, b, all)
}

func told(t *testing.T, path string, all []Sentence) {
	t.Helper()
	for _, s := range all {
		if s.Who == "" || s.Words == "" || strings.HasSuffix(s.Words, ": ") || strings.Contains(s.Words, "{") {
			t.Errorf("%s: %q: %q", path, s.Who, s.Words)
		}
	}
}

// TestAChannelMovesInOneSentence tells the recorder, number and pool that a channel is moved to together, and what else differs
// by itself.
func TestAChannelMovesInOneSentence(t *testing.T) {
	a := plantest.Copy(t, plantest.Whole(t))
	b := plantest.Copy(t, a)
	b.Channels[0].Recorder, b.Channels[0].Pool, b.Channels[0].Number, b.Channels[0].PostSeconds = "r2", "p3", 4, 25
	all := Plans(a, b)
	if len(all) != 2 || !strings.Contains(all[0].Words, "; ") || strings.Contains(all[1].Words, "; ") {
		t.Errorf("%v", all)
	}
	carry(t, a, b, all)
}
