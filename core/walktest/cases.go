package walktest

import (
	"math"
	"slices"

	"wakefield.example/core/picture"
	"wakefield.example/core/plan"
)

// Grids over what nobody knows. Sizes and waits are spread evenly over what the priors say: a smallest size is off by ×⅛ to ×10,
// evenly in its logarithm; a shortest motion by ½ to 12 s; a clock by 1½ to 10 s, or by a minute or an hour.
var (
	sizeFactors = spread(28, func(u float64) float64 { return math.Exp(math.Log(0.125) + u*math.Log(80)) })
	sizesUnset  = spread(20, func(u float64) float64 { return 0.1 * math.Exp(u*math.Log(100)) }) // %, where any size is noticed
	waits       = spread(24, func(u float64) float64 { return 0.5 + 11.5*u })
	pres        = []float64{0, 1, 2, 3, 5, 7, 10, 15, 20, 30}
	posts       = []float64{0, 2, 5, 10, 15, 20, 30, 45, 60, 90, 120}
	clocks      = clockGrid()
	turns       = spread(9, func(u float64) float64 { return -0.3 + 0.6*u })
	tilts       = spread(5, func(u float64) float64 { return -0.15 + 0.3*u })
)

func spread(n int, at func(u float64) float64) []float64 {
	out := make([]float64, n)
	for k := range out {
		out[k] = at((float64(k) + 0.5) / float64(n))
	}
	return out
}

func clockGrid() (out []float64) {
	for _, sign := range []float64{-1, 1} {
		for _, s := range spread(17, func(u float64) float64 { return 1.5 + 8.5*u }) {
			out = append(out, sign*s)
		}
		out = append(out, sign*60, sign*3600)
	}
	return out
}

// same tells of sizes that are too near to what is planned to be called a fault.
func same(factor float64) bool { return factor > 0.85 && factor < 1.18 }

// variant is one way in which walks are seen: by which areas, with the boxes changed how.
type variant struct {
	areas  []picture.Watch
	change func([]picture.Box) []picture.Box // nil for not
}

// maker makes the cases of a camera.
type maker struct {
	plan     *plan.Plan
	channel  *plan.Channel
	areas    []picture.Watch
	limits   []limits
	known    bool // whether the ground is known
	cases    []Case
	sees     []sees // of each case
	variants []variant
}

// sees is how a case changes what is shown.
type sees struct {
	variant int
	limits  []limits
	all     bool // whether all areas watch, whatever the hour: those of the case are others
	noSign  bool
	hours   bool // whether detection is off when it should be on, and on when it should be off
	noShot  bool // whether nothing is recorded on motion
	pre     float64
	post    float64
	clock   float64
	any     bool // anything may be seen
}

func (m *maker) plain() sees {
	return sees{limits: m.limits, pre: m.channel.PreSeconds, post: m.channel.PostSeconds}
}

// add adds the cases of a fault, which share its chance evenly.
func (m *maker) add(f Fault, n int, make func(k int) (Case, sees, bool)) {
	var cases []Case
	var list []sees
	for k := range n {
		if c, s, ok := make(k); ok {
			c.Fault = f
			cases, list = append(cases, c), append(list, s)
		}
	}
	for k := range cases {
		for _, p := range Priors {
			if p.Fault == f {
				cases[k].Weight = p.Chance / float64(len(cases))
			}
		}
	}
	m.cases, m.sees = append(m.cases, cases...), append(m.sees, list...)
}

func (m *maker) one(f Fault, words string, s sees) {
	m.add(f, 1, func(int) (Case, sees, bool) { return Case{Words: words}, s, true })
}

// make makes all cases of the camera. Others are areas of other channels by their ids.
func (m *maker) make(others []Other) {
	plain := m.plain()
	m.variants = []variant{{areas: m.areas}}
	m.one(AsPlanned, "As planned.", plain)
	off, hours := plain, plain
	off.noSign = true
	hours.hours = true
	m.one(Off, "Detection is off.", off)
	m.one(Hours, "Detection is on in other hours than planned.", hours)
	unheard := func(f Fault, words string) {
		// Some recorders show a sign of motion that they do not record, others show none.
		m.add(f, 2, func(k int) (Case, sees, bool) {
			s := plain
			s.noShot, s.noSign = true, k == 1
			return Case{Words: words}, s, true
		})
	}
	unheard(Untied, "Its motion is not tied to recording.")
	unheard(Deaf, "The duty that is entered for this hour ignores motion.")
	m.seconds()
	if m.known {
		m.sizes()
		m.pictures(others)
	}
	anything := plain
	anything.any = true
	m.one(Else, "None of these explains it.", anything)
	all := 0.0
	for _, c := range m.cases {
		all += c.Weight
	}
	for k := range m.cases {
		m.cases[k].Weight /= all
	}
}

// seconds are faults of durations and of the clock.
func (m *maker) seconds() {
	plain, c := m.plain(), m.channel
	base := leastSeconds(c)
	m.add(Wait, len(waits), func(k int) (Case, sees, bool) {
		s := plain
		s.limits = make([]limits, len(m.limits))
		for a, l := range m.limits {
			s.limits[a] = limits{l.smallest, l.seconds + waits[k]}
		}
		return Case{Value: round(base+waits[k], 0.1), Words: plan.Say("Shortest motion is about %.2g s, not %v s.", base+waits[k], base)}, s, true
	})
	m.add(Pre, len(pres), func(k int) (Case, sees, bool) {
		s := plain
		s.pre = pres[k]
		return Case{Value: s.pre, Words: plan.Say("Pre-event time is %v s, not %v s.", s.pre, c.PreSeconds)}, s, math.Abs(s.pre-plain.pre) >= 1
	})
	m.add(Post, len(posts), func(k int) (Case, sees, bool) {
		s := plain
		s.post = posts[k]
		return Case{Value: s.post, Words: plan.Say("Post-event time is %v s, not %v s.", s.post, c.PostSeconds)}, s,
			math.Abs(s.post-plain.post) >= 1
	})
	m.add(Clock, len(clocks), func(k int) (Case, sees, bool) {
		s := plain
		s.clock = clocks[k]
		side := "ahead"
		if s.clock < 0 {
			side = "behind"
		}
		return Case{Value: round(s.clock, 0.1), Words: plan.Say("The recorder’s clock is about %.2g s %s of what was entered.",
			math.Abs(s.clock), side)}, s, true
	})
}

