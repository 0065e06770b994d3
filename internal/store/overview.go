package store

import (
	"context"
	"encoding/json"
	"time"

	"github.com/jackc/pgx/v5"
)

// Stage is how far a site has come.
type Stage string

const (
	Planned Stage = "planned" // being planned
	Handed  Stage = "handed"  // handed over
	Measure Stage = "measure" // to be measured
	// Template is a site that is no place: others take from it how the company plans.
	Template Stage = "template"
)

// DueLine is a site whose line is of another version of its plan, or by another method, than they are.
type DueLine struct {
	Site, Plan, Company string
	Stamp
}

// lineDue is, in SQL, whether a line l is not of the adopted plan p as it is, by method $1.
const lineDue = `(l.site is null or l.plan <> p.id or l.version <> p.version or l.mark <> p.mark or l.method <> $1)`

// Pace is how lines are made.
type Pace struct {
	Most  int           // held at once
	Hold  time.Duration // after which others make what one held and did not
	Quiet time.Duration // for which a plan has to rest before its line is made anew: one that is worked on changes all the time
	Least time.Duration // after which it is made all the same
}

// DueLines holds some sites whose lines are to be made, for a while, so that no other server makes them too: those that were never made
// first, then those whose plan changed and rests, the newest first, then those of another method; archived ones last.
func (s *Store) DueLines(ctx context.Context, method string, pace Pace) (due []DueLine, err error) {
	err = s.inTransaction(ctx, Patience, func(ctx context.Context, tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, `insert into site_line (site) select id from site where not exists (select from site_line l where l.site = site.id)
			on conflict do nothing`); err != nil {
			return err
		}
		rows, err := tx.Query(ctx, `with due as (
				select l.site, p.id as plan, p.version, p.mark, s.company from site_line l join site s on s.id = l.site join plan p on p.id = s.adopted
				where l.held < now() and `+lineDue+` and
					(l.made_at is null or l.plan <> p.id or l.version = p.version or p.changed_at < now() - $4::interval or l.made_at < now() - $5::interval)
				order by s.archived_at is not null, l.plan = p.id and l.version = p.version, p.changed_at desc, l.site limit $2
				for update of l skip locked)
			update site_line l set held = now() + $3 from due where l.site = due.site
			returning due.site, due.plan, due.company, due.version, due.mark`, method, pace.Most, pace.Hold, pace.Quiet, pace.Least)
		if err != nil {
			return err
		}
		due, err = pgx.CollectRows(rows, func(row pgx.CollectableRow) (d DueLine, err error) {
			return d, row.Scan(&d.Site, &d.Plan, &d.Company, &d.Version, &d.Mark)
		})
		return err
	})
	return due, err
}

// Made is a line that was made.
type Made struct {
	DueLine
	Method string
	Said   json.RawMessage // nil for a plan that cannot be read
	Found  json.RawMessage // findings by rule
	Words  json.RawMessage
	Lower  string
}

// MakeLine keeps a site's line. moved tells of the line of the same version by another method whether that is worth remembering.
func (s *Store) MakeLine(ctx context.Context, m Made, moved func(was json.RawMessage) bool) error {
	return s.inTransaction(ctx, Patience, func(ctx context.Context, tx pgx.Tx) error {
		var was json.RawMessage
		var of DueLine
		var method string
		err := tx.QueryRow(ctx, `select plan, version, mark, method, said from site_line where site = $1 for update`, m.Site).
			Scan(&of.Plan, &of.Version, &of.Mark, &method, &was)
		if err != nil {
			return orNone(err, ErrNotFound)
		}
		if of.Plan != m.Plan || of.Stamp != m.Stamp || method == m.Method || was == nil || m.Said == nil || moved == nil || !moved(was) {
			was = nil
		}
		_, err = tx.Exec(ctx, `update site_line set plan = $2, version = $3, mark = $4, method = $5, said = $6, found = $7, words = $8, lower = $9, was = $10,
			made_at = now(), held = '-infinity' where site = $1`, m.Site, m.Plan, m.Version, m.Mark, m.Method, m.Said, m.Found, m.Words, m.Lower, was)
		return err
	})
}

