package formats

import (
	"context"
	"fmt"
	"math"
	"strings"
	"testing"
	"time"

	"wakefield.example/core/seeded"
	"wakefield.example/core/week"
)

func dublin(t testing.TB) *time.Location {
	t.Helper()
	loc, err := time.LoadLocation("Europe/Dublin")
	if err != nil {
		t.Fatal(err)
	}
	return loc
}

// hourly is a log of three weeks with an event at ten past every hour from 08 to 17.
func hourly(layout string, row func(start, end string, seconds int) string) string {
	var b strings.Builder
	for day := range 21 {
		for hour := 8; hour < 18; hour++ {
			start := time.Date(2026, 6, 1+day, hour, 10, 0, 0, time.UTC)
			seconds := 20 + 2*(hour-8)
			b.WriteString(row(start.Format(layout), start.Add(time.Duration(seconds)*time.Second).Format(layout), seconds) + "\n")
		}
	}
	return b.String()
}

func TestReadLogRecognisesColumns(t *testing.T) {
	two := func(start, end string, _ int) string { return "7,motion," + start + "," + end }
	tests := []struct {
		name, text string
		start, end int
		lengths    bool
	}{
		{"starts and ends", "no,what,begin,end\n" + hourly("2006-01-02 15:04:05", two), 2, 3, false},
		{"no heading", hourly("2006-01-02T15:04:05", two), 2, 3, false},
		{"day.month", "no,what,begin,end\n" + hourly("02.01.2006 15:04:05", two), 2, 3, false},
		{"month/day", "no,what,begin,end\n" + hourly("01/02/2006 15:04:05", two), 2, 3, false},
		{"lengths", "when;duration\n" + hourly("2006-01-02 15:04:05", func(s, _ string, n int) string { return fmt.Sprintf("%s;%d", s, n) }), 0,
			1, true},
		{"lengths as a clock", "when;duration\n" + hourly("2006-01-02 15:04:05",
			func(s, _ string, n int) string { return fmt.Sprintf("%s;00:00:%02d", s, n) }), 0, 1, true},
	}
	for _, test := range tests {
		l, err := ReadLog(context.Background(), []byte(test.text), dublin(t), nil, LogPeriod{})
		if err != nil {
			t.Errorf("%s: %v", test.name, err)
			continue
		}
		if l.Start != test.start || l.End != test.end || l.Lengths != test.lengths || l.Events != 210 || l.LeftOut != 0 {
			t.Errorf("%s: %+v", test.name, l)
		}
		if math.Abs(l.PerDay-10) > 0.01 || math.Abs(l.Activity.MeanSeconds-29) > 0.01 || l.Activity.Known != "measured" ||
			math.Abs(l.Weeks-3) > 0.01 {
			t.Errorf("%s: %v a day of %v s over %v weeks", test.name, l.PerDay, l.Activity.MeanSeconds, l.Weeks)
		}
		rates := l.Activity.Process().Intensity
		if day, night := rates.At(12*3600), rates.At(3*3600); day < 0.9/3600 || night > 0 {
			t.Errorf("%s: %v by day, %v by night", test.name, day*3600, night*3600)
		}
	}
}

func TestReadLogMindsTheTimeZone(t *testing.T) {
	text := "start\n" + hourly("2006-01-02T15:04:05Z07:00", func(s, _ string, _ int) string { return s })
	l, err := ReadLog(context.Background(), []byte(text), dublin(t), nil, LogPeriod{})
	if err != nil {
		t.Fatal(err)
	}
	// 08:10 UTC is 09:10 in Dublin in June.
	if rate := l.Activity.Process().Intensity; rate.At(8.5*3600) != 0 || rate.At(18.5*3600) == 0 || l.Sample[0].Start.Hour() != 9 {
		t.Errorf("%+v", l.Activity)
	}
	if l.End != -1 || l.Activity.MeanSeconds != 15 || !strings.Contains(strings.Join(l.Notes, " "), "does not say how long") {
		t.Errorf("%+v", l)
	}
}

