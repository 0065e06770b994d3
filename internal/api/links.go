package api

import (
	"context"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/internal/account"
	"wakefield.example/internal/store"
)

// registerLinks adds what planners do with links for customers.
func registerLinks(api huma.API, s *service) {
	huma.Register(api, accountOp("links", http.MethodGet, "/api/sites/{id}/links", "Links for customers"), s.links)
	huma.Register(api, making(accountOp("makeLink", http.MethodPost, "/api/sites/{id}/links", "Make a link for a customer")), s.makeLink)
	huma.Register(api, accountOp("endLink", http.MethodDelete, "/api/sites/{id}/links/{link}", "End a link"), s.endLink)
	huma.Register(api, accountOp("viewings", http.MethodGet, "/api/sites/{id}/links/{link}/viewings", "What was looked at, and when"),
		s.viewings)
}

// LinkParam names a link of a site in the path.
type LinkParam struct {
	SiteParam
	Link string `path:"link" maxLength:"100" doc:"Id of the link"`
}

func (s *service) links(ctx context.Context, in *SiteParam) (*body[[]store.Link], error) {
	list, err := s.store.Links(ctx, in.ID)
	return &body[[]store.Link]{list}, s.problem(ctx, err)
}

func (s *service) makeLink(ctx context.Context, in *struct {
	SiteParam
	Body struct {
		Plan     string   `json:"plan" maxLength:"200" doc:"Id of the variant"`
		Name     string   `json:"name" minLength:"1" maxLength:"100" doc:"For whom it is"`
		Shows    []string `json:"shows" minItems:"1" maxItems:"4" enum:"verdict,weeks,papers,prices" doc:"What it shows"`
		Days     int      `json:"days" minimum:"1" maximum:"366" doc:"For how long it is good"`
		Password string   `json:"password,omitempty" maxLength:"128" doc:"Empty for none"`
	}
}) (*body[MadeSecret], error) {
	who := account.From(ctx)
	l := store.Link{ID: account.NewID(), Site: in.ID, Plan: in.Body.Plan, Name: strings.TrimSpace(in.Body.Name),
		Shows: in.Body.Shows, MadeBy: who.Name,
		Expires: time.Now().AddDate(0, 0, in.Body.Days)}
	if l.Name == "" {
		return nil, huma.Error422UnprocessableEntity("Say for whom the link is.", &huma.ErrorDetail{Location: "body.name", Message: "is empty"})
	}
	if in.Body.Password != "" {
		if len([]rune(in.Body.Password)) < 8 {
			return nil, huma.Error422UnprocessableEntity("The password of a link has at least 8 characters.",
				&huma.ErrorDetail{Location: "body.password", Message: "has fewer than 8 characters"})
		}
		var err error
		if l.Password, err = account.HashPassword(ctx, in.Body.Password); err != nil {
			return nil, s.refusedSignIn(ctx, &account.Unfit{Field: "password", Why: err})
		}
	}
	secret := account.NewSecret()
	if err := s.store.AddLink(ctx, l, account.Hashed(secret)); err != nil {
		return nil, s.problem(ctx, err)
	}
	s.note(ctx, who, "link", in.ID, "made for "+l.Name)
	return &body[MadeSecret]{MadeSecret{l.ID, secret}}, nil
}

func (s *service) endLink(ctx context.Context, in *LinkParam) (*struct{}, error) {
	s.note(ctx, account.From(ctx), "link", in.ID, "ended: "+in.Link)
	return nil, s.problem(ctx, s.store.EndLink(ctx, in.ID, in.Link))
}

func (s *service) viewings(ctx context.Context, in *LinkParam) (*body[[]store.Viewing], error) {
	list, err := s.store.Viewings(ctx, in.ID, in.Link)
	return &body[[]store.Viewing]{list}, s.problem(ctx, err)
}

// shows tells whether a link shows something.
func shows(l *store.Link, what string) bool { return slices.Contains(l.Shows, what) }
