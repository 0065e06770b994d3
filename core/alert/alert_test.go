package alert

import (
	"math"
	"math/rand/v2"
	"slices"
	"strconv"
	"testing"

	"wakefield.example/core/activity"
	"wakefield.example/core/seeded"
	"wakefield.example/core/week"
)

// played draws the triggers of a stream over so many weeks, in order.
func played(rng *rand.Rand, s Stream, weeks int) (times []float64) {
	n := 1.0
	if s.grouped() {
		n = s.Group.Size
	}
	// Events are drawn at the rate that gives the triggers, each a trigger by the chance.
	highest := 0.0
	for p := range s.Rate.Len() {
		_, r := s.Rate.Piece(p)
		highest = max(highest, r)
	}
	chance := s.Chance
	if !s.grouped() {
		chance = 1
	}
	begins := highest / chance / n
	for t := 0.0; ; {
		t += rng.ExpFloat64() / begins
		if t > float64(weeks)*week.Seconds {
			break
		}
		if rng.Float64() > s.Rate.At(wrap(t))/highest {
			continue
		}
		if !s.grouped() {
			times = append(times, t)
			continue
		}
		members := 1
		for lot := math.Exp(-(n - 1)); ; members++ { // Poisson, by products
			if lot /= math.Max(rng.Float64(), 1e-300); lot >= 1 {
				break
			}
		}
		for range members {
			if rng.Float64() < chance {
				times = append(times, t+rng.Float64()*s.Group.Seconds)
			}
		}
	}
	slices.Sort(times)
	return times
}

// Of are the triggers that a detection makes of events, as far as they fall into some hours.
func Of(events activity.Process, d activity.Detection, hours week.Steps[bool]) Stream {
	triggers := activity.Detection{Hours: hours, Catch: 1}.Triggers(d.Triggers(events))
	return Stream{triggers.Intensity, events.Group, d.Notices(events.Mean)}
}

func stream(perHour week.Steps[activity.PerHour], group activity.Group, chance float64) Stream {
	p := activity.New(perHour, 10)
	p.Group = group
	return Of(p, activity.Detection{Hours: week.Constant(true), Catch: chance}, week.Constant(true))
}

// days is a rate by day, with another between two hours.
func days(otherwise, between float64, from, to int) week.Steps[activity.PerHour] {
	s := week.Constant(otherwise)
	for d := range 7 {
		s = s.Paint(week.Span{From: week.Minute(1440*d + 60*from), To: week.Minute(1440*d + 60*to)}, between)
	}
	return s
}

var noGroup = activity.Group{}

// TestSentIsWhatTheEquationSays holds a figure that was worked out by hand, and what is known in closed form.
func TestSentIsWhatTheEquationSays(t *testing.T) {
	s := []Stream{stream(days(0.5, 6, 8, 16), noGroup, 1)}
	h := Sent(s, 1800)
	if got := h.PerDay(); math.Abs(got-18.53) > 0.03 {
		t.Errorf("%.3f a day go out, want 18.53", got)
	}
	all := Triggers(s)
	if math.Abs(all.PerDay()-56) > 0.1 {
		t.Errorf("%v triggers a day", all.PerDay())
	}
	for _, rate := range []float64{0.1, 7, 900, 1e6} {
		for _, interval := range []float64{1, 30, 1800, 86400, week.Seconds} {
			h := Sent([]Stream{stream(week.Constant(rate), noGroup, 1)}, interval)
			if want := 24 * rate / (1 + rate/3600*interval); math.Abs(h.PerDay()-want) > 1e-3*want {
				t.Errorf("%v an hour, one in %v s: %v a day go out, want %v", rate, interval, h.PerDay(), want)
			}
		}
	}
	if h := Sent(nil, 60); h.PerDay() != 0 {
		t.Errorf("%v", h)
	}
	if h := Sent([]Stream{stream(days(0, 3000, 8, 9), noGroup, 1)}, 600); math.Abs(h.PerDay()-6) > 0.1 || h[7] != 0 || h[8] < 5 {
		t.Errorf("six of one hour: %v", h.PerDay())
	}
}

