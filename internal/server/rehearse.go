package server

import (
	"context"
	"errors"
	"fmt"
	"math"
	"net/http"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/hashicorp/golang-lru/v2/simplelru"
	"sync"

	"wakefield/core/plan"
	"wakefield/core/rehearse"
	"wakefield/core/week"
	"wakefield/internal/formats"
)

// registerRehearse adds weeks that are played out.
func registerRehearse(api huma.API, s *service) {
	huma.Register(api, op("rehearse", http.MethodGet, "/api/plans/{id}/rehearse", "A week played out on real dates"), s.rehearse)
	huma.Register(api, op("rehearsedEvent", http.MethodGet, "/api/plans/{id}/rehearse/event", "What became of one event, gate by gate"), s.rehearsedEvent)
	huma.Register(api, op("rehearsedFootage", http.MethodGet, "/api/plans/{id}/rehearse/have", "Whether there would be footage of a channel at a moment, why, and until when"), s.rehearsedHave)
	huma.Register(api, op("rehearsedOdds", http.MethodGet, "/api/plans/{id}/rehearse/odds", "In how many of 200 rehearsals there would be"), s.rehearsedOdds)
	huma.Register(api, op("rehearsedWorst", http.MethodGet, "/api/plans/{id}/rehearse/worst", "The longest stretches without a picture, the hour with most missed, the slowest copies"), s.rehearsedWorst)
	huma.Register(api, op("rehearsedBeside", http.MethodGet, "/api/plans/{id}/rehearse/beside", "The same happenings under another plan of the site, or an earlier revision"), s.rehearsedBeside)
	huma.Register(api, op("rehearsedFile", http.MethodGet, "/api/plans/{id}/rehearse/file", "What happened as a file"), s.rehearsedFile)
}

// RehearseParam names a rehearsal.
type RehearseParam struct {
	PlanParam
	From string `query:"from" maxLength:"10" doc:"First date, such as 2026-12-07"`
	Days int    `query:"days" minimum:"1" maximum:"14" default:"7"`
	Seed uint64 `query:"number" maximum:"4294967295" default:"1" doc:"Which of all weeks: the same number is the same week"`
}

func (p *RehearseParam) ask() (rehearse.Ask, error) {
	var d week.Date
	if err := d.UnmarshalText([]byte(p.From)); err != nil {
		return rehearse.Ask{}, huma.Error422UnprocessableEntity("No such date: "+p.From, &huma.ErrorDetail{Location: "query.from", Message: "is a date, such as 2026-12-07"})
	}
	return rehearse.Ask{From: d, Days: p.Days, Seed: p.Seed}, nil
}

// rehearsals remembers the last ones, so that questions about them need not play them again.
type rehearsals struct {
	mu   sync.Mutex
	last *simplelru.LRU[rehearsalOf, *rehearse.Rehearsal]

	events int // of all of them
}

type rehearsalOf struct {
	plan    string
	version int64
	ask     rehearse.Ask
}

// mostRehearsals are remembered, and mostRemembered events of them together: an event takes some 200 bytes, with the footage
// around it.
const (
	mostRehearsals = 20
	mostRemembered = 1_200_000
)

func (m *rehearsals) get(of rehearsalOf) *rehearse.Rehearsal {
	m.mu.Lock()
	defer m.mu.Unlock()
	if m.last == nil {
		return nil
	}
	r, _ := m.last.Get(of)
	return r
}

func (m *rehearsals) put(of rehearsalOf, r *rehearse.Rehearsal) {
	m.mu.Lock()
	defer m.mu.Unlock()
	if m.last == nil {
		m.last, _ = simplelru.NewLRU[rehearsalOf, *rehearse.Rehearsal](mostRehearsals, nil) // the size is above 0
	}
	if old, ok := m.last.Peek(of); ok {
		m.events -= len(old.Events)
	}
	if m.last.Add(of, r) {
		m.events = 0 // one went; count anew
		for _, v := range m.last.Values() {
			m.events += len(v.Events)
		}
	} else {
		m.events += len(r.Events)
	}
	for m.events > mostRemembered && m.last.Len() > 1 {
		_, old, _ := m.last.RemoveOldest()
		m.events -= len(old.Events)
	}
}

