package e2e

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/cdproto/network"
	"github.com/chromedp/chromedp"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/walktest"
	"wakefield.example/internal/demo"
	"wakefield.example/internal/store"
)

// quayByMotion is the ferry terminal with Gangway A recorded on motion at all hours, so that walks before it show the same whenever
// a test runs.
func quayByMotion() *plan.Plan {
	q := demo.PennywhistleQuay()
	q.Duties = append(q.Duties, plan.Duty{ID: "by-motion", Name: "By motion",
		Event: &plan.Event{Stream: plan.Main, On: []plan.Trigger{plan.Motion}}})
	c := q.Channel("gangway-a")
	c.Week = plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "by-motion"}}
	c.Detection.Hours = nil
	return q
}

// phone opens a window of a browser of its own, as large as a phone's, that is touched.
func (p *page) phone() *page {
	p.Helper()
	q := p.another()
	q.touched()
	return q
}

func (p *page) touched() {
	p.Helper()
	p.do(chromedp.EmulateViewport(390, 844, chromedp.EmulateMobile, chromedp.EmulateTouch))
}

// goTo shows another thing of the page for phones.
func (p *page) goTo(parts ...string) {
	p.Helper()
	p.do(chromedp.Evaluate[chromedp.Void](fmt.Sprintf(`location.hash = %q`, "#"+strings.Join(parts, "/"))))
}

// walks walks a walk of a camera: the sign is tapped after so many seconds, or none is.
func (p *page) walks(channel, walk string, sign float64) {
	p.Helper()
	p.goTo("camera", channel, walk)
	p.click(`[data-test="start"]`)
	if sign > 0 {
		p.until(fmt.Sprintf(`parseFloat(document.querySelector('.clock')?.innerText) >= %v`, sign))
		p.click(`[data-test="sign"]`)
	} else {
		p.until(`parseFloat(document.querySelector('.clock')?.innerText) > 0.4`)
	}
	p.click(`[data-test="out"]`)
	p.do(chromedp.WaitVisible(chromedp.CSS(`[data-test="later"], [data-test="sign-in"]`)))
}

// comes waits for an expression to hold on a page that may be loaded again meanwhile.
func (p *page) comes(js string) {
	p.Helper()
	ctx, cancel := context.WithTimeout(p.ctx, patience)
	defer cancel()
	for ctx.Err() == nil {
		if is, err := chromedp.Run(ctx, chromedp.Evaluate[bool](js)); err == nil && is {
			return
		}
	}
	told, err := chromedp.Run(p.ctx, chromedp.Evaluate[string](`document.body?.innerText`))
	p.Fatalf("never came true: %s\nThe page says: %s %v", js, told, err)
}

// walked are what the server has of a plan.
func (s *site) walked(t testing.TB) []store.Walked {
	t.Helper()
	list, err := s.store.WalkedOf(context.Background(), s.id)
	if err != nil {
		t.Fatal(err)
	}
	return list
}

// away lets nobody reach the server until it is back.
func (s *site) away() {
	gone := func(http.ResponseWriter, *http.Request) bool { panic(http.ErrAbortHandler) }
	s.instead.Store(&gone)
}

func (s *site) back() { s.instead.Store(nil) }

// TestAWalkWithoutANetwork takes a site along, goes where there is no network, walks before two cameras, ticks a step, closes
// the page, opens it again, and comes back: all is there, once.
func TestAWalkWithoutANetwork(t *testing.T) {
	s := serve(t, "quay", quayByMotion())
	p := browser(t, s, 1280, 800).phone()
	p.open("/walk/quay", `.rows a`)
	p.until(`navigator.serviceWorker.controller !== null || navigator.serviceWorker.ready.then(() => true)`)
	p.until(`caches.keys().then(async (names) => (await Promise.all(names.map(async (n) => (await (await caches.open(n)).keys()).length))).some((n) => n > 5))`)

	s.away()
	p.hears()
	p.do(chromedp.Func(func(ctx context.Context, target *chromedp.Target) error {
		_, err := chromedp.Call(ctx, network.OverrideNetworkState,
			network.OverrideNetworkStateParams{Offline: true, DownloadThroughput: -1, UploadThroughput: -1})
		return err
	}))
	p.walks("gangway-a", "off", 0.6)
	p.shows(`[data-test="state"]`, "1 result kept here")
	p.walks("gangway-b", "off", 0)
	p.shows(`[data-test="state"]`, "no network, 2 results kept here")
	p.goTo("steps")
	p.click(`[data-test^="tick "]`)
	p.shows(`[data-test="state"]`, "3 results kept here")

	// The page is closed, and opened again where there is still no network.
	q := p.tab()
	q.touched()
	p.do(chromedp.Navigate("about:blank"))
	q.open("/walk/quay#camera/gangway-a", `[data-test="found"]`)
	q.shows(`[data-test="state"]`, "3 results kept here")
	if n := len(s.walked(t)); n != 0 {
		t.Fatalf("%d arrived without a network", n)
	}

	s.back()
	q.do(chromedp.Evaluate[chromedp.Void](`window.dispatchEvent(new Event('online'))`))
	q.shows(`[data-test="state"]`, "all is sent")
	list := s.walked(t)
	if len(list) != 2 || list[0].About != "gangway-a" || list[1].About != "gangway-b" {
		t.Fatalf("%+v", list)
	}
	ticks, err := s.store.Ticks(t.Context(), "quay")
	if err != nil || len(ticks) != 1 {
		t.Fatalf("%+v %v", ticks, err)
	}
	q.do(chromedp.Reload())
	q.do(chromedp.WaitVisible(chromedp.CSS(`[data-test="found"]`)))
	q.shows(`[data-test="state"]`, "all is sent")
	if n := len(s.walked(t)); n != 2 {
		t.Errorf("%d are there after all was sent", n)
	}
}

