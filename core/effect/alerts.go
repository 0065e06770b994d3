package effect

import (
	"slices"
	"sync"

	"wakefield.example/core/activity"
	"wakefield.example/core/alert"
	"wakefield.example/core/cause"
	"wakefield.example/core/parallel"
	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
	"wakefield.example/core/week"
)

// Told is how often one receiver is told.
type Told struct {
	ID             string  `json:"id"`
	PerDay         float64 `json:"perDay" doc:"Messages that go out"`
	HeldBackPerDay float64 `json:"heldBackPerDay" doc:"Causes within its hours of which none goes out, as another did not long before"`
	QuietPerDay    float64 `json:"quietPerDay" doc:"Causes outside its hours"`
	BusiestPerHour float64 `json:"busiestPerHour" doc:"That go out in the busiest hour of the week"`
	NightPerDay    float64 `json:"nightPerDay" doc:"That go out from 22:00 to 06:00"`
}

// Switched is how often an output goes on.
type Switched struct {
	ID             string  `json:"id"`
	PerDay         float64 `json:"perDay" doc:"Times it goes on"`
	OnPercent      float64 `json:"onPercent" doc:"Share of time it is on"`
	NightPerDay    float64 `json:"nightPerDay" doc:"Times it goes on from 22:00 to 06:00"`
	NightOnPercent float64 `json:"nightOnPercent" doc:"Share of that time it is on"`
}

// Shown is how much a monitor shows.
type Shown struct {
	ID               string  `json:"id"`
	PerDay           float64 `json:"perDay" doc:"Showings"`
	OnPercent        float64 `json:"onPercent" doc:"Share of time it shows something"`
	BusiestOnPercent float64 `json:"busiestOnPercent" doc:"The same in the busiest hour of the week"`
	CutShortPercent  float64 `json:"cutShortPercent" doc:"Share of the showings that another cause cuts short"`
}

// AlertHours are figures of alerts by hour of the week, Monday 00:00 to 01:00 first.
type AlertHours struct {
	Messages []ToldHours     `json:"messages"`
	Outputs  []SwitchedHours `json:"outputs"`
	Monitors []ShownHours    `json:"monitors"`
	Away     []AwayHours     `json:"away" doc:"Of channels that something sends"`
	Stills   []StillHours    `json:"stills" doc:"Of channels that take any"`
}

// ToldHours is a receiver's week.
type ToldHours struct {
	ID    string             `json:"id"`
	Sent  activity.HourRates `json:"sent" doc:"Messages that go out"`
	Held  activity.HourRates `json:"held" doc:"Held back"`
	Quiet activity.HourRates `json:"quiet" doc:"Outside its hours"`
}

// SwitchedHours is an output's week.
type SwitchedHours struct {
	ID     string             `json:"id"`
	Begins activity.HourRates `json:"begins" doc:"Times it goes on"`
	On     activity.HourRates `json:"on" doc:"Share of the hour it is on, 0 to 1"`
}

// ShownHours is a monitor's week.
type ShownHours struct {
	ID       string             `json:"id"`
	Shown    activity.HourRates `json:"shown" doc:"Showings"`
	On       activity.HourRates `json:"on" doc:"Share of the hour it shows something, 0 to 1"`
	CutShort activity.HourRates `json:"cutShort" doc:"Showings cut short"`
}

// AwayHours is a movable camera's week.
type AwayHours struct {
	Channel       string             `json:"channel"`
	Away          activity.HourRates `json:"away" doc:"Share of the hour away from home, 0 to 1"`
	MissedPerDay  float64            `json:"missedPerDay" doc:"Wanted events at home that would be on disk if it were there"`
	EventsPercent float64            `json:"eventsPercent" doc:"Share of the wanted events at home during which it is away"`
}

// StillHours is how many stills a channel takes.
type StillHours struct {
	Channel         string             `json:"channel"`
	Taken           activity.HourRates `json:"taken"`
	GigabytesPerDay float64            `json:"gigabytesPerDay"`
	Kilobytes       float64            `json:"kilobytes" doc:"Of one"`
}

// alerts are what causes do beside recording.
type alerts struct {
	told     map[string]*toldHours // by id
	switched map[string]*switchedHours
	shown    map[string]*shownHours
}

