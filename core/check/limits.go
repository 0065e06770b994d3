package check

import (
	"fmt"
	"strconv"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/storage"
	"wakefield.example/core/table"
)

// pool finds the figures of a pool.
func (c *site) pool(id string) *estimate.Pool {
	for i := range c.figures.Pools {
		if c.figures.Pools[i].ID == id {
			return &c.figures.Pools[i]
		}
	}
	return nil
}

func array(p *plan.Pool) storage.Array { return estimate.Array(p) }

// recorderLimits: intake, drive throughput, channels and licences.
func recorderLimits(c *site) {
	for i := range c.plan.Recorders {
		r, figures := &c.plan.Recorders[i], &c.figures.Recorders[i]
		report := func(rule, member, sentence, reason string, cost float64) {
			c.found = append(c.found, Finding{Rule: rule, Severity: Error, Sentence: sentence, Reason: reason,
				Path: fmt.Sprintf("recorders[%d].%s", i, member), Recorder: r.ID, Cost: cost})
		}
		if figures.IntakeMbps > r.IngestMbps {
			report("intake", "ingestMbps", fmt.Sprintf("The intake of %s is too small for its cameras.", r.Name),
				plan.Say("Their main streams need %.3g Mbit/s while something moves; its intake is %v Mbit/s.", figures.IntakeMbps, r.IngestMbps),
				float64(figures.Channels)*(1-r.IngestMbps/figures.IntakeMbps))
		}
		if busiest := figures.BusiestMbps / 8; r.DriveMBps > 0 && busiest > r.DriveMBps {
			report("throughput", "driveMBps", fmt.Sprintf("The drives of %s are too slow for its busiest hour.", r.Name),
				plan.Say("%.3g MB a second are to be written then; the drives manage %v. On average it is %.3g.", busiest, r.DriveMBps,
					figures.AverageMbps/8), float64(figures.Channels)*(1-r.DriveMBps/busiest))
		}
		if r.Licences > 0 && figures.Channels > r.Licences {
			report("licences", "licences", fmt.Sprintf("%s has %s and %s.", r.Name, plan.Count(figures.Channels, "camera"),
				plan.Count(r.Licences, "licence")),
				"Cameras beyond the licences are not recorded.", float64(figures.Channels-r.Licences))
		}
		c.numbers(r)
	}
}

// numbers holds channel numbers against the channels a recorder has.
func (c *site) numbers(r *plan.Recorder) {
	taken := make(map[int]string)
	free := freeNumbers(c.plan, r)
	renumber := func(ch *plan.Channel) *Fix {
		if len(free) == 0 {
			return nil
		}
		to := strconv.Itoa(free[0])
		free = free[1:]
		cells := table.Cells{Columns: []string{"number"}, Rows: []table.CellRow{{Channel: ch.ID, Values: []string{to}}}}
		return &Fix{Label: "Make it channel " + to, Edits: []edit.Edit{{SetCells: &edit.SetCells{Cells: cells}}}}
	}
	for i := range c.plan.Channels {
		ch := &c.plan.Channels[i]
		if ch.Recorder != r.ID {
			continue
		}
		f := Finding{Rule: "channels", Severity: Error, Path: fmt.Sprintf("channels[%d].number", i), Channel: ch.ID, Recorder: r.ID, Cost: 1}
		if other, ok := taken[ch.Number]; ok {
			f.Sentence = fmt.Sprintf("%s and %s are both channel %d of %s.", other, ch.Name, ch.Number, r.Name)
			f.Reason = "A channel takes one camera."
			f.Fix = renumber(ch)
			c.found = append(c.found, f)
		} else if ch.Number > r.Channels {
			f.Sentence = fmt.Sprintf("%s has no channel %d for %s.", r.Name, ch.Number, ch.Name)
			f.Reason = fmt.Sprintf("It has %s, so nothing of it is recorded, and it is in no figure.", plan.Count(r.Channels, "channel"))
			f.Fix = renumber(ch)
			c.found = append(c.found, f)
		}
		taken[ch.Number] = ch.Name
	}
}

// freeNumbers are the numbers of a recorder that no channel has, from the lowest.
func freeNumbers(p *plan.Plan, r *plan.Recorder) (free []int) {
	taken := make(map[int]bool)
	for i := range p.Channels {
		if p.Channels[i].Recorder == r.ID {
			taken[p.Channels[i].Number] = true
		}
	}
	for n := 1; n <= r.Channels; n++ {
		if !taken[n] {
			free = append(free, n)
		}
	}
	return free
}