// TestTwoPhonesBeforeOneCamera walks before one camera with two phones, while the plan is changed at the desk: both results
// are kept and told apart, and say that the plan expects something else since. Then one is right, and another proposed.
func TestTwoPhonesBeforeOneCamera(t *testing.T) {
	s := serve(t, "quay", quayByMotion())
	desk := browser(t, s, 1280, 800)
	desk.open("/sites/quay/handover/walk", `[data-test="walk-cameras"]`)
	for i, name := range []string{"Fitz", "Gus"} {
		p := desk.phone()
		p.open("/walk/quay#more", `[data-test="name"]`)
		p.do(chromedp.Evaluate[chromedp.Void](fmt.Sprintf(`(() => {
			const f = document.querySelector('[data-test="name"]'); f.value = %q; f.dispatchEvent(new Event('input')) })()`, name)))
		p.walks("gangway-a", "off", 1+float64(i)/2)
		p.shows(`[data-test="state"]`, "all is sent")
	}
	row := `[data-test="walk-cameras"] li:first-child`
	desk.shows(row, "Gangway A")
	desk.click(row + " button")
	desk.shows(`[data-test="camera-seen"]`, "Fitz")
	desk.shows(`[data-test="camera-seen"]`, "Gus")
	head, err := s.store.Load(t.Context(), "quay")
	if err != nil {
		t.Fatal(err)
	}
	seconds := 3.0
	done, err := edit.Apply(head.Plan, edit.Edit{SetTimes: &edit.SetTimes{Channels: []string{"gangway-a"}, PreSeconds: &seconds}})
	if err != nil {
		t.Fatal(err)
	}
	if _, err := s.store.Save(t.Context(), head, store.Note{Author: "Ada", Sentence: done.Sentence}, done.Plan); err != nil {
		t.Fatal(err)
	}
	desk.shows(`[data-test="camera-seen"]`, "the plan expects something else since")
	desk.shows(`[data-test="walk-cameras"]`, "walk again")
}

