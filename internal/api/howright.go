package api

import (
	"context"
	"encoding/json"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/measured"
)

// registerHowRight adds how right plans were, over all sites of the company.
func registerHowRight(api huma.API, s *service) {
	huma.Register(api, op("howRight", http.MethodGet, "/api/measured", "How right plans were, over all sites of the company"), s.howRight)
	huma.Register(api, op("setLearns", http.MethodPut, "/api/measured/learns",
		"Let new sites begin with what was found at others, or not"), s.setLearns)
}

// keepCompared keeps what a comparison of the adopted plan said.
func (s *service) keepCompared(ctx context.Context, e entry, r *measured.Result) error {
	site, err := s.store.Site(ctx, e.head.Site)
	if err != nil || site.Adopted != e.head.ID {
		return err
	}
	said, err := json.Marshal(measured.Sum(e.site, r))
	if err != nil {
		return err
	}
	return s.store.SetCompared(ctx, e.head.Site, said)
}

// HowRight is how right plans were.
type HowRight struct {
	measured.Right
	Learns bool `json:"learns" doc:"Whether new sites begin with what was found"`
}

// right adds the comparisons of all sites up.
func (s *service) right(ctx context.Context) (measured.Right, error) {
	list, err := s.store.ComparedOf(ctx)
	if err != nil {
		return measured.Right{}, err
	}
	sums := make([]measured.Summary, 0, len(list))
	for _, c := range list {
		var sum measured.Summary
		if err := json.Unmarshal(c.Said, &sum); err == nil { // one of another version says nothing
			sums = append(sums, sum)
		}
	}
	return measured.RightOf(sums), nil
}

func (s *service) howRight(ctx context.Context, _ *struct{}) (*body[HowRight], error) {
	r, err := s.right(ctx)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	learns, err := s.store.Learns(ctx)
	return &body[HowRight]{HowRight{r, learns}}, s.problem(ctx, err)
}

func (s *service) setLearns(ctx context.Context, in *struct {
	SentBy
	Body struct {
		Learns bool `json:"learns"`
	}
}) (*struct{}, error) {
	return nil, s.problem(ctx, s.store.SetLearns(ctx, in.Body.Learns))
}
