package plan

import (
	"fmt"
	"slices"
)

// SetWeek adds a named week, or replaces the one with its id, for all that follow
// it.
type SetWeek struct {
	Week Week `json:"week"`
}

func (e *SetWeek) apply(p *Plan) (*Plan, error) {
	next := *p
	next.Weeks = put(p.Weeks, e.Week, func(w *Week) bool { return w.ID == e.Week.ID })
	return &next, nil
}

func (e *SetWeek) sentence(p *Plan) string {
	i := p.weekIndex(e.Week.ID)
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

func (e *RemoveWeek) apply(p *Plan) (*Plan, error) {
	i := p.weekIndex(e.Week)
	if i < 0 {
		return nil, wrong("week", "no week %q", e.Week)
	}
	for _, d := range p.Site.SpecialDays {
		if d.Week == e.Week {
			return nil, wrong("week", "it holds on %v (%s); give that day another week first", d.From, d.Name)
		}
	}
	next := *p
	next.Weeks = slices.Delete(slices.Clone(p.Weeks), i, i+1)
	next.Channels = slices.Clone(p.Channels)
	for j := range next.Channels {
		if c := &next.Channels[j]; c.Week.Own == nil && c.Week.Named == e.Week {
			c.Week = ownCopy(&p.Weeks[i].OwnWeek)
		}
	}
	return &next, nil
}

// ownCopy is a week of a channel's own like another.
func ownCopy(w *OwnWeek) WeekRef {
	own := *w
	own.Blocks = slices.Clone(w.Blocks)
	return WeekRef{Own: &own}
}

func (e *RemoveWeek) sentence(p *Plan) string { return "Week removed: " + p.weekName(e.Week) }

func (p *Plan) weekName(id string) string {
	if i := p.weekIndex(id); i >= 0 {
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

func (e *KeepWeek) apply(p *Plan) (*Plan, error) {
	from := p.Channel(e.From)
	if from == nil {
		return nil, wrong("from", "no channel %q", e.From)
	}
	if p.weekIndex(e.ID) >= 0 {
		return nil, wrong("id", "a second week %q", e.ID)
	}
	weeks := append(slices.Clone(p.Weeks), Week{e.ID, e.Name, *ownCopy(p.WeekOf(from)).Own})
	next, err := p.eachChannel(append([]string{e.From}, e.Channels...), func(c *Channel) error {
		c.Week = WeekRef{Named: e.ID}
		return nil
	})
	if err != nil {
		return nil, err
	}
	next.Weeks = weeks
	return next, nil
}

func (e *KeepWeek) sentence(p *Plan) string {
	s := fmt.Sprintf("The week of %s kept as %q", p.names([]string{e.From}), e.Name)
	if len(e.Channels) > 0 {
		s += ", followed by " + p.names(e.Channels) + " too"
	}
	return s
}

// DepartWeek lets channels go their own way: each has a week of its own from then
// on, as the named week stands.
type DepartWeek struct {
	Channels []string `json:"channels" minItems:"1" maxItems:"5000"`
}

func (e *DepartWeek) apply(p *Plan) (*Plan, error) {
	return p.eachChannel(e.Channels, func(c *Channel) error {
		if c.Week.Own == nil {
			c.Week = ownCopy(p.WeekOf(c))
		}
		return nil
	})
}

func (e *DepartWeek) sentence(p *Plan) string { return p.names(e.Channels) + ": a week of their own" }

// SetSpecialDays sets all special days of the site.
type SetSpecialDays struct {
	Days []SpecialDay `json:"days" maxItems:"2000"`
}

func (e *SetSpecialDays) apply(p *Plan) (*Plan, error) {
	next := *p
	next.Site.SpecialDays = e.Days
	return &next, nil
}

func (e *SetSpecialDays) sentence(p *Plan) string {
	was := p.Site.SpecialDays
	added := slices.DeleteFunc(slices.Clone(e.Days), func(d SpecialDay) bool { return slices.ContainsFunc(was, d.equal) })
	removed := slices.DeleteFunc(slices.Clone(was), func(d SpecialDay) bool { return slices.ContainsFunc(e.Days, d.equal) })
	switch {
	case len(added) == 1 && len(removed) == 0:
		return "Special day added: " + added[0].inWords()
	case len(added) == 1 && len(removed) == 1:
		return "Special day changed: " + added[0].inWords()
	case len(added) == 0 && len(removed) == 1:
		return "Special day removed: " + removed[0].inWords()
	case len(added) == 0 && len(removed) == 0:
		return "Special days: another order, which decides what holds on a date that two of them share"
	}
	return fmt.Sprintf("Special days: %d added, %d removed", len(added), len(removed))
}

func (d SpecialDay) inWords() string {
	when := d.From.String()
	if d.To != d.From {
		when += " to " + d.To.String()
	}
	if d.Yearly {
		when += ", every year"
	}
	if d.RateFactor != nil {
		when += fmt.Sprintf(", %v times as much happens", *d.RateFactor)
	}
	return d.Name + ", " + when
}

func (d SpecialDay) equal(e SpecialDay) bool {
	sameDay := d.UseDay == nil && e.UseDay == nil || d.UseDay != nil && e.UseDay != nil && *d.UseDay == *e.UseDay
	sameRate := (d.RateFactor == nil) == (e.RateFactor == nil) && or(d.RateFactor, 1) == or(e.RateFactor, 1)
	return sameDay && sameRate && d.From == e.From && d.To == e.To && d.Name == e.Name && d.Week == e.Week && d.Yearly == e.Yearly
}