// leastSeconds is the shortest motion that any watched area of a channel notices.
func leastSeconds(c *plan.Channel) float64 {
	least := math.Inf(1)
	for _, a := range c.Detection.List() {
		if !a.Ignore {
			least = min(least, plan.Or(a.MinSeconds, c.Detection.MinSeconds))
		}
	}
	if math.IsInf(least, 1) {
		return c.Detection.MinSeconds
	}
	return least
}

// sizes are other smallest sizes.
func (m *maker) sizes() {
	plain := m.plain()
	scaled := func(of func(l limits) float64) sees {
		s := plain
		s.limits = make([]limits, len(m.limits))
		for a, l := range m.limits {
			s.limits[a] = limits{of(l), l.seconds}
		}
		return s
	}
	least := 0.0
	for _, l := range m.limits {
		if l.smallest > 0 && (least == 0 || l.smallest < least) {
			least = l.smallest
		}
	}
	if least == 0 {
		m.add(Size, len(sizesUnset), func(k int) (Case, sees, bool) {
			return Case{Value: round(sizesUnset[k], 0.01), Words: plan.Say("A smallest size is set, about %.2g %% of the picture; none is planned.",
				sizesUnset[k])}, scaled(func(limits) float64 { return sizesUnset[k] / 100 }), true
		})
		return
	}
	m.add(Size, len(sizeFactors), func(k int) (Case, sees, bool) {
		f := sizeFactors[k]
		side := "larger"
		if f < 1 {
			side = "smaller"
		}
		return Case{Value: 100 * least * f, Words: plan.Say("Smallest size is set %s than planned, about %.2g %% for %.2g %% of the picture.",
			side, 100*least*f, 100*least)}, scaled(func(l limits) float64 { return l.smallest * f }), !same(f)
	})
}

// Other is another channel whose areas a camera may have been given.
type Other struct {
	ID, Called string
	areas      []picture.Watch
	channel    *plan.Channel
}

// mostOthers are asked of each camera.
const mostOthers = 4

// pictures are faults of where the areas are.
func (m *maker) pictures(others []Other) {
	plain := m.plain()
	if m.channel.Detection.Drawn() {
		whole := plain
		whole.variant, whole.all = m.variant(variant{areas: []picture.Watch{everywhere}}), true
		whole.limits = []limits{{0, m.channel.Detection.MinSeconds}}
		m.one(NoAreas, "No areas are entered: the whole picture is watched.", whole)
		others = slices.DeleteFunc(slices.Clone(others), func(o Other) bool {
			return o.ID == m.channel.ID ||
				plan.SameScene(o.channel, m.channel)
		})
		others = others[:min(len(others), mostOthers)]
		m.add(Strange, len(others), func(k int) (Case, sees, bool) {
			s := plain
			s.variant, s.all, s.limits = m.variant(variant{areas: others[k].areas}), true, limitsOf(others[k].areas)
			return Case{Of: others[k].ID, Words: "It has the areas of " + others[k].Called + "."}, s, true
		})
		flipped := plain
		flipped.variant = m.variant(variant{m.areas, mirrored})
		m.one(Mirrored, "The picture is mirrored: left is right.", flipped)
	}
	m.add(Turned, len(turns)*len(tilts), func(k int) (Case, sees, bool) {
		right, down := turns[k%len(turns)], tilts[k/len(turns)]
		if math.Hypot(right, down) < 0.05 {
			return Case{}, sees{}, false
		}
		s := plain
		s.variant = m.variant(variant{m.areas, func(list []picture.Box) []picture.Box { return moved(list, right, down) }})
		return Case{Value: round(100*right, 1), Down: round(100*down, 1), Words: turnedWords(right, down)}, s, true
	})
}

func turnedWords(right, down float64) string {
	side, up := "right", "down"
	if right < 0 {
		side = "left"
	}
	if down < 0 {
		up = "up"
	}
	words := "The camera is turned: its picture has moved "
	switch {
	case math.Abs(down) < 0.02:
		return words + plan.Say("about %.0f %% to the %s.", 100*math.Abs(right), side)
	case math.Abs(right) < 0.02:
		return words + plan.Say("about %.0f %% %s.", 100*math.Abs(down), up)
	}
	return words + plan.Say("about %.0f %% to the %s and %.0f %% %s.", 100*math.Abs(right), side, 100*math.Abs(down), up)
}

func (m *maker) variant(v variant) int {
	m.variants = append(m.variants, v)
	return len(m.variants) - 1
}

var everywhere = picture.Watch{Region: picture.NewRegion(picture.Shape{{{X: 0, Y: 0}, {X: 1, Y: 0}, {X: 1, Y: 1}, {X: 0, Y: 1}}}, nil)}

func limitsOf(areas []picture.Watch) []limits {
	out := make([]limits, len(areas))
	for a := range areas {
		out[a] = limits{areas[a].Smallest, areas[a].Seconds}
	}
	return out
}

// round rounds to a decimal step, so that it is written in few digits.
func round(x, to float64) float64 {
	steps := math.Round(1 / to)
	return math.Round(x*steps) / steps
}
