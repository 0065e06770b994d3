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
