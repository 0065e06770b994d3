package device

import (
	"cmp"
	"context"
	"slices"
	"strings"

	"wakefield.example/core/plan"
	"wakefield.example/core/readout"
	"wakefield.example/core/week"
	"wakefield.example/internal/formats"
	"wakefield.example/internal/onvif"
)

// writeLayers makes the jobs of a recording what is wanted: those that are there are changed in turn, what is lacking is made, what
// is too many is deleted. A schedule that other jobs follow is left alone, and another made.
func (c *Client) writeLayers(ctx context.Context, wanted *readout.Device, w *readout.Channel) error {
	all, err := c.recordingsOf(ctx)
	if err != nil {
		return err
	}
	users := make(map[string]int) // jobs by schedule
	var jobs []onvif.Job
	for _, r := range all.recordings {
		for _, j := range r.jobs {
			users[j.Schedule]++
		}
		if r.token == w.Recording {
			jobs = r.jobs
		}
	}
	topics := topicsIn(all)
	layers := slices.DeleteFunc(slices.Clone(w.Layers), func(l readout.Layer) bool { return len(l.On) > 0 && len(l.Heard()) == 0 })
	for i := range layers {
		l := &layers[i]
		j := onvif.Job{Recording: w.Recording, Active: true, Priority: basePriority}
		if i < len(jobs) {
			j.Token, j.Schedule = jobs[i].Token, jobs[i].Schedule
		}
		was := j.Schedule
		if j.Schedule, err = c.writeSchedule(ctx, all, j.Schedule, users[j.Schedule], w, l); err != nil {
			return err
		}
		if was != j.Schedule {
			users[was]--
			users[j.Schedule]++
		}
		if len(l.On) > 0 {
			j.Priority = eventPriority
			j.Filter = &onvif.Filter{Before: plan.Or(l.PreSeconds, -1), After: plan.Or(l.PostSeconds, -1), Heard: heardOf(l, topics, wanted, w)}
		}
		if err := c.writeJob(ctx, j, l, w); err != nil {
			return err
		}
	}
	for _, j := range jobs[min(len(jobs), len(layers)):] {
		if _, err := c.call(ctx, onvif.RecordingControl, onvif.E("trc:DeleteRecordingJob", onvif.E("trc:JobToken", j.Token))); err != nil {
			return err
		}
		users[j.Schedule]--
	}
	for token, s := range all.schedules { // those that nobody follows any more, of this recording's
		if users[token] == 0 && strings.HasPrefix(s.Name, scheduleName(w)) {
			if _, err := c.call(ctx, onvif.Schedule, onvif.E("tsc:DeleteSchedule", onvif.E("tsc:Token", token))); err != nil {
				return err
			}
			delete(all.schedules, token)
		}
	}
	return c.dropGroups(ctx, all.timetables)
}

// Of jobs that write into one recording at once the one with more priority does: what happens goes before what is recorded anyway.
const (
	basePriority  = 1
	eventPriority = 2
)

// writeJob makes a job of a layer, or sets the one of its token.
func (c *Client) writeJob(ctx context.Context, j onvif.Job, l *readout.Layer, w *readout.Channel) error {
	s := w.Stream(l.Stream)
	if s == nil {
		return &Error{Refused, plan.Say("%s has no %s.", w.Name, plan.StreamChoices.Name(string(l.Stream)))}
	}
	j.Profile = s.Profile
	if j.Token == "" {
		_, err := c.call(ctx, onvif.RecordingControl, onvif.E("trc:CreateRecordingJob", j.Configuration("trc:JobConfiguration")))
		return err
	}
	_, err := c.ask(ctx, onvif.RecordingControl, onvif.E("trc:SetRecordingJobConfiguration", onvif.E("trc:JobToken", j.Token),
		j.Configuration("trc:JobConfiguration")))
	return err
}

// scheduleName is what schedules of a channel are called that we make.
func scheduleName(w *readout.Channel) string { return "Wakefield " + w.Recording + " " }

