package plan

import (
	"math"
	"slices"

	"wakefield.example/core/document"
	"wakefield.example/core/week"
)

// Channel is one channel of a recorder and the camera on it. What stands aside in a tag is
// nothing that the footage of other channels depends on.
type Channel struct {
	ID               string    `json:"id" minLength:"1" maxLength:"100"`
	Number           int       `json:"number" aside:"yes" minimum:"1" maximum:"5000"`
	Name             string    `json:"name" aside:"yes" minLength:"1" maxLength:"100"`
	Group            string    `json:"group,omitempty" aside:"yes" maxLength:"100"`
	Recorder         string    `json:"recorder" aside:"yes" ref:"recorder" minLength:"1" maxLength:"100"`
	Pool             string    `json:"pool" aside:"yes" ref:"pool" minLength:"1" maxLength:"100"`
	NoCamera         bool      `json:"noCamera,omitempty" doc:"The channel is empty"`
	Kind             string    `json:"kind,omitempty" aside:"yes" ref:"camera kind" goes:"clears" maxLength:"100" doc:"Id of the camera kind; settings that differ from it depart from it"`
	Streams          Streams   `json:"streams,omitzero" aside:"yes"`
	Address          string    `json:"address,omitempty" aside:"yes" maxLength:"200" doc:"Host and port at which the camera answers; never a name or password"`
	StreamsBy        string    `json:"streamsBy,omitempty" aside:"yes" enum:"recorder,camera" doc:"Who decides frames, size and bitrate of its streams: where the camera does, what a duty asks for at the recorder has no effect; absent for the recorder"`
	AudioKbps        float64   `json:"audioKbps,omitempty" aside:"yes" minimum:"0" maximum:"10000"`
	PreSeconds       float64   `json:"preSeconds,omitempty" aside:"yes" minimum:"0" maximum:"3600" doc:"Kept before an event"`
	PostSeconds      float64   `json:"postSeconds,omitempty" aside:"yes" minimum:"0" maximum:"86400" doc:"Kept after an event"`
	AlarmPreSeconds  *float64  `json:"alarmPreSeconds,omitempty" aside:"yes" minimum:"0" maximum:"3600" doc:"Kept before an alarm; absent as for motion"`
	AlarmPostSeconds *float64  `json:"alarmPostSeconds,omitempty" aside:"yes" minimum:"0" maximum:"86400" doc:"Kept after an alarm; absent as for motion"`
	Activity         string    `json:"activity,omitempty" ref:"activity" goes:"clears" maxLength:"100"`
	Nuisance         string    `json:"nuisance,omitempty" ref:"activity" goes:"clears" maxLength:"100"`
	Detection        Detection `json:"detection,omitzero"`
	Events           string    `json:"events,omitempty" aside:"yes" enum:"both,out,none" doc:"Whether the recorder can set the camera's detection, only hears of it, or neither; absent for both"`
	Scene            *Scene    `json:"scene,omitempty" doc:"What the camera looks at"`
	Movable          *Movable  `json:"movable,omitempty" aside:"yes" doc:"Where a camera that moves can look; absent for a fixed one"`
	Stills           *Stills   `json:"stills,omitempty" aside:"yes" doc:"Single pictures kept beside the footage"`
	Keep             Keep      `json:"keep,omitzero" aside:"yes"`
	Matters          float64   `json:"matters,omitempty" aside:"yes" minimum:"1" maximum:"3" doc:"How much what it loses matters beside others; absent for 2"`
	Week             WeekRef   `json:"week" aside:"yes"`
}

// CameraDecides tells whether the settings of a duty have no effect on the channel's streams.
func (c *Channel) CameraDecides() bool { return c.StreamsBy == "camera" }

// MattersUsually is how much a channel matters where nothing is said.
const MattersUsually = 2.0

// Weight is how much a channel matters, 1 to 3.
func (c *Channel) Weight() float64 {
	if c.Matters == 0 {
		return MattersUsually
	}
	return c.Matters
}

