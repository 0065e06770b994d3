package api

import (
	"bytes"
	"encoding/json"
	"fmt"
	"image/png"
	"strings"
	"testing"
	"time"

	"wakefield.example/core/walktest"
	"wakefield.example/internal/demo"
)

// TestAWalkIsBroughtBack takes a site along, sends what was seen from two phones at once and twice, and changes the plan meanwhile.
func TestAWalkIsBroughtBack(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	along := call[WalkTest](c, "GET", "/api/plans/site/walk-test", "", 200)
	if len(along.Cameras) < 10 || len(along.Trials) < 10 || along.TimeZone == "" || len(along.Looks) == 0 || along.Version != 1 {
		t.Fatalf("%d cameras, %d trials, %d looks", len(along.Cameras), len(along.Trials), len(along.Looks))
	}
	var camera walktest.Camera
	for _, k := range along.Cameras {
		if k.Channel == "gangway-a" {
			camera = k
		}
	}
	w, minute := camera.Walks[0], 0
	for _, s := range camera.Week {
		if e := w.Expected[s.Situation]; e.Shown[walktest.Sign] != nil && e.Shown[walktest.First] != nil {
			minute = int(s.From)
		}
	}
	e := w.Expected[camera.At(0)]
	if e = w.Expected[situationAt(camera, minute)]; e.Shown[walktest.First] == nil {
		t.Fatalf("%+v", camera.Week)
	}
	record := func(id, by string, sign, age float64) string {
		said, _ := json.Marshal(walktest.WalkSaid{Seen: walktest.Seen{Walk: w.ID, Minute: camera.Week[0].From, Sign: &sign}, Key: e.Key,
			Name: w.Name, Planned: e.Shown})
		said = bytes.Replace(said, []byte(`"minute":0`), fmt.Appendf(nil, `"minute":%d`, minute), 1)
		return fmt.Sprintf(`{"id":%q,"about":"gangway-a","revision":1,"by":%q,"clock":"monotonic","ageSeconds":%v,"walk":%s}`, id, by, age, said)
	}
	send := func(want int, records ...string) KeptRecords {
		t.Helper()
		return call[KeptRecords](c, "POST", "/api/plans/site/walked", `{"records":[`+strings.Join(records, ",")+`]}`, want)
	}
	sign := *e.Shown[walktest.Sign]
	first := send(200, record("one", "Fitz", sign, 3600))
	if len(first.Kept) != 1 || len(first.Refused) != 0 {
		t.Fatalf("%+v", first)
	}
	again := send(200, record("one", "Fitz", sign, 3700), record("two", "Gus", sign+6, 1800),
		`{"id":"three","about":"gangway-a","revision":1,"clock":"phone","ageSeconds":0}`)
	if len(again.Kept) != 2 || len(again.Refused) != 1 || again.Refused[0].ID != "three" {
		t.Fatalf("%+v", again)
	}
	if other := send(200, record("one", "Fitz", sign+1, 0)); len(other.Refused) != 1 || len(other.Kept) != 0 {
		t.Errorf("something else under the same id: %+v", other)
	}
	report := func() walktest.CameraReport {
		t.Helper()
		for _, k := range call[WalkReport](c, "GET", "/api/plans/site/walked", "", 200).Cameras {
			if k.Channel == "gangway-a" {
				return k
			}
		}
		t.Fatal("no camera")
		return walktest.CameraReport{}
	}
	r := report()
	if n := len(r.Walks[0].Results); n != 2 || r.Walks[0].Results[0].By != "Fitz" || r.Walks[0].Results[1].By != "Gus" {
		t.Fatalf("%+v", r.Walks[0].Results)
	}
	if ago := time.Since(r.Walks[0].Results[0].At); ago < 59*time.Minute || ago > 61*time.Minute {
		t.Errorf("noted %v ago", ago)
	}
	if len(r.Likely) == 0 || r.Status == walktest.Open {
		t.Errorf("%+v", r)
	}
	call[Answer](c, "POST", "/api/plans/site/edits", `{"version":1,"edits":[{"setTimes":{"channels":["gangway-a"],"preSeconds":2}}]}`, 200)
	if r = report(); r.Status != walktest.Again || !r.Walks[0].Results[0].Stale {
		t.Errorf("the plan is another: %s", r.Status)
	}
	if kept := call[WalkTest](c, "GET", "/api/plans/site/walk-test", "", 200); kept.Version != 2 || len(kept.Records) != 2 {
		t.Errorf("%d records at %d", len(kept.Records), kept.Version)
	}
	status, _, answer := c.send("GET", "/api/plans/site/walk-code", "")
	if img, err := png.Decode(strings.NewReader(answer)); status != 200 || err != nil || img.Bounds().Dx() < 200 {
		t.Errorf("%d %v", status, err)
	}
}

func situationAt(c walktest.Camera, minute int) (at int) {
	for _, s := range c.Week {
		if int(s.From) <= minute {
			at = s.Situation
		}
	}
	return at
}

// TestBadRecordsNameThePlace sends what no phone would, and something of a camera that is not there, which is kept.
func TestBadRecordsNameThePlace(t *testing.T) {
	c := start(t, demo.BrackenhallCiderWorks())
	for body, want := range map[string]string{
		`{"records":[]}`: "body.records",
		`{"records":[{"id":"a b","about":"x","revision":1,"clock":"phone","ageSeconds":0,"aside":{"reason":"r"}}]}`:                          "body.records[0].id",
		`{"records":[{"id":"a","about":"x","revision":1,"clock":"sundial","ageSeconds":0,"aside":{"reason":"r"}}]}`:                          "body.records[0].clock",
		`{"records":[{"id":"a","about":"x","revision":1,"clock":"phone","ageSeconds":-3,"aside":{"reason":"r"}}]}`:                           "body.records[0].ageSeconds",
		`{"records":[{"id":"a","about":"x","revision":1,"clock":"phone","ageSeconds":0,"decision":{"what":"shrug"}}]}`:                       "body.records[0].decision.what",
		`{"records":[{"id":"a","about":"x","revision":1,"clock":"phone","ageSeconds":0,"signature":{"name":"","strokes":[[[0,0],[1,1]]]}}]}`: "body.records[0].signature.name",
	} {
		if status, _, answer := c.send("POST", "/api/plans/site/walked", body); status != 422 || !strings.Contains(answer, want) {
			t.Errorf("%s: %d %s", body, status, answer)
		}
	}
	call[KeptRecords](c, "POST", "/api/plans/site/walked",
		`{"records":[{"id":"a","about":"a camera that was removed","revision":1,"clock":"phone","ageSeconds":0,"decision":{"what":"leave","reason":"gone"}}]}`, 200)
	if r := call[WalkReport](c, "GET", "/api/plans/site/walked", "", 200); len(r.Gone) != 1 || r.Gone[0].Decision.Reason != "gone" {
		t.Errorf("%+v", r.Gone)
	}
	call[json.RawMessage](c, "GET", "/api/plans/nowhere/walk-test", "", 404)
	call[json.RawMessage](c, "GET", "/api/plans/nowhere/walk-code", "", 404)
}
