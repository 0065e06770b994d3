package handover

import (
	"math"

	"wakefield.example/core/week"
)

// loss is what a day costs beside what was planned, the first first.
type loss struct {
	evidence int64 // wanted events kept worse, in billionths of an event a week
	bytes    int64 // written beyond the plan, a week
	minutes  int   // in which another duty is entered than planned
	periods  int
}

func (a loss) less(b loss) bool {
	if a.evidence != b.evidence {
		return a.evidence < b.evidence
	}
	if a.bytes != b.bytes {
		return a.bytes < b.bytes
	}
	if a.minutes != b.minutes {
		return a.minutes < b.minutes
	}
	return a.periods < b.periods
}

func (a loss) plus(b loss) loss {
	return loss{a.evidence + b.evidence, a.bytes + b.bytes, a.minutes + b.minutes, a.periods + b.periods}
}

var never = loss{evidence: math.MaxInt64 / 4}

// leastLoss gives each of a day's cells one of some duties, in at most so many periods, at the least loss: cost is that of a
// cell under each duty. The dynamic program goes over (cell, duty, periods so far); it is exact, as losses add over cells.
func leastLoss(cost [][]loss, most int) []int {
	cells, duties := len(cost), len(cost[0])
	most = min(most, cells)
	type state struct {
		least loss
		from  int8 // 0: the same duty before; 1: another one, see other
		other int
	}
	at := make([][]state, cells) // of each cell, by duty × periods
	index := func(duty, periods int) int { return duty*(most+1) + periods }
	for c := range cells {
		at[c] = make([]state, duties*(most+1))
		for k := range at[c] {
			at[c][k].least = never
		}
		for d := range duties {
			if c == 0 {
				at[c][index(d, 1)].least = cost[c][d].plus(loss{periods: 1})
				continue
			}
			for n := 1; n <= most; n++ {
				s := &at[c][index(d, n)]
				if before := at[c-1][index(d, n)].least; before.evidence < never.evidence {
					s.least = before.plus(cost[c][d])
				}
				if n == 1 {
					continue
				}
				for o := range duties {
					before := at[c-1][index(o, n-1)].least
					if o == d || before.evidence >= never.evidence {
						continue
					}
					if with := before.plus(cost[c][d]).plus(loss{periods: 1}); with.less(s.least) {
						*s = state{with, 1, o}
					}
				}
			}
		}
	}
	best, duty, periods := never, 0, 0
	for d := range duties {
		for n := 1; n <= most; n++ {
			if l := at[cells-1][index(d, n)].least; l.less(best) {
				best, duty, periods = l, d, n
			}
		}
	}
	out := make([]int, cells)
	for c := cells - 1; c >= 0; c-- {
		out[c] = duty
		if s := at[c][index(duty, periods)]; s.from == 1 {
			duty, periods = s.other, periods-1
		}
	}
	return out
}

// period is a duty from one minute of a day to another.
type period struct {
	from, to week.Minute // 0 to 1,440
	duty     string
}

// periodsOf are the periods of a day.
func periodsOf(s week.Steps[string], day week.Weekday) (out []period) {
	begin := week.Minute(day) * week.Day
	for run, duty := range s.Runs() {
		from, to := max(run.From, begin)-begin, min(run.To, begin+week.Day)-begin
		if from < to {
			out = append(out, period{from, to, duty})
		}
	}
	return out
}
