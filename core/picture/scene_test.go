package picture

import (
	"math"
	"math/rand/v2"
	"testing"
)

var walker = Object{Width: 0.5, Height: 1.7, Speed: 1.4}

// level is a camera 3 m high that looks level, half a metre of a person's width at 10 m.
var level = Ground{Horizon: 0.5, Camera: 3, Focal: FocalOf(50), Aspect: 16.0 / 9}

// pinhole is what a camera with a tilt (radians, downward) makes of a point: metres ahead, to the right and up.
func pinhole(tilt, camera, focal, aspect, ahead, right, up float64) Point {
	deep := ahead*math.Cos(tilt) + (camera-up)*math.Sin(tilt)
	down := (camera-up)*math.Cos(tilt) - ahead*math.Sin(tilt)
	return Point{0.5 + focal*right/deep/aspect, 0.5 + focal*down/deep}
}

// TestTwoPeopleGiveTheGround sets people before known cameras, and asks for their height and horizon. Both are exact for
// a camera that looks level; a tilt lets it seem higher and what is near seem farther, by what stands here.
func TestTwoPeopleGiveTheGround(t *testing.T) {
	for tilt, within := range map[float64]float64{0: 1e-9, 2: 0.03, 5: 0.06, 8: 0.1} {
		for _, camera := range []float64{2.2, 3, 4.5, 7} {
			radians, focal, aspect := tilt*math.Pi/180, FocalOf(48), 16.0/9
			set := func(away float64) Person {
				feet, head := pinhole(radians, camera, focal, aspect, away, 0, 0), pinhole(radians, camera, focal, aspect, away, 0, PersonMetres)
				return Person{feet.Y, head.Y}
			}
			g, err := FromTwo(set(12), set(30), focal, aspect)
			if err != nil {
				t.Fatal(err)
			}
			horizon := 0.5 - focal*math.Tan(radians)
			near(t, "the height of the camera", g.Camera/camera, 1, within)
			near(t, "the horizon", g.Horizon, horizon, within/5)
			near(t, "how far the one stands", g.Distance(set(12).Feet)/12, 1, 1.5*within)
			one, err := FromOne(set(12), camera, focal, aspect)
			if err != nil {
				t.Fatal(err)
			}
			near(t, "the horizon by one person", one.Horizon, horizon, within/2)
		}
	}
}

func TestPeopleThatCannotBe(t *testing.T) {
	for _, pair := range [][2]Person{
		{{0.8, 0.5}, {0.6, 0.3}},   // equally tall
		{{0.8, 0.9}, {0.6, 0.5}},   // on the head
		{{0.8, 0.7}, {0.6, 0.3}},   // the nearer one is the smaller one
		{{0.8, 0.5}, {0.75, 0.74}}, // the horizon is below feet
	} {
		if g, err := FromTwo(pair[0], pair[1], 1, 1.5); err == nil && (g.Horizon >= min(pair[0].Feet, pair[1].Feet) || g.Camera <= 0) ||
			pair[0] == (Person{0.8, 0.5}) && pair[1].Feet == 0.6 && err == nil {
			t.Errorf("%v give %+v", pair, g)
		}
	}
}

// TestPlacesAndDistances goes from the picture to the ground and back, and holds boxes against the pinhole.
func TestPlacesAndDistances(t *testing.T) {
	for _, feet := range []Point{{0.2, 0.6}, {0.5, 0.9}, {0.9, 0.75}} {
		away, right := level.Place(feet)
		back := level.At(away, right)
		near(t, "x", back.X, feet.X, 1e-12)
		near(t, "y", back.Y, feet.Y, 1e-12)
		seen := pinhole(0, 3, level.Focal, level.Aspect, away, right, 0)
		near(t, "the pinhole's x", seen.X, feet.X, 1e-12)
		near(t, "the pinhole's y", seen.Y, feet.Y, 1e-12)
		box := level.Box(walker, feet)
		near(t, "the head", box.Top, pinhole(0, 3, level.Focal, level.Aspect, away, right, 1.7).Y, 1e-12)
		near(t, "the right side", box.Right, pinhole(0, 3, level.Focal, level.Aspect, away, right+0.25, 0).X, 1e-12)
	}
	if !math.IsInf(level.Distance(0.5), 1) || !math.IsInf(level.Distance(0.2), 1) {
		t.Error("the sky is near")
	}
	line := level.Reach(walker, 0.01)
	near(t, "a box on the line of reach", level.Box(walker, Point{0.5, line}).Area(), 0.01, 1e-12)
	near(t, "the reach of any size", level.Reach(walker, 0), level.Horizon, 0)
}

