package device

import (
	"context"
	"slices"
	"strings"
	"time"

	"golang.org/x/sync/errgroup"

	"wakefield.example/core/plan"
	"wakefield.example/core/readout"
	"wakefield.example/internal/onvif"
)

// recordingOf is a recording of the device with its jobs.
type recordingOf struct {
	token, source, name, address string
	atMost                       string // xs:duration
	jobs                         []onvif.Job
	configuration                *onvif.Element
}

// recorded is what the recording service tells.
type recorded struct {
	recordings []recordingOf
	*timetables
}

// recordingsOf reads recordings, jobs and schedules.
func (c *Client) recordingsOf(ctx context.Context) (*recorded, error) {
	answer, err := c.ask(ctx, onvif.RecordingControl, onvif.E("trc:GetRecordings"))
	if err != nil {
		return nil, err
	}
	out := &recorded{timetables: &timetables{schedules: make(map[string]schedule)}}
	at := make(map[string]int)
	for _, e := range onvif.All(answer, "RecordingItem") {
		of := onvif.At(e, "Configuration")
		r := recordingOf{token: onvif.Text(e, "RecordingToken"), source: onvif.Text(of, "Source/SourceId"), name: onvif.Text(of, "Source/Name"),
			address: onvif.Text(of, "Source/Address"), atMost: onvif.Text(of, "MaximumRetentionTime"), configuration: of}
		at[r.token] = len(out.recordings)
		out.recordings = append(out.recordings, r)
	}
	answer, err = c.ask(ctx, onvif.RecordingControl, onvif.E("trc:GetRecordingJobs"))
	if err != nil {
		return nil, err
	}
	for _, e := range onvif.All(answer, "JobItem") {
		j := onvif.JobOf(onvif.Text(e, "JobToken"), orEmpty(onvif.At(e, "JobConfiguration")))
		if k, known := at[j.Recording]; known {
			out.recordings[k].jobs = append(out.recordings[k].jobs, j)
		}
	}
	if c.Has(onvif.Schedule) {
		out.timetables, err = c.timetables(ctx)
	}
	return out, err
}

// recordings reads what is recorded when, and how far footage reaches.
func (r *reading) recordings(ctx context.Context) error {
	if !r.Has(onvif.RecordingControl) {
		return r.unless("recording", nil)
	}
	all, err := r.recordingsOf(ctx)
	if err != nil {
		return r.unless("recording", err)
	}
	r.can(ctx, all.timetables)
	for i := range all.recordings { // where a device does not say it, its jobs do
		for _, j := range all.recordings[i].jobs {
			r.d.Around = r.d.Around || j.Filter != nil
		}
	}
	g, ctx := errgroup.WithContext(ctx)
	g.SetLimit(2)
	for i := range all.recordings {
		of := &all.recordings[i]
		c := r.channelOf(of)
		if c == nil {
			continue
		}
		r.layers(c, of, all.schedules)
		if r.Has(onvif.RecordingSearch) {
			r.more(1)
			g.Go(func() error { return r.unless("how far footage reaches", r.reaches(ctx, c, of.token)) })
		}
	}
	r.step("recording")
	return g.Wait()
}

// channelOf is the channel whose footage a recording holds: that of the stream which a job writes into it, else the one that its
// source names.
func (r *reading) channelOf(of *recordingOf) *readout.Channel {
	source := of.source
	for _, j := range of.jobs {
		for _, p := range r.profiles {
			if p.token == j.Profile {
				source = p.source
			}
		}
	}
	for i := range r.d.Channels {
		if c := &r.d.Channels[i]; c.Token == source && c.Recording == "" {
			return c
		}
	}
	return nil
}

