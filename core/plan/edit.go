package plan

import (
	"fmt"
	"reflect"
	"slices"
	"strings"
)

// Edit is one change that can be made to a plan. Exactly one member is set.
type Edit struct {
	Paint          *Paint          `json:"paint,omitempty" doc:"Give channels a duty over some hours"`
	CopyDay        *CopyDay        `json:"copyDay,omitempty" doc:"Give channels on some days the duties of another day"`
	CopyWeek       *CopyWeek       `json:"copyWeek,omitempty" doc:"Give channels the week of another"`
	FollowWeek     *FollowWeek     `json:"followWeek,omitempty" doc:"Let channels follow a named week"`
	SetTimes       *SetTimes       `json:"setTimes,omitempty" doc:"Set pre- and post-event times"`
	SetRate        *SetRate        `json:"setRate,omitempty" doc:"Set the bitrate of a stream"`
	SetDetection   *SetDetection   `json:"setDetection,omitempty" doc:"Set how motion becomes a trigger"`
	SetKeep        *SetKeep        `json:"setKeep,omitempty" doc:"Set how long footage must and may be kept"`
	SetAudio       *SetAudio       `json:"setAudio,omitempty" doc:"Set the audio bitrate"`
	SetActivity    *SetActivity    `json:"setActivity,omitempty" doc:"Add or replace an activity"`
	PaintRate      *PaintRate      `json:"paintRate,omitempty" doc:"Set how often an activity happens over some hours"`
	SetDuty        *SetDuty        `json:"setDuty,omitempty" doc:"Add or replace a duty"`
	RemoveDuty     *RemoveDuty     `json:"removeDuty,omitempty" doc:"Remove a duty, another taking its hours"`
	SetPool        *SetPool        `json:"setPool,omitempty" doc:"Add or replace a pool of drives"`
	AddEffect      *AddEffect      `json:"addEffect,omitempty" doc:"Add a cause and what it records"`
	SetChannel     *SetChannel     `json:"setChannel,omitempty" doc:"Add or replace a channel"`
	SetCells       *SetCells       `json:"setCells,omitempty" doc:"Set cells of the channel table; rows without a channel add one"`
	MoveChannels   *MoveChannels   `json:"moveChannels,omitempty" doc:"Renumber channels, or move them to another recorder"`
	RemoveChannels *RemoveChannels `json:"removeChannels,omitempty" doc:"Remove channels"`
	SetKind        *SetKind        `json:"setKind,omitempty" doc:"Add or replace a camera kind"`
	RemoveKind     *RemoveKind     `json:"removeKind,omitempty" doc:"Remove a camera kind"`
	ApplyKind      *ApplyKind      `json:"applyKind,omitempty" doc:"Give channels the settings of a camera kind"`
	SetSite        *SetSite        `json:"setSite,omitempty" doc:"Set names and time zone"`
	SetRecorder    *SetRecorder    `json:"setRecorder,omitempty" doc:"Add or replace a recorder"`
	RemoveRecorder *RemoveRecorder `json:"removeRecorder,omitempty" doc:"Remove a recorder"`
	RemovePool     *RemovePool     `json:"removePool,omitempty" doc:"Remove a pool of drives"`
	SetStream      *SetStream      `json:"setStream,omitempty" doc:"Set what a stream is"`
	RemoveActivity *RemoveActivity `json:"removeActivity,omitempty" doc:"Remove an activity"`
	SetWeek        *SetWeek        `json:"setWeek,omitempty" doc:"Add or replace a named week"`
	RemoveWeek     *RemoveWeek     `json:"removeWeek,omitempty" doc:"Remove a named week"`
	KeepWeek       *KeepWeek       `json:"keepWeek,omitempty" doc:"Keep a channel's week under a name"`
	DepartWeek     *DepartWeek     `json:"departWeek,omitempty" doc:"Let channels depart from the week they follow"`
	SetSpecialDays *SetSpecialDays `json:"setSpecialDays,omitempty" doc:"Set the special days of the site"`
	AcceptFinding  *AcceptFinding  `json:"acceptFinding,omitempty" doc:"Accept a finding, with a reason"`
	ReopenFinding  *ReopenFinding  `json:"reopenFinding,omitempty" doc:"Take an acceptance back"`
}

