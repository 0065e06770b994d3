package e2e

import (
	"fmt"
	"net/http"
	"strconv"
	"strings"
	"testing"

	"github.com/chromedp/chromedp/kb"
)

// TestAMissedEventIsMended rehearses a week, finds an event that was missed, reads why, mends it by a finding's fix,
// and finds it kept in the same week.
func TestAMissedEventIsMended(t *testing.T) {
	_, p := quayAt(t, "/rehearse?from=2026-12-07&days=3&number=4", `[data-test="sums"]`)
	sums := func() (n []int) {
		for _, word := range strings.FieldsFunc(strings.ReplaceAll(p.text(`[data-test="sums"]`), "\u202f", ""),
			func(r rune) bool { return r < '0' || r > '9' }) {
			k, _ := strconv.Atoi(word)
			n = append(n, k)
		}
		return n
	}
	first := sums()
	if len(first) < 4 || first[0] != first[1]+first[2]+first[3] || first[3] == 0 {
		t.Fatalf("%v", first)
	}
	p.typed(`[data-field="find"] input, input[data-field="find"]`, "slipway")
	p.until(`document.querySelector('[data-test="timeline"]').getAttribute('aria-label').startsWith('1 channel ')`)
	p.click(`[data-test="next-missed"]`)
	p.shows(`[data-test="story"]`, "On disk it is missed")
	p.shows(`[data-test="story"] [data-test="answer"]`, "No: nothing of it is on disk")
	event := p.text(`[data-test="story"] h2`)
	p.click(`[data-mend^="likely-misses"]`)
	p.click(`[data-test="paint-own"]`) // some of the channels follow a named week
	p.revision(2)
	p.until(`document.querySelector('[data-test="story"] h2')?.innerText === ` + quoted(event) +
		` && !document.querySelector('[data-test="story"]').innerText.includes('On disk it is missed')`)
	p.shows(`[data-test="story"]`, "On disk it is kept")
	p.shows(`[data-test="story"] [data-test="answer"]`, "Only low: it is in the base layer of Slipway")
	p.until(`parseInt(document.querySelector('[data-test="sums"] b.short').innerText) < ` + strconv.Itoa(first[3]))

	// The same week before: what was missed is kept now, and nothing is lost.
	p.click(`[data-tab="beside"]`)
	p.shows(`[data-test="beside"]`, "Revision 1")
	p.until(`parseInt(document.querySelector('[data-test="turned"] b').innerText) > 0`)
	if lost := p.text(`[data-test="turned"] b + b, [data-test="turned"] b:nth-of-type(2)`); lost != "0" {
		t.Errorf("%s events are lost by the fix", lost)
	}
	p.keys("z", kb.ModifierCtrl)
	p.revision(3)
	p.until(`document.querySelector('[data-test="sums"] b.short').innerText.startsWith('` + strconv.Itoa(first[3]) + `')`)
}

// TestTheNightOfTheClocks asks for a time that clocks leave out, goes to another page and comes back to the same day.
func TestTheNightOfTheClocks(t *testing.T) {
	_, p := quayAt(t, "/rehearse?from=2027-03-28&days=1", `[data-test="sums"]`)
	p.click(`[data-tab="ask"]`)
	asked := func(time string) {
		eval[bool](p,
			`(document.querySelector('[data-field="ask-time"]').focus(), document.querySelector('[data-field="ask-time"]').select(), true)`)
		p.keys(time + kb.Enter)
	}
	asked("1:30")
	p.shows(`[data-test="took"]`, "leave out 01:30")
	asked("4:30")
	p.until(`!document.querySelector('[data-test="took"]')`)
	p.click(`.rail a[href$="/findings"]`)
	p.until(`!!document.querySelector('.finding')`)
	p.click(`.rail a[href$="/rehearse"]`)
	p.until(`document.querySelector('[data-test="timeline"]')?.getAttribute('aria-label').includes('from Sun 28 Mar')`)
}

