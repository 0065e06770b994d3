package measured

import (
	"cmp"
	"math"
	"slices"

	"wakefield.example/core/doubt"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
	"wakefield.example/core/week"
)

// Summary is what a comparison says of how right its plan was.
type Summary struct {
	Figures []SumFigure `json:"figures"`
}

// SumFigure is one figure of it.
type SumFigure struct {
	Kind     string  `json:"kind"`
	Template string  `json:"template,omitempty"` // of activities that are one as it was offered
	Off      float64 `json:"off"`                // found over planned
	Range    float64 `json:"range"`              // factor up and down within which it was to lie
}

// KindDays are the days kept.
const KindDays = "days"

// Sum sums a comparison up.
func Sum(est *estimate.Result, r *Result) Summary {
	out := Summary{Figures: []SumFigure{}}
	templates := make(map[string]string) // by what they are called: who makes another scene of one calls it so
	for _, a := range plan.ActivityTemplates() {
		templates[a.Name] = a.ID
	}
	for _, d := range r.Days {
		if d.Planned != nil && d.Found != nil {
			out.Figures = append(out.Figures, SumFigure{KindDays, "", d.Found.Likely / d.Planned.Likely,
				math.Sqrt(d.Planned.High / d.Planned.Low)})
		}
	}
	for _, f := range r.Figures {
		wide := wideOf(est, &f)
		if wide <= 0 || f.Planned <= 0 || f.Found <= 0 {
			continue
		}
		s := SumFigure{Kind: f.Kind, Off: f.Found / f.Planned, Range: doubt.Factor(wide)}
		if f.Kind == KindRate {
			s.Template = templates[activityIn(est.Plan(), f.ID)]
		}
		out.Figures = append(out.Figures, s)
	}
	return out
}

// wideOf is how far a figure was thought to be off, as the standard deviation of its logarithm; 0 where nobody said.
func wideOf(est *estimate.Result, f *Figure) float64 {
	happens, ok := est.Site().Activities[f.ID]
	figures := doubt.Of(happens.From)
	rate, length, size := figures.Widths()
	switch f.Kind {
	case KindRate:
		if ok && figures.Season {
			return math.Hypot(rate, math.Log(1.2)/1.2815515655446004)
		}
		return rate
	case KindLength:
		return length
	case KindGroup:
		return size
	case KindStill, KindMoving:
		if i, ok := est.Site().Channels[f.ID]; ok {
			if main := est.Plan().Channels[i].Streams.Main; main != nil {
				return doubt.RateSpread(resolve.RateKnownOf(main))
			}
		}
	}
	return 0
}

// Right is how right plans were, over several sites.
type Right struct {
	Sites     int             `json:"sites"`
	Figures   int             `json:"figures"`
	In        int             `json:"in" doc:"Figures whose truth lay in the range, of which four of five are to"`
	Kinds     []RightKind     `json:"kinds"`
	Templates []RightTemplate `json:"templates" doc:"Kinds of scene that were begun from a template"`
}

// RightKind is that of one kind of figures.
type RightKind struct {
	Kind    string  `json:"kind" enum:"days,rate,group,length,still,moving"`
	Figures int     `json:"figures"`
	In      int     `json:"in"`
	Off     float64 `json:"off" doc:"Found over planned, in the middle"`
}

// RightTemplate is what was found of a kind of scene.
type RightTemplate struct {
	ID     string  `json:"id"`
	Name   string  `json:"name"`
	Sites  int     `json:"sites"`
	Off    float64 `json:"off" doc:"Found over guessed, in the middle"`
	Spread float64 `json:"spread" doc:"Factor up and down that holds four of five of them"`
	Enough bool    `json:"enough" doc:"Whether there are sites enough for new ones to begin with it"`
}

// EnoughSites is at how many sites a kind of scene must have been found for its first guess to follow.
const EnoughSites = 5

// RightOf adds summaries up, one of each site.
func RightOf(list []Summary) Right {
	out := Right{Kinds: []RightKind{}, Templates: []RightTemplate{}}
	offs := make(map[string][]float64) // logarithms, by kind
	in := make(map[string]int)
	byTemplate := make(map[string][]float64)
	for _, s := range list {
		if len(s.Figures) == 0 {
			continue
		}
		out.Sites++
		here := make(map[string][]float64)
		for _, f := range s.Figures {
			off := math.Log(f.Off)
			offs[f.Kind] = append(offs[f.Kind], off)
			if math.Abs(off) <= math.Log(f.Range) {
				in[f.Kind]++
			}
			if f.Template != "" {
				here[f.Template] = append(here[f.Template], off)
			}
		}
		for id, all := range here { // a site counts once
			byTemplate[id] = append(byTemplate[id], sum(all)/float64(len(all)))
		}
	}
	for _, kind := range []string{KindDays, KindRate, KindLength, KindGroup, KindStill, KindMoving} {
		if all := offs[kind]; len(all) > 0 {
			out.Figures += len(all)
			out.In += in[kind]
			out.Kinds = append(out.Kinds, RightKind{kind, len(all), in[kind], math.Exp(median(all))})
		}
	}
	for _, a := range plan.ActivityTemplates() {
		if all := byTemplate[a.ID]; len(all) > 0 {
			out.Templates = append(out.Templates, RightTemplate{a.ID, a.Name, len(all), digits(math.Exp(median(all))), spreadOf(all),
				len(all) >= EnoughSites})
		}
	}
	slices.SortStableFunc(out.Templates, func(a, b RightTemplate) int { return cmp.Compare(b.Sites, a.Sites) })
	return out
}

func median(list []float64) float64 {
	sorted := slices.Sorted(slices.Values(list))
	n := len(sorted)
	return (sorted[(n-1)/2] + sorted[n/2]) / 2
}

// spreadOf is the factor that holds four of five of logarithms around their middle, of few sites wider than they show: as of
// Student's distribution with as many degrees of freedom.
func spreadOf(list []float64) float64 {
	n := float64(len(list))
	if n < 2 {
		return 2
	}
	mean, squares := sum(list)/n, 0.0
	for _, v := range list {
		squares += (v - mean) * (v - mean)
	}
	sd := math.Sqrt(squares / (n - 1) * (1 + 1/n))
	return digits(math.Exp(1.2815515655446004 * sd * (1 + 0.8/(n-1)))) // Student's 90th percentile, within 2 % from 4 sites on
}

// Learned lets the activities of a site that is opened begin with what was found at others: how often they happen, and how far that
// may be off. What is not enough stays; told is what was changed.
func (r *Right) Learned(p *plan.Plan) (told []RightTemplate) {
	for k := range p.Activities {
		a := &p.Activities[k]
		t := slices.IndexFunc(r.Templates, func(t RightTemplate) bool { return t.ID == a.ID && t.Enough })
		if t < 0 || a.Known != "guess" {
			continue
		}
		by := r.Templates[t].Off
		a.SetRates(week.Map(a.Rates(), func(rate float64) float64 { return min(1e6, rate*by) }))
		left := doubtOf(a)
		left.Rate = min(100, max(1.05, r.Templates[t].Spread))
		a.Doubt = &left
		told = append(told, r.Templates[t])
	}
	return told
}
