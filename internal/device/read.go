package device

import (
	"cmp"
	"context"
	"errors"
	"slices"
	"strings"
	"sync"

	"golang.org/x/sync/errgroup"

	"wakefield.example/core/plan"
	"wakefield.example/core/readout"
	"wakefield.example/internal/onvif"
)

// Progress is told how far something is: so much of so much, and what it is at.
type Progress func(done, of int, what string)

// reading is one read of a device.
type reading struct {
	*Client
	d        *readout.Device
	profiles []profile
	progress Progress

	mu       sync.Mutex
	done, of int
}

// profile is a media profile: a stream of a video source.
type profile struct {
	token, name string
	source      string // token of the video source
	sourceName  string
	encoder     onvif.Encoder
	analytics   string // token of its analytics configuration
	configured  string // token of the configuration of its video source
	ptz         bool
}

// mostChannels that are read of one device.
const mostChannels = 512

// Read reads all that the device tells. What it refuses to tell is said among what is unread; only what ends the talk is an error.
func (c *Client) Read(ctx context.Context, progress Progress) (*readout.Device, error) {
	r := &reading{Client: c, progress: progress, d: &readout.Device{Today: today(), ClockOffSeconds: c.ClockAhead().Seconds(),
		Services: c.Services(),
		Channels: []readout.Channel{}, Inputs: []readout.Input{}, Outputs: []readout.Output{}, Unread: []readout.Unread{}}}
	if err := r.about(ctx); err != nil {
		return nil, err
	}
	if err := r.pictures(ctx); err != nil {
		return nil, err
	}
	r.of = 3
	g, ctx := errgroup.WithContext(ctx)
	g.SetLimit(4)
	g.Go(func() error { return r.unless("inputs and outputs", r.wires(ctx)) })
	g.Go(func() error { return r.recordings(ctx) })
	r.eachStream(ctx, g)
	r.eachDetection(ctx, g)
	r.eachPresets(ctx, g)
	if err := g.Wait(); err != nil {
		return nil, err
	}
	slices.SortFunc(r.d.Unread, func(a, b readout.Unread) int { return cmp.Or(cmp.Compare(a.What, b.What), cmp.Compare(a.Why, b.Why)) })
	r.d.Unread = slices.Compact(r.d.Unread)
	return r.d, nil
}

// Services are the services of the device in words.
func (c *Client) Services() (out []string) {
	for _, s := range onvif.Names {
		if c.Has(s.Service) {
			out = append(out, s.Name)
		}
	}
	return out
}

// step says that one more thing is read.
func (r *reading) step(what string) {
	r.mu.Lock()
	defer r.mu.Unlock()
	r.done++
	if r.progress != nil {
		r.progress(r.done, max(r.of, r.done), what)
	}
}

// more says that so many things are to be read.
func (r *reading) more(n int) {
	r.mu.Lock()
	defer r.mu.Unlock()
	r.of += n
}

// unless notes what the device refuses, and lets pass what ends the talk.
func (r *reading) unless(what string, err error) error {
	defer r.step(what)
	var known *Error
	if err == nil || !errors.As(err, &known) || known.Trouble != Refused {
		return err
	}
	r.mu.Lock()
	defer r.mu.Unlock()
	r.d.Unread = append(r.d.Unread, readout.Unread{What: what, Why: known.Words})
	return nil
}

// about reads make and model.
func (r *reading) about(ctx context.Context) error {
	answer, err := r.ask(ctx, onvif.DeviceService, onvif.E("tds:GetDeviceInformation"))
	if err != nil {
		return r.unless("make and model", err)
	}
	said := func(name string) string {
		text := onvif.Text(answer, name)
		return text[:min(len(text), 200)]
	}
	r.d.Make, r.d.Model, r.d.Firmware, r.d.Serial = said("Manufacturer"), said("Model"), said("FirmwareVersion"), said("SerialNumber")
	r.step("make and model")
	return nil
}

