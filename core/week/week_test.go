package week

import (
	"reflect"
	"strings"
	"testing"

	"wakefield.example/core/seeded"
)

func TestClockReadsWhatItWrites(t *testing.T) {
	for _, text := range []string{"00:00", "06:30", "23:59", "24:00"} {
		var c Clock
		if err := c.UnmarshalText([]byte(text)); err != nil || c.String() != text {
			t.Errorf("%q became %v, %v", text, c, err)
		}
	}
	for _, text := range []string{"", "6:30", "25:00", "24:01", "12:60", "12.30", "-1:00", "12:3x", "012:00"} {
		var c Clock
		if err := c.UnmarshalText([]byte(text)); err == nil {
			t.Errorf("%q was read as %v", text, c)
		}
	}
}

func TestHoursBecomeSpans(t *testing.T) {
	tests := []struct {
		name  string
		hours Hours
		want  []Span
	}{
		{"a working day", Hours{[]Weekday{Tuesday}, 360, 1320}, []Span{{1800, 2760}}},
		{"a whole day", Hours{[]Weekday{Monday}, 0, 1440}, []Span{{0, 1440}}},
		{"a night", Hours{[]Weekday{Friday}, 1320, 300}, []Span{{4*Day + 1320, 5*Day + 300}}},
		{"Sunday night comes back on Monday", Hours{[]Weekday{Sunday}, 1320, 300}, []Span{{0, 300}, {6*Day + 1320, Length}}},
		{"to midnight, written 00:00", Hours{[]Weekday{Sunday}, 600, 0}, []Span{{6*Day + 600, Length}}},
	}
	for _, test := range tests {
		if got := test.hours.Spans(); !reflect.DeepEqual(got, test.want) {
			t.Errorf("%s: %v, want %v", test.name, got, test.want)
		}
	}
	if n := len(Hours{nil, 60, 120}.Spans()); n != 7 {
		t.Errorf("no days named covers %d days, want 7", n)
	}
}

func TestHoursCheck(t *testing.T) {
	if err := (Hours{nil, 60, 60}).Check(); err == nil {
		t.Error("equal times passed")
	}
	if err := (Hours{nil, 1440, 60}).Check(); err == nil {
		t.Error("a start at 24:00 passed")
	}
	if err := (Hours{nil, 1320, 300}).Check(); err != nil {
		t.Error(err)
	}
}

func TestPaint(t *testing.T) {
	s := Constant("off").Paint(Span{600, 1200}, "on")
	tests := []struct {
		over  Span
		value string
		want  Steps[string]
	}{
		{Span{700, 800}, "on", s},
		{Span{600, 1200}, "off", Constant("off")},
		{Span{0, Length}, "on", Constant("on")},
		{Span{1200, 1300}, "on", Steps[string]{{0, "off"}, {600, "on"}, {1300, "off"}}},
		{Span{800, 900}, "alarm", Steps[string]{{0, "off"}, {600, "on"}, {800, "alarm"}, {900, "on"}, {1200, "off"}}},
		{Span{-50, 10}, "on", Steps[string]{{0, "on"}, {10, "off"}, {600, "on"}, {1200, "off"}}},
		{Span{900, 900}, "alarm", s},
	}
	for _, test := range tests {
		if got := s.Paint(test.over, test.value); !reflect.DeepEqual(got, test.want) {
			t.Errorf("painting %q over %v: %v, want %v", test.value, test.over, got, test.want)
		}
	}
}

func TestStepsAt(t *testing.T) {
	s := Constant(1).Paint(Span{100, 200}, 2)
	for m, want := range map[Minute]int{0: 1, 99: 1, 100: 2, 199: 2, 200: 1, Length - 1: 1} {
		if got := s.At(m); got != want {
			t.Errorf("at %d: %d, want %d", m, got, want)
		}
	}
	if got := (Steps[int]{}).At(5); got != 0 {
		t.Errorf("the zero Steps holds %d", got)
	}
	if got := s.Share(func(v int) bool { return v == 2 }); got != 100.0/10080 {
		t.Errorf("share %v", got)
	}
}

func TestBoth(t *testing.T) {
	a, b := Constant("off").Paint(Span{600, 1200}, "on"), Constant(1).Paint(Span{900, 1500}, 2)
	both := Both(a, b)
	for m := Minute(0); m < 2000; m += 50 {
		if at := both.At(m); at.A != a.At(m) || at.B != b.At(m) {
			t.Errorf("at %d: %+v, not %v and %v", m, at, a.At(m), b.At(m))
		}
	}
	if len(both) != 5 {
		t.Errorf("%v", both)
	}
	if none := Both(Steps[int]{}, b); none.At(1000) != (Pair[int, int]{0, 2}) {
		t.Errorf("%v", none)
	}
}

