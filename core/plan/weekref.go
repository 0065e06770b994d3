package plan

import (
	"bytes"
	"encoding/json"
)

// WeekRef is the week of a channel: one of the plan's named weeks, or its own.
type WeekRef struct {
	Named string   // id of a named week, empty where Own is set
	Own   *OwnWeek // the channel's own week
}

// IsOwn tells whether the week is the channel's own.
func (w WeekRef) IsOwn() bool { return w.Own != nil }

// Follows tells whether it is the named week of that id.
func (w WeekRef) Follows(id string) bool { return w.Own == nil && w.Named == id }

// In is the week that is meant in a plan: its own, or the named one as it stands. It is
// empty where the plan has no week of that name.
func (w WeekRef) In(p *Plan) *OwnWeek {
	if w.Own != nil {
		return w.Own
	}
	if named := p.Week(w.Named); named != nil {
		return &named.OwnWeek
	}
	return &OwnWeek{}
}

// Departed is a week of the channel's own, as the one that is meant stands.
func (w WeekRef) Departed(p *Plan) WeekRef {
	if w.Own != nil {
		return w
	}
	return WeekRef{Own: w.In(p).Clone()}
}

// MarshalJSON writes the id as a string, an own week as an object.
func (w WeekRef) MarshalJSON() ([]byte, error) {
	if w.Own != nil {
		return json.Marshal(w.Own)
	}
	return json.Marshal(w.Named)
}

// UnmarshalJSON reads what MarshalJSON writes.
func (w *WeekRef) UnmarshalJSON(data []byte) error {
	if bytes.HasPrefix(bytes.TrimSpace(data), []byte("{")) {
		w.Own = new(OwnWeek)
		return json.Unmarshal(data, w.Own)
	}
	return json.Unmarshal(data, &w.Named)
}

// Text is where the id of a named week stands; nil for an own one.
func (w *WeekRef) Text() (*string, string) {
	if w.Own != nil {
		return nil, ""
	}
	return &w.Named, "week"
}

// Object is the own week; nil for a named one.
func (w *WeekRef) Object() any {
	if w.Own == nil {
		return (*OwnWeek)(nil)
	}
	return w.Own
}

// Begin makes it an own week, and returns that.
func (w *WeekRef) Begin() any {
	w.Own = new(OwnWeek)
	return w.Own
}

// Meaning is what a text and an object are.
func (w *WeekRef) Meaning() (string, string) { return "Id of a named week", "a week" }
