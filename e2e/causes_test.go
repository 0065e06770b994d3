package e2e

import (
	"fmt"
	"slices"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"wakefield.example/core/plan"
)

// causes opens the ferry terminal where causes are tied to what they do.
func causes(t *testing.T) (*site, *page) {
	t.Helper()
	s, p := quayAt(t, "/triggers/causes", `[data-pick="motion hall"]`)
	p.until(`document.querySelectorAll('[data-test="targets"] [data-pick]').length > 3`)
	return s, p
}

// find types into one side's search, so that what is looked for is in sight.
func (p *page) find(side, text string) {
	p.Helper()
	p.focus(`[data-test="` + side + `"] input[type="search"]`)
	eval[bool](p, `(document.activeElement.select(), true)`)
	p.keys(text)
}

// beside clicks something with Ctrl held.
func (p *page) beside(css string) {
	p.Helper()
	p.still(css)
	box := eval[[]float64](p,
		fmt.Sprintf(`(({left, top, width, height}) => [left + width / 3, top + height / 2])(document.querySelector(%q).getBoundingClientRect())`,
			css))
	p.clickAt(point{box[0], box[1]}, chromedp.ButtonModifiers(kb.ModifierCtrl))
}

// fill types into the field of a label within a part of the page, once it is there.
func (p *page) fill(within, label, value string) {
	p.Helper()
	p.until(fmt.Sprintf(`(() => {
		const l = [...document.querySelectorAll(%q + ' label')].find((l) => l.innerText.trim() === %q)
		const field = l && document.getElementById(l.htmlFor)
		field?.focus()
		field?.select()
		return !!field
	})()`, within, label))
	p.keys(value)
	p.keys(kb.Enter)
}

func effect(p *plan.Plan, when plan.When) *plan.Effect {
	i := slices.IndexFunc(p.Effects, func(e plan.Effect) bool { return e.When.Same(when) && e.Hours == nil })
	if i < 0 {
		return nil
	}
	return &p.Effects[i]
}

// TestAContactIsTiedToThreeChannels ties it by pointer, sees that one of them does not listen, mends it, and unties one.
func TestAContactIsTiedToThreeChannels(t *testing.T) {
	s, p := causes(t)
	p.find("causes", "luggage room contact")
	p.click(`[data-pick="alarm luggage-contact"]`)
	p.shows(`[data-test="wrong-way"]`, "keep 1 channel recording")
	p.until(`document.querySelectorAll('[data-tie]').length === 3`)
	p.find("targets", "records")
	p.click(`[data-pick="record hall"]`)
	p.beside(`[data-pick="record lane-1"]`)
	p.beside(`[data-pick="record slipway"]`)
	p.shows(`[data-test="tie"]`, "Tie Luggage room contact to 3 effects")
	p.click(`[data-test="tie"]`)
	p.revision(2)
	if e := effect(s.plan(t), plan.When{Alarm: "luggage-contact"}); !slices.Equal(e.Record, []string{"luggage", "hall", "lane-1", "slipway"}) {
		t.Fatalf("%+v", e)
	}
	p.until(`document.querySelectorAll('[data-tie]').length === 3`)
	p.until(`document.querySelectorAll('[data-test="strands"] path').length >= 3`)
	p.shows(`[data-tie$="record slipway"] [data-test="why"]`, "never acts: its duty ignores it then")
	p.click(`[data-tie$="record slipway"] [data-mend]`)
	p.revision(3)
	p.until(`!document.querySelector('[data-tie$="record slipway"] [data-test="why"]')`)
	p.shows(`[data-tie$="record slipway"]`, "86.1 a day")
	p.click(`[data-tie$="record lane-1"] [data-test="untie"]`)
	p.revision(4)
	if e := effect(s.plan(t), plan.When{Alarm: "luggage-contact"}); slices.Contains(e.Record, "lane-1") {
		t.Errorf("%+v", e)
	}
	p.keys("z", kb.ModifierCtrl)
	p.revision(5)
	if e := effect(s.plan(t), plan.When{Alarm: "luggage-contact"}); !slices.Contains(e.Record, "lane-1") {
		t.Errorf("%+v", e)
	}
}

