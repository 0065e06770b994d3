package papers

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/core/walktest"
)

// walkStatuses are how far cameras and trials are, as papers say it.
var walkStatuses = map[walktest.Status]string{
	walktest.Open: "not walked", walktest.Begun: "walked in part", walktest.Right: "as planned", walktest.Differs: "differs from the plan",
	walktest.Again: "to be walked again", walktest.Left: "left so",
}

// walked writes what was walked: who, when, expected, seen, what was decided, and the signatures.
func (s *Source) walked(sh *sheet) {
	s.letterhead(sh, "Walk test, as it was done")
	r := s.Walked
	if r == nil || !r.AnySeen() {
		sh.par("Nothing was walked or tried yet.", text)
		return
	}
	words := fmt.Sprintf("%d of %s as planned, or left with a reason.", r.Done, plan.Count(r.All, "camera or trial"))
	if r.All != 1 {
		words = fmt.Sprintf("%d of %d cameras and trials are as planned, or left with a reason.", r.Done, r.All)
	}
	if !r.Finished() {
		words += " The walk test is not finished."
	}
	sh.par(words, text)
	sh.par("Seconds are after the walker started, timed by hand to about 0.7 s; footage is read to about 0.5 s by the recorder’s clock, its error taken off.",
		small)
	for _, rec := range s.Entered.Plan.Recorders {
		s.walkedAt(sh, rec.ID, rec.Name)
	}
	s.tried(sh)
	if len(r.Gone) > 0 {
		sh.head("Of what the plan does not have any more", 1, 12)
		var list []string
		for i := range r.Gone {
			list = append(list, fmt.Sprintf("%s, %s: %s.", r.Gone[i].By, s.moment(r.Gone[i].At), r.Gone[i].About))
		}
		sh.bullets(list)
	}
	s.signed(sh)
}

// walkedAt sets the cameras of a recorder.
func (s *Source) walkedAt(sh *sheet, recorder, name string) {
	begun := false
	for i := range s.Walked.Cameras {
		c := &s.Walked.Cameras[i]
		if c.Recorder != recorder || c.Status == walktest.None {
			continue
		}
		if !begun {
			sh.head(name, 1, 24)
			begun = true
		}
		s.walkedBefore(sh, c)
	}
}

func (s *Source) walkedBefore(sh *sheet, c *walktest.CameraReport) {
	sh.head(fmt.Sprintf("%d %s: %s", c.Number, c.Name, walkStatuses[c.Status]), 2, 12)
	var rows [][]string
	for k := range c.Walks {
		w := &c.Walks[k]
		for i := range w.Results {
			res := &w.Results[i]
			if res.SetAside != nil && res.SetAside.Aside.Reason == "Completed." {
				continue
			}
			said := res.Walk
			remarks := []string{said.Remark}
			switch {
			case res.SetAside != nil:
				remarks = append(remarks, "set aside: "+res.SetAside.Aside.Reason)
			case res.Odd != "":
				remarks = append(remarks, res.Odd)
			case res.Stale:
				remarks = append(remarks, "before the plan changed")
			}
			rows = append(rows, []string{w.Name, res.By + ", " + s.moment(res.At), pair(said.Planned[walktest.Sign], said.Sign, said.NoSign),
				pair(said.Planned[walktest.First], said.First, said.NoShot), pair(said.Planned[walktest.Last], said.Last, said.NoShot),
				strings.TrimSpace(strings.Join(remarks, " "))})
		}
	}
	if len(rows) > 0 {
		sh.table([]column{{title: "Walk", share: 3}, {title: "Who, when", share: 3}, {title: "Sign: plan, seen", width: 27},
			{title: "Begins", width: 27},
			{title: "Ends", width: 27}, {title: "Remarks", share: 3}}, rows, style{points: 8.5})
	}
	if len(c.Likely) > 0 && c.Likely[0].Fault != walktest.AsPlanned {
		sh.par(fmt.Sprintf("Most likely: %s (%.0f %%)", c.Likely[0].Words, 100*c.Likely[0].Chance), text)
	}
	for k := range c.Decisions {
		d := &c.Decisions[k]
		if d.Decision.Reason != "" {
			sh.par(fmt.Sprintf("%s, %s: %s", d.By, s.moment(d.At), d.Decision.Reason), text)
		}
	}
	s.photos(sh, c)
}

