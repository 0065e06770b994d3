package uplink

import (
	"fmt"
	"math"
	"slices"
	"testing"

	"wakefield.example/core/activity"
	"wakefield.example/core/footage"
	"wakefield.example/core/seeded"
	"wakefield.example/core/video"
	"wakefield.example/core/week"
)

var always = week.Constant(true)

// nights are open from midnight to six.
func nights() week.Steps[bool] {
	out := week.Constant(false)
	for d := range week.Minute(7) {
		out = out.Paint(week.Span{From: d * week.Day, To: d*week.Day + 6*60}, true)
	}
	return out
}

func TestALineCarriesWhileItIsOpen(t *testing.T) {
	l := NewLine(1000, nights())
	if got := l.Carries(); got != 7*6*3600*1000 {
		t.Errorf("it carries %v kbit a week", got)
	}
	day := 86400.0
	for _, c := range []struct{ at, amount, want float64 }{
		{0, 0, 0}, {0, 60_000, 60}, {3 * 3600, 1000 * 3600, 4 * 3600},
		{6 * 3600, 60_000, day + 60},             // as it closes
		{day - 60, 1000, day + 1},                // a minute before it opens
		{0, 1000 * 6 * 3600 * 8, 7*day + 6*3600}, // eight nights
		{0, 1000 * 6 * 3600 * 7, 6*day + 6*3600}, // as the last night of a week ends
		{2*week.Seconds + 30, 5000, 2*week.Seconds + 35},
	} {
		if got := l.After(c.at, c.amount); math.Abs(got-c.want) > 1e-6 {
			t.Errorf("%v kbit from %v on have left at %v, want %v", c.amount, c.at, got, c.want)
		}
	}
	if got := l.Between(5*3600, day+3600); got != 2*3600*1000 {
		t.Errorf("%v kbit leave between", got)
	}
	if l := NewLine(500, always); l.After(10, 1000) != 12 || l.Between(1, 3) != 1000 || l.Carries() != 500*week.Seconds {
		t.Error("a line that is always open")
	}
}

func FuzzLine(fuzz *testing.F) {
	f := seeded.Of(fuzz, 3000)
	f.Add(0.0, 60.0, 1000.0, 0, 360)
	f.Add(86399.5, 1e9, 1.0, 1400, 1439)
	f.Fuzz(func(t *testing.T, at, amount, kbps float64, from, to int) {
		if !(at >= 0 && at < 10*week.Seconds && amount > 1e-8*kbps && amount < 1e9 && kbps >= 1 && kbps < 1e8 && from >= 0 && from < to &&
			to <= int(week.Length)) {
			t.Skip()
		}
		l := NewLine(kbps, week.Constant(false).Paint(week.Span{From: week.Minute(from), To: week.Minute(to)}, true))
		after := l.After(at, amount)
		if carried := l.Between(at, after); math.IsNaN(after) || after < at || math.Abs(carried-amount) > 1e-6*(amount+kbps*1e-3*(1+after/1e6)) {
			t.Errorf("%v kbit have left at %v, until when %v can leave", amount, after, carried)
		}
	})
}

func TestWhatSeveralShareIsBroughtOnce(t *testing.T) {
	var c covered
	add := func(from, to float64) (got []Span) {
		c.add(from, to, func(from, to float64) { got = append(got, Span{from, to}) })
		return got
	}
	for _, x := range []struct {
		from, to float64
		want     []Span
	}{
		{10, 20, []Span{{10, 20}}}, {12, 18, nil}, {15, 30, []Span{{20, 30}}}, {50, 60, []Span{{50, 60}}},
		{5, 70, []Span{{5, 10}, {30, 50}, {60, 70}}},
		{70, 80, []Span{{70, 80}}}, {0, 80, []Span{{0, 5}}}, {90, 90, nil}, {85, 95, []Span{{85, 95}}}, {80, 85, []Span{{80, 85}}},
	} {
		if got := add(x.from, x.to); !slices.Equal(got, x.want) {
			t.Errorf("%v to %v brings %v, want %v", x.from, x.to, got, x.want)
		}
	}
	if len(c.spans) != 1 || c.spans[0] != (Span{0, 95}) {
		t.Errorf("%v", c.spans)
	}
}

