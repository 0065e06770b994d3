package api

import (
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"strings"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/internal/account"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
	"wakefield.example/internal/store/storetest"
)

// house is a server with accounts: two companies with a site each, and people of every role.
type house struct {
	testing.TB
	url   string
	store *store.Store
	app   *service
}

const everyonesPassword = "seven herrings in a boat"

// withAccounts is a house. Its people are ada, planner of the company; fitz, fitter of its site; rea, reader of it; plato, planner
// of it alone; nona, who has no role; and oda, planner of the other company.
func withAccounts(t testing.TB, p *plan.Plan, o Options) *house {
	t.Helper()
	s := storetest.Open(t, cluster, t.Name()+"Accounts", "")
	ctx := context.Background()
	hash, err := account.HashPassword(ctx, everyonesPassword)
	if err != nil {
		t.Fatal(err)
	}
	add := func(name, company string, planner bool, roles ...store.Role) {
		_, key, _ := account.Name(name)
		err := s.AddPerson(ctx, store.Person{ID: name, Name: name, Company: company, Planner: planner, Roles: roles,
			Secrets: store.Secrets{Key: key, Password: hash, Handle: []byte(account.NewSecret())}})
		if err != nil {
			t.Fatal(err)
		}
	}
	add("ada", "own", true)
	add("oda", "other", true)
	for company, id := range map[string]string{"own": "site", "other": "foreign"} {
		if _, err := s.Create(store.Of(ctx, company), id, store.Note{Author: "Test", Sentence: "Site made"}, p); err != nil {
			t.Fatal(err)
		}
	}
	add("fitz", "own", false, store.Role{Site: "site", Role: "fitter"})
	add("rea", "own", false, store.Role{Site: "site", Role: "reader"})
	add("plato", "own", false, store.Role{Site: "site", Role: "planner"})
	add("nona", "own", false)
	if o.Accounts == nil {
		o.Accounts = &server.Accounts{}
	}
	handler, app := build(t.Context(), s, o)
	server := httptest.NewServer(handler)
	t.Cleanup(server.Close)
	return &house{t, server.URL, s, app}
}

// visitor is a browser that is not signed in.
func (h *house) visitor() *http.Client {
	jar, _ := cookiejar.New(nil)
	return &http.Client{Jar: jar}
}

// as is a browser in which somebody is signed in.
func (h *house) as(name string) *http.Client {
	h.Helper()
	c := h.visitor()
	if status, said := h.ask(c, "POST", "/api/sign-in", fmt.Sprintf(`{"name": %q, "password": %q}`, name, everyonesPassword)); status != 200 {
		h.Fatalf("%s is not signed in: %d %s", name, status, said)
	}
	return c
}

// ask makes a request and returns status and body.
func (h *house) ask(c *http.Client, method, path, body string, headers ...string) (int, string) {
	h.Helper()
	r, err := http.NewRequest(method, h.url+path, strings.NewReader(body))
	if err != nil {
		h.Fatal(err)
	}
	r.Header.Set("Content-Type", "application/json")
	for i := 0; i < len(headers); i += 2 {
		r.Header.Set(headers[i], headers[i+1])
	}
	answer, err := c.Do(r)
	if err != nil {
		h.Fatal(err)
	}
	defer answer.Body.Close()
	data, err := io.ReadAll(answer.Body)
	if err != nil {
		h.Fatal(err)
	}
	return answer.StatusCode, string(data)
}

// wants asks and insists on a status.
func (h *house) wants(status int, c *http.Client, method, path, body string, headers ...string) string {
	h.Helper()
	got, said := h.ask(c, method, path, body, headers...)
	if got != status {
		h.Errorf("%s %s: %d in place of %d: %s", method, path, got, status, said)
	}
	return said
}

// member reads a member of an answer.
func member(t testing.TB, answer, name string) string {
	t.Helper()
	var m map[string]any
	if err := json.Unmarshal([]byte(answer), &m); err != nil {
		t.Fatalf("%s: %v", answer, err)
	}
	return fmt.Sprint(m[name])
}
