package localpg_test

import (
	"context"
	"errors"
	"log/slog"
	"net"
	"os"
	"path/filepath"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/jackc/pgx/v5"

	"wakefield.example/internal/localpg"
	"wakefield.example/internal/localpg/pgtest"
)

var cluster *localpg.Cluster

func TestMain(m *testing.M) { os.Exit(pgtest.Run(m, &cluster)) }

// exec runs a statement on a connection of its own.
func exec(url, sql string) error {
	ctx := context.Background()
	conn, err := pgx.Connect(ctx, url)
	if err != nil {
		return err
	}
	defer conn.Close(ctx)
	_, err = conn.Exec(ctx, sql)
	return err
}

// fresh opens a cluster in a folder of its own, which is closed after the test.
func fresh(t *testing.T) (c *localpg.Cluster, dir string) {
	t.Helper()
	parent, remove := pgtest.Folder()
	t.Cleanup(remove)
	dir = filepath.Join(parent, "data")
	c, err := localpg.Open(context.Background(), dir)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { c.Stop(); c.Close() })
	return c, dir
}

func TestDataOutlivesTheServer(t *testing.T) {
	ctx, c := context.Background(), cluster
	url := pgtest.Database(t, c, "tide")
	if err := exec(url, "create table berth (name text)"); err != nil {
		t.Fatal(err)
	}
	c.Stop()
	c.Stop()
	if err := exec(url, "select 1"); err == nil {
		t.Fatal("a stopped server answers")
	}
	if err := c.Start(ctx); err != nil {
		t.Fatal(err)
	}
	if err := exec(url, "select name from berth"); err != nil {
		t.Error(err)
	}
	if err := c.Create(ctx, "tide"); err != nil {
		t.Errorf("creating a database that is there: %v", err)
	}
}

func TestAFolderIsOfOneProcessAtATime(t *testing.T) {
	ctx := context.Background()
	c, dir := fresh(t)
	if _, err := localpg.Open(ctx, dir); !errors.Is(err, localpg.ErrInUse) || !strings.Contains(err.Error(), "--data") {
		t.Errorf("a second Open: %v", err)
	}
	c.Close()
	again, err := localpg.Open(ctx, dir)
	if err != nil {
		t.Fatal(err)
	}
	again.Close()
}

func TestOnlyTheOwnersOfTheFolderReachTheServer(t *testing.T) {
	c, dir := fresh(t)
	if err := c.Start(context.Background()); err != nil {
		t.Fatal(err)
	}
	info, err := os.Stat(dir)
	if err != nil || info.Mode().Perm() != 0o700 {
		t.Errorf("the folder has mode %v, %v", info.Mode(), err)
	}
	// No TCP port belongs to the server: its control file names an empty address.
	control, err := os.ReadFile(filepath.Join(dir, "postmaster.pid"))
	if err != nil {
		t.Fatal(err)
	}
	if lines := strings.Split(string(control), "\n"); lines[4] != dir || lines[5] != "" {
		t.Errorf("listens on socket %q and address %q", lines[4], lines[5])
	}
	if conn, err := net.Dial("unix", filepath.Join(dir, ".s.PGSQL.5432")); err != nil {
		t.Error(err)
	} else {
		conn.Close()
	}
	if err := c.Create(context.Background(), "berths"); err != nil {
		t.Fatal(err)
	}
	for _, sql := range []string{"create role thief superuser", "copy (select 1) to program 'true'", "select pg_read_file('/etc/passwd')"} {
		if err := exec(c.URL("berths"), sql); err == nil {
			t.Errorf("the program's role may: %s", sql)
		}
	}
}

func TestForeignFoldersAreLeftAlone(t *testing.T) {
	parent, remove := pgtest.Folder()
	defer remove()
	tests := []struct{ name, file, says string }{
		{"papers", "letter.txt", "not empty"},
		{"unfinished", "PG_VERSION", "never finished"},
	}
	for _, test := range tests {
		dir := filepath.Join(parent, test.name)
		if err := os.Mkdir(dir, 0o751); err != nil {
			t.Fatal(err)
		}
		if err := os.WriteFile(filepath.Join(dir, test.file), []byte("15\n"), 0o644); err != nil {
			t.Fatal(err)
		}
		before, _ := os.Stat(dir)
		if _, err := localpg.Open(context.Background(), dir); err == nil || !strings.Contains(err.Error(), test.says) ||
			!strings.Contains(err.Error(), dir) {
			t.Errorf("%s: %v", test.name, err)
		}
		after, _ := os.Stat(dir)
		if before.Mode() != after.Mode() || before.Sys().(*syscall.Stat_t).Uid != after.Sys().(*syscall.Stat_t).Uid {
			t.Errorf("%s: mode %v and owner were changed to %v", test.name, before.Mode(), after.Mode())
		}
	}
	if _, err := localpg.Open(context.Background(), filepath.Join(parent, strings.Repeat("long", 30))); err == nil ||
		!strings.Contains(err.Error(), "too long") {
		t.Errorf("a path too long for a socket: %v", err)
	}
}

