package server

import (
	"context"
	"crypto/rand"
	"encoding/json"
	"log/slog"
	"net"
	"net/http"
	"runtime/debug"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/go-chi/chi/v5/middleware"
)

type requestKey struct{}

// identified gives every request an id, under which the log tells what became of it.
func identified(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		id := strings.ToLower(rand.Text()[:10])
		w.Header().Set("Wakefield-Request", id)
		next.ServeHTTP(w, r.WithContext(context.WithValue(r.Context(), requestKey{}, id)))
	})
}

// RequestID is the id of the request of a context.
func RequestID(ctx context.Context) string {
	id, _ := ctx.Value(requestKey{}).(string)
	return id
}

// WithRequest puts the request's id into every problem, as the instance of RFC 9457.
func WithRequest(ctx huma.Context, _ string, v any) (any, error) {
	switch p := v.(type) {
	case *huma.ErrorModel:
		p.Instance = instance(ctx.Context())
		brief(p)
	case telling:
		p.Problem().Instance = instance(ctx.Context())
	}
	return v, nil
}

// telling is a problem with members of its own.
type telling interface{ Problem() *huma.ErrorModel }

// brief keeps a problem from sending back what was sent: a value of millions of bytes,
// or a complaint for each of thousands of things.
func brief(p *huma.ErrorModel) {
	const most = 20
	p.Errors = p.Errors[:min(len(p.Errors), most)]
	for i, detail := range p.Errors {
		switch value := detail.Value.(type) {
		case nil, bool, float64, int:
			continue
		case string:
			if len(value) <= 100 {
				continue
			}
		}
		short := *detail
		short.Value = nil
		p.Errors[i] = &short
	}
}

func instance(ctx context.Context) string { return "/requests/" + RequestID(ctx) }

// logged writes a line for every request.
func logged(log *slog.Logger) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			start := time.Now()
			ww := middleware.NewWrapResponseWriter(w, r.ProtoMajor)
			next.ServeHTTP(ww, r)
			level := slog.LevelDebug
			if ww.Status() >= 500 {
				level = slog.LevelError
			}
			log.Log(r.Context(), level, "request", "method", r.Method, "path", r.URL.Path, "status", ww.Status(),
				"bytes", ww.BytesWritten(), "took", time.Since(start), "id", RequestID(r.Context()))
		})
	}
}

// recovered answers 500 for a handler that panics, and writes down why.
func recovered(log *slog.Logger) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			ww := middleware.NewWrapResponseWriter(w, r.ProtoMajor)
			defer func() {
				if v := recover(); v != nil {
					if v == http.ErrAbortHandler {
						panic(v)
					}
					log.Error("panic", "value", v, "path", r.URL.Path, "id", RequestID(r.Context()), "stack", string(debug.Stack()))
					if ww.Status() != 0 {
						panic(http.ErrAbortHandler) // the answer has begun, and must not look whole
					}
					writeProblem(w, r, http.StatusInternalServerError, Mistake)
				}
			}()
			next.ServeHTTP(ww, r)
		})
	}
}

// writeProblem answers with a problem where no operation of the API does.
func writeProblem(w http.ResponseWriter, r *http.Request, status int, detail string) {
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(status)
	_ = json.NewEncoder(w).Encode(huma.ErrorModel{Status: status, Title: http.StatusText(status), Detail: detail,
		Instance: instance(r.Context())})
}

// encryptedKey is that of whether a request came encrypted, as far as the server or a proxy that it trusts knows.
type encryptedKey struct{}

// secured forbids the page everything that does not come from this server. A browser that came over TLS is told to come
// by nothing else.
func secured(a *Accounts) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			headers(w.Header())
			var proxies []net.IPNet
			if a != nil {
				proxies = a.Proxies
			}
			is := isEncrypted(r, proxies)
			if a != nil && a.Secure && is {
				w.Header().Set("Strict-Transport-Security", "max-age=31536000")
			}
			next.ServeHTTP(w, r.WithContext(context.WithValue(r.Context(), encryptedKey{}, is)))
		})
	}
}

// Encrypted tells whether the request of a context came encrypted, as far as it can be known.
func Encrypted(ctx context.Context) bool {
	is, _ := ctx.Value(encryptedKey{}).(bool)
	return is
}

func headers(h http.Header) {
	h.Set("Content-Security-Policy", "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; "+
		"object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'")
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Referrer-Policy", "same-origin")
	h.Set("Cross-Origin-Opener-Policy", "same-origin")
	h.Set("Cross-Origin-Resource-Policy", "same-origin")
	h.Set("Permissions-Policy", "camera=(), microphone=(), geolocation=(), payment=(), usb=()")
}

// fromHere answers only to this machine, and to nobody who comes through a proxy.
func fromHere(proxies []net.IPNet, next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		host, _, _ := net.SplitHostPort(r.RemoteAddr)
		if ip := net.ParseIP(host); ip == nil || !ip.IsLoopback() || r.Header.Get("X-Forwarded-For") != "" || r.Header.Get("Forwarded") != "" {
			writeProblem(w, r, http.StatusForbidden, "Only this machine itself may read this.")
			return
		}
		next.ServeHTTP(w, r)
	})
}

// Longest is how long a request may take, streams apart.
const Longest = 30 * time.Second

// limited ends the work of a request that takes too long, unless it lasts by its nature.
func limited(lasts func(*http.Request) bool) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			if !lasts(r) {
				ctx, cancel := context.WithTimeout(r.Context(), Longest)
				defer cancel()
				r = r.WithContext(ctx)
			}
			next.ServeHTTP(w, r)
		})
	}
}
