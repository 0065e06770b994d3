package e2e

import (
	"context"
	"fmt"
	"net/http"
	"strings"
	"sync/atomic"
	"testing"

	"github.com/chromedp/cdproto/cdp"
	cdppage "github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"

	"wakefield.example/internal/demo"
)

// TestTargetsAreLargeAndReadable measures what is touched, and asks axe, on every page for phones, with names as long as they may be.
func TestTargetsAreLargeAndReadable(t *testing.T) {
	q := demo.PennywhistleQuay()
	q.Site.Name = strings.Repeat("Landungsbrücke", 7)
	q.Recorders[0].Name = strings.Repeat("Hafenmeisterei", 7)
	c := q.Channel("gangway-a")
	c.Name = "رصيف الشمال 🚢 " + strings.Repeat("Donaudampfschiff", 5)
	c.Scene.Walks[0].Name = strings.Repeat("Vom Schiff herunter", 5)
	s := serve(t, "quay", q)
	p := browser(t, s, 1280, 800).phone()
	p.open("/walk/quay", `.rows a`)
	check := func(where string) {
		t.Helper()
		small := eval[[]string](p, `[...document.querySelectorAll('.walk button, .walk a, .walk input, .walk label.act')]
			.filter((e) => e.offsetParent && !e.closest('p') && !e.classList.contains('visually-hidden') && e.type !== 'checkbox')
			.map((e) => [e, e.getBoundingClientRect()])
			.filter(([, b]) => b.height < 47.5 || b.width < 47.5)
			.map(([e, b]) => e.outerHTML.slice(0, 80) + ' ' + Math.round(b.width) + '×' + Math.round(b.height))`)
		if len(small) > 0 {
			t.Errorf("%s: %v", where, small)
		}
		if wide := eval[float64](p, `document.documentElement.scrollWidth`); wide > 390 {
			t.Errorf("%s is %v wide", where, wide)
		}
		p.asksAxe(where)
	}
	check("cameras")
	for _, where := range []string{"camera/gangway-a", "trials", "steps", "finish", "more", "clock/office"} {
		p.goTo(strings.Split(where, "/")...)
		p.until(fmt.Sprintf(`location.hash === %q && document.querySelector('main h2')`, "#"+where))
		check(where)
	}
	p.goTo("run", "gangway-a", "off")
	p.do(chromedp.WaitVisible(chromedp.CSS(`[data-test="sign"]`)))
	check("running")
	contrast := eval[[]float64](p, contrastOf)
	for _, c := range contrast {
		if c < 7 {
			t.Errorf("contrasts while somebody walks: %.1f", contrast)
			break
		}
	}
	if len(contrast) < 5 {
		t.Errorf("%d texts", len(contrast))
	}
}

// contrastOf is the contrast (WCAG 2.2) of every text against what it stands on.
const contrastOf = `(() => {
	const rgb = (c) => (c.match(/[\d.]+/g) ?? []).map(Number)
	const light = ([r, g, b]) => [r, g, b].map((v) => (v /= 255) <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4)
		.reduce((sum, v, i) => sum + v * [0.2126, 0.7152, 0.0722][i], 0)
	const ground = (e) => {
		for (; e; e = e.parentElement) {
			const c = rgb(getComputedStyle(e).backgroundColor)
			if (c.length === 3 || c[3] > 0) return c
		}
		return [255, 255, 255]
	}
	return [...document.querySelectorAll('.dark *')].filter((e) => e.offsetParent && [...e.childNodes].some((n) => n.nodeType === 3 && n.data.trim()))
		.map((e) => { const [a, b] = [light(rgb(getComputedStyle(e).color)), light(ground(e))].sort((x, y) => y - x); return (a + 0.05) / (b + 0.05) })
})()`

