package server

import (
	"context"
	"net/http"
	"sync"
	"sync/atomic"

	"github.com/danielgtaylor/huma/v2"

	"wakefield/core/edit"
	"wakefield/core/solve"
	"wakefield/internal/store"
)

// registerReach adds the question what it would take to keep footage longer.
func registerReach(api huma.API, s *service) {
	huma.Register(api, op("reachProgress", http.MethodGet, "/api/plans/{id}/reach/progress", "How far the question what it would take has got"), s.reachProgress)
	huma.Register(api, op("reach", http.MethodPost, "/api/plans/{id}/reach", "What it would take to keep footage for a number of days"), s.reach)
}

// ReachPoint is one set of changes.
type ReachPoint struct {
	Days      *float64 `json:"days" required:"true" doc:"Typically kept by the pool that keeps least; null where none is ever full"`
	Lost      float64  `json:"lostPerDay" doc:"Wanted events a day that are missed more than now; those kept low count by their weight"`
	Gigabytes float64  `json:"gigabytesPerDay"`
	Price     float64  `json:"price" doc:"Of the drives that are bought, as far as prices are known"`
}

// ReachChange is a change in words, with the channels it is for.
type ReachChange struct {
	Words    string   `json:"words"`
	Channels []string `json:"channels"`

	Saves *solve.Saving `json:"saves,omitempty" doc:"Of what they write; absent where nobody need doubt it"`
}

// ReachLever is one change by itself.
type ReachLever struct {
	Channel string        `json:"channel,omitempty" doc:"Id; absent for one of a pool"`
	Pool    string        `json:"pool" doc:"Id of the pool that wins days"`
	Words   []string      `json:"words"`
	Edits   []edit.Edit   `json:"edits"`
	More    float64       `json:"moreDays" doc:"Of the pool"`
	Saves   float64       `json:"savesGigabytesPerDay"`
	Range   *solve.Saving `json:"saves,omitempty" doc:"Of what the channel writes, by fewer frames of a modelled stream; absent where nobody need doubt it"`
	Lost    float64       `json:"lostPerDay"`
	Price   *float64      `json:"price" required:"true" doc:"0 for what costs nothing; null where nobody says what it costs"`
}

// Reach is what it would take.
type Reach struct {
	Version  int64         `json:"version" doc:"Of the plan"`
	Reached  bool          `json:"reached" doc:"Whether it can be had; else the point is the most that can"`
	Exact    bool          `json:"exact" doc:"Whether nothing less can be lost; else it is the best that was found"`
	Point    ReachPoint    `json:"point"`
	Changes  []ReachChange `json:"changes"`
	Edits    []edit.Edit   `json:"edits"`
	Lock     string        `json:"lock,omitempty" doc:"Where it cannot be had: the locked channel without whose lock most days could be"`
	LockDays float64       `json:"lockDays,omitempty"`
	Unpriced []float64     `json:"unpricedTerabytes" doc:"Sizes of drives that were left out, as nobody says what they cost"`
	Evidence bool          `json:"evidence" doc:"Whether any wanted events are expected; without them nothing counts as lost"`
	Levers   []ReachLever  `json:"levers" doc:"Single changes, most days for what is lost first; the best three of each channel"`
	Frontier []ReachPoint  `json:"frontier" doc:"From the plan as it is to the most that can be kept"`
}

// mostLevers are told, of one channel mostOfOne.
const (
	mostLevers = 60
	mostOfOne  = 3
)

