package handover

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// pool is the figures of a pool, nil where nothing was estimated.
func (w *writer) pool(id string) *estimate.Pool {
	if w.figures == nil {
		return nil
	}
	for i := range w.figures.Pools {
		if w.figures.Pools[i].ID == id {
			return &w.figures.Pools[i]
		}
	}
	return nil
}

// check writes what is to be seen when all is done.
func (w *writer) check() {
	w.begin(Check)
	if len(w.channels) == 0 {
		w.look("nothing", "No channel is planned on this recorder", "", "", "")
		return
	}
	w.signs()
	w.motionSign()
	w.contactsAtRest()
	w.heldBack()
	w.comeBack()
}

// What a channel does, as it can be seen from the recorder.
const (
	always  = 'a'
	waiting = 'w'
	nothing = 'n'
)

// mostStretches of the week are told with the signs that are to be seen then.
const mostStretches = 4

// signs tells which channels must record, and which must not, in the hours in which somebody may stand there.
func (w *writer) signs() {
	edges := []week.Minute{0}
	duties := make([]week.Steps[string], len(w.channels))
	for i, c := range w.channels {
		duties[i] = w.plan.WeekOf(c).Steps()
		for _, s := range duties[i] {
			edges = append(edges, s.From)
		}
	}
	slices.Sort(edges)
	edges = slices.Compact(edges)
	var steps week.Steps[string]
	for _, from := range edges {
		signs := w.signsAt(duties, from)
		if s := string(signs); len(steps) == 0 || steps[len(steps)-1].Value != s {
			steps = append(steps, week.Step[string]{From: from, Value: s})
		}
	}
	day := week.FromBlocks(false, []week.Block[bool]{{Hours: week.Hours{From: 6 * 60, To: 20 * 60}, Value: true}})
	held := make(map[string]week.Minute)
	var order []string
	for run, at := range week.Both(steps, day).Runs() {
		if at.B {
			if held[at.A] == 0 {
				order = append(order, at.A)
			}
			held[at.A] += run.Minutes()
		}
	}
	slices.SortStableFunc(order, func(a, b string) int { return int(held[b] - held[a]) })
	for k, signs := range order[:min(mostStretches, len(order))] {
		when := week.And(week.Map(steps, func(s string) bool { return s == signs }), day)
		words := capital(plan.HoursInWords(plan.HoursWhere(when))) + ": " + w.signsInWords(signs)
		w.look(fmt.Sprintf("signs %d: %s", k+1, words), words, "", "", "")
	}
}

// signsAt is what each channel does at a moment.
func (w *writer) signsAt(duties []week.Steps[string], at week.Minute) []rune {
	signs := make([]rune, len(w.channels))
	for i, c := range w.channels {
		signs[i] = nothing
		if d := w.plan.Duty(duties[i].At(at)); d != nil && !c.NoCamera {
			switch {
			case d.Base != nil:
				signs[i] = always
			case d.Event != nil:
				signs[i] = waiting
			}
		}
	}
	return signs
}

func (w *writer) signsInWords(signs string) string {
	by := make(map[rune][]*plan.Channel)
	for i, s := range []rune(signs) {
		by[s] = append(by[s], w.channels[i])
	}
	var parts []string
	if list := by[always]; len(list) > 0 {
		parts = append(parts, "the sign of recording on "+numbers(list))
	}
	if list := by[waiting]; len(list) > 0 {
		parts = append(parts, "it comes and goes on "+numbers(list))
	}
	if list := by[nothing]; len(list) > 0 {
		parts = append(parts, "none ever on "+numbers(list))
	}
	return strings.Join(parts, "; ")
}

// SignsAt is which channels of recorder i must record at a moment of the week, and which must not, in words; empty where it has
// no channels.
func SignsAt(e *Entered, i int, at week.Minute) string {
	w := newWriter(e, i)
	duties := make([]week.Steps[string], len(w.channels))
	for k, c := range w.channels {
		duties[k] = w.plan.WeekOf(c).Steps()
	}
	return w.signsInWords(string(w.signsAt(duties, at)))
}

