package api

import (
	"context"
	"math"
	"net/http"
	"strings"
	"sync"
	"sync/atomic"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/edit"
	"wakefield.example/core/solve"
	"wakefield.example/core/week"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

// registerTarget adds the question what it would take to keep footage longer.
func registerTarget(api huma.API, s *service) {
	huma.Register(api, op("reachProgress", http.MethodGet, "/api/plans/{id}/reach/progress",
		"How far the question what it would take has got"), s.reachProgress)
	huma.Register(api, op("spare", http.MethodGet, "/api/plans/{id}/spare",
		"What pools with room for far more than is required could be spent on"), s.spare)
	huma.Register(api, op("reach", http.MethodPost, "/api/plans/{id}/reach", "What it would take to keep footage for a number of days"),
		s.target)
}

// TargetPoint is one set of changes.
type TargetPoint struct {
	Days            *float64 `json:"days" required:"true" doc:"Typically kept by the pool that keeps least; null where none is ever full"`
	LostPerDay      float64  `json:"lostPerDay" doc:"Wanted events a day that are missed more than now; those kept low count by their weight"`
	GigabytesPerDay float64  `json:"gigabytesPerDay"`
	Price           float64  `json:"price" doc:"Of the drives that are bought, as far as prices are known"`
}

// TargetChange is a change in words, with the channels it is for.
type TargetChange struct {
	Words    string   `json:"words"`
	Channels []string `json:"channels"`

	Saves *solve.Saving `json:"saves,omitempty" doc:"Of what they write; absent where nobody need doubt it"`
}

// TargetLever is one change by itself, for all channels of a group for which it reads the same.
type TargetLever struct {
	Channels             []string      `json:"channels" doc:"Ids; empty for one of a pool"`
	Pool                 string        `json:"pool" doc:"Id of the pool that wins days"`
	Words                []string      `json:"words"`
	Edits                []edit.Edit   `json:"edits"`
	MoreDays             float64       `json:"moreDays" doc:"Of the pool, for all channels together"`
	SavesGigabytesPerDay float64       `json:"savesGigabytesPerDay"`
	Saves                *solve.Saving `json:"saves,omitempty" doc:"Of what the channels write, by fewer frames of a modelled stream; absent where nobody need doubt it"`
	LostPerDay           float64       `json:"lostPerDay"`
	Price                *float64      `json:"price" required:"true" doc:"0 for what costs nothing; null where nobody says what it costs"`
}

// TargetKept is for how long the pools in question keep footage with the changes made, however one asks.
type TargetKept struct {
	TypicalDays   *float64   `json:"typicalDays" required:"true" doc:"Of the pool that keeps least; null where none is ever full, as below"`
	WorstHourDays *float64   `json:"worstHourDays" required:"true" doc:"At the worst hour of the ordinary week"`
	WorstDateDays *float64   `json:"worstDateDays" required:"true" doc:"On the worst date of the year"`
	WorstDate     *week.Date `json:"worstDate,omitempty" doc:"That date; absent where none is worse than the worst hour"`
	ChancePercent float64    `json:"chancePercent" doc:"Chance that all of them keep the days asked, at the worst hour and date"`
}

// Target is what it would take.
type Target struct {
	Version           int64          `json:"version" doc:"Of the plan"`
	Reached           bool           `json:"reached" doc:"Whether it can be had; else the point is the most that can"`
	Kept              TargetKept     `json:"kept" doc:"With the changes made"`
	LeftOut           []string       `json:"leftOut" doc:"Ids of channels that no disk keeps for so many days, as their own age limit or quota deletes their footage before"`
	Exact             bool           `json:"exact" doc:"Whether nothing less can be missed; else it is the best that was found"`
	Point             TargetPoint    `json:"point"`
	Changes           []TargetChange `json:"changes"`
	Edits             []edit.Edit    `json:"edits"`
	Lock              string         `json:"lock,omitempty" doc:"Where it cannot be had: the locked channel without whose lock most days could be"`
	LockDays          float64        `json:"lockDays,omitempty"`
	UnpricedTerabytes []float64      `json:"unpricedTerabytes" doc:"Sizes of drives that were left out, as nobody says what they cost"`
	Evidence          bool           `json:"evidence" doc:"Whether any wanted events are expected; without them nothing counts as missed"`
	Levers            []TargetLever  `json:"levers" doc:"Single changes, most days for what is missed first; the best three of each channel"`
	Frontier          []TargetPoint  `json:"frontier" doc:"From the plan as it is to the most that can be kept"`
}

// mostLevers are told, of one channel mostOfOne.
const (
	mostLevers = 60
	mostOfOne  = 3
)

func (s *service) target(ctx context.Context, in *struct {
	PlanParam
	Body struct {
		Days          float64            `json:"days" minimum:"0.1" maximum:"36500"`
		By            string             `json:"by,omitempty" enum:"hour,date,chance" doc:"What the days are compared with: the worst hour of the week, the worst date of the year, or a chance; absent for what pools typically keep"`
		ChancePercent float64            `json:"chancePercent,omitempty" minimum:"1" maximum:"99" doc:"The chance asked for; absent for 80"`
		Locked        []string           `json:"locked,omitempty" maxItems:"5000" doc:"Ids of channels that stay as they are"`
		Frames        bool               `json:"frames,omitempty" doc:"Whether no channel may have fewer frames"`
		Quality       bool               `json:"quality,omitempty" doc:"Whether pictures may be worse, which no evidence counts"`
		MoreDrives    int                `json:"moreDrives,omitempty" minimum:"0" maximum:"24" doc:"How many more drives a pool may be given, or larger ones in their place"`
		Money         *float64           `json:"money,omitempty" minimum:"0" maximum:"1000000000000" doc:"Most that drives may cost; absent where nobody says"`
		Matters       map[string]float64 `json:"matters,omitempty" doc:"How much channels matter, by id, 1 to 3; for others as the plan says"`
		LowCounts     *float64           `json:"lowCounts,omitempty" minimum:"0" maximum:"1" doc:"What an event that is kept low counts as; absent for a half of a missed one"`
	}
}) (*body[Target], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	ask := &solve.Ask{Days: in.Body.Days, By: solve.Measure(in.Body.By), Percent: 80, KeepFrames: in.Body.Frames,
		WorsePictures: in.Body.Quality, MoreDrives: in.Body.MoreDrives, Money: in.Body.Money, Matters: in.Body.Matters,
		LowCounts: solve.DefaultLow, Locked: make(map[string]bool)}
	if in.Body.ChancePercent > 0 {
		ask.Percent = in.Body.ChancePercent
	}
	if in.Body.LowCounts != nil {
		ask.LowCounts = *in.Body.LowCounts
	}
	for _, id := range in.Body.Locked {
		if _, err := channelIn(e.head.Plan, id); err != nil {
			return nil, err
		}
		ask.Locked[id] = true
	}
	for id, m := range in.Body.Matters {
		if _, err := channelIn(e.head.Plan, id); err != nil {
			return nil, err
		}
		if m < 1 || m > 3 {
			return nil, huma.Error422UnprocessableEntity("A channel matters from 1 to 3.")
		}
	}
	out, err := server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) (Target, error) { return s.targetFor(ctx, e, ask) })
	return &body[Target]{out}, s.problem(ctx, err)
}

