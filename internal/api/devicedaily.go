package api

import (
	"context"
	"encoding/json"
	"errors"
	"math/rand/v2"
	"time"

	"wakefield.example/core/readout"
	"wakefield.example/internal/store"
)

// How devices that were set are looked at by the server itself.
const (
	dailyLook = 10 * time.Minute // how often it is asked which are due
	dailyAge  = 24 * time.Hour   // after which one is read again
	dailyMost = 4                // begun at once, so that whoever waits for a device finds a place
)

// dailyAuthor is who reads what nobody asked for.
const dailyAuthor = "Wakefield"

// daily reads devices once a day after they were set, until ctx ends. Of several servers one reads each: it takes it as work.
func (s *service) daily(ctx context.Context) {
	for {
		select {
		case <-ctx.Done():
			return
		case <-time.After(dailyLook/2 + rand.N(dailyLook)): // not all servers at once
		}
		if err := s.readDue(ctx, time.Now().Add(-dailyAge)); err != nil && ctx.Err() == nil {
			s.log.WarnContext(ctx, "devices that are due are not read", "cause", err)
		}
	}
}

// readDue begins to read devices that were set and were not read since a moment.
func (s *service) readDue(ctx context.Context, since time.Time) error {
	due, err := s.store.DueDevices(store.Everything(ctx), since, dailyMost)
	if err != nil {
		return err
	}
	for _, d := range due {
		err := s.beginWork(store.Of(ctx, d.Company), d.Site, d.Device, "read", dailyAuthor, readAll)
		if err != nil && !errors.Is(err, store.ErrAtWork) {
			s.log.WarnContext(ctx, "a device is not read", "site", d.Site, "device", d.Device, "cause", err)
		}
	}
	return nil
}

// drifted is how many members of a device are otherwise than after it was set.
func drifted(d *store.Device) (int, error) {
	if d.Said == nil || d.Written == nil {
		return 0, nil
	}
	var said, written readout.Device
	if err := errors.Join(json.Unmarshal(d.Said, &said), json.Unmarshal(d.Written, &written)); err != nil {
		return 0, err
	}
	return len(readout.Lines(&said, &written, func(c *readout.Channel) (id, name string) { return "", c.Name })), nil
}
