package api

import (
	"context"
	"errors"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/internal/account"
	"wakefield.example/internal/papers"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

// registerShared adds what a customer sees by a link, and nothing else: the address of no device is in any of it.
func registerShared(api huma.API, s *service) {
	huma.Register(api, accountOp("unlock", http.MethodPost, "/api/shared/unlock", "Give the password of a link"), s.unlock)
	huma.Register(api, accountOp("shared", http.MethodGet, "/api/shared", "What a link shows"), s.shared)
	huma.Register(api, accountOp("sharedPaper", http.MethodGet, "/api/shared/paper", "The customer's page"), s.sharedPaper)
}

// LinkSecret is what a link consists of. It comes in a header, as addresses are written into logs.
type LinkSecret struct {
	Secret string `header:"Wakefield-Link" maxLength:"100" doc:"What follows the # of the link"`
}

// Shared is what a link shows.
type Shared struct {
	Site     string            `json:"site" doc:"Name"`
	Customer string            `json:"customer"`
	Variant  string            `json:"variant"`
	Version  int64             `json:"version"`
	Changed  time.Time         `json:"changed"`
	Expires  time.Time         `json:"expires" doc:"Until when the link is good"`
	For      string            `json:"for" doc:"For whom the link is"`
	By       string            `json:"by" doc:"The installer's company; empty where it has no name"`
	Verdict  *estimate.Verdict `json:"verdict,omitempty"`
	Weeks    *SharedWeeks      `json:"weeks,omitempty"`
	Papers   bool              `json:"papers" doc:"Whether the customer's page is there"`
	Prices   *SharedPrices     `json:"prices,omitempty"`
}

// SharedWeeks is what channels record through the week.
type SharedWeeks struct {
	Duties   []plan.Duty     `json:"duties"`
	Channels []SharedChannel `json:"channels"`
}

// SharedChannel is a channel as a customer sees it.
type SharedChannel struct {
	ID       string   `json:"id"`
	Name     string   `json:"name"`
	Group    string   `json:"group"`
	Ribbon   Ribbon   `json:"ribbon"`
	FullKbps float64  `json:"fullKbps"`
	KeptDays *float64 `json:"keptDays" required:"true" doc:"Typically; null where nothing takes footage away"`
	Required *float64 `json:"required" required:"true" doc:"Days; null for none"`
}

// SharedPrices is what the drives cost.
type SharedPrices struct {
	Currency string    `json:"currency"`
	Total    float64   `json:"total" doc:"Of all drives whose price is known"`
	Unknown  []float64 `json:"unknown" doc:"Sizes whose price is not known, TB"`
}

// linked is the plan of a link that is good and unlocked, in a context that sees its company's rows.
func (s *service) linked(ctx context.Context, secret string) (context.Context, *store.Link, error) {
	l, err := s.keeper.Linked(ctx, secret)
	if errors.Is(err, account.ErrNeedCode) {
		return ctx, nil, &huma.ErrorModel{Type: NeedsCode, Status: http.StatusUnauthorized, Title: "Password needed",
			Detail: "This link has a password."}
	}
	if err != nil {
		return ctx, nil, s.problem(ctx, err)
	}
	return store.Of(ctx, l.Company), l, nil
}

func (s *service) unlock(ctx context.Context, in *struct {
	LinkSecret
	Body struct {
		Password string `json:"password" maxLength:"2000"`
	}
}) (*struct{}, error) {
	err := s.keeper.Unlock(ctx, in.Secret, in.Body.Password, server.Visitor(ctx))
	if errors.Is(err, account.ErrWrong) {
		return nil, huma.Error422UnprocessableEntity("The password is wrong.", &huma.ErrorDetail{Location: "body.password", Message: "is wrong"})
	}
	if err != nil {
		return nil, s.refusedSignIn(ctx, err)
	}
	return nil, nil
}

func (s *service) shared(ctx context.Context, in *LinkSecret) (*body[Shared], error) {
	ctx, l, err := s.linked(ctx, in.Secret)
	if err != nil {
		return nil, err
	}
	e, err := s.current(ctx, l.Plan)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	company, err := s.store.Company(ctx)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	if err := s.store.View(ctx, l.ID, "page", server.Visitor(ctx).Address); err != nil {
		return nil, s.problem(ctx, err)
	}
	p := e.head.Plan
	out := Shared{Site: p.Site.Name, Customer: p.Site.Customer, Variant: p.Name, Version: e.head.Version,
		Changed: e.head.Changed, Expires: l.Expires,
		For: l.Name, By: company.Name, Papers: shows(l, "papers")}
	if shows(l, "verdict") {
		out.Verdict = &e.site.Verdict
	}
	if shows(l, "weeks") {
		out.Weeks = sharedWeeks(e)
	}
	if shows(l, "prices") {
		out.Prices = sharedPrices(p)
	}
	return &body[Shared]{out}, nil
}

func sharedWeeks(e entry) *SharedWeeks {
	out := &SharedWeeks{Duties: e.head.Plan.Duties, Channels: []SharedChannel{}}
	for i := range e.head.Plan.Channels {
		c, f := &e.head.Plan.Channels[i], &e.site.Channels[i]
		if c.NoCamera {
			continue
		}
		out.Channels = append(out.Channels, SharedChannel{c.ID, c.Name, c.Group, ribbon(e.site, i), f.FullKbps, f.RetentionDays, f.RequiredDays})
	}
	return out
}

func sharedPrices(p *plan.Plan) *SharedPrices {
	if p.Prices == nil {
		return nil
	}
	total, unknown := p.DrivesCost()
	return &SharedPrices{p.Prices.Currency, total, append([]float64{}, unknown...)}
}

func (s *service) sharedPaper(ctx context.Context, in *struct {
	LinkSecret
	Size string `query:"size" enum:"a4,letter" default:"a4"`
}) (*file, error) {
	ctx, l, err := s.linked(ctx, in.Secret)
	if err != nil {
		return nil, err
	}
	if !shows(l, "papers") {
		return nil, huma.Error403Forbidden("This link shows no papers.")
	}
	e, src, err := s.sourceOf(ctx, l.Plan)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	if err := s.store.View(ctx, l.ID, "customer's page", server.Visitor(ctx).Address); err != nil {
		return nil, s.problem(ctx, err)
	}
	out, err := server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) (*file, error) {
		src, err := s.dressed(ctx, src, l.Plan, nil, "")
		if err != nil {
			return nil, err
		}
		data, err := src.PDF(papers.Paper("customer"), papers.Size(in.Size))
		return &file{"application/pdf", attached(e.head.Plan, "for the customer", "pdf", time.Now()), data}, err
	})
	return out, s.problem(ctx, err)
}
