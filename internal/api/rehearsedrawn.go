package api

import (
	"context"
	"math"
	"slices"
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/core/rehearse"
	"wakefield.example/core/week"
)

// Played is a rehearsal as it is drawn: columns, as there may be a hundred thousand events. Times are seconds since the first
// midnight.
type Played struct {
	Version  int64           `json:"version" doc:"Of the plan"`
	Seconds  float64         `json:"seconds" doc:"Length of all days; one may have 23 or 25 hours"`
	Days     []PlayedDay     `json:"days"`
	Channels []PlayedChannel `json:"channels" doc:"Those with a camera, in the order of the plan"`
	Causes   []PlayedCause   `json:"causes" doc:"What happens beside the channels' own motion: alarm inputs, buttons, pictures that are lost or tampered with, and a lost uplink"`
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
	Change  float64   `json:"change,omitempty" doc:"Seconds after its midnight at which clocks change; absent where they do not"`
	Special string    `json:"special,omitempty" doc:"Name of the special day that it is"`
}

// PlayedChannel is what happened on one channel, in columns.
type PlayedChannel struct {
	ID     string    `json:"id"`
	From   []float64 `json:"from" doc:"Of the stretches of footage"`
	To     []float64 `json:"to"`
	Layer  []int     `json:"layer" doc:"0 the base layer, 1 events of its own, 2 others' events and alarms, 3 a button"`
	Start  []float64 `json:"start" doc:"Of its events; below 0 for what is under way at the first midnight"`
	Length []float64 `json:"length"`
	Fate   []int     `json:"fate" doc:"0 missed, 1 kept low, 2 kept in full, 3 unwanted and no trigger, 4 unwanted and a trigger"`
	Event  []int     `json:"event" doc:"By which an event is asked about"`
	Walk   []int     `json:"walk" doc:"Which of the channel's walks it took, −1 for none; empty where the channel has none"`
	Away   []float64 `json:"away" doc:"Of a movable camera: beginnings and ends of looking elsewhere, in turn"`
}

// PlayedCause is when something else happened than motion before a camera.
type PlayedCause struct {
	Kind   string    `json:"kind" enum:"alarm,button,lost,tampered,uplinkLost"`
	ID     string    `json:"id" doc:"Of the input, the button or the channel"`
	Name   string    `json:"name"`
	Start  []float64 `json:"start"`
	Length []float64 `json:"length"`
	Event  []int     `json:"event" doc:"By which an event is asked about"`
}

// PlayedMessage is when a receiver was told, and not told.
type PlayedMessage struct {
	ID        string    `json:"id"`
	Name      string    `json:"name"`
	Went      []float64 `json:"went"`
	Held      []float64 `json:"held"`
	HeldEvent []int     `json:"heldEvent" doc:"The events that were held back"`
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
	out := &Played{Version: e.head.Version, Seconds: secs(r.Length), Sums: r.Sums(), Channels: []PlayedChannel{}, Causes: causesDrawn(r),
		Messages: []PlayedMessage{}, Monitors: []PlayedShown{}}
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
		if _, change := begins.ZoneBounds(); change.After(begins) && change.Before(ends) {
			day.Change = change.Sub(begins).Seconds()
		}
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
	c := PlayedChannel{ID: r.Plan().Channels[i].ID, From: []float64{}, To: []float64{}, Layer: []int{}, Start: []float64{},
		Length: []float64{}, Fate: []int{}, Event: []int{}, Walk: []int{}, Away: []float64{}}
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
		if from, to := secs(g.From), secs(g.To); from < to { // else it is shorter than can be told
			c.From, c.To, c.Layer = append(c.From, from), append(c.To, to), append(c.Layer, layer)
		}
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

// causesDrawn are all inputs and buttons, and what happened to pictures.
func causesDrawn(r *rehearse.Rehearsal) []PlayedCause {
	p, out := r.Plan(), []PlayedCause{}
	add := func(kind rehearse.Source, at int, id, name string) {
		c := PlayedCause{string(kind), id, name, []float64{}, []float64{}, []int{}}
		for _, n := range r.OfCause(kind, at) {
			if e := &r.Events[n]; e.End > 0 && e.Start < r.Length {
				c.Start, c.Length, c.Event = append(c.Start, secs(e.Start)), append(c.Length, secs(e.End-e.Start)), append(c.Event, n)
			}
		}
		if c.Name == "" && len(c.Event) > 0 {
			c.Name = r.What(c.Event[0])
		}
		if c.Name != "" {
			out = append(out, c)
		}
	}
	for i, a := range p.AlarmInputs {
		add(rehearse.Alarm, i, a.ID, a.Name)
	}
	for i, a := range p.CallButtons {
		add(rehearse.Button, i, a.ID, a.Name)
	}
	for i, c := range p.Channels {
		add(rehearse.Lost, i, c.ID, "") // named by what happened, and left out where nothing did
		add(rehearse.Tampered, i, c.ID, "")
	}
	add(rehearse.UplinkLost, 0, "", "")
	return out
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
