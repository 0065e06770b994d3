package formats

import (
	"context"
	"errors"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"

	"wakefield.example/core/measured"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// What a file may tell of what was found at a site.
const (
	FoundTriggers   = "triggers"
	FoundRecordings = "recordings"
	FoundRates      = "rates"
	FoundOldest     = "oldest"
	FoundSettings   = "settings"
)

// Found is what a file tells of what was found at a site, before it counts.
type Found struct {
	As       string         `json:"as" enum:"triggers,recordings,rates,oldest,settings"`
	Columns  []string       `json:"columns" doc:"Headings, or the cells of the first line"`
	Layout   string         `json:"layout,omitempty" doc:"How times are written"`
	Zone     string         `json:"zone" doc:"Time zone of times that name none"`
	Channels []FoundChannel `json:"channels" doc:"Of whom it tells, as it calls them"`
	Kinds    []LogKind      `json:"kinds" doc:"What lines mean; empty where each is an event"`
	Asks     []string       `json:"asks" enum:"kind" doc:"What is not certain and has to be said first"`
	From     *week.Date     `json:"from,omitempty" doc:"First date"`
	To       *week.Date     `json:"to,omitempty" doc:"Last date"`
	Twice    int            `json:"twice" doc:"Lines that stand there twice, and count once"`
	Unpaired int            `json:"unpaired" doc:"Lines that start or stop what has no other end"`
	Bad      []BadCell      `json:"bad" doc:"The first lines that were left out"`
	LeftOut  int            `json:"leftOut"`
	Notes    []string       `json:"notes"`

	Data measured.Data `json:"-"`
}

// FoundChannel is one that a file tells of.
type FoundChannel struct {
	Text    string `json:"text" doc:"As the file calls it"`
	Channel string `json:"channel" doc:"Id of the channel that it is taken for; empty for none, and it is left out"`
	Says    string `json:"says" doc:"What there is of it"`
}

// FoundAsk says how a file is to be read. Its zero value recognises everything.
type FoundAsk struct {
	As       string            // empty to recognise it
	Zone     *time.Location    // of times that name none
	Channels map[string]string // whom its texts mean, by id; empty for nobody
	Kinds    map[string]LineAs
	On       time.Time // when the oldest footage was looked for, where a line does not say it
}

// ReadFound reads what was found at a site: a log of triggers or of recordings, measured bitrates, oldest footage, or a channel
// table as a recorder has it. The error says why nothing can be read.
func ReadFound(ctx context.Context, data []byte, p *plan.Plan, ask FoundAsk) (*Found, error) {
	f := &Found{As: ask.As, Zone: ask.Zone.String(), Bad: []BadCell{}, Notes: []string{}, Channels: []FoundChannel{}, Kinds: []LogKind{},
		Asks: []string{}, Columns: []string{}}
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
	if encoding != "" && encoding != inUTF8 {
		f.Notes = append(f.Notes, "The file was read as "+encoding+".")
	}
	if f.As == "" {
		f.As = f.recognise(lines)
	}
	for i := range lines[0].cells {
		f.Columns = append(f.Columns, lines[0].cell(i))
	}
	r := &foundReader{Found: f, plan: p, ask: ask, who: make(map[string]int), rows: make(map[int]int)}
	switch f.As {
	case FoundSettings:
		err = r.settings(ctx, data)
	case FoundOldest:
		err = r.oldest(ctx, data)
	case FoundRates:
		err = r.rates(ctx, data, lines)
	default:
		err = r.log(ctx, data, lines)
	}
	if err != nil {
		return nil, err
	}
	return f, nil
}

var (
	ratesHeading  = regexp.MustCompile(`(?i)\b(kbps|kbit|mbps|mbit|bitrate|bit rate|bandwidth)`)
	oldestHeading = regexp.MustCompile(`(?i)\b(oldest|earliest|goes back|since|first footage)\b`)
	saidOldest    = regexp.MustCompile(`(?i)^\s*(.+?)[\s:;,]*(?:\bis\b|\bgoes\b|\bgo\b)?\s*(?:\bback to\b|\bsince\b|\boldest\b(?: is| from)?|\bfrom\b)\s*(.+?)\s*\.?\s*$`)
	pairOldest    = regexp.MustCompile(`^\s*(.+?)\s*[:;,\t]\s*(.+?)\s*$`)
	recordedWord  = regexp.MustCompile(`(?i)record`)
	settingsTitle = []string{"pre", "post", "mainRate", "week", "detection", "atMost", "activity"}
)

// recognise tells what a file is by its first lines.
func (f *Found) recognise(lines []line) string {
	head := strings.Join(lines[0].cells, " | ")
	known := 0
	for i := range lines[0].cells {
		if c := columnOf(lines[0].cell(i)); c != nil && (c.Numeric || slices.Contains(settingsTitle, c.ID) || c.ID == "name") {
			known++
		}
	}
	switch {
	case known >= 2 && !ratesHeading.MatchString(head) && !oldestHeading.MatchString(head):
		return FoundSettings
	case oldestHeading.MatchString(head), len(lines) <= 200 && oldestIn(strings.Join(lines[0].cells, ", ")) != nil &&
		!manyTimes(lines) && datesBehind(lines):
		return FoundOldest
	case ratesHeading.MatchString(head):
		return FoundRates
	case recordedWord.MatchString(head), len(lines) > 1 && recordedWord.MatchString(strings.Join(lines[1].cells, " ")):
		return FoundRecordings
	}
	return FoundTriggers
}

// foundReader reads one file.
type foundReader struct {
	*Found
	plan *plan.Plan
	ask  FoundAsk
	who  map[string]int // texts of channels, as indices of Found.Channels
	rows map[int]int    // how many lines there are of each
}

var numbered = regexp.MustCompile(`(?i)^(?:channel|camera|cam|ch|input|d|c)?[ .#_-]*0*(\d+)$`)

// channelOf finds whom a text means: by id, name, or number on the only recorder.
func channelOf(p *plan.Plan, text string) string {
	text = strings.TrimSpace(text)
	for i := range p.Channels {
		if c := &p.Channels[i]; c.ID == text || strings.EqualFold(c.Name, text) {
			return c.ID
		}
	}
	m := numbered.FindStringSubmatch(text)
	if m == nil {
		return ""
	}
	n, _ := strconv.Atoi(m[1])
	id := ""
	for i := range p.Channels {
		if c := &p.Channels[i]; c.Number == n {
			if id != "" {
				return "" // of two recorders
			}
			id = c.ID
		}
	}
	return id
}

// channel is the place of a channel by its text.
func (r *foundReader) channel(text string) int {
	text = strings.TrimSpace(text)
	k, ok := r.who[text]
	if !ok {
		k = len(r.Channels)
		r.who[text] = k
		id, said := r.ask.Channels[text]
		if !said || id != "" && r.plan.Channel(id) == nil {
			id = channelOf(r.plan, text)
		}
		r.Channels = append(r.Channels, FoundChannel{Text: text, Channel: id})
	}
	r.rows[k]++
	return k
}

func (r *foundReader) bad(l line, column, reason string, cell string) {
	r.LeftOut++
	if len(r.Bad) < 20 {
		r.Bad = append(r.Bad, BadCell{l.at, column, cell, reason})
	}
}

func dateOf(t time.Time) (d week.Date) {
	d.Year, d.Month, d.Day = t.Date()
	return d
}

// span lets the file reach from one date to another.
func (r *foundReader) span(from, to week.Date) {
	if r.From == nil || from.Before(*r.From) {
		r.From = &from
	}
	if r.To == nil || r.To.Before(to) {
		r.To = &to
	}
}
