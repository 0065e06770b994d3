package measured

import (
	"strings"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/quantity"
	"wakefield.example/core/table"
)

// differing are the settings that stand otherwise in the recorder than in the plan, and can be set there.
func (c *comparison) differing() (out []Setting) {
	p := c.est.Plan()
	for _, s := range c.data.Settings {
		i, ok := c.est.Site().Channels[s.Channel]
		column := table.ColumnOf(s.Column)
		if !ok || column == nil {
			continue
		}
		if strings.EqualFold(column.Text(p, &p.Channels[i]), strings.TrimSpace(s.Text)) {
			continue
		}
		edits := []edit.Edit{settingEdit(s)}
		next, err := edit.After(p, edits...)
		switch {
		case err != nil:
			c.note("%s of %s stands as %q in the recorder, which the plan cannot say: %v", column.FullTitle(), p.Channels[i].Name, s.Text, err)
		case column.Text(next, next.Channel(s.Channel)) == column.Text(p, &p.Channels[i]):
		default:
			out = append(out, s)
		}
	}
	return out
}

func settingEdit(s Setting) edit.Edit {
	return edit.Edit{SetCells: &edit.SetCells{Cells: table.Cells{Columns: []string{s.Column},
		Rows: []table.CellRow{{Channel: s.Channel, Values: []string{s.Text}}}}}}
}

// settingEdits write into the plan what stands in the recorder.
func (c *comparison) settingEdits() (out []edit.Edit) {
	for _, s := range c.differing() {
		out = append(out, settingEdit(s))
	}
	return out
}

// settingFigures are the settings that differ. They are read, so that chance has no part in them.
func (c *comparison) settingFigures() (out []Figure) {
	p := c.est.Plan()
	for _, s := range c.differing() {
		channel, column := p.Channel(s.Channel), table.ColumnOf(s.Column)
		f := Figure{Kind: KindSetting, ID: s.Channel, Name: channel.Name, Channels: []string{s.Channel},
			What:        strings.ToLower(column.FullTitle()),
			PlannedText: column.Text(p, channel), FoundText: s.Text, MoreThanChance: true, Words: "stands otherwise in the recorder"}
		switch s.Column {
		case "pre", "post", "alarmPre", "alarmPost":
			f.Kind = KindSeconds
			f.What += ", s"
			f.Planned, _ = quantity.Read(f.PlannedText, "s") // of a cell without a figure 0; its text is shown
			f.Found, _ = quantity.Read(f.FoundText, "s")
			f.Low, f.High = f.Found, f.Found
		}
		f.apply = func(*plan.Plan) []edit.Edit { return []edit.Edit{settingEdit(s)} }
		out = append(out, f)
	}
	return out
}

// seconds tells of recordings that are longer or shorter than the seconds before and after an event allow: the shortest of many
// is hardly longer than these.
func (c *comparison) seconds(s *seen) *Figure {
	if s.log.Kind != Recordings || s.log.Lengths < enough {
		return nil
	}
	k := s.main()
	if k < 0 {
		return nil
	}
	ch := &c.est.Plan().Channels[s.channel]
	for _, set := range c.differing() {
		if set.Channel == ch.ID && (set.Column == "pre" || set.Column == "post") {
			return nil // it is told already
		}
	}
	planned := ch.PreSeconds + ch.PostSeconds
	mean := s.from[k].mean / float64(s.log.Lengths) // of the shortest beyond what is certain
	f := &Figure{Kind: KindSeconds, ID: ch.ID, Name: ch.Name, Channels: []string{ch.ID}, What: "seconds before and after an event, s",
		Planned: planned, Found: max(0, s.log.Shortest-mean), Chance: 1}
	switch off := s.log.Shortest - planned; {
	case off > 1.5: // times are whole seconds
		f.Chance = expTail((off - 1) / max(mean, 0.05))
	case off < -1.5:
		f.Chance = 0
	}
	f.Low, f.High = max(0, f.Found-mean-0.5), f.Found+mean+0.5
	f.Words = "the recorder keeps other seconds than planned"
	post := max(0, round(f.Found-ch.PreSeconds, 1))
	f.apply = func(*plan.Plan) []edit.Edit {
		return []edit.Edit{{SetTimes: &edit.SetTimes{Channels: []string{ch.ID}, PostSeconds: &post}}}
	}
	return f
}