// findAlerts finds what messages, outputs and monitors do. What hears of the same as in an earlier plan does the same.
func (e *Effects) findAlerts(earlier *Effects) {
	r, p := e.site, e.site.Plan
	before := new(alerts)
	if earlier != nil {
		if before = earlier.alerts; r.SameAsBefore(earlier.site) && p.SharesAlerts(earlier.site.Plan) {
			e.alerts, e.Messages, e.Outputs, e.Monitors = before, earlier.Messages, earlier.Outputs, earlier.Monitors
			return
		}
	}
	nm, no := len(p.Messages), len(p.Outputs)
	told, switched, shown := make([]*toldHours, nm), make([]*switchedHours, no), make([]*shownHours, len(p.Monitors))
	nv := len(p.Monitors)
	parallel.Do(nv+no+nm, func(k int) { // what takes longest first
		switch {
		case k < nv:
			m := &p.Monitors[k]
			shown[k] = showOf(r, m, r.Causes.Monitors[k]).find(before.shown[m.ID])
		case k < nv+no:
			k -= nv
			o := &p.Outputs[k]
			switched[k] = switchOf(o, r.Heard(r.Causes.Outputs[k])).find(before.switched[o.ID])
		default:
			k -= nv + no
			m := &p.Messages[k]
			told[k] = tellOf(m, r.Heard(r.Causes.Messages[k])).find(before.told[m.ID])
		}
	})
	e.Messages, e.Outputs, e.Monitors = make([]Told, nm), make([]Switched, no), make([]Shown, nv)
	a := &alerts{told: make(map[string]*toldHours, nm), switched: make(map[string]*switchedHours, no), shown: make(map[string]*shownHours)}
	for k, h := range told {
		a.told[p.Messages[k].ID], e.Messages[k] = h, h.figures(p.Messages[k].ID)
	}
	for k, h := range switched {
		a.switched[p.Outputs[k].ID], e.Outputs[k] = h, h.figures(p.Outputs[k].ID)
	}
	for k, h := range shown {
		a.shown[p.Monitors[k].ID], e.Monitors[k] = h, h.figures(p.Monitors[k].ID)
	}
	e.alerts = a
}

func alike(a, b []alert.Stream) bool { return slices.EqualFunc(a, b, alert.Stream.Equal) }

// toldHours is what goes to one receiver hour by hour, and of what that was found.
type toldHours struct {
	every       float64        // the interval, seconds
	in, all     []alert.Stream // within its hours, and at any
	sent        alert.Hours
	held, quiet alert.Hours

	mu    sync.Mutex
	tried map[float64]float64 // what would go out a day, by the interval
}

// tellOf is what a receiver hears of, before it is found what that comes to.
func tellOf(m *plan.Message, causes []*resolve.Trigger) *toldHours {
	h := &toldHours{every: m.AtMostEverySeconds, in: alert.Merge(resolve.StreamsOf(causes, m.Hours.Holding()))}
	h.all = h.in
	if m.Hours != nil {
		h.all = alert.Merge(resolve.StreamsOf(causes, week.Constant(true)))
	}
	return h
}

func (h *toldHours) find(before *toldHours) *toldHours {
	if before != nil && h.every == before.every && alike(h.in, before.in) && alike(h.all, before.all) {
		return before
	}
	h.tried = make(map[float64]float64)
	in, every := alert.Triggers(h.in), alert.Triggers(h.all)
	h.sent = alert.Sent(h.in, h.every)
	for k := range in {
		h.held[k] = max(0, in[k]-h.sent[k])
		h.quiet[k] = max(0, every[k]-in[k])
	}
	return h
}

// at is what would go out a day at another interval.
func (h *toldHours) at(seconds float64) float64 {
	h.mu.Lock()
	defer h.mu.Unlock()
	if _, ok := h.tried[seconds]; !ok {
		sent := alert.Sent(h.in, seconds)
		h.tried[seconds] = sent.PerDay()
	}
	return h.tried[seconds]
}

func (h *toldHours) figures(id string) Told {
	t := Told{ID: id, PerDay: h.sent.PerDay(), HeldBackPerDay: h.held.PerDay(), QuietPerDay: h.quiet.PerDay(),
		NightPerDay: h.sent.NightPerDay()}
	for _, n := range h.sent {
		t.BusiestPerHour = max(t.BusiestPerHour, n)
	}
	return t
}

