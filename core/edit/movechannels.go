package edit

import (
	"cmp"
	"slices"

	"wakefield.example/core/document"
	"wakefield.example/core/plan"
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

func (e *MoveChannels) apply(p *plan.Plan) (*plan.Plan, error) {
	r := p.Recorder(e.Recorder)
	if r == nil {
		return nil, document.Wrong("recorder", "no recorder %q", e.Recorder)
	}
	if before := p.Channel(e.Before); e.Before != "" && (before == nil || before.Recorder != e.Recorder) {
		return nil, document.Wrong("before", "no channel %q on this recorder", e.Before)
	}
	if slices.Contains(e.Channels, e.Before) {
		return nil, document.Wrong("before", "%q is one of the channels that move", e.Before)
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
	next, err := eachChannel(p, e.Channels, func(c *plan.Channel) error {
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
			return document.Wrong("recorder", "%s has no pool to keep footage on", r.Name)
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
func (e *MoveChannels) order(p *plan.Plan) []int {
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

func (e *MoveChannels) sentence(p *plan.Plan) string {
	where := "to the end of " + e.Recorder
	if r := p.Recorder(e.Recorder); r != nil {
		where = "to the end of " + r.Name
	}
	if c := p.Channel(e.Before); c != nil {
		where = "before " + c.Name
	}
	return names(p, e.Channels) + " moved " + where
}
