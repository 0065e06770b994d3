package overview

import (
	"context"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"hash/fnv"

	"wakefield.example/core/check"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
)

// Method is a print of the method: of what it says of a plan that has something of everything that a site can be opened with. It is
// the same as long as the method says the same of that plan, and another where a figure or a finding of it is another by anything.
func Method(ctx context.Context) (string, error) {
	sum := fnv.New128a()
	for _, codec := range []string{"h264", "h265"} {
		p, err := probe(codec)
		if err != nil {
			return "", err
		}
		r, err := estimate.RunContext(ctx, p, nil)
		if err != nil {
			return "", err
		}
		if err := json.NewEncoder(sum).Encode([]any{r.Verdict, r.Channels, r.Pools, r.Recorders, check.Findings(p, r)}); err != nil {
			return "", err
		}
	}
	return hex.EncodeToString(sum.Sum(nil))[:16], nil
}

// probe is a plan with a channel for every duty of every activity that there is ready-made.
func probe(codec string) (*plan.Plan, error) {
	duties, activities := plan.ReadyMade(), plan.ActivityTemplates()
	n := len(duties) * len(activities)
	p, err := plan.Opening{Name: "Probe", TimeZone: "UTC", Recorder: "Recorder", Channels: n, IngestMbps: 100, Drives: 3,
		Terabytes: 4, Layout: "raid5",
		Cameras: n, Codec: codec, Width: 2560, Height: 1440, FPS: 12.5, Activity: activities[0].ID, Duty: duties[0].ID, KeepDays: 21}.Plan()
	if err != nil {
		return nil, err
	}
	for _, d := range duties {
		if p.Duty(d.ID) == nil {
			p.Duties = append(p.Duties, d)
		}
	}
	for _, a := range activities {
		if p.Activity(a.ID) == nil {
			p.Activities = append(p.Activities, a)
		}
	}
	for i := range p.Channels {
		c := &p.Channels[i]
		c.Activity = activities[i%len(activities)].ID
		c.Week = plan.WeekRef{Own: &plan.OwnWeek{Otherwise: duties[i/len(activities)%len(duties)].ID}}
	}
	if err := p.Check(); err != nil {
		return nil, fmt.Errorf("the plan by which methods are told apart: %w", err)
	}
	return p, nil
}
