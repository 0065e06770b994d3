package edit

import (
	"slices"

	"wakefield.example/core/document"
	"wakefield.example/core/plan"
)

// KeepOn keeps channels on another pool. A pool of another recorder takes them to that recorder, at its end, where they
// are given its lowest free numbers.
type KeepOn struct {
	Channels []string `json:"channels" minItems:"1" maxItems:"5000"`
	Pool     string   `json:"pool" minLength:"1" maxLength:"100"`
}

func (e *KeepOn) apply(p *plan.Plan) (*plan.Plan, error) {
	at := slices.IndexFunc(p.Recorders, func(r plan.Recorder) bool {
		return slices.ContainsFunc(r.Pools, func(x plan.Pool) bool { return x.ID == e.Pool })
	})
	if at < 0 {
		return nil, document.Wrong("pool", "no pool %q", e.Pool)
	}
	recorder := p.Recorders[at].ID
	var moving []string
	for _, id := range e.Channels {
		if c := p.Channel(id); c != nil && c.Recorder != recorder {
			moving = append(moving, id)
		}
	}
	next := p
	if len(moving) > 0 {
		var err error
		if next, err = (&MoveChannels{Channels: moving, Recorder: recorder}).apply(p); err != nil {
			return nil, err
		}
	}
	return eachChannel(next, e.Channels, func(c *plan.Channel) error {
		c.Pool = e.Pool
		return nil
	})
}

func (e *KeepOn) sentence(p *plan.Plan) string {
	name := e.Pool
	if pool := p.Pool(e.Pool); pool != nil {
		name = pool.Name
	}
	return names(p, e.Channels) + ": stored on " + name
}
