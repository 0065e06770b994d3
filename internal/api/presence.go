package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/internal/store"
)

// registerPresence adds who else is at a site.
func registerPresence(api huma.API, s *service) {
	huma.Register(api, op("present", http.MethodPost, "/api/sites/{id}/present",
		"Say that a page of a site is open, and what is in hand there"),
		s.present)
}

func (s *service) present(ctx context.Context, in *struct {
	SiteParam
	SentBy
	Body struct {
		Who   string `json:"who" minLength:"1" maxLength:"60" pattern:"^[0-9A-Za-z_-]+$"`
		Plan  string `json:"plan" maxLength:"200"`
		Page  string `json:"page" maxLength:"60"`
		About string `json:"about,omitempty" maxLength:"200"`
		Gone  bool   `json:"gone,omitempty"`
	}
}) (*struct{}, error) {
	if _, err := s.store.Site(ctx, in.ID); err != nil {
		return nil, s.problem(ctx, err)
	}
	b := &in.Body
	return nil, s.problem(ctx, s.store.TellPresence(ctx, store.Presence{Site: in.ID, Who: b.Who, Name: in.note("").Author, Plan: b.Plan,
		Page: b.Page, About: b.About, Gone: b.Gone}))
}
