package e2e

import (
	"bytes"
	"context"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"sync/atomic"
	"testing"

	"github.com/chromedp/cdproto/network"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"wakefield.example/core/week"
	"wakefield.example/internal/demo"
)

func TestTheSecondOfTwoIsToldAndNothingIsLost(t *testing.T) {
	s, first := quay(t)
	second := first.another()
	// The second page hears nothing of changes, as when its stream is interrupted.
	second.runsFirst(`window.EventSource = class { addEventListener() {} close() {} }`)
	second.open("/sites/quay", gangwayA+" canvas")
	second.shows(verdict, "days")

	first.click(`[data-duty="off"]`)
	first.drag(first.on("booth", 600), first.on("booth", 1200))
	first.revision(2)

	// Another channel: both strokes hold, and nobody is asked anything.
	second.click(`[data-duty="motion"]`)
	second.drag(second.on("kiosk", 600), second.on("kiosk", 1200))
	second.revision(3)
	if booth, kiosk := s.duty(t, "booth", 660), s.duty(t, "kiosk", 660); booth != "off" || kiosk != "motion" {
		t.Errorf("booth %s and kiosk %s; both strokes should hold", booth, kiosk)
	}
	first.revision(3)

	// The same block: the later one is told.
	first.drag(first.on("booth", 1200), first.on("booth", 1380))
	first.revision(4)
	second.drag(second.on("booth", 1260), second.on("booth", 1320))
	second.shows(".el-dialog", "Ticket booth, Mon 20:00-23:00: Off")
	if got := s.duty(t, "booth", 1290); got != "off" {
		t.Errorf("a stale stroke was kept: %s", got)
	}
	second.isClean("a conflict")
	second.click(`[data-test="again"]`)
	second.revision(5)
	if got := s.duty(t, "booth", 1290); got != "motion" {
		t.Errorf("the stroke made again is lost: %s", got)
	}
}

func TestTwoPeopleSeeEachOthersChanges(t *testing.T) {
	s, first := quay(t)
	second := first.another()
	second.open("/sites/quay", gangwayA+" canvas")
	second.shows(verdict, "days")
	eval[bool](first, `(localStorage.setItem('wakefield-author', 'Jórun'), true)`)
	first.open("/sites/quay", gangwayA+" canvas")

	first.click(`[data-duty="off"]`)
	first.drag(first.on("booth", 600), first.on("booth", 1200))
	first.revision(2)
	second.revision(2)
	second.shows(".el-message", "Jórun: Ticket booth, Mon 10:00-20:00: Off")
	second.click(`[data-duty="clock"]`)
	second.drag(second.on("kiosk", 600), second.on("kiosk", 1200))
	first.revision(3)
	if booth, kiosk := s.duty(t, "booth", 660), s.duty(t, "kiosk", 660); booth != "off" || kiosk != "clock" {
		t.Errorf("booth %s and kiosk %s; both strokes should hold", booth, kiosk)
	}
	if first.text(verdict) != second.text(verdict) {
		t.Errorf("one sees %s, the other %s", first.text(verdict), second.text(verdict))
	}
}

func TestUndoingAnothersChangeAsks(t *testing.T) {
	s, first := quay(t)
	second := first.another()
	second.open("/sites/quay", gangwayA+" canvas")
	second.click(`[data-test="author"]`)
	second.until(`document.querySelector('[data-test="author-name"]')?.offsetParent && document.getAnimations().length === 0`)
	eval[bool](second,
		`(document.querySelector('[data-test="author-name"]').focus(), document.querySelector('[data-test="author-name"]').select(), true)`)
	second.keys("Jórun")
	second.keys(kb.Enter)
	second.shows(`[data-test="author"]`, "Jórun")
	second.until(`[...document.querySelectorAll('.el-overlay')].every(e => getComputedStyle(e).display === 'none')`)
	second.click(`[data-duty="off"]`)
	second.drag(second.on("booth", 600), second.on("booth", 1200))
	second.revision(2)
	first.revision(2)
	first.keys("z", kb.ModifierCtrl)
	first.shows(".el-message", "The last change is Jórun’s: Ticket booth, Mon 10:00-20:00: Off.")
	if s.duty(t, "booth", 660) != "off" {
		t.Error("another's change was taken back at once")
	}
	first.keys("z", kb.ModifierCtrl)
	first.revision(3)
	if s.duty(t, "booth", 660) != "clock" {
		t.Error("the change was not taken back")
	}
}

