package api

import (
	"context"
	"fmt"
	"strings"
	"testing"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/internal/demo"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

// TestWhatCannotBeEstimatedIsNotStored sends what bricked a site once.
func TestWhatCannotBeEstimatedIsNotStored(t *testing.T) {
	c, s := serving(t, demo.PennywhistleQuay(), "", Options{})
	for _, edit := range []string{
		`{"setKeep":{"channels":["booth","kiosk"],"keep":{"quotaGB":1e-10}}}`,
		`{"setRate":{"channels":["booth"],"stream":"main","rate":{"kind":"constant","kbps":1e-300,"known":"guess"}}}`,
	} {
		if status, _, body := c.send("POST", "/api/plans/site/edits", `{"version":1,"edits":[`+edit+`]}`); status != 422 {
			t.Errorf("%s: %d: %.300s", edit, status, body)
		}
	}
	call[View](c, "GET", "/api/plans/site", "", 200)
	call[Answer](c, "POST", "/api/plans/site/edits", paint(1, "kiosk", "clock"), 200)
	// On an old version too it is told what is wrong with it, not that others were quicker.
	p := call[problemBody](c, "POST", "/api/plans/site/edits", `{"version":1,"edits":[{"setSite":{"timeZone":"Nowhere"}}]}`, 422)
	if !strings.Contains(p.Detail, "no time zone") {
		t.Errorf("%q", p.Detail)
	}
	if v, err := s.Version(context.Background(), "site"); err != nil || v.Version != 2 {
		t.Errorf("version %d, %v", v.Version, err)
	}
}

// TestAPlanThatCannotBeShownStillOpens stores a plan that this program refuses.
func TestAPlanThatCannotBeShownStillOpens(t *testing.T) {
	p := demo.PennywhistleQuay()
	c, s := serving(t, p, "", Options{})
	ctx := context.Background()
	head, err := s.Load(ctx, "site")
	if err != nil {
		t.Fatal(err)
	}
	spoilt, err := edit.After(p, edit.Edit{SetAudio: &edit.SetAudio{Channels: []string{"kiosk"}, AudioKbps: 64}})
	if err != nil {
		t.Fatal(err)
	}
	spoilt.Channels[0].Keep.QuotaGB = 1e-10 // an older Wakefield allowed it
	if _, err := s.Save(ctx, head, store.Note{Author: "Test", Sentence: "Quota"}, spoilt); err != nil {
		t.Fatal(err)
	}
	got := call[struct{ Type, Detail string }](c, "GET", "/api/sites/site", "", 500)
	if got.Type != server.Unreadable || !strings.Contains(got.Detail, "channels[0].keep.quotaGB: 0.0000000001 is below 0.001") {
		t.Errorf("%+v", got)
	}
	if status, _, body := c.send("GET", "/api/plans/site/file", ""); status != 200 || !strings.Contains(body, "0.0000000001") &&
		!strings.Contains(body, "1e-10") {
		t.Errorf("export: %d", status)
	}
	if history := call[[]store.Revision](c, "GET", "/api/plans/site/revisions", "", 200); len(history) != 2 {
		t.Errorf("%+v", history)
	}
	if v := call[SiteVersion](c, "GET", "/api/plans/site/version", "", 200); v.Version != 2 {
		t.Errorf("version %d", v.Version)
	}
	a := call[Answer](c, "POST", "/api/plans/site/return", `{"version":2,"revision":1}`, 200)
	if a.Version != 3 || a.Sentence != "Back to revision 1" {
		t.Errorf("%+v", a)
	}
	if v := call[View](c, "GET", "/api/plans/site", "", 200); v.Version != 3 {
		t.Errorf("version %d", v.Version)
	}
}

func TestOnlyKnownHostsAreAnswered(t *testing.T) {
	c, _ := serving(t, nil, "", Options{Hosts: []string{"plan.example"}})
	for host, want := range map[string]int{
		"localhost": 200, "localhost:8460": 200, "127.0.0.1:1": 200, "127.9.9.9": 200, "[::1]:8460": 200, "plan.example": 200,
		"PLAN.example:443": 200,
		"evil.example":     421, "evil.example:8460": 421, "192.0.2.7": 421, "localhost.evil.example": 421,
	} {
		if status, _, body := c.send("GET", "/healthz", "", "Host", host); status != want {
			t.Errorf("%s: %d, want %d: %s", host, status, want, body)
		}
	}
	// A name that was made to lead here: for the browser the page is of this origin.
	if status, _, _ := c.send("POST", "/api/sites", `{}`, "Host", "evil.example", "Origin", "http://evil.example"); status != 421 {
		t.Errorf("rebinding: %d", status)
	}
	if status, _, _ := c.send("POST", "/api/sites", `{}`, "Origin", "http://evil.example"); status != 403 {
		t.Errorf("another origin: %d", status)
	}
}

func TestTextsThatAreNoneAreRefusedAtTheDoor(t *testing.T) {
	c, s := serving(t, demo.PennywhistleQuay(), "", Options{})
	cyrillic := strings.Repeat("%D0%96", 54)
	tests := []struct {
		name, method, path, body, author string
		status                           int
		says                             string
	}{
		{"NUL in a name", "POST", "/api/plans/site/edits", `{"version":1,"edits":[{"setSite":{"name":"Quay\u0000"}}]}`, "", 400,
			"edits[0].setSite.name: has a character U+0000"},
		{"half a character", "POST", "/api/plans/site/edits", `{"version":1,"edits":[{"setSite":{"name":"Quay \ud83d"}}]}`, "", 400,
			`half a character (\\ud83d)`},
		{"a whole one", "POST", "/api/plans/site/draft", `{"version":1,"edits":[{"setSite":{"name":"Quay \ud83d\ude00"}}]}`, "", 200, "😀"},
		{"NUL in a search", "GET", "/api/plans/site/revisions?author=A%00", "", "", 422, "author"},
		{"no UTF-8 in a search", "GET", "/api/plans/site/revisions?text=%ff", "", "", 422, "text"},
		{"no percent in a search", "GET", "/api/plans/site/revisions?text=%zz", "", "", 400, "percent-encoded"},
		{"no UTF-8", "POST", "/api/plans/site/edits", "{\"version\":1,\"edits\":[{\"setSite\":{\"name\":\"Qu\xe4\"}}]}", "", 400, "UTF-8"},
		{"NUL in the author", "POST", "/api/plans/site/undo", `{"version":1}`, "A%00", 422, "header.Wakefield-Author"},
		{"no UTF-8 in the author", "POST", "/api/plans/site/undo", `{"version":1}`, "A%ff", 422, "header.Wakefield-Author"},
		{"half an escape", "POST", "/api/plans/site/undo", `{"version":1}`, "100%", 422, "header.Wakefield-Author"},
		{"a long author", "POST", "/api/plans/site/undo", `{"version":1}`, strings.Repeat("x", 61), 422, "header.Wakefield-Author"},
		{"NUL in the id", "GET", "/api/plans/a%00b", "", "", 404, "it is no text"},
		{"no UTF-8 in the id", "GET", "/api/plans/a%ffb", "", "", 404, "it is no text"},
		{"history of nothing", "GET", "/api/plans/nowhere/revisions", "", "", 404, "no such"},
		{"changes of nothing", "GET", "/api/changes?site=nowhere", "", "", 404, "no such"},
		{"an operation that is not there", "GET", "/api/nothing", "", "", 404, ""},
		{"an asset that is not there", "GET", "/assets/index-0000.js", "", "", 404, ""},
		{"an icon that is not there", "GET", "/apple-touch-icon.png", "", "", 404, ""},
		{"a long Cyrillic author", "POST", "/api/plans/site/edits", paint(1, "kiosk", "clock"), cyrillic, 200, "Kiosk front"},
	}
	for _, test := range tests {
		status, _, body := c.send(test.method, test.path, test.body, "Wakefield-Author", test.author)
		if status != test.status || !strings.Contains(body, test.says) || strings.Contains(body, "SQLSTATE") {
			t.Errorf("%s: %d, want %d: %.300s", test.name, status, test.status, body)
		}
	}
	history, err := s.History(context.Background(), "site", 0, 5, store.Search{})
	if err != nil || history[0].Author != strings.Repeat("Ж", 54) {
		t.Errorf("%+v, %v", history[0], err)
	}
}

// TestLargePlansComeInAndGoOut imports a plan whose file for people is larger than the
// plan itself may be, changes it, exports it and imports that.
func TestLargePlansComeInAndGoOut(t *testing.T) {
	c, _ := serving(t, nil, "", Options{})
	p := demo.BrackenhallCiderWorks()
	long := strings.Repeat("o", 100) // large by what is written, so that it is read in a second
	p.Duties = append(p.Duties, plan.Duty{ID: long, Name: "Off too"})
	blocks := make([]plan.DutyBlock, 5000)
	for i := range blocks {
		blocks[i] = plan.DutyBlock{Hours: plan.Hours{From: 600, To: 660}, Duty: long}
	}
	for i := range 20 {
		p.Weeks = append(p.Weeks, plan.Week{ID: fmt.Sprint("w", i), Name: "Filler",
			OwnWeek: plan.OwnWeek{Otherwise: p.Duties[0].ID, Blocks: blocks}})
	}
	written, err := p.Write()
	if err != nil || len(written) < plan.MaxBytes {
		t.Fatalf("%d bytes, %v", len(written), err)
	}
	made := call[CreatedSite](c, "POST", "/api/sites", string(written), 201)
	call[Answer](c, "POST", "/api/plans/"+made.ID+"/edits", `{"version":1,"edits":[{"setSite":{"name":"Larger still"}}]}`, 200)
	status, _, exported := c.send("GET", "/api/plans/"+made.ID+"/file", "")
	if status != 200 || len(exported) < plan.MaxBytes {
		t.Fatalf("%d, %d bytes", status, len(exported))
	}
	call[CreatedSite](c, "POST", "/api/sites", exported, 201)
}

// TestHostileRequests asks for far too much. Each is refused in one line, and the
// server goes on.
func TestHostileRequests(t *testing.T) {
	c, _ := serving(t, demo.PennywhistleQuay(), "", Options{})
	tied := demo.SaltmarshTramDepot()
	all := make([]string, len(tied.Channels))
	for i := range tied.Channels {
		all[i] = tied.Channels[i].ID
	}
	for range 5 {
		for _, id := range all {
			tied.Effects = append(tied.Effects, plan.Effect{When: plan.When{Motion: id}, Record: all})
		}
	}
	ties, _ := tied.Write()
	tests := []struct {
		name, path, body string
		status           int
		says             string
	}{
		{"a clip of lists", "/api/streams/clip", `{"seconds":[` + strings.Repeat("[],", 7<<20) + `1]}`, 400, "more than 1500000 values"},
		{"a clip too large", "/api/streams/clip", strings.Repeat(" ", 63<<20), 413, "too large"},
		{"all record all", "/api/sites", string(ties), 422, "more than 100000 ties"},
		{"deep lists", "/api/plans/site/edits", strings.Repeat("[", 1<<20), 400, ""},
		{"many edits", "/api/plans/site/edits", `{"version":1,"edits":[` + strings.Repeat("{},", 600_000) + `{}]}`, 400,
			"more than 25000 objects"},
	}
	for _, test := range tests {
		if status, _, body := c.send("POST", test.path, test.body); status != test.status ||
			!strings.Contains(body, test.says) || len(body) > 20_000 {
			t.Errorf("%s: %d: %.300s", test.name, status, body)
		}
	}
	call[Health](c, "GET", "/healthz", "", 200)
}