// TestPlayedAlertsAgree plays streams event by event and counts what goes out, holds and is cut short.
func TestPlayedAlertsAgree(t *testing.T) {
	const weeks = 400
	boats := activity.Group{Size: 5, Seconds: 90}
	for name, test := range map[string]struct {
		streams []Stream
		seconds float64
		within  float64 // of what goes out
		holds   float64 // of what holds
	}{
		"single, seldom":       {[]Stream{stream(days(0.2, 4, 7, 19), noGroup, 1)}, 600, 0.01, 0.01},
		"single, often":        {[]Stream{stream(days(2, 60, 7, 19), noGroup, 1)}, 300, 0.01, 0.01},
		"groups, long between": {[]Stream{stream(days(0.2, 20, 7, 19), boats, 0.6)}, 300, 0.02, 0.01},
		"groups, short":        {[]Stream{stream(days(0.2, 20, 7, 19), boats, 0.6)}, 15, 0.02, 0.01},
		"groups and single":    {[]Stream{stream(days(0.2, 20, 7, 19), boats, 0.9), stream(days(0, 3, 9, 12), noGroup, 1)}, 60, 0.02, 0.01},
		// Half of the groups overlap another, and the interval is an eighth of their length: the worst that was found.
		"much at once": {[]Stream{stream(days(1, 90, 6, 9), activity.Group{Size: 12, Seconds: 240}, 0.8)}, 30, 0.035, 0.01},
	} {
		rng := rand.New(rand.NewPCG(7, 11))
		var times []float64
		for _, s := range test.streams {
			times = append(times, played(rng, s, weeks)...)
		}
		slices.Sort(times)
		sent, begins, on := 0.0, 0.0, 0.0
		out, end := math.Inf(-1), math.Inf(-1)
		for _, at := range times {
			if at-out >= test.seconds {
				sent, out = sent+1, at
			}
			if at > end {
				begins++
				on += test.seconds
			} else {
				on += at + test.seconds - end
			}
			end = at + test.seconds
		}
		h := Sent(test.streams, test.seconds)
		share, starts := Taken([]Tie{{test.streams, test.seconds}})
		check := func(what string, got, want, within float64) {
			t.Helper()
			if math.Abs(got-want) > within*want {
				t.Errorf("%s: %s %.4f, played %.4f", name, what, got, want)
			}
		}
		all := Triggers(test.streams)
		check("triggers a day", all.PerDay(), float64(len(times))/weeks/7, 0.01)
		check("sent a day", h.PerDay(), sent/weeks/7, test.within)
		check("share held", share.Mean(), on/weeks/week.Seconds, test.holds)
		check("begins a day", starts.PerDay(), begins/weeks/7, 0.012)
	}
}

// TestIntervalsOfDays takes intervals of half a day to a week. Where there is always something that could go out, it goes
// out once an interval and never more, whether the interval divides the week or not; and where there is not, it is as played.
func TestIntervalsOfDays(t *testing.T) {
	boats := activity.Group{Size: 22, Seconds: 4}
	for _, interval := range []float64{43200, 86400, 100000, 308805, 500000, week.Seconds} {
		h := Sent([]Stream{stream(days(1e5, 8e4, 6, 9), boats, 0.25)}, interval)
		if most := 86400 / interval; h.PerDay() > most*(1+1e-12) || h.PerDay() < 0.999*most {
			t.Errorf("one in %v s: %v a day go out, at most %v", interval, h.PerDay(), most)
		}
		for _, seldom := range []struct {
			stream Stream
			within float64
		}{
			{stream(days(0.05, 2, 6, 9), noGroup, 1), 0.005},
			{stream(days(0.05, 2, 6, 9), activity.Group{Size: 5, Seconds: 900}, 0.8), 0.02},
		} {
			const weeks = 5000
			sent, out := 0.0, math.Inf(-1)
			for _, at := range played(rand.New(rand.NewPCG(3, 5)), seldom.stream, weeks) {
				if at-out >= interval {
					sent, out = sent+1, at
				}
			}
			h = Sent([]Stream{seldom.stream}, interval)
			if got, want := h.PerDay(), sent/weeks/7; math.Abs(got-want) > seldom.within*want {
				t.Errorf("%+v, one in %v s: %v a day go out, played %v", seldom.stream.Group, interval, got, want)
			}
		}
	}
}

