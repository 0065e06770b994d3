package plan

import (
	"math"

	"wakefield.example/core/activity"
	"wakefield.example/core/week"
)

// Rates is how often the activity happens at each minute of the week, events an hour.
func (a *Activity) Rates() week.Steps[float64] {
	blocks := make([]week.Block[float64], len(a.Blocks))
	for i, b := range a.Blocks {
		blocks[i] = week.Block[float64]{Hours: b.Week(), Value: b.PerHour}
	}
	return week.FromBlocks(a.OtherwisePerHour, blocks)
}

// As is the activity with every day like one day of the week.
func (a Activity) As(day week.Weekday) Activity {
	rates := week.Repeated(a.Rates(), day)
	a.Blocks = nil
	for run, perHour := range rates.Runs() {
		if run.From < week.Day {
			a.Blocks = append(a.Blocks, RateBlock{Hours: Hours{From: week.Clock(run.From), To: week.Clock(min(run.To, week.Day))}, PerHour: perHour})
		}
	}
	return a
}

// Process is the activity as a weekly stream of events.
func (a *Activity) Process() activity.Process {
	p := activity.New(a.Rates(), a.MeanSeconds)
	if a.Groups != nil {
		p.Group = activity.Group{Size: a.Groups.Size, Seconds: a.Groups.WithinSeconds}
	}
	return p
}

// SetRates gives the activity a rate for every minute of the week, written as a
// person would, with the rate that holds longest as the one that holds otherwise.
// Rates are rounded to four digits.
func (a *Activity) SetRates(rates week.Steps[float64]) {
	rounded := week.Map(rates, func(r float64) float64 {
		if r <= 0 {
			return 0
		}
		digits := math.Pow(10, 3-math.Floor(math.Log10(r)))
		return math.Round(r*digits) / digits
	})
	held := make(map[float64]week.Minute)
	otherwise := rounded.At(0)
	for run, r := range rounded.Runs() {
		if held[r] += run.Minutes(); held[r] > held[otherwise] {
			otherwise = r
		}
	}
	a.OtherwisePerHour, a.Blocks = otherwise, nil
	for _, b := range rounded.Blocks(otherwise) {
		a.Blocks = append(a.Blocks, RateBlock{HoursOf(b.Hours), b.Value})
	}
}