// pictures reads profiles, and which channels they make.
func (r *reading) pictures(ctx context.Context) error {
	var err error
	switch {
	case r.Has(onvif.Media2):
		r.profiles, err = r.profiles2(ctx)
	case r.Has(onvif.Media):
		r.profiles, err = r.profiles1(ctx)
	default:
		return &Error{Stranger, "It has no pictures to tell of: neither media 2 nor media 1 is among its services."}
	}
	if err != nil {
		return err
	}
	var sources []string
	if r.Has(onvif.DeviceIO) {
		answer, err := r.ask(ctx, onvif.DeviceIO, onvif.E("tmd:GetVideoSources"))
		if err == nil {
			for _, e := range onvif.All(answer, "Token") {
				sources = append(sources, strings.TrimSpace(e.Text()))
			}
		}
	}
	for _, p := range r.profiles {
		if !slices.Contains(sources, p.source) {
			sources = append(sources, p.source)
		}
	}
	if len(sources) > mostChannels {
		return &Error{Stranger, plan.Say("It tells of %d pictures; %d are read at most.", len(sources), mostChannels)}
	}
	for k, token := range sources {
		c := readout.Channel{Number: k + 1, Token: token, Streams: []readout.Stream{}}
		for _, p := range r.profiles {
			if p.source == token && p.encoder.Token != "" {
				c.Streams = append(c.Streams, streamOf(p))
				c.Name = cmp.Or(c.Name, p.sourceName)
				for _, other := range []string{p.configured, p.analytics} {
					if other != "" && !slices.Contains(c.Tokens, other) {
						c.Tokens = append(c.Tokens, other)
					}
				}
			}
		}
		slices.SortStableFunc(c.Streams, func(a, b readout.Stream) int { return b.Width*b.Height - a.Width*a.Height })
		names := []plan.StreamName{plan.Main, plan.Sub, plan.Third}
		c.Streams = c.Streams[:min(len(c.Streams), len(names))]
		for i := range c.Streams {
			c.Streams[i].Name = names[i]
		}
		r.d.Channels = append(r.d.Channels, c)
	}
	r.step("streams")
	return nil
}

// codecOf is a codec as plans have it; what no plan knows is as the device calls it.
func codecOf(encoding string) string {
	switch encoding {
	case "H264", "H265", "AV1":
		return strings.ToLower(encoding)
	case "JPEG", "MJPEG":
		return "mjpeg"
	}
	return encoding
}

// encodingOf is a codec as devices have it.
func encodingOf(codec string) string {
	if codec == "mjpeg" {
		return "JPEG"
	}
	return strings.ToUpper(codec)
}

func streamOf(p profile) readout.Stream {
	e := p.encoder
	s := readout.Stream{Profile: p.token, Encoder: e.Token, Codec: codecOf(e.Encoding), Width: e.Width, Height: e.Height, FPS: e.FPS,
		LimitKbps: float64(e.Kbps), Constant: e.Constant}
	if e.FPS > 0 && e.Gov > 0 {
		s.GOPSeconds = float64(e.Gov) / e.FPS
	}
	return s
}

func (r *reading) profiles2(ctx context.Context) (out []profile, err error) {
	answer, err := r.ask(ctx, onvif.Media2, onvif.E("tr2:GetProfiles", onvif.E("tr2:Type", "All")))
	if err != nil {
		return nil, err
	}
	for _, e := range onvif.All(answer, "Profiles") {
		out = append(out, profileOf(e, onvif.At(e, "Configurations"), "VideoSource", "VideoEncoder", "Analytics", "PTZ"))
	}
	return out, nil
}

// profileOf reads a profile whose configurations are within an element, each by the name that the service has for it.
func profileOf(e, in *onvif.Element, source, encoder, analytics, ptz string) profile {
	p := profile{token: e.SelectAttrValue("token", ""), name: onvif.Text(e, "Name"), source: onvif.Text(in, source+"/SourceToken"),
		sourceName: onvif.Text(in, source+"/Name"), ptz: onvif.At(in, ptz) != nil}
	if of := onvif.At(in, encoder); of != nil {
		p.encoder = onvif.EncoderOf(of)
	}
	if of := onvif.At(in, source); of != nil {
		p.configured = of.SelectAttrValue("token", "")
	}
	if of := onvif.At(in, analytics); of != nil {
		p.analytics = of.SelectAttrValue("token", "")
	}
	return p
}

