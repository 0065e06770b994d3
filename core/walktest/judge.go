package walktest

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// Seen is what was seen of a walk. Seconds are since the walker started.
type Seen struct {
	Walk   string      `json:"walk" maxLength:"200" doc:"Id of the walk"`
	Minute week.Minute `json:"minute" minimum:"0" maximum:"10079" doc:"When it was walked, minutes since Monday 00:00 by the site's clocks"`
	Sign   *float64    `json:"sign,omitempty" minimum:"-3600" maximum:"7200" doc:"When the sign came"`
	NoSign bool        `json:"noSign,omitempty" doc:"Whether the walker was out of view before any sign came"`
	Out    *float64    `json:"out,omitempty" minimum:"0" maximum:"7200" doc:"When the walker was out of view"`
	First  *float64    `json:"first,omitempty" minimum:"-7200" maximum:"14400" doc:"When the footage, or the mark in it, begins by the recorder's clock, its error taken off"`
	Last   *float64    `json:"last,omitempty" minimum:"-7200" maximum:"14400" doc:"When it ends"`
	NoShot bool        `json:"noShot,omitempty" doc:"Whether there is no footage of it, or no mark in it"`
}

// Says tells whether anything was seen that speaks for or against a fault.
func (s *Seen) Says() bool {
	return s.Sign != nil || s.NoSign || s.First != nil || s.Last != nil || s.NoShot
}

// Likely is a fault with its chance.
type Likely struct {
	Fault  Fault   `json:"fault" enum:"asPlanned,off,untied,deaf,hours,size,wait,noAreas,strange,turned,mirrored,pre,post,clock,else"`
	Chance float64 `json:"chance" minimum:"0" maximum:"1"`
	Words  string  `json:"words" doc:"With the likeliest size of it"`
	Speaks string  `json:"speaks,omitempty" doc:"The figure that speaks for it"`
	Case   int     `json:"case" doc:"The likeliest of the camera's cases of this fault"`
}

// misread is the density of a slip: anywhere within two minutes.
const misread = 1.0 / 120

func normal(x, deviation float64) float64 {
	return math.Exp(-x*x/(2*deviation*deviation)) / (deviation * math.Sqrt(2*math.Pi))
}

// read is the chance of reading a time, or none of it where told is nil and none is true, if want is what there is.
func read(told *float64, none bool, want *float64, deviation float64) float64 {
	switch {
	case told == nil && !none:
		return 1
	case told == nil && want == nil:
		return 1 - Slip
	case told == nil:
		return Slip
	case want == nil:
		return Slip * misread
	}
	return (1-Slip)*normal(*told-*want, deviation) + Slip*misread
}

// likelihood is the chance of what was seen, if a case shows want.
func likelihood(w *Walk, misses float64, f Fault, want Shown, s *Seen) float64 {
	if f == Else {
		return anything(s)
	}
	first, last, tap, ends := s.First, s.Last, TapSeconds, ReadSeconds
	if w.Free {
		// The first second is told from the sign, the last one from when the walker was out of view; without these nothing is.
		tap, ends = math.Hypot(TapSeconds, FreeSeconds), math.Hypot(TapSeconds, ReadSeconds)
		first, last = since(s.First, s.Sign), since(s.Last, s.Out)
	}
	of := func(want Shown) float64 {
		l := read(s.Sign, s.NoSign, want[Sign], tap)
		if s.NoShot {
			return l * read(nil, true, want[First], ends)
		}
		return l * read(first, false, want[First], ends) * read(last, false, want[Last], ends)
	}
	if want[Sign] == nil && want[First] == nil {
		return of(want)
	}
	return (1-misses)*of(want) + misses*of(Shown{})
}

func since(t, from *float64) *float64 {
	if t == nil || from == nil {
		return nil
	}
	d := *t - *from
	return &d
}

// anything is the chance of what was seen if nothing is known of what there is.
func anything(s *Seen) float64 {
	l := 1.0
	if s.Sign != nil {
		l *= 0.5 * misread
	} else if s.NoSign {
		l *= 0.5
	}
	if s.NoShot {
		return l * 0.5
	}
	for _, t := range []*float64{s.First, s.Last} {
		if t != nil {
			l *= misread
		}
	}
	return l
}

