package e2e

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"wakefield.example/internal/demo"
)

// TestHabits holds what is written for readers of other habits to tables.
func TestHabits(t *testing.T) {
	p := modules(t)
	const american, german = `{ is12: true, apart: ',', point: '.' }`, `{ is12: false, apart: '.', point: ',' }`
	const french = `{ is12: false, apart: '\u202f', point: ',' }`
	holds(p, "times and numbers of a text", []row{
		{`m.write.written('from 14:05 to 24:00, and 6:00', ` + american + `)`, `"from 2:05\u202fpm to 12:00\u202fam, and 6:00\u202fam"`},
		{`m.write.written('Mon 00:30–12:00 is 1\u202f234.5 GB', ` + american + `)`, `"Mon 12:30\u202fam–12:00\u202fpm is 1,234.5 GB"`},
		{`m.write.written('14:05:09', ` + american + `)`, `"2:05:09\u202fpm"`},
		{`m.write.written('2:05 pm and 31:00', ` + american + `)`, `"2:05 pm and 31:00"`},
		{`m.write.written('2:05 pm', ` + american + `)`, `"2:05 pm"`},
		{`m.write.written('14:05', ` + german + `)`, `"14:05"`},
		{`m.write.written('holds 34.8 of 40 days.', ` + german + `)`, `"holds 34,8 of 40 days."`},
		{`m.write.written('34.8. Then 1\u202f234\u202f567.25; −0.5 d, 2.9:1', ` + german + `)`, `"34,8. Then 1.234.567,25; −0,5 d, 2,9:1"`},
		{`m.write.written('0.6.0, 10.0.0.7, 127.0.0.1:8460, H.264, plan-2.5.json, v1.5', ` + german + `)`,
			`"0.6.0, 10.0.0.7, 127.0.0.1:8460, H.264, plan-2.5.json, v1.5"`},
		{`m.write.written('00:1a:2b:14:05:09', ` + american + `)`, `"00:1a:2b:14:05:09"`},
		{`m.write.written('1500, 16:9 and 4', ` + german + `)`, `"1500, 16:9 and 4"`},
		{`m.write.written('“Gate 2.5” keeps 2.5 d', ` + german + `, m.write.namesIn(['Gate 2.5', 'Gate 2.5 (left)']))`,
			`"“Gate 2.5” keeps 2,5 d"`},
		{`m.write.written('“1.500” is at least 2.5: write “1500”', ` + german + `)`, `"“1.500” is at least 2,5: write “1500”"`},
		{`[0, 6, 12, 18, 24].map(m.write.hourWritten).join()`, `"12a,6a,12p,6p,12a"`},
	})
	number := func(text, habits string) string {
		return fmt.Sprintf("m.number.readNumber(%q, {}, '', %s)", text, habits)
	}
	sent := func(text, habits string) string { return fmt.Sprintf("m.number.sentNumber(%q, %s)", text, habits) }
	holds(p, "numbers of those who type them otherwise", []row{
		{number("1,125", german), `{"value":1.125}`}, {number("0,125", german), `{"value":0.125}`}, {number("1.5", german), `{"value":1.5}`},
		{number("1.125", german), `{"why":"“1.125” can mean two numbers: write “1125” or “1,125”"}`},
		{number("12.500,5", german), `{"value":12500.5}`}, {number("0.125", german), `{"value":0.125}`},
		{number("1.125", french), `{"value":1.125}`}, {number("1,125", french), `{"value":1.125}`},
		{number("1,125", american), `{"why":"“1,125” can mean two numbers: write “1125” or “1.125”"}`},
		{sent("1,125", german), `{"text":"1.125"}`}, {sent(" −1,125 kbit/s", german), `{"text":"-1.125 kbit/s"}`},
		{sent("1.125 Mbit/s", german), `{"why":"“1.125 Mbit/s” can mean two numbers: write “1125” or “1,125”"}`},
		{sent("1.125", french), `{"text":"1.125"}`}, {sent("1,125", french), `{"text":"1.125"}`},
		{sent("1,125", american), `{"text":"1,125"}`}, {sent("soon", german), `{"text":"soon"}`}, {sent("", german), `{"text":""}`},
		{sent("12,5", german), `{"text":"12,5"}`},
	})
	holds(p, "habits of browsers", []row{
		{`m.now.habitsOf('', 'en-US')`, `{"is12":true,"apart":",","point":"."}`},
		{`m.now.habitsOf('', 'de-DE')`, `{"is12":false,"apart":".","point":","}`},
		{`m.now.habitsOf('', 'fr-FR')`, `{"is12":false,"apart":"\u202f","point":","}`},
		{`m.now.habitsOf('', 'ar-EG')`, `{"is12":true,"apart":",","point":"."}`},
		{`m.now.habitsOf('24||', 'en-US')`, `{"is12":false,"apart":",","point":"."}`},
		{`m.now.habitsOf('12|6|.,', 'en-GB')`, `{"is12":true,"apart":".","point":","}`},
		{`m.kept.HOUSE`, `"24|0|\u202f."`},
		{`m.now.differs`, `false`},
		{`['en-US', 'de-DE', 'ar-EG', 'pt-BR'].map((l) => m.kept.firstOf('', l)).join()`, `"6,0,5,6"`},
		{`m.kept.firstOf('||', 'en-US') + ',' + m.kept.firstOf('|0|', 'en-US') + ',' + m.kept.firstOf('x|y', 'en-US')`, `"6,0,0"`},
	})
	holds(p, "names of answers", []row{
		{`(m.names.learn(JSON.stringify({ name: 'Gate 2.5', names: ['Yard 14:30', 'Yard'], sentence: 'Keeps 2.5 d', note: '3.5', group: 'a "2.5" b' })),
			m.names.names().source)`, `"(Yard 14:30|a \"2\\.5\" b|Gate 2\\.5)"`},
	})
	const sunday = `6 * 1440`
	holds(p, "a week that begins on Sunday", []row{
		{`m.turn.minuteTurned(0, ` + sunday + `) + ',' + m.turn.minuteTurned(6 * 1440 + 5, ` + sunday + `)`, `"1440,5"`},
		{`m.turn.spansTurned([{ from: 8600, to: 8700, name: 'n' }, { from: 10020, to: 60 }], ` + sunday + `)`,
			`[{"from":0,"to":60,"name":"n"},{"from":1380,"to":1500},{"from":10040,"to":10080,"name":"n"}]`},
		{`m.turn.stepsTurned([{ from: 0, duty: 'a' }, { from: 60, duty: 'b' }, { from: 9000, duty: 'a' }], ` + sunday + `)`,
			`[{"from":0,"duty":"b"},{"from":360,"duty":"a"},{"from":1500,"duty":"b"}]`},
		{`m.turn.stepsTurned([{ from: 0, duty: 'a' }], ` + sunday + `)`, `[{"from":0,"duty":"a"}]`},
		{`m.turn.turned({ ribbons: [{ id: 'r', ink: { from: [0, 8640], base: [1, 2] }, rail: [], deaf: null }], tide: { base: [...Array(336).keys()], busiestAt: 8640 } },
			` + sunday + `)`,
			`{"ribbons":[{"id":"r","ink":{"from":[0,1440],"base":[2,1]},"rail":[],"deaf":null}],"tide":{"base":` + from288() + `,"busiestAt":0}}`},
		{`m.turn.turned({ hours: { at: [{ id: 'x', sent: [...Array(168).keys()] }] } }, ` + sunday + `).hours.at[0].sent.slice(0, 2)`, `[144,145]`},
		{`m.turn.turned({ steps: [{ words: 'not of a week' }], hours: [{ days: ['mon'], from: '00:00', to: '01:00' }], copy: 'events' }, ` + sunday + `)`,
			`{"steps":[{"words":"not of a week"}],"hours":[{"days":["mon"],"from":"00:00","to":"01:00"}],"copy":"events"}`},
	})
}

