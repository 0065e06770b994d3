package week

import (
	"reflect"
	"strings"
	"testing"

	"wakefield.example/core/seeded"
)

func TestReadHours(t *testing.T) {
	working := []Weekday{Monday, Tuesday, Wednesday, Thursday, Friday}
	for text, want := range map[string][]Hours{
		"Mon-Fri 07:45-16:10":              {{working, 465, 970}},
		"Mon–Fri 07:45–16:10":              {{working, 465, 970}},
		"monday to friday 7.45 to 16h10":   {{working, 465, 970}},
		"weekdays 0745-1610":               {{working, 465, 970}},
		"Sun 22-6":                         {{[]Weekday{Sunday}, 1320, 360}},
		"Sunday 22:00–Mon":                 nil,
		"8-12":                             {{nil, 480, 720}},
		"7pm-6am":                          {{nil, 1140, 360}},
		"Mon-Fri 7:30 a.m. to 6 p.m.":      {{working, 450, 1080}},
		"7-9pm":                            {{nil, 1140, 1260}},
		"11-1pm":                           {{nil, 660, 780}},
		"12am-12pm":                        {{nil, 0, 720}},
		"noon-19h":                         {{nil, 720, 1140}},
		"Sat noon to midnight":             {{[]Weekday{Saturday}, 720, 0}},
		"0700-1900":                        {{nil, 420, 1140}},
		"7AM-8PM":                          {{nil, 420, 1200}},
		"13pm-14pm":                        nil,
		"0am-1am":                          nil,
		"7px-8px":                          nil,
		"Sat":                              {{[]Weekday{Saturday}, 0, 1440}},
		"weekend":                          {{[]Weekday{Saturday, Sunday}, 0, 1440}},
		"Mon, Wed 8.30-12, Sat":            {{[]Weekday{Monday, Wednesday}, 510, 720}, {[]Weekday{Saturday}, 0, 1440}},
		"Fri-Mon 18:00-24:00":              {{[]Weekday{Monday, Friday, Saturday, Sunday}, 1080, 1440}},
		"mo di":                            nil,
		"Mon Tue 9-10; Thu 11-12":          {{[]Weekday{Monday, Tuesday}, 540, 600}, {[]Weekday{Thursday}, 660, 720}},
		"all days":                         {{nil, 0, 1440}},
		"daily 20:00-06:00":                {{nil, 1200, 360}},
		"Mon 08:00-08:00":                  nil,
		"Mon 25:00-26:00":                  nil,
		"Mon 7:75-8":                       nil,
		"":                                 nil,
		"Mon-Fri 08:00":                    nil,
		"someday 8-9":                      nil,
		"Mon-Fri 08:00-12:00, ":            nil,
		"Mon 8-12 and Wed 9-10":            {{[]Weekday{Monday}, 480, 720}, {[]Weekday{Wednesday}, 540, 600}},
		"Mon-Fri 08:00-12:00, 13:00-17:00": {{working, 480, 720}, {working, 780, 1020}},
	} {
		got, err := ReadHours(text)
		if (err != nil) != (want == nil) || want != nil && !reflect.DeepEqual(got, want) {
			t.Errorf("%q is read as %v, %v; want %v", text, got, err, want)
		}
	}
	if _, err := ReadHours("Mon-Fry 8-9"); err == nil || !strings.Contains(err.Error(), `"fry"`) {
		t.Errorf("what is wrong is not named: %v", err)
	}
}

func TestHoursText(t *testing.T) {
	list := []Hours{{[]Weekday{Saturday}, 0, 1440}, {[]Weekday{Monday}, 480, 720}, {nil, 1200, 360}}
	if text := HoursText(list); text != "Sat 00:00-24:00, Mon 08:00-12:00, all days 20:00-06:00" {
		t.Error(text)
	} else if again, err := ReadHours(text); err != nil || !reflect.DeepEqual(again, list) {
		t.Error(again, err)
	}
}

func FuzzReadHours(fuzz *testing.F) {
	f := seeded.Of(fuzz, 2000)
	for _, seed := range []string{"Mon-Fri 07:45-16:10", "Sun 22-6, weekend", "Mon, Wed 8.30-12", "all days", "0745-1610"} {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, text string) {
		read, err := ReadHours(text)
		if err != nil {
			return
		}
		for _, h := range read {
			if h.Check() != nil || len(h.Spans()) == 0 {
				t.Fatalf("%q gave %+v", text, h)
			}
		}
		again, err := ReadHours(HoursText(read))
		if err != nil || !reflect.DeepEqual(again, read) {
			t.Fatalf("%q gave %v, written %q, read again %v, %v", text, read, HoursText(read), again, err)
		}
	})
}
