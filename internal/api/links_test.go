package api

import (
	"bufio"
	"encoding/json"
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/internal/account"
	"wakefield.example/internal/demo"
	"wakefield.example/internal/store"
)

func mustURL(text string) *url.URL {
	u, err := url.Parse(text)
	if err != nil {
		panic(err)
	}
	return u
}

// TestALinkShowsWhatItIsFor makes links for customers and looks through them.
func TestALinkShowsWhatItIsFor(t *testing.T) {
	p := demo.PennywhistleQuay()
	p.Channels[0].Address = "192.0.2.77:554"
	p.Recorders[0].Address = "192.0.2.78"
	p.Prices = &plan.Prices{Currency: "EUR", Drives: []plan.DrivePrice{{Terabytes: 2, Each: 70}}}
	h := withAccounts(t, p, Options{})
	ada, customer := h.as("ada"), h.visitor()
	link := func(body string) string {
		t.Helper()
		return member(t, h.wants(201, ada, "POST", "/api/sites/site/links", body), "secret")
	}
	all := link(`{"plan": "site", "name": "Wend", "shows": ["verdict", "weeks", "papers", "prices"], "days": 1}`)
	said := h.wants(200, customer, "GET", "/api/shared", "", "Wakefield-Link", all)
	if prices := member(t, said, "prices"); !strings.Contains(prices, "total:280") {
		t.Error(prices)
	}
	for _, has := range []string{`"verdict"`, `"weeks"`, `"prices"`, "Ticket hall", `"papers":true`} {
		if !strings.Contains(said, has) {
			t.Errorf("no %s in %.300s", has, said)
		}
	}
	if strings.Contains(said, "192.0.2") {
		t.Error("the address of a device is shown")
	}
	if paper := h.wants(200, customer, "GET", "/api/shared/paper", "", "Wakefield-Link", all); !strings.HasPrefix(paper, "%PDF") {
		t.Errorf("%.40q", paper)
	}
	little := link(`{"plan": "site", "name": "Wend", "shows": ["verdict"], "days": 1}`)
	if said := h.wants(200, customer, "GET", "/api/shared", "", "Wakefield-Link", little); strings.Contains(said, `"weeks"`) ||
		strings.Contains(said, `"prices"`) ||
		strings.Contains(said, "Ticket hall") {
		t.Errorf("%.300s", said)
	}
	h.wants(403, customer, "GET", "/api/shared/paper", "", "Wakefield-Link", little)
	for _, path := range []string{"/api/sites", "/api/plans/site", "/api/sites/site/links", "/api/me/sessions"} {
		h.wants(401, customer, "GET", path, "", "Wakefield-Link", all)
	}

	locked := link(`{"plan": "site", "name": "Wend", "shows": ["verdict"], "days": 1, "password": "salt and iron"}`)
	if said := h.wants(401, customer, "GET", "/api/shared", "", "Wakefield-Link", locked); !strings.Contains(said, NeedsCode) ||
		strings.Contains(said, "Pennywhistle") {
		t.Error(said)
	}
	h.wants(422, customer, "POST", "/api/shared/unlock", `{"password": "wrong"}`, "Wakefield-Link", locked)
	h.wants(204, customer, "POST", "/api/shared/unlock", `{"password": "salt and iron"}`, "Wakefield-Link", locked)
	h.wants(200, customer, "GET", "/api/shared", "", "Wakefield-Link", locked)
	h.wants(401, h.visitor(), "GET", "/api/shared", "", "Wakefield-Link", locked)

	var list []store.Link
	if err := json.Unmarshal([]byte(h.wants(200, ada, "GET", "/api/sites/site/links", "")), &list); err != nil || len(list) != 3 {
		t.Fatal(list, err)
	}
	if list[2].Looked != 2 || !list[0].Protected {
		t.Errorf("%+v", list)
	}
	if said := h.wants(200, ada, "GET", "/api/sites/site/links/"+list[2].ID+"/viewings", ""); !strings.Contains(said, "customer's page") {
		t.Error(said)
	}
	h.wants(204, ada, "DELETE", "/api/sites/site/links/"+list[2].ID, "")
	h.wants(404, customer, "GET", "/api/shared", "", "Wakefield-Link", all)
	h.wants(404, ada, "POST", "/api/sites/site/links", `{"plan": "foreign", "name": "Wend", "shows": ["verdict"], "days": 1}`)
	h.wants(422, ada, "POST", "/api/sites/site/links", `{"plan": "site", "name": "  ", "shows": ["verdict"], "days": 1}`)
	h.wants(422, ada, "POST", "/api/sites/site/links",
		`{"plan": "site", "name": "Wend", "shows": ["verdict"], "days": 1, "password": "short"}`)
	for _, secret := range []string{"", "x", all + "x"} {
		h.wants(404, customer, "GET", "/api/shared", "", "Wakefield-Link", secret)
	}
	if err := h.store.AddLink(t.Context(), store.Link{ID: "old", Site: "site", Plan: "site", Name: "Wend", Shows: []string{"verdict"},
		Expires: time.Now().Add(-time.Second)}, account.Hashed("past its date")); err != nil {
		t.Fatal(err)
	}
	h.wants(404, customer, "GET", "/api/shared", "", "Wakefield-Link", "past its date")
	// Of a variant that was removed, and of a site that was archived, nothing is shown.
	h.wants(204, ada, "POST", "/api/sites/site/archive", `{"archived": true}`)
	h.wants(404, customer, "GET", "/api/shared", "", "Wakefield-Link", little)
}