// TestAQuestionIsAnswered asks for a moment, typed and pointed at, draws another week, plays, and reads the list.
func TestAQuestionIsAnswered(t *testing.T) {
	_, p := quayAt(t, "/rehearse?from=2026-12-07&number=4", `[data-test="sums"]`)
	was := p.text(`[data-test="sums"]`)
	p.click(`[data-tab="ask"]`)
	p.shows(`[data-test="answer"]`, "Ticket hall is on disk")
	p.until(`document.querySelector('[data-test="odds"]')?.innerText.includes('of 200')`)
	eval[bool](p,
		`(document.querySelector('[data-field="ask-time"]').focus(), document.querySelector('[data-field="ask-time"]').select(), true)`)
	p.keys("2:70" + kb.Enter)
	p.shows(`[data-test="ask"]`, "A time is written as 08:00")
	eval[bool](p, `(document.querySelector('[data-field="ask-time"]').select(), true)`)
	p.keys("7pm" + kb.Enter)
	p.shows(`[data-test="ask"]`, "19:00:00")
	eval[bool](p, `(document.querySelector('[data-field="ask-time"]').select(), true)`)
	p.keys("08:00:30" + kb.Enter)
	p.shows(`[data-test="ask"]`, "08:00:30")
	eval[bool](p, `(document.querySelector('[data-field="ask-time"]').select(), true)`)
	p.keys("3.30" + kb.Enter)
	p.shows(`[data-test="ask"]`, "03:30:00")
	p.shows(`[data-test="answer"]`, "No: nothing of Ticket hall")
	// A day is looked at first; the strip of all days brings another into view, and its frame is dragged to the next.
	strip := eval[[]float64](p,
		`(({left, top, width}) => [left, top + 20, width])(document.querySelector('[data-test="overview"]').getBoundingClientRect())`)
	on := func(day float64) point { return point{strip[0] + strip[2]*day/7, strip[1]} }
	seen := func(day string) {
		p.until(`document.querySelector('[data-test="timeline"]').getAttribute('aria-label').includes('from ` + day + `')`)
	}
	seen("Mon 7 Dec 00:00:00")
	p.clickAt(on(2.55))
	seen("Wed 9 Dec")
	p.drag(on(2.6), on(3.6))
	seen("Thu 10 Dec")
	box := eval[[]float64](p,
		`(({left, top, width}) => [left, top, width])(document.querySelector('[data-test="timeline"]').getBoundingClientRect())`)
	p.clickAt(point{box[0] + 148 + (box[2]-148)*0.5, box[1] + 34 + 28 + 20}) // the booth, on Thursday at noon, below its events
	p.shows(`[data-test="ask"]`, "Thu 10 Dec")
	p.shows(`[data-test="answer"]`, "Ticket booth is on disk")

	p.click(`[data-test="another"]`)
	p.until(`location.search.includes('number=5')`)
	p.until(`document.querySelector('[data-test="sums"]').innerText !== ` + quoted(was))
	p.number(`[data-test="rehearse"]`, "number", "4")
	p.until(`document.querySelector('[data-test="sums"]').innerText === ` + quoted(was))

	p.click(`[data-tab="worst"]`)
	p.shows(`[data-test="worst"]`, "wanted events are not on disk")
	p.click(`[data-tab="watch"]`)
	now := p.text(`[data-test="now"]`)
	p.click(`[data-test="watch"] [data-way="600"]`)
	p.click(`[data-test="play"]`)
	p.until(`document.querySelector('[data-test="now"]').innerText !== ` + quoted(now))
	p.click(`[data-test="play"]`)
	p.until(`document.querySelectorAll('[data-tile]').length === 15`)
	p.click(`[data-tab="list"]`)
	p.shows(`[data-test="event-list"]`, "kept in full")
	p.click(`[data-test="next-held"]`)
	p.click(`[data-tab="story"]`)
	p.shows(`[data-test="story"]`, "was not told")

	// Contacts and buttons have lines of their own, and their story.
	p.click(`[data-tab="list"]`)
	p.click(`[data-way="alarms"]`)
	p.shows(`[data-test="event-list"]`, "contact: happened")
	p.click(`[data-tab="story"]`)
	p.click(`[data-test="next-event"]`)
	p.shows(`[data-test="story"]`, "contact")
	if text := p.text(`[data-test="story"]`); strings.Contains(text, "Would we have it") {
		t.Errorf("a contact is asked for footage: %s", text)
	}

	// On the Sunday on which an hour comes twice, a time in the morning is what clocks show.
	p.open("/sites/quay/rehearse?from=2026-10-25&days=1", `[data-test="sums"]`)
	p.click(`[data-tab="ask"]`)
	for typed, seconds := range map[string]int{"0:30": 1800, "10:00": 11 * 3600} {
		eval[bool](p,
			`(document.querySelector('[data-field="ask-time"]').focus(), document.querySelector('[data-field="ask-time"]').select(), true)`)
		p.keys(typed + kb.Enter)
		p.until(`document.querySelector('[data-test="ask"]').innerText.includes("Sun 25 Oct ` + fmt.Sprintf("%05s", typed) + `:00")`)
		p.until(fmt.Sprintf(`performance.getEntriesByType('resource').some((r) => r.name.includes('/have') && new URL(r.name).searchParams.get('at') === '%d')`, seconds))
	}
}

