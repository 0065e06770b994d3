package walktest

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"math/rand/v2"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"wakefield.example/core/edit"
	"wakefield.example/core/picture"
	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/week"
)

func one(t *testing.T) (*plan.Plan, *Camera) {
	t.Helper()
	p := yard(t, rand.New(rand.NewPCG(5, 5)), 3)
	c := CameraOf(p, "c0")
	if c == nil {
		t.Fatal("no camera")
	}
	return p, c
}

// TestWalksShowWhatThePictureSays holds expectations against the play of the picture, and the seconds before and after.
func TestWalksShowWhatThePictureSays(t *testing.T) {
	p, c := one(t)
	ch := p.Channel("c0")
	ground, _, _ := ch.Ground()
	for k := range ch.Scene.Walks {
		w := c.Walk(ch.Scene.Walks[k].ID)
		area := ch.Detection.List()[0]
		watch := []picture.Watch{{Region: picture.NewRegion(area.Shape(), nil), Smallest: area.Smallest.Percent / 100,
			Seconds: ch.Detection.MinSeconds}}
		seen := picture.Play(ground, watch, p.WalkOf(&ch.Scene.Walks[k]))
		e := w.Expected[0]
		if (e.Shown[Sign] == nil) != (seen.Noticed < 0) {
			t.Fatalf("%s: %v, %v", w.Name, e.Shown, seen)
		}
		if seen.Noticed < 0 {
			continue
		}
		for i, want := range []float64{seen.Noticed, seen.Noticed - ch.PreSeconds, seen.Lost + ch.PostSeconds} {
			if math.Abs(*e.Shown[i]-want) > 0.02 {
				t.Errorf("%s: %d is %v, want %v", w.Name, i, *e.Shown[i], want)
			}
		}
	}
	total := 0.0
	for _, k := range c.Cases {
		total += k.Weight
		if k.Words == "" || !strings.HasSuffix(k.Words, ".") {
			t.Errorf("%+v says nothing", k)
		}
	}
	if math.Abs(total-1) > 1e-9 {
		t.Errorf("chances add up to %v", total)
	}
	for _, id := range []string{"~near", "~far"} {
		if w := c.Walk(id); w == nil || !w.Optional {
			t.Errorf("no walk %s to tell faults apart", id)
		}
	}
}

// TestTheHourDecides has detection off at night, a duty that ignores motion in the morning, and another that records all the
// time in the evening.
func TestTheHourDecides(t *testing.T) {
	p, _ := one(t)
	ch := &p.Channels[0]
	p.Duties = append(p.Duties, plan.Duty{ID: "deaf", Name: "Alarms", Event: &plan.Event{Stream: plan.Main, On: []plan.Trigger{plan.Alarm}}},
		plan.Duty{ID: "both", Name: "Alarm and motion", Event: &plan.Event{Stream: plan.Main, On: []plan.Trigger{plan.Alarm, plan.Motion},
			Match: "all"}},
		plan.Duty{ID: "all", Name: "All", Base: &plan.Base{Stream: plan.Main},
			Event: &plan.Event{Stream: plan.Main, On: []plan.Trigger{plan.Motion}}})
	ch.Detection.Hours = &plan.HourList{Blocks: []plan.Hours{{From: 6 * 60, To: 22 * 60}}}
	ch.Week.Own.Blocks = []plan.DutyBlock{{Hours: plan.Hours{From: 6 * 60, To: 8 * 60},
		Duty: "deaf"}, {Hours: plan.Hours{From: 8 * 60, To: 9 * 60}, Duty: "both"},
		{Hours: plan.Hours{From: 18 * 60, To: 20 * 60}, Duty: "all"}}
	p.Effects = []plan.Effect{{When: plan.When{Motion: "c0"}, Record: []string{"c1",
		"c0"}, Hours: &plan.HourList{Blocks: []plan.Hours{{From: 12 * 60, To: 13 * 60}}}}}
	c := CameraOf(p, "c0")
	w := c.Walk("towards")
	at := func(hour int) Expectation { return w.Expected[c.At(week.Minute(60*hour+30))] }
	for hour, want := range map[int]struct {
		sign, footage bool
		always, words string
		records       int
	}{
		2:  {false, false, "", "off at this hour", 0},
		6:  {true, false, "", "not recorded", 0},
		8:  {true, false, "", "not recorded", 0},
		10: {true, true, "", "", 0},
		12: {true, true, "", "", 1},
		18: {true, true, "full", "", 0},
	} {
		e := at(hour)
		if (e.Shown[Sign] != nil) != want.sign || (e.Shown[First] != nil) != want.footage || e.Always != want.always ||
			len(e.Records) != want.records ||
			want.words == "" != (e.Words == "") || !strings.Contains(e.Words, want.words) {
			t.Errorf("at %d: %+v", hour, e)
		}
	}
	if at(2).Key == at(10).Key || at(10).Key == at(12).Key || at(10).Key != at(14).Key {
		t.Error("keys tell hours apart wrongly")
	}
	// Where detection is off as planned, a sign says that its hours are others.
	sign := *at(10).Shown[Sign]
	if l := c.Judge([]Seen{{Walk: "towards", Minute: 150, Sign: &sign, NoShot: true}}); l[0].Fault != Hours {
		t.Errorf("%+v", l)
	}
	ch.Detection.RecordsSelf = new(bool)
	if e := CameraOf(p, "c0").Walk("towards").Expected[0]; e.Shown[First] != nil {
		t.Errorf("%+v", e)
	}
	ch.Detection.On = false
	if c := CameraOf(p, "c0"); c.None == "" || len(c.Walks) != 0 {
		t.Errorf("%+v", c)
	}
}

