package formats

import (
	"bytes"
	"context"
	"encoding/csv"
	"encoding/json"
	"fmt"
	"slices"
	"time"

	ics "github.com/arran4/golang-ical"
	"github.com/xuri/excelize/v2"

	"wakefield.example/core/document"
	"wakefield.example/core/rehearse"
)

// A rehearsed week is written as a list of what happened, one row an event, and as the stretches of footage of every channel.

var weekTitles = []string{"time", "channel", "what", "seconds", "fate", "reason", "written by"}

// mostNamed is how many of the channels that an event records are named.
const mostNamed = 20

// eventRow is an event as a row: texts, but for the seconds.
func eventRow(r *rehearse.Rehearsal, n int) (texts []string, seconds float64) {
	e, p := &r.Events[n], r.Plan()
	channel := ""
	if e.Channel >= 0 {
		channel = p.Channels[e.Channel].Name
	}
	by := ""
	for k, i := range e.Records {
		if k == mostNamed {
			by += fmt.Sprintf(" and %d more", len(e.Records)-mostNamed)
			break
		}
		if k > 0 {
			by += ", "
		}
		by += p.Channels[i].Name
	}
	seconds = float64(e.End-e.Start) / 1000
	fate, reason := rehearse.FateWords(e.Fate), rehearse.WhyWords(e.Why)
	if e.Fate == "" {
		fate = "no trigger"
		if e.Gate == rehearse.Passed {
			fate = "a trigger"
		}
	}
	return []string{r.Moment(e.Start).Format("2006-01-02 15:04:05 -07:00"), channel, r.What(n), "", fate, reason, by}, seconds
}

// eachEvent calls f with the events of the days that were asked for.
func eachEvent(ctx context.Context, r *rehearse.Rehearsal, f func(n int) error) error {
	for n := range r.Events {
		if n%looksAgain == 0 && ctx.Err() != nil {
			return ctx.Err()
		}
		if e := &r.Events[n]; e.Start >= 0 && e.Start < r.Length {
			if err := f(n); err != nil {
				return err
			}
		}
	}
	return nil
}

// WriteWeekCSV writes what happened as RFC 4180 has it, in UTF-8 with the mark that spreadsheets look for.
func WriteWeekCSV(ctx context.Context, r *rehearse.Rehearsal) ([]byte, error) {
	var b bytes.Buffer
	b.WriteString("\ufeff")
	w := csv.NewWriter(&b)
	if err := w.Write(weekTitles); err != nil {
		return nil, err
	}
	err := eachEvent(ctx, r, func(n int) error {
		row, seconds := eventRow(r, n)
		row[3] = fmt.Sprintf("%.1f", seconds)
		for j := range row {
			row[j] = defuse(row[j])
		}
		return w.Write(row)
	})
	w.Flush()
	if err == nil {
		err = w.Error()
	}
	return b.Bytes(), err
}

// WriteWeekXLSX writes what happened as a workbook. Times are times of the clocks on site, with what these are before UTC
// beside them; seconds are numbers, all else is text and never a formula.
func WriteWeekXLSX(ctx context.Context, r *rehearse.Rehearsal) ([]byte, error) {
	const name = "Week"
	f := excelize.NewFile()
	defer f.Close()
	if err := f.SetSheetName("Sheet1", name); err != nil {
		return nil, err
	}
	w, err := f.NewStreamWriter(name)
	if err != nil {
		return nil, err
	}
	timed, err := f.NewStyle(&excelize.Style{CustomNumFmt: new("yyyy-mm-dd hh:mm:ss")})
	if err != nil {
		return nil, err
	}
	if err := w.SetColWidth(1, 1, 20); err != nil {
		return nil, err
	}
	write := func(row int, first []any, texts []string, seconds any) error {
		cells := slices.Clone(first)
		for _, text := range texts[1:] {
			cells = append(cells, text)
		}
		if seconds != nil {
			cells[4] = seconds
		}
		at, err := excelize.CoordinatesToCellName(1, row)
		if err != nil {
			return err
		}
		return w.SetRow(at, cells)
	}
	if err := write(1, []any{"time", "UTC"}, weekTitles, nil); err != nil {
		return nil, err
	}
	row := 1
	err = eachEvent(ctx, r, func(n int) error {
		texts, seconds := eventRow(r, n)
		row++
		at := r.Moment(r.Events[n].Start)
		clock := time.Date(at.Year(), at.Month(), at.Day(), at.Hour(), at.Minute(), at.Second(), 0, time.UTC) // a sheet knows no zones
		return write(row, []any{excelize.Cell{StyleID: timed, Value: clock}, at.Format("-07:00")}, texts, seconds)
	})
	if err == nil {
		err = w.Flush()
	}
	if err != nil {
		return nil, err
	}
	var b bytes.Buffer
	err = f.Write(&b)
	return b.Bytes(), err
}