// TestSigningOutEmptiesThePhone signs out with something that waits: it is asked first, then all is gone; and an ended account
// leaves what waits for who comes next.
func TestSigningOutEmptiesThePhone(t *testing.T) {
	s := serveAccounts(t, "pennywhistle-quay", demo.PennywhistleQuay())
	p := browser(t, s, 390, 844).as("Tobias Fenn", "/walk/pennywhistle-quay", `.rows a`)
	p.touched()
	p.walks("gangway-a", "off", 0.6)
	p.shows(`[data-test="state"]`, "all is sent")
	if list := s.walked(t); len(list) != 1 || list[0].Author != "Tobias Fenn" || list[0].NotedBy != "Tobias Fenn" {
		t.Fatalf("%+v", list)
	}
	// Somebody ends the account's sessions while something waits.
	people, err := s.store.People(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	for _, who := range people {
		if who.Name == "Tobias Fenn" {
			if n, err := s.store.Leave(t.Context(), who.ID, ""); err != nil || n == 0 {
				t.Fatal(n, err)
			}
		}
	}
	p.walks("gangway-b", "off", 0)
	p.shows("main", "You are signed out. What waits is kept here")
	p.signIn("Ines Marrow", demo.PeoplesPassword)
	p.shows(`[data-test="state"]`, "all is sent")
	list := s.walked(t)
	if len(list) != 2 || list[1].Author != "Ines Marrow" || list[1].NotedBy != "Tobias Fenn" {
		t.Fatalf("%+v", list)
	}
	// Signing out asks first where something waits.
	s.away()
	p.walks("gangway-a", "hut", 0)
	p.shows(`[data-test="state"]`, "1 result kept here")
	p.goTo("more")
	p.click(`[data-test="leave-phone"]`)
	p.shows(`[data-test="asked"]`, "1 not sent yet would be lost")
	s.back()
	p.until(`document.querySelector('[data-test="state"]')?.innerText.includes('all is sent') || (window.dispatchEvent(new Event('online')), false)`)
	p.click(`[data-test="leave-phone"]`)
	p.comes(`document.body?.innerText.includes("You are signed out")`)
	left := eval[float64](p, `new Promise((done) => {
		const r = indexedDB.open('wakefield-along')
		r.onsuccess = () => {
			const t = r.result.transaction(['taken', 'pictures', 'waiting'])
			const counts = ['taken', 'pictures', 'waiting'].map((s) => t.objectStore(s).count())
			t.oncomplete = () => done(counts.reduce((n, c) => n + c.result, 0))
		}
	})`)
	if left != 0 {
		t.Errorf("%v things are on the phone still", left)
	}
}

// TestANewerPageTakesOverWhenAllIsSent has the server get a newer page while something waits on a phone: it is said, what waits
// is sent first, and nothing is lost.
func TestANewerPageTakesOverWhenAllIsSent(t *testing.T) {
	s := serve(t, "quay", quayByMotion())
	var refuses atomic.Bool
	refuses.Store(true)
	worker := s.get(t, "/worker.js")
	newer := func(w http.ResponseWriter, r *http.Request) bool {
		switch {
		case r.URL.Path == "/worker.js":
			w.Header().Set("Content-Type", "text/javascript")
			fmt.Fprintf(w, "%s\n// newer\n", worker)
		case r.Method == http.MethodPost && strings.HasSuffix(r.URL.Path, "/walked") && refuses.Load():
			w.WriteHeader(http.StatusServiceUnavailable)
		default:
			return false
		}
		return true
	}
	p := browser(t, s, 1280, 800).phone()
	p.open("/walk/quay", `.rows a`)
	p.until(`navigator.serviceWorker.getRegistration('/walk/').then((r) => !!r?.active)`)
	p.open("/walk/quay", `.rows a`)
	p.until(`!!navigator.serviceWorker.controller`)
	s.instead.Store(&newer)
	p.walks("gangway-a", "off", 0.6)
	p.shows(`[data-test="state"]`, "1 result kept here")
	eval[bool](p, `navigator.serviceWorker.getRegistration('/walk/').then((r) => r.update()).then(() => true)`)
	p.goTo("more")
	p.do(chromedp.WaitVisible(chromedp.CSS(`[data-test="take-over"]`)))
	eval[bool](p, `window.old = true`)
	if n := len(s.walked(t)); n != 0 {
		t.Fatalf("%d arrived", n)
	}
	refuses.Store(false)
	p.click(`[data-test="take-over"]`)
	p.comes(`!window.old && !!document.querySelector('[data-test="state"]')?.innerText.includes('all is sent')`)
	if n := len(s.walked(t)); n != 1 {
		t.Errorf("%d arrived", n)
	}
}

// TestThePageForPhonesCanBeInstalled asks the browser itself what keeps it from being put on a home screen.
func TestThePageForPhonesCanBeInstalled(t *testing.T) {
	s := serve(t, "quay", quayByMotion())
	p := browser(t, s, 390, 844)
	p.open("/walk/quay", `.rows a`)
	p.until(`navigator.serviceWorker.getRegistration('/walk/').then((r) => !!r?.active)`)
	p.do(chromedp.Func(func(ctx context.Context, target *chromedp.Target) error {
		told, err := chromedp.Call(ctx, cdppage.GetInstallabilityErrors, cdp.Empty{})
		for _, e := range told.InstallabilityErrors {
			t.Errorf("it cannot be installed: %s %v", e.ErrorID, e.ErrorArguments)
		}
		return err
	}))
	kept := eval[[]string](p, `caches.keys().then(async (names) =>
		(await Promise.all(names.map(async (n) => (await (await caches.open(n)).keys()).map((r) => new URL(r.url).pathname)))).flat())`)
	for _, path := range kept {
		if strings.HasPrefix(path, "/api/") {
			t.Errorf("an answer is kept: %s", path)
		}
	}
	if len(kept) < 6 {
		t.Errorf("%v are kept", kept)
	}
}
