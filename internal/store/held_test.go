package store

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"testing"

	"github.com/jackc/pgx/v5"

	"wakefield.example/internal/localpg/pgtest"
)

// two is a store with a site of each of two companies, and somebody at each.
func two(t *testing.T) *Store {
	t.Helper()
	s, ctx := open(t), context.Background()
	for _, company := range []string{"own", "other"} {
		err := s.AddPerson(ctx, Person{ID: "person-" + company, Company: company, Name: company, Planner: true,
			Secrets: Secrets{Key: company, Handle: []byte(company)}})
		if err != nil {
			t.Fatal(err)
		}
		if _, err := s.Create(Of(ctx, company), "site-"+company, Note{Author: "Test"}, small()); err != nil {
			t.Fatal(err)
		}
	}
	return s
}

// TestRowsOfOthersAreNotThere asks PostgreSQL itself for every row of every table, without a word on whose it is to be.
func TestRowsOfOthersAreNotThere(t *testing.T) {
	s, ctx := two(t), context.Background()
	fill(t, s)
	for _, h := range heldTables {
		count := func(ctx context.Context) (n int) {
			if err := s.pool.QueryRow(ctx, `select count(*) from `+pgx.Identifier{h.table}.Sanitize()).Scan(&n); err != nil {
				t.Fatal(err)
			}
			return n
		}
		all, own, other, nobodys := count(ctx), count(Of(ctx, "own")), count(Of(ctx, "other")), count(Of(ctx, ""))
		if all < 2 || own == 0 || other == 0 || own+other != all || nobodys != 0 {
			t.Errorf("%s: of %d rows one company sees %d, the other %d, nobody %d", h.table, all, own, other, nobodys)
		}
	}
	// And what is written is only one's own.
	for _, sql := range []string{
		`delete from site where id = 'site-other'`,
		`update plan set version = 9 where site = 'site-other'`,
		`update person set planner = true where company = 'other'`,
		`update site set company = 'own' where id = 'site-other'`,
	} {
		tag, err := s.pool.Exec(Of(ctx, "own"), sql)
		if err != nil || tag.RowsAffected() != 0 {
			t.Errorf("%s: %v, %v", sql, tag, err)
		}
	}
	if _, err := s.pool.Exec(Of(ctx, "own"), `update site set company = 'other' where id = 'site-own'`); err == nil {
		t.Error("a site was given to others")
	}
	if _, err := s.Load(Of(ctx, "own"), "site-other"); !errors.Is(err, ErrNotFound) {
		t.Errorf("%v", err)
	}
	list, err := s.List(Of(ctx, "other"))
	if err != nil || len(list) != 1 || list[0].ID != "site-other" {
		t.Errorf("%+v, %v", list, err)
	}
}