// LineOf is what is known of a site for search.
type LineOf struct {
	Site, Name string
	Words      json.RawMessage
	Place      string
	Tags       []string
}

// mostFoundSites is how many sites a search looks into.
const mostFoundSites = 500

// Search returns what can be searched for of sites that have every one of some words, in small letters, somewhere.
func (s *Store) Search(ctx context.Context, words []string) ([]LineOf, error) {
	rows, err := s.pool.Query(ctx, `select s.id, coalesce(p.site_name, s.id), coalesce(l.words, '[]'), s.place, s.tags
		from site s join plan p on p.id = s.adopted left join site_line l on l.site = s.id
		where not exists (select from unnest($1::text[]) word where strpos(coalesce(l.lower, ''), word) = 0
			and strpos(lower(concat_ws(' ', p.site_name, p.customer, s.place, array_to_string(s.tags, ' '))), word) = 0)
		order by s.archived_at is not null, p.changed_at desc, s.id limit $2`, words, mostFoundSites)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowToStructByPos[LineOf])
}

// WordsOf is what can be searched for of some sites whose lines are of the adopted plan as it is, by id.
func (s *Store) WordsOf(ctx context.Context, sites []string) (map[string]LineOf, error) {
	rows, err := s.pool.Query(ctx, `select s.id, coalesce(p.site_name, s.id), l.words, s.place, s.tags
		from site s join plan p on p.id = s.adopted join site_line l on l.site = s.id
		where s.id = any($1) and l.plan = p.id and l.version = p.version and l.mark = p.mark and l.said is not null`, sites)
	if err != nil {
		return nil, err
	}
	list, err := pgx.CollectRows(rows, pgx.RowToStructByPos[LineOf])
	out := make(map[string]LineOf, len(list))
	for _, l := range list {
		out[l.Site] = l
	}
	return out, err
}

// FoundAt is what a site's line says of it, with its findings by rule.
type FoundAt struct {
	Site, Customer string
	Said, Found    json.RawMessage
}

// FoundAtAll is that of all sites in work whose lines are of the adopted plan as it is.
func (s *Store) FoundAtAll(ctx context.Context) ([]FoundAt, error) {
	rows, err := s.pool.Query(ctx, `select s.id, coalesce(p.customer, ''), l.said, l.found
		from site s join plan p on p.id = s.adopted join site_line l on l.site = s.id
		where s.archived_at is null and s.stage <> 'template' and l.plan = p.id and l.version = p.version and l.mark = p.mark and l.said is not null order by s.id`)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowToStructByPos[FoundAt])
}

// Places is how many sites in work are places, and no templates.
func (s *Store) Places(ctx context.Context) (n int, err error) {
	err = s.pool.QueryRow(ctx, `select count(*) from site where archived_at is null and stage <> 'template'`).Scan(&n)
	return n, err
}

// Progress is how many lines are of the adopted plan as it is, by a method.
type Progress struct {
	Done  int
	Total int
	Moved []MovedSite // by the newest method, whose lines are another than that before said
}

// MovedSite is a site whose line a new method moved.
type MovedSite struct {
	Site, Name string
	Was, Now   json.RawMessage
}

// LinesMade tells how far the lines by a method are, of sites in work, and what moved by it.
func (s *Store) LinesMade(ctx context.Context, method string) (p Progress, err error) {
	const from = ` from site s join plan p on p.id = s.adopted left join site_line l on l.site = s.id where s.archived_at is null`
	if err = s.pool.QueryRow(ctx, `select count(*), count(*) filter (where not `+lineDue+`)`+
		from, method).Scan(&p.Total, &p.Done); err != nil {
		return p, err
	}
	rows, err := s.pool.Query(ctx, `select s.id, coalesce(p.site_name, s.id), l.was, l.said`+from+`
		and l.was is not null and not `+lineDue+` order by s.id`, method)
	if err != nil {
		return p, err
	}
	p.Moved, err = pgx.CollectRows(rows, pgx.RowToStructByPos[MovedSite])
	return p, err
}

