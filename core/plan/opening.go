package plan

import (
	"fmt"
	"strings"

	"wakefield/core/week"
)

// Opening is what is asked of somebody who begins with an empty page: enough for a
// first verdict, and nothing that is not known before the site was seen.
type Opening struct {
	Name     string `json:"name" minLength:"1" maxLength:"200" doc:"Name of the site"`
	Customer string `json:"customer,omitempty" maxLength:"200"`
	TimeZone string `json:"timeZone" maxLength:"100"`

	Recorder   string  `json:"recorder" minLength:"1" maxLength:"100" doc:"Name of the recorder"`
	Channels   int     `json:"channels" minimum:"1" maximum:"5000" doc:"Channels the recorder has"`
	IngestMbps float64 `json:"ingestMbps" minimum:"0.001" maximum:"1000000"`

	Drives    int     `json:"drives" minimum:"1" maximum:"1000"`
	Terabytes float64 `json:"terabytes" minimum:"0.001" maximum:"1000" doc:"Size of one drive"`
	Layout    string  `json:"layout" enum:"span,raid0,raid1,raid5,raid6,raid10"`

	Cameras  int      `json:"cameras" minimum:"1" maximum:"5000"`
	Codec    string   `json:"codec" enum:"h264,h265,av1,mjpeg"`
	Width    int      `json:"width" minimum:"16" maximum:"32768"`
	Height   int      `json:"height" minimum:"16" maximum:"32768"`
	FPS      float64  `json:"fps" minimum:"0.01" maximum:"240"`
	Activity string   `json:"activity" maxLength:"100" doc:"Id of the activity template that most cameras look at"`
	Duty     string   `json:"duty" maxLength:"100" doc:"Id of the ready-made duty of the opening week"`
	Names    []string `json:"names,omitempty" maxItems:"5000" doc:"Names of the cameras, in order; those without are numbered"`

	// What the first verdict assumes, where something better is known.
	IdleKbps     float64 `json:"idleKbps,omitempty" minimum:"0" maximum:"1000000" doc:"While nothing moves; 0 for the model"`
	ActiveKbps   float64 `json:"activeKbps,omitempty" minimum:"0" maximum:"1000000" doc:"While something moves; 0 for the model"`
	EventsPerDay float64 `json:"eventsPerDay,omitempty" minimum:"0" maximum:"1000000" doc:"In front of each camera; 0 for those of the template"`

	KeepDays float64 `json:"keepDays" minimum:"0" maximum:"36500" doc:"Days footage must be kept; 0 for no requirement"`
}

// Plan makes the plan: one recorder with one pool, all cameras of one kind on an
// opening week that they share, and the channels left over empty. The error, an
// [*Error], names the member that is wrong.
func (o Opening) Plan() (*Plan, error) {
	if err := CheckAt("", &o); err != nil {
		return nil, err
	}
	if len(o.Names) > o.Cameras {
		return nil, Wrong("names", "%d names of %d cameras", len(o.Names), o.Cameras)
	}
	if (o.IdleKbps > 0) != (o.ActiveKbps > 0) {
		return nil, Wrong("activeKbps", "a bitrate is wanted while nothing moves and while something does, or neither")
	}
	if o.Cameras > o.Channels {
		return nil, Wrong("cameras", "%d cameras on a recorder of %d channels", o.Cameras, o.Channels)
	}
	template := find(ActivityTemplates(), func(a *Activity) bool { return a.ID == o.Activity })
	if template == nil {
		return nil, Wrong("activity", "no activity template %q", o.Activity)
	}
	duty := find(ReadyMade(), func(d *Duty) bool { return d.ID == o.Duty })
	if duty == nil {
		return nil, Wrong("duty", "no ready-made duty %q", o.Duty)
	}
	main := PlainStream(Main)
	main.Codec, main.Width, main.Height, main.FPS = o.Codec, o.Width, o.Height, o.FPS
	if o.ActiveKbps > 0 {
		main.Rate = Rate{Kind: "variable", IdleKbps: o.IdleKbps, ActiveKbps: o.ActiveKbps, Known: "guess"}
	}
	seen := *template
	if usual := seen.Process().PerDay(); o.EventsPerDay > 0 && usual > 0 {
		f := o.EventsPerDay / usual
		seen.SetRates(week.Map(seen.Rates(), func(r float64) float64 { return min(r*f, 1e6) }))
	}
	kind := Kind{ID: "camera", Name: fmt.Sprintf("%s %d×%d", Codecs.Name(o.Codec), o.Width, o.Height), Streams: Streams{Main: main, Sub: PlainStream(Sub)}}
	p := &Plan{
		Format:     Format,
		Name:       "First plan",
		Site:       Site{Name: o.Name, Customer: o.Customer, TimeZone: o.TimeZone},
		Kinds:      []Kind{kind},
		Duties:     ReadyMade(),
		Weeks:      []Week{{ID: "opening", Name: "Opening week", OwnWeek: OwnWeek{Otherwise: duty.ID}}},
		Activities: []Activity{seen},
		Recorders: []Recorder{{ID: "recorder", Name: o.Recorder, Channels: o.Channels, IngestMbps: o.IngestMbps, Pools: []Pool{
			{ID: "pool", Name: "Drives", Drives: []DriveGroup{{Count: o.Drives, Terabytes: o.Terabytes}}, Layout: o.Layout},
		}}},
		Channels: []Channel{},
	}
	for n := 1; n <= o.Channels; n++ {
		c := Channel{ID: fmt.Sprintf("c%d", n), Number: n, Name: fmt.Sprintf("Camera %d", n), Recorder: "recorder", Pool: "pool", Week: WeekRef{Named: "opening"}}
		if n <= len(o.Names) && strings.TrimSpace(o.Names[n-1]) != "" {
			c.Name = strings.TrimSpace(o.Names[n-1])
		}
		if n > o.Cameras {
			c.Name, c.NoCamera = fmt.Sprintf("Channel %d", n), true
			c.Week = WeekRef{Own: &OwnWeek{Otherwise: "off"}}
		} else {
			kind.Onto(&c)
			c.PreSeconds, c.PostSeconds, c.Activity = 5, 10, template.ID
			c.Detection = Detection{On: true, By: "camera"}
			c.Keep.AtLeastDays = o.KeepDays
		}
		p.Channels = append(p.Channels, c)
	}
	return p, p.Check()
}
