package api

import (
	"bytes"
	"context"
	"crypto/rand"
	"encoding/json"
	"fmt"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/measured"
	"wakefield.example/core/plan"
	"wakefield.example/core/readout"
	"wakefield.example/internal/device"
	"wakefield.example/internal/formats"
	"wakefield.example/internal/store"
)

// exactDays is to how many days a device tells when its oldest footage is.
const exactDays = 0.05

// bringFromDevice keeps what a device told as what was found: its oldest footage by channel, and settings that differ from the plan.
func (s *service) bringFromDevice(ctx context.Context, in *struct {
	DeviceParam
	SentBy
}) (*body[[]BroughtID], error) {
	e, d, said, against, _, err := s.heldOf(ctx, in.ID, in.Device)
	if err != nil {
		return nil, s.deviceOr(ctx, err)
	}
	var oldest, settings measured.Data
	for _, pair := range readout.Match(e.head.Plan, target(&d), said) {
		if pair.Planned != nil && pair.Read != nil && pair.Read.Oldest != nil {
			oldest.Oldest = append(oldest.Oldest, measured.Oldest{Channel: pair.Planned.ID, On: d.SaidAt.UTC(), Oldest: *pair.Read.Oldest,
				Within: exactDays})
		}
	}
	for _, l := range against.Lines {
		for _, edit := range l.Take {
			if c := edit.SetCells; c != nil && len(c.Rows) == 1 && c.Rows[0].Channel != "" {
				settings.Settings = append(settings.Settings, measured.Setting{Channel: c.Rows[0].Channel, Column: c.Columns[0],
					Text: c.Rows[0].Values[0]})
			}
		}
	}
	out := []BroughtID{}
	for kind, data := range map[string]*measured.Data{"oldest": &oldest, "settings": &settings} {
		if len(data.Oldest)+len(data.Settings) == 0 {
			continue
		}
		raw, err := json.Marshal(data)
		if err != nil {
			return nil, s.problem(ctx, err)
		}
		b := store.Brought{ID: strings.ToLower(rand.Text()[:10]), Kind: kind, Name: "read from " +
			d.Address, Said: raw, Author: in.note("").Author}
		if err := s.store.Bring(ctx, e.head.Site, b); err != nil {
			return nil, s.problem(ctx, err)
		}
		out = append(out, BroughtID{b.ID})
	}
	if len(out) == 0 {
		return nil, huma.Error422UnprocessableEntity("The device tells neither of its footage nor of a setting that differs. Nothing was kept.")
	}
	return &body[[]BroughtID]{out}, nil
}

// bringHistory begins to read when a recorder wrote what, and keeps it as a list of recordings.
func (s *service) bringHistory(ctx context.Context, in *struct {
	DeviceParam
	SentBy
	Body struct {
		Days float64 `json:"days" minimum:"1" maximum:"92" doc:"How far back it is asked"`
	}
}) (*struct{}, error) {
	e, d, said, _, _, err := s.heldOf(ctx, in.ID, in.Device)
	if err != nil {
		return nil, s.deviceOr(ctx, err)
	}
	author := in.note("").Author
	return nil, s.work(ctx, in.ID, in.Device, "history", in.SentBy, func(ctx context.Context, w *working) (came cameOf, err error) {
		to := time.Now().Truncate(time.Second)
		list, err := w.History(ctx, said, to.Add(-time.Duration(in.Body.Days*24)*time.Hour), to, w.progress)
		if err != nil {
			return came, err
		}
		if len(list) == 0 {
			return came, &device.Error{Trouble: device.Refused, Words: "It tells of no recordings in that time."}
		}
		text, ask := asLines(e.head.Plan, target(&d), said, list)
		f, err := formats.ReadFound(ctx, text, e.head.Plan, ask)
		if err != nil {
			return came, err
		}
		raw, err := json.Marshal(f.Data)
		if err != nil {
			return came, err
		}
		b := store.Brought{ID: strings.ToLower(rand.Text()[:10]), Kind: "recordings", Name: "recordings of " +
			d.Address, Said: raw, Author: author}
		if err := s.store.Bring(ctx, w.site, b); err != nil {
			return came, err
		}
		return cameOf{told: &CameOf{Brought: b.ID}}, nil
	})
}

// asLines are recordings as a file has them, and how it is read.
func asLines(p *plan.Plan, t readout.Target, said *readout.Device, list []device.Recorded) ([]byte, formats.FoundAsk) {
	ids := make(map[string]string)
	ask := formats.FoundAsk{As: "recordings", Zone: time.UTC, On: time.Now(), Channels: make(map[string]string)}
	for _, pair := range readout.Match(p, t, said) {
		if pair.Planned != nil && pair.Read != nil {
			ids[pair.Read.Token] = pair.Planned.ID
			ask.Channels[pair.Planned.ID] = pair.Planned.ID
		}
	}
	var b bytes.Buffer
	b.WriteString("start,end,channel\n")
	for _, r := range list {
		if id := ids[r.Token]; id != "" {
			fmt.Fprintf(&b, "%s,%s,%s\n", r.Start.UTC().Format(time.RFC3339), r.End.UTC().Format(time.RFC3339), id)
		}
	}
	return b.Bytes(), ask
}