// TestAFixThatPaintsAsksAboutTheNamedWeek lets a channel listen to alarms that follows a week with others.
func TestAFixThatPaintsAsksAboutTheNamedWeek(t *testing.T) {
	s, p := causes(t)
	p.find("causes", "luggage room contact")
	p.click(`[data-pick="alarm luggage-contact"]`)
	p.find("targets", "gangway")
	p.click(`[data-pick="record gangway-a"]`)
	p.click(`[data-test="tie"]`)
	p.revision(2)
	followed := s.plan(t).Channel("gangway-a").Week.Named
	p.shows(`[data-tie$="record gangway-a"] [data-test="effect"]`, "GB a day")
	p.click(`[data-tie$="record gangway-a"] [data-mend]`)
	p.shows(".el-dialog", "follows the week")
	p.click(`[data-test="paint-week"]`)
	p.revision(3)
	if now := s.plan(t).Channel("gangway-a").Week.Named; followed == "" || now != followed {
		t.Errorf("it followed %q and follows %q", followed, now)
	}
	p.until(`!document.querySelector('[data-tie$="record gangway-a"] [data-test="why"]')`)
}

// TestCamerasThatSeeTheSamePlace ties a set of channels to each other by keyboard alone.
func TestCamerasThatSeeTheSamePlace(t *testing.T) {
	s, p := causes(t)
	p.find("causes", "gangway")
	p.until(`document.querySelectorAll('[data-test="causes"] [data-pick]').length >= 2 && document.querySelectorAll('[data-test="causes"] [data-pick]').length <= 8`)
	p.focus(`[data-test="causes"] [role="listbox"]`)
	order := eval[[]string](p, `[...document.querySelectorAll('[data-test="causes"] [data-pick]')].map((e) => e.dataset.pick)`)
	for _, key := range order {
		p.keys(kb.ArrowDown)
		if key == "motion gangway-a" || key == "motion gangway-b" {
			p.keys(" ")
		}
	}
	p.shows(`[data-test="see-the-same"]`, "These 2 see the same place")
	p.focus(`[data-test="see-the-same"]`)
	p.keys(kb.Enter)
	p.revision(2)
	for from, to := range map[string]string{"gangway-a": "gangway-b", "gangway-b": "gangway-a"} {
		if e := effect(s.plan(t), plan.When{Motion: from}); e == nil || !slices.Equal(e.Record, []string{to}) {
			t.Errorf("%s: %+v", from, e)
		}
	}
	// Its own recording is a tie too.
	p.focus(`[data-test="causes"] [role="listbox"]`)
	p.keys(kb.Escape)
	p.click(`[data-pick="motion gangway-a"]`)
	p.click(`[data-test="own-off"]`)
	p.revision(3)
	p.shows(`[data-pick="motion gangway-a"]`, "records others only")
}

// TestTiesHaveHours gives a tie hours, a camera another time to look away, and refuses what is no time.
func TestTiesHaveHours(t *testing.T) {
	s, p := causes(t)
	p.find("causes", "fuel store contact")
	p.click(`[data-pick="alarm fuel-contact"]`)
	sent := `[data-tie$="preset slipway / hatch"]`
	p.shows(sent, "for 60 s")
	p.click(sent + ` [data-test="tie-hours"]`)
	p.fill(sent+` .more`, "Looks there for", "a week")
	p.shows(sent, "is not a number")
	p.fill(sent+` .more`, "Looks there for", "25")
	p.revision(2)
	p.shows(sent, "for 25 s")
	if e := effect(s.plan(t), plan.When{Alarm: "fuel-contact"}); e.Preset[0].DwellSeconds != 25 {
		t.Errorf("%+v", e.Preset)
	}
}

