package handover

import (
	"encoding/json"
	"slices"
	"strings"

	"wakefield.example/core/plan"
)

// value is one thing that is typed of a channel.
type value struct {
	name  string // as in the plan
	is    any
	words string
}

// written is a value as it is told apart from others.
func written(v any) string {
	data, err := json.Marshal(v)
	if err != nil {
		panic("handover: a value that cannot be written: " + err.Error())
	}
	return string(data)
}

// unset is a value that nothing is typed for, and to which it is set where something else stands.
const unset = "none"

// copied writes one section of several channels in the fewest entries. The values of a channel come in one order; those that a
// channel does not have are unset.
func (w *writer) copied(what plan.Copy, section string, of func(c *plan.Channel) []value, channels []*plan.Channel) {
	var names []string
	sets := make([]map[string]value, len(channels))
	for i, c := range channels {
		sets[i] = make(map[string]value)
		for _, v := range of(c) {
			sets[i][v.name] = v
			if !slices.Contains(names, v.name) {
				names = append(names, v.name)
			}
		}
	}
	if len(names) == 0 {
		return
	}
	known := make(map[string]value) // by name and text
	text := func(i int) []string {
		out := make([]string, len(names))
		for k, name := range names {
			out[k] = unset
			if v, ok := sets[i][name]; ok {
				out[k] = written(v.is)
				known[name+" "+out[k]] = v
			}
		}
		return out
	}
	s, members := gather(len(channels), text)
	s.copies, s.between = w.recorder.Takes.CanCopy(what), middles
	s.entries = func(from, to []string) (n int) {
		for k := range to {
			if from[k] != to[k] && !(to[k] == unset && goesByItself(names[k])) {
				n++
			}
		}
		return n
	}
	s.root = make([]string, len(names))
	for k := range s.root {
		s.root[k] = unset
	}
	for i := range channels {
		w.sheet.EntriesOneByOne += s.entries(s.root, text(i))
	}
	w.typeAndCopy(s, members, channels, func(i int, from, to []string) {
		c := channels[i]
		set := Set{Channel: c.ID, Section: section, Values: make(map[string]any)}
		var typed []value
		for k, name := range names {
			switch v, ok := known[name+" "+to[k]]; {
			case from[k] == to[k]:
			case ok:
				set.Values[name] = v.is
				typed = append(typed, v)
			default:
				set.Values[name] = unset
				if !goesByItself(name) {
					typed = append(typed, value{name, unset, notSet(name)})
				}
			}
		}
		if len(set.Values) > 0 {
			w.step(Step{Words: capital(called(c)) + ": " + inOneSentence(typed), RightWhen: rightOf(what, c), Entries: s.entries(from, to),
				Do: Do{Set: &set}}, 0)
		}
	}, func(i int, to []*plan.Channel) { w.copyStep(what, section, channels[i], to) })
}

// rightOf is what is to be seen when a section of a channel was typed right.
func rightOf(what plan.Copy, c *plan.Channel) string {
	switch {
	case what == plan.CopiesStream:
		return plan.Say("the recorder shows %v frames a second on %d", c.Streams.Main.FPS, c.Number)
	case what == plan.CopiesTimes:
		return "footage of an event begins that long before its sign, and ends that long after"
	case !c.Detection.On:
		return "no sign of motion on " + c.Name
	}
	return "the sign of motion comes on " + c.Name + " when somebody walks there"
}

// gather finds what several channels want, each once, and which of them want the same.
func gather(n int, text func(i int) []string) (s *section, members [][]int) {
	s = new(section)
	for i := range n {
		t := text(i)
		k := slices.IndexFunc(s.targets, func(o []string) bool { return slices.Equal(o, t) })
		if k < 0 {
			k = len(s.targets)
			s.targets, s.alike, members = append(s.targets, t), append(s.alike, 0), append(members, nil)
		}
		s.alike[k]++
		members[k] = append(members[k], i)
	}
	return s, members
}

// inOneSentence are values one after the other, those of a stream behind its name, none said twice.
func inOneSentence(list []value) string {
	var parts []string
	stream := ""
	for k, v := range list {
		of := streamOf(v.name)
		words := v.words
		switch {
		case k > 0 && of == stream && slices.ContainsFunc(list[:k], func(o value) bool { return o.words == v.words && streamOf(o.name) == of }):
			continue
		case of != stream && of != "":
			words = of + " " + words
		}
		stream = of
		parts = append(parts, words)
	}
	return strings.Join(parts, ", ")
}

// majority is, place by place, what two of three have; the first where all differ.
func majority(a, b, c []string) []string {
	out := slices.Clone(a)
	for k := range out {
		if b[k] == c[k] {
			out[k] = b[k]
		}
	}
	return out
}

// typeAndCopy writes the steps by which channels come to what they are to have: every state is typed on one channel and copied from
// there. typed writes what is typed on a channel on which one state stands and another is to; copied what is copied from one.
func (w *writer) typeAndCopy(s *section, members [][]int, channels []*plan.Channel, typed func(i int, from,
	to []string), copied func(i int, to []*plan.Channel)) {
	nodes, _ := s.fewest()
	if !s.copies {
		for k, list := range members {
			for _, i := range list {
				typed(i, s.root, s.targets[k])
			}
		}
		return
	}
	made := make([][]int, len(nodes)) // from each
	for k, n := range nodes {
		if n.parent >= 0 {
			made[n.parent] = append(made[n.parent], k)
		}
	}
	// home is the channel on which a state is made: the first that is to keep it, or the one of the first state made from it.
	var home func(k int) int
	home = func(k int) int {
		if t := nodes[k].target; t >= 0 {
			return members[t][0]
		}
		return home(made[k][0])
	}
	var write func(k int, from []string)
	write = func(k int, from []string) {
		n, at := nodes[k], home(k)
		typed(at, from, n.state)
		var others []int
		if n.target >= 0 {
			others = members[n.target][1:]
		}
		if n.copied {
			var to []*plan.Channel
			for _, i := range others {
				to = append(to, channels[i])
			}
			for _, c := range made[k] {
				if i := home(c); i != at {
					to = append(to, channels[i])
				}
			}
			slices.SortStableFunc(to, func(a, b *plan.Channel) int { return a.Number - b.Number })
			if len(to) > 0 {
				copied(at, to)
			}
		} else {
			for _, i := range others {
				typed(i, s.root, n.state)
			}
		}
		for _, c := range made[k] {
			write(c, n.state)
		}
	}
	for k, n := range nodes {
		if n.parent < 0 {
			write(k, s.root)
		}
	}
}

func (w *writer) copyStep(what plan.Copy, section string, from *plan.Channel, to []*plan.Channel) {
	ids := make([]string, len(to))
	for i, c := range to {
		ids[i] = c.ID
	}
	names := map[plan.Copy]string{plan.CopiesWeek: "the week", plan.CopiesStream: "the streams",
		plan.CopiesTimes: "the times before and after events", plan.CopiesDetection: "the detection, without its areas,"}
	why := ""
	if len(to) > 1 {
		why = plan.Count(len(to), "channel") + " at once"
	}
	w.step(Step{Words: "Copy " + names[what] + " of " + called(from) + " to " + numbers(to),
		Why: why, RightWhen: called(to[len(to)-1]) + " shows the same", Entries: 1,
		Do: Do{Copy: &CopyOf{from.ID, section, ids}}}, 0)
}
