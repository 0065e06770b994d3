package plan

import (
	"slices"

	"wakefield.example/core/week"
)

// Steps is the duty that holds at each minute, by its id.
func (w *OwnWeek) Steps() week.Steps[string] {
	blocks := make([]week.Block[string], len(w.Blocks))
	for i, b := range w.Blocks {
		blocks[i] = week.Block[string]{Hours: b.Week(), Value: b.Duty}
	}
	return week.FromBlocks(w.Otherwise, blocks)
}

// WeekOf writes steps as a week, with the duty that holds longest as the one that
// holds otherwise.
func WeekOf(steps week.Steps[string]) *OwnWeek {
	held := make(map[string]week.Minute)
	otherwise := steps.At(0)
	for run, duty := range steps.Runs() {
		if held[duty] += run.Minutes(); held[duty] > held[otherwise] {
			otherwise = duty
		}
	}
	w := &OwnWeek{Otherwise: otherwise}
	for _, b := range steps.Blocks(otherwise) {
		w.Blocks = append(w.Blocks, DutyBlock{HoursOf(b.Hours), b.Value})
	}
	return w
}

// WeekOf returns the week a channel follows.
func (p *Plan) WeekOf(c *Channel) *OwnWeek {
	return c.Week.In(p)
}

// Clone is a copy that shares nothing with the week.
func (w *OwnWeek) Clone() *OwnWeek {
	own := *w
	own.Blocks = slices.Clone(w.Blocks)
	return &own
}
