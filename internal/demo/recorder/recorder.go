// Package recorder plays the recorder of a sample site.
package recorder

import (
	"context"

	"wakefield.example/internal/demo"
	"wakefield.example/internal/device"
	"wakefield.example/internal/standin"
	"wakefield.example/internal/store"
)

// Whom the recorder of the quay knows.
const (
	user     = "fitter"
	password = "pennywhistle"
)

// Play plays the recorder of Pennywhistle Quay until ctx ends, and makes it one of the site's devices. What is set at it is
// kept in a file. Where the site is gone, nothing is played.
func Play(ctx context.Context, s *store.Store, state string, seal *device.Seal) error {
	if _, err := s.Site(ctx, demo.Quay); err != nil {
		return nil //nolint:nilerr // whoever deleted the site does not want its recorder
	}
	d, err := standin.Start(ctx, standin.Options{Listen: "127.0.0.1:0", User: user, Password: password, Plan: demo.AtTheQuay(),
		State: state, Seed: 1})
	if err != nil {
		return err
	}
	address, err := device.ReadAddress(d.HTTP)
	if err != nil {
		return err
	}
	const id = "recorder"
	return s.SetDevice(ctx, demo.Quay, store.Device{ID: id, Recorder: "nvr", Address: address.String(), Username: user,
		Secret: seal.Seal(password, demo.Quay, id), Daily: true})
}
