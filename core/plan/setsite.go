package plan

import (
	"fmt"
	"slices"
	"strings"
)

// SetActivity adds an activity, or replaces the one with its id.
type SetActivity struct {
	Activity Activity `json:"activity"`
}

func (e *SetActivity) apply(p *Plan) (*Plan, error) {
	next := *p
	next.Activities = put(p.Activities, e.Activity, func(a *Activity) bool { return a.ID == e.Activity.ID })
	return &next, nil
}

func (e *SetActivity) sentence(p *Plan) string {
	if p.Activity(e.Activity.ID) == nil {
		return "Activity added: " + e.Activity.Name
	}
	return Say("Activity %s: %.3g events a day of %v s, %s",
		e.Activity.Name, e.Activity.Process().PerDay(), e.Activity.MeanSeconds, e.Activity.Known)
}

// SetPool adds a pool of drives to a recorder, or replaces the one with its id.
type SetPool struct {
	Recorder string `json:"recorder" minLength:"1" maxLength:"100"`
	Pool     Pool   `json:"pool"`
}

func (e *SetPool) apply(p *Plan) (*Plan, error) {
	next := *p
	next.Recorders = slices.Clone(p.Recorders)
	r := next.Recorder(e.Recorder)
	if r == nil {
		return nil, wrong("recorder", "no recorder %q", e.Recorder)
	}
	r.Pools = put(r.Pools, e.Pool, func(pool *Pool) bool { return pool.ID == e.Pool.ID })
	return &next, nil
}

func (e *SetPool) sentence(*Plan) string {
	var drives []string
	for _, g := range e.Pool.Drives {
		drives = append(drives, fmt.Sprintf("%d × %v TB", g.Count, g.Terabytes))
	}
	s := fmt.Sprintf("%s: %s, %s", e.Pool.Name, strings.Join(drives, " and "), layoutName(e.Pool.Layout))
	if e.Pool.HotSpares > 0 {
		s += fmt.Sprintf(", %d hot spare", e.Pool.HotSpares)
	}
	return s
}

func layoutName(layout string) string {
	if level, ok := strings.CutPrefix(layout, "raid"); ok {
		return "RAID " + level
	}
	return "spanned"
}

// SetDuty adds a duty, or replaces the one with its id.
type SetDuty struct {
	Duty Duty `json:"duty"`
}

func (e *SetDuty) apply(p *Plan) (*Plan, error) {
	next := *p
	next.Duties = put(p.Duties, e.Duty, func(d *Duty) bool { return d.ID == e.Duty.ID })
	return &next, nil
}

func (e *SetDuty) sentence(p *Plan) string {
	if p.Duty(e.Duty.ID) == nil {
		return "Duty added: " + e.Duty.Name
	}
	return "Duty changed: " + e.Duty.Name
}

// RemoveDuty removes a duty. Instead, which may be empty where nothing uses the
// duty, takes its hours in every week.
type RemoveDuty struct {
	Duty    string `json:"duty" minLength:"1" maxLength:"100"`
	Instead string `json:"instead,omitempty" maxLength:"100"`
}

func (e *RemoveDuty) apply(p *Plan) (*Plan, error) {
	if p.Duty(e.Duty) == nil {
		return nil, wrong("duty", "no duty %q", e.Duty)
	}
	if e.Instead == e.Duty {
		return nil, wrong("instead", "the duty cannot take its own place")
	}
	next := *p
	next.Duties = slices.DeleteFunc(slices.Clone(p.Duties), func(d Duty) bool { return d.ID == e.Duty })
	if e.Instead == "" {
		return &next, nil // Check refuses a plan in which something still uses it
	}
	next.Weeks = slices.Clone(p.Weeks)
	for i := range next.Weeks {
		next.Weeks[i].OwnWeek = *next.Weeks[i].OwnWeek.swap(e.Duty, e.Instead)
	}
	next.Channels = slices.Clone(p.Channels)
	for i := range next.Channels {
		if own := next.Channels[i].Week.Own; own != nil {
			next.Channels[i].Week.Own = own.swap(e.Duty, e.Instead)
		}
	}
	return &next, nil
}

// swap puts one duty in the place of another.
func (w *OwnWeek) swap(duty, instead string) *OwnWeek {
	out := *w
	if out.Otherwise == duty {
		out.Otherwise = instead
	}
	out.Blocks = slices.Clone(w.Blocks)
	for i := range out.Blocks {
		if out.Blocks[i].Duty == duty {
			out.Blocks[i].Duty = instead
		}
	}
	return &out
}

func (e *RemoveDuty) sentence(p *Plan) string {
	name := func(id string) string {
		if d := p.Duty(id); d != nil {
			return d.Name
		}
		return id
	}
	if e.Instead == "" {
		return "Duty removed: " + name(e.Duty)
	}
	return fmt.Sprintf("Duty removed: %s, %s in its place", name(e.Duty), name(e.Instead))
}

// AddEffect adds a cause and what records because of it.
type AddEffect struct {
	Effect Effect `json:"effect"`
}

func (e *AddEffect) apply(p *Plan) (*Plan, error) {
	next := *p
	next.Effects = append(slices.Clone(p.Effects), e.Effect)
	return &next, nil
}

func (e *AddEffect) sentence(p *Plan) string {
	cause := "Alarm " + e.Effect.When.Alarm
	if i := slices.IndexFunc(p.AlarmInputs, func(a AlarmInput) bool { return a.ID == e.Effect.When.Alarm }); i >= 0 {
		cause = p.AlarmInputs[i].Name
	}
	if c := p.Channel(e.Effect.When.Motion); c != nil {
		cause = "Motion on " + c.Name
	}
	return cause + " records " + p.names(e.Effect.Record)
}
