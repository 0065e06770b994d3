package table

import (
	"reflect"
	"strings"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/seeded"
)

// table is the whole channel table of a plan as an edit that sets it.
func written(p *plan.Plan) *Cells {
	e := &Cells{}
	for _, c := range Columns {
		e.Columns = append(e.Columns, c.ID)
	}
	for i := range p.Channels {
		e.Rows = append(e.Rows, CellRow{p.Channels[i].ID, Texts(p, &p.Channels[i])})
	}
	return e
}

// TestTableGivesThePlanBack writes the table of a plan, spoils every setting, and
// sets the table again.
func TestTableGivesThePlanBack(t *testing.T) {
	p := plantest.Whole(t)
	p.Channels[1].Streams.Third = plan.PlainStream(plan.Third)
	p.Channels[1].Detection.Hours.Blocks[0].Days = nil // an empty list of days says no more
	all := written(p)
	if same, errors := all.Set(p); errors != nil || !reflect.DeepEqual(same, p) {
		t.Errorf("setting a table to what it is changes the plan: %v", errors)
	}
	spoilt, bad := (&Cells{
		[]string{"name", "group", "number", "recorder", "main.codec", "main.size", "main.fps", "main.gop", "main.keyframe", "main.rate",
			"sub.rate", "third.codec", "audio", "pre", "post", "alarmPre", "alarmPost", "atLeast", "atMost", "quota", "activity", "nuisance",
			"detection", "detectedBy", "detectionHours", "shortest", "reliable", "catch"},
		[]CellRow{
			{"c1",
				strings.Split("A|G|7|Second recorder|MJPEG|64x48|3|9|1|77|model 2 busy|H.264|5|1|2|3|4||||trees|gate|off|recorder|Mon 08:00-09:00|3|80|20", "|")},
			{"c2", strings.Split("B|H|8|Second recorder|AV1|64x48|3|9|1|quality 2, still|99||5|1|2|3|4|1|2|3|trees|gate|off|Camera||0,5|72.25|",
				"|")},
		}}).Set(p)
	if bad != nil {
		t.Fatal(bad)
	}
	if c, d := spoilt.Channel("c1").Detection, spoilt.Channel("c2").Detection; c.By != "recorder" || len(c.Hours.Blocks) != 1 ||
		c.MinSeconds != 3 || *c.Reliability != 0.8 || *c.Catch != 0.2 ||
		d.By != "camera" || d.Hours != nil || d.MinSeconds != 0.5 || *d.Reliability != 0.7225 || d.Catch != nil {
		t.Errorf("%+v\n%+v", c, d)
	}
	again, errors := all.Set(spoilt)
	if errors != nil || !reflect.DeepEqual(again, p) {
		a, _ := again.Write()
		t.Errorf("%v\n%s", errors, a)
	}
}

func TestTryNamesBadCellsAndKeepsGoodRows(t *testing.T) {
	p := plantest.Whole(t)
	e := &Cells{[]string{"name", "main.rate", "recorder"}, []CellRow{
		{"c1", []string{"Yard", "fast", "nowhere"}},
		{"", []string{"New", "800 to 4000 kbit/s", "second recorder"}},
		{"c8", []string{"x", "1", "r1"}},
	}}
	bad, good := e.Try(p)
	want := []CellError{
		{0, 2, `no recorder "nowhere"`},
		{0, 1, `"fast" is no bitrate; write 4096, 900–4200 for idle and moving, or quality 3, moderate`},
		{2, -1, `no channel "c8"`},
	}
	if !reflect.DeepEqual(bad, want) {
		t.Errorf("%+v", bad)
	}
	next, bad := good.Set(p)
	if bad != nil || len(good.Rows) != 1 {
		t.Fatalf("%v, %+v", bad, good)
	}
	if c := next.Channel("new"); c.Recorder != "r2" || c.Pool != "p2" ||
		c.Streams.Main.Rate != (plan.Rate{Kind: "variable", IdleKbps: 800, ActiveKbps: 4000, Known: "guess"}) {
		t.Errorf("%+v", c)
	}
	if _, nothing := (&Cells{[]string{"main.fps"}, []CellRow{{"c1", []string{"x"}}}}).Try(p); nothing != nil {
		t.Errorf("rows are left of which there are none: %+v", nothing)
	}
}

func TestNamesThatMoreThanOneHaveAreWrittenAsIDs(t *testing.T) {
	p := plantest.Whole(t)
	p.Activities[1].Name = "Gate Contact"
	column := ColumnOf("activity")
	c := *p.Channel("c2")
	if got := column.Text(p, &c); got != "gate" {
		t.Errorf("an activity whose name another has is written %q", got)
	}
	if err := column.set(p, &c, "gate contact"); err == nil ||
		err.Error() != `more than one activity is called "gate contact"; write the id, trees or gate` {
		t.Errorf("%v", err)
	}
	if choices := column.Choices(p); len(choices) != 3 || choices[0] != "Yard traffic" {
		t.Errorf("%q", choices)
	}
}

