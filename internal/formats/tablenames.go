package formats

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"wakefield.example/core/document"
	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/table"
)

// A table of another site names recorders, camera kinds, activities, weeks and groups that
// the plan does not have. What each means is said once, for all cells that name it.

// Name says what a name of a table means.
type Name struct {
	Sort string `json:"sort" enum:"recorder,pool,kind,activity,week,group"`
	Text string `json:"text" minLength:"1" maxLength:"1000" doc:"As it stands in the cells"`
	As   string `json:"as" enum:"make,use,leave" doc:"Made, one that is there, or left out: then the cell stays as it is, and a new channel has what is usual"`
	Of   string `json:"of,omitempty" maxLength:"100" doc:"Id of the one that is there, or of what it is made like"`
}

// UnknownName is a name that the plan does not know.
type UnknownName struct {
	Sort  string `json:"sort" enum:"recorder,pool,kind,activity,week,group"`
	Text  string `json:"text"`
	Lines int    `json:"lines" doc:"How many lines have it"`
	Name  *Name  `json:"name,omitempty" doc:"What it was said to be"`
}

// NameChoices is what a name of a sort can be.
type NameChoices struct {
	Sort  string      `json:"sort" enum:"recorder,pool,kind,activity,week,group"`
	There []NameThere `json:"there" doc:"What is there"`
	Like  []NameThere `json:"like" doc:"What it can be made like; empty where it cannot be made"`
}

// NameThere is a thing of the plan, or one to make another like.
type NameThere struct {
	ID   string `json:"id" doc:"Empty where nothing is to be chosen"`
	Name string `json:"name"`
}

// mostNames is how many names can be said at once.
const mostNames = 1000

// ReadNames reads what names mean: a JSON array, or nothing. The error names the place.
func ReadNames(text string) ([]Name, error) {
	if strings.TrimSpace(text) == "" {
		return nil, nil
	}
	var names []Name
	d := json.NewDecoder(strings.NewReader(text))
	d.DisallowUnknownFields()
	if err := d.Decode(&names); err != nil {
		return nil, fmt.Errorf("names: %w", err)
	}
	if len(names) > mostNames {
		return nil, fmt.Errorf("names: %d of them; at most %d are read", len(names), mostNames)
	}
	for i := range names {
		if err := document.Check(fmt.Sprintf("names[%d]", i), &names[i]); err != nil {
			return nil, err
		}
	}
	return names, nil
}

// key tells names of one sort and text apart from all others.
func (n *Name) key() string { return n.Sort + "\n" + strings.TrimSpace(n.Text) }

// strangers are the names of a table that a plan does not know, and what was said of them.
type strangers struct {
	unknown []UnknownName
	said    map[string]*Name
}

// meet finds the names that the plan does not know, in the order of the lines.
func meet(p *plan.Plan, lines []line, places []place, said []Name) *strangers {
	s := &strangers{said: make(map[string]*Name)}
	for i := range said {
		s.said[said[i].key()] = &said[i]
	}
	at := make(map[string]int)
	known := make(map[string]bool)
	for _, l := range lines {
		for _, place := range places {
			n := Name{Sort: place.column.Sort(), Text: strings.TrimSpace(l.cell(place.at))}
			if n.Sort == "" || n.Text == "" || n.Sort == "group" && len(p.Channels) == 0 {
				continue
			}
			key := n.key()
			if _, met := known[key]; !met {
				known[key] = place.column.Knows(p, n.Text)
			}
			if known[key] {
				continue
			}
			k, met := at[key]
			if !met {
				k = len(s.unknown)
				at[key] = k
				s.unknown = append(s.unknown, UnknownName{Sort: n.Sort, Text: n.Text, Name: s.said[key]})
			}
			s.unknown[k].Lines++
		}
	}
	return s
}

// tell lists the names, the first five hundred, and what they can be.
func (s *strangers) tell(p *plan.Plan, t *Table) {
	t.Unknown = append(t.Unknown, s.unknown[:min(len(s.unknown), mostRows)]...)
	for i := range t.Unknown {
		sort := t.Unknown[i].Sort
		if !slices.ContainsFunc(t.Names, func(c NameChoices) bool { return c.Sort == sort }) {
			t.Names = append(t.Names, NameChoices{sort, there(p, sort), like(p, sort)})
		}
	}
}

func there(p *plan.Plan, sort string) []NameThere {
	out := []NameThere{}
	ids, names := table.Named(p, sort)
	for i := range ids {
		out = append(out, NameThere{ids[i], names[i]})
	}
	return out
}