// TestHowOftenPicturesAreLost says it of two cameras at once, and not of the one picked after them.
func TestHowOftenPicturesAreLost(t *testing.T) {
	s, p := causes(t)
	often := func(channel string) float64 {
		if e := effect(s.plan(t), plan.When{Lost: channel}); e != nil {
			return e.When.PerMonth
		}
		return 0
	}
	p.find("causes", "lost")
	p.click(`[data-pick="lost booth"]`)
	p.fill(`.pane`, "Times a month", "0.5")
	p.revision(2)
	p.click(`[data-pick="lost fuel"]`)
	p.until(`[...document.querySelectorAll('.pane input')].some((i) => i.value === '0.1')`)
	p.beside(`[data-pick="lost booth"]`)
	p.until(`[...document.querySelectorAll('.pane label')].some((l) => l.innerText.trim() === 'Times a month' && document.getElementById(l.htmlFor).value === '')`)
	p.fill(`.pane`, "Times a month", "2")
	p.revision(3)
	if often("booth") != 2 || often("fuel") != 2 {
		t.Errorf("%v and %v a month, want 2 of both", often("booth"), often("fuel"))
	}
	p.click(`[data-pick="lost hall"]`)
	p.find("targets", "pier office")
	p.click(`[data-pick="message pier-office"]`)
	p.click(`[data-test="tie"]`)
	p.revision(4)
	if often("hall") != 0.1 || often("fuel") != 2 {
		t.Errorf("%v a month for one that nobody spoke of, %v of the other", often("hall"), often("fuel"))
	}
}

// TestTwoPeopleTieOneCause ties different things in two browsers at once.
func TestTwoPeopleTieOneCause(t *testing.T) {
	s, p := causes(t)
	q := p.another()
	q.open("/sites/quay/triggers/causes", `[data-pick="motion hall"]`)
	for _, page := range []*page{p, q} {
		page.click(`[data-pick="motion hall"]`)
		page.until(`document.querySelector('[data-pick="message pier-office"]') !== null`)
	}
	p.click(`[data-pick="message pier-office"]`)
	q.click(`[data-pick="monitor harbour-screen"]`)
	p.click(`[data-test="tie"]`)
	q.click(`[data-test="tie"]`)
	p.revision(3)
	q.revision(3)
	if e := effect(s.plan(t), plan.When{Motion: "hall"}); e == nil || len(e.Message) != 1 || len(e.Monitor) != 1 {
		t.Errorf("%+v", e)
	}
}

// TestInputsAndButtonsAreMade makes an alarm input and a button, says what they are, and removes one.
func TestInputsAndButtonsAreMade(t *testing.T) {
	s, p := causes(t)
	p.click(`[data-test="new-alarm"]`)
	p.revision(2)
	form := `[data-input="alarm-input"]`
	p.until(`!!document.querySelector('` + form + `')`)
	p.pick(form+` .field:has([data-choice="Contact"])`, "normally open")
	p.revision(3)
	p.pick(form+` .field:has([data-choice="Watches the housing of"])`, "Harbour office")
	p.revision(4)
	if a := s.plan(t).AlarmInput("alarm-input"); a == nil || a.Contact != "normallyOpen" || a.Guards != "nvr" {
		t.Errorf("%+v", a)
	}
	p.click(`[data-test="new-button"]`)
	p.revision(5)
	p.until(`!!document.querySelector('[data-button="button"]')`)
	p.fill(`[data-button="button"]`, "Pressed", "3,5")
	p.revision(6)
	if b := s.plan(t).CallButton("button"); b == nil || b.PressesPerWeek != 3.5 {
		t.Errorf("%+v", b)
	}
	p.click(`[data-button="button"] .link.short`)
	p.revision(7)
	p.until(`!document.querySelector('[data-button="button"]')`)
}

// TestAnIntervalIsTurned turns how often a receiver is told, watches what goes out and is held back, and gives it quiet hours.
func TestAnIntervalIsTurned(t *testing.T) {
	s, p := quayAt(t, "/triggers/messages", `[data-card="pier-office"] [data-test="per-day"]`)
	card := `[data-card="pier-office"] `
	p.shows(card+`[data-test="per-day"]`, "40.4")
	p.shows(card, "Pier office is told 40.4 times a day, more than the 30 a day set as readable")
	p.focus(card + `input[type="range"]`)
	p.keys(kb.ArrowRight)
	p.keys(kb.ArrowRight)
	p.until(`Number(document.querySelector('` + card + `[data-test="per-day"]').innerText) < 30`)
	eval[bool](p, `(document.activeElement.blur(), true)`)
	p.until(`document.querySelector('[data-message="pier-office"]').querySelectorAll('input')[2].value === '30 min'`)
	if m := s.plan(t).Message("pier-office"); m.AtMostEverySeconds != 1800 {
		t.Errorf("%+v", m)
	}
	p.fill(`[data-message="pier-office"]`, "At most one every", "0")
	p.shows(`[data-message="pier-office"]`, "At least 1 s; unchanged: 30 min")
	p.fill(`[data-message="pier-office"]`, "At most one every", "1 year")
	p.shows(`[data-message="pier-office"]`, "Not a length of time")
	p.fill(`[data-message="pier-office"]`, "At most one every", "1,5 h")
	p.revision(4)
	p.fill(`[data-message="pier-office"]`, "Goes out", "Mon-Fri 8-12")
	p.revision(5)
	if m := s.plan(t).Message("pier-office"); m.AtMostEverySeconds != 5400 || m.Hours == nil || len(m.Hours.Blocks) != 1 {
		t.Errorf("%+v", m)
	}
	p.click(`[data-test="new-output"]`)
	p.revision(6)
	p.until(`!!document.querySelector('[data-card="output"]')`)
}

