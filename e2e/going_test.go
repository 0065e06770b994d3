package e2e

import (
	"net/http"
	"strings"
	"testing"
)

// TestWhatGoesOnIsSaidInOnePlace holds answers up: what is being worked out is said in the bar, on every page, and stopped there.
func TestWhatGoesOnIsSaidInOnePlace(t *testing.T) {
	s, p := quay(t)
	held := make(chan struct{})
	waits := func(w http.ResponseWriter, r *http.Request) bool {
		for _, part := range []string{"/reach", "/fixes", "/rehearse"} {
			if strings.HasPrefix(r.URL.Path, "/api/") && strings.HasSuffix(r.URL.Path, part) {
				select {
				case <-held:
				case <-r.Context().Done():
				}
			}
		}
		return false
	}
	s.instead.Store(&waits)
	p.open("/sites/quay/storage", "h1")
	p.shows(`[data-test="going"]`, "Trying what it would take")
	p.click(`[data-test="stop-going"]`)
	p.until(`!document.querySelector('[data-test="going"]')`)
	p.open("/sites/quay/rehearse", "h1")
	p.shows(`[data-test="going"]`, "Playing the days")
	p.click(`a[href$="/findings"]`)
	p.shows(`[data-test="going"]`, "Trying ways to mend")
	close(held)
	p.until(`!document.querySelector('[data-test="going"]') && !!document.querySelector('[data-rule] [data-mend]')`)
}