func TestTheVersionOfTheFolderIsRun(t *testing.T) {
	c, dir := fresh(t)
	c.Close()
	if err := os.WriteFile(filepath.Join(dir, "PG_VERSION"), []byte("9\n"), 0o600); err != nil {
		t.Fatal(err)
	}
	if _, err := localpg.Open(context.Background(), dir); err == nil || !strings.Contains(err.Error(), "made by PostgreSQL 9") {
		t.Errorf("%v", err)
	}
}

func TestAnInterruptedFirstStartLeavesNothing(t *testing.T) {
	parent, remove := pgtest.Folder()
	defer remove()
	dir := filepath.Join(parent, "data")
	ctx, cancel := context.WithCancel(context.Background())
	cancelled := make(chan struct{})
	go func() { // as soon as initdb has begun
		defer close(cancelled)
		for {
			if begun, _ := filepath.Glob(dir + ".new-*/PG_VERSION"); begun != nil {
				cancel()
				return
			}
		}
	}()
	if _, err := localpg.Open(ctx, dir); !errors.Is(err, context.Canceled) {
		t.Fatalf("%v", err)
	}
	<-cancelled
	if entries, _ := os.ReadDir(parent); len(entries) != 1 { // the lock
		t.Errorf("left behind: %v", entries)
	}
	c, err := localpg.Open(context.Background(), dir)
	if err != nil {
		t.Fatal(err)
	}
	defer c.Close()
	if err := c.Start(context.Background()); err != nil {
		t.Error(err)
	}
	c.Stop()
}

func TestTheServerIsStartedAgainWhenItDies(t *testing.T) {
	c, dir := fresh(t)
	ctx, cancel := context.WithCancel(context.Background())
	defer cancel()
	if err := c.Start(ctx); err != nil {
		t.Fatal(err)
	}
	if err := c.Create(ctx, "berths"); err != nil {
		t.Fatal(err)
	}
	done := make(chan struct{})
	go func() { c.KeepRunning(ctx, slog.New(slog.DiscardHandler)); close(done) }()
	first := pid(t, dir)
	if err := syscall.Kill(first, syscall.SIGKILL); err != nil {
		t.Fatal(err)
	}
	until(t, func() bool { return exec(c.URL("berths"), "select 1") == nil && pid(t, dir) != first })
	c.Stop()
	select {
	case <-done:
	case <-time.After(time.Minute):
		t.Error("a stopped server is still looked after")
	}
	if err := exec(c.URL("berths"), "select 1"); err == nil {
		t.Error("a stopped server was started again")
	}
}

// TestAStartWaitsForTheLastServerToEnd starts while another postmaster holds the
// folder, as after the program was killed.
func TestAStartWaitsForTheLastServerToEnd(t *testing.T) {
	c, dir := fresh(t)
	ctx := context.Background()
	if err := c.Start(ctx); err != nil {
		t.Fatal(err)
	}
	if err := c.Create(ctx, "berths"); err != nil {
		t.Fatal(err)
	}
	conn, err := pgx.Connect(ctx, c.URL("berths"))
	if err != nil {
		t.Fatal(err)
	}
	c.Close() // the folder is free while its server still runs
	again, err := localpg.Open(ctx, dir)
	if err != nil {
		t.Fatal(err)
	}
	defer again.Close()
	started := make(chan error)
	go func() { started <- again.Start(ctx) }()
	// The last server ends only now: its client holds a smart shutdown up.
	if err := syscall.Kill(pid(t, dir), syscall.SIGTERM); err != nil {
		t.Fatal(err)
	}
	conn.Close(ctx)
	if err := <-started; err != nil {
		t.Fatal(err)
	}
	if err := exec(again.URL("berths"), "select 1"); err != nil {
		t.Error(err)
	}
	again.Stop()
}

func pid(t *testing.T, dir string) int {
	t.Helper()
	var pid int
	until(t, func() bool {
		data, err := os.ReadFile(filepath.Join(dir, "postmaster.pid"))
		if err != nil {
			return false
		}
		pid = 0
		for _, b := range strings.SplitN(string(data), "\n", 2)[0] {
			pid = 10*pid + int(b-'0')
		}
		return pid > 0
	})
	return pid
}

// until waits for a condition.
func until(t *testing.T, holds func() bool) {
	t.Helper()
	for end := time.Now().Add(time.Minute); !holds(); {
		if time.Now().After(end) {
			t.Fatal("never came true")
		}
		time.Sleep(5 * time.Millisecond)
	}
}