// TestPresetsAndStills makes a camera movable, takes stills, and mends what is missing of them.
func TestPresetsAndStills(t *testing.T) {
	s, p := quayAt(t, "/triggers/stills", `[data-movable="slipway"] [data-test="away"]`)
	p.shows(`[data-movable="slipway"]`, "Fuel store contact sends it to Fuel store hatch for 60 s")
	p.click(`[data-movable="slipway"] button[aria-label="Remove the preset Fuel store hatch"]`)
	p.shows(`[data-movable="slipway"]`, "Fuel store contact sends it to the preset hatch; untie that first")
	p.pick(`[data-test="movable"] .start`, "8 Breakwater")
	p.revision(2)
	p.click(`[data-movable="breakwater"] [data-test="add-preset"]`)
	p.revision(3)
	if m := s.plan(t).Channel("breakwater").Movable; m == nil || len(m.Presets) != 3 || m.Home != "preset-1" {
		t.Errorf("%+v", m)
	}
	p.click(`[data-rule="stills-incomplete"] [data-mend]`)
	p.revision(4)
	p.until(`document.querySelectorAll('[data-stills]').length === 2`)
	p.pick(`[data-stills="fuel"] .field:has([data-choice="Taken"])`, "at fixed times")
	p.revision(5)
	p.shows(`[data-stills="fuel"] [data-test="stills-per-day"]`, "8\u202f640")
	p.fill(`[data-stills="fuel"]`, "Resolution", "big")
	p.shows(`[data-stills="fuel"]`, "Not a picture size")
	p.until(`[...document.querySelectorAll('[data-stills="fuel"] input')].some((e) => e.value === 'big')`) // beside the reason
	p.fill(`[data-stills="fuel"]`, "Resolution", "1920x1080")
	p.revision(6)
	if st := s.plan(t).Channel("fuel").Stills; st.Width != 1920 || st.Mode != "timed" {
		t.Errorf("%+v", st)
	}
}

// TestWhenACopyIsSafe reads how long footage stays only on site, slows the uplink down, and copies less.
func TestWhenACopyIsSafe(t *testing.T) {
	s, p := quayAt(t, "/triggers/offsite", `[data-safe="fuel"]`)
	p.shows(`[data-test="race"]`, "Fuel store is safe last: nine of ten are safe within 4.7 min of the event")
	p.shows(`[data-test="race"]`, "A thief needs 3 min: 100 % come later")
	p.shows(`[data-test="cut"]`, "Somebody is told")
	p.click(`[data-switch="Line watched"]`)
	p.revision(2)
	p.shows(`[data-test="cut"]`, "Nobody would know")
	p.shows(`[data-rule="copy-unwatched"]`, "Nobody is told when the uplink of the copy is cut")
	p.click(`[data-switch="Line watched"]`)
	p.revision(3)
	p.until(`!document.querySelector('[data-rule="copy-unwatched"]')`)
	p.fill(`[data-test="uplink"]`, "Uplink", "0")
	p.shows(`[data-test="uplink"]`, "at least 1")
	p.fill(`[data-test="uplink"]`, "Uplink", "100")
	p.revision(4)
	p.shows(`.figures`, "never catches up")
	p.shows(`[data-rule="copy-never-catches-up"]`, "a week brings")
	p.click(`[data-instead="sub"] button`)
	p.revision(5)
	p.until(`!document.querySelector('[data-rule="copy-never-catches-up"]')`)
	if o := s.plan(t).Offsite; o.Copy != "sub" || o.UplinkKbps != 100 {
		t.Errorf("%+v", o)
	}
}