func (r *reading) profiles1(ctx context.Context) (out []profile, err error) {
	answer, err := r.ask(ctx, onvif.Media, onvif.E("trt:GetProfiles"))
	if err != nil {
		return nil, err
	}
	for _, e := range onvif.All(answer, "Profiles") {
		out = append(out, profileOf(e, e, "VideoSourceConfiguration", "VideoEncoderConfiguration", "VideoAnalyticsConfiguration",
			"PTZConfiguration"))
	}
	return out, nil
}

// eachStream reads what every encoder could be set to.
func (r *reading) eachStream(ctx context.Context, g *errgroup.Group) {
	for i := range r.d.Channels {
		for k := range r.d.Channels[i].Streams {
			s := &r.d.Channels[i].Streams[k]
			r.more(1)
			g.Go(func() error {
				could, err := r.options(ctx, s)
				s.Could = could
				return r.unless("what encoders can be set to", err)
			})
		}
	}
}

func (r *reading) options(ctx context.Context, s *readout.Stream) (out []readout.Could, err error) {
	var list []onvif.EncoderOptions
	if r.Has(onvif.Media2) {
		answer, err := r.ask(ctx, onvif.Media2, onvif.E("tr2:GetVideoEncoderConfigurationOptions", onvif.E("tr2:ConfigurationToken", s.Encoder)))
		if err != nil {
			return nil, err
		}
		for _, e := range onvif.All(answer, "Options") {
			list = append(list, onvif.OptionsOf(e))
		}
	} else {
		answer, err := r.ask(ctx, onvif.Media, onvif.E("trt:GetVideoEncoderConfigurationOptions", onvif.E("trt:ConfigurationToken", s.Encoder)))
		if err != nil {
			return nil, err
		}
		if e := onvif.At(answer, "Options"); e != nil {
			list = onvif.Options1Of(e)
		}
	}
	for _, o := range list {
		out = append(out, readout.Could{Codec: codecOf(o.Encoding), Sizes: o.Sizes, FramesPerSecond: o.FrameRates, Stepless: o.Stepless,
			LeastKbps: o.KbpsMin, MostKbps: o.KbpsMax, LeastFrames: o.GovMin, MostFrames: o.GovMax, Constant: o.Constant})
	}
	return out, nil
}

// eachPresets reads where cameras that move can look.
func (r *reading) eachPresets(ctx context.Context, g *errgroup.Group) {
	if !r.Has(onvif.PTZ) {
		return
	}
	for i := range r.d.Channels {
		c := &r.d.Channels[i]
		at := slices.IndexFunc(r.profiles, func(p profile) bool { return p.source == c.Token && p.ptz })
		if at < 0 {
			continue
		}
		r.more(1)
		g.Go(func() error {
			answer, err := r.ask(ctx, onvif.PTZ, onvif.E("tptz:GetPresets", onvif.E("tptz:ProfileToken", r.profiles[at].token)))
			if err == nil {
				for _, e := range onvif.All(answer, "Preset") {
					c.Presets = append(c.Presets, onvif.Text(e, "Name"))
				}
			}
			return r.unless("presets", err)
		})
	}
}

// wires reads contacts and relays.
func (r *reading) wires(ctx context.Context) error {
	service, prefix := onvif.DeviceIO, "tmd:"
	if !r.Has(service) {
		return nil
	}
	answer, err := r.ask(ctx, service, onvif.E(prefix+"GetDigitalInputs"))
	if err != nil {
		return err
	}
	for _, e := range onvif.All(answer, "DigitalInputs") {
		in := readout.Input{Token: e.SelectAttrValue("token", "")}
		in.Name = in.Token
		switch e.SelectAttrValue("IdleState", "") {
		case "open":
			in.Contact = "normallyOpen"
		case "closed":
			in.Contact = "normallyClosed"
		}
		r.d.Inputs = append(r.d.Inputs, in)
	}
	answer, err = r.ask(ctx, service, onvif.E(prefix+"GetRelayOutputs"))
	if err != nil {
		return err
	}
	for _, e := range onvif.All(answer, "RelayOutputs") {
		out := readout.Output{Token: e.SelectAttrValue("token", "")}
		out.Name = out.Token
		if onvif.Text(e, "Properties/Mode") == "Monostable" {
			out.HoldSeconds, _ = onvif.SecondsOf(onvif.Text(e, "Properties/DelayTime"))
		}
		r.d.Outputs = append(r.d.Outputs, out)
	}
	return nil
}
