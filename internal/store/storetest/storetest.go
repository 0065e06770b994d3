// Package storetest gives tests a store of their own.
package storetest

import (
	"context"
	"testing"

	"wakefield.example/internal/localpg"
	"wakefield.example/internal/localpg/pgtest"
	"wakefield.example/internal/store"
)

// Open opens a store over a database of its own, with all tables and nothing in them. The settings are added to the URL
// that it connects to, such as "&pool_max_conns=4". It is closed, and its database dropped, after the test.
func Open(t testing.TB, c *localpg.Cluster, name, settings string) *store.Store {
	t.Helper()
	ctx := context.Background()
	url := pgtest.Copy(t, c, name, func(url string) error {
		s, err := store.Open(ctx, url)
		if err == nil {
			s.Close()
		}
		return err
	})
	s, err := store.Open(ctx, url+settings)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(s.Close)
	return s
}
