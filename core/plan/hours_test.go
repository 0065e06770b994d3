package plan

import (
	"slices"
	"strings"
	"testing"

	"wakefield.example/core/week"
)

func TestSpansOfHours(t *testing.T) {
	spans, err := SpansOf([]Hours{{Days: []week.Weekday{week.Sunday}, From: 22 * 60, To: 2 * 60},
		{Days: []week.Weekday{week.Monday}, From: 60, To: 120}})
	if err != nil {
		t.Fatal(err)
	}
	total := week.Minute(0)
	for _, s := range spans {
		if !s.Valid() {
			t.Errorf("%v is no stretch of the week", s)
		}
		total += s.Minutes()
	}
	if total != 5*60 {
		t.Errorf("%v are %d minutes, want 300", spans, total)
	}
	if _, err := SpansOf([]Hours{{From: 60, To: 120}, {From: 24 * 60, To: 60}}); err == nil || !strings.HasPrefix(err.Error(), "hours[1]") {
		t.Errorf("hours from 24:00 on: %v", err)
	}
}

func TestHoursInWords(t *testing.T) {
	hours, err := ReadHours("mon 8-9; tue 9-10; wed 10-11; thu 11-12")
	if err != nil {
		t.Fatal(err)
	}
	if got := HoursInWords(hours); got != HoursText(hours) || strings.Count(got, ", ") != 3 {
		t.Errorf("four stretches are written %q", got)
	}
	if got := HoursInWords(append(hours, Hours{From: 60, To: 120})); got != "5 stretches" {
		t.Errorf("five stretches are written %q", got)
	}
}

// TestHoursAndStepsAreOne writes the hours in which detection is on as a person would, and reads them again.
func TestHoursAndStepsAreOne(t *testing.T) {
	for _, text := range []string{"18-8", "Mon-Fri 06:30-18:15, Sat 08:00-13:00", "Sun 00:00-24:00", "Sun 22:00-05:00"} {
		hours, err := ReadHours(text)
		if err != nil {
			t.Fatal(err)
		}
		steps := HourList{hours}.Steps()
		again := HourList{HoursWhere(steps)}.Steps()
		if !slices.Equal(steps, again) {
			t.Errorf("%s becomes %s", text, HoursText(HoursWhere(steps)))
		}
	}
	for d, want := range map[*Detection]float64{{On: true}: 1, {Hours: &HourList{}}: 0, {On: true, Hours: &HourList{}}: 0} {
		if got := d.Steps().Share(func(on bool) bool { return on }); got != want {
			t.Errorf("%+v is on for %v of the week, want %v", d, got, want)
		}
	}
}

// TestWeeksAndStepsAreOne writes weeks from what they hold at each minute, and shares nothing with them.
func TestWeeksAndStepsAreOne(t *testing.T) {
	p := example(t)
	for i := range p.Weeks {
		w := &p.Weeks[i].OwnWeek
		again := WeekOf(w.Steps())
		if !slices.Equal(w.Steps(), again.Steps()) || again.Otherwise != w.Otherwise {
			t.Errorf("%+v becomes %+v", w, again)
		}
		if own := w.Clone(); len(own.Blocks) > 0 {
			if own.Blocks[0].Duty = "off"; w.Blocks[0].Duty == "off" {
				t.Error("a clone shares its blocks")
			}
		}
	}
	held := WeekOf((&OwnWeek{Otherwise: "a", Blocks: []DutyBlock{{Hours{From: 0, To: 20 * 60}, "b"}}}).Steps())
	if held.Otherwise != "b" || len(held.Blocks) != 1 || held.Blocks[0].Duty != "a" {
		t.Errorf("what holds longest is not what holds otherwise: %+v", held)
	}
}

// TestWhatWatches lets an area watch in its own hours, but never beyond those of the detection.
func TestWhatWatches(t *testing.T) {
	d := &example(t).Channels[1].Detection // on 18:00-08:00
	on := func(s week.Steps[bool]) float64 { return 24 * s.Share(func(on bool) bool { return on }) }
	if lane, tree := on(d.Watching(d.Area("lane"))), on(d.Watching(d.Area("tree"))); lane != 14 || tree != 6 {
		t.Errorf("lane watches %v h a day, want 14; tree (05:00-21:00) %v, want 6", lane, tree)
	}
	if d.Area("gone") != nil || !d.Drawn() {
		t.Error("areas are not found by their ids")
	}
	if n, known := d.Counted(); n != 1 || !known {
		t.Errorf("%d areas, %v; want 1, the other is ignored", n, known)
	}
	if n, known := (&Detection{}).Counted(); n != 0 || known {
		t.Errorf("%d areas of a camera that nobody has counted, %v", n, known)
	}
}

// TestSpecialDaysOfDates follows the calendar through Christmas.
func TestSpecialDaysOfDates(t *testing.T) {
	s := &example(t).Site
	var got []string
	for _, d := range s.SpecialDaysFrom(week.Date{Year: 2026, Month: 12, Day: 23}, 5) {
		name := "-"
		if d != nil {
			name = d.Name
		}
		got = append(got, name)
	}
	if want := []string{"-", "Winter rest", "Winter rest", "Winter rest", "-"}; !slices.Equal(got, want) {
		t.Errorf("got %v, want %v", got, want)
	}
}

// TestEveryDayLikeOneDay takes an activity through a week of Saturdays.
func TestEveryDayLikeOneDay(t *testing.T) {
	a := *example(t).Activity("yard") // 18 an hour on Saturday from 8 to 13, otherwise 1.5
	saturdays := a.As(week.Saturday)
	rates := saturdays.Rates()
	for _, day := range []week.Weekday{week.Monday, week.Saturday, week.Sunday} {
		for hour, want := range map[week.Minute]float64{7: 1.5, 8: 18, 12: 18, 13: 1.5} {
			if got := rates.At(day.Start() + hour*60); got != want {
				t.Errorf("%v at %d h: %v an hour, want %v", day, hour, got, want)
			}
		}
	}
	if a.Rates().At(week.Monday.Start()+8*60) != 40 {
		t.Error("the activity itself has changed")
	}
	set := a
	set.SetRates(a.Rates())
	if !slices.Equal(set.Rates(), a.Rates()) {
		t.Errorf("rates that are set are %v, want %v", set.Rates(), a.Rates())
	}
}
