package server

import (
	"context"
	"math"

	"wakefield/core/check"
	"wakefield/core/edit"
	"wakefield/core/estimate"
	"wakefield/core/footage"
	"wakefield/core/plan"
	"wakefield/core/week"
)

// View is a site as the pages show it.
type View struct {
	ID      string              `json:"id"`
	Version int64               `json:"version"`
	Undo    string              `json:"undo" doc:"What undo would take back; empty for nothing"`
	UndoBy  string              `json:"undoBy" doc:"Whose change that is"`
	Redo    string              `json:"redo" doc:"What redo would make again; empty for nothing"`
	Plan    *plan.Plan          `json:"plan"`
	Figures []estimate.Channel  `json:"figures"`
	Pools   []estimate.Pool     `json:"pools"`
	Intake  []estimate.Recorder `json:"recorders"`
	Verdict estimate.Verdict    `json:"verdict"`
	Year    *YearVerdict        `json:"year,omitempty" doc:"The worst date; absent where no date is special"`
	Found   []check.Finding     `json:"findings" doc:"Most severe first"`
	Ribbons []Ribbon            `json:"ribbons"`
	Tide    Tide                `json:"tide"`
}

// Answer is what a change changed.
type Answer struct {
	Version  int64               `json:"version"`
	Undo     string              `json:"undo"`
	UndoBy   string              `json:"undoBy"`
	Redo     string              `json:"redo"`
	Sentence string              `json:"sentence" doc:"What the change did"`
	Patch    []any               `json:"patch" doc:"JSON Patch (RFC 6902) of the plan from the version before"`
	Figures  []estimate.Channel  `json:"figures" doc:"Of the channels whose figures changed"`
	Pools    []estimate.Pool     `json:"pools"`
	Intake   []estimate.Recorder `json:"recorders"`
	Verdict  estimate.Verdict    `json:"verdict"`
	Year     *YearVerdict        `json:"year,omitempty" doc:"The worst date; absent where no date is special"`
	Found    []check.Finding     `json:"findings" doc:"Most severe first"`
	Ribbons  []Ribbon            `json:"ribbons" doc:"Of the channels whose ribbon changed"`
	Order    []string            `json:"order" doc:"Ids of all channels in the order of the plan"`
	Tide     Tide                `json:"tide"`
	Rows     []TableRow          `json:"rows" doc:"Rows of the channel table that changed"`
}

// YearVerdict is the date on which the plan holds least.
type YearVerdict struct {
	Days float64   `json:"worstDays"`
	Date week.Date `json:"worstDate"`
	Name string    `json:"name" doc:"The special day behind it; empty for none"`
}

func yearVerdict(s *estimate.Result) *YearVerdict {
	y := s.SpecialYear()
	if y == nil || y.Days == nil {
		return nil
	}
	return &YearVerdict{*y.Days, *y.WorstDate, y.Name}
}

// Draft is what a change would change, if it were kept.
type Draft struct {
	Sentence        string            `json:"sentence"`
	GigabytesPerDay float64           `json:"gigabytesPerDay" doc:"Of the whole site, with the change"`
	Change          float64           `json:"gigabytesPerDayChange"`
	Verdict         estimate.Verdict  `json:"verdict"`
	EvidenceChange  estimate.Evidence `json:"evidenceChange" doc:"Change of events a day by fate"`
	Channels        int               `json:"channels" doc:"Channels that would do something else at some time"`
	Minutes         week.Minute       `json:"minutes" doc:"Minutes of the week over which they would, added up"`
}

// Ribbon is the week of one channel as it is drawn: the duty decided on the rail,
// and the ink above it.
type Ribbon struct {
	ID   string     `json:"id"`
	Rail []RailStep `json:"rail"`
	Ink  Ink        `json:"ink"`
}

// RailStep is a duty that holds from a minute of the week on.
type RailStep struct {
	From week.Minute `json:"from" doc:"Minutes since Monday 00:00"`
	Duty string      `json:"duty"`
}

// Ink is the expected bitrate by cause from each moment to the next.
type Ink struct {
	From   []week.Minute `json:"from" doc:"Minutes since Monday 00:00"`
	Base   []int         `json:"base" doc:"kbit/s"`
	Motion []int         `json:"motion" doc:"kbit/s"`
	Alarm  []int         `json:"alarm" doc:"kbit/s"`
	Share  []int         `json:"written" doc:"Share of time in which anything is written, in thousandths"`
}

