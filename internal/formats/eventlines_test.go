package formats

import (
	"context"
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"
	"time"
)

// twoCameras is a log of three weeks of starts and stops on two cameras: ten events a day
// of 30 s on the first, five of 60 s on the second, newest first where it says so.
func twoCameras(heading, start, stop string, newestFirst bool) string {
	var lines []string
	for day := range 21 {
		for hour := 8; hour < 18; hour++ {
			at := time.Date(2026, 6, 1+day, hour, 10, 0, 0, time.UTC)
			add := func(camera string, from time.Time, seconds int) {
				lines = append(lines,
					from.Format("2006-01-02 15:04:05")+","+camera+","+start,
					from.Add(time.Duration(seconds)*time.Second).Format("2006-01-02 15:04:05")+","+camera+","+stop)
			}
			add("North door", at, 30)
			if hour%2 == 0 {
				add("South door", at.Add(10*time.Second), 60)
			}
		}
	}
	slices.Sort(lines)
	if newestFirst {
		slices.Reverse(lines)
	}
	return heading + strings.Join(lines, "\n")
}

func TestStartsAndStopsOfSeveralChannels(t *testing.T) {
	for name, text := range map[string]string{
		"with a heading":     twoCameras("time,camera,event\n", "Motion start", "Motion stop", false),
		"without":            twoCameras("", "motion_started", "motion_ended", false),
		"newest first":       twoCameras("time,camera,event\n", "Motion on", "Motion off", true),
		"words of their own": twoCameras("time,camera,state\n", "active", "inactive", false),
		"only stops tell so": twoCameras("time,camera,event\n", "Person", "Person cleared", false),
	} {
		l, err := ReadLog(context.Background(), []byte(text), time.UTC, nil, LogPeriod{})
		if err != nil {
			t.Errorf("%s: %v", name, err)
			continue
		}
		if l.Channel != 1 || l.Kind != 2 || l.Paired != 315 || l.Unpaired != 0 || len(l.Kinds) != 2 {
			t.Errorf("%s: channel %d, kind %d, %d paired, %d not, %+v", name, l.Channel, l.Kind, l.Paired, l.Unpaired, l.Kinds)
			continue
		}
		if !slices.Equal(l.Asks, []string{AskChannel}) || l.Activity.Known != "guess" {
			t.Errorf("%s: asks %v, known as %s though no channel was picked", name, l.Asks, l.Activity.Known)
		}
		if c := l.Channels; len(c) != 2 || c[0].Name != "North door" || c[0].Events != 210 || c[1].Events != 105 || c[0].PerDay != 10 ||
			c[1].Activity == nil || math.Abs(c[1].Activity.MeanSeconds-60) > 0.01 || c[1].Activity.Known != "measured" {
			t.Errorf("%s: %+v", name, c)
		}
		if s := l.Sample[0]; s.Channel != "North door" || s.Seconds != 30 {
			t.Errorf("%s: first of all %+v", name, s)
		}
		one, err := ReadLog(context.Background(), []byte(text), time.UTC,
			&LogColumns{Start: -1, End: -1, Channel: Recognise, Kind: Recognise, Pick: "South door"}, LogPeriod{})
		if err != nil || one.Events != 105 || math.Abs(one.PerDay-5) > 0.01 || len(one.Asks) != 0 || one.Activity.Known != "measured" {
			t.Errorf("%s: of one door %+v, %v", name, one, err)
		}
	}
}

