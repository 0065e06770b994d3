package api

import (
	"context"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/check"
	"wakefield.example/core/compare"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

// registerCompared adds what is told of the difference between plans.
func registerCompared(api huma.API, s *service) {
	huma.Register(api, op("compare", http.MethodGet, "/api/sites/{id}/compare", "Plans of a site side by side"), s.compare)
	huma.Register(api, op("compareFile", http.MethodGet, "/api/sites/{id}/compare/file",
		"Plans of a site side by side, as a page that can be sent"), s.compareFile)
	huma.Register(api, op("comparedRibbons", http.MethodGet, "/api/sites/{id}/compare/ribbons",
		"The weeks of channels that two plans of a site write otherwise"), s.comparedRibbons)
	huma.Register(api, op("differences", http.MethodGet, "/api/plans/{id}/revisions/{number}/differences",
		"What is otherwise now than after a revision"), s.differences)
}

// MostCompared is how many plans are compared at once.
const MostCompared = 4

// Compared is one of several plans side by side.
type Compared struct {
	ID             string                 `json:"id"`
	Name           string                 `json:"name"`
	Version        int64                  `json:"version"`
	Adopted        bool                   `json:"adopted"`
	Verdict        estimate.Verdict       `json:"verdict"`
	Year           *YearVerdict           `json:"year,omitempty" doc:"The worst date; absent where no date is special"`
	Findings       map[check.Severity]int `json:"findings" doc:"Open ones, by severity"`
	Pools          []estimate.Pool        `json:"pools"`
	Price          *ComparedPrice         `json:"price,omitempty" doc:"Of the drives; absent where the plan has no prices"`
	MessagesPerDay float64                `json:"messagesPerDay" doc:"That go out, to all receivers"`
	Differs        []compare.Sentence     `json:"differs" doc:"From the first plan; none of the first"`
}

// ComparedPrice is what the drives of a plan cost.
type ComparedPrice struct {
	Currency         string    `json:"currency"`
	Total            float64   `json:"total" doc:"Of the drives whose price is known"`
	UnknownTerabytes []float64 `json:"unknownTerabytes" doc:"Sizes of drives whose price is not known"`
}

func priceOf(p *plan.Plan) *ComparedPrice {
	if p.Prices == nil {
		return nil
	}
	total, unknown := p.DrivesCost()
	return &ComparedPrice{p.Prices.Currency, total, append([]float64{}, unknown...)}
}

type compareRequest struct {
	SiteParam
	Plans string `query:"plans" maxLength:"1000" doc:"Ids of plans of the site, separated by commas; the others are compared with the first"`
}

func (s *service) compare(ctx context.Context, in *compareRequest) (*body[[]Compared], error) {
	ids := strings.Split(in.Plans, ",")
	if in.Plans == "" || len(ids) > MostCompared {
		return nil, huma.Error422UnprocessableEntity("From one to four plans are compared.")
	}
	list, err := server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) ([]Compared, error) {
		entries := make([]entry, len(ids))
		var site *store.Site
		for i, id := range ids {
			var err error
			if site, entries[i], err = s.planOf(ctx, in.ID, id); err != nil {
				return nil, err
			}
		}
		out := make([]Compared, len(ids))
		for i, e := range entries {
			out[i] = compared(e, entries[0], site.Adopted)
		}
		return out, nil
	})
	return &body[[]Compared]{list}, s.problem(ctx, err)
}

func compared(e, first entry, adopted string) Compared {
	c := Compared{
		ID: e.head.ID, Name: e.head.Plan.Name, Version: e.head.Version, Adopted: e.head.ID == adopted,
		Verdict: e.site.Verdict, Year: yearVerdict(e.site), Findings: check.Count(e.found), Pools: e.site.Pools, Price: priceOf(e.head.Plan),
		Differs: []compare.Sentence{},
	}
	for _, told := range e.site.Messages {
		c.MessagesPerDay += told.PerDay
	}
	if e.head.ID != first.head.ID {
		c.Differs = compare.Plans(first.head.Plan, e.head.Plan)
	}
	return c
}

// ComparedRibbon is the week of a channel in two plans; one is absent where the channel is.
type ComparedRibbon struct {
	ID                    string  `json:"id"`
	Name                  string  `json:"name"`
	FullKbps              float64 `json:"fullKbps" doc:"The higher of its full rates"`
	GigabytesPerDayChange float64 `json:"gigabytesPerDayChange" doc:"Of the second plan beside the first"`
	First                 *Ink    `json:"first,omitempty"`
	Second                *Ink    `json:"second,omitempty"`
}

func (s *service) comparedRibbons(ctx context.Context, in *struct {
	SiteParam
	First  string `query:"first" maxLength:"200"`
	Second string `query:"second" maxLength:"200"`
}) (*body[[]ComparedRibbon], error) {
	_, a, err := s.planOf(ctx, in.ID, in.First)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	_, b, err := s.planOf(ctx, in.ID, in.Second)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	out, err := server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) ([]ComparedRibbon, error) { return twoWeeks(a, b), nil })
	return &body[[]ComparedRibbon]{out}, s.problem(ctx, err)
}

// twoWeeks are the weeks of channels whose ink differs between two plans.
func twoWeeks(a, b entry) []ComparedRibbon {
	out := []ComparedRibbon{}
	at := make(map[string]int)
	for i, f := range a.site.Channels {
		ink := ribbon(a.site, i).Ink
		at[f.ID] = len(out)
		out = append(out, ComparedRibbon{ID: f.ID, Name: a.head.Plan.Channels[i].Name, FullKbps: float64(f.FullKbps),
			GigabytesPerDayChange: -f.GigabytesPerDay, First: &ink})
	}
	for i, f := range b.site.Channels {
		ink := ribbon(b.site, i).Ink
		k, both := at[f.ID]
		if !both {
			k = len(out)
			out = append(out, ComparedRibbon{ID: f.ID, Name: b.head.Plan.Channels[i].Name})
		}
		out[k].Second, out[k].FullKbps, out[k].GigabytesPerDayChange = &ink, max(out[k].FullKbps,
			float64(f.FullKbps)), out[k].GigabytesPerDayChange+f.GigabytesPerDay
	}
	differing := out[:0]
	for _, r := range out {
		if r.First == nil || r.Second == nil || !r.First.same(r.Second) {
			differing = append(differing, r)
		}
	}
	return differing
}

func (i *Ink) same(other *Ink) bool {
	if len(i.From) != len(other.From) {
		return false
	}
	for k := range i.From {
		if [4]week.Minute{i.From[k], week.Minute(i.Base[k]), week.Minute(i.Motion[k]), week.Minute(i.Alarm[k])} !=
			[4]week.Minute{other.From[k], week.Minute(other.Base[k]), week.Minute(other.Motion[k]), week.Minute(other.Alarm[k])} {
			return false
		}
	}
	return true
}

// differences are between the plan after a revision and as it stands.
func (s *service) differences(ctx context.Context, in *struct {
	PlanParam
	Number int64 `path:"number" minimum:"1"`
}) (*body[[]compare.Sentence], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	out, err := server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) ([]compare.Sentence, error) {
		then, err := s.store.At(ctx, e.head, in.Number)
		if err != nil {
			return nil, err
		}
		return compare.Plans(then, e.head.Plan), nil
	})
	return &body[[]compare.Sentence]{out}, s.problem(ctx, err)
}
