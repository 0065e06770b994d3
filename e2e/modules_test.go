package e2e

import (
	"bytes"
	"encoding/json"
	"fmt"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"reflect"
	"strings"
	"sync"
	"testing"

	"wakefield.example/core/quantity"
	"wakefield.example/internal/demo"
)

// pure are modules of the front end that draw nothing, by the names under which the tests have them.
var pure = map[string]string{
	"number": "ui/number", "date": "ui/date", "duration": "ui/duration", "size": "ui/size", "figures": "ui/figures", "rowKey": "ui/rowKey",
	"echo": "time/echo", "ticks": "time/ticks", "week": "time/week", "patch": "site/patch", "queue": "site/useQueue", "turns": "site/useTurns",
	"format": "api/format", "again": "api/again", "ask": "api/ask", "rows": "rehearse/rows",
	"knee": "storage/knee", "rowsOfWeek": "week/rows/rows", "compared": "compare/figures", "shapes": "triggers/notices/course/useShapes",
	"judge": "walk/judge", "moment": "walk/moment", "folding": "rehearse/folding", "asText": "site/asText", "tiles": "rehearse/tiles",
	"stream": "site/stream", "blocks": "week/panes/blocks",
	"write": "habits/write", "turn": "habits/turn", "now": "habits/now", "kept": "habits/kept",
	"names": "habits/names", "dates": "time/dates",
}

// bundleScript bundles one module that has them all, as the page's are built.
const bundleScript = `
import { rolldown } from 'rolldown'
const bundle = await rolldown({ input: process.argv[1], logLevel: 'silent', cwd: process.cwd() })
const { output } = await bundle.generate({ format: 'esm', codeSplitting: false })
process.stdout.write(output[0].code)`

// bundled is the code of that, made once.
var bundled = sync.OnceValues(func() ([]byte, error) {
	var entry strings.Builder
	for name, path := range pure {
		fmt.Fprintf(&entry, "export * as %s from %q\n", name, "./src/"+path+".ts")
	}
	web, err := filepath.Abs("../web")
	if err != nil {
		return nil, err
	}
	file := filepath.Join(web, fmt.Sprintf("modules-under-test-%d.ts", os.Getpid()))
	if err := os.WriteFile(file, []byte(entry.String()), 0o600); err != nil {
		return nil, err
	}
	defer os.Remove(file)
	node := exec.Command("node", "--input-type=module", "-e", bundleScript, file)
	node.Dir = web
	var complaint bytes.Buffer
	node.Stderr = &complaint
	code, err := node.Output()
	if err != nil {
		return nil, fmt.Errorf("%w: %s", err, complaint.String())
	}
	return code, nil
})

// modules opens a page of the real server that has nothing but the pure modules, as window.m.
func modules(t *testing.T) *page {
	t.Helper()
	code, err := bundled()
	if err != nil {
		t.Fatal(err)
	}
	s := serve(t, "quay", demo.PennywhistleQuay())
	instead := func(w http.ResponseWriter, r *http.Request) bool {
		switch r.URL.Path {
		case "/modules.js":
			w.Header().Set("Content-Type", "text/javascript")
			w.Write(code)
		case "/modules":
			w.Header().Set("Content-Type", "text/html")
			fmt.Fprint(w, `<!doctype html><title>Modules</title><body><script type="module">
				import * as m from './modules.js'
				await m.format.loadFormat()
				window.m = m
				document.body.id = 'there'
			</script>`)
		default:
			return false
		}
		return true
	}
	s.instead.Store(&instead)
	p := browser(t, s, 400, 300)
	p.open("/modules", "#there")
	return p
}

// row is an expression over the modules, and what it is as JSON.
type row struct{ js, want string }

