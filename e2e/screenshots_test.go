package e2e

import (
	"context"
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"

	"wakefield.example/internal/demo"
	"wakefield.example/internal/demo/recorder"
)

// shoot writes a picture of the window.
func (p *page) shoot(dir, name string) {
	p.Helper()
	p.until(`document.fonts.status === 'loaded'`)
	eval[bool](p, `new Promise(done => requestAnimationFrame(() => requestAnimationFrame(() => done(true))))`)
	png, err := chromedp.Run(p.ctx, chromedp.CaptureScreenshot())
	if err != nil {
		p.Fatal(err)
	}
	if err := os.WriteFile(filepath.Join(dir, name+".png"), png, 0o644); err != nil {
		p.Fatal(err)
	}
}

// TestScreenshots makes the pictures of docs/screenshots, from the sample sites,
// where WAKEFIELD_SCREENSHOTS names a folder for them.
func TestScreenshots(t *testing.T) {
	dir := os.Getenv("WAKEFIELD_SCREENSHOTS")
	if dir == "" {
		t.Skip("WAKEFIELD_SCREENSHOTS names no folder")
	}
	s := serve(t, "none", nil)
	if err := demo.Fill(context.Background(), s.store); err != nil {
		t.Fatal(err)
	}
	p := browser(t, s, 1280, 800)
	week := "/sites/pennywhistle-quay"
	p.open(week, `[data-channel="gangway-a"] canvas`)
	p.shows(`[data-test="kept"]`, "days")
	p.shoot(dir, "week")

	p.click(`[data-duty="keyframes"]`)
	p.choose("gangway-a", "berth-north")
	p.shows(`[data-test="painting"]`, "3 channels")
	p.press(p.on("gangway-a", 1440+6*60), p.on("gangway-a", 4*1440+22*60))
	p.shows(`[data-test="draft"]`, "GB a day")
	p.shoot(dir, "stroke")
	p.keys("\x1b")

	p.open(week+"/findings", ".finding")
	p.until(`[...document.querySelectorAll('[data-test="effect"]')].filter((e) => e.innerText !== 'being tried…').length > 3`)
	p.shoot(dir, "findings")

	p.open(week+"/handover", `[data-step="1.1"]`)
	p.click(`[data-section="week"]`)
	for _, step := range []string{"6.1", "6.2", "6.3", "6.7", "6.8"} {
		p.click(`[data-step="` + step + `"] input`)
		p.until(`!!document.querySelector('[data-step="` + step + `"] [data-test="done"]')`)
	}
	p.click(`[data-step="6.9"] .words`)
	p.until(`!!document.querySelector('[aria-label="What stands there then"]')`)
	p.shoot(dir, "handover")
	p.open(week+"/handover/papers", `[data-paper="customer"]`)
	p.until(`document.querySelectorAll('canvas').length > 1`)
	p.shoot(dir, "papers")
	onAPhone(p, dir)
	p.open("/", `main li`)
	p.shows(`[data-site="saltmarsh-tram-depot"]`, "days of 30")
	p.until(`[...document.querySelectorAll('[data-test="sites-glance"] section')].filter((e) => e.querySelector('canvas')).length === 3`)
	p.shoot(dir, "sites")
	p.open("/new", `[data-test="make-site"]`)
	p.shows(`[data-test="first-verdict"]`, "days")
	p.shoot(dir, "new-site")
	p.open(week+"/kit", cell("hall", "name"))
	p.clickCell(cell("lane-1", "main.rate"))
	p.clickCell(cell("kiosk", "main.rate"), shiftClick)
	p.shoot(dir, "channels")
	p.open(week+"/triggers", `[data-test="course"]`)
	p.click(`[data-line="gangway-a"]`)
	p.until(`!!document.querySelector('[data-thing="walk off"]')`)
	p.click(`[data-pick="walk off"]`)
	p.shows(`[data-test="walk-says"]`, "is noticed after")
	p.until("fetch(document.querySelector('[data-test=\"still\"]').getAttribute('href')).then(r => r.ok)")
	p.shoot(dir, "triggers")
	p.open(week+"/triggers/causes", `[data-pick="motion hall"]`)
	p.find("causes", "a")
	p.until(`!!document.querySelector('[data-pick="alarm fuel-contact"]') || (document.querySelector('[data-test="causes"] [role=listbox]').scrollTop += 300, false)`)
	p.click(`[data-pick="alarm fuel-contact"]`)
	p.shows(`[data-test="why"]`, "never acts")
	p.until(`document.querySelectorAll('[data-test="strands"] path').length > 7`)
	p.until(`document.body.innerText.includes("Set the wrong way round it would be in alarm for ever")`)
	p.shoot(dir, "causes")
	p.open(week+"/measured", `[data-test="by-hour"]`)
	p.shows(`[data-test="then"]`, "days")
	p.shoot(dir, "measured")
	p.open(week+"/storage", `[data-test="do-it"]`)
	p.shoot(dir, "storage")
	if err := recorder.Play(t.Context(), s.store, "", spoken.Seal); err != nil {
		t.Fatal(err)
	}
	p.open(week+"/handover/devices", `[data-test="device-read"]`)
	p.click(`[data-test="device-read"]`)
	p.shows(`[data-test="device-lines"]`, "Kiosk front")
	p.shoot(dir, "devices")
	p.open(week+"/weeks", `[data-week="hall"]`)
	p.shoot(dir, "weeks")
	p.open(week+"/rehearse?from=2026-12-07&number=4", `[data-test="sums"]`)
	p.click(`[data-test="next-missed"]`)
	p.shows(`[data-test="story"]`, "On disk")
	p.click(`[data-test="next-missed"]`)
	for range 2 {
		p.click(`[data-test="closer"]`)
	}
	p.shows(`[data-test="story"] [data-test="answer"]`, "No: nothing of it is on disk")
	p.shoot(dir, "rehearse")
	p.open(week, gangwayA+" canvas")
	p.click(`[data-duty="keyframes"]`)
	p.drag(p.on("booth", 22*60), p.on("booth", 6*1440+23*60+30))
	p.revision(2)
	p.choose("waiting")
	p.field("post", "30")
	p.revision(3)
	p.click(`[data-tab="disk"]`)
	p.field("count", "5")
	p.revision(4)
	p.click(`[data-test="undo"]`)
	p.revision(5)
	p.open(week+"/history", `.history ol > li`)
	p.click(`[data-preview="1"]`)
	p.until(`!!document.querySelector('[data-test="preview"] canvas')`)
	p.shoot(dir, "history")
	p.open(week+"/storage", `[data-test="make-it-a-variant"]`)
	p.number(`[data-test="target"]`, "target", "45")
	p.shows(`[data-test="answer"]`, "45")
	p.click(`[data-test="make-it-a-variant"]`)
	p.until(`document.querySelector('[data-test="variant"]').dataset.variant !== 'pennywhistle-quay'`)
	p.open(week+"/compare", `[data-two] canvas`)
	p.until(`document.querySelectorAll('[data-difference]').length > 2 && !document.querySelector('.el-message')`)
	p.shoot(dir, "compare")
	p.open("/sites/saltmarsh-tram-depot", `[data-channel="c1-1"] canvas`)
	eval[bool](p, `(document.documentElement.classList.add('dark'), localStorage.setItem('wakefield-theme', 'dark'), true)`)
	p.open("/sites/saltmarsh-tram-depot", `[data-channel="c1-1"] canvas`)
	p.shows(`[data-test="kept"]`, "days")
	p.shoot(dir, "depot-dark")
}

// onAPhone takes the picture of a walk on the page for phones.
func onAPhone(p *page, dir string) {
	q := p.another()
	q.do(chromedp.EmulateViewport(390, 844))
	q.open("/walk/pennywhistle-quay#camera/gangway-a/hut", `[data-test="start"]`)
	q.until(`document.querySelector('svg image')?.getAttribute('href')`)
	q.shoot(dir, "phone")
}
