package formats

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"wakefield.example/core/measured"
	"wakefield.example/core/week"
)

// oldestIn takes a line apart that says how far footage goes back: whose, and the date; nil where it does not.
func oldestIn(text string) []string {
	if m := saidOldest.FindStringSubmatch(text); m != nil {
		return m
	}
	return pairOldest.FindStringSubmatch(text)
}

// datesBehind tells whether the first line says a date.
func datesBehind(lines []line) bool {
	m := oldestIn(strings.Join(lines[0].cells, ", "))
	_, err := readSpoken(m[2], week.Date{Year: 2026, Month: 12, Day: 31})
	return err == nil
}

// manyTimes tells whether most lines have a moment with seconds or minutes in a cell of its own, as logs have.
func manyTimes(lines []line) bool {
	n := 0
	for _, l := range lines {
		for i := range l.cells {
			if slices.ContainsFunc(stamps, func(s stamp) bool { _, err := s.parse(l.cell(i), time.UTC); return err == nil }) {
				n++
				break
			}
		}
	}
	return 2*n >= len(lines)
}

// oldest reads how far footage goes back: a table with a heading, or a sentence a line.
func (r *foundReader) oldest(ctx context.Context, data []byte) error {
	lines, _, err := tableBudget.all(ctx, data)
	if err != nil {
		return err
	}
	date, who, back := -1, -1, -1
	for i := range lines[0].cells {
		switch text := strings.ToLower(lines[0].cell(i)); {
		case oldestHeading.MatchString(text) && len(lines) > 1 && !saidOldest.MatchString(text):
			back = i
		case channelHeading.MatchString(text) && !numbered.MatchString(text):
			who = i
		case strings.Contains(text, "date") || strings.Contains(text, "looked") || text == "on":
			date = i
		}
	}
	if back >= 0 && who >= 0 {
		for _, l := range lines[1:] {
			on := ""
			if date >= 0 {
				on = l.cell(date)
			}
			r.oldestLine(l, l.cell(who), l.cell(back), on)
		}
		return r.anyOldest()
	}
	for _, l := range lines {
		text := strings.Join(strings.Fields(strings.Join(l.cells, ", ")), " ")
		if strings.TrimSpace(text) == "" {
			continue
		}
		m := oldestIn(text)
		if m == nil {
			r.bad(l, "", `neither a table with "channel" and "oldest", nor "channel 3 goes back to 12 Oct"`, text)
			continue
		}
		r.oldestLine(l, strings.Trim(m[1], " ,;:"), m[2], "")
	}
	return r.anyOldest()
}

func (r *foundReader) anyOldest() error {
	if len(r.Channels) == 0 && len(r.Bad) > 0 {
		return fmt.Errorf("line %d: %s", r.Bad[0].Line, r.Bad[0].Reason)
	}
	return nil
}

func (r *foundReader) oldestLine(l line, who, back, on string) {
	if strings.TrimSpace(who+back) == "" {
		return
	}
	looked := r.ask.On.In(r.ask.Zone)
	if on = strings.TrimSpace(on); on != "" {
		d, err := readSpoken(on, dateOf(looked))
		if err != nil {
			r.bad(l, "date", err.Error(), on)
			return
		}
		if !d.timed {
			d.clock = 12 * 60
		}
		looked = d.date.At(d.clock, r.ask.Zone)
	}
	d, err := readSpoken(back, dateOf(looked))
	if err != nil {
		r.bad(l, "oldest", err.Error(), back)
		return
	}
	within := 1.0 / 24
	if !d.timed {
		d.clock, within = 12*60, 1
	}
	oldest := d.date.At(d.clock, r.ask.Zone)
	if !oldest.Before(looked) {
		r.bad(l, "oldest", "it is not before "+looked.Format("2 Jan 2006 15:04"), back)
		return
	}
	k := r.channel(who)
	c := &r.Channels[k]
	c.Says = fmt.Sprintf("back to %s, %.1f days before %s", oldest.Format("2 Jan 2006"), looked.Sub(oldest).Hours()/24,
		looked.Format("2 Jan 2006"))
	r.span(d.date, dateOf(looked))
	if c.Channel != "" {
		r.Data.Oldest = append(r.Data.Oldest, measured.Oldest{Channel: c.Channel, On: looked, Oldest: oldest, Within: within})
	}
}