// TestTokensGoAsFarAsTheySay makes tokens and uses them as programs do.
func TestTokensGoAsFarAsTheySay(t *testing.T) {
	h := withAccounts(t, demo.BrackenhallCiderWorks(), Options{})
	ada, program := h.as("ada"), h.visitor()
	token := func(body string) string {
		t.Helper()
		return "Bearer " + member(t, h.wants(201, ada, "POST", "/api/tokens", body), "secret")
	}
	reads := token(`{"name": "reads", "writes": false, "sites": [], "days": 1}`)
	if !strings.HasPrefix(reads, "Bearer wakefield_") {
		t.Error(reads)
	}
	h.wants(200, program, "GET", "/api/plans/site/file", "", "Authorization", reads)
	edit := `{"version": 1, "edits": [{"setSite": {"customer": "Wend"}}]}`
	h.wants(403, program, "POST", "/api/plans/site/edits", edit, "Authorization", reads)
	h.wants(404, program, "GET", "/api/plans/foreign", "", "Authorization", reads)
	for _, path := range []string{"/api/me/sessions", "/api/tokens"} {
		h.wants(403, program, "GET", path, "", "Authorization", reads)
	}
	writes := token(`{"name": "writes", "writes": true, "sites": ["site"], "days": 1}`)
	h.wants(200, program, "POST", "/api/plans/site/edits", edit, "Authorization", writes)
	h.wants(403, program, "GET", "/api/people", "", "Authorization", writes)
	if said := h.wants(200, program, "GET", "/api/sites", "", "Authorization", writes); strings.Count(said, `"plan"`) != 1 {
		t.Error(said)
	}
	for _, wrong := range []string{"Bearer ", "Bearer wakefield_x", "Basic YWRhOmFkYQ==", writes + "x"} {
		h.wants(401, program, "GET", "/api/sites", "", "Authorization", wrong)
	}
	h.wants(422, ada, "POST", "/api/tokens", `{"name": "theirs", "writes": true, "sites": ["foreign"], "days": 1}`)
	var list []store.Token
	if err := json.Unmarshal([]byte(h.wants(200, ada, "GET", "/api/tokens", "")), &list); err != nil || len(list) != 2 || list[0].Used == nil {
		t.Fatal(list, err)
	}
	h.wants(404, h.as("rea"), "DELETE", "/api/tokens/"+list[0].ID, "")
	h.wants(204, ada, "DELETE", "/api/tokens/"+list[0].ID, "")
	h.eventually(401, &http.Client{Transport: bearer(writes)}, "GET", "/api/sites", "")
	// A token is no more than its maker.
	h.wants(204, h.as("oda"), "POST", "/api/sign-out", "")
	rea := h.as("rea")
	hers := "Bearer " + member(t, h.wants(201, rea, "POST", "/api/tokens", `{"name": "hers", "writes": true, "sites": [], "days": 1}`),
		"secret")
	h.wants(403, program, "POST", "/api/plans/site/edits", edit, "Authorization", hers)
	h.wants(204, ada, "DELETE", "/api/people/rea", "")
	h.wants(401, program, "GET", "/api/plans/site", "", "Authorization", hers)
}

// bearer shows a token with every request.
type bearer string

func (b bearer) RoundTrip(r *http.Request) (*http.Response, error) {
	r = r.Clone(r.Context())
	r.Header.Set("Authorization", string(b))
	return http.DefaultTransport.RoundTrip(r)
}

