package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"strings"

	"wakefield.example/core/plan"
	"wakefield.example/internal/standin"
)

// standInCommand plays a recorder and its cameras.
type standInCommand struct {
	Listen       string   `default:"127.0.0.1:0" help:"Loopback address and port; port 0 takes a free one."`
	Channels     int      `default:"16" help:"How many channels it has, where no plan says it."`
	User         string   `default:"fitter" help:"Who may ask it."`
	PasswordFile string   `required:"" type:"existingfile" help:"File with the password; its first line."`
	Plan         string   `type:"existingfile" help:"Plan file as which it is set."`
	Recorder     string   `help:"Id of the recorder of the plan; the first where absent."`
	State        string   `type:"path" help:"File in which what is set at it is kept."`
	Discover     string   `placeholder:"ADDRESS" help:"Address and port at which it answers who is there, such as 127.0.0.1:3702."`
	Quirk        []string `help:"Something that real devices do; may be given again: ${quirks}."`
	Seed         uint64   `help:"What its motion is drawn by."`
}

// quirks are all there are, for the help.
func quirks() string {
	var names []string
	for _, q := range standin.Quirks {
		names = append(names, string(q))
	}
	return strings.Join(names, ", ")
}

func (c *standInCommand) Run() error {
	ctx, stop := untilStopped()
	defer stop()
	password, err := os.ReadFile(c.PasswordFile)
	if err != nil {
		return err
	}
	first, _, _ := strings.Cut(string(password), "\n")
	if first = strings.TrimSpace(first); first == "" {
		return errors.New(c.PasswordFile + " has no password in its first line")
	}
	p, err := c.plan()
	if err != nil {
		return err
	}
	o := standin.Options{Listen: c.Listen, Discover: c.Discover, User: c.User, Password: first, Plan: p, Recorder: c.Recorder, State: c.State,
		Seed: c.Seed}
	for _, q := range c.Quirk {
		o.Quirks = append(o.Quirks, standin.Quirk(q))
	}
	d, err := standin.Start(ctx, o)
	if err != nil {
		return err
	}
	if err := json.NewEncoder(os.Stdout).Encode(d); err != nil {
		return err
	}
	<-ctx.Done()
	d.Close()
	return nil
}

// plan is the plan as which it is set: the one of a file, or one of as many cameras that are all alike.
func (c *standInCommand) plan() (*plan.Plan, error) {
	if c.Plan != "" {
		data, err := os.ReadFile(c.Plan)
		if err != nil {
			return nil, err
		}
		p, err := plan.Read(data)
		if err != nil {
			return nil, fmt.Errorf("%s: %w", c.Plan, err)
		}
		return p, nil
	}
	if c.Channels < 1 || c.Channels > 512 {
		return nil, errors.New("--channels is 1 to 512")
	}
	return plan.Opening{Name: "Stand-in", TimeZone: "UTC", Recorder: "Stand-in", Channels: c.Channels, IngestMbps: 400,
		Drives: 4, Terabytes: 8,
		Layout: "raid5", Cameras: c.Channels, Codec: "h265", Width: 2560, Height: 1440, FPS: 15, Activity: plan.ActivityTemplates()[0].ID,
		Duty: plan.ReadyMade()[0].ID}.Plan()
}