// TestWithoutGroundOnlySecondsAreTold has a camera of which nobody knows how the ground lies.
func TestWithoutGroundOnlySecondsAreTold(t *testing.T) {
	p, _ := one(t)
	p.Channels[0].Scene = nil
	c := CameraOf(p, "c0")
	if len(c.Walks) != 3 || !c.Walks[0].Free || c.Walks[0].Optional {
		t.Fatalf("%+v", c.Walks)
	}
	sign, out := 3.0, 11.0
	see := func(first, last float64) []Seen {
		first, last = sign+first, out+last
		return []Seen{{Walk: "~near", Sign: &sign, Out: &out, First: &first, Last: &last}}
	}
	if l := c.Judge(see(-5.3, 20.4)); l[0].Fault != AsPlanned {
		t.Errorf("%+v", l)
	}
	if l := c.Judge(see(-10.2, 19.8)); l[0].Fault != Pre || !strings.Contains(l[0].Words, "10 s, not 5 s") {
		t.Errorf("%+v", l)
	}
	if l := c.Judge([]Seen{{Walk: "~near", NoSign: true, NoShot: true}, {Walk: "~far", NoSign: true, NoShot: true}}); l[0].Fault != Off {
		t.Errorf("%+v", l)
	}
	for _, k := range c.Cases {
		if k.Fault == Turned || k.Fault == Size || k.Fault == NoAreas {
			t.Errorf("%s is told without ground", k.Fault)
		}
	}
}

func TestItIsGivenUp(t *testing.T) {
	ctx, stop := context.WithCancel(context.Background())
	stop()
	if _, err := Of(ctx, yard(t, rand.New(rand.NewPCG(1, 1)), 2)); !errors.Is(err, context.Canceled) {
		t.Error(err)
	}
	empty := &plan.Plan{Channels: []plan.Channel{{ID: "a", NoCamera: true}}}
	if list, err := Of(context.Background(), empty); err != nil || len(list) != 0 || CameraOf(empty, "a") != nil ||
		CameraOf(empty, "b") != nil {
		t.Errorf("%v %v", list, err)
	}
}

// TestProposalsSayWhatWasFound makes every proposal, and asks the camera of the changed plan whether it expects what was found.
func TestProposalsSayWhatWasFound(t *testing.T) {
	p, _ := one(t)
	own := 1.5 // seconds of the area itself, which count in place of those of the detection
	p.Channels[0].Detection.Areas.List[0].MinSeconds = &own
	c := CameraOf(p, "c0")
	changes := 0
	for k, found := range c.Cases {
		edits := Proposal(p, "c0", found)
		if edits == nil {
			continue
		}
		done, err := edit.Apply(p, edits...)
		if err != nil {
			t.Fatalf("%s: %v", found.Words, err)
		}
		changes++
		after := CameraOf(done.Plan, "c0")
		for i := range c.Walks {
			w := after.Walk(c.Walks[i].ID)
			if found.Fault == Off {
				if w != nil {
					t.Errorf("%s: there is a walk", found.Words)
				}
				continue
			}
			if found.Fault == Untied || w == nil || strings.HasPrefix(w.ID, "~") {
				continue // where a crossing leads depends on sizes
			}
			want, got := c.Walks[i].Shows[0][k], w.Expected[0].Shown
			for m := range want {
				if (want[m] == nil) != (got[m] == nil) || want[m] != nil && math.Abs(*want[m]-*got[m]) > 0.5 {
					t.Errorf("%s, %s: %v becomes %v", found.Words, w.Name, shownText(want), shownText(got))
					break
				}
			}
		}
	}
	if changes < 30 {
		t.Errorf("%d proposals", changes)
	}
	if Proposal(p, "gone", c.Cases[1]) != nil || Proposal(p, "c0", Case{Fault: Turned}) != nil {
		t.Error("a proposal of nothing")
	}
}

