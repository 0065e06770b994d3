package device

import (
	"context"
	"fmt"
	"slices"
	"time"

	"wakefield.example/core/readout"
	"wakefield.example/internal/onvif"
)

// Recorded is a stretch of footage of a channel.
type Recorded struct {
	Token      string // of the video source
	Start, End time.Time
}

// What of a history is read.
const (
	mostResults = 2000    // of one answer
	mostHistory = 400_000 // events of one device
)

// topicState is how a recorder tells that it began or ended to record.
const topicState = "tns1:RecordingHistory/Recording/State"

// History reads when each channel that records around events alone was recorded from one moment to another, by the recorder's own
// search. A stretch that had begun
// before begins with it; one that goes on ends with it.
func (c *Client) History(ctx context.Context, d *readout.Device, from, to time.Time, progress Progress) (out []Recorded, err error) {
	if !c.Has(onvif.RecordingSearch) {
		return nil, &Error{Refused, "It cannot be searched for its footage: the service is not among its own."}
	}
	events := 0
	for k := range d.Channels {
		ch := &d.Channels[k]
		if progress != nil {
			progress(k, len(d.Channels), ch.Name)
		}
		if ch.Recording == "" || slices.ContainsFunc(ch.Layers, func(l readout.Layer) bool { return len(l.On) == 0 }) {
			continue // what is written anyway tells nothing of what happens
		}
		list, n, err := c.historyOf(ctx, ch, from, to)
		if err != nil {
			return nil, err
		}
		if events += n; events > mostHistory {
			return nil, &Error{Refused, fmt.Sprintf("It tells of more than %d beginnings and ends; ask for fewer days.", mostHistory)}
		}
		out = append(out, list...)
	}
	if progress != nil {
		progress(len(d.Channels), len(d.Channels), "")
	}
	return out, nil
}

// historyOf reads that of one channel.
func (c *Client) historyOf(ctx context.Context, ch *readout.Channel, from, to time.Time) (out []Recorded, events int, err error) {
	at := func(t time.Time) string { return t.Add(c.clock).UTC().Format("2006-01-02T15:04:05Z") }
	answer, err := c.ask(ctx, onvif.RecordingSearch, onvif.E("tse:FindEvents", onvif.E("tse:StartPoint", at(from)),
		onvif.E("tse:EndPoint", at(to)),
		onvif.E("tse:Scope", onvif.E("tt:IncludedRecordings", ch.Recording)),
		onvif.E("tse:SearchFilter", onvif.E("wsnt:TopicExpression", onvif.Attr{Name: "Dialect", Value: onvif.Concrete}, topicState)),
		onvif.E("tse:IncludeStartState", "true"), onvif.E("tse:KeepAliveTime", "PT60S")))
	if err != nil {
		return nil, 0, err
	}
	token := onvif.Text(answer, "SearchToken")
	defer c.call(context.WithoutCancel(ctx), onvif.RecordingSearch, onvif.E("tse:EndSearch", onvif.E("tse:SearchToken", token)))
	var began time.Time
	for events <= mostHistory {
		answer, err := c.ask(ctx, onvif.RecordingSearch, onvif.E("tse:GetEventSearchResults", onvif.E("tse:SearchToken", token),
			onvif.E("tse:MaxResults", fmt.Sprint(mostResults)), onvif.E("tse:WaitTime", "PT5S")))
		if err != nil {
			return nil, 0, err
		}
		list := onvif.All(answer, "ResultList/Result")
		for _, e := range list {
			moment, on, err := c.stateOf(e)
			if err != nil {
				return nil, 0, err
			}
			switch {
			case on && began.IsZero():
				began = moment
			case !on && !began.IsZero():
				out = append(out, Recorded{ch.Token, began, moment})
				began = time.Time{}
			}
		}
		events += len(list)
		if onvif.Text(answer, "ResultList/SearchState") == "Completed" {
			break
		}
	}
	if !began.IsZero() {
		out = append(out, Recorded{ch.Token, began, to})
	}
	for i := range out { // clocks are known to a second
		r := &out[i]
		r.Start, r.End = r.Start.Truncate(time.Second), r.End.Truncate(time.Second)
		if r.Start.Before(from) {
			r.Start = from
		}
		if r.End.After(to) {
			r.End = to
		}
	}
	return slices.DeleteFunc(out, func(r Recorded) bool { return !r.Start.Before(r.End) }), events, nil
}

// stateOf is when a recorder began or ended, by our clock.
func (c *Client) stateOf(e *onvif.Element) (at time.Time, on bool, err error) {
	at, err = onvif.Moment(onvif.Text(e, "Time"), c.zone)
	if err != nil {
		return at, false, &Error{Refused, "It says of its footage: " + err.Error() + "."}
	}
	data := onvif.Items(onvif.At(e, "Event/Message/Message/Data"))
	if len(data) == 0 {
		data = onvif.Items(onvif.At(e, "Event/Message/Data"))
	}
	for _, name := range []string{"IsRecording", "IsDataPresent"} {
		on = on || onvif.Truth(data[name])
	}
	return at.Add(-c.clock).UTC(), on, nil
}