// played is a rehearsal of a plan as it stands.
func (s *service) played(ctx context.Context, e entry, ask rehearse.Ask) (*rehearse.Rehearsal, error) {
	of := rehearsalOf{e.head.ID, e.head.Version, ask}
	if r := s.rehearsals.get(of); r != nil {
		return r, nil
	}
	r, err := heavily(ctx, s.heavy.heavy, func() (*rehearse.Rehearsal, error) { return rehearse.Play(ctx, e.site, ask) })
	if many := new(rehearse.TooManyError); errors.As(err, &many) {
		words := plan.Say("About %.3g events would happen in these days, more than the %d that are played.", many.Events, rehearse.MostEvents)
		if many.Days > 0 {
			words += fmt.Sprintf(" %d days can be played.", many.Days)
		} else {
			words += " Even one day has too many; look at the rates of the activities."
		}
		return nil, huma.Error422UnprocessableEntity(words)
	}
	if err != nil {
		return nil, err
	}
	s.rehearsals.put(of, r)
	return r, nil
}

func (s *service) rehearsed(ctx context.Context, in *RehearseParam) (entry, *rehearse.Rehearsal, error) {
	ask, err := in.ask()
	if err != nil {
		return entry{}, nil, err
	}
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return entry{}, nil, err
	}
	r, err := s.played(ctx, e, ask)
	return e, r, err
}

// Played is a rehearsal as it is drawn: columns, as there may be a hundred thousand events. Times are seconds since the first
// midnight.
type Played struct {
	Version  int64           `json:"version" doc:"Of the plan"`
	Seconds  float64         `json:"seconds" doc:"Length of all days; one may have 23 or 25 hours"`
	Days     []PlayedDay     `json:"days"`
	Channels []PlayedChannel `json:"channels" doc:"Those with a camera, in the order of the plan"`
	Sums     rehearse.Sums   `json:"sums"`
	Messages []PlayedMessage `json:"messages"`
	Monitors []PlayedShown   `json:"monitors"`
	Others   []PlayedDates   `json:"others" doc:"Weeks worth a look: the next with a special day, and with a change of clocks"`
}

// PlayedDates are dates worth a look.
type PlayedDates struct {
	Name string    `json:"name"`
	From week.Date `json:"from"`
}

// PlayedDay is one day of a rehearsal.
type PlayedDay struct {
	Date    week.Date `json:"date"`
	From    float64   `json:"from" doc:"Seconds since the first midnight"`
	Hours   float64   `json:"hours" doc:"23 or 25 where clocks change"`
	Special string    `json:"special,omitempty" doc:"Name of the special day that it is"`
}

// PlayedChannel is what happened on one channel, in columns.
type PlayedChannel struct {
	ID     string    `json:"id"`
	From   []float64 `json:"from" doc:"Of the stretches of footage"`
	To     []float64 `json:"to"`
	Layer  []int     `json:"layer" doc:"0 the base layer, 1 events of its own, 2 others' events and alarms, 3 a button"`
	Start  []float64 `json:"start" doc:"Of its events"`
	Length []float64 `json:"length"`
	Fate   []int     `json:"fate" doc:"0 missed, 1 kept low, 2 kept in full, 3 unwanted and no trigger, 4 unwanted and a trigger"`
	Event  []int     `json:"event" doc:"By which an event is asked about"`
	Walk   []int     `json:"walk" doc:"Which of the channel's walks it took, −1 for none; empty where the channel has none"`
	Away   []float64 `json:"away" doc:"Of a movable camera: beginnings and ends of looking elsewhere, in turn"`
}

