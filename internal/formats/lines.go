package formats

import (
	"archive/zip"
	"bufio"
	"bytes"
	"context"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"iter"
	"path"
	"strings"

	"github.com/xuri/excelize/v2"
)

// line is a row of a file with where it stands in it.
type line struct {
	at    int
	cells []string
}

func (l line) cell(at int) string {
	if at < 0 || at >= len(l.cells) {
		return ""
	}
	return rearm(l.cells[at])
}

// budget is how much of a table is read. What is beyond is no table for us, and is
// refused before it costs anything.
type budget struct {
	lines int
	cells int // in a line
}

var (
	tableBudget = budget{lines: 6_000, cells: 500} // a plan has 5,000 channels at most
	logBudget   = budget{lines: 1_000_000, cells: 100}
)

func (b budget) checkLine(n int) error {
	if n > b.lines {
		return fmt.Errorf("the file has more than %d lines", b.lines)
	}
	return nil
}

func (b budget) checkCells(at, cells int) error {
	if cells > b.cells {
		return fmt.Errorf("line %d has %d cells; at most %d are read", at, cells, b.cells)
	}
	return nil
}

// looksAgain is after how many lines, events or the like it is looked whether anybody waits still: a few milliseconds.
const looksAgain = 1000

// open returns the lines of CSV or of a workbook's first sheet, each time anew, and how
// its text was encoded; empty for a workbook. The error ends the lines.
func (b budget) open(ctx context.Context, data []byte) (_ iter.Seq2[line, error], encoding string, _ error) {
	if bytes.HasPrefix(data, []byte("PK\x03\x04")) {
		if err := b.checkWorkbook(ctx, data); err != nil {
			return nil, "", err
		}
		return b.sheet(ctx, data), "", nil
	}
	data, encoding = decoded(data)
	if bytes.IndexByte(data, 0) >= 0 {
		return nil, "", errors.New("not a table of text: neither CSV nor a workbook (.xlsx)")
	}
	comma := separator(data)
	at := 0
	for text := range bytes.Lines(data) {
		at++
		if err := b.checkCells(at, bytes.Count(text, []byte(string(comma)))+1); err != nil {
			return nil, "", err
		}
	}
	if err := b.checkLine(at); err != nil {
		return nil, "", err
	}
	return csvLines(ctx, data, comma), encoding, nil
}

// all returns every line, and how the text was encoded.
func (b budget) all(ctx context.Context, data []byte) ([]line, string, error) {
	each, encoding, err := b.open(ctx, data)
	if err != nil {
		return nil, "", err
	}
	var lines []line
	for l, err := range each {
		if err != nil {
			return nil, "", err
		}
		lines = append(lines, l)
	}
	return lines, encoding, nil
}

func csvLines(ctx context.Context, data []byte, comma rune) iter.Seq2[line, error] {
	return func(yield func(line, error) bool) {
		r := csv.NewReader(bytes.NewReader(data))
		r.Comma = comma
		r.FieldsPerRecord = -1
		for n := 0; ; n++ {
			if n%looksAgain == 0 && ctx.Err() != nil {
				yield(line{}, ctx.Err())
				return
			}
			cells, err := r.Read()
			if wrong := new(csv.ParseError); errors.As(err, &wrong) {
				yield(line{}, fmt.Errorf("line %d, column %d: %w", wrong.Line, wrong.Column, wrong.Err))
				return
			}
			if err != nil {
				return // the end
			}
			at, _ := r.FieldPos(0)
			if !yield(line{at, cells}, nil) {
				return
			}
		}
	}
}

// separator is what stands between the cells: of comma, semicolon and tab the one
// that is most frequent in the first line.
func separator(data []byte) rune {
	first, _, _ := bytes.Cut(data, []byte("\n"))
	best, most := ',', 0
	for _, s := range ",;\t" {
		if n := bytes.Count(first, []byte(string(s))); n > most {
			best, most = s, n
		}
	}
	return best
}

// What the parts of a workbook may be once they are unpacked. Its texts and styles are
// read into memory, where they take many times that.
const (
	mostParts     = 1000
	mostUnpacked  = 64 << 20
	mostTexts     = 6 << 20
	mostOfAnyPart = 2 << 20
)

