package estimate

import (
	"math"
	"strings"
	"testing"

	"wakefield.example/core/activity"
	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/week"
)

// TestEachGateLosesWhatItShould shuts one gate after another of one channel and asks where events fall out.
func TestEachGateLosesWhatItShould(t *testing.T) {
	for name, test := range map[string]struct {
		spoil func(p *plan.Plan, c *plan.Channel)
		gate  GateName
		lost  float64 // share of what comes to the gate
	}{
		"detection off": {func(p *plan.Plan, c *plan.Channel) { c.Detection.On = false }, GateOn, 1},
		"out of the areas": {func(p *plan.Plan, c *plan.Channel) { c.Scene.Walks[1].Points = []plan.Point{{0, 0.9}, {0.01, 0.9}} }, GateArea,
			0.45},
		"all too small":     {func(p *plan.Plan, c *plan.Channel) { c.Detection.Areas.List[0].Smallest.Percent = 40 }, GateLarge, 1},
		"half of the hours": {func(p *plan.Plan, c *plan.Channel) { c.Detection.Hours = hoursOn(0, 12) }, GateHours, 0.5},
		"hours of the area": {func(p *plan.Plan, c *plan.Channel) { c.Detection.Areas.List[0].Hours = hoursOn(0, 6) }, GateHours, 0.75},
		"too short": {func(p *plan.Plan, c *plan.Channel) {
			c.Detection.MinSeconds, c.Detection.Areas.List[0].MinSeconds = 14, ptrTo(0.0)
		}, GateLong, 1 - math.Exp(-1)},
		"short in the area":   {func(p *plan.Plan, c *plan.Channel) { c.Detection.Areas.List[0].MinSeconds = ptrTo(1000.0) }, GateLong, 1},
		"the detector misses": {func(p *plan.Plan, c *plan.Channel) { c.Detection.Reliability = ptrTo(0.6) }, GateDetector, 0.4},
		"what is stated":      {func(p *plan.Plan, c *plan.Channel) { c.Detection.Catch = ptrTo(0.3) }, GateDetector, 0.7},
		"tied to nothing":     {func(p *plan.Plan, c *plan.Channel) { c.Detection.RecordsSelf = ptrTo(false) }, GateTied, 1},
		"a duty that is deaf": {func(p *plan.Plan, c *plan.Channel) {
			c.Week = plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "m", Blocks: []plan.DutyBlock{{Hours: plan.Hours{From: 0, To: 480}, Duty: "none"}}}}
		}, GateDuty, 1.0 / 3},
	} {
		p := watchedYard(t)
		c := &p.Channels[0]
		test.spoil(p, c)
		if err := p.Check(); err != nil {
			t.Fatalf("%s: %v", name, err)
		}
		s := Figures(p, nil)
		course := s.CourseOf(0)
		left := course.HappensPerDay
		if math.Abs(left-10*24) > 1e-9 {
			t.Errorf("%s: %v a day happen", name, left)
		}
		for _, g := range course.Gates {
			want := 0.0
			if g.Gate == test.gate {
				want = test.lost
			}
			if left > 0 && math.Abs(g.LostPerDay/left-want) > 0.002 || math.Abs(g.PassPerDay+g.LostPerDay-left) > 1e-9 {
				t.Errorf("%s: at the gate %s %.1f of %.1f fall out, want %.3f of them", name, g.Gate, g.LostPerDay, left, want)
			}
			left = g.PassPerDay
		}
		if e := s.Channels[0].Evidence; math.Abs(course.FullPerDay+course.LowPerDay+course.MissedPerDay-e.EventsPerDay) > 1e-6 ||
			test.lost == 1 && course.MissedPerDay != e.EventsPerDay {
			t.Errorf("%s: %+v, evidence %+v", name, course, e)
		}
		if why := course.Why(); (why != "") != (test.lost == 1) || test.lost == 1 && why != shut[test.gate] {
			t.Errorf("%s: why not is %q", name, why)
		}
		// With motion alone nothing else is on disk than what came through, and what others' footage covered by chance.
		if math.Abs(course.FullPerDay-left) > 0.03*course.HappensPerDay {
			t.Errorf("%s: %.2f a day come through, %.2f are on disk", name, left, course.FullPerDay)
		}
	}
}

