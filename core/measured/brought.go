package measured

import (
	"slices"

	"wakefield.example/core/week"
)

// Joined is all that was brought in, oldest first, as one. Of one channel the newest log of a kind counts for its days, and the
// newest bitrates, settings and oldest footage; counts tells of each whether anything of it does.
func Joined(list []Data) (all Data, counts []bool) {
	counts = make([]bool, len(list))
	type setting struct{ channel, column string }
	rates, oldest, settings := make(map[string]bool), make(map[string]bool), make(map[setting]bool)
	for k, d := range slices.Backward(list) {
		for _, l := range d.Logs {
			covered := slices.ContainsFunc(all.Logs, func(o Log) bool {
				return o.Channel == l.Channel && o.Kind == l.Kind && o.From.Before(l.To()) && l.From.Before(o.To())
			})
			if !covered {
				all.Logs, counts[k] = append(all.Logs, l), true
			}
		}
		for _, r := range d.Rates {
			if !rates[r.Channel] {
				rates[r.Channel], counts[k] = true, true
				all.Rates = append(all.Rates, r)
			}
		}
		for _, o := range d.Oldest {
			if !oldest[o.Channel] {
				oldest[o.Channel], counts[k] = true, true
				all.Oldest = append(all.Oldest, o)
			}
		}
		for _, s := range d.Settings {
			if key := (setting{s.Channel, s.Column}); !settings[key] {
				settings[key], counts[k] = true, true
				all.Settings = append(all.Settings, s)
			}
		}
	}
	return all, counts
}

// Extent is of how many channels there is anything, and over which dates.
func (d *Data) Extent() (channels int, from, to *week.Date) {
	of := make(map[string]bool)
	add := func(channel string, first, last week.Date) {
		of[channel] = true
		if from == nil || first.Before(*from) {
			from = &first
		}
		if to == nil || to.Before(last) {
			to = &last
		}
	}
	for _, l := range d.Logs {
		add(l.Channel, l.From, l.To().Add(-1))
	}
	for _, r := range d.Rates {
		add(r.Channel, r.From, r.To)
	}
	for _, o := range d.Oldest {
		var first, last week.Date
		first.Year, first.Month, first.Day = o.Oldest.Date()
		last.Year, last.Month, last.Day = o.On.Date()
		add(o.Channel, first, last)
	}
	for _, s := range d.Settings {
		of[s.Channel] = true
	}
	return len(of), from, to
}
