package standin

import (
	"cmp"
	"encoding/base64"
	"encoding/json"
	"fmt"
	"math"
	"reflect"
	"slices"

	"wakefield.example/core/estimate"
	"wakefield.example/core/handover"
	"wakefield.example/core/plan"
	"wakefield.example/core/readout"
	"wakefield.example/core/resolve"
	"wakefield.example/core/week"
	"wakefield.example/internal/formats"
	"wakefield.example/internal/onvif"
)

// State is what a stand-in is set to.
type State struct {
	Channels   []*Channel        `json:"channels"`
	Inputs     []Input           `json:"inputs"`
	Outputs    []Output          `json:"outputs"`
	Recordings []Recording       `json:"recordings"`
	Jobs       []onvif.Job       `json:"jobs"`
	Schedules  []onvif.Timetable `json:"schedules"`
	Groups     []onvif.DayGroup  `json:"groups"` // of special days
	Made       int               `json:"made"`   // how many tokens were made
}

// Channel is a video source with its encoders and its detection.
type Channel struct {
	Source      string          `json:"source"`
	Name        string          `json:"name"`
	Encoders    []onvif.Encoder `json:"encoders"`
	Analytics   bool            `json:"analytics"`
	Rules       []Rule          `json:"rules"`
	Sensitivity int             `json:"sensitivity"` // of its motion engine, percent
	Columns     int             `json:"columns"`     // of its grid; 0 for polygons
	Rows        int             `json:"rows"`
	Presets     []string        `json:"presets"`
	Idle        []float64       `json:"idle"`   // kbit/s of its encoders
	Active      []float64       `json:"active"` // while something moves
}

// Rule is a rule of detection.
type Rule struct {
	Name, Type  string
	MinCount    string
	OnDelay     string // ms
	OffDelay    string // ms
	Cells       string
	Points      [][2]float64
	Sensitivity string
}

// Input is a contact.
type Input struct{ Token, Idle string }

// Output is a relay.
type Output struct{ Token, Mode, Delay, Idle string }

// Recording is where footage of a channel is kept.
type Recording struct {
	Token, Source, Name, Location, Description, Address, Content, AtMost string
	Days                                                                 float64 // after which it is overwritten
}

func (s *State) bytes() ([]byte, error) { return json.MarshalIndent(s, "", " ") }

func readState(data []byte) (*State, error) {
	s := new(State)
	if err := json.Unmarshal(data, s); err != nil {
		return nil, fmt.Errorf("the stand-in's state: %w", err)
	}
	return s, nil
}

func (s *State) clone() State {
	data, err := s.bytes()
	if err != nil {
		panic(err) // it is of plain values
	}
	c, err := readState(data)
	if err != nil {
		panic(err)
	}
	return *c
}

// stateOf is a recorder set as the plan has it.
func stateOf(p *plan.Plan, recorder string, grid, media1 bool, special week.Date) *State {
	s := &State{Channels: []*Channel{}}
	r := *p.Recorder(recorder)
	q := *p
	q.Recorders = append([]plan.Recorder{}, p.Recorders...)
	if grid {
		if r.Takes == nil {
			r.Takes = &plan.Takes{}
		}
		t := *r.Takes
		t.Areas, t.GridColumns, t.GridRows = "grid", 22, 18
		r.Takes = &t
		*q.Recorder(recorder) = r
	}
	result := estimate.Figures(&q, nil)
	entered := handover.Enter(&q, result).Plan
	days := make(map[string]float64)
	for _, c := range result.Channels {
		days[c.ID] = plan.Or(c.RetentionDays, 30)
	}
	for n := 1; n <= r.Channels; n++ {
		c := &Channel{Source: fmt.Sprintf("VS%d", n)}
		s.Channels = append(s.Channels, c)
		for i := range entered.Channels {
			if planned := &entered.Channels[i]; planned.Recorder == recorder && planned.Number == n && !planned.NoCamera {
				s.describe(c, entered, planned, grid, media1, days[planned.ID], special)
			}
		}
	}
	for i, in := range p.AlarmInputs {
		if in.Recorder == recorder {
			idle := "open"
			if in.Contact == "normallyClosed" {
				idle = "closed"
			}
			s.Inputs = append(s.Inputs, Input{fmt.Sprintf("IN%d", i+1), idle})
		}
	}
	for i, out := range p.Outputs {
		if out.Recorder == recorder {
			s.Outputs = append(s.Outputs, Output{fmt.Sprintf("OUT%d", i+1), "Monostable", onvif.Seconds(out.HoldSeconds), "open"})
		}
	}
	return s
}