func (s *service) targetFor(ctx context.Context, e entry, ask *solve.Ask) (out Target, err error) {
	p, err := s.prepared.of(ctx, e)
	if err != nil {
		return out, err
	}
	answer, kept, err := p.WhatItTakes(ctx, ask)
	if err != nil {
		return out, err
	}
	out = Target{Version: e.head.Version, Reached: answer.Reached, Exact: answer.Exact, Point: targetPoint(&answer.Point),
		Edits:   append([]edit.Edit{}, answer.Edits...),
		Kept:    TargetKept{bounded(kept.Typical), bounded(kept.Hour), bounded(kept.Date), kept.On, kept.Percent},
		LeftOut: append([]string{}, p.LeftOut(ask.Days)...),
		Lock:    answer.Lock, LockDays: answer.LockDays, Changes: []TargetChange{}, Levers: []TargetLever{}, Frontier: []TargetPoint{},
		UnpricedTerabytes: append([]float64{}, answer.Unpriced...), Evidence: e.site.Verdict.Evidence.EventsPerDay > 0}
	for _, c := range answer.Changes {
		out.Changes = append(out.Changes, TargetChange{c.Words, c.Channels, c.Range})
	}
	for _, at := range p.Frontier(ask) {
		out.Frontier = append(out.Frontier, targetPoint(&at))
	}
	told := make(map[string]int)
	for _, l := range p.Levers(ask) {
		of := l.Pool
		if len(l.Channels) > 0 {
			of = "channels " + strings.Join(l.Channels, " ")
		}
		if told[of]++; told[of] > mostOfOne || len(out.Levers) == mostLevers {
			continue
		}
		lever := TargetLever{Channels: append([]string{}, l.Channels...), Pool: l.Pool, Words: l.Words, Edits: l.Edits, MoreDays: l.More,
			SavesGigabytesPerDay: l.Saves, Saves: l.Range, LostPerDay: l.Loss}
		if l.Priced {
			lever.Price = &l.Price
		}
		out.Levers = append(out.Levers, lever)
	}
	return out, nil
}

