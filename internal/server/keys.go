package server

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"hash"
	"io"
	"net/http"
)

type askedKey struct{}

// asked is what a request with an Idempotency-Key asks: operation, place, and a hash of its
// body, which is known when all of it was read.
type asked struct {
	what string
	body hash.Hash
}

func (a *asked) String() string {
	return a.what + " " + hex.EncodeToString(a.body.Sum(nil)[:12])
}

// bound notes what a key is used for, so that it can be used for nothing else.
func bound(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if r.Header.Get("Idempotency-Key") != "" {
			a := &asked{r.Method + " " + r.URL.RequestURI(), sha256.New()}
			r = r.WithContext(context.WithValue(r.Context(), askedKey{}, a))
			r.Body = struct {
				io.Reader
				io.Closer
			}{io.TeeReader(r.Body, a.body), r.Body}
		}
		next.ServeHTTP(w, r)
	})
}

// WhatIsAsked is what the request of a context asks; empty where it has no key.
func WhatIsAsked(ctx context.Context) string {
	if a, ok := ctx.Value(askedKey{}).(*asked); ok {
		return a.String()
	}
	return ""
}
