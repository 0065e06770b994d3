package readout

import (
	"slices"
	"strings"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// mayHold is what duties a special day can have: those of a day of the week, or of a named week.
type mayHold struct {
	week string
	day  *week.Weekday
}

// takeDates are the edits that give the site the special days which a recorder records by: each date has the duties of another day of
// the week, or of a named week, as they mean just what all channels of the device record then. None where there is such a date for which
// no duties do, as special days are of all channels at once.
func takeDates(p, entered *plan.Plan, t Target, d *Device) []edit.Edit {
	if d.SpecialDays == 0 {
		return nil
	}
	f := newFollowing(entered, t, d)
	var set []plan.SpecialDay
	for _, date := range sorted(f.names) {
		if f.follows(date, f.planned(date)) {
			continue
		}
		may, ok := f.find(date)
		if !ok {
			return nil
		}
		day := plan.SpecialDay{From: date, To: date, Name: f.names[date], Week: may.week, UseDay: may.day}
		if was := p.Site.SpecialDaysFrom(date, 1)[0]; was != nil {
			day.ActivityDay, day.RateFactor = was.ActivityDay, was.RateFactor
		}
		set = append(set, day)
	}
	if len(set) == 0 {
		return nil
	}
	return []edit.Edit{{SetSpecialDays: &edit.SetSpecialDays{Days: append(slices.Clone(p.Site.SpecialDays), runs(yearly(set))...)}}}
}

// takeDatesOfNew gives lines by which channels are described the special days too, as they are once these are in the plan.
func takeDatesOfNew(p *plan.Plan, t Target, lines []Line, d *Device) {
	described := func(l *Line) bool { return strings.HasSuffix(l.ID, "/camera") && len(l.Take) > 0 && l.Device == there }
	if d.SpecialDays == 0 || !slices.ContainsFunc(lines, func(l Line) bool { return described(&l) }) {
		return
	}
	next, err := edit.After(p, Together(lines)...)
	if err != nil {
		return // what is wrong is said when it is taken
	}
	days := takeDates(next, next, t, d)
	if days == nil {
		return
	}
	for i := range lines {
		switch l := &lines[i]; {
		case l.member() == "dates":
			l.Take = days
		case described(l):
			l.Take = append(l.Take, days...)
		}
	}
}

// yearly makes one of what comes twice on the same day of a month.
func yearly(list []plan.SpecialDay) (out []plan.SpecialDay) {
	for _, d := range list {
		k := slices.IndexFunc(out, func(e plan.SpecialDay) bool {
			return e.Name == d.Name && e.Week == d.Week && sameDay(e.UseDay, d.UseDay) && e.From.Month == d.From.Month && e.From.Day == d.From.Day
		})
		if k < 0 {
			out = append(out, d)
		} else {
			out[k].Yearly = true
		}
	}
	return out
}

// runs makes one of dates that follow each other and are alike.
func runs(list []plan.SpecialDay) (out []plan.SpecialDay) {
	for _, d := range list {
		if k := len(out) - 1; k >= 0 && out[k].To == d.From.Add(-1) && out[k].Name == d.Name && out[k].Week == d.Week &&
			sameDay(out[k].UseDay, d.UseDay) && sameDay(out[k].ActivityDay, d.ActivityDay) && out[k].Yearly == d.Yearly &&
			plan.Or(out[k].RateFactor, 1) == plan.Or(d.RateFactor, 1) {
			out[k].To = d.To
			continue
		}
		out = append(out, d)
	}
	return out
}

func sameDay(a, b *week.Weekday) bool {
	return a == nil && b == nil || a != nil && b != nil && *a == *b
}

// following tells which duties mean what a device records on dates.
type following struct {
	p      *plan.Plan
	d      *Device
	names  map[week.Date]string // of dates on which the device or the plan departs from the week
	pairs  []recordedPair
	weeks  map[string]week.Steps[string]
	tokens naming
}

// recordedPair is a channel that is recorded, with what days of weeks mean on it.
type recordedPair struct {
	planned *plan.Channel
	read    *Channel
	is      []Layer
	tied    tied
	words   map[mayHoldDay]string
}

type mayHoldDay struct {
	week string
	day  week.Weekday
}

func newFollowing(p *plan.Plan, t Target, d *Device) *following {
	f := &following{p: p, d: d, weeks: make(map[string]week.Steps[string]), tokens: namingOf(p, t, d)}
	for i := range p.Weeks {
		f.weeks[p.Weeks[i].ID] = p.WeekOf(&plan.Channel{Week: plan.WeekRef{Named: p.Weeks[i].ID}}).Steps()
	}
	lists := make([][]Layer, 0, 2*len(d.Channels))
	for _, pair := range Match(p, t, d) {
		if pair.Planned == nil || pair.Read == nil || pair.Planned.NoCamera || pair.Read.Recording == "" {
			continue
		}
		of := recordedPair{pair.Planned, pair.Read, bare(pair.Read.Layers), tiedTo(p, pair.Planned), make(map[mayHoldDay]string)}
		f.pairs = append(f.pairs, of)
		lists = append(lists, within(of.is, d.Today, DatesTold), LayersOf(p, pair.Planned, d.Around, d.Today))
	}
	f.names = datesOf(lists...)
	return f
}

// planned are the duties that hold on a date by the plan.
func (f *following) planned(date week.Date) mayHold {
	if s := f.p.Site.SpecialDaysFrom(date, 1)[0]; s != nil && (s.Week != "" || s.UseDay != nil) {
		return mayHold{s.Week, s.UseDay}
	}
	own := date.Weekday()
	return mayHold{day: &own}
}

// find looks for duties that mean what all channels record on a date: those of its own day first.
func (f *following) find(date week.Date) (mayHold, bool) {
	own := date.Weekday()
	list := []mayHold{{day: &own}}
	for _, day := range week.Weekdays {
		list = append(list, mayHold{day: &day})
	}
	for i := range f.p.Weeks {
		list = append(list, mayHold{week: f.p.Weeks[i].ID})
	}
	for _, may := range list {
		if f.follows(date, may) {
			return may, true
		}
	}
	return mayHold{}, false
}

// follows tells whether all channels record on a date what the duties mean.
func (f *following) follows(date week.Date, may mayHold) bool {
	at := mayHoldDay{may.week, date.Weekday()}
	if may.day != nil {
		at.day = *may.day
	}
	for i := range f.pairs {
		if of := &f.pairs[i]; wordsOn(of.is, date) != f.mean(of, at) {
			return false
		}
	}
	return true
}

// monday is a date of no special day, to say what a day of the week means.
var monday = week.Date{Year: 2024, Month: 1, Day: 1}

// mean says what a day of a week means on a channel.
func (f *following) mean(of *recordedPair, at mayHoldDay) string {
	if text, known := of.words[at]; known {
		return text
	}
	steps, named := f.weeks[at.week]
	if !named {
		steps = f.p.WeekOf(of.planned).Steps()
	}
	layers := layersBy(f.p, of.planned, f.d.Around, steps, nil)
	f.tokens.name(layers, &of.tied)
	of.words[at] = wordsOn(bare(asItMatters(layers, of.is)), monday.Add(int(at.day)))
	return of.words[at]
}