// change is what every edit can do.
type change interface {
	// apply returns the changed plan. It may share unchanged parts with p, which
	// stays as it is.
	apply(p *Plan) (*Plan, error)
	// sentence says what the edit does, given the plan it is made on.
	sentence(p *Plan) string
}

// change returns the one change that is set, with its name.
func (e Edit) change() (string, change, error) {
	var name string
	var found change
	v := reflect.ValueOf(e)
	for _, m := range orderedMembers(v.Type()) {
		if f := v.FieldByIndex(m.index); !f.IsNil() {
			if found != nil {
				return "", nil, wrong("", "both %s and %s; an edit is one change", name, m.name)
			}
			name, found = m.name, f.Interface().(change)
		}
	}
	if found == nil {
		return "", nil, wrong("", "no change in it")
	}
	return name, found, nil
}

// Apply returns the plan after the edits, made in turn, and leaves p alone. The
// error, an [*Error], names the place in the edits ("edits[0].paint.duty") or the
// rule of the plan that would be broken; then nothing is changed.
func (p *Plan) Apply(edits ...Edit) (*Plan, error) {
	if len(edits) == 0 {
		return nil, wrong("edits", "empty")
	}
	before := p
	for i, e := range edits {
		path := fmt.Sprintf("edits[%d]", i)
		name, change, err := e.change()
		if err != nil {
			return nil, within(path, err)
		}
		if err := checkRules(join(path, name), reflect.ValueOf(change).Elem()); err != nil {
			return nil, err
		}
		if p, err = change.apply(p); err != nil {
			return nil, within(join(path, name), err)
		}
	}
	return p, p.checkSince(before)
}

// Sentence says what the edits do to p, for the history.
func (p *Plan) Sentence(edits ...Edit) string {
	var parts []string
	for _, e := range edits {
		if _, change, err := e.change(); err == nil {
			parts = append(parts, change.sentence(p))
			if next, err := change.apply(p); err == nil {
				p = next
			}
		}
	}
	if len(parts) > 3 {
		parts = append(parts[:2], fmt.Sprintf("and %d more changes", len(parts)-2))
	}
	return strings.Join(parts, "; ")
}

// within puts an error's path below another.
func within(path string, err error) error {
	if e, ok := err.(*Error); ok {
		return &Error{strings.TrimSuffix(join(path, e.Path), "."), e.Reason}
	}
	return err
}

// eachChannel returns the plan with the channels of the list changed.
func (p *Plan) eachChannel(ids []string, change func(*Channel) error) (*Plan, error) {
	next := *p
	next.Channels = slices.Clone(p.Channels)
	if len(ids) == 0 {
		return nil, wrong("channels", "empty")
	}
	for i, id := range ids {
		c := next.Channel(id)
		if c == nil {
			return nil, wrong(fmt.Sprintf("channels[%d]", i), "no channel %q", id)
		}
		if err := change(c); err != nil {
			return nil, err
		}
	}
	return &next, nil
}

// put replaces the entry that is like item, or appends it.
func put[T any](list []T, item T, like func(*T) bool) []T {
	list = slices.Clone(list)
	for i := range list {
		if like(&list[i]) {
			list[i] = item
			return list
		}
	}
	return append(list, item)
}

// names lists channels as a sentence does: up to three by name, more by number.
func (p *Plan) names(ids []string) string {
	if len(ids) > 3 {
		return fmt.Sprintf("%d channels", len(ids))
	}
	var names []string
	for _, id := range ids {
		if c := p.Channel(id); c != nil {
			names = append(names, c.Name)
		}
	}
	if n := len(names); n > 1 {
		return strings.Join(names[:n-1], ", ") + " and " + names[n-1]
	}
	return strings.Join(names, "")
}
