// Package pgtest gives tests a PostgreSQL of their own.
package pgtest

import (
	"context"
	"errors"
	"fmt"
	"net/url"
	"os"
	"path/filepath"
	"sync"
	"syscall"
	"testing"

	"github.com/jackc/pgx/v5"

	"wakefield.example/internal/localpg"
)

// Folder makes a folder that PostgreSQL's own user can reach, and returns how to
// remove it. Folders of [testing.T.TempDir] cannot be entered by others.
func Folder() (dir string, remove func()) {
	dir, err := os.MkdirTemp(InMemory(), "wakefield-pg-")
	if err == nil {
		err = os.Chmod(dir, 0o755)
	}
	if err != nil {
		panic(err)
	}
	return dir, func() { os.RemoveAll(dir) }
}

// InMemory is a folder whose files are held in memory, where the machine has room for them there, and else where temporary
// files lie. A database of some hundred files is made there in an eighth of the time.
func InMemory() string {
	const memory, enough = "/dev/shm", 4 << 30
	var room syscall.Statfs_t
	if err := syscall.Statfs(memory, &room); err != nil || int64(room.Bavail)*room.Bsize < enough {
		return os.TempDir()
	}
	return memory
}

// Run runs a package's tests with a cluster of their own, and returns the status to
// exit with.
func Run(m *testing.M, cluster **localpg.Cluster) int {
	dir, remove := Folder()
	defer remove()
	data := filepath.Join(dir, "data")
	c, err := localpg.Open(context.Background(), data)
	if err == nil {
		err = forgetful(data)
	}
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

// forgetful has a cluster not wait for the disk: what a test wrote need not be there after a power cut.
func forgetful(data string) error {
	f, err := os.OpenFile(filepath.Join(data, "postgresql.conf"), os.O_APPEND|os.O_WRONLY, 0)
	if err != nil {
		return err
	}
	_, err = f.WriteString("\nfsync = off\nsynchronous_commit = off\nfull_page_writes = off\nmax_wal_size = 128MB\n")
	return errors.Join(err, f.Close())
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
	dropped(t, c, name)
	return c.URL(name) + SeesAll
}

// pattern is the database that others are copies of, once it is made.
const pattern = "pattern"

var patterned bool

// Copy makes a database as fill makes it, which is called once for all of them: making tables anew for each test takes
// several times as long as copying them. It is dropped after the test; its URL is returned.
func Copy(t testing.TB, c *localpg.Cluster, name string, fill func(url string) error) string {
	t.Helper()
	making.Lock()
	defer making.Unlock()
	ctx := context.Background()
	if !patterned {
		if err := c.Create(ctx, pattern); err != nil {
			t.Fatal(err)
		}
		if err := fill(c.URL(pattern) + SeesAll); err != nil {
			t.Fatal(err)
		}
		patterned = true
	}
	conn, err := pgx.Connect(ctx, c.AdminURL("postgres"))
	if err != nil {
		t.Fatal(err)
	}
	defer conn.Close(ctx)
	owner, _ := url.Parse(c.URL(pattern))
	if _, err := conn.Exec(ctx, fmt.Sprintf("create database %s template %s owner %s", pgx.Identifier{name}.Sanitize(), pattern,
		owner.User.Username())); err != nil {
		t.Fatal(err)
	}
	dropped(t, c, name)
	return c.URL(name) + SeesAll
}

// dropped drops a database after the test.
func dropped(t testing.TB, c *localpg.Cluster, name string) {
	t.Cleanup(func() {
		if err := c.Drop(context.Background(), name); err != nil {
			t.Errorf("dropping %s: %v", name, err)
		}
	})
}
