package api

import (
	"context"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/sse"

	"wakefield.example/core/readout"
	"wakefield.example/internal/account"
	"wakefield.example/internal/device"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

// HeardAt is an event of a device, with the channel or input that it is of.
type HeardAt struct {
	device.Heard
	Channel string `json:"channel,omitempty" doc:"Id in the plan"`
	Input   string `json:"input,omitempty" doc:"Id in the plan"`
	Name    string `json:"name" doc:"Of the channel or input; as the device calls it where the plan has none"`
}

// HeardNothing says why nothing more is heard.
type HeardNothing struct {
	Why string `json:"why"`
}

// ListeningNow says that nothing is missed from now on.
type ListeningNow struct{}

// listenSuffix ends the paths of streams of events.
const listenSuffix = "/listen"

// registerListening adds the events of a device, for as long as somebody looks.
func registerListening(api huma.API, s *service) {
	sse.Register(api, huma.Operation{OperationID: "listenDevice", Method: http.MethodGet, Path: "/api/plans/{id}/devices/{device}" +
		listenSuffix,
		Summary: "What a device notices, as it does",
		Middlewares: huma.Middlewares{func(ctx huma.Context, next func(huma.Context)) {
			if _, _, _, err := s.listened(ctx.Context(), ctx.Param("id"), ctx.Param("device")); err != nil {
				told := s.deviceOr(ctx.Context(), err).(huma.StatusError)
				_ = huma.WriteErr(api, ctx, told.GetStatus(), told.Error())
				return
			}
			next(ctx)
		}}}, map[string]any{"heard": HeardAt{}, "listening": ListeningNow{},
		"nothing": HeardNothing{}, "beat": server.Beat{}},
		func(ctx context.Context, in *struct {
			DeviceParam
			SentBy
		}, send sse.Sender) {
			if who := account.From(ctx); who != nil && s.keeper != nil {
				var done context.CancelFunc
				ctx, done = s.keeper.Listen(ctx, who)
				defer done()
			}
			if err := s.listen(ctx, in.ID, in.Device, in.note("").Author, send); err != nil && ctx.Err() == nil {
				send.Data(HeardNothing{s.deviceOr(ctx, err).Error()})
			}
		})
}

// listened is what is needed to listen to a device: it has to have been read.
func (s *service) listened(ctx context.Context, id, dev string) (e entry, d store.Device, said *readout.Device, err error) {
	if e, err = s.current(ctx, id); err != nil {
		return e, d, nil, err
	}
	if d, err = s.store.Device(ctx, e.head.Site, dev); err != nil {
		return e, d, nil, err
	}
	said, err = readOf(&d)
	return e, d, said, err
}

func (s *service) listen(ctx context.Context, id, dev, author string, send sse.Sender) error {
	e, d, said, err := s.listened(ctx, id, dev)
	if err != nil {
		return err
	}
	ctx, stop := context.WithCancel(ctx)
	defer stop()
	defer context.AfterFunc(s.life, stop)() // a server that is stopped waits for what is being done, and this never ends
	k := &worker{service: s, site: e.head.Site, device: d, author: author}
	defer k.log(ctx)
	c, err := s.open(ctx, e.head.Site, &d, func(call, ended string) {
		if call != "PullMessages" { // which is asked all the time
			k.said(call, ended)
		}
	})
	if err != nil {
		return err
	}
	defer c.Close()
	begun := make(chan struct{}, 1)
	heard := make(chan device.Heard, 100)
	ended := make(chan error, 1)
	go func() {
		ended <- c.Listen(ctx, func() { begun <- struct{}{} }, func(h device.Heard) {
			select {
			case heard <- h:
			case <-ctx.Done():
			}
		})
	}()
	beat := func() error { return send.Data(server.Beat{Seconds: s.beat.Seconds()}) }
	tick := time.NewTicker(s.beat)
	defer tick.Stop()
	name := namer(e, &d, said)
	for {
		select {
		case <-ctx.Done():
			return nil
		case err := <-ended:
			return err
		case h := <-heard:
			if send.Data(name(h)) != nil {
				return nil
			}
		case <-begun:
			if send.Data(ListeningNow{}) != nil || beat() != nil {
				return nil
			}
		case <-tick.C:
			k.log(ctx)
			if beat() != nil {
				return nil
			}
		}
	}
}

// namer says whose events are.
func namer(e entry, d *store.Device, said *readout.Device) func(h device.Heard) HeardAt {
	type whose struct{ channel, input, name string }
	of := make(map[string]whose)
	for _, pair := range readout.Match(e.head.Plan, target(d), said) {
		if pair.Read == nil {
			continue
		}
		w := whose{name: pair.Read.Name}
		if pair.Planned != nil {
			w.channel, w.name = pair.Planned.ID, pair.Planned.Name
		}
		for _, token := range append([]string{pair.Read.Token}, pair.Read.Tokens...) {
			of[token] = w
		}
	}
	k := 0
	for i := range e.head.Plan.AlarmInputs {
		if in := &e.head.Plan.AlarmInputs[i]; in.Recorder == d.Recorder && d.Recorder != "" && k < len(said.Inputs) {
			of[said.Inputs[k].Token] = whose{input: in.ID, name: in.Name}
			k++
		}
	}
	return func(h device.Heard) HeardAt {
		w, known := of[h.Token]
		if !known {
			w.name = strings.TrimSpace(h.Token)
		}
		return HeardAt{Heard: h, Channel: w.channel, Input: w.input, Name: w.name}
	}
}
