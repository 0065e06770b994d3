package plan

import (
	"fmt"
	"strings"

	"wakefield.example/core/document"
	"wakefield.example/core/week"
)

// Opening is what is asked of somebody who begins with an empty page: enough for a
// first verdict, and nothing that is not known before the site was seen.
type Opening struct {
	Name     string `json:"name" minLength:"1" maxLength:"200" doc:"Name of the site"`
	Customer string `json:"customer,omitempty" maxLength:"200"`
	TimeZone string `json:"timeZone" maxLength:"100"`

	Recorder   string  `json:"recorder" minLength:"1" maxLength:"100" doc:"Name of the recorder; of several the others are numbered"`
	Recorders  int     `json:"recorders,omitempty" minimum:"0" maximum:"100" doc:"How many such recorders; absent for one"`
	Channels   int     `json:"channels" minimum:"1" maximum:"5000" doc:"Channels a recorder has"`
	IngestMbps float64 `json:"ingestMbps" minimum:"0.001" maximum:"1000000"`

	Drives    int     `json:"drives" minimum:"1" maximum:"1000"`
	Terabytes float64 `json:"terabytes" minimum:"0.001" maximum:"1000" doc:"Size of one drive"`
	Layout    string  `json:"layout" enum:"span,raid0,raid1,raid5,raid6,raid10"`

	Group    string   `json:"group,omitempty" maxLength:"100" doc:"Name of the group of these cameras"`
	Cameras  int      `json:"cameras" minimum:"1" maximum:"5000"`
	Codec    string   `json:"codec" enum:"h264,h265,av1,mjpeg"`
	Width    int      `json:"width" minimum:"16" maximum:"32768"`
	Height   int      `json:"height" minimum:"16" maximum:"32768"`
	FPS      float64  `json:"fps" minimum:"0.01" maximum:"240"`
	Activity string   `json:"activity" maxLength:"100" doc:"Id of the activity template that most cameras look at"`
	Duty     string   `json:"duty" maxLength:"100" doc:"Id of the ready-made duty of the opening week"`
	Names    []string `json:"names,omitempty" maxItems:"5000" doc:"Names of the cameras, in order; those without are numbered"`

	Others []OpeningCameras `json:"others,omitempty" maxItems:"20" doc:"Cameras of other kinds, after these"`

	// What the first verdict assumes, where something better is known.
	IdleKbps     float64 `json:"idleKbps,omitempty" minimum:"0" maximum:"1000000" doc:"While nothing moves; 0 for the model"`
	ActiveKbps   float64 `json:"activeKbps,omitempty" minimum:"0" maximum:"1000000" doc:"While something moves; 0 for the model"`
	EventsPerDay float64 `json:"eventsPerDay,omitempty" minimum:"0" maximum:"1000000" doc:"In front of each camera; 0 for those of the template"`

	KeepDays float64 `json:"keepDays" minimum:"0" maximum:"36500" doc:"Days footage must be kept; 0 for no requirement"`
}

// OpeningCameras are some cameras of another kind, which look at something else.
type OpeningCameras struct {
	Group    string  `json:"group" minLength:"1" maxLength:"100" doc:"Name of the group of these cameras"`
	Cameras  int     `json:"cameras" minimum:"1" maximum:"5000"`
	Width    int     `json:"width" minimum:"16" maximum:"32768"`
	Height   int     `json:"height" minimum:"16" maximum:"32768"`
	FPS      float64 `json:"fps" minimum:"0.01" maximum:"240"`
	Activity string  `json:"activity" maxLength:"100" doc:"Id of the activity template that they look at"`
}

// GuessedReliability is the chance that a detector notices what is in sight, of a camera of which nothing is known.
const GuessedReliability = 0.95

// opened are the cameras of one kind of an opening, with what they are in the plan.
type opened struct {
	OpeningCameras
	kind Kind
}

// kinds are the cameras of an opening, kind by kind, and what happens in front of them.
func (o *Opening) kinds() (out []opened, seen []Activity, err error) {
	first := OpeningCameras{o.Group, o.Cameras, o.Width, o.Height, o.FPS, o.Activity}
	for n, c := range append([]OpeningCameras{first}, o.Others...) {
		path := ""
		if n > 0 {
			path = fmt.Sprintf("others[%d].", n-1)
		}
		template := find(ActivityTemplates(), func(a *Activity) bool { return a.ID == c.Activity })
		if template == nil {
			return nil, nil, document.Wrong(path+"activity", "no activity template %q", c.Activity)
		}
		main := PlainStream(Main)
		main.Codec, main.Width, main.Height, main.FPS = o.Codec, c.Width, c.Height, c.FPS
		if n == 0 && o.ActiveKbps > 0 {
			main.Rate = Rate{Kind: "variable", IdleKbps: o.IdleKbps, ActiveKbps: o.ActiveKbps, Known: "guess"}
		}
		if usual := template.Process().PerDay(); n == 0 && o.EventsPerDay > 0 && usual > 0 {
			f := o.EventsPerDay / usual
			template.SetRates(week.Map(template.Rates(), func(r float64) float64 { return min(r*f, 1e6) }))
		}
		if find(seen, func(a *Activity) bool { return a.ID == template.ID }) == nil {
			seen = append(seen, *template)
		}
		kind := Kind{ID: "camera", Name: fmt.Sprintf("%s %d×%d", Codecs.Name(o.Codec), c.Width, c.Height), Streams: Streams{Main: main,
			Sub: PlainStream(Sub)}}
		if n > 0 {
			kind.ID = fmt.Sprintf("camera-%d", n+1)
		}
		if c.Group != "" {
			kind.Name = c.Group + ", " + kind.Name
		}
		out = append(out, opened{c, kind})
	}
	return out, seen, nil
}

