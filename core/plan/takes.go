package plan

import (
	"encoding/json"
	"reflect"
	"slices"
	"strings"

	"wakefield.example/core/document"
)

// Takes is what can be entered at a recorder. What is absent is not limited.
type Takes struct {
	StepMinutes      int       `json:"stepMinutes,omitempty" minimum:"1" maximum:"1440" doc:"Times of a week stand on steps of so many minutes from midnight; absent for any minute"`
	PeriodsPerDay    int       `json:"periodsPerDay,omitempty" minimum:"1" maximum:"1440" doc:"How often a day can change; absent for as often as one likes"`
	Layers           string    `json:"layers,omitempty" enum:"one,two" doc:"Whether a duty can have a base layer or an event layer only, or both at once; absent for both"`
	PreSeconds       []float64 `json:"preSeconds,omitempty" maxItems:"200" doc:"Pre-event times that can be chosen; empty for any"`
	PostSeconds      []float64 `json:"postSeconds,omitempty" maxItems:"200" doc:"Post-event times that can be chosen; empty for any"`
	FramesPerSecond  []float64 `json:"framesPerSecond,omitempty" maxItems:"200" doc:"Frame rates that can be chosen; empty for any"`
	SensitivitySteps int       `json:"sensitivitySteps,omitempty" minimum:"1" maximum:"1000" doc:"Steps of sensitivity from nothing to all; absent for any percentage"`
	Areas            string    `json:"areas,omitempty" enum:"polygon,grid,none" doc:"How areas are drawn at it; none where it only hears of events, so that areas are drawn at the cameras; absent for any way"`
	GridColumns      int       `json:"gridColumns,omitempty" minimum:"1" maximum:"128" doc:"Of the grid"`
	GridRows         int       `json:"gridRows,omitempty" minimum:"1" maximum:"96"`
	Copies           []string  `json:"copies,omitzero" maxItems:"5" enum:"days,week,stream,times,detection" doc:"What it copies: a day to other days, or these of a channel to other channels; absent for all of them, empty for nothing"`
}

// Copy is something that a recorder can copy.
type Copy string

// What recorders copy.
const (
	CopiesDays      Copy = "days"
	CopiesWeek      Copy = "week"
	CopiesStream    Copy = "stream"
	CopiesTimes     Copy = "times"
	CopiesDetection Copy = "detection"
)

// CanCopy tells whether a recorder copies something; one of which nothing is said does.
func (t *Takes) CanCopy(what Copy) bool {
	return t == nil || t.Copies == nil || slices.Contains(t.Copies, string(what))
}

// Step is the step of its times, in minutes.
func (t *Takes) Step() int {
	if t == nil || t.StepMinutes == 0 {
		return 1
	}
	return t.StepMinutes
}

// Grid is the grid that areas are painted on, and whether they are.
func (t *Takes) Grid() (columns, rows int, on bool) {
	if t == nil || t.Areas != "grid" {
		return 0, 0, false
	}
	columns, rows = t.GridColumns, t.GridRows
	if columns == 0 {
		columns = usualColumns
	}
	if rows == 0 {
		rows = usualRows
	}
	return columns, rows, true
}

// A grid of which nobody said how fine it is.
const (
	usualColumns = 22
	usualRows    = 18
)

// TakesChoice is a ready-made answer to what a recorder takes, or to a part of that.
type TakesChoice struct {
	ID    string `json:"id"`
	Name  string `json:"name"`
	Takes Takes  `json:"takes" doc:"Members that it sets"`
	Clear bool   `json:"clear,omitempty" doc:"Whether it takes away all others"`
}

// ReadyTakes are the ready-made answers, in the order in which they are offered.
func ReadyTakes() []TakesChoice {
	return []TakesChoice{
		{ID: "half-hours", Name: "Half hours, one mode at a time", Takes: Takes{StepMinutes: 30, PeriodsPerDay: 8, Layers: "one"}},
		{ID: "minutes", Name: "Minutes, two layers at once", Takes: Takes{StepMinutes: 1, PeriodsPerDay: 8, Layers: "two"}},
		{ID: "polygons", Name: "Areas drawn as polygons", Takes: Takes{Areas: "polygon"}},
		{ID: "grid", Name: "Areas painted on a grid", Takes: Takes{Areas: "grid", GridColumns: usualColumns, GridRows: usualRows}},
		{ID: "hears", Name: "Only hears of events", Takes: Takes{Areas: "none"}},
		{ID: "all", Name: "Takes all that is planned", Clear: true},
	}
}

// Words are what the fitter calls things at a recorder; in a file an object of texts by id.
type Words []Word

// Word is what the fitter calls a duty at a recorder.
type Word struct {
	Duty string `json:"duty" key:"yes" ref:"duty" goes:"leaves" minLength:"1" maxLength:"100"`
	Name string `json:"name" minLength:"1" maxLength:"100"`
}

// Of is what a duty is called, empty where nothing is said.
func (w Words) Of(duty string) string {
	for _, word := range w {
		if word.Duty == duty {
			return word.Name
		}
	}
	return ""
}

// MarshalJSON writes an object of texts by the id of their duty.
func (w Words) MarshalJSON() ([]byte, error) {
	out := make(map[string]string, len(w))
	for _, word := range w {
		out[word.Duty] = word.Name
	}
	return json.Marshal(out)
}

// UnmarshalJSON reads what MarshalJSON writes.
func (w *Words) UnmarshalJSON(data []byte) error {
	var by map[string]string
	if err := json.Unmarshal(data, &by); err != nil {
		return err
	}
	*w = nil
	for duty, text := range by {
		*w = append(*w, Word{duty, text})
	}
	w.sort()
	return nil
}

// sort puts them in an order that does not depend on the file.
func (w Words) sort() {
	slices.SortFunc(w, func(a, b Word) int {
		switch {
		case a.Duty < b.Duty:
			return -1
		case a.Duty > b.Duty:
			return 1
		}
		return 0
	})
}

// ReadFrom reads an object of texts.
func (w *Words) ReadFrom(r *document.Reader, path string, token json.Token) error {
	if token != json.Delim('{') {
		return document.Wrong(path, "%s where an object is wanted", document.KindOf(token))
	}
	*w = nil
	for {
		token, err := r.Next()
		if err != nil {
			return err
		}
		duty, ok := token.(string)
		if !ok {
			w.sort()
			return nil
		}
		if w.Of(duty) != "" {
			return document.Wrong(document.Join(path, duty), "given twice")
		}
		if token, err = r.Next(); err != nil {
			return err
		}
		word := Word{Duty: duty}
		if err := r.Into(document.Join(path, duty), token, &word.Name); err != nil {
			return err
		}
		if err := document.Check(document.Join(path, duty), &word); err != nil {
			wrong := err.(*document.Error) // as all errors of rules are
			return &document.Error{Path: strings.TrimSuffix(strings.TrimSuffix(wrong.Path, ".name"), ".duty"), Reason: wrong.Reason}
		}
		*w = append(*w, word)
	}
}

// Schema is an object of texts.
func (w *Words) Schema(of func(reflect.Type) document.Object) document.Object {
	text := of(reflect.TypeFor[Word]())["properties"].(document.Object)["name"]
	return document.Object{"type": "object", "additionalProperties": text}
}
