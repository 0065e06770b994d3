package formats

import (
	"bytes"
	"context"
	"fmt"
	"reflect"
	"strings"
	"testing"

	"github.com/xuri/excelize/v2"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/seeded"
	"wakefield.example/core/table"
	"wakefield.example/internal/demo"
)

// spoilt is the plan with other settings on every channel.
func spoilt(t testing.TB, p *plan.Plan) *plan.Plan {
	t.Helper()
	e := &table.Cells{Columns: []string{"name", "group", "main.codec", "main.size", "main.fps", "main.rate", "pre", "post", "audio", "atLeast",
		"activity", "detection"}}
	for _, c := range p.Channels {
		e.Rows = append(e.Rows, table.CellRow{Channel: c.ID, Values: []string{"x" + c.ID, "y", "MJPEG", "64×48", "1", "77", "1",
			"2", "3", "", "", "off"}})
	}
	next, err := edit.After(p, edit.Edit{SetCells: &edit.SetCells{Cells: *e}})
	if err != nil {
		t.Fatal(err)
	}
	return next
}

// cabled names channels as only somebody who means harm, or likes apostrophes, would.
func cabled(t testing.TB) *plan.Plan {
	t.Helper()
	p := demo.PennywhistleQuay()
	for i, name := range []string{"=1+2", "+49", "-x", "@home", "'quoted", "''", "'=1", "comma, \"quotes\"\nand a line"} {
		p.Channels[i].Name = name
	}
	if err := p.Check(); err != nil {
		t.Fatal(err)
	}
	return p
}

func TestTablesGiveThePlanBack(t *testing.T) {
	for name, write := range map[string]func(*plan.Plan) ([]byte, error){"CSV": WriteCSV, "XLSX": WriteXLSX} {
		for _, p := range []*plan.Plan{cabled(t), demo.SaltmarshTramDepot(), demo.BrackenhallCiderWorks()} {
			data, err := write(p)
			if err != nil {
				t.Fatal(err)
			}
			if read, err := ReadTable(context.Background(), data, p); err != nil || read.Same != len(p.Channels) || read.Edit != nil ||
				len(read.Bad)+len(read.Ignored) != 0 {
				t.Fatalf("%s of %s on itself: %v %+v", name, p.Site.Name, err, read)
			}
			other := spoilt(t, p)
			read, err := ReadTable(context.Background(), data, other)
			if err != nil || len(read.Bad) > 0 || read.Changed != len(p.Channels) || read.Added != 0 {
				t.Fatalf("%s of %s: %v %+v", name, p.Site.Name, err, read)
			}
			back, err := edit.After(other, edit.Edit{SetCells: &edit.SetCells{Cells: *read.Edit}})
			if err != nil || !reflect.DeepEqual(back, p) {
				t.Errorf("%s of %s gives another plan: %v", name, p.Site.Name, err)
			}
		}
	}
}

func TestNoCellIsAFormula(t *testing.T) {
	p := cabled(t)
	data, _ := WriteCSV(p)
	for _, line := range strings.Split(string(data), "\n") {
		for _, cell := range strings.Split(line, ",") {
			if cell = strings.Trim(cell, `"`); cell != "" && strings.ContainsRune("=+-@", rune(cell[0])) {
				t.Errorf("CSV has the cell %q", cell)
			}
		}
	}
	data, _ = WriteXLSX(p)
	f, err := excelize.OpenReader(bytes.NewReader(data))
	if err != nil {
		t.Fatal(err)
	}
	for _, at := range []string{"C2", "C3", "C4"} {
		if formula, _ := f.GetCellFormula(sheet, at); formula != "" {
			t.Errorf("%s is the formula %q", at, formula)
		}
	}
	if kind, _ := f.GetCellType(sheet, "B2"); kind != excelize.CellTypeUnset && kind != excelize.CellTypeNumber {
		t.Errorf("the number of a channel is no number but %v", kind)
	}
}

