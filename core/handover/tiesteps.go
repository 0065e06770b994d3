package handover

import (
	"fmt"
	"slices"

	"wakefield.example/core/plan"
)

// contactsInWords are the kinds of contacts as they are set.
var contactsInWords = map[string]string{
	"normallyOpen":   "normally open: it closes for an alarm",
	"normallyClosed": "normally closed: it opens for an alarm, and so does a cut wire",
	"":               "look which kind of contact it is, and set it so",
}

// ties writes alarm inputs, buttons, outputs, places of movable cameras, and what each cause does.
func (w *writer) ties() {
	w.begin(Ties)
	w.inputs()
	w.buttons()
	w.outputs()
	w.presets()
	w.causes()
	w.save("the last of these as above")
}

func (w *writer) inputs() {
	for i := range w.plan.AlarmInputs {
		a := &w.plan.AlarmInputs[i]
		if a.Recorder != w.recorder.ID {
			continue
		}
		set := Set{Input: a.ID, Section: string(Ties), Values: map[string]any{"name": a.Name}}
		if a.Contact != "" {
			set.Values["contact"] = a.Contact
		}
		w.set(set, fmt.Sprintf("Alarm input “%s”, %s", a.Name, contactsInWords[a.Contact]), "", "it shows no alarm while the contact is at rest")
	}
}

func (w *writer) buttons() {
	for i := range w.plan.CallButtons {
		b := &w.plan.CallButtons[i]
		records := w.mine(b.Records)
		if len(records) == 0 {
			continue
		}
		set := Set{Button: b.ID, Section: string(Ties), Values: map[string]any{"records": idsOf(records), "holdSeconds": b.HoldSeconds}}
		which, right := "channels "+numbers(records)+" record", "their signs of recording come when it is pressed"
		if len(records) == 1 {
			which, right = called(records[0])+" records", "its sign of recording comes when it is pressed"
		}
		words := fmt.Sprintf("“%s”: %s for %s", b.Name, which, plan.SecondsInWords(b.HoldSeconds))
		if b.Stream != "" && b.Stream != plan.Main {
			set.Values["stream"] = string(b.Stream)
			words += ", the " + plan.StreamChoices.Name(string(b.Stream))
		}
		w.set(set, words, "", right)
	}
}

func (w *writer) outputs() {
	for i := range w.plan.Outputs {
		if o := &w.plan.Outputs[i]; o.Recorder == w.recorder.ID {
			set := Set{Output: o.ID, Section: string(Ties), Values: map[string]any{"name": o.Name, "holdSeconds": o.HoldSeconds}}
			words := fmt.Sprintf("Output “%s” (%s): on for %s", o.Name, plan.OutputKinds.Name(o.Kind), plan.SecondsInWords(o.HoldSeconds))
			if o.Prolonged {
				set.Values["prolonged"] = true
				words += ", longer with every trigger"
			}
			if o.Hours != nil {
				set.Values["hours"] = o.Hours
				words += ", " + plan.HoursInWords(o.Hours.Blocks)
			}
			w.set(set, words, "", "it goes on when it is tried, and off again")
		}
	}
}

func (w *writer) presets() {
	for _, c := range w.having(func(c *plan.Channel) bool { return c.Movable != nil }) {
		set := Set{Channel: c.ID, Section: string(Ties), Values: make(map[string]any)}
		var names []string
		for _, preset := range c.Movable.Presets {
			set.Values["preset "+preset.ID] = preset.Name
			if preset.ID == c.Movable.Home {
				names = append(names, preset.Name+" (where it rests)")
				continue
			}
			names = append(names, preset.Name)
		}
		w.set(set, capital(called(c))+": presets "+plan.InList(names), "", "it goes back to where it rests by itself")
	}
}

