package year

import (
	"slices"

	"wakefield.example/core/footage"
	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
	"wakefield.example/core/storage"
	"wakefield.example/core/video"
	"wakefield.example/core/week"
)

// profiles are what channels write in each hour of a week on special days of a kind.
type profiles struct {
	site  *resolve.Site
	kinds map[special]bool
	made  map[profileOf]*[storage.HoursOfWeek]storage.Bytes
	play  map[playOf][]footage.Shares

	inputs []resolve.Input
	played []*resolve.Played
	events bool // whether only what events make them write

	likeDay map[week.Weekday][]resolve.Input // channels to which every day happens what happens on one
}

// on are the channels with what happens on one day of the week on all of them.
func (p *profiles) on(day week.Weekday) []resolve.Input {
	if p.likeDay[day] == nil {
		like := *p.site.Plan
		like.Activities = make([]plan.Activity, len(like.Activities))
		for i, a := range p.site.Plan.Activities {
			like.Activities[i] = a.As(day)
		}
		p.likeDay[day] = resolve.Of(&like, nil).Inputs
	}
	return p.likeDay[day]
}

type profileOf struct {
	channel int
	kind    special
}

// playOf tells plays apart that channels which see the same may share.
type playOf struct {
	seen  *footage.Shares
	kind  special
	shape string
}

func newProfiles(s *Site, d *dates) *profiles {
	p := &profiles{site: s.Site, kinds: make(map[special]bool), made: make(map[profileOf]*[storage.HoursOfWeek]storage.Bytes),
		play: make(map[playOf][]footage.Shares), likeDay: make(map[week.Weekday][]resolve.Input), inputs: s.Site.Inputs, played: s.Played}
	for _, kind := range d.different {
		p.kinds[kind] = true
	}
	if s.earlier != nil && s.Site.HearsAsBefore(s.earlier.written.site) {
		e := s.earlier.written
		for of, hourly := range e.made {
			// A special day may have duties that the channel's own week has not: all of it has to be as it was.
			if i := of.channel; p.kinds[of.kind] && s.Played[i] == e.played[i] && s.Site.Plan.Channels[i] == e.site.Plan.Channels[i] {
				p.made[of] = hourly
			}
		}
	}
	return p
}

// of is what a channel writes in each hour of a week whose days are all of a kind.
func (p *profiles) of(channel int, kind special) *[storage.HoursOfWeek]storage.Bytes {
	if kind == (special{}) {
		return &p.played[channel].Hourly
	}
	key := profileOf{channel, kind}
	if got := p.made[key]; got != nil {
		return got
	}
	in := p.inputs[channel]
	if in.Empty {
		return &p.played[channel].Hourly
	}
	c := &p.site.Plan.Channels[channel]
	duties := in.Duties
	switch {
	case kind.week != "":
		duties = p.site.Weeks[kind.week]
	case kind.useDay > 0:
		duties = week.Repeated(in.Duties, week.Weekday(kind.useDay-1))
	}
	in.Regimes = p.site.Regimes(c, duties)
	if p.events {
		in.Regimes = eventsOnly(in.Regimes)
	}
	if kind.asDay > 0 {
		in.Happening = p.on(week.Weekday(kind.asDay - 1))[channel].Happening
	}
	if kind.factor != 0 {
		in.Happening = in.Happening.Times(max(kind.factor, 0))
	}
	share := playOf{&p.played[channel].Shares[0], kind, shapeOf(&in)}
	shares, ok := p.play[share]
	if !ok {
		shares = footage.Play(in.Happening, in.Regimes)
		p.play[share] = shares
	}
	made := resolve.NewPlayed(&in, shares)
	p.made[key] = &made.Hourly
	return &made.Hourly
}

// shapeOf is the same for regimes under which time divides in the same way.
func shapeOf(in *resolve.Input) string {
	shape := make([]byte, 0, 4*len(in.Regimes))
	for _, r := range in.Regimes {
		bits := byte(r.Value.Admit)
		for i, yes := range []bool{r.Value.HasBase, r.Value.Whole, in.Happening.Moves(r.Value)} {
			if yes {
				bits |= 16 << i
			}
		}
		shape = append(shape, byte(r.From), byte(r.From>>8), bits)
	}
	return string(shape)
}

// ofEvents are the same of some channels with nothing written when nothing happens.
func (p *profiles) ofEvents(channels []int) *profiles {
	out := *p
	out.events, out.inputs, out.played = true, slices.Clone(p.inputs), slices.Clone(p.played)
	for _, i := range channels {
		if in := &out.inputs[i]; !in.Empty {
			in.Regimes = eventsOnly(in.Regimes)
			out.played[i] = resolve.NewPlayed(in, footage.Play(in.Happening, in.Regimes))
		}
	}
	return &out
}

func eventsOnly(regimes week.Steps[footage.Regime]) week.Steps[footage.Regime] {
	return week.Map(regimes, func(r footage.Regime) footage.Regime {
		r.HasBase, r.Whole, r.Base = false, false, video.Cost{}
		return r
	})
}
