// Package pgtest gives tests a PostgreSQL of their own.
package pgtest

import (
	"context"
	"os"
	"path/filepath"
	"sync"
	"testing"

	"wakefield.example/internal/localpg"
)

// Folder makes a folder that PostgreSQL's own user can reach, and returns how to
// remove it. Folders of [testing.T.TempDir] cannot be entered by others.
func Folder() (dir string, remove func()) {
	dir, err := os.MkdirTemp("", "wakefield-pg-")
	if err == nil {
		err = os.Chmod(dir, 0o755)
	}
	if err != nil {
		panic(err)
	}
	return dir, func() { os.RemoveAll(dir) }
}

// Run runs a package's tests with a cluster of their own, and returns the status to
// exit with.
func Run(m *testing.M, cluster **localpg.Cluster) int {
	dir, remove := Folder()
	defer remove()
	c, err := localpg.Open(context.Background(), filepath.Join(dir, "data"))
	if err == nil {
		err = c.Start(context.Background())
	}
	if err != nil {
		panic(err)
	}
	defer c.Close()
	defer c.Stop()
	*cluster = c
	return m.Run()
}

// making lets tests that run beside each other make their databases one after the other: they share a role.
var making sync.Mutex

// SeesAll is added to a URL by who asks a database directly: the rows of all companies are there then.
const SeesAll = "&options=-c%20wakefield.company%3D*"

// Database makes an empty database in the cluster, which is dropped after the test,
// and returns its URL.
func Database(t testing.TB, c *localpg.Cluster, name string) string {
	t.Helper()
	making.Lock()
	defer making.Unlock()
	if err := c.Create(context.Background(), name); err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() {
		if err := c.Drop(context.Background(), name); err != nil {
			t.Errorf("dropping %s: %v", name, err)
		}
	})
	return c.URL(name) + "&options=" + "-c%20wakefield.company%3D*" // whoever asks it directly sees all
}