// Plan makes the plan: recorders with one pool each, the cameras spread over them in order, kind by kind, on an
// opening week that they share, and the channels left over empty. The error, an
// [*document.Error], names the member that is wrong.
func (o Opening) Plan() (*Plan, error) {
	if err := document.Check("", &o); err != nil {
		return nil, err
	}
	recorders, cameras := max(1, o.Recorders), o.Cameras
	for _, c := range o.Others {
		cameras += c.Cameras
	}
	if len(o.Names) > cameras {
		return nil, document.Wrong("names", "%d names of %d cameras", len(o.Names), cameras)
	}
	if (o.IdleKbps > 0) != (o.ActiveKbps > 0) {
		return nil, document.Wrong("activeKbps", "a bitrate is wanted while nothing moves and while something does, or neither")
	}
	if cameras > recorders*o.Channels {
		if recorders == 1 {
			return nil, document.Wrong("cameras", "%d cameras on a recorder of %d channels", cameras, o.Channels)
		}
		return nil, document.Wrong("cameras", "%d cameras on %d recorders of %d channels each", cameras, recorders, o.Channels)
	}
	if recorders*o.Channels > 5000 {
		return nil, document.Wrong("recorders", "%d recorders of %d channels are more than 5000 channels", recorders, o.Channels)
	}
	duty := find(ReadyMade(), func(d *Duty) bool { return d.ID == o.Duty })
	if duty == nil {
		return nil, document.Wrong("duty", "no ready-made duty %q", o.Duty)
	}
	kinds, seen, err := o.kinds()
	if err != nil {
		return nil, err
	}
	p := &Plan{
		Format:     Format,
		Name:       "First plan",
		Site:       Site{Name: o.Name, Customer: o.Customer, TimeZone: o.TimeZone},
		Duties:     ReadyMade(),
		Weeks:      []Week{{ID: "opening", Name: "Opening week", OwnWeek: OwnWeek{Otherwise: duty.ID}}},
		Activities: seen,
		Channels:   []Channel{},
	}
	var each []*opened // of the cameras, in order
	for k := range kinds {
		p.Kinds = append(p.Kinds, kinds[k].kind)
		for range kinds[k].Cameras {
			each = append(each, &kinds[k])
		}
	}
	made, share := 0, (cameras+recorders-1)/recorders
	for r := 1; r <= recorders; r++ {
		recorder := o.recorder(r)
		p.Recorders = append(p.Recorders, recorder)
		for n := 1; n <= o.Channels; n++ {
			c := Channel{ID: fmt.Sprintf("c%d", len(p.Channels)+1), Number: n, Recorder: recorder.ID, Pool: recorder.Pools[0].ID,
				Week: WeekRef{Named: "opening"}}
			if n > share || made == cameras {
				c.Name, c.NoCamera = fmt.Sprintf("Channel %d", len(p.Channels)+1), true
				c.Week = WeekRef{Own: &OwnWeek{Otherwise: "off"}}
			} else {
				o.camera(&c, each[made], made)
				made++
			}
			p.Channels = append(p.Channels, c)
		}
	}
	return p, p.Check()
}

// recorder is the one of a number, with its drives.
func (o *Opening) recorder(number int) Recorder {
	id, pool, name := "recorder", "pool", o.Recorder
	if number > 1 {
		id, pool, name = fmt.Sprintf("recorder-%d", number), fmt.Sprintf("pool-%d", number), fmt.Sprintf("%s %d", o.Recorder, number)
	}
	return Recorder{ID: id, Name: name, Channels: o.Channels, IngestMbps: o.IngestMbps, Pools: []Pool{
		{ID: pool, Name: "Drives", Drives: []DriveGroup{{Count: o.Drives, Terabytes: o.Terabytes}}, Layout: o.Layout},
	}}
}

// camera makes a channel that of the camera at a place in the order of all.
func (o *Opening) camera(c *Channel, of *opened, at int) {
	c.Name, c.Group = fmt.Sprintf("Camera %d", at+1), of.Group
	if at < len(o.Names) && strings.TrimSpace(o.Names[at]) != "" {
		c.Name = strings.TrimSpace(o.Names[at])
	}
	of.kind.Onto(c)
	reliability := GuessedReliability
	c.PreSeconds, c.PostSeconds, c.Activity = 5, 10, of.Activity
	c.Detection = Detection{On: true, By: "camera", Reliability: &reliability}
	c.Keep.AtLeastDays = o.KeepDays
}