// photos sets the pictures that were taken, three in a row.
func (s *Source) photos(sh *sheet, c *walktest.CameraReport) {
	if s.Picture == nil {
		return
	}
	const high, across = 32.0, 3
	wide := sh.width / across
	placed := 0
	for k := range c.Photos {
		data := s.Picture(c.Photos[k].Photo.Picture)
		if data == nil {
			continue
		}
		if placed%across == 0 {
			sh.room(high + 3)
		}
		sh.picture(data, sh.left+wide*float64(placed%across), sh.y+1, wide-3, high)
		if placed++; placed%across == 0 {
			sh.y += high + 3
		}
	}
	if placed%across != 0 {
		sh.y += high + 3
	}
}

// tried sets contacts, buttons and all else that is tried once.
func (s *Source) tried(sh *sheet) {
	var rows [][]string
	for i := range s.Walked.Trials {
		t := &s.Walked.Trials[i]
		if len(t.Results) == 0 {
			continue
		}
		res := &t.Results[len(t.Results)-1]
		var wrong []string
		for _, l := range res.Trial.Lines {
			if !l.Right {
				wrong = append(wrong, "not seen: "+l.Words)
			}
		}
		rows = append(rows, []string{t.Name, res.By + ", " + s.moment(res.At), walkStatuses[t.Status],
			strings.TrimSpace(strings.Join(append(wrong, res.Trial.Remark), " "))})
	}
	if len(rows) > 0 {
		sh.head("Tried once", 1, 16)
		sh.table([]column{{title: "What", share: 3}, {title: "Who, when", share: 2}, {title: "", width: 34}, {title: "Remarks", share: 4}}, rows,
			style{points: 8.5})
	}
}

// signed sets the signatures.
func (s *Source) signed(sh *sheet) {
	const wide, high = 60.0, 24.0
	for i := range s.Walked.Signatures {
		sig := &s.Walked.Signatures[i]
		if i == 0 {
			sh.head("Signed", 1, high+12)
		}
		sh.room(high + 10)
		sh.strokes(sig.Signature.Strokes, sh.left, sh.y, wide, high)
		sh.y += high
		sh.par(fmt.Sprintf("%s, %s", sig.Signature.Name, s.moment(sig.At)), text)
		if sig.Signature.Remark != "" {
			sh.par(sig.Signature.Remark, text)
		}
	}
}

// strokes draws lines whose points are shares of a field.
func (s *sheet) strokes(lines [][][]float64, x, y, w, h float64) {
	s.pdf.SetDrawColor(0, 0, 0)
	s.pdf.SetLineWidth(0.35)
	at := func(p []float64) (float64, float64, bool) {
		if len(p) != 2 || slices.ContainsFunc(p, func(v float64) bool { return !(v >= 0 && v <= 1) }) {
			return 0, 0, false
		}
		return x + p[0]*w, y + p[1]*h, true
	}
	for _, line := range lines {
		for k := 1; k < len(line); k++ {
			x0, y0, ok := at(line[k-1])
			if x1, y1, fine := at(line[k]); ok && fine {
				s.pdf.Line(x0, y0, x1, y1)
			}
		}
	}
}

// moment is a time as papers write it, by the clocks of the site.
func (s *Source) moment(at time.Time) string {
	if zone, err := time.LoadLocation(s.Plan.Site.TimeZone); err == nil {
		at = at.In(zone)
	}
	return at.Format("2 Jan 2006 15:04")
}

// pair is what was planned beside what was seen.
func pair(planned, seen *float64, none bool) string {
	text := func(t *float64, otherwise string) string {
		if t == nil {
			return otherwise
		}
		return strings.Replace(fmt.Sprintf("%.1f s", math.Round(*t*10)/10), "-", "−", 1)
	}
	otherwise := "–"
	if none {
		otherwise = "none"
	}
	return text(planned, "none") + ", " + text(seen, otherwise)
}
