package plan

import (
	"cmp"
	"fmt"
	"slices"
)

// MoveChannels puts channels, in the order given, before another channel of a
// recorder, or at its end. On their own recorder the channels between change
// numbers and the set of numbers stays; another recorder gives them its lowest free
// numbers, and its channels are numbered through in the new order. Channels that
// come to another recorder are kept on its first pool.
type MoveChannels struct {
	Channels []string `json:"channels" minItems:"1" maxItems:"5000"`
	Recorder string   `json:"recorder" minLength:"1" maxLength:"100"`
	Before   string   `json:"before,omitempty" maxLength:"100" doc:"Id of the channel they come before; absent for the end"`
}

func (e *MoveChannels) apply(p *Plan) (*Plan, error) {
	r := p.Recorder(e.Recorder)
	if r == nil {
		return nil, wrong("recorder", "no recorder %q", e.Recorder)
	}
	if before := p.Channel(e.Before); e.Before != "" && (before == nil || before.Recorder != e.Recorder) {
		return nil, wrong("before", "no channel %q on this recorder", e.Before)
	}
	if slices.Contains(e.Channels, e.Before) {
		return nil, wrong("before", "%q is one of the channels that move", e.Before)
	}
	taken := make(map[int]bool)
	var numbers []int
	for i := range p.Channels {
		if c := &p.Channels[i]; c.Recorder == e.Recorder {
			taken[c.Number] = true
			numbers = append(numbers, c.Number)
		}
	}
	free := 1
	next, err := p.eachChannel(e.Channels, func(c *Channel) error {
		if c.Recorder == e.Recorder {
			return nil
		}
		for taken[free] {
			free++
		}
		taken[free] = true
		numbers = append(numbers, free)
		c.Recorder = e.Recorder
		if len(r.Pools) == 0 {
			return wrong("recorder", "%s has no pool to keep footage on", r.Name)
		}
		c.Pool = r.Pools[0].ID
		return nil
	})
	if err != nil {
		return nil, err
	}
	slices.Sort(numbers)
	for i, at := range e.order(next) {
		next.Channels[at].Number = numbers[i]
	}
	return next, nil
}

// order lists where the channels of the recorder stand in the plan, in their new
// order.
func (e *MoveChannels) order(p *Plan) []int {
	moving := make(map[string]int)
	for i, id := range e.Channels {
		moving[id] = i
	}
	var stay, move []int
	for i := range p.Channels {
		if c := &p.Channels[i]; c.Recorder == e.Recorder {
			if _, ok := moving[c.ID]; ok {
				move = append(move, i)
			} else {
				stay = append(stay, i)
			}
		}
	}
	slices.SortStableFunc(stay, func(a, b int) int { return cmp.Compare(p.Channels[a].Number, p.Channels[b].Number) })
	slices.SortStableFunc(move, func(a, b int) int { return cmp.Compare(moving[p.Channels[a].ID], moving[p.Channels[b].ID]) })
	at := len(stay)
	if i := slices.IndexFunc(stay, func(i int) bool { return p.Channels[i].ID == e.Before }); i >= 0 {
		at = i
	}
	return slices.Insert(stay, at, move...)
}

func (e *MoveChannels) sentence(p *Plan) string {
	where := "to the end of " + e.Recorder
	if r := p.Recorder(e.Recorder); r != nil {
		where = "to the end of " + r.Name
	}
	if c := p.Channel(e.Before); c != nil {
		where = "before " + c.Name
	}
	return p.names(e.Channels) + " moved " + where
}

// RemoveChannels removes channels, with what they cause and every mention of them.
type RemoveChannels struct {
	Channels []string `json:"channels" minItems:"1" maxItems:"5000"`
}

func (e *RemoveChannels) apply(p *Plan) (*Plan, error) {
	gone := make(map[string]bool)
	for i, id := range e.Channels {
		if p.Channel(id) == nil {
			return nil, wrong(fmt.Sprintf("channels[%d]", i), "no channel %q", id)
		}
		gone[id] = true
	}
	without := func(ids []string) []string {
		kept := []string{}
		for _, id := range ids {
			if !gone[id] {
				kept = append(kept, id)
			}
		}
		return kept
	}
	next := *p
	next.Channels = slices.DeleteFunc(slices.Clone(p.Channels), func(c Channel) bool { return gone[c.ID] })
	next.CallButtons = slices.Clone(p.CallButtons)
	for i := range next.CallButtons {
		next.CallButtons[i].Records = without(next.CallButtons[i].Records)
	}
	next.Effects = nil
	for _, effect := range p.Effects {
		if gone[effect.When.Motion] {
			continue
		}
		if kept := without(effect.Record); len(kept) > 0 {
			next.Effects = append(next.Effects, Effect{effect.When, kept})
		}
	}
	return &next, nil
}

func (e *RemoveChannels) sentence(p *Plan) string { return "Removed: " + p.names(e.Channels) }

// RemoveActivity removes an activity. What happened by it happens by another, or,
// where none is named, not at all; alarm inputs cannot be without one.
type RemoveActivity struct {
	Activity string `json:"activity" minLength:"1" maxLength:"100"`
	Instead  string `json:"instead,omitempty" maxLength:"100"`
}

func (e *RemoveActivity) apply(p *Plan) (*Plan, error) {
	if p.Activity(e.Activity) == nil {
		return nil, wrong("activity", "no activity %q", e.Activity)
	}
	if e.Instead == e.Activity || e.Instead != "" && p.Activity(e.Instead) == nil {
		return nil, wrong("instead", "no other activity %q", e.Instead)
	}
	next := *p
	next.Activities = slices.DeleteFunc(slices.Clone(p.Activities), func(a Activity) bool { return a.ID == e.Activity })
	swap := func(id *string) { follow(id, e.Activity, e.Instead) }
	next.Channels = slices.Clone(p.Channels)
	for i := range next.Channels {
		swap(&next.Channels[i].Activity)
		swap(&next.Channels[i].Nuisance)
	}
	next.AlarmInputs = slices.Clone(p.AlarmInputs)
	for i, a := range next.AlarmInputs {
		if a.Activity == e.Activity && e.Instead == "" {
			return nil, wrong("instead", "the alarm input %s goes by it; name another activity for it", a.Name)
		}
		swap(&next.AlarmInputs[i].Activity)
	}
	return &next, nil
}

func (e *RemoveActivity) sentence(p *Plan) string {
	s := "Activity removed"
	if a := p.Activity(e.Activity); a != nil {
		s += ": " + a.Name
	}
	if a := p.Activity(e.Instead); a != nil {
		s += ", " + a.Name + " in its place"
	}
	return s
}