// Streams are the pictures a camera offers.
type Streams struct {
	Main  *Stream `json:"main,omitempty"`
	Sub   *Stream `json:"sub,omitempty"`
	Third *Stream `json:"third,omitempty"`
}

// Get returns the stream of that name, nil where the camera has none.
func (s Streams) Get(w StreamName) *Stream {
	switch w {
	case Main:
		return s.Main
	case Sub:
		return s.Sub
	case Third:
		return s.Third
	}
	return nil
}

// With returns the streams with one replaced.
func (s Streams) With(w StreamName, stream *Stream) Streams {
	switch w {
	case Main:
		s.Main = stream
	case Sub:
		s.Sub = stream
	case Third:
		s.Third = stream
	}
	return s
}

// Stream is one encoded picture.
type Stream struct {
	Codec      string  `json:"codec" enum:"h264,h265,av1,mjpeg"`
	Width      int     `json:"width" minimum:"16" maximum:"32768"`
	Height     int     `json:"height" minimum:"16" maximum:"32768"`
	FPS        float64 `json:"fps" minimum:"0.01" maximum:"240"`
	GOPSeconds float64 `json:"gopSeconds" minimum:"0.001" maximum:"3600" doc:"Keyframe interval"`
	KeyframeKB float64 `json:"keyframeKB,omitempty" minimum:"0.001" maximum:"100000" doc:"Mean size of a keyframe, kB of 1,000 bytes"`
	Rate       Rate    `json:"rate"`
}

// Rate is the bitrate of a stream and where the figure comes from.
type Rate struct {
	Kind       string  `json:"kind" enum:"constant,variable,modelled"`
	Kbps       float64 `json:"kbps,omitempty" minimum:"0.001" maximum:"1000000"`
	IdleKbps   float64 `json:"idleKbps,omitempty" minimum:"0.001" maximum:"1000000"`
	ActiveKbps float64 `json:"activeKbps,omitempty" minimum:"0.001" maximum:"1000000"`
	Known      string  `json:"known,omitempty" enum:"guess,datasheet,surveyed,measured"`
	Quality    int     `json:"quality,omitempty" minimum:"1" maximum:"5"`
	Scene      string  `json:"scene,omitempty" enum:"still,moderate,busy"`
	Adaptive   bool    `json:"adaptive,omitempty" doc:"The encoder sends fewer keyframes, and less between them, while nothing moves"`
	MaxKbps    float64 `json:"maxKbps,omitempty" minimum:"0.001" maximum:"1000000" doc:"The encoder never sends more"`
	Night      *Night  `json:"night,omitempty" doc:"What noise in the dark adds"`
}

// Night is what a stream costs at night: its bitrate times a factor.
type Night struct {
	Hours  HourList `json:"hours"`
	Factor float64  `json:"factor" minimum:"0.1" maximum:"100"`
}

// Steps is when it is night.
func (n *Night) Steps() week.Steps[bool] {
	if n == nil {
		return week.Constant(false)
	}
	return n.Hours.Steps()
}

// Variants are the members of each kind of rate.
func (Rate) Variants() (string, []document.Variant) {
	return "kind", []document.Variant{
		{Kind: "constant", Members: []string{"kbps", "known"}},
		{Kind: "variable", Members: []string{"idleKbps", "activeKbps", "known"}, Optional: []string{"night"}},
		{Kind: "modelled", Members: []string{"quality", "scene"}, Optional: []string{"adaptive", "maxKbps", "night"}},
	}
}

// Detection is how motion becomes a trigger.
type Detection struct {
	On          bool      `json:"on"`
	By          string    `json:"by,omitempty" enum:"camera,recorder"`
	Hours       *HourList `json:"hours,omitempty" doc:"When detection is on; absent for always"`
	MinSeconds  float64   `json:"minSeconds,omitempty" minimum:"0" maximum:"3600" doc:"Shorter motion is ignored"`
	Reliability *float64  `json:"reliability,omitempty" minimum:"0" maximum:"1" doc:"Chance that detection notices what is in sight; absent for 0.95 where areas are drawn"`
	Catch       *float64  `json:"catch,omitempty" minimum:"0" maximum:"1" doc:"Chance that motion is noticed; overrules what the walks say; absent for 1 where no areas are drawn"`
	RecordsSelf *bool     `json:"recordsSelf,omitempty" doc:"Whether own motion records the channel itself; absent for true"`
	Areas       *Areas    `json:"areas,omitempty" doc:"Detection areas, or how many are drawn at the camera; absent where nobody has counted"`
}

