// Package account knows who somebody is and what they may do: names and passwords, one-time codes and passkeys, sessions,
// tokens and links, and the one table that says what each operation of the API asks of whoever calls it.
//
// It knows no operation itself: package server asks it before it does anything, and its pages are operations like others.
// What it remembers of people is forgotten as soon as any server on the database changes something of them, so that an
// answer needs no question to the database about who asks.
package account

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"encoding/base64"
	"slices"
	"strings"
	"time"

	"wakefield.example/internal/store"
)

// Who is whoever asks.
type Who struct {
	ID      string // of the person
	Name    string
	Company string
	Planner bool              // of all sites of the company
	Roles   map[string]string // role by id of the site
	Seat    string            // where they are signed in; empty for programs
	Ends    time.Time         // when that ends by itself
	SetUp   bool              // whether a code or a passkey is to be set up before anything else

	Token    string   // id of the token; empty for people
	ReadOnly bool     // whether the token only reads
	Only     []string // sites that the token is for; empty for all
}

// RoleAt is what somebody may do at a site, empty for nothing.
func (w *Who) RoleAt(site string) string {
	switch {
	case w == nil || len(w.Only) > 0 && !slices.Contains(w.Only, site):
		return ""
	case w.Planner:
		return "planner"
	}
	return w.Roles[site]
}

// SamplePerson is one of the people of a demonstration, whose password everybody may know.
type SamplePerson struct {
	Name     string `json:"name"`
	What     string `json:"what" doc:"What they may do"`
	Password string `json:"password"`
}

type whoKey struct{}

// As is a context of whoever asks.
func As(ctx context.Context, w *Who) context.Context {
	return context.WithValue(store.Of(ctx, w.Company), whoKey{}, w)
}

// From is who asks; nil where nobody signed in, or nobody has to.
func From(ctx context.Context) *Who {
	w, _ := ctx.Value(whoKey{}).(*Who)
	return w
}

// NewSecret is 256 bits of chance that a link or a token consists of, in 43 letters.
func NewSecret() string {
	var b [32]byte
	rand.Read(b[:])
	return base64.RawURLEncoding.EncodeToString(b[:])
}

// Hashed is what is kept of a secret. It is long and of chance, so that it needs no slow hash.
func Hashed(secret string) string {
	sum := sha256.Sum256([]byte(secret))
	return base64.RawURLEncoding.EncodeToString(sum[:])
}

// NewID is an id for a person, a seat, a link or a token.
func NewID() string { return strings.ToLower(rand.Text()[:16]) }
