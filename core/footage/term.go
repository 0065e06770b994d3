package footage

import (
	"math"

	"wakefield.example/core/activity"
	"wakefield.example/core/week"
)

// term is one source seen from the moment t of the sweep: the triggers that begin
// in its window, n = ∫ from t−post to t+pre of τ, and those still going on at
// t−post, the solution y of y′ = τ − y/d.
type term struct {
	role      role
	mean      int // index of d among the sweep's means
	d         float64
	pre, post float64
	triggers  activity.Intensity

	head, tail         int     // pieces of τ that hold t+pre and t−post
	nextHead, nextTail float64 // when t passes into the piece after each
	rateHead, rateTail float64
	n, y               float64
}

func newTerm(role role, mean int, src Source) term {
	in := src.Triggers.Intensity
	t := term{role: role, mean: mean, d: src.Triggers.Mean, pre: src.Pre, post: src.Post, triggers: in}

	ahead := math.Mod(src.Pre, week.Seconds)
	t.head = in.Index(ahead)
	t.nextHead = in.End(t.head) - ahead
	_, t.rateHead = in.Piece(t.head)

	behind := math.Mod(week.Seconds-math.Mod(src.Post, week.Seconds), week.Seconds)
	t.tail = in.Index(behind)
	t.nextTail = in.End(t.tail) - behind
	_, t.rateTail = in.Piece(t.tail)

	t.n = in.Count(-src.Post, src.Pre)
	t.y = goingOn(in, t.d, behind)
	return t
}

// goingOn is how many events of mean length d are going on at second t of the
// week, on average, when the week has repeated for ever.
func goingOn(in activity.Intensity, d, t float64) float64 {
	run := func(y, until float64) float64 {
		for i := range in.Len() {
			start, rate := in.Piece(i)
			if start >= until {
				break
			}
			full := rate * d
			y = full + (y-full)*math.Exp(-(min(in.End(i), until)-start)/d)
		}
		return y
	}
	// −Expm1 keeps its precision where a mean length is many weeks long.
	start := run(0, week.Seconds) / -math.Expm1(-week.Seconds/d)
	return run(start, t)
}

// addTo adds the term's shape behind the present edge to the curve of its role.
func (t *term) addTo(c *curve) {
	full := t.rateTail * t.d
	c.c += t.n + full
	c.slope += t.rateHead - t.rateTail
	c.gamma[t.mean] += t.y - full
}

// resting tells whether as many events go on as the intensity sustains.
func (t *term) resting() bool { return math.Abs(t.y-t.rateTail*t.d) < 1e-12 }

// advance goes length seconds on, no edge between; decay is exp(−length/d).
func (t *term) advance(length, decay float64) {
	full := t.rateTail * t.d
	t.n = max(0, t.n+(t.rateHead-t.rateTail)*length)
	t.y = full + (t.y-full)*decay
}

// pass enters the pieces that begin at moment now.
func (t *term) pass(now float64) {
	if t.nextHead <= now {
		t.head = (t.head + 1) % t.triggers.Len()
		start, rate := t.triggers.Piece(t.head)
		t.rateHead = rate
		t.nextHead += t.triggers.End(t.head) - start
	}
	if t.nextTail <= now {
		t.tail = (t.tail + 1) % t.triggers.Len()
		start, rate := t.triggers.Piece(t.tail)
		t.rateTail = rate
		t.nextTail += t.triggers.End(t.tail) - start
	}
}

// wanted follows the intensity of the events that matter.
type wanted struct {
	events activity.Intensity
	piece  int
	next   float64
	rate   float64
}

func newWanted(p activity.Process) wanted {
	if p.Intensity.Len() == 0 {
		return wanted{next: math.Inf(1)}
	}
	_, rate := p.Intensity.Piece(0)
	return wanted{p.Intensity, 0, p.Intensity.End(0), rate}
}

func (w *wanted) pass(now float64) {
	if w.next <= now && w.piece+1 < w.events.Len() {
		w.piece++
		_, w.rate = w.events.Piece(w.piece)
		w.next = w.events.End(w.piece)
	}
}
