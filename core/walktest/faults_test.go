package walktest

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"wakefield.example/core/picture"
	"wakefield.example/core/plan"
)

// yard is a made-up plan of cameras with areas, smallest sizes and walks.
func yard(t testing.TB, random *rand.Rand, channels int) *plan.Plan {
	p := &plan.Plan{Format: plan.Format, Name: "yard", Site: plan.Site{Name: "Yard", TimeZone: "UTC"},
		Recorders: []plan.Recorder{{ID: "r", Name: "Recorder", Channels: 16,
			Pools: []plan.Pool{{ID: "p", Name: "All", Layout: "span", Drives: []plan.DriveGroup{{Count: 1, Terabytes: 4}}}}}},
		Duties: []plan.Duty{{ID: "m", Name: "On motion", Event: &plan.Event{Stream: plan.Main, On: []plan.Trigger{plan.Motion}}}}}
	for i := range channels {
		horizon, camera := 0.05+0.25*random.Float64(), 2.6+2*random.Float64()
		g := picture.Ground{Horizon: horizon, Camera: camera, Focal: picture.FocalOf(40 + 20*random.Float64()), Aspect: 16.0 / 9}
		feet := func(away, right float64) plan.Point {
			at := g.At(away, right)
			return plan.Point{at.X, at.Y}
		}
		near := g.Distance(0.9)
		person := func(away float64) plan.ScenePerson {
			f := g.At(away, 0)
			return plan.ScenePerson{X: 0.5, FeetY: f.Y, HeadY: f.Y - picture.PersonMetres*(f.Y-horizon)/camera}
		}
		c := plan.Channel{ID: fmt.Sprintf("c%d", i), Number: i + 1, Name: fmt.Sprintf("Gate %d", i+
			1), Recorder: "r", Pool: "p", PreSeconds: 5, PostSeconds: 20,
			Streams: plan.Streams{Main: &plan.Stream{Codec: "h264", Width: 1920, Height: 1080, FPS: 15, GOPSeconds: 2,
				Rate: plan.Rate{Kind: "constant", Kbps: 2000, Known: "measured"}}},
			Week: plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "m"}}}
		side := 0.2 + 0.5*random.Float64()
		list := []plan.Area{{ID: "a", Name: "Yard", Points: []plan.Point{{side - 0.2, horizon + 0.05 + 0.1*random.Float64()},
			{side + 0.3, horizon + 0.1}, {side + 0.35, 0.95}, {side - 0.15, 1}},
			Smallest: &plan.Smallest{Percent: 0.3 + 0.8*random.Float64(), Of: "picture"}}}
		c.Detection = plan.Detection{On: true, MinSeconds: float64(random.IntN(3)) * 0.5, Areas: &plan.Areas{List: list}}
		across := plan.Walk{ID: "across", Name: "Across", Object: "person", SharePercent: 50,
			Points: []plan.Point{feet(1.3*near, -3), feet(1.5*near, 4)}}
		towards := plan.Walk{ID: "towards", Name: "Towards the camera", Object: "person", SharePercent: 50,
			Points: []plan.Point{feet(4*near+6, 1), feet(2*near, -0.5), feet(near, 0.6)}}
		c.Scene = &plan.Scene{VerticalDegrees: 2 * math.Atan(0.5/g.Focal) * 180 / math.Pi, People: []plan.ScenePerson{person(1.4 * near),
			person(3 * near)},
			Walks: []plan.Walk{towards, across}}
		p.Channels = append(p.Channels, c)
	}
	return p
}

// truth draws a fault by the table, with a size of its own, which no grid knows.
func truth(b *builder, random *rand.Rand) (Fault, sees) {
	u := random.Float64()
	at := -1
	for k := range b.cases {
		if u -= b.cases[k].Weight; u < 0 {
			at = k
			break
		}
	}
	if at < 0 {
		at = len(b.cases) - 1
	}
	f, how := b.cases[at].Fault, b.sees[at]
	switch f {
	case Size:
		factor := math.Exp(math.Log(0.125) + random.Float64()*math.Log(80))
		if same(factor) {
			factor = 2.5
		}
		how.limits = []limits{{b.limits[0].smallest * factor, b.limits[0].seconds}}
	case Wait:
		how.limits = []limits{{b.limits[0].smallest, b.limits[0].seconds + 0.5 + 11.5*random.Float64()}}
	case Clock:
		if math.Abs(how.clock) < 20 {
			how.clock = math.Copysign(1.5+8.5*random.Float64(), how.clock)
		}
	case Turned:
		right, down := -0.3+0.6*random.Float64(), -0.15+0.3*random.Float64()
		if math.Hypot(right, down) < 0.05 {
			right = 0.2
		}
		how.variant = b.variant(variant{b.areas, func(list []picture.Box) []picture.Box { return moved(list, right, down) }})
	}
	return f, how
}

// showing is what a camera with some way of seeing shows on its walks.
func showing(b *builder, how sees) map[string]Shown {
	only := *b
	only.out = &Camera{}
	only.cases, only.sees = []Case{{Fault: AsPlanned}}, []sees{how}
	only.walks()
	out := make(map[string]Shown)
	for _, w := range only.out.Walks {
		out[w.ID] = w.Shows[0][0]
	}
	return out
}

