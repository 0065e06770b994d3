package store

import (
	"context"
	"encoding/json"
	"log/slog"
	"time"

	"github.com/jackc/pgx/v5"
)

// Changed says that a plan has a new version.
type Changed struct {
	Site     string `json:"site"`
	Plan     string `json:"plan"`
	Version  int64  `json:"version"`
	Mark     string `json:"mark" doc:"Which history of the plan it is a version of; another one after a backup was restored"`
	Author   string `json:"author"`
	Sentence string `json:"sentence"`
}

// SiteChanged says that something about a site changed beside what is in its plans.
type SiteChanged struct {
	Site string `json:"site"`
	What string `json:"what" enum:"made,variant,removed,back,adopted,archived,unarchived,named,handover,measured,devices,marked" doc:"The site or a variant was made; a variant was removed, restored, or adopted; the site was archived, or taken out again; a revision was named; steps of a sheet were done, or it was printed; what was found was brought in or taken away; a device was set, read or written; how far the site has come, its place or its tags were said"`
	Plan string `json:"plan" doc:"The plan that it is about; empty for the site as a whole"`
}

// Ears are told what happens in a database.
type Ears struct {
	Changed func(Changed)
	Site    func(SiteChanged)
	// Missed is told when changes of sites may have been missed, and of which epoch the
	// database is now.
	Missed func(epoch string)
	// Away is told when the database does not answer any more, so that nothing can be heard or saved; may be nil.
	Away func()
	// Person is told whose account, links or tokens changed: the id of a person or a link; may be nil.
	Person func(id string)
	// Present is told who is at a site; may be nil.
	Present func(Presence)
}

// Names under which servers on one database tell each other.
const (
	plansTold  = "wakefield_plan"
	sitesTold  = "wakefield_site"
	peopleTold = "wakefield_person"

	presenceTold = "wakefield_present"
)

// Watch tells every change of any plan and site, made through this server or another,
// until the context ends or the store is closed. While the database is away it tries
// again every second. Each time it has begun to listen it says that changes may have been
// missed, and compares the versions there are with those it told of, so that no change of
// a plan is missed, though of several only the last may be told; at the beginning it
// tells of every plan. Where a backup was restored it tells of every plan again.
func (s *Store) Watch(ctx context.Context, log *slog.Logger, ears Ears) {
	ctx, cancel := context.WithCancel(ctx)
	defer cancel()
	defer context.AfterFunc(s.closing, cancel)()
	told := make(map[string]Stamp)
	tell := func(c Changed) {
		if before := told[c.Plan]; c.Mark != before.Mark || c.Version > before.Version {
			told[c.Plan] = Stamp{c.Version, c.Mark}
			ears.Changed(c)
		}
	}
	for ctx.Err() == nil {
		if err := s.listen(ctx, ears, tell); err != nil && ctx.Err() == nil {
			log.Warn("changes of others are not heard", "error", err)
			if ears.Away != nil {
				ears.Away()
			}
		}
		select {
		case <-ctx.Done():
		case <-time.After(time.Second):
		}
	}
}

// listen returns when the connection is lost or the context ends.
func (s *Store) listen(ctx context.Context, ears Ears, tell func(Changed)) error {
	config := s.pool.Config().ConnConfig
	config.RuntimeParams[companySetting] = everything
	conn, err := pgx.ConnectConfig(ctx, config)
	if err != nil {
		return err
	}
	defer conn.Close(context.WithoutCancel(ctx))
	if _, err := conn.Exec(ctx, "listen "+plansTold+"; listen "+sitesTold+"; listen "+peopleTold+"; listen "+presenceTold); err != nil {
		return err
	}
	var epoch string
	if err := conn.QueryRow(ctx, `select mark from epoch`).Scan(&epoch); err != nil {
		return err
	}
	ears.Missed(epoch)
	// What was changed before this connection listened.
	rows, err := conn.Query(ctx,
		`select p.site, p.id, p.version, p.mark, r.author, r.sentence from plan p join revision r on r.plan = p.id and r.number = p.version`)
	if err != nil {
		return err
	}
	newest, err := pgx.CollectRows(rows, pgx.RowToStructByPos[Changed])
	if err != nil {
		return err
	}
	for _, c := range newest {
		tell(c)
	}
	for {
		n, err := conn.WaitForNotification(ctx)
		if err != nil {
			return err
		}
		if err := hear(n.Channel, []byte(n.Payload), ears, tell); err != nil {
			return err
		}
	}
}

func hear(channel string, payload []byte, ears Ears, tell func(Changed)) error {
	if channel == peopleTold {
		if ears.Person != nil {
			ears.Person(string(payload))
		}
		return nil
	}
	if channel == presenceTold {
		var p Presence
		if err := json.Unmarshal(payload, &p); err != nil {
			return err
		}
		if ears.Present != nil {
			ears.Present(p)
		}
		return nil
	}
	if channel == sitesTold {
		var c SiteChanged
		if err := json.Unmarshal(payload, &c); err != nil {
			return err
		}
		ears.Site(c)
		return nil
	}
	var c Changed
	if err := json.Unmarshal(payload, &c); err != nil {
		return err
	}
	tell(c)
	return nil
}

// notice is the payload that tells of a revision; sentences are short enough for the
// 8,000 bytes that PostgreSQL allows it.
func notice(of *Head, r *revision) (string, error) {
	data, err := json.Marshal(Changed{of.Site, of.ID, r.Number, of.Mark, r.Author, r.Sentence})
	return string(data), err
}

// tellSite tells all servers of a change of a site, when the transaction is kept.
func tellSite(ctx context.Context, tx pgx.Tx, c SiteChanged) error {
	payload, err := json.Marshal(c)
	if err != nil {
		return err
	}
	_, err = tx.Exec(ctx, `select pg_notify($1, $2)`, sitesTold, string(payload))
	return err
}
