package store

import (
	"context"
	"encoding/json"
	"errors"
	"time"

	"github.com/jackc/pgx/v5"
)

// Device is a recorder or a camera of a site that is spoken with. Its secret is sealed.
type Device struct {
	ID          string
	Recorder    string // id in the plans; empty for a camera of a channel
	Channel     string
	Address     string
	Username    string
	Secret      []byte
	Fingerprint string
	Daily       bool
	Said        json.RawMessage // what was read last; nil before
	SaidAt      *time.Time
	Before      json.RawMessage // what was read before anything was written
	BeforeAt    *time.Time
	Written     json.RawMessage // what was read back after the last writing
	WrittenAt   *time.Time
	Trouble     string // of the last time that it was spoken with
}

// Work is what is done with a device, or was last.
type Work struct {
	Device  string
	What    string
	Holder  string
	Author  string
	Began   time.Time
	Until   time.Time
	Done    int
	Total   int
	At      string // what it is at
	Stop    bool   // whether somebody wants it to stop
	Ended   *time.Time
	Result  json.RawMessage
	Trouble string
}

// Running tells whether somebody is at it.
func (w *Work) Running(now time.Time) bool { return w.Ended == nil && now.Before(w.Until) }

// MostDevices of a site.
const MostDevices = 600

// Errors of devices.
var (
	ErrNoDevice    = errors.New("there is no such device")
	ErrManyDevices = errors.New("the site has as many devices as it can")
	ErrAtWork      = errors.New("somebody is at work with the device")
)

const deviceColumns = `id, recorder, channel, address, username, secret, fingerprint, daily, said, said_at, before, before_at, written, written_at, trouble`

// Devices are those of a site, in the order of their ids.
func (s *Store) Devices(ctx context.Context, site string) ([]Device, error) {
	rows, err := s.pool.Query(ctx, `select `+deviceColumns+` from device where site = $1 order by recorder = '', id`, site)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowToStructByPos[Device])
}

// Device is one of a site. It fails with ErrNoDevice where it is not there.
func (s *Store) Device(ctx context.Context, site, id string) (Device, error) {
	rows, err := s.pool.Query(ctx, `select `+deviceColumns+` from device where site = $1 and id = $2`, site, id)
	if err != nil {
		return Device{}, err
	}
	d, err := pgx.CollectExactlyOneRow(rows, pgx.RowToStructByPos[Device])
	return d, orNone(err, ErrNoDevice)
}

// SetDevice adds a device, or sets how the one of its id is reached. What was read stays.
func (s *Store) SetDevice(ctx context.Context, site string, d Device) error {
	return s.deciding(ctx, site, func(ctx context.Context, tx pgx.Tx) error {
		var many int
		if err := tx.QueryRow(ctx, `select count(*) from device where site = $1 and id <> $2`, site, d.ID).Scan(&many); err != nil {
			return err
		}
		if many >= MostDevices {
			return ErrManyDevices
		}
		_, err := tx.Exec(ctx, `insert into device (site, id, recorder, channel, address, username, secret, fingerprint, daily)
			values ($1, $2, $3, $4, $5, $6, $7, $8, $9) on conflict (site, id) do update set recorder = excluded.recorder,
			channel = excluded.channel, address = excluded.address, username = excluded.username, secret = excluded.secret,
			fingerprint = excluded.fingerprint, daily = excluded.daily, trouble = ''`,
			site, d.ID, d.Recorder, d.Channel, d.Address, d.Username, d.Secret, d.Fingerprint, d.Daily)
		if err != nil {
			return err
		}
		return tellSite(ctx, tx, SiteChanged{Site: site, What: "devices"})
	})
}

// RemoveDevice forgets a device, with its secret and what was read of it. It fails with ErrNoDevice where it is not there.
func (s *Store) RemoveDevice(ctx context.Context, site, id string) error {
	return s.deciding(ctx, site, func(ctx context.Context, tx pgx.Tx) error {
		done, err := tx.Exec(ctx, `delete from device where site = $1 and id = $2`, site, id)
		if err != nil {
			return err
		}
		if done.RowsAffected() == 0 {
			return ErrNoDevice
		}
		return tellSite(ctx, tx, SiteChanged{Site: site, What: "devices"})
	})
}

// Works are what is done with the devices of a site, or was last.
func (s *Store) Works(ctx context.Context, site string) ([]Work, error) {
	rows, err := s.pool.Query(ctx, `select device, what, holder, author, began, until, done, total, at, stop, ended, result, trouble
		from device_work where site = $1`, site)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowToStructByPos[Work])
}

// Hold is how long work is held without a word of whoever does it.
const Hold = 15 * time.Second

