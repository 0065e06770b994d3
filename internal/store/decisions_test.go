package store

import (
	"context"
	"errors"
	"fmt"
	"sync"
	"testing"
)

// TestDecisionsAboutASitesPlansAtOnce makes all pairs of decisions about the plans of a site at one moment, through two
// servers, again and again. Whoever comes first: the adopted plan is never one that was taken away, and a site has no more
// variants than it may.
func TestDecisionsAboutASitesPlansAtOnce(t *testing.T) {
	ctx, s := context.Background(), open(t)
	other, err := Open(ctx, s.pool.Config().ConnString())
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(other.Close)
	added := 0
	var mutex sync.Mutex
	decisions := map[string]func(s *Store, site string) error{
		"adopt the second":    func(s *Store, site string) error { return s.Adopt(ctx, site, site+"-2") },
		"adopt the first":     func(s *Store, site string) error { return s.Adopt(ctx, site, site) },
		"remove the second":   func(s *Store, site string) error { return s.RemovePlan(ctx, site, site+"-2", true) },
		"remove the first":    func(s *Store, site string) error { return s.RemovePlan(ctx, site, site, true) },
		"take the third back": func(s *Store, site string) error { return s.RemovePlan(ctx, site, site+"-3", false) },
		"archive":             func(s *Store, site string) error { return s.Archive(ctx, site, true) },
		"unarchive":           func(s *Store, site string) error { return s.Archive(ctx, site, false) },
		"delete":              func(s *Store, site string) error { return s.Delete(ctx, site) },
		"add": func(s *Store, site string) error {
			mutex.Lock()
			added++
			id := fmt.Sprintf("%s-new-%d", site, added)
			mutex.Unlock()
			_, err := s.AddPlan(ctx, site, id, Note{Author: "Ada", Sentence: "x"}, small())
			return err
		},
	}
	const times = 3
	n := 0
	for one, first := range decisions {
		for two, second := range decisions {
			for range times {
				n++
				site := fmt.Sprint("s", n)
				// A site with room for one variant: two that are there, one that was taken away, and a crowd.
				if _, err := s.Create(ctx, site, Note{Author: "Ada", Sentence: "x"}, small()); err != nil {
					t.Fatal(err)
				}
				if _, err := s.pool.Exec(ctx, `insert into plan (id, site, version, document, removed_at)
					select $1 || '-' || i, $1, 1, p.document, case when i = 3 then now() end from generate_series(2, $2) i, plan p where p.id = $1`, site, MostVariants); err != nil {
					t.Fatal(err)
				}
				var group sync.WaitGroup
				for _, go2 := range []func() error{func() error { return first(s, site) }, func() error { return second(other, site) }} {
					group.Go(func() {
						err := go2()
						for _, known := range []error{nil, ErrAdopted, ErrRemoved, ErrManyVariants, ErrNotFound, ErrNotArchived} {
							if errors.Is(err, known) {
								return
							}
						}
						t.Errorf("%s beside %s: %v", one, two, err)
					})
				}
				group.Wait()
				now, err := s.Site(ctx, site)
				if errors.Is(err, ErrNotFound) {
					continue
				}
				if err != nil {
					t.Fatal(err)
				}
				there := 0
				for _, p := range now.Plans {
					if !p.Removed {
						there++
					} else if p.ID == now.Adopted {
						t.Errorf("%s beside %s: what was taken away is adopted", one, two)
					}
				}
				if there > MostVariants {
					t.Errorf("%s beside %s: %d variants", one, two, there)
				}
			}
		}
	}
}
