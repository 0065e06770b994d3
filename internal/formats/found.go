package formats

import (
	"bytes"
	"cmp"
	"context"
	"errors"
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"

	"wakefield.example/core/activity"
	"wakefield.example/core/measured"
	"wakefield.example/core/plan"
	"wakefield.example/core/quantity"
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

// oldestIn takes a line apart that says how far footage goes back: whose, and the date; nil where it does not.
func oldestIn(text string) []string {
	if m := saidOldest.FindStringSubmatch(text); m != nil {
		return m
	}
	return pairOldest.FindStringSubmatch(text)
}

// datesBehind tells whether the first line says a date.
func datesBehind(lines []line) bool {
	m := oldestIn(strings.Join(lines[0].cells, ", "))
	_, err := readSpoken(m[2], week.Date{Year: 2026, Month: 12, Day: 31})
	return err == nil
}

// manyTimes tells whether most lines have a moment with seconds or minutes in a cell of its own, as logs have.
func manyTimes(lines []line) bool {
	n := 0
	for _, l := range lines {
		for i := range l.cells {
			if slices.ContainsFunc(stamps, func(s stamp) bool { _, err := s.parse(l.cell(i), time.UTC); return err == nil }) {
				n++
				break
			}
		}
	}
	return 2*n >= len(lines)
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

// whose are the columns that say which channel a line is about, and nothing of how it is set.
var whose = []string{"number", "name", "group", "recorder", "pool", "camera", "kind", "address"}

// settings reads a channel table as a recorder has it.
func (r *foundReader) settings(ctx context.Context, data []byte) error {
	lines, _, err := tableBudget.all(ctx, data)
	if err != nil {
		return err
	}
	t := &Table{}
	places, idAt := t.heading(lines[0])
	if len(t.Ignored) > 0 {
		r.Notes = append(r.Notes, "Columns that are no settings of a channel: "+strings.Join(t.Ignored, ", ")+".")
	}
	met := meet(r.plan, lines[1:], places, nil)
	find := newFinder(r.plan, idAt, places)
	for _, l := range lines[1:] {
		if strings.TrimSpace(strings.Join(l.cells, "")) == "" {
			continue
		}
		c := find.of(l, met)
		if c == nil {
			c = r.plan.Channel(channelOf(r.plan, r.nameIn(l, places)))
		}
		if c == nil {
			r.bad(l, "", "no channel of the plan", strings.Join(l.cells, " "))
			continue
		}
		k, differs := r.channel(c.Name), 0
		r.Channels[k].Channel = c.ID
		for _, p := range places {
			text := strings.TrimSpace(l.cell(p.at))
			if slices.Contains(whose, p.column.ID) || text == "" {
				continue
			}
			r.Data.Settings = append(r.Data.Settings, measured.Setting{Channel: c.ID, Column: p.column.ID, Text: text})
			if !strings.EqualFold(text, p.column.Text(r.plan, c)) {
				differs++
			}
		}
		r.Channels[k].Says = plan.Count(differs, "setting") + " otherwise than planned"
	}
	if len(r.Data.Settings) == 0 {
		return errors.New("no line of it says how a channel of the plan is set")
	}
	return nil
}

// nameIn is the name that a line gives its channel.
func (r *foundReader) nameIn(l line, places []place) string {
	for _, p := range places {
		if p.column.ID == "name" {
			return l.cell(p.at)
		}
	}
	return ""
}

// oldest reads how far footage goes back: a table with a heading, or a sentence a line.
func (r *foundReader) oldest(ctx context.Context, data []byte) error {
	lines, _, err := tableBudget.all(ctx, data)
	if err != nil {
		return err
	}
	date, who, back := -1, -1, -1
	for i := range lines[0].cells {
		switch text := strings.ToLower(lines[0].cell(i)); {
		case oldestHeading.MatchString(text) && len(lines) > 1 && !saidOldest.MatchString(text):
			back = i
		case channelHeading.MatchString(text) && !numbered.MatchString(text):
			who = i
		case strings.Contains(text, "date") || strings.Contains(text, "looked") || text == "on":
			date = i
		}
	}
	if back >= 0 && who >= 0 {
		for _, l := range lines[1:] {
			on := ""
			if date >= 0 {
				on = l.cell(date)
			}
			r.oldestLine(l, l.cell(who), l.cell(back), on)
		}
		return r.anyOldest()
	}
	for _, l := range lines {
		text := strings.Join(strings.Fields(strings.Join(l.cells, ", ")), " ")
		if strings.TrimSpace(text) == "" {
			continue
		}
		m := oldestIn(text)
		if m == nil {
			r.bad(l, "", `neither a table with "channel" and "oldest", nor "channel 3 goes back to 12 Oct"`, text)
			continue
		}
		r.oldestLine(l, strings.Trim(m[1], " ,;:"), m[2], "")
	}
	return r.anyOldest()
}

func (r *foundReader) anyOldest() error {
	if len(r.Channels) == 0 && len(r.Bad) > 0 {
		return fmt.Errorf("line %d: %s", r.Bad[0].Line, r.Bad[0].Reason)
	}
	return nil
}

func (r *foundReader) oldestLine(l line, who, back, on string) {
	if strings.TrimSpace(who+back) == "" {
		return
	}
	looked := r.ask.On.In(r.ask.Zone)
	if on = strings.TrimSpace(on); on != "" {
		d, err := readSpoken(on, dateOf(looked))
		if err != nil {
			r.bad(l, "date", err.Error(), on)
			return
		}
		if !d.timed {
			d.clock = 12 * 60
		}
		looked = d.date.At(d.clock, r.ask.Zone)
	}
	d, err := readSpoken(back, dateOf(looked))
	if err != nil {
		r.bad(l, "oldest", err.Error(), back)
		return
	}
	within := 1.0 / 24
	if !d.timed {
		d.clock, within = 12*60, 1
	}
	oldest := d.date.At(d.clock, r.ask.Zone)
	if !oldest.Before(looked) {
		r.bad(l, "oldest", "it is not before "+looked.Format("2 January 2006 15:04"), back)
		return
	}
	k := r.channel(who)
	c := &r.Channels[k]
	c.Says = fmt.Sprintf("back to %s, %.1f days before %s", oldest.Format("2 January 2006"), looked.Sub(oldest).Hours()/24,
		looked.Format("2 January 2006"))
	r.span(d.date, dateOf(looked))
	if c.Channel != "" {
		r.Data.Oldest = append(r.Data.Oldest, measured.Oldest{Channel: c.Channel, On: looked, Oldest: oldest, Within: within})
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

// rates reads measured bitrates: a time, a channel, kbit/s.
func (r *foundReader) rates(ctx context.Context, data []byte, lines []line) error {
	l, heading, err := r.columns(lines)
	if err != nil {
		return err
	}
	at, unit := -1, 1.0
	for i := range lines[0].cells {
		if text := lines[0].cell(i); ratesHeading.MatchString(text) && i != l.Start && i != l.Channel {
			at = i
			if strings.Contains(strings.ToLower(text), "mb") {
				unit = 1000
			}
		}
	}
	if at < 0 {
		return errors.New("no column has bitrates: its heading says kbps or Mbit/s")
	}
	layout := stampOf(l.Layout)
	return r.eachLine(ctx, data, heading, func(line line) {
		moment, err := layout.parse(line.cell(l.Start), r.ask.Zone)
		if err != nil {
			r.bad(line, l.Columns[l.Start], "not a time written "+layout.name, line.cell(l.Start))
			return
		}
		kbps, err := quantity.Read(line.cell(at), "kbit/s")
		if err != nil || kbps < 0 || kbps*unit > 1e6 {
			r.bad(line, l.Columns[at], "not a bitrate", line.cell(at))
			return
		}
		k := r.channel(line.cell(l.Channel))
		r.span(dateOf(moment.In(r.ask.Zone)), dateOf(moment.In(r.ask.Zone)))
		if id := r.Channels[k].Channel; id != "" {
			r.rate(id).AddRates(moment, kbps*unit, r.ask.Zone)
		}
		r.Channels[k].Says = plan.Count(r.rows[k], "hour")
	})
}

// rate is the list of a channel's bitrates.
func (r *foundReader) rate(id string) *measured.Rates {
	k := slices.IndexFunc(r.Data.Rates, func(m measured.Rates) bool { return m.Channel == id })
	if k < 0 {
		k = len(r.Data.Rates)
		r.Data.Rates = append(r.Data.Rates, measured.Rates{Channel: id})
	}
	return &r.Data.Rates[k]
}

// columns finds the columns of a table of times.
func (r *foundReader) columns(lines []line) (*Log, bool, error) {
	l, err := newLog(lines, "", r.ask.Zone, nil)
	if err != nil {
		return nil, false, err
	}
	layout, heading, err := l.recognise(lines, r.ask.Zone)
	if err != nil {
		return nil, false, err
	}
	l.Layout, r.Layout = layout.name, layout.name
	body := lines
	if heading {
		body = lines[1:]
	}
	l.meanings(body, nil, heading)
	if l.Channel < 0 {
		l.Channel = r.channelColumn(l, body)
	}
	if l.Channel < 0 {
		r.Notes = append(r.Notes, "No column tells of which channel this is: say whose it is.")
	}
	r.Notes = append(r.Notes, l.Notes...)
	return l, heading, nil
}

// channelColumn is a column most of whose texts are channels of the plan, whatever it is called; -1 for none.
func (r *foundReader) channelColumn(l *Log, body []line) int {
	sample := body[:min(len(body), 200)]
	for at := range l.Columns {
		if at == l.Start || at == l.End || at == l.Kind || ratesHeading.MatchString(l.Columns[at]) {
			continue
		}
		known := 0
		for _, line := range sample {
			if channelOf(r.plan, line.cell(at)) != "" {
				known++
			}
		}
		if 5*known >= 4*len(sample) {
			return at
		}
	}
	return -1
}

func stampOf(name string) stamp {
	for _, s := range stamps {
		if s.name == name {
			return s
		}
	}
	return stamp{"seconds or milliseconds since 1970", unixSeconds}
}

// eachLine calls f with every line but the heading and empty ones.
func (r *foundReader) eachLine(ctx context.Context, data []byte, heading bool, f func(line)) error {
	each, _, err := logBudget.open(ctx, data)
	if err != nil {
		return err
	}
	for l, err := range each {
		if err != nil {
			return err
		}
		if heading || strings.TrimSpace(strings.Join(l.cells, "")) == "" {
			heading = false
			continue
		}
		f(l)
	}
	return nil
}

// log reads events of several channels.
func (r *foundReader) log(ctx context.Context, data []byte, lines []line) error {
	l, heading, err := r.columns(lines)
	if err != nil {
		return err
	}
	each, _, err := logBudget.open(ctx, data)
	if err != nil {
		return err
	}
	var channels, kinds names
	read, err := l.events(each, min(bytes.Count(data, []byte("\n"))+1, logBudget.lines), heading, stampOf(l.Layout), r.ask.Zone, &channels,
		&kinds)
	if err != nil {
		return err
	}
	if l.Kind >= 0 {
		read = l.pair(read, l.kindsOf(&kinds, read, r.ask.Kinds), &kinds)
	}
	r.Kinds, r.Asks, r.Unpaired = append(r.Kinds, l.Kinds...), append(r.Asks, l.Asks...), l.Unpaired
	r.Bad, r.LeftOut = append(r.Bad, l.Bad...), l.LeftOut
	if len(read) == 0 {
		return errors.New("no line of it tells when an event began")
	}
	return r.digest(ctx, read, &channels)
}

// digest adds events up by channel. Lines that stand there twice count once.
func (r *foundReader) digest(ctx context.Context, read []logged, channels *names) error {
	from := dateOf(read[0].start.In(r.ask.Zone))
	to := dateOf(read[len(read)-1].start.In(r.ask.Zone))
	days := to.Since(from) + 1
	if days > 800 {
		return fmt.Errorf("the log reaches from %v to %v; logs of up to 800 days are compared", from, to)
	}
	r.span(from, to)
	by := make([][]activity.Event, len(channels.list))
	for _, e := range read {
		list := by[e.channel]
		if n := len(list); n > 0 && list[n-1].Start.Equal(e.start) && list[n-1].Seconds == e.seconds {
			r.Twice++
			continue
		}
		by[e.channel] = append(list, activity.Event{Start: e.start, Seconds: e.seconds})
	}
	counts := make(map[string][]activity.Event)
	for k, text := range channels.list {
		at := r.channel(text)
		c := &r.Channels[at]
		c.Says = fmt.Sprintf("%s, %.3g a day", plan.Count(len(by[k]), "event"), float64(len(by[k]))/float64(days))
		if c.Channel != "" {
			counts[c.Channel] = append(counts[c.Channel], by[k]...)
		}
	}
	kind := measured.Triggers
	if r.As == FoundRecordings {
		kind = measured.Recordings
	}
	for i := range r.plan.Channels {
		events := counts[r.plan.Channels[i].ID]
		if events == nil {
			continue
		}
		if ctx.Err() != nil {
			return ctx.Err()
		}
		slices.SortStableFunc(events, func(a, b activity.Event) int { return a.Start.Compare(b.Start) })
		r.Data.Logs = append(r.Data.Logs, measured.Digest(r.plan.Channels[i].ID, kind, events, from, days, r.ask.Zone))
	}
	slices.SortStableFunc(r.Channels, func(a, b FoundChannel) int { return cmp.Compare(b2i(a.Channel != ""), b2i(b.Channel != "")) })
	return nil
}

func b2i(b bool) int {
	if b {
		return 1
	}
	return 0
}