// SentAt is how often a message would go out a day if at most one did in so many seconds.
func (e *Effects) SentAt(message string, seconds float64) float64 {
	return e.alerts.told[message].at(seconds)
}

// switchedHours is when an output is on hour by hour, and of what that was found.
type switchedHours struct {
	hold       float64
	prolonged  bool
	in         []alert.Stream
	begins, on alert.Hours
}

func switchOf(o *plan.Output, causes []*resolve.Trigger) *switchedHours {
	return &switchedHours{hold: o.HoldSeconds, prolonged: o.Prolonged, in: alert.Merge(resolve.StreamsOf(causes, o.Hours.Holding()))}
}

func (h *switchedHours) find(before *switchedHours) *switchedHours {
	switch {
	case before != nil && h.hold == before.hold && h.prolonged == before.prolonged && alike(h.in, before.in):
		return before
	case h.prolonged:
		h.on, h.begins = alert.Taken([]alert.Tie{{Streams: h.in, Seconds: h.hold}})
	default:
		h.begins = alert.Sent(h.in, h.hold)
		h.on = h.begins.Held(h.hold)
	}
	return h
}

func (h *switchedHours) figures(id string) Switched {
	return Switched{id, h.begins.PerDay(), 100 * h.on.Mean(), h.begins.NightPerDay(), 100 * h.on.NightPerDay() / alert.NightHours}
}

// shownHours is what a monitor shows hour by hour, and of what that was found.
type shownHours struct {
	dwell          float64
	ties           [][]alert.Stream
	shown, on, cut alert.Hours
}

// showOf is what a monitor shows, each tie apart.
func showOf(r *resolve.Site, m *plan.Monitor, ties []cause.Tie) *shownHours {
	h := &shownHours{dwell: m.DwellSeconds, ties: make([][]alert.Stream, len(ties))}
	for k := range ties {
		h.ties[k] = resolve.StreamsOf(r.Heard(ties[k:k+1]), week.Constant(true))
	}
	return h
}

func (h *shownHours) find(before *shownHours) *shownHours {
	if before != nil && h.dwell == before.dwell && slices.EqualFunc(h.ties, before.ties, alike) {
		return before
	}
	var all []alert.Stream
	for _, tie := range h.ties {
		all = append(all, tie...)
	}
	all = alert.Merge(all)
	h.shown = alert.Triggers(all)
	h.on, _ = alert.Taken([]alert.Tie{{Streams: all, Seconds: h.dwell}})
	h.cut = alert.CutShort(h.ties, h.dwell)
	return h
}

func (h *shownHours) figures(id string) Shown {
	s := Shown{ID: id, PerDay: h.shown.PerDay(), OnPercent: 100 * h.on.Mean()}
	for _, share := range h.on {
		s.BusiestOnPercent = max(s.BusiestOnPercent, 100*share)
	}
	if s.PerDay > 0 {
		s.CutShortPercent = 100 * h.cut.PerDay() / s.PerDay
	}
	return s
}

// Hours are the figures of alerts hour by hour.
func (e *Effects) Hours() AlertHours {
	out := AlertHours{Messages: []ToldHours{}, Outputs: []SwitchedHours{}, Monitors: []ShownHours{}, Away: []AwayHours{},
		Stills: []StillHours{}}
	for _, m := range e.Messages {
		h := e.alerts.told[m.ID]
		out.Messages = append(out.Messages, ToldHours{m.ID, h.sent[:], h.held[:], h.quiet[:]})
	}
	for _, o := range e.Outputs {
		h := e.alerts.switched[o.ID]
		out.Outputs = append(out.Outputs, SwitchedHours{o.ID, h.begins[:], h.on[:]})
	}
	for _, m := range e.Monitors {
		h := e.alerts.shown[m.ID]
		out.Monitors = append(out.Monitors, ShownHours{m.ID, h.shown[:], h.on[:], h.cut[:]})
	}
	for i := range e.site.Plan.Channels {
		c := &e.site.Plan.Channels[i]
		if a := e.Away[i]; a != nil {
			out.Away = append(out.Away, AwayHours{c.ID, a.Share[:], a.missed, a.percent})
		}
		if st := e.Stills[i]; st != nil {
			out.Stills = append(out.Stills, StillHours{c.ID, st.taken[:], float64(st.Day()) / 1e9, c.Stills.Bytes() / 1000})
		}
	}
	return out
}