// TestALandingStage holds figures that were played out over 2,000 weeks: people off boats and vehicles on a ramp, both in
// groups, gulls, a hatch, a lost picture and a button.
func TestALandingStage(t *testing.T) {
	everyDay := []int{0, 1, 2, 3, 4, 5, 6}
	at := func(s week.Steps[activity.PerHour], days []int, from, to int, perHour float64) week.Steps[activity.PerHour] {
		for _, d := range days {
			s = s.Paint(week.Span{From: week.Minute(1440*d + from), To: week.Minute(1440*d + to)}, perHour)
		}
		return s
	}
	process := func(rate week.Steps[activity.PerHour], mean float64, group activity.Group) activity.Process {
		p := activity.New(rate, mean)
		p.Group = group
		return p
	}
	landing := process(at(at(week.Constant(0.2), everyDay[:5], 390, 1200, 18), everyDay[5:], 480, 1350,
		40), 20, activity.Group{Size: 5, Seconds: 90})
	ramp := process(at(week.Constant(0.0), everyDay, 360, 1275, 30), 8, activity.Group{Size: 3, Seconds: 40})
	gulls := process(at(week.Constant(0.5), everyDay, 300, 1290, 12), 4, noGroup)
	hatch := process(at(week.Constant(0.05), []int{0, 3}, 540, 720, 3), 45, noGroup)
	lost, button := process(week.Constant(12/365.25/24), 1, noGroup), process(week.Constant(3.0/168), 1, noGroup)

	always, night, early := week.Constant(true), week.Constant(true), week.Constant(false)
	for d := range 7 {
		night = night.Paint(week.Span{From: week.Minute(1440*d + 390), To: week.Minute(1440*d + 1200)}, false)
		early = early.Paint(week.Span{From: week.Minute(1440*d + 330), To: week.Minute(1440*d + 450)}, true)
	}
	motion := activity.Detection{Hours: always, MinSeconds: 2, Catch: 0.9}
	near := func(what string, got, want, within float64) {
		t.Helper()
		if math.Abs(got-want) > within {
			t.Errorf("%s: %.4f, played %.4f", what, got, want)
		}
	}
	office := []Stream{Of(hatch, activity.Always, always), Of(lost, activity.Always, always), Of(button, activity.Always, always)}
	sent, all := Sent(office, 600), Triggers(office)
	near("to the office", sent.PerDay(), 3.3219, 0.033)
	near("held back from the office", all.PerDay()-sent.PerDay(), 0.8558, 0.05)
	phone := []Stream{Of(hatch, activity.Always, night), Of(landing, motion, night), Of(gulls, motion, night), Of(button,
		activity.Always, night)}
	sent, all = Sent(phone, 1800), Triggers(phone)
	near("to the phone", sent.PerDay(), 8.0839, 0.08)
	near("held back from the phone", all.PerDay()-sent.PerDay(), 39.3832, 0.39)
	stage := []Stream{Of(landing, motion, always), Of(gulls, motion, always)}
	share, begins := Taken([]Tie{{stage, 90}})
	near("the lamp goes on", begins.PerDay(), 127.9317, 1.27)
	near("share of the lamp", 100*share.Mean(), 19.0230, 0.1)
	horn := []Stream{Of(ramp, activity.Always, early)}
	sent = Sent(horn, 15)
	near("the horn", sent.PerDay(), 23.0376, 0.23)
	ties := []Tie{{office[:1], 15}, {stage, 15}, {horn, 15}, {office[2:], 15}}
	share, _ = Taken(ties)
	cut, shown := CutShort([][]Stream{office[:1], stage, horn, office[2:]}, 15), 0.0
	for _, tie := range ties {
		all := Triggers(tie.Streams)
		shown += all.PerDay()
	}
	near("shown", shown, 437.8594, 4.4)
	near("share of the monitor", 100*share.Mean(), 5.8254, 0.1)
	near("cut short", 100*cut.PerDay()/shown, 0.9922, 0.1)
	share, _ = Taken([]Tie{{horn, 20}})
	near("away", 100*share.Mean(), 0.5989, 0.1)
	stills := Stills([]Lasting{{Of(ramp, activity.Always, always), 8}}, 5)
	near("stills of the ramp", stills.PerDay(), 720.094, 7.2)
}

