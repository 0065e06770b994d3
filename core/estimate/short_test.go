package estimate

import (
	"math"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
)

// TestWhatIsShortWouldDo adds what a pool is short of, and nothing is short any more; a gigabyte less, and it is.
func TestWhatIsShortWouldDo(t *testing.T) {
	p := plantest.Read(t, "testdata/landing-stage.json")
	for i := range p.Channels {
		p.Channels[i].Keep = plan.Keep{AtLeastDays: 2000}
	}
	p.Channels[0].Keep = plan.Keep{AtLeastDays: 5000, AtMostDays: 10} // no drive helps this one
	before := Figures(p, nil).Pools[0]
	if before.ShortGB <= 1 {
		t.Fatalf("%.1f GB short", before.ShortGB)
	}
	pool := &p.Recorders[0].Pools[0]
	for _, test := range []struct{ more, short float64 }{{0, 0}, {-1, 1}, {5, 0}} {
		pool.Layout, pool.HotSpares, pool.ReservePercent = "span", 0, 0
		pool.Drives = []plan.DriveGroup{{Count: 1, Terabytes: (before.UsableGB + before.ShortGB + test.more) / 1000}}
		after := Figures(p, nil)
		if got := after.Pools[0].ShortGB; math.Abs(got-test.short) > 0.001 {
			t.Errorf("with %v GB more than is short, %.4f GB are short, want %v", test.more, got, test.short)
		}
		if days := *after.Channels[1].RetentionDays; test.more == 0 && math.Abs(days-2000) > 0.01 {
			t.Errorf("%.3f days are kept", days)
		}
	}
}

// TestTheVerdictIsOfWhatMustBeKept: a channel that is deleted on the day to which it must be kept is as near to it as can be, and
// yet not the channel that wants room. Where its pool has no room for it either, it is.
func TestTheVerdictIsOfWhatMustBeKept(t *testing.T) {
	p := plantest.Read(t, "testdata/landing-stage.json")
	for i := range p.Channels {
		p.Channels[i].Keep = plan.Keep{}
	}
	days := *Figures(p, nil).Pools[0].RetentionDays
	at := func(first, second plan.Keep) Verdict {
		p.Channels[0].Keep, p.Channels[1].Keep = first, second
		return Figures(p, nil).Verdict
	}
	deleted := plan.Keep{AtLeastDays: days / 3, AtMostDays: days / 3}
	for _, test := range []struct {
		words         string
		first, second plan.Keep
		channel       int
		kept          float64 // share of what the pool keeps; 0 where it is not looked at
		short         bool
	}{
		{"a hair's breadth on the disk", deleted, plan.Keep{AtLeastDays: days / 1.1}, 1, 0, false},
		{"alone", deleted, plan.Keep{}, 0, 1. / 3, false},
		{"too little room for it", plan.Keep{AtLeastDays: 3 * days, AtMostDays: 3 * days}, plan.Keep{AtLeastDays: days / 1.1}, 0, 0, true},
		{"deleted too early", plan.Keep{AtLeastDays: days / 2, AtMostDays: days / 3}, plan.Keep{AtLeastDays: days / 1.1}, 0, 1. / 3, true},
		{"a quota", plan.Keep{AtLeastDays: days / 4, AtMostDays: days / 2, QuotaGB: 0.001}, plan.Keep{AtLeastDays: days / 1.1}, 0, 0, true},
	} {
		v := at(test.first, test.second)
		if want := p.Channels[test.channel].ID; v.Channel != want || v.Short != test.short {
			t.Errorf("%s: %s (short: %v), want %s", test.words, v.Channel, v.Short, want)
		}
		if test.kept > 0 && math.Abs(*v.KeptDays/days-test.kept) > 1e-6 {
			t.Errorf("%s: %v kept of %v", test.words, *v.KeptDays, days)
		}
	}
	if v := at(plan.Keep{AtMostDays: days / 5}, plan.Keep{}); v.RequiredDays != nil || *v.KeptDays < days/2 {
		t.Errorf("nothing is required, and the verdict is of what is deleted: %v of %v", *v.KeptDays, days)
	}
	if v := at(plan.Keep{QuotaGB: 0.001}, plan.Keep{}); v.Channel != p.Channels[0].ID {
		t.Error("nothing is required, and a quota takes footage away first: the verdict does not say so")
	}
}
