package e2e

import (
	"strings"
	"testing"

	"github.com/chromedp/chromedp/kb"

	"wakefield.example/internal/demo"
)

// TestRowsShowWhatTheyAreOrderedBy orders channels by each figure and reads it, with
// groups that are added up.
func TestRowsShowWhatTheyAreOrderedBy(t *testing.T) {
	_, p := quay(t)
	p.shows(`.group`, "4 channels · ")
	p.click(`[data-test="arrange"]`)
	for sort, unit := range map[string]string{"gigabytes": " GB", "share": " %", "missed": " missed", "short": " d"} {
		p.click(`[data-sort="` + sort + `"]`)
		p.until(`document.querySelector('[data-channel="booth"] .kept').innerText.trim().endsWith('` + strings.TrimSpace(unit) + `')`)
	}
	p.click(`[data-test="by-recorder"]`)
	p.shows(`.group`, "16 channels")
}

// TestNumbersCarryTheirRecorder looks at a site of several recorders, and at where its disk
// goes while nothing is selected.
func TestNumbersCarryTheirRecorder(t *testing.T) {
	s := serve(t, "depot", demo.SaltmarshTramDepot())
	p := browser(t, s, 1280, 800)
	p.open("/sites/depot", `[data-channel="c1-1"] canvas`)
	if number := p.text(`[data-channel="c1-2"] .number`); number != "1·2" {
		t.Errorf("number %q", number)
	}
	p.shows(`[data-test="where-disk"]`, "others")
	first := p.text(`[data-test="where-disk"] tbody button`)
	p.click(`[data-test="where-disk"] tbody button`)
	p.shows(".pane h2", first)
}

// TestTheKeyboardSkips goes to the grid in two keys, selects a column of the table by its
// heading, and types a name at once.
func TestTheKeyboardSkips(t *testing.T) {
	_, p := quay(t)
	eval[bool](p, `(document.activeElement.blur(), true)`)
	p.keys(kb.Tab)
	p.until(`document.activeElement.className === 'skip'`)
	p.keys(kb.Enter)
	p.until(`document.activeElement.getAttribute('role') === 'grid'`)
	p.click(`[data-test="author"]`)
	p.until(`document.activeElement === document.querySelector('[data-test="author-name"]')`)
	p.keys("Hilda")
	p.click(`[data-test="keep-author"]`)
	p.shows(`[data-test="author"]`, "Hilda")
	p.open("/sites/quay/kit", cell("hall", "name"))
	p.click(`[data-heading="name"]`)
	p.shows("main", "cells selected")
}

// TestTwoOfTheSameNameAreTwo undoes in one browser what another of the same name has done:
// it is asked first.
func TestTwoOfTheSameNameAreTwo(t *testing.T) {
	s, first := quay(t)
	second := first.another()
	second.open("/sites/quay", `[data-channel="booth"] canvas`)
	second.click(`[data-duty="off"]`)
	second.drag(second.on("booth", 600), second.on("booth", 1200))
	second.revision(2)
	first.revision(2)
	first.keys("z", kb.ModifierCtrl)
	first.shows(".el-message", "The last change is Planner’s, made in another browser")
	if s.duty(t, "booth", 660) != "off" {
		t.Error("another's change was taken back at once")
	}
	second.keys("z", kb.ModifierCtrl)
	second.revision(3)
}

// TestPastedHeadingsAreHeadings pastes a block whose first row names columns.
func TestPastedHeadingsAreHeadings(t *testing.T) {
	s, p := kit(t, "", cell("hall", "name"))
	p.clickCell(cell("hall", "name"))
	p.paste("Group\tName\nNorth\tThe hall\nNorth\tThe booth")
	p.revision(2)
	p.shows(".el-message", "The first row was read as headings: Group, Name.")
	plan := s.plan(t)
	if h, b := plan.Channel("hall"), plan.Channel("booth"); h.Name != "The hall" || h.Group != "North" || b.Name != "The booth" ||
		len(plan.Channels) != 16 {
		t.Errorf("%q in %q, %q, %d channels", h.Name, h.Group, b.Name, len(plan.Channels))
	}
}
