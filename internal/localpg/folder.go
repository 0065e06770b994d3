package localpg

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"syscall"
	"time"
)

// folder is what a data folder holds.
type folder struct {
	empty   bool
	version string // major version of the PostgreSQL that made it; empty for none
}

// inspect looks into the data folder without changing anything.
func (c *Cluster) inspect() (folder, error) {
	entries, err := os.ReadDir(c.dir)
	if errors.Is(err, fs.ErrNotExist) || err == nil && len(entries) == 0 {
		return folder{empty: true}, nil
	}
	if err != nil {
		return folder{}, err
	}
	version, err := os.ReadFile(filepath.Join(c.dir, "PG_VERSION"))
	if err != nil {
		return folder{},
			fmt.Errorf("the folder %s is not empty and holds no database of Wakefield; it was left as it is. Name another with --data", c.dir)
	}
	// The control file is written late: without it the cluster was never finished.
	if _, err := os.Stat(filepath.Join(c.dir, "global", "pg_control")); err != nil {
		return folder{},
			fmt.Errorf("the folder %s holds a database that was never finished; nothing is in it. Remove the folder, or name another with --data",
				c.dir)
	}
	if c.user != nil {
		info, err := os.Stat(c.dir)
		if err != nil {
			return folder{}, err
		}
		if owner := info.Sys().(*syscall.Stat_t).Uid; owner != c.user.Uid {
			return folder{}, fmt.Errorf("the folder %s belongs to another user (id %d); run Wakefield as that user, or name another with --data",
				c.dir, owner)
		}
	}
	return folder{version: strings.TrimSpace(string(version))}, nil
}

// programs finds the folder of a version of PostgreSQL, the newest for none.
func programs(version string) (string, error) {
	found, _ := filepath.Glob("/usr/lib/postgresql/*/bin/initdb")
	if len(found) == 0 {
		path, err := exec.LookPath("initdb")
		if err != nil {
			return "", errors.New("PostgreSQL is not installed; scripts/prepare installs Debian's postgresql")
		}
		if resolved, err := filepath.EvalSymlinks(path); err == nil {
			path = resolved
		}
		return filepath.Dir(path), nil
	}
	number := func(path string) string { return filepath.Base(filepath.Dir(filepath.Dir(path))) }
	if version != "" {
		i := slices.IndexFunc(found, func(path string) bool { return number(path) == version })
		if i < 0 {
			return "",
				fmt.Errorf("the data were made by PostgreSQL %s, which is not installed; install postgresql-%s, or take a backup where it is and restore it here", version, version)
		}
		return filepath.Dir(found[i]), nil
	}
	newest := slices.MaxFunc(found, func(a, b string) int {
		x, _ := strconv.ParseFloat(number(a), 64)
		y, _ := strconv.ParseFloat(number(b), 64)
		return int(x - y)
	})
	return filepath.Dir(newest), nil
}

// Tool finds one of PostgreSQL's programs, of the newest version installed.
func Tool(name string) (string, error) {
	bin, err := programs("")
	return filepath.Join(bin, name), err
}

// initialise makes a cluster in a folder beside the data folder and puts it in its
// place when it is whole, so that an interruption leaves nothing half made.
func (c *Cluster) initialise(ctx context.Context) error {
	// What an interrupted start left goes; a program that outlived it may be tidying up in there, and is in nobody's way.
	left, _ := filepath.Glob(c.dir + unfinishedName + "*")
	for _, dir := range left {
		_ = os.RemoveAll(dir)
	}
	unfinished, err := os.MkdirTemp(filepath.Dir(c.dir), filepath.Base(c.dir)+unfinishedName)
	if err != nil {
		return err
	}
	defer removeAll(unfinished)
	if c.user != nil {
		if err := os.Chown(unfinished, int(c.user.Uid), int(c.user.Gid)); err != nil {
			return err
		}
	}
	cmd := c.command(ctx, "initdb", "--pgdata", unfinished, "--username", admin,
		"--auth-local", "trust", "--auth-host", "reject", "--encoding", "UTF8", "--locale", "C.UTF-8")
	if out, err := cmd.CombinedOutput(); err != nil {
		if ctx.Err() != nil {
			return ctx.Err()
		}
		return fmt.Errorf("initdb: %w: %s", err, lastLine(out))
	}
	if err := os.Remove(c.dir); err != nil && !errors.Is(err, fs.ErrNotExist) {
		return err
	}
	return os.Rename(unfinished, c.dir)
}

// removeAll removes a folder in which a program that was stopped may still be writing for a moment.
func removeAll(dir string) {
	for range 40 {
		if os.RemoveAll(dir) == nil {
			return
		}
		time.Sleep(50 * time.Millisecond)
	}
}

// unfinishedName is what a cluster that is being made is called beside its folder.
const unfinishedName = ".new-"

func lastLine(out []byte) string {
	out = bytes.TrimSpace(out)
	return string(out[bytes.LastIndexByte(out, '\n')+1:])
}
