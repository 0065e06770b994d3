package e2e

import (
	"context"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/internal/demo"
	"wakefield.example/internal/store"
)

// bare is a site of which no more is said than its cameras and what they write.
func bare(t *testing.T) *page {
	t.Helper()
	s := serve(t, "quay", demo.PennywhistleQuay())
	p := *demo.BrackenhallCiderWorks()
	p.Activities, p.Messages, p.AlarmInputs, p.Effects = nil, nil, nil, nil
	p.Outputs, p.Monitors, p.CallButtons, p.Offsite, p.Site.SpecialDays = nil, nil, nil, nil, nil
	for i := range p.Channels {
		p.Channels[i].Activity, p.Channels[i].Nuisance = "", ""
		p.Channels[i].Detection = plan.Detection{}
	}
	if _, err := s.store.Create(context.Background(), "bare", store.Note{Author: "Test"}, &p); err != nil {
		t.Fatal(err)
	}
	return browser(t, s, 1280, 800)
}

// TestEmptyPagesTeach looks at pages of which nothing is there yet: each says what it is for, shows what the site has of it, and has
// the one act that begins it, which is pressed.
func TestEmptyPagesTeach(t *testing.T) {
	p := bare(t)
	p.open("/sites/bare/triggers", `[data-test="empty-board"]`)
	p.click(`[data-scene]`)
	p.until(`!document.querySelector('[data-test="empty-board"]') && !!document.querySelector('[data-pick^="area"]')`)

	p.open("/sites/bare/triggers/causes", `[data-test="nothing-picked"]`)
	p.shows(`[data-test="busiest-none"]`, "How often anything happens is not said yet")
	p.isClean("causes of which nothing is known")

	p.open("/sites/bare/triggers/messages", `[data-test="nobody-told"]`)
	p.isClean("no message")
	p.click(`[data-test="first-message"]`)
	p.until(`!!document.querySelector('[data-card]') && !document.querySelector('[data-test="nobody-told"]')`)

	p.open("/sites/bare/rehearse", `[data-test="no-activity"]`)
	p.isClean("days in which nothing happens")
	p.click(`[data-test="no-activity"] .act`)
	p.until(`location.pathname.endsWith('/kit/activities')`)

	// Where something is known, it is shown, and leads on.
	p.open("/sites/quay/triggers/causes", `[data-test="busiest"]`)
	p.click(`[data-busy]`)
	p.until(`!document.querySelector('[data-test="nothing-picked"]') && !!document.querySelector('[data-test="causes"] [aria-selected="true"]')`)
	p.open("/sites/quay/rehearse?from=2026-12-07&number=4", `[data-test="nothing-pointed"] table`)
	p.click(`[data-test="first-missed"]`)
	p.until(`!!document.querySelector('[data-test="story"] [data-test="answer"].no')`)
}