func TestAndOr(t *testing.T) {
	a, b := Constant(false).Paint(Span{600, 1200}, true), Constant(false).Paint(Span{900, 1500}, true)
	and, or := And(a, b), Or(a, b)
	for m := Minute(0); m < 2000; m += 50 {
		if and.At(m) != (a.At(m) && b.At(m)) || or.At(m) != (a.At(m) || b.At(m)) {
			t.Errorf("at %d: both %v, either %v, of %v and %v", m, and.At(m), or.At(m), a.At(m), b.At(m))
		}
	}
	if len(and) != 3 || len(or) != 3 {
		t.Errorf("%v and %v, want three steps of each", and, or)
	}
}

func TestBlocksAreWhatAPersonWouldWrite(t *testing.T) {
	weekdays := []Weekday{Monday, Tuesday, Wednesday, Thursday, Friday}
	tests := [][]Block[string]{
		{{Hours{weekdays, 360, 1320}, "full"}},
		{{Hours{weekdays, 360, 720}, "full"}, {Hours{weekdays, 720, 1080}, "low"}},
		{{Hours{Weekdays[:], 1320, 300}, "guard"}},
		{{Hours{[]Weekday{Sunday}, 0, 1440}, "sure"}},
		{{Hours{Weekdays[:], 0, 1440}, "full"}},
	}
	for _, blocks := range tests {
		got := FromBlocks("off", blocks).Blocks("off")
		if !reflect.DeepEqual(got, blocks) {
			t.Errorf("%v came back as %v", blocks, got)
		}
	}
}

// FuzzBlocks paints what the bytes say and asks that writing the steps as blocks
// and reading them back changes nothing.
func FuzzBlocks(fuzz *testing.F) {
	f := seeded.Of(fuzz, 2000)
	f.Add([]byte{0, 12, 88, 1, 3, 200, 10, 2})
	f.Add([]byte("06:00-22:00 and the nights between"))
	f.Fuzz(func(t *testing.T, data []byte) {
		s := Constant(byte(0))
		for ; len(data) >= 4; data = data[4:] {
			from := (Minute(data[0])*256 + Minute(data[1])) % Length
			s = s.Paint(Span{from, from + Minute(data[2])*20 + 1}, data[3]%4)
		}
		blocks := s.Blocks(0)
		for _, b := range blocks {
			if err := b.Check(); err != nil {
				t.Fatalf("%v: %v", b, err)
			}
		}
		if got := FromBlocks(0, blocks); !reflect.DeepEqual(got, s) {
			t.Fatalf("%v came back as %v by way of %v", s, got, blocks)
		}
	})
}

func FuzzClock(fuzz *testing.F) {
	f := seeded.Of(fuzz, 2000)
	f.Add("06:30")
	f.Add("24:00")
	f.Fuzz(func(t *testing.T, text string) {
		var c Clock
		if err := c.UnmarshalText([]byte(text)); err == nil && c.String() != text {
			t.Fatalf("%q was read as %v", text, c)
		}
	})
}

func TestSpanInWords(t *testing.T) {
	for span, want := range map[Span]string{
		{1800, 2760}:                "tue 06:00-22:00",
		{0, 1440}:                   "mon 00:00-24:00",
		{4*Day + 1320, 5*Day + 300}: "fri 22:00-sat 05:00",
		{6*Day + 1320, Length}:      "sun 22:00-24:00",
	} {
		if got := span.String(); got != want {
			t.Errorf("%q, want %q", got, want)
		}
	}
}

func TestDates(t *testing.T) {
	var d Date
	if err := d.UnmarshalText([]byte("2026-11-23")); err != nil || d.Weekday() != Monday || d.String() != "2026-11-23" {
		t.Errorf("%v is a %v, %v", d, d.Weekday(), err)
	}
	if !d.Before(Date{2026, 12, 1}) || d.Before(d) {
		t.Error("order of dates")
	}
	for _, bad := range []string{"2026-02-30", "23.11.2026", ""} {
		if err := d.UnmarshalText([]byte(bad)); err == nil || !strings.Contains(err.Error(), "no date") {
			t.Errorf("%q: %v", bad, err)
		}
	}
}
