package e2e

import (
	"math"
	"testing"

	"github.com/chromedp/chromedp/kb"
)

// TestNumbersAreReadWithTheirUnits types numbers as people do: the unit that a field shows is kept, others are read.
func TestNumbersAreReadWithTheirUnits(t *testing.T) {
	s, p := quayAt(t, "/triggers/offsite", `[data-safe="fuel"]`)
	p.fill(`[data-test="uplink"]`, "Time a thief needs", "20") // where 3 min stands
	p.revision(2)
	p.fill(`[data-test="uplink"]`, "Uplink", "4 Mbps")
	p.revision(3)
	if o := s.plan(t).Offsite; o.TakenWithinSeconds != 1200 || o.UplinkKbps != 4000 {
		t.Errorf("%+v", o)
	}
	p.until(`[...document.querySelectorAll('[data-test="uplink"] input')].some((f) => f.value === '20 min')`)
	p.fill(`[data-test="uplink"]`, "Uplink", "1 500 kbps")
	p.revision(4)
	p.fill(`[data-test="uplink"]`, "Time a thief needs", "1 h")
	p.revision(5)
	p.fill(`[data-test="uplink"]`, "Uplink", "3 apples")
	p.shows(`[data-test="uplink"]`, "“3 apples” is not in kbit/s; unchanged: 1500")
	if o := s.plan(t).Offsite; o.TakenWithinSeconds != 3600 || o.UplinkKbps != 1500 {
		t.Errorf("%+v", o)
	}
}

// TestEveryPressCounts undoes and redoes faster than answers come, with the focus in a list, and behind an open question.
func TestEveryPressCounts(t *testing.T) {
	s, p := quayAt(t, "/triggers/offsite", `[data-safe="fuel"]`)
	const times = 12
	for k := range times {
		p.fill(`[data-test="uplink"]`, "Uplink", string(rune('1'+k%9))+"000")
		p.revision(2 + k)
	}
	changed := s.plan(t).Offsite.UplinkKbps
	press := func(key string) {
		eval[bool](p, `(() => {
			document.querySelector('[data-choice="Of an event"] input')?.focus()
			for (let k = 0; k < 12; k++) (document.activeElement ?? document.body).dispatchEvent(new KeyboardEvent('keydown', { key: '`+key+`', ctrlKey: true, bubbles: true }))
			return true
		})()`)
	}
	press("z")
	p.revision(1 + 2*times)
	if o := s.plan(t).Offsite; o.UplinkKbps != 6000 {
		t.Errorf("%v kbit/s after as many undone as were made", o.UplinkKbps)
	}
	press("y")
	p.revision(1 + 3*times)
	if o := s.plan(t).Offsite; o.UplinkKbps != changed {
		t.Errorf("%v kbit/s after all was done again, want %v", o.UplinkKbps, changed)
	}
	eval[bool](p, `(document.activeElement?.blur(), true)`)
	p.keys("?")
	p.shows(`.el-dialog`, "Keys, gestures and words")
	eval[bool](p, `(document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'z', ctrlKey: true, bubbles: true })), true)`)
	p.keys(kb.Escape)
	p.until(`[...document.querySelectorAll('.el-dialog')].every(e => !e.offsetParent)`)
	p.fill(`[data-test="uplink"]`, "Uplink", "7500")
	p.revision(2 + 3*times) // and nothing was undone meanwhile
	if o := s.plan(t).Offsite; o.UplinkKbps != 7500 {
		t.Errorf("%v", o.UplinkKbps)
	}
}

// TestAPriceStaysWithItsDrive opens two sizes and types a price into the first.
func TestAPriceStaysWithItsDrive(t *testing.T) {
	s, p := quayAt(t, "/storage", `[data-test="do-it"]`)
	p.number(`[data-test="target"]`, "drives", "4")
	p.number(`[data-test="target"]`, "money", "500")
	p.shows(`[data-test="prices"]`, "Price of 2.00 TB")
	p.click(`[data-test="prices"] .acts button`)
	p.click(`[data-test="add-price"]`)
	p.until(`document.querySelectorAll('[data-test="prices"] [data-field="price"]').length === 2`)
	p.number(`[data-test="prices"]`, "price", "90")
	p.revision(2)
	if d := s.plan(t).Prices.Drives; len(d) != 1 || d[0].Terabytes != 2 || d[0].Each != 90 {
		t.Errorf("%+v", d)
	}
	// The other is asked still, and empty.
	p.until(`(() => { const f = [...document.querySelectorAll('[data-test="prices"] [data-field="price"] input')]; return f.length === 2 && f[1].value === '' })()`)
	eval[bool](p, `([...document.querySelectorAll('[data-test="prices"] [data-field="price"] input')][1].focus(), true)`)
	p.keys("310")
	p.keys(kb.Enter)
	p.revision(3)
	if d := s.plan(t).Prices.Drives; len(d) != 2 || d[1].Terabytes != 8 || d[1].Each != 310 {
		t.Errorf("%+v", d)
	}
}

