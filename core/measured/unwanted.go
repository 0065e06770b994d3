package measured

import (
	"cmp"
	"slices"

	"wakefield.example/core/check"
	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// Unwanted tells what footage comes of that should not be there: each thing that moves before the channel, by how often it is
// noticed at that hour, most likely first, with what would leave it out.
func Unwanted(est *estimate.Result, told Told) []Loss {
	i, ok := est.Site().Channels[told.Channel]
	if !ok {
		return nil
	}
	c := &est.Plan().Channels[i]
	hour := told.Minute / 60 * 60
	var out []Loss
	total := 0.0
	for k, own := range est.Site().Own(c) {
		rate := 0.0
		for _, by := range est.Site().Noticing[i].Of(c, k) {
			rate += by.Triggers(own.Process).Intensity.Count(float64(hour)*60, float64(hour+60)*60)
		}
		if rate <= 0 {
			continue
		}
		name := activityIn(est.Plan(), own.From.ID)
		g := Loss{Gate: "source", Chance: rate, Words: plan.Say("%s: %.3g an hour then", name, rate), Mends: []Mend{}}
		if k > 0 || c.Activity == "" {
			g.Mends = append(g.Mends, leavesOut(est, c, own.From.ID, hour)...)
		}
		out = append(out, g)
		total += rate
	}
	for k := range out {
		out[k].Chance /= total
	}
	slices.SortStableFunc(out, func(a, b Loss) int { return cmp.Compare(b.Chance, a.Chance) })
	return out
}

func activityIn(p *plan.Plan, id string) string {
	for k := range p.Activities {
		if p.Activities[k].ID == id {
			return p.Activities[k].Name
		}
	}
	return id
}

// leavesOut are the changes that leave a nuisance out: areas that are drawn around its patch, or detection that does not watch at
// that hour.
func leavesOut(est *estimate.Result, c *plan.Channel, id string, hour week.Minute) (out []Mend) {
	for _, f := range check.Findings(est.Plan(), est) {
		if f.Fix != nil && f.Rule == "patch-passes" && (f.Channel == c.ID || slices.Contains(f.Channels, c.ID)) {
			out = append(out, Mend{f.Fix.Label, f.Fix.Edits})
		}
	}
	d := c.Detection
	day := hour / week.Day
	watching := d.Steps().Paint(week.Span{From: hour, To: hour + 60}, false)
	var hours plan.HourList
	for _, b := range watching.Blocks(false) {
		hours.Blocks = append(hours.Blocks, plan.HoursOf(b.Hours))
	}
	d.Hours = &hours
	return append(out, Mend{plan.Say("No detection on %s from %v to %v", week.Weekday(day).Name(), week.Clock(hour%week.Day),
		week.Clock(hour%week.Day+60)), []edit.Edit{{SetDetection: &edit.SetDetection{Channels: []string{c.ID}, Detection: d}}}})
}
