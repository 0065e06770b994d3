package e2e

import (
	"context"
	"io"
	"net/http"
	"net/http/httptest"
	"strings"
	"sync/atomic"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/internal/api"
	"wakefield.example/internal/demo"
	"wakefield.example/internal/store"
)

// TestManyTabsShareOneStream opens more tabs than a browser gives one server
// connections. All hear of a change, also when the tab that kept the stream is gone.
func TestManyTabsShareOneStream(t *testing.T) {
	s, first := quay(t)
	var tabs []*page
	for range 7 {
		tab := first.tab()
		tab.open("/sites/quay", gangwayA+" canvas")
		tab.shows(verdict, "days")
		tabs = append(tabs, tab)
	}
	streams := func() string {
		response, err := http.Get(s.url + "/metrics")
		if err != nil {
			t.Fatal(err)
		}
		defer response.Body.Close()
		body, _ := io.ReadAll(response.Body)
		for line := range strings.Lines(string(body)) {
			if n, ok := strings.CutPrefix(line, "wakefield_streams "); ok {
				return strings.TrimSpace(n)
			}
		}
		return "none"
	}
	if n := streams(); n != "1" {
		t.Errorf("%s streams for eight tabs", n)
	}
	change := func(name string) {
		t.Helper()
		head, err := s.store.Load(context.Background(), "quay")
		if err != nil {
			t.Fatal(err)
		}
		next, err := edit.After(head.Plan, edit.Edit{SetSite: &edit.SetSite{Name: &name}})
		if err != nil {
			t.Fatal(err)
		}
		if _, err := s.store.Save(context.Background(), head, store.Note{Author: "Bo", Sentence: "Renamed"}, next); err != nil {
			t.Fatal(err)
		}
	}
	change("Quay of all")
	for _, tab := range append(tabs, first) {
		tab.shows(".where", "Quay of all")
	}
	// The first page came first and keeps the stream; it leaves it to another.
	first.open("/", "main li")
	first.do(chromedp.Navigate("about:blank"))
	change("Quay of the others")
	for _, tab := range tabs {
		tab.shows(".where", "Quay of the others")
	}
}

// TestAChangeTheServerFailsOnIsSetAside lets one change fail and the next succeed.
func TestAChangeTheServerFailsOnIsSetAside(t *testing.T) {
	s, p := quay(t)
	var failing atomic.Bool
	failing.Store(true)
	instead := func(w http.ResponseWriter, r *http.Request) bool {
		if !strings.HasSuffix(r.URL.Path, "/edits") || !failing.CompareAndSwap(true, false) {
			return false
		}
		w.Header().Set("Content-Type", "application/problem+json")
		w.WriteHeader(500)
		io.WriteString(w, `{"status":500,"detail":"Something went wrong in the server."}`)
		return true
	}
	s.instead.Store(&instead)
	p.click(`[data-duty="off"]`)
	p.drag(p.on("booth", 600), p.on("booth", 1200))
	p.shows(`[data-test="aside"]`, "One change is not saved (paint, Ticket booth). Something went wrong in the server.")
	p.drag(p.on("kiosk", 600), p.on("kiosk", 1200))
	p.shows(stateText, "1 change not saved · revision 2")
	if booth, kiosk := s.duty(t, "booth", 660), s.duty(t, "kiosk", 660); booth != "clock" || kiosk != "off" {
		t.Errorf("booth %s, kiosk %s", booth, kiosk)
	}
	p.click(`[data-test="aside-again"]`)
	p.revision(3)
	if booth := s.duty(t, "booth", 660); booth != "off" {
		t.Errorf("sent again it is lost: %s", booth)
	}
	p.until(`!document.querySelector('[data-test="aside"]')`)
}

