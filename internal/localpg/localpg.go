// Package localpg runs a private PostgreSQL, from the programs that Debian's package
// installs.
//
// A [Cluster] has a data folder of its own, which only its owner can enter, and
// listens on a Unix socket in that folder and nowhere else: who can reach the socket
// may read the data anyway. The program that uses a database connects as a role that
// owns the database and is no superuser. PostgreSQL refuses to run as root, so root
// runs it as the user postgres, which the package makes. The server is a child of this
// process: it is stopped by its id, and dies with us.
package localpg

import (
	"context"
	"errors"
	"fmt"
	"net/url"
	"os"
	"os/exec"
	"os/user"
	"path/filepath"
	"strconv"
	"sync"
	"syscall"

	"github.com/jackc/pgx/v5"
)

// Roles of a cluster: who made it and may do everything, and as whom databases are
// used.
const (
	admin = "wakefield"
	role  = "wakefield_app"
)

// ErrInUse says that another process runs a cluster on the folder.
var ErrInUse = errors.New("another Wakefield runs on it")

// Cluster is one PostgreSQL server with its data.
type Cluster struct {
	dir  string
	bin  string
	user *syscall.Credential // whom to run as, nil for ourselves
	lock *os.File            // held as long as the cluster is ours

	mutex   sync.Mutex // held while the server starts or stops
	server  *running   // nil before the first start and after a stop
	stopped bool
}

// Open finds PostgreSQL's programs and prepares the data folder dir, making a new
// cluster there where there is none. The folder stays ours until [Cluster.Close]; a
// second Open of it fails with [ErrInUse]. Nothing runs yet.
//
// A folder that is neither empty nor holds a finished cluster is left as it is, and
// the error says so.
func Open(ctx context.Context, dir string) (_ *Cluster, err error) {
	c := &Cluster{dir: filepath.Clean(dir)}
	if os.Geteuid() == 0 {
		if c.user, err = postgresUser(); err != nil {
			return nil, err
		}
	}
	if err := c.checkSocketPath(); err != nil {
		return nil, err
	}
	// The folders above must let PostgreSQL's user through.
	if err := os.MkdirAll(filepath.Dir(c.dir), 0o755); err != nil {
		return nil, err
	}
	// A folder is one, whichever links lead to it.
	if c.dir, err = followed(c.dir); err != nil {
		return nil, err
	}
	if err := c.checkSocketPath(); err != nil {
		return nil, err
	}
	if c.lock, err = lock(c.dir); err != nil {
		return nil, err
	}
	defer func() {
		if err != nil {
			c.lock.Close()
		}
	}()
	state, err := c.inspect()
	if err != nil {
		return nil, err
	}
	if c.bin, err = programs(state.version); err != nil {
		return nil, err
	}
	if state.empty {
		if err := c.initialise(ctx); err != nil {
			return nil, err
		}
	}
	return c, nil
}

// Close gives the folder free for others, after [Cluster.Stop].
func (c *Cluster) Close() error { return c.lock.Close() }

// At is a cluster that another process runs on a folder, to connect to; it can be
// neither started nor stopped.
func At(dir string) *Cluster { return &Cluster{dir: filepath.Clean(dir)} }

// followed is the path of a folder without links in it. The folder may not be there yet, nor the one that a link names.
func followed(dir string) (string, error) {
	if real, err := filepath.EvalSymlinks(dir); err == nil {
		return real, nil
	}
	if to, err := os.Readlink(dir); err == nil {
		if !filepath.IsAbs(to) {
			to = filepath.Join(filepath.Dir(dir), to)
		}
		return "", fmt.Errorf("the data folder %s is a link to %s, which is not there; make that one, or name another with --data", dir, to)
	}
	above, err := filepath.EvalSymlinks(filepath.Dir(dir))
	return filepath.Join(above, filepath.Base(dir)), err
}

