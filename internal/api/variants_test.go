package api

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"wakefield.example/core/compare"
	"wakefield.example/core/plan"
	"wakefield.example/internal/demo"
	"wakefield.example/internal/store"
)

// TestVariants makes variants of a site, compares them, carries a difference over, adopts, takes away and out again.
func TestVariants(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	make := func(body string) CreatedSite {
		return call[CreatedSite](c, "POST", "/api/sites/site/plans", body, 201)
	}
	longer := make(`{"like":"site","name":"Longer nights","edits":[{"setKeep":{"channels":["kiosk"],"keep":{"atLeastDays":60}}},{"setPrices":{"prices":{"currency":"EUR","drives":[]}}}]}`)
	make(`{"like":"` + longer.ID + `","name":"Third"}`)
	site := call[store.Site](c, "GET", "/api/sites/site/plans", "", 200)
	if len(site.Plans) != 3 || site.Adopted != "site" || site.Plans[1].Name != "Longer nights" || site.Plans[1].KeptDays == nil {
		t.Fatalf("%+v", site)
	}
	if v := call[SiteView](c, "GET", "/api/sites/site?plan="+longer.ID, "", 200); v.Plan.ID != longer.ID ||
		v.Plan.Plan.Channel("kiosk").Keep.AtLeastDays != 60 {
		t.Errorf("%s is shown", v.Plan.ID)
	}

	list := call[[]Compared](c, "GET", "/api/sites/site/compare?plans=site,"+longer.ID, "", 200)
	if len(list) != 2 || !list[0].Adopted || len(list[0].Differs) != 0 || len(list[1].Differs) != 2 || list[0].Price != nil ||
		list[1].Price.Total != 0 || len(list[1].Price.UnknownTerabytes) == 0 {
		t.Fatalf("%+v", list)
	}
	if status, header, page := c.send("GET", "/api/sites/site/compare/file?plans=site,"+longer.ID, ""); status != 200 ||
		!strings.Contains(header.Get("Content-Disposition"), ", variants, 20") ||
		!strings.HasSuffix(header.Get("Content-Disposition"), `.html"`) ||
		!strings.Contains(page, "<b>Kiosk front</b>: keep at least 60 days") || !strings.Contains(page, "Longer nights") {
		t.Errorf("%d %s", status, page)
	}
	told := list[1].Differs[0]
	if told.Who != "Kiosk front" || !strings.HasPrefix(told.Words, "keep at least 60 days instead of") {
		t.Errorf("%v", told)
	}
	parts, _ := json.Marshal(told.Parts)
	answer := call[Answer](c, "POST", "/api/plans/site/carry", fmt.Sprintf(`{"from":%q,"parts":%s}`, longer.ID, parts), 200)
	if answer.Version != 2 || !strings.Contains(answer.Sentence, "Kiosk front") {
		t.Errorf("%+v", answer.Sentence)
	}
	if left := call[[]Compared](c, "GET", "/api/sites/site/compare?plans=site,"+longer.ID, "", 200)[1].Differs; len(left) != 1 ||
		left[0].Parts[0] != (compare.Part{Kind: "plan", Member: "prices"}) {
		t.Errorf("%+v", left)
	}
	if since := call[[]compare.Sentence](c, "GET", "/api/plans/site/revisions/1/differences", "", 200); len(since) != 1 ||
		since[0].Words != told.Words {
		t.Errorf("%+v", since)
	}

	// The adopted one stays; what is taken away cannot be adopted until it is taken out again.
	refuse := func(method, path, body, why string) {
		t.Helper()
		if got := call[problemBody](c, method, path, body, 422); !strings.Contains(got.Detail, why) {
			t.Errorf("%s %s: %q", method, path, got.Detail)
		}
	}
	done := func(method, path, body string) {
		t.Helper()
		if status, _, data := c.send(method, path, body); status != 204 {
			t.Fatalf("%s %s: %d %s", method, path, status, data)
		}
	}
	refuse("POST", "/api/sites/site/plans/site/removed", `{"removed":true}`, "adopted one")
	done("POST", "/api/sites/site/plans/"+longer.ID+"/removed", `{"removed":true}`)
	refuse("PUT", "/api/sites/site/adopted", `{"plan":"`+longer.ID+`"}`, "removed")
	done("POST", "/api/sites/site/plans/"+longer.ID+"/removed", `{"removed":false}`)
	done("PUT", "/api/sites/site/adopted", `{"plan":"`+longer.ID+`"}`)
	if lines := call[[]SiteLine](c, "GET", "/api/sites", "", 200); lines[0].Plan != longer.ID || lines[0].Variant != "Longer nights" {
		t.Errorf("%+v", lines[0])
	}
	if v := call[SiteVerdict](c, "GET", "/api/sites/site/verdict", "", 200); v.Version != 1 {
		t.Errorf("the verdict is of version %d", v.Version)
	}

	call[problemBody](c, "GET", "/api/sites/site?plan=nowhere", "", 404)
	call[problemBody](c, "PUT", "/api/sites/site/adopted", `{"plan":"nowhere"}`, 404)
	call[problemBody](c, "POST", "/api/sites/site/plans", `{"like":"nowhere","name":"X"}`, 404)
	call[problemBody](c, "POST", "/api/sites/site/plans", `{"like":"site","name":"X","edits":[{"removeDuty":{"duty":"none"}}]}`, 422)
	call[problemBody](c, "POST", "/api/sites/site/plans", `{"like":"site","version":1,"name":"X"}`, 409)
	refuse("GET", "/api/sites/site/compare?plans=a,b,c,d,e", "", "four")
	refuse("POST", "/api/plans/site/carry", `{"from":"site","parts":[{"kind":"planet"}]}`, "no such kind")
}

