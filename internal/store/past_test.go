package store

import (
	"errors"
	"fmt"
	"strings"
	"testing"

	"wakefield.example/core/document"
	"wakefield.example/core/plan"
)

func TestLooksBackOverManyRevisions(t *testing.T) {
	ctx, s, h := made(t)
	for i := int64(2); i <= 4*snapshotEvery; i++ {
		h = save(t, s, h, fmt.Sprint("rev ", i))
	}
	check := func() {
		t.Helper()
		for _, number := range []int64{1, 2, 63, 64, 65, 96, 97, 130, h.Version - 1, h.Version} {
			want := fmt.Sprint("rev ", number)
			if number == 1 {
				want = "As surveyed"
			}
			if p, err := s.At(ctx, h, number); err != nil || p.Name != want {
				t.Errorf("revision %d: %v, %v", number, p, err)
			}
		}
	}
	check()
	var n int
	count := func(table string) int {
		if err := s.pool.QueryRow(ctx, `select count(*) from `+table+` where plan = 'b'`).Scan(&n); err != nil {
			t.Fatal(err)
		}
		return n
	}
	if count("snapshot") != 4 {
		t.Errorf("%d snapshots", n)
	}
	// A history from before there were snapshots leaves one where it was long to look back.
	if _, err := s.pool.Exec(ctx, `delete from snapshot`); err != nil {
		t.Fatal(err)
	}
	check()
	if count("snapshot") == 0 {
		t.Error("a long look back left no snapshot")
	}

	removed, err := s.Thin(ctx, "b", 10)
	if err != nil || removed != h.Version-10 || count("revision") != 10 {
		t.Fatalf("thinned out %d, %d are left, %v", removed, n, err)
	}
	first := h.Version - 9
	if p, err := s.At(ctx, h, first); err != nil || p.Name != fmt.Sprint("rev ", first) {
		t.Errorf("the oldest that stayed: %v, %v", p, err)
	}
	if _, err := s.At(ctx, h, first-1); !errors.Is(err, ErrNoRevision) {
		t.Errorf("one that went: %v", err)
	}
	for undone := 0; ; undone++ {
		c, err := s.Step(ctx, h, Note{Author: "Ada"}, Undo)
		if errors.Is(err, ErrNothing) {
			if undone != 9 || h.Plan.Name != fmt.Sprint("rev ", first) || h.Undo != "" {
				t.Errorf("after %d undone it is %q, undo %q", undone, h.Plan.Name, h.Undo)
			}
			break
		}
		if err != nil {
			t.Fatal(err)
		}
		h = c.Head
	}
	if _, err := s.Thin(ctx, "nowhere", 10); !errors.Is(err, ErrNotFound) {
		t.Errorf("%v", err)
	}
}

// TestAPlanThatCannotBeReadIsNotLost stores what no program reads, and gets out of it.
func TestAPlanThatCannotBeReadIsNotLost(t *testing.T) {
	ctx, s, h := made(t)
	save(t, s, h, "good")
	if _, err := s.pool.Exec(ctx, `update plan set document = document::jsonb || '{"colour": "red"}'`); err != nil {
		t.Fatal(err)
	}
	broken, err := s.Load(ctx, "b")
	if err != nil || broken.Plan != nil || broken.Unreadable == nil || broken.Version != 2 || broken.Undo != "Name: good" {
		t.Fatalf("%+v, %v", broken, err)
	}
	if data, err := s.Export(ctx, "b"); err != nil || !strings.Contains(string(data), "colour") {
		t.Errorf("%s, %v", data, err)
	}
	if list, err := s.List(ctx); err != nil || len(list) != 1 || list[0].Name != "Brackenhall" {
		t.Errorf("%+v, %v", list, err)
	}
	var unreadable *UnreadableError
	if _, err := s.At(ctx, broken, 1); !errors.As(err, &unreadable) {
		t.Errorf("by way of the broken head: %v", err)
	}
	// With a snapshot there is a way back.
	good, _ := small().Bytes()
	if _, err := s.pool.Exec(ctx, `insert into snapshot values ('b', 1, $1)`, good); err != nil {
		t.Fatal(err)
	}
	then, err := s.At(ctx, broken, 1)
	if err != nil {
		t.Fatal(err)
	}
	c, err := s.Save(ctx, broken, Note{Author: "Ada", Sentence: "Back to revision 1"}, then)
	if err != nil {
		t.Fatal(err)
	}
	if now, err := s.Load(ctx, "b"); err != nil || now.Unreadable != nil || now.Plan.Name != "As surveyed" || now.Version != c.Head.Version {
		t.Errorf("%+v, %v", now, err)
	}
}

func TestGrowingBeyondTheLimitIsRefused(t *testing.T) {
	ctx, s, h := made(t)
	large := *h.Plan
	for range 60_000 {
		large.Site.SpecialDays = append(large.Site.SpecialDays, plan.SpecialDay{Name: strings.Repeat("x", 200), Week: "none"})
	}
	var wrong *document.Error
	if _, err := s.Save(ctx, h, Note{Author: "Ada"}, &large); err != nil {
		t.Errorf("below the limit: %v", err)
	}
	large.Site.SpecialDays = append(large.Site.SpecialDays, large.Site.SpecialDays...)
	h, err := s.Load(ctx, "b")
	if err != nil {
		t.Fatal(err)
	}
	if _, err := s.Save(ctx, h, Note{Author: "Ada"}, &large); !errors.As(err, &wrong) || !strings.Contains(err.Error(), "larger than 16 MiB") {
		t.Errorf("%v", err)
	}
	// One that was too large already may become smaller.
	document, _ := large.Bytes()
	if _, err := s.pool.Exec(ctx, `update plan set document = $1`, document); err != nil {
		t.Fatal(err)
	}
	if h, err = s.Load(ctx, "b"); err != nil {
		t.Fatal(err)
	}
	large.Site.SpecialDays = large.Site.SpecialDays[:100_000]
	if _, err := s.Save(ctx, h, Note{Author: "Ada"}, &large); err != nil {
		t.Errorf("becoming smaller: %v", err)
	}
}
