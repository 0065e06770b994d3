package formats

import (
	"archive/zip"
	"bytes"
	"context"
	"fmt"
	"runtime"
	"strings"
	"testing"
	"time"

	"wakefield.example/core/edit"
	"wakefield.example/core/seeded"
	"wakefield.example/core/week"
	"wakefield.example/internal/demo"
)

// workbook packs a worksheet, and what it needs to be one.
func workbook(t testing.TB, sheet string, more map[string]string) []byte {
	t.Helper()
	parts := map[string]string{
		"[Content_Types].xml":        `<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/></Types>`,
		"_rels/.rels":                `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
		"xl/workbook.xml":            `<workbook xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet name="S" sheetId="1" r:id="r1"/></sheets></workbook>`,
		"xl/_rels/workbook.xml.rels": `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" Target="worksheets/sheet1.xml"/></Relationships>`,
		"xl/worksheets/sheet1.xml": `<worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData>` + sheet +
			`</sheetData></worksheet>`,
	}
	for name, text := range more {
		parts[name] = text
	}
	var b bytes.Buffer
	z := zip.NewWriter(&b)
	for name, text := range parts {
		w, err := z.Create(name)
		if err == nil {
			_, err = w.Write([]byte(text))
		}
		if err != nil {
			t.Fatal(err)
		}
	}
	if err := z.Close(); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

// far is rows with one cell in the last column that a sheet can have.
func far(rows int) string {
	var b strings.Builder
	for i := 1; i <= rows; i++ {
		fmt.Fprintf(&b, `<row r="%d"><c r="XFD%d"><v>1</v></c></row>`, i, i)
	}
	return b.String()
}

// TestHostileFilesEndWithOneLine reads files made to cost much. Each is refused with a
// line that says why, and all that was allocated for it, let alone held at once, is
// less than a request may hold.
func TestHostileFilesEndWithOneLine(t *testing.T) {
	p := demo.BrackenhallCiderWorks()
	calendar := func(data []byte) error {
		_, err := ReadSpecialDays(context.Background(), data, p, week.Sunday)
		return err
	}
	table := func(data []byte) error { _, err := ReadTable(context.Background(), data, p); return err }
	log := func(data []byte) error {
		_, err := ReadLog(context.Background(), data, time.UTC, nil, LogPeriod{})
		return err
	}
	tests := []struct {
		name string
		read func([]byte) error
		data []byte
		says string
	}{
		{"events that do not end", calendar, []byte("BEGIN:VCALENDAR\n" + strings.Repeat("BEGIN:VEVENT\n", 20_000)),
			"line 9: BEGIN:VEVENT lies 9 deep"},
		{"an event that does not end", calendar, []byte("BEGIN:VCALENDAR\nBEGIN:VEVENT\nEND:VEVENT\nBEGIN:VEVENT\n"),
			"line 4: BEGIN:VEVENT does not end"},
		{"ends of nothing", calendar, []byte("BEGIN:VCALENDAR\nEND:VCALENDAR\nEND:VEVENT\n"), "line 3 ends what never began"},
		{"too many events", calendar, []byte("BEGIN:VCALENDAR\n" + strings.Repeat("BEGIN:VEVENT\nEND:VEVENT\n", 20_000) + "END:VCALENDAR\n"),
			"more than 5000 events"},
		{"too many lines", calendar, []byte("BEGIN:VCALENDAR\n" + strings.Repeat("X:\n", 1<<20) + "END:VCALENDAR\n"), "more than 200000 lines"},
		{"cells far to the right", table, workbook(t, far(5_000), nil), "line 1 has 16384 cells"},
		{"rows far down", table, workbook(t, `<row r="1"><c r="A1"><v>1</v></c></row><row r="1000000"><c r="A1000000"><v>1</v></c></row>`, nil),
			"more than 6000 lines"},
		{"a sheet of 200 MB", table, workbook(t, strings.Repeat("<row></row>", 200<<20/11), nil), "too large once it is unpacked"},
		{"texts of 20 MB", table, workbook(t, far(1), map[string]string{"xl/sharedStrings.xml": strings.Repeat("<si><t/></si>", 20<<20/13)}),
			"too large once it is unpacked"},
		{"not a workbook", table, []byte("PK\x03\x04 and nothing more"), "not a workbook"},
		{"two million headings", table, []byte(strings.Repeat("a,", 1<<20)), "line 1 has 1048577 cells"},
		{"many lines", table, []byte("Name\n" + strings.Repeat("a\n", 1<<20)), "more than 6000 lines"},
		{"a log of ones", log, []byte(strings.Repeat("1\n", 15<<20)), "more than 1000000 lines"},
		{"a quote that does not end", log, []byte("when\n\"" + strings.Repeat("1\n", 100_000)), "line "},
		{"a wide log", log, []byte("when\n" + strings.Repeat("2026-01-01 10:00:00,", 200) + "\n"), "line 2 has 201 cells"},
	}
	for _, test := range tests {
		var before, after runtime.MemStats
		runtime.ReadMemStats(&before)
		err := test.read(test.data)
		runtime.ReadMemStats(&after)
		if err == nil || !strings.Contains(err.Error(), test.says) || strings.Contains(err.Error(), "\n") {
			t.Errorf("%s: %v, want %q", test.name, err, test.says)
		}
		if mb := (after.TotalAlloc - before.TotalAlloc) >> 20; mb > 150 {
			t.Errorf("%s: %d MB were allocated", test.name, mb)
		}
	}
}

// TestTheLargestTablesAreRead reads what lies just within the budgets.
func TestTheLargestTablesAreRead(t *testing.T) {
	p := demo.BrackenhallCiderWorks()
	var b strings.Builder
	b.WriteString("No.,Name\n")
	for i := range 5000 {
		fmt.Fprintf(&b, "%d,Vat %d\n", i+100, i)
	}
	read, err := ReadTable(context.Background(), []byte(b.String()), p)
	if err != nil || read.Added+len(read.Bad) != 5000 {
		t.Errorf("%+v, %v", read, err)
	}
	b.Reset()
	b.WriteString("begin,end\n")
	start := time.Date(2026, 1, 5, 0, 0, 0, 0, time.UTC)
	for i := range 200_000 {
		at := start.Add(time.Duration(i) * 40 * time.Second)
		b.WriteString(at.Format(time.DateTime) + "," + at.Add(9*time.Second).Format(time.DateTime) + "\n")
	}
	var before, after runtime.MemStats
	runtime.ReadMemStats(&before)
	l, err := ReadLog(context.Background(), []byte(b.String()), time.UTC, nil, LogPeriod{})
	runtime.ReadMemStats(&after)
	if err != nil || l.Events != 200_000 || l.Activity.MeanSeconds < 8.9 || l.Activity.MeanSeconds > 9.1 {
		t.Fatalf("%+v, %v", l, err)
	}
	if held := (after.HeapAlloc - before.HeapAlloc) >> 20; after.HeapAlloc > before.HeapAlloc && held > 200 {
		t.Errorf("%d MB are held", held)
	}
}

func FuzzReadWorkbook(fuzz *testing.F) {
	f := seeded.Of(fuzz, 500)
	p := demo.BrackenhallCiderWorks()
	data, _ := WriteXLSX(p)
	f.Add(data)
	f.Add(workbook(f, far(3), nil))
	f.Add([]byte("PK\x03\x04"))
	f.Fuzz(func(t *testing.T, data []byte) {
		if read, err := ReadTable(context.Background(), data, p); err == nil && read.Edit != nil {
			if _, err := edit.After(p, edit.Edit{SetCells: &edit.SetCells{Cells: *read.Edit}}); err != nil {
				t.Errorf("what was offered is refused: %v", err)
			}
		}
	})
}