// TestTheCameraDecides says in Kit that a camera sets its own streams: a duty with fewer frames has no effect then, and is found.
func TestTheCameraDecides(t *testing.T) {
	s, p := quayAt(t, "/kit/channels", `[data-row="kiosk"]`)
	p.click(`[data-row="kiosk"] [data-column="name"]`)
	p.pick(`[data-choice="Streams set by"]`, "the camera")
	p.revision(2)
	if c := s.plan(t).Channel("kiosk"); c.StreamsBy != "camera" {
		t.Errorf("%+v", c.StreamsBy)
	}
	p.pick(`[data-choice="Streams set by"]`, "the recorder")
	p.revision(3)
	if c := s.plan(t).Channel("kiosk"); c.StreamsBy != "" {
		t.Errorf("%+v", c.StreamsBy)
	}
}

// TestWhatIsBeingTypedStays types half of a word while somebody else changes what stands around it.
func TestWhatIsBeingTypedStays(t *testing.T) {
	s, first := kit(t, "", cell("hall", "camera"))
	first.clickCell(cell("hall", "camera"))
	first.paste("perhaps\nyes")
	first.shows(`[data-test="cell-trouble"]`, `"perhaps" is neither yes nor none`)
	eval[bool](first,
		`(document.querySelector('[data-test="mend-cell"]').focus(), document.querySelector('[data-test="mend-cell"]').select(), true)`)
	first.keys("no")
	second := first.another()
	second.open("/sites/quay/kit", cell("hall", "name"))
	second.typed(cell("hall", "name"), "Great hall")
	first.revision(2)
	first.shows(`[data-test="cell-trouble"]`, "Great hall, Camera")
	first.keys("ne" + kb.Enter)
	first.revision(3)
	if !s.plan(t).Channel("hall").NoCamera {
		t.Error("what was typed is not what was set")
	}
}

// TestAnArrowThatIsHeldIsOneChange holds arrows on a corner, on a curve of rates and on a slider.
func TestAnArrowThatIsHeldIsOneChange(t *testing.T) {
	hold := func(p *page, css, key string) {
		eval[bool](p, `(() => {
			const e = document.querySelector('`+css+`')
			e.focus()
			const press = (kind) => e.dispatchEvent(new KeyboardEvent(kind, { key: '`+key+`', bubbles: true }))
			for (let k = 0; k < 5; k++) press('keydown')
			requestAnimationFrame(() => { press('keydown'); press('keyup') })
			return true
		})()`)
	}
	s, p := picturePage(t, "slip")
	p.click(`[data-tool="watch"]`)
	for _, at := range [][2]float64{{0.05, 0.5}, {0.25, 0.5}, {0.25, 0.95}} {
		p.clickAt(p.in(at[0], at[1]))
	}
	p.keys(kb.Enter)
	p.revision(2)
	corner := `[data-corner="area area-1 0"]`
	before := area(s.plan(t), "slip", "area-1").Points[0]
	hold(p, corner, "ArrowRight")
	p.revision(3)
	if after := area(s.plan(t), "slip", "area-1").Points[0]; math.Abs(after[0]-before[0]-6.0/500) > 0.0005 {
		t.Errorf("the corner went from %v to %v", before, after)
	}
	p.open("/sites/yard/kit/activities", `[data-test="rate-curve"]`)
	hold(p, `[data-test="rate-curve"]`, "ArrowUp")
	p.revision(4)
	p.keys("z", kb.ModifierCtrl)
	p.revision(5)
}

// TestWhatASiteNeedsToKnow types what whoever goes there needs to know, in several lines, and finds it again.
func TestWhatASiteNeedsToKnow(t *testing.T) {
	s, p := quayAt(t, "/kit/site", `[data-test="next"]`)
	p.until(`[...document.querySelectorAll('textarea')].some((f) => f.value.startsWith('Last ferry'))`)
	eval[bool](p,
		`(() => { const f = [...document.querySelectorAll('textarea')].find((f) => f.value.startsWith('Last ferry')); f.focus(); f.select(); return true })()`)
	p.keys("Two locks,")
	p.keys(kb.Enter)
	p.keys("one key")
	p.keys(kb.Tab)
	p.revision(2)
	if n := s.plan(t).Site.Notes; n != "Two locks,\none key" {
		t.Errorf("%q", n)
	}
	p.open("/sites/quay/history", "main")
	p.shows("main", "Notes: Two locks, one key")
}
