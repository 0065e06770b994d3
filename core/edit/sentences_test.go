package edit

import (
	"fmt"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
)

// setFrom is how what a plan has at a member is set in another: the edit for the i-th of a list, or for the member itself.
var setFrom = map[string]func(q *plan.Plan, i int) Edit{
	"AlarmInputs": func(q *plan.Plan, i int) Edit { return Edit{SetAlarmInput: &SetAlarmInput{q.AlarmInputs[i]}} },
	"CallButtons": func(q *plan.Plan, i int) Edit { return Edit{SetCallButton: &SetCallButton{q.CallButtons[i]}} },
	"Messages":    func(q *plan.Plan, i int) Edit { return Edit{SetMessage: &SetMessage{q.Messages[i]}} },
	"Outputs":     func(q *plan.Plan, i int) Edit { return Edit{SetOutput: &SetOutput{q.Outputs[i]}} },
	"Monitors":    func(q *plan.Plan, i int) Edit { return Edit{SetMonitor: &SetMonitor{q.Monitors[i]}} },
	"Duties":      func(q *plan.Plan, i int) Edit { return Edit{SetDuty: &SetDuty{q.Duties[i]}} },
	"Activities":  func(q *plan.Plan, i int) Edit { return Edit{SetActivity: &SetActivity{q.Activities[i]}} },
	"Kinds":       func(q *plan.Plan, i int) Edit { return Edit{SetKind: &SetKind{q.Kinds[i]}} },
	"Objects":     func(q *plan.Plan, i int) Edit { return Edit{SetObject: &SetObject{q.Objects[i]}} },
	"Weeks":       func(q *plan.Plan, i int) Edit { return Edit{SetWeek: &SetWeek{q.Weeks[i]}} },
	"Recorders":   func(q *plan.Plan, i int) Edit { return Edit{SetRecorder: &SetRecorder{q.Recorders[i]}} },
	"Channels":    func(q *plan.Plan, i int) Edit { return Edit{SetChannel: &SetChannel{q.Channels[i]}} },
	"Effects":     func(q *plan.Plan, i int) Edit { return Edit{AddEffect: &AddEffect{q.Effects[i]}} },
	"Offsite":     func(q *plan.Plan, _ int) Edit { return Edit{SetOffsite: &SetOffsite{q.Offsite}} },
	"Prices":      func(q *plan.Plan, _ int) Edit { return Edit{SetPrices: &SetPrices{q.Prices}} },
}

// tellsAll are members of which no change goes without words: whoever reads the history would take it for something else.
var tellsAll = map[string]bool{"AlarmInputs": true, "CallButtons": true, "Messages": true, "Outputs": true, "Monitors": true,
	"Objects": true, "Recorders": true, "Offsite": true}

// notSet are members of a plan that are set by no edit of a whole thing: their edits stand in TestEdits.
var notSet = []string{"Format", "Name", "Site", "Accepted"}

// TestWhatEditsSay sets everything that a plan has as it is where one value is another, and takes every tie away, and holds what the
// history says of it, or why it is refused.
func TestWhatEditsSay(t *testing.T) {
	p := plantest.Whole(t)
	var text strings.Builder
	tell := func(what string, e Edit) {
		done, err := Apply(p, e)
		if err != nil {
			fmt.Fprintf(&text, "%s: refused: %v\n", what, err)
		} else {
			fmt.Fprintf(&text, "%s: %s\n", what, done.Sentence)
		}
	}
	for _, f := range reflect.VisibleFields(reflect.TypeFor[plan.Plan]()) {
		if (setFrom[f.Name] == nil) != slices.Contains(notSet, f.Name) {
			t.Errorf("how %s is set is not said, or twice", f.Name)
		}
	}
	plantest.EachChange(t, p, func(path string, q *plan.Plan) {
		member, rest, _ := strings.Cut(strings.TrimPrefix(path, "."), ".")
		member, at, _ := strings.Cut(strings.TrimSuffix(member, "]"), "[")
		i, _ := strconv.Atoi(at)
		set := setFrom[member]
		if set == nil || rest == "ID" {
			return
		}
		tell(strings.TrimPrefix(path, "."), set(q, i))
		if tellsAll[member] && q.Check() == nil && q.Name == p.Name {
			if same := set(p, i); words(t, p, same) == words(t, p, set(q, i)) {
				t.Errorf("%s: “%s” says nothing of it", path, words(t, p, same))
			}
		}
	})
	for i := range p.Effects {
		tell(fmt.Sprintf("without Effects[%d]", i), Edit{RemoveEffect: &RemoveEffect{p.Effects[i]}})
	}
	plantest.Said(t, "sentences", text.String())
}

// words are what the history says of an edit.
func words(t *testing.T, p *plan.Plan, e Edit) string {
	t.Helper()
	_, change, err := e.change()
	if err != nil {
		t.Fatal(err)
	}
	return change.sentence(p)
}
