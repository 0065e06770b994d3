package table

import (
	"fmt"
	"slices"
	"strings"

	"wakefield.example/core/plan"
)

// nameList writes ids as names where a name is one thing's alone, and reads both.
type nameList struct {
	what  string
	ids   []string
	names []string
}

func namesOf[T any](what string, list []T, of func(*T) (id, name string)) nameList {
	n := nameList{what: what}
	for i := range list {
		id, name := of(&list[i])
		n.ids, n.names = append(n.ids, id), append(n.names, name)
	}
	return n
}

// name is what stands for an id: the name, or the id where another has the same
// name or it could be taken for something else.
func (n nameList) name(id string) string {
	i := slices.Index(n.ids, id)
	if i < 0 || n.names[i] != strings.TrimSpace(n.names[i]) {
		return id
	}
	for j := range n.ids {
		if j != i && (strings.EqualFold(n.names[j], n.names[i]) || n.ids[j] == n.names[i]) {
			return id
		}
	}
	return n.names[i]
}

func (n nameList) all() []string {
	out := []string{}
	for _, id := range n.ids {
		out = append(out, n.name(id))
	}
	return out
}

// id reads a name or an id.
func (n nameList) id(text string) (string, error) {
	if slices.Contains(n.ids, text) {
		return text, nil
	}
	found := ""
	for i, name := range n.names {
		if strings.EqualFold(strings.TrimSpace(name), text) {
			if found != "" {
				return "", fmt.Errorf("more than one %s is called %q; write the id, %s or %s", n.what, text, found, n.ids[i])
			}
			found = n.ids[i]
		}
	}
	if found == "" {
		return "", fmt.Errorf("no %s %q", n.what, text)
	}
	return found, nil
}

func kindNames(p *plan.Plan) nameList {
	return namesOf("camera kind", p.Kinds, func(k *plan.Kind) (string, string) { return k.ID, k.Name })
}

func weekNames(p *plan.Plan) nameList {
	return namesOf("week", p.Weeks, func(w *plan.Week) (string, string) { return w.ID, w.Name })
}

func activityNames(p *plan.Plan) nameList {
	return namesOf("activity", p.Activities, func(a *plan.Activity) (string, string) { return a.ID, a.Name })
}

func recorderNameList(p *plan.Plan) nameList {
	return namesOf("recorder", p.Recorders, func(r *plan.Recorder) (string, string) { return r.ID, r.Name })
}

// poolNameList lists the pools of a recorder, or of all for an empty id.
func poolNameList(p *plan.Plan, recorder string) nameList {
	var pools []plan.Pool
	for _, r := range p.Recorders {
		if recorder == "" || r.ID == recorder {
			pools = append(pools, r.Pools...)
		}
	}
	return namesOf("pool", pools, func(pool *plan.Pool) (string, string) { return pool.ID, pool.Name })
}

func recorderNames(p *plan.Plan) []string { return recorderNameList(p).all() }

func poolNames(p *plan.Plan) []string { return poolNameList(p, "").all() }

func getRecorder(p *plan.Plan, c *plan.Channel) string { return recorderNameList(p).name(c.Recorder) }

func getPool(p *plan.Plan, c *plan.Channel) string { return poolNameList(p, c.Recorder).name(c.Pool) }

// setRecorderName puts a channel on another recorder, and there on its first pool.
func setRecorderName(p *plan.Plan, c *plan.Channel, text string) error {
	id, err := recorderNameList(p).id(text)
	if err != nil {
		return err
	}
	r := p.Recorder(id)
	if c.Recorder != id {
		if len(r.Pools) == 0 {
			return fmt.Errorf("%s has no pool to keep footage on", r.Name)
		}
		c.Recorder, c.Pool = id, r.Pools[0].ID
	}
	return nil
}

func setPoolName(p *plan.Plan, c *plan.Channel, text string) error {
	id, err := poolNameList(p, c.Recorder).id(text)
	if err == nil {
		c.Pool = id
	}
	return err
}

func getCamera(_ *plan.Plan, c *plan.Channel) string {
	if c.NoCamera {
		return "none"
	}
	return "yes"
}

// setCamera says whether there is a camera; a channel that gets its first one has a
// plain main stream until something is known about it.
func setCamera(_ *plan.Plan, c *plan.Channel, text string) error {
	switch strings.ToLower(text) {
	case "yes", "y", "1", "true":
		c.NoCamera = false
		if c.Streams.Main == nil {
			c.Streams.Main = plan.PlainStream(plan.Main)
		}
	case "none", "no", "n", "0", "false", "":
		c.NoCamera = true
	default:
		return fmt.Errorf("%q is neither yes nor none", text)
	}
	return nil
}

// setKindName makes a channel of a camera kind with all its settings.
func setKindName(p *plan.Plan, c *plan.Channel, text string) error {
	if text == "" {
		c.Kind = ""
		return nil
	}
	id, err := kindNames(p).id(text)
	if err == nil {
		p.Kind(id).Onto(c)
	}
	return err
}

func activityColumn(id, title string, at func(*plan.Channel) *string) Column {
	return Column{ID: id, Title: title, Group: "Events",
		get: func(p *plan.Plan, c *plan.Channel) string { return activityNames(p).name(*at(c)) },
		set: func(p *plan.Plan, c *plan.Channel, text string) error {
			if text == "" {
				*at(c) = ""
				return nil
			}
			id, err := activityNames(p).id(text)
			if err == nil {
				*at(c) = id
			}
			return err
		},
		choices: func(p *plan.Plan) []string { return activityNames(p).all() }}
}

// ownWeekText stands for a week of the channel's own, which no cell can hold.
const ownWeekText = "own"

func getWeek(p *plan.Plan, c *plan.Channel) string {
	if c.Week.IsOwn() {
		return ownWeekText
	}
	return weekNames(p).name(c.Week.Named)
}

func setWeekName(p *plan.Plan, c *plan.Channel, text string) error {
	if text == ownWeekText || text == "" {
		c.Week = c.Week.Departed(p)
		return nil
	}
	id, err := weekNames(p).id(text)
	if err == nil {
		c.Week = plan.WeekRef{Named: id}
	}
	return err
}

// groups lists the groups in use.
func groups(p *plan.Plan) []string {
	out := []string{}
	for i := range p.Channels {
		if g := p.Channels[i].Group; g != "" && !slices.Contains(out, g) {
			out = append(out, g)
		}
	}
	return out
}
