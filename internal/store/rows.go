package store

import (
	"context"
	_ "embed"
	"fmt"

	"github.com/jackc/pgx/v5"
)

// Which rows are seen depends on the company that a context is of. PostgreSQL holds it by row level security, so that a
// query that forgets to ask sees nothing of others.

type companyKey struct{}

// everything stands for all companies: for what the program itself does.
const everything = "*"

// Of is a context in which only what belongs to a company is there. That of an empty company sees nothing.
func Of(ctx context.Context, company string) context.Context {
	return context.WithValue(ctx, companyKey{}, company)
}

// Everything is a context in which the rows of all companies are there. It is for what has to be known before anybody is
// known, such as whose password it is.
func Everything(ctx context.Context) context.Context { return Of(ctx, everything) }

// companyOf is which company's rows are there in a context. One that says nothing is the program's own.
func companyOf(ctx context.Context) string {
	if company, said := ctx.Value(companyKey{}).(string); said {
		return company
	}
	return everything
}

const companySetting = "wakefield.company"

// companyNow is, in SQL, the company that new rows belong to: the first one where the program itself makes them.
const companyNow = `coalesce(nullif(current_setting('wakefield.company', true), '*'), 'own')`

// seen is the company whose rows a connection shows.
const seen = "company"

// show lets a connection show the rows of a context's company. That takes a message only where it showed others before.
func show(ctx context.Context, conn *pgx.Conn) (bool, error) {
	company := companyOf(ctx)
	if conn.PgConn().CustomData()[seen] == company {
		return true, nil
	}
	delete(conn.PgConn().CustomData(), seen)
	if _, err := conn.Exec(ctx, `select set_config($1, $2, false)`, companySetting, company); err != nil {
		return false, err
	}
	conn.PgConn().CustomData()[seen] = company
	return true, nil
}

//go:embed rows.sql
var rowRules string

// heldTables have rows of one company each, and how that is known.
var heldTables = []struct{ table, isSeen string }{
	{"company", `id = current_setting('wakefield.company', true)`},
	{"site", `company = current_setting('wakefield.company', true)`},
	{"plan", `exists (select from site where site.id = plan.site)`},
	{"revision", `exists (select from plan where plan.id = revision.plan)`},
	{"snapshot", `exists (select from plan where plan.id = snapshot.plan)`},
	{"request", `exists (select from plan where plan.id = request.plan)`},
	{"tick", `exists (select from plan where plan.id = tick.plan)`},
	{"walked", `exists (select from plan where plan.id = walked.plan)`},
	{"brought", `exists (select from site where site.id = brought.site)`},
	{"site_line", `exists (select from site where site.id = site_line.site)`},
	{"kept_search", `company = current_setting('wakefield.company', true)`},
	{"compared", `exists (select from site where site.id = compared.site)`},
	{"device", `exists (select from site where site.id = device.site)`},
	{"device_work", `exists (select from site where site.id = device_work.site)`},
	{"device_call", `exists (select from site where site.id = device_call.site)`},
	{"printed", `exists (select from plan where plan.id = printed.plan)`},
	{"picture", `exists (select from site where site.id = picture.site)`},
	{"link", `exists (select from site where site.id = link.site)`},
	{"viewing", `exists (select from link where link.id = viewing.link)`},
	{"person", `company = current_setting('wakefield.company', true)`},
	{"site_role", `exists (select from person where person.id = site_role.person)`},
	{"passkey", `exists (select from person where person.id = passkey.person)`},
	{"recovery", `exists (select from person where person.id = recovery.person)`},
	{"seat", `exists (select from person where person.id = seat.person)`},
	{"invitation", `company = current_setting('wakefield.company', true)`},
	{"token", `company = current_setting('wakefield.company', true)`},
	{"audit", `company = current_setting('wakefield.company', true)`},
}

// holdRows sets the rules by which rows are seen, where they are not set: a backup has none in it.
func holdRows(ctx context.Context, conn *pgx.Conn) error {
	if held, err := areHeld(ctx, conn); err != nil || held {
		return err
	}
	return pgx.BeginFunc(ctx, conn, func(tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, `select pg_advisory_xact_lock(hashtext('wakefield rows'))`); err != nil {
			return err
		}
		if held, err := areHeld(ctx, tx); err != nil || held {
			return err // another server did it meanwhile
		}
		for _, h := range heldTables {
			rule := fmt.Sprintf(`current_setting('wakefield.company', true) = '*' or %s`, h.isSeen)
			name := pgx.Identifier{h.table}.Sanitize()
			steps := []string{
				`alter table ` + name + ` enable row level security`,
				`alter table ` + name + ` force row level security`,
				`drop policy if exists wakefield_rows on ` + name,
			}
			if h.table == "audit" { // it is added to and read
				steps = append(steps, `drop policy if exists wakefield_added on audit`,
					`create policy wakefield_rows on audit for select using (`+rule+`)`,
					`create policy wakefield_added on audit for insert with check (true)`)
			} else {
				steps = append(steps, `create policy wakefield_rows on `+name+` using (`+rule+`)`)
			}
			for _, sql := range steps {
				if _, err := tx.Exec(ctx, sql); err != nil {
					return err
				}
			}
		}
		_, err := tx.Exec(ctx, rowRules)
		return err
	})
}

// areHeld tells whether the rules are set.
func areHeld(ctx context.Context, q querier) (bool, error) {
	var set int
	err := q.QueryRow(ctx, `select count(*) from pg_class c join pg_policy p on p.polrelid = c.oid
		where c.relnamespace = 'public'::regnamespace and c.relrowsecurity and c.relforcerowsecurity and p.polname like 'wakefield_%'`).Scan(&set)
	return set == len(heldTables)+1, err // the audit has two
}

// lessMight makes a connection that may pass over row level security one that may not.
const lessMight = `do $$ begin
	if (select rolsuper or rolbypassrls from pg_roles where rolname = current_user) then
		set role wakefield_rows;
	end if;
end $$`
