package plan

import (
	"math/rand/v2"
	"reflect"
	"strings"
	"testing"
)

// table is the whole channel table of a plan as an edit that sets it.
func table(p *Plan) *SetCells {
	e := &SetCells{}
	for _, c := range Columns {
		e.Columns = append(e.Columns, c.ID)
	}
	for i := range p.Channels {
		e.Rows = append(e.Rows, CellRow{p.Channels[i].ID, p.Cells(&p.Channels[i])})
	}
	return e
}

// TestTableGivesThePlanBack writes the table of a plan, spoils every setting, and
// sets the table again.
func TestTableGivesThePlanBack(t *testing.T) {
	p := example(t)
	p.Channels[1].Streams.Third = PlainStream(Third)
	written := table(p)
	if same, errors := written.set(p); errors != nil || !reflect.DeepEqual(same, p) {
		t.Errorf("setting a table to what it is changes the plan: %v", errors)
	}
	spoilt, err := p.Apply(Edit{SetCells: &SetCells{
		[]string{"name", "group", "number", "recorder", "main.codec", "main.size", "main.fps", "main.gop", "main.keyframe", "main.rate", "sub.rate", "third.codec", "audio", "pre", "post", "alarmPre", "alarmPost", "atLeast", "atMost", "quota", "activity", "nuisance", "detection"},
		[]CellRow{
			{"c1", strings.Split("A|G|7|Second recorder|MJPEG|64x48|3|9|1|77|model 2 busy|H.264|5|1|2|3|4||||trees|gate|off", "|")},
			{"c2", strings.Split("B|H|8|Second recorder|AV1|64x48|3|9|1|quality 2, still|99||5|1|2|3|4|1|2|3|trees|gate|off", "|")},
		}}})
	if err != nil {
		t.Fatal(err)
	}
	again, errors := written.set(spoilt)
	if errors != nil || !reflect.DeepEqual(again, p) {
		a, _ := again.Write()
		t.Errorf("%v\n%s", errors, a)
	}
}

func TestTryNamesBadCellsAndKeepsGoodRows(t *testing.T) {
	p := example(t)
	e := &SetCells{[]string{"name", "main.rate", "recorder"}, []CellRow{
		{"c1", []string{"Yard", "fast", "nowhere"}},
		{"", []string{"New", "800 to 4000 kbit/s", "second recorder"}},
		{"c8", []string{"x", "1", "r1"}},
	}}
	bad, good := e.Try(p)
	want := []CellError{
		{0, 2, `no recorder "nowhere"`},
		{0, 1, `"fast" is no bitrate; write 4096, 900–4200 for still and moving, or quality 3, moderate`},
		{2, -1, `no channel "c8"`},
	}
	if !reflect.DeepEqual(bad, want) {
		t.Errorf("%+v", bad)
	}
	next, err := p.Apply(Edit{SetCells: good})
	if err != nil || len(good.Rows) != 1 {
		t.Fatalf("%v, %+v", err, good)
	}
	if c := next.Channel("new"); c.Recorder != "r2" || c.Pool != "p2" || c.Streams.Main.Rate != (Rate{Kind: "variable", IdleKbps: 800, ActiveKbps: 4000, Known: "guess"}) {
		t.Errorf("%+v", c)
	}
	if _, nothing := (&SetCells{[]string{"main.fps"}, []CellRow{{"c1", []string{"x"}}}}).Try(p); nothing != nil {
		t.Errorf("rows are left of which there are none: %+v", nothing)
	}
}

func TestNamesThatMoreThanOneHaveAreWrittenAsIDs(t *testing.T) {
	p := example(t)
	p.Activities[1].Name = "Gate Contact"
	column := ColumnOf("activity")
	c := *p.Channel("c2")
	if got := column.get(p, &c); got != "gate" {
		t.Errorf("an activity whose name another has is written %q", got)
	}
	if err := column.set(p, &c, "gate contact"); err == nil || err.Error() != `more than one activity is called "gate contact"; write the id, trees or gate` {
		t.Errorf("%v", err)
	}
	if choices := column.Choices(p); len(choices) != 3 || choices[0] != "Yard traffic" {
		t.Errorf("%q", choices)
	}
}

