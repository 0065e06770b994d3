package server

import (
	"context"
	"errors"
	"net"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/realclientip/realclientip-go"

	"wakefield.example/internal/account"
	"wakefield.example/internal/store"
)

// Accounts are how people sign in to a server.
type Accounts struct {
	account.Options
	// Proxies are addresses and ranges of the proxies before the server: what they say of who asks is believed, and nothing that
	// others say.
	Proxies []net.IPNet
}

type visitorKey struct{}

// visited notes from where a request comes: the address that a trusted proxy tells, or the one that it comes from.
func visited(proxies []net.IPNet) func(http.Handler) http.Handler {
	strategies := []realclientip.Strategy{realclientip.RemoteAddrStrategy{}}
	if len(proxies) > 0 {
		strategies = []realclientip.Strategy{
			realclientip.Must(realclientip.NewRightmostTrustedRangeStrategy("Forwarded", proxies)),
			realclientip.Must(realclientip.NewRightmostTrustedRangeStrategy("X-Forwarded-For", proxies)),
			realclientip.RemoteAddrStrategy{},
		}
	}
	chain := realclientip.NewChainStrategy(strategies...)
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			header := r.Header
			if !isOf(r.RemoteAddr, proxies) {
				header = nil // what it says of itself is only believed of a proxy
			}
			device := r.UserAgent()
			if len(device) > 300 {
				device = strings.ToValidUTF8(device[:300], "")
			}
			v := account.Visitor{Address: chain.ClientIP(header, r.RemoteAddr), Device: device, Request: requestID(r.Context())}
			next.ServeHTTP(w, r.WithContext(context.WithValue(r.Context(), visitorKey{}, v)))
		})
	}
}

func isOf(remote string, ranges []net.IPNet) bool {
	host, _, _ := net.SplitHostPort(remote)
	ip := net.ParseIP(host)
	for _, of := range ranges {
		if ip != nil && of.Contains(ip) {
			return true
		}
	}
	return false
}

// isEncrypted tells whether a browser asks over TLS, as far as it can be known.
func isEncrypted(r *http.Request, proxies []net.IPNet) bool {
	return r.TLS != nil || isOf(r.RemoteAddr, proxies) &&
		(strings.EqualFold(r.Header.Get("X-Forwarded-Proto"), "https") ||
			strings.Contains(strings.ToLower(r.Header.Get("Forwarded")), "proto=https"))
}

func visitor(ctx context.Context) account.Visitor {
	v, _ := ctx.Value(visitorKey{}).(account.Visitor)
	return v
}

// signedIn loads what the cookie of a request to the API leads to. Until somebody is known, nothing of anybody is seen.
func signedIn(k *account.Keeper) func(http.Handler) http.Handler {
	k.Sessions.ErrorFunc = func(w http.ResponseWriter, r *http.Request, _ error) {
		writeProblem(w, r, http.StatusServiceUnavailable, awayWords)
	}
	return func(next http.Handler) http.Handler {
		with := k.Sessions.LoadAndSave(next)
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			if !strings.HasPrefix(r.URL.Path, "/api/") {
				next.ServeHTTP(w, r)
				return
			}
			w.Header().Set("Cache-Control", "no-store")
			with.ServeHTTP(w, r.WithContext(store.Of(r.Context(), "")))
		})
	}
}

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
	v := visitor(ctx)
	go s.keeper.Note(context.WithoutCancel(ctx), who, store.Happened{What: what, Site: site, Detail: detail,
		Address: v.Address, Request: v.Request})
}

func (s *service) refuse(api huma.API, ctx huma.Context, err error) {
	var told huma.StatusError
	if !errors.As(err, &told) {
		told = huma.Error500InternalServerError(mistake)
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
