package plan

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
	Codecs          = Choices{{"h264", "H.264"}, {"h265", "H.265"}, {"av1", "AV1"}, {"mjpeg", "MJPEG"}}
	Layouts         = Choices{{"span", "no RAID"}, {"raid0", "RAID 0"}, {"raid1", "RAID 1"}, {"raid5", "RAID 5"}, {"raid6", "RAID 6"}, {"raid10", "RAID 10"}}
	RateKinds       = Choices{{"constant", "constant"}, {"variable", "variable"}, {"modelled", "modelled"}}
	RatesKnown      = Choices{{"guess", "a guess"}, {"datasheet", "a datasheet"}, {"surveyed", "surveyed"}, {"measured", "measured"}}
	ActivitiesKnown = Choices{{"guess", "a guess"}, {"surveyed", "surveyed"}, {"measured", "measured"}}
	Scenes          = Choices{{"still", "still"}, {"moderate", "moderate"}, {"busy", "busy"}}
	StreamChoices   = Choices{{"main", "main stream"}, {"sub", "sub stream"}, {"third", "third stream"}}
)
