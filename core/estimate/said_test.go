package estimate

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/week"
)

// TestWhatFiguresAre holds every figure of the estimates of several plans to four digits.
func TestWhatFiguresAre(t *testing.T) {
	var text strings.Builder
	for _, s := range plantest.Samples(t) {
		fmt.Fprintf(&text, "%s\n%s", s.Name, plantest.Figures(t, Run(s.Plan, nil)))
	}
	plantest.Said(t, "figures", text.String())
}

// TestWhatIsAskedOfAnEstimate holds what several estimates answer to four digits: alerts by the hour, causes, the disk, what is worth
// knowing, a year, footage taken off, and of the first channels the course of their events and what they see.
func TestWhatIsAskedOfAnEstimate(t *testing.T) {
	var text strings.Builder
	tell := func(name string, of any) {
		if answer := plantest.Figures(t, of); answer != "" {
			fmt.Fprintf(&text, "%s\n%s", name, answer)
		}
	}
	for _, s := range plantest.Samples(t) {
		r := Run(s.Plan, nil)
		knowing, err := r.Knowing(t.Context())
		if err != nil {
			t.Fatal(err)
		}
		year, err := r.Year(t.Context(), week.Date{Year: 2027, Month: 1, Day: 1})
		if err != nil {
			t.Fatal(err)
		}
		from := time.Date(2027, 6, 12, 13, 0, 0, 0, time.UTC)
		taken, _ := r.TakeOff([]int{0, 1}, from, from.Add(30*time.Hour), true)
		fmt.Fprintf(&text, "%s\n", s.Name)
		tell("alerts", r.AlertHours())
		tell("away", r.SentAway())
		tell("copies", r.CopyByHour())
		tell("causes", r.CauseLines())
		tell("disk", r.DiskUse())
		tell("grouped", r.Grouped())
		tell("knowing", knowing)
		tell("year", year)
		tell("taken", taken)
		tell("ties", r.Ties())
		tell("tide", r.Tide())
		for i := range s.Plan.AlarmInputs {
			tell("wrong "+s.Plan.AlarmInputs[i].ID, r.WrongWayOf(s.Plan.AlarmInputs[i].ID))
		}
		for i := range s.Plan.Channels {
			c := &s.Plan.Channels[i]
			if i < 3 {
				tell("course "+c.ID, r.CourseByHour(i))
			}
			if c.Scene != nil {
				tell("sight "+c.ID, r.SightOf(i))
			}
			if i < 3 && c.Streams.Main != nil {
				tell("curve "+c.ID, CurveOf(c.Streams.Main))
			}
		}
	}
	plantest.Said(t, "asked", text.String())
}
