package main

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"os/exec"
	"regexp"
	"strings"

	"github.com/jackc/pgx/v5"

	"wakefield/internal/localpg"
	"wakefield/internal/store"
)

// backupCommand writes the whole database into a file.
type backupCommand struct {
	chosen
	File string `arg:"" type:"path" help:"File to write; it must not be there yet."`
}

func (c *backupCommand) Run() error {
	ctx, stop := untilStopped()
	defer stop()
	url, leave, err := c.open(ctx)
	if err != nil {
		return err
	}
	defer leave()
	file, err := os.OpenFile(c.File, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
	if err != nil {
		return err
	}
	err = runTool(ctx, "pg_dump", url, nil, file, "--format=custom", "--no-owner", "--no-privileges")
	if err = errors.Join(err, file.Sync(), file.Close()); err != nil {
		os.Remove(c.File)
		return err
	}
	fmt.Println("The whole database is in", c.File)
	return nil
}

// restoreCommand brings a database back from a file.
type restoreCommand struct {
	chosen
	File string `arg:"" type:"existingfile" help:"File that wakefield backup wrote."`
	Yes  bool   `help:"Do not ask before sites are replaced."`
}

func (c *restoreCommand) Run() error {
	ctx, stop := untilStopped()
	defer stop()
	url, leave, err := c.open(ctx)
	if err != nil {
		return err
	}
	defer leave()
	file, err := os.Open(c.File)
	if err != nil {
		return err
	}
	defer file.Close()
	head := make([]byte, 5)
	if _, err := io.ReadFull(file, head); err != nil || string(head) != "PGDMP" {
		return fmt.Errorf("%s is no backup of Wakefield", c.File)
	}
	if _, err := file.Seek(0, io.SeekStart); err != nil {
		return err
	}
	sites, err := sitesIn(ctx, url)
	if err != nil {
		return err
	}
	if sites > 0 && !c.Yes {
		if err := confirm(fmt.Sprintf("The %d sites that are in the database now are replaced by those in %s.", sites, c.File)); err != nil {
			return err
		}
	}
	// All or nothing: what is there goes only when the backup is whole.
	if err := runTool(ctx, "pg_restore", url, file, io.Discard, "--clean", "--if-exists", "--no-owner", "--no-privileges", "--single-transaction", "--exit-on-error"); err != nil {
		return fmt.Errorf("nothing was replaced: %w", err)
	}
	s, err := store.Open(ctx, url) // a backup of an older Wakefield is brought up to date
	if err != nil {
		return err
	}
	defer s.Close()
	list, err := s.List(ctx)
	if err != nil {
		return err
	}
	fmt.Printf("%d sites are back from %s\n", len(list), c.File)
	return nil
}

// sitesIn counts the sites of a database, which may be empty.
func sitesIn(ctx context.Context, url string) (n int, err error) {
	conn, err := pgx.Connect(ctx, url)
	if err != nil {
		return 0, err
	}
	defer conn.Close(ctx)
	var there bool
	if err := conn.QueryRow(ctx, `select to_regclass('public.plan') is not null`).Scan(&there); err != nil || !there {
		return 0, err
	}
	err = conn.QueryRow(ctx, `select count(*) from plan`).Scan(&n)
	return n, err
}

// runTool runs one of PostgreSQL's own programs on a database. A password goes by the
// environment, as others can see a command line.
func runTool(ctx context.Context, name, url string, in io.Reader, out io.Writer, flags ...string) error {
	path, err := localpg.Tool(name)
	if err != nil {
		return err
	}
	config, err := pgx.ParseConfig(url)
	if err != nil {
		return err
	}
	cmd := exec.CommandContext(ctx, path, append(flags, "--dbname="+withoutPassword(url))...)
	cmd.Env = append(os.Environ(), "PGPASSWORD="+config.Password)
	cmd.Stdin, cmd.Stdout = in, out
	var says bytes.Buffer
	cmd.Stderr = &says
	if err := cmd.Run(); err != nil {
		return fmt.Errorf("%s: %w: %s", name, err, strings.TrimSpace(says.String()))
	}
	return nil
}

var passwords = regexp.MustCompile(`(://[^:/@?]*):[^@/?]*@|\s*\bpassword\s*=\s*('(?:[^'\\]|\\.)*'|\S+)`)

// withoutPassword is a database URL, or a list of settings, with no password in it.
func withoutPassword(url string) string {
	return passwords.ReplaceAllStringFunc(url, func(found string) string {
		if m := passwords.FindStringSubmatch(found); m[1] != "" {
			return m[1] + "@"
		}
		return ""
	})
}

// deleteCommand removes a site for good.
type deleteCommand struct {
	chosen
	Site string `arg:"" help:"Id of the site, as in its address; it must have been archived."`
	Yes  bool   `help:"Do not ask."`
}

func (c *deleteCommand) Run() error {
	return c.withStore(func(ctx context.Context, s *store.Store) error {
		head, err := s.Load(ctx, c.Site)
		if err != nil {
			return named(c.Site, err)
		}
		if !c.Yes {
			if err := confirm(fmt.Sprintf("%s goes for good, with its %d revisions.", c.Site, head.Version)); err != nil {
				return err
			}
		}
		err = s.Delete(ctx, c.Site)
		if errors.Is(err, store.ErrNotArchived) {
			return fmt.Errorf("%s is worked on; archive it first, on the page of all sites", c.Site)
		}
		if err == nil {
			fmt.Println(c.Site, "is gone")
		}
		return named(c.Site, err)
	})
}

// thinCommand removes old revisions of a site.
type thinCommand struct {
	chosen
	Site string `arg:"" help:"Id of the site, as in its address."`
	Keep int64  `default:"1000" help:"How many of the newest revisions stay; those before can be neither seen nor returned to."`
}

func (c *thinCommand) Run() error {
	if c.Keep < 1 {
		return errors.New("--keep: at least 1 revision stays, the plan as it stands")
	}
	return c.withStore(func(ctx context.Context, s *store.Store) error {
		removed, err := s.Thin(ctx, c.Site, c.Keep)
		if err == nil {
			fmt.Printf("%d revisions of %s are gone\n", removed, c.Site)
		}
		return named(c.Site, err)
	})
}

// named says which site an error is about.
func named(site string, err error) error {
	if err != nil {
		return fmt.Errorf("%s: %w", site, err)
	}
	return nil
}

// withStore does something with the database chosen.
func (c chosen) withStore(do func(context.Context, *store.Store) error) error {
	ctx, stop := untilStopped()
	defer stop()
	url, leave, err := c.open(ctx)
	if err != nil {
		return err
	}
	defer leave()
	s, err := store.Open(ctx, url)
	if err != nil {
		return err
	}
	defer s.Close()
	return do(ctx, s)
}