// poolLimits: drives enough for the layout, and the yearly workload of each.
func poolLimits(c *site) {
	for i := range c.plan.Recorders {
		r := &c.plan.Recorders[i]
		for j := range r.Pools {
			pool := &r.Pools[j]
			a := array(pool)
			path := fmt.Sprintf("recorders[%d].pools[%d]", i, j)
			if need := storage.Layout(pool.Layout).FewestDrives(); a.Working() < need {
				c.found = append(c.found, Finding{Rule: "too-few-drives", Severity: Error, Path: path + ".drives", Pool: pool.ID, Recorder: r.ID,
					Sentence: fmt.Sprintf("%s has too few drives for its layout.", pool.Name),
					Reason:   fmt.Sprintf("It needs %d without hot spares and has %d.", need, a.Working())})
			}
			c.workload(path, r, pool, a)
		}
	}
}

// workload holds what a drive writes in a year against its rating. Every working
// drive of an array writes its share of the footage and of the redundancy.
func (c *site) workload(path string, r *plan.Recorder, pool *plan.Pool, a storage.Array) {
	whole := a
	whole.Reserve = 0
	figures, usable := c.pool(pool.ID), whole.Usable()
	if usable <= 0 {
		return
	}
	for k, g := range pool.Drives {
		share := g.Terabytes * float64(storage.TB/usable)
		if a.Layout != storage.Span {
			share = float64(smallest(a.Drives) / usable)
		}
		if each := figures.YearlyTB * share; g.YearlyTB > 0 && each > g.YearlyTB {
			c.found = append(c.found, Finding{Rule: "workload", Severity: Warning, Path: fmt.Sprintf("%s.drives[%d].yearlyTB", path, k),
				Pool: pool.ID, Recorder: r.ID,
				Sentence: fmt.Sprintf("The drives of %s are written more than they are rated for.", pool.Name),
				Reason:   plan.Say("Each writes %.3g TB a year; it is rated for %v.", each, g.YearlyTB)})
		}
	}
}

func smallest(drives []storage.Bytes) storage.Bytes {
	s := drives[0]
	for _, d := range drives {
		s = min(s, d)
	}
	return s
}

// preBeyondBuffer: more seconds before an event than the recorder can hold back.
func preBeyondBuffer(c *site, ch *channel) {
	r := c.plan.Recorder(ch.Recorder)
	longest := max(ch.PreSeconds, ch.AlarmPreEvent())
	if ch.NoCamera || r == nil || r.PreSecondsLimit == 0 || longest <= r.PreSecondsLimit {
		return
	}
	pre, alarm := min(ch.PreSeconds, r.PreSecondsLimit), min(ch.AlarmPreEvent(), r.PreSecondsLimit)
	c.report(ch, Warning, "pre-beyond-buffer", "preSeconds",
		fmt.Sprintf("%s is to record %v s before an event, more than %s buffers.", ch.Name, longest, r.Name),
		fmt.Sprintf("It buffers %v s.", r.PreSecondsLimit),
		fix(fmt.Sprintf("Set it to %v s", r.PreSecondsLimit), edit.Edit{SetTimes: &edit.SetTimes{Channels: []string{ch.ID}, PreSeconds: &pre,
			AlarmPreSeconds: &alarm}}))
}

// standing is how long somebody who is still there may keep still, in seconds.
const standing = 8.0

// postTooShort: so short that one visit becomes several clips.
func postTooShort(c *site, ch *channel) {
	waits := hours(c.where(ch, admitsMotion))
	if ch.NoCamera || waits == 0 || !ch.Detection.On || ch.PostSeconds >= standing {
		return
	}
	enough := standing
	c.report(ch, Hint, "post-too-short", "postSeconds",
		fmt.Sprintf("%s records only %v s after motion ends: one visit becomes several clips.", ch.Name, ch.PostSeconds),
		fmt.Sprintf("People stand for up to about %v s at a time.", standing),
		fix(fmt.Sprintf("Keep %v s", standing), edit.Edit{SetTimes: &edit.SetTimes{Channels: []string{ch.ID}, PostSeconds: &enough}}))
}

// audio: where the law forbids it, nobody notices until it matters.
func audio(c *site, ch *channel) {
	if ch.NoCamera || ch.AudioKbps == 0 {
		return
	}
	c.report(ch, Warning, "audio", "audioKbps",
		fmt.Sprintf("%s records audio.", ch.Name),
		"In many places the law forbids it, or asks for a notice and consent. Make sure that the customer may.",
		fix("Record no audio", edit.Edit{SetAudio: &edit.SetAudio{Channels: []string{ch.ID}}}))
}
