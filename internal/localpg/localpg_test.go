package localpg_test

import (
	"context"
	"os"
	"testing"

	"github.com/jackc/pgx/v5"

	"wakefield/internal/localpg"
	"wakefield/internal/localpg/pgtest"
)

var cluster *localpg.Cluster

func TestMain(m *testing.M) { os.Exit(pgtest.Run(m, &cluster)) }

func TestDataOutlivesTheServer(t *testing.T) {
	ctx, c := context.Background(), cluster
	url := pgtest.Database(t, c, "tide")
	exec := func(sql string) {
		t.Helper()
		conn, err := pgx.Connect(ctx, url)
		if err != nil {
			t.Fatal(err)
		}
		defer conn.Close(ctx)
		if _, err := conn.Exec(ctx, sql); err != nil {
			t.Fatal(err)
		}
	}
	exec("create table berth (name text)")
	c.Stop()
	c.Stop()
	if _, err := pgx.Connect(ctx, url); err == nil {
		t.Fatal("a stopped server answers")
	}
	if err := c.Start(ctx); err != nil {
		t.Fatal(err)
	}
	exec("select name from berth")

	again, err := localpg.Open(ctx, c.Dir())
	if err != nil {
		t.Fatal(err)
	}
	if err := again.Start(ctx); err == nil {
		again.Stop()
		t.Error("two servers run on one folder")
	}
	if err := c.Create(ctx, "tide"); err != nil {
		t.Errorf("creating a database that is there: %v", err)
	}
}