func TestBadTablesNameLineAndColumn(t *testing.T) {
	p := demo.PennywhistleQuay()
	text := "Number;Name;bitrate (kbit/s);frames;colour\n" +
		"1;Hall;fast;12;red\n" +
		"2;\"Booth\nat the pier\";4096;12,5;red\n" +
		"\n" +
		"17;New one;900-3000;8;red\n" +
		"2;Booth;4096;12;red\n"
	read, err := ReadTable(context.Background(), []byte(strings.Replace(text, "Number", "No.", 1)), p)
	if err != nil {
		t.Fatal(err)
	}
	want := []BadCell{
		{6, "", "", "the same channel as line 3"},
		{2, "bitrate (kbit/s)", "fast", `"fast" is no bitrate; write 4096, 900–4200 for idle and moving, or quality 3, moderate`},
	}
	if read.Bad[0].Line != 7 { // an empty line and a line within quotes are lines of the file
		t.Errorf("%+v", read.Bad)
	}
	want[0].Line = 7
	if !reflect.DeepEqual(read.Bad, want) || !reflect.DeepEqual(read.Ignored, []string{"colour"}) || read.Added != 1 || read.Changed != 1 {
		t.Errorf("%+v", read)
	}
	next, err := edit.After(p, edit.Edit{SetCells: &edit.SetCells{Cells: *read.Edit}})
	if err != nil {
		t.Fatal(err)
	}
	if c := next.Channel("new-one"); c == nil || c.Number != 17 || c.Streams.Main.Rate.ActiveKbps != 3000 {
		t.Errorf("%+v", c)
	}
	for text, want := range map[string]string{
		"":                      "the file is empty",
		"a,b\n1,2\n":            "line 1: no heading is known",
		"Name,when\nJo,later\n": "line 1: of the headings only \"Name\" is known",
		"Id,when\nc1,later\n":   "line 1: no heading is known",
		"Name,\"No.\nx\n":       "line 2, column 3: extraneous",
		"\x00\x01":              "neither CSV nor a workbook",
		"PK\x03\x04and no more": "not a workbook",
	} {
		if _, err := ReadTable(context.Background(), []byte(text), p); err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%q: %v, want %s", text, err, want)
		}
	}
}

func FuzzDefuse(fuzz *testing.F) {
	f := seeded.Of(fuzz, 2000)
	for _, text := range []string{"", "=1", "'", "''", "'=", "''=", "\t", "a"} {
		f.Add(text)
	}
	f.Fuzz(func(t *testing.T, text string) {
		safe := defuse(text)
		if rearm(safe) != text {
			t.Errorf("%q becomes %q", text, rearm(safe))
		}
		if explosive(safe) {
			t.Errorf("%q may be computed", safe)
		}
	})
}

func FuzzReadTable(fuzz *testing.F) {
	f := seeded.Of(fuzz, 1000)
	p := demo.BrackenhallCiderWorks()
	data, _ := WriteCSV(p)
	f.Add(data)
	f.Add([]byte("Name\tNo.\nx\t1\n"))
	f.Add([]byte("Name;\"No\n"))
	f.Fuzz(func(t *testing.T, data []byte) {
		read, err := ReadTable(context.Background(), data, p)
		if err != nil || read.Edit == nil {
			return
		}
		if _, err := edit.After(p, edit.Edit{SetCells: &edit.SetCells{Cells: *read.Edit}}); err != nil {
			t.Errorf("what was offered cannot be done: %v", err)
		}
	})
}

// TestAnIdAndOneColumnAreEnough reads a table of nothing but ids and names.
func TestAnIdAndOneColumnAreEnough(t *testing.T) {
	p := demo.PennywhistleQuay()
	for _, text := range []string{"Id,Name\nhall,Big hall\n", "Name,Id\nBig hall,hall\n"} {
		read, err := ReadTable(context.Background(), []byte(text), p)
		if err != nil || read.Changed != 1 || read.Added != 0 || len(read.Bad) != 0 {
			t.Errorf("%q: %v, %+v", text, err, read)
		}
	}
}

// TestATableOfCommasIsReadAsItMeans reads numbers of a table whose fractions stand behind a comma: what can mean two numbers there is
// left out with its line, and 1,125 is a fraction.
func TestATableOfCommasIsReadAsItMeans(t *testing.T) {
	p := demo.PennywhistleQuay()
	head, row := "Id;Main stream Frames (/s);Pre-event (s)\n", "hall;%s;4,5\n"
	for text, want := range map[string]float64{"1,125": 1.125, "12": 12, "2.5": 0, "1.500": 0} {
		read, err := ReadTable(context.Background(), []byte(head+fmt.Sprintf(row, text)), p)
		if err != nil {
			t.Fatal(err)
		}
		if want == 0 {
			if text == "1.500" && (read.Edit != nil || len(read.Bad) != 1 || !strings.Contains(read.Bad[0].Reason, "write “1500” or “1,500”") ||
				read.Bad[0].Line != 2) {
				t.Errorf("%s: %+v", text, read)
			}
			if text == "2.5" && len(read.Bad) != 0 { // a file that has both tells nothing of its commas
				t.Errorf("%s: %+v", text, read.Bad)
			}
			continue
		}
		after, err := edit.After(p, edit.Edit{SetCells: &edit.SetCells{Cells: *read.Edit}})
		if err != nil {
			t.Fatal(err)
		}
		if got := after.Channel("hall").Streams.Main.FPS; got != want {
			t.Errorf("%s is %v frames a second", text, got)
		}
	}
}