// TestWhatWasFoundGoesIntoThePlan finds another pre-event time on the phone, asks a planner for it, who takes it.
func TestWhatWasFoundGoesIntoThePlan(t *testing.T) {
	q := quayByMotion()
	s := serve(t, "quay", q)
	cameras, err := walktest.Of(t.Context(), q)
	if err != nil {
		t.Fatal(err)
	}
	var list []store.Walked
	for i := range cameras {
		c := &cameras[i]
		if c.Channel != "gangway-a" {
			continue
		}
		for _, w := range c.Walks {
			e := w.Expected[0]
			if w.Optional || e.Shown[walktest.First] == nil {
				continue
			}
			first := *e.Shown[walktest.First] - 5
			data, err := json.Marshal(walktest.Said{Walk: &walktest.WalkSaid{Key: e.Key, Name: w.Name, Planned: e.Shown,
				Seen: walktest.Seen{Walk: w.ID, Minute: c.Week[0].From, Sign: e.Shown[walktest.Sign], First: &first, Last: e.Shown[walktest.Last]}}})
			if err != nil {
				t.Fatal(err)
			}
			list = append(list, store.Walked{ID: w.ID, Kind: "walk", About: c.Channel, Said: data, Revision: 1, NotedBy: "Fitz", Author: "Fitz",
				At: time.Now(), Clock: "monotonic"})
		}
		for k := range list { // at an hour at which the plan has it so
			list[k].Said = []byte(strings.Replace(string(list[k].Said), `"minute":0`, fmt.Sprintf(`"minute":%d`, minuteOf(c, 0)), 1))
		}
	}
	if _, err := s.store.KeepWalked(t.Context(), "quay", "quay", list); err != nil || len(list) != 2 {
		t.Fatal(len(list), err)
	}
	desk := browser(t, s, 1280, 800)
	p := desk.phone()
	p.open("/walk/quay#camera/gangway-a", `[data-test="found"]`)
	p.shows(`[data-test="found"]`, "Pre-event time is 10 s, not 5 s.")
	p.click(`[data-test="propose"]`)
	p.do(chromedp.SendKeys(chromedp.CSS(`[data-test="reason"]`), "ten seconds are better here"))
	p.click(`[data-test="settle"]`)
	p.shows(`[data-test="decided"]`, "A planner is asked")
	p.shows(`[data-test="state"]`, "all is sent")

	desk.open("/sites/quay/handover/walk?about=gangway-a", `[data-test="proposal"]`)
	desk.shows(`[data-test="proposal"]`, "ten seconds are better here")
	desk.click(`[data-test="take-found"]`)
	desk.shows(`[data-test="proposal"]`, "Taken by")
	desk.until(`document.body.innerText.includes('revision 2')`)
	head, err := s.store.Load(t.Context(), "quay")
	if err != nil || head.Plan.Channel("gangway-a").PreSeconds != 10 {
		t.Fatalf("%v %v", head.Plan.Channel("gangway-a").PreSeconds, err)
	}
}

// minuteOf is a minute at which a situation holds.
func minuteOf(c *walktest.Camera, situation int) int {
	for _, s := range c.Week {
		if s.Situation == situation {
			return int(s.From)
		}
	}
	return 0
}

// TestThePhonesClockIsWrong takes a site along with a phone that is an hour behind, and fills the phone up.
func TestThePhonesClockIsWrong(t *testing.T) {
	s := serve(t, "quay", quayByMotion())
	p := browser(t, s, 1280, 800).phone()
	p.runsFirst(`{
			const real = Date.now
			Date.now = () => real() - 3600e3
			// The service worker has a clock of its own, which is right here, and would send too.
			Object.defineProperty(ServiceWorkerRegistration.prototype, 'sync', { value: undefined })
		}`)
	p.open("/walk/quay#more", `main h2`)
	p.shows("main", "s behind the server’s; times are corrected")
	p.walks("gangway-a", "off", 0.6)
	p.shows(`[data-test="state"]`, "all is sent")
	list := s.walked(t)
	if len(list) != 1 || time.Since(list[0].At) > time.Minute || list[0].Clock != "monotonic" {
		t.Fatalf("%+v", list)
	}

	// There is no room: what is noted is said to be at risk, and sent as soon as it can be.
	s.away()
	p.do(chromedp.Evaluate[chromedp.Void](`IDBObjectStore.prototype.add = function () { throw new DOMException('full', 'QuotaExceededError') }`))
	p.walks("gangway-b", "off", 0)
	p.shows(`[data-test="full"]`, "The phone has no room")
	p.shows(`[data-test="state"]`, "1 result kept here")
	s.back()
	p.do(chromedp.Evaluate[chromedp.Void](`window.dispatchEvent(new Event('online'))`))
	p.shows(`[data-test="state"]`, "all is sent")
	if n := len(s.walked(t)); n != 2 {
		t.Errorf("%d arrived", n)
	}
}

