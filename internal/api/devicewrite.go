package api

import (
	"context"
	"encoding/json"
	"errors"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/readout"
	"wakefield.example/core/video"
	"wakefield.example/internal/device"
	"wakefield.example/internal/server"
)

// DeviceSet is what became of a part that was to be set.
type DeviceSet struct {
	Part  string         `json:"part"`
	About string         `json:"about" doc:"Name of the channel, input or output"`
	What  string         `json:"what" doc:"In words"`
	Ended string         `json:"ended" enum:"set,otherwise,refused,not"`
	Why   string         `json:"why,omitempty" doc:"The device's own reason, or why it was not tried"`
	Left  []readout.Line `json:"left" doc:"What differs still, read back"`
}

// WriteBody says which parts are to be set, and what was shown when that was decided.
type WriteBody struct {
	Parts   []string  `json:"parts" minItems:"1" maxItems:"5000"`
	ReadAt  time.Time `json:"readAt" doc:"Of what was shown"`
	Version int64     `json:"version" doc:"Of the plan that was shown"`
}

// errOther says that something else is there than was shown.
var errOther = huma.Error409Conflict("The plan or the device was changed since this was shown. Nothing was set. Look at it again.")

func (s *service) writeDevice(ctx context.Context, in *struct {
	DeviceParam
	SentBy
	Body WriteBody
}) (*struct{}, error) {
	e, d, said, against, entered, err := s.heldOf(ctx, in.ID, in.Device)
	if err != nil {
		return nil, s.deviceOr(ctx, err)
	}
	if e.head.Version != in.Body.Version || !d.SaidAt.Equal(in.Body.ReadAt) {
		return nil, errOther
	}
	wanted, _ := readout.Wanted(entered, target(&d), said)
	parts, lines := partsOf(against.Lines, in.Body.Parts)
	if len(parts) == 0 {
		return nil, huma.Error422UnprocessableEntity("None of that differs any more.")
	}
	name := called(e.head.Plan, target(&d), said)
	return nil, s.work(ctx, in.ID, in.Device, "write", in.SentBy, func(ctx context.Context, w *working) (cameOf, error) {
		return w.set(ctx, wanted, parts, lines, name)
	})
}

// partsOf are the parts of lines that are among those asked for, in the order of the lines, with the lines of each.
func partsOf(all []readout.Line, asked []string) (parts []string, lines map[string][]readout.Line) {
	lines = make(map[string][]readout.Line)
	for _, l := range all {
		if l.Part == "" || !slices.Contains(asked, l.Part) {
			continue
		}
		if lines[l.Part] == nil {
			parts = append(parts, l.Part)
		}
		lines[l.Part] = append(lines[l.Part], l)
	}
	return parts, lines
}

func (s *service) putBackDevice(ctx context.Context, in *struct {
	DeviceParam
	SentBy
	Body WriteBody
}) (*struct{}, error) {
	e, d, said, _, _, err := s.heldOf(ctx, in.ID, in.Device)
	if err != nil {
		return nil, s.deviceOr(ctx, err)
	}
	if d.Before == nil {
		return nil, huma.Error422UnprocessableEntity("Nothing was set at this device from here.")
	}
	if !d.SaidAt.Equal(in.Body.ReadAt) {
		return nil, errOther
	}
	var was readout.Device
	if err := json.Unmarshal(d.Before, &was); err != nil {
		return nil, s.problem(ctx, err)
	}
	name := called(e.head.Plan, target(&d), said)
	parts, lines := partsOf(readout.Lines(said, &was, name), in.Body.Parts)
	if len(parts) == 0 {
		return nil, huma.Error422UnprocessableEntity("It is as it was already.")
	}
	return nil, s.work(ctx, in.ID, in.Device, "putBack", in.SentBy, func(ctx context.Context, w *working) (cameOf, error) {
		return w.set(ctx, &was, parts, lines, name)
	})
}

