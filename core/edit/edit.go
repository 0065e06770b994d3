// Package edit is every change that can be made to a plan, the sentence that the history
// has of it, and the merging of changes that were made side by side.
//
// [Apply] makes edits in turn and returns a new plan; the old one stays as it is, and the
// two share what did not change. [Merge] makes edits of an older plan on a newer one, where
// they concern other things than what changed since.
package edit

import (
	"fmt"
	"reflect"
	"slices"
	"strings"

	"wakefield.example/core/document"
	"wakefield.example/core/plan"
)

// Edit is one change that can be made to a plan. Exactly one member is set.
type Edit struct {
	Paint            *Paint            `json:"paint,omitempty" doc:"Give channels a duty over some hours"`
	CopyDay          *CopyDay          `json:"copyDay,omitempty" doc:"Give channels on some days the duties of another day"`
	CopyWeek         *CopyWeek         `json:"copyWeek,omitempty" doc:"Give channels the week of another"`
	FollowWeek       *FollowWeek       `json:"followWeek,omitempty" doc:"Let channels follow a named week"`
	SetTimes         *SetTimes         `json:"setTimes,omitempty" doc:"Set pre- and post-event times"`
	SetRate          *SetRate          `json:"setRate,omitempty" doc:"Set the bitrate of a stream"`
	SetDetection     *SetDetection     `json:"setDetection,omitempty" doc:"Set how motion becomes a trigger"`
	SetKeep          *SetKeep          `json:"setKeep,omitempty" doc:"Set how long footage must and may be kept"`
	SetAudio         *SetAudio         `json:"setAudio,omitempty" doc:"Set the audio bitrate"`
	SetActivity      *SetActivity      `json:"setActivity,omitempty" doc:"Add or replace an activity"`
	PaintRate        *PaintRate        `json:"paintRate,omitempty" doc:"Set how often an activity happens over some hours"`
	SetDuty          *SetDuty          `json:"setDuty,omitempty" doc:"Add or replace a duty"`
	RemoveDuty       *RemoveDuty       `json:"removeDuty,omitempty" doc:"Remove a duty, another taking its hours"`
	SetPool          *SetPool          `json:"setPool,omitempty" doc:"Add or replace a pool of drives"`
	AddEffect        *AddEffect        `json:"addEffect,omitempty" doc:"Tie a cause to what it does"`
	RemoveEffect     *RemoveEffect     `json:"removeEffect,omitempty" doc:"Untie a cause from what it does"`
	SetAlarmInput    *SetAlarmInput    `json:"setAlarmInput,omitempty" doc:"Add or replace an alarm input"`
	RemoveAlarmInput *RemoveAlarmInput `json:"removeAlarmInput,omitempty" doc:"Remove an alarm input, with its ties"`
	SetCallButton    *SetCallButton    `json:"setCallButton,omitempty" doc:"Add or replace a call button"`
	RemoveCallButton *RemoveCallButton `json:"removeCallButton,omitempty" doc:"Remove a call button, with its ties"`
	SetMessage       *SetMessage       `json:"setMessage,omitempty" doc:"Add or replace a message"`
	RemoveMessage    *RemoveMessage    `json:"removeMessage,omitempty" doc:"Remove a message, with its ties"`
	SetOutput        *SetOutput        `json:"setOutput,omitempty" doc:"Add or replace an output"`
	RemoveOutput     *RemoveOutput     `json:"removeOutput,omitempty" doc:"Remove an output, with its ties"`
	SetMonitor       *SetMonitor       `json:"setMonitor,omitempty" doc:"Add or replace a monitor"`
	RemoveMonitor    *RemoveMonitor    `json:"removeMonitor,omitempty" doc:"Remove a monitor, with its ties"`
	SetMovable       *SetMovable       `json:"setMovable,omitempty" doc:"Set where a camera can look"`
	SetStills        *SetStills        `json:"setStills,omitempty" doc:"Set which snapshots channels take"`
	SetOffsite       *SetOffsite       `json:"setOffsite,omitempty" doc:"Set what carries the copy off site"`
	SetMatters       *SetMatters       `json:"setMatters,omitempty" doc:"Set how much channels matter"`
	SetPrices        *SetPrices        `json:"setPrices,omitempty" doc:"Set what drives cost"`
	SetChannel       *SetChannel       `json:"setChannel,omitempty" doc:"Add or replace a channel"`
	SetCells         *SetCells         `json:"setCells,omitempty" doc:"Set cells of the channel table; rows without a channel add one"`
	MoveChannels     *MoveChannels     `json:"moveChannels,omitempty" doc:"Renumber channels, or move them to another recorder"`
	SplitPool        *SplitPool        `json:"splitPool,omitempty" doc:"Make half of a pool's drives a pool of their own"`
	KeepOn           *KeepOn           `json:"keepOn,omitempty" doc:"Keep channels on another pool"`
	RemoveChannels   *RemoveChannels   `json:"removeChannels,omitempty" doc:"Remove channels"`
	SetKind          *SetKind          `json:"setKind,omitempty" doc:"Add or replace a camera kind"`
	RemoveKind       *RemoveKind       `json:"removeKind,omitempty" doc:"Remove a camera kind"`
	ApplyKind        *ApplyKind        `json:"applyKind,omitempty" doc:"Give channels the settings of a camera kind"`
	SetSite          *SetSite          `json:"setSite,omitempty" doc:"Set names and time zone"`
	SetRecorder      *SetRecorder      `json:"setRecorder,omitempty" doc:"Add or replace a recorder"`
	RemoveRecorder   *RemoveRecorder   `json:"removeRecorder,omitempty" doc:"Remove a recorder"`
	RemovePool       *RemovePool       `json:"removePool,omitempty" doc:"Remove a pool of drives"`
	SetStream        *SetStream        `json:"setStream,omitempty" doc:"Set what a stream is"`
	RemoveActivity   *RemoveActivity   `json:"removeActivity,omitempty" doc:"Remove an activity"`
	SetWeek          *SetWeek          `json:"setWeek,omitempty" doc:"Add or replace a named week"`
	RemoveWeek       *RemoveWeek       `json:"removeWeek,omitempty" doc:"Remove a named week"`
	KeepWeek         *KeepWeek         `json:"keepWeek,omitempty" doc:"Keep a channel's week under a name"`
	DepartWeek       *DepartWeek       `json:"departWeek,omitempty" doc:"Let channels depart from the week they follow"`
	SetSpecialDays   *SetSpecialDays   `json:"setSpecialDays,omitempty" doc:"Set the special days of the site"`
	SetGround        *SetGround        `json:"setGround,omitempty" doc:"Set how the ground lies in a channel's picture, and its snapshot"`
	SetWalk          *SetWalk          `json:"setWalk,omitempty" doc:"Add or replace a walk"`
	RemoveWalk       *RemoveWalk       `json:"removeWalk,omitempty" doc:"Remove a walk"`
	SetPatch         *SetPatch         `json:"setPatch,omitempty" doc:"Add or replace a patch"`
	RemovePatch      *RemovePatch      `json:"removePatch,omitempty" doc:"Remove a patch"`
	SetArea          *SetArea          `json:"setArea,omitempty" doc:"Add or replace a detection area"`
	RemoveArea       *RemoveArea       `json:"removeArea,omitempty" doc:"Remove a detection area"`
	CopyAreas        *CopyAreas        `json:"copyAreas,omitempty" doc:"Give channels the detection areas of another"`
	SetObject        *SetObject        `json:"setObject,omitempty" doc:"Add or replace a kind of thing that walks"`
	RemoveObject     *RemoveObject     `json:"removeObject,omitempty" doc:"Remove a kind of thing that walks"`
	AcceptFinding    *AcceptFinding    `json:"acceptFinding,omitempty" doc:"Accept a finding, with a reason"`
	ReopenFinding    *ReopenFinding    `json:"reopenFinding,omitempty" doc:"Take an acceptance back"`
}

