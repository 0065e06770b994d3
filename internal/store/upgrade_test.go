package store

import (
	"context"
	"database/sql"
	"io/fs"
	"strings"
	"testing"

	"github.com/pressly/goose/v3"

	"wakefield.example/internal/localpg/pgtest"
)

// TestAnUpgradeSeesTheRowsOfEveryCompany takes a database back to the schema before documents were text, as a program of that time left
// it, with its rules of which rows are seen, and opens it anew: what lists show is there as it was.
func TestAnUpgradeSeesTheRowsOfEveryCompany(t *testing.T) {
	ctx := context.Background()
	// As databases are named outside of tests, which see everything.
	url, _, found := strings.Cut(pgtest.Database(t, cluster, "upgraded"), "&options=")
	if !found {
		t.Fatal("how tests name databases is another")
	}
	s, err := Open(ctx, url)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := s.Create(ctx, "b", Note{Author: "Ada", Sentence: "Site made"}, small()); err != nil {
		t.Fatal(err)
	}
	before, err := s.List(ctx)
	if err != nil || len(before) != 1 || before[0].Name != "Brackenhall" {
		t.Fatalf("%+v, %v", before, err)
	}
	s.Close()
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
	if _, err := provider.DownTo(ctx, 14); err != nil {
		t.Fatal(err)
	}
	if s, err = Open(ctx, url); err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	after, err := s.List(ctx)
	if err != nil || len(after) != 1 || after[0].Name != before[0].Name || after[0].Variant != before[0].Variant ||
		after[0].Channels != before[0].Channels {
		t.Errorf("before %+v\nafter %+v, %v", before, after, err)
	}
}
