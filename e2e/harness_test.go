// Package e2e drives the real interface: headless Chromium against the real server
// over a real PostgreSQL. Tests wait for conditions, never for time.
package e2e

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"net/netip"
	"os"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/css"
	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/cdproto/log"
	"github.com/chromedp/cdproto/network"
	cdppage "github.com/chromedp/cdproto/page"
	"github.com/chromedp/cdproto/storage"
	"github.com/chromedp/chromedp"

	"wakefield.example/core/plan"
	"wakefield.example/internal/api"
	"wakefield.example/internal/device"
	"wakefield.example/internal/localpg"
	"wakefield.example/internal/localpg/pgtest"
	"wakefield.example/internal/store"
	"wakefield.example/internal/store/storetest"
)

var cluster *localpg.Cluster

func TestMain(m *testing.M) {
	status := pgtest.Run(m, &cluster)
	closeBrowsers()
	os.Exit(status)
}

// site is a running application with one sample site, in a database of its own.
type site struct {
	url   string
	id    string
	store *store.Store
	seat  *seat
	// instead answers a request in the server's place where it returns true.
	instead atomic.Pointer[func(http.ResponseWriter, *http.Request) bool]
}

// waiting are the tests that run beside others.
var waiting sync.Map

// beside lets a test run beside others: each has its database, its server and its browser.
func beside(t testing.TB) {
	if t, ok := t.(*testing.T); ok {
		if _, already := waiting.LoadOrStore(t, true); !already {
			t.Parallel()
		}
	}
}

// alone keeps a test from running beside others, as it takes away what they share. It comes before serve.
func alone(t *testing.T) { waiting.Store(t, true) }

// serve starts the application with a plan in it.
func serve(t testing.TB, id string, p *plan.Plan) *site {
	t.Helper()
	beside(t)
	ctx := context.Background()
	s := storetest.Open(t, cluster, t.Name(), "")
	if p != nil {
		if _, err := s.Create(ctx, id, store.Note{Author: "Test", Sentence: "Sample site made"}, p); err != nil {
			t.Fatal(err)
		}
	}
	served := &site{seat: sit(t), id: id, store: s}
	served.url = served.seat.url
	// Only tests that begin with no site work with the list of sites; the others need not wait for its lines to be made.
	handler := api.New(t.Context(), s, api.Options{Devices: spoken, Lines: p == nil, Quiet: time.Millisecond})
	served.seat.serves(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if instead := served.instead.Load(); instead == nil || !(*instead)(w, r) {
			handler.ServeHTTP(w, r)
		}
	}))
	return served
}

// spoken is how devices are spoken with in tests: those on loopback, with a key that everybody knows.
var spoken = func() api.Devices {
	seal, err := device.NewSeal(make([]byte, device.KeyBytes))
	if err != nil {
		panic(err)
	}
	return api.Devices{Seal: seal, Allowed: device.Allowed{netip.MustParsePrefix("127.0.0.0/8")}}
}()

// page is one tab of one browser.
type page struct {
	testing.TB
	ctx context.Context
	url string
}

// browser opens a window of the browser of a site's seat, with empty storage: what a test keeps there would be met by
// the next that sits there.
func browser(t testing.TB, s *site, width, height int) *page {
	t.Helper()
	ctx, _ := chromedp.NewContext(s.seat.browser(t))
	t.Cleanup(func() { chromedp.Cancel(ctx) }) // waits until the window is closed
	p := &page{TB: t, ctx: ctx, url: s.url}
	p.begin(width, height)
	p.do(chromedp.Func(func(ctx context.Context, target *chromedp.Target) error {
		_, err := chromedp.Call(ctx, storage.ClearDataForOrigin, storage.ClearDataForOriginParams{Origin: p.url,
			StorageTypes: "local_storage,cookies"})
		return err
	}))
	return p
}

// runsFirst has every page that is opened from now on run a script before any of its own.
func (p *page) runsFirst(script string) {
	p.Helper()
	p.do(chromedp.Func(func(ctx context.Context, target *chromedp.Target) error {
		_, err := chromedp.Call(ctx, cdppage.AddScriptToEvaluateOnNewDocument,
			cdppage.AddScriptToEvaluateOnNewDocumentParams{Source: script})
		return err
	}))
}

