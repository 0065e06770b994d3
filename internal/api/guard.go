package api

import (
	"context"
	"errors"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/internal/account"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

// whoAsks is who a token or a session says; nil for nobody.
func (s *service) whoAsks(ctx huma.Context) (*account.Who, error) {
	kind, secret, _ := strings.Cut(ctx.Header("Authorization"), " ")
	switch {
	case strings.EqualFold(kind, "Bearer"):
		who, err := s.keeper.OfToken(ctx.Context(), strings.TrimSpace(secret))
		if err == nil && who == nil {
			return nil, huma.Error401Unauthorized("The token is not valid: it was ended, is past its date, or never was one.")
		}
		return who, err
	case kind != "":
		return nil, huma.Error401Unauthorized("Only Authorization: Bearer, with a token, is known here.")
	}
	return s.keeper.OfSession(ctx.Context(), ctx.Operation().OperationID != "changes" && ctx.Operation().OperationID != "me")
}

// guarded lets nobody do what the policy does not let them do.
func (s *service) guarded(api huma.API) func(huma.Context, func(huma.Context)) {
	return func(ctx huma.Context, next func(huma.Context)) {
		if s.keeper == nil {
			if ctx.Operation().Metadata[ofAccounts] != nil {
				s.refuse(api, ctx, huma.Error422UnprocessableEntity("This server has no accounts: everybody who reaches it may do everything."))
				return
			}
			next(ctx)
			return
		}
		who, err := s.whoAsks(ctx)
		if err != nil {
			s.refuse(api, ctx, s.problem(ctx.Context(), err))
			return
		}
		d, site, err := s.decide(ctx, who)
		if err != nil {
			s.refuse(api, ctx, s.problem(ctx.Context(), err))
			return
		}
		operation := ctx.Operation().OperationID
		if !d.Allowed {
			status := http.StatusForbidden
			switch {
			case who == nil:
				status = http.StatusUnauthorized
			case d.Hidden:
				status = http.StatusNotFound
			}
			if who != nil && !(d.Hidden && site == "") {
				s.note(ctx.Context(), who, "refused", site, operation)
			}
			s.refuse(api, ctx, huma.NewError(status, d.Words))
			return
		}
		if who != nil {
			ctx = huma.WithContext(ctx, account.As(ctx.Context(), who))
			if account.IsExport(operation) {
				s.note(ctx.Context(), who, "export", site, operation)
			}
		}
		next(ctx)
	}
}

// decide asks the policy about an operation and the site that its path names.
func (s *service) decide(ctx huma.Context, who *account.Who) (d account.Decision, site string, err error) {
	operation := ctx.Operation().OperationID
	rule, company := account.RuleOf(operation), ""
	if rule.Place != account.Nowhere && who != nil {
		company, site, err = s.keeper.Owner(ctx.Context(), ctx.Param("id"), rule.Place == account.AtPlan)
		if err != nil && !errors.Is(err, store.ErrNotFound) {
			return d, "", err
		}
	}
	return s.policy(operation, who, company, site), site, nil
}

// note keeps something in the audit while the answer goes on.
func (s *service) note(ctx context.Context, who *account.Who, what, site, detail string) {
	v := server.Visitor(ctx)
	go s.keeper.Note(context.WithoutCancel(ctx), who, store.Happened{What: what, Site: site, Detail: detail,
		Address: v.Address, Request: v.Request})
}

func (s *service) refuse(api huma.API, ctx huma.Context, err error) {
	var told huma.StatusError
	if !errors.As(err, &told) {
		told = huma.Error500InternalServerError(server.Mistake)
	}
	_ = huma.WriteErr(api, ctx, told.GetStatus(), told.Error())
}

// maySee tells whether whoever asks may read a site; without accounts everybody may.
func (s *service) maySee(ctx context.Context, site string) bool {
	who := account.From(ctx)
	if s.keeper == nil {
		return true
	}
	company, _, err := s.keeper.Owner(ctx, site, false)
	return err == nil && who != nil && company == who.Company && who.RoleAt(site) != ""
}
