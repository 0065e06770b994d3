package picture

import "math"

// Step is how finely walks are played, in seconds on the ground.
const Step = 0.1

// MostSeconds is how long a walk may take. None that takes longer is ever noticed.
const MostSeconds = 600

// Watch is a watched area with what is ignored taken out.
type Watch struct {
	*Region
	Smallest float64 // share of the picture that an object must cover inside it
	Seconds  float64 // how long it must, without a break, ≥ 0
}

// sees tells whether what is in a box is in sight.
func (w *Watch) sees(b Box) bool {
	covered := w.Within(b)
	return covered > 0 && covered >= w.Smallest
}

// Walk is a way that wanted things take over a picture.
type Walk struct {
	Object Object
	Feet   []Point // at least two, all below the horizon
	Share  float64 // of the wanted events, > 0
}

// Seconds is how long a walk takes; infinite where it leads above the horizon.
func (g Ground) Seconds(w Walk) float64 { p := newPath(g, w); return p.seconds() }

// Sighting is what becomes of one walk.
type Sighting struct {
	Seconds float64 // how long it takes
	Noticed float64 // when it is first noticed, seconds after it began; negative for never
	Area    int     // by which watched area; −1 for none
	Lost    float64 // when it was last in sight, seconds; negative for never
	Seen    int     // moments at which any area had it in sight
}

// path is a walk on the ground, by the time at which each of its points is passed.
type path struct {
	ground      Ground
	away, right []float64
	at          []float64 // seconds
}

func newPath(g Ground, w Walk) path {
	p := path{ground: g}
	for i, feet := range w.Feet {
		away, right := g.Place(feet)
		p.away, p.right = append(p.away, away), append(p.right, right)
		if i == 0 {
			p.at = append(p.at, 0)
			continue
		}
		p.at = append(p.at, p.at[i-1]+math.Hypot(away-p.away[i-1], right-p.right[i-1])/w.Object.Speed)
	}
	return p
}

func (p *path) seconds() float64 { return p.at[len(p.at)-1] }

// feet is where in the picture the walker is at a moment, given the leg that it is not before.
func (p *path) feet(t float64, leg *int) Point {
	for *leg < len(p.at)-2 && t > p.at[*leg+1] {
		*leg++
	}
	i, share := *leg, 0.0
	if d := p.at[i+1] - p.at[i]; d > 0 {
		share = min(1, (t-p.at[i])/d)
	}
	return p.ground.At(p.away[i]+share*(p.away[i+1]-p.away[i]), p.right[i]+share*(p.right[i+1]-p.right[i]))
}

// Pace is a walk by time, for whoever asks for one moment after the other.
type Pace struct {
	path
	leg int
}

// Pace follows a walk over the ground.
func (g Ground) Pace(w Walk) *Pace { return &Pace{path: newPath(g, w)} }

// Seconds is how long the walk takes; infinite where it leads above the horizon.
func (p *Pace) Seconds() float64 { return p.seconds() }

// Feet is where in the picture the walker is, seconds after the walk began; each moment that is asked for is not before the last.
func (p *Pace) Feet(seconds float64) Point { return p.feet(min(seconds, p.seconds()), &p.leg) }

// FeetAt is where in the picture the walker is, seconds after the walk began.
func (g Ground) FeetAt(w Walk, seconds float64) Point {
	p, leg := newPath(g, w), 0
	return p.feet(max(0, min(seconds, p.seconds())), &leg)
}

// Play follows a walk in steps of 0.1 s. It is noticed at the first moment at which one area has had it in sight for
// that area's shortest duration.
func Play(g Ground, areas []Watch, w Walk) Sighting { return play(g, areas, w, false) }

// Notices tells whether a walk is noticed; it plays no further.
func Notices(g Ground, areas []Watch, w Walk) bool { return play(g, areas, w, true).Noticed >= 0 }

func play(g Ground, areas []Watch, w Walk, justWhether bool) Sighting {
	p := newPath(g, w)
	s := Sighting{Seconds: p.seconds(), Noticed: -1, Area: -1, Lost: -1}
	since := make([]int, len(areas))      // the step since which each area has it in sight, counted from 1; 0 for not
	if !(s.Seconds <= MostSeconds+1e-9) { // also where it is no number
		return s
	}
	leg := 0
	for k := 0; Step*float64(k) <= s.Seconds+1e-9; k++ {
		t := Step * float64(k)
		box := g.Box(w.Object, p.feet(t, &leg))
		seen := false
		for a := range areas {
			if !areas[a].sees(box) {
				since[a] = 0
				continue
			}
			seen = true
			if since[a] == 0 {
				since[a] = k + 1
			}
			if s.Noticed < 0 && Step*float64(k+1-since[a]) >= areas[a].Seconds-1e-9 {
				s.Noticed, s.Area = t, a
				if justWhether {
					return s
				}
			}
		}
		if seen {
			s.Lost = t
			s.Seen++
		}
	}
	return s
}

// Catch is the share of walks, weighted by their shares, that are noticed; 1 where there are none. Shares count
// against each other: what comes by no walk is taken to be noticed as the walks are.
func Catch(g Ground, areas []Watch, walks []Walk) float64 {
	noticed, all := 0.0, 0.0
	for _, w := range walks {
		all += w.Share
		if Notices(g, areas, w) {
			noticed += w.Share
		}
	}
	if all == 0 {
		return 1
	}
	return noticed / all
}

// places is about how many places of a patch are looked at.
const places = 400

// Passes is the share of what moves in a patch that areas take notice of: of the places in it at which something that
// covers a share of the picture is in sight of an area, each by the chance that it lasts long enough there. What moves is
// as wide as it is high on the screen, and its middle is anywhere in the patch. Events last an exponential time with a
// mean, in seconds; detection waits for least seconds everywhere, an area may wait longer.
func Passes(areas []Watch, patch Polygon, blob, aspect, meanSeconds, least float64) float64 {
	whole := NewRegion(Shape{patch}, nil)
	if whole.Area() <= 0 {
		return 0
	}
	high := math.Sqrt(blob * aspect)
	wide := high / aspect
	passed, all := 0.0, 0.0
	whole.each(places, func(p Point, weight float64) {
		box := Box{p.X - wide/2, p.Y - high/2, p.X + wide/2, p.Y + high/2}
		best := 0.0
		for a := range areas {
			if areas[a].sees(box) {
				best = max(best, math.Exp(-max(0, areas[a].Seconds-least)/meanSeconds))
			}
		}
		passed += weight * best
		all += weight
	})
	return passed / all
}

// each calls f with about n places spread evenly over the region, in rows, each with the area it stands for.
func (r *Region) each(n int, f func(p Point, weight float64)) {
	side := math.Sqrt(r.area / float64(n))
	for _, t := range r.pieces {
		rows := int(math.Ceil((t.bottom - t.top) / side))
		for i := range rows {
			u := (float64(i) + 0.5) / float64(rows)
			left, right := t.left0+(t.left1-t.left0)*u, t.right0+(t.right1-t.right0)*u
			columns := int(math.Ceil((right - left) / side))
			for j := range columns {
				x := left + (right-left)*(float64(j)+0.5)/float64(columns)
				f(Point{x, t.top + (t.bottom-t.top)*u}, (t.bottom-t.top)/float64(rows)*(right-left)/float64(columns))
			}
		}
	}
}
