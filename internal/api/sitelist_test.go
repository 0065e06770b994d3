package api

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"net/url"
	"slices"
	"strings"
	"testing"
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/internal/demo"
	"wakefield.example/internal/store"
)

// eventually asks again until it is so: lines of sites are made in the background.
func eventually(t testing.TB, what string, so func() bool) {
	t.Helper()
	for end := time.Now().Add(time.Minute); !so(); time.Sleep(50 * time.Millisecond) {
		if time.Now().After(end) {
			t.Fatalf("%s: not within a minute", what)
		}
	}
}

// manySites are the quay and three like it.
func manySites(t testing.TB) (*client, *store.Store) {
	t.Helper()
	c, s := serving(t, demo.PennywhistleQuay(), "", Options{Lines: true, Quiet: time.Millisecond})
	for _, name := range []string{"Mill", "Depot"} {
		p := *demo.PennywhistleQuay()
		p.Site.Name, p.Site.Customer = name, "Customer of "+name
		if _, err := s.Create(context.Background(), strings.ToLower(name), store.Note{Author: "Test"}, &p); err != nil {
			t.Fatal(err)
		}
	}
	return c, s
}

// does asks for something and looks at the status alone.
func (c *client) does(method, path, body string, status int) {
	c.Helper()
	if got, _, data := c.send(method, path, body); got != status {
		c.Fatalf("%s %s: status %d, want %d: %s", method, path, got, status, data)
	}
}

func (c *client) lines() []SiteLine {
	c.Helper()
	return call[[]SiteLine](c, "GET", "/api/sites", "", 200)
}

// TestSitesAreEstimatedByThemselves waits for the lines, finds them as the page of the plan has it, sees one go with a change and come
// again.
func TestSitesAreEstimatedByThemselves(t *testing.T) {
	c, _ := manySites(t)
	all := func() bool {
		return !slices.ContainsFunc(c.lines(), func(l SiteLine) bool { return l.State == nil })
	}
	eventually(t, "all are estimated", all)
	view := call[View](c, "GET", "/api/plans/site", "", 200)
	for _, l := range c.lines() {
		if *l.State.KeptDays != *view.Verdict.KeptDays || l.State.Worst.ID != view.Verdict.Channel ||
			l.State.Version != 1 || l.State.Errors == 0 {
			t.Errorf("%+v", l.State)
		}
	}
	if e := call[Estimated](c, "GET", "/api/sites/estimated", "", 200); e.Done != 3 || e.Total != 3 || len(e.Moved) > 0 {
		t.Errorf("%+v", e)
	}
	c.does("POST", "/api/plans/site/edits", `{"version": 1, "edits": [{"setKeep": {"channels": ["booth"], "keep": {"atLeastDays": 80}}}]}`,
		200)
	eventually(t, "the changed one is estimated", func() bool {
		k := slices.IndexFunc(c.lines(), func(l SiteLine) bool { return l.ID == "site" && l.State != nil && l.State.Version == 2 })
		return k >= 0 && *c.lines()[k].State.RequiredDays == 80
	})
}

// TestWhatANewMethodMovesIsTold makes lines by a method that said otherwise, and sees them made again and told of.
func TestWhatANewMethodMovesIsTold(t *testing.T) {
	c, s := manySites(t)
	eventually(t, "all are estimated", func() bool { return call[Estimated](c, "GET", "/api/sites/estimated", "", 200).Done == 3 })
	ctx := context.Background()
	due, err := s.DueLines(ctx, "before", store.Pace{Most: 2})
	if err != nil || len(due) != 2 {
		t.Fatal(due, err)
	}
	for i, d := range due {
		days := *call[View](c, "GET", "/api/plans/site", "", 200).Verdict.KeptDays + 3*float64(i)
		short := call[View](c, "GET", "/api/plans/site", "", 200).Verdict.Short
		m := store.Made{DueLine: d, Method: "before", Said: json.RawMessage(fmt.Sprintf(`{"keptDays": %v, "short": %v}`, days, short)),
			Found: json.RawMessage("[]"), Words: json.RawMessage("[]")}
		if err := s.MakeLine(ctx, m, nil); err != nil {
			t.Fatal(err)
		}
	}
	eventually(t, "they are estimated again", func() bool {
		e := call[Estimated](c, "GET", "/api/sites/estimated", "", 200)
		return e.Done == 3 && len(e.Moved) == 1 && e.Moved[0].Site == due[1].Site && *e.Moved[0].Was.KeptDays > *e.Moved[0].Now.KeptDays+2
	})
}

// TestSitesAreSearched finds a channel, an address, a finding, a place and a tag, at which site it is.
func TestSitesAreSearched(t *testing.T) {
	c, _ := manySites(t)
	eventually(t, "all are estimated", func() bool { return call[Estimated](c, "GET", "/api/sites/estimated", "", 200).Done == 3 })
	c.does("POST", "/api/sites/mark", `{"sites": ["mill"], "place": " Harbour Lane 4 ", "tag": ["north"]}`, 204)
	find := func(text string) []Hit {
		t.Helper()
		return call[Hits](c, "GET", "/api/sites/search?text="+url.QueryEscape(text), "", 200).Hits
	}
	for text, kind := range map[string]string{"ticket HALL mill": "channel", "harbour lane": "place", "north": "tag",
		"customer of depot": "customer"} {
		hits := find(text)
		if len(hits) == 0 || !slices.ContainsFunc(hits, func(h Hit) bool { return h.Kind == kind }) {
			t.Errorf("%q finds %+v", text, hits)
		}
	}
	if hits := find("ticket hall mill"); slices.ContainsFunc(hits, func(h Hit) bool { return h.Site != "mill" }) {
		t.Errorf("%+v", hits)
	}
	if hits := find("%"); len(hits) > 0 && !strings.Contains(hits[0].Text, "%") {
		t.Errorf("%+v", hits[0])
	}
	if hits := find("never-there"); len(hits) != 0 {
		t.Errorf("%+v", hits)
	}
	found := call[FoundAtSites](c, "POST", "/api/sites/findings", `{"sites": ["mill", "depot"]}`, 200)
	if len(found.Left) > 0 || len(found.Found) < 4 || found.Found[0].Name != "Mill" || found.Found[0].Severity != "error" {
		t.Errorf("%+v", found)
	}
}