func TestReadLogNamesWhatItLeavesOut(t *testing.T) {
	text := "begin,end\n" + hourly("2006-01-02 15:04:05", func(s, e string, _ int) string { return s + "," + e }) +
		"2026-06-22 08:00:00,2026-06-22 07:00:00\nyesterday,today\n"
	l, err := ReadLog(context.Background(), []byte(text), time.UTC, nil, LogPeriod{})
	if err != nil || l.LeftOut != 2 || l.Bad[0].Line != 212 || l.Bad[0].Column != "end" ||
		!strings.Contains(l.Bad[0].Reason, "before it begins") || l.Bad[1].Column != "begin" {
		t.Errorf("%v %+v", err, l)
	}
	if swapped, err := ReadLog(context.Background(), []byte(text), time.UTC, &LogColumns{Start: 1, End: -1, Channel: -1, Kind: -1},
		LogPeriod{}); err != nil || swapped.Start != 1 || swapped.End != -1 {
		t.Errorf("%v %+v", err, swapped)
	}
	for text, want := range map[string]string{"": "empty", "a,b\nc,d\n": "no column has times", "start\n": "no column has times"} {
		if _, err := ReadLog(context.Background(), []byte(text), time.UTC, nil, LogPeriod{}); err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%q: %v", text, err)
		}
	}
	if _, err := ReadLog(context.Background(), []byte(text), time.UTC, &LogColumns{Start: 9, End: -1, Channel: -1, Kind: -1},
		LogPeriod{}); err == nil {
		t.Error("a column that is not there")
	}
}

func TestALogSaysWhenItWasKept(t *testing.T) {
	text := "begin\n2026-06-08 08:00:00\n2026-06-09 08:00:00\n"
	kept := LogPeriod{week.Date{Year: 2026, Month: 6, Day: 1}, week.Date{Year: 2026, Month: 6, Day: 28}}
	short, err := ReadLog(context.Background(), []byte(text), time.UTC, nil, LogPeriod{})
	if err != nil || math.Abs(short.PerDay-1) > 0.01 {
		t.Errorf("%v %+v", err, short)
	}
	long, err := ReadLog(context.Background(), []byte(text), time.UTC, nil, kept)
	if err != nil || math.Abs(long.PerDay-2.0/28) > 0.001 || long.Weeks != 4 {
		t.Errorf("%v %+v", err, long)
	}
	if _, err := ReadLog(context.Background(), []byte(text), time.UTC, nil,
		LogPeriod{From: week.Date{Year: 2027, Month: 1, Day: 1}}); err == nil {
		t.Error("a log that ends before it begins")
	}
}

func FuzzReadLog(fuzz *testing.F) {
	f := seeded.Of(fuzz, 1500)
	f.Add([]byte("begin,end\n2026-06-22 08:00:00,2026-06-22 08:00:09\n"))
	f.Add([]byte("1782000000;3\n1782000100;5,5\n"))
	f.Add([]byte("01/02/2026 08:00;00:01:00\n"))
	f.Add([]byte("time,camera,event\n2026-06-22 08:00:00,a,start\n2026-06-22 08:00:09,a,stop\n2026-06-22 08:00:10,b,start\n"))
	f.Fuzz(func(t *testing.T, data []byte) {
		l, err := ReadLog(context.Background(), data, time.UTC, nil, LogPeriod{})
		if err == nil && (l.Events < 1 || !(l.PerDay >= 0) || math.IsInf(l.PerDay, 0) || !(l.Activity.MeanSeconds >= 0.1)) {
			t.Errorf("%+v", l)
		}
	})
}

// TestOneHourThatNobodySawIsSaid has a log of the week in which the clocks skip an hour.
func TestOneHourThatNobodySawIsSaid(t *testing.T) {
	lisbon, err := time.LoadLocation("Europe/Lisbon")
	if err != nil {
		t.Fatal(err)
	}
	text := "begin\n"
	for day := 23; day <= 29; day++ {
		text += fmt.Sprintf("2026-03-%d 08:00:00\n", day)
	}
	kept := LogPeriod{week.Date{Year: 2026, Month: 3, Day: 23}, week.Date{Year: 2026, Month: 3, Day: 29}}
	l, err := ReadLog(context.Background(), []byte(text), lisbon, nil, kept)
	if err != nil || !strings.Contains(strings.Join(l.Notes, " "),
		"1 hour of the week is not covered by the log; it was assumed to be like the same hour of other days.") {
		t.Errorf("%v: %q", err, l.Notes)
	}
}
