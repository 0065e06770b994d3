package solve

import (
	"cmp"
	"context"
	"slices"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/video"
	"wakefield.example/core/week"
)

// Spare is one change that spends what a pool holds beyond what must be kept on it: fewer or smaller drives, better pictures,
// more frames, more seconds around an event.
type Spare struct {
	Pool     string // id
	Words    []string
	Channels []string // ids; empty for drives
	Edits    []edit.Edit
	Days     *float64 // that the pool typically keeps then; nil where it is never full
	Won      float64  // wanted events a day that are kept more; those kept low count by half
	Price    float64  // of the drives that are not bought
	Priced   bool     // whether that is known; for channels it is 0

	further string // where not empty, a change takes the place of the one before it of this kind, as it goes further
}

// farMore is how many times what is required a pool holds that has something to spend.
const farMore = 1.5

// Spares are the changes after which pools that hold far more than is required still hold it, at the worst hour and on the worst
// date of the year. Each is estimated. It is empty where there is nothing to spend, and given up with the error of the context
// when that ends.
func (p *Prepared) Spares(ctx context.Context) (out []Spare, err error) {
	for _, of := range p.all() {
		needs := p.needs(&of)
		if now := p.days(&of, make([]int, len(p.plan.Channels))); needs == 0 || float64(now) < farMore*needs {
			continue
		}
		var tried []Spare
		for _, s := range append(p.fewerDrives(of.id), p.better(&of)...) {
			if ctx.Err() != nil {
				return nil, ctx.Err()
			}
			ok, err := p.spend(ctx, &s, of.id, needs)
			if err != nil {
				return nil, err
			}
			if last := len(tried) - 1; ok && s.further != "" && last >= 0 && tried[last].further == s.further {
				tried[last] = s
			} else if ok {
				tried = append(tried, s)
			}
		}
		slices.SortStableFunc(tried, func(a, b Spare) int { return cmp.Compare(b.Won, a.Won) })
		out = append(out, tried...)
	}
	return out, nil
}

// needs is the most that a pool's channels must be kept, of those that nothing else deletes before.
func (p *Prepared) needs(of *pool) (days float64) {
	for _, i := range of.channels {
		if least := p.plan.Channels[i].Keep.AtLeastDays; least <= float64(p.rate(i, 0).Limit)*(1+1e-9) {
			days = max(days, least)
		}
	}
	return days
}

// spend estimates a change, and tells whether what is required is still kept everywhere.
func (p *Prepared) spend(ctx context.Context, s *Spare, pool string, needs float64) (bool, error) {
	next, err := edit.After(p.plan, s.Edits...)
	if err != nil {
		return false, nil // it is not a change this plan allows
	}
	site, err := estimate.FiguresContext(ctx, next, p.site)
	if err != nil {
		return false, err
	}
	s.Pool = pool
	for _, x := range site.Pools {
		if x.ID != pool {
			continue
		}
		if s.Days = x.RetentionDays; x.WorstDays != nil && *x.WorstDays < needs {
			return false, nil
		}
	}
	if year := site.SpecialYear(); year != nil {
		for _, x := range year.Pools {
			if x.ID == pool && x.WorstDays != nil && *x.WorstDays < needs {
				return false, nil
			}
		}
	}
	was, is := p.site.Verdict.Evidence, site.Verdict.Evidence
	s.Won = was.MissedPerDay - is.MissedPerDay + DefaultLow*(was.LowPerDay-is.LowPerDay)
	return site.Verdict.ShortChannels <= p.site.Verdict.ShortChannels, nil
}

// standardSizes are those of drives in the trade, TB, beside those that have a price.
var standardSizes = []float64{1, 2, 3, 4, 6, 8, 10, 12, 14, 16, 18, 20, 22, 24}

