package api

import (
	"context"
	"testing"
	"time"

	"github.com/jackc/pgx/v5"

	"wakefield.example/internal/demo"
)

// thousands are 2,000 sites, estimated all.
func thousands(b *testing.B) *client {
	c, _ := serving(b, demo.BrackenhallCiderWorks(), "", Options{Lines: true, Quiet: time.Millisecond})
	eventually(b, "the first is estimated", func() bool { return call[Estimated](c, "GET", "/api/sites/estimated", "", 200).Done == 1 })
	conn, err := pgx.Connect(context.Background(), cluster.URL(b.Name())+"&options=-c%20wakefield.company%3D*")
	if err != nil {
		b.Fatal(err)
	}
	defer conn.Close(context.Background())
	_, err = conn.Exec(context.Background(), `
		insert into site (id, adopted, company) select 'site-' || n, 'site-' || n, company from site, generate_series(1, 1999) n where id = 'site';
		insert into plan (id, site, version, document, mark, site_name, customer, variant, channels)
			select 'site-' || n, 'site-' || n, version, document, mark, site_name, customer, variant, channels from plan, generate_series(1, 1999) n where id = 'site';
		insert into site_line select 'site-' || n, 'site-' || n, version, mark, method, said, found, words, lower, was, made_at, held from site_line, generate_series(1, 1999) n where site = 'site'`)
	if err != nil {
		b.Fatal(err)
	}
	if _, err := conn.Exec(context.Background(), `analyze`); err != nil {
		b.Fatal(err)
	}
	b.ResetTimer()
	return c
}

// BenchmarkListOfThousands answers with the list of 2,000 sites.
func BenchmarkListOfThousands(b *testing.B) {
	c := thousands(b)
	for b.Loop() {
		if status, _, data := c.send("GET", "/api/sites", ""); status != 200 || len(data) < 500_000 {
			b.Fatal(status, len(data))
		}
	}
}

// BenchmarkSearchOfThousands searches 2,000 sites for a channel.
func BenchmarkSearchOfThousands(b *testing.B) {
	c := thousands(b)
	for b.Loop() {
		if hits := call[Hits](c, "GET", "/api/sites/search?text=press+brackenhall", "", 200); len(hits.Hits) == 0 {
			b.Fatal("nothing is found")
		}
	}
}