// writeSchedule makes the hours of a layer a schedule, and returns its token; none for always.
func (c *Client) writeSchedule(ctx context.Context, all *recorded, token string, users int, w *readout.Channel,
	l *readout.Layer) (string, error) {
	if l.Hours == nil && len(l.OnDates) == 0 {
		return "", nil
	}
	when := week.Constant(true)
	if l.Hours != nil {
		when = plan.HourList{Blocks: l.Hours}.Steps()
	}
	s, known := all.schedules[token]
	if known && s.why == "" && slices.Equal(s.when, when) && sameDates(s.dates, l.OnDates) {
		return token, nil
	}
	days, err := c.writeDates(ctx, all.timetables, l.OnDates)
	if err != nil {
		return "", err
	}
	name := scheduleName(w) + string(l.Stream)
	for _, on := range l.On {
		name += " " + string(on)
	}
	hours := plan.HoursWhere(when)
	next := onvif.Timetable{Name: name, Description: cmp.Or(plan.HoursInWords(hours), "on special days"),
		Standard: formats.WriteSchedule(hours, name), SpecialDays: days}
	if known && users == 1 {
		next.Token, next.Name = token, s.Name
		_, err := c.ask(ctx, onvif.Schedule, onvif.E("tsc:ModifySchedule", next.Element("tsc:Schedule")))
		all.schedules[token] = schedule{Timetable: next}
		return token, err
	}
	answer, err := c.call(ctx, onvif.Schedule, onvif.E("tsc:CreateSchedule", next.Element("tsc:Schedule")))
	if err != nil {
		return "", err
	}
	if next.Token = onvif.Text(answer, "Token"); next.Token == "" {
		return "", &Error{Stranger, "It made a schedule and does not say which."}
	}
	all.schedules[next.Token] = schedule{Timetable: next}
	return next.Token, nil
}

// topicsIn are the topics that jobs of the device have, by what they are of.
func topicsIn(all *recorded) map[plan.Trigger]string {
	out := make(map[plan.Trigger]string)
	for _, r := range all.recordings {
		for _, j := range r.jobs {
			if j.Filter == nil {
				continue
			}
			for _, h := range j.Filter.Heard {
				out[triggerOf(h.Topic)] = h.Topic
			}
		}
	}
	return out
}

// heardOf are the topics of a layer's events: as the device's other jobs have them, else by how the channel notices motion; each with
// whose they are, so that nobody else's records it.
func heardOf(l *readout.Layer, known map[plan.Trigger]string, wanted *readout.Device, w *readout.Channel) (out []onvif.Heard) {
	motion := onvif.TopicMotionAlarm
	if d := w.Detection; d != nil {
		switch d.Drawn {
		case "grid":
			motion = onvif.TopicCellMotion
		case "polygon":
			motion = onvif.TopicRegionMotion
		}
	}
	topics := map[plan.Trigger]string{plan.Motion: cmp.Or(known[plan.Motion], motion), plan.Alarm: cmp.Or(known[plan.Alarm], onvif.TopicInput)}
	for _, on := range l.Heard() {
		n := len(out)
		for _, b := range l.By {
			if token, is := strings.CutPrefix(b, string(on)+" "); is {
				out = append(out, onvif.Heard{Topic: topics[on], Source: sourceItem(topics[on], token, wanted)})
			}
		}
		if len(out) == n {
			out = append(out, onvif.Heard{Topic: topics[on]})
		}
	}
	return out
}

// sourceItem is how messages of a topic say whose they are.
func sourceItem(topic, token string, d *readout.Device) map[string]string {
	switch {
	case triggerOf(topic) == plan.Alarm:
		return map[string]string{"InputToken": token}
	case strings.Contains(topic, "RuleEngine"):
		for i := range d.Channels {
			if c := &d.Channels[i]; c.Token == token && len(c.Tokens) > 0 {
				return map[string]string{"VideoSourceConfigurationToken": c.Tokens[0]}
			}
		}
	}
	return map[string]string{"Source": token}
}