// TestPlayedShowingsAreCutShort plays two ties that take one monitor.
func TestPlayedShowingsAreCutShort(t *testing.T) {
	const weeks = 400
	ties := []Tie{
		{[]Stream{stream(days(0.2, 20, 7, 19), activity.Group{Size: 5, Seconds: 90}, 0.9)}, 20},
		{[]Stream{stream(days(1, 40, 8, 22), noGroup, 1)}, 20},
	}
	rng := rand.New(rand.NewPCG(3, 5))
	type showing struct {
		at  float64
		tie int
	}
	var all []showing
	for k := range ties {
		for _, at := range played(rng, ties[k].Streams[0], weeks) {
			all = append(all, showing{at, k})
		}
	}
	slices.SortFunc(all, func(a, b showing) int { return int(math.Copysign(1, a.at-b.at)) })
	cut := 0.0
	for i, s := range all {
		for _, next := range all[i+1:] {
			if next.at > s.at+20 {
				break
			}
			if next.tie != s.tie {
				cut++
				break
			}
		}
	}
	h := CutShort([][]Stream{ties[0].Streams, ties[1].Streams}, 20)
	if got, want := h.PerDay(), cut/weeks/7; math.Abs(got-want) > 0.02*want {
		t.Errorf("%.3f a day are cut short, played %.3f", got, want)
	}
	if h := CutShort([][]Stream{ties[0].Streams}, 20); h.PerDay() != 0 {
		t.Errorf("one tie cuts itself short %v times a day", h.PerDay())
	}
}

// TestPlayedStillsAgree plays triggers that last, and takes stills of them.
func TestPlayedStillsAgree(t *testing.T) {
	const weeks = 250
	for name, test := range map[string]struct {
		stream   Stream
		mean     float64
		interval float64
		within   float64
	}{
		"single":                        {stream(days(1, 30, 6, 21), noGroup, 1), 8, 5, 0.01},
		"single, much":                  {stream(days(1, 300, 6, 21), noGroup, 1), 20, 10, 0.01},
		"boats":                         {stream(days(0, 30, 6, 21), activity.Group{Size: 3, Seconds: 40}, 1), 8, 5, 0.01},
		"boats, half noticed":           {stream(days(0, 30, 6, 21), activity.Group{Size: 3, Seconds: 40}, 0.5), 8, 5, 0.015},
		"boats, an interval that lasts": {stream(days(0, 60, 6, 21), activity.Group{Size: 6, Seconds: 120}, 1), 20, 60, 0.015},
		"short ones, far apart":         {stream(days(0, 20, 6, 21), activity.Group{Size: 4, Seconds: 300}, 1), 5, 30, 0.015},
		"many at once":                  {stream(days(0, 200, 6, 21), activity.Group{Size: 5, Seconds: 60}, 1), 10, 3, 0.015},
		"moments":                       {stream(days(0, 20, 6, 21), activity.Group{Size: 4, Seconds: 100}, 1), 0, 30, 0.03},
	} {
		rng := rand.New(rand.NewPCG(5, 9))
		taken, last, busy := 0, math.Inf(-1), math.Inf(-1)
		for _, at := range played(rng, test.stream, weeks) {
			end := at + test.mean*rng.ExpFloat64()
			// Up to now something lasted until busy, and stills went on.
			for last+test.interval < min(busy, at) {
				last += test.interval
				taken++
			}
			if at > busy && at >= last+test.interval { // a trigger that begins what lasts
				last = at
				taken++
			}
			busy = max(busy, end)
		}
		h := Stills([]Lasting{{test.stream, test.mean}}, test.interval)
		if got, want := h.PerDay(), float64(taken)/weeks/7; math.Abs(got-want) > test.within*want {
			t.Errorf("%s: %.2f stills a day, played %.2f", name, got, want)
		}
	}
	timed := []Lasting{{stream(week.Constant(1e5), noGroup, 1), 100}}
	if h := Stills(timed, 10); math.Abs(h.PerDay()-8640) > 1 {
		t.Errorf("without a pause %v stills a day are taken, want 8640", h.PerDay())
	}
	if h := Stills(nil, 10); h.PerDay() != 0 {
		t.Errorf("of nothing %v stills", h.PerDay())
	}
}