func ptrTo[T any](v T) *T { return &v }

func hoursOn(from, to week.Clock) *plan.HourList {
	return &plan.HourList{Blocks: []plan.Hours{{From: from * 60, To: to * 60}}}
}

// watchedYard is a yard whose one channel notices everything: ten people an hour in two walks through one area.
func watchedYard(t testing.TB) *plan.Plan {
	p := plantest.Read(t, "testdata/plans/watched-yard.json")
	p.Channels = p.Channels[:1]
	c := &p.Channels[0]
	scene := *c.Scene
	scene.Walks = []plan.Walk{scene.Walks[0], scene.Walks[1]}
	scene.Walks[0].SharePercent, scene.Walks[1].SharePercent, scene.Patches = 55, 45, nil
	scene.Walks[1].Points = []plan.Point{{0.7, 0.9}, {0.4, 0.6}}
	c.Scene, c.Nuisance = &scene, ""
	c.Detection = plan.Detection{On: true, Reliability: ptrTo(1.0), Areas: &plan.Areas{List: []plan.Area{
		{ID: "most", Name: "Most of it", Points: []plan.Point{{0.08, 0.98}, {0.08, 0.3}, {0.95, 0.3}, {0.95, 0.98}},
			Smallest: &plan.Smallest{Percent: 0.2, Of: "picture"}}}}}
	p.Activities[0].Blocks, p.Activities[0].OtherwisePerHour, p.Activities[0].Groups = nil, 10, nil
	p.Duties = append(p.Duties, plan.Duty{ID: "none", Name: "Off"})
	return p
}

// TestWhatIsSeenInAPicture reads what is said of areas, walks and patches.
func TestWhatIsSeenInAPicture(t *testing.T) {
	p := plantest.Read(t, "testdata/plans/watched-yard.json")
	s := Figures(p, nil)
	sight := s.SightOf(0)
	if g := sight.Ground; g == nil || g.Horizon < 0.1 || g.Horizon > 0.4 || g.CameraMetres < 2 || g.CameraMetres > 6 {
		t.Fatalf("%+v", g)
	}
	if a := sight.Areas; len(a) != 3 || math.Abs(a[0].LeftPercent-a[0].Percent) > 1e-9 || a[0].SmallestPercent != 0.6 ||
		a[1].LeftPercent >= a[1].Percent || math.Abs(a[1].SmallestPercent-a[1].LeftPercent/100) > 1e-9 || a[2].LeftPercent != 0 {
		t.Errorf("%+v", a)
	}
	ramp, far := sight.Walks[0], sight.Walks[2]
	if ramp.NoticedSeconds == nil || *ramp.NoticedSeconds < 1 || ramp.Area != "foot" || *ramp.EntersSeconds > *ramp.NoticedSeconds ||
		*ramp.LostSeconds <= *ramp.NoticedSeconds || !ramp.Large ||
		math.Abs(ramp.Metres-1.4*ramp.Seconds) > 1e-6 || math.Abs(ramp.MissingSeconds-max(0, *ramp.NoticedSeconds-4)) > 1e-9 ||
		*ramp.AwayMetres < 1 || *ramp.EntersAwayMetres >= *ramp.AwayMetres || *ramp.LostAwayMetres <= *ramp.AwayMetres {
		t.Errorf("%+v", ramp)
	}
	if l := sight.Ground.Lines; len(l) < 3 || l[0].Y <= l[1].Y ||
		math.Abs((l[1].Y-sight.Ground.Horizon)*l[1].Metres-sight.Ground.CameraMetres*sight.Ground.Focal) > 1e-9 {
		t.Errorf("%+v", l)
	}
	if k := ramp.Track; len(k) != 60 || math.Abs(k[0].Bottom-0.95) > 1e-9 || math.Abs(k[59].Bottom-0.4) > 1e-9 ||
		k[59].Seconds != ramp.Seconds || k[0].Bottom-k[0].Top < k[59].Bottom-k[59].Top {
		t.Errorf("%+v", k)
	}
	if far.NoticedSeconds != nil || far.Large {
		t.Errorf("%+v", far)
	}
	if r := sight.Reach; len(r) != 5 || r[0].ID != "person" || r[1].Metres >= r[0].Metres || r[4].ID != "barrow" ||
		r[0].Y <= sight.Ground.Horizon {
		t.Errorf("%+v", r)
	}
	reeds := sight.Patches[0]
	if reeds.PassesPercent >= reeds.UnmaskedPercent || reeds.UnmaskedPercent > 90 || math.Abs(reeds.HappensPerDay-30*24) > 1e-9 ||
		reeds.TriggersPerDay <= 0 || reeds.TriggersPerDay > reeds.HappensPerDay*reeds.PassesPercent/100 {
		t.Errorf("%+v", reeds)
	}
	course := s.CourseOf(0)
	if course.NuisancePerDay < 30*24 || course.UnwantedTriggersPerDay <= reeds.TriggersPerDay ||
		course.UnwantedTriggersPerDay >= course.NuisancePerDay {
		t.Errorf("%+v", course)
	}
	if got := s.Channels[0].TriggersPerDay - course.UnwantedTriggersPerDay; math.Abs(got-course.Gates[len(course.Gates)-3].PassPerDay) > 1e-6 {
		t.Errorf("%v wanted triggers a day, in the course %+v", got, course.Gates)
	}
}