func (s *service) reach(ctx context.Context, in *struct {
	PlanParam
	Body struct {
		Days    float64            `json:"days" minimum:"0.1" maximum:"36500"`
		Locked  []string           `json:"locked,omitempty" maxItems:"5000" doc:"Ids of channels that stay as they are"`
		Frames  bool               `json:"frames,omitempty" doc:"Whether no channel may have fewer frames"`
		Quality bool               `json:"quality,omitempty" doc:"Whether pictures may be worse, which no evidence counts"`
		Drives  int                `json:"moreDrives,omitempty" minimum:"0" maximum:"24" doc:"How many more drives a pool may be given, or larger ones in their place"`
		Money   *float64           `json:"money,omitempty" minimum:"0" maximum:"1000000000000" doc:"Most that drives may cost; absent where nobody says"`
		Matters map[string]float64 `json:"matters,omitempty" doc:"How much channels matter, by id, 1 to 3; for others as the plan says"`
		Low     *float64           `json:"lowCounts,omitempty" minimum:"0" maximum:"1" doc:"What an event that is kept low counts as; absent for a half of a missed one"`
	}
}) (*body[Reach], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	ask := &solve.Ask{Days: in.Body.Days, Frames: in.Body.Frames, Quality: in.Body.Quality, MoreDrives: in.Body.Drives, Money: in.Body.Money, Matters: in.Body.Matters, LowCounts: solve.DefaultLow, Locked: make(map[string]bool)}
	if in.Body.Low != nil {
		ask.LowCounts = *in.Body.Low
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
	out, err := heavily(ctx, s.heavy.heavy, func(ctx context.Context) (Reach, error) { return s.reached(ctx, e, ask) })
	return &body[Reach]{out}, s.problem(ctx, err)
}

func (s *service) reached(ctx context.Context, e entry, ask *solve.Ask) (out Reach, err error) {
	p, err := s.prepared.of(ctx, e)
	if err != nil {
		return out, err
	}
	answer, err := p.Answer(ctx, ask)
	if err != nil {
		return out, err
	}
	out = Reach{Version: e.head.Version, Reached: answer.Reached, Exact: answer.Exact, Point: reachPoint(&answer.Point), Edits: append([]edit.Edit{}, answer.Edits...),
		Lock: answer.Lock, LockDays: answer.LockDays, Changes: []ReachChange{}, Levers: []ReachLever{}, Frontier: []ReachPoint{}, Unpriced: append([]float64{}, answer.Unpriced...), Evidence: e.site.Verdict.Evidence.EventsPerDay > 0}
	for _, c := range answer.Changes {
		out.Changes = append(out.Changes, ReachChange{c.Words, c.Channels, c.Range})
	}
	for _, at := range p.Frontier(ask) {
		out.Frontier = append(out.Frontier, reachPoint(&at))
	}
	told := make(map[string]int)
	for _, l := range p.Levers(ask) {
		of := l.Pool
		if l.Channel != "" {
			of = "channel " + l.Channel
		}
		if told[of]++; told[of] > mostOfOne || len(out.Levers) == mostLevers {
			continue
		}
		lever := ReachLever{Channel: l.Channel, Pool: l.Pool, Words: l.Words, Edits: l.Edits, More: l.More, Saves: l.Saves, Range: l.Range, Lost: l.Loss}
		if l.Priced {
			lever.Price = &l.Price
		}
		out.Levers = append(out.Levers, lever)
	}
	return out, nil
}

func reachPoint(p *solve.Point) ReachPoint {
	out := ReachPoint{Lost: p.Loss, Gigabytes: p.Gigabytes, Price: p.Price}
	if p.Bounded {
		out.Days = &p.Days
	}
	return out
}

// ReachProgress is how far a question has got.
type ReachProgress struct {
	Done int64 `json:"done" doc:"Channels that are tried; 0 where nothing is asked"`
	All  int64 `json:"all"`
}

func (s *service) reachProgress(_ context.Context, in *PlanParam) (*body[ReachProgress], error) {
	s.prepared.mu.Lock()
	defer s.prepared.mu.Unlock()
	out := ReachProgress{}
	if p := s.prepared.going[in.ID]; p != nil {
		out = ReachProgress{p.done.Load(), p.all}
	}
	return &body[ReachProgress]{out}, nil
}

// preparations are plans with what every channel could be, the last of each plan that was asked about.
type preparations struct {
	mu    sync.Mutex
	last  map[string]preparation
	going map[string]*going
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

func (p *preparations) forget() {
	p.mu.Lock()
	defer p.mu.Unlock()
	p.last = nil
}

// of prepares a plan, or finds it prepared. It is given up when the context ends.
func (p *preparations) of(ctx context.Context, e entry) (*solve.Prepared, error) {
	now := &going{all: int64(len(e.head.Plan.Channels))}
	p.mu.Lock()
	last := p.last[e.head.ID]
	if last.Prepared == nil || last.of != e.head.Stamp() {
		if p.going == nil {
			p.going = make(map[string]*going)
		}
		p.going[e.head.ID] = now
	}
	p.mu.Unlock()
	if last.Prepared != nil && last.of == e.head.Stamp() {
		return last.Prepared, nil
	}
	made, err := solve.Prepare(ctx, e.head.Plan, e.site, last.Prepared, func(done, _ int) { now.done.Store(int64(done)) })
	p.mu.Lock()
	defer p.mu.Unlock()
	if p.going[e.head.ID] == now {
		delete(p.going, e.head.ID)
	}
	if err != nil {
		return nil, err
	}
	if p.last == nil || len(p.last) >= mostPrepared {
		p.last = make(map[string]preparation)
	}
	p.last[e.head.ID] = preparation{e.head.Stamp(), made}
	return made, nil
}
