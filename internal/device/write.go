package device

import (
	"cmp"
	"context"
	"math"
	"slices"
	"strings"

	"wakefield.example/core/readout"
	"wakefield.example/internal/onvif"
)

// Write sets one part of a device, as lines of package readout name it, to what is wanted. What the device makes of it is to be
// read back: an encoder may round what it is told.
func (c *Client) Write(ctx context.Context, wanted *readout.Device, part string) error {
	kind, token, _ := strings.Cut(part, ":")
	switch kind {
	case "encoder":
		for i := range wanted.Channels {
			for k := range wanted.Channels[i].Streams {
				if s := &wanted.Channels[i].Streams[k]; s.Encoder == token {
					return c.writeEncoder(ctx, s)
				}
			}
		}
	case "recording", "layers":
		for i := range wanted.Channels {
			if w := &wanted.Channels[i]; w.Recording == token {
				if kind == "layers" {
					return c.writeLayers(ctx, wanted, w)
				}
				return c.writeRecording(ctx, w)
			}
		}
	case "detection":
		for i := range wanted.Channels {
			if w := &wanted.Channels[i]; w.Token == token && w.Detection != nil {
				return c.writeDetection(ctx, w.Detection)
			}
		}
	case "input":
		for _, in := range wanted.Inputs {
			if in.Token == token {
				return c.writeInput(ctx, in)
			}
		}
	case "output":
		for _, out := range wanted.Outputs {
			if out.Token == token {
				return c.writeOutput(ctx, out)
			}
		}
	}
	return &Error{Refused, "It has no such part any more; read it again."}
}

// writeEncoder sets an encoder: its configuration as it is there, with what is wanted in it.
func (c *Client) writeEncoder(ctx context.Context, s *readout.Stream) error {
	e, err := c.encoder(ctx, s.Encoder)
	if err != nil {
		return err
	}
	was := e
	e.Encoding, e.Width, e.Height, e.FPS = encodingOf(s.Codec), s.Width, s.Height, s.FPS
	if s.GOPSeconds > 0 {
		e.Gov = max(1, int(math.Round(s.GOPSeconds*s.FPS)))
	}
	if s.LimitKbps > 0 {
		e.Kbps, e.Constant = int(math.Round(s.LimitKbps)), s.Constant
	}
	if was.Encoding != e.Encoding {
		e.Profile = "" // those of another codec
	}
	if !c.Has(onvif.Media2) {
		_, err = c.ask(ctx, onvif.Media, onvif.E("trt:SetVideoEncoderConfiguration", e.Element1("trt:Configuration"),
			onvif.E("trt:ForcePersistence", "true")))
		return err
	}
	_, err = c.ask(ctx, onvif.Media2, onvif.E("tr2:SetVideoEncoderConfiguration", e.Element("tr2:Configuration")))
	return err
}

// writeRecording sets the name of a recording's source and how long it is kept.
func (c *Client) writeRecording(ctx context.Context, w *readout.Channel) error {
	all, err := c.recordingsOf(ctx)
	if err != nil {
		return err
	}
	at := slices.IndexFunc(all.recordings, func(r recordingOf) bool { return r.token == w.Recording })
	if at < 0 || all.recordings[at].configuration == nil {
		return &Error{Refused, "It has no such recording any more; read it again."}
	}
	said := func(path string) string { return onvif.Text(all.recordings[at].configuration, path) }
	atMost := said("MaximumRetentionTime")
	if w.KeepAtMostDays != nil {
		atMost = onvif.Seconds(*w.KeepAtMostDays * 86400)
	}
	_, err = c.ask(ctx, onvif.RecordingControl, onvif.E("trc:SetRecordingConfiguration", onvif.E("trc:RecordingToken", w.Recording),
		onvif.E("trc:RecordingConfiguration", onvif.E("tt:Source", onvif.E("tt:SourceId", said("Source/SourceId")), onvif.E("tt:Name", w.Name),
			onvif.E("tt:Location", said("Source/Location")), onvif.E("tt:Description", said("Source/Description")),
			onvif.E("tt:Address", said("Source/Address"))),
			onvif.E("tt:Content", said("Content")), onvif.E("tt:MaximumRetentionTime", atMost))))
	return err
}

// writeInput sets how a contact rests.
func (c *Client) writeInput(ctx context.Context, in readout.Input) error {
	idle := "open"
	if in.Contact == "normallyClosed" {
		idle = "closed"
	}
	_, err := c.ask(ctx, onvif.DeviceIO, onvif.E("tmd:SetDigitalInputConfigurations", onvif.E("tmd:DigitalInputs",
		onvif.Attr{Name: "token", Value: in.Token}, onvif.Attr{Name: "IdleState", Value: idle})))
	return err
}

// writeOutput sets how long a relay holds.
func (c *Client) writeOutput(ctx context.Context, out readout.Output) error {
	answer, err := c.ask(ctx, onvif.DeviceIO, onvif.E("tmd:GetRelayOutputs"))
	if err != nil {
		return err
	}
	idle := "open"
	for _, e := range onvif.All(answer, "RelayOutputs") {
		if e.SelectAttrValue("token", "") == out.Token {
			idle = cmp.Or(onvif.Text(e, "Properties/IdleState"), idle)
		}
	}
	mode, delay := "Bistable", "PT0S"
	if out.HoldSeconds > 0 {
		mode, delay = "Monostable", onvif.Seconds(out.HoldSeconds)
	}
	_, err = c.ask(ctx, onvif.DeviceIO, onvif.E("tmd:SetRelayOutputSettings", onvif.E("tmd:RelayOutput",
		onvif.Attr{Name: "token", Value: out.Token}, onvif.E("tt:Properties", onvif.E("tt:Mode", mode), onvif.E("tt:DelayTime", delay),
			onvif.E("tt:IdleState", idle)))))
	return err
}
