package uplink

import (
	"math"
	"testing"

	"wakefield/core/seeded"
	"wakefield/core/week"
)

// arriving is a rate with another for an hour each day.
func arriving(otherwise, busy float64, hour int) []float64 {
	out := make([]float64, week.Length)
	for m := range out {
		out[m] = otherwise
		if m/60%24 == hour {
			out[m] = busy
		}
	}
	return out
}

var always = week.Constant(true)

func TestABacklogRisesAndFalls(t *testing.T) {
	// 3,000 kbit/s come for an hour to 1,000: 7,200 Mbit wait, and are gone after 2 h 40 min at 250 kbit/s coming.
	q := New(arriving(250, 3000, 8), 1000, always)
	if q.Grows {
		t.Fatal("it grows")
	}
	if got, want := q.backlog[9*60], 3600*2000.0; math.Abs(got-want) > 1 {
		t.Errorf("backlog %v kbit, want %v", got, want)
	}
	if got := q.backlog[9*60+160]; got > 1 {
		t.Errorf("after 160 minutes %v kbit wait", got)
	}
	worst, at := q.Worst(8000)
	if math.Abs(worst-7208) > 1e-6 || at != 9*60 {
		t.Errorf("the longest wait is %v s at %v, want 7208 s at %v", worst, at, 9*60)
	}
	if got := q.Wait(0, 8000); math.Abs(got-8) > 1e-9 || Idle(8000, 1000) != 8 {
		t.Errorf("at rest %v s", got)
	}
	if h := q.ByHour(); h[8] != q.backlog[9*60] || h[0] != 0 {
		t.Errorf("by hour: %v, %v", h[8], h[0])
	}
}

func TestWhatWaitsForHours(t *testing.T) {
	nights := week.Constant(false)
	for d := range week.Minute(7) {
		nights = nights.Paint(week.Span{From: d * week.Day, To: d*week.Day + 6*60}, true)
	}
	q := New(arriving(100, 100, 0), 1000, nights)
	// From 06:00 on it waits until midnight, behind all that came since.
	waits := 18*3600.0 + 100*18*3600/1000.0
	if got := q.Wait(24*60, 0); math.Abs(got-100*18*3600/1000.0) > 1e-6 {
		t.Errorf("what comes at midnight waits %v s", got)
	}
	if got := q.Wait(23*60+59, 0); math.Abs(got-(60+waits-18*3600)) > 7 {
		t.Errorf("what comes a minute before waits %v s", got)
	}
	if got := q.Wait(6*60, 60000); math.Abs(got-(18*3600+60)) > 1e-6 {
		t.Errorf("what comes as it closes waits %v s, want %v", got, 18*3600+60)
	}
	if got := q.Wait(6*24*60+23*60, 1000*6*3600*8); math.Abs(got-(3600+8*86400)) > 86400 {
		t.Errorf("what takes more than a week waits %v s", got)
	}
}

// TestTheWorstIsTheWorst asks every minute.
func TestTheWorstIsTheWorst(t *testing.T) {
	shut := week.Constant(true).Paint(week.Span{From: 600, To: 900}, false).Paint(week.Span{From: 5000, To: 5060}, false)
	for _, q := range []*Queue{New(arriving(250, 3000, 8), 1000, always), New(arriving(250, 3000, 8), 1000, shut), New(arriving(10, 20, 10), 1000, shut), New(arriving(100, 1500, 23), 1000, shut)} {
		for _, size := range []float64{0, 1000, 5e6} {
			worst, _ := q.Worst(size)
			for m := range week.Length {
				if w := q.Wait(m, size); w > worst+1e-6 {
					t.Fatalf("at %v %v s, more than the worst, %v", m, w, worst)
				}
			}
		}
	}
}

func TestWhatNeverCatchesUp(t *testing.T) {
	for _, q := range []*Queue{New(arriving(2000, 2000, 0), 1000, always), New(arriving(1, 1, 0), 1000, week.Constant(false))} {
		if !q.Grows || !math.IsInf(q.Wait(5, 1), 1) {
			t.Errorf("grows %t, waits %v", q.Grows, q.Wait(5, 1))
		}
		if w, _ := q.Worst(1); !math.IsInf(w, 1) {
			t.Errorf("at worst %v", w)
		}
	}
	if q := New(arriving(0, 0, 0), 1000, week.Constant(false)); q.Grows || q.Wait(0, 0) != 0 || !math.IsInf(q.Wait(0, 1), 1) {
		t.Error("nothing comes, and nothing could leave")
	}
}

// FuzzWait asks that what waits leaves in order, and no sooner than the uplink can carry it.
func FuzzWait(fuzz *testing.F) {
	f := seeded.Of(fuzz, 2000)
	f.Add(100.0, 3000.0, 8, 1000.0, 8000.0, 500)
	f.Add(0.0, 0.0, 0, 1e9, 1e12, 0)
	f.Fuzz(func(t *testing.T, otherwise, busy float64, hour int, kbps, size float64, at int) {
		if !(otherwise >= 0 && otherwise < 1e7 && busy >= 0 && busy < 1e7 && kbps >= 1 && kbps < 1e8 && size >= 0 && size < 1e12 && hour >= 0 && hour < 24 && at >= 0 && at < int(week.Length)) {
			t.Skip()
		}
		q := New(arriving(otherwise, busy, hour), kbps, always)
		w := q.Wait(week.Minute(at), size)
		worst, _ := q.Worst(size)
		worst += 1e-6 * (1 + worst)
		if math.IsNaN(w) || w < Idle(size, kbps)*(1-1e-9)-1e-6 || w > worst || q.Wait(week.Minute(at), size/2) > w {
			t.Errorf("waits %v s of %v s at worst", w, worst)
		}
	})
}