// PlayedMessage is when a receiver was told, and not told.
type PlayedMessage struct {
	ID    string    `json:"id"`
	Name  string    `json:"name"`
	Went  []float64 `json:"went"`
	Held  []float64 `json:"held"`
	Event []int     `json:"heldEvent" doc:"The events that were held back"`
}

// PlayedShown is what a monitor showed.
type PlayedShown struct {
	ID      string    `json:"id"`
	Name    string    `json:"name"`
	From    []float64 `json:"from"`
	To      []float64 `json:"to"`
	Channel []string  `json:"channel" doc:"Id of the channel that it is about; empty for none"`
}

// secs is a time in seconds, to a tenth: nobody looks closer.
func secs(m rehearse.Ms) float64 { return math.Round(float64(m)/100) / 10 }

func (s *service) rehearse(ctx context.Context, in *RehearseParam) (*body[*Played], error) {
	e, r, err := s.rehearsed(ctx, in)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	return &body[*Played]{drawn(e, r)}, nil
}

// drawn turns a rehearsal into what is drawn of it.
func drawn(e entry, r *rehearse.Rehearsal) *Played {
	p := e.head.Plan
	out := &Played{Version: e.head.Version, Seconds: secs(r.Length), Sums: r.Sums(), Channels: []PlayedChannel{}, Messages: []PlayedMessage{}, Monitors: []PlayedShown{}}
	zone := r.Zone()
	special := p.Site.SpecialDaysFrom(r.Ask.From, r.Ask.Days)
	midnight := func(k int) (week.Date, time.Time) {
		var d week.Date
		d.Year, d.Month, d.Day = r.Ask.From.At(0, time.UTC).AddDate(0, 0, k).Date()
		return d, d.At(0, zone)
	}
	for k := range r.Ask.Days {
		date, begins := midnight(k)
		_, ends := midnight(k + 1)
		day := PlayedDay{Date: date, From: secs(r.SinceMidnight(begins)), Hours: ends.Sub(begins).Hours()}
		if special[k] != nil {
			day.Special = special[k].Name
		}
		out.Days = append(out.Days, day)
	}
	for i := range p.Channels {
		if !p.Channels[i].NoCamera {
			out.Channels = append(out.Channels, channelDrawn(r, i))
		}
	}
	times := func(list []int) []float64 {
		at := []float64{}
		for _, n := range list {
			if t := r.Events[n].Trigger; t >= 0 && t < r.Length {
				at = append(at, secs(t))
			}
		}
		return at
	}
	out.Others = worthALook(p, r.Ask.From, zone)
	for k, t := range r.Told {
		held := slices.DeleteFunc(slices.Clone(t.Held), func(n int) bool { return r.Events[n].Trigger < 0 || r.Events[n].Trigger >= r.Length })
		out.Messages = append(out.Messages, PlayedMessage{t.ID, p.Messages[k].Name, times(t.Went), times(t.Held), append([]int{}, held...)})
	}
	for k, m := range r.Monitors {
		shown := PlayedShown{ID: m.ID, Name: p.Monitors[k].Name, From: []float64{}, To: []float64{}, Channel: []string{}}
		for _, x := range m.Showings {
			if x.From < 0 || x.From >= r.Length {
				continue
			}
			id := ""
			if c := r.Events[x.Event].Channel; c >= 0 {
				id = p.Channels[c].ID
			}
			shown.From, shown.To, shown.Channel = append(shown.From, secs(x.From)), append(shown.To, secs(x.To)), append(shown.Channel, id)
		}
		out.Monitors = append(out.Monitors, shown)
	}
	return out
}

