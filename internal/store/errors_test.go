package store

import (
	"context"
	"errors"
	"fmt"
	"io"
	"strings"
	"sync"
	"testing"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"

	"wakefield.example/internal/localpg/pgtest"
)

func TestANewerDatabaseIsRefused(t *testing.T) {
	ctx, s, _ := made(t)
	if _, err := s.pool.Exec(ctx, `insert into goose_db_version (version_id, is_applied) values (99, true)`); err != nil {
		t.Fatal(err)
	}
	if again, err := Open(ctx, s.pool.Config().ConnString()); err == nil || !strings.Contains(err.Error(), "newer Wakefield") {
		t.Errorf("%v", err)
		again.Close()
	}
}

func TestManyFirstStartsAtOnce(t *testing.T) {
	url := pgtest.Database(t, cluster, t.Name())
	var group sync.WaitGroup
	for range 6 {
		group.Go(func() {
			s, err := Open(context.Background(), url)
			if err != nil {
				t.Error(err)
				return
			}
			s.Close()
		})
	}
	group.Wait()
}

func TestTroubleOf(t *testing.T) {
	pg := func(code string) error { return fmt.Errorf("saving: %w", &pgconn.PgError{Code: code}) }
	for _, test := range []struct {
		err  error
		want Trouble
	}{
		{nil, None}, {errors.New("no plan"), None}, {ErrNotFound, None}, {context.Canceled, None},
		{pg("53100"), Full}, {pg("53300"), Away}, {pg("57P01"), Away}, {pg("08006"), Away}, {pg("58030"), Away},
		{pg("25006"), ReadOnly}, {pg("22021"), Refused}, {pg("23505"), Refused},
		{fmt.Errorf("reading: %w", io.ErrUnexpectedEOF), Away}, {&UnsureError{io.EOF}, Away},
	} {
		if got := TroubleOf(test.err); got != test.want {
			t.Errorf("%v: %v, want %v", test.err, got, test.want)
		}
	}
	_, err := pgx.Connect(context.Background(), "postgres://nobody@127.0.0.1:1/none?connect_timeout=2")
	if TroubleOf(err) != Away {
		t.Errorf("no server: %v", err)
	}
}

func TestProbeTellsWhetherItCanWrite(t *testing.T) {
	ctx, s, _ := made(t)
	if err := s.Probe(ctx); err != nil {
		t.Fatal(err)
	}
	name := s.pool.Config().ConnConfig.Database
	if _, err := s.pool.Exec(ctx, "alter database "+pgx.Identifier{name}.Sanitize()+" set default_transaction_read_only = on"); err != nil {
		t.Fatal(err)
	}
	s.pool.Reset()
	if err := s.Probe(ctx); TroubleOf(err) != ReadOnly {
		t.Errorf("%v", err)
	}
	if err := s.Ping(ctx); err != nil {
		t.Errorf("it can still be read: %v", err)
	}
}
