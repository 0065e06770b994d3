package formats

import (
	"context"
	"strings"
	"testing"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/internal/demo"
)

const ofAnotherSite = "No.;Name;Group;Recorder;Camera kind;Main stream Frames (/s);Activity;Nuisance;Week\r\n" +
	"1;North gate;Gates;Hut;Dome 4;12;Gate traffic;Gulls;Gate week\r\n" +
	"2;South gate;Gates;Hut;Dome 4;12;Gate traffic;;Gate week\r\n"

// TestNamesOfAnotherSite reads a table in which nothing is known, leaves all of it, and makes or maps all of it.
func TestNamesOfAnotherSite(t *testing.T) {
	p := demo.BrackenhallCiderWorks()
	read := func(names ...Name) *Table {
		t.Helper()
		got, err := ReadTable(context.Background(), []byte(ofAnotherSite), p, names...)
		if err != nil {
			t.Fatal(err)
		}
		return got
	}
	got := read()
	var sorts []string
	for _, u := range got.Unknown {
		sorts = append(sorts, u.Sort+" "+u.Text)
	}
	if want := "group Gates, recorder Hut, kind Dome 4, activity Gate traffic, activity Gulls, week Gate week"; strings.Join(sorts,
		", ") != want {
		t.Errorf("%s, want %s", strings.Join(sorts, ", "), want)
	}
	if got.Unknown[2].Lines != 2 || len(got.Names) != 5 || got.Edit != nil || len(got.Bad) == 0 {
		t.Errorf("%+v", got)
	}

	// All of it left out: two channels as usual, with names, groups and frames.
	got = read(Name{"group", "Gates", "leave", ""}, Name{"recorder", "Hut", "leave", ""}, Name{"kind", "Dome 4", "leave", ""},
		Name{"activity", "Gate traffic", "leave", ""}, Name{"activity", "Gulls", "leave", ""}, Name{"week", "Gate week", "leave", ""})
	if len(got.Bad) != 0 || len(got.Makes) != 0 || got.Edit == nil {
		t.Fatalf("%+v", got)
	}
	after, err := edit.After(p, edit.Edit{SetCells: &edit.SetCells{Cells: *got.Edit}})
	if err != nil {
		t.Fatal(err)
	}
	if c := after.Channels[0]; c.Name != "North gate" || c.Group != p.Channels[0].Group || c.Activity != p.Channels[0].Activity ||
		c.Streams.Main.FPS != 12 {
		t.Errorf("%+v", c)
	}

	// All of it made, but for what moves, which is one that is there.
	there, names := p.Activities[0].ID, p.Activities[0].Name
	got = read(Name{"recorder", "Hut", "make", p.Recorders[0].ID}, Name{"kind", "Dome 4", "make", ""}, Name{"activity", "Gulls", "use", there},
		Name{"activity", "Gate traffic", "make", plan.ActivityTemplates()[0].ID}, Name{"week", "Gate week", "make", p.Duties[0].ID},
		Name{"group", "Gates", "make", ""})
	if len(got.Bad) != 0 || len(got.Makes) != 4 || got.Added != 2 {
		t.Fatalf("%+v", got)
	}
	after, err = edit.After(p, append(got.Makes, edit.Edit{SetCells: &edit.SetCells{Cells: *got.Edit}})...)
	if err != nil {
		t.Fatal(err)
	}
	c := after.Channels[len(p.Channels)]
	kind, r := after.Kind(c.Kind), after.Recorder(c.Recorder)
	if c.Name != "North gate" || c.Group != "Gates" || r.Name != "Hut" || len(r.Pools) == 0 || r.Pools[0].ID == p.Recorders[0].Pools[0].ID {
		t.Errorf("%+v on %+v", c, r)
	}
	if kind == nil || kind.Name != "Dome 4" || kind.Streams.Main.FPS != 12 || c.Streams.Main.FPS != 12 {
		t.Errorf("%+v", kind)
	}
	if after.Activity(c.Activity).Name != "Gate traffic" || c.Nuisance != there || after.Week(c.Week.Named).Name != "Gate week" {
		t.Errorf("%+v, nuisance %s, want %s", c, c.Nuisance, names)
	}
}

// TestNamesThatCannotBe refuses what names cannot mean, with the place.
func TestNamesThatCannotBe(t *testing.T) {
	for text, want := range map[string]string{
		`[{"sort":"boat","text":"x","as":"make"}]`:          "names[0].sort",
		`[{"sort":"week","text":"","as":"make"}]`:           "names[0].text",
		`[{"sort":"week","text":"x","as":"make","shoe":1}]`: "shoe",
		`{"sort":"week"}`: "names: ",
		"[" + strings.Repeat(`{"sort":"week"},`, 1000) + "{}]": "at most 1000",
	} {
		if _, err := ReadNames(text); err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%.60s: %v, want %s", text, err, want)
		}
	}
	if names, err := ReadNames(" "); names != nil || err != nil {
		t.Errorf("%v %v", names, err)
	}
	_, err := ReadTable(context.Background(), []byte(ofAnotherSite), demo.BrackenhallCiderWorks(),
		Name{"week", "Gate week", "make", "no-duty"})
	if err == nil || !strings.Contains(err.Error(), `week "Gate week" cannot be made like "no-duty"`) {
		t.Error(err)
	}
}
