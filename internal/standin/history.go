package standin

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"time"

	"wakefield.example/core/week"
	"wakefield.example/internal/onvif"
)

// search is a search whose results are fetched in parts.
type search struct {
	left []onvif.Notice
	of   string // recording
}

// mostSearches at once.
const mostSearches = 20

func init() {
	answers(false, map[string]operation{"tse:FindEvents": findEvents, "tse:GetEventSearchResults": eventResults})
}

// findEvents finds when a recording began and ended.
func findEvents(q *asked) (*onvif.Element, *onvif.Fault) {
	from, err := onvif.Moment(onvif.Text(q.in, "StartPoint"), time.UTC)
	to, errTo := onvif.Moment(onvif.Text(q.in, "EndPoint"), time.UTC)
	if err != nil || errTo != nil {
		return nil, invalid("InvalidSearch", "There is no such time")
	}
	token := onvif.Text(q.in, "Scope/IncludedRecordings")
	for k := range q.state.Recordings {
		r := &q.state.Recordings[k]
		if r.Token != token {
			continue
		}
		if len(q.searches) >= mostSearches {
			clear(q.searches)
		}
		q.searched++
		id := fmt.Sprint("SEARCH", q.searched+1)
		s := &search{of: token}
		for _, at := range q.history(r, from.Add(-q.ahead()), to.Add(-q.ahead())) {
			for i, moment := range at {
				s.left = append(s.left, onvif.Notice{Topic: "tns1:RecordingHistory/Recording/State", At: moment.Add(q.ahead()), Operation: "Changed",
					Source: map[string]string{"RecordingToken": token}, Data: map[string]string{"IsRecording": fmt.Sprint(i == 0)}})
			}
		}
		q.searches[id] = s
		return E("tse:FindEventsResponse", E("tse:SearchToken", id)), nil
	}
	return nil, invalid("InvalidToken", "There is no such recording")
}

func eventResults(q *asked) (*onvif.Element, *onvif.Fault) {
	s := q.searches[onvif.Text(q.in, "SearchToken")]
	if s == nil {
		return nil, invalid("InvalidToken", "There is no such search")
	}
	n := len(s.left)
	if most := onvif.Whole(q.in, "MaxResults"); most > 0 {
		n = min(n, most)
	}
	list := E("tse:ResultList")
	state := "Completed"
	if n < len(s.left) {
		state = "Searching"
	}
	list.AddChild(E("tt:SearchState", state))
	for _, notice := range s.left[:n] {
		message := notice.Element()
		message.Space, message.Tag = "tt", "Event"
		list.AddChild(E("tt:Result", E("tt:RecordingToken", s.of), E("tt:TrackToken", ""),
			E("tt:Time", notice.At.UTC().Format("2006-01-02T15:04:05Z")),
			message, E("tt:StartStateEvent", "false")))
	}
	s.left = s.left[n:]
	return E("tse:GetEventSearchResultsResponse", list), nil
}

// history is when a recording was written, from one moment to another, as far back as there is footage: always where a job writes all
// day, else around events that came as often as the plan's activity says. It is the same whenever it is asked for.
func (d *Device) history(r *Recording, from, to time.Time) (out [][2]time.Time) {
	first, last := r.reach()
	if from.Before(first) {
		from = first
	}
	if to.After(last) {
		to = last
	}
	at := slices.IndexFunc(d.state.Channels, func(c *Channel) bool { return c.Source == r.Source })
	if at < 0 || !from.Before(to) {
		return nil
	}
	before, after, ever := 0.0, 0.0, false
	for _, j := range d.state.Jobs {
		switch {
		case j.Recording != r.Token || !j.Active:
		case j.Filter == nil:
			return [][2]time.Time{{from, to}}
		default:
			ever, before, after = true, max(before, j.Filter.Before), max(after, j.Filter.After)
		}
	}
	s := d.scenes[at]
	if !ever || s.rates == nil {
		return nil
	}
	for hour := from.Truncate(time.Hour); hour.Before(to); hour = hour.Add(time.Hour) {
		draw := rand.New(rand.NewPCG(d.o.Seed+uint64(at), uint64(hour.Unix())))
		local := hour.In(s.zone)
		minute := week.Minute((int(local.Weekday())+6)%7)*week.Day + week.Minute(local.Hour()*60)
		var begins []float64
		for t := draw.ExpFloat64(); t < s.rates.At(minute); t += draw.ExpFloat64() {
			begins = append(begins, 3600*t/s.rates.At(minute))
		}
		for _, begin := range begins {
			a := hour.Add(seconds(begin - before))
			b := a.Add(seconds(before + draw.ExpFloat64()*s.mean + after))
			if n := len(out); n > 0 && !a.After(out[n-1][1]) {
				if b.After(out[n-1][1]) {
					out[n-1][1] = b
				}
				continue
			}
			if a.After(from) && b.Before(to) {
				out = append(out, [2]time.Time{a, b})
			}
		}
	}
	return out
}

func seconds(s float64) time.Duration { return time.Duration(math.Round(s)) * time.Second }