// TestTheWalkTestIsSigned tries a contact, takes a photo, reads footage by the recorder's clock, and signs; the paper says so.
func TestTheWalkTestIsSigned(t *testing.T) {
	s := serve(t, "quay", quayByMotion())
	desk := browser(t, s, 1280, 800)
	p := desk.phone()
	p.open("/walk/quay#trials", `main h2`)
	p.click(`a[href*="input%3A"]`)
	p.do(chromedp.WaitVisible(chromedp.CSS(`[data-test="yes"]`)))
	p.until(`[...document.querySelectorAll('[data-test="yes"]')].filter((b) => (b.click(), true)).length > 2`)
	p.click(`[data-test="save-trial"]`)
	p.shows("main", "right")

	p.walks("gangway-a", "off", 4.3)
	p.click(`[data-test="set-clock"]`)
	p.click(`[data-test="clock-now"]`)
	p.do(chromedp.WaitVisible(chromedp.CSS(`[data-test="first"]`)))
	p.until(`[...document.querySelectorAll('.nudges .act:last-child')].filter((b) => (b.click(), true)).length === 2`)
	p.click(`[data-test="save-footage"]`)
	p.shows(`[data-test="found"]`, "footage begins")

	file := stillFile(t, "monitor.png", 640, 360)
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`[data-test="photo"]`), []string{file}))
	p.shows(`[data-test="photos"]`, "1 kept")

	p.goTo("finish")
	p.do(chromedp.WaitVisible(chromedp.CSS(`[data-test="pad"]`)))
	box := eval[[]float64](p,
		`(() => { const b = document.querySelector('[data-test="pad"]').getBoundingClientRect(); return [b.left, b.top, b.width, b.height] })()`)
	p.drag(point{box[0] + 20, box[1] + 20}, point{box[0] + box[2] - 30, box[1] + box[3] - 30})
	p.click(`[data-test="save-signature"]`)
	p.shows("main", "Signed.")
	p.shows(`[data-test="state"]`, "all is sent")
	kinds := make(map[string]int)
	for _, w := range s.walked(t) {
		kinds[w.Kind]++
	}
	if kinds["trial"] != 1 || kinds["walk"] != 2 || kinds["aside"] != 1 || kinds["error"] != 1 || kinds["photo"] != 1 ||
		kinds["signature"] != 1 {
		t.Errorf("%v", kinds)
	}
	desk.open("/sites/quay/handover/walk?about=gangway-a", `[data-test="use-still"]`)
	desk.click(`[data-test="use-still"]`)
	desk.until(`document.body.innerText.includes('revision 2')`)
	desk.open("/sites/quay/handover/papers", `[data-paper="walked"]`)
	desk.click(`[data-paper="walked"]`)
	desk.do(chromedp.WaitVisible(chromedp.CSS(`canvas`)))
}

// TestAWalkIsCutShort closes the page while somebody walks, once before the sign and once after it.
func TestAWalkIsCutShort(t *testing.T) {
	s := serve(t, "quay", quayByMotion())
	p := browser(t, s, 1280, 800).phone()
	p.open("/walk/quay#camera/gangway-a/off", `[data-test="start"]`)
	p.click(`[data-test="start"]`)
	p.until(`parseFloat(document.querySelector('.clock')?.innerText) > 0.5`)
	p.do(chromedp.Navigate("about:blank"))
	p.open("/walk/quay", `[data-test="cut-short"]`)
	p.shows(`[data-test="cut-short"]`, "Gangway A, Off the boat, before any sign")
	p.click(`[data-test="cut-short"] button`)
	p.click(`[data-test="start"]`)
	p.until(`parseFloat(document.querySelector('.clock')?.innerText) > 1`)
	p.click(`[data-test="sign"]`)
	p.do(chromedp.WaitVisible(chromedp.CSS(`.got`)))
	p.do(chromedp.Navigate("about:blank"))
	p.open("/walk/quay#camera/gangway-a", `[data-test="keep-cut"]`)
	p.click(`[data-test="keep-cut"]`)
	p.do(chromedp.WaitVisible(chromedp.CSS(`[data-test="found"]`)))
	p.shows(`[data-test="state"]`, "all is sent")
	list := s.walked(t)
	if len(list) != 1 || !strings.Contains(string(list[0].Said), `"sign"`) || time.Since(list[0].At) > time.Minute {
		t.Errorf("%+v", list)
	}
	if eval[bool](p, `!!document.querySelector('[data-test="cut-short"]')`) {
		t.Error("it is asked again")
	}
}

// TestWhatIsNotTakenIsSaid walks as somebody who only reads the site: the server refuses it, the phone keeps it and says why, and
// it is taken when the role is another.
func TestWhatIsNotTakenIsSaid(t *testing.T) {
	s := serveAccounts(t, "pennywhistle-quay", demo.PennywhistleQuay())
	p := browser(t, s, 390, 844).as("Odile Quist", "/walk/pennywhistle-quay", `.rows a`)
	p.touched()
	p.walks("gangway-a", "off", 0.6)
	p.shows("header", "1 was not taken by the server")
	p.goTo("more")
	p.shows("main", "Off the boat")
	people, err := s.store.People(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	for _, who := range people {
		if who.Name == "Odile Quist" {
			if err := s.store.SetRoles(t.Context(), who.ID, false, []store.Role{{Site: "pennywhistle-quay", Role: "fitter"}}); err != nil {
				t.Fatal(err)
			}
		}
	}
	p.comes(`document.querySelector('[data-test="state"]')?.innerText.includes('all is sent') && !document.querySelector('header a') || (document.querySelector('[data-test="retry"]')?.click(), false)`)
	if n := len(s.walked(t)); n != 1 {
		t.Errorf("%d arrived", n)
	}
}