// Posterior is the chance of every case after what was seen. Walks that the camera does not have say nothing.
func (c *Camera) Posterior(list []Seen) []float64 {
	out := make([]float64, len(c.Cases))
	total := 0.0
	for k := range c.Cases {
		out[k] = c.Cases[k].Weight
		for i := range list {
			if w := c.Walk(list[i].Walk); w != nil {
				out[k] *= likelihood(w, c.Misses, c.Cases[k].Fault, w.Shows[c.At(list[i].Minute)][k], &list[i])
			}
		}
		total += out[k]
	}
	if total <= 0 {
		return out
	}
	for k := range out {
		out[k] /= total
	}
	return out
}

// ByFault adds the chances of cases up, in the order of [Priors].
func (c *Camera) ByFault(chances []float64) []float64 { return byFault(c.faults(), chances) }

// faults are the places in [Priors] of the cases' faults.
func (c *Camera) faults() []int {
	out := make([]int, len(c.Cases))
	for k := range c.Cases {
		out[k] = slices.IndexFunc(Priors, func(p Prior) bool { return p.Fault == c.Cases[k].Fault })
	}
	return out
}

func byFault(faults []int, chances []float64) []float64 {
	out := make([]float64, len(Priors))
	for k, f := range faults {
		out[f] += chances[k]
	}
	return out
}

// Judge says what is likely after what was seen, the likeliest first: what is above [Told], and at least one.
func (c *Camera) Judge(list []Seen) []Likely {
	chances := c.Posterior(list)
	out := []Likely{}
	for f, chance := range c.ByFault(chances) {
		best := -1
		for k := range c.Cases {
			if c.Cases[k].Fault == Priors[f].Fault && (best < 0 || chances[k] > chances[best]) {
				best = k
			}
		}
		if best >= 0 {
			out = append(out, Likely{Priors[f].Fault, chance, c.Cases[best].Words, "", best})
		}
	}
	slices.SortStableFunc(out, func(a, b Likely) int { return cmp.Compare(b.Chance, a.Chance) })
	n := 1
	for n < len(out) && out[n].Chance >= Told {
		n++
	}
	out = out[:min(n, len(out))]
	for k := range out {
		out[k].Speaks = c.speaks(out[k].Case, list)
	}
	return out
}

// evidence is the figure that speaks most for a case until now.
type evidence struct {
	most  float64
	words string
}

// nearer considers a time that was seen: how much nearer it is to what the case shows than to the plan.
func (e *evidence) nearer(name string, told, seen, planned *float64, deviation float64, more string) {
	if seen == nil || planned == nil || told == nil {
		return
	}
	if gain := (math.Abs(*seen-*planned) - math.Abs(*seen-*told)) / deviation; gain > e.most {
		e.most, e.words = gain, fmt.Sprintf("%s at %s, where the plan has %s.%s", name, inSeconds(*seen), inSeconds(*planned), more)
	}
}

// inSeconds is a time as people read it.
func inSeconds(t float64) string { return strings.Replace(fmt.Sprintf("%.1f s", t), "-", "−", 1) }

// enough is how much speaks for a case that shows something where the plan shows nothing, or the other way round.
const enough = 3

func (e *evidence) is(so bool, words string) {
	if so && e.most < enough {
		e.most, e.words = enough, words
	}
}