// layers puts what a recording has into its channel.
func (r *reading) layers(c *readout.Channel, of *recordingOf, schedules map[string]schedule) {
	c.Recording = of.token
	if of.name != "" {
		c.Name = of.name
	}
	c.Address = hostOf(of.address)
	if s, err := onvif.SecondsOf(of.atMost); err == nil && s >= 0 {
		days := s / 86400
		c.KeepAtMostDays = &days
	}
	for _, j := range of.jobs {
		if !j.Active {
			continue
		}
		l := readout.Layer{Stream: plan.Main}
		for k := range c.Streams { // what their encoders offer is being read meanwhile
			if c.Streams[k].Profile == j.Profile {
				l.Stream = c.Streams[k].Name
			}
		}
		if j.Schedule != "" {
			s, known := schedules[j.Schedule]
			if !known || s.why != "" {
				why := s.why
				if !known {
					why = "it names a schedule that it does not have"
				}
				r.mu.Lock()
				r.d.Unread = append(r.d.Unread, readout.Unread{What: "schedule of " + c.Name, Why: "Its hours are not understood: " + why + "."})
				r.mu.Unlock()
				continue
			}
			if l.Hours, l.OnDates = plan.HoursWhere(s.when), s.dates; len(l.Hours) == 0 {
				if len(l.OnDates) == 0 {
					continue
				}
				l.Hours = []plan.Hours{} // never, as none is always
			}
		}
		if j.Filter != nil {
			l.On, l.By = r.heardBy(j.Filter.Heard)
			if j.Filter.Before >= 0 {
				l.PreSeconds = &j.Filter.Before
			}
			if j.Filter.After >= 0 {
				l.PostSeconds = &j.Filter.After
			}
		}
		c.Layers = append(c.Layers, l)
	}
}

// hostOf is host and port of an address that a recorder tells of a camera, without user, password and path.
func hostOf(text string) string {
	if text == "" {
		return ""
	}
	if _, rest, ok := strings.Cut(text, "://"); ok {
		text = rest
	}
	text, _, _ = strings.Cut(text, "/")
	if k := strings.LastIndexByte(text, '@'); k >= 0 {
		text = text[k+1:]
	}
	a, err := ReadAddress(text)
	if err != nil {
		return ""
	}
	return a.String()
}

// triggerOf is the kind of event that a topic is of.
func triggerOf(topic string) plan.Trigger {
	if strings.Contains(topic, "DigitalInput") || strings.Contains(topic, "Trigger") {
		return plan.Alarm
	}
	return plan.Motion
}

// heardBy are the kinds of events of a filter, and whose they are where it says so.
func (r *reading) heardBy(list []onvif.Heard) (on []plan.Trigger, by []string) {
	for _, h := range list {
		kind := triggerOf(h.Topic)
		if !slices.Contains(on, kind) {
			on = append(on, kind)
		}
		for _, token := range h.Source {
			if kind == plan.Motion {
				token = r.sourceOf(token)
			}
			if text := string(kind) + " " + token; token != "" && !slices.Contains(by, text) {
				by = append(by, text)
			}
		}
	}
	if len(on) == 0 {
		on = []plan.Trigger{plan.Motion}
	}
	slices.Sort(on)
	slices.Reverse(on) // motion first
	slices.Sort(by)
	return on, by
}

// sourceOf is the video source of which a token is: its own, or that of a configuration.
func (r *reading) sourceOf(token string) string {
	for i := range r.d.Channels {
		if c := &r.d.Channels[i]; c.Token == token || slices.Contains(c.Tokens, token) {
			return c.Token
		}
	}
	return ""
}

// can reads what of schedules and events the device takes.
func (r *reading) can(ctx context.Context, t *timetables) {
	r.d.ByHour = r.Has(onvif.Schedule)
	if answer, err := r.ask(ctx, onvif.RecordingControl, onvif.E("trc:GetServiceCapabilities")); err == nil {
		if c := onvif.At(answer, "Capabilities"); c != nil {
			r.d.Around = onvif.Truth(c.SelectAttrValue("EventRecording", ""))
			if s := c.SelectAttrValue("ScheduledRecording", ""); s != "" {
				r.d.ByHour = r.d.ByHour && onvif.Truth(s)
			}
		}
	}
	if r.d.ByHour {
		r.d.Periods, r.d.SpecialDays = t.periods, t.special
	}
}

// reaches reads from when to when there is footage.
func (r *reading) reaches(ctx context.Context, c *readout.Channel, recording string) error {
	answer, err := r.ask(ctx, onvif.RecordingSearch, onvif.E("tse:GetRecordingInformation", onvif.E("tse:RecordingToken", recording)))
	if err != nil {
		return err
	}
	for path, into := range map[string]**time.Time{"EarliestRecording": &c.Oldest, "LatestRecording": &c.Newest} {
		text := onvif.Text(answer, "RecordingInformation/"+path)
		if text == "" {
			continue
		}
		at, err := onvif.Moment(text, r.zone)
		if err != nil {
			return &Error{Refused, "It says of its footage: " + err.Error() + "."}
		}
		at = at.Add(-r.clock).UTC().Truncate(time.Second)
		*into = &at
	}
	return nil
}