// Tide is what the whole site writes in each half hour of the week, in Mbit/s.
type Tide struct {
	Base      []float64   `json:"base"`
	Motion    []float64   `json:"motion"`
	Alarm     []float64   `json:"alarm"`
	Mean      float64     `json:"mean"`
	Busiest   float64     `json:"busiest"`
	BusiestAt week.Minute `json:"busiestAt" doc:"Minutes since Monday 00:00"`
	Intake    float64     `json:"intake" doc:"What the recorders can take in together"`
}

func view(e entry) *View {
	v := &View{
		ID: e.head.ID, Version: e.head.Version, Undo: e.head.Undo, UndoBy: e.head.UndoBy, Redo: e.head.Redo, Plan: e.head.Plan,
		Figures: e.site.Channels, Pools: e.site.Pools, Intake: e.site.Recorders, Verdict: e.site.Verdict,
		Tide: tide(e, week.Whole), Ribbons: []Ribbon{}, Found: e.found, Year: yearVerdict(e.site),
	}
	for i := range e.site.Channels {
		v.Ribbons = append(v.Ribbons, ribbon(e.site, i))
	}
	return v
}

// answer tells what differs between two versions.
func answer(before, after entry) *Answer {
	a := &Answer{
		Version: after.head.Version, Undo: after.head.Undo, UndoBy: after.head.UndoBy, Redo: after.head.Redo, Verdict: after.site.Verdict,
		Figures: []estimate.Channel{}, Pools: after.site.Pools, Intake: after.site.Recorders, Ribbons: []Ribbon{}, Tide: tide(after, week.Whole), Found: after.found,
		Rows: changedRows(before.head.Plan, after.head.Plan), Year: yearVerdict(after.site),
	}
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
	return a
}

func ribbon(s *estimate.Result, i int) Ribbon {
	r := Ribbon{ID: s.Channels[i].ID}
	for run, duty := range s.Duties(i).Runs() {
		r.Rail = append(r.Rail, RailStep{run.From, duty})
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
		r.Ink.Share = append(r.Ink.Share, round(1000*b.Written))
	}
	return r
}

func near(a, b footage.Bin) bool {
	return round(float64(a.Base)) == round(float64(b.Base)) && round(float64(a.Motion)) == round(float64(b.Motion)) &&
		round(float64(a.Alarm)) == round(float64(b.Alarm)) && round(1000*a.Written) == round(1000*b.Written)
}

func round(f float64) int { return int(math.Round(f)) }

// tide is what channels write together, all where none are named; its mean and its
// busiest half hour are those within a span.
func tide(e entry, within week.Span, channels ...string) Tide {
	t := e.site.Tide(channels...)
	out := Tide{}
	sum := 0.0
	milli := func(f float64) float64 { return math.Round(f*1000) / 1000 }
	for i, b := range t {
		out.Base = append(out.Base, milli(b.Base.Mbps()))
		out.Motion = append(out.Motion, milli(b.Motion.Mbps()))
		out.Alarm = append(out.Alarm, milli(b.Alarm.Mbps()))
		total := b.Total().Mbps()
		part := max(0, min(b.Span.To, within.To)-max(b.Span.From, within.From))
		sum += total * float64(part)
		if part > 0 && total > out.Busiest {
			out.Busiest, out.BusiestAt = total, t[i].Span.From
		}
	}
	out.Mean = sum / float64(within.Minutes())
	for _, r := range e.head.Plan.Recorders {
		out.Intake += r.IngestMbps
	}
	return out
}

func draft(ctx context.Context, before entry, done *edit.Done) (*Draft, error) {
	next, err := estimate.FiguresContext(ctx, done.Plan, before.site)
	if err != nil {
		return nil, err
	}
	if err := next.CheckFinite(); err != nil {
		return nil, err
	}
	d := &Draft{
		Sentence:        done.Sentence,
		GigabytesPerDay: next.Verdict.GigabytesPerDay,
		Change:          next.Verdict.GigabytesPerDay - before.site.Verdict.GigabytesPerDay,
		Verdict:         next.Verdict,
		EvidenceChange:  next.Verdict.Evidence.Minus(before.site.Verdict.Evidence),
	}
	d.Channels, d.Minutes = edit.Repainted(before.head.Plan, done.Plan)
	return d, nil
}