// TestStreamsEndWithWhatTheyRestOn listens to changes while a role and an account are taken away, and hears nothing of others.
func TestStreamsEndWithWhatTheyRestOn(t *testing.T) {
	h := withAccounts(t, demo.BrackenhallCiderWorks(), Options{Beat: 20 * time.Millisecond})
	ada, oda := h.as("ada"), h.as("oda")
	listen := func(name string) (heard chan string) {
		t.Helper()
		answer, err := h.as(name).Get(h.url + "/api/changes")
		if err != nil || answer.StatusCode != 200 {
			t.Fatal(answer, err)
		}
		t.Cleanup(func() { answer.Body.Close() })
		heard = make(chan string, 1000)
		go func() {
			defer close(heard)
			for lines := bufio.NewScanner(answer.Body); lines.Scan(); {
				if !strings.Contains(lines.Text(), "seconds") {
					select {
					case heard <- lines.Text():
					default:
					}
				}
			}
		}()
		return heard
	}
	h.wants(404, h.as("rea"), "GET", "/api/changes?site=foreign", "")
	h.wants(404, h.as("nona"), "GET", "/api/changes?site=site", "")
	h.wants(401, h.visitor(), "GET", "/api/changes", "")
	rea, nona := listen("rea"), listen("nona")
	edit := func(c *http.Client, site string, version int, text string) {
		t.Helper()
		h.wants(200, c, "POST", "/api/plans/"+site+"/edits", fmt.Sprintf(`{"version": %d, "edits": [{"setSite": {"customer": %q}}]}`, version,
			text))
	}
	edit(oda, "foreign", 1, "not for rea")
	edit(ada, "site", 1, "for rea")
	for line := range rea {
		if strings.Contains(line, "foreign") || strings.Contains(line, "not for rea") {
			t.Error(line)
		}
		if strings.Contains(line, `"site":"site"`) {
			break
		}
	}
	ended := func(heard chan string, who string) {
		t.Helper()
		for late := time.After(10 * time.Second); ; {
			select {
			case line, more := <-heard:
				if !more {
					return
				}
				if strings.Contains(line, `"site":`) {
					t.Errorf("%s hears %s", who, line)
				}
			case <-late:
				t.Fatalf("%s goes on listening", who)
			}
		}
	}
	h.wants(204, ada, "PUT", "/api/people/rea/roles", `{"planner": false, "roles": []}`)
	ended(rea, "rea")
	h.wants(204, ada, "DELETE", "/api/people/nona", "")
	ended(nona, "nona")
}

// TestTheAuditTellsWhoDidWhat reads it after some of everything, as a table, CSV and JSON lines.
func TestTheAuditTellsWhoDidWhat(t *testing.T) {
	h := withAccounts(t, demo.BrackenhallCiderWorks(), Options{})
	ada := h.as("ada")
	h.wants(401, h.visitor(), "POST", "/api/sign-in", `{"name": "=ada", "password": "wrong"}`)
	h.wants(403, h.as("rea"), "POST", "/api/plans/site/undo", `{"version": 1}`)
	h.wants(200, ada, "GET", "/api/plans/site/file", "")
	h.wants(201, ada, "POST", "/api/sites/site/links", `{"plan": "site", "name": "Wend", "shows": ["verdict"], "days": 1}`)
	for _, what := range []string{"signed-in", "refused", "export", "link"} {
		for begun := time.Now(); ; time.Sleep(5 * time.Millisecond) { // it is written while the answer goes out
			said := h.wants(200, ada, "GET", "/api/audit?what="+what, "")
			if strings.Contains(said, what) {
				break
			}
			if time.Since(begun) > 10*time.Second {
				t.Fatalf("no %s", what)
			}
		}
	}
	if said := h.wants(200, ada, "GET", "/api/audit?text=UNDO", ""); !strings.Contains(said, `"who":"rea"`) {
		t.Error(said)
	}
	if said := h.wants(200, ada, "GET", "/api/audit?to=2020-01-01", ""); said != "[]\n" && said != "[]" {
		t.Error(said)
	}
	if said := h.wants(422, ada, "GET", "/api/audit?from=yesterday", ""); !strings.Contains(said, "yesterday") {
		t.Error(said)
	}
	if said := h.wants(200, ada, "GET", "/api/audit.csv", ""); !strings.Contains(said, "'=ada") || strings.Contains(said, ",=ada") {
		t.Error(said)
	}
	for line := range strings.Lines(h.wants(200, ada, "GET", "/api/audit.jsonl", "")) {
		if !json.Valid([]byte(line)) {
			t.Error(line)
		}
	}
	h.wants(403, h.as("rea"), "GET", "/api/audit", "")
	if said := h.wants(200, h.as("oda"), "GET", "/api/audit", ""); strings.Contains(said, "rea") {
		t.Error(said)
	}
}
