package formats

import (
	"context"
	"errors"
	"slices"
	"strings"

	"wakefield.example/core/measured"
	"wakefield.example/core/plan"
	"wakefield.example/core/quantity"
)

// rates reads measured bitrates: a time, a channel, kbit/s.
func (r *foundReader) rates(ctx context.Context, data []byte, lines []line) error {
	l, heading, err := r.columns(lines)
	if err != nil {
		return err
	}
	at, unit := -1, 1.0
	for i := range lines[0].cells {
		if text := lines[0].cell(i); ratesHeading.MatchString(text) && i != l.Start && i != l.Channel {
			at = i
			if strings.Contains(strings.ToLower(text), "mb") {
				unit = 1000
			}
		}
	}
	if at < 0 {
		return errors.New("no column has bitrates: its heading says kbps or Mbit/s")
	}
	var habit quantity.Habit
	for _, line := range lines {
		habit.Learn(line.cell(at))
	}
	layout := stampOf(l.Layout)
	return r.eachLine(ctx, data, heading, func(line line) {
		moment, err := layout.parse(line.cell(l.Start), r.ask.Zone)
		if err != nil {
			r.bad(line, l.Columns[l.Start], "not a time written "+layout.name, line.cell(l.Start))
			return
		}
		text, err := habit.Plain(line.cell(at))
		if err != nil {
			r.bad(line, l.Columns[at], err.Error(), line.cell(at))
			return
		}
		kbps, err := quantity.Read(text, "kbit/s")
		if err != nil || kbps < 0 || kbps*unit > 1e6 {
			r.bad(line, l.Columns[at], "not a bitrate", line.cell(at))
			return
		}
		k := r.channel(line.cell(l.Channel))
		r.span(dateOf(moment.In(r.ask.Zone)), dateOf(moment.In(r.ask.Zone)))
		if id := r.Channels[k].Channel; id != "" {
			r.rate(id).AddRates(moment, kbps*unit, r.ask.Zone)
		}
		r.Channels[k].Says = plan.Count(r.rows[k], "hour")
	})
}

// rate is the list of a channel's bitrates.
func (r *foundReader) rate(id string) *measured.Rates {
	k := slices.IndexFunc(r.Data.Rates, func(m measured.Rates) bool { return m.Channel == id })
	if k < 0 {
		k = len(r.Data.Rates)
		r.Data.Rates = append(r.Data.Rates, measured.Rates{Channel: id})
	}
	return &r.Data.Rates[k]
}

// columns finds the columns of a table of times.
func (r *foundReader) columns(lines []line) (*Log, bool, error) {
	l, err := newLog(lines, "", r.ask.Zone, nil)
	if err != nil {
		return nil, false, err
	}
	layout, heading, err := l.recognise(lines, r.ask.Zone)
	if err != nil {
		return nil, false, err
	}
	l.Layout, r.Layout = layout.name, layout.name
	body := lines
	if heading {
		body = lines[1:]
	}
	l.meanings(body, nil, heading)
	if l.Channel < 0 {
		l.Channel = r.channelColumn(l, body)
	}
	if l.Channel < 0 {
		r.Notes = append(r.Notes, "No column tells of which channel this is: say whose it is.")
	}
	r.Notes = append(r.Notes, l.Notes...)
	return l, heading, nil
}

// channelColumn is a column most of whose texts are channels of the plan, whatever it is called; -1 for none.
func (r *foundReader) channelColumn(l *Log, body []line) int {
	sample := body[:min(len(body), 200)]
	for at := range l.Columns {
		if at == l.Start || at == l.End || at == l.Kind || ratesHeading.MatchString(l.Columns[at]) {
			continue
		}
		known := 0
		for _, line := range sample {
			if channelOf(r.plan, line.cell(at)) != "" {
				known++
			}
		}
		if 5*known >= 4*len(sample) {
			return at
		}
	}
	return -1
}

func stampOf(name string) stamp {
	for _, s := range stamps {
		if s.name == name {
			return s
		}
	}
	return stamp{"seconds or milliseconds since 1970", unixSeconds}
}

// eachLine calls f with every line but the heading and empty ones.
func (r *foundReader) eachLine(ctx context.Context, data []byte, heading bool, f func(line)) error {
	each, _, err := logBudget.open(ctx, data)
	if err != nil {
		return err
	}
	for l, err := range each {
		if err != nil {
			return err
		}
		if heading || strings.TrimSpace(strings.Join(l.cells, "")) == "" {
			heading = false
			continue
		}
		f(l)
	}
	return nil
}