// TestTheCourseByHourIsTheCourse sums the hours of every gate, and looks at hours in which it is shut.
func TestTheCourseByHourIsTheCourse(t *testing.T) {
	p := plantest.Read(t, "testdata/plans/watched-yard.json")
	s := Figures(p, nil)
	for i := range p.Channels {
		day, by := s.CourseOf(i), s.CourseByHour(i)
		if day.Hours != nil || len(by.Hours.Gates) != len(day.Gates) {
			t.Fatalf("%+v", by)
		}
		sum := func(h activity.HourRates) (n float64) {
			if len(h) != 168 {
				t.Fatalf("%d hours", len(h))
			}
			for _, v := range h {
				n += v / 7
			}
			return n
		}
		same := func(what string, h activity.HourRates, want float64) {
			// What begins in one hour may be noticed in the next, where the gate is shut.
			if got := sum(h); math.Abs(got-want) > 0.002*want+1e-9 {
				t.Errorf("channel %d, %s: %v a day by hour, %v in all", i, what, got, want)
			}
		}
		same("happens", by.Hours.Happens, day.HappensPerDay)
		same("nuisance", by.Hours.Nuisance, day.NuisancePerDay)
		same("unwanted", by.Hours.UnwantedTriggers, day.UnwantedTriggersPerDay)
		for k, g := range by.Hours.Gates {
			if g.Gate != day.Gates[k].Gate {
				t.Errorf("gate %s, want %s", g.Gate, day.Gates[k].Gate)
			}
			same(string(g.Gate), g.Pass, day.Gates[k].PassPerDay)
		}
	}
	// The slip's detection works from 4 to 22.
	for _, g := range s.CourseByHour(1).Hours.Gates {
		if shut := g.Gate != GateArea && g.Gate != GateLarge; (g.Pass[2] == 0) != shut || g.Pass[24+10] == 0 {
			t.Errorf("gate %s: %v pass at two, %v at ten", g.Gate, g.Pass[2], g.Pass[34])
		}
	}
}

