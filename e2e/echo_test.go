package e2e

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"testing"

	"wakefield.example/core/week"
)

type echoSpan struct{ From, To week.Minute }

type echoStep struct {
	From  week.Minute `json:"from"`
	Value string      `json:"value"`
}

type echoHours struct {
	Days []week.Weekday `json:"days"`
	From week.Clock     `json:"from"`
	To   week.Clock     `json:"to"`
}

type echoCase struct {
	Steps []echoStep  `json:"steps"`
	Hours []echoHours `json:"hours"`
	Duty  string      `json:"duty"`
	Drag  struct {
		From week.Minute `json:"from"`
		To   week.Minute `json:"to"`
	} `json:"drag"`
}

// TestTheEchoIsTheCores paints the same strokes in the page's few lines and in the core.
func TestTheEchoIsTheCores(t *testing.T) {
	random := rand.New(rand.NewPCG(3, 1))
	duties := []string{"off", "motion", "round"}
	// Some ends are midnight, so that blocks end, begin and meet there.
	minute := func() week.Minute {
		if random.IntN(4) == 0 {
			return week.Minute(random.IntN(8)) * week.Day
		}
		return week.Minute(random.IntN(int(week.Whole.To) + 1))
	}
	var cases []echoCase
	for len(cases) < 400 {
		c := echoCase{Duty: duties[random.IntN(3)]}
		weekly := week.Constant(duties[random.IntN(3)])
		for range random.IntN(5) {
			if s := (week.Span{From: minute(), To: minute()}); s.Valid() {
				weekly = weekly.Paint(s, duties[random.IntN(3)])
			}
		}
		for span, duty := range weekly.Runs() {
			c.Steps = append(c.Steps, echoStep{span.From, duty})
		}
		for range 1 + random.IntN(3) {
			h := echoHours{From: week.Clock(random.IntN(1440)), To: week.Clock(1 + random.IntN(1440))}
			for d := range week.Weekday(7) {
				if random.IntN(3) == 0 {
					h.Days = append(h.Days, d)
				}
			}
			if week.Hours(h).Check() == nil {
				c.Hours = append(c.Hours, h)
			}
		}
		c.Drag.From, c.Drag.To = minute(), minute()
		if c.Drag.From < c.Drag.To && len(c.Hours) > 0 {
			cases = append(cases, c)
		}
	}
	in, err := json.Marshal(cases)
	if err != nil {
		t.Fatal(err)
	}
	type answer struct {
		Spans, Drag, Daily []echoSpan
		Steps              []echoStep
	}
	answers := eval[[]answer](modules(t), string(in)+`.map((c) => ({
		spans: m.echo.spansOf(c.hours),
		steps: m.echo.paintedOver(c.steps, m.echo.spansOf(c.hours), c.duty),
		drag: m.echo.spansOf(m.echo.hoursOf(c.drag, 'right through')),
		daily: m.echo.spansOf(m.echo.hoursOf(c.drag, 'each day')),
	}))`)
	if len(answers) != len(cases) {
		t.Fatal(len(answers), " answers to ", len(cases), " cases")
	}
	for i, c := range cases {
		weekly, covered := week.Constant(c.Steps[0].Value), week.Constant(false)
		for j, s := range c.Steps {
			to := week.Whole.To
			if j+1 < len(c.Steps) {
				to = c.Steps[j+1].From
			}
			weekly = weekly.Paint(week.Span{From: s.From, To: to}, s.Value)
		}
		for _, h := range c.Hours {
			for _, s := range week.Hours(h).Spans() {
				weekly, covered = weekly.Paint(s, c.Duty), covered.Paint(s, true)
			}
		}
		var want []echoStep
		for span, duty := range weekly.Runs() {
			want = append(want, echoStep{span.From, duty})
		}
		got := answers[i]
		if fmt.Sprint(got.Steps) != fmt.Sprint(want) {
			t.Fatalf("%+v\nthe page paints %v\nthe core        %v", c, got.Steps, want)
		}
		if fmt.Sprint(cover(got.Spans)) != fmt.Sprint(covered) {
			t.Fatalf("%+v\nthe page covers %v\nthe core        %v", c, cover(got.Spans), covered)
		}
		drag := week.Span{From: c.Drag.From, To: c.Drag.To}
		if through := week.Constant(false).Paint(drag, true); fmt.Sprint(cover(got.Drag)) != fmt.Sprint(through) {
			t.Fatalf("%v right through is %v", drag, cover(got.Drag))
		}
		if daily := eachDay(drag); fmt.Sprint(cover(got.Daily)) != fmt.Sprint(daily) {
			t.Fatalf("%v each day is %v, want %v", drag, cover(got.Daily), daily)
		}
	}
}

func cover(spans []echoSpan) week.Steps[bool] {
	covered := week.Constant(false)
	for _, s := range spans {
		covered = covered.Paint(week.Span{From: s.From, To: s.To}, true)
	}
	return covered
}

// eachDay covers, minute by minute, the times of day between the ends of a drag, on every day from its first to its
// last; a drag whose times are the same or that stays within a day covers all of it.
func eachDay(drag week.Span) week.Steps[bool] {
	first, last := drag.From/week.Day, (drag.To-1)/week.Day
	from, to := drag.From-first*week.Day, drag.To-last*week.Day
	covered := week.Constant(false)
	for m := drag.From; m < drag.To; m++ {
		clock := m % week.Day
		inside := from < to && clock >= from && clock < to || from > to && (clock >= from || clock < to)
		if first == last || from == to || inside {
			covered = covered.Paint(week.Span{From: m, To: m + 1}, true)
		}
	}
	return covered
}