// set sets parts of a device one after the other, reads each back, and says what became of it. Where the device cannot be spoken with
// any more, the rest is said not to be tried; so is what is left when somebody stops it.
func (w *working) set(ctx context.Context, wanted *readout.Device, parts []string, lines map[string][]readout.Line,
	name func(c *readout.Channel) (id, name string)) (cameOf, error) {
	now, before := w.said, w.said
	var list []DeviceSet
	var ends error
	for k, part := range parts {
		about, what := lines[part][0].About, lines[part][0].What
		for _, l := range lines[part][1:] {
			what += ", " + l.What
		}
		w.progress(k, len(parts), about+": "+what)
		out := DeviceSet{Part: part, About: about, What: what, Ended: "not", Left: []readout.Line{}}
		switch {
		case ctx.Err() != nil:
			out.Why = "It was stopped before."
		case ends != nil:
			out.Why = ends.Error()
		default:
			var again *readout.Device
			again, out.Ended, out.Why, ends = w.setOne(ctx, now, wanted, part)
			if again != nil {
				now = again
			}
		}
		for _, l := range readout.Lines(now, wanted, name) {
			if l.Part == part {
				out.Left = append(out.Left, l)
			}
		}
		if out.Ended == "set" && len(out.Left) > 0 {
			out.Ended = "otherwise"
		}
		list = append(list, out)
	}
	w.progress(len(parts), len(parts), "")
	return cameOf{said: now, before: before, written: now, told: &CameOf{Set: list}}, nil
}

// setOne sets a part and reads it back. ends is why nothing more is to be tried.
func (w *working) setOne(ctx context.Context, now, wanted *readout.Device, part string) (again *readout.Device, ended,
	why string, ends error) {
	err := w.Write(ctx, wanted, part)
	if err != nil {
		ended, why = "refused", err.Error()
		if ctx.Err() != nil {
			return nil, "not", "It was stopped in the middle; read it again to see how it is.", nil
		}
		var known *device.Error
		if !errors.As(err, &known) || known.Trouble == device.Closed || known.Trouble == device.Gone || known.Trouble == device.Late {
			ended, ends = "not", err
		}
	} else {
		ended = "set"
	}
	again, errBack := w.Again(ctx, now, part)
	if errBack != nil && ended == "set" {
		return nil, "otherwise", "It could not be read back: " + errBack.Error(), ends
	}
	return again, ended, why, ends
}

// WatchedByDevice is what came of a stream while it was watched.
type WatchedByDevice struct {
	Token    string          `json:"token" doc:"Of the video source"`
	Stream   string          `json:"stream" enum:"main,sub,third"`
	Codec    string          `json:"codec"`
	Frames   int             `json:"frames"`
	Packets  int             `json:"packets"`
	Lost     int             `json:"lost" doc:"Packets that did not come"`
	Measured *video.Measured `json:"measured,omitempty" doc:"Absent where too little came"`
	Why      string          `json:"why,omitempty" doc:"Why too little came"`
}

// wholeGroups are frames from the first keyframe on, without those of a group that had begun and not ended: it would count for more than
// it is. Of too few all are kept.
func wholeGroups(frames []video.Packet) []video.Packet {
	first, last := -1, -1
	for i := range frames {
		if frames[i].Keyframe {
			if first < 0 {
				first = i
			}
			last = i
		}
	}
	if last-first < 10 {
		return frames
	}
	return frames[first:last]
}

func (s *service) measureDevice(ctx context.Context, in *struct {
	DeviceParam
	SentBy
	Body struct {
		Token   string  `json:"token" minLength:"1" maxLength:"200" doc:"Of the video source"`
		Stream  string  `json:"stream" enum:"main,sub,third"`
		Seconds float64 `json:"seconds" minimum:"5" maximum:"300" doc:"How long it is watched"`
	}
}) (*struct{}, error) {
	b := in.Body
	return nil, s.work(ctx, in.ID, in.Device, "measure", in.SentBy, func(ctx context.Context, w *working) (came cameOf, err error) {
		profile := ""
		if w.said != nil {
			for i := range w.said.Channels {
				for _, st := range w.said.Channels[i].Streams {
					if w.said.Channels[i].Token == b.Token && string(st.Name) == b.Stream {
						profile = st.Profile
					}
				}
			}
		}
		if profile == "" {
			return came, &device.Error{Trouble: device.Refused, Words: "The device has no such stream. Read it again."}
		}
		watched, err := w.Watch(ctx, profile, time.Duration(b.Seconds*float64(time.Second)), w.progress)
		if err != nil {
			return came, err
		}
		out := &WatchedByDevice{Token: b.Token, Stream: b.Stream, Codec: watched.Codec, Frames: len(watched.Frames), Packets: watched.Packets,
			Lost: watched.Lost}
		if out.Measured, err = video.Measure(wholeGroups(watched.Frames)); err != nil {
			out.Measured, out.Why = nil, server.Sentence(err.Error())
		}
		return cameOf{told: &CameOf{Watched: out}}, nil
	})
}
