package check

import (
	"fmt"
	"sort"
	"time"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/storage"
)

// retention holds the days kept against the days required and permitted.
func retention(c *site, ch *channel) {
	if ch.NoCamera {
		return
	}
	least, most := ch.Keep.AtLeastDays, ch.Keep.AtMostDays
	kept, worst := ch.figures.RetentionDays, ch.figures.WorstDays
	switch {
	case least > 0 && kept != nil && *kept < least:
		c.report(ch, Error, "below-at-least", "keep.atLeastDays",
			plan.Say("%s keeps %.3g days of the %v required.", ch.Name, *kept, least),
			c.whyShort(ch), c.moreDrives(ch, least / *kept))
		c.costs(1 - *kept/least)
		c.byPool(ch, *kept, "")
	case least > 0 && worst != nil && *worst < least:
		typically := "Typically nothing of it is overwritten"
		if kept != nil {
			typically = plan.Say("Typically it keeps %.3g days", *kept)
		}
		c.report(ch, Warning, "worst-below-at-least", "keep.atLeastDays",
			plan.Say("%s keeps %.3g days at the worst hour of the week, of the %v required.", ch.Name, *worst, least),
			typically+"; looking back from the busiest days it is less.", c.moreDrives(ch, least / *worst))
		c.costs(1 - *worst/least)
		c.byPool(ch, *worst, " at the worst hour of the week")
	}
	if pool := c.pool(ch.Pool); most > 0 && pool != nil && (pool.RetentionDays == nil || *pool.RetentionDays > most) {
		holds := "without limit"
		if pool.RetentionDays != nil {
			holds = plan.Say("for %.3g days", *pool.RetentionDays)
		}
		c.report(ch, Warning, "above-at-most", "keep.atMostDays",
			plan.Say("%s may be kept for at most %v days, and only the recorder's age limit enforces that.", ch.Name, most),
			fmt.Sprintf("The disks have room for its footage %s. Set the age limit at the recorder and check that it deletes.", holds), nil)
	}
}

// byPool says of the last finding that the pool is its cause, unless it is a limit of the
// channel's own: one short pool is one finding, however many channels are on it.
func (c *site) byPool(ch *channel, kept float64, when string) {
	pool := c.plan.Pool(ch.Pool)
	if pool == nil || ch.Keep.QuotaGB > 0 || ch.Keep.AtMostDays > 0 && ch.Keep.AtMostDays <= kept {
		return
	}
	f := &c.found[len(c.found)-1]
	f.cause, f.worse, f.Pool = f.Rule+" "+pool.ID, ch.Keep.AtLeastDays/kept, pool.ID
	f.several = func(n int) string {
		return plan.Say("%s keeps %.3g days%s, and %d channels need more: %s %v.", pool.Name, kept, when, n, ch.Name, ch.Keep.AtLeastDays)
	}
}

func (c *site) whyShort(ch *channel) string {
	pool := c.pool(ch.Pool)
	limit := storage.Limit(storage.Bytes(ch.figures.GigabytesPerDay)*storage.GB, 0, storage.Bytes(ch.Keep.QuotaGB)*storage.GB)
	if limit.Bounded() && (pool.RetentionDays == nil || float64(limit) < *pool.RetentionDays) {
		return plan.Say("Its quota of %v GB is full after %.3g days at %.3g GB a day.", ch.Keep.QuotaGB, float64(limit),
			ch.figures.GigabytesPerDay)
	}
	return fmt.Sprintf("The pool has room for %s, and all its channels write %s a day.", gigabytes(pool.UsableGB),
		gigabytes(pool.GigabytesPerDay))
}

func drives(n int) string {
	if n == 1 {
		return "One more drive"
	}
	return fmt.Sprintf("%d more drives", n)
}

// gigabytes writes an amount with three digits, from a thousand GB on in TB with two decimals.
func gigabytes(gb float64) string {
	if gb >= 1000 {
		return fmt.Sprintf("%.2f TB", gb/1000)
	}
	return plan.Say("%.3g GB", gb)
}

// moreDrives offers the fewest drives of the size there is that hold factor times
// as much.
func (c *site) moreDrives(ch *channel, factor float64) *Fix {
	pool, here := c.plan.Pool(ch.Pool), c.pool(ch.Pool)
	if pool == nil || len(pool.Drives) == 0 || ch.Keep.QuotaGB > 0 {
		return nil
	}
	with := func(added int) plan.Pool {
		more := *pool
		more.Drives = append([]plan.DriveGroup(nil), pool.Drives...)
		more.Drives[0].Count += added
		return more
	}
	const most = 64
	added := 1 + sort.Search(most, func(n int) bool { // more drives never hold less
		more := with(n + 1)
		return float64(array(&more).Usable()/storage.GB) >= here.UsableGB*factor
	})
	if added > most {
		return nil
	}
	more := with(added)
	return fix(fmt.Sprintf("%s of %v TB", drives(added), more.Drives[0].Terabytes),
		edit.Edit{SetPool: &edit.SetPool{Recorder: ch.Recorder, Pool: more}})
}

// shortOnDates finds pools that keep what is required in an ordinary week, and less on
// some dates of the year.
func shortOnDates(c *site) {
	year := c.figures.SpecialYear()
	if year == nil {
		return
	}
	at := 0
	for i := range c.plan.Recorders {
		for j := range c.plan.Recorders[i].Pools {
			pool, p := &c.plan.Recorders[i].Pools[j], year.Pools[at]
			at++
			if p.WorstDays == nil {
				continue
			}
			short, most := 0, 0.0
			for k := range c.plan.Channels {
				ch, figures := &c.plan.Channels[k], &c.figures.Channels[k]
				ordinary := figures.WorstDays == nil || figures.RequiredDays != nil && *figures.WorstDays >= *figures.RequiredDays
				if ch.Pool == pool.ID && figures.RequiredDays != nil && ordinary && *p.WorstDays < *figures.RequiredDays {
					short++
					most = max(most, *figures.RequiredDays)
				}
			}
			if short == 0 {
				continue
			}
			when := p.WorstDate.At(0, time.UTC).Format("2 Jan 2006")
			if p.Name != "" {
				when += " (" + p.Name + ")"
			}
			channels := "1 channel needs"
			if short > 1 {
				channels = fmt.Sprintf("%d channels need", short)
			}
			c.found = append(c.found, Finding{Rule: "short-on-dates", Severity: Warning, Pool: pool.ID, Recorder: c.plan.Recorders[i].ID,
				Path:     fmt.Sprintf("recorders[%d].pools[%d]", i, j),
				Sentence: plan.Say("%s keeps %.3g days on %s; %s up to %v.", pool.Name, *p.WorstDays, when, channels, most),
				Reason:   plan.Say("In an ordinary week it keeps %.3g days. More is written on special days, and footage of the weeks before them goes sooner.", *c.figures.Pools[at-1].WorstDays),
			})
		}
	}
}
