package edit

import (
	"slices"

	"wakefield.example/core/document"
	"wakefield.example/core/plan"
)

// RemoveActivity removes an activity. What happened by it happens by another, or,
// where none is named, not at all; alarm inputs cannot be without one.
type RemoveActivity struct {
	Activity string `json:"activity" minLength:"1" maxLength:"100"`
	Instead  string `json:"instead,omitempty" maxLength:"100"`
}

func (e *RemoveActivity) apply(p *plan.Plan) (*plan.Plan, error) {
	if p.Activity(e.Activity) == nil {
		return nil, document.Wrong("activity", "no activity %q", e.Activity)
	}
	if e.Instead == e.Activity || e.Instead != "" && p.Activity(e.Instead) == nil {
		return nil, document.Wrong("instead", "no other activity %q", e.Instead)
	}
	return removal{kind: "activity", gone: is(e.Activity), instead: e.Instead, path: "instead", advice: "name another activity for it"}.from(p)
}

func (e *RemoveActivity) sentence(p *plan.Plan) string {
	s := "Activity removed"
	if a := p.Activity(e.Activity); a != nil {
		s += ": " + a.Name
	}
	if a := p.Activity(e.Instead); a != nil {
		s += ", " + a.Name + " in its place"
	}
	return s
}

// PaintRate sets how often an activity happens over some hours.
type PaintRate struct {
	Activity string       `json:"activity" minLength:"1" maxLength:"100"`
	Hours    []plan.Hours `json:"hours" minItems:"1" maxItems:"1000"`
	PerHour  float64      `json:"perHour" minimum:"0" maximum:"1000000"`
}

func (e *PaintRate) apply(p *plan.Plan) (*plan.Plan, error) {
	spans, err := plan.SpansOf(e.Hours)
	if err != nil {
		return nil, err
	}
	i := slices.IndexFunc(p.Activities, func(a plan.Activity) bool { return a.ID == e.Activity })
	if i < 0 {
		return nil, document.Wrong("activity", "no activity %q", e.Activity)
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

func (e *PaintRate) sentence(p *plan.Plan) string {
	name := e.Activity
	if a := p.Activity(e.Activity); a != nil {
		name = a.Name
	}
	return plan.Say("%s, %s: %.3g an hour", name, plan.HoursInWords(e.Hours), e.PerHour)
}

// SetActivity adds an activity, or replaces the one with its id.
type SetActivity struct {
	Activity plan.Activity `json:"activity"`
}

func (e *SetActivity) apply(p *plan.Plan) (*plan.Plan, error) {
	next := *p
	next.Activities = put(p.Activities, e.Activity, func(a *plan.Activity) bool { return a.ID == e.Activity.ID })
	return &next, nil
}

func (e *SetActivity) sentence(p *plan.Plan) string {
	a, was := e.Activity, p.Activity(e.Activity.ID)
	if was == nil {
		return "Activity added: " + a.Name
	}
	groups := "each by itself"
	if g := a.Groups; g != nil {
		groups = plan.Say("%v at a time within %v s", g.Size, g.WithinSeconds)
	}
	return also(plan.Say("Activity %s: %.3g events a day of %v s, %s", a.Name, a.Process().PerDay(), a.MeanSeconds, a.Known),
		part{was.Groups, a.Groups, groups}, part{was.Doubt, a.Doubt, "how far off that may be"})
}
