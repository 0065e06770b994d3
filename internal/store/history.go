package store

import (
	"context"
	"fmt"
	"regexp"

	"github.com/jackc/pgx/v5"

	"wakefield.example/core/plan"
)

// Tables are the names of all tables that a database of this or an older Wakefield may have.
func Tables() (map[string]bool, error) {
	made := regexp.MustCompile(`(?m)^create table (\w+)`)
	tables := map[string]bool{"goose_db_version": true}
	entries, err := migrations.ReadDir("migrations")
	if err != nil {
		return nil, err
	}
	for _, e := range entries {
		sql, err := migrations.ReadFile("migrations/" + e.Name())
		if err != nil {
			return nil, err
		}
		for _, m := range made.FindAllSubmatch(sql, -1) {
			tables[string(m[1])] = true
		}
	}
	return tables, nil
}

// Unreadables are the plans that this program cannot read, each with why.
func (s *Store) Unreadables(ctx context.Context) (bad []string, err error) {
	rows, err := s.pool.Pool.Query(ctx, `select id, document from plan order by id`)
	if err != nil {
		return nil, err
	}
	var id string
	var document []byte
	_, err = pgx.ForEachRow(rows, []any{&id, &document}, func() error {
		if _, err := plan.Restore(document); err != nil {
			bad = append(bad, fmt.Sprintf("%s: %v", id, err))
		}
		return nil
	})
	return bad, err
}

// BeginHistory gives the database and every plan a mark that no history had before: who made a change on another one, or
// remembers it, is told so. Nobody is signed in any more: who was signed out since may not be in again.
func (s *Store) BeginHistory(ctx context.Context) error {
	return s.inTransaction(ctx, 100*Patience, func(ctx context.Context, tx pgx.Tx) error {
		for _, sql := range []string{`update epoch set mark = gen_random_uuid()::text`, `delete from seat`, `delete from sessions`} {
			if _, err := tx.Exec(ctx, sql); err != nil {
				return err
			}
		}
		_, err := tx.Exec(ctx, `update plan set mark = gen_random_uuid()::text`)
		return err
	})
}