// TestWalksInClosedForm lets people come towards the camera and past it, and knows when they must be noticed.
func TestWalksInClosedForm(t *testing.T) {
	straight := Walk{Object: walker, Feet: []Point{level.At(30, 0), level.At(6, 0)}, Share: 1}
	everywhere := NewRegion(square(0, 0, 1, 1), nil)
	duration := 24 / 1.4
	for _, test := range []struct {
		what          string
		watch         Watch
		noticed, lost float64
	}{
		{"anything at once", Watch{everywhere, 0, 0}, 0, duration},
		{"after two seconds", Watch{everywhere, 0, 2}, 2, duration},
		{"longer than it lasts", Watch{everywhere, 0, 20}, -1, duration},
		// A person covers a share s at Z = f·√(w·h/(A·s)).
		{"when large enough", Watch{everywhere, 0.004, 0}, (30 - level.Focal*math.Sqrt(0.85/level.Aspect/0.004)) / 1.4, duration},
		{"when large enough for a second", Watch{everywhere, 0.004, 1}, 1 + (30-level.Focal*math.Sqrt(0.85/level.Aspect/0.004))/1.4, duration},
		{"never large enough", Watch{everywhere, 0.3, 0}, -1, -1},
		{"beside the way", Watch{NewRegion(square(0, 0, 0.3, 1), nil), 0, 0}, -1, -1},
		// The head is in the upper half while it is above the middle: never, as the camera hangs higher.
		{"above the horizon", Watch{NewRegion(square(0, 0, 1, 0.5), nil), 0, 0}, -1, -1},
	} {
		s := Play(level, []Watch{test.watch}, straight)
		near(t, "the walk", s.Seconds, duration, 1e-9)
		if test.noticed < 0 {
			if s.Noticed >= 0 || s.Area != -1 {
				t.Errorf("%s: noticed at %v", test.what, s.Noticed)
			}
		} else {
			near(t, test.what, s.Noticed, test.noticed+Step/2, Step/2+1e-9)
		}
		if test.lost < 0 && s.Lost >= 0 || test.lost >= 0 {
			near(t, test.what+", lost", s.Lost, test.lost, Step)
		}
		if Notices(level, []Watch{test.watch}, straight) != (s.Noticed >= 0) {
			t.Errorf("%s: two answers", test.what)
		}
	}
	halfway := level.FeetAt(straight, duration/2)
	away, _ := level.Place(halfway)
	near(t, "the middle of the way", away, 18, 1e-9)
	// Two areas, of which the second sees the first half of the way only, for too short a time.
	areas := []Watch{{everywhere, 0.004, 0}, {everywhere, 0, 30}}
	if s := Play(level, areas, straight); s.Area != 0 {
		t.Errorf("noticed by area %d", s.Area)
	}
}

// random scene of an area, a mask and walks.
func scene(random *rand.Rand) (Ground, Shape, []Shape, []Walk) {
	g := Ground{Horizon: 0.1 + 0.3*random.Float64(), Camera: 2.5 + 4*random.Float64(), Focal: FocalOf(30 + 40*random.Float64()),
		Aspect: 16.0 / 9}
	var walks []Walk
	for range 4 {
		w := Walk{Object: walker, Share: 1 + random.Float64()}
		for range 2 + random.IntN(3) {
			w.Feet = append(w.Feet, Point{random.Float64(), g.Horizon + 0.1 + (0.9-g.Horizon)*random.Float64()})
		}
		walks = append(walks, w)
	}
	return g, Shape{star(random, 8)}, []Shape{{star(random, 6)}}, walks
}

