package readout

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
)

// TestWhatDevicesDifferIn holds recorders that are set otherwise in all that is read of them against their plans, and those of
// which nothing can be read, to what is said of it.
func TestWhatDevicesDifferIn(t *testing.T) {
	var text strings.Builder
	for _, s := range plantest.Samples(t) {
		for r := range s.Plan.Recorders {
			to, as := Target{Recorder: s.Plan.Recorders[r].ID}, entered(s.Plan)
			other := asPlanned(as, to.Recorder)
			for i := range other.Channels {
				c := &other.Channels[i]
				c.Name, c.Layers = c.Name+" x", nil
				for k := range c.Streams {
					st := &c.Streams[k]
					st.FPS, st.Width, st.GOPSeconds, st.LimitKbps = st.FPS-1, st.Width+16, st.GOPSeconds+1, st.LimitKbps/2
				}
				if c.Detection != nil {
					c.Detection.On, c.Detection.Areas = !c.Detection.On, nil
				}
			}
			for i := range other.Inputs {
				other.Inputs[i].Contact = map[string]string{"normallyOpen": "normallyClosed", "normallyClosed": "normallyOpen"}[other.Inputs[i].Contact]
			}
			for i := range other.Outputs {
				other.Outputs[i].HoldSeconds = max(0, other.Outputs[i].HoldSeconds-10)
			}
			for _, l := range Lines(other, asPlanned(as, to.Recorder), func(c *Channel) (string, string) { return c.Token, c.Name }) {
				fmt.Fprintf(&text, "%s, %s by itself: %s %d %s: %s is %q, wanted %q, %s\n", s.Name, l.ID, l.Channel, l.Number, l.About,
					l.What, l.Device, l.Plan, l.Part)
			}
			blind := &Device{Make: "Blind", Channels: make([]Channel, s.Plan.Recorders[r].Channels)}
			for i := range blind.Channels {
				blind.Channels[i] = Channel{Number: i + 1, Token: fmt.Sprint("V", i+1), Streams: []Stream{}}
			}
			for _, d := range []*Device{other, blind} {
				h := Hold(s.Plan, as, to, d)
				fmt.Fprintf(&text, "%s, %s of %s: %d the same\n", s.Name, d.Make, s.Plan.Recorders[r].Name, h.Same)
				for _, l := range h.Lines {
					fmt.Fprintf(&text, "  %s: %s is %q, planned %q, %s, missing %t, %d edits\n", l.About, l.What, l.Device, l.Plan, l.Part, l.Missing,
						len(l.Take))
				}
				for _, b := range h.ByHand {
					fmt.Fprintf(&text, "  by hand %s: %s\n", b.Channel, b.Words)
				}
			}
		}
	}
	plantest.Said(t, "differences", text.String())
}

// TestWhatIsTakenOver reads devices of several plans that have cameras where the plan has none, one of them with a single area, and
// holds the edits that take them over.
func TestWhatIsTakenOver(t *testing.T) {
	var text strings.Builder
	for _, s := range plantest.Samples(t) {
		to, without := Target{Recorder: s.Plan.Recorders[0].ID}, plantest.Copy(t, s.Plan)
		device := asPlanned(entered(s.Plan), to.Recorder)
		for i := range device.Channels {
			if c := &device.Channels[i]; i == 0 && c.Detection != nil {
				c.Detection.Areas = []plan.Area{{ID: "only", Name: "Only", Points: []plan.Point{{0, 0}, {1, 0}, {1, 1}}}}
			}
		}
		for i := range without.Channels {
			c := &without.Channels[i]
			if i == 0 || i == len(without.Channels)-1 {
				c.NoCamera, c.Name, c.Streams, c.Detection = true, "Spare", plan.Streams{}, plan.Detection{}
			}
		}
		last := s.Plan.Channels[len(s.Plan.Channels)-1].ID
		fewer, err := edit.After(s.Plan, edit.Edit{RemoveChannels: &edit.RemoveChannels{Channels: []string{last}}})
		if err != nil {
			t.Fatal(err)
		}
		for what, p := range []*plan.Plan{without, fewer} {
			for _, l := range Hold(p, entered(p), to, device).Lines {
				if what == 1 && l.What != "camera" {
					continue // as before
				}
				fmt.Fprintf(&text, "%s, %s, %s of %q:", s.Name, l.About, l.What, l.Channel)
				for _, e := range l.Take {
					data, err := json.Marshal(e)
					if err != nil {
						t.Fatal(err)
					}
					fmt.Fprintf(&text, " %s", data)
				}
				text.WriteString("\n")
			}
		}
	}
	plantest.Said(t, "taken", text.String())
}

// poor is a recorder that is set as planned, but for areas, seconds and sensitivities, and offers few sizes, frames and bitrates.
func poor(as *plan.Plan, recorder string) *Device {
	d := asPlanned(as, recorder)
	for i := range d.Channels {
		c := &d.Channels[i]
		for k := range c.Streams {
			st := &c.Streams[k]
			st.Could = []Could{{Codec: []string{st.Codec, "mjpeg"}[i%5/4], Sizes: [][2]int{{2560, 1440}, {640, 480}, {1024, 768}, {1280, 720}},
				FramesPerSecond: []float64{25, 12.5, 6}, LeastKbps: 500, MostKbps: 3000, LeastFrames: 10, MostFrames: 40, Constant: i%2 == 0}}
		}
		if c.Detection != nil {
			seconds, percent := *c.Detection.MinSeconds+0.5, 40.0
			c.Detection.MinSeconds, c.Detection.SensitivityPercent = &seconds, &percent
			c.Detection.Areas = c.Detection.Areas[:min(1, len(c.Detection.Areas))]
			if i%2 == 1 {
				c.Detection.Drawn, c.Detection.Columns, c.Detection.Rows = "grid", 22, 18
			}
		}
		for k := range c.Layers {
			if l := &c.Layers[k]; l.PreSeconds != nil {
				pre := *l.PreSeconds + 2
				l.PreSeconds = &pre
			}
		}
	}
	return d
}

// TestWhatIsWantedOfDevices asks devices that offer little for several plans, and holds what would be set, what differs, and what
// would be something else than planned.
func TestWhatIsWantedOfDevices(t *testing.T) {
	var text strings.Builder
	for _, s := range plantest.Samples(t) {
		for r := range s.Plan.Recorders {
			to, as := Target{Recorder: s.Plan.Recorders[r].ID}, entered(s.Plan)
			d := poor(as, to.Recorder)
			w, hand := Wanted(as, to, d)
			fmt.Fprintf(&text, "%s, %s\n", s.Name, s.Plan.Recorders[r].Name)
			for _, h := range hand {
				fmt.Fprintf(&text, "  by hand %s: %s\n", h.Channel, h.Words)
			}
			for _, l := range Lines(d, w, func(c *Channel) (string, string) { return c.Token, c.Name }) {
				fmt.Fprintf(&text, "  %s: %s is %q, wanted %q, missing %t\n", l.About, l.What, l.Device, l.Plan, l.Missing)
			}
			text.WriteString(plantest.Changed(t, d, w))
		}
	}
	plantest.Said(t, "wanted", text.String())
}
