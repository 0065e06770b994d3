package walktest

import (
	"math"
	"slices"
	"strings"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// Status is how far a camera or a trial is.
type Status string

// Statuses.
const (
	Open    Status = "open"    // not walked yet
	Begun   Status = "begun"   // some of its walks are
	Right   Status = "right"   // as planned
	Differs Status = "differs" // it shows something else
	Again   Status = "again"   // to be walked again: the plan changed, or something was to be mended
	Left    Status = "left"    // it shows something else, and is left so with a reason
	None    Status = "none"    // there is nothing to walk
)

// Result is a walk that was walked.
type Result struct {
	Record
	Stale    bool    `json:"stale,omitempty" doc:"Whether the plan expects something else since"`
	Odd      string  `json:"odd,omitempty" doc:"Why it cannot be; it is kept and does not count"`
	SetAside *Record `json:"setAside,omitempty" doc:"Why it does not count"`
	Differ   []bool  `json:"differ" doc:"Of the sign, the first and the last second, whether it differs by more than errors explain"`
}

// Counts tells whether it counts.
func (r *Result) Counts() bool { return !r.Stale && r.SetAside == nil && r.Odd == "" }

// WalkReport is a walk with its results.
type WalkReport struct {
	ID       string   `json:"id"`
	Name     string   `json:"name"`
	Do       string   `json:"do"`
	Optional bool     `json:"optional,omitempty"`
	Results  []Result `json:"results" doc:"Oldest first, all of everybody's"`
}

// NextWalk is the walk that tells most.
type NextWalk struct {
	ID    string  `json:"id"`
	Name  string  `json:"name"`
	Words string  `json:"words"`
	Bits  float64 `json:"bits" doc:"By how much less unsure one is expected to be"`
}

// Proposed is what was found, put as a change of the plan.
type Proposed struct {
	Fault    Fault       `json:"fault"`
	Words    string      `json:"words"`
	Found    Found       `json:"found"`
	Edits    []edit.Edit `json:"edits"`
	Asked    *Record     `json:"asked,omitempty" doc:"Who asked a planner for it, absent where nobody did"`
	Answered *Record     `json:"answered,omitempty" doc:"What a planner made of it"`
}

// CameraReport is a camera with what was seen of it.
type CameraReport struct {
	Channel   string       `json:"channel"`
	Number    int          `json:"number"`
	Name      string       `json:"name"`
	Group     string       `json:"group,omitempty"`
	Recorder  string       `json:"recorder"`
	Picture   string       `json:"picture,omitempty"`
	None      string       `json:"none,omitempty"`
	Status    Status       `json:"status" enum:"open,begun,right,differs,again,left,none"`
	Walks     []WalkReport `json:"walks"`
	Likely    []Likely     `json:"likely" doc:"The likeliest first; empty where nothing counts yet"`
	Next      *NextWalk    `json:"next,omitempty" doc:"The walk that tells most, at the minute that was asked for"`
	Look      string       `json:"look,omitempty" doc:"Id of the step of its sheet where the likeliest fault is set"`
	Proposal  *Proposed    `json:"proposal,omitempty"`
	Decisions []Record     `json:"decisions" doc:"Oldest first"`
	Photos    []Record     `json:"photos"`
}

// TrialReport is a trial with what was seen of it.
type TrialReport struct {
	Trial
	Status    Status   `json:"status" enum:"open,right,differs,again,left"`
	Results   []Result `json:"results"`
	Decisions []Record `json:"decisions"`
}

// Report is how far the walk test of a plan is.
type Report struct {
	Cameras    []CameraReport `json:"cameras"`
	Trials     []TrialReport  `json:"trials"`
	Gone       []Record       `json:"gone" doc:"Of what the plan does not have any more; they are kept"`
	Clocks     []Record       `json:"clocks" doc:"The newest of each recorder"`
	Signatures []Record       `json:"signatures"`
	Done       int            `json:"done" doc:"How many cameras and trials are as planned, or left with a reason"`
	All        int            `json:"all"`
}

// Reported makes a report of a plan as its recorders take it, at a minute of the week. Records come in the order in which they were
// noted.
func Reported(p *plan.Plan, cameras []Camera, trials []Trial, records []Record, at week.Minute) Report {
	r := reporter{asides: make(map[string]*Record), by: make(map[string][]*Record)}
	out := Report{Cameras: []CameraReport{}, Trials: []TrialReport{}, Gone: []Record{}, Clocks: []Record{}, Signatures: []Record{}}
	known := make(map[string]bool)
	for i := range cameras {
		known[cameras[i].Channel] = true
	}
	for i := range trials {
		known[trials[i].ID] = true
	}
	for i := range records {
		switch rec := &records[i]; {
		case rec.Aside != nil:
			r.asides[rec.About] = rec
		case rec.Signature != nil:
			out.Signatures = append(out.Signatures, *rec)
		case rec.Error != nil:
			out.Clocks = slices.DeleteFunc(out.Clocks, func(c Record) bool { return c.About == rec.About })
			out.Clocks = append(out.Clocks, *rec)
		case known[rec.About]:
			r.by[rec.About] = append(r.by[rec.About], rec)
		default:
			out.Gone = append(out.Gone, *rec)
		}
	}
	for i := range cameras {
		c := r.camera(p, &cameras[i], at)
		out.count(c.Status)
		out.Cameras = append(out.Cameras, c)
	}
	for i := range trials {
		t := r.trial(&trials[i])
		out.count(t.Status)
		out.Trials = append(out.Trials, t)
	}
	return out
}

func (r *Report) count(s Status) {
	if s == None {
		return
	}
	r.All++
	if s == Right || s == Left {
		r.Done++
	}
}

// Finished tells whether nothing is open.
func (r *Report) Finished() bool { return r.Done == r.All }

type reporter struct {
	asides map[string]*Record
	by     map[string][]*Record
}

// camera reports on one.
func (r *reporter) camera(p *plan.Plan, c *Camera, at week.Minute) CameraReport {
	out := CameraReport{Channel: c.Channel, Number: c.Number, Name: c.Name, Group: c.Group, Recorder: c.Recorder, Picture: c.Picture,
		None: c.None, Walks: []WalkReport{}, Likely: []Likely{}, Decisions: []Record{}, Photos: []Record{}}
	for k := range c.Walks {
		w := &c.Walks[k]
		out.Walks = append(out.Walks, WalkReport{ID: w.ID, Name: w.Name, Do: w.Do, Optional: w.Optional, Results: []Result{}})
	}
	var seen []Seen
	for _, rec := range r.by[c.Channel] {
		switch {
		case rec.Decision != nil:
			out.Decisions = append(out.Decisions, *rec)
		case rec.Photo != nil:
			if r.asides[rec.ID] == nil {
				out.Photos = append(out.Photos, *rec)
			}
		case rec.Walk != nil:
			k := slices.IndexFunc(out.Walks, func(w WalkReport) bool { return w.ID == rec.Walk.Walk })
			if k < 0 {
				out.Walks = append(out.Walks, WalkReport{ID: rec.Walk.Walk, Name: rec.Walk.Name, Do: "It is not in the plan any more.", Optional: true,
					Results: []Result{}})
				k = len(out.Walks) - 1
			}
			res := Result{Record: *rec, SetAside: r.asides[rec.ID], Stale: true, Odd: odd(rec.Walk),
				Differ: differing(c, rec.Walk)}
			if w := c.Walk(rec.Walk.Walk); w != nil {
				res.Stale = w.Expected[c.At(rec.Walk.Minute)].Key != rec.Walk.Key
			}
			out.Walks[k].Results = append(out.Walks[k].Results, res)
			if res.Counts() {
				seen = append(seen, rec.Walk.Seen)
			}
		}
	}
	seen = sinceMended(seen, &out)
	if len(seen) > 0 {
		out.Likely = c.Judge(seen)
		if w, bits := c.Next(seen, at); w != nil && out.Likely[0].Chance < 0.95 {
			out.Next = &NextWalk{w.ID, w.Name, nextWords(c, w, &out, at), bits}
		}
	}
	out.propose(p, c)
	out.Status = out.status(c)
	return out
}

// odd is why what was seen of a walk cannot be; empty where it can.
func odd(said *WalkSaid) string {
	switch s := &said.Seen; {
	case s.First != nil && s.Last != nil && *s.Last < *s.First:
		return "The footage ends before it begins."
	case s.Sign != nil && *s.Sign < 0:
		return "The sign came before the walker started."
	case s.Sign != nil && *s.Sign < 0.3 && (said.Planned[Sign] == nil || *said.Planned[Sign] > 2):
		return "The sign was tapped at once: twice by mistake?"
	case s.Sign != nil && s.NoSign:
		return "A sign came, and none did."
	}
	return ""
}

// sinceMended leaves out what was seen before something was mended: who decides to walk again says that what is there is another.
func sinceMended(seen []Seen, c *CameraReport) []Seen {
	var mended *Record
	for k := range c.Decisions {
		if c.Decisions[k].Decision.What == "again" {
			mended = &c.Decisions[k]
		}
	}
	if mended == nil {
		return seen
	}
	seen = nil
	for _, w := range c.Walks {
		for k := range w.Results {
			if res := &w.Results[k]; res.Counts() && res.At.After(mended.At) {
				seen = append(seen, res.Walk.Seen)
			}
		}
	}
	return seen
}

// differing tells of the sign, the first and the last second whether it differs by more than errors explain.
func differing(c *Camera, said *WalkSaid) []bool {
	const most = 3
	first, last, tap, ends := said.First, said.Last, TapSeconds, ReadSeconds
	if w := c.Walk(said.Walk); w != nil && w.Free {
		first, last, tap, ends = since(first, said.Sign), since(last, said.Out), math.Hypot(TapSeconds,
			FreeSeconds), math.Hypot(TapSeconds, ReadSeconds)
	}
	differs := func(seen *float64, none bool, planned *float64, deviation float64) bool {
		switch {
		case seen == nil && !none:
			return false
		case seen == nil || planned == nil:
			return (seen == nil) != (planned == nil)
		}
		return math.Abs(*seen-*planned) > most*deviation
	}
	return []bool{differs(said.Sign, said.NoSign, said.Planned[Sign], tap), differs(first, said.NoShot, said.Planned[First], ends),
		differs(last, said.NoShot, said.Planned[Last], ends)}
}

// nextWords says what the walk that tells most tells apart.
func nextWords(c *Camera, w *Walk, r *CameraReport, at week.Minute) string {
	words := "To tell more: " + lower(w.Name) + "."
	if len(r.Likely) < 2 {
		return words
	}
	shows := w.Shows[c.At(at)]
	likeliest, other := r.Likely[0], r.Likely[1]
	a, b, ok := apartBy(shows[likeliest.Case], shows[other.Case])
	if !ok {
		return words // it tells others apart
	}
	tell := func(l Likely, shows string) string { return "with “" + lower(l.Fault.Name()) + "” " + shows }
	return "To tell them apart: " + lower(w.Name) + ". " + capital(tell(likeliest, a)) + ", " + tell(other, b) + "."
}

// apartBy says in what two cases differ most, of the sign, the first and the last second; ok is false where nobody would see it.
func apartBy(a, b Shown) (first, second string, ok bool) {
	most := 0.0
	for k, of := range []struct {
		comes, none string
		deviation   float64
	}{Sign: {"the sign comes at ", "no sign comes", TapSeconds}, First: {"footage begins at ", "there is no footage", ReadSeconds},
		Last: {"footage ends at ", "there is no footage", ReadSeconds}} {
		apart := 0.0
		switch {
		case a[k] != nil && b[k] != nil:
			apart = math.Abs(*a[k]-*b[k]) / of.deviation
		case a[k] != nil || b[k] != nil:
			apart = math.Inf(1)
		}
		if apart <= max(most, seenApart) {
			continue
		}
		most, ok = apart, true
		words := func(t *float64) string {
			if t == nil {
				return of.none
			}
			return of.comes + inSeconds(*t)
		}
		first, second = words(a[k]), words(b[k])
	}
	return first, second, ok
}

// seenApart is by how many standard deviations of reading them two times differ at least for a person to see it.
const seenApart = 2

func lower(s string) string   { return strings.ToLower(s[:1]) + s[1:] }
func capital(s string) string { return strings.ToUpper(s[:1]) + s[1:] }

// propose puts the likeliest fault as a change of the plan, where it is one, and says who asked for it.
func (r *CameraReport) propose(p *plan.Plan, c *Camera) {
	for k := range r.Decisions {
		d := &r.Decisions[k]
		switch d.Decision.What {
		case "propose":
			r.Proposal = &Proposed{Fault: d.Decision.Fault, Words: d.Decision.Words, Asked: d}
			if f := d.Decision.Found; f != nil {
				r.Proposal.Found = *f
			}
		case "taken", "declined":
			if r.Proposal != nil && r.Proposal.Asked.ID == d.Decision.Of {
				r.Proposal.Answered = d
			}
		case "again":
			r.Proposal = nil
		}
	}
	if r.Proposal == nil && len(r.Likely) > 0 && r.Likely[0].Fault != AsPlanned {
		of := c.Cases[r.Likely[0].Case]
		r.Proposal = &Proposed{Fault: of.Fault, Words: of.Words, Found: Found{of.Value, of.Down, of.Of}}
	}
	if r.Proposal == nil {
		return
	}
	r.Proposal.Edits = Proposal(p, c.Channel, Case{Fault: r.Proposal.Fault, Value: r.Proposal.Found.Value, Down: r.Proposal.Found.Down,
		Of: r.Proposal.Found.Of})
	if r.Proposal.Edits == nil && r.Proposal.Asked == nil {
		r.Proposal = nil
	}
}

// progress is how much of a camera is walked.
type progress struct {
	needed, walked int
	stale          bool    // whether something was walked that the plan expects otherwise since
	last           *Record // the newest walk that can be
}

func (r *CameraReport) progress() (p progress) {
	for k := range r.Walks {
		w := &r.Walks[k]
		counts := false
		for i := range w.Results {
			res := &w.Results[i]
			if res.SetAside != nil || res.Odd != "" {
				continue
			}
			p.stale = p.stale || res.Stale && !w.Optional
			counts = counts || !res.Stale
			if p.last == nil || res.At.After(p.last.At) {
				p.last = &res.Record
			}
		}
		if !w.Optional {
			p.needed++
			if counts {
				p.walked++
			}
		}
	}
	return p
}

// decided is the newest decision, where nothing was walked since; empty for none.
func (r *CameraReport) decided(p progress) string {
	n := len(r.Decisions)
	if n == 0 || p.last != nil && p.last.At.After(r.Decisions[n-1].At) {
		return ""
	}
	return r.Decisions[n-1].Decision.What
}

// status is how far the camera is.
func (r *CameraReport) status(c *Camera) Status {
	if c.None != "" || len(c.Walks) == 0 {
		return None
	}
	p := r.progress()
	switch r.decided(p) {
	case "leave", "taken":
		return Left
	case "again":
		return Again
	}
	switch {
	case len(r.Likely) > 0 && r.Likely[0].Fault != AsPlanned:
		return Differs
	case p.walked < p.needed && p.stale:
		return Again
	case p.walked == p.needed:
		return Right
	case p.walked > 0 || len(r.Likely) > 0:
		return Begun
	}
	return Open
}

// trial reports on one.
func (r *reporter) trial(t *Trial) TrialReport {
	out := TrialReport{Trial: *t, Status: Open, Results: []Result{}, Decisions: []Record{}}
	for _, rec := range r.by[t.ID] {
		switch {
		case rec.Decision != nil:
			out.Decisions = append(out.Decisions, *rec)
			switch {
			case out.Status == Differs && rec.Decision.What == "leave":
				out.Status = Left
			case rec.Decision.What == "again":
				out.Status = Again
			}
		case rec.Trial != nil:
			res := Result{Record: *rec, SetAside: r.asides[rec.ID], Stale: rec.Trial.Key != t.Key, Differ: []bool{}}
			out.Results = append(out.Results, res)
			switch {
			case res.SetAside != nil:
			case res.Stale:
				if out.Status == Open {
					out.Status = Again
				}
			case slices.ContainsFunc(rec.Trial.Lines, func(l LineSaw) bool { return !l.Right }):
				out.Status = Differs
			default:
				out.Status = Right
			}
		}
	}
	return out
}

// AnySeen tells whether anything was seen, tried or signed.
func (r *Report) AnySeen() bool {
	seen := len(r.Gone) > 0 || len(r.Signatures) > 0
	for i := range r.Cameras {
		for k := range r.Cameras[i].Walks {
			seen = seen || len(r.Cameras[i].Walks[k].Results) > 0
		}
	}
	for i := range r.Trials {
		seen = seen || len(r.Trials[i].Results) > 0
	}
	return seen
}

// Photos are the ids of all pictures that were taken.
func (r *Report) Photos() (out []string) {
	for i := range r.Cameras {
		for k := range r.Cameras[i].Photos {
			out = append(out, r.Cameras[i].Photos[k].Photo.Picture)
		}
	}
	return out
}
