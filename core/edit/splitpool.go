package edit

import (
	"slices"

	"wakefield.example/core/document"
	"wakefield.example/core/plan"
	"wakefield.example/core/storage"
)

// SplitPool makes half of the drives of a pool, rounded down, a pool of their own on the same recorder, and keeps channels on
// that. Both have the layout of the one before where they have drives enough for it, else none; hot spares stay drives.
type SplitPool struct {
	Pool     string   `json:"pool" minLength:"1" maxLength:"100"`
	ID       string   `json:"id" minLength:"1" maxLength:"100" doc:"Of the new pool"`
	Name     string   `json:"name" minLength:"1" maxLength:"100" doc:"Of the new pool"`
	Channels []string `json:"channels,omitempty" maxItems:"5000" doc:"Ids of channels that are kept on the new pool"`
}

func (e *SplitPool) apply(p *plan.Plan) (*plan.Plan, error) {
	at := slices.IndexFunc(p.Recorders, func(r plan.Recorder) bool {
		return slices.ContainsFunc(r.Pools, func(x plan.Pool) bool { return x.ID == e.Pool })
	})
	if at < 0 {
		return nil, document.Wrong("pool", "no pool %q", e.Pool)
	}
	if p.Pool(e.ID) != nil {
		return nil, document.Wrong("id", "a pool %q is there already", e.ID)
	}
	all := 0
	stays := *p.Pool(e.Pool)
	for _, g := range stays.Drives {
		all += g.Count
	}
	goes := stays
	goes.ID, goes.Name = e.ID, e.Name
	if all < 2 {
		return nil, document.Wrong("pool", "%s has %d drives; a pool of its own needs one, and one has to stay", stays.Name, all)
	}
	stays.Drives, goes.Drives = halves(stays.Drives, all/2)
	for _, half := range []*plan.Pool{&stays, &goes} {
		n := 0
		for _, g := range half.Drives {
			n += g.Count
		}
		if half.HotSpares = 0; n < storage.Layout(half.Layout).FewestDrives() {
			half.Layout = "span"
		}
	}
	r := p.Recorders[at]
	r.Pools = slices.Clone(r.Pools)
	k := slices.IndexFunc(r.Pools, func(x plan.Pool) bool { return x.ID == e.Pool })
	r.Pools[k] = stays
	r.Pools = slices.Insert(r.Pools, k+1, goes)
	next := *p
	next.Recorders = slices.Clone(p.Recorders)
	next.Recorders[at] = r
	if len(e.Channels) == 0 {
		return &next, nil
	}
	return (&KeepOn{Channels: e.Channels, Pool: e.ID}).apply(&next)
}

// halves takes so many drives out of a list, the last of it first.
func halves(list []plan.DriveGroup, take int) (stay, moved []plan.DriveGroup) {
	stay = slices.Clone(list)
	for k := len(stay) - 1; k >= 0 && take > 0; k-- {
		n := min(take, stay[k].Count)
		taken := stay[k]
		taken.Count = n
		moved = slices.Insert(moved, 0, taken)
		stay[k].Count -= n
		take -= n
	}
	return slices.DeleteFunc(stay, func(g plan.DriveGroup) bool { return g.Count == 0 }), moved
}

func (e *SplitPool) sentence(p *plan.Plan) string {
	name := e.Pool
	if pool := p.Pool(e.Pool); pool != nil {
		name = pool.Name
	}
	return name + " split: " + e.Name
}
