package e2e

import (
	"context"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"wakefield.example/internal/demo"
	"wakefield.example/internal/store"
)

// foundFiles are what three files say of the kiosk: three times as much happens there, it costs 1.4 times as much while something
// moves, and its footage goes back 28 days.
func foundFiles() (log, rates, oldest string) {
	var events, kbps strings.Builder
	events.WriteString("start,end,channel\n")
	kbps.WriteString("time,channel,kbps\n")
	rng := rand.New(rand.NewPCG(6, 6))
	from := time.Date(2026, 10, 5, 0, 0, 0, 0, time.UTC)
	for at := from; at.Before(from.AddDate(0, 0, 28)); at = at.Add(time.Duration(rng.ExpFloat64()*150) * time.Second) {
		fmt.Fprintf(&events, "%s,%s,Kiosk front\n", at.Format(time.DateTime),
			at.Add(time.Duration(rng.ExpFloat64()*40)*time.Second).Format(time.DateTime))
	}
	for h := range 7 * 24 {
		fmt.Fprintf(&kbps, "%s,12,%d\n", from.Add(time.Duration(h)*time.Hour).Format(time.DateTime), 3100+rng.IntN(80))
	}
	return events.String(), kbps.String(), "date,channel,oldest\n2026-11-16 12:00,12,2026-10-17 12:00\n2026-11-16 12:00,1,2026-10-17 12:00\n"
}

// drops lets files fall on a place of the page, as a mouse that brings them from elsewhere does.
func (p *page) drops(css string, files map[string]string, order ...string) {
	p.Helper()
	list := make([][2]string, 0, len(order))
	for _, name := range order {
		list = append(list, [2]string{name, files[name]})
	}
	data, err := json.Marshal(list)
	if err != nil {
		p.Fatal(err)
	}
	eval[bool](p, fmt.Sprintf(`(() => {
		const data = new DataTransfer()
		for (const [name, text] of %s) data.items.add(new File([text], name, { type: 'text/csv' }))
		document.querySelector(%q).dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }))
		return true
	})()`, data, css))
}

// TestThreeFilesAreDroppedAndCorrectThePlan drops three files, lets each count, reads what differs, corrects the plan, sees its
// verdict change, takes that back, and takes a file away.
func TestThreeFilesAreDroppedAndCorrectThePlan(t *testing.T) {
	s := serve(t, "found", demo.PennywhistleQuay())
	p := browser(t, s, 1280, 800)
	p.open("/sites/found/measured", `[data-test="bring-in"]`)
	p.shows(".main", "Nothing was brought in yet")
	q := p.another() // somebody else, who hears of it
	q.open("/sites/found/measured", `[data-test="bring-in"]`)
	log, rates, oldest := foundFiles()
	p.drops(`[data-test="drop"]`, map[string]string{"kiosk events.csv": log, "bitrates.csv": rates, "oldest.csv": oldest},
		"kiosk events.csv", "bitrates.csv", "oldest.csv")
	for _, file := range []struct{ name, says string }{{"kiosk events.csv", "5 Oct 2026 to 1 Nov 2026"}, {"bitrates.csv", "168 hours"},
		{"oldest.csv", "30.0 days before 16 Nov 2026"}} {
		p.until(fmt.Sprintf(`document.querySelector('[data-test="found-import"]')?.textContent.includes(%q)`, file.name))
		p.until(fmt.Sprintf(`document.querySelector('[data-test="found-import"]')?.textContent.includes(%q)`, file.says))
		p.isClean("what is brought in")
		p.click(`[data-test="keep-found"]`)
		p.until(fmt.Sprintf(`[...document.querySelectorAll('[data-test="brought"] li')].some(l => l.textContent.includes(%q))`, file.name))
	}
	p.until(`!document.querySelector('[data-test="found-import"]')`)
	p.until(`[...document.querySelectorAll('[data-test="differ"] tr')].some(r => /Kiosk front.*triggers a day.*no.*Kiosk ×/s.test(r.textContent))`)
	p.shows(`[data-test="days-bands"]`, "oldest footage, 30.0 days")
	q.shows(`[data-test="days-bands"]`, "oldest footage, 30.0 days")
	q.shows(`[data-test="brought"]`, "kiosk events.csv")
	before := p.text(`[data-test="verdict-days"]`)
	p.until(`/then \d/.test(document.querySelector('[data-test="then"]')?.textContent ?? '')`)
	p.click(`[data-test="correct-all"]`)
	p.until(fmt.Sprintf(`document.querySelector('[data-test="verdict-days"]').textContent.trim() !== %q.trim()`, before))
	p.until(`!/Kiosk front.*triggers a day/s.test(document.querySelector('[data-test="differ"]')?.textContent ?? '')`)
	p.until(`document.querySelector('[data-test="as-planned"]')?.textContent.includes('Kiosk front')`)
	p.keys("z", kb.ModifierCtrl)
	p.until(`[...document.querySelectorAll('[data-test="differ"] tr')].some(r => /Kiosk front.*triggers a day/s.test(r.textContent))`)
	p.click(`[aria-label="Take away kiosk events.csv"]`)
	p.until(`!document.querySelector('[data-test="brought"]').textContent.includes('kiosk events.csv')`)
	p.until(`!/triggers a day/.test(document.querySelector('[data-test="differ"]')?.textContent ?? '')`)
}