func TestStrokesWaitWhileTheDatabaseIsAway(t *testing.T) {
	alone(t) // the database goes away
	s, p := quay(t)
	cluster.Stop()
	running := false
	defer func() {
		if !running {
			cluster.Start(context.Background())
		}
	}()
	p.click(`[data-duty="off"]`)
	p.drag(p.on("booth", 600), p.on("booth", 1200))
	p.shows(stateText, "No connection: 1 change not saved")
	p.shows(`[data-test="away"]`, "No connection: 1 change not saved")
	p.until(`document.querySelectorAll(".row.waits").length === 1 && !!document.querySelector(".stale .verdict")`)
	p.drag(p.on("booth", 1440+600), p.on("booth", 1440+1200))
	p.shows(stateText, "2 changes not saved")
	p.click(".brand")
	p.shows(".el-message", "2 changes cannot be saved now")
	if err := cluster.Start(context.Background()); err != nil {
		t.Fatal(err)
	}
	running = true
	p.until(isSaved + ` && document.querySelector('` + stateText + `').innerText.includes('revision 3')`)
	if a, b := s.duty(t, "booth", 660), s.duty(t, "booth", week.Day+660); a != "off" || b != "off" {
		t.Errorf("Monday %s, Tuesday %s", a, b)
	}
}

// TestNobodySaysSavedWhileNobodyCouldSave takes the database away and then the server, while there is nothing to save: both
// are said, and taken back when they are there again.
func TestNobodySaysSavedWhileNobodyCouldSave(t *testing.T) {
	alone(t) // the database goes away
	s, p := quay(t)
	p.until(isSaved)
	cluster.Stop()
	running := false
	defer func() {
		if !running {
			cluster.Start(context.Background())
		}
	}()
	p.shows(stateText, "No connection · revision 1")
	p.shows(`[data-test="away"]`, "No connection. The plan is shown as it was at ")
	p.until(`!document.querySelector('.stale')`) // its figures are those of its revision
	if err := cluster.Start(context.Background()); err != nil {
		t.Fatal(err)
	}
	running = true
	p.until(isSaved + ` && !document.querySelector('[data-test="away"]')`)

	gone := func(w http.ResponseWriter, r *http.Request) bool {
		http.Error(w, "away", http.StatusBadGateway)
		return true
	}
	s.instead.Store(&gone)
	s.seat.breaks()
	p.shows(stateText, "No connection · revision 1")
	s.instead.Store(nil)
	p.until(isSaved + ` && !document.querySelector('[data-test="away"]')`)
	p.click(`[data-duty="off"]`)
	p.drag(p.on("booth", 600), p.on("booth", 1200))
	p.revision(2)
}

func TestExportImportAndBadFiles(t *testing.T) {
	s, p := quay(t)
	exported := eval[string](p, `fetch('/api/plans/quay/file').then(r => r.text())`)
	written, err := demo.PennywhistleQuay().Write()
	if err != nil {
		t.Fatal(err)
	}
	if exported != string(written) {
		t.Error("the exported file is not the plan")
	}
	dir := t.TempDir()
	file := func(name string, data []byte) string {
		path := filepath.Join(dir, name)
		if err := os.WriteFile(path, data, 0o644); err != nil {
			t.Fatal(err)
		}
		return path
	}
	bad := []struct {
		name string
		data []byte
		says string
	}{
		{"cut.json", written[:2000], "not JSON: it ends too early"},
		{"colour.json", bytes.Replace(written, []byte(`"licences": 16`), []byte(`"colour": "red"`), 1), "recorders[0].colour: no such member"},
		{"late.json", bytes.Replace(written, []byte(`"from": "05:30"`), []byte(`"from": "25:00"`), 1), `no time "25:00"`},
	}
	for _, test := range bad {
		p.open("/", "main li")
		p.do(chromedp.SetUploadFiles(chromedp.CSS(`[data-test="picker"] input`), []string{file(test.name, test.data)}, chromedp.NodeReady))
		p.shows(`[data-test="import-failure"]`, test.name)
		if says := p.text(`[data-test="import-failure"]`); !strings.Contains(says, test.says) || !strings.Contains(says, "Nothing was imported") {
			t.Errorf("%s: %q", test.name, says)
		}
	}
	p.open("/", "main li")
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`[data-test="picker"] input`), []string{file("good.json", written)}, chromedp.NodeReady))
	p.until(`location.pathname.startsWith('/sites/pennywhistle-quay-')`)
	p.shows(verdict, "days")
	if list, err := s.store.List(context.Background()); err != nil || len(list) != 2 {
		t.Errorf("%d sites, %v", len(list), err)
	}
}