func channelDrawn(r *rehearse.Rehearsal, i int) PlayedChannel {
	c := PlayedChannel{ID: r.Plan().Channels[i].ID, From: []float64{}, To: []float64{}, Layer: []int{}, Start: []float64{}, Length: []float64{}, Fate: []int{}, Event: []int{}, Walk: []int{}, Away: []float64{}}
	for _, g := range r.Segments[i] {
		layer := 0
		switch {
		case g.Button:
			layer = 3
		case g.Event && g.Others:
			layer = 2
		case g.Event:
			layer = 1
		}
		c.From, c.To, c.Layer = append(c.From, secs(g.From)), append(c.To, secs(g.To)), append(c.Layer, layer)
	}
	fates := map[rehearse.Fate]int{rehearse.Missed: 0, rehearse.Low: 1, rehearse.Full: 2}
	for _, n := range r.Of(i) {
		e := &r.Events[n]
		if e.End <= 0 || e.Start >= r.Length {
			continue
		}
		fate, wanted := fates[e.Fate]
		if !wanted {
			fate = 3
			if e.Gate == rehearse.Passed {
				fate = 4
			}
		}
		c.Start, c.Length = append(c.Start, secs(e.Start)), append(c.Length, secs(e.End-e.Start))
		c.Fate, c.Event = append(c.Fate, fate), append(c.Event, n)
		if sc := r.Plan().Channels[i].Scene; sc != nil && len(sc.Walks) > 0 {
			c.Walk = append(c.Walk, e.Walk)
		}
	}
	for _, a := range r.Away[i] {
		if a.To > 0 && a.From < r.Length {
			c.Away = append(c.Away, secs(a.From), secs(a.To))
		}
	}
	return c
}

func (s *service) rehearsedEvent(ctx context.Context, in *struct {
	RehearseParam
	Event int `query:"event" minimum:"0"`
}) (*body[rehearse.Story], error) {
	_, r, err := s.rehearsed(ctx, &in.RehearseParam)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	if in.Event >= len(r.Events) {
		return nil, huma.Error404NotFound("There is no such event.")
	}
	return &body[rehearse.Story]{r.Tell(in.Event)}, nil
}

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
	Fate     rehearse.Fate `json:"fate" enum:"full,low,missed"`
	Words    string        `json:"words"`
	Share    float64       `json:"sharePercent" doc:"Of the stretch that is on disk"`
	Duty     string        `json:"duty" doc:"Name of the duty then"`
	Causes   []string      `json:"causes" doc:"What holds it there, in words"`
	Events   []int         `json:"events" doc:"The same, by which they are asked about"`
	GoneDate string        `json:"goneOn,omitempty" doc:"Date on which it would be overwritten, by the typical days kept; absent where nothing takes it away"`
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
	out := Answered{Fate: h.Fate, Share: 100 * h.Share, Causes: []string{}, Events: []int{}}
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
			out.Words = fmt.Sprintf("No: nothing of %s is on disk; the duty waits for events, and none was going on.", name)
		}
		if h.Share > 0 {
			out.Words = fmt.Sprintf("Not all: %.3g %% of it is on disk.", 100*h.Share)
		}
	}
	if days := rehearse.KeptUntil(e.site, i); h.Fate != rehearse.Missed && !math.IsInf(float64(days), 1) && days < 36500 {
		out.GoneDate = r.Moment(from).Add(time.Duration(float64(days) * 24 * float64(time.Hour))).Format("Monday 2 January 2006")
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
	o, err := heavily(ctx, s.heavy.heavy, func() (rehearse.Odds, error) { return rehearse.OddsOf(ctx, e.site, ask, i, from, to) })
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
	for _, c := range r.SlowestToSafety(10) {
		out.Slow = append(out.Slow, WorstCopy{p.Channels[c.Channel].ID, c.Event, secs(r.Events[c.Event].Start), secs(c.Waits)})
	}
	return &body[Worst]{out}, nil
}

// Beside is one week under two plans.
type Beside struct {
	Before rehearse.Sums  `json:"before"`
	After  rehearse.Sums  `json:"after"`
	Name   string         `json:"name" doc:"What the other is"`
	Turned []BesideTurned `json:"turned" doc:"Wanted events with another fate, in order"`
	More   int            `json:"more" doc:"How many there are beside those"`
}

// BesideTurned is an event with another fate.
type BesideTurned struct {
	Channel string        `json:"channel"`
	At      float64       `json:"at"`
	Words   string        `json:"words"`
	Before  rehearse.Fate `json:"before" enum:"full,low,missed"`
	After   rehearse.Fate `json:"after" enum:"full,low,missed"`
}