func TestDepartures(t *testing.T) {
	p := plantest.Whole(t)
	if got := Departures(p, p.Channel("c1")); !reflect.DeepEqual(got, []string{"main.fps"}) {
		t.Errorf("%q", got)
	}
	if got := Departures(p, p.Channel("c2")); got != nil {
		t.Errorf("a channel of no kind departs in %q", got)
	}
}

// FuzzCells sets a cell to any text: what is set is a plan, and what it then shows
// sets the same again.
func FuzzCells(fuzz *testing.F) {
	f := seeded.Of(fuzz, 2000)
	for _, text := range []string{"", "H.265", "12,5", "1920x1080", "900–4200", "quality 3, busy",
		"quality 2, still, adaptive, at most 4000, ×1.6 all days 20:00-06:00", "900-4200, x1,5 Mon-Fri 20-6", "none", "own", "Yard",
		"1e308", "-3", "'=1"} {
		f.Add(uint8(len(text)), text)
		for i := range Columns {
			f.Add(uint8(i), text)
		}
	}
	f.Fuzz(func(t *testing.T, at uint8, text string) {
		p := plantest.Whole(t)
		column := &Columns[int(at)%len(Columns)]
		set := func(p *plan.Plan, text string) (*plan.Plan, []CellError) {
			return (&Cells{[]string{column.ID}, []CellRow{{"c2", []string{text}}}}).Set(p)
		}
		next, bad := set(p, text)
		if bad != nil || next.Check() != nil {
			return
		}
		shown := column.Text(next, next.Channel("c2"))
		again, bad := set(next, shown)
		if bad != nil || !reflect.DeepEqual(again, next) {
			t.Errorf("%s: %q shows as %q, which is not the same: %v", column.ID, text, shown, bad)
		}
	})
}

// TestACameraComesAndGoes says of channels whether they have a camera, in every way people do.
func TestACameraComesAndGoes(t *testing.T) {
	p := plantest.Whole(t)
	column := ColumnOf("camera")
	for _, text := range []string{"none", "no", "0"} {
		c := *p.Channel("c1")
		if err := column.set(p, &c, text); err != nil || !c.NoCamera || column.Text(p, &c) != "none" {
			t.Errorf("%q: %v, shown as %q", text, err, column.Text(p, &c))
		}
		c.Streams = plan.Streams{}
		for _, text := range []string{"yes", "Y", "1", "TRUE"} {
			again := c
			if err := column.set(p, &again, text); err != nil || again.NoCamera || again.Streams.Main == nil || column.Text(p, &again) != "yes" {
				t.Errorf("%q: %v, main stream %v", text, err, again.Streams.Main)
			}
		}
	}
}

// TestNightsStandInTheCell writes the night of every kind of bitrate that has one.
func TestNightsStandInTheCell(t *testing.T) {
	p := plantest.Whole(t)
	night := &plan.Night{Hours: plan.HourList{Blocks: []plan.Hours{{From: 1200, To: 360}}}, Factor: 1.6}
	for _, rate := range []plan.Rate{
		{Kind: "variable", IdleKbps: 900, ActiveKbps: 4200, Known: "guess", Night: night},
		{Kind: "modelled", Quality: 3, Scene: "busy", Night: night},
	} {
		c := *p.Channel("c1")
		main := *c.Streams.Main
		main.Rate = rate
		c.Streams.Main = &main
		text := ColumnOf("main.rate").Text(p, &c)
		if !strings.Contains(text, "×1.6 all days 20:00-06:00") {
			t.Errorf("%s: %q", rate.Kind, text)
		}
	}
}

// TestAModelledRateIsAsked turns a bitrate that was read into one of the model, and leaves one of the model.
func TestAModelledRateIsAsked(t *testing.T) {
	p := plantest.Whole(t)
	c := *p.Channel("c1")
	main := *c.Streams.Main
	c.Streams.Main = &main
	if err := ColumnOf("main.known").set(p, &c, "model"); err != nil {
		t.Error(err)
	}
	if got := c.Streams.Main.Rate; got.Kind != "modelled" || got.Quality != 3 || got.Scene != "moderate" || got.IdleKbps != 0 {
		t.Errorf("%+v", got)
	}
	c.Streams.Main.Rate = plan.Rate{Kind: "modelled", Quality: 5, Scene: "busy"}
	if err := ColumnOf("main.known").set(p, &c, "model"); err != nil || c.Streams.Main.Rate.Quality != 5 {
		t.Errorf("%v, %+v", err, c.Streams.Main.Rate)
	}
}