// mostInCalendar is how many events are written as those of a calendar, which no program for calendars shows anyway.
const mostInCalendar = 50_000

// WriteWeekCalendar writes wanted events as those of a calendar (RFC 5545), with their fate. It fails with a [*document.Error]
// where there are too many.
func WriteWeekCalendar(ctx context.Context, r *rehearse.Rehearsal, stamp time.Time) ([]byte, error) {
	cal := ics.NewCalendar()
	cal.SetProductId("-//Wakefield//Rehearsal//EN")
	written := 0
	err := eachEvent(ctx, r, func(n int) error {
		e := &r.Events[n]
		if e.Source != rehearse.Wanted {
			return nil
		}
		if written++; written > mostInCalendar {
			return document.Wrong("kind",
				"more than %d wanted events happen, which is too much for a calendar; CSV, XLSX and JSON have them all, and fewer days have fewer",
				mostInCalendar)
		}
		event := cal.AddEvent(fmt.Sprintf("rehearsal-%d-%d@wakefield", r.Ask.Seed, n))
		event.SetDtStampTime(stamp)
		event.SetStartAt(r.Moment(e.Start))
		event.SetEndAt(r.Moment(e.End))
		event.SetSummary(r.What(n) + ": " + rehearse.FateWords(e.Fate))
		event.SetDescription(rehearse.WhyWords(e.Why))
		return nil
	})
	if err != nil {
		return nil, err
	}
	return []byte(cal.Serialize()), nil
}

// WeekFormat is the format of the file that WriteWeekJSON writes.
const WeekFormat = "wakefield-rehearsal/1"

// WeekFile is a rehearsed week as a file: the footage of every channel, and what held it there.
type WeekFile struct {
	Format   string            `json:"format"`
	Site     string            `json:"site"`
	From     string            `json:"from"`
	Days     int               `json:"days"`
	Number   uint64            `json:"number"`
	Channels []WeekFileChannel `json:"channels"`
}

// WeekFileChannel is the footage of one channel.
type WeekFileChannel struct {
	ID       string            `json:"id"`
	Name     string            `json:"name"`
	Segments []WeekFileSegment `json:"segments"`
}

// WeekFileSegment is a stretch of footage.
type WeekFileSegment struct {
	From      time.Time `json:"from"`
	To        time.Time `json:"to"`
	Layer     string    `json:"layer"` // base, event or button
	Duty      string    `json:"duty"`
	Megabytes float64   `json:"megabytes"`
	Causes    []string  `json:"causes,omitempty"` // in words
}

// mostCauses of a segment are named.
const mostCauses = 20

// WriteWeekJSON writes the stretches of footage of every channel as JSON.
func WriteWeekJSON(ctx context.Context, r *rehearse.Rehearsal) ([]byte, error) {
	p := r.Plan()
	out := WeekFile{Format: WeekFormat, Site: p.Site.Name, From: r.Ask.From.String(), Days: r.Ask.Days, Number: r.Ask.Seed,
		Channels: []WeekFileChannel{}}
	for i := range r.Segments {
		c := WeekFileChannel{ID: p.Channels[i].ID, Name: p.Channels[i].Name, Segments: []WeekFileSegment{}}
		for k, s := range r.Segments[i] {
			if k%looksAgain == 0 && ctx.Err() != nil {
				return nil, ctx.Err()
			}
			seg := WeekFileSegment{From: r.Moment(s.From), To: r.Moment(s.To), Layer: "base", Duty: s.Duty, Megabytes: s.Kbit / 8000}
			switch {
			case s.Button:
				seg.Layer = "button"
			case s.Event:
				seg.Layer = "event"
			}
			for _, n := range s.Causes[:min(mostCauses, len(s.Causes))] {
				seg.Causes = append(seg.Causes, r.What(n))
			}
			c.Segments = append(c.Segments, seg)
		}
		out.Channels = append(out.Channels, c)
	}
	return json.MarshalIndent(out, "", " ")
}
