package activity

import (
	"math"
	"testing"

	"wakefield.example/core/week"
)

func near(t *testing.T, what string, got, want float64) {
	t.Helper()
	if math.Abs(got-want) > 1e-9*max(1, math.Abs(want)) {
		t.Errorf("%s: %v, want %v", what, got, want)
	}
}

// door happens 24 times an hour on Monday from 07:00 to 20:00, twice an hour else.
var door = New(week.Constant(2.0).Paint(week.Span{From: 420, To: 1200}, 24), 20)

func TestCounts(t *testing.T) {
	near(t, "a day", door.PerDay(), (13*24+155*2)/7.0)
	near(t, "an hour over the edge", door.Intensity.Count(7*3600-1800, 7*3600+1800), 13)
	near(t, "before the week began", door.Intensity.Count(-3600, 0), 2)
	near(t, "three weeks", door.Intensity.Count(-week.Seconds, 2*week.Seconds), 3*door.Intensity.Total())
	near(t, "twice as often", door.Scale(2).PerDay(), 2*door.PerDay())
	if door.Never() || !(Process{}).Never() || !door.Scale(0).Never() {
		t.Error("Never")
	}
	if !door.Equal(door.Scale(1)) || door.Equal(door.Scale(2)) {
		t.Error("Equal")
	}
}

func TestTriggers(t *testing.T) {
	near(t, "all is noticed", Always.Triggers(door).PerDay(), door.PerDay())

	careless := Detection{Hours: week.Constant(true), MinSeconds: 10, Catch: 0.8}
	got := careless.Triggers(door)
	near(t, "short and unnoticed events drop out", got.PerDay(), door.PerDay()*0.8*math.Exp(-0.5))
	near(t, "triggers begin late", got.Intensity.Count(7*3600, 7*3600+10), 10*2/3600.0*0.8*math.Exp(-0.5))
	near(t, "remaining length", got.Mean, 20)

	night := Detection{Hours: week.Constant(true).Paint(week.Span{From: 480, To: 1080}, false), Catch: 1}
	near(t, "no trigger out of hours", night.Triggers(door).Intensity.Count(8*3600, 18*3600), 0)
	near(t, "triggers in hours", night.Triggers(door).Intensity.Count(18*3600, 20*3600), 48)

	if !(Detection{Hours: week.Constant(false), Catch: 1}).Triggers(door).Never() {
		t.Error("detection that is never on made a trigger")
	}
}

func TestLateTriggersComeRoundTheWeek(t *testing.T) {
	sunday := New(week.Constant(0.0).Paint(week.Span{From: week.Length - 60, To: week.Length}, 60), 30)
	got := Detection{Hours: week.Constant(true), MinSeconds: 60, Catch: 1}.Triggers(sunday)
	near(t, "a minute of Sunday's triggers begins on Monday", got.Intensity.Count(0, 60), math.Exp(-2))
}
