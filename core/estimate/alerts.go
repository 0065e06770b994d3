package estimate

import (
	"wakefield/core/alert"
	"wakefield/core/cause"
	"wakefield/core/plan"
	"wakefield/core/week"
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
	ID    string    `json:"id"`
	Sent  HourRates `json:"sent" doc:"Messages that go out"`
	Held  HourRates `json:"held" doc:"Held back"`
	Quiet HourRates `json:"quiet" doc:"Outside its hours"`
}

// SwitchedHours is an output's week.
type SwitchedHours struct {
	ID     string    `json:"id"`
	Begins HourRates `json:"begins" doc:"Times it goes on"`
	On     HourRates `json:"on" doc:"Share of the hour it is on, 0 to 1"`
}

// ShownHours is a monitor's week.
type ShownHours struct {
	ID       string    `json:"id"`
	Shown    HourRates `json:"shown" doc:"Showings"`
	On       HourRates `json:"on" doc:"Share of the hour it shows something, 0 to 1"`
	CutShort HourRates `json:"cutShort" doc:"Showings cut short"`
}

// AwayHours is a movable camera's week.
type AwayHours struct {
	Channel string    `json:"channel"`
	Away    HourRates `json:"away" doc:"Share of the hour away from home, 0 to 1"`
	Missed  float64   `json:"missedPerDay" doc:"Wanted events at home that would be on disk if it were there"`
	Percent float64   `json:"eventsPercent" doc:"Share of the wanted events at home during which it is away"`
}

// StillHours is how many stills a channel takes.
type StillHours struct {
	Channel         string    `json:"channel"`
	Taken           HourRates `json:"taken"`
	GigabytesPerDay float64   `json:"gigabytesPerDay"`
	Kilobytes       float64   `json:"kilobytes" doc:"Of one"`
}

// alerts are what causes do beside recording.
type alerts struct {
	resolver *shared
	messages []plan.Message
	outputs  []plan.Output
	monitors []plan.Monitor

	told     []toldHours
	switched []switchedHours
	shown    []shownHours
}

type toldHours struct{ sent, held, quiet alert.Hours }
type switchedHours struct{ begins, on alert.Hours }
type shownHours struct{ shown, on, cut alert.Hours }

// alert finds what messages, outputs and monitors do. Where nothing changed that they hear of, an earlier estimate knows.
func (s *Result) alert(p *plan.Plan, earlier *Result) {
	if earlier != nil && earlier.alerts.resolver == s.resolver.shared && same(p.Messages, earlier.alerts.messages) && same(p.Outputs, earlier.alerts.outputs) && same(p.Monitors, earlier.alerts.monitors) {
		s.alerts = earlier.alerts
		s.Messages, s.Outputs, s.Monitors = earlier.Messages, earlier.Outputs, earlier.Monitors
		return
	}
	a := &alerts{resolver: s.resolver.shared, messages: p.Messages, outputs: p.Outputs, monitors: p.Monitors,
		told: make([]toldHours, len(p.Messages)), switched: make([]switchedHours, len(p.Outputs)), shown: make([]shownHours, len(p.Monitors))}
	r := s.resolver
	nm, no := len(p.Messages), len(p.Outputs)
	s.Messages, s.Outputs, s.Monitors = make([]Told, nm), make([]Switched, no), make([]Shown, len(p.Monitors))
	parallel(nm+no+len(p.Monitors), func(k int) {
		switch {
		case k < nm:
			a.told[k] = told(&p.Messages[k], r.heard(r.causes.Messages[k]))
			s.Messages[k] = a.told[k].figures(p.Messages[k].ID)
		case k < nm+no:
			k -= nm
			a.switched[k] = switched(&p.Outputs[k], r.heard(r.causes.Outputs[k]))
			s.Outputs[k] = a.switched[k].figures(p.Outputs[k].ID)
		default:
			k -= nm + no
			a.shown[k] = r.shows(&p.Monitors[k], r.causes.Monitors[k])
			s.Monitors[k] = a.shown[k].figures(p.Monitors[k].ID)
		}
	})
	s.alerts = a
}