func shownText(s Shown) string {
	data, _ := json.Marshal(s)
	return string(data)
}

// TestAReportFollowsWhatHappens goes through a camera's life: walked wrong, proposed, mended, walked right, plan changed, left.
func TestAReportFollowsWhatHappens(t *testing.T) {
	p, c := one(t)
	cameras, trials := []Camera{*c}, []Trial{}
	var records []Record
	at := time.Date(2026, 11, 29, 9, 0, 0, 0, time.UTC)
	n := 0
	note := func(said Said) {
		n++
		about := "c0"
		if said.Aside != nil {
			about = records[0].ID
		}
		records = append(records, Record{ID: string(rune('a' + n)), About: about, Revision: 1, By: "Fitz",
			At: at.Add(time.Duration(n) * time.Minute), Said: said})
	}
	walk := func(id string, shift float64) {
		w := cameras[0].Walk(id)
		e := w.Expected[0]
		sign := *e.Shown[Sign]
		first, last := *e.Shown[First]-shift, *e.Shown[Last]
		note(Said{Walk: &WalkSaid{Seen: Seen{Walk: id, Sign: &sign, First: &first, Last: &last}, Key: e.Key, Name: w.Name, Planned: e.Shown}})
	}
	report := func() CameraReport { return Reported(p, cameras, trials, records, 0).Cameras[0] }
	is := func(want Status) CameraReport {
		t.Helper()
		r := report()
		if r.Status != want {
			t.Fatalf("%s, want %s; %+v", r.Status, want, r.Likely)
		}
		return r
	}
	is(Open)
	walk("towards", 5) // pre-event time is 10 s
	r := is(Differs)
	if r.Likely[0].Fault != Pre || r.Proposal == nil || len(r.Proposal.Edits) != 1 || r.Proposal.Asked != nil ||
		!slices.Equal(r.Walks[0].Results[0].Differ, []bool{false, true, false}) {
		t.Errorf("%+v", r)
	}
	note(Said{Decision: &Decision{What: "propose", Fault: Pre, Words: r.Proposal.Words, Found: &r.Proposal.Found}})
	if r = is(Differs); r.Proposal.Asked == nil || r.Proposal.Answered != nil {
		t.Errorf("%+v", r.Proposal)
	}
	note(Said{Decision: &Decision{What: "declined", Of: r.Proposal.Asked.ID, Reason: "ten seconds are asked for"}})
	if r = is(Differs); r.Proposal.Answered == nil {
		t.Errorf("%+v", r.Proposal)
	}
	cameras[0].Walks[0].Expected[0].Key += " of another plan"
	if r = report(); r.Proposal == nil || r.Proposal.Answered == nil {
		t.Errorf("when the plan is another, what became of a proposal is not told: %+v", r.Proposal)
	}
	cameras = []Camera{*CameraOf(p, "c0")}
	note(Said{Decision: &Decision{What: "again"}})
	is(Again)
	walk("towards", 0)
	is(Begun) // what was seen before it was mended says nothing any more
	walk("across", 0)
	is(Right)
	if done := Reported(p, cameras, trials, records, 0); !done.Finished() || done.All != 1 {
		t.Errorf("%d of %d", done.Done, done.All)
	}
	changed, err := edit.Apply(p, edit.Edit{SetTimes: &edit.SetTimes{Channels: []string{"c0"}, PostSeconds: new(float64)}})
	if err != nil {
		t.Fatal(err)
	}
	cameras = []Camera{*CameraOf(changed.Plan, "c0")}
	if r = is(Again); !r.Walks[0].Results[1].Stale {
		t.Errorf("%+v", r.Walks[0].Results)
	}
	walk("towards", 9)
	walk("across", 9)
	is(Differs)
	note(Said{Decision: &Decision{What: "leave", Reason: "the customer wants it so"}})
	is(Left)

	// What cannot be is kept, and says nothing.
	before := len(records)
	zero, minus := 0.05, -3.0
	for _, s := range []Seen{{Walk: "towards", Sign: &zero}, {Walk: "towards", Sign: &minus}, {Walk: "towards", First: &zero, Last: &minus},
		{Walk: "towards", Sign: &zero, NoSign: true}} {
		w := cameras[0].Walk("towards")
		note(Said{Walk: &WalkSaid{Seen: s, Key: w.Expected[0].Key, Name: w.Name, Planned: w.Expected[0].Shown}})
	}
	r = report()
	for _, res := range r.Walks[0].Results[len(r.Walks[0].Results)-4:] {
		if res.Odd == "" || res.Counts() {
			t.Errorf("%+v counts", res.Walk.Seen)
		}
	}
	if r.Status != Left || len(records) != before+4 {
		t.Errorf("%s", r.Status)
	}
	note(Said{Aside: &Aside{Reason: "another gate"}})
	if r = report(); r.Walks[0].Results[0].SetAside == nil {
		t.Error("it counts still")
	}
	// Of what is not there any more.
	records[0].About = "gone"
	if out := Reported(p, cameras, trials, records, 0); len(out.Gone) != 1 {
		t.Errorf("%+v", out.Gone)
	}
}

