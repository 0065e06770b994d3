package estimate

import (
	"cmp"
	"slices"

	"wakefield.example/core/resolve"
	"wakefield.example/core/storage"
	"wakefield.example/core/week"
)

// DiskUse is where the disk goes, in a mean day. Stills are in neither list.
type DiskUse struct {
	Duties                []DutyUse   `json:"duties" doc:"By what was decided, most first"`
	Hours                 [24]float64 `json:"hours" doc:"GB a day by the hour of the day"`
	StillsGigabytesPerDay float64     `json:"stillsGigabytesPerDay"`
}

// DutyUse is what is written while a duty holds.
type DutyUse struct {
	ID              string  `json:"id"`
	Name            string  `json:"name"`
	GigabytesPerDay float64 `json:"gigabytesPerDay"`
	HoursPerWeek    float64 `json:"hoursPerWeek" doc:"For which it holds, of all channels"`
	Channels        int     `json:"channels" doc:"On which it does"`
}

// DiskUse adds up what all channels write by duty and by hour of the day.
func (s *Result) DiskUse() DiskUse {
	out := DiskUse{Duties: []DutyUse{}}
	by := make(map[string]*DutyUse)
	for i := range s.plan.Channels {
		out.StillsGigabytesPerDay += float64(s.stillBytes(i) / storage.GB)
		if s.plan.Channels[i].NoCamera {
			continue
		}
		seen := make(map[string]bool)
		duties := s.Duties(i)
		for run, id := range duties.Runs() {
			u := by[id]
			if u == nil {
				u = &DutyUse{ID: id, Name: id}
				if d := s.site.Duties[id]; d != nil {
					u.Name = d.Name
				}
				by[id] = u
			}
			if u.HoursPerWeek += float64(run.Minutes()) / 60; !seen[id] {
				seen[id] = true
				u.Channels++
			}
		}
		for _, b := range s.Week(i) {
			out.Hours[int(b.Span.From/week.Hour)%24] += float64(resolve.BytesOver(b.Total(), b.Span.Minutes()) / storage.GB / 7)
			by[duties.At(b.Span.From)].GigabytesPerDay += float64(resolve.BytesOver(b.Total(), b.Span.Minutes()) / storage.GB / 7)
		}
	}
	for _, u := range by {
		out.Duties = append(out.Duties, *u)
	}
	slices.SortFunc(out.Duties, func(a, b DutyUse) int {
		return cmp.Or(cmp.Compare(b.GigabytesPerDay, a.GigabytesPerDay), cmp.Compare(a.ID, b.ID))
	})
	return out
}
