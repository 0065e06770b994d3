package e2e

import (
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/internal/demo"
	"wakefield.example/internal/store"
)

// halfHourQuay is the quay with a recorder that knows half hours and one layer, and a lane that changes at 07:45.
func halfHourQuay() *plan.Plan {
	p := demo.PennywhistleQuay()
	p.Recorders[0].Takes = &plan.Takes{StepMinutes: 30, PeriodsPerDay: 8, Layers: "one", PreSeconds: []float64{0, 10}}
	for i := range p.Channels {
		if c := &p.Channels[i]; c.ID == "gangway-a" {
			c.Week = plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "motion",
				Blocks: []plan.DutyBlock{{Hours: plan.Hours{From: 465, To: 970}, Duty: "clock"}}}}
		}
	}
	return p
}

// TestAFitterWorksThroughTheSheet ticks steps, sees what stands there then, gives a duty the recorder's word, and is told what
// changed since the sheet was printed. A colleague sees the ticks.
func TestAFitterWorksThroughTheSheet(t *testing.T) {
	_, p := quayAt(t, "/handover", `[data-step="1.1"]`)
	p.shows(`[data-test="entries"]`, "0 of ")
	p.click(`[data-section="week"]`)
	p.shows(`[data-step="6.1"]`, "is: the main stream")
	mate := p.another()
	mate.open("/sites/quay/handover", `[data-step="1.1"]`)
	mate.click(`[data-section="week"]`)
	p.click(`[data-step="6.7"] input`)
	p.shows(`[data-step="6.7"] [data-test="done"]`, "just now, revision 1")
	mate.shows(`[data-step="6.7"] [data-test="done"]`, "just now, revision 1")
	p.shows(`[data-test="entries"]`, "1 of ")
	p.click(`[data-step="6.7"] .words`)
	p.until(`!!document.querySelector('[aria-label="What stands there then"] [role=img][aria-label^="Mon: from 00:00 Motion only"]')`)
	p.shows(`[data-test="on-site"]`, "step 6.7, just now")
	p.typed(`[data-word="motion"] input`, "MD record")
	p.shows(`[data-step="6.7"]`, "MD record")
	p.shows(`[data-step="6.1"]`, "MD record (planned as Motion only)")
	p.click(`[data-step="6.7"] input`)
	p.until(`!document.querySelector('[data-step="6.7"] [data-test="done"]')`)
	p.click(`[data-test="tick-all"]`)
	p.until(`document.querySelectorAll('[data-step] [data-test="done"]').length === document.querySelectorAll('[data-step]').length`)
	eval[bool](p, `(window.open = () => null, true)`)
	p.click(`[data-test="print-sheet"]`)
	p.shows(`[data-test="since"]`, "Nothing on it has changed")
	p.open("/sites/quay", gangwayA+" canvas")
	p.choose("luggage")
	p.click(`[data-duty="clock"]`)
	p.drag(p.on("luggage", 22*60), p.on("luggage", 23*60))
	p.revision(3)
	p.open("/sites/quay/handover", `[data-step="1.1"]`)
	p.shows(`[data-test="since"]`, "Steps that changed")
	p.click(`[data-section="week"]`)
	p.shows(`[data-test="changed"]`, "the plan has changed since")
}

