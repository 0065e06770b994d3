package papers

import (
	"fmt"

	"wakefield.example/core/plan"
)

// walkTest writes the form that is filled in by hand: of every camera its walks, or near, middle and far where none are drawn.
func (s *Source) walkTest(sh *sheet, recorders []string) {
	s.letterhead(sh, "Walk test")
	sh.par("Somebody walks as said while another watches the recorder. Written down is after how many seconds the sign of motion came, and the first and last second of the footage by the recorder’s clock. Its clock is looked at first.", text)
	s.phone(sh)
	sh.space(2)
	sh.blank([]column{{title: "Date", share: 1}, {title: "Who walked", share: 2}, {title: "Who watched", share: 2},
		{title: "Recorder’s clock beside your own", share: 2}}, [][]string{{" ", " ", " ", " "}}, style{points: 9}, 8)
	for _, r := range s.of(recorders) {
		cameras := s.cameras(r.ID)
		if len(cameras) == 0 {
			continue
		}
		sh.head(r.Name, 1, 20)
		var rows [][]string
		for _, i := range cameras {
			rows = append(rows, s.walksOf(i)...)
		}
		sh.blank([]column{{title: "No.", width: 11}, {title: "Camera and walk", share: 5}, {title: "Sign after", width: 19},
			{title: "Seen, s", width: 16}, {title: "Footage from, to", width: 33}, {title: "Remarks", share: 3}}, rows, style{points: 9}, 7)
	}
	p := s.Entered.Plan
	if len(p.AlarmInputs) > 0 {
		sh.head("Contacts", 1, 16)
		var rows [][]string
		for i := range p.AlarmInputs {
			a := &p.AlarmInputs[i]
			rows = append(rows, []string{a.Name, orElse(plan.Contacts.Name(a.Contact), "look which"), " ", " ", " "})
		}
		sh.blank([]column{{title: "Contact", share: 3}, {title: "Kind", share: 2}, {title: "At rest: no alarm", share: 2},
			{title: "Set off: alarm", share: 2}, {title: "Remarks", share: 3}}, rows, style{points: 9}, 7)
	}
}

// walksOf are the rows of a camera.
func (s *Source) walksOf(i int) (out [][]string) {
	c := &s.Entered.Plan.Channels[i]
	number := fmt.Sprint(c.Number)
	row := func(walk, sign string) {
		out = append(out, []string{number, c.Name + ": " + walk, sign, " ", " ", " "})
		number = " "
	}
	if !c.Detection.On {
		row("detection is off; recorded by hours and alarms only", "none")
		return out
	}
	walks := s.As.SightOf(i).Walks
	for k := range walks {
		w := &walks[k]
		sign := "no sign"
		if w.NoticedSeconds != nil {
			sign = fmt.Sprintf("%.0f s", *w.NoticedSeconds)
		}
		row(s.walkName(c, w.ID), sign)
	}
	if len(walks) == 0 {
		for _, where := range []string{"near", "middle", "far"} {
			row(where, plan.Say("about %v s", max(1, c.Detection.MinSeconds)))
		}
	}
	return out
}

// walkName is what a walk is called.
func (s *Source) walkName(c *plan.Channel, id string) string {
	if c.Scene != nil {
		for _, w := range c.Scene.Walks {
			if w.ID == id {
				return w.Name
			}
		}
	}
	return id
}
