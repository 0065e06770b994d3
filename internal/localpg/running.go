package localpg

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"log/slog"
	"os"
	"os/exec"
	"path/filepath"
	"runtime"
	"strconv"
	"strings"
	"sync"
	"syscall"
	"time"

	"github.com/jackc/pgx/v5"
)

// running is a server process.
type running struct {
	cmd    *exec.Cmd
	exited chan struct{} // closed when it has ended
	output tail
}

// Start starts the server and returns when it answers. A server of a process that was
// killed may still be ending on the folder; it is waited for.
func (c *Cluster) Start(ctx context.Context) error {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	c.stopped = false
	return c.start(ctx)
}

func (c *Cluster) start(ctx context.Context) error {
	ctx, cancel := context.WithTimeout(ctx, time.Minute)
	defer cancel()
	for {
		r, err := c.launch()
		if err != nil {
			return fmt.Errorf("starting PostgreSQL: %w", err)
		}
		err = c.untilReady(ctx, r)
		if err == nil {
			c.server = r
			return nil
		}
		r.stop()
		if !r.output.mentions("postmaster.pid", "shared memory block", "is another postmaster") {
			return err
		}
		select {
		case <-ctx.Done():
			return fmt.Errorf("%w; an earlier PostgreSQL does not end on %s", err, c.dir)
		case <-time.After(200 * time.Millisecond):
		}
	}
}

func (c *Cluster) launch() (*running, error) {
	r := &running{exited: make(chan struct{})}
	started := make(chan error)
	go func() {
		// The death signal is tied to the thread that starts the child, so this
		// thread waits until the child is gone.
		runtime.LockOSThread()
		defer runtime.UnlockOSThread()
		r.cmd = c.command(context.Background(), "postgres", "-D", c.dir, "-p", "5432", "-c", "listen_addresses=",
			"-c", `unix_socket_directories="`+strings.ReplaceAll(c.dir, `"`, `""`)+`"`, "-c", "max_connections=200")
		r.cmd.Stderr = &r.output
		err := r.cmd.Start()
		started <- err
		if err == nil {
			_ = r.cmd.Wait() // how it ended shows in what it wrote
		}
		close(r.exited)
	}()
	return r, <-started
}

// untilReady waits until the server answers, and it is this one that does.
func (c *Cluster) untilReady(ctx context.Context, r *running) error {
	tick := time.NewTicker(20 * time.Millisecond)
	defer tick.Stop()
	for {
		if c.pid() == r.cmd.Process.Pid {
			if conn, err := pgx.Connect(ctx, c.url(admin, "postgres")); err == nil {
				return conn.Close(ctx)
			}
		}
		select {
		case <-r.exited:
			return fmt.Errorf("PostgreSQL ended at once: %s", r.output.last())
		case <-ctx.Done():
			return fmt.Errorf("PostgreSQL does not answer: %w", ctx.Err())
		case <-tick.C:
		}
	}
}

// pid is the process that holds the data folder, 0 for none.
func (c *Cluster) pid() int {
	data, err := os.ReadFile(filepath.Join(c.dir, "postmaster.pid"))
	if err != nil {
		return 0
	}
	first, _, _ := strings.Cut(string(data), "\n")
	pid, _ := strconv.Atoi(first)
	return pid
}

// Stop ends the server, waiting until its data is on disk. Open connections are
// closed. Stopping twice does nothing.
func (c *Cluster) Stop() {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	c.stopped = true
	if c.server != nil {
		c.server.stop()
		c.server = nil
	}
}

func (r *running) stop() {
	_ = r.cmd.Process.Signal(syscall.SIGINT) // it may be gone already
	select {
	case <-r.exited:
	case <-time.After(30 * time.Second):
		_ = r.cmd.Process.Signal(syscall.SIGQUIT)
		<-r.exited
	}
}

// KeepRunning starts the server again whenever it ends by itself, until it is stopped
// or the context ends. Between failed starts it waits longer and longer, half a minute
// at most.
func (c *Cluster) KeepRunning(ctx context.Context, log *slog.Logger) {
	pause := time.Second
	for ctx.Err() == nil {
		c.mutex.Lock()
		server, stopped := c.server, c.stopped
		c.mutex.Unlock()
		if stopped || server == nil {
			return
		}
		select {
		case <-ctx.Done():
			return
		case <-server.exited:
		}
		again, err := c.startAgain(ctx, server)
		switch {
		case errors.Is(err, context.Canceled):
			return
		case err != nil:
			log.Error("PostgreSQL does not start", "error", err, "again in", pause)
			select {
			case <-ctx.Done():
			case <-time.After(pause):
			}
			pause = min(2*pause, 30*time.Second)
		case again:
			log.Warn("PostgreSQL ended by itself and was started again", "it said", server.output.last())
			pause = time.Second
		}
	}
}

// startAgain starts the server in the place of one that ended, unless it was stopped.
func (c *Cluster) startAgain(ctx context.Context, ended *running) (bool, error) {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	if c.stopped || c.server != ended {
		return false, nil
	}
	return true, c.start(ctx)
}

// tail keeps the end of what a server writes.
type tail struct {
	mutex sync.Mutex
	text  []byte
}

// Write keeps the last 8 KiB.
func (t *tail) Write(p []byte) (int, error) {
	t.mutex.Lock()
	defer t.mutex.Unlock()
	t.text = append(t.text, p...)
	if most := 8 << 10; len(t.text) > most {
		t.text = append([]byte(nil), t.text[len(t.text)-most:]...)
	}
	return len(p), nil
}

func (t *tail) last() string {
	t.mutex.Lock()
	defer t.mutex.Unlock()
	return lastLine(t.text)
}

func (t *tail) mentions(words ...string) bool {
	t.mutex.Lock()
	defer t.mutex.Unlock()
	for _, word := range words {
		if bytes.Contains(t.text, []byte(word)) {
			return true
		}
	}
	return false
}
