package check

import (
	"fmt"
	"sort"

	"wakefield/core/plan"
	"wakefield/core/storage"
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
			fmt.Sprintf("%s keeps %.3g days of the %v required.", ch.Name, *kept, least),
			c.whyShort(ch), c.moreDrives(ch, least / *kept))
	case least > 0 && worst != nil && *worst < least:
		c.report(ch, Warning, "worst-below-at-least", "keep.atLeastDays",
			fmt.Sprintf("%s keeps %.3g days at the worst hour of the week, of the %v required.", ch.Name, *worst, least),
			fmt.Sprintf("Typically it keeps %.3g days; looking back from the busiest days it is less.", *kept), c.moreDrives(ch, least / *worst))
	}
	if pool := c.pool(ch.Pool); most > 0 && pool != nil && (pool.RetentionDays == nil || *pool.RetentionDays > most) {
		holds := "without limit"
		if pool.RetentionDays != nil {
			holds = fmt.Sprintf("for %.3g days", *pool.RetentionDays)
		}
		c.report(ch, Warning, "above-at-most", "keep.atMostDays",
			fmt.Sprintf("%s may be kept for at most %v days, and only the recorder's age limit sees to it.", ch.Name, most),
			fmt.Sprintf("The disks would hold its footage %s. Set the age limit at the recorder and check that it deletes.", holds), nil)
	}
}

func (c *site) whyShort(ch *channel) string {
	pool := c.pool(ch.Pool)
	limit := storage.Limit(storage.Bytes(ch.figures.GigabytesPerDay)*storage.GB, 0, storage.Bytes(ch.Keep.QuotaGB)*storage.GB)
	if limit.Bounded() && (pool.RetentionDays == nil || float64(limit) < *pool.RetentionDays) {
		return fmt.Sprintf("Its quota of %v GB is full after %.3g days at %.3g GB a day.", ch.Keep.QuotaGB, float64(limit), ch.figures.GigabytesPerDay)
	}
	return fmt.Sprintf("The pool holds %s and all its channels write %s a day.", gigabytes(pool.UsableGB), gigabytes(pool.GigabytesPerDay))
}

func drives(n int) string {
	if n == 1 {
		return "One more drive"
	}
	return fmt.Sprintf("%d more drives", n)
}

// gigabytes writes an amount with three digits, in TB from a thousand GB on.
func gigabytes(gb float64) string {
	if gb >= 1000 {
		return fmt.Sprintf("%.3g TB", gb/1000)
	}
	return fmt.Sprintf("%.3g GB", gb)
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
		plan.Edit{SetPool: &plan.SetPool{Recorder: ch.Recorder, Pool: more}})
}
