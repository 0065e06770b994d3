package plan

import (
	"fmt"
	"slices"
)

// SetSite sets what the site and the plan are called and where the site is. What is
// absent stays as it is.
type SetSite struct {
	Name     *string `json:"name,omitempty" minLength:"1" maxLength:"200" doc:"Name of the site"`
	Plan     *string `json:"plan,omitempty" minLength:"1" maxLength:"200" doc:"Name of the plan"`
	Customer *string `json:"customer,omitempty" maxLength:"200"`
	TimeZone *string `json:"timeZone,omitempty" maxLength:"100"`
}

func (e *SetSite) apply(p *Plan) (*Plan, error) {
	next := *p
	next.Name = or(e.Plan, p.Name)
	next.Site.Name = or(e.Name, p.Site.Name)
	next.Site.Customer = or(e.Customer, p.Site.Customer)
	next.Site.TimeZone = or(e.TimeZone, p.Site.TimeZone)
	return &next, nil
}

func (e *SetSite) sentence(p *Plan) string {
	next, _ := e.apply(p)
	return fmt.Sprintf("Site: %s, %s", next.Site.Name, next.Site.TimeZone)
}

// SetRecorder adds a recorder with its pools, or replaces the one with its id.
type SetRecorder struct {
	Recorder Recorder `json:"recorder"`
}

func (e *SetRecorder) apply(p *Plan) (*Plan, error) {
	next := *p
	next.Recorders = put(p.Recorders, e.Recorder, func(r *Recorder) bool { return r.ID == e.Recorder.ID })
	return &next, nil
}

func (e *SetRecorder) sentence(p *Plan) string {
	r := e.Recorder
	if p.Recorder(r.ID) == nil {
		return "Recorder added: " + r.Name
	}
	return fmt.Sprintf("%s: %d channels, %v Mbps intake", r.Name, r.Channels, r.IngestMbps)
}

// RemoveRecorder removes a recorder with its pools. Channels and alarm inputs must
// have left it.
type RemoveRecorder struct {
	Recorder string `json:"recorder" minLength:"1" maxLength:"100"`
}

func (e *RemoveRecorder) apply(p *Plan) (*Plan, error) {
	if p.Recorder(e.Recorder) == nil {
		return nil, wrong("recorder", "no recorder %q", e.Recorder)
	}
	for i := range p.Channels {
		if c := &p.Channels[i]; c.Recorder == e.Recorder {
			return nil, wrong("recorder", "channel %d, %s, is on it; move its channels to another recorder or remove them first", c.Number, c.Name)
		}
	}
	for _, a := range p.AlarmInputs {
		if a.Recorder == e.Recorder {
			return nil, wrong("recorder", "the alarm input %s is wired to it", a.Name)
		}
	}
	next := *p
	next.Recorders = slices.DeleteFunc(slices.Clone(p.Recorders), func(r Recorder) bool { return r.ID == e.Recorder })
	return &next, nil
}

func (e *RemoveRecorder) sentence(p *Plan) string {
	if r := p.Recorder(e.Recorder); r != nil {
		return "Recorder removed: " + r.Name
	}
	return "Recorder removed"
}

// RemovePool removes a pool of drives. Channels must have left it.
type RemovePool struct {
	Pool string `json:"pool" minLength:"1" maxLength:"100"`
}

func (e *RemovePool) apply(p *Plan) (*Plan, error) {
	if p.Pool(e.Pool) == nil {
		return nil, wrong("pool", "no pool %q", e.Pool)
	}
	for i := range p.Channels {
		if c := &p.Channels[i]; c.Pool == e.Pool {
			return nil, wrong("pool", "channel %d, %s, is kept on it; move its channels to another pool first", c.Number, c.Name)
		}
	}
	next := *p
	next.Recorders = slices.Clone(p.Recorders)
	for i := range next.Recorders {
		next.Recorders[i].Pools = slices.DeleteFunc(slices.Clone(next.Recorders[i].Pools), func(pool Pool) bool { return pool.ID == e.Pool })
	}
	return &next, nil
}

func (e *RemovePool) sentence(p *Plan) string {
	if pool := p.Pool(e.Pool); pool != nil {
		return "Pool removed: " + pool.Name
	}
	return "Pool removed"
}