func TestDepartures(t *testing.T) {
	p := example(t)
	if got := p.Departures(p.Channel("c1")); !reflect.DeepEqual(got, []string{"main.fps"}) {
		t.Errorf("%q", got)
	}
	if got := p.Departures(p.Channel("c2")); got != nil {
		t.Errorf("a channel of no kind departs in %q", got)
	}
}

func TestOpening(t *testing.T) {
	o := Opening{Name: "Little pier", TimeZone: "Atlantic/Faroe", Recorder: "Recorder", Channels: 8, IngestMbps: 80, Drives: 2, Terabytes: 4, Layout: "raid1",
		Cameras: 6, Codec: "h265", Width: 2560, Height: 1440, FPS: 12, Activity: "quay", Duty: "low", KeepDays: 30}
	p, err := o.Plan()
	if err != nil {
		t.Fatal(err)
	}
	written, err := p.Write()
	if err != nil {
		t.Fatal(err)
	}
	if _, err := Read(written); err != nil {
		t.Error(err)
	}
	empty := 0
	for i := range p.Channels {
		if p.Channels[i].NoCamera {
			empty++
		}
	}
	if len(p.Channels) != 8 || empty != 2 || len(p.Duties) != 7 || p.Channels[5].Streams.Main.FPS != 12 {
		t.Errorf("%s", written)
	}
	for want, spoil := range map[string]func(*Opening){
		"cameras: 9 cameras on a recorder of 8 channels": func(o *Opening) { o.Cameras = 9 },
		"name: empty":                      func(o *Opening) { o.Name = "" },
		"drives: 0 is below 1":             func(o *Opening) { o.Drives = 0 },
		"site.timeZone: no time zone":      func(o *Opening) { o.TimeZone = "Mars/Olympus" },
		`duty: no ready-made duty "nap"`:   func(o *Opening) { o.Duty = "nap" },
		`activity: no activity template "`: func(o *Opening) { o.Activity = "shop" },
	} {
		bad := o
		spoil(&bad)
		if _, err := bad.Plan(); err == nil || !strings.HasPrefix(err.Error(), want) {
			t.Errorf("%v, want %s", err, want)
		}
	}
}

func TestReadyMadeDutiesAndTemplatesMakeAPlan(t *testing.T) {
	p := example(t)
	for _, d := range ReadyMade() {
		d.ID = "ready-" + d.ID
		p.Duties = append(p.Duties, d)
	}
	p.Activities = append(p.Activities, ActivityTemplates()[0])
	for _, a := range ActivityTemplates()[1:] {
		a.ID = "template-" + a.ID
		p.Activities = append(p.Activities, a)
	}
	if err := p.Check(); err != nil {
		t.Error(err)
	}
	for _, a := range ActivityTemplates() {
		if a.Known != "guess" || a.Process().PerDay() <= 0 {
			t.Errorf("%s is known as %s, %v a day", a.Name, a.Known, a.Process().PerDay())
		}
	}
}

// FuzzCells sets a cell to any text: what is set is a plan, and what it then shows
// sets the same again.
func FuzzCells(f *testing.F) {
	for _, text := range []string{"", "H.265", "12,5", "1920x1080", "900–4200", "quality 3, busy", "quality 2, still, adaptive, at most 4000, ×1.6 all days 20:00-06:00", "900-4200, x1,5 Mon-Fri 20-6", "none", "own", "Yard", "1e308", "-3", "'=1"} {
		f.Add(uint8(rand.IntN(len(Columns))), text)
		for i := range Columns {
			f.Add(uint8(i), text)
		}
	}
	f.Fuzz(func(t *testing.T, at uint8, text string) {
		p := example(t)
		column := &Columns[int(at)%len(Columns)]
		e := Edit{SetCells: &SetCells{[]string{column.ID}, []CellRow{{"c2", []string{text}}}}}
		next, err := p.Apply(e)
		if err != nil {
			return
		}
		shown := column.get(next, next.Channel("c2"))
		again, err := next.Apply(Edit{SetCells: &SetCells{[]string{column.ID}, []CellRow{{"c2", []string{shown}}}}})
		if err != nil || !reflect.DeepEqual(again, next) {
			t.Errorf("%s: %q shows as %q, which is not the same: %v", column.ID, text, shown, err)
		}
	})
}
