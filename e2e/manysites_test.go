package e2e

import (
	"context"
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
	"wakefield.example/internal/demo"
	"wakefield.example/internal/store"
)

// weirs serves the samples, and some small sites beside them.
func weirs(t *testing.T, n int) *site {
	t.Helper()
	s, ctx := serve(t, "none", nil), context.Background()
	if err := demo.Fill(ctx, s.store); err != nil {
		t.Fatal(err)
	}
	for i := range n {
		p := *demo.BrackenhallCiderWorks()
		p.Site.Name, p.Site.Customer = fmt.Sprint("Weir house ", i+1), []string{"Lower Fenland Drainage", "Tarn Council"}[i%2]
		if _, err := s.store.Create(ctx, fmt.Sprint("weir-", i+1), store.Note{Author: "Test"}, &p); err != nil {
			t.Fatal(err)
		}
	}
	return s
}

// TestManySitesAreWorkedWith finds what is inside sites, narrows the list, says things of several at once and takes one back, keeps the
// search, and comes back to it by its address.
func TestManySitesAreWorkedWith(t *testing.T) {
	s := weirs(t, 30)
	p := browser(t, s, 1280, 800)
	p.open("/", `[data-site="pennywhistle-quay"]`)
	p.until(`!document.querySelector('[data-test="estimating"]') && !document.body.innerText.includes('counting')`)
	p.shows(`[data-site="pennywhistle-quay"]`, "Ticket booth")
	p.isClean("the list of sites")
	p.click(`[data-test="search"]`)
	p.keys("booth quay")
	p.shows(`[data-test="hits"]`, "Ticket booth")
	p.until(`location.search.includes('booth')`)
	p.click(`[data-test="hits"] a[href*="channels=booth"]`)
	p.shows(".where", "Pennywhistle Quay")

	p.open("/?customer=Tarn%20Council&sort=name", `[data-site="weir-2"]`)
	p.shows(`[data-test="how-many"]`, "15 of 33 sites")
	p.click(`[data-site="weir-2"] input`)
	p.until(`(() => { document.querySelector('[data-site="weir-12"] input').dispatchEvent(new MouseEvent('click', { bubbles: true, shiftKey: true })); return true })()`)
	p.shows(`[data-test="in-hand"]`, "sites chosen")
	p.click(`[data-test="tag"]`)
	p.keys("north, 2027")
	p.click(`[data-test="add-tag"]`)
	p.shows(`[data-site="weir-2"]`, "2027, north")
	p.until(`(() => { const s = document.querySelector('[data-test="set-stage"]'); s.value = 'handed'; s.dispatchEvent(new Event('change')); return true })()`)
	p.shows(`[data-site="weir-2"]`, "handed over")
	p.click(`[data-test="check"]`)
	p.shows(`[data-test="found-sum"]`, "warning")
	p.until(`document.getAnimations().length === 0`)
	p.isClean("findings of several sites")
	p.keys("\x1b")
	p.until(`!document.querySelector('[data-test="found-sum"]')`)

	p.open("/?tags=north&stage=handed", `[data-site="weir-2"]`)
	p.click(`[data-test="name-search"]`)
	p.keys("North, done")
	p.click(`[data-test="keep-search"]`)
	p.shows(`[data-search="North, done"]`, "North, done")
	n := eval[int](p, `document.querySelectorAll('[data-site]').length`)
	p.click(`[data-test="pick-all"]`)
	p.click(`[data-test="archive-sites"]`)
	p.shows("main", "No site is like that")
	p.click(`[data-test="notice-act"]`)
	p.until(fmt.Sprintf(`document.querySelectorAll('[data-site]').length === %d`, n))
	p.click(`[data-test="all-sites"]`)
	p.until(`document.querySelectorAll('[data-site]').length > 12 && !location.search`)
	p.click(`[data-search="North, done"]`)
	p.until(fmt.Sprintf(`document.querySelectorAll('[data-site]').length === %d && location.search.includes('north')`, n))
	p.click(`button[aria-label="Forget the search North, done"]`)
	p.until(`!document.querySelector('[data-search]')`)
	for _, size := range [][2]int64{{390, 844}, {320, 640}, {2560, 1440}} {
		p.do(chromedp.EmulateViewport(size[0], size[1]))
		p.until(`document.documentElement.scrollWidth <= innerWidth`)
	}
}