// causes writes what each cause does; messages, snapshots and copies stand in their own section.
func (w *writer) causes() {
	for i := range w.plan.Effects {
		e := &w.plan.Effects[i]
		set := Set{Tie: e.String(), Section: string(Ties), Values: make(map[string]any)}
		does := w.does(e, set.Values)
		if !w.hears(e.When) || len(does) == 0 {
			continue
		}
		words := w.plan.CauseInWords(e.When) + ": " + plan.InList(does)
		if e.Hours != nil {
			set.Values["hours"] = e.Hours
			words += ", " + plan.HoursInWords(e.Hours.Blocks)
		}
		w.set(set, words, "", "just that happens when it is tried")
	}
}

// does is what a tie does in words, and puts it into the values of its step.
func (w *writer) does(e *plan.Effect, values map[string]any) (does []string) {
	p := w.plan
	if len(e.Record) > 0 {
		values["record"] = e.Record
		does = append(does, w.records(e.Record))
	}
	for _, id := range e.Output {
		values["output "+id] = true
		if o := p.Output(id); o != nil {
			does = append(does, "“"+o.Name+"” goes on")
		}
	}
	for _, id := range e.Monitor {
		values["monitor "+id] = true
		if m := p.Monitor(id); m != nil {
			does = append(does, fmt.Sprintf("“%s” shows it for %s", m.Name, plan.SecondsInWords(m.DwellSeconds)))
		}
	}
	for _, t := range e.Preset {
		values["preset "+t.Channel] = t.Preset
		if c := p.Channel(t.Channel); c != nil {
			does = append(does, fmt.Sprintf("%s looks at %s for %s", called(c), c.Movable.Name(t.Preset), plan.SecondsInWords(t.DwellSeconds)))
		}
	}
	return does
}

// records is which channels a cause records.
func (w *writer) records(ids []string) string {
	var here, elsewhere []*plan.Channel
	for _, id := range ids {
		if c := w.plan.Channel(id); c != nil && c.Recorder == w.recorder.ID {
			here = append(here, c)
		} else if c != nil {
			elsewhere = append(elsewhere, c)
		}
	}
	byNumber := func(a, b *plan.Channel) int { return a.Number - b.Number }
	slices.SortStableFunc(here, byNumber)
	text := ""
	if len(here) > 0 {
		text = "records " + numbers(here)
	}
	for _, c := range elsewhere {
		if text != "" {
			text += ", "
		} else {
			text = "records "
		}
		text += fmt.Sprintf("%d %s on %s", c.Number, c.Name, w.plan.Recorder(c.Recorder).Name)
	}
	return text
}

// mine are the channels of a list that are the recorder's, by number.
func (w *writer) mine(ids []string) (out []*plan.Channel) {
	for _, c := range w.channels {
		if slices.Contains(ids, c.ID) {
			out = append(out, c)
		}
	}
	return out
}

func idsOf(list []*plan.Channel) []string {
	out := make([]string, len(list))
	for i, c := range list {
		out[i] = c.ID
	}
	return out
}

// hears tells whether the recorder is the one that hears of a cause.
func (w *writer) hears(when plan.When) bool {
	of := func(id string) bool {
		c := w.plan.Channel(id)
		return c != nil && c.Recorder == w.recorder.ID
	}
	switch {
	case when.Motion != "":
		return of(when.Motion)
	case when.Lost != "":
		return of(when.Lost)
	case when.Tampered != "":
		return of(when.Tampered)
	case when.Alarm != "":
		a := w.plan.AlarmInput(when.Alarm)
		return a != nil && a.Recorder == w.recorder.ID
	case when.Button != "":
		b := w.plan.CallButton(when.Button)
		if b == nil {
			return false
		}
		return len(w.mine(b.Records)) > 0 || len(b.Records) == 0 && w.first()
	}
	return w.first() // the uplink is every recorder's; one tells of it
}

// first tells whether the recorder is the first of the plan.
func (w *writer) first() bool { return w.plan.Recorders[0].ID == w.recorder.ID }

