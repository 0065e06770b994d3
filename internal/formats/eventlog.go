package formats

import (
	"bytes"
	"cmp"
	"context"
	"errors"
	"fmt"
	"iter"
	"math"
	"slices"
	"strconv"
	"strings"
	"time"

	"wakefield.example/core/activity"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// Log is what an event log says, before anything is made of it.
type Log struct {
	Columns []string   `json:"columns" doc:"Headings, or the cells of the first line"`
	Start   int        `json:"start" doc:"Column of the starts, from 0"`
	End     int        `json:"end" doc:"Column of the ends or lengths; -1 where there is none"`
	Lengths bool       `json:"lengths" doc:"Whether that column has lengths in seconds rather than ends"`
	Channel int        `json:"channel" doc:"Column that tells whose event it is; -1 where there is none"`
	Kind    int        `json:"kind" doc:"Column that tells what a line means; -1 where each line is an event"`
	Layout  string     `json:"layout" doc:"How times are written"`
	Zone    string     `json:"zone" doc:"Time zone of times that name none"`
	Sample  []LogEvent `json:"sample" doc:"The first events as they were understood"`
	From    time.Time  `json:"from" doc:"Start of the first day with an event"`
	To      time.Time  `json:"to" doc:"End of the last day with an event"`
	Bad     []BadCell  `json:"bad" doc:"The first lines that were left out"`
	LeftOut int        `json:"leftOut" doc:"How many lines were left out"`
	Notes   []string   `json:"notes"`

	Channels []LogChannel `json:"channels" doc:"Whose events there are; empty where no column tells"`
	Picked   string       `json:"picked,omitempty" doc:"The channel whose events these are, of several"`
	Kinds    []LogKind    `json:"kinds" doc:"What lines mean; empty where each is an event"`
	Paired   int          `json:"paired" doc:"Events made of a line that starts and a line that stops"`
	Unpaired int          `json:"unpaired" doc:"Lines that start or stop what has no other end"`
	Asks     []string     `json:"asks" enum:"channel,kind" doc:"What is not certain and has to be said before anything of it counts as measured"`

	Events       int           `json:"events"`
	PerDay       float64       `json:"perDay"`
	Weeks        float64       `json:"weeks" doc:"Weeks observed"`
	RatePercent  float64       `json:"ratePercent" doc:"Standard error of the rate, in percent of it"`
	MeanPercent  float64       `json:"meanPercent" doc:"Standard error of the mean length, in percent of it"`
	GroupPercent float64       `json:"groupPercent" doc:"Standard error of the size of groups, in percent of it; 0 where events come by themselves"`
	Pattern      string        `json:"pattern" doc:"Which hours of the week were assumed to be alike"`
	Activity     plan.Activity `json:"activity" doc:"What the log says, as an activity of the plan"`
}

// LogEvent is one event as it was understood.
type LogEvent struct {
	Channel string    `json:"channel,omitempty"`
	Start   time.Time `json:"start"`
	Seconds float64   `json:"seconds" doc:"-1 where it is not known"`
}

// stamp is a way of writing times.
type stamp struct{ name, layout string }

// Ways of writing times, the clearest first. Go reads a fraction of a second after
// any of them.
var stamps = []stamp{
	{"2026-11-23T14:05:00+01:00", time.RFC3339},
	{"2026-11-23 14:05:00+01:00", "2006-01-02 15:04:05Z07:00"},
	{"2026-11-23 14:05:00 +0100", "2006-01-02 15:04:05 -0700"},
	{"2026-11-23T14:05:00", "2006-01-02T15:04:05"},
	{"2026-11-23 14:05:00", "2006-01-02 15:04:05"},
	{"2026-11-23 14:05", "2006-01-02 15:04"},
	{"2026/11/23 14:05:00", "2006/01/02 15:04:05"},
	{"23.11.2026 14:05:00", "2.1.2006 15:04:05"},
	{"23.11.2026 14:05", "2.1.2006 15:04"},
	{"23/11/2026 14:05:00", "2/1/2006 15:04:05"},
	{"23/11/2026 14:05", "2/1/2006 15:04"},
	{"11/23/2026 14:05:00", "1/2/2006 15:04:05"},
	{"11/23/2026 14:05", "1/2/2006 15:04"},
	{"11/23/2026 2:05:00 PM", "1/2/2006 3:04:05 PM"},
	{"23-11-2026 14:05:00", "2-1-2006 15:04:05"},
	{"20261123T140500", "20060102T150405"},
}

const unixSeconds = "unix"

func (s stamp) parse(text string, zone *time.Location) (time.Time, error) {
	if s.layout == unixSeconds {
		f, err := strconv.ParseFloat(text, 64)
		if err != nil || f < 1e8 || f > 1e13 {
			return time.Time{}, errors.New("no time")
		}
		if f > 1e11 {
			f /= 1000
		}
		return time.UnixMilli(int64(f * 1000)).In(zone), nil
	}
	t, err := time.ParseInLocation(s.layout, strings.TrimSpace(text), zone)
	if err == nil && (t.Year() < 1990 || t.Year() > 2100) {
		err = errors.New("no such year")
	}
	return t.In(zone), err
}

// Recognise stands in [LogColumns] for a column that is to be recognised.
const Recognise = -2

// LogColumns says what the columns of a log mean where that is not to be recognised: Start and
// End together, -1 for no End; Channel and Kind each, -1 for none.
type LogColumns struct {
	Start, End, Channel, Kind int

	Pick string            // whose events are wanted, of several channels
	As   map[string]LineAs // what kinds of lines mean
}

// LogPeriod is when a log was kept: whole days, the last one included. Zero dates are
// those of the first and of the last event.
type LogPeriod struct{ From, To week.Date }

// ReadLog reads a log of event starts and ends, CSV or XLSX, and fits an activity to
// it. Times that name no time zone are those of zone; on the night on which clocks go
// back, the hour that comes twice is taken to be the first. The error says why no
// events can be read.
func ReadLog(ctx context.Context, data []byte, zone *time.Location, which *LogColumns, kept LogPeriod) (*Log, error) {
	each, encoding, err := logBudget.open(ctx, data)
	if err != nil {
		return nil, err
	}
	lines, err := first(each, 201)
	if err != nil {
		return nil, err
	}
	if len(lines) == 0 {
		return nil, errors.New("the file is empty")
	}
	l, err := newLog(lines, encoding, zone, which)
	if err != nil {
		return nil, err
	}
	layout, heading, err := l.recognise(lines, zone)
	if err != nil {
		return nil, err
	}
	l.Layout = layout.name
	body := lines
	if heading {
		body = lines[1:]
	}
	l.meanings(body, which, heading)
	var channels, kinds names
	read, err := l.events(each, min(bytes.Count(data, []byte("\n"))+1, logBudget.lines), heading, layout, zone, &channels, &kinds)
	if err != nil {
		return nil, err
	}
	return l, l.tell(ctx, read, zone, which, kept, &channels, &kinds)
}

// newLog begins a log with its columns, and with what is said of them.
func newLog(lines []line, encoding string, zone *time.Location, which *LogColumns) (*Log, error) {
	l := &Log{End: -1, Start: -1, Zone: zone.String(), Bad: []BadCell{}, Notes: []string{}, Sample: []LogEvent{}, Channels: []LogChannel{},
		Kinds: []LogKind{}, Asks: []string{}}
	if encoding != "" && encoding != inUTF8 {
		l.Notes = append(l.Notes, "The file was read as "+encoding+".")
	}
	width := 0
	for _, line := range lines[:min(len(lines), 50)] {
		width = max(width, len(line.cells))
	}
	for i := range width {
		l.Columns = append(l.Columns, lines[0].cell(i))
	}
	if which != nil {
		if max(which.Start, which.End, which.Channel, which.Kind) >= width {
			return nil, fmt.Errorf("the file has %d columns", width)
		}
		if which.Start >= 0 {
			l.Start, l.End = which.Start, which.End
		}
	}
	return l, nil
}

// tell makes of the lines that were read what the log says, and fits an activity to it.
func (l *Log) tell(ctx context.Context, read []logged, zone *time.Location, which *LogColumns, kept LogPeriod,
	channels, kinds *names) error {
	var said map[string]LineAs
	var pick string
	if which != nil {
		said, pick = which.As, which.Pick
	}
	if l.Kind >= 0 {
		read = l.pair(read, l.kindsOf(kinds, read, said), kinds)
	}
	if len(read) == 0 {
		return errors.New("no line of it tells when an event began")
	}
	l.span(read, zone, kept)
	for _, e := range read[:min(len(read), 8)] {
		l.Sample = append(l.Sample, LogEvent{channels.list[e.channel], e.start, e.seconds})
	}
	events, err := l.channelsOf(read, channels, pick)
	if err != nil {
		return err
	}
	if l.Channel < 0 {
		l.Channels = []LogChannel{}
	}
	if err := ctx.Err(); err != nil {
		return err
	}
	return l.fit(events)
}

// first returns the first lines of a file.
func first(each iter.Seq2[line, error], n int) ([]line, error) {
	var lines []line
	for l, err := range each {
		if err != nil {
			return nil, err
		}
		if lines = append(lines, l); len(lines) == n {
			break
		}
	}
	return lines, nil
}

// recognise finds the way times are written, and the columns where they are not
// given: the first in which most cells are times holds the starts, the next the
// ends; failing that, one of lengths does. lines are the first of the file, which may
// be a heading.
func (l *Log) recognise(lines []line, zone *time.Location) (_ stamp, heading bool, _ error) {
	sample := lines[:min(len(lines), 200)]
	share := func(at int, s stamp) int {
		n := 0
		for _, line := range sample {
			if _, err := s.parse(line.cell(at), zone); err == nil {
				n++
			}
		}
		return n
	}
	columns := []int{l.Start}
	given := l.Start >= 0
	if !given {
		columns = columns[:0]
		for i := range l.Columns {
			columns = append(columns, i)
		}
	}
	best, most := stamp{}, 0
	for _, at := range columns {
		found := 0
		for _, s := range append(slices.Clone(stamps), stamp{"seconds or milliseconds since 1970", unixSeconds}) {
			if n := share(at, s); n > found {
				found = n
				if n > most && (at == l.Start || 5*n > 6*most) { // a bad line or two make no start of an end
					best, most, l.Start = s, n, at
				}
			}
		}
	}
	if most == 0 || most < (len(sample)-1)/2 {
		return best, false, fmt.Errorf("no column has times; they are written %s or the like", stamps[4].name)
	}
	body := lines
	if _, err := best.parse(lines[0].cell(l.Start), zone); err != nil {
		body, heading = lines[1:], true
	}
	if strings.Contains(best.layout, "2/1/2006") && share(l.Start, stamp{"", strings.Replace(best.layout, "2/1/", "1/2/", 1)}) == most {
		l.Notes = append(l.Notes, "Day and month could be the other way round; they were read as day/month.")
	}
	if !given {
		l.ends(body, best, zone)
	}
	if l.End >= 0 {
		times := 0
		for _, line := range body[:min(len(body), 200)] {
			if _, err := best.parse(line.cell(l.End), zone); err == nil {
				times++
			}
		}
		l.Lengths = times == 0
	}
	return best, heading, nil
}

// ends finds the column that tells when events end, or how long they are.
func (l *Log) ends(body []line, s stamp, zone *time.Location) {
	sample := body[:min(len(body), 200)]
	for i := range l.Columns {
		n := 0
		for _, line := range sample {
			if _, err := s.parse(line.cell(i), zone); err == nil {
				n++
			}
		}
		if i != l.Start && 2*n > len(sample) {
			l.End = i
			return
		}
	}
	for i, heading := range l.Columns {
		name := strings.ToLower(heading)
		for _, word := range []string{"duration", "length", "seconds", "lasted"} {
			if i != l.Start && strings.Contains(name, word) {
				l.End = i
				return
			}
		}
	}
}

// length reads a length in seconds, or as 00:01:30.
func length(text string) (float64, error) {
	text = strings.TrimSpace(strings.TrimSuffix(strings.TrimSpace(text), "s"))
	total := 0.0
	for _, part := range strings.Split(text, ":") {
		f, err := strconv.ParseFloat(strings.Replace(part, ",", ".", 1), 64)
		if err != nil || f < 0 || f > 1e7 {
			return 0, fmt.Errorf("%q is no length in seconds", text)
		}
		total = total*60 + f
	}
	return total, nil
}

// events reads the events of all lines, of which there are so many at most, but for a heading.
func (l *Log) events(each iter.Seq2[line, error], most int, heading bool, s stamp, zone *time.Location, channels,
	kinds *names) ([]logged, error) {
	events := make([]logged, 0, most) // a list that grows takes three times what it holds
	bad := func(line line, at int, reason string) {
		l.LeftOut++
		if len(l.Bad) < 20 {
			l.Bad = append(l.Bad, BadCell{line.at, l.Columns[at], line.cell(at), reason})
		}
	}
	for line, err := range each {
		if err != nil {
			return nil, err
		}
		if heading || strings.TrimSpace(strings.Join(line.cells, "")) == "" {
			heading = false
			continue
		}
		start, err := s.parse(line.cell(l.Start), zone)
		if err != nil {
			bad(line, l.Start, "not a time written "+s.name)
			continue
		}
		e := logged{start: start, seconds: -1}
		if e.channel, err = channels.of(line.cell(l.Channel), mostChannels); err != nil {
			return nil, fmt.Errorf("the column %q tells no channel: %w in it", l.Columns[l.Channel], err)
		}
		if e.kind, err = kinds.of(line.cell(l.Kind), mostKinds); err != nil {
			return nil, fmt.Errorf("the column %q does not tell what a line means: %w in it", l.Columns[l.Kind], err)
		}
		if text := strings.TrimSpace(line.cell(l.End)); l.End >= 0 && text != "" {
			if l.Lengths {
				e.seconds, err = length(text)
			} else {
				var end time.Time
				if end, err = s.parse(text, zone); err == nil {
					e.seconds = end.Sub(start).Seconds()
				} else {
					err = errors.New("not a time written " + s.name)
				}
			}
			if err == nil && e.seconds < 0 {
				err = errors.New("it ends before it begins")
			}
			if err == nil && e.seconds > 7*86400 {
				err = errors.New("it lasts more than a week")
			}
			if err != nil {
				bad(line, l.End, err.Error())
				continue
			}
		}
		events = append(events, e)
	}
	slices.SortStableFunc(events, func(a, b logged) int { return cmp.Compare(a.start.UnixNano(), b.start.UnixNano()) })
	return events, nil
}

// span finds when the log was kept: whole days, from the first with an event to the last,
// unless it is said.
func (l *Log) span(events []logged, zone *time.Location, kept LogPeriod) {
	midnight := func(t time.Time, days int) time.Time {
		y, m, d := t.In(zone).Date()
		return time.Date(y, m, d+days, 0, 0, 0, 0, zone)
	}
	l.From, l.To = midnight(events[0].start, 0), midnight(events[len(events)-1].start, 1)
	if kept.From != (week.Date{}) {
		l.From = kept.From.At(0, zone)
	}
	if kept.To != (week.Date{}) {
		l.To = midnight(kept.To.At(0, zone), 1)
	}
}

// activityFrom is a fit as an activity of the plan.
func activityFrom(f *activity.Fitted) *plan.Activity {
	a := &plan.Activity{ID: "log", Name: "From a log", Known: "measured", MeanSeconds: max(0.1, f.MeanSeconds)}
	if f.Lengths == 0 {
		a.MeanSeconds = 15
	}
	a.SetRates(f.Rate)
	if g := f.Group; g != nil {
		a.Groups = &plan.Groups{Size: math.Round(g.Size*10) / 10, WithinSeconds: math.Round(g.Seconds)}
	}
	return a
}

// fit makes an activity of the events.
func (l *Log) fit(events []activity.Event) error {
	f, err := activity.Fit(events, l.From, l.To)
	if err != nil {
		return err
	}
	l.Events, l.Weeks, l.Pattern, l.RatePercent, l.MeanPercent = f.Events, f.Weeks, string(f.Pattern), f.RatePercent, f.MeanPercent
	l.Activity = *activityFrom(f)
	if len(l.Asks) > 0 {
		l.Activity.Known = "guess" // what was not understood is not measured
	}
	l.PerDay = l.Activity.Process().PerDay()
	if g := f.Group; g != nil {
		l.GroupPercent = g.SizePercent
		l.Notes = append(l.Notes, fmt.Sprintf("Events come in groups: about %v at a time within %v s; the size is known to ±%.0f %%.",
			l.Activity.Groups.Size, l.Activity.Groups.WithinSeconds, g.SizePercent))
	}
	if l.Paired > 0 || l.Unpaired > 0 {
		l.Notes = append(l.Notes, fmt.Sprintf("%s of a line that starts and a line that stops; %s without the other.",
			count(l.Paired, "event is made", "events are made"), count(l.Unpaired, "line is", "lines are")))
	}
	if f.Lengths == 0 {
		l.Notes = append(l.Notes, "The log does not say how long events last; 15 s is a guess, and yours to correct.")
	} else if f.MeanSeconds < 0.1 {
		l.Notes = append(l.Notes, "All events have no length; 0.1 s is the shortest there can be.")
	}
	switch {
	case f.Unseen == 1:
		l.Notes = append(l.Notes, "1 hour of the week is not covered by the log; it was assumed to be like the same hour of other days.")
	case f.Unseen > 1:
		l.Notes = append(l.Notes,
			fmt.Sprintf("%d hours of the week are not covered by the log; they were assumed to be like the same hours of other days.", f.Unseen))
	}
	if f.Weeks < 2 {
		l.Notes = append(l.Notes, "Less than two weeks were observed: one unusual day weighs much.")
	}
	if f.RatePercent > 15 {
		l.Notes = append(l.Notes, fmt.Sprintf("From %s the rate is known to ±%.0f %% only.", plan.Count(f.Events, "event"), f.RatePercent))
	}
	return nil
}