// TestSeveralSitesAtOnce marks and exports them, all or none.
func TestSeveralSitesAtOnce(t *testing.T) {
	c, _ := manySites(t)
	c.does("POST", "/api/sites/mark", `{"sites": ["mill", "depot", "mill"], "stage": "handed", "tag": ["a", "b"], "archived": true}`, 204)
	c.does("POST", "/api/sites/mark", `{"sites": ["mill", "nowhere"], "stage": "measure"}`, 404)
	c.does("POST", "/api/sites/mark", `{"sites": ["mill"], "tag": ["a,b"]}`, 422)
	c.does("POST", "/api/sites/mark", `{"sites": ["mill"], "stage": "lost"}`, 422)
	c.does("POST", "/api/sites/mark", `{"sites": ["depot"], "untag": ["a"], "archived": false}`, 204)
	for _, l := range c.lines() {
		want := map[string][]string{"mill": {"a", "b"}, "depot": {"b"}, "site": {}}[l.ID]
		if !slices.Equal(l.Tags, want) || l.Archived != (l.ID == "mill") || (l.Stage == store.Handed) != (l.ID != "site") {
			t.Errorf("%+v", l)
		}
	}
	status, header, data := c.send("POST", "/api/sites/export", `{"sites": ["mill", "site"]}`)
	z, err := zip.NewReader(bytes.NewReader([]byte(data)), int64(len(data)))
	if status != 200 || err != nil || len(z.File) != 2 || header.Get("Content-Type") != "application/zip" {
		t.Fatalf("%d, %v", status, err)
	}
	f, err := z.Open("mill.json")
	if err != nil {
		t.Fatal(err)
	}
	var b bytes.Buffer
	if _, err := b.ReadFrom(f); err != nil {
		t.Fatal(err)
	}
	if p, err := plan.Read(b.Bytes()); err != nil || p.Site.Name != "Mill" {
		t.Error(err)
	}
}

// TestSearchesAreKept by name, and forgotten.
func TestSearchesAreKept(t *testing.T) {
	c, _ := serving(t, demo.PennywhistleQuay(), "", Options{})
	c.does("PUT", "/api/searches", `{"name": "In the north/2027", "search": {"tags": ["north"], "only": "short"}}`, 204)
	c.does("PUT", "/api/searches", `{"name": " ", "search": {}}`, 422)
	if list := call[[]KeptSearch](c, "GET", "/api/searches", "", 200); len(list) != 1 || list[0].Search.Only != "short" {
		t.Errorf("%+v", list)
	}
	c.does("DELETE", "/api/searches/"+url.PathEscape("In the north/2027"), "", 204)
	if list := call[[]KeptSearch](c, "GET", "/api/searches", "", 200); len(list) != 0 {
		t.Errorf("%+v", list)
	}
}

// TestTheCompanysFiguresAddUp holds what is added up against the sites.
func TestTheCompanysFiguresAddUp(t *testing.T) {
	c, _ := manySites(t)
	eventually(t, "all are estimated", func() bool { return call[CompanyFigures](c, "GET", "/api/company/figures", "", 200).Left == 0 })
	f := call[CompanyFigures](c, "GET", "/api/company/figures", "", 200)
	usable, channels := 0.0, 0
	for _, l := range c.lines() {
		usable += l.State.UsableGB
		channels += l.State.Channels
	}
	if f.Sites != 3 || f.UsableGB != usable || f.Channels != channels || len(f.Customers) != 3 || len(f.Found) == 0 {
		t.Errorf("%+v", f)
	}
}

// TestOnlyPlannersMarkSites refuses others, names the site, and changes nothing; figures of the company are for its planners.
func TestOnlyPlannersMarkSites(t *testing.T) {
	h := withAccounts(t, demo.PennywhistleQuay(), Options{})
	mark := `{"sites": ["site"], "tag": ["x"]}`
	h.wants(204, h.as("plato"), "POST", "/api/sites/mark", mark)
	for _, name := range []string{"fitz", "rea"} {
		if answer := h.wants(403, h.as(name), "POST", "/api/sites/mark", mark); !strings.Contains(answer, "Nothing was changed") {
			t.Error(answer)
		}
		h.wants(403, h.as(name), "GET", "/api/company/figures", "")
		if hits := h.wants(200, h.as(name), "GET", "/api/sites/search?text=x", ""); !strings.Contains(hits, `"tag"`) {
			t.Error(hits)
		}
	}
	h.wants(404, h.as("oda"), "POST", "/api/sites/mark", mark)
	for path, ask := range map[string]string{"/api/sites/export": `{"sites": ["site"]}`, "/api/sites/findings": `{"sites": ["site"]}`} {
		h.wants(200, h.as("rea"), "POST", path, ask)
		h.wants(404, h.as("oda"), "POST", path, ask)
	}
	h.wants(200, h.as("ada"), "GET", "/api/company/figures", "")
}