// motionSign has one channel walked before, for the sign of motion and the seconds kept before it.
func (w *writer) motionSign() {
	var best *plan.Channel
	catch := -1.0
	for k, c := range w.channels {
		listens := false
		for _, s := range w.plan.WeekOf(c).Steps() {
			d := w.plan.Duty(s.Value)
			listens = listens || d != nil && d.Event != nil && slices.Contains(d.Event.On, plan.Motion)
		}
		if c.NoCamera || !c.Detection.On || !listens {
			continue
		}
		now := 100.0
		if w.figures != nil {
			now = plan.Or(w.figures.Channels[w.at[k]].CatchPercent, 100)
		}
		if now > catch {
			best, catch = c, now
		}
	}
	if best == nil {
		return
	}
	w.look("motion: "+best.ID, fmt.Sprintf("Walk in front of %s while it waits for motion: the sign of motion on %d", called(best),
		best.Number), "", plan.Say("it comes about %v s after you can be seen", math.Max(1, best.Detection.MinSeconds)), best.ID)
	if best.PreSeconds > 0 {
		w.look(plan.Say("seconds: %v %v", best.PreSeconds, best.PostSeconds),
			plan.Say("Play that back: it begins %v s before the sign came. Go by the clock in the footage", best.PreSeconds), "",
			plan.Say("it ends %v s after you were gone", best.PostSeconds), best.ID)
	}
}

// contactsAtRest has every contact tried, and looked at while it is at rest.
func (w *writer) contactsAtRest() {
	for i := range w.plan.AlarmInputs {
		a := &w.plan.AlarmInputs[i]
		if a.Recorder != w.recorder.ID {
			continue
		}
		right := "no alarm while it is at rest; else the contact is set the wrong way round"
		words := fmt.Sprintf("Set off “%s”, then let it rest", a.Name)
		if a.Contact == "normallyClosed" {
			words += "; pull one wire off: that is an alarm too"
		}
		w.look("contact "+a.ID+": "+a.Contact, words, "A contact set the wrong way round records all the time, and not when it should.", right,
			"")
	}
}

// heldBack has one message sent, and one that must be held back.
func (w *writer) heldBack() {
	p := w.plan
	for i := range p.Messages {
		m := &p.Messages[i]
		for k := range p.Effects {
			e := &p.Effects[k]
			if !slices.Contains(e.Message, m.ID) || !w.hears(e.When) || e.When.UplinkLost {
				continue
			}
			words := fmt.Sprintf("%s twice within %s: one message arrives at %s, the second is held back", p.CauseInWords(e.When),
				plan.SecondsInWords(m.AtMostEverySeconds), m.To)
			if m.Hours != nil {
				words += "; try it " + plan.HoursInWords(m.Hours.Blocks)
			}
			w.look(fmt.Sprintf("message %s: %s", m.ID, e.String()), words, "", "", "")
			break
		}
	}
}

// comeBack says how old the oldest footage will be, and from which date on that can be seen.
func (w *writer) comeBack() {
	if w.figures == nil {
		return
	}
	for i := range w.recorder.Pools {
		pool := &w.recorder.Pools[i]
		worst := -1
		for k, c := range w.channels {
			f := &w.figures.Channels[w.at[k]]
			if c.Pool != pool.ID || c.NoCamera || f.RetentionDays == nil {
				continue
			}
			if worst < 0 || *f.RetentionDays < *w.figures.Channels[w.at[worst]].RetentionDays {
				worst = k
			}
		}
		if worst < 0 {
			continue
		}
		c, f := w.channels[worst], &w.figures.Channels[w.at[worst]]
		last := *f.RetentionDays
		between := ""
		if r := f.LikelyDays; r != nil {
			last = max(last, r.High)
			if between = fmt.Sprintf("between %.1f and %.1f, four times in five", r.Low, r.High); r.High-r.Low < 0.05 {
				between = fmt.Sprintf("it is %.1f days old", r.Low)
			}
		}
		if last > 3650 {
			continue
		}
		back := w.on.Add(int(math.Ceil(last)) + 1)
		w.look("days "+pool.ID+": "+c.ID, fmt.Sprintf("Come back on %s or later: the oldest footage of %s is about %.1f days old", longDate(back),
			called(c), *f.RetentionDays), "Until then the drives of “"+pool.Name+"” are still filling.", between, c.ID)
	}
}

// longDate is a date as it is read in a sentence.
func longDate(d week.Date) string { return fmt.Sprintf("%d %s %d", d.Day, d.Month, d.Year) }
