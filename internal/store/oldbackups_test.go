package store

import (
	"context"
	"database/sql"
	"flag"
	"fmt"
	"io/fs"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"github.com/pressly/goose/v3"

	"wakefield.example/internal/localpg"
	"wakefield.example/internal/localpg/pgtest"
)

var makeBackups = flag.Bool("backups", false, "make the backups of every schema that package backup restores in its tests")

// TestEverySchemaHasABackup asks for a backup of every schema there ever was, which the tests of package backup restore.
// With -backups it makes those that are missing: once for each migration, before the next one comes.
func TestEverySchemaHasABackup(t *testing.T) {
	names, err := migrations.ReadDir("migrations")
	if err != nil {
		t.Fatal(err)
	}
	for version := int64(1); version <= int64(len(names)); version++ {
		file := filepath.Join("..", "backup", "testdata", fmt.Sprintf("schema-%d.backup", version))
		if _, err := os.Stat(file); err == nil {
			continue
		}
		if !*makeBackups {
			t.Errorf("there is no backup of schema %d: go test ./internal/store -run EverySchema -backups makes one", version)
			continue
		}
		makeBackup(t, version, file)
	}
}

// makeBackup makes a database as the program with so many migrations had it: a site, changed once.
func makeBackup(t *testing.T, version int64, file string) {
	ctx := context.Background()
	url := pgtest.Database(t, cluster, fmt.Sprint("schema", version))
	db, err := sql.Open("pgx", url)
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	files, err := fs.Sub(migrations, "migrations")
	if err != nil {
		t.Fatal(err)
	}
	provider, err := goose.NewProvider(goose.DialectPostgres, db, files)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := provider.UpTo(ctx, version); err != nil {
		t.Fatal(err)
	}
	document, err := rename(&Head{Plan: small()}, "Changed").Bytes()
	if err != nil {
		t.Fatal(err)
	}
	var steps []string
	if version >= 5 {
		steps = append(steps, `insert into site (id, adopted) values ('orchard', 'orchard')`)
		steps = append(steps, `insert into plan (id, site, version, document, undo_next) values ('orchard', 'orchard', 2, '`+
			string(document)+`', 2)`)
	} else {
		steps = append(steps, `insert into plan (id, version, document, undo_next) values ('orchard', 2, '`+string(document)+`', 2)`)
	}
	if version >= 15 {
		steps = append(steps, `update plan set site_name = 'Brackenhall', customer = '', variant = 'Changed', channels = 1`)
	}
	steps = append(steps,
		`insert into revision (plan, number, kind, author, sentence, forward, backward) values ('orchard', 1, 'made', 'Ada', 'Site made', '[]', '[]')`,
		`insert into revision (plan, number, kind, author, sentence, forward, backward, undo_next) values ('orchard', 2, 'edit', 'Ada', 'Name: Changed',
			'[{"op": "replace", "path": "/name", "value": "Changed"}]', '[{"op": "replace", "path": "/name", "value": "As surveyed"}]', 2)`)
	switch {
	case version >= 8:
		steps = append(steps, `insert into request (key, what, plan, number) values ('key-1', 'POST /x', 'orchard', 2)`)
	case version >= 3:
		steps = append(steps, `update revision set request = 'key-1' where number = 2`)
	}
	tx, err := db.BeginTx(ctx, nil)
	if err != nil {
		t.Fatal(err)
	}
	for _, statement := range steps {
		if _, err := tx.ExecContext(ctx, statement); err != nil {
			t.Fatalf("schema %d: %s: %v", version, statement, err)
		}
	}
	if err := tx.Commit(); err != nil {
		t.Fatal(err)
	}
	tool, err := localpg.Tool("pg_dump")
	if err != nil {
		t.Fatal(err)
	}
	if out, err := exec.Command(tool, "--format=custom", "--no-owner", "--no-privileges", "--file="+file, "--dbname="+
		url).CombinedOutput(); err != nil {
		t.Fatalf("%v: %s", err, out)
	}
}