func TestNothingComesFromOutside(t *testing.T) {
	s := serve(t, "quay", demo.PennywhistleQuay())
	p := browser(t, s, 1280, 800)
	var outside []string
	heard := 0
	p.hears()
	if err := chromedp.Listen(p.ctx, func(ev any) {
		if e, ok := ev.(*network.EventRequestWillBeSent); ok {
			if heard++; !strings.HasPrefix(e.Request.URL, s.url) && !strings.HasPrefix(e.Request.URL, "data:") {
				outside = append(outside, e.Request.URL)
			}
		}
	}); err != nil {
		t.Fatal(err)
	}
	p.runsFirst(`window.refused = []; document.addEventListener('securitypolicyviolation', e => refused.push(e.violatedDirective + ' ' + e.blockedURI))`)
	p.open("/sites/quay", gangwayA+" canvas")
	p.shows(verdict, "days")
	p.choose("waiting")
	if refused := eval[[]string](p, `window.refused`); len(refused) > 0 {
		t.Errorf("the security policy refused %v", refused)
	}
	if heard < 10 {
		t.Errorf("only %d requests were heard of", heard)
	}
	if len(outside) > 0 {
		t.Errorf("fetched from outside: %v", outside)
	}
	policy := eval[string](p, `fetch('/').then(r => r.headers.get('Content-Security-Policy'))`)
	if scripts := policy[:strings.Index(policy, "style-src")]; !strings.Contains(scripts, "default-src 'self'") ||
		strings.Contains(scripts, "unsafe") {
		t.Errorf("policy %q", policy)
	}
	// An inline script must not run: the check above could not fail otherwise.
	eval[bool](p,
		`(() => { const s = document.createElement('script'); s.textContent = 'window.ran = true'; document.head.append(s); return true })()`)
	if eval[bool](p, `!!window.ran`) {
		t.Error("an inline script ran")
	}
	bytes := eval[float64](p,
		`performance.getEntriesByType('resource').concat(performance.getEntriesByType('navigation')).reduce((n, e) => n + e.transferSize, 0)`)
	if bytes > 450e3 || bytes < 10e3 {
		t.Errorf("the first load moved %.0f bytes; at most 450 kB are promised", bytes)
	}
	t.Logf("the first load moved %.0f kB", bytes/1000)
}

// TestAPageNotYetOpenedOpensWhenItCan goes without a connection to a page whose code is not there: it says so, and comes by itself.
func TestAPageNotYetOpenedOpensWhenItCan(t *testing.T) {
	s, p := quay(t)
	p.hears()
	if _, err := chromedp.Call(p.ctx, network.SetCacheDisabled, network.SetCacheDisabledParams{CacheDisabled: true}); err != nil {
		t.Fatal(err)
	}
	p.open("/sites/quay", gangwayA+" canvas")
	p.until(`performance.getEntriesByType('resource').filter((e) => /reserve-.*[.]js$/.test(e.name)).length > 1`) // of the frame and of Week
	var refused atomic.Int32
	gone := func(w http.ResponseWriter, r *http.Request) bool {
		if !strings.Contains(r.URL.Path, "StoragePage") {
			return false
		}
		refused.Add(1)
		http.Error(w, "away", http.StatusBadGateway)
		return true
	}
	s.instead.Store(&gone)
	p.click(`a[href$="/storage"]`)
	p.shows(`[data-test="not-fetched"]`, "opens by itself")
	p.until(`location.pathname.endsWith('/storage')`)
	s.instead.Store(nil)
	p.until(`!document.querySelector('[data-test="not-fetched"]') && !!document.querySelector('[data-lever]')`)
	if refused.Load() == 0 {
		t.Error("the page was never refused")
	}
	p.click(`a[href$="/kit"]`)
	p.until(`!!document.querySelector('[data-page="kit"] h1')`)
}
