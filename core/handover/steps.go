package handover

import (
	"encoding/hex"
	"encoding/json"
	"hash/fnv"
	"strings"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// Format is the version of the document of steps.
const Format = "wakefield-steps/1"

// Document is what a fitter types, for people and for programs.
type Document struct {
	Format    string  `json:"format" enum:"wakefield-steps/1"`
	Revision  int64   `json:"revision,omitempty" doc:"Of the plan; absent for a file"`
	Recorders []Sheet `json:"recorders"`
}

// Sheet are the steps of one recorder.
type Sheet struct {
	ID              string `json:"id"`
	Name            string `json:"name"`
	Entries         int    `json:"entries" doc:"How many things are typed or copied"`
	EntriesOneByOne int    `json:"entriesOneByOne" doc:"How many it would be if every channel were typed by itself"`
	Steps           []Step `json:"steps"`
}

// Section is a part of a sheet.
type Section string

// Sections, in the order in which recorders are set up.
const (
	Network   Section = "network"
	Cameras   Section = "cameras"
	Streams   Section = "streams"
	Detection Section = "detection"
	Ties      Section = "ties"
	Weeks     Section = "week"
	Special   Section = "special"
	Disks     Section = "disks"
	Messages  Section = "messages"
	AtCameras Section = "atCameras"
	Check     Section = "check"
)

// Sections are all of them, by name, in their order.
var Sections = plan.Choices{
	{ID: string(Network), Name: "Network and clock"},
	{ID: string(Cameras), Name: "Cameras and names"},
	{ID: string(Streams), Name: "Streams"},
	{ID: string(Detection), Name: "Detection and areas"},
	{ID: string(Ties), Name: "Ties and inputs"},
	{ID: string(Weeks), Name: "Week"},
	{ID: string(Special), Name: "Special days"},
	{ID: string(Disks), Name: "Disks and limits"},
	{ID: string(Messages), Name: "Messages"},
	{ID: string(AtCameras), Name: "At the cameras themselves"},
	{ID: string(Check), Name: "The check of it all"},
}

// Number is the place of a section among them, from 1.
func (s Section) Number() int {
	for i, c := range Sections {
		if c.ID == string(s) {
			return i + 1
		}
	}
	return 0
}

// Step is one thing to do.
type Step struct {
	ID        string  `json:"id" doc:"Number of the section, and of the step in it, such as 6.3"`
	Section   Section `json:"section" enum:"network,cameras,streams,detection,ties,week,special,disks,messages,atCameras,check"`
	Words     string  `json:"words"`
	Why       string  `json:"why,omitempty" doc:"What explains it, where that is worth a line"`
	RightWhen string  `json:"rightWhen,omitempty" doc:"What is to be seen when it is done right"`
	Entries   int     `json:"entries" doc:"How many things are typed or copied"`
	Do        Do      `json:"do"`
}

// Do is what a step does. Exactly one member is set.
type Do struct {
	Set     *Set       `json:"set,omitempty" doc:"Something is typed"`
	CopyDay *CopyDay   `json:"copyDay,omitempty" doc:"A day is copied to other days of the channel"`
	Copy    *CopyOf    `json:"copy,omitempty" doc:"A section of a channel is copied to other channels"`
	Camera  *AtCamera  `json:"camera,omitempty" doc:"Something is set at the camera itself"`
	Save    *struct{}  `json:"save,omitempty" doc:"What was typed is kept, and looked at again"`
	Look    *LookAfter `json:"look,omitempty" doc:"Something is to be seen"`
}

// Set is something that is typed: a day of a channel's week anew, or values of a thing.
type Set struct {
	Recorder string         `json:"recorder,omitempty" doc:"Id, of the recorder itself"`
	Channel  string         `json:"channel,omitempty" doc:"Id"`
	Input    string         `json:"input,omitempty" doc:"Id of an alarm input"`
	Button   string         `json:"button,omitempty" doc:"Id of a call button"`
	Output   string         `json:"output,omitempty" doc:"Id"`
	Monitor  string         `json:"monitor,omitempty" doc:"Id"`
	Message  string         `json:"message,omitempty" doc:"Id"`
	Tie      string         `json:"tie,omitempty" doc:"A cause, by its ids"`
	Pool     string         `json:"pool,omitempty" doc:"Id"`
	Date     string         `json:"date,omitempty" doc:"First date of a special day"`
	Section  string         `json:"section" doc:"week, stream, times, detection, area, or the section of the sheet"`
	Day      *week.Weekday  `json:"day,omitempty" doc:"Of a week"`
	Periods  []Period       `json:"periods,omitempty" doc:"The whole day anew, an entry each"`
	Values   map[string]any `json:"values,omitempty" doc:"Members named as in the plan, an entry each; none is what is not set any more"`
}

// Period is a duty over part of a day.
type Period struct {
	From week.Clock `json:"from"`
	To   week.Clock `json:"to"`
	Duty string     `json:"duty" doc:"Id"`
}

// CopyDay copies a day.
type CopyDay struct {
	Channel string         `json:"channel"`
	Day     week.Weekday   `json:"day"`
	To      []week.Weekday `json:"to"`
}

// CopyOf copies a section of a channel.
type CopyOf struct {
	Channel string   `json:"channel"`
	Section string   `json:"section" enum:"week,stream,times,detection"`
	To      []string `json:"to" doc:"Ids of channels"`
}

// AtCamera is something that is set at a camera.
type AtCamera struct {
	Channel string         `json:"channel"`
	Values  map[string]any `json:"values,omitempty" doc:"Members named as in the plan"`
}

// LookAfter is something to see.
type LookAfter struct {
	About   string `json:"about" doc:"What is looked at, by ids: it stays the same when figures in the words change"`
	Channel string `json:"channel,omitempty" doc:"Id, where it is about one"`
}

// Key tells what a step does apart from what others do, whatever number it has. Two steps with one key are the same thing to do.
func (s *Step) Key() string {
	data, err := json.Marshal(struct {
		Section Section
		Do      Do
	}{s.Section, s.Do})
	if err != nil {
		panic("handover: a step that cannot be written: " + err.Error())
	}
	if s.Do.Save != nil {
		data = append(data, s.Words...)
	}
	h := fnv.New128a()
	h.Write(data)
	return hex.EncodeToString(h.Sum(nil))
}

// Subject is what a step is about, by which a step that changed is known again.
func (s *Step) Subject() string {
	parts := []string{string(s.Section)}
	switch d := s.Do; {
	case d.Set != nil:
		parts = append(parts, "set", d.Set.Section, d.Set.Recorder, d.Set.Channel, d.Set.Input, d.Set.Button, d.Set.Output, d.Set.Monitor,
			d.Set.Message, d.Set.Tie, d.Set.Pool, d.Set.Date)
		if d.Set.Day != nil {
			parts = append(parts, d.Set.Day.String())
		}
		if area, ok := d.Set.Values["area"].(plan.Area); ok {
			parts = append(parts, area.ID)
		}
	case d.CopyDay != nil:
		parts = append(parts, "copyDay", d.CopyDay.Channel, d.CopyDay.Day.String())
	case d.Copy != nil:
		parts = append(parts, "copy", d.Copy.Section, d.Copy.Channel)
	case d.Camera != nil:
		parts = append(parts, "camera", d.Camera.Channel)
	case d.Look != nil:
		about, _, _ := strings.Cut(d.Look.About, ":")
		parts = append(parts, "look", about)
	default:
		parts = append(parts, "save")
	}
	return strings.Join(parts, "|")
}

// Changes are the steps of a sheet, by their ids, that are not among those of an earlier one: new ones, and such that do
// something else than before.
func Changes(before, after *Sheet) (ids []string) {
	there := make(map[string]bool)
	if before != nil {
		for i := range before.Steps {
			there[before.Steps[i].Key()] = true
		}
	}
	for i := range after.Steps {
		if s := &after.Steps[i]; !there[s.Key()] && s.Do.Save == nil {
			ids = append(ids, s.ID)
		}
	}
	return ids
}
