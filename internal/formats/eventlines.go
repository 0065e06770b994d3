package formats

import (
	"cmp"
	"errors"
	"fmt"
	"regexp"
	"slices"
	"strings"
	"time"

	"wakefield.example/core/activity"
	"wakefield.example/core/plan"
)

// A log may tell of several channels, and may have a line for the start of an event and
// another for its end. What a column means is taken from its heading and from the words in
// it, and asked where that is not certain.

// LogChannel is what a log says of one channel.
type LogChannel struct {
	Name     string         `json:"name"`
	Events   int            `json:"events"`
	PerDay   float64        `json:"perDay"`
	Activity *plan.Activity `json:"activity,omitempty" doc:"Of this channel alone; absent where there are very many channels"`
}

// LogKind is a text that stands in the column which tells what a line means.
type LogKind struct {
	Text  string `json:"text"`
	Lines int    `json:"lines"`
	As    LineAs `json:"as" enum:"start,stop,event,other"`
}

// LineAs is what a line of a log means.
type LineAs string

const (
	LineStart LineAs = "start" // an event begins
	LineStop  LineAs = "stop"  // the event that began last, of the same channel, ends
	LineEvent LineAs = "event" // an event by itself
	LineOther LineAs = "other" // nothing of interest
)

// What may have to be asked.
const (
	AskChannel = "channel" // several channels, and none was picked
	AskKind    = "kind"    // what the kinds of lines mean
)

const (
	mostKinds      = 200
	mostChannels   = 5000
	mostActivities = 64
)

var (
	channelHeading = regexp.MustCompile(`^(channel|camera|cam|source|device|input|zone|detector|sensor|ch)\b`)
	kindHeading    = regexp.MustCompile(`^(kind|type|event|what|state|status|action|message)\b`)
	stopWord       = regexp.MustCompile(`\b(stop|stops|stopped|end|ends|ended|off|clear|cleared|closed|inactive|released|restored|normal|over)\b`)
	startWord      = regexp.MustCompile(`\b(start|starts|started|begin|begins|began|on|set|open|opened|active|raised|triggered|detected|alarm)\b`)
)

// meaningOf is what a text says of its line, by its words.
func meaningOf(text string) LineAs {
	text = strings.ToLower(strings.NewReplacer("_", " ", "-", " ").Replace(text))
	switch {
	case stopWord.MatchString(text):
		return LineStop
	case startWord.MatchString(text):
		return LineStart
	}
	return LineOther
}

// stem is a text without the words that say start or stop: what starts and stops.
func stem(text string) string {
	text = strings.ToLower(strings.NewReplacer("_", " ", "-", " ").Replace(text))
	return strings.Join(strings.Fields(startWord.ReplaceAllString(stopWord.ReplaceAllString(text, ""), "")), " ")
}

// meanings finds the columns that tell the channel and the kind of a line, where they are
// not given. body are the first lines but for a heading.
func (l *Log) meanings(body []line, which *LogColumns, heading bool) {
	look := lookedAt{l, body[:min(len(body), 200)], heading}
	l.Channel, l.Kind = -1, -1
	if which != nil && which.Kind != Recognise {
		l.Kind = which.Kind
	} else if l.End < 0 {
		l.Kind = look.kind()
	}
	if which != nil && which.Channel != Recognise {
		l.Channel = which.Channel
	} else {
		l.Channel = look.channel()
	}
}

// lookedAt are the first lines of a log, by which its columns are recognised.
type lookedAt struct {
	*Log
	sample  []line
	heading bool
}

// texts are the texts of a column.
func (l lookedAt) texts(at int) map[string]bool {
	out := make(map[string]bool)
	for _, line := range l.sample {
		if text := strings.TrimSpace(line.cell(at)); text != "" {
			out[text] = true
		}
	}
	return out
}

// name is the heading of a column in small letters; empty where there are none.
func (l lookedAt) name(at int) string {
	if !l.heading {
		return ""
	}
	return strings.ToLower(strings.TrimSpace(l.Columns[at]))
}

// free tells whether a column has no meaning so far.
func (l lookedAt) free(at int) bool {
	return at != l.Start && at != l.End && at != l.Kind && at != l.Channel
}

// kind is the column that tells beginnings from ends: by its texts, else by its heading; −1 for none.
func (l lookedAt) kind() int {
	for at := range l.Columns {
		if !l.free(at) {
			continue
		}
		var starts, stops int
		for text := range l.texts(at) {
			switch meaningOf(text) {
			case LineStart:
				starts++
			case LineStop:
				stops++
			}
		}
		if stops > 0 && (starts > 0 || kindHeading.MatchString(l.name(at))) {
			return at
		}
	}
	for at := range l.Columns {
		if l.free(at) && kindHeading.MatchString(l.name(at)) {
			return at
		}
	}
	return -1
}

// channel is the column that tells where it happened: by its heading, else one without a telling heading whose few texts come
// again and again; −1 for none.
func (l lookedAt) channel() int {
	for at := range l.Columns {
		if l.free(at) && channelHeading.MatchString(l.name(at)) {
			return at
		}
	}
	for at := range l.Columns {
		if n := len(l.texts(at)); l.free(at) && n > 1 && 3*n <= len(l.sample) && !kindHeading.MatchString(l.name(at)) {
			return at
		}
	}
	return -1
}

// logged is a line of a log that tells of an event.
type logged struct {
	start   time.Time
	seconds float64 // -1 where it is not known
	channel int
	kind    int
}

// names numbers texts in the order in which they come.
type names struct {
	at   map[string]int
	list []string
}

