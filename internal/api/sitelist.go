package api

import (
	"bytes"
	"context"
	"encoding/json"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/overview"
	"wakefield.example/internal/store"
)

// registerSiteList adds the list of sites and what is found in them.
func registerSiteList(api huma.API, s *service) {
	huma.Register(api, answering[[]SiteLine](api, op("listSites", http.MethodGet, "/api/sites", "List all sites")), s.list)
	huma.Register(api, op("siteVerdict", http.MethodGet, "/api/sites/{id}/verdict", "Whether a site's adopted plan is good"), s.siteVerdict)
	huma.Register(api, op("searchSites", http.MethodGet, "/api/sites/search",
		"Search all sites: names, places, tags, channels, recorders, addresses, findings"), s.search)
	huma.Register(api, op("sitesEstimated", http.MethodGet, "/api/sites/estimated",
		"How many sites are estimated by the method as it is, and which of them moved by it"), s.estimated)
}

// SiteVerdict is a site's verdict in small.
type SiteVerdict struct {
	Version int64 `json:"version"`
	overview.Line
}

// SiteLine is a line of the list of sites.
type SiteLine struct {
	store.Summary
	State *SiteVerdict `json:"state,omitempty" doc:"Of an earlier version while the plan is worked on; absent where none is worked out yet: ask for it, or again in a moment"`
}

// verdictAt is the verdict of a plan at its version.
type verdictAt struct {
	of store.Stamp
	SiteVerdict
}

// mostVerdicts are remembered, of some hundred bytes each.
const mostVerdicts = 10_000

func siteVerdict(e entry) SiteVerdict {
	return SiteVerdict{e.head.Version, overview.Of(e.head.Plan, e.site, e.found)}
}

// list answers with all sites. What was kept of each goes out as it was kept: taken apart and written anew, thousands would take most of
// the time.
func (s *service) list(ctx context.Context, _ *struct{}) (*written, error) {
	list, err := s.store.List(ctx)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	var out bytes.Buffer
	out.WriteByte('[')
	for _, summary := range list {
		if !s.maySee(ctx, summary.ID) {
			continue
		}
		if out.Len() > 1 {
			out.WriteByte(',')
		}
		of := SiteLine{Summary: summary}
		if summary.SaidVersion != summary.Version || len(summary.Said) == 0 {
			of.State = s.atHand(summary.Plan, store.Stamp{Version: summary.Version, Mark: summary.Mark})
		}
		line, err := json.Marshal(of)
		if err != nil {
			return nil, err
		}
		if said := summary.Said; len(said) > 2 && of.State == nil {
			version, err := json.Marshal(summary.SaidVersion)
			if err != nil {
				return nil, err
			}
			out.Write(line[:len(line)-1])
			out.WriteString(`,"state":{"version":`)
			out.Write(version)
			out.WriteByte(',')
			out.Write(said[1:])
			out.WriteByte('}')
			continue
		}
		out.Write(line)
	}
	out.WriteByte(']')
	return &written{Type: "application/json", Body: out.Bytes()}, nil
}

// atHand is the verdict of a version of a plan, where this server has it at hand.
func (s *service) atHand(id string, of store.Stamp) *SiteVerdict {
	if v, ok := s.verdicts.Get(id); ok && v.of == of {
		return &v.SiteVerdict
	}
	e, ok := s.cache.Peek(id)
	if !ok || e.head.Stamp() != of {
		return nil
	}
	v := siteVerdict(e)
	s.verdicts.Put(id, verdictAt{of, v})
	return &v
}

func (s *service) siteVerdict(ctx context.Context, in *SiteParam) (*body[SiteVerdict], error) {
	site, e, err := s.adopted(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	v := siteVerdict(e)
	s.verdicts.Put(site.Adopted, verdictAt{e.head.Stamp(), v})
	return &body[SiteVerdict]{v}, nil
}

// What a search answers with at most.
const (
	mostHits      = 100
	mostHitsOfOne = 5
)

// Hit is something that a search found.
type Hit struct {
	Site string `json:"site" doc:"Id"`
	Name string `json:"name" doc:"Of the site"`
	overview.Word
}

// Hits are what a search found.
type Hits struct {
	Hits []Hit `json:"hits" doc:"At most 100, of one site at most 5, those of sites in work first"`
	More bool  `json:"more" doc:"Whether there are more"`
}

func (s *service) search(ctx context.Context, in *struct {
	Text string `query:"text" maxLength:"200" doc:"Words that all have to be there, in any order, large or small"`
}) (*body[Hits], error) {
	asked, out := overview.Ask(in.Text), Hits{Hits: []Hit{}}
	if len(asked) == 0 {
		return &body[Hits]{out}, nil
	}
	list, err := s.store.Search(ctx, asked)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	for _, of := range list {
		if !s.maySee(ctx, of.Site) {
			continue
		}
		var words []overview.Word
		if err := json.Unmarshal(of.Words, &words); err != nil {
			return nil, s.problem(ctx, err)
		}
		if len(words) == 0 { // it is not estimated yet
			words = append(words, overview.Word{Kind: "site", Text: of.Name})
		}
		for _, tag := range of.Tags {
			words = append([]overview.Word{{Kind: "tag", Text: tag}}, words...)
		}
		if of.Place != "" {
			words = append([]overview.Word{{Kind: "place", Text: of.Place}}, words...)
		}
		found := asked.In(words, mostHitsOfOne+1)
		if len(found) > mostHitsOfOne {
			found, out.More = found[:mostHitsOfOne], true
		}
		for _, w := range found {
			if len(out.Hits) == mostHits {
				out.More = true
				return &body[Hits]{out}, nil
			}
			out.Hits = append(out.Hits, Hit{of.Site, of.Name, w})
		}
	}
	return &body[Hits]{out}, nil
}

// Estimated is how far sites are estimated.
type Estimated struct {
	Done  int         `json:"done" doc:"Sites in work that are estimated as they are, by the method as it is"`
	Total int         `json:"total" doc:"Sites in work"`
	Moved []MovedSite `json:"moved" doc:"Sites that did not change and that the newest method moved by more than a day, or made short, or no longer"`
}

// MovedSite is a site that a new method moved.
type MovedSite struct {
	Site string        `json:"site" doc:"Id"`
	Name string        `json:"name"`
	Was  overview.Line `json:"was"`
	Now  overview.Line `json:"now"`
}

func (s *service) estimated(ctx context.Context, _ *struct{}) (*body[Estimated], error) {
	method, err := methodNow()
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	p, err := s.store.LinesMade(ctx, method)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	out := Estimated{Done: p.Done, Total: p.Total, Moved: []MovedSite{}}
	for _, m := range p.Moved {
		of := MovedSite{Site: m.Site, Name: m.Name}
		if !s.maySee(ctx, m.Site) || json.Unmarshal(m.Was, &of.Was) != nil || json.Unmarshal(m.Now, &of.Now) != nil {
			continue
		}
		out.Moved = append(out.Moved, of)
	}
	return &body[Estimated]{out}, nil
}
