package walktest

import (
	"fmt"
	"slices"

	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
	"wakefield.example/core/week"
)

// situation is what decides at some hours of the week what a walk shows.
type situation struct {
	open    uint64   // bits of the areas that watch
	listens bool     // whether the duty listens to motion alone
	tied    bool     // whether motion in any area records the channel
	tiedBy  []string // ids of areas in which motion does, where not in all
	always  string   // what is written all the time: "", "low" or "full"
	untold  bool     // whether nothing is told of it: there are too many
	effects []int    // effects of the plan that hold then and are of the channel's motion
}

// moment is a situation that can be compared; effects are bits of a text.
type moment struct {
	open    uint64
	duty    string
	effects string
}

// situationsOf are the situations of a channel's week, the ones that hold longest first, and which one holds when.
func situationsOf(p *plan.Plan, c *plan.Channel, w *resolve.Watching) (list []situation, since []Since) {
	open := make(week.Steps[uint64], len(w.Open))
	for k, s := range w.Open {
		open[k] = week.Step[uint64]{From: s.From, Value: uint64(s.Value)}
	}
	if !c.Detection.Drawn() {
		open = week.Map(c.Detection.Steps(), func(on bool) uint64 {
			if on {
				return 1
			}
			return 0
		})
	}
	steps := week.Map(week.Both(open, p.WeekOf(c).Steps()), func(at week.Pair[uint64, string]) moment {
		return moment{open: at.A, duty: at.B}
	})
	var ofMotion []int
	for k := range p.Effects {
		e := &p.Effects[k]
		if e.When.Motion != c.ID {
			continue
		}
		bit := len(ofMotion)
		ofMotion = append(ofMotion, k)
		steps = week.Map(week.Both(steps, e.Hours.Holding()), func(at week.Pair[moment, bool]) moment {
			m := at.A
			if at.B {
				m.effects += string(rune('0' + bit))
			}
			return m
		})
	}
	minutes := make(map[moment]week.Minute)
	for span, m := range steps.Runs() {
		minutes[m] += span.To - span.From
	}
	var order []moment
	for _, s := range steps {
		if !slices.Contains(order, s.Value) {
			order = append(order, s.Value)
		}
	}
	slices.SortStableFunc(order, func(a, b moment) int { return int(minutes[b] - minutes[a]) })
	// Duties that do the same are one situation; of too many the longest are told.
	at := make(map[moment]int, len(order))
	known := make(map[string]int)
	for _, m := range order {
		s := situationOf(p, c, m, ofMotion)
		key := fmt.Sprintf("%+v", s)
		k, ok := known[key]
		if !ok {
			if k = len(list); k < mostSituations {
				list = append(list, s)
			} else if k == mostSituations {
				list = append(list, situation{untold: true})
			} else {
				k = mostSituations
			}
			known[key] = k
		}
		at[m] = k
	}
	for _, s := range steps {
		if k := at[s.Value]; len(since) == 0 || since[len(since)-1].Situation != k {
			since = append(since, Since{s.From, k})
		}
	}
	return list, since
}

// mostSituations of a channel's week are told apart; of more the longest, and that of the others nothing is told.
const mostSituations = 32

func situationOf(p *plan.Plan, c *plan.Channel, m moment, ofMotion []int) situation {
	s := situation{open: m.open, tied: c.Detection.TiedToSelf()}
	for _, r := range m.effects {
		k := ofMotion[r-'0']
		s.effects = append(s.effects, k)
		if e := &p.Effects[k]; slices.Contains(e.Record, c.ID) {
			s.tied = s.tied || e.When.Area == ""
			s.tiedBy = append(s.tiedBy, e.When.Area)
		}
	}
	d := p.Duty(m.duty)
	if d == nil {
		return s
	}
	if e := d.Event; e != nil {
		s.listens = slices.Contains(e.On, plan.Motion) && (e.Match != "all" || len(e.On) == 1)
	}
	if b := d.Base; b != nil {
		s.always = "low"
		if b.Stream == plan.Main && !b.KeyframesOnly && b.FPS == 0 {
			s.always = "full"
		}
	}
	return s
}

// words says why no sign or no footage is to be expected.
func (s *situation) words(noticed bool) string {
	switch {
	case s.untold:
		return "The week changes too often for its rarest hours to be told; walk at another hour."
	case s.open == 0:
		return "Detection is off at this hour: no sign comes, and nothing is recorded on motion."
	case !noticed:
		return "The plan does not notice this walk: no sign should come."
	case !s.listens:
		return "The sign comes, but motion alone is not recorded at this hour."
	case !s.tied && len(s.tiedBy) == 0:
		return "The sign comes, but the channel is not recorded on its own motion."
	}
	return ""
}
