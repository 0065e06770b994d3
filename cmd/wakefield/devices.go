package main

import (
	"context"
	"errors"
	"fmt"
	"net/netip"
	"os"
	"path/filepath"

	"wakefield.example/internal/api"
	"wakefield.example/internal/demo/recorder"
	"wakefield.example/internal/device"
	"wakefield.example/internal/store"
)

// devices is how recorders and cameras are spoken with: a key is of the environment or a file, and without one no passwords are kept.
func (l listening) devices() (out api.Devices, err error) {
	for _, text := range l.AllowDevice {
		p, err := netip.ParsePrefix(text)
		if err != nil {
			return out, fmt.Errorf("--allow-device %s: a range is written 127.0.0.0/8", text)
		}
		out.Allowed = append(out.Allowed, p)
	}
	var key []byte
	if text := os.Getenv("WAKEFIELD_DEVICE_KEY"); text != "" {
		if key, err = device.ReadKey(text); err != nil {
			return out, fmt.Errorf("WAKEFIELD_DEVICE_KEY: %w", err)
		}
	} else if l.DeviceKeyFile != "" {
		if key, err = device.KeyFile(l.DeviceKeyFile); err != nil {
			return out, fmt.Errorf("--device-key-file: %w", err)
		}
	}
	if key != nil {
		out.Seal, err = device.NewSeal(key)
	}
	return out, err
}

// play plays the recorder of a sample site. What is set at it, and the key of its password, are kept beside the database.
func (c *demoCommand) play(ctx context.Context, s *store.Store, dir string) error {
	beside := dir + "-devices"
	state := filepath.Join(beside, "recorder.json")
	if c.DeviceKeyFile == "" {
		c.DeviceKeyFile = filepath.Join(beside, "key")
	}
	if err := os.MkdirAll(beside, 0o700); err != nil {
		return err
	}
	if c.Reset {
		if err := os.Remove(state); err != nil && !errors.Is(err, os.ErrNotExist) {
			return err
		}
	}
	c.AllowDevice = append(c.AllowDevice, "127.0.0.0/8")
	devices, err := c.devices()
	if err != nil {
		return err
	}
	return recorder.Play(ctx, s, state, devices.Seal)
}