// holds asks the page for many expressions at once.
func holds(p *page, what string, rows []row) {
	p.Helper()
	list := make([]string, len(rows))
	for i, r := range rows {
		list[i] = "async () => (" + r.js + ")"
	}
	answers := eval[[]json.RawMessage](p, `(async () => {
		const out = []
		for (const f of [`+strings.Join(list, ",\n")+`]) {
			try { out.push((await f()) ?? null) } catch (e) { out.push('threw ' + e) }
		}
		return out
	})()`)
	for i, r := range rows {
		var got, want any
		if err := json.Unmarshal([]byte(r.want), &want); err != nil {
			p.Fatalf("%s: %s: %v", what, r.want, err)
		}
		if err := json.Unmarshal(answers[i], &got); err != nil {
			p.Fatal(err)
		}
		if !reflect.DeepEqual(got, want) {
			p.Errorf("%s: %s is %s, want %s", what, r.js, answers[i], r.want)
		}
	}
}

// quotedJS is a Go text as JavaScript and JSON write it.
func quotedJS(text string) string {
	data, err := json.Marshal(text)
	if err != nil {
		panic(err) // a text
	}
	return string(data)
}

// TestPureModules holds the parts of the page that draw nothing to tables, in the browser that runs them.
func TestPureModules(t *testing.T) {
	p := modules(t)

	var numbers []row
	units := []string{"", "s", "kbit/s", "Mbit/s", "d", "GB", "kB", "%", "/s", "m", "°"}
	for _, text := range []string{
		"4", " 8 ", "7,5", "12.25", ".5", ",5", "3.", "-2", "−2", "+2", "0,250", "1,2345", "1.500", "1 500", "1\u202f500",
		"1\u00a0234\u00a0567,5", "1'500", "1’500.25", "1.500,5", "1,500.5", "1.234.567", "1,234,567", "1e3", "1.5E+05",
		"2e-3", "4 Mbps", "1.2 M", "5 min", "0.1 h", "2 weeks", "30 d", "0.3 TB", "12 fps", "12/s", "50 %", "50percent",
		"250 cm", "3 °", "500 kbps", "soon", "", "7..5", "1,234", "12,500 kbit/s", "1 2", "15 00", "1.50.000", "5 apples",
		"0x10", "1_000", "Inf", "NaN", "1e99", "5-", "--5", "1 2 3", "5 5", "٣",
	} {
		for _, unit := range units {
			want := ""
			if f, err := quantity.Read(text, unit); err != nil {
				want = `{"why":` + quotedJS(err.Error()) + `}`
			} else {
				data, _ := json.Marshal(f)
				want = `{"value":` + string(data) + `}`
			}
			numbers = append(numbers, row{fmt.Sprintf("m.number.readNumber(%s, {}, %s)", quotedJS(text), quotedJS(unit)), want})
		}
	}
	holds(p, "numbers are read as the core reads them", numbers)
	holds(p, "numbers in their limits", []row{
		{`m.number.readNumber('5', { min: 6 })`, `{"why":"at least 6"}`},
		{`m.number.readNumber('5', { max: 4 })`, `{"why":"at most 4"}`},
		{`m.number.readNumber('5.5', { whole: true })`, `{"why":"a whole number"}`},
		{`m.number.readNumber('5', { min: 5, max: 5, whole: true })`, `{"value":5}`},
	})

	holds(p, "dates", []row{
		{`m.date.orderOf('en-GB').join()`, `"day,month,year"`},
		{`m.date.orderOf('en-US').join()`, `"month,day,year"`},
		{`m.date.orderOf('sv-SE').join()`, `"year,month,day"`},
		{`m.date.readDate('2027-02-01', 'en-US')`, `{"value":"2027-02-01"}`},
		{`m.date.readDate('1/2/2027', 'en-GB')`, `{"value":"2027-02-01"}`},
		{`m.date.readDate('1/2/2027', 'en-US')`, `{"value":"2027-01-02"}`},
		{`m.date.readDate('01022027', 'en-GB')`, `{"value":"2027-02-01"}`},
		{`m.date.readDate('20270201', 'sv-SE')`, `{"value":"2027-02-01"}`},
		{`m.date.readDate('1. Feb 2027', 'de-DE')`, `{"value":"2027-02-01"}`},
		{`m.date.readDate('1 february 2027', 'en-US')`, `{"value":"2027-02-01"}`},
		{`m.date.readDate('29.2.2028', 'de-DE')`, `{"value":"2028-02-29"}`},
		{`m.date.readDate('29.2.2027', 'de-DE')`, `{"why":"there is no 29. of month 2 in 2027"}`},
		{`m.date.readDate('1/2/27', 'en-GB')`, `{"why":"the year has four digits"}`},
		{`m.date.readDate('1/2/1969', 'en-GB')`, `{"why":"between 1970 and 2200"}`},
		{`m.date.readDate('soon', 'en-GB')`, `{"why":"“soon” is not a date; write 2027-02-01, or day, month, year"}`},
		{`m.date.readDate(m.date.writeDate('2027-02-01', 'hu-HU'), 'hu-HU')`, `{"value":"2027-02-01"}`},
		{`m.dates.dayAndMonth('2027-08-07')`, `"7 Aug"`},
	})

	holds(p, "lengths of time", []row{
		{`m.duration.readDuration('90', 0, 1e6)`, `{"value":90}`},
		{`m.duration.readDuration('15', 0, 1e6, '10 min')`, `{"value":900}`},
		{`m.duration.readDuration('2', 0, 1e6, '3 days')`, `{"value":172800}`},
		{`m.duration.readDuration('1.5 h', 0, 1e6)`, `{"value":5400}`},
		{`m.duration.readDuration('1 500 sec', 0, 1e6)`, `{"value":1500}`},
		{`m.duration.readDuration('15 min.', 0, 1e6)`, `{"value":900}`},
		{`m.duration.readDuration('5 parsecs', 0, 1e6)`, `{"why":"Not a length of time: use 90 s, 15 min or 2 h"}`},
		{`m.duration.readDuration('1,500', 0, 1e6)`, `{"why":"“1,500 s” can mean two numbers: write “1500” or “1.500”"}`},
		{`m.duration.readDuration('5 s', 10, 60)`, `{"why":"At least 10 s"}`},
		{`m.duration.readDuration('2 h', 10, 60)`, `{"why":"At most 1 min"}`},
		{`[0, 59, 60, 90, 3600, 5400, 86400, 172800].map(m.duration.durationInWords)`,
			`["0 s","59 s","1 min","90 s","1 h","90 min","24 h","2 days"]`},
		{`[7.26, 99.4, 100, 5999, 172799].map(m.duration.about)`, `["7.3 s","99 s","1.7 min","1.7 h","2 days"]`},
	})

	holds(p, "sizes of pictures", []row{
		{`m.size.readSize('1920×1080')`, `{"width":1920,"height":1080}`},
		{`m.size.readSize(' 640 x 360 ')`, `{"width":640,"height":360}`},
		{`m.size.readSize('640*360')`, `{"width":640,"height":360}`},
		{`m.size.readSize('full')`, `{"why":"Not a picture size: use 1920×1080"}`},
	})

	holds(p, "figures", []row{
		{`[0, 0.0049, 9.994, 9.995, 37.24, 99.95, 1234.5, -3.14159].map(m.figures.three)`,
			`["0","0.00","9.99","10.0","37.2","100","1\u202f235","−3.14"]`},
		{`[null, undefined, 37.24, 40000].map(m.figures.days)`, `["no limit","no limit","37.2 d","> 100 y"]`},
		{`[0.001, -0.004, 0.05, -12.34].map(m.figures.change)`, `["","","+0.05","−12.3"]`},
		{`[0.05, 999, 1000, 5700].map(m.figures.amount)`, `["50.0 MB","999 GB","1.00 TB","5.70 TB"]`},
		{`[12345, 1234567].map(m.figures.gigabytes)`, `["12.35 TB","1\u202f234.57 TB"]`},
		{`[512, 9999, 10000].map(m.figures.kbps)`, `["512 kbit/s","9\u202f999 kbit/s","10.0 Mbit/s"]`},
		{`[m.figures.count(1, 'channel'), m.figures.count(2, 'channel'), m.figures.count(0, 'entry', 'entries')]`,
			`["1 channel","2 channels","0 entries"]`},
		{`m.figures.fileWords('a/b:c*?  ')`, `"a-b-c--"`},
		{`[0, 1, 2].map((i) => m.rowKey.rowKey(['a', 'b', 'a'], i, (x) => x))`, `["a 0","b 0","a 1"]`},
	})

	// Days against what is lost: a curve that turns up at 50, a straight one, one that flattens, and too few points.
	curve := func(points string) string {
		return `m.knee.kneeOf(` + points + `.map(([days, lostPerDay]) => ({ days, lostPerDay })))?.days ?? null`
	}
	holds(p, "knees", []row{
		{curve(`[[37, 0], [40, 2], [45, 6], [50, 18], [51, 55]]`), `50`},
		{curve(`[[37, 0], [40, 3], [43, 6]]`), `null`},
		{curve(`[[37, 0], [40, 30], [50, 33]]`), `null`},
		{curve(`[[37, 0], [50, 30]]`), `null`},
	})

	// Three channels of one pool and one of another: what most of a pool keep is said by none of them, unless it is too little.
	channels := `[['a', 'p'], ['b', 'p'], ['c', 'p'], ['d', 'q']].map(([id, pool]) => ({ id, pool, name: id, number: 1, group: pool }))`
	kept := `((id) => ({ a: f(37), b: f(37, true), c: f(20), d: f(null) })[id])`
	figures := `(f) => ({ all: ` + channels + `, of: ` + kept + ` })`
	made := `((${figures})((retentionDays, short) => ({ retentionDays, short, gigabytesPerDay: 5 })))`
	made = strings.Replace(made, "${figures}", figures, 1)
	shown := `(({ all, of }) => { const pools = m.rowsOfWeek.daysOfPools(all, of)
		return all.map((c) => m.rowsOfWeek.figureOf('number', of(c.id), 20, pools.get(c.pool))) })(` + made + `)`
	grouped := `(({ all, of }) => m.rowsOfWeek.rowsOf(all, m.rowsOfWeek.plain, of, new Set(), []).filter((r) => r.kind === 'group')
		.map((r) => r.says + ', ' + r.kept))(` + made + `)`
	holds(p, "rows of the week", []row{
		{shown, `["5.00 GB","37.0 d","20.0 d","5.00 GB"]`},
		{grouped, `["3 channels · 15.0 GB, 37.0 d","1 channel · 5.00 GB, no limit"]`},
		{`((c) => m.rowsOfWeek.figureOf('short', c, 20, '37.0 d'))({ retentionDays: 37, gigabytesPerDay: 5 })`, `"37.0 d"`},
	})

	// Two variants that differ in what they write and in nothing else that is known.
	two := `[100, 90].map((gb, i) => ({ id: i, findings: {}, messagesPerDay: 3, verdict: { keptDays: 30 + i, gigabytesPerDay: gb, holdsPercent: 50,
		evidence: { missedPerDay: 2, lowPerDay: 0 } } }))`
	holds(p, "compared figures", []row{
		{`((all) => m.compared.rows.filter((r) => m.compared.isKnown(r, all) && m.compared.tells(r, all)).map((r) =>
			[r.name, m.compared.differenceOf(r, all[1], all[0]), m.compared.isBest(r, all[1], all)].join()))(` + two + `)`,
			`["days kept, of the channel nearest to what it must keep,+1.00,true","written a day,−10.0 GB,true"]`},
	})

	// 100 happen, 90 are noticed, of which the duty takes 20; 95 are on disk.
	shapes := `((known) => { const s = m.shapes.useShapes({ value: [['happens', 100, 0], ['noticed', 90, 10], ['duty', 20, 70]].map(
		([name, pass, lost]) => ({ name, pass, lost })) }, { value: 100 }, () => known)
		return [s.disk.value ?? null, s.fork.value ?? null, s.columns.value, s.losses.value.map((l) => l.at)] })`
	holds(p, "shapes of a course", []row{
		{shapes + `(95)`, `[{"sum":95,"triggered":20,"base":75},"1,90 2,20 3,20 3,95 2,95 1,95",4,[1,2]]`},
		{shapes + `(20)`, `[{"sum":20,"triggered":20,"base":0},null,4,[1,2]]`},
		{shapes + `(undefined)`, `[null,null,3,[1,2]]`},
	})

	holds(p, "time", []row{
		{`m.ticks.daysIn({ from: 1439, to: 1441 })`, `[0,1]`},
		{`m.ticks.ticksOf({ from: 0, to: 1440 }, 480).ticks.map((t) => t.text)`, `["2","4","6","8","10","12","14","16","18","20","22"]`},
		{`m.ticks.ticksOf({ from: 600, to: 630 }, 300).ticks.map((t) => t.text)`, `["10:00","10:05","10:10","10:15","10:20","10:25"]`},
	})

	plan := `{ duties: [{ id: 'a' }], channels: [{ id: 'x', pre: 1 }, { id: 'y', pre: 1 }], site: { name: 'S' } }`
	changed := `m.patch.patched(plan, [{ op: 'replace', path: '/channels/1/pre', value: 2 }])`
	holds(p, "patches", []row{
		{fmt.Sprintf(`((plan) => { const now = %s; return [now.channels[1].pre, plan.channels[1].pre] })(%s)`, changed, plan), `[2,1]`},
		{fmt.Sprintf(`((plan) => { const now = %s; return [now.channels[0] === plan.channels[0], now.duties === plan.duties,
			now.channels[1] === plan.channels[1]] })(%s)`, changed, plan), `[true,true,false]`},
		{fmt.Sprintf(`((plan) => m.patch.patched(plan, [{ op: 'remove', path: '/channels/0' }]).channels.map((c) => c.id))(%s)`, plan), `["y"]`},
		{fmt.Sprintf(`((plan) => Object.keys(m.patch.patched(plan, [{ op: 'add', path: '/weeks', value: [] }])).sort().join())(%s)`, plan),
			`"channels,duties,site,weeks"`},
		{fmt.Sprintf(`((plan) => { const now = m.patch.patched(plan, [{ op: 'replace', path: '/channels/0/pre', value: 5 },
			{ op: 'replace', path: '/site/name', value: 'T' }, { op: 'add', path: '/channels/1/post', value: 7 }, { op: 'remove', path: '/channels/0/pre' }]);
			return [now.channels, now.site.name, plan.site.name, now.duties === plan.duties] })(%s)`, plan),
			`[[{"id":"x"},{"id":"y","pre":1,"post":7}],"T","S",true]`},
		{fmt.Sprintf(`m.patch.patched(%s, [{ op: 'remove', path: '/channels/0' }, { op: 'replace', path: '/channels/0/pre', value: 9 }]).channels`, plan),
			`[{"id":"y","pre":9}]`},
		{fmt.Sprintf(`m.patch.patched(%s, [{ op: 'add', path: '/channels/-', value: { id: 'z' } }, { op: 'add', path: '/channels/2/pre', value: 4 }]).channels[2]`,
			plan), `{"id":"z","pre":4}`},
	})

	sent := func(answers string) string {
		return `(async () => {
			const sent = [], answers = [` + answers + `]
			const q = m.queue.useQueue(async (p) => { sent.push(p.edits[0]); return answers.shift() ?? { now: 'done' } })
			m.again.patience.first = 1
			for (const e of ['a', 'b', 'c']) q.add({ edits: [e] })
			while (q.waiting.value.length) await m.again.pause(1)
			return [sent.join(''), q.state.value, q.aside.value.map((a) => a.pending.edits[0]).join('')]
		})()`
	}
	holds(p, "changes on their way", []row{
		{sent(``), `["abc","saved",""]`},
		{sent(`{ now: 'later' }, { now: 'later' }`), `["aaabc","saved",""]`},
		{sent(`{ now: 'aside', why: 'no' }`), `["abc","saved","a"]`},
		{sent(`{ now: 'done' }, { now: 'later' }, { now: 'aside', why: 'no' }`), `["abbc","saved","b"]`},
		{`(async () => { // a change is on its way before anything of it can be drawn
			const waited = []
			const q = m.queue.useQueue(async () => { waited.push(q.waiting.value.length); return { now: 'done' } })
			for (const e of ['a', 'b', 'c']) q.add({ edits: [e] })
			while (q.waiting.value.length) await m.again.pause(1)
			return waited
		})()`, `[0,2,1]`},
		{`(async () => {
			const done = []
			const turn = m.turns.useTurns(async (what) => { await m.again.pause(1); done.push(what); return what !== 2 })
			for (const n of [1, 2, 3]) void turn(n)
			await m.again.pause(50)
			return done
		})()`, `[1,2]`},
		{`[429, 502, 503, 504, 500, 409].map(m.again.mayPass)`, `[true,true,true,true,false,false]`},
		{`/^[0-9a-f]{32}$/.test(m.again.newKey()) && m.again.newKey() !== m.again.newKey()`, `true`},
	})

	holds(p, "a week by days", []row{
		{`m.blocks.blocksOf([{ from: 0, duty: 'a' }, { from: 600, duty: 'b' }, { from: 1440, duty: 'a' }]).map((d) => [d.words, d.blocks.length, d.blocks[0].to].join())`,
			`["Mon,2,600","Tue to Sun,1,1440"]`},
		{`m.blocks.blocksOf([{ from: 0, duty: 'a' }]).map((d) => [d.words, ...d.days].join())`, `["Mon to Sun,mon,tue,wed,thu,fri,sat,sun"]`},
		{`m.blocks.blocksOf([])`, `[{"days":["mon","tue","wed","thu","fri","sat","sun"],"words":"Mon to Sun","blocks":[]}]`},
		{`m.blocks.blocksOf([{ from: 0, duty: 'a' }, { from: 9000, duty: 'b' }]).map((d) => d.words).join('; ')`, `"Mon to Sat; Sun"`},
	})

	// Another site is looked at just before a beat of the stream that does not have it.
	holds(p, "a stream of more sites", []row{
		{`(async () => {
			const asked = [], real = window.EventSource
			let open
			window.EventSource = class extends EventTarget {
				constructor(url) { super(); asked.push(new URLSearchParams(url.split('?')[1]).getAll('site').join('')); open = this }
				close() {}
			}
			const beat = () => open.dispatchEvent(new MessageEvent('beat', { data: '{"seconds":100}' }))
			const sites = ['a'], stream = m.stream.openStream(() => sites, () => {})
			beat()
			sites.push('b')
			stream.again()
			stream.again()
			beat()
			for (let n = 0; n < 500 && asked.length < 2; n++) await m.again.pause(10)
			beat()
			await m.again.pause(100)
			stream.stop()
			window.EventSource = real
			return asked
		})()`, `["a","ab"]`},
	})

	holds(p, "what is asked about", []row{
		{`[m.ask.alike(1, 1), m.ask.alike([1, 'a'], [1, 'a']), m.ask.alike([1], [1, 2]), m.ask.alike([1], [2]), m.ask.alike([], undefined)]`,
			`[true,true,false,false,false]`},
		{`m.ask.alike([{}], [{}])`, `false`},
		{`m.ask.alike(NaN, NaN)`, `true`},
	})

	holds(p, "rows of a rehearsal", []row{
		{`['all', 'missed', 'low', 'unwanted', 'alarms'].map((f) => [0, 1, 2, 3, 4, 5].filter((fate) => m.rows.fits[f](fate)).join(''))`,
			`["012345","0","1","34","5"]`},
		{`[m.rows.hasWords('4 Gangway A berths', 'gang BERTH'), m.rows.hasWords('4 Gangway A', 'berth'), m.rows.hasWords('x', '')]`,
			`[true,false,true]`},
		{`m.rows.cameraRows([{ id: 'a' }, { id: 'b' }, { id: 'c' }], new Map([['a', { number: 1, name: 'A', group: 'g' }],
			['b', { number: 2, name: 'B', group: 'h' }], ['c', { number: 3, name: 'C', group: 'g' }]]), '').map((r) => r.id).join('')`, `"acb"`},
	})

	holds(p, "what an address has", []row{
		{`m.asText.parted(m.asText.joined(['a~b', '100%', '%7E', 7]))`, `["a~b","100%","%7E","7"]`},
		{`m.asText.parted('')`, `[]`},
		{`((of) => { const t = m.asText.listText(of); t.value = 'a~b'; const two = of.value; t.value = ''; return [two, of.value, t.value ?? null] })({ value: [] })`,
			`[["a","b"],[],null]`},
		{`((of) => { const t = m.asText.wordText(of, ['x', 'y'], 'x'); t.value = 'nobody'; return [of.value, t.value ?? null] })({ value: 'y' })`,
			`["x",null]`},
		{`((of) => { const t = m.asText.numberText(of, 80); t.value = 'many'; return [of.value, t.value ?? null] })({ value: 90 })`, `[80,null]`},
		{`((of) => { const t = m.asText.idText(of, () => ['a', 'b']); t.value = 'nobody'; const stays = of.value; t.value = ''; return [stays, of.value] })({ value: 'b' })`,
			`["b","a"]`},
	})

	// Three channels: with footage from 100 to 200, with a missed event at 150, and with nothing.
	played := `[{ id: 'a', from: [100], to: [200], layer: [1], start: [], length: [], fate: [], away: [150, 160] },
		{ id: 'b', from: [], to: [], layer: [], start: [150], length: [30], fate: [0], away: [] },
		{ id: 'c', from: [], to: [], layer: [], start: [], length: [], fate: [], away: [] }]`
	tops := func(from, to, shows string) string {
		return `m.folding.topsOf(` + played + `, { from: ` + from + `, to: ` + to + ` }, ` + shows + `, (k) => k === 2)`
	}
	holds(p, "folded rows", []row{
		{tops("0", "86400", "() => true"), `[0,28,56,84]`}, // a day and more: none
		{tops("0", "3600", "() => true"), `[0,28,56,80]`},  // 24 where its group's name stands above it
		{tops("0", "3600", "(fate) => fate > 0"), `[0,28,40,64]`},
		{tops("300", "3600", "() => true"), `[0,12,24,48]`},
		{tops("170", "3600", "() => true"), `[0,28,56,80]`}, // an event that began before goes on
		{`[-1, 0, 27.9, 28, 40, 99].map((y) => m.folding.rowAt([0, 28, 40], y)).join()`, `"-1,0,0,1,2,2"`},
		{`((all) => [m.tiles.inOrder(all.map((c) => m.tiles.tileAt(c, 155))).join(''), m.tiles.inOrder(all.map((c) => m.tiles.tileAt(c, 300))).join(''),
			all.map((c) => m.tiles.tileAt(c, 155)).map((t) => [t.layer, t.away, t.event].join(' ')).join()])(` + played + `.reverse())`,
			`["acb","cba","-1 false false,-1 false true,1 true false"]`},
	})
}