// disks writes arrays, and how long channels may be kept.
func (w *writer) disks() {
	w.begin(Disks)
	for i := range w.recorder.Pools {
		pool := &w.recorder.Pools[i]
		set := Set{Pool: pool.ID, Section: string(Disks), Values: map[string]any{"layout": pool.Layout}}
		n := 0
		for _, g := range pool.Drives {
			n += g.Count
		}
		words := fmt.Sprintf("“%s”: %s as %s", pool.Name, plan.Count(n, "drive"), plan.Layouts.Name(pool.Layout))
		if pool.HotSpares > 0 {
			set.Values["hotSpares"] = pool.HotSpares
			words += ", of them " + plan.Count(pool.HotSpares, "hot spare")
		}
		right := "all drives are shown as sound"
		if f := w.pool(pool.ID); f != nil {
			right = plan.Say("it shows about %.3g TB for footage", f.UsableGB/1000)
		}
		w.set(set, words, "", right)
	}
	for _, c := range w.channels {
		if len(w.recorder.Pools) > 1 && c.Pool != w.recorder.Pools[0].ID {
			w.set(Set{Channel: c.ID, Section: string(Disks), Values: map[string]any{"pool": c.Pool}}, capital(called(c))+" is kept on “"+
				w.plan.Pool(c.Pool).Name+"”", "", "its footage is found there")
		}
	}
	w.alike(func(c *plan.Channel) (string, any) {
		if c.Keep.AtMostDays > 0 {
			return plan.Say("delete footage after %v days", c.Keep.AtMostDays), c.Keep.AtMostDays
		}
		return "", nil
	}, "keep.atMostDays", "no older footage can be opened")
	w.alike(func(c *plan.Channel) (string, any) {
		if c.Keep.QuotaGB > 0 {
			return plan.Say("at most %v GB", c.Keep.QuotaGB), c.Keep.QuotaGB
		}
		return "", nil
	}, "keep.quotaGB", "it takes no more of the disk")
	w.save("limits as above")
}

// alike types one value of channels, those of one value one below another.
func (w *writer) alike(of func(c *plan.Channel) (string, any), member, right string) {
	for _, c := range w.having(func(*plan.Channel) bool { return true }) {
		if words, v := of(c); words != "" {
			w.set(Set{Channel: c.ID, Section: string(Disks), Values: map[string]any{member: v}}, capital(called(c))+": "+words, "", right)
		}
	}
}

// messages writes who is told of what, snapshots, and the copy off site.
func (w *writer) messages() {
	w.begin(Messages)
	p := w.plan
	for i := range p.Messages {
		m := &p.Messages[i]
		var causes []string
		for k := range p.Effects {
			if e := &p.Effects[k]; slices.Contains(e.Message, m.ID) && w.hears(e.When) {
				text := p.CauseInWords(e.When)
				if e.Hours != nil {
					text += " (" + plan.HoursInWords(e.Hours.Blocks) + ")"
				}
				causes = append(causes, text)
			}
		}
		if len(causes) == 0 {
			continue
		}
		set := Set{Message: m.ID, Section: string(Messages), Values: map[string]any{"to": m.To, "atMostEverySeconds": m.AtMostEverySeconds,
			"causes": causes}}
		words := fmt.Sprintf("Message “%s” to %s, at most one every %s, for %s", m.Name, m.To, plan.SecondsInWords(m.AtMostEverySeconds),
			plan.InList(causes))
		if m.Hours != nil {
			set.Values["hours"] = m.Hours
			words += "; it goes out " + plan.HoursInWords(m.Hours.Blocks)
		}
		if m.Still {
			set.Values["still"] = true
			words += ", with a snapshot"
		}
		w.set(set, words, "", "a message for trying arrives at "+m.To)
	}
	for _, c := range w.having(func(c *plan.Channel) bool { return c.Stills != nil }) {
		s := c.Stills
		words := fmt.Sprintf("%s: snapshots %s, %s, %d × %d", capital(called(c)), plan.StillModes.Name(s.Mode), "at most one every "+
			plan.SecondsInWords(s.EverySeconds), s.Width, s.Height)
		set := Set{Channel: c.ID, Section: string(Messages), Values: map[string]any{"stills.mode": s.Mode, "stills.everySeconds": s.EverySeconds,
			"stills.width": s.Width, "stills.height": s.Height}}
		if s.Hours != nil {
			set.Values["stills.hours"] = s.Hours
			words += ", " + plan.HoursInWords(s.Hours.Blocks)
		}
		w.set(set, words, "", "a snapshot of it can be opened")
	}
	for k := range p.Effects {
		e := &p.Effects[k]
		if !w.hears(e.When) {
			continue
		}
		if list := w.named(e.Still); len(list) > 0 {
			w.set(Set{Tie: e.String(), Section: string(Messages), Values: map[string]any{"still": e.Still}}, p.CauseInWords(e.When)+": snapshot of "+
				numbers(list), "", "it can be opened after the cause was tried")
		}
		if list := w.named(e.Offsite); len(list) > 0 && p.Offsite != nil {
			w.set(Set{Tie: e.String(), Section: string(Messages), Values: map[string]any{"offsite": e.Offsite}}, p.CauseInWords(e.When)+
				": footage of "+numbers(list)+" is copied off site",
				"", "the copy can be opened where it arrives")
		}
	}
	w.save("receivers and intervals as above")
}