// change is what every edit can do.
type change interface {
	// apply returns the changed plan. It may share unchanged parts with p, which
	// stays as it is.
	apply(p *plan.Plan) (*plan.Plan, error)
	// sentence says what the edit does, given the plan it is made on.
	sentence(p *plan.Plan) string
}

// change returns the one change that is set, with its name.
func (e Edit) change() (string, change, error) {
	var name string
	var found change
	v := reflect.ValueOf(e)
	for i := range v.NumField() {
		if v.Field(i).IsNil() {
			continue
		}
		member, _, _ := strings.Cut(v.Type().Field(i).Tag.Get("json"), ",")
		if found != nil {
			return "", nil, document.Wrong("", "both %s and %s; an edit is one change", name, member)
		}
		name, found = member, v.Field(i).Interface().(change)
	}
	if found == nil {
		return "", nil, document.Wrong("", "no change in it")
	}
	return name, found, nil
}

// Done is what edits made of a plan.
type Done struct {
	Plan     *plan.Plan
	Sentence string // what they did, for the history
}

// Apply returns the plan after the edits, made in turn, and leaves p alone. The
// error, a [*document.Error], names the place in the edits ("edits[0].paint.duty") or the
// rule of the plan that would be broken; then nothing is changed.
func Apply(p *plan.Plan, edits ...Edit) (*Done, error) {
	if len(edits) == 0 {
		return nil, document.Wrong("edits", "empty")
	}
	before := p
	var parts []string
	for i, e := range edits {
		path := fmt.Sprintf("edits[%d]", i)
		name, change, err := e.change()
		if err != nil {
			return nil, document.Within(path, err)
		}
		if err := document.Check(path+"."+name, change); err != nil {
			return nil, err
		}
		next, err := change.apply(p)
		if err != nil {
			return nil, document.Within(path+"."+name, err)
		}
		parts = append(parts, change.sentence(p))
		p = next
	}
	if err := p.CheckSince(before); err != nil {
		return nil, err
	}
	return &Done{p, inAll(parts)}, nil
}