// checkWorkbook asks what the parts of a workbook would take, before any is unpacked.
func (b budget) checkWorkbook(ctx context.Context, data []byte) error {
	z, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	if err != nil {
		return fmt.Errorf("not a workbook: %w", err)
	}
	if len(z.File) > mostParts {
		return fmt.Errorf("the workbook has %d parts; at most %d are read", len(z.File), mostParts)
	}
	total := uint64(0)
	for _, f := range z.File {
		most := uint64(mostOfAnyPart)
		switch name := strings.ToLower(f.Name); {
		case strings.Contains(name, "worksheets/"), strings.Contains(name, "media/"):
			most = mostUnpacked
		case path.Base(name) == "sharedstrings.xml":
			most = mostTexts
		}
		if total += f.UncompressedSize64; f.UncompressedSize64 > most || total > mostUnpacked {
			return fmt.Errorf("the workbook is too large once it is unpacked: %s has %d MB", f.Name, f.UncompressedSize64/1e6)
		}
	}
	for _, f := range z.File {
		if strings.Contains(strings.ToLower(f.Name), "worksheets/") && !f.FileInfo().IsDir() {
			if err := b.checkSheet(ctx, f); err != nil {
				return err
			}
		}
	}
	return nil
}

// mostCells is how many cells a sheet may have, whatever they are called: the library takes a microsecond or more for each,
// and all of a row at once.
const mostCells = 6_000_000

// checkSheet counts the rows and cells of a sheet, of which only the elements are looked at.
func (b budget) checkSheet(ctx context.Context, f *zip.File) error {
	r, err := f.Open()
	if err != nil {
		return fmt.Errorf("not a workbook: %s cannot be unpacked", f.Name)
	}
	defer r.Close()
	rows, cells, all := 0, 0, 0
	in := bufio.NewReaderSize(io.LimitReader(r, mostUnpacked), 64<<10)
	for {
		if _, err := in.ReadSlice('<'); err == bufio.ErrBufferFull {
			continue
		} else if err != nil {
			return ctx.Err() // the end; what is damaged is told by who reads it
		}
		name, err := in.Peek(16)
		if err != nil && len(name) == 0 {
			return ctx.Err()
		}
		switch element(name) {
		case "row":
			rows, cells = rows+1, 0
		case "c":
			cells++
			all++
		default:
			continue
		}
		if all%looksAgain == 0 && ctx.Err() != nil {
			return ctx.Err()
		}
		if err := errors.Join(b.checkLine(rows), b.checkCells(rows, cells)); err != nil {
			return err
		}
		if all > mostCells {
			return fmt.Errorf("the workbook has a sheet of more than %d cells", mostCells)
		}
	}
}

// element is the name of the element that begins, without a prefix.
func element(text []byte) string {
	name := text[:len(text)-len(bytes.TrimLeftFunc(text, func(r rune) bool { return !strings.ContainsRune(" \t\r\n/>", r) }))]
	if _, local, ok := bytes.Cut(name, []byte(":")); ok {
		name = local
	}
	return string(name)
}

func (b budget) sheet(ctx context.Context, data []byte) iter.Seq2[line, error] {
	return func(yield func(line, error) bool) {
		f, err := excelize.OpenReader(bytes.NewReader(data), excelize.Options{RawCellValue: true, UnzipSizeLimit: mostUnpacked,
			UnzipXMLSizeLimit: 16 << 20})
		if err != nil {
			yield(line{}, fmt.Errorf("not a workbook: %w", err))
			return
		}
		defer f.Close()
		names := f.GetSheetList()
		if len(names) == 0 {
			yield(line{}, errors.New("the workbook has no sheet"))
			return
		}
		rows, err := f.Rows(names[0])
		if err != nil {
			yield(line{}, fmt.Errorf("not a workbook: %w", err))
			return
		}
		defer rows.Close()
		at := 0
		for rows.Next() {
			at++
			if ctx.Err() != nil {
				yield(line{}, ctx.Err())
				return
			}
			cells, err := rows.Columns(excelize.Options{RawCellValue: true})
			if err == nil {
				err = errors.Join(b.checkLine(at), b.checkCells(at, len(cells)))
			}
			if !yield(line{at, cells}, err) || err != nil {
				return
			}
		}
		if err := rows.Error(); err != nil {
			yield(line{}, fmt.Errorf("not a workbook: %w", err))
		}
	}
}
