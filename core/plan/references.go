package plan

import (
	"fmt"
	"slices"
	"strconv"
	"time"
	_ "time/tzdata"

	"wakefield.example/core/document"
	"wakefield.example/core/week"
)

// checkReferences holds what no single member can tell: ids that are unique,
// references that lead somewhere, times in order.
func (p *Plan) checkReferences() error { return p.checkReferencesSince(nil) }

// checkReferencesSince holds the same of a plan that was made from another one that
// passed, which may be nil.
func (p *Plan) checkReferencesSince(before *Plan) error {
	c := &checker{plan: p}
	c.site()
	c.ids()
	c.mentions(before)
	c.kinds()
	c.duties()
	c.weeks()
	c.activities()
	c.recorders()
	for i := range p.Channels {
		c.channel(fmt.Sprintf("channels[%d]", i), &p.Channels[i])
	}
	c.effects()
	c.budgets()
	if c.err != nil {
		return c.err
	}
	return nil
}

// checker keeps the first error.
type checker struct {
	plan      *Plan
	err       error
	known     map[string]map[string]bool // keys of things, by their kind
	poolOwner map[string]string
}

func (c *checker) wrong(path, format string, args ...any) {
	if c.err == nil {
		c.err = document.Wrong(path, format, args...)
	}
}

// ids gathers what there is, and asks that no two things of a kind have one id.
func (c *checker) ids() {
	c.known = map[string]map[string]bool{"object": {}}
	c.plan.EachThing(func(t Thing) bool {
		if c.known[t.Kind] == nil {
			c.known[t.Kind] = make(map[string]bool)
		}
		if c.known[t.Kind][t.Key] && t.list.byID {
			c.wrong(t.Path()+".id", "a second %s %q", t.Kind, t.Key)
		}
		c.known[t.Kind][t.Key] = true
		return c.err == nil
	})
}

// mentions asks that every id leads somewhere. Where nothing that was there has gone, only
// entries of lists that are other than before need to be asked.
func (c *checker) mentions(before *Plan) {
	for _, o := range ReadyObjects() {
		c.known["object"][o.ID] = true
	}
	leads := func(m Mention) bool {
		for i, key := range m.Keys() {
			if !c.known[m.Kind][key] {
				path := m.Path()
				if m.IsList() {
					path += "[" + strconv.Itoa(i) + "]"
				}
				c.wrong(path, "no %s %q", m.Kind, key)
			}
		}
		return c.err == nil
	}
	if before == nil || c.lost(before) {
		c.plan.EachMention(leads)
		return
	}
	c.plan.eachMentionSince(before, leads)
}

// lost tells whether a thing that there was before is no more.
func (c *checker) lost(before *Plan) (lost bool) {
	before.EachThing(func(t Thing) bool {
		lost = !c.known[t.Kind][t.Key]
		return !lost
	})
	return lost
}

func (c *checker) site() {
	s := c.plan.Site
	if _, err := time.LoadLocation(s.TimeZone); err != nil || s.TimeZone == "" || s.TimeZone == "Local" {
		c.wrong("site.timeZone", "no time zone %q; IANA names such as Europe/Lisbon or UTC are known", s.TimeZone)
	}
	for i, d := range s.SpecialDays {
		if d.To.Before(d.From) {
			c.wrong(fmt.Sprintf("site.specialDays[%d].to", i), "%v is before %v", d.To, d.From)
		}
		for name, date := range map[string]week.Date{"from": d.From, "to": d.To} {
			if date.Year < 1970 || date.Year > 2200 {
				c.wrong(fmt.Sprintf("site.specialDays[%d].%s", i, name), "%v is not between 1970 and 2200", date)
			}
		}
	}
}

func (c *checker) kinds() {
	for i, k := range c.plan.Kinds {
		if k.Streams.Main == nil {
			c.wrong(fmt.Sprintf("kinds[%d].streams.main", i), "missing; a camera has a main stream")
		}
	}
}

func (c *checker) duties() {
	for i, d := range c.plan.Duties {
		if d.Base != nil && d.Base.KeyframesOnly && d.Base.FPS > 0 {
			c.wrong(fmt.Sprintf("duties[%d].base.fps", i), "keyframes alone have no frame rate of their own")
		}
		if e := d.Event; e != nil && len(e.On) == 2 && e.On[0] == e.On[1] {
			c.wrong(fmt.Sprintf("duties[%d].event.on[1]", i), "%s is named twice", e.On[1])
		}
	}
}

func (c *checker) hours(path string, h Hours) {
	if err := h.Week().Check(); err != nil {
		c.wrong(path, "%v", err)
	}
	for i, d := range h.Days {
		for _, e := range h.Days[:i] {
			if d == e {
				c.wrong(fmt.Sprintf("%s.days[%d]", path, i), "%v is named twice", d)
			}
		}
	}
}

func (c *checker) week(path string, w *OwnWeek) {
	for i, b := range w.Blocks {
		c.hours(fmt.Sprintf("%s.blocks[%d]", path, i), b.Hours)
	}
}

