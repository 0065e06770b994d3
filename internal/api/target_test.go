package api

import (
	"encoding/json"
	"fmt"
	"math"
	"testing"

	"wakefield.example/internal/demo"
)

// TestWhatItWouldTake asks for more days than the ferry terminal keeps, makes the changes that are told, and finds them kept.
func TestWhatItWouldTake(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	was := call[View](c, "GET", "/api/plans/site", "", 200)
	r := call[Target](c, "POST", "/api/plans/site/reach", `{"days":45}`, 200)
	if !r.Reached || r.Point.Days == nil || *r.Point.Days < 45 || len(r.Changes) == 0 || len(r.Frontier) < 5 || len(r.Levers) < 5 ||
		math.Abs(*r.Frontier[0].Days-*was.Verdict.KeptDays) > 0.01 {
		t.Fatalf("%+v", r)
	}
	edits, err := json.Marshal(r.Edits)
	if err != nil {
		t.Fatal(err)
	}
	a := call[Answer](c, "POST", "/api/plans/site/edits", fmt.Sprintf(`{"version":1,"edits":%s}`, edits), 200)
	if math.Abs(*a.Verdict.KeptDays-*r.Point.Days) > 0.001*45 ||
		math.Abs(a.Verdict.GigabytesPerDay-r.Point.GigabytesPerDay) > 0.001*r.Point.GigabytesPerDay {
		t.Errorf("%v days of %v GB a day, promised %v of %v", *a.Verdict.KeptDays, a.Verdict.GigabytesPerDay, *r.Point.Days,
			r.Point.GigabytesPerDay)
	}
	locked := call[Target](c, "POST", "/api/plans/site/reach",
		`{"days":9000,"locked":["booth"],"frames":true,"matters":{"hall":3},"lowCounts":0.25}`, 200)
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

// TestWhatIsKeptByEveryMeasure asks for days at the worst hour and with a chance, with a channel that may not be kept so long.
func TestWhatIsKeptByEveryMeasure(t *testing.T) {
	p := demo.PennywhistleQuay()
	c := start(t, p)
	r := call[Target](c, "POST", "/api/plans/site/reach", `{"days":38,"by":"hour"}`, 200)
	if !r.Reached || *r.Kept.WorstHourDays < 38 || *r.Kept.TypicalDays < *r.Kept.WorstHourDays ||
		*r.Kept.WorstDateDays > *r.Kept.WorstHourDays || r.Kept.WorstDate == nil || len(r.LeftOut) > 0 {
		t.Errorf("%+v", r.Kept)
	}
	if r := call[Target](c, "POST", "/api/plans/site/reach", `{"days":22,"by":"chance","chancePercent":90}`, 200); !r.Reached ||
		r.Kept.ChancePercent < 90 {
		t.Errorf("%+v", r.Kept)
	}
	call[problemBody](c, "POST", "/api/plans/site/reach", `{"days":30,"by":"luck"}`, 422)
	call[Answer](c, "POST", "/api/plans/site/edits",
		`{"version":1,"edits":[{"setKeep":{"channels":["luggage"],"keep":{"atLeastDays":14,"atMostDays":14}}}]}`, 200)
	if r := call[Target](c, "POST", "/api/plans/site/reach", `{"days":16}`, 200); len(r.LeftOut) != 1 || r.LeftOut[0] != "luggage" {
		t.Errorf("left out: %v", r.LeftOut)
	}
	if list := call[[]Spare](c, "GET", "/api/plans/site/spare", "", 200); len(list) > 0 {
		t.Errorf("of a pool that is short there is to spare: %+v", list)
	}
	call[problemBody](c, "GET", "/api/plans/nowhere/spare", "", 404)
}

// TestWhatIsToSpare asks the depot, half of whose arrays hold far more than is required, what could be spent.
func TestWhatIsToSpare(t *testing.T) {
	c := start(t, demo.SaltmarshTramDepot())
	list := call[[]Spare](c, "GET", "/api/plans/site/spare", "", 200)
	if len(list) < 3 {
		t.Fatalf("%+v", list)
	}
	for _, s := range list {
		if s.Days != nil && *s.Days < 20 || len(s.Edits) == 0 || len(s.Words) == 0 {
			t.Errorf("%+v", s)
		}
	}
}
