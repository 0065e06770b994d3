package e2e

import (
	"os"
	"testing"

	"github.com/chromedp/chromedp"

	"wakefield.example/internal/demo"
)

// TestAPhoneReadsAndDecides looks at the week on a window 390 wide: nothing is cut off sideways, the days kept can be read, a finger
// that scrolls paints nothing, and hours are chosen and typed.
func TestAPhoneReadsAndDecides(t *testing.T) {
	s := serve(t, "quay", demo.PennywhistleQuay())
	p := browser(t, s, 390, 844)
	for path, ready := range map[string]string{
		"/": "main li", "/sites/quay": gangwayA + " canvas", "/sites/quay/findings": ".finding", "/sites/quay/history": ".history ol > li",
	} {
		p.open(path, ready)
		if wide := eval[float64](p, `document.documentElement.scrollWidth`); wide > 390 {
			t.Errorf("%s is %v wide", path, wide)
		}
		if dir := os.Getenv("WAKEFIELD_LOOK"); dir != "" {
			p.shoot(dir, "phone"+map[bool]string{true: "-week", false: ready[:5]}[ready[0] == '['])
		}
	}
	p.open("/sites/quay", gangwayA+" canvas")
	p.shows(".group .kept", "37.2 d")
	p.shows(gangwayA+" .kept", "8.28 GB")
	p.drag(p.on("booth", 600), p.on("booth", 6000))
	if head, err := s.store.Load(t.Context(), "quay"); err != nil || head.Version != 1 {
		t.Errorf("a finger that scrolls paints: %+v, %v", head, err)
	}
	if eval[bool](p, `document.querySelector('.pane').offsetWidth > 0`) {
		t.Error("the pane takes the place of the week")
	}
	// Hours are chosen from a list, and typed.
	p.choose("booth")
	p.click(`[data-test="fold"]`)
	p.click(`[data-tab="hours"]`)
	p.pick(`[data-block="mon 00:00"]`, "Off")
	p.revision(2)
	p.shows(`[data-block="mon 00:00"]`, "Off")
	p.do(chromedp.SendKeys(chromedp.CSS(`[data-test="hours"] [data-test="typed-hours"] input`), "Tue 7pm-9pm\r"))
	p.revision(3)
	p.shows(`[data-block="tue 19:00"]`, "19:00–21:00")
	if duty := s.duty(t, "booth", 1440+20*60); duty == "off" {
		t.Error("what was typed is not painted")
	}
	if duty := s.duty(t, "booth", 3*1440); duty != "off" {
		t.Errorf("what was chosen for all alike days is %s on Thursday", duty)
	}
	if wide := eval[float64](p, `document.documentElement.scrollWidth`); wide > 390 {
		t.Errorf("the list of hours is %v wide", wide)
	}
	// One change by itself is tried and made.
	p.open("/sites/quay/storage", `[data-lever]`)
	p.click(`[data-lever] [data-test="try"]`)
	p.shows(`[data-test="tried"]`, "With it")
	p.click(`[data-test="keep-lever"]`)
	p.revision(4)
}