// describe sets a channel as the plan has it.
func (s *State) describe(c *Channel, p *plan.Plan, planned *plan.Channel, grid, media1 bool, days float64,
	special week.Date) {
	c.Name = planned.Name
	n := c.Source[2:]
	for _, which := range []plan.StreamName{plan.Main, plan.Sub, plan.Third} {
		if st := planned.Streams.Get(which); st != nil {
			s.encoder(c, st, "VE"+n+"_"+string(which), media1)
		}
	}
	if m := planned.Movable; m != nil {
		for _, preset := range m.Presets {
			c.Presets = append(c.Presets, preset.Name)
		}
	}
	c.Analytics, c.Sensitivity = true, 50
	if grid {
		c.Columns, c.Rows = 22, 18
	}
	c.detect(&planned.Detection)
	atMost := "P0D"
	if planned.Keep.AtMostDays > 0 {
		atMost = onvif.Seconds(math.Round(planned.Keep.AtMostDays * 86400))
	}
	rec := Recording{Token: "REC" + n, Source: c.Source, Name: planned.Name, Location: "-", Description: "-", Address: planned.Address,
		Content: "-", AtMost: atMost, Days: days}
	s.Recordings = append(s.Recordings, rec)
	for k, l := range readout.LayersOf(p, planned, true, special) {
		j := onvif.Job{Token: fmt.Sprintf("JOB%s_%d", n, k+1), Recording: rec.Token, Active: true, Priority: 1,
			Profile: "P" + n + "_" + string(l.Stream)}
		if l.Hours != nil || len(l.OnDates) > 0 {
			j.Schedule = s.schedule(&l)
		}
		if len(l.On) > 0 {
			j.Priority = 2 // of what is written at once the event
			j.Filter = &onvif.Filter{Before: plan.Or(l.PreSeconds, -1), After: plan.Or(l.PostSeconds, -1)}
			j.Filter.Heard = s.heard(p, planned, l.On, grid)
		}
		s.Jobs = append(s.Jobs, j)
	}
}

// heard is whose events record a channel of the plan.
func (s *State) heard(p *plan.Plan, planned *plan.Channel, on []plan.Trigger, grid bool) (out []onvif.Heard) {
	topic := onvif.TopicRegionMotion
	if grid {
		topic = onvif.TopicCellMotion
	}
	motion := func(id string) {
		if c := p.Channel(id); c != nil && c.Recorder == planned.Recorder {
			out = append(out, onvif.Heard{Topic: topic, Source: map[string]string{"VideoSourceConfigurationToken": fmt.Sprint("VSC", c.Number)}})
		}
	}
	if slices.Contains(on, plan.Motion) && planned.Detection.TiedToSelf() {
		motion(planned.ID)
	}
	for _, e := range p.Effects {
		if !slices.Contains(e.Record, planned.ID) {
			continue
		}
		if slices.Contains(on, plan.Motion) && e.When.Motion != "" && e.When.Motion != planned.ID {
			motion(e.When.Motion)
		}
		if at := input(p, planned.Recorder, e.When.Alarm); slices.Contains(on, plan.Alarm) && at != "" {
			out = append(out, onvif.Heard{Topic: onvif.TopicInput, Source: map[string]string{"InputToken": at}})
		}
	}
	return out
}

// input is the token of an alarm input of a recorder; empty where it is not there.
func input(p *plan.Plan, recorder, id string) string {
	for i, in := range p.AlarmInputs {
		if in.Recorder == recorder && in.ID == id {
			return fmt.Sprintf("IN%d", i+1)
		}
	}
	return ""
}