// watched is what a person with a phone sees of it, with the errors of people.
func watched(w *Walk, shown Shown, misses float64, f Fault, random *rand.Rand) Seen {
	s := Seen{Walk: w.ID}
	if f == Else {
		if random.IntN(2) == 0 {
			at := 120*random.Float64() - 10
			s.Sign = &at
		} else {
			s.NoSign = true
		}
		if s.NoShot = random.IntN(2) == 0; !s.NoShot {
			first, last := 120*random.Float64()-10, 120*random.Float64()-10
			s.First, s.Last = &first, &last
		}
		return s
	}
	if random.Float64() < misses {
		shown = Shown{}
	}
	slip := func() bool { return random.Float64() < Slip }
	read := func(t *float64, deviation float64) *float64 {
		at := 0.0
		if slip() || t == nil {
			at = 120*random.Float64() - 10
		} else {
			at = *t + deviation*random.NormFloat64()
		}
		return &at
	}
	if sees := shown[Sign] != nil; sees != slip() {
		s.Sign = read(shown[Sign], TapSeconds)
	} else {
		s.NoSign = true
	}
	if has := shown[First] != nil; has != slip() {
		s.First, s.Last = read(shown[First], ReadSeconds), read(shown[Last], ReadSeconds)
	} else {
		s.NoShot = true
	}
	return s
}

// apart tells whether what two cases show on some walks differs by more than errors can hide.
func apart(seen []Seen, a, b map[string]Shown) bool {
	distance := 0.0
	for i := range seen {
		w := seen[i].Walk
		for k, deviation := range []float64{TapSeconds, ReadSeconds, ReadSeconds} {
			x, y := a[w][k], b[w][k]
			switch {
			case (x == nil) != (y == nil):
				return true
			case x != nil:
				distance += math.Pow((*x-*y)/deviation, 2)
			}
		}
	}
	return distance > 16
}

// TestFaultsAreFound draws faults from the table, has two walks watched with the errors of people, and asks what is the matter:
// the first walk is one of the plan's, the second the one that tells most. Of what can be told apart at all 85 % are named
// first, and what is given 80 % is true in 75 to 85 %.
func TestFaultsAreFound(t *testing.T) {
	random := rand.New(rand.NewPCG(31, 18))
	named, tellable, many := 0, 0, 0
	var given, right [10]float64
	for range 40 {
		p := yard(t, random, 3)
		others := othersOf(p)
		for i := range p.Channels {
			b, c := newBuilder(p, i)
			b.make(others)
			b.walks()
			c.Misses = 0.05
			cases, variants := len(b.cases), len(b.variants)
			for range 40 {
				fault, how := truth(b, random)
				seen, shown := twoWalks(c, showing(b, how), fault, random)
				b.cases, b.sees, b.variants = b.cases[:cases], b.sees[:cases], b.variants[:variants]
				for k, chance := range c.ByFault(c.Posterior(seen)) {
					bin := min(9, int(10*chance))
					given[bin] += chance
					if Priors[k].Fault == fault {
						right[bin]++
					}
				}
				many++
				if canTell(c, fault, shown, seen) {
					tellable++
					if c.Judge(seen)[0].Fault == fault {
						named++
					}
				}
			}
		}
	}
	t.Logf("of %d faults %d can be told apart, of which %d are named first", many, tellable, named)
	if share := float64(named) / float64(tellable); share < 0.85 || tellable < many/2 {
		t.Errorf("of %d faults, %d can be told apart, of which %.1f %% are named first", many, tellable, 100*share)
	}
	for bin := range given {
		t.Logf("%d0 to %d0 %%: %.0f expected, %.0f true", bin, bin+1, given[bin], right[bin])
	}
	about80 := (right[7] + right[8]) / (given[7] + given[8])
	if about80 < 0.75/0.8 || about80 > 0.85/0.8 || given[7]+given[8] < 150 {
		t.Errorf("of what is given 70 to 90 %%, %.0f were expected to be true and %.0f are", given[7]+given[8], right[7]+right[8])
	}
}

// twoWalks are what is seen of the first walk of the plan, and of the one that tells most then.
func twoWalks(c *Camera, shown map[string]Shown, fault Fault, random *rand.Rand) ([]Seen, map[string]Shown) {
	seen := []Seen{watched(&c.Walks[0], shown[c.Walks[0].ID], c.Misses, fault, random)}
	next, _ := c.Next(seen, 0)
	if next == nil {
		next = &c.Walks[1]
	}
	return append(seen, watched(next, shown[next.ID], c.Misses, fault, random)), shown
}

// canTell tells whether hardly anything else shows the same on the walks: cases of other faults that do weigh less than a tenth
// of what the fault does.
func canTell(c *Camera, fault Fault, shown map[string]Shown, seen []Seen) bool {
	if fault == Else {
		return false
	}
	own, alike := 0.0, 0.0
	for k := range c.Cases {
		switch f := c.Cases[k].Fault; f {
		case Else:
			continue
		case fault:
			own += c.Cases[k].Weight
			continue
		}
		other := make(map[string]Shown)
		for i := range seen {
			other[seen[i].Walk] = c.Walk(seen[i].Walk).Shows[0][k]
		}
		if !apart(seen, shown, other) {
			alike += c.Cases[k].Weight
		}
	}
	return alike < own/10
}

func BenchmarkCameras(b *testing.B) {
	p := yard(b, rand.New(rand.NewPCG(1, 2)), 64)
	for b.Loop() {
		if _, err := Of(context.Background(), p); err != nil {
			b.Fatal(err)
		}
	}
}