// begin opens the tab, whose pages write times and numbers as Wakefield does, whatever language the browser has.
// The first action decides how long the tab lives, so it has no time limit of its own. The browser tells of no style, log or
// request, which costs a tenth of a page's time; see hears.
func (p *page) begin(width, height int) {
	p.Helper()
	if err := chromedp.Do(p.ctx, chromedp.EmulateViewport(int64(width), int64(height))); err != nil {
		p.Fatal(err)
	}
	p.do(chromedp.Func(func(ctx context.Context, target *chromedp.Target) error {
		_, err := chromedp.Call(ctx, css.Disable, cdp.Empty{})
		_, err2 := chromedp.Call(ctx, log.Disable, cdp.Empty{})
		_, err3 := chromedp.Call(ctx, network.Disable, cdp.Empty{})
		return errors.Join(err, err2, err3)
	}))
	p.runsFirst(`try { localStorage['wakefield-habits'] ??= '24|0|\u202f.' } catch {}`)
}

// hears has the browser tell of a tab's requests, and do with them as it is told.
func (p *page) hears() {
	p.Helper()
	p.do(chromedp.Func(func(ctx context.Context, target *chromedp.Target) error {
		_, err := chromedp.Call(ctx, network.Enable, network.EnableParams{})
		return err
	}))
}

// another opens a second browser window with nothing shared but the server.
func (p *page) another() *page {
	p.Helper()
	ctx, close := chromedp.NewContext(p.ctx, chromedp.WithNewBrowserContext())
	p.Cleanup(close)
	q := &page{TB: p.TB, ctx: ctx, url: p.url}
	q.begin(1280, 800)
	return q
}

// tab opens another tab of the same browser.
func (p *page) tab() *page {
	p.Helper()
	ctx, close := chromedp.NewContext(p.ctx)
	p.Cleanup(close)
	q := &page{TB: p.TB, ctx: ctx, url: p.url}
	q.begin(1280, 800)
	return q
}

// patience is how long a condition may take on a slow machine before a test gives
// up on it; WAKEFIELD_TEST_PATIENCE shortens the wait for whoever writes a test.
var patience = func() time.Duration {
	if d, err := time.ParseDuration(os.Getenv("WAKEFIELD_TEST_PATIENCE")); err == nil {
		return d
	}
	return 60 * time.Second
}()

func (p *page) do(steps ...chromedp.Action[chromedp.Void]) {
	p.Helper()
	ctx, cancel := context.WithTimeout(p.ctx, patience)
	defer cancel()
	for i, step := range steps {
		if err := chromedp.Do(ctx, step); err != nil {
			p.Fatalf("step %d: %v", i, err)
		}
	}
}

// open goes to a path and waits for what is asked for.
func (p *page) open(path, css string) {
	p.Helper()
	p.do(chromedp.Navigate(p.url+path), chromedp.WaitVisible(chromedp.CSS(css)))
}

// goes follows the links to a page of the site that is open, so that the program is not loaded anew for each; where none leads there
// it opens it. Then it waits for what is asked for.
func (p *page) goes(path, css string) {
	p.Helper()
	gone := eval[bool](p, fmt.Sprintf(`(async (path) => {
		const frames = () => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))
		const follows = async (to) => {
			const link = document.querySelector('a[href="' + to + '"]')
			link?.click()
			for (let tries = 0; link && tries < 200 && location.pathname !== to; tries++) await frames()
			return location.pathname === to
		}
		const there = await follows(path) || (await follows(path.split('/').slice(0, 4).join('/')) && await follows(path))
		await frames()
		return there
	})(%q)`, path))
	if !gone {
		p.open(path, css)
		return
	}
	p.do(chromedp.WaitVisible(chromedp.CSS(css)))
}

// eval evaluates an expression in the page.
func eval[T any](p *page, js string) T {
	p.Helper()
	ctx, cancel := context.WithTimeout(p.ctx, patience)
	defer cancel()
	v, err := chromedp.Run(ctx, chromedp.Evaluate[T](js, chromedp.EvalAwaitPromise))
	if err != nil {
		p.Fatalf("%s: %v", js, err)
	}
	return v
}

// until waits for an expression to hold.
func (p *page) until(js string) {
	p.Helper()
	ctx, cancel := context.WithTimeout(p.ctx, patience)
	defer cancel()
	if _, err := chromedp.Run(ctx, chromedp.Poll[chromedp.Void](js, chromedp.WithPollingTimeout(patience))); err != nil {
		body := eval[string](p, `document.body.innerText`)
		p.Fatalf("never came true: %s: %v\nThe page says:\n%s", js, err, body)
	}
}

// text is the text of the first element that matches.
func (p *page) text(css string) string {
	p.Helper()
	return eval[string](p, fmt.Sprintf(`document.querySelector(%q)?.innerText.trim() ?? 'nothing matches'`, css))
}

// shows waits for an element to have a text in it.
func (p *page) shows(css, text string) {
	p.Helper()
	p.until(fmt.Sprintf(`[...document.querySelectorAll(%q)].some(e => e.innerText.includes(%q))`, css, text))
}

