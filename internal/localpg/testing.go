package localpg

import (
	"context"
	"os"
	"testing"
)

// Run runs a package's tests with a cluster of their own, and returns the status to
// exit with.
func Run(m *testing.M, cluster **Cluster) int {
	// Not under a folder of root's: PostgreSQL's own user must reach it.
	dir, err := os.MkdirTemp("", "wakefield-pg-")
	if err != nil {
		panic(err)
	}
	defer os.RemoveAll(dir)
	c, err := Open(context.Background(), dir)
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
func (c *Cluster) Database(t testing.TB, name string) string {
	t.Helper()
	if err := c.Create(context.Background(), name); err != nil {
		t.Fatal(err)
	}
	return c.URL(name)
}