// TestVariantsOfAFile makes one of a plan file, sent twice under one key, and of what is none.
func TestVariantsOfAFile(t *testing.T) {
	c := start(t, demo.BrackenhallCiderWorks())
	data, err := demo.PennywhistleQuay().Write()
	if err != nil {
		t.Fatal(err)
	}
	for range 2 {
		if status, _, body := c.send("POST", "/api/sites/site/plans/file", string(data), "Idempotency-Key", "once"); status != 201 {
			t.Fatalf("%d %s", status, body)
		}
	}
	site := call[store.Site](c, "GET", "/api/sites/site/plans", "", 200)
	if len(site.Plans) != 2 {
		t.Errorf("%d variants", len(site.Plans))
	}
	call[problemBody](c, "POST", "/api/sites/site/plans/file", `{"format":"wakefield-plan/1"`, 422)
	same := call[[]ComparedRibbon](c, "GET", "/api/sites/site/compare/ribbons?first=site&second=site", "", 200)
	other := call[[]ComparedRibbon](c, "GET", "/api/sites/site/compare/ribbons?first=site&second="+site.Plans[1].ID, "", 200)
	if len(same) != 0 || len(other) != len(demo.PennywhistleQuay().Channels)+len(demo.BrackenhallCiderWorks().Channels) {
		t.Errorf("%d and %d ribbons differ", len(same), len(other))
	}
	for _, r := range other {
		if (r.First == nil) == (r.Second == nil) {
			t.Errorf("%s is in both", r.ID)
		}
	}
}

// TestEveryPlanCanBeCarriedWhole carries all of one demo over to the other.
func TestEveryPlanCanBeCarriedWhole(t *testing.T) {
	a, b := demo.BrackenhallCiderWorks(), demo.PennywhistleQuay()
	var parts []compare.Part
	for _, s := range compare.Plans(a, b) {
		parts = append(parts, s.Parts...)
	}
	var last *plan.Plan
	c := start(t, a)
	data, err := b.Write()
	if err != nil {
		t.Fatal(err)
	}
	made := call[CreatedSite](c, "POST", "/api/sites/site/plans/file", string(data), 201)
	body, _ := json.Marshal(map[string]any{"from": made.ID, "parts": parts})
	call[Answer](c, "POST", "/api/plans/site/carry", string(body), 200)
	last = call[View](c, "GET", "/api/plans/site", "", 200).Plan
	if left := compare.Plans(last, b); len(left) != 0 {
		t.Errorf("there is left %v", left)
	}
}
