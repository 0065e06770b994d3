package edit

import (
	"fmt"
	"slices"

	"wakefield.example/core/document"
	"wakefield.example/core/plan"
)

// FollowWeek lets channels follow a named week.
type FollowWeek struct {
	Channels []string `json:"channels" minItems:"1" maxItems:"5000"`
	Week     string   `json:"week" minLength:"1" maxLength:"100"`
}

func (e *FollowWeek) apply(p *plan.Plan) (*plan.Plan, error) {
	if weekIndex(p, e.Week) < 0 {
		return nil, document.Wrong("week", "no week %q", e.Week)
	}
	return eachChannel(p, e.Channels, func(c *plan.Channel) error {
		c.Week = plan.WeekRef{Named: e.Week}
		return nil
	})
}

func (e *FollowWeek) sentence(p *plan.Plan) string {
	name := e.Week
	if i := weekIndex(p, e.Week); i >= 0 {
		name = p.Weeks[i].Name
	}
	return fmt.Sprintf("%s: follow the week %q", names(p, e.Channels), name)
}

// SetWeek adds a named week, or replaces the one with its id, for all that follow
// it.
type SetWeek struct {
	Week plan.Week `json:"week"`
}

func (e *SetWeek) apply(p *plan.Plan) (*plan.Plan, error) {
	next := *p
	next.Weeks = put(p.Weeks, e.Week, func(w *plan.Week) bool { return w.ID == e.Week.ID })
	return &next, nil
}

func (e *SetWeek) sentence(p *plan.Plan) string {
	i := weekIndex(p, e.Week.ID)
	switch {
	case i < 0:
		return fmt.Sprintf("Week added: %q", e.Week.Name)
	case p.Weeks[i].Name != e.Week.Name:
		return fmt.Sprintf("Week %q renamed %q", p.Weeks[i].Name, e.Week.Name)
	}
	return fmt.Sprintf("Week changed: %q", e.Week.Name)
}

// RemoveWeek removes a named week. Channels that follow it depart with a copy;
// special days on which it holds must have been given another.
type RemoveWeek struct {
	Week string `json:"week" minLength:"1" maxLength:"100"`
}

func (e *RemoveWeek) apply(p *plan.Plan) (*plan.Plan, error) {
	if p.Week(e.Week) == nil {
		return nil, document.Wrong("week", "no week %q", e.Week)
	}
	departed := *p
	departed.Channels = slices.Clone(p.Channels)
	for i := range departed.Channels {
		if c := &departed.Channels[i]; c.Week.Follows(e.Week) {
			c.Week = c.Week.Departed(p)
		}
	}
	return removal{kind: "week", gone: is(e.Week), path: "week", advice: "give that day another week first"}.from(&departed)
}

func (e *RemoveWeek) sentence(p *plan.Plan) string { return "Week removed: " + weekName(p, e.Week) }

func weekName(p *plan.Plan, id string) string {
	if i := weekIndex(p, id); i >= 0 {
		return fmt.Sprintf("%q", p.Weeks[i].Name)
	}
	return id
}

// KeepWeek keeps a channel's week under a name; the channel follows it from then
// on, and so do others that are named.
type KeepWeek struct {
	From     string   `json:"from" minLength:"1" maxLength:"100" doc:"Id of the channel whose week is kept"`
	ID       string   `json:"id" minLength:"1" maxLength:"100" doc:"Id for the week"`
	Name     string   `json:"name" minLength:"1" maxLength:"100"`
	Channels []string `json:"channels,omitempty" maxItems:"5000" doc:"Other channels that follow it too"`
}

func (e *KeepWeek) apply(p *plan.Plan) (*plan.Plan, error) {
	from := p.Channel(e.From)
	if from == nil {
		return nil, document.Wrong("from", "no channel %q", e.From)
	}
	if weekIndex(p, e.ID) >= 0 {
		return nil, document.Wrong("id", "a second week %q", e.ID)
	}
	weeks := append(slices.Clone(p.Weeks), plan.Week{ID: e.ID, Name: e.Name, OwnWeek: *p.WeekOf(from).Clone()})
	next, err := eachChannel(p, append([]string{e.From}, e.Channels...), func(c *plan.Channel) error {
		c.Week = plan.WeekRef{Named: e.ID}
		return nil
	})
	if err != nil {
		return nil, err
	}
	next.Weeks = weeks
	return next, nil
}

func (e *KeepWeek) sentence(p *plan.Plan) string {
	s := fmt.Sprintf("The week of %s saved as %q", names(p, []string{e.From}), e.Name)
	if len(e.Channels) > 0 {
		s += ", followed by " + names(p, e.Channels) + " too"
	}
	return s
}

// DepartWeek lets channels go their own way: each has a week of its own from then
// on, as the named week stands.
type DepartWeek struct {
	Channels []string `json:"channels" minItems:"1" maxItems:"5000"`
}

func (e *DepartWeek) apply(p *plan.Plan) (*plan.Plan, error) {
	return eachChannel(p, e.Channels, func(c *plan.Channel) error {
		c.Week = c.Week.Departed(p)
		return nil
	})
}

func (e *DepartWeek) sentence(p *plan.Plan) string {
	return names(p, e.Channels) + ": a week of their own"
}