// TestDeafHours asks when a duty waits for motion that nothing reports.
func TestDeafHours(t *testing.T) {
	for name, test := range map[string]struct {
		change func(p *plan.Plan, c *plan.Channel)
		hours  float64
	}{
		"as it is":          {func(*plan.Plan, *plan.Channel) {}, 0},
		"off":               {func(_ *plan.Plan, c *plan.Channel) { c.Detection.On = false }, 168},
		"off at night":      {func(_ *plan.Plan, c *plan.Channel) { c.Detection.Hours = hoursOn(6, 22) }, 56},
		"its area at night": {func(_ *plan.Plan, c *plan.Channel) { c.Detection.Areas.List[0].Hours = hoursOn(0, 6) }, 126},
		"no area":           {func(_ *plan.Plan, c *plan.Channel) { c.Detection.Areas.List[0].Ignore = true }, 168},
		"tied to nothing":   {func(_ *plan.Plan, c *plan.Channel) { c.Detection.RecordsSelf = ptrTo(false) }, 168},
		"a duty without events": {func(p *plan.Plan, c *plan.Channel) {
			c.Detection.On = false
			c.Week = plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "none", Blocks: []plan.DutyBlock{{Hours: plan.Hours{From: 0, To: 600}, Duty: "m"}}}}
		}, 70},
	} {
		p := watchedYard(t)
		test.change(p, &p.Channels[0])
		deaf := Figures(p, nil).Deaf(0)
		if got := 168 * deaf.Share(func(b bool) bool { return b }); math.Abs(got-test.hours) > 1e-9 {
			t.Errorf("%s: deaf for %v hours a week, want %v", name, got, test.hours)
		}
	}
}

// TestWhoeverStandsThere sets people where one is just noticed.
func TestWhoeverStandsThere(t *testing.T) {
	p := watchedYard(t)
	s := Figures(p, nil)
	near, err := s.StandIn(0, "most", "person", plan.Point{0.5, 0.9})
	if err != nil {
		t.Fatal(err)
	}
	far, err := s.StandIn(0, "most", "person", plan.Point{0.5, 0.6})
	if err != nil {
		t.Fatal(err)
	}
	area := s.SightOf(0).Areas[0].LeftPercent
	if far.OfPicturePercent >= near.OfPicturePercent || far.OfPicturePercent <= 0 ||
		math.Abs(far.OfAreaPercent-100*far.OfPicturePercent/area) > 1e-9 || far.Box.Bottom != 0.6 {
		t.Errorf("%+v, %+v", near, far)
	}
	// With that as the smallest size the line of reach goes through the feet.
	p.Channels[0].Detection.Areas.List[0].Smallest = &plan.Smallest{Percent: far.OfPicturePercent, Of: "picture"}
	if r := Figures(p, nil).SightOf(0).Reach[0]; math.Abs(r.Y-0.6) > 1e-6 {
		t.Errorf("the line of reach is at %v", r.Y)
	}
	for want, ask := range map[string][2]string{"no object": {"most", "ghost"}, "no watched area": {"none", "person"}} {
		if _, err := s.StandIn(0, ask[0], ask[1], plan.Point{0.5, 0.9}); err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%v, want %s", err, want)
		}
	}
	if _, err := s.StandIn(0, "most", "person", plan.Point{0.5, 0.1}); err == nil || !strings.Contains(err.Error(), "above the horizon") {
		t.Errorf("%v", err)
	}
	p.Channels[0].Scene.People = nil
	if _, err := Figures(p, nil).StandIn(0, "most", "person", plan.Point{0.5, 0.9}); err == nil {
		t.Error("without a ground somebody stands")
	}
}