// named are channels by their ids, by number.
func (w *writer) named(ids []string) (out []*plan.Channel) {
	for _, id := range ids {
		if c := w.plan.Channel(id); c != nil {
			out = append(out, c)
		}
	}
	slices.SortStableFunc(out, func(a, b *plan.Channel) int { return a.Number - b.Number })
	return out
}

// atCameras writes what is set at cameras themselves.
func (w *writer) atCameras() {
	w.begin(AtCameras)
	at := func(c *plan.Channel, words, why, right string, values map[string]any) {
		where := ""
		if c.Address != "" {
			where = " (" + c.Address + ")"
		}
		w.step(Step{Words: "At the camera of " + called(c) + where + ": " + words, Why: why, RightWhen: right, Entries: len(values),
			Do: Do{Camera: &AtCamera{c.ID, values}}}, len(values))
	}
	for _, c := range w.having(func(*plan.Channel) bool { return true }) {
		if c.CameraDecides() {
			values := make(map[string]any)
			for _, v := range streamsOf(c) {
				values[v.name] = v.is
			}
			at(c, inOneSentence(streamsOf(c)), "The camera decides; the recorder’s settings have no effect.",
				"the recorder shows the same frames and bitrate", values)
		}
		if !w.setAtCamera(c) {
			continue
		}
		if c.Events != "none" {
			values := make(map[string]any)
			list := slices.DeleteFunc(detectionOf(c), func(v value) bool { return v.name == "detection.recordsSelf" })
			for _, v := range list {
				values[v.name] = v.is
			}
			at(c, inOneSentence(list)+", and the event is sent to the recorder", "The recorder only hears of its events.",
				"the recorder shows the sign of motion on "+c.Name, values)
			w.areas(c, func(a *plan.Area, words, why string) {
				w.step(Step{Words: "At the camera: " + words, Why: why, RightWhen: w.areaRight(c, a), Entries: 1,
					Do: Do{Camera: &AtCamera{c.ID, map[string]any{"area": *a}}}}, 1)
			})
			if c.Detection.On {
				w.set(Set{Channel: c.ID, Section: "detection", Values: map[string]any{"detection.recordsSelf": c.Detection.TiedToSelf()}},
					fmt.Sprintf("At the recorder: its event %s %s", map[bool]string{true: "records", false: "does not record"}[c.Detection.TiedToSelf()],
						called(c)), "", "the sign of recording goes with that of motion")
			}
		}
	}
}
