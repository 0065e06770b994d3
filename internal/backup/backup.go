// Package backup writes the whole database of Wakefield into a file, and brings it back from one.
//
// A backup is a dump of PostgreSQL's own programs in their custom format. It is restored into a database beside the one
// that is there: what it is, and of which version, is looked at, it is brought up to date, and every plan of it is read.
// Only then the two are exchanged, in one step, and the one that was there is kept until the next restore. So a restore is
// all or nothing, and servers that run meanwhile see the one database or the other, never something between.
//
// What comes back is another history than the one that was there, though the numbers of its versions are the same: it gets
// a new epoch and new marks (see package store), by which servers and pages know that what they remember is no longer true.
package backup

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"net/url"
	"os"
	"os/exec"
	"regexp"
	"strings"

	"github.com/jackc/pgx/v5"

	"wakefield.example/internal/localpg"
)

// Write writes a database into a file, while it is in use.
func Write(ctx context.Context, database string, out io.Writer) error {
	return run(ctx, "pg_dump", database, nil, out, "--format=custom", "--no-owner", "--no-privileges",
		"--enable-row-security") // rows of all companies, which run asks for
}

// ErrNone says that a file is no backup.
var ErrNone = errors.New("it is no backup of Wakefield")

// check asks what a file holds, by its table of contents; nothing of it is carried out. It returns the contents but for the
// rules by which rows are seen, which are the program's and not the file's.
func check(ctx context.Context, file string, known map[string]bool) (list string, err error) {
	f, err := os.Open(file)
	if err != nil {
		return "", err
	}
	defer f.Close()
	head := make([]byte, 5)
	if _, err := io.ReadFull(f, head); err != nil || string(head) != "PGDMP" {
		return "", ErrNone
	}
	path, err := localpg.Tool("pg_restore")
	if err != nil {
		return "", err
	}
	var says bytes.Buffer
	cmd := exec.CommandContext(ctx, path, "--list", file)
	cmd.Stderr = &says
	all, err := cmd.Output()
	if err != nil {
		return "", fmt.Errorf("%w: %s", ErrNone, strings.TrimSpace(says.String()))
	}
	return contents(string(all), known)
}

// entry is a line of a table of contents: numbers, what it is of what, and whose.
var entry = regexp.MustCompile(`^\d+; \d+ \d+ (TABLE DATA|TABLE|SEQUENCE SET|SEQUENCE OWNED BY|SEQUENCE|DEFAULT|FK CONSTRAINT|CONSTRAINT|INDEX|ROW SECURITY|POLICY|[A-Z][A-Z ]*[A-Z]) (\S+) (\S+)`)

// contents refuses what no backup of Wakefield holds: tables of others, functions, triggers and the like.
func contents(list string, known map[string]bool) (brought string, err error) {
	has := make(map[string]bool)
	for line := range strings.Lines(list) {
		if line = strings.TrimSpace(line); line == "" || strings.HasPrefix(line, ";") {
			continue
		}
		m := entry.FindStringSubmatch(line)
		if m == nil {
			return "", fmt.Errorf("%w: what does %q mean", ErrNone, line)
		}
		kind, schema, name := m[1], m[2], m[3]
		if kind == "ROW SECURITY" || kind == "POLICY" {
			continue
		}
		brought += line + "\n"
		switch kind {
		case "SCHEMA", "COMMENT", "ACL": // of the schema that every database has
			if schema == "-" && (name == "public" || name == "SCHEMA") {
				continue
			}
		case "TABLE", "TABLE DATA", "DEFAULT", "CONSTRAINT", "FK CONSTRAINT":
			if has[name] = true; schema == "public" && known[name] {
				continue
			}
		case "SEQUENCE", "SEQUENCE SET", "SEQUENCE OWNED BY", "INDEX":
			if schema == "public" {
				continue
			}
		}
		return "", fmt.Errorf("%w: there is a %s %s.%s in it, which is not Wakefield's", ErrNone, strings.ToLower(kind), schema, name)
	}
	for _, name := range []string{"plan", "revision", "goose_db_version"} {
		if !has[name] {
			return "", fmt.Errorf("%w: there is no table %s in it", ErrNone, name)
		}
	}
	return brought, nil
}

// run runs one of PostgreSQL's own programs on a database. A password goes by the environment, as others can see a command
// line.
func run(ctx context.Context, name, database string, in io.Reader, out io.Writer, flags ...string) error {
	path, err := localpg.Tool(name)
	if err != nil {
		return err
	}
	config, err := pgx.ParseConfig(database)
	if err != nil {
		return err
	}
	cmd := exec.CommandContext(ctx, path, append(flags, "--dbname="+withoutPassword(database))...)
	cmd.Env = append(os.Environ(), "PGPASSWORD="+config.Password, "PGOPTIONS=-c wakefield.company=*")
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
func withoutPassword(database string) string {
	return passwords.ReplaceAllStringFunc(database, func(found string) string {
		if m := passwords.FindStringSubmatch(found); m[1] != "" {
			return m[1] + "@"
		}
		return ""
	})
}

// at is the URL, or the list of settings, of another database on the same server.
func at(database, name string) (string, error) {
	if !strings.HasPrefix(database, "postgres://") && !strings.HasPrefix(database, "postgresql://") {
		quoted := strings.NewReplacer(`\`, `\\`, `'`, `\'`).Replace(name)
		return database + " dbname='" + quoted + "'", nil
	}
	u, err := url.Parse(database)
	if err != nil {
		return "", err
	}
	query := u.Query()
	query.Del("dbname")
	u.Path, u.RawPath, u.RawQuery = "/"+name, "", strings.ReplaceAll(query.Encode(), "+", "%20") // PostgreSQL reads no + as a space
	return u.String(), nil
}