// crowd are channels of which each copies ten seconds of 1,000 kbit/s around moments that come so often a day, over a line.
func crowd(channels int, perDay, kbps float64) *Demand {
	s := &Demand{Line: NewLine(kbps, always)}
	copied := week.Constant(footage.Regime{Admit: footage.Either, Event: video.Cost{Idle: 1000, Active: 1000}})
	for i := range channels {
		s.Sources = append(s.Sources, Source{fmt.Sprint("c", i), activity.New(week.Constant(perDay/24), 1e-3)})
		s.Channels = append(s.Channels, Channel{Own: []int{i}, Heard: []Heard{{Source: i, By: []activity.Detection{activity.Always}}}, Pre: 4,
			Post: 6, AlarmPre: 4, AlarmPost: 6, Copied: copied})
	}
	return s
}

// TestEqualClipsQueueByTheFormula holds clips of one size that come independently against the queue M/D/1: at a load of ρ one
// waits ρ·D/(2(1−ρ)) on average.
func TestEqualClipsQueueByTheFormula(t *testing.T) {
	const channels, perDay, size = 40, 40.0, 10_000.0
	for _, load := range []float64{0.07, 0.3, 0.6, 0.85} {
		kbps := channels * perDay * size / 86400 / load
		got := Play(crowd(channels, perDay, kbps))
		takes := size / kbps
		mean := 0.0
		for i := range got.Channels {
			mean += got.Channels[i].Mean / channels
		}
		if want := 6 + takes + load*takes/(2*(1-load)); math.Abs(mean-want) > 0.05*want {
			t.Errorf("at %v of the line safe after %v s on average, want %v", load, mean, want)
		}
	}
}

func TestRareCopiesMeetTheQueueOfOthers(t *testing.T) {
	s := crowd(40, 40, 40*40*10_000/86400/0.6)
	s.Sources = append(s.Sources, Source{"rare", activity.New(week.Constant(0.3/24), 1e-3)})
	rare := s.Channels[0]
	rare.Own, rare.Heard = nil, []Heard{{Source: 40, By: rare.Heard[0].By, Alarm: true}}
	s.Channels = append(s.Channels, rare)
	got := Play(s)
	all := 0.0
	for _, c := range got.Channels[:40] {
		all += c.Ninety / 40
	}
	if last := got.Channels[40]; last.Clips == 0 || math.Abs(last.Ninety-all) > 0.1*all {
		t.Errorf("nine of ten are safe within %v s, %v s where there are many", last.Ninety, all)
	}
}

func TestTheDutyDecidesWhatIsCopied(t *testing.T) {
	base := crowd(2, 300, 1e6).Channels[0]
	event := video.Cost{Idle: 500, Active: 1500}
	both := []happened{{0, 100, 110, false}, {1, 130, 140, true}}
	for _, c := range []struct {
		admit footage.Admit
		want  []Kbit // of the motion from 96 to 116 and of the alarm from 126 to 146
	}{
		{footage.Either, []Kbit{10*500 + 10*1500, 10*500 + 10*1500}}, {footage.Motion, []Kbit{10*500 + 10*1500}},
		{footage.Alarm, []Kbit{10*500 + 10*1500}}, {footage.Both, nil}, {footage.Nothing, nil},
	} {
		if got := amounts(base, c.admit, event, both); !slices.Equal(got, c.want) {
			t.Errorf("admitting %v %v kbit, want %v", c.admit, got, c.want)
		}
	}
	overlapping := []happened{{0, 100, 110, false}, {1, 105, 120, true}} // 96 to 116 and 101 to 126; something moves from 100 to 120
	if got := amounts(base, footage.Both, event, overlapping); !slices.Equal(got, []Kbit{15 * 1500, 0}) {
		t.Errorf("what both cover: %v", got)
	}
	if got := amounts(base, footage.Either, event, overlapping); !slices.Equal(got, []Kbit{4*500 + 16*1500, 4*1500 + 6*500}) {
		t.Errorf("what they share: %v", got)
	}
}

// happened is one event of a source.
type happened struct {
	source   int
	from, to float64
	alarm    bool
}

