package formats

import (
	"bytes"
	"strings"
	"testing"

	"golang.org/x/text/encoding"
	"golang.org/x/text/encoding/charmap"
	"golang.org/x/text/encoding/unicode"

	"wakefield/core/plan"
	"wakefield/internal/demo"
)

// TestTablesInOtherEncodings writes our own table as spreadsheets save it, and reads it
// back: nothing would be changed. A row that is changed is told cell by cell.
func TestTablesInOtherEncodings(t *testing.T) {
	p := demo.BrackenhallCiderWorks()
	p.Channels[0].Name = "Käthe’s press – west"
	csv, err := WriteCSV(p)
	if err != nil {
		t.Fatal(err)
	}
	text := bytes.TrimPrefix(csv, []byte("\ufeff"))
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
		read, err := ReadTable(data, p)
		if err != nil || read.Encoding != test.want || read.Same != len(p.Channels) || read.Edit != nil || len(read.Bad) != 0 {
			t.Errorf("%s: %+v, %v", test.name, read, err)
		}
		changed, err := test.with.NewEncoder().Bytes(bytes.Replace(text, []byte("Käthe’s"), []byte("Gérôme’s"), 1))
		if err != nil {
			t.Fatal(err)
		}
		read, err = ReadTable(changed, p)
		if err != nil || read.Changed != 1 || len(read.Rows) != 1 {
			t.Fatalf("%s: %+v, %v", test.name, read, err)
		}
		row := read.Rows[0]
		if row.New || row.Line != 2 || row.Channel != "Käthe’s press – west" || len(row.Cells) != 1 || row.Cells[0].Old != "Käthe’s press – west" || row.Cells[0].New != "Gérôme’s press – west" {
			t.Errorf("%s: %+v", test.name, row)
		}
		next, err := p.Apply(plan.Edit{SetCells: read.Edit})
		if err != nil || next.Channels[0].Name != "Gérôme’s press – west" {
			t.Errorf("%s: %v", test.name, err)
		}
	}
	added, err := ReadTable([]byte("No.;Name;Main stream Codec\r\n99;Neuer Keller;H.265\r\n"), p)
	if err != nil || added.Added != 1 || len(added.Rows) != 1 || !added.Rows[0].New || added.Rows[0].Channel != "Neuer Keller" || len(added.Rows[0].Cells) != 3 {
		t.Errorf("%+v, %v", added, err)
	}
}

func TestPicturesAreNoText(t *testing.T) {
	noise := strings.Repeat("\x00\x01\x00\x00", 100)
	if _, err := ReadTable([]byte(noise), demo.BrackenhallCiderWorks()); err == nil || !strings.Contains(err.Error(), "not a table of text") {
		t.Errorf("%v", err)
	}
}
