// Package localpg runs a private PostgreSQL on loopback, from the programs that
// Debian's package installs.
//
// A [Cluster] has a data folder of its own and listens on a port that was free when
// it started. PostgreSQL refuses to run as root, so root runs it as the user
// postgres, which the package makes. The server is a child of this process: it is
// stopped by its id, and dies with us.
package localpg

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"os"
	"os/exec"
	"os/user"
	"path/filepath"
	"runtime"
	"sort"
	"strconv"
	"syscall"
	"time"

	"github.com/jackc/pgx/v5"
)

// Cluster is one PostgreSQL server with its data.
type Cluster struct {
	dir  string
	bin  string
	port int
	user *syscall.Credential // whom to run as, nil for ourselves

	server *exec.Cmd
	exited chan struct{}
}

// Open finds PostgreSQL's programs and prepares the data folder dir, making a new
// cluster there when it holds none. Nothing runs yet.
func Open(ctx context.Context, dir string) (*Cluster, error) {
	bin, err := programs()
	if err != nil {
		return nil, err
	}
	c := &Cluster{dir: dir, bin: bin}
	if os.Geteuid() == 0 {
		if c.user, err = postgresUser(); err != nil {
			return nil, err
		}
	}
	// The folders above must let PostgreSQL's user through.
	if err := os.MkdirAll(filepath.Dir(dir), 0o755); err != nil {
		return nil, err
	}
	if err := os.Mkdir(dir, 0o700); err != nil && !errors.Is(err, os.ErrExist) {
		return nil, err
	}
	if c.user != nil {
		if err := os.Chown(dir, int(c.user.Uid), int(c.user.Gid)); err != nil {
			return nil, err
		}
	}
	if _, err := os.Stat(filepath.Join(dir, "PG_VERSION")); errors.Is(err, os.ErrNotExist) {
		if err := c.initialise(ctx); err != nil {
			return nil, err
		}
	}
	return c, nil
}

// programs finds the folder of the newest PostgreSQL installed.
func programs() (string, error) {
	found, _ := filepath.Glob("/usr/lib/postgresql/*/bin/initdb")
	if len(found) == 0 {
		if path, err := exec.LookPath("initdb"); err == nil {
			return filepath.Dir(path), nil
		}
		return "", errors.New("PostgreSQL is not installed; scripts/prepare installs Debian's postgresql")
	}
	version := func(path string) float64 {
		v, _ := strconv.ParseFloat(filepath.Base(filepath.Dir(filepath.Dir(path))), 64)
		return v
	}
	sort.Slice(found, func(i, j int) bool { return version(found[i]) < version(found[j]) })
	return filepath.Dir(found[len(found)-1]), nil
}

func postgresUser() (*syscall.Credential, error) {
	u, err := user.Lookup("postgres")
	if err != nil {
		return nil, fmt.Errorf("PostgreSQL does not run as root, and there is no user to run it as: %w", err)
	}
	uid, _ := strconv.ParseUint(u.Uid, 10, 32)
	gid, _ := strconv.ParseUint(u.Gid, 10, 32)
	return &syscall.Credential{Uid: uint32(uid), Gid: uint32(gid)}, nil
}

func (c *Cluster) command(ctx context.Context, name string, args ...string) *exec.Cmd {
	cmd := exec.CommandContext(ctx, filepath.Join(c.bin, name), args...)
	cmd.Dir = "/"
	cmd.Env = append(os.Environ(), "LC_ALL=C.UTF-8")
	// A process group of its own, so that a Ctrl+C in the terminal reaches us alone
	// and the server outlives our last writes; and a signal should we be killed.
	cmd.SysProcAttr = &syscall.SysProcAttr{Setpgid: true, Credential: c.user, Pdeathsig: syscall.SIGINT}
	return cmd
}

func (c *Cluster) initialise(ctx context.Context) error {
	cmd := c.command(ctx, "initdb", "--pgdata", c.dir, "--username", "wakefield",
		"--auth", "trust", "--encoding", "UTF8", "--locale", "C.UTF-8", "--no-sync")
	if out, err := cmd.CombinedOutput(); err != nil {
		return fmt.Errorf("initdb: %w: %s", err, lastLine(out))
	}
	return nil
}

