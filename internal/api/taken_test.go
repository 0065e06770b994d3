package api

import (
	"encoding/json"
	"slices"
	"strings"
	"testing"

	"wakefield.example/core/compare"
	"wakefield.example/internal/demo"
)

// TestASiteTakesFromATemplate changes a template, and lets the site take the change one by one, as edits that it makes itself.
func TestASiteTakesFromATemplate(t *testing.T) {
	c, _ := manySites(t)
	if list := call[Takings](c, "GET", "/api/plans/site/takings?site=mill", "", 200); len(list.Takings) != 0 || list.Name != "Mill" {
		t.Errorf("%+v", list)
	}
	c.does("POST", "/api/plans/mill/edits", `{"version": 1, "edits": [{"setDuty": {"duty": {"id": "watch", "name": "Watch", "base": {"stream": "sub"}}}},
		{"setSpecialDays": {"days": [{"from": "2026-12-25", "to": "2026-12-25", "name": "Midwinter", "yearly": true, "useDay": "sun"}]}}]}`, 200)
	list := call[Takings](c, "GET", "/api/plans/site/takings?site=mill", "", 200).Takings
	if len(list) != 2 || !slices.ContainsFunc(list, func(t compare.Taking) bool { return t.Kind == "special day" && t.New }) {
		t.Fatalf("%+v", list)
	}
	asked, err := json.Marshal(map[string]any{"site": "mill", "take": []string{list[0].ID, list[1].ID}})
	if err != nil {
		t.Fatal(err)
	}
	edits, err := json.Marshal(call[Edits](c, "POST", "/api/plans/site/takings", string(asked), 200).Edits)
	if err != nil {
		t.Fatal(err)
	}
	c.does("POST", "/api/plans/site/edits", `{"version": 1, "edits": `+string(edits)+`}`, 200)
	if list := call[Takings](c, "GET", "/api/plans/site/takings?site=mill", "", 200).Takings; len(list) != 0 {
		t.Errorf("%+v", list)
	}
	if p := call[problemBody](c, "POST", "/api/plans/site/takings", string(asked), 422); !strings.Contains(p.Detail, "offered") {
		t.Errorf("%+v", p)
	}
	c.does("GET", "/api/plans/site/takings?site=nowhere", "", 404)
	c.does("POST", "/api/sites/mark", `{"sites": ["mill"], "stage": "template"}`, 204)
	eventually(t, "all are estimated", func() bool { return call[CompanyFigures](c, "GET", "/api/company/figures", "", 200).Left == 0 })
	if f := call[CompanyFigures](c, "GET", "/api/company/figures", "", 200); f.Sites != 2 {
		t.Errorf("a template is among %d sites", f.Sites)
	}
}

// TestChannelsAreCopiedToAnotherSite copies cameras with their stills onto a recorder that has room, and says what stays behind.
func TestChannelsAreCopiedToAnotherSite(t *testing.T) {
	c, s := manySites(t)
	if err := demo.Fill(t.Context(), s); err != nil {
		t.Fatal(err)
	}
	asked := `{"site": "pennywhistle-quay", "channels": ["booth", "hall"], "recorder": "r1", "pool": "r1-a"}`
	to := call[View](c, "GET", "/api/plans/saltmarsh-tram-depot", "", 200)
	r := to.Plan.Recorders[0]
	asked = strings.NewReplacer(`"r1"`, `"`+r.ID+`"`, `"r1-a"`, `"`+r.Pools[0].ID+`"`).Replace(asked)
	if p := call[problemBody](c, "POST", "/api/plans/saltmarsh-tram-depot/channels/copy", asked, 422); !strings.Contains(p.Detail, "room") {
		t.Errorf("%+v", p)
	}
	r.Channels += 2
	recorder, err := json.Marshal(r)
	if err != nil {
		t.Fatal(err)
	}
	c.does("POST", "/api/plans/saltmarsh-tram-depot/edits", `{"version": 1, "edits": [{"setRecorder": {"recorder": `+
		string(recorder)+`}}]}`, 200)
	copied := call[compare.Copied](c, "POST", "/api/plans/saltmarsh-tram-depot/channels/copy", asked, 200)
	edits, err := json.Marshal(copied.Edits)
	if err != nil {
		t.Fatal(err)
	}
	c.does("POST", "/api/plans/saltmarsh-tram-depot/edits", `{"version": 2, "edits": `+string(edits)+`}`, 200)
	now := call[View](c, "GET", "/api/plans/saltmarsh-tram-depot", "", 200)
	for i, id := range copied.Channels {
		got := now.Plan.Channel(id)
		if got == nil || got.Name != []string{"Ticket booth", "Ticket hall"}[i] || got.Recorder != r.ID {
			t.Fatalf("%+v", got)
		}
		if got.Scene != nil && got.Scene.Picture != "" {
			c.does("GET", "/api/plans/saltmarsh-tram-depot/pictures/"+got.Scene.Picture, "", 200)
		}
	}
	if len(copied.Channels) != 2 {
		t.Errorf("%+v", copied)
	}
}