// mostTurned are told.
const mostTurned = 2000

func (s *service) rehearsedBeside(ctx context.Context, in *struct {
	RehearseParam
	Variant  string `query:"variant" maxLength:"200" doc:"Id of another plan of the site"`
	Revision int64  `query:"revision" minimum:"0" doc:"Or a revision of this one"`
}) (*body[Beside], error) {
	e, now, err := s.rehearsed(ctx, &in.RehearseParam)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	ask, _ := in.ask()
	out := Beside{Turned: []BesideTurned{}}
	var other entry
	switch {
	case in.Variant != "":
		if _, other, err = s.planOf(ctx, e.head.Site, in.Variant); err == nil {
			out.Name = other.head.Plan.Name
		}
	case in.Revision > 0:
		other, err = heavily(ctx, s.heavy.heavy, func() (entry, error) { return s.revisionOf(ctx, e, in.Revision) })
		out.Name = fmt.Sprintf("Revision %d", in.Revision)
	default:
		return nil, huma.Error422UnprocessableEntity("Another variant or a revision is wanted.")
	}
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	before, err := s.played(ctx, other, ask)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	out.Before, out.After = before.Sums(), now.Sums()
	for _, t := range before.Beside(now) {
		if len(out.Turned) == mostTurned {
			out.More++
			continue
		}
		ev := &before.Events[t.Event]
		out.Turned = append(out.Turned, BesideTurned{other.head.Plan.Channels[ev.Channel].ID, secs(ev.Start), before.Clock(ev.Start) + ", " + before.What(t.Event), t.Before, t.After})
	}
	return &body[Beside]{out}, nil
}

func (s *service) rehearsedFile(ctx context.Context, in *struct {
	RehearseParam
	Kind string `query:"kind" enum:"csv,xlsx,ics,json"`
}) (*file, error) {
	_, r, err := s.rehearsed(ctx, &in.RehearseParam)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	types := map[string]string{"csv": "text/csv; charset=utf-8", "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", "ics": "text/calendar; charset=utf-8", "json": "application/json"}
	data, err := heavily(ctx, s.heavy.heavy, func() ([]byte, error) {
		switch in.Kind {
		case "csv":
			return formats.WriteWeekCSV(r)
		case "xlsx":
			return formats.WriteWeekXLSX(r)
		case "ics":
			return formats.WriteWeekCalendar(r, time.Now().UTC()), nil
		}
		return formats.WriteWeekJSON(r)
	})
	name := fmt.Sprintf("%s-%s-number-%d.%s", in.ID, in.From, in.Seed, in.Kind)
	return &file{types[in.Kind], `attachment; filename="` + name + `"`, data}, s.problem(ctx, err)
}

// worthALook are the Mondays of weeks after a date that are not like others: the first with a special day, and the first in
// which clocks change, within a year.
func worthALook(p *plan.Plan, after week.Date, zone *time.Location) []PlayedDates {
	out := []PlayedDates{}
	first := after.At(0, time.UTC)
	dateAt := func(k int) (d week.Date) {
		d.Year, d.Month, d.Day = first.AddDate(0, 0, k).Date()
		return d
	}
	monday := func(k int) week.Date { return dateAt(k - int(dateAt(k).Weekday())) }
	for k, s := range p.Site.SpecialDaysFrom(after, 366) {
		if s != nil && monday(k) != monday(0) {
			out = append(out, PlayedDates{s.Name, monday(k)})
			break
		}
	}
	for k := 7; k < 366; k++ {
		if hours := dateAt(k+1).At(0, zone).Sub(dateAt(k).At(0, zone)).Hours(); hours != 24 && monday(k) != monday(0) {
			name := "clocks go back"
			if hours < 24 {
				name = "clocks go forward"
			}
			return append(out, PlayedDates{name, monday(k)})
		}
	}
	return out
}
