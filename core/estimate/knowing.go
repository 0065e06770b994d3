package estimate

import (
	"cmp"
	"context"
	"math"
	"slices"
	"sync"

	"wakefield.example/core/doubt"
	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
)

// Unknown is something that is not measured, and what measuring it would be worth.
type Unknown struct {
	Kind         string  `json:"kind" enum:"activity,groups,bitrate,night,noticing" doc:"Whether it is an activity, whether its events come in groups, a bitrate, what it comes to in the dark, or how reliably the site's cameras notice what is in sight"`
	ID           string  `json:"id" doc:"Of the activity, or of the channel whose bitrates it is; empty where it is of the site"`
	Name         string  `json:"name"`
	NarrowerDays float64 `json:"narrowerDays" doc:"By how many days the likely range of the verdict would be narrower"`
}

// mostUnknowns is how many things are tried: those that write most.
const mostUnknowns = 40

// Knowing tells which unknowns matter most for the days kept: each activity, whether the
// events of a guessed one come in groups, each channel's bitrates, what they come to in the dark, and how reliably the
// cameras notice what is in sight in turn are taken for measured, at the figures they have, and the likely range of the
// verdict is drawn anew. Most is worth most first; what narrows the
// range by less than a twentieth of a day is left out. It is empty where the verdict has
// no range, and given up with the error of the context when that ends.
func (s *Result) Knowing(ctx context.Context) ([]Unknown, error) {
	out := []Unknown{}
	if s.Verdict.LikelyDays == nil {
		return out, nil
	}
	width := s.Verdict.LikelyDays.High - s.Verdict.LikelyDays.Low
	for _, try := range s.unknowns() {
		known, err := run(ctx, try.plan, s, options{draw: true, assured: try.channel, night: try.night, noticing: try.Kind == "noticing"})
		if err != nil {
			return nil, err
		}
		sure := known.rangeOfVerdict(s.Verdict.Channel)
		if sure == nil {
			continue
		}
		if try.NarrowerDays = width - (sure.High - sure.Low); try.NarrowerDays >= 0.05 {
			out = append(out, try.Unknown)
		}
	}
	slices.SortStableFunc(out, func(a, b Unknown) int { return cmp.Compare(b.NarrowerDays, a.NarrowerDays) })
	return out, nil
}

// rangeOfVerdict is the likely range of the channel that the verdict is about, or that of
// the verdict where nothing is required.
func (s *Result) rangeOfVerdict(channel string) *doubt.Range {
	for i := range s.Channels {
		if s.Channels[i].ID == channel {
			return s.Channels[i].LikelyDays
		}
	}
	return s.Verdict.LikelyDays
}

// tried is an unknown with the plan in which it is measured.
type tried struct {
	Unknown
	plan    *plan.Plan
	channel string  // whose bitrates are taken for measured
	night   string  // the channel of which it is known what its streams cost in the dark
	writes  float64 // GB a day that rest on it
}

// unknowns lists what is not measured, what writes most first.
func (s *Result) unknowns() []tried {
	var out []tried
	writes := make(map[string]float64) // by activity
	guesses := 0                       // cameras whose reliability is a guess
	for i := range s.plan.Channels {
		c := &s.plan.Channels[i]
		if c.NoCamera {
			continue
		}
		if s.inputs[i].Guessed {
			guesses++
		}
		for _, o := range s.inputs[i].Heard.Origins {
			writes[o.ID] += s.Channels[i].GigabytesPerDay
		}
		if slices.ContainsFunc(s.inputs[i].Rates[:], func(r resolve.RateKnown) bool { return doubt.RateSpread(r) > doubt.MeasuredSpread }) {
			out = append(out, tried{Unknown{Kind: "bitrate", ID: c.ID, Name: c.Name}, s.plan, c.ID, "", s.Channels[i].GigabytesPerDay})
		}
		if dark := s.UnsaidNight(i); dark > 0 {
			out = append(out, tried{Unknown{Kind: "night", ID: c.ID, Name: c.Name}, s.plan, "", c.ID, dark})
		}
	}
	for i := range s.plan.Activities {
		a := &s.plan.Activities[i]
		if a.Known == "measured" || writes[a.ID] == 0 {
			continue
		}
		next := *s.plan
		next.Activities = slices.Clone(s.plan.Activities)
		next.Activities[i].Known = "measured"
		if s.site.Activities[a.ID].From.OpenGroups {
			single := *s.plan
			single.Activities = slices.Clone(s.plan.Activities)
			single.Activities[i].Groups = &plan.Groups{Size: 1, WithinSeconds: doubt.UnknownSeconds}
			out = append(out, tried{Unknown{Kind: "groups", ID: a.ID, Name: a.Name}, &single, "", "", writes[a.ID]})
		}
		out = append(out, tried{Unknown{Kind: "activity", ID: a.ID, Name: a.Name}, &next, "", "", writes[a.ID]})
	}
	if guesses > 0 {
		out = append(out, tried{Unknown{Kind: "noticing", Name: plan.Count(guesses, "camera")}, s.plan, "", "", math.Inf(1)})
	}
	slices.SortStableFunc(out, func(a, b tried) int { return cmp.Compare(b.writes, a.writes) })
	return out[:min(len(out), mostUnknowns)]
}

// night is what a channel writes in the dark by bitrates of the day, found when it is asked for first.
type night struct {
	once sync.Once
	gb   float64
}

// UnsaidNight is what channel i writes in the dark by bitrates of the day, GB a day: nobody has said what they come to then.
func (s *Result) UnsaidNight(i int) float64 {
	n := s.nights[i]
	n.once.Do(func() {
		if !s.inputs[i].Empty {
			n.gb = doubt.UnsaidNight(&s.inputs[i], s.played[i])
		}
	})
	return n.gb
}