// fewerDrives are one drive less, two less and so on, and the same number of smaller ones: of each the least that may do.
func (p *Prepared) fewerDrives(id string) (out []Spare) {
	pool := p.plan.Pool(id)
	if pool == nil || len(pool.Drives) != 1 {
		return nil // of mixed drives nobody can say which would go
	}
	var recorder string
	for i := range p.plan.Recorders {
		if slices.ContainsFunc(p.plan.Recorders[i].Pools, func(x plan.Pool) bool { return x.ID == id }) {
			recorder = p.plan.Recorders[i].ID
		}
	}
	drives := pool.Drives[0]
	price := func(count int, terabytes float64) (float64, bool) {
		now, known := p.plan.Prices.Of(drives.Terabytes)
		then, both := p.plan.Prices.Of(terabytes)
		return float64(drives.Count)*now - float64(count)*then, known && both
	}
	add := func(kind, words string, count int, terabytes float64) {
		next := *pool
		next.Drives = []plan.DriveGroup{{Count: count, Terabytes: terabytes}}
		s := Spare{further: kind, Words: []string{words}, Edits: []edit.Edit{{SetPool: &edit.SetPool{Recorder: recorder, Pool: next}}}}
		s.Price, s.Priced = price(count, terabytes)
		out = append(out, s)
	}
	for less := 1; less < drives.Count && less <= 4; less++ {
		add("fewer", plan.Say("%s %s instead of %d", plan.Count(drives.Count-less, "drive"), plan.Say("of %v TB", drives.Terabytes),
			drives.Count), drives.Count-less, drives.Terabytes)
	}
	smaller := 0
	for _, size := range slices.Backward(standardSizes) {
		if size < 0.999*drives.Terabytes && smaller < 4 {
			smaller++
			add("smaller", plan.Say("%s of %v TB instead of %v TB", plan.Count(drives.Count, "drive"), size, drives.Terabytes), drives.Count, size)
		}
	}
	return out
}

// better are better pictures, more frames and more seconds for the cameras of a pool: for all of them at once, where it says the
// same of them.
func (p *Prepared) better(of *pool) (out []Spare) {
	at := make(map[string]int)
	add := func(i int, words string, edits ...edit.Edit) {
		k, ok := at[words]
		if !ok {
			k = len(out)
			at[words] = k
			out = append(out, Spare{Words: []string{words}, Priced: true})
		}
		out[k].Channels = append(out[k].Channels, p.plan.Channels[i].ID)
		out[k].Edits = append(out[k].Edits, edits...)
	}
	for _, i := range of.channels {
		c := &p.plan.Channels[i]
		one := []string{c.ID}
		stream := func(change func(*plan.Stream)) edit.Edit {
			next := *c.Streams.Main
			change(&next)
			return edit.Edit{SetStream: &edit.SetStream{Channels: one, Stream: plan.Main, Settings: &next}}
		}
		if main := c.Streams.Main; main != nil && main.Rate.Kind == "modelled" {
			if main.Rate.Quality < 5 {
				add(i, "pictures a step of quality better", stream(func(s *plan.Stream) { s.Rate.Quality++ }))
			}
			if main.FPS < moreFrames && main.Codec != string(video.MJPEG) {
				add(i, plan.Say("%v frames a second", moreFrames), stream(func(s *plan.Stream) { s.FPS = moreFrames }))
			}
		}
		if p.waits(i) && c.PreSeconds+c.PostSeconds > 0 {
			pre, post := 2*c.PreSeconds, 2*c.PostSeconds
			if limit := p.plan.Recorder(c.Recorder).PreSecondsLimit; limit > 0 {
				pre = max(c.PreSeconds, min(pre, limit))
			}
			add(i, "twice the seconds before and after an event, as far as the recorder has room for them",
				edit.Edit{SetTimes: &edit.SetTimes{Channels: one, PreSeconds: &pre, PostSeconds: &post}})
		}
		if full := p.fullTime(i); full != "" {
			add(i, "“"+p.plan.Duty(full).Name+"” all week",
				edit.Edit{Paint: &edit.Paint{Channels: one, Hours: []plan.Hours{{From: 0, To: 1440}}, Duty: full}})
		}
	}
	return out
}

// waits tells whether a duty of channel i waits for events.
func (p *Prepared) waits(i int) bool {
	return slices.ContainsFunc(p.site.Duties(i), func(s week.Step[string]) bool {
		d := p.plan.Duty(s.Value)
		return d != nil && d.Event != nil
	})
}

// moreFrames a second are offered.
const moreFrames = 25.0

// fullTime is the id of a duty that writes the whole main stream all the time, where the plan has one and the channel has hours
// in which less is written; else empty.
func (p *Prepared) fullTime(i int) string {
	whole := func(d *plan.Duty) bool {
		return d.Base != nil && d.Base.Stream == plan.Main && !d.Base.KeyframesOnly && d.Base.FPS == 0 &&
			d.Base.Quality == 0 && d.Base.Percent == 0
	}
	id := ""
	for k := range p.plan.Duties {
		if d := &p.plan.Duties[k]; whole(d) && d.Event == nil {
			id = d.ID
			break
		}
	}
	if id == "" || p.plan.Channels[i].Streams.Main == nil {
		return ""
	}
	for _, s := range p.site.Duties(i) {
		if d := p.plan.Duty(s.Value); d == nil || !whole(d) {
			return id
		}
	}
	return ""
}
