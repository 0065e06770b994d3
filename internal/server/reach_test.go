package server

import (
	"encoding/json"
	"fmt"
	"math"
	"testing"

	"wakefield/internal/demo"
)

// TestWhatItWouldTake asks for more days than the ferry terminal keeps, makes the changes that are told, and finds them kept.
func TestWhatItWouldTake(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	was := call[View](c, "GET", "/api/plans/site", "", 200)
	r := call[Reach](c, "POST", "/api/plans/site/reach", `{"days":45}`, 200)
	if !r.Reached || r.Point.Days == nil || *r.Point.Days < 45 || len(r.Changes) == 0 || len(r.Frontier) < 5 || len(r.Levers) < 5 || math.Abs(*r.Frontier[0].Days-*was.Verdict.KeptDays) > 0.01 {
		t.Fatalf("%+v", r)
	}
	edits, err := json.Marshal(r.Edits)
	if err != nil {
		t.Fatal(err)
	}
	a := call[Answer](c, "POST", "/api/plans/site/edits", fmt.Sprintf(`{"version":1,"edits":%s}`, edits), 200)
	if math.Abs(*a.Verdict.KeptDays-*r.Point.Days) > 0.001*45 || math.Abs(a.Verdict.GigabytesPerDay-r.Point.Gigabytes) > 0.001*r.Point.Gigabytes {
		t.Errorf("%v days of %v GB a day, promised %v of %v", *a.Verdict.KeptDays, a.Verdict.GigabytesPerDay, *r.Point.Days, r.Point.Gigabytes)
	}
	locked := call[Reach](c, "POST", "/api/plans/site/reach", `{"days":9000,"locked":["booth"],"frames":true,"matters":{"hall":3},"lowCounts":0.25}`, 200)
	if locked.Reached || locked.Point.Days == nil {
		t.Errorf("%+v", locked.Point)
	}
	for _, change := range locked.Changes {
		for _, id := range change.Channels {
			if id == "booth" {
				t.Errorf("%+v", change)
			}
		}
	}
	call[problemBody](c, "POST", "/api/plans/site/reach", `{"days":0}`, 422)
	call[problemBody](c, "POST", "/api/plans/site/reach", `{"days":30,"locked":["nobody"]}`, 404)
	call[problemBody](c, "POST", "/api/plans/site/reach", `{"days":30,"matters":{"hall":9}}`, 422)
	call[problemBody](c, "POST", "/api/plans/nowhere/reach", `{"days":30}`, 404)
}