// TestAChangeWhoseAnswerIsLostIsMadeOnce keeps the answer to a stroke and to an undo
// from the page, as when a connection breaks after the change was stored.
func TestAChangeWhoseAnswerIsLostIsMadeOnce(t *testing.T) {
	s, p := quay(t)
	var lost atomic.Int32
	inner := api.New(t.Context(), s.store, api.Options{})
	instead := func(w http.ResponseWriter, r *http.Request) bool {
		if r.Method != "POST" || r.Header.Get("Idempotency-Key") == "" || lost.Add(1)%2 == 0 {
			return false
		}
		inner.ServeHTTP(httptest.NewRecorder(), r) // made, and nobody is told
		w.WriteHeader(502)
		return true
	}
	s.instead.Store(&instead)
	p.click(`[data-duty="off"]`)
	p.drag(p.on("booth", 600), p.on("booth", 1200))
	p.revision(2)
	if booth := s.duty(t, "booth", 660); booth != "off" {
		t.Errorf("booth %s", booth)
	}
	p.keys("z", kb.ModifierCtrl)
	p.revision(3)
	if booth := s.duty(t, "booth", 660); booth != "clock" {
		t.Errorf("booth %s", booth)
	}
	if v, err := s.store.Version(context.Background(), "quay"); err != nil || v.Version != 3 || lost.Load() != 4 {
		t.Errorf("version %d after %d requests, %v", v.Version, lost.Load(), err)
	}
}

// TestASiteThatCannotBeShownCanBeBroughtBack opens a plan that the program refuses.
func TestASiteThatCannotBeShownCanBeBroughtBack(t *testing.T) {
	s := serve(t, "quay", demo.PennywhistleQuay())
	head, err := s.store.Load(context.Background(), "quay")
	if err != nil {
		t.Fatal(err)
	}
	spoilt := *head.Plan
	spoilt.Duties = append([]plan.Duty(nil), spoilt.Duties...)
	spoilt.Duties[0].Mark = 99
	if _, err := s.store.Save(context.Background(), head, store.Note{Author: "Bo", Sentence: "A mark that is none"}, &spoilt); err != nil {
		t.Fatal(err)
	}
	p := browser(t, s, 1280, 800)
	p.open("/sites/quay", `[data-return="1"]`)
	p.shows(".failure", "duties[0].mark: 99 is above 12")
	p.shows(".failure", "A mark that is none")
	if href := eval[string](p, `document.querySelector('.failure a[download]').getAttribute('href')`); href != "/api/plans/quay/file" {
		t.Errorf("export %s", href)
	}
	p.click(`[data-return="1"]`)
	p.shows(verdict, "days")
	p.revision(3)
}

// TestTabsOfSeveralSitesHearOfTheirOwn has tabs of one browser at two sites: the one stream that they share is of both, also when the tab
// that kept it is gone, and of no third.
func TestTabsOfSeveralSitesHearOfTheirOwn(t *testing.T) {
	s, first := quay(t)
	ctx := context.Background()
	for _, id := range []string{"mill", "third"} {
		if _, err := s.store.Create(ctx, id, store.Note{Author: "Test"}, demo.BrackenhallCiderWorks()); err != nil {
			t.Fatal(err)
		}
	}
	rename := func(id, name string) {
		t.Helper()
		head, err := s.store.Load(ctx, id)
		if err != nil {
			t.Fatal(err)
		}
		next, err := edit.After(head.Plan, edit.Edit{SetSite: &edit.SetSite{Name: &name}})
		if err != nil {
			t.Fatal(err)
		}
		if _, err := s.store.Save(ctx, head, store.Note{Author: "Bo", Sentence: "Renamed"}, next); err != nil {
			t.Fatal(err)
		}
	}
	at := first.tab()
	at.open("/sites/mill", "[data-channel] canvas")
	at.shows(verdict, "days")
	rename("mill", "Mill of another tab")
	at.shows(".where", "Mill of another tab")
	rename("quay", "Quay heard too")
	first.shows(".where", "Quay heard too")
	first.open("/", "main li") // which keeps the stream no more than a tab that is closed
	rename("mill", "Mill, alone")
	at.shows(".where", "Mill, alone")
	at.until(`performance.getEntriesByType('resource').every((e) => !e.name.includes('/api/changes') || !e.name.includes('third'))`)
}
