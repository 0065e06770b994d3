package rehearse

import (
	"context"
	"hash/fnv"
	"math/rand/v2"
	"slices"

	"wakefield.example/core/parallel"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// luck draws numbers by nothing but whole numbers, comparisons and single sums, products and quotients, which every machine
// rounds alike.
type luck struct{ pcg *rand.PCG }

// newLuck is the luck of one source of events in one week.
func newLuck(seed uint64, source string) luck {
	h := fnv.New64a()
	h.Write([]byte(source))
	return luck{rand.NewPCG(seed, h.Sum64())}
}

// u is uniform from 0 to below 1.
func (l luck) u() float64 { return float64(l.pcg.Uint64()>>11) / (1 << 53) }

// exp is exponential with mean 1, by von Neumann's comparisons of uniform numbers.
func (l luck) exp() float64 {
	for whole := 0.0; ; whole++ {
		first := l.u()
		last, odd := first, true
		for {
			next := l.u()
			if next >= last {
				break
			}
			last, odd = next, !odd
		}
		if odd {
			return whole + first
		}
	}
}

// poisson is how many there are where mean are expected.
func (l luck) poisson(mean float64) (n int) {
	for at := l.exp(); at < mean; at += l.exp() {
		n++
	}
	return n
}

// drawing draws all that happens.
type drawing struct {
	r     *Rehearsal
	rates map[string][]rated // of activities

	perActivity map[string]float64 // how many events are expected of each

	only func(source) bool // which sources are drawn; nil for all
}

// rated is a stretch of time with one rate of events.
type rated struct {
	from, to Ms
	perMs    float64
}

func newDrawing(r *Rehearsal) *drawing {
	d := &drawing{r: r, rates: make(map[string][]rated, len(r.plan.Activities)), perActivity: make(map[string]float64, len(r.plan.Activities))}
	for i := range r.plan.Activities {
		a := &r.plan.Activities[i]
		rates := a.Rates()
		var list []rated
		on := func(s *plan.SpecialDay) week.Steps[float64] {
			if s != nil && s.ActivityDay != nil {
				return week.Repeated(rates, *s.ActivityDay)
			}
			return rates
		}
		over(r.clock, on, func(from, to Ms, perHour float64, special *plan.SpecialDay) {
			if special != nil && special.RateFactor != nil {
				perHour *= *special.RateFactor
			}
			if perHour > 0 {
				list = append(list, rated{from, to, perHour / float64(Hour)})
			}
		})
		d.rates[a.ID] = list
		for _, r := range list {
			d.perActivity[a.ID] += r.perMs * float64(r.to-r.from)
		}
	}
	return d
}

// each calls f with every source of events that an activity describes.
func (d *drawing) each(f func(s source)) {
	p := d.r.plan
	for i := range p.Channels {
		c := &p.Channels[i]
		if c.NoCamera {
			continue
		}
		if c.Activity != "" {
			f(source{Wanted, i, 0, c.Activity, c.ID})
		}
		if c.Nuisance != "" {
			f(source{Nuisance, i, 0, c.Nuisance, c.ID})
		}
		if c.Scene != nil {
			for k := range c.Scene.Patches {
				f(source{Patch, i, k, c.Scene.Patches[k].Activity, c.ID + "/" + c.Scene.Patches[k].ID})
			}
		}
	}
	for i := range p.AlarmInputs {
		f(source{Alarm, -1, i, p.AlarmInputs[i].Activity, p.AlarmInputs[i].ID})
	}
}

// source is a source of events that an activity describes.
type source struct {
	kind        Source
	channel, at int
	activity    string
	id          string
}

// draw fills in the events of the rehearsal, in order. It fails with the error of the context.
func (d *drawing) draw(ctx context.Context) error {
	var sources []source
	d.each(func(s source) {
		if d.only == nil || d.only(s) {
			sources = append(sources, s)
		}
	})
	lists := make([][]Event, len(sources))
	notices := make([]*notice, len(d.r.plan.Channels))
	for _, s := range sources {
		if s.channel >= 0 && notices[s.channel] == nil {
			notices[s.channel] = newNotice(d.r, s.channel)
		}
	}
	parallel.Do(len(sources), func(k int) {
		lists[k] = d.events(ctx, sources[k], notices)
		slices.SortStableFunc(lists[k], order)
	})
	rare := d.rare()
	slices.SortStableFunc(rare, order)
	all := inOrder(ctx, append(lists, rare))
	if err := ctx.Err(); err != nil {
		return err
	}
	r := d.r
	r.Events = all
	r.own, r.other = make([][]int, len(r.plan.Channels)), make(map[Source][][]int)
	r.other[Alarm], r.other[Button] = make([][]int, len(r.plan.AlarmInputs)), make([][]int, len(r.plan.CallButtons))
	r.other[Lost], r.other[Tampered] = make([][]int, len(r.plan.Channels)), make([][]int, len(r.plan.Channels))
	r.other[UplinkLost] = make([][]int, 1)
	for n := range all {
		switch e := &all[n]; e.Source {
		case Wanted, Nuisance, Patch:
			r.own[e.Channel] = append(r.own[e.Channel], n)
		case Lost, Tampered:
			r.other[e.Source][e.Channel] = append(r.other[e.Source][e.Channel], n)
		default:
			r.other[e.Source][e.At] = append(r.other[e.Source][e.At], n)
		}
	}
	return ctx.Err()
}

// events draws what one source does.
func (d *drawing) events(ctx context.Context, s source, notices []*notice) (out []Event) {
	a := d.r.plan.Activity(s.activity)
	l := newLuck(d.r.Ask.Seed, string(s.kind)+" "+s.id+" "+s.activity)
	size := 1.0
	if a.Groups != nil {
		size = a.Groups.Size
	}
	drawn := 0
	event := func(start Ms) {
		drawn++
		e := Event{Source: s.kind, Channel: s.channel, At: s.at, Walk: -1, Start: start}
		e.End = start + max(1, Ms(l.exp()*a.MeanSeconds*float64(Second)))
		if e.Trigger = start; s.channel >= 0 {
			notices[s.channel].of(&e, l)
		}
		if e.Start < d.r.clock.end {
			out = append(out, e)
		}
	}
	if n := d.perActivity[s.activity]; n > 1000 {
		out = make([]Event, 0, int(1.05*n))
	}
	left := l.exp() // until the next one, in expected numbers
	for _, r := range d.rates[s.activity] {
		per := r.perMs / size
		for at := 0.0; !stopped(ctx, drawn); {
			room := float64((float64(r.to-r.from) - at) * per) // rounded by itself: some machines would add to a product unrounded
			if left > room {
				left -= room
				break
			}
			at += left / per
			left = l.exp()
			start := r.from + Ms(at)
			if a.Groups == nil {
				event(start)
				continue
			}
			for range 1 + l.poisson(size-1) {
				event(start + Ms(l.u()*a.Groups.WithinSeconds*float64(Second)))
			}
		}
	}
	return out
}

// rare draws buttons, lost pictures and tampering, which happen at any hour alike.
func (d *drawing) rare() (out []Event) {
	p, c := d.r.plan, d.r.clock
	moments := func(source string, perDay float64, f func(Ms)) {
		l := newLuck(d.r.Ask.Seed, source)
		if perDay <= 0 {
			return
		}
		every := float64(Day) / perDay
		for at := float64(c.begin) + float64(l.exp()*every); at < float64(c.end); at += float64(l.exp() * every) {
			f(Ms(at))
		}
	}
	for i := range p.CallButtons {
		b := &p.CallButtons[i]
		moments("button "+b.ID, b.PressesPerWeek/7, func(at Ms) {
			out = append(out, Event{Source: Button, Channel: -1, At: i, Walk: -1, Start: at, End: at, Trigger: at})
		})
	}
	seen := make(map[plan.When]bool)
	for i := range p.Effects {
		w := p.Effects[i].When
		id, kind := w.Lost, Lost
		if w.Tampered != "" {
			id, kind = w.Tampered, Tampered
		}
		if w.UplinkLost {
			kind = UplinkLost
		}
		if key := (plan.When{Lost: w.Lost, Tampered: w.Tampered, UplinkLost: w.UplinkLost}); !w.Counted() || seen[key] {
			continue
		} else {
			seen[key] = true
		}
		channel := slices.IndexFunc(p.Channels, func(c plan.Channel) bool { return c.ID == id })
		moments(string(kind)+" "+id, w.PerMonth*12/365.25, func(at Ms) {
			out = append(out, Event{Source: kind, Channel: channel, Walk: -1, Start: at, End: at, Trigger: at})
		})
	}
	return out
}
