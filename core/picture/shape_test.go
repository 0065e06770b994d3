package picture

import (
	"math"
	"math/rand/v2"
	"testing"

	"wakefield.example/core/seeded"
)

func square(left, top, right, bottom float64) Shape {
	return Shape{{{left, top}, {right, top}, {right, bottom}, {left, bottom}}}
}

func near(t *testing.T, what string, got, want, within float64) {
	t.Helper()
	if math.Abs(got-want) > within || math.IsNaN(got) {
		t.Errorf("%s is %v, want %v", what, got, want)
	}
}

// TestRegionsInClosedForm holds regions and their parts within boxes against what a pencil gives.
func TestRegionsInClosedForm(t *testing.T) {
	triangle := Shape{{{0, 0}, {1, 0}, {0, 1}}}
	bent := Shape{{{0, 0}, {0.4, 0}, {0.4, 0.4}, {0.2, 0.1}, {0, 0.4}}} // an M
	tests := []struct {
		what    string
		watched Shape
		ignored []Shape
		area    float64
		box     Box
		within  float64
	}{
		{"a square", square(0.2, 0.2, 0.6, 0.6), nil, 0.16, Box{0.5, 0.5, 0.9, 0.9}, 0.01},
		{"half a picture", triangle, nil, 0.5, Box{0.5, 0, 1, 0.5}, 0.125},
		{"half a picture, all of it", triangle, nil, 0.5, Box{-1, -1, 2, 2}, 0.5},
		{"a bent shape", bent, nil, 0.4*0.4 - 0.4*0.3/2, Box{0.1, 0, 0.3, 1}, 0.035},
		{"a box beside it", bent, nil, 0.1, Box{0.5, 0.5, 0.6, 0.6}, 0},
		{"less a square inside", square(0, 0, 1, 1), []Shape{square(0.25, 0.25, 0.75, 0.75)}, 0.75, Box{0, 0, 0.5, 0.5}, 0.25 - 0.0625},
		{"less two that overlap", square(0, 0, 1, 1), []Shape{square(0, 0, 0.5, 0.5), square(0.25, 0.25, 0.75, 0.75)}, 1 - 0.25 - 0.25 + 0.0625,
			Box{0, 0, 1, 0.5}, 0.5 - 0.25 - 0.0625},
		{"less one that reaches beyond it", square(0.4, 0.4, 0.6, 0.6), []Shape{triangle}, 0.02, Box{0.5, 0.5, 0.6, 0.6}, 0.01},
		{"less all of it", square(0.1, 0.1, 0.2, 0.2), []Shape{square(0, 0, 1, 1)}, 0, Box{0, 0, 1, 1}, 0},
		{"painted cells", Cells(4, 2, func(c, r int) bool { return c < 2 && r == 0 || c == 3 }), nil, 4.0 / 8,
			Box{0, 0.25, 1, 0.75}, 0.125 + 0.125},
	}
	for _, test := range tests {
		r := NewRegion(test.watched, test.ignored)
		near(t, test.what, r.Area(), test.area, 1e-12)
		near(t, test.what+" within the box", r.Within(test.box), test.within, 1e-12)
	}
	near(t, "a point", NewRegion(triangle, nil).Within(Box{0.2, 0.2, 0.2, 0.2}), 0, 0)
}

// star is an outline of n corners round a middle, not convex and not self-crossing.
func star(random *rand.Rand, n int) Polygon {
	x, y := 0.2+0.6*random.Float64(), 0.2+0.6*random.Float64()
	var p Polygon
	for i := range n {
		angle := 2 * math.Pi * (float64(i) + 0.8*random.Float64()) / float64(n)
		far := 0.05 + 0.15*random.Float64()
		p = append(p, Point{x + far*math.Cos(angle), y + far*math.Sin(angle)})
	}
	return p
}

// contains tells whether a point is inside an outline, by a ray to the right.
func contains(p Polygon, q Point) (inside bool) {
	for i, a := range p {
		b := p[(i+1)%len(p)]
		if (a.Y > q.Y) != (b.Y > q.Y) && q.X < a.X+(b.X-a.X)*(q.Y-a.Y)/(b.Y-a.Y) {
			inside = !inside
		}
	}
	return inside
}