// TestDaysThatCannotBeRehearsed types dates and numbers that are none, and rates that would fill the world.
func TestDaysThatCannotBeRehearsed(t *testing.T) {
	s, p := quayAt(t, "/rehearse?from=2026-12-07&number=4", `[data-test="sums"]`)
	p.number(`[data-test="rehearse"]`, "days", "15")
	p.shows(`[data-test="rehearse"]`, "at most 14")
	p.open("/sites/quay/rehearse?from=1066-10-14", `[data-test="rehearse-failure"]`)
	p.shows(`[data-test="rehearse-failure"]`, "1970")
	p.open("/sites/quay/rehearse?from=nonsense", `[data-test="rehearse-failure"]`)
	p.shows(`[data-test="rehearse-failure"]`, "No such date")
	a := s.plan(t).Activities[0]
	body := fmt.Sprintf(`{"version":1,"edits":[{"setActivity":{"activity":{"id":%q,"name":%q,"known":"guess","meanSeconds":1,"otherwisePerHour":1000000}}}]}`, a.ID, a.Name)
	answer, err := http.Post(s.url+"/api/plans/quay/edits", "application/json", strings.NewReader(body))
	if err != nil || answer.StatusCode != 200 {
		t.Fatal(err, answer.Status)
	}
	answer.Body.Close()
	p.open("/sites/quay/rehearse?from=2026-12-07&days=14", `[data-test="rehearse-failure"]`)
	p.shows(`[data-test="rehearse-failure"]`, "events would happen")
}

// TestThePictureHasAllRows takes the timeline away as a picture: named, and as high as all its rows, title and legend.
func TestThePictureHasAllRows(t *testing.T) {
	s, p := quayAt(t, "/rehearse?from=2026-12-07&days=1&number=4", `[data-test="sums"]`)
	eval[bool](p, `(HTMLAnchorElement.prototype.click = function () { window.kept = this }, true)`)
	p.item(`[data-test="save-week"]`, "The timeline, as a picture")
	p.until(`window.kept`)
	if name := eval[string](p, `window.kept.download`); name != "Pennywhistle Quay, As surveyed, rehearsal from 2026-12-07 number 4.png" {
		t.Error(name)
	}
	eval[bool](p, `(() => { window.seen = new Image(); window.seen.src = window.kept.href; return true })()`)
	p.until(`window.seen.naturalHeight`)
	cameras := 0
	for _, c := range s.plan(t).Channels {
		if !c.NoCamera {
			cameras++
		}
	}
	if high := eval[int](p, `window.seen.naturalHeight / devicePixelRatio`); high < 28*cameras+80 {
		t.Errorf("it is %d pixels high, for %d cameras", high, cameras)
	}
}
