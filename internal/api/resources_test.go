package api

import (
	"slices"
	"testing"

	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/internal/demo"
)

// TestASiteAndItsPlanAreTwoThings asks for both.
func TestASiteAndItsPlanAreTwoThings(t *testing.T) {
	c, _ := serving(t, demo.PennywhistleQuay(), "", Options{})
	site := call[SiteView](c, "GET", "/api/sites/site", "", 200)
	if site.Site.ID != "site" || len(site.Site.Plans) != 1 || site.Site.Plans[0].ID != site.Site.Adopted ||
		site.Plan.ID != site.Site.Adopted || site.Plan.Site != "site" {
		t.Errorf("%+v, plan %s of %s", site.Site, site.Plan.ID, site.Plan.Site)
	}
	call[problemBody](c, "GET", "/api/sites/nowhere", "", 404)
	call[problemBody](c, "GET", "/api/plans/nowhere", "", 404)
	if rails := site.Plan.Rails; len(rails) != 3 || rails[2].ID != "lanes" || rails[2].Rail[0].Duty != "motion" ||
		rails[2].Rail[1].From != 360 || rails[2].Rail[1].Duty != "low" {
		t.Errorf("%+v", rails)
	}
}

// TestWhatThePageIsToldOfTheJob asks for what the page shows and does not work out.
func TestWhatThePageIsToldOfTheJob(t *testing.T) {
	c, _ := serving(t, demo.PennywhistleQuay(), "", Options{})
	format := call[PlanFormat](c, "GET", "/api/format", "", 200)
	pre, number := format.Limits["channels.preSeconds"], format.Limits["channels.number"]
	if pre.Maximum == nil || *pre.Maximum != 3600 || *pre.Minimum != 0 || pre.Whole || !number.Whole ||
		format.Choices.Layouts.Name("raid5") != "RAID 5" {
		t.Errorf("%+v %+v", pre, format.Choices)
	}
	uses := call[[]plan.Use](c, "GET", "/api/plans/site/uses?kind=week&thing=lanes", "", 200)
	if len(uses) != 2 || uses[0].Kind != "channel" || uses[0].Name != "Vehicle lane 1" {
		t.Errorf("%+v", uses)
	}
	ids := call[FreeIDs](c, "POST", "/api/plans/site/ids", `{"kind":"week","names":["Lanes","Lanes","Ärger!","!"]}`, 200)
	if !slices.Equal(ids.IDs, []string{"lanes-2", "lanes-3", "rger", "week"}) {
		t.Errorf("%q", ids.IDs)
	}
	dates := call[SpecialDates](c, "GET", "/api/plans/site/special-days/dates?year=2028", "", 200)
	days := demo.PennywhistleQuay().Site.SpecialDays
	season := slices.IndexFunc(days, func(d plan.SpecialDay) bool { return d.Name == "High season" })
	if len(dates.Holding) != 366 || dates.Holding[31+29+31+30+31+30+15] != season || dates.Holding[100] != -1 {
		t.Errorf("%d dates, 16 July is %d, want %d", len(dates.Holding), dates.Holding[31+29+31+30+31+30+15], season)
	}
	call[problemBody](c, "GET", "/api/plans/site/special-days/dates", "", 422)
	rates := call[estimate.Rates](c, "POST", "/api/activities/rates",
		`{"id":"a","name":"A","known":"guess","meanSeconds":5,"otherwisePerHour":2}`, 200)
	if len(rates.Steps) != 1 || rates.Steps[0].PerHour != 2 || rates.PerDay != 48 {
		t.Errorf("%+v", rates)
	}
}
