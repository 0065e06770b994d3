package edit

import (
	"fmt"
	"slices"
	"strings"

	"wakefield.example/core/document"
	"wakefield.example/core/plan"
)

// SetRecorder adds a recorder with its pools, or replaces the one with its id.
type SetRecorder struct {
	Recorder plan.Recorder `json:"recorder"`
}

func (e *SetRecorder) apply(p *plan.Plan) (*plan.Plan, error) {
	next := *p
	next.Recorders = put(p.Recorders, e.Recorder, func(r *plan.Recorder) bool { return r.ID == e.Recorder.ID })
	return &next, nil
}

func (e *SetRecorder) sentence(p *plan.Plan) string {
	r, was := e.Recorder, p.Recorder(e.Recorder.ID)
	if was == nil {
		return "Recorder added: " + r.Name
	}
	size := plan.Say("%s, %v Mbit/s intake", plan.Count(r.Channels, "channel"), r.IngestMbps)
	list := changed(part{[2]any{was.Channels, was.IngestMbps}, [2]any{r.Channels, r.IngestMbps}, size},
		part{was.Licences, r.Licences, either(r.Licences > 0, plan.Count(r.Licences, "licence"), "a licence for every channel")},
		part{was.PreSecondsLimit, r.PreSecondsLimit,
			either(r.PreSecondsLimit > 0, plan.Say("buffers %v s", r.PreSecondsLimit), "buffers as long as wanted")},
		part{was.DriveMBps, r.DriveMBps, either(r.DriveMBps > 0, plan.Say("writes %v MB/s", r.DriveMBps), "writes as much as comes in")},
		part{was.Address, r.Address, either(r.Address != "", "at "+r.Address, "no address")},
		part{was.Takes, r.Takes, "what can be entered at it"}, part{was.Words, r.Words, "what duties are called there"},
		part{was.Pools, r.Pools, "its drives"})
	if len(list) == 0 {
		list = []string{size}
	}
	return r.Name + ": " + strings.Join(list, ", ")
}

// RemoveRecorder removes a recorder with its pools. Channels and alarm inputs must
// have left it.
type RemoveRecorder struct {
	Recorder string `json:"recorder" minLength:"1" maxLength:"100"`
}

func (e *RemoveRecorder) apply(p *plan.Plan) (*plan.Plan, error) {
	if p.Recorder(e.Recorder) == nil {
		return nil, document.Wrong("recorder", "no recorder %q", e.Recorder)
	}
	return removal{kind: "recorder", gone: is(e.Recorder), path: "recorder", advice: "put it on another recorder, or remove it, first"}.from(p)
}

func (e *RemoveRecorder) sentence(p *plan.Plan) string {
	if r := p.Recorder(e.Recorder); r != nil {
		return "Recorder removed: " + r.Name
	}
	return "Recorder removed"
}

// RemovePool removes a pool of drives. Channels must have left it.
type RemovePool struct {
	Pool string `json:"pool" minLength:"1" maxLength:"100"`
}

func (e *RemovePool) apply(p *plan.Plan) (*plan.Plan, error) {
	if p.Pool(e.Pool) == nil {
		return nil, document.Wrong("pool", "no pool %q", e.Pool)
	}
	next, err := removal{kind: "pool", gone: is(e.Pool), path: "pool", advice: "move it to another pool first"}.from(p)
	if err != nil {
		return nil, err
	}
	next.Recorders = slices.Clone(p.Recorders)
	for i := range next.Recorders {
		next.Recorders[i].Pools = slices.DeleteFunc(slices.Clone(next.Recorders[i].Pools), func(pool plan.Pool) bool { return pool.ID == e.Pool })
	}
	return next, nil
}

func (e *RemovePool) sentence(p *plan.Plan) string {
	if pool := p.Pool(e.Pool); pool != nil {
		return "Pool removed: " + pool.Name
	}
	return "Pool removed"
}

// SetPool adds a pool of drives to a recorder, or replaces the one with its id.
type SetPool struct {
	Recorder string    `json:"recorder" minLength:"1" maxLength:"100"`
	Pool     plan.Pool `json:"pool"`
}

func (e *SetPool) apply(p *plan.Plan) (*plan.Plan, error) {
	next := *p
	next.Recorders = slices.Clone(p.Recorders)
	r := next.Recorder(e.Recorder)
	if r == nil {
		return nil, document.Wrong("recorder", "no recorder %q", e.Recorder)
	}
	r.Pools = put(r.Pools, e.Pool, func(pool *plan.Pool) bool { return pool.ID == e.Pool.ID })
	return &next, nil
}

func (e *SetPool) sentence(p *plan.Plan) string {
	var drives []string
	ratings := func(pool *plan.Pool) (out []float64) {
		for _, g := range pool.Drives {
			out = append(out, g.YearlyTB)
		}
		return out
	}
	for _, g := range e.Pool.Drives {
		drives = append(drives, fmt.Sprintf("%d × %v TB", g.Count, g.Terabytes))
	}
	s := fmt.Sprintf("%s: %s, %s", e.Pool.Name, strings.Join(drives, " and "), plan.Layouts.Name(e.Pool.Layout))
	if e.Pool.HotSpares > 0 {
		s += ", " + plan.Count(e.Pool.HotSpares, "hot spare")
	}
	if was := p.Pool(e.Pool.ID); was != nil {
		s = also(s, part{was.ReservePercent, e.Pool.ReservePercent, either(e.Pool.ReservePercent > 0,
			plan.Say("%v %% kept free", e.Pool.ReservePercent), "nothing kept free")})
		if len(was.Drives) == len(e.Pool.Drives) {
			s = also(s, part{ratings(was), ratings(&e.Pool), "another rating of its drives"})
		}
	}
	return s
}
