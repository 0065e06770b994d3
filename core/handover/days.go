package handover

import (
	"fmt"
	"slices"
	"strings"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// dayWeek are the seven days of a channel as they are typed.
type dayWeek [7][]period

// daysOf are the days of a week.
func daysOf(s week.Steps[string]) (out dayWeek) {
	for d := range out {
		out[d] = periodsOf(s, week.Weekday(d))
	}
	return out
}

// key tells two days apart.
func key(day []period) string {
	var b strings.Builder
	for _, p := range day {
		fmt.Fprintf(&b, "%d-%d %s;", p.from, p.to, p.duty)
	}
	return b.String()
}

// move is one thing that is typed of a week: a day anew, or a day copied to others.
type move struct {
	day int   // typed, or copied from
	to  []int // empty for a day that is typed
}

// moves are how a week is made from another with the fewest entries, days told apart by their keys; typing a day costs its
// periods, copying one to any number of days one entry.
//
// Every kind of day that is missing somewhere is set on all its days at once: copied from where it stands, or typed on one and
// copied from there where nothing of it is left. All orders of that are tried, as an earlier kind may write over what a later
// one is copied from; what would be lost may be put aside on a day that changes anyway.
func moves(from, to [7]string, periods func(day int) int, canCopy bool) (out []move, cost int) {
	w := rewrite{to: to, periods: periods, best: 1 << 30}
	var missing []string
	for d := range to {
		if from[d] != to[d] && !slices.Contains(missing, to[d]) {
			missing = append(missing, to[d])
		}
	}
	if !canCopy {
		for d := range to {
			if from[d] != to[d] {
				out, cost = append(out, move{day: d}), cost+periods(d)
			}
		}
		return out, cost
	}
	w.try(from, missing, nil, 0)
	return w.moves, w.best
}

// rewrite searches the cheapest order in which days are set.
type rewrite struct {
	to      [7]string
	periods func(day int) int
	moves   []move
	best    int
	tries   int
}

// mostTries bounds the search: weeks of people take a few dozen.
const mostTries = 4000

// try sets the kinds that are missing, in every order that can still be better than the best. Each takes one entry at least.
func (w *rewrite) try(now [7]string, missing []string, done []move, cost int) {
	if len(missing) == 0 {
		if cost < w.best {
			w.best, w.moves = cost, slices.Clone(done)
		}
		return
	}
	w.tries++
	if cost+len(missing) >= w.best || w.tries > mostTries && w.moves != nil {
		return
	}
	for i, kind := range missing {
		next, list, more := w.set(now, kind, done[:len(done):len(done)])
		w.try(next, slices.Concat(missing[:i], missing[i+1:]), list, cost+more)
	}
	w.setOneDayFirst(now, missing, done, cost)
}

// set puts a kind on all its days, copied from a day that has it or typed once: what stands then, how, and its entries.
func (w *rewrite) set(now [7]string, kind string, list []move) (next [7]string, moves []move, entries int) {
	var days []int
	source := -1
	for d := range now {
		if w.to[d] == kind && now[d] != kind {
			days = append(days, d)
		}
		if now[d] == kind {
			source = d
		}
	}
	if source < 0 {
		list, entries = append(list, move{day: days[0]}), w.periods(days[0])
		source, now[days[0]], days = days[0], kind, days[1:]
	}
	if len(days) > 0 {
		list, entries = append(list, move{source, days}), entries+1
	}
	for _, d := range days {
		now[d] = kind
	}
	return now, list, entries
}

// setOneDayFirst tries what comes of putting a kind on a single day first, where its last source would be written over and what stands
// there is not lost.
func (w *rewrite) setOneDayFirst(now [7]string, missing []string, done []move, cost int) {
	for _, kind := range missing {
		source := slices.Index(now[:], kind)
		if source < 0 || w.to[source] == kind {
			continue
		}
		for at := range now {
			held := now[at]
			if held == kind || held == w.to[at] {
				continue
			}
			next := now
			next[at] = kind
			if slices.Contains(missing, held) && !slices.Contains(next[:], held) {
				continue
			}
			w.try(next, missing, append(done[:len(done):len(done)], move{source, []int{at}}), cost+1)
		}
	}
}

// otherDays are days onto which one is copied.
func otherDays(days []int) string {
	if len(days) == 6 {
		return "all other days"
	}
	return dayNames(days)
}

// dayNames lists days as people say them: "Tuesday to Saturday", "Monday and Sunday".
func dayNames(days []int) string {
	name := func(i int) string { return week.Weekday(days[i]).Name() }
	var parts []string
	for i := 0; i < len(days); {
		k := i
		for k+1 < len(days) && days[k+1] == days[k]+1 {
			k++
		}
		switch {
		case k == i:
			parts = append(parts, name(i))
		case k == i+1:
			parts = append(parts, name(i), name(k))
		default:
			parts = append(parts, name(i)+" to "+name(k))
		}
		i = k + 1
	}
	return plan.InList(parts)
}