// HourList are hours of the week.
type HourList struct {
	Blocks []Hours `json:"blocks" holds:"-" maxItems:"5000"`
}

// Movable is a camera that can be sent to look elsewhere.
type Movable struct {
	Home    string   `json:"home" key:"yes" minLength:"1" maxLength:"100" doc:"Id of the preset where it rests"`
	Presets []Preset `json:"presets" holds:"-" minItems:"1" maxItems:"256"`
}

// Preset is a place that a movable camera can look at.
type Preset struct {
	ID   string `json:"id" minLength:"1" maxLength:"100"`
	Name string `json:"name" minLength:"1" maxLength:"100"`
}

// Has tells whether there is a preset of that id; no camera that stands still has any.
func (m *Movable) Has(id string) bool {
	return m != nil && slices.ContainsFunc(m.Presets, func(p Preset) bool { return p.ID == id })
}

// Name is a preset's name.
func (m *Movable) Name(id string) string {
	if m != nil {
		if p := find(m.Presets, func(p *Preset) bool { return p.ID == id }); p != nil {
			return p.Name
		}
	}
	return id
}

// Stills are single pictures, kept in the pool of the channel's footage.
type Stills struct {
	Mode         string    `json:"mode" enum:"timed,trigger" doc:"Timed at every interval, or on trigger: while the channel's own motion or what is tied to them goes on"`
	EverySeconds float64   `json:"everySeconds" minimum:"0.1" maximum:"86400" doc:"Smallest interval"`
	Width        int       `json:"width" minimum:"16" maximum:"32768"`
	Height       int       `json:"height" minimum:"16" maximum:"32768"`
	Quality      int       `json:"quality,omitempty" minimum:"1" maximum:"5"`
	Kilobytes    float64   `json:"kilobytes,omitempty" minimum:"0.1" maximum:"100000" doc:"Measured mean size, kB of 1,000 bytes"`
	Hours        *HourList `json:"hours,omitempty" doc:"When they are taken; absent for always"`
}

// ExactlyOne tells how large they are.
func (Stills) ExactlyOne() []string { return []string{"quality", "kilobytes"} }

// Bytes is the mean size of one: as measured, or width × height × bits a pixel, 0.35 at the
// middle quality and 1.6 times as many a step.
func (s *Stills) Bytes() float64 {
	if s.Kilobytes > 0 {
		return 1000 * s.Kilobytes
	}
	return float64(s.Width) * float64(s.Height) * 0.35 * math.Pow(1.6, float64(s.Quality-3)) / 8
}

// Keep is how long footage must and may be kept.
type Keep struct {
	AtLeastDays float64 `json:"atLeastDays,omitempty" minimum:"0.01" maximum:"36500"`
	AtMostDays  float64 `json:"atMostDays,omitempty" minimum:"0.01" maximum:"36500" doc:"Age limit"`
	QuotaGB     float64 `json:"quotaGB,omitempty" minimum:"0.001" maximum:"10000000"`
}

// AlarmPreEvent is the pre-event time for alarms, in seconds.
func (c *Channel) AlarmPreEvent() float64 { return Or(c.AlarmPreSeconds, c.PreSeconds) }

// AlarmPostEvent is the post-event time for alarms, in seconds.
func (c *Channel) AlarmPostEvent() float64 { return Or(c.AlarmPostSeconds, c.PostSeconds) }

// TiedToSelf tells whether the channel's own motion records the channel.
func (d Detection) TiedToSelf() bool { return Or(d.RecordsSelf, true) }

// Or is what a pointer leads to; otherwise where it leads nowhere.
func Or[T any](p *T, otherwise T) T {
	if p != nil {
		return *p
	}
	return otherwise
}