// TestMaskingAndSizesOnlyTakeAway: a mask, a larger smallest size, or a longer wait never notices more; and a scene
// twice as large on the ground, with everything twice as fast, is the same.
func TestMaskingAndSizesOnlyTakeAway(t *testing.T) {
	random := rand.New(rand.NewPCG(9, 9))
	lost := [3]int{}
	for range 150 {
		g, watched, ignored, walks := scene(random)
		open, masked := NewRegion(watched, nil), NewRegion(watched, ignored)
		size, wait := 0.0005+0.004*random.Float64(), 2*random.Float64()
		catch := func(r *Region, size, wait float64) float64 { return Catch(g, []Watch{{r, size, wait}}, walks) }
		first := catch(open, size, wait)
		for k, other := range []float64{catch(masked, size, wait), catch(open, 3*size, wait), catch(open, size, wait+2)} {
			if other > first+1e-12 {
				t.Errorf("case %d: %v notice more than %v", k, other, first)
			}
			if other < first-1e-12 {
				lost[k]++
			}
		}
		patch := star(random, 7)
		passes := func(r *Region, size float64) float64 {
			return Passes([]Watch{{r, size, 0}}, patch, 0.003, g.Aspect, 5, 0)
		}
		if passes(masked, 0.0005) > passes(open, 0.0005)+1e-12 || passes(open, 0.0025) > passes(open, 0.0005)+1e-12 {
			t.Error("more of a patch passes a mask or a larger size")
		}
		double := g
		double.Camera *= 2
		for _, w := range walks {
			big := w
			big.Object = Object{2 * walker.Width, 2 * walker.Height, 2 * walker.Speed}
			a, b := Play(g, []Watch{{masked, size, wait}}, w), Play(double, []Watch{{masked, size, wait}}, big)
			if math.Abs(a.Noticed-b.Noticed) > Step+1e-9 || math.Abs(a.Seconds-b.Seconds) > 1e-6*a.Seconds {
				t.Errorf("%+v, twice as large %+v", a, b)
			}
		}
	}
	for k, n := range lost {
		if n < 5 {
			t.Errorf("case %d took something away in %d scenes", k, n)
		}
	}
}

// TestWhatPassesOfAPatch counts places in closed form.
func TestWhatPassesOfAPatch(t *testing.T) {
	patch := Polygon{{0, 0}, {1, 0}, {1, 1}, {0, 1}}
	half := []Watch{{NewRegion(square(0, 0, 0.5, 1), nil), 0.0001, 0}}
	// A blob of 0.0004 is 0.02 wide at an aspect of 1; a quarter of it is inside up to 0.005 beyond the edge.
	near(t, "half a picture", Passes(half, patch, 0.0004, 1, 5, 0), 0.505, 0.03)
	near(t, "all of it", Passes([]Watch{{NewRegion(Shape{patch}, nil), 0, 0}}, patch, 0.0004, 1, 5, 0), 1, 1e-9)
	near(t, "too small", Passes([]Watch{{NewRegion(Shape{patch}, nil), 0.01, 0}}, patch, 0.0004, 1, 5, 0), 0, 0)
	near(t, "for two seconds more", Passes([]Watch{{NewRegion(Shape{patch}, nil), 0, 3}}, patch, 0.0004, 1, 5, 1), math.Exp(-2.0/5), 1e-9)
	near(t, "nothing watched", Passes(nil, patch, 0.0004, 1, 5, 0), 0, 0)
	near(t, "no walks", Catch(level, nil, nil), 1, 0)
}

// BenchmarkCorner is one corner that moves: two walks and a patch over three areas of 14 corners, made anew.
func BenchmarkCorner(b *testing.B) {
	random := rand.New(rand.NewPCG(1, 1))
	g, _, _, walks := scene(random)
	shapes := []Shape{{star(random, 14)}, {star(random, 14)}, {star(random, 12)}}
	ignored := []Shape{{star(random, 14)}, {star(random, 14)}}
	patch := star(random, 10)
	for b.Loop() {
		var areas []Watch
		for _, s := range shapes {
			areas = append(areas, Watch{NewRegion(s, ignored), 0.002, 1})
		}
		for _, w := range walks[:2] {
			Play(g, areas, w)
		}
		Passes(areas, patch, 0.002, g.Aspect, 5, 1)
	}
}

func TestAWalkThatNeverEndsIsNeverNoticed(t *testing.T) {
	g := Ground{Horizon: 0.5, Camera: 3, Focal: 1, Aspect: 1}
	everywhere := []Watch{{Region: NewRegion(Shape{{{0, 0}, {1, 0}, {1, 1}, {0, 1}}}, nil)}}
	person := Object{Width: 0.5, Height: 1.7, Speed: 1}
	for name, feet := range map[string][]Point{
		"above the horizon":   {{0.5, 0.9}, {0.5, 0.4}},
		"all above":           {{0.5, 0.1}, {0.6, 0.2}},
		"too long":            {{0.5, 0.9}, {0.5, 0.5001}},
		"just short enough":   {{0.5, 0.9}, {0.5, 0.50496}},
		"an ordinary one way": {{0.5, 0.9}, {0.5, 0.6}},
	} {
		w := Walk{Object: person, Feet: feet, Share: 1}
		if got, want := Notices(g, everywhere, w), g.Seconds(w) <= MostSeconds; got != want {
			t.Errorf("%s: noticed %v; it takes %v s", name, got, g.Seconds(w))
		}
	}
}
