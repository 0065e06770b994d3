package api

import (
	"encoding/json"
	"slices"

	"wakefield.example/core/check"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
	"wakefield.example/internal/store"
)

// State is what the pages show of a plan whole after every change.
type State struct {
	Version   int64               `json:"version"`
	Mark      string              `json:"mark" doc:"Which history of the plan it is a version of; another one after a backup was restored"`
	Undo      string              `json:"undo" doc:"The change that undo reverses; empty for nothing"`
	UndoBy    string              `json:"undoBy" doc:"Whose change that is"`
	Redo      string              `json:"redo" doc:"What redo would make again; empty for nothing"`
	Pools     []estimate.Pool     `json:"pools"`
	Recorders []estimate.Recorder `json:"recorders"`
	Verdict   estimate.Verdict    `json:"verdict"`
	Year      *YearVerdict        `json:"year,omitempty" doc:"The worst date; absent where no date is special"`
	Rails     []NamedRail         `json:"rails" doc:"Of the named weeks"`
	Tide      Tide                `json:"tide"`
}

// View is a plan as the pages show it.
type View struct {
	State
	Findings []check.Finding    `json:"findings" doc:"Most severe first"`
	ID       string             `json:"id"`
	Site     string             `json:"site" doc:"Id of the site that it is a plan of"`
	Plan     *plan.Plan         `json:"plan"`
	Figures  []estimate.Channel `json:"figures"`
	Ribbons  []Ribbon           `json:"ribbons"`
}

// Answer is what a change changed.
type Answer struct {
	State
	Findings []FindingRun       `json:"findings" doc:"The findings in their order, most severe first: runs of those from before, and new ones"`
	Sentence string             `json:"sentence" doc:"What the change did"`
	Patch    []any              `json:"patch" doc:"JSON Patch (RFC 6902) of the plan from the version that it says"`
	From     int64              `json:"from" doc:"The version that the patch and what changed are from: others' changes may have been made together with this one"`
	Made     int64              `json:"made" doc:"The revision that the change made; 0 where it changed nothing"`
	Figures  []estimate.Channel `json:"figures" doc:"Of the channels whose figures changed"`
	Ribbons  []Ribbon           `json:"ribbons" doc:"Of the channels whose ribbon changed"`
	Order    []string           `json:"order" doc:"Ids of all channels in the order of the plan"`
	Rows     []TableRow         `json:"rows" doc:"Rows of the channel table that changed"`
	Ties     *TieChange         `json:"ties,omitempty" doc:"What became of the ties; absent where nothing did, or so much that it is asked for"`

	common *shown // what is the same in the answers to all who changed something together
}

// JSON is the answer as it is sent. What several answers have in common is written once.
func (a *Answer) JSON() ([]byte, error) {
	a.common.once.Do(func() {
		a.common.json, a.common.err = json.Marshal(struct {
			*Answer
			Sentence *string `json:"sentence,omitempty"` // each has its own
			Made     *int64  `json:"made,omitempty"`
		}{Answer: a})
	})
	if a.common.err != nil {
		return nil, a.common.err
	}
	own, err := json.Marshal(struct {
		Sentence string `json:"sentence"`
		Made     int64  `json:"made"`
	}{a.Sentence, a.Made})
	return slices.Concat(own[:len(own)-1], []byte(","), a.common.json[1:]), err
}

func state(e entry) State {
	s := State{
		Pools: e.site.Pools, Recorders: e.site.Recorders, Verdict: e.site.Verdict, Year: yearVerdict(e.site),
		Rails: rails(e.head.Plan), Tide: tide(e, []week.Span{week.Whole}),
	}
	s.stamp(e.head)
	return s
}

// stamp says which version it is, and where undo and redo lead.
func (s *State) stamp(head *store.Head) {
	s.Version, s.Mark, s.Undo, s.UndoBy, s.Redo = head.Version, head.Mark, head.Undo, head.UndoBy, head.Redo
}

// YearVerdict is the date on which the plan holds least.
type YearVerdict struct {
	WorstDays float64   `json:"worstDays"`
	WorstDate week.Date `json:"worstDate"`
	Name      string    `json:"name" doc:"The special day behind it; empty for none"`
}

func yearVerdict(s *estimate.Result) *YearVerdict {
	y := s.SpecialYear()
	if y == nil || y.WorstDays == nil {
		return nil
	}
	return &YearVerdict{*y.WorstDays, *y.WorstDate, y.Name}
}

func view(e entry) *View {
	v := &View{State: state(e), Findings: e.found, ID: e.head.ID, Site: e.head.Site, Plan: e.head.Plan,
		Figures: e.site.Channels, Ribbons: []Ribbon{}}
	for i := range e.site.Channels {
		v.Ribbons = append(v.Ribbons, ribbon(e.site, i))
	}
	return v
}

// answer tells what differs between two versions.
func answer(before, after entry) *Answer {
	a := &Answer{State: state(after), From: before.head.Version, common: new(shown), Findings: findingRuns(before.found,
		after.found), Figures: []estimate.Channel{}, Ribbons: []Ribbon{}, Order: []string{}, Rows: changedRows(before.head.Plan, after.head.Plan)}
	changed := after.site.Changed(before.site)
	for i, c := range after.site.Channels {
		a.Order = append(a.Order, c.ID)
		if changed[i].Figures {
			a.Figures = append(a.Figures, c)
		}
		if changed[i].Week {
			a.Ribbons = append(a.Ribbons, ribbon(after.site, i))
		}
	}
	if before.site != nil { // else all of it is new
		a.Ties = tieChange(before.site.Ties(), after.site.Ties())
	}
	return a
}
