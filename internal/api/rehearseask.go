package api

import (
	"context"
	"fmt"
	"math"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/rehearse"
	"wakefield.example/internal/server"
)

// MomentParam names a moment of a channel, or a stretch of time.
type MomentParam struct {
	RehearseParam
	Channel string  `query:"channel" maxLength:"100"`
	At      float64 `query:"at" minimum:"0" maximum:"1300000" doc:"Seconds since the first midnight"`
	To      float64 `query:"to" minimum:"0" maximum:"1300000" doc:"Of a stretch; 0 for a moment"`
}

func (m *MomentParam) span() (from, to rehearse.Ms) {
	from, to = rehearse.Ms(m.At*1000), rehearse.Ms(m.To*1000)
	return from, max(from, to)
}

// Answered is whether there would be footage.
type Answered struct {
	Fate         rehearse.Fate `json:"fate" enum:"full,low,missed"`
	Words        string        `json:"words"`
	SharePercent float64       `json:"sharePercent" doc:"Of the stretch that is on disk"`
	Duty         string        `json:"duty" doc:"Name of the duty then"`
	Causes       []string      `json:"causes" doc:"Why it is there, in words"`
	Events       []int         `json:"events" doc:"The same, by which they are asked about"`
	GoneOn       string        `json:"goneOn,omitempty" doc:"Date on which it would be overwritten, by the typical days kept; absent where nothing takes it away"`
}

func (s *service) rehearsedHave(ctx context.Context, in *MomentParam) (*body[Answered], error) {
	e, r, err := s.rehearsed(ctx, &in.RehearseParam)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	i, err := channelIn(e.head.Plan, in.Channel)
	if err != nil {
		return nil, err
	}
	from, to := in.span()
	if from >= r.Length {
		return nil, huma.Error422UnprocessableEntity("That is after the days that were rehearsed.")
	}
	h := r.Have(i, from, to)
	out := Answered{Fate: h.Fate, SharePercent: 100 * h.Share, Causes: []string{}, Events: []int{}}
	if d := e.head.Plan.Duty(r.DutyAt(i, from)); d != nil {
		out.Duty = d.Name
	}
	if h.Segment >= 0 {
		causes := r.Segments[i][h.Segment].Causes
		for _, n := range causes {
			ev := &r.Events[n]
			if len(out.Events) == 12 || ev.Trigger > to || ev.End+rehearse.Hour < from {
				continue
			}
			out.Events, out.Causes = append(out.Events, n), append(out.Causes, r.Clock(ev.Start)+", "+r.What(n))
		}
	}
	name := e.head.Plan.Channels[i].Name
	switch h.Fate {
	case rehearse.Full:
		out.Words = fmt.Sprintf("Yes: %s is on disk in full, as %s.", name, rehearse.WhyWords(h.Why))
	case rehearse.Low:
		out.Words = fmt.Sprintf("Only low: %s is on disk in the base layer, as %s.", name, rehearse.WhyWords(h.Why))
	default:
		out.Words = fmt.Sprintf("No: nothing of %s is on disk: %s.", name, rehearse.WhyWords(h.Why))
		if h.Why == rehearse.Deaf {
			out.Words = fmt.Sprintf("No: nothing of %s is on disk; the duty waits for events, and none was noticed.", name)
		}
		if h.Share > 0 {
			out.Words = fmt.Sprintf("Not all: %.3g %% of it is on disk.", 100*h.Share)
		}
	}
	if days := rehearse.KeptUntil(e.site, i); h.Fate != rehearse.Missed && !math.IsInf(float64(days), 1) && days < 36500 {
		out.GoneOn = r.Moment(from).Add(time.Duration(float64(days) * 24 * float64(time.Hour))).Format("Monday 2 Jan 2006")
	}
	return &body[Answered]{out}, nil
}

// Odds is in how many of some rehearsals there would be footage.
type Odds struct {
	Rehearsals int `json:"rehearsals"`
	Full       int `json:"full"`
	Low        int `json:"low"`
	Missed     int `json:"missed"`
}

func (s *service) rehearsedOdds(ctx context.Context, in *MomentParam) (*body[Odds], error) {
	ask, err := in.ask()
	if err != nil {
		return nil, err
	}
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	i, err := channelIn(e.head.Plan, in.Channel)
	if err != nil {
		return nil, err
	}
	from, to := in.span()
	o, err := server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) (rehearse.Odds, error) {
		return rehearse.OddsOf(ctx, e.site, ask, i, from, to)
	})
	return &body[Odds]{Odds{o.Rehearsals, o.Full, o.Low, o.Gone}}, s.problem(ctx, err)
}

// Worst is where a rehearsal is worst.
type Worst struct {
	Gaps   []WorstGap  `json:"gaps" doc:"The longest stretch without a picture of each channel, longest first"`
	Hour   *WorstHour  `json:"hour,omitempty" doc:"In which most wanted events are missed; absent where none is"`
	Slow   []WorstCopy `json:"slow" doc:"Footage that takes longest to be safe off site"`
	Copied bool        `json:"copied" doc:"Whether there is a copy off site"`
}

// WorstGap is a stretch without a picture.
type WorstGap struct {
	Channel string  `json:"channel"`
	From    float64 `json:"from"`
	To      float64 `json:"to"`
}

// WorstHour is an hour with missed events.
type WorstHour struct {
	From   float64 `json:"from"`
	Missed int     `json:"missed"`
	Words  string  `json:"words"`
}

// WorstCopy is footage on its way off site.
type WorstCopy struct {
	Channel string  `json:"channel"`
	Event   int     `json:"event"`
	At      float64 `json:"at"`
	Seconds float64 `json:"seconds" doc:"From the end of the event until it is safe"`
}

func (s *service) rehearsedWorst(ctx context.Context, in *RehearseParam) (*body[Worst], error) {
	e, r, err := s.rehearsed(ctx, in)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	p := e.head.Plan
	out := Worst{Gaps: []WorstGap{}, Slow: []WorstCopy{}, Copied: p.Offsite != nil}
	for _, g := range r.LongestGaps() {
		if len(out.Gaps) < 20 {
			out.Gaps = append(out.Gaps, WorstGap{p.Channels[g.Channel].ID, secs(g.From), secs(g.To)})
		}
	}
	if at, n := r.WorstHour(); n > 0 {
		out.Hour = &WorstHour{secs(at), n, r.Clock(at)}
	}
	slow, err := server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) ([]rehearse.Safety, error) { return r.SlowestToSafety(ctx, 10) })
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	for _, c := range slow {
		out.Slow = append(out.Slow, WorstCopy{p.Channels[c.Channel].ID, c.Event, secs(r.Events[c.Event].Start), secs(c.Waits)})
	}
	return &body[Worst]{out}, nil
}
