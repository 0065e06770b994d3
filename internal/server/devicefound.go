package server

import (
	"context"
	"crypto/rand"
	"encoding/json"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/measured"
	"wakefield.example/core/readout"
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
