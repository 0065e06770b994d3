package e2e

import (
	"context"
	"reflect"
	"testing"

	"github.com/chromedp/chromedp/kb"

	"wakefield.example/internal/demo"
)

// TestCtrlZTakesBackOnesOwn undoes one's own change under another's, and shows both where they met.
func TestCtrlZTakesBackOnesOwn(t *testing.T) {
	s := serve(t, "quay", demo.PennywhistleQuay())
	first := browser(t, s, 1280, 800)
	second := first.another()
	for name, p := range map[string]*page{"Ines": first, "Odile": second} {
		p.open("/sites/quay", gangwayA+" canvas")
		eval[bool](p, `(localStorage.setItem('wakefield-author', '`+name+`'), true)`)
		p.open("/sites/quay", gangwayA+" canvas")
	}
	for _, p := range []*page{first, second} {
		p.click(`[data-duty="off"]`)
	}
	first.drag(first.on("kiosk", 600), first.on("kiosk", 900))
	first.revision(2)
	second.revision(2)
	second.drag(second.on("booth", 600), second.on("booth", 900))
	second.revision(3)
	first.revision(3)
	// Hers is under his, and goes; his stays.
	first.keys("z", kb.ModifierCtrl)
	first.revision(4)
	first.shows(".el-message", "Taken back: ")
	head, err := s.store.Load(context.Background(), "quay")
	if err != nil {
		t.Fatal(err)
	}
	begin := demo.PennywhistleQuay()
	same := func(channel string) bool {
		return reflect.DeepEqual(head.Plan.WeekOf(head.Plan.Channel(channel)).Steps(), begin.WeekOf(begin.Channel(channel)).Steps())
	}
	if !same("kiosk") || same("booth") {
		t.Error("another change was taken back")
	}
	// It is made again by Ctrl+Y.
	first.keys("y", kb.ModifierCtrl)
	first.revision(5)
	// He changes the same: both are shown, and she chooses.
	second.revision(5)
	second.drag(second.on("kiosk", 1500), second.on("kiosk", 1800))
	second.revision(6)
	first.revision(6)
	first.open("/sites/quay/history", `[data-take-back="2"]`)
	first.click(`[data-take-back="2"]`)
	first.shows(`[data-test="meets"]`, "The same was changed again since.")
	first.isClean("what meets")
	first.click(`[data-test="anyway"]`)
	first.revision(7)
	if head, err = s.store.Load(context.Background(), "quay"); err != nil || !same("kiosk") || same("booth") {
		t.Errorf("%v", err)
	}
}
