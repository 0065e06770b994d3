package server

import (
	"strings"
	"testing"

	"wakefield.example/internal/demo"
	"wakefield.example/internal/store"
)

// TestWhoIsHereIsPassedOn says that somebody is at a site, and hears of it, through another server on the same database.
func TestWhoIsHereIsPassedOn(t *testing.T) {
	c, s := serving(t, demo.BrackenhallCiderWorks(), "", Options{})
	_, app := build(t.Context(), s, Options{})
	l, leave := app.hub.join([]string{"site"})
	defer leave()
	elsewhere, gone := app.hub.join([]string{"another"})
	defer gone()
	for listens := false; !listens; { // what was said before it listens, nobody keeps
		<-l.ready
		listens = l.take().missed != nil
	}
	say := func(body string, want int) string {
		t.Helper()
		status, _, answer := c.send("POST", "/api/sites/site/present", body, "Wakefield-Author", "Ada")
		if status != want {
			t.Fatalf("%d: %s", status, answer)
		}
		return answer
	}
	var here map[string]store.Presence
	hear := func() {
		t.Helper()
		for here = nil; len(here) == 0; {
			<-l.ready
			here = l.take().here
		}
	}
	say(`{"who":"b1-t1","plan":"site","page":"week","about":"press"}`, 204)
	hear()
	if p := here["b1-t1"]; p.Name != "Ada" || p.Page != "week" || p.About != "press" || p.Gone {
		t.Errorf("%+v", here)
	}
	say(`{"who":"b1-t1","plan":"site","page":"week","gone":true}`, 204)
	hear()
	if !here["b1-t1"].Gone {
		t.Errorf("%+v", here)
	}
	if n := elsewhere.take(); len(n.here) != 0 {
		t.Errorf("another site hears of it: %+v", n.here)
	}
	for body, place := range map[string]string{`{"who":"","plan":"site","page":"week"}`: "body.who",
		`{"who":"a b","plan":"site","page":"week"}`:                          "body.who",
		`{"who":"a","plan":"site","page":"` + strings.Repeat("x", 61) + `"}`: "body.page"} {
		if answer := say(body, 422); !strings.Contains(answer, place) {
			t.Errorf("%s: %s", body, answer)
		}
	}
	if status, _, _ := c.send("POST", "/api/sites/nowhere/present", `{"who":"a","plan":"x","page":"week"}`); status != 404 {
		t.Errorf("at no site: %d", status)
	}
}
