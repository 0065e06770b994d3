package device

import (
	"context"
	"slices"
	"strings"

	"wakefield.example/core/plan"
	"wakefield.example/core/readout"
	"wakefield.example/internal/onvif"
)

// Again reads one part of a device again and returns the device with that in place of what was read before.
func (c *Client) Again(ctx context.Context, was *readout.Device, part string) (*readout.Device, error) {
	d := *was
	d.Channels, d.Inputs, d.Outputs = slices.Clone(was.Channels), slices.Clone(was.Inputs), slices.Clone(was.Outputs)
	kind, token, _ := strings.Cut(part, ":")
	switch kind {
	case "encoder":
		return &d, c.encoderAgain(ctx, &d, token)
	case "recording", "layers":
		return &d, c.recordingAgain(ctx, &d, token)
	case "detection":
		for i := range d.Channels {
			if ch := &d.Channels[i]; ch.Token == token && ch.Detection != nil {
				now, err := c.detection(ctx, ch.Detection.Configuration)
				if err != nil {
					return nil, err
				}
				ch.Detection = now
			}
		}
	case "input", "output":
		r := &reading{Client: c, d: &readout.Device{}}
		if err := r.wires(ctx); err != nil {
			return nil, err
		}
		d.Inputs, d.Outputs = r.d.Inputs, r.d.Outputs
	}
	return &d, nil
}

func (c *Client) encoderAgain(ctx context.Context, d *readout.Device, token string) error {
	e, err := c.encoder(ctx, token)
	if err != nil {
		return err
	}
	for i := range d.Channels {
		ch := &d.Channels[i]
		ch.Streams = slices.Clone(ch.Streams)
		for k := range ch.Streams {
			if s := &ch.Streams[k]; s.Encoder == token {
				now := streamOf(profile{token: s.Profile, encoder: e})
				now.Name, now.Could = s.Name, s.Could
				*s = now
			}
		}
	}
	return nil
}

func (c *Client) recordingAgain(ctx context.Context, d *readout.Device, token string) error {
	all, err := c.recordingsOf(ctx)
	if err != nil {
		return err
	}
	d.Today = today()
	r := &reading{Client: c, d: d}
	for i := range all.recordings {
		if of := &all.recordings[i]; of.token == token {
			for k := range d.Channels {
				if ch := &d.Channels[k]; ch.Recording == token {
					ch.Layers = nil
					r.layers(ch, of, all.schedules)
				}
			}
		}
	}
	return nil
}

// encoder reads how an encoder is set.
func (c *Client) encoder(ctx context.Context, token string) (onvif.Encoder, error) {
	service, prefix, operation := onvif.Media2, "tr2:", "GetVideoEncoderConfigurations"
	if !c.Has(service) {
		service, prefix, operation = onvif.Media, "trt:", "GetVideoEncoderConfiguration"
	}
	answer, err := c.ask(ctx, service, onvif.E(prefix+operation, onvif.E(prefix+"ConfigurationToken", token)))
	if err != nil {
		return onvif.Encoder{}, err
	}
	e := onvif.At(answer, "Configurations")
	if e == nil {
		e = onvif.At(answer, "Configuration")
	}
	if e == nil {
		return onvif.Encoder{}, &Error{Refused, plan.Say("It does not tell how the encoder %s is set.", token)}
	}
	return onvif.EncoderOf(e), nil
}