func (c *checker) weeks() {
	for i := range c.plan.Weeks {
		c.week(fmt.Sprintf("weeks[%d]", i), &c.plan.Weeks[i].OwnWeek)
	}
}

func (c *checker) activities() {
	for i, a := range c.plan.Activities {
		if a.Groups != nil && a.Groups.Size > 1 && a.MeanSeconds > MaxGroupedSeconds {
			c.wrong(fmt.Sprintf("activities[%d].groups", i), "events that last %v s on average cannot come in groups; at most %v s can",
				a.MeanSeconds, MaxGroupedSeconds)
		}
		for j, b := range a.Blocks {
			c.hours(fmt.Sprintf("activities[%d].blocks[%d]", i, j), b.Hours)
		}
	}
}

func (c *checker) recorders() {
	c.poolOwner = make(map[string]string)
	for i, r := range c.plan.Recorders {
		if r.Takes != nil {
			c.takes(fmt.Sprintf("recorders[%d].takes", i), r.Takes)
		}
		for j, pool := range r.Pools {
			path := fmt.Sprintf("recorders[%d].pools[%d]", i, j)
			c.poolOwner[pool.ID] = r.ID
			drives := 0
			for _, g := range pool.Drives {
				drives += g.Count
			}
			if pool.HotSpares > drives {
				c.wrong(path+".hotSpares", "%s of %s", Count(pool.HotSpares, "hot spare"), Count(drives, "drive"))
			}
		}
	}
}

// takes asks that lists of what can be chosen hold what can be asked for.
func (c *checker) takes(path string, t *Takes) {
	for _, list := range []struct {
		name        string
		of          []float64
		least, most float64
	}{{"preSeconds", t.PreSeconds, 0, 3600}, {"postSeconds", t.PostSeconds, 0, 86400}, {"framesPerSecond", t.FramesPerSecond, 0.01, 240}} {
		for k, v := range list.of {
			if !(v >= list.least && v <= list.most) {
				c.wrong(fmt.Sprintf("%s.%s[%d]", path, list.name, k), "%v is not between %v and %v", v, list.least, list.most)
			}
		}
	}
	for k, what := range t.Copies {
		if slices.Contains(t.Copies[:k], what) {
			c.wrong(fmt.Sprintf("%s.copies[%d]", path, k), "%s is named twice", what)
		}
	}
}

func (c *checker) channel(path string, ch *Channel) {
	if owner := c.poolOwner[ch.Pool]; owner != ch.Recorder {
		c.wrong(path+".pool", "pool %q belongs to recorder %q", ch.Pool, owner)
	}
	if ch.Streams.Main == nil && !ch.NoCamera {
		c.wrong(path+".streams.main", "missing; a channel with a camera has a main stream")
	}
	c.hourList(path+".detection.hours", ch.Detection.Hours)
	c.stillsAndPresets(path, ch)
	c.nights(path+".streams", ch.Streams)
	c.scene(path, ch)
	if k := ch.Keep; k.AtMostDays > 0 && k.AtLeastDays > k.AtMostDays {
		c.wrong(path+".keep.atLeastDays", "%s", Say("%v days at least but %v at most", k.AtLeastDays, k.AtMostDays))
	}
	if ch.Week.IsOwn() {
		c.week(path+".week", ch.Week.Own)
	}
}

// nights checks the hours in which it is night for streams.
func (c *checker) nights(path string, s Streams) {
	for _, which := range []StreamName{Main, Sub, Third} {
		if stream := s.Get(which); stream != nil && stream.Rate.Night != nil {
			at := fmt.Sprintf("%s.%s.rate.night.hours", path, which)
			if len(stream.Rate.Night.Hours.Blocks) == 0 {
				c.wrong(at+".blocks", "no hours; leave the night out where it changes nothing")
			}
			for i, b := range stream.Rate.Night.Hours.Blocks {
				c.hours(fmt.Sprintf("%s.blocks[%d]", at, i), b)
			}
		}
	}
}

// MaxGroupedSeconds is the longest mean length, in seconds, of events that come in groups.
const MaxGroupedSeconds = 86400.0

// What all of a plan's ties and pools together may be: far beyond any site, and little
// enough that every figure is found at once.
const (
	maxTies  = 100_000 // pairs of a cause and what it does
	maxPools = 1_000
)

func (c *checker) budgets() {
	ties := 0
	for i, b := range c.plan.CallButtons {
		if ties += len(b.Records); ties > maxTies {
			c.wrong(fmt.Sprintf("callButtons[%d].records", i), "more than %d ties in all", maxTies)
		}
	}
	for i := range c.plan.Effects {
		e := &c.plan.Effects[i]
		if ties += e.Ties(); ties > maxTies {
			c.wrong(fmt.Sprintf("effects[%d]", i), "more than %d ties in all", maxTies)
		}
	}
	pools := 0
	for i, r := range c.plan.Recorders {
		if pools += len(r.Pools); pools > maxPools {
			c.wrong(fmt.Sprintf("recorders[%d].pools", i), "more than %d pools in all", maxPools)
		}
	}
}