// like lists what a thing of a sort can be made like.
func like(p *plan.Plan, sort string) []NameThere {
	out := []NameThere{}
	switch sort {
	case "recorder":
		return there(p, sort)
	case "kind":
		return append(out, NameThere{"", "as the first of its lines says"})
	case "group":
		return append(out, NameThere{"", "a new group"})
	case "activity":
		for _, a := range plan.ActivityTemplates() {
			out = append(out, NameThere{a.ID, a.Name})
		}
	case "week":
		for i := range p.Duties {
			out = append(out, NameThere{p.Duties[i].ID, p.Duties[i].Name + ", all week"})
		}
	}
	return out
}

// made makes what is to be made. The error names what cannot be.
func (s *strangers) made(p *plan.Plan, lines []line, places []place) (*plan.Plan, []edit.Edit, error) {
	edits := []edit.Edit{}
	for i := range s.unknown {
		u := &s.unknown[i]
		if u.Name == nil || u.Name.As != "make" || u.Sort == "group" {
			continue
		}
		e, err := u.editThatMakes(p, lines, places)
		if err != nil {
			return nil, nil, err
		}
		if p, err = edit.After(p, *e); err != nil {
			return nil, nil, err
		}
		edits = append(edits, *e)
	}
	return p, edits, nil
}

func (u *UnknownName) editThatMakes(p *plan.Plan, lines []line, places []place) (*edit.Edit, error) {
	if !slices.ContainsFunc(like(p, u.Sort), func(l NameThere) bool { return l.ID == u.Name.Of }) {
		return nil, fmt.Errorf("%s %q cannot be made like %q", u.Sort, u.Text, u.Name.Of)
	}
	ids, _ := table.Named(p, u.Sort)
	id := plan.FreeID(u.Text, u.Sort, func(id string) bool { return slices.Contains(ids, id) })
	switch u.Sort {
	case "recorder":
		r := *p.Recorder(u.Name.Of)
		r.ID, r.Name, r.Pools = id, u.Text, slices.Clone(r.Pools)
		pools, _ := table.Named(p, "pool")
		for k := range r.Pools {
			r.Pools[k].ID = plan.FreeID(u.Text+" "+r.Pools[k].Name, "pool", func(id string) bool { return slices.Contains(pools, id) })
			pools = append(pools, r.Pools[k].ID)
		}
		return &edit.Edit{SetRecorder: &edit.SetRecorder{Recorder: r}}, nil
	case "kind":
		return &edit.Edit{SetKind: &edit.SetKind{Kind: u.kind(p, id, lines, places)}}, nil
	case "activity":
		all := plan.ActivityTemplates()
		a := all[slices.IndexFunc(all, func(a plan.Activity) bool { return a.ID == u.Name.Of })]
		a.ID, a.Name = id, u.Text
		return &edit.Edit{SetActivity: &edit.SetActivity{Activity: a}}, nil
	}
	return &edit.Edit{SetWeek: &edit.SetWeek{Week: plan.Week{ID: id, Name: u.Text, OwnWeek: plan.OwnWeek{Otherwise: u.Name.Of}}}}, nil
}

// kind is a camera kind with the streams of the first line that names it; with plain ones where
// that line says none that can be read.
func (u *UnknownName) kind(p *plan.Plan, id string, lines []line, places []place) plan.Kind {
	k := plan.Kind{ID: id, Name: u.Text, Streams: plan.Streams{Main: plan.PlainStream(plan.Main), Sub: plan.PlainStream(plan.Sub)}}
	for _, l := range lines {
		names := func(place place) bool {
			return place.column.Sort() == u.Sort && strings.TrimSpace(l.cell(place.at)) == u.Text
		}
		if !slices.ContainsFunc(places, names) {
			continue
		}
		cells, row := &table.Cells{}, table.CellRow{}
		for _, place := range places {
			if place.column.OfKind {
				cells.Columns, row.Values = append(cells.Columns, place.column.ID), append(row.Values, l.cell(place.at))
			}
		}
		cells.Rows = []table.CellRow{row}
		if after, bad := cells.Set(p); len(row.Values) > 0 && len(bad) == 0 {
			c := after.Channels[len(after.Channels)-1]
			k.Streams, k.AudioKbps = c.Streams, c.AudioKbps
		}
		break
	}
	return k
}

// cell is the text of a cell with what was said of its name; channel is nil for a new one.
func (s *strangers) cell(p *plan.Plan, channel *plan.Channel, place place, text string) string {
	said := s.said[(&Name{Sort: place.column.Sort(), Text: text}).key()]
	if said == nil || place.column.Sort() == "" || place.column.Knows(p, text) {
		return text
	}
	switch said.As {
	case "use":
		ids, names := table.Named(p, said.Sort)
		if i := slices.Index(ids, said.Of); i >= 0 {
			return names[i]
		}
	case "leave":
		if channel != nil {
			return place.column.Text(p, channel)
		}
		return table.Usual(p, place.column)
	}
	return text
}