// BeginWork takes a device to work with. It fails with ErrAtWork where somebody is at it, and with ErrNoDevice where it is not there.
func (s *Store) BeginWork(ctx context.Context, site, device, what, holder, author string) error {
	return s.deciding(ctx, site, func(ctx context.Context, tx pgx.Tx) error {
		if err := tx.QueryRow(ctx, `select id from device where site = $1 and id = $2`, site, device).Scan(new(string)); err != nil {
			return orNone(err, ErrNoDevice)
		}
		done, err := tx.Exec(ctx, `insert into device_work (site, device, what, holder, author, until) values ($1, $2, $3, $4, $5, now() + $6)
			on conflict (site, device) do update set what = excluded.what, holder = excluded.holder, author = excluded.author, began = now(),
			until = excluded.until, done = 0, total = 0, at = '', stop = false, ended = null, result = null, trouble = ''
			where device_work.ended is not null or device_work.until < now()`, site, device, what, holder, author, Hold)
		if err != nil {
			return err
		}
		if done.RowsAffected() == 0 {
			return ErrAtWork
		}
		return tellSite(ctx, tx, SiteChanged{Site: site, What: "devices"})
	})
}

// AtWork says how far work is, and holds it further. stop tells whether somebody wants it to stop, or took it over.
func (s *Store) AtWork(ctx context.Context, site, device, holder string, done, total int, at string) (stop bool, err error) {
	err = s.pool.QueryRow(ctx, `update device_work set done = $4, total = $5, at = $6, until = now() + $7
		where site = $1 and device = $2 and holder = $3 and ended is null returning stop`, site, device, holder, done, total, at, Hold).Scan(&stop)
	if errors.Is(err, pgx.ErrNoRows) {
		return true, nil
	}
	return stop, err
}

// StopWork asks whoever is at work with a device to stop.
func (s *Store) StopWork(ctx context.Context, site, device string) error {
	_, err := s.pool.Exec(ctx, `update device_work set stop = true where site = $1 and device = $2 and ended is null`, site, device)
	return err
}

// EndWork ends work: with what came of it, and what of the device is kept; trouble is why it broke, empty where it did not.
func (s *Store) EndWork(ctx context.Context, site, device, holder string, keep Keeping, result json.RawMessage, trouble string) error {
	return s.deciding(ctx, site, func(ctx context.Context, tx pgx.Tx) error {
		done, err := tx.Exec(ctx, `update device_work set ended = now(), result = $4, trouble = $5
			where site = $1 and device = $2 and holder = $3 and ended is null`, site, device, holder, result, trouble)
		if err != nil {
			return err
		}
		if done.RowsAffected() == 0 {
			return nil // somebody took it over
		}
		_, err = tx.Exec(ctx, `update device set said = coalesce($3, said), said_at = case when $3::jsonb is null then said_at else now() end,
			before = coalesce(before, $4), before_at = case when before is null and $4::jsonb is not null then now() else before_at end,
			written = coalesce($5, written), written_at = case when $5::jsonb is null then written_at else now() end, trouble = $6
			where site = $1 and id = $2`, site, device, keep.Said, keep.Before, keep.Written, trouble)
		if err != nil {
			return err
		}
		return tellSite(ctx, tx, SiteChanged{Site: site, What: "devices"})
	})
}

// Keeping is what of a device is kept after work; nil for as it was. Before is kept the first time alone.
type Keeping struct{ Said, Before, Written json.RawMessage }

// Call is a call of a device.
type Call struct {
	Device string
	Author string
	Call   string
	Ended  string
	At     time.Time
}

// mostCalls are kept of a site.
const mostCalls = 5000

// AddCalls keeps calls of a site, and forgets the oldest beyond the most.
func (s *Store) AddCalls(ctx context.Context, site string, list []Call) error {
	rows := make([][]any, len(list))
	for i, c := range list {
		rows[i] = []any{site, c.Device, c.Author, c.Call, c.Ended, c.At}
	}
	return s.inTransaction(ctx, Patience, func(ctx context.Context, tx pgx.Tx) error {
		for _, r := range rows {
			if _, err := tx.Exec(ctx, `insert into device_call (site, device, author, call, ended, at)
				select id, $2, $3, $4, $5, $6 from site where id = $1`, r...); err != nil {
				return err
			}
		}
		_, err := tx.Exec(ctx, `delete from device_call where site = $1 and id <= (select id from device_call where site = $1
			order by id desc offset $2 limit 1)`, site, mostCalls)
		return err
	})
}

// Calls are the newest calls of a site's device, newest first.
func (s *Store) Calls(ctx context.Context, site, device string, limit int) ([]Call, error) {
	rows, err := s.pool.Query(ctx, `select device, author, call, ended, at from device_call where site = $1 and device = $2
		order by id desc limit $3`, site, device, limit)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowToStructByPos[Call])
}

// Due is a device that is to be read.
type Due struct{ Company, Site, Device string }

// DueDevices are devices that were set, are to be read once a day, and were not since a moment; those not tried longest first. Of
// archived sites none are.
func (s *Store) DueDevices(ctx context.Context, since time.Time, most int) ([]Due, error) {
	rows, err := s.pool.Query(ctx, `select site.company, device.site, device.id from device join site on site.id = device.site
		left join device_work w on w.site = device.site and w.device = device.id
		where device.daily and device.written is not null and site.archived_at is null
		and coalesce(device.said_at, '-infinity') < $1 and coalesce(w.began, '-infinity') < $1
		order by device.said_at, device.id limit $2`, since, most)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowToStructByPos[Due])
}