// After is the plan after edits, for whoever needs no sentence; see [Apply].
func After(p *plan.Plan, edits ...Edit) (*plan.Plan, error) {
	done, err := Apply(p, edits...)
	if err != nil {
		return nil, err
	}
	return done.Plan, nil
}

// inAll is one sentence of several; of many the first two, and how many more.
func inAll(parts []string) string {
	if len(parts) > 3 {
		parts = append(parts[:2:2], fmt.Sprintf("and %d more changes", len(parts)-2))
	}
	return strings.Join(parts, "; ")
}

// eachChannel returns the plan with the channels of the list changed.
func eachChannel(p *plan.Plan, ids []string, change func(*plan.Channel) error) (*plan.Plan, error) {
	next := *p
	next.Channels = slices.Clone(p.Channels)
	if len(ids) == 0 {
		return nil, document.Wrong("channels", "empty")
	}
	for i, id := range ids {
		c := next.Channel(id)
		if c == nil {
			return nil, document.Wrong(fmt.Sprintf("channels[%d]", i), "no channel %q", id)
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

func weekIndex(p *plan.Plan, id string) int {
	return slices.IndexFunc(p.Weeks, func(w plan.Week) bool { return w.ID == id })
}

// names lists channels as a sentence does: up to three by name, more by number.
func names(p *plan.Plan, ids []string) string {
	if len(ids) > 3 {
		return fmt.Sprintf("%d channels", len(ids))
	}
	var names []string
	for _, id := range ids {
		if c := p.Channel(id); c != nil {
			names = append(names, c.Name)
		}
	}
	return plan.InList(names)
}