// TestPlansOfAllKinds takes every sample plan, and one that uses every member: each camera says what there is to walk, or why
// nothing is, and nothing that is seen of it breaks.
func TestPlansOfAllKinds(t *testing.T) {
	files, err := filepath.Glob("../estimate/testdata/plans/*.json")
	if err != nil || len(files) == 0 {
		t.Fatal(files, err)
	}
	sign := 3.0
	for _, file := range append(files, "../plan/testdata/whole.json") {
		p := plantest.Read(t, file)
		cameras, err := Of(t.Context(), p)
		if err != nil {
			t.Fatal(err)
		}
		var records []Record
		for i := range cameras {
			c := &cameras[i]
			if (len(c.Walks) == 0) != (c.None != "") {
				t.Errorf("%s, %s: %d walks; %q", file, c.Name, len(c.Walks), c.None)
			}
			for _, w := range c.Walks {
				for _, minute := range []week.Minute{0, 5000, 10079} {
					e := w.Expected[c.At(minute)]
					records = append(records, Record{ID: fmt.Sprint(len(records)), About: c.Channel,
						Said: Said{Walk: &WalkSaid{Key: e.Key, Planned: e.Shown,
							Seen: Seen{Walk: w.ID, Minute: minute, Sign: &sign}}}})
				}
			}
		}
		r := Reported(p, cameras, Trials(p), records, 77)
		if _, err := json.Marshal(r); err != nil { // neither infinite nor no number
			t.Errorf("%s: %v", file, err)
		}
		if _, err := json.Marshal(cameras); err != nil {
			t.Errorf("%s: %v", file, err)
		}
	}
	nothing, _ := one(t)
	nothing.Channels[0].Detection.Areas = &plan.Areas{List: []plan.Area{{ID: "x", Ignore: true, Points: []plan.Point{{0, 0}, {1, 0}, {1, 1}}}}}
	if c := CameraOf(nothing, "c0"); !strings.Contains(c.None, "never noticed") {
		t.Errorf("%+v", c)
	}
}

// TestAWeekOfManyDuties has another duty every half hour: those that do the same are one situation, and of more than can be told
// the rarest are not.
func TestAWeekOfManyDuties(t *testing.T) {
	p, _ := one(t)
	c := &p.Channels[0]
	areas := c.Detection.Areas.List[:1]
	for k := range 40 { // each watches at hours of its own
		a := areas[0]
		a.ID = fmt.Sprint("a", k)
		a.Hours = &plan.HourList{Blocks: []plan.Hours{{From: week.Clock(30 * k), To: week.Clock(30*k + 30 + k)}}}
		areas = append(areas, a)
	}
	c.Detection.Areas.List = areas[1:]
	for k := range 48 {
		id := fmt.Sprint("d", k)
		p.Duties = append(p.Duties, plan.Duty{ID: id, Name: id, Event: &plan.Event{Stream: plan.Main, On: []plan.Trigger{plan.Motion}}})
		c.Week.Own.Blocks = append(c.Week.Own.Blocks,
			plan.DutyBlock{Hours: plan.Hours{From: week.Clock(30 * k), To: week.Clock(30*k + 30)}, Duty: id})
	}
	camera := CameraOf(p, "c0")
	situations := make(map[int]bool)
	for _, s := range camera.Week {
		situations[s.Situation] = true
	}
	w := camera.Walks[0]
	if len(situations) != mostSituations+1 || len(w.Expected) != mostSituations+1 ||
		!strings.Contains(w.Expected[mostSituations].Words, "too often") {
		t.Errorf("%d situations, %d expected, %q", len(situations), len(w.Expected), w.Expected[len(w.Expected)-1].Words)
	}
	c.Detection.Areas.List = areas[1:2]
	areas[1].Hours = nil
	if camera = CameraOf(p, "c0"); len(camera.Walks[0].Expected) != 1 {
		t.Errorf("48 duties that do the same are %d situations", len(camera.Walks[0].Expected))
	}
}
