package api

import (
	"math"

	"wakefield.example/core/estimate"
	"wakefield.example/core/footage"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// Ribbon is the week of one channel as it is drawn: the duty decided on the rail,
// and the ink above it.
type Ribbon struct {
	ID   string     `json:"id"`
	Rail []RailStep `json:"rail"`
	Ink  Ink        `json:"ink"`
	Deaf []HourSpan `json:"deaf" doc:"Where the duty waits for motion that no detection reports"`
}

// RailStep is a duty that holds from a minute of the week on.
type RailStep struct {
	From week.Minute `json:"from" doc:"Minutes since Monday 00:00"`
	Duty string      `json:"duty"`
}

// Ink is the expected bitrate by cause from each moment to the next.
type Ink struct {
	From    []week.Minute `json:"from" doc:"Minutes since Monday 00:00"`
	Base    []int         `json:"base" doc:"kbit/s"`
	Motion  []int         `json:"motion" doc:"kbit/s"`
	Alarm   []int         `json:"alarm" doc:"kbit/s"`
	Written []int         `json:"written" doc:"Share of time in which anything is written, in thousandths"`
}

// NamedRail is what is decided in a named week.
type NamedRail struct {
	ID   string     `json:"id"`
	Rail []RailStep `json:"rail"`
}

func rails(p *plan.Plan) []NamedRail {
	out := make([]NamedRail, len(p.Weeks))
	for i := range p.Weeks {
		out[i] = NamedRail{p.Weeks[i].ID, railOf(p.Weeks[i].Steps())}
	}
	return out
}

func railOf(duties week.Steps[string]) []RailStep {
	var rail []RailStep
	for run, duty := range duties.Runs() {
		rail = append(rail, RailStep{run.From, duty})
	}
	return rail
}

func ribbon(s *estimate.Result, i int) Ribbon {
	r := Ribbon{ID: s.Channels[i].ID, Rail: railOf(s.Duties(i)), Deaf: []HourSpan{}}
	for span, deaf := range s.Deaf(i).Runs() {
		if deaf {
			r.Deaf = append(r.Deaf, HourSpan(span))
		}
	}
	w := s.Week(i)
	var last footage.Bin
	for k, b := range w {
		// Equal neighbours are drawn as one.
		if k > 0 && near(b, last) {
			continue
		}
		last = b
		r.Ink.From = append(r.Ink.From, b.Span.From)
		r.Ink.Base = append(r.Ink.Base, round(float64(b.Base)))
		r.Ink.Motion = append(r.Ink.Motion, round(float64(b.Motion)))
		r.Ink.Alarm = append(r.Ink.Alarm, round(float64(b.Alarm)))
		r.Ink.Written = append(r.Ink.Written, round(1000*b.Written))
	}
	return r
}

func near(a, b footage.Bin) bool {
	return round(float64(a.Base)) == round(float64(b.Base)) && round(float64(a.Motion)) == round(float64(b.Motion)) &&
		round(float64(a.Alarm)) == round(float64(b.Alarm)) && round(1000*a.Written) == round(1000*b.Written)
}

func round(f float64) int { return int(math.Round(f)) }
