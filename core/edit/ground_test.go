package edit

import (
	"math"
	"strings"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
)

// TestTheGroundIsTyped says how a camera hangs, and asks how the ground lies then.
func TestTheGroundIsTyped(t *testing.T) {
	p := plantest.Whole(t)
	for _, hangs := range []struct{ tilt, degrees, metres float64 }{{0, 50, 3}, {20, 50, 3.4}, {35, 90, 6}, {5, 30, 1.2},
		{-4, 60, 2}, {60, 80, 9}} {
		next, err := After(p, Edit{SetGround: &SetGround{Channel: "c1", VerticalDegrees: &hangs.degrees, CameraMetres: &hangs.metres,
			TiltDegrees: &hangs.tilt}})
		if err != nil {
			t.Errorf("%+v: %v", hangs, err)
			continue
		}
		g, known, err := next.Channel("c1").Ground()
		if !known || err != nil || math.Abs(g.Tilt()-hangs.tilt) > 1e-6 || math.Abs(g.Camera-hangs.metres) > 1e-9 {
			t.Errorf("%+v: %+v, %v", hangs, g, err)
		}
		if s := next.Channel("c1").Scene.People[0]; s.HeadY < 0 || s.FeetY > 1 {
			t.Errorf("%+v: %+v", hangs, s)
		}
	}
	// Of two people the nearer one stays where a height is typed; the tilt alone keeps the height that they told.
	two, err := After(p, Edit{SetGround: &SetGround{Channel: "c1", VerticalDegrees: ptr(50.0),
		People: &[]plan.ScenePerson{{X: 0.4, FeetY: 0.5, HeadY: 0.34}, {X: 0.5, FeetY: 0.85, HeadY: 0.5}}}})
	if err != nil {
		t.Fatal(err)
	}
	was, _, _ := two.Channel("c1").Ground()
	tall, err := After(two, Edit{SetGround: &SetGround{Channel: "c1", CameraMetres: ptr(5.0)}})
	if err != nil {
		t.Fatal(err)
	}
	if g, known, _ := tall.Channel("c1").Ground(); !known || g.Camera != 5 || len(tall.Channel("c1").Scene.People) != 1 ||
		tall.Channel("c1").Scene.People[0].FeetY != 0.85 {
		t.Errorf("%+v, %+v", g, tall.Channel("c1").Scene)
	}
	down, err := After(two, Edit{SetGround: &SetGround{Channel: "c1", TiltDegrees: ptr(12.0)}})
	if err != nil {
		t.Fatal(err)
	}
	if g, known, _ := down.Channel("c1").Ground(); !known || math.Abs(g.Camera-was.Camera) > 0.006 || math.Abs(g.Tilt()-12) > 1e-6 {
		t.Errorf("%+v, was %+v", g, was)
	}
	for want, ground := range map[string]*SetGround{
		"before the vertical angle of view and the height": {Channel: "c1", TiltDegrees: ptr(10.0)},
		"nobody is in the picture": {Channel: "c1", VerticalDegrees: ptr(10.0), CameraMetres: ptr(1.0),
			TiltDegrees: ptr(70.0)},
		"89 is above 80": {Channel: "c1", TiltDegrees: ptr(89.0)},
	} {
		if _, err := After(p, Edit{SetGround: ground}); err == nil || !strings.Contains(err.Error(), want) ||
			!strings.Contains(err.Error(), "tiltDegrees") {
			t.Errorf("%v, want %s", err, want)
		}
	}
}
