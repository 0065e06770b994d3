package formats

import (
	"bytes"
	"context"
	"encoding/csv"
	"fmt"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"testing"

	"golang.org/x/text/encoding"
	"golang.org/x/text/encoding/charmap"
	"golang.org/x/text/encoding/unicode"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/internal/demo"
)

// TestTablesInOtherEncodings writes our own table as spreadsheets save it, and reads it
// back: nothing would be changed. A row that is changed is told cell by cell.
func TestTablesInOtherEncodings(t *testing.T) {
	p := demo.BrackenhallCiderWorks()
	p.Channels[0].Name = "Käthe’s press – west"
	written, err := WriteCSV(p)
	if err != nil {
		t.Fatal(err)
	}
	text := bytes.TrimPrefix(written, []byte("\ufeff"))
	for _, test := range []struct {
		name string
		with encoding.Encoding
		want string
	}{
		{"UTF-8 without a mark", encoding.Nop, inUTF8},
		{"Windows-1252", charmap.Windows1252, in1252},
		{"UTF-16, little end first", unicode.UTF16(unicode.LittleEndian, unicode.UseBOM), inUTF16},
		{"UTF-16, big end first", unicode.UTF16(unicode.BigEndian, unicode.UseBOM), inUTF16},
		{"UTF-16 without a mark", unicode.UTF16(unicode.LittleEndian, unicode.IgnoreBOM), inUTF16},
		{"UTF-16 without a mark, big end first", unicode.UTF16(unicode.BigEndian, unicode.IgnoreBOM), inUTF16},
	} {
		data, err := test.with.NewEncoder().Bytes(text)
		if err != nil {
			t.Fatalf("%s: %v", test.name, err)
		}
		read, err := ReadTable(context.Background(), data, p)
		if err != nil || read.Encoding != test.want || read.Same != len(p.Channels) || read.Edit != nil || len(read.Bad) != 0 {
			t.Errorf("%s: %+v, %v", test.name, read, err)
		}
		changed, err := test.with.NewEncoder().Bytes(bytes.Replace(text, []byte("Käthe’s"), []byte("Gérôme’s"), 1))
		if err != nil {
			t.Fatal(err)
		}
		read, err = ReadTable(context.Background(), changed, p)
		if err != nil || read.Changed != 1 || len(read.Rows) != 1 {
			t.Fatalf("%s: %+v, %v", test.name, read, err)
		}
		row := read.Rows[0]
		if row.New || row.Line != 2 || row.Channel != "Käthe’s press – west" || len(row.Cells) != 1 ||
			row.Cells[0].Old != "Käthe’s press – west" || row.Cells[0].New != "Gérôme’s press – west" {
			t.Errorf("%s: %+v", test.name, row)
		}
		next, err := edit.After(p, edit.Edit{SetCells: &edit.SetCells{Cells: *read.Edit}})
		if err != nil || next.Channels[0].Name != "Gérôme’s press – west" {
			t.Errorf("%s: %v", test.name, err)
		}
	}
	added, err := ReadTable(context.Background(), []byte("No.;Name;Main stream Codec\r\n99;Neuer Keller;H.265\r\n"), p)
	if err != nil || added.Added != 1 || len(added.Rows) != 1 || !added.Rows[0].New || added.Rows[0].Channel != "Neuer Keller" ||
		len(added.Rows[0].Cells) != 3 {
		t.Errorf("%+v, %v", added, err)
	}
}

// TestATableComesBackFromASpreadsheet writes our table as spreadsheets leave it: with
// semicolons and decimal commas, letters that a typist has for × and –, empty cells at the
// end of lines left out. None of it is a change; what was changed beside it is.
func TestATableComesBackFromASpreadsheet(t *testing.T) {
	for _, p := range []*plan.Plan{demo.PennywhistleQuay(), demo.BrackenhallCiderWorks(), demo.SaltmarshTramDepot()} {
		written, err := WriteCSV(p)
		if err != nil {
			t.Fatal(err)
		}
		rows, err := csv.NewReader(bytes.NewReader(bytes.TrimPrefix(written, []byte("\ufeff")))).ReadAll()
		if err != nil {
			t.Fatal(err)
		}
		rewritten := 0
		for i, row := range rows {
			for j, text := range row {
				typed := strings.NewReplacer("×", "x", "–", "-").Replace(text)
				if _, err := strconv.ParseFloat(text, 64); err == nil && i > 0 {
					typed = strings.Replace(typed, ".", ",", 1)
				}
				if typed != text {
					rewritten++
				}
				row[j] = typed
			}
			for len(row) > 0 && row[len(row)-1] == "" {
				row = row[:len(row)-1]
			}
			rows[i] = row
		}
		if rewritten < len(p.Channels) {
			t.Fatalf("%s: only %d cells are written otherwise; the test sees little", p.Site.Name, rewritten)
		}
		save := func(with encoding.Encoding) []byte {
			var b bytes.Buffer
			w := csv.NewWriter(&b)
			w.Comma, w.UseCRLF = ';', true
			if err := w.WriteAll(rows); err != nil {
				t.Fatal(err)
			}
			data, err := with.NewEncoder().Bytes(b.Bytes())
			if err != nil {
				t.Fatal(err)
			}
			return data
		}
		encodings := []encoding.Encoding{charmap.Windows1252, unicode.UTF16(unicode.LittleEndian, unicode.UseBOM)}
		for _, with := range encodings {
			read, err := ReadTable(context.Background(), save(with), p)
			if err != nil || read.Same != len(p.Channels) || read.Changed+read.Added+len(read.Bad)+len(read.Rows) != 0 || read.Edit != nil {
				t.Errorf("%s, %v: %v %+v", p.Site.Name, with, err, read)
			}
		}
		rows[1][slices.Index(rows[0], "Main stream Resolution")] = "64x48"
		for _, with := range encodings {
			read, err := ReadTable(context.Background(), save(with), p)
			was := fmt.Sprintf("%d×%d", p.Channels[0].Streams.Main.Width, p.Channels[0].Streams.Main.Height)
			if err != nil || read.Changed != 1 || len(read.Rows) != 1 ||
				!reflect.DeepEqual(read.Rows[0].Cells, []CellChange{{"Main stream Resolution", was, "64×48"}}) {
				t.Errorf("%s, %v: %v %+v", p.Site.Name, with, err, read)
			}
		}
	}
}

func TestPicturesAreNoText(t *testing.T) {
	noise := strings.Repeat("\x00\x01\x00\x00", 100)
	if _, err := ReadTable(context.Background(), []byte(noise), demo.BrackenhallCiderWorks()); err == nil ||
		!strings.Contains(err.Error(), "not a table of text") {
		t.Errorf("%v", err)
	}
}

func TestZerosTellTheOrderOfBytes(t *testing.T) {
	for text, want := range map[string][2]float64{
		"a\x00b\x00c\x00": {0, 1}, "a\x00b\x00c": {0, 1}, "\x00a\x00b\x00c": {1, 0}, "abcdef": {0, 0}, "a\x00b\x00c\x00\x00\x00": {0, 0},
		"a\x00bcd\x00ef": {0, 0.5}, "a\x00": {0, 0},
	} {
		if got := [2]float64{zeros([]byte(text), 0), zeros([]byte(text), 1)}; got != want {
			t.Errorf("%q: %v, want %v", text, got, want)
		}
	}
}