func amounts(c Channel, admit footage.Admit, cost video.Cost, list []happened) (out []Kbit) {
	c.Copied = week.Constant(footage.Regime{Admit: admit, Event: cost})
	c.Heard, c.Own = nil, nil
	for _, e := range list {
		c.Heard = append(c.Heard, Heard{e.source, []activity.Detection{activity.Always}, e.alarm})
		c.Own = append(c.Own, e.source)
	}
	for _, clip := range c.clips(0, 1, func(k int) []event { return []event{{list[k].from, list[k].to, 0}} }) {
		out = append(out, clip.Amount)
	}
	return out
}

func TestStillsGoByThemselves(t *testing.T) {
	c := crowd(1, 1, 1000).Channels[0]
	c.Stills = &Stills{EverySeconds: 5, Amount: 100, Hours: always}
	got := c.clips(0, 1, func(int) []event { return []event{{100, 112, 0}, {113, 114, 0}, {116, 117, 0}} })
	var at []float64
	for _, clip := range got {
		at = append(at, clip.Done)
	}
	if !slices.Equal(at, []float64{100, 105, 110, 116}) {
		t.Errorf("stills at %v", at)
	}
}

func TestTheSameIsPlayedAgain(t *testing.T) {
	a, b := crowd(5, 100, 2000), crowd(6, 100, 2000)
	x, y := Play(a), Play(a)
	if x.Channels[0].Ninety != y.Channels[0].Ninety || x.Waits != y.Waits || x.Backlog != y.Backlog {
		t.Error("the same demand plays otherwise")
	}
	if first, more := drawn(a.Sources[0].Process, a.Sources[0].Name, 3, 1), drawn(b.Sources[0].Process, b.Sources[0].Name, 5,
		1); !slices.Equal(first, more[:len(first)]) {
		t.Error("what happens depends on what else does")
	}
	s := x.Channels[0]
	if s.Later(s.Ninety) > 0.1 || s.Later(s.Ninety-1e-9) < 0.09 || s.Later(0) != 1 || s.Later(1e9) != 0 {
		t.Errorf("later than %v: %v", s.Ninety, s.Later(s.Ninety))
	}
}

// TestMoreThanCanBePlayed copies what never stops: an event stands for several, and the line carries what a week brings.
func TestMoreThanCanBePlayed(t *testing.T) {
	s := crowd(3, 24e6, 3*1000/0.5)
	for i := range s.Channels {
		s.Channels[i].Weekly = 1000 * week.Seconds
	}
	got := Play(s)
	if s.part > 0.01 || got.Channels[0].Clips > mostWork {
		t.Errorf("a part of %v, %d clips", s.part, got.Channels[0].Clips)
	}
	if c := got.Channels[0]; c.Ninety < 6 || c.Ninety > 60 {
		t.Errorf("nine of ten are safe within %v s", c.Ninety)
	}
	stills := crowd(1, 24e3, 1000)
	stills.Channels[0].Stills, stills.Channels[0].Weekly = &Stills{EverySeconds: 0.1, Amount: 10, Hours: always}, 100*week.Seconds
	stills.Sources[0].Process = activity.New(week.Constant(activity.PerHour(1000)), 86400)
	if got := Play(stills); got.Channels[0].Clips > mostWork || got.Channels[0].Clips == 0 {
		t.Errorf("%d stills", got.Channels[0].Clips)
	}
}

// TestHours copies by night what happens at noon.
func TestWhatWaitsForTheNight(t *testing.T) {
	s := crowd(1, 0, 1000)
	s.Line = NewLine(1000, nights())
	noon := week.Constant(activity.PerHour(0)).Paint(week.Span{From: 12 * 60, To: 13 * 60}, 60)
	s.Sources[0].Process = activity.New(noon, 1e-3)
	got := Play(s)
	if c := got.Channels[0]; c.Mean < 11.3*3600 || c.Mean > 11.8*3600 {
		t.Errorf("safe after %v h", c.Mean/3600)
	}
	if got.Backlog[13] < 10_000 || got.Backlog[20] != got.Backlog[13] || got.Backlog[24+6] != 0 {
		t.Errorf("waits: %v", got.Backlog[:31])
	}
}

func BenchmarkPlay(b *testing.B) {
	for _, load := range []float64{0.3, 0.85} {
		b.Run(fmt.Sprint(load), func(b *testing.B) {
			for b.Loop() {
				Play(crowd(16, 60, 16*60*10_000/86400/load))
			}
		})
	}
}