// speaks is the figure that speaks for a case: of what was seen, what is farthest from the plan and nearer to the case.
func (c *Camera) speaks(at int, list []Seen) string {
	e := evidence{most: 1}
	for i := range list {
		s := &list[i]
		w := c.Walk(s.Walk)
		if w == nil || at == 0 {
			continue
		}
		situation := c.At(s.Minute)
		planned, told := w.Shows[situation][0], w.Shows[situation][at]
		more := ""
		if s.Sign != nil && len(w.Track) > 0 && *s.Sign <= w.Seconds && *s.Sign >= 0 {
			p := pointAt(w.Track, *s.Sign)
			more = plan.Say(" There the walker is %.1f m away, %.2g %% of the picture.", p.Metres, p.Percent)
		}
		first, last := s.First, s.Last
		if w.Free {
			first, last = since(first, s.Sign), since(last, s.Out)
		}
		e.nearer("The sign came", told[Sign], s.Sign, planned[Sign], TapSeconds, more)
		e.nearer("Footage begins", told[First], first, planned[First], ReadSeconds, "")
		e.nearer("Footage ends", told[Last], last, planned[Last], ReadSeconds, "")
		e.is(s.NoSign && planned[Sign] != nil && told[Sign] == nil, "No sign came, where the plan has one.")
		e.is(s.NoShot && planned[First] != nil && told[First] == nil, "There is no footage, where the plan has some.")
		if s.Sign != nil {
			e.is(planned[Sign] == nil && told[Sign] != nil, plan.Say("The sign came at %.1f s, where the plan has none.%s", *s.Sign, more))
		}
	}
	return e.words
}

// pointAt is where a walker is at a moment; at the end of the track after it.
func pointAt(track []TrackPoint, t float64) TrackPoint {
	for k := 1; k < len(track); k++ {
		if t <= track[k].Seconds {
			a, b := track[k-1], track[k]
			u := (t - a.Seconds) / max(1e-9, b.Seconds-a.Seconds)
			mix := func(x, y float64) float64 { return x + u*(y-x) }
			return TrackPoint{t, mix(a.X, b.X), mix(a.Y, b.Y), mix(a.Metres, b.Metres), mix(a.Percent, b.Percent)}
		}
	}
	return track[len(track)-1]
}

// entropy of chances of faults, in bits.
func entropy(list []float64) (h float64) {
	for _, p := range list {
		if p > 0 {
			h -= p * math.Log2(p)
		}
	}
	return h
}

// considered are the likeliest cases of which it is asked what the next walk would show; the others are too unlikely to matter.
const considered = 24

// Next is the walk after which the faults are expected to be surest, at a minute of the week, and by how many bits; nil where no
// walk tells a twentieth of a bit. It takes what each of the likeliest cases would show, without an error, and asks what would be
// known then.
func (c *Camera) Next(list []Seen, m week.Minute) (best *Walk, bits float64) {
	chances := c.Posterior(list)
	faults := c.faults()
	now := entropy(byFault(faults, chances))
	order := make([]int, len(chances))
	for k := range order {
		order[k] = k
	}
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(chances[b], chances[a]) })
	order = order[:min(considered, len(order))]
	situation := c.At(m)
	for k := range c.Walks {
		w := &c.Walks[k]
		expected, all := 0.0, 0.0
		for _, truth := range order {
			if c.Cases[truth].Fault == Else {
				continue
			}
			seen := wouldSee(w, m, w.Shows[situation][truth])
			then := make([]float64, len(chances))
			total := 0.0
			for j := range chances {
				then[j] = chances[j] * likelihood(w, c.Misses, c.Cases[j].Fault, w.Shows[situation][j], &seen)
				total += then[j]
			}
			for j := range then {
				then[j] /= total
			}
			expected += chances[truth] * entropy(byFault(faults, then))
			all += chances[truth]
		}
		if all > 0 {
			if gain := now - expected/all; gain > bits+1e-9 {
				best, bits = w, gain
			}
		}
	}
	if bits < 0.05 {
		return nil, 0
	}
	return best, bits
}

// wouldSee is what is seen of what a walk shows, without an error.
func wouldSee(w *Walk, m week.Minute, shown Shown) Seen {
	s := Seen{Walk: w.ID, Minute: m, Sign: shown[Sign], NoSign: shown[Sign] == nil, First: shown[First], Last: shown[Last],
		NoShot: shown[First] == nil}
	if w.Free {
		const out = 20.0 // any time does
		at := out
		s.Out = &at
		if s.First != nil && s.Sign != nil {
			f, l := *s.Sign+*s.First, out+*s.Last
			s.First, s.Last = &f, &l
		}
	}
	return s
}