func (n *names) of(text string, most int) (int, error) {
	text = strings.TrimSpace(text)
	if i, ok := n.at[text]; ok {
		return i, nil
	}
	if len(n.list) >= most {
		return 0, fmt.Errorf("more than %d different texts", most)
	}
	if n.at == nil {
		n.at = make(map[string]int)
	}
	n.at[text] = len(n.list)
	n.list = append(n.list, text)
	return len(n.list) - 1, nil
}

// kindsOf says what the kinds of lines mean: as they were said to, or by their words. Where
// none ends an event each line is one.
func (l *Log) kindsOf(kinds *names, lines []logged, said map[string]LineAs) []LineAs {
	count := make([]int, len(kinds.list))
	for _, e := range lines {
		count[e.kind]++
	}
	out := make([]LineAs, len(kinds.list))
	stops, starts, unclear := 0, 0, 0
	for i, text := range kinds.list {
		out[i] = meaningOf(text)
		switch out[i] {
		case LineStop:
			stops++
		case LineStart:
			starts++
		default:
			unclear++
		}
	}
	if stops == 0 || starts == 0 && unclear == 0 {
		for i := range out {
			out[i] = LineEvent
		}
	} else if starts == 0 && unclear == 1 {
		for i := range out { // "motion" and "motion off"
			if out[i] == LineOther {
				out[i], unclear = LineStart, 0
			}
		}
	}
	certain := len(kinds.list) == 1 || stops > 0 && unclear == 0
	for i, text := range kinds.list {
		if as, ok := said[text]; ok {
			out[i] = as
		}
		l.Kinds = append(l.Kinds, LogKind{text, count[i], out[i]})
	}
	slices.SortStableFunc(l.Kinds, func(a, b LogKind) int { return cmp.Compare(b.Lines, a.Lines) })
	if !certain && len(said) < len(kinds.list) {
		l.Asks = append(l.Asks, AskKind)
	}
	return out
}

// pair makes events of lines: those that are events, and each start with the stop that
// follows it on the same channel.
func (l *Log) pair(lines []logged, as []LineAs, kinds *names) []logged {
	if !slices.Contains(as, LineStop) && !slices.Contains(as, LineOther) {
		return lines
	}
	type thing struct {
		channel int
		stem    string
	}
	stems := make([]string, len(kinds.list))
	for i, text := range kinds.list {
		stems[i] = stem(text)
	}
	// Where the words of starts and stops have nothing in common, they are of one thing.
	common := make(map[string]int)
	for i := range as {
		if as[i] == LineStart {
			common[stems[i]] |= 1
		}
		if as[i] == LineStop {
			common[stems[i]] |= 2
		}
	}
	for i := range stems {
		if common[stems[i]] != 3 {
			stems[i] = ""
		}
	}
	open := make(map[thing]int) // into out
	out := make([]logged, 0, len(lines))
	for _, e := range lines {
		key := thing{e.channel, stems[e.kind]}
		switch as[e.kind] {
		case LineEvent:
			out = append(out, e)
		case LineStart:
			if _, already := open[key]; already {
				l.Unpaired++ // it goes on
				continue
			}
			open[key] = len(out)
			e.seconds = -1
			out = append(out, e)
		case LineStop:
			at, ok := open[key]
			if !ok {
				l.Unpaired++
				continue
			}
			delete(open, key)
			if s := e.start.Sub(out[at].start).Seconds(); s <= 7*86400 {
				out[at].seconds = s
				l.Paired++
			} else {
				l.Unpaired++
			}
		}
	}
	l.Unpaired += len(open)
	return out
}

// channelsOf counts the events of each channel, and makes an activity of each where there
// are several.
func (l *Log) channelsOf(events []logged, channels *names, pick string) ([]activity.Event, error) {
	count := make([]int, len(channels.list))
	for _, e := range events {
		count[e.channel]++
	}
	days := l.To.Sub(l.From).Hours() / 24
	for i, name := range channels.list {
		l.Channels = append(l.Channels, LogChannel{Name: name, Events: count[i], PerDay: float64(count[i]) / max(days, 1)})
	}
	of := func(channel int) []activity.Event {
		n := len(events)
		if channel >= 0 {
			n = count[channel]
		}
		out := make([]activity.Event, 0, n)
		for _, e := range events {
			if channel < 0 || e.channel == channel {
				out = append(out, activity.Event{Start: e.start, Seconds: e.seconds})
			}
		}
		return out
	}
	if len(channels.list) > 1 && len(channels.list) <= mostActivities {
		for i := range l.Channels {
			if a, err := l.activityOf(of(i)); err == nil {
				a.Name = l.Channels[i].Name
				l.Channels[i].Activity = a
			}
		}
	}
	slices.SortStableFunc(l.Channels, func(a, b LogChannel) int { return cmp.Compare(b.Events, a.Events) })
	if pick == "" {
		if len(channels.list) > 1 {
			l.Asks = append(l.Asks, AskChannel)
		}
		return of(-1), nil
	}
	at := slices.Index(channels.list, pick)
	if at < 0 {
		return nil, fmt.Errorf("the log says nothing of %q", pick)
	}
	l.Picked = pick
	return of(at), nil
}

// activityOf fits an activity to the events of one channel.
func (l *Log) activityOf(events []activity.Event) (*plan.Activity, error) {
	if len(events) == 0 {
		return nil, errors.New("no events")
	}
	f, err := activity.Fit(events, l.From, l.To)
	if err != nil {
		return nil, err
	}
	return activityFrom(f), nil
}

// count writes a number with the words for one or for several.
func count(n int, one, several string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, several)
}