// FuzzSent gives streams and intervals of any kind. No more goes out than comes, and no more than there are intervals.
func FuzzSent(fuzz *testing.F) {
	f := seeded.Of(fuzz, 400)
	f.Add(3.0, 20.0, 5.0, 90.0, 0.5, 60.0)
	f.Add(0.0, 1e6, 1.0, 0.0, 1.0, 1.0)
	f.Add(1e-9, 1e-9, 1000.0, 86400.0, 1e-6, 604800.0)
	f.Add(902.0, 8.833333333333334, 22.0, 3.9642857142857144, 0.25, 308805.0)
	f.Fuzz(func(t *testing.T, low, high, size, spread, chance, interval float64) {
		if !(low >= 0 && low <= 1e6 && high >= 0 && high <= 1e6 && size >= 1 && size <= 1000 && spread >= 1 && spread <= 86400 && chance > 1e-9 &&
			chance <= 1 && interval >= 1 && interval <= 1e9) {
			t.Skip()
		}
		streams := []Stream{stream(days(low, high, 6, 9), activity.Group{Size: size, Seconds: spread}, chance)}
		h, all := Sent(streams, interval), Triggers(streams)
		share, begins := Taken([]Tie{{streams, min(interval, 86400)}})
		for what, v := range map[string]float64{"sent": h.PerDay(), "share": share.Mean(), "begins": begins.PerDay()} {
			if math.IsNaN(v) || math.IsInf(v, 0) || v < 0 {
				t.Errorf("%s is %v", what, v)
			}
		}
		most := 86400/max(1, min(interval, week.Seconds)) + 1e-6
		if h.PerDay() > all.PerDay()*(1+1e-6) || h.PerDay() > most*(1+1e-12) || share.Mean() > 1+1e-9 ||
			begins.PerDay() > all.PerDay()*(1+1e-6)+1e-9 {
			t.Errorf("%v of %v go out, at most %v; held for %v, begun %v", h.PerDay(), all.PerDay(), most, share.Mean(), begins.PerDay())
		}
	})
}

// BenchmarkAlerts is one receiver with 100 streams, and one monitor.
func BenchmarkAlerts(b *testing.B) {
	var streams []Stream
	for i := range 100 {
		streams = append(streams, stream(days(0.1, 1+float64(i%7), 6+i%5, 18+i%4), activity.Group{Size: 1 + float64(i%3), Seconds: 60}, 0.9))
	}
	b.Run("sent", func(b *testing.B) {
		for b.Loop() {
			Sent(streams, 600)
		}
	})
	b.Run("taken", func(b *testing.B) {
		for b.Loop() {
			Taken([]Tie{{streams, 20}})
		}
	})
}

func BenchmarkLongIntervals(b *testing.B) {
	streams := []Stream{stream(days(0.05, 2, 6, 9), activity.Group{Size: 5, Seconds: 900}, 0.8), stream(days(0.1, 1, 7, 19), noGroup, 1)}
	for _, interval := range []float64{43200, 86400, 172800, week.Seconds} {
		b.Run(strconv.Itoa(int(interval)), func(b *testing.B) {
			for b.Loop() {
				Sent(streams, interval)
			}
		})
	}
}
