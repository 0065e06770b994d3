package handover

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// Sheets are the steps of all recorders of a plan as entered. s is its estimate and on the date from which days are counted; both
// are for the check at the end, which says less where s is nil.
func Sheets(e *Entered, s *estimate.Result, on week.Date) Document {
	doc := Document{Format: Format, Recorders: []Sheet{}}
	for i := range e.Plan.Recorders {
		doc.Recorders = append(doc.Recorders, SheetOf(e, i, s, on))
	}
	return doc
}

// newWriter begins the sheet of recorder i.
func newWriter(e *Entered, i int) *writer {
	r := &e.Plan.Recorders[i]
	w := &writer{Entered: e, plan: e.Plan, recorder: r, sheet: Sheet{ID: r.ID, Name: r.Name, Steps: []Step{}}}
	for k := range e.Plan.Channels {
		if e.Plan.Channels[k].Recorder == r.ID {
			w.at = append(w.at, k)
		}
	}
	slices.SortStableFunc(w.at, func(a, b int) int { return e.Plan.Channels[a].Number - e.Plan.Channels[b].Number })
	for _, k := range w.at {
		w.channels = append(w.channels, &e.Plan.Channels[k])
	}
	return w
}

// SheetOf are the steps of recorder i; see [Sheets].
func SheetOf(e *Entered, i int, s *estimate.Result, on week.Date) Sheet {
	w := newWriter(e, i)
	w.figures, w.on = s, on
	w.network()
	w.cameras()
	w.streams()
	w.detection()
	w.ties()
	w.weeks()
	w.specialDays()
	w.disks()
	w.messages()
	w.atCameras()
	w.check()
	return w.sheet
}

// writer writes the sheet of a recorder, section by section.
type writer struct {
	*Entered
	plan     *plan.Plan
	recorder *plan.Recorder
	figures  *estimate.Result
	on       week.Date
	channels []*plan.Channel // of the recorder, by number
	at       []int           // their places in the plan
	sheet    Sheet
	section  Section
	steps    int // of the section so far
	entries  int // of the section so far
}

// begin begins a section.
func (w *writer) begin(s Section) { w.section, w.steps, w.entries = s, 0, 0 }

// step adds a step. Each counts as many entries as it has; oneByOne is how many it would be by itself.
func (w *writer) step(s Step, oneByOne int) {
	w.steps++
	w.entries += s.Entries
	s.ID = fmt.Sprintf("%d.%d", w.section.Number(), w.steps)
	s.Section = w.section
	w.sheet.Entries += s.Entries
	w.sheet.EntriesOneByOne += oneByOne
	w.sheet.Steps = append(w.sheet.Steps, s)
}

// set adds a step that types values, which are entries each.
func (w *writer) set(set Set, words, why, rightWhen string) {
	n := len(set.Values)
	w.step(Step{Words: words, Why: why, RightWhen: rightWhen, Entries: n, Do: Do{Set: &set}}, n)
}

// look adds a step in which something is only looked at. What stands behind a colon in about is what it is told apart by when
// the plan changes.
func (w *writer) look(about, words, why, rightWhen, channel string) {
	w.step(Step{Words: words, Why: why, RightWhen: rightWhen, Do: Do{Look: &LookAfter{about, channel}}}, 0)
}

// save ends a section in which something was typed.
func (w *writer) save(words string) {
	if w.entries > 0 {
		w.step(Step{Words: "Save, leave the menu and open it again: " + words, Why: "What was typed and not kept is found here.",
			Do: Do{Save: &struct{}{}}}, 0)
	}
}

// called is a channel in a sentence, by number and name.
func called(c *plan.Channel) string { return fmt.Sprintf("channel %d %s", c.Number, c.Name) }

// Called is the same at the beginning of one.
func capital(s string) string {
	if s == "" {
		return s
	}
	r := []rune(s)
	return strings.ToUpper(string(r[:1])) + string(r[1:])
}

// numbers lists channels by their numbers, up to a dozen by name too where they are few.
func numbers(list []*plan.Channel) string {
	if len(list) == 1 {
		return fmt.Sprintf("%d %s", list[0].Number, list[0].Name)
	}
	var parts []string
	for i := 0; i < len(list); {
		k := i
		for k+1 < len(list) && list[k+1].Number == list[k].Number+1 {
			k++
		}
		switch {
		case k >= i+2:
			parts = append(parts, fmt.Sprintf("%d to %d", list[i].Number, list[k].Number))
			i = k + 1
		default:
			parts = append(parts, strconv.Itoa(list[i].Number))
			i++
		}
	}
	return plan.InList(parts)
}

// duty is what a duty is called at the recorder.
func (w *writer) duty(id string) string {
	if word := w.recorder.Words.Of(id); word != "" {
		return word
	}
	if d := w.plan.Duty(id); d != nil {
		return d.Name
	}
	return id
}

func (w *writer) network() {
	w.begin(Network)
	values := map[string]any{"timeZone": w.plan.Site.TimeZone}
	words := "Time zone " + w.plan.Site.TimeZone + ", clocks changed with it"
	w.set(Set{Recorder: w.recorder.ID, Section: string(Network), Values: values}, words, "Weeks and special days go by the recorder’s clock.",
		"its clock shows the time of the place, daylight saving too")
	w.set(Set{Recorder: w.recorder.ID, Section: string(Network), Values: map[string]any{"timeServer": true}},
		"A time server for the clock, and the same one for all cameras", "Footage is asked for by the time of day.",
		"recorder and your own clock differ by less than a second")
	if w.recorder.Address != "" {
		w.set(Set{Recorder: w.recorder.ID, Section: string(Network), Values: map[string]any{"address": w.recorder.Address}}, "Address "+
			w.recorder.Address, "", "its pages open at that address")
	}
	w.save("time zone and address as above")
}

func (w *writer) cameras() {
	w.begin(Cameras)
	for _, c := range w.channels {
		set := Set{Channel: c.ID, Section: string(Cameras)}
		if c.NoCamera {
			set.Values = map[string]any{"noCamera": true}
			w.set(set, fmt.Sprintf("Channel %d: no camera", c.Number), "An empty channel that is set to record fills the disk.", "it has no picture")
			continue
		}
		set.Values = map[string]any{"name": c.Name}
		words, right := fmt.Sprintf("Channel %d: name “%s”", c.Number, c.Name), "its picture is that of "+c.Name
		if c.Address != "" {
			set.Values["address"] = c.Address
			words = fmt.Sprintf("Channel %d: camera at %s, name “%s”", c.Number, c.Address, c.Name)
		}
		w.set(set, words, "", right)
	}
	if list := w.having(func(*plan.Channel) bool { return true }); len(list) > 0 {
		last := list[len(list)-1]
		w.save(fmt.Sprintf("channel %d is called “%s”", last.Number, last.Name))
	}
}
