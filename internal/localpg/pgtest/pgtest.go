// Package pgtest gives tests a PostgreSQL of their own.
package pgtest

import (
	"context"
	"os"
	"testing"

	"wakefield/internal/localpg"
)

// Run runs a package's tests with a cluster of their own, and returns the status to
// exit with.
func Run(m *testing.M, cluster **localpg.Cluster) int {
	// Not under a folder of root's: PostgreSQL's own user must reach it.
	dir, err := os.MkdirTemp("", "wakefield-pg-")
	if err != nil {
		panic(err)
	}
	defer os.RemoveAll(dir)
	c, err := localpg.Open(context.Background(), dir)
	if err == nil {
		err = c.Start(context.Background())
	}
	if err != nil {
		panic(err)
	}
	defer c.Stop()
	*cluster = c
	return m.Run()
}

// Database makes an empty database in the cluster and returns its URL.
func Database(t testing.TB, c *localpg.Cluster, name string) string {
	t.Helper()
	if err := c.Create(context.Background(), name); err != nil {
		t.Fatal(err)
	}
	return c.URL(name)
}
