package onvif

import (
	"maps"
	"slices"
)

// Job is what a recorder writes into a recording, and when: a stream, by a schedule or always, all of it or around events.
type Job struct {
	Token     string
	Recording string
	Active    bool
	Priority  int
	Profile   string // token of the media profile that is recorded
	Schedule  string // token; empty for always
	Filter    *Filter
}

// Filter says which events a job records, and how long before and after them.
type Filter struct {
	Heard         []Heard
	Before, After float64 // seconds; below 0 where nothing is said
}

// Heard is a topic, of all that it comes of or of one source.
type Heard struct {
	Topic  string
	Source map[string]string // items that a message has to have
}

// Topics of events.
const (
	TopicMotionAlarm  = "tns1:VideoSource/MotionAlarm"
	TopicCellMotion   = "tns1:RuleEngine/CellMotionDetector/Motion"
	TopicRegionMotion = "tns1:RuleEngine/MotionRegionDetector/Motion"
	TopicInput        = "tns1:Device/Trigger/DigitalInput"
	TopicSignalLoss   = "tns1:VideoSource/SignalLoss"
)

// profileType is how a source of a job says that it is a media profile.
const profileType = "http://www.onvif.org/ver10/schema/Profile"

// Configuration writes the job's configuration.
func (j Job) Configuration(name string) *Element {
	mode := "Idle"
	if j.Active {
		mode = "Active"
	}
	e := E(name)
	if j.Schedule != "" {
		e.CreateAttr("ScheduleToken", j.Schedule)
	}
	for _, in := range []*Element{E("tt:RecordingToken", j.Recording), E("tt:Mode", mode), E("tt:Priority", whole(j.Priority)),
		E("tt:Source", E("tt:SourceToken", Attr{"Type", profileType}, E("tt:Token", j.Profile)),
			E("tt:Tracks", E("tt:SourceTag", "VIDEO001"), E("tt:Destination", "VIDEO001")))} {
		e.AddChild(in)
	}
	if f := j.Filter; f != nil {
		filter := E("tt:EventFilter")
		for _, h := range f.Heard {
			one := E("tt:Filter", E("tt:Topic", h.Topic))
			if len(h.Source) > 0 {
				source := E("tt:Source")
				for _, name := range slices.Sorted(maps.Keys(h.Source)) {
					source.AddChild(Item(name, h.Source[name]))
				}
				one.AddChild(source)
			}
			filter.AddChild(one)
		}
		if f.Before >= 0 {
			filter.AddChild(E("tt:Before", Seconds(f.Before)))
		}
		if f.After >= 0 {
			filter.AddChild(E("tt:After", Seconds(f.After)))
		}
		e.AddChild(filter)
	}
	return e
}

// JobOf reads a job's configuration.
func JobOf(token string, e *Element) Job {
	j := Job{Token: token, Recording: Text(e, "RecordingToken"), Active: Text(e, "Mode") == "Active", Priority: Whole(e, "Priority"),
		Profile: Text(e, "Source/SourceToken/Token"), Schedule: e.SelectAttrValue("ScheduleToken", "")}
	f := At(e, "EventFilter")
	if f == nil {
		return j
	}
	j.Filter = &Filter{Before: -1, After: -1}
	for _, one := range f.SelectElements("Filter") {
		if topic := Text(one, "Topic"); topic != "" {
			j.Filter.Heard = append(j.Filter.Heard, Heard{topic, Items(At(one, "Source"))})
		}
	}
	if s, err := SecondsOf(Text(f, "Before")); err == nil {
		j.Filter.Before = s
	}
	if s, err := SecondsOf(Text(f, "After")); err == nil {
		j.Filter.After = s
	}
	return j
}
