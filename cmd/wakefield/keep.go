package main

import (
	"context"
	"errors"
	"fmt"
	"os"

	"wakefield.example/core/plan"
	"wakefield.example/internal/backup"
	"wakefield.example/internal/store"
)

// backupCommand writes the whole database into a file.
type backupCommand struct {
	chosen
	File string `arg:"" type:"path" help:"File to write; it must not be there yet."`
}

func (c *backupCommand) Run() error {
	ctx, stop := untilStopped()
	defer stop()
	url, leave, err := c.open(ctx)
	if err != nil {
		return err
	}
	defer leave()
	file, err := os.OpenFile(c.File, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
	if err != nil {
		return err
	}
	err = backup.Write(ctx, url, file)
	if err = errors.Join(err, file.Sync(), file.Close()); err != nil {
		os.Remove(c.File)
		return err
	}
	fmt.Println("The whole database is in", c.File+", accounts and links too")
	return nil
}

// restoreCommand brings a database back from a file.
type restoreCommand struct {
	chosen
	File       string `arg:"" optional:"" type:"existingfile" help:"File that wakefield backup wrote."`
	Before     bool   `help:"Bring back what was there before the last restore, in place of a file."`
	Unreadable bool   `help:"Restore plans too that this program cannot read; they can be exported, and returned to an earlier revision."`
	Yes        bool   `help:"Do not ask before sites are replaced."`
}

func (c *restoreCommand) Run() error {
	if (c.File == "") != c.Before {
		return errors.New("restore takes a file, or --before")
	}
	ctx, stop := untilStopped()
	defer stop()
	url, leave, err := c.open(ctx)
	if err != nil {
		return err
	}
	defer leave()
	from := c.File
	if c.Before {
		from = "before the last restore"
	}
	confirmed := func(f backup.Found) error {
		if f.There == 0 || c.Yes {
			return nil
		}
		return confirm(fmt.Sprintf("The %s in the database now %s replaced by %s from %s, and so are all accounts, with what happened around them; everybody signs in anew.", sites(f.There), isOrAre(f.There),
			sites(f.Sites), from))
	}
	var found backup.Found
	if c.Before {
		found, err = backup.Back(ctx, url, confirmed)
	} else {
		found, err = backup.Restore(ctx, url, c.File, c.Unreadable, confirmed)
	}
	if bad := new(backup.Unreadable); errors.As(err, &bad) {
		return fmt.Errorf("nothing was replaced: %w; --unreadable restores them all the same", bad)
	}
	if err != nil {
		return err
	}
	fmt.Printf("%s back from %s, with the accounts of then; everybody signs in anew. What was there before stays until the next restore: wakefield restore --before\n", sites(found.Sites)+" "+
		isOrAre(found.Sites), from)
	return nil
}

func sites(n int) string { return plan.Count(n, "site") }

func isOrAre(n int) string {
	if n == 1 {
		return "is"
	}
	return "are"
}

// deleteCommand removes a site for good.
type deleteCommand struct {
	chosen
	Site string `arg:"" help:"Id of the site, as in its address; it must have been archived."`
	Yes  bool   `help:"Do not ask."`
}

func (c *deleteCommand) Run() error {
	return c.withStore(func(ctx context.Context, s *store.Store) error {
		head, err := s.Load(ctx, c.Site)
		if err != nil {
			return named(c.Site, err)
		}
		if !c.Yes {
			if err := confirm(fmt.Sprintf("%s goes for good, with %s.", c.Site, plan.Count(int(head.Version), "revision"))); err != nil {
				return err
			}
		}
		err = s.Delete(ctx, c.Site)
		if errors.Is(err, store.ErrNotArchived) {
			return fmt.Errorf("%s is worked on; archive it first, on the page of all sites", c.Site)
		}
		if err == nil {
			fmt.Println(c.Site, "is gone")
		}
		return named(c.Site, err)
	})
}

// thinCommand removes old revisions of a site.
type thinCommand struct {
	chosen
	Site string `arg:"" help:"Id of the site, as in its address."`
	Keep int64  `default:"1000" help:"How many of the newest revisions of each of its plans stay; those before can be neither seen nor returned to."`
	Yes  bool   `help:"Do not ask."`
}

func (c *thinCommand) Run() error {
	if c.Keep < 1 {
		return errors.New("--keep: at least 1 revision stays, the plan as it stands")
	}
	return c.withStore(func(ctx context.Context, s *store.Store) error {
		site, err := s.Site(ctx, c.Site)
		if err != nil {
			return named(c.Site, err)
		}
		if !c.Yes {
			if err := confirm(fmt.Sprintf("Of %s, in %s, all revisions but the newest %d go for good.", c.Site, plan.Count(len(site.Plans),
				"plan"), c.Keep)); err != nil {
				return err
			}
		}
		removed, err := s.Thin(ctx, c.Site, c.Keep)
		if err == nil {
			fmt.Printf("Removed: %s of %s\n", plan.Count(int(removed), "revision"), c.Site)
		}
		return named(c.Site, err)
	})
}

// named says which site an error is about.
func named(site string, err error) error {
	if err != nil {
		return fmt.Errorf("%s: %w", site, err)
	}
	return nil
}

// withStore does something with the database chosen.
func (c chosen) withStore(do func(context.Context, *store.Store) error) error {
	ctx, stop := untilStopped()
	defer stop()
	url, leave, err := c.open(ctx)
	if err != nil {
		return err
	}
	defer leave()
	s, err := store.Open(ctx, url)
	if err != nil {
		return err
	}
	defer s.Close()
	return do(ctx, s)
}
