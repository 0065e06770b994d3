package api

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
	l, leave := app.hub.Join([]string{"site"})
	defer leave()
	elsewhere, gone := app.hub.Join([]string{"another"})
	defer gone()
	for listens := false; !listens; { // what was said before it listens, nobody keeps
		<-l.Ready
		listens = l.Take().Missed != nil
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
			<-l.Ready
			here = l.Take().Here
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
	if n := elsewhere.Take(); len(n.Here) != 0 {
		t.Errorf("another site hears of it: %+v", n.Here)
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