// TestAllAddedUp adds the sites up, leads to those of a customer, and has a file.
func TestAllAddedUp(t *testing.T) {
	p := browser(t, weirs(t, 2), 1280, 800)
	p.open("/", `[data-test="to-figures"]`)
	p.click(`[data-test="to-figures"]`) // while the sites may still be estimated: the page asks again until all are
	p.shows(`[data-test="sums"]`, "sites in work")
	p.until(`!document.querySelector('[data-test="figures-left"]')`)
	p.isClean("the company's figures")
	if text := eval[string](p, `decodeURIComponent(document.querySelector('[data-test="figures-file"]').href)`); len(text) < 400 {
		t.Error(text)
	}
	p.click(`a[href*="customer=Tarn"]`)
	p.until(`document.querySelectorAll('[data-site]').length === 1`)
}

// TestASiteTakesFromAnother takes a duty and a holiday from a template, by a page that says what differs, copies a camera with its week,
// and takes both back by undo.
func TestASiteTakesFromAnother(t *testing.T) {
	s, p := quay(t)
	ctx := context.Background()
	sunday, name := week.Sunday, "Our way"
	company, err := edit.After(demo.PennywhistleQuay(),
		edit.Edit{SetSite: &edit.SetSite{Name: &name}},
		edit.Edit{SetDuty: &edit.SetDuty{Duty: plan.Duty{ID: "watch", Name: "Night watch", Base: &plan.Base{Stream: plan.Sub}}}},
		edit.Edit{SetSpecialDays: &edit.SetSpecialDays{Days: append(demo.PennywhistleQuay().Site.SpecialDays,
			plan.SpecialDay{Name: "Founders' day",
				From: week.Date{Year: 2027, Month: 3, Day: 5}, To: week.Date{Year: 2027, Month: 3, Day: 5}, Yearly: true, UseDay: &sunday})}})
	if err != nil {
		t.Fatal(err)
	}
	if _, err := s.store.Create(ctx, "template", store.Note{Author: "Test"}, company); err != nil {
		t.Fatal(err)
	}
	stage := store.Template
	if err := s.store.Mark(ctx, []string{"template"}, store.Marks{Stage: &stage}); err != nil {
		t.Fatal(err)
	}
	p.open("/sites/quay/kit/from", `[data-test="from-site"]`)
	p.until(`!!document.querySelector('optgroup[label="Templates"]')`)
	p.until(`(() => { const s = document.querySelector('[data-test="from-site"]'); s.value = 'template'; s.dispatchEvent(new Event('change')); return true })()`)
	p.shows(`[data-test="takings"]`, "Night watch")
	p.shows(`[data-test="takings"]`, "Founders' day")
	p.isClean("what is taken from another site")
	p.click(`[data-test="take-all"]`)
	p.click(`[data-test="take"]`)
	p.shows(`[data-test="takes-nothing"]`, "is here")
	p.click(`[data-copy="booth"] input`)
	p.click(`[data-test="copy"]`)
	p.shows(`[data-test="copied"]`, "1 channel copied onto")
	p.shows(`[data-test="state"]`, "saved · revision 3")
	head, err := s.store.Load(ctx, "quay")
	if err != nil {
		t.Fatal(err)
	}
	cameras := 0
	for _, c := range head.Plan.Channels {
		if !c.NoCamera {
			cameras++
		}
	}
	if head.Plan.Duty("watch") == nil || cameras != 16 {
		t.Errorf("%d cameras, %+v", cameras, head.Plan.Duty("watch"))
	}
	p.keys("z", kb.ModifierCtrl)
	p.until(`document.querySelector('[data-test="copy-onto"]').innerText.includes('room for 1')`)
}
