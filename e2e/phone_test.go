package e2e

import (
	"os"
	"testing"

	"wakefield.example/internal/demo"
)

// TestAPhoneIsForReading looks at the week on a window 390 wide: nothing is cut off
// sideways, and the days kept can be read.
func TestAPhoneIsForReading(t *testing.T) {
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
}
