package e2e

import (
	"context"
	"strings"
	"testing"

	"wakefield.example/internal/demo"
)

// TestFromNothingToAVerdict goes the way of somebody who opens the program for the
// first time.
func TestFromNothingToAVerdict(t *testing.T) {
	s := serve(t, "none", nil)
	p := browser(t, s, 1280, 800)
	p.open("/", `[data-test="new-site"]`)
	p.shows("main", "There is no site yet")
	p.click(`[data-test="new-site"]`)
	p.shows(`[data-test="first-verdict"]`, "days")
	p.click(`[data-test="make-site"]`)
	p.shows("fieldset", "give the site a name")
	p.labelled("Site", "Little Pier")
	p.labelled("Time zone", "Nowhere/Land")
	p.shows("fieldset", `no time zone "Nowhere/Land"`)
	p.labelled("Time zone", "Atlantic/Faroe")
	p.number("fieldset", "cameras", "20")
	p.shows("fieldset", "20 cameras on a recorder of 16 channels")
	p.number("fieldset", "cameras", "6")
	// Errors that the site would have stand in the first verdict.
	p.number("fieldset", "drives", "1")
	p.shows(`[data-test="opening-errors"]`, "too few drives")
	p.number("fieldset", "drives", "2")
	p.until(`!document.querySelector('[data-test="opening-errors"]')`)
	p.click(`[data-test="other-cameras"]`)
	p.shows(`[data-others="0"]`, "And cameras")
	p.shows(`[data-test="assumed"]`, "of the first kind")
	p.number(`[data-others="0"]`, "others", "60")
	p.shows("fieldset", "66 cameras on a recorder of 16 channels")
	p.number("fieldset", "recorders", "5")
	p.until(`document.querySelector('[data-test="first-verdict"]').ariaBusy === 'false' && !!document.querySelector('.days')`)
	p.number("fieldset", "recorders", "1")
	p.click(`[data-others="0"] button`)
	// What the verdict assumes is shown, and can be said; names can be pasted.
	p.shows(`[data-test="assumed"]`, "of the week")
	if shown := eval[string](p, `document.querySelector('[data-test="assumed"] [data-field="events"] input').value`); shown == "" ||
		shown == "0" {
		t.Errorf("%q events a day are assumed", shown)
	}
	p.number(`[data-test="assumed"]`, "active", "9000")
	p.number(`[data-test="assumed"]`, "events", "60,5")
	p.until(`document.querySelector('[data-test="first-verdict"]').ariaBusy === 'false' && document.querySelector('[data-test="assumed"] [data-field="events"] input').value === '60.5'`)
	if eval[bool](p,
		`[...document.querySelectorAll('option')].some(o => o.innerText.includes('nuisance') || o.innerText.includes('contact'))`) {
		t.Error("a camera cannot look at that")
	}
	p.click(".names summary")
	p.click(`[data-test="names"]`)
	p.keys("Steps\nCrane\nShed\nGate\nNets\nFuel")
	p.click(`input[value="clock"]`)
	p.until(`!!document.querySelector('input[value="clock"]:checked') && !!document.querySelector('[data-test="first-verdict"][aria-busy="false"] .days')`)
	first := strings.Fields(p.text(`.days`))[0]
	p.click(`[data-test="make-site"]`)
	p.shows(verdict, first)
	p.shows(".where", "Little Pier")
	p.shows(`[data-test="next"]`, "what 6 cameras see")
	p.shows(`[data-test="knowing"]`, "narrower")
	p.click(`[data-test="next"] a[href$="/week"], [data-test="next"] li:last-child a`)
	p.until(`document.querySelectorAll('[data-channel]').length === 16`)
	list, err := s.store.List(context.Background())
	if err != nil || len(list) != 1 || list[0].Name != "Little Pier" || list[0].Channels != 16 {
		t.Fatalf("%v %+v", err, list)
	}
	head, err := s.store.Load(context.Background(), list[0].ID)
	if err != nil {
		t.Fatal(err)
	}
	if c := head.Plan.Channels; c[1].Name != "Crane" || c[0].Streams.Main.Rate.ActiveKbps != 9000 || !c[6].NoCamera {
		t.Errorf("%+v", c[1])
	}
}

func TestSitesAreFoundDuplicatedAndPutAway(t *testing.T) {
	s := serve(t, "none", nil)
	if err := demo.Fill(context.Background(), s.store); err != nil {
		t.Fatal(err)
	}
	p := browser(t, s, 1280, 800)
	p.open("/", `[data-site="pennywhistle-quay"]`)
	p.shows(`[data-site="saltmarsh-tram-depot"]`, "days of 30")
	p.until(`!document.querySelector('main').innerText.includes('counting')`) // they are estimated in no order of their own
	// Sorted by trouble: the one that is short of its days comes first.
	if first := eval[string](p, `document.querySelector('[data-site]').dataset.site`); first != "pennywhistle-quay" {
		t.Errorf("%s comes first", first)
	}
	// A site that was left is not shown over the list.
	p.click(`[data-site="pennywhistle-quay"] a`)
	p.shows(".where", "Pennywhistle Quay")
	p.click(".brand")
	p.until(`!!document.querySelector('[data-test="search"]') && !document.querySelector('.where')`)
	p.click(`[data-test="search"]`)
	p.keys("cider")
	p.until(`document.querySelectorAll('[data-site]').length === 1`)
	p.item(`[data-site="brackenhall-cider-works"] .more`, "Duplicate")
	p.shows("main", "Brackenhall Cider Works (copy)")
	p.item(`[data-site="brackenhall-cider-works"] .more`, "Archive")
	p.until(`!document.querySelector('[data-site="brackenhall-cider-works"]')`)
	p.click(`[data-test="archived"]`)
	p.item(`[data-site="brackenhall-cider-works"] .more`, "Restore")
	p.until(`!document.querySelector('[data-site="brackenhall-cider-works"]')`)
	p.click(`[data-test="archived"]`)
	p.until(`document.querySelectorAll('[data-site]').length === 2`)
}