// click clicks an element once it is there and stands still: what opens, grows or makes
// room is hit where it comes to rest, as by a person. Where an answer that comes in moves
// the page under the pointer, what it would hit instead never hears of it, and the click
// is made again.
func (p *page) click(css string) {
	p.Helper()
	for begun := time.Now(); ; {
		p.do(chromedp.WaitVisible(chromedp.CSS(css)))
		p.still(css)
		p.until(fmt.Sprintf(`!document.querySelector(%q)?.disabled`, css)) // what is out of use for a moment is waited for, as a person does
		eval[bool](p, fmt.Sprintf(guardClick, css))
		p.do(chromedp.Click(chromedp.CSS(css), chromedp.NodeVisible))
		instead := eval[string](p, `window.endClick?.() ?? ''`) // a link may have led to another page
		if instead == "" {
			return
		}
		if time.Since(begun) > patience {
			p.Fatalf("a click on %s meets %s", css, instead)
		}
	}
}

// guardClick keeps a click from all but one element, and remembers what it met instead.
const guardClick = `((css) => {
	let instead = ''
	let met = false
	const heard = ['pointerdown', 'mousedown', 'pointerup', 'mouseup', 'click']
	const guard = (e) => {
		// Where the page moved between press and release, the click is that of what has both in it.
		const wanted = e.type === 'pointerdown' || e.type === 'click' ? document.querySelector(css) : null
		const meant = wanted && [wanted, ...(wanted.labels ?? [])].some((w) => w.contains(e.target))
		if (wanted && !meant && !met && !instead) instead = e.target.outerHTML.slice(0, 200)
		met ||= meant && e.type === 'click' // what it leads to, such as the click of a label's field, is its own matter
		if (!instead) return
		e.stopImmediatePropagation()
		e.preventDefault()
	}
	for (const h of heard) window.addEventListener(h, guard, true)
	window.endClick = () => {
		for (const h of heard) window.removeEventListener(h, guard, true)
		delete window.endClick
		return instead
	}
	return true
})(%q)`

// pick chooses a value by its name in a list that unfolds.
func (p *page) pick(css, name string) {
	p.Helper()
	p.click(css + ` .el-select__wrapper`)
	p.until(fmt.Sprintf(`[...document.querySelectorAll('.el-select-dropdown__item')].some(e => e.offsetParent && e.innerText.trim().startsWith(%q) && (e.click(), true))`, name))
}

// still waits until an element is where it was two frames before.
func (p *page) still(css string) {
	p.Helper()
	eval[bool](p, fmt.Sprintf(`new Promise((done) => {
		let last = ''
		const look = () => {
			const b = document.querySelector(%q)?.getBoundingClientRect()
			const now = b ? [b.left, b.top, b.width, b.height].join() : 'gone'
			if (now === last) done(true)
			else requestAnimationFrame(() => requestAnimationFrame(() => { last = now; look() }))
		}
		look()
	})`, css))
}

// point is a place in the window.
type point struct{ x, y float64 }

// on is the point on a channel's ribbon at a minute of the week.
func (p *page) on(channel string, minute int) point {
	p.Helper()
	box := eval[[]float64](p, fmt.Sprintf(`(() => {
		const b = document.querySelector('[data-channel=%q] .time').getBoundingClientRect()
		return [b.left, b.top, b.width, b.height]
	})()`, channel))
	return point{box[0] + box[2]*float64(minute)/10080, box[1] + box[3]/2}
}

func (p *page) mouse(kind input.DispatchMouseEventType, at point, options ...chromedp.MouseOption) {
	p.Helper()
	p.do(chromedp.MouseEvent(kind, at.x, at.y, options...))
}

// press begins a drag and moves to its end without releasing.
func (p *page) press(from, to point) {
	p.Helper()
	p.mouse(input.DispatchMouseEventTypeMouseMoved, from)
	p.mouse(input.DispatchMouseEventTypeMousePressed, from, chromedp.ButtonLeft)
	for i := 1; i <= 4; i++ {
		part := float64(i) / 4
		p.mouse(input.DispatchMouseEventTypeMouseMoved, point{from.x + part*(to.x-from.x), from.y + part*(to.y-from.y)}, chromedp.ButtonLeft)
	}
}

// drag presses, moves and releases.
func (p *page) drag(from, to point) {
	p.Helper()
	p.press(from, to)
	p.mouse(input.DispatchMouseEventTypeMouseReleased, to, chromedp.ButtonLeft)
}

// keys types keys, with modifiers.
func (p *page) keys(keys string, modifiers ...chromedp.Modifier) {
	p.Helper()
	p.do(chromedp.KeyEvent(keys, chromedp.KeyModifiers(modifiers...)))
}