// lock takes a folder, by a file beside it.
func lock(dir string) (*os.File, error) {
	f, err := os.OpenFile(dir+".lock", os.O_CREATE|os.O_RDWR, 0o600)
	if err != nil {
		return nil, err
	}
	if err := syscall.Flock(int(f.Fd()), syscall.LOCK_EX|syscall.LOCK_NB); err != nil {
		f.Close()
		return nil, fmt.Errorf("the data folder %s is taken: %w; stop that one first, or name another folder with --data", dir, ErrInUse)
	}
	return f, nil
}

// postgresUser is the user that root runs PostgreSQL as.
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

const socketName = ".s.PGSQL.5432"

// checkSocketPath asks that the socket's path is one that the system can hold.
func (c *Cluster) checkSocketPath() error {
	const longest = 107 // sockaddr_un(7)
	if n := longest - len("/"+socketName); len(c.dir) > n {
		return fmt.Errorf("the path of the data folder %s is too long: at most %d bytes, so that a socket in it can be reached; name another with --data", c.dir, n)
	}
	return nil
}

// URL is how to connect to a database of the cluster, as the role that owns it.
func (c *Cluster) URL(database string) string { return c.url(role, database) }

// AdminURL is how to connect as the role that may do everything, which Wakefield itself never needs.
func (c *Cluster) AdminURL(database string) string { return c.url(admin, database) }

func (c *Cluster) url(as, database string) string {
	u := url.URL{Scheme: "postgres", User: url.User(as), Path: "/" + database,
		RawQuery: url.Values{"host": {c.dir}, "port": {"5432"}, "sslmode": {"disable"}}.Encode()}
	return u.String()
}

// asAdmin does something on a connection that may do everything.
func (c *Cluster) asAdmin(ctx context.Context, database string, do func(*pgx.Conn) error) error {
	conn, err := pgx.Connect(ctx, c.url(admin, database))
	if err != nil {
		return err
	}
	defer conn.Close(ctx)
	return do(conn)
}

// Create makes an empty database unless there is one of that name, and sees to it that
// it belongs to the role of [Cluster.URL].
func (c *Cluster) Create(ctx context.Context, database string) error {
	err := c.asAdmin(ctx, "postgres", func(conn *pgx.Conn) error {
		_, err := conn.Exec(ctx, `do $$ begin
			if not exists (select from pg_roles where rolname = '`+role+`') then create role `+role+` login; end if;
			if exists (select from pg_roles where rolname = '`+role+`' and not rolcreatedb) then
				alter role `+role+` createdb; -- a backup is restored into a database beside the one in use
			end if;
		end $$`)
		if err != nil {
			return err
		}
		var there bool
		if err := conn.QueryRow(ctx, "select exists(select from pg_database where datname = $1)", database).Scan(&there); err != nil {
			return err
		}
		how := "create database %s owner " + role
		if there {
			how = "alter database %s owner to " + role
		}
		_, err = conn.Exec(ctx, fmt.Sprintf(how, pgx.Identifier{database}.Sanitize()))
		return err
	})
	if err != nil {
		return err
	}
	// Tables of an older cluster belong to its superuser.
	return c.asAdmin(ctx, database, func(conn *pgx.Conn) error {
		_, err := conn.Exec(ctx, `do $$ declare t record; begin
			grant all on schema public to `+role+`;
			for t in select tablename from pg_tables where schemaname = 'public' and tableowner <> '`+role+`' loop
				execute format('alter table public.%I owner to `+role+`', t.tablename);
			end loop;
		end $$`)
		return err
	})
}

// Drop removes a database, if there is one of that name.
func (c *Cluster) Drop(ctx context.Context, database string) error {
	return c.asAdmin(ctx, "postgres", func(conn *pgx.Conn) error {
		_, err := conn.Exec(ctx, "drop database if exists "+pgx.Identifier{database}.Sanitize()+" with (force)")
		return err
	})
}