// bounded is nil for what is infinite.
func bounded(days float64) *float64 {
	if math.IsInf(days, 1) {
		return nil
	}
	return &days
}

// Spare is one change that spends what a pool holds beyond what is required.
type Spare struct {
	Pool      string      `json:"pool" doc:"Id"`
	Words     []string    `json:"words"`
	Channels  []string    `json:"channels" doc:"Ids; empty for drives"`
	Edits     []edit.Edit `json:"edits"`
	Days      *float64    `json:"days" required:"true" doc:"That the pool typically keeps then; null where it is never full"`
	WonPerDay float64     `json:"wonPerDay" doc:"Wanted events a day that are kept more; those kept low count by half"`
	Price     *float64    `json:"price" required:"true" doc:"Of what is not bought; null where nobody says what it costs"`
}

func (s *service) spare(ctx context.Context, in *PlanParam) (*body[[]Spare], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	out, err := server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) ([]Spare, error) {
		p, err := s.prepared.of(ctx, e)
		if err != nil {
			return nil, err
		}
		list, err := p.Spares(ctx)
		out := []Spare{}
		for _, x := range list {
			one := Spare{Pool: x.Pool, Words: x.Words, Channels: append([]string{}, x.Channels...), Edits: x.Edits, Days: x.Days, WonPerDay: x.Won}
			if x.Priced {
				one.Price = &x.Price
			}
			out = append(out, one)
		}
		return out, err
	})
	return &body[[]Spare]{out}, s.problem(ctx, err)
}

func targetPoint(p *solve.Point) TargetPoint {
	out := TargetPoint{LostPerDay: p.Loss, GigabytesPerDay: p.Gigabytes, Price: p.Price}
	if p.Bounded {
		out.Days = &p.Days
	}
	return out
}

// TargetProgress is how far a question has got.
type TargetProgress struct {
	Done int64 `json:"done" doc:"Channels that are tried; 0 where nothing is asked"`
	All  int64 `json:"all"`
}

func (s *service) reachProgress(_ context.Context, in *PlanParam) (*body[TargetProgress], error) {
	s.prepared.mu.Lock()
	defer s.prepared.mu.Unlock()
	out := TargetProgress{}
	if p := s.prepared.going[in.ID]; p != nil {
		out = TargetProgress{p.done.Load(), p.all}
	}
	return &body[TargetProgress]{out}, nil
}

// preparations are plans with what every channel could be, the last of each plan that was asked about.
type preparations struct {
	last *server.Cache[string, preparation]

	mu    sync.Mutex
	going map[string]*going
}

func newPreparations() preparations {
	return preparations{last: server.NewCache[string](server.Bounds[preparation]{Entries: mostPrepared}), going: make(map[string]*going)}
}

type preparation struct {
	of store.Stamp
	*solve.Prepared
}

// going is a preparation under way.
type going struct {
	done atomic.Int64
	all  int64
}

// mostPrepared are kept.
const mostPrepared = 20

// of prepares a plan, or finds it prepared. It is given up when the context ends.
func (p *preparations) of(ctx context.Context, e entry) (*solve.Prepared, error) {
	last, ok := p.last.Get(e.head.ID)
	if ok && last.of == e.head.Stamp() {
		return last.Prepared, nil
	}
	now := &going{all: int64(len(e.head.Plan.Channels))}
	p.mu.Lock()
	p.going[e.head.ID] = now
	p.mu.Unlock()
	made, err := solve.Prepare(ctx, e.head.Plan, e.site, last.Prepared, func(done, _ int) { now.done.Store(int64(done)) })
	p.mu.Lock()
	if p.going[e.head.ID] == now {
		delete(p.going, e.head.ID)
	}
	p.mu.Unlock()
	if err != nil {
		return nil, err
	}
	p.last.Put(e.head.ID, preparation{e.head.Stamp(), made})
	return made, nil
}
