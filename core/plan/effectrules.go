package plan

import "fmt"

// effects holds what no single member of causes and effects can tell.
func (c *checker) effects() {
	if c.err != nil {
		return // what is named below may not be there
	}
	for i, m := range c.plan.Messages {
		c.hourList(fmt.Sprintf("messages[%d].hours", i), m.Hours)
	}
	for i, o := range c.plan.Outputs {
		c.hourList(fmt.Sprintf("outputs[%d].hours", i), o.Hours)
	}
	if o := c.plan.Offsite; o != nil {
		c.hourList("offsite.hours", o.Hours)
	}
	channels := make(map[string]*Channel, len(c.plan.Channels))
	for i := range c.plan.Channels {
		channels[c.plan.Channels[i].ID] = &c.plan.Channels[i]
	}
	often := make(map[When]float64) // of causes that are known by how often they happen
	for i := range c.plan.Effects {
		e := &c.plan.Effects[i]
		path := fmt.Sprintf("effects[%d]", i)
		c.hourList(path+".hours", e.Hours)
		c.cause(path+".when", &e.When, channels[e.When.Motion], often)
		for k, tie := range e.Preset {
			ch := channels[tie.Channel]
			at := fmt.Sprintf("%s.preset[%d]", path, k)
			if ch.Movable == nil {
				c.wrong(at+".channel", "%s cannot move: it has no presets", ch.Name)
			} else if !ch.Movable.Has(tie.Preset) {
				c.wrong(at+".preset", "no preset %q on %s", tie.Preset, ch.Name)
			}
		}
	}
}

func (c *checker) cause(path string, w *When, ch *Channel, often map[When]float64) {
	counted := w.Counted()
	switch {
	case w.Area != "" && w.Motion == "":
		c.wrong(path+".area", "an area goes with motion")
	case w.PerMonth != 0 && !counted:
		c.wrong(path+".perMonth", "how often goes with lost, tampered and uplinkLost; of others the plan knows it")
	case w.PerMonth == 0 && counted:
		c.wrong(path+".perMonth", "missing; how often it happens is said here")
	}
	if w.Area != "" && ch != nil {
		switch a := ch.Detection.Area(w.Area); {
		case a == nil:
			c.wrong(path+".area", "no area %q on %s", w.Area, ch.Name)
		case a.Ignore:
			c.wrong(path+".area", "the area %s of %s is ignored; nothing is noticed in it", a.Name, ch.Name)
		}
	}
	if counted {
		key := *w
		key.PerMonth = 0
		if before, known := often[key]; known && before != w.PerMonth {
			c.wrong(path+".perMonth", "%v a month, but %v elsewhere: one cause happens as often as it does", w.PerMonth, before)
		}
		often[key] = w.PerMonth
	}
}

// stillsAndPresets holds what a channel says of moving and of stills.
func (c *checker) stillsAndPresets(path string, ch *Channel) {
	if s := ch.Stills; s != nil {
		c.hourList(path+".stills.hours", s.Hours)
	}
	m := ch.Movable
	if m == nil {
		return
	}
	known := make(map[string]bool)
	for i, p := range m.Presets {
		if known[p.ID] {
			c.wrong(fmt.Sprintf("%s.movable.presets[%d].id", path, i), "a second preset %q", p.ID)
		}
		known[p.ID] = true
	}
	if !known[m.Home] {
		c.wrong(path+".movable.home", "no preset %q", m.Home)
	}
}

func (c *checker) hourList(path string, h *HourList) {
	if h == nil {
		return
	}
	for i, b := range h.Blocks {
		c.hours(fmt.Sprintf("%s.blocks[%d]", path, i), b)
	}
}