func TestWhatLinesMeanIsAskedWhereItIsNotCertain(t *testing.T) {
	text := "time,type\n"
	for day := range 14 {
		for i, kind := range []string{"Person", "Vehicle", "Sabotage"} {
			text += fmt.Sprintf("2026-06-%02d %02d:00:00,%s\n", day+1, 8+i, kind)
		}
	}
	l, err := ReadLog(context.Background(), []byte(text), time.UTC, nil, LogPeriod{})
	if err != nil || l.Kind != 1 || !slices.Equal(l.Asks, []string{AskKind}) || l.Events != 42 || l.Activity.Known != "guess" {
		t.Fatalf("%+v, %v", l, err)
	}
	said := map[string]LineAs{"Person": LineEvent, "Vehicle": LineEvent, "Sabotage": LineOther}
	l, err = ReadLog(context.Background(), []byte(text), time.UTC,
		&LogColumns{Start: -1, End: -1, Channel: Recognise, Kind: Recognise, As: said}, LogPeriod{})
	if err != nil || len(l.Asks) != 0 || l.Events != 28 || l.Activity.Known != "measured" {
		t.Errorf("%+v, %v", l, err)
	}
	if l, err = ReadLog(context.Background(), []byte(text), time.UTC, &LogColumns{Start: -1, End: -1, Channel: -1, Kind: -1},
		LogPeriod{}); err != nil || len(l.Asks) != 0 || l.Events != 42 {
		t.Errorf("without a column of kinds: %+v, %v", l, err)
	}
}

func TestStartsWithoutStops(t *testing.T) {
	text := "time,event\n2026-06-01 08:00:00,start\n2026-06-01 08:00:20,start\n2026-06-01 08:01:00,stop\n2026-06-01 09:00:00,stop\n2026-06-01 10:00:00,start\n"
	l, err := ReadLog(context.Background(), []byte(text), time.UTC, nil, LogPeriod{})
	if err != nil || l.Events != 2 || l.Paired != 1 || l.Unpaired != 3 || l.Sample[0].Seconds != 60 || l.Sample[1].Seconds != -1 {
		t.Errorf("%+v, %v", l, err)
	}
	if notes := strings.Join(l.Notes, " "); !strings.Contains(notes,
		"1 event is made of a line that starts and a line that stops; 3 lines are without the other.") {
		t.Error(notes)
	}
}

// TestAColumnOfOneTextTellsNothing has a column in which every line says the same, and one of a few names.
func TestAColumnOfOneTextTellsNothing(t *testing.T) {
	text := "when,tint,what\n"
	few := "when,tint,what\n"
	for i := range 24 {
		text += fmt.Sprintf("2026-06-%02d 08:00:00,Everywhere,%d\n", i+1, 100+i)
		few += fmt.Sprintf("2026-06-%02d 08:00:00,Door %d,%d\n", i+1, i%8, 100+i)
	}
	if l, err := ReadLog(context.Background(), []byte(text), time.UTC, nil, LogPeriod{}); err != nil || l.Channel >= 0 {
		t.Errorf("%v: %+v", err, l)
	}
	if l, err := ReadLog(context.Background(), []byte(few), time.UTC, nil, LogPeriod{}); err != nil || l.Channel != 1 || len(l.Channels) != 8 {
		t.Errorf("%v: %+v", err, l)
	}
	if l, err := ReadLog(context.Background(), []byte(strings.ReplaceAll(few, "Door 7", "Gate")+"2026-06-25 08:00:00,Yard,5\n"), time.UTC, nil,
		LogPeriod{}); err != nil || l.Channel >= 0 {
		t.Errorf("nine names in 25 lines are taken for channels: %v, %+v", err, l)
	}
}

// TestWhatOverlapsIsPairedByWhatItIs has a person and a vehicle in one picture at once.
func TestWhatOverlapsIsPairedByWhatItIs(t *testing.T) {
	text := "time,event\n"
	for day := 1; day <= 20; day++ {
		for _, line := range []string{"08:00:00,Person start", "08:00:10,Vehicle start", "08:00:40,Person stop", "08:01:10,Vehicle stop"} {
			text += fmt.Sprintf("2026-06-%02d %s\n", day, line)
		}
	}
	l, err := ReadLog(context.Background(), []byte(text), time.UTC, nil, LogPeriod{})
	if err != nil || l.Paired != 40 || l.Unpaired != 0 || l.Layout != "2026-11-23 14:05:00" {
		t.Fatalf("%v, %+v", err, l)
	}
	if a, b := l.Sample[0].Seconds, l.Sample[1].Seconds; a != 40 || b != 60 {
		t.Errorf("%v and %v s", a, b)
	}
}
