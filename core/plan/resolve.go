package plan

import (
	"wakefield.example/core/week"
)

// Steps is when the detection is on.
func (d Detection) Steps() week.Steps[bool] {
	if !d.On || d.Hours == nil {
		return week.Constant(d.On)
	}
	return d.Hours.Steps()
}

// Duty finds a duty by its id, nil where there is none.
func (p *Plan) Duty(id string) *Duty {
	return find(p.Duties, func(d *Duty) bool { return d.ID == id })
}

// Activity finds an activity by its id, nil where there is none.
func (p *Plan) Activity(id string) *Activity {
	return find(p.Activities, func(a *Activity) bool { return a.ID == id })
}

// Channel finds a channel by its id, nil where there is none.
func (p *Plan) Channel(id string) *Channel {
	return find(p.Channels, func(c *Channel) bool { return c.ID == id })
}

// Recorder finds a recorder by its id, nil where there is none.
func (p *Plan) Recorder(id string) *Recorder {
	return find(p.Recorders, func(r *Recorder) bool { return r.ID == id })
}

// Pool finds a pool by its id, nil where there is none.
func (p *Plan) Pool(id string) *Pool {
	for i := range p.Recorders {
		if pool := find(p.Recorders[i].Pools, func(pool *Pool) bool { return pool.ID == id }); pool != nil {
			return pool
		}
	}
	return nil
}

// Week finds a named week by its id, nil where there is none.
func (p *Plan) Week(id string) *Week {
	return find(p.Weeks, func(w *Week) bool { return w.ID == id })
}

func find[T any](list []T, is func(*T) bool) *T {
	for i := range list {
		if is(&list[i]) {
			return &list[i]
		}
	}
	return nil
}
