package formats

import (
	"context"
	"errors"
	"fmt"
	"strings"
	"testing"
	"time"

	"wakefield.example/core/looked"
	"wakefield.example/internal/demo"
)

// TestReadingStopsWhenNobodyWaits ends the context in the midst of long files.
func TestReadingStopsWhenNobodyWaits(t *testing.T) {
	p := demo.BrackenhallCiderWorks()
	var log, sheet strings.Builder
	log.WriteString("begin,end\n")
	begin := time.Date(2026, 1, 5, 0, 0, 0, 0, time.UTC)
	for i := range 60_000 {
		at := begin.Add(time.Duration(i) * 40 * time.Second)
		log.WriteString(at.Format(time.DateTime) + "," + at.Add(9*time.Second).Format(time.DateTime) + "\n")
	}
	sheet.WriteString(`<row r="1"><c r="A1" t="inlineStr"><is><t>No.</t></is></c><c r="B1" t="inlineStr"><is><t>Name</t></is></c></row>`)
	for i := 2; i < 5000; i++ {
		fmt.Fprintf(&sheet, `<row r="%d"><c r="A%d"><v>%d</v></c><c r="B%d"><v>1</v></c></row>`, i, i, i, i)
	}
	for name, read := range map[string]func(context.Context) error{
		"a log": func(ctx context.Context) error {
			_, err := ReadLog(ctx, []byte(log.String()), time.UTC, nil, LogPeriod{})
			return err
		},
		"a workbook": func(ctx context.Context) error {
			_, err := ReadTable(ctx, workbook(t, sheet.String(), nil), p)
			return err
		},
	} {
		whole := looked.At(0)
		if err := read(whole); err != nil || whole.Times() < 50 {
			t.Fatalf("%s: %d looks, %v", name, whole.Times(), err)
		}
		for _, end := range []int{1, 7, whole.Times() / 2, whole.Times()} {
			ctx := looked.At(end)
			if err := read(ctx); !errors.Is(err, context.Canceled) || ctx.Times() > end+3 {
				t.Errorf("%s, ended at look %d of %d: it looked %d times, %v", name, end, whole.Times(), ctx.Times(), err)
			}
		}
	}
}

// TestCellsThatAreAllTheSame reads a workbook of a million cells that are all called A1: in one row, and in many.
func TestCellsThatAreAllTheSame(t *testing.T) {
	p := demo.BrackenhallCiderWorks()
	cell := `<c r="A1"><v>1</v></c>`
	for says, sheet := range map[string]string{
		"line 1 has 501 cells":             `<row r="1">` + strings.Repeat(cell, 1_000_000) + `</row>`,
		"the file has more than 6000 line": strings.Repeat(`<row r="1">`+strings.Repeat(cell, 100)+`</row>`, 10_000),
	} {
		if _, err := ReadTable(context.Background(), workbook(t, sheet, nil), p); err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("%v, want %q", err, says)
		}
	}
}