// TestWhatSomebodyTellsOfIsMended tells of an event that is missing, sees where it was lost, and lets the plan record it.
func TestWhatSomebodyTellsOfIsMended(t *testing.T) {
	s := serve(t, "lost", demo.PennywhistleQuay())
	p := browser(t, s, 1280, 800)
	p.open("/sites/lost/measured/missed", ".missed")
	p.pick(`[data-choice="missed-channel"]`, "13 Fuel store")
	p.do(chromedp.SendKeys(chromedp.CSS(`[data-field="missed-time"]`), "2.15 pm"))
	p.click(`[data-test="missed-ask"]`)
	p.shows(`[data-test="lost"]`, "does not listen to motion")
	p.shows(`[data-test="missed-odds"]`, "rehearsals")
	p.click(`[data-test="mend"]:not([disabled])`)
	p.until(`!document.querySelector('[data-test="lost"]')`)
	if head, err := s.store.Load(context.Background(), "lost"); err != nil || head.Version != 2 || !head.Plan.Channel("fuel").Detection.On {
		t.Errorf("%+v, %v", head, err)
	}
	p.do(chromedp.SendKeys(chromedp.CSS(`[data-field="missed-time"]`), " or a quarter past"))
	p.click(`[data-test="missed-ask"]`)
	p.shows(".missed", "A time is written as 16:20")
}

// brings brings in what was found at Pennywhistle Quay.
func (s *site) brings(t testing.TB) {
	t.Helper()
	for _, f := range demo.QuayFound() {
		said, err := json.Marshal(f.Data)
		if err != nil {
			t.Fatal(err)
		}
		b := store.Brought{ID: f.ID, Kind: f.Kind, Name: f.Name, Said: said, Author: "Wakefield"}
		if err := s.store.Bring(context.Background(), s.id, b); err != nil {
			t.Fatal(err)
		}
	}
}

// TestWhatIsSaidOfTheQuay opens the sample site with what was found there, and follows the link that brings its days back.
func TestWhatIsSaidOfTheQuay(t *testing.T) {
	s := serve(t, "quay", demo.PennywhistleQuay())
	s.brings(t)
	p := browser(t, s, 1280, 800)
	p.open("/sites/quay/measured", `[data-test="differ"]`)
	for _, words := range []string{"Waves ×2.69", "Vehicle lane 1, Vehicle lane 2", "events at a time", "post-event"} {
		p.shows(`[data-test="differ"]`, words)
	}
	p.shows(`[data-test="by-hour"]`, "Breakwater")
	p.shows(`[data-test="correct-all"]`, "4 changes")
	p.click(`[aria-label="Correct Breakwater, triggers a day"]`)
	p.click(`[aria-label^="Correct Vehicle lane 1"]`)
	p.shows(`[data-test="correct-all"]`, "2 changes")
	p.click(`[data-test="as-variant"]`)
	p.until(`document.querySelector('[data-test="variant"], .bar, header')?.textContent.includes('As measured')`)
	p.until(`[...document.querySelectorAll('[data-test="differ"] tbody tr')].length === 2`)
	p.until(`location.search.includes('variant=')`)
	p.open("/sites/quay/measured", `[data-test="differ"]`)
	p.click(`[data-test="bring-back"]`)
	p.until(`location.pathname.endsWith('/storage') && location.search.includes('days=40')`)
	p.open("/sites/quay/measured/right", `[data-test="how-right"]`)
	p.shows(`[data-test="how-right"]`, "Over 1 site")
}
