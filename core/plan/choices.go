package plan

import (
	"reflect"

	"wakefield.example/core/document"
)

// Choice is one of the values that a member may have, as people call it.
type Choice struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// Choices are all the values of a member, in the order in which they are offered.
type Choices []Choice

// Name is what people call a value; the value itself where it is none of the choices.
func (c Choices) Name(id string) string {
	for _, choice := range c {
		if choice.ID == id {
			return choice.Name
		}
	}
	return id
}

// Names are what people call the values.
func (c Choices) Names() []string {
	names := make([]string, len(c))
	for i, choice := range c {
		names[i] = choice.Name
	}
	return names
}

// The values of members that are offered by name.
var (
	Codecs  = Choices{{"h264", "H.264"}, {"h265", "H.265"}, {"av1", "AV1"}, {"mjpeg", "MJPEG"}}
	Layouts = Choices{{"span", "no RAID"}, {"raid0", "RAID 0"}, {"raid1", "RAID 1"}, {"raid5", "RAID 5"}, {"raid6",
		"RAID 6"}, {"raid10", "RAID 10"}}
	RateKinds       = Choices{{"constant", "constant"}, {"variable", "variable"}, {"modelled", "modelled"}}
	RatesKnown      = Choices{{"guess", "a guess"}, {"datasheet", "a datasheet"}, {"surveyed", "surveyed"}, {"measured", "measured"}}
	ActivitiesKnown = Choices{{"guess", "a guess"}, {"surveyed", "surveyed"}, {"measured", "measured"}}
	Scenes          = Choices{{"still", "idle"}, {"moderate", "moderate"}, {"busy", "busy"}}
	Detectors       = Choices{{"camera", "by the camera"}, {"recorder", "by the recorder"}}
	SmallestOf      = Choices{{"picture", "of the picture"}, {"area", "of the area"}}
	Contacts        = Choices{{"normallyOpen", "normally open"}, {"normallyClosed", "normally closed"}}
	OutputKinds     = Choices{{"relay", "relay"}, {"light", "light"}, {"sounder", "sounder"}, {"siren", "siren"}}
	StillModes      = Choices{{"trigger", "on trigger"}, {"timed", "at fixed times"}}
	Copies          = Choices{{"recorded", "footage as recorded"}, {"sub", "the sub stream"}, {"stills", "snapshots only"}}
	LayersAtOnce    = Choices{{"two", "both at once"}, {"one", "one at a time"}}
	AreasTaken      = Choices{{"polygon", "as polygons"}, {"grid", "on a grid"}, {"none", "only at the cameras"}}
	CopiesTaken     = Choices{{"days", "a day to other days"}, {"week", "the week to other channels"}, {"stream",
		"streams to other channels"}, {"times", "pre- and post-event times to other channels"}, {"detection", "detection to other channels"}}
	StreamChoices = Choices{{"main", "main stream"}, {"sub", "sub stream"}, {"third", "third stream"}}
)

// AllChoices are the values of all members that are offered by name.
type AllChoices struct {
	Codecs          Choices       `json:"codecs"`
	Layouts         Choices       `json:"layouts"`
	RateKinds       Choices       `json:"rateKinds"`
	RatesKnown      Choices       `json:"ratesKnown"`
	ActivitiesKnown Choices       `json:"activitiesKnown"`
	Qualities       []int         `json:"qualities"`
	Scenes          Choices       `json:"scenes"`
	Streams         Choices       `json:"streams"`
	Detectors       Choices       `json:"detectors"`
	SmallestOf      Choices       `json:"smallestOf"`
	Contacts        Choices       `json:"contacts"`
	OutputKinds     Choices       `json:"outputKinds"`
	StillModes      Choices       `json:"stillModes"`
	Copies          Choices       `json:"copies" doc:"What of an event goes off site"`
	Layers          Choices       `json:"layers" doc:"How many layers a recorder takes at once"`
	AreasTaken      Choices       `json:"areasTaken" doc:"How areas are drawn at a recorder"`
	CopiesTaken     Choices       `json:"copiesTaken" doc:"What a recorder copies"`
	Takes           []TakesChoice `json:"takes" doc:"Ready-made answers to what a recorder takes"`
	Objects         Choices       `json:"objects" doc:"Things that walk, which every plan knows"`
	Sizes           []string      `json:"sizes" doc:"Pictures that cameras usually have; others are possible"`
}

// Every is all choices there are.
var Every = AllChoices{Codecs, Layouts, RateKinds, RatesKnown, ActivitiesKnown, []int{1, 2, 3, 4, 5}, Scenes, StreamChoices, Detectors,
	SmallestOf, Contacts, OutputKinds, StillModes, Copies, LayersAtOnce, AreasTaken, CopiesTaken, ReadyTakes(), objectChoices(),
	[]string{"640×360", "704×576", "1280×720", "1920×1080", "2560×1440", "2688×1520", "3072×2048", "3840×2160"}}

// Limits are what a member may be, of what stands in its tag.
type Limits struct {
	Minimum   *float64 `json:"minimum,omitempty"`
	Maximum   *float64 `json:"maximum,omitempty"`
	MaxLength *float64 `json:"maxLength,omitempty"`
	Whole     bool     `json:"whole,omitempty" doc:"Whether it is a whole number"`
}

// AllLimits are the limits of the members of the format by their paths, such as
// "channels.preSeconds".
func AllLimits() map[string]Limits {
	out := make(map[string]Limits)
	eachMember(func(path string, m document.Member) {
		of := func(name string) *float64 {
			if limit, ok := m.Limit(name); ok {
				return &limit
			}
			return nil
		}
		l := Limits{of("minimum"), of("maximum"), of("maxLength"), m.Type.Kind() == reflect.Int}
		if l != (Limits{}) {
			out[path] = l
		}
	})
	return out
}
