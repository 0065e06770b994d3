package server

import (
	"context"
	"net"
	"net/http"
	"strings"

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

// Visited notes from where a request comes: the address that a trusted proxy tells, or the one that it comes from.
func Visited(proxies []net.IPNet) func(http.Handler) http.Handler {
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
			v := account.Visitor{Address: chain.ClientIP(header, r.RemoteAddr), Device: device, Request: RequestID(r.Context())}
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

func Visitor(ctx context.Context) account.Visitor {
	v, _ := ctx.Value(visitorKey{}).(account.Visitor)
	return v
}

// signedIn loads what the cookie of a request to the API leads to. Until somebody is known, nothing of anybody is seen.
func signedIn(k *account.Keeper) func(http.Handler) http.Handler {
	k.Sessions.ErrorFunc = func(w http.ResponseWriter, r *http.Request, _ error) {
		writeProblem(w, r, http.StatusServiceUnavailable, AwayWords)
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