// Marks are what people say of sites; what is nil stays as it is.
type Marks struct {
	Stage    *Stage
	Place    *string
	Tag      []string // are added
	Untag    []string // are taken away
	Archived *bool
}

// MostTags is how many tags a site has at most.
const MostTags = 30

// Mark says something of several sites, of all or of none. It fails with ErrNotFound where one of them is not there, and with
// ErrTags where one would have too many.
func (s *Store) Mark(ctx context.Context, sites []string, m Marks) error {
	return s.inTransaction(ctx, Patience, func(ctx context.Context, tx pgx.Tx) error {
		var there int
		if err := tx.QueryRow(ctx, `select count(*) from (select from site where id = any($1) order by id for update) x`,
			sites).Scan(&there); err != nil {
			return err
		}
		if there < len(sites) {
			return ErrNotFound
		}
		rows, err := tx.Query(ctx, `with next as (
				select id, array(select distinct t from unnest(tags || $4::text[]) t where t <> all($5::text[]) order by t) as tags from site where id = any($1))
			update site s set stage = coalesce($2, s.stage), place = coalesce($3, s.place), tags = next.tags,
				archived_at = case when $6::boolean then coalesce(s.archived_at, now()) when $6 is null then s.archived_at end
			from next where s.id = next.id returning s.id, cardinality(s.tags)`, sites, m.Stage, m.Place, orNothing(m.Tag), orNothing(m.Untag), m.Archived)
		if err != nil {
			return err
		}
		var site string
		var tags int
		tooMany := false
		_, err = pgx.ForEachRow(rows, []any{&site, &tags}, func() error {
			tooMany = tooMany || tags > MostTags
			return nil
		})
		if err == nil && tooMany {
			err = ErrTags
		}
		what := "marked"
		if m.Archived != nil {
			what = map[bool]string{true: "archived", false: "unarchived"}[*m.Archived]
		}
		for _, id := range sites {
			if err == nil {
				err = tellSite(ctx, tx, SiteChanged{Site: id, What: what})
			}
		}
		return err
	})
}

// orNothing is a list that is not null in SQL.
func orNothing(list []string) []string {
	if list == nil {
		return []string{}
	}
	return list
}

// KeptSearch is a search that somebody keeps.
type KeptSearch struct {
	Name string
	Said json.RawMessage
}

// Searches are those that somebody keeps, by name; person is empty where nobody signs in.
func (s *Store) Searches(ctx context.Context, person string) ([]KeptSearch, error) {
	rows, err := s.pool.Query(ctx, `select name, said from kept_search where company = `+companyNow+` and person = $1 order by name`, person)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowToStructByPos[KeptSearch])
}

// MostSearches is how many somebody keeps at most.
const MostSearches = 50

// KeepSearch keeps one, in the place of one of that name. It fails with ErrSearches where there are too many.
func (s *Store) KeepSearch(ctx context.Context, person string, k KeptSearch) error {
	return s.inTransaction(ctx, Patience, func(ctx context.Context, tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, `insert into kept_search (company, person, name, said) values (`+companyNow+`, $1, $2, $3)
			on conflict (company, person, name) do update set said = excluded.said`, person, k.Name, k.Said); err != nil {
			return err
		}
		var n int
		err := tx.QueryRow(ctx, `select count(*) from kept_search where company = `+companyNow+` and person = $1`, person).Scan(&n)
		if err == nil && n > MostSearches {
			err = ErrSearches
		}
		return err
	})
}

// ForgetSearch forgets one; where there is none of the name, there is none then either.
func (s *Store) ForgetSearch(ctx context.Context, person, name string) error {
	_, err := s.pool.Exec(ctx, `delete from kept_search where company = `+companyNow+` and person = $1 and name = $2`, person, name)
	return err
}