// TestWhatARecorderCannotTake sets what it takes in Kit, sees the plan as entered, and mends a finding by one of its choices.
func TestWhatARecorderCannotTake(t *testing.T) {
	s := serve(t, "quay", halfHourQuay())
	works := demo.BrackenhallCiderWorks()
	works.Recorders[0].Takes = &plan.Takes{Areas: "grid"}
	if _, err := s.store.Create(t.Context(), "works", store.Note{Author: "Test", Sentence: "Sample site made"}, works); err != nil {
		t.Fatal(err)
	}
	p := browser(t, s, 1280, 800)
	p.open("/sites/quay", `[data-channel="gangway-a"] [data-test="entered"]`)
	p.shows(verdict, "days")
	planned := p.text(verdict)
	p.click(`[data-test="as-entered"]`)
	p.until(`document.querySelector('[data-test="kept"]').innerText !== '` + planned + `'`)
	p.click(`[data-test="as-entered"]`)
	p.shows(verdict, planned)
	p.open("/sites/quay/handover", `[data-test="cannot"]`)
	p.shows(`[data-test="cannot"]`, "Gangway A: Motion only all days 07:30-07:45, all days 16:10-16:30 becomes Round the clock")
	p.open("/sites/quay/findings", `[data-rule="entered-times"] [data-mend]`)
	p.until(`!!document.querySelector('[data-rule="entered-times"] [data-mend$=" 1"]:not(:disabled)')`)
	p.click(`[data-rule="entered-times"] [data-mend$=" 1"]`)
	p.until(`!document.querySelector('[data-rule="entered-times"]') && ` + isSaved)
	p.open("/sites/quay/kit/recorders", `[data-test="takes"]`)
	p.click(`[data-test="takes"] summary`)
	p.typed(`[data-field="preSeconds"] input`, "0, 5; 10 x")
	p.shows(`[data-field="preSeconds"]`, "“x” is not a number")
	p.labelled("Pre-event, s", "0, 5; 10 30")
	p.until(`document.querySelector('[data-field="preSeconds"] input').value === '0, 5, 10, 30' && ` + isSaved)
	p.click(`[data-takes="all"]`)
	p.shows(`[data-test="takes"] summary`, "all that is planned")
	p.click(`[data-test="takes-elsewhere"]`)
	p.pick(`[data-choice="Site"]`, "Brackenhall Cider Works")
	p.pick(`[data-choice="Recorder there"]`, "Office recorder")
	p.shows(`[data-test="takes"] summary`, "areas on a grid")
	p.click(`[data-takes="all"]`)
	p.shows(`[data-test="takes"] summary`, "all that is planned")
	p.open("/sites/quay", gangwayA+" canvas")
	p.shows(verdict, "days")
	p.until(`!document.querySelector('[data-test="entered"], [data-test="as-entered"]')`)
}

// TestPapersAreShownAsPrinted shows the customer's page, names the company on it, and fetches the archive.
func TestPapersAreShownAsPrinted(t *testing.T) {
	_, p := quayAt(t, "/handover/papers", `[data-paper="customer"]`)
	page := `[...document.querySelectorAll('canvas')].map(c => c.getAttribute('aria-label')).join(' ')`
	p.until(page + `.includes('How long footage is kept')`)
	p.labelled("Name", "Lantern & Sons")
	p.until(page + `.includes('Lantern & Sons')`)
	p.click(`[data-paper="walk-test"]`)
	p.until(page + `.includes('Camera and walk')`)
	eval[bool](p, `(HTMLAnchorElement.prototype.click = function () { window.kept = this.download }, true)`)
	p.click(`[data-test="zip"]`)
	p.until(`window.kept === 'Pennywhistle Quay, As surveyed, papers.zip'`)
}

// TestTheSheetOnAPhone ticks a step on a phone.
func TestTheSheetOnAPhone(t *testing.T) {
	s := serve(t, "quay", demo.PennywhistleQuay())
	p := browser(t, s, 390, 844)
	p.open("/sites/quay/handover", `[data-step="1.1"]`)
	p.click(`[data-step="1.1"] input`)
	p.shows(`[data-step="1.1"] [data-test="done"]`, "just now")
	if wide := eval[float64](p, `document.documentElement.scrollWidth`); wide > 390 {
		t.Errorf("the page is %v wide", wide)
	}
	if over := eval[bool](p,
		`document.querySelector('.left').getBoundingClientRect().bottom > document.querySelector('.middle').getBoundingClientRect().top`); over {
		t.Error("the sections lie over the steps")
	}
	if high := eval[float64](p, `document.querySelector('[data-step="1.1"] input').getBoundingClientRect().height`); high < 24 {
		t.Errorf("the box is %v high", high)
	}
}
