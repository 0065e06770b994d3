package plan

import (
	"slices"

	"wakefield/core/week"
)

// PaintRate sets how often an activity happens over some hours.
type PaintRate struct {
	Activity string  `json:"activity" minLength:"1" maxLength:"100"`
	Hours    []Hours `json:"hours" minItems:"1" maxItems:"1000"`
	PerHour  float64 `json:"perHour" minimum:"0" maximum:"1000000"`
}

func (e *PaintRate) apply(p *Plan) (*Plan, error) {
	spans, err := SpansOf(e.Hours)
	if err != nil {
		return nil, err
	}
	i := slices.IndexFunc(p.Activities, func(a Activity) bool { return a.ID == e.Activity })
	if i < 0 {
		return nil, wrong("activity", "no activity %q", e.Activity)
	}
	next := *p
	next.Activities = slices.Clone(p.Activities)
	a := &next.Activities[i]
	rates := a.Rates()
	for _, span := range spans {
		rates = rates.Paint(span, e.PerHour)
	}
	a.SetRates(rates)
	return &next, nil
}

// Rates is how often the activity happens at each minute of the week, events an hour.
func (a *Activity) Rates() week.Steps[float64] {
	blocks := make([]week.Block[float64], len(a.Blocks))
	for i, b := range a.Blocks {
		blocks[i] = week.Block[float64]{Hours: b.week(), Value: b.PerHour}
	}
	return week.FromBlocks(a.OtherwisePerHour, blocks)
}

func (e *PaintRate) sentence(p *Plan) string {
	name := e.Activity
	if a := p.Activity(e.Activity); a != nil {
		name = a.Name
	}
	return Say("%s, %s: %.3g an hour", name, HoursInWords(e.Hours), e.PerHour)
}