// fill puts a row of each company into every table that has none yet.
func fill(t *testing.T, s *Store) {
	t.Helper()
	for _, company := range []string{"own", "other"} {
		ctx := Of(context.Background(), company)
		for _, sql := range []string{
			`insert into snapshot (plan, number, document) values ('site-%[1]s', 1, '{}') on conflict do nothing`,
			`insert into request (key, what, plan, number) values ('%[1]s', '', 'site-%[1]s', 1)`,
			`insert into tick (plan, recorder, key, subject, step, words, revision, author) values ('site-%[1]s', 'r', 'k', 's', '1', 'w', 1, 'A')`,
			`insert into printed (plan, recorder, revision, author) values ('site-%[1]s', 'r', 1, 'A')`,
			`insert into walked (plan, id, kind, about, said, revision, noted_by, author, at, clock)
				values ('site-%[1]s', 'w', 'walk', 'c', '{}', 1, 'A', 'A', now(), 'phone')`,
			`insert into brought (site, id, kind, name, said, author) values ('site-%[1]s', 'b', 'rates', 'n', '{}', 'A')`,
			`insert into site_line (site) values ('site-%[1]s') on conflict do nothing`,
			`insert into kept_search (company, name, said) values ('%[1]s', 'n', '{}')`,
			`insert into compared (site, said) values ('site-%[1]s', '{}')`,
			`insert into device (site, id, address) values ('site-%[1]s', 'd', 'a')`,
			`insert into device_work (site, device, what, holder, author, until) values ('site-%[1]s', 'd', 'read', 'h', 'A', now())`,
			`insert into device_call (site, device, author, call, ended) values ('site-%[1]s', 'd', 'A', 'c', 'e')`,
			`insert into picture (site, id, width, height, jpeg) values ('site-%[1]s', 'p', 1, 1, '')`,
			`insert into link (id, site, plan, name, hash, shows, made_by, expires_at) values ('%[1]s', 'site-%[1]s', 'site-%[1]s', 'n', '%[1]s', '[]', 'm', now())`,
			`insert into viewing (link, what, address) values ('%[1]s', 'w', 'a')`,
			`insert into site_role (person, site, role) values ('person-%[1]s', 'site-%[1]s', 'reader')`,
			`insert into passkey (id, person, name, credential) values ('%[1]s', 'person-%[1]s', 'n', '{}')`,
			`insert into recovery (person, hash) values ('person-%[1]s', 'h')`,
			`insert into seat (id, person, device, address, expires_at) values ('%[1]s', 'person-%[1]s', 'd', 'a', now())`,
			`insert into invitation (hash, company, kind, expires_at) values ('%[1]s', '%[1]s', 'invited', now())`,
			`insert into token (id, company, person, name, hash, writes, expires_at) values ('%[1]s', '%[1]s', 'person-%[1]s', 'n', '%[1]s', false, now())`,
			`insert into audit (company, who, what) values ('%[1]s', 'w', 'x')`,
		} {
			if _, err := s.pool.Exec(ctx, fmt.Sprintf(sql, company)); err != nil {
				t.Fatalf("%s: %v", sql, err)
			}
		}
	}
}

// TestEveryTableIsHeld asks of every table whether it is said whose rows it has.
func TestEveryTableIsHeld(t *testing.T) {
	tables, err := Tables()
	if err != nil {
		t.Fatal(err)
	}
	// What is of no company: versions of tables, a row to write to, which history it is, and what cookies lead to.
	for _, free := range []string{"goose_db_version", "probe", "epoch", "sessions"} {
		delete(tables, free)
	}
	for table := range tables {
		if !slices.ContainsFunc(heldTables, func(h struct{ table, isSeen string }) bool { return h.table == table }) {
			t.Errorf("nobody says whose the rows of %s are", table)
		}
	}
}

// TestTheAuditStays tries to change and remove a line of it.
func TestTheAuditStays(t *testing.T) {
	s, ctx := open(t), context.Background()
	if err := s.Audit(ctx, Happened{Who: "Ada", What: "signed-in"}); err != nil {
		t.Fatal(err)
	}
	for _, sql := range []string{`update audit set who = 'Eve'`, `delete from audit`} {
		if tag, err := s.pool.Exec(ctx, sql); err == nil && tag.RowsAffected() != 0 {
			t.Errorf("%s did", sql)
		}
	}
	list, err := s.Audited(ctx, Asked{Text: "ada", Limit: 10})
	if err != nil || len(list) != 1 || list[0].Who != "Ada" {
		t.Errorf("%+v, %v", list, err)
	}
}

// TestASuperuserSeesNoMore connects as one who passes over row level security.
func TestASuperuserSeesNoMore(t *testing.T) {
	name := t.Name()
	pgtest.Database(t, cluster, name)
	s, err := Open(context.Background(), cluster.AdminURL(name))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(s.Close)
	ctx := context.Background()
	if _, err := s.Create(Of(ctx, "own"), "site", Note{Author: "Test"}, small()); err != nil {
		t.Fatal(err)
	}
	var n int
	if err := s.pool.QueryRow(Of(ctx, "other"), `select count(*) from plan`).Scan(&n); err != nil || n != 0 {
		t.Errorf("%d plans, %v", n, err)
	}
	if err := s.Audit(ctx, Happened{Who: "Ada", What: "signed-in"}); err != nil {
		t.Fatal(err)
	}
	if _, err := s.pool.Exec(ctx, `delete from audit`); err == nil {
		t.Error("the audit can be removed")
	}
}
