// Package readout is what a recorder and its cameras say of themselves, in the plan's words, and how that differs from a plan.
//
// A [Device] is what was read. [Wanted] is the same device as a plan would have it, as far as the device tells: what it says
// nothing of is neither asked nor written. [Lines] tells member by member what differs between two of them, from → to, and for
// each what would make the plan so in place of the device. Held against the plan, written, checked after writing, put back as
// it was, and drifted since then are all Lines of two devices.
package readout

import (
	"slices"
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// Device is a recorder with its cameras, or a camera alone, as it was read.
type Device struct {
	Make            string    `json:"make,omitempty"`
	Model           string    `json:"model,omitempty"`
	Firmware        string    `json:"firmware,omitempty"`
	Serial          string    `json:"serial,omitempty"`
	ClockOffSeconds float64   `json:"clockOffSeconds" doc:"How far its clock is ahead; behind below 0"`
	Services        []string  `json:"services" doc:"What it speaks, in words"`
	Channels        []Channel `json:"channels" doc:"By number"`
	Inputs          []Input   `json:"inputs"`
	Outputs         []Output  `json:"outputs"`
	ByHour          bool      `json:"byHour" doc:"Whether what it records can follow hours of the week"`
	Periods         int       `json:"periods,omitempty" doc:"Periods a day that its schedules take; 0 where it says no limit"`
	Today           week.Date `json:"today,omitzero" doc:"On which it was read, from which special days are told"`
	SpecialDays     int       `json:"specialDays,omitempty" doc:"Dates that a group of special days takes; 0 where its schedules follow none"`
	Around          bool      `json:"around" doc:"Whether seconds before and after events can be told to it"`
	Unread          []Unread  `json:"unread" doc:"What could not be read, and why"`
}

// Unread is something that could not be read.
type Unread struct {
	What string `json:"what"`
	Why  string `json:"why"`
}

// Channel is a channel of a device with the camera on it.
type Channel struct {
	Number         int        `json:"number" doc:"In the order in which the device lists its pictures, from 1"`
	Token          string     `json:"token" doc:"Of the video source"`
	Tokens         []string   `json:"tokens,omitempty" doc:"Others by which the device's events mean it"`
	Name           string     `json:"name,omitempty"`
	Address        string     `json:"address,omitempty" doc:"Host and port of the camera, where the recorder tells it"`
	Streams        []Stream   `json:"streams" doc:"The largest first: main, sub, third"`
	Detection      *Detection `json:"detection,omitempty" doc:"Absent where it is not told"`
	Recording      string     `json:"recording,omitempty" doc:"Token of what its footage is kept as"`
	Layers         []Layer    `json:"layers,omitempty" doc:"What is recorded when; empty with a recording for nothing"`
	KeepAtMostDays *float64   `json:"keepAtMostDays,omitempty" doc:"Age at which footage is deleted, 0 for never; absent where it is not told"`
	Presets        []string   `json:"presets,omitempty" doc:"Names"`
	Oldest         *time.Time `json:"oldest,omitempty" doc:"Of its footage"`
	Newest         *time.Time `json:"newest,omitempty" doc:"Of its footage"`
}

// Stream returns a stream by its name; nil where the channel has none.
func (c *Channel) Stream(name plan.StreamName) *Stream {
	for i := range c.Streams {
		if c.Streams[i].Name == name {
			return &c.Streams[i]
		}
	}
	return nil
}

// Stream is a stream as its encoder is set.
type Stream struct {
	Name       plan.StreamName `json:"name" enum:"main,sub,third"`
	Profile    string          `json:"profile" doc:"Token"`
	Encoder    string          `json:"encoder" doc:"Token"`
	Codec      string          `json:"codec" doc:"h264, h265, mjpeg, or what the device calls another"`
	Width      int             `json:"width"`
	Height     int             `json:"height"`
	FPS        float64         `json:"fps"`
	GOPSeconds float64         `json:"gopSeconds,omitempty" doc:"0 where it is not told"`
	LimitKbps  float64         `json:"limitKbps,omitempty" doc:"The encoder sends no more; 0 where it is not told"`
	Constant   bool            `json:"constant,omitempty" doc:"Whether it sends just that"`
	Could      []Could         `json:"could,omitempty" doc:"What else its encoder can be set to"`
}

// Could is what an encoder can be set to with one codec.
type Could struct {
	Codec           string    `json:"codec"`
	Sizes           [][2]int  `json:"sizes"`
	FramesPerSecond []float64 `json:"framesPerSecond" doc:"From most to least"`
	Stepless        bool      `json:"stepless,omitempty" doc:"Whether these are the most and the least, and all between"`
	LeastKbps       float64   `json:"leastKbps,omitempty"`
	MostKbps        float64   `json:"mostKbps,omitempty"`
	LeastFrames     int       `json:"leastFrames,omitempty" doc:"From one keyframe to the next"`
	MostFrames      int       `json:"mostFrames,omitempty"`
	Constant        bool      `json:"constant,omitempty" doc:"Whether it can send a constant bitrate"`
}

// Detection is how a camera or a recorder notices motion.
type Detection struct {
	On                 bool        `json:"on"`
	Drawn              string      `json:"drawn" enum:"polygon,grid,none" doc:"How its areas are drawn"`
	Columns            int         `json:"columns,omitempty" doc:"Of its grid"`
	Rows               int         `json:"rows,omitempty" doc:"Of its grid"`
	Areas              []plan.Area `json:"areas,omitempty" doc:"That are watched; none with On for all of the picture"`
	SensitivityPercent *float64    `json:"sensitivityPercent,omitempty"`
	MinSeconds         *float64    `json:"minSeconds,omitempty" doc:"Shorter motion is ignored"`
	Configuration      string      `json:"configuration,omitempty" doc:"Token of the analytics configuration"`
}

// Layer is a stream that is recorded over some hours, all of it or around events.
type Layer struct {
	Stream      plan.StreamName `json:"stream" enum:"main,sub,third"`
	On          []plan.Trigger  `json:"on,omitempty" enum:"motion,alarm" doc:"Events around which it is recorded; empty for all of it"`
	By          []string        `json:"by,omitempty" doc:"Whose events: motion or alarm, and the token of the picture or the contact; absent where the device does not say"`
	PreSeconds  *float64        `json:"preSeconds,omitempty" doc:"Absent where the device does not say"`
	PostSeconds *float64        `json:"postSeconds,omitempty"`
	Hours       []plan.Hours    `json:"hours,omitzero" required:"false" doc:"Absent for always; empty for on special days alone"`
	OnDates     []OnDates       `json:"onDates,omitempty" doc:"Special days, on which its hours are others"`

	untied []plan.Trigger // of On: those that nothing of the plan is tied to, so that they never come
}

// Heard are the events around which a layer is recorded, without those that never come; none of a layer that never is.
func (l *Layer) Heard() (on []plan.Trigger) {
	for _, t := range l.On {
		if !slices.Contains(l.untied, t) {
			on = append(on, t)
		}
	}
	return on
}

// Input is a contact of a device.
type Input struct {
	Token   string `json:"token"`
	Name    string `json:"name"`
	Contact string `json:"contact,omitempty" doc:"normallyOpen or normallyClosed; absent where it is not told"`
}

// Output is a relay of a device.
type Output struct {
	Token       string  `json:"token"`
	Name        string  `json:"name"`
	HoldSeconds float64 `json:"holdSeconds,omitempty" doc:"0 for as long as it is switched on"`
}