// schedule is the token of a schedule of a layer's hours: one that is there, or a new one.
func (s *State) schedule(l *readout.Layer) string {
	hours := l.Hours
	if hours == nil {
		hours = []plan.Hours{{To: week.Clock(week.Day)}}
	}
	next := onvif.Timetable{Standard: formats.WriteSchedule(hours, "Week"), Description: cmp.Or(plan.HoursInWords(hours), "on special days")}
	for _, o := range l.OnDates {
		var ranges []onvif.MinuteSpan
		for _, b := range o.Hours {
			ranges = append(ranges, onvif.MinuteSpan{From: int(b.From), Until: int(b.To)})
		}
		for dates := range slices.Chunk(o.Dates, mostDates) {
			next.SpecialDays = append(next.SpecialDays, onvif.SpecialDays{Group: s.group(o.Name, dates), Ranges: ranges})
		}
	}
	for _, known := range s.Schedules {
		if known.Standard == next.Standard && reflect.DeepEqual(known.SpecialDays, next.SpecialDays) {
			return known.Token
		}
	}
	next.Token = s.make("SCH")
	next.Name = "Week " + next.Token
	s.Schedules = append(s.Schedules, next)
	return next.Token
}

// group is the token of a group of special days: one that is there, or a new one.
func (s *State) group(name string, dates []week.Date) string {
	days := formats.WriteDates(dates, name)
	for _, known := range s.Groups {
		if known.Name == name && known.Days == days {
			return known.Token
		}
	}
	g := onvif.DayGroup{Token: s.make("SDG"), Name: name, Description: plan.Count(len(dates), "day"), Days: days}
	s.Groups = append(s.Groups, g)
	return g.Token
}

// make makes a token.
func (s *State) make(kind string) string {
	s.Made++
	return fmt.Sprintf("%s%d", kind, s.Made)
}

// encoder adds one that is set as the plan's stream.
func (s *State) encoder(c *Channel, st *plan.Stream, token string, media1 bool) {
	cost := resolve.Encoded(st).Cost()
	e := onvif.Encoder{Token: token, Name: token, Encoding: "H264", Width: st.Width, Height: st.Height, FPS: st.FPS, Quality: 3,
		Gov: max(1, int(math.Round(st.GOPSeconds*st.FPS)))}
	if st.Codec != "h264" && !media1 {
		e.Encoding = "H265"
	}
	switch r := &st.Rate; {
	case r.Kind == "constant":
		e.Constant, e.Kbps = true, int(math.Round(r.Kbps))
	case r.MaxKbps > 0:
		e.Kbps = int(math.Round(r.MaxKbps))
	default:
		e.Kbps = int(math.Ceil(float64(cost.Active)*1.5/256) * 256)
	}
	c.Encoders = append(c.Encoders, e)
	c.Idle, c.Active = append(c.Idle, float64(cost.Idle)), append(c.Active, float64(cost.Active))
}

// detect sets rules as the plan's detection.
func (c *Channel) detect(d *plan.Detection) {
	if !d.On {
		return
	}
	delay := fmt.Sprint(int(math.Round(d.MinSeconds * 1000)))
	var cells []byte
	for _, a := range d.List() {
		if a.Ignore {
			continue
		}
		if a.SensitivityPercent != nil {
			c.Sensitivity = max(0, int(math.Round(*a.SensitivityPercent)))
		}
		if c.Columns > 0 {
			if bits, err := base64.StdEncoding.DecodeString(a.Cells.On); err == nil {
				cells = or(cells, bits)
			}
			continue
		}
		points := make([][2]float64, len(a.Points))
		for k, p := range a.Points {
			points[k] = p
		}
		if len(points) > 0 {
			c.Rules = append(c.Rules, Rule{Name: a.Name, Type: "MotionRegionDetector", Points: points, Sensitivity: fmt.Sprint(c.Sensitivity)})
		}
	}
	switch {
	case c.Columns > 0:
		if cells == nil {
			cells = make([]byte, (c.Columns*c.Rows+7)/8)
			for k := range c.Columns * c.Rows {
				cells[k/8] |= 0x80 >> (k % 8)
			}
		}
		c.Rules = append(c.Rules, Rule{Name: "Motion", Type: "CellMotionDetector", MinCount: "5", OnDelay: delay, OffDelay: "1000",
			Cells: onvif.ActiveCells(cells)})
	case len(c.Rules) == 0:
		c.Rules = append(c.Rules, Rule{Name: "Picture", Type: "MotionRegionDetector", Points: [][2]float64{{0, 0}, {1, 0}, {1, 1}, {0, 1}},
			Sensitivity: "50"})
	}
}

func or(a, b []byte) []byte {
	if a == nil {
		return append([]byte{}, b...)
	}
	for k := range min(len(a), len(b)) {
		a[k] |= b[k]
	}
	return a
}