// Start starts the server and returns when it answers. A second Start after a Stop
// uses the same port.
func (c *Cluster) Start(ctx context.Context) error {
	if c.port == 0 {
		port, err := freePort()
		if err != nil {
			return err
		}
		c.port = port
	}
	var output bytes.Buffer
	started := make(chan error)
	c.exited = make(chan struct{})
	go func(exited chan struct{}) {
		// The death signal is tied to the thread that starts the child, so this
		// thread waits until the child is gone.
		runtime.LockOSThread()
		defer runtime.UnlockOSThread()
		cmd := c.command(context.Background(), "postgres", "-D", c.dir, "-p", strconv.Itoa(c.port),
			"-c", "listen_addresses=127.0.0.1", "-c", "unix_socket_directories=", "-c", "max_connections=200")
		cmd.Stderr = &output
		c.server = cmd
		err := cmd.Start()
		started <- err
		if err == nil {
			if err := cmd.Wait(); err != nil {
				slog.Warn("PostgreSQL ended", "error", err)
			}
		}
		close(exited)
	}(c.exited)
	if err := <-started; err != nil {
		return fmt.Errorf("starting PostgreSQL: %w", err)
	}
	return c.waitUntilReady(ctx, &output)
}

func (c *Cluster) waitUntilReady(ctx context.Context, output *bytes.Buffer) error {
	ctx, cancel := context.WithTimeout(ctx, time.Minute)
	defer cancel()
	tick := time.NewTicker(50 * time.Millisecond)
	defer tick.Stop()
	for {
		if conn, err := pgx.Connect(ctx, c.URL("postgres")); err == nil {
			return conn.Close(ctx)
		}
		select {
		case <-c.exited:
			return fmt.Errorf("PostgreSQL ended at once: %s", lastLine(output.Bytes()))
		case <-ctx.Done():
			return fmt.Errorf("PostgreSQL does not answer: %w", ctx.Err())
		case <-tick.C:
		}
	}
}

// Stop ends the server, waiting until its data is on disk. Open connections are
// closed. Stopping twice does nothing.
func (c *Cluster) Stop() {
	if c.server == nil || c.server.Process == nil {
		return
	}
	_ = c.server.Process.Signal(syscall.SIGINT) // it may be gone already
	select {
	case <-c.exited:
	case <-time.After(30 * time.Second):
		_ = c.server.Process.Signal(syscall.SIGQUIT)
		<-c.exited
	}
	c.server = nil
}

// URL is how to connect to a database of the cluster.
func (c *Cluster) URL(database string) string {
	return fmt.Sprintf("postgres://wakefield@127.0.0.1:%d/%s?sslmode=disable", c.port, database)
}

// Create makes an empty database unless there is one of that name.
func (c *Cluster) Create(ctx context.Context, database string) error {
	conn, err := pgx.Connect(ctx, c.URL("postgres"))
	if err != nil {
		return err
	}
	defer conn.Close(ctx)
	var there bool
	if err := conn.QueryRow(ctx, "select exists(select from pg_database where datname = $1)", database).Scan(&there); err != nil || there {
		return err
	}
	_, err = conn.Exec(ctx, "create database "+pgx.Identifier{database}.Sanitize())
	return err
}

// Drop removes a database, if there is one of that name.
func (c *Cluster) Drop(ctx context.Context, database string) error {
	conn, err := pgx.Connect(ctx, c.URL("postgres"))
	if err != nil {
		return err
	}
	defer conn.Close(ctx)
	_, err = conn.Exec(ctx, "drop database if exists "+pgx.Identifier{database}.Sanitize()+" with (force)")
	return err
}

// Dir is the data folder.
func (c *Cluster) Dir() string { return c.dir }

// freePort asks the system for a port nobody listens on.
func freePort() (int, error) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return 0, err
	}
	defer l.Close()
	return l.Addr().(*net.TCPAddr).Port, nil
}

func lastLine(out []byte) string {
	out = bytes.TrimSpace(out)
	return string(out[bytes.LastIndexByte(out, '\n')+1:])
}