// from288 are the half hours of a week from Sunday on, counted from Monday.
func from288() string {
	var list []int
	for i := range 336 {
		list = append(list, (i+288)%336)
	}
	data, _ := json.Marshal(list)
	return string(data)
}

// speaks has a browser speak a language, as people set it.
func (p *page) speaks(language string) {
	p.Helper()
	p.do(chromedp.Func(func(ctx context.Context, target *chromedp.Target) error {
		_, err := chromedp.Call(ctx, emulation.SetUserAgentOverride, emulation.SetUserAgentOverrideParams{
			UserAgent: "Wakefield's tests", AcceptLanguage: language})
		return err
	}))
	p.runsFirst(`try { if (localStorage['wakefield-habits'] === '24|0|\u202f.') localStorage['wakefield-habits'] = '' } catch {}`)
}

// TestReadersHabits opens a site in a browser that speaks American English, then has it write otherwise, and paints and types in both.
func TestReadersHabits(t *testing.T) {
	s := serve(t, "quay", demo.PennywhistleQuay())
	p := browser(t, s, 1280, 800)
	p.speaks("en-US")
	p.open("/sites/quay", gangwayA+" canvas")
	p.shows(verdict, "days")
	days := func() string {
		return eval[string](p, `[...document.querySelectorAll('[data-day-heading]')].map((e) => e.innerText.trim().slice(0, 3)).join()`)
	}
	if got := days(); got != "Sun,Mon,Tue,Wed,Thu,Fri,Sat" {
		t.Errorf("the week of an American is %s", got)
	}
	if got := eval[string](p, `[...document.querySelectorAll('[data-hour]')].map((e) => e.textContent).slice(0, 4).join()`); got != "12p,12p,12p,12p" {
		t.Errorf("the hours of an American are %s", got)
	}

	// A stroke over the beginning of the shown week is one of Sunday and Monday; what follows is written as they read it.
	p.click(`[data-duty="off"]`)
	p.drag(p.on("booth", 480), p.on("booth", 1440+600))
	p.until(`document.querySelector('[data-test="undo"]').title === 'Undo: Ticket booth, Mon, Sun 8:00\u202fam-10:00\u202fam: Off (Ctrl+Z)'`)
	painted := func() string {
		return eval[string](p, `fetch('/api/sites/quay').then((r) => r.json()).then(({ plan }) => {
			const rail = plan.ribbons.find((r) => r.id === 'booth').rail
			return JSON.stringify(rail.map((s, i) => [s.from, rail[i + 1]?.from ?? 10080, s.duty]).filter((s) => s[2] === 'off').map((s) => s.slice(0, 2)))
		})`)
	}
	if got := painted(); got != "[[480,600],[9120,9240]]" {
		t.Errorf("off at %s, in minutes from Monday", got)
	}
	p.until(`document.querySelector('[data-channel="booth"] .time').getAttribute('aria-label').includes('. Sunday')`)

	// The time looked at is one and the same in the address, whatever day a week begins with: Sunday 08:00 to Monday 08:00.
	p.open("/sites/quay?time=9120-480", gangwayA+" canvas")
	p.until(`[...document.querySelectorAll('[data-day-heading]')].map((e) => e.dataset.dayHeading).join() === '0,1'`)

	// Numbers in fields too, and names as they were given.
	p.open("/sites/quay?channels=booth", gangwayA+" canvas")
	p.habits("24", "0", ".,")
	if got := days(); got != "Mon,Tue,Wed,Thu,Fri,Sat,Sun" {
		t.Errorf("the week of a German is %s", got)
	}
	p.until(`/^\d+,\d days/.test(document.querySelector('` + verdict + `').innerText.trim())`)
	p.until(`document.querySelector('[data-test="undo"]').title === 'Undo: Ticket booth, Mon, Sun 08:00-10:00: Off (Ctrl+Z)'`)
	body := `{"version":2,"edits":[{"setCells":{"columns":["name"],"rows":[{"channel":"booth","values":["Booth 2.5 at 14:30"]}]}}]}`
	answer, err := http.Post(s.url+"/api/plans/quay/edits", "application/json", strings.NewReader(body))
	if err != nil || answer.StatusCode != 200 {
		t.Fatalf("%v, %v", answer, err)
	}
	answer.Body.Close()
	p.until(`document.querySelector('[data-channel="booth"] .name').textContent === 'Booth 2.5 at 14:30'`)

	// Cells of the table are typed as they are read; what can mean two to whoever types it is refused as it was typed.
	p.open("/sites/quay/kit", cell("booth", "name"))
	p.typed(cell("booth", "main.fps"), "1,125")
	p.until(`document.querySelector('` + cell("booth", "main.fps") + `')?.innerText.trim() === '1,125'`)
	p.typed(cell("booth", "main.fps"), "1.500")
	p.shows(`[data-test="cell-trouble"]`, "“1.500” can mean two numbers: write “1500” or “1,500”")
	p.until(`document.querySelector('` + cell("booth", "main.fps") + `').innerText.trim() === '1.500'`)
	p.typed(cell("booth", "main.fps"), "1,5")
	p.until(`document.querySelector('` + cell("booth", "main.fps") + `')?.innerText.trim() === '1,5'`)
	p.until(isSaved + ` && document.querySelector('` + stateText + `').innerText.includes('revision 5')`)
	if got := eval[float64](p, `fetch('/api/sites/quay').then((r) => r.json()).then((s) => s.plan.plan.channels.find((c) => c.id === 'booth').streams.main.fps)`); got != 1.5 {
		t.Errorf("the booth has %v pictures a second", got)
	}

	p.open("/sites/quay", gangwayA+" canvas")
	p.habits("12", "", "")
	p.until(`document.querySelector('[data-channel="booth"] .name').textContent === 'Booth 2.5 at 14:30'`)
}

// habits chooses how times, the week and numbers are shown, where everybody finds it, and waits for the page with them.
func (p *page) habits(clock, first, signs string) {
	p.Helper()
	p.until(`window.before = true`)
	p.keys("k", kb.ModifierCtrl)
	p.until(`document.activeElement?.dataset.test === 'command'`)
	p.keys("am pm" + kb.Enter)
	for name, value := range map[string]string{"Times": clock, "The week begins on": first, "Numbers": signs} {
		p.click(`[data-test="habit-` + name + `"] input[value="` + value + `"]`)
	}
	p.click(`[data-test="keep-habits"]`)
	p.until(`!window.before && !!document.querySelector('` + gangwayA + ` canvas')`)
}