// TestRegionsOfAnyShape holds the exact pieces against counted dots, and asks that masking more never leaves more.
func TestRegionsOfAnyShape(t *testing.T) {
	random := rand.New(rand.NewPCG(5, 2))
	for range 60 {
		watched, first, second := star(random, 9), star(random, 7), star(random, 12)
		if watched.Check() != nil || first.Check() != nil || second.Check() != nil {
			t.Fatal("a star is no outline")
		}
		box := Box{0.2 * random.Float64(), 0.2 * random.Float64(), 0.4 + 0.6*random.Float64(), 0.4 + 0.6*random.Float64()}
		r := NewRegion(Shape{watched}, []Shape{{first}, {second}})
		const n = 500
		all, within := 0, 0
		for i := range n * n {
			q := Point{(float64(i%n) + 0.5) / n, (float64(i/n) + 0.5) / n}
			if contains(watched, q) && !contains(first, q) && !contains(second, q) {
				all++
				if q.X > box.Left && q.X < box.Right && q.Y > box.Top && q.Y < box.Bottom {
					within++
				}
			}
		}
		near(t, "the region", r.Area(), float64(all)/n/n, 0.002)
		near(t, "the region within a box", r.Within(box), float64(within)/n/n, 0.002)
		one := NewRegion(Shape{watched}, []Shape{{first}})
		if r.Within(box) > one.Within(box)+1e-12 || one.Area() > math.Abs(watched.area())+1e-12 {
			t.Error("masking more leaves more")
		}
		halves := r.Within(Box{box.Left, box.Top, 0.3, box.Bottom}) + r.Within(Box{0.3, box.Top, box.Right, box.Bottom})
		near(t, "two halves of a box", halves, r.Within(box), 1e-12)
	}
}

func TestOutlinesThatAreNone(t *testing.T) {
	for want, p := range map[string]Polygon{
		"an area has at least three corners":                 {{0, 0}, {1, 1}},
		"its sides cross each other":                         {{0, 0}, {1, 1}, {1, 0}, {0, 1}},
		"two corners after each other are at the same place": {{0, 0}, {0, 0}, {1, 0}, {0, 1}},
		"there is nothing inside it":                         {{0, 0}, {0.5, 0.5}, {1, 1}},
	} {
		if err := p.Check(); err == nil || err.Error() != want {
			t.Errorf("%v: %v, want %s", p, err, want)
		}
	}
	if err := (Polygon{{0, 0}, {0.5, 0.2}, {1, 0}, {1, 1}, {0, 1}}).Check(); err != nil {
		t.Error(err)
	}
}

// FuzzRegion asks that no shape gives a region that is no number, or larger than itself.
func FuzzRegion(fuzz *testing.F) {
	f := seeded.Of(fuzz, 2000)
	f.Add(0.1, 0.1, 0.9, 0.2, 0.5, 0.8, 0.3, 0.3, 0.6, 0.6)
	f.Add(0.0, 0.0, 1.0, 0.0, 0.0, 1.0, 0.0, 0.0, 1.0, 1.0)
	f.Fuzz(func(t *testing.T, ax, ay, bx, by, cx, cy, left, top, right, bottom float64) {
		p := Polygon{{ax, ay}, {bx, by}, {cx, cy}}
		for _, v := range []float64{ax, ay, bx, by, cx, cy, left, top, right, bottom} {
			if !(v >= 0 && v <= 1) {
				t.Skip()
			}
		}
		if p.Check() != nil || left > right || top > bottom {
			t.Skip()
		}
		box := Box{left, top, right, bottom}
		whole := NewRegion(Shape{p}, nil)
		less := NewRegion(Shape{p}, []Shape{square(left, top, right, bottom)})
		near(t, "the area", whole.Area(), math.Abs(p.area()), 1e-9)
		near(t, "what a mask leaves", less.Area(), whole.Area()-whole.Within(box), 1e-9)
		if whole.Within(box) > min(whole.Area(), box.Area())+1e-9 || less.Within(box) > 1e-9 {
			t.Errorf("%v within a box of %v", whole.Within(box), box.Area())
		}
	})
}