// same tells whether two lists are one and the same.
func same[T any](a, b []T) bool { return len(a) == len(b) && (len(a) == 0 || &a[0] == &b[0]) }

func told(m *plan.Message, causes []*trigger) (h toldHours) {
	streams := alert.Merge(streamsOf(causes, m.Hours.Holding()))
	all := alert.Triggers(streams)
	h.sent = alert.Sent(streams, m.AtMostEverySeconds)
	every := all
	if m.Hours != nil {
		every = alert.Triggers(streamsOf(causes, week.Constant(true)))
	}
	for k := range all {
		h.held[k] = max(0, all[k]-h.sent[k])
		h.quiet[k] = max(0, every[k]-all[k])
	}
	return h
}

func (h *toldHours) figures(id string) Told {
	t := Told{ID: id, PerDay: h.sent.PerDay(), HeldBackPerDay: h.held.PerDay(), QuietPerDay: h.quiet.PerDay(), NightPerDay: h.sent.NightPerDay()}
	for _, n := range h.sent {
		t.BusiestPerHour = max(t.BusiestPerHour, n)
	}
	return t
}

func switched(o *plan.Output, causes []*trigger) (h switchedHours) {
	streams := streamsOf(causes, o.Hours.Holding())
	if o.Prolonged {
		h.on, h.begins = alert.Taken([]alert.Tie{{Streams: streams, Seconds: o.HoldSeconds}})
		return h
	}
	h.begins = alert.Sent(streams, o.HoldSeconds)
	h.on = h.begins.Held(o.HoldSeconds)
	return h
}

func (h *switchedHours) figures(id string) Switched {
	return Switched{id, h.begins.PerDay(), 100 * h.on.Mean(), h.begins.NightPerDay(), 100 * h.on.NightPerDay() / alert.NightHours}
}

// shows is what a monitor shows, each tie apart.
func (r *resolver) shows(m *plan.Monitor, ties []cause.Tie) (h shownHours) {
	apart := make([][]alert.Stream, len(ties))
	var all []alert.Stream
	for k := range ties {
		apart[k] = streamsOf(r.heard(ties[k:k+1]), week.Constant(true))
		all = append(all, apart[k]...)
	}
	all = alert.Merge(all)
	h.shown = alert.Triggers(all)
	h.on, _ = alert.Taken([]alert.Tie{{Streams: all, Seconds: m.DwellSeconds}})
	h.cut = alert.CutShort(apart, m.DwellSeconds)
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

// AlertHours are the figures of alerts hour by hour.
func (s *Result) AlertHours() AlertHours {
	out := AlertHours{Messages: []ToldHours{}, Outputs: []SwitchedHours{}, Monitors: []ShownHours{}, Away: []AwayHours{}, Stills: []StillHours{}}
	for k := range s.alerts.told {
		h := &s.alerts.told[k]
		out.Messages = append(out.Messages, ToldHours{s.Messages[k].ID, h.sent[:], h.held[:], h.quiet[:]})
	}
	for k := range s.alerts.switched {
		h := &s.alerts.switched[k]
		out.Outputs = append(out.Outputs, SwitchedHours{s.Outputs[k].ID, h.begins[:], h.on[:]})
	}
	for k := range s.alerts.shown {
		h := &s.alerts.shown[k]
		out.Monitors = append(out.Monitors, ShownHours{s.Monitors[k].ID, h.shown[:], h.on[:], h.cut[:]})
	}
	for i := range s.Channels {
		id := s.Channels[i].ID
		if a := s.away[i]; a != nil {
			out.Away = append(out.Away, AwayHours{id, a.share[:], a.missed, a.percent})
		}
		if st := s.stills[i]; st != nil {
			c := s.plan.Channels[i].Stills
			out.Stills = append(out.Stills, StillHours{id, st.taken[:], float64(st.day()) / 1e9, c.Bytes() / 1000})
		}
	}
	return out
}

// SentAt is how often message k would go out a day if at most one did in so many seconds.
func (s *Result) SentAt(k int, seconds float64) float64 {
	h := alert.Sent(streamsOf(s.resolver.heard(s.resolver.causes.Messages[k]), s.plan.Messages[k].Hours.Holding()), seconds)
	return h.PerDay()
}
