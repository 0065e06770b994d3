package e2e

import (
	"context"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"

	"github.com/chromedp/chromedp/kb"

	"wakefield.example/internal/api"
)

// TestABackupIsRestoredUnderAPage begins another history under a page with strokes in hand. The page drops what it knew, says
// so, and keeps the strokes until its user has decided.
func TestABackupIsRestoredUnderAPage(t *testing.T) {
	s, p := quay(t)
	p.click(`[data-duty="off"]`)
	p.drag(p.on("booth", 600), p.on("booth", 1200))
	p.revision(2)
	away := func(w http.ResponseWriter, r *http.Request) bool {
		if r.Method != "POST" || !strings.HasSuffix(r.URL.Path, "/edits") {
			return false
		}
		w.Header().Set("Content-Type", "application/problem+json")
		w.WriteHeader(503)
		return true
	}
	s.instead.Store(&away)
	p.drag(p.on("kiosk", 600), p.on("kiosk", 1200))
	p.until(`document.querySelector('[data-test="away"]')`)
	p.drag(p.on("kiosk", 60), p.on("kiosk", 300))
	p.shows(`[data-test="away"]`, "2 changes not saved")
	if err := s.store.BeginHistory(context.Background()); err != nil {
		t.Fatal(err)
	}
	s.instead.Store(nil)
	// Both are kept, of which the first was on its way.
	p.until(`document.querySelectorAll('[data-test="aside"]').length === 2`)
	p.shows(`[data-test="aside"]`, "A backup was restored")
	p.shows("body", "This is the plan as it is now, at revision 2")
	p.shows(stateText, "revision 2")
	if kiosk := s.duty(t, "kiosk", 660); kiosk == "off" {
		t.Error("a stroke of the lost history was kept")
	}
	p.click(`[data-test="aside-again"]`)
	p.shows(stateText, "1 change not saved · revision 3")
	if kiosk := s.duty(t, "kiosk", 660); kiosk != "off" {
		t.Errorf("sent again it is lost: %s", kiosk)
	}
	p.click(`[data-test="aside-drop"]`)
	p.until(`!document.querySelector('[data-test="aside"]')`)
	p.keys("z", kb.ModifierCtrl)
	p.revision(4)
}

// TestAVariantOfAnotherIsSeenAtOnce makes, names and adopts variants behind a page that lists them.
func TestAVariantOfAnotherIsSeenAtOnce(t *testing.T) {
	s, p := quay(t)
	inner := api.New(t.Context(), s.store, api.Options{})
	post := func(method, path, body string) string {
		t.Helper()
		request := httptest.NewRequest(method, "http://127.0.0.1"+path, strings.NewReader(body))
		request.Header.Set("Content-Type", "application/json")
		answer := httptest.NewRecorder()
		inner.ServeHTTP(answer, request)
		if answer.Code >= 300 {
			t.Fatalf("%s: %d: %s", path, answer.Code, answer.Body)
		}
		return answer.Body.String()
	}
	p.click(`[data-test="variant"]`)
	made := post("POST", "/api/sites/quay/plans", `{"like":"quay","name":"Thrifty"}`)
	id := made[strings.Index(made, `"id":"`)+6:]
	id = id[:strings.Index(id, `"`)]
	p.shows(`[data-test="variants"]`, "Thrifty")
	post("POST", "/api/plans/"+id+"/edits", `{"version":1,"edits":[{"setSite":{"plan":"Spendthrift"}}]}`)
	p.shows(`[data-test="variants"]`, "Spendthrift")
	post("PUT", "/api/sites/quay/adopted", `{"plan":"`+id+`"}`)
	p.shows(`[data-test="variant"]`, "not adopted")
}