// TestScenesAreKeptFromBefore changes what a scene depends on, one thing after another: a channel that an earlier estimate
// looked at is looked at again.
func TestScenesAreKeptFromBefore(t *testing.T) {
	before := plantest.Read(t, "testdata/plans/watched-yard.json")
	earlier := Figures(before, nil)
	for name, change := range map[string]func(p *plan.Plan){
		"an object": func(p *plan.Plan) {
			p.Objects = []plan.Object{{ID: "barrow", Name: "Barrow", WidthM: 0.02, HeightM: 0.02, MetresPerSecond: 0.3}}
		},
		"the picture's": func(p *plan.Plan) {
			main := *p.Channels[0].Streams.Main
			main.Width = 640
			p.Channels[0].Streams.Main = &main
		},
		"how long things last": func(p *plan.Plan) {
			p.Activities = append([]plan.Activity{}, p.Activities...)
			p.Activities[1].MeanSeconds = 0.5
		},
		"a shortest duration": func(p *plan.Plan) { p.Channels[0].Detection.MinSeconds = 3 },
	} {
		next := *before
		next.Channels = append([]plan.Channel{}, before.Channels...)
		change(&next)
		got, want := Figures(&next, earlier), Figures(&next, nil)
		for i := range want.Channels {
			if got.Channels[i].WrittenPercent != want.Channels[i].WrittenPercent || *got.Channels[i].CatchPercent != *want.Channels[i].CatchPercent {
				t.Errorf("%s: %+v, anew %+v", name, got.Channels[i], want.Channels[i])
			}
		}
		if want.Channels[0].WrittenPercent == earlier.Channels[0].WrittenPercent {
			t.Errorf("%s changes nothing", name)
		}
	}
}

// BenchmarkScenes is the estimate of 192 channels with three areas and two walks each, and of the same without.
func BenchmarkScenes(b *testing.B) {
	yard := plantest.Read(b, "testdata/plans/watched-yard.json")
	for _, drawn := range []bool{false, true} {
		name := "none"
		if drawn {
			name = "drawn"
		}
		b.Run(name, func(b *testing.B) {
			p := depot(192)
			if drawn {
				p.Objects = yard.Objects
				for i := range p.Channels {
					d, scene := yard.Channels[0].Detection, *yard.Channels[0].Scene
					d.Areas = &plan.Areas{List: append([]plan.Area{}, d.Areas.List...)}
					d.Areas.List[1].Hours = nil
					scene.Walks, scene.Patches = append([]plan.Walk{}, scene.Walks[:2]...), nil
					scene.Walks[0].SharePercent = 10 + float64(i)/10
					p.Channels[i].Detection, p.Channels[i].Scene = d, &scene
				}
			}
			b.ResetTimer()
			for b.Loop() {
				Figures(p, nil)
			}
		})
	}
}

// TestTiesByAreaAndHourNarrowTheCourse lets motion record by one of its areas at some hours only: the rest falls out where it
// is tied, and the duty waits in vain at the other hours.
func TestTiesByAreaAndHourNarrowTheCourse(t *testing.T) {
	p := plantest.Read(t, "testdata/plans/watched-yard.json")
	no := false
	p.Channels[0].Detection.RecordsSelf = &no
	gate := func(s *Result, name GateName) Gate {
		for _, g := range s.CourseOf(0).Gates {
			if g.Gate == name {
				return g
			}
		}
		t.Fatalf("no gate %s", name)
		return Gate{}
	}
	p.Effects = []plan.Effect{{When: plan.When{Motion: "yard"}, Record: []string{"yard"}}}
	all := gate(Figures(p, nil), GateTied)
	if all.LostPerDay > 1e-9 || all.PassPerDay <= 0 {
		t.Errorf("%+v", all)
	}
	p.Effects[0].When.Area = "door" // watches from 20:00 to 06:00 on working days
	byArea := gate(Figures(p, nil), GateTied)
	p.Effects[0].Hours = &plan.HourList{Blocks: []plan.Hours{{From: 22 * 60, To: 24 * 60}}}
	s := Figures(p, nil)
	byHour := gate(s, GateTied)
	if byArea.PassPerDay >= all.PassPerDay || byHour.PassPerDay >= byArea.PassPerDay || byHour.PassPerDay <= 0 {
		t.Errorf("%v of all motion, %v at the door, %v at the door late", all.PassPerDay, byArea.PassPerDay, byHour.PassPerDay)
	}
	if deaf := s.Deaf(0).Share(func(on bool) bool { return on }); math.Abs(deaf-(1-10.0/168)) > 1e-9 {
		t.Errorf("deaf for %v hours, want all but ten", 168*deaf)
	}
}
