package api

import (
	"context"
	"encoding/json"
	"errors"
	"reflect"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/estimate"
	"wakefield.example/core/handover"
	"wakefield.example/core/plan"
	"wakefield.example/core/readout"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

// HeldDevice is what a device has, held against the plan.
type HeldDevice struct {
	Version int64           `json:"version" doc:"Of the plan"`
	ReadAt  time.Time       `json:"readAt"`
	Device  *readout.Device `json:"device"`
	readout.Against
	Drift []readout.Line `json:"drift" doc:"What is otherwise than after the last writing: device as it is, plan as it was written"`
	Back  []readout.Line `json:"back" doc:"What putting back would change: device as it is, plan as it was before"`
}

// readOf is what was read of a device.
func readOf(d *store.Device) (*readout.Device, error) {
	if d.Said == nil {
		return nil, huma.Error404NotFound("The device was not read yet.")
	}
	said := new(readout.Device)
	return said, json.Unmarshal(d.Said, said)
}

// target is what a device is in the plan.
func target(d *store.Device) readout.Target {
	return readout.Target{Recorder: d.Recorder, Channel: d.Channel}
}

// enteredAt is the plan as its recorders take it, with what the device says that it takes.
func (s *service) enteredAt(ctx context.Context, e entry, t readout.Target, said *readout.Device) (*plan.Plan, error) {
	p := *e.head.Plan
	if r := p.Recorder(t.Recorder); r != nil {
		if takes := readout.TakesOf(r.Takes, said); !reflect.DeepEqual(takes, r.Takes) {
			p.Recorders = slices.Clone(p.Recorders)
			p.Recorder(t.Recorder).Takes = takes
		}
	}
	return server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) (*plan.Plan, error) {
		site, err := estimate.FiguresContext(ctx, &p, e.site)
		if err != nil {
			return nil, err
		}
		return handover.Enter(&p, site).Plan, nil
	})
}

// heldOf holds a device against a plan.
func (s *service) heldOf(ctx context.Context, id, dev string) (e entry, d store.Device, said *readout.Device, against readout.Against,
	entered *plan.Plan, err error) {
	if e, err = s.current(ctx, id); err != nil {
		return e, d, nil, against, nil, err
	}
	if d, err = s.store.Device(ctx, e.head.Site, dev); err != nil {
		return e, d, nil, against, nil, err
	}
	if said, err = readOf(&d); err != nil {
		return e, d, nil, against, nil, err
	}
	if !target(&d).In(e.head.Plan) {
		return e, d, said, against, nil,
			huma.Error409Conflict("The recorder or channel that the device is was removed from the plan. Say which it is now.")
	}
	if entered, err = s.enteredAt(ctx, e, target(&d), said); err != nil {
		return e, d, said, against, nil, err
	}
	return e, d, said, readout.Hold(e.head.Plan, entered, target(&d), said), entered, nil
}

func (s *service) heldDevice(ctx context.Context, in *DeviceParam) (*body[HeldDevice], error) {
	e, d, said, against, _, err := s.heldOf(ctx, in.ID, in.Device)
	if err != nil {
		return nil, s.deviceOr(ctx, err)
	}
	out := HeldDevice{Version: e.head.Version, ReadAt: *d.SaidAt, Device: said, Against: against, Drift: []readout.Line{},
		Back: []readout.Line{}}
	for _, of := range []struct {
		raw  json.RawMessage
		into *[]readout.Line
	}{{d.Written, &out.Drift}, {d.Before, &out.Back}} {
		if of.raw == nil {
			continue
		}
		var was readout.Device
		if err := json.Unmarshal(of.raw, &was); err != nil {
			return nil, s.problem(ctx, err)
		}
		*of.into = append(*of.into, readout.Lines(said, &was, called(e.head.Plan, target(&d), said))...)
	}
	return &body[HeldDevice]{out}, nil
}

// deviceOr is a problem that says what it is already, or any other.
func (s *service) deviceOr(ctx context.Context, err error) error {
	var told huma.StatusError
	if errors.As(err, &told) {
		return told
	}
	if told := deviceProblem(err); errors.As(told, new(huma.StatusError)) {
		return told
	}
	return s.problem(ctx, err)
}

// called is how channels of a device are called in the plan.
func called(p *plan.Plan, t readout.Target, d *readout.Device) func(c *readout.Channel) (id, name string) {
	of := make(map[string]*plan.Channel)
	for _, pair := range readout.Match(p, t, d) {
		if pair.Planned != nil && pair.Read != nil {
			of[pair.Read.Token] = pair.Planned
		}
	}
	return func(c *readout.Channel) (id, name string) {
		if planned := of[c.Token]; planned != nil {
			return planned.ID, planned.Name
		}
		return "", c.Name
	}
}

func (s *service) takeFromDevice(ctx context.Context, in *struct {
	DeviceParam
	Body struct {
		Lines []string `json:"lines" minItems:"1" maxItems:"20000" doc:"Ids of differences"`
	}
}) (*body[Corrections], error) {
	e, _, _, against, _, err := s.heldOf(ctx, in.ID, in.Device)
	if err != nil {
		return nil, s.deviceOr(ctx, err)
	}
	wanted := make(map[string]bool)
	for _, id := range in.Body.Lines {
		wanted[id] = true
	}
	var lines []readout.Line
	for _, l := range against.Lines {
		if wanted[l.ID] {
			lines = append(lines, l)
		}
	}
	edits := readout.Together(lines)
	if len(edits) == 0 {
		return nil, huma.Error422UnprocessableEntity("Nothing of it can be taken into the plan: a plan cannot say it, or it differs no longer.")
	}
	return &body[Corrections]{Corrections{e.head.Version, edits}}, nil
}
