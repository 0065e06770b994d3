package e2e

import (
	"context"
	"testing"

	"github.com/chromedp/chromedp"

	"wakefield.example/internal/demo"
	"wakefield.example/internal/store"
)

// TestAVariantIsRemovedUnderSomebody removes the variant that somebody has open: the page says so, takes no changes, and what was
// painted all the same goes into another.
func TestAVariantIsRemovedUnderSomebody(t *testing.T) {
	s, p := quay(t)
	ctx := context.Background()
	other := demo.PennywhistleQuay()
	other.Name = "Thrifty"
	if _, err := s.store.AddPlan(ctx, "quay", "thrifty", store.Note{Author: "Odile", Sentence: "Variant made"}, other); err != nil {
		t.Fatal(err)
	}
	p.open("/sites/quay?variant=thrifty", gangwayA+" canvas")
	p.click(`[data-duty="off"]`)
	if err := s.store.RemovePlan(ctx, "quay", "thrifty", true); err != nil {
		t.Fatal(err)
	}
	p.shows(`[data-test="removed"]`, "Thrifty was removed.")
	p.isClean("a removed variant")
	p.drag(p.on("booth", 600), p.on("booth", 1200))
	p.shows(`[data-test="aside"]`, "This variant was removed meanwhile.")
	if head, err := s.store.Load(ctx, "thrifty"); err != nil || head.Version != 1 {
		t.Errorf("it was changed: %+v, %v", head, err)
	}
	p.click(`[data-test="open-adopted"]`)
	p.until(`document.querySelector('[data-test="variant"]').dataset.variant === 'quay'`)
	p.do(chromedp.WaitVisible(chromedp.CSS(gangwayA + " canvas")))
	p.click(`[data-test="aside-again"]`)
	p.revision(2)
	if s.duty(t, "booth", 660) != "off" {
		t.Error("what was painted is lost")
	}
	// Restored it takes changes again.
	p.open("/sites/quay?variant=thrifty", `[data-test="removed"]`)
	p.click(`[data-test="restore-this"]`)
	p.until(`!document.querySelector('[data-test="removed"]')`)
	p.click(`[data-duty="off"]`)
	p.drag(p.on("booth", 600), p.on("booth", 1200))
	p.revision(2)
}
