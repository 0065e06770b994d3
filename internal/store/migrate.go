package store

import (
	"context"
	"embed"
	"fmt"
	"io/fs"
	"log/slog"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/stdlib"
	"github.com/pressly/goose/v3"
	"github.com/pressly/goose/v3/lock"
)

//go:embed migrations/*.sql
var migrations embed.FS

// migrate brings the tables up to date. Of several servers that begin at once one
// does, and the others wait. Tables of a newer Wakefield are refused.
func migrate(ctx context.Context, config *pgx.ConnConfig) error {
	// What a migration changes it changes for all companies; without this it would see the rows of none.
	db := stdlib.OpenDB(*config, stdlib.OptionAfterConnect(func(ctx context.Context, conn *pgx.Conn) error {
		_, err := conn.Exec(ctx, `select set_config($1, $2, false)`, companySetting, everything)
		return err
	}))
	defer db.Close()
	files, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	locker, err := lock.NewPostgresSessionLocker(lock.WithLockTimeout(1, 300))
	if err != nil {
		return err
	}
	provider, err := goose.NewProvider(goose.DialectPostgres, db, files, goose.WithSlog(slog.Default()), goose.WithSessionLocker(locker))
	if err != nil {
		return err
	}
	there, err := provider.GetDBVersion(ctx)
	if err != nil {
		return fmt.Errorf("preparing the database: %w", err)
	}
	sources := provider.ListSources()
	switch newest := sources[len(sources)-1].Version; {
	case there == newest:
		return heldRows(ctx, config)
	case there > newest:
		return fmt.Errorf("the database was made by a newer Wakefield (its tables are of version %d, this program knows %d); run that one, or restore a backup that was taken before", there, newest)
	}
	if _, err := provider.Up(ctx); err != nil {
		return fmt.Errorf("preparing the database: %w", err)
	}
	return heldRows(ctx, config)
}

// heldRows sees to it that companies see their own rows only.
func heldRows(ctx context.Context, config *pgx.ConnConfig) error {
	conn, err := pgx.ConnectConfig(ctx, config)
	if err != nil {
		return err
	}
	defer conn.Close(context.WithoutCancel(ctx))
	if err := holdRows(ctx, conn); err != nil {
		return fmt.Errorf("preparing the database: %w", err)
	}
	return nil
}
