package e2e

import (
	"context"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"wakefield.example/core/week"
	"wakefield.example/internal/demo"
)

const (
	tuesday6  = 1440 + 6*60
	friday22  = 4*1440 + 22*60
	gangwayA  = `[data-channel="gangway-a"]`
	isSaved   = `document.querySelector('[data-test="state"]')?.innerText.startsWith('saved')`
	verdict   = `[data-test="kept"]`
	painting  = `[data-test="painting"]`
	stateText = `[data-test="state"]`
)

// quay opens Pennywhistle Quay on the Week page.
func quay(t testing.TB) (*site, *page) {
	t.Helper()
	return quayAt(t, "", gangwayA+" canvas")
}

// quayAt opens a page of it.
func quayAt(t testing.TB, path, css string) (*site, *page) {
	t.Helper()
	s := serve(t, "quay", demo.PennywhistleQuay())
	p := browser(t, s, 1280, 800)
	p.open("/sites/quay"+path, css)
	p.shows(verdict, "days")
	return s, p
}

// shiftClick holds Shift while clicking.
func shiftClick(p *input.DispatchMouseEventParams) { p.Modifiers = int64(kb.ModifierShift) }

// choose clicks the names of channels, the later ones with Shift.
func (p *page) choose(channels ...string) {
	p.Helper()
	for i, id := range channels {
		box := eval[[]float64](p, `(() => { const b = document.querySelector('[data-channel="`+id+
			`"] .name').getBoundingClientRect(); return [b.left + 5, b.top + 8] })()`)
		if i == 0 {
			p.do(chromedp.MouseClickXY(box[0], box[1]))
		} else {
			p.do(chromedp.MouseClickXY(box[0], box[1], shiftClick))
		}
	}
}

// duty is what the store says a channel does at a minute.
func (s *site) duty(t testing.TB, channel string, at week.Minute) string {
	t.Helper()
	head, err := s.store.Load(context.Background(), s.id)
	if err != nil {
		t.Fatal(err)
	}
	return head.Plan.WeekOf(head.Plan.Channel(channel)).Steps().At(at)
}

// TestAStrokeShowsItsInk draws what a stroke would write while it is in hand, on its rows and on the tide, and takes it away with Esc.
func TestAStrokeShowsItsInk(t *testing.T) {
	_, p := quay(t)
	p.click(`[data-duty="clock"]`)
	drawn := func(css string) string { return `document.querySelector('` + css + ` canvas').toDataURL()` }
	ribbon, other, tide := drawn("[data-channel=gangway-a]"), drawn("[data-channel=slipway]"), drawn(".tide")
	eval[bool](p, `(window.before = [`+ribbon+`, `+other+`, `+tide+`], true)`)
	p.press(p.on("gangway-a", tuesday6), p.on("gangway-a", friday22))
	p.until(ribbon + ` !== window.before[0] && ` + tide + ` !== window.before[2]`)
	if !eval[bool](p, other+` === window.before[1]`) {
		t.Error("a row that the stroke is not on is drawn otherwise")
	}
	p.keys(kb.Escape)
	p.until(ribbon + ` === window.before[0] && ` + tide + ` === window.before[2]`)
}

func TestPaintUndoReload(t *testing.T) {
	s, p := quay(t)
	before := p.text(verdict)

	p.click(`[data-duty="clock"]`)
	p.choose("gangway-a", "berth-north")
	p.shows(painting, "painting 3 channels")
	p.press(p.on("gangway-a", tuesday6), p.on("gangway-a", friday22))
	p.shows(`[data-test="stroke"]`, "Tue to Fri 06:00–22:00")
	p.shows(`[data-test="draft"]`, "+")
	p.mouse(input.DispatchMouseEventTypeMouseReleased, p.on("gangway-a", friday22), chromedp.ButtonLeft)

	p.until(`!!document.querySelector('[data-test="paint-own"]') && document.getAnimations().length === 0`)
	p.isClean("the question about a named week")
	p.click(`[data-test="paint-own"]`) // the gangways follow a named week
	p.until(isSaved + ` && document.querySelector('` + verdict + `').innerText !== '` + before + `'`)
	after := p.text(verdict)
	for _, id := range []string{"gangway-a", "gangway-b", "berth-north"} {
		if got := s.duty(t, id, 2*week.Day+12*60); got != "clock" {
			t.Errorf("%s on Wednesday noon: %s", id, got)
		}
		if got := s.duty(t, id, 2*week.Day+23*60); got != "motion" {
			t.Errorf("%s on Wednesday night: %s", id, got)
		}
	}
	if got := s.duty(t, "waiting", 2*week.Day+12*60); got != "motion" {
		t.Errorf("another channel of the same week was painted: %s", got)
	}
	p.shows(".group .kept", after[:4]) // said once for the pool, and by those of its channels that are short
	p.shows(`[data-kept="booth"]`, after[:4])

	p.open("/sites/quay", gangwayA+" canvas")
	p.shows(verdict, after)

	p.keys("z", kb.ModifierCtrl)
	p.shows(verdict, before)
	if got := s.duty(t, "gangway-a", 2*week.Day+12*60); got != "motion" {
		t.Errorf("after undo: %s", got)
	}
	p.open("/sites/quay", gangwayA+" canvas")
	p.shows(verdict, before)
	p.click(`[data-test="redo"]`)
	p.shows(verdict, after)
}

func TestPaintRowsAndTheNamedWeek(t *testing.T) {
	s, p := quay(t)
	p.click(`[data-duty="off"]`)
	// Nothing is selected: the drag paints the rows it crosses.
	p.drag(p.on("lane-1", 5*1440+60), p.on("lane-2", 5*1440+180))
	p.click(`[data-test="paint-week"]`)
	p.until(isSaved + ` && document.querySelector('` + stateText + `').innerText.includes('revision 2')`)
	head, err := s.store.Load(context.Background(), "quay")
	if err != nil {
		t.Fatal(err)
	}
	if c := head.Plan.Channel("lane-1"); c.Week.Named != "lanes" {
		t.Error("the lanes no longer follow their week")
	}
	if got := s.duty(t, "lane-2", 5*week.Day+2*60); got != "off" {
		t.Errorf("the week was not painted: %s", got)
	}
	p.until(`[...document.querySelectorAll('.el-overlay')].every(e => getComputedStyle(e).display === 'none')`)
	// As a new named week: those painted follow it together, the others what they followed.
	p.drag(p.on("lane-1", 6*1440+60), p.on("lane-2", 6*1440+180))
	p.shows(`[data-test="paint-new"]`, "2”")
	p.click(`[data-test="paint-new"]`)
	p.revision(3)
	now := s.plan(t)
	made, two := now.Channel("lane-1").Week.Named, now.Channel("lane-2").Week.Named
	if made == "lanes" || made == "" || two != made || s.duty(t, "lane-1", 6*week.Day+2*60) != "off" {
		t.Errorf("they follow %q and %q", made, two)
	}
	for _, c := range now.Channels {
		if c.Week.Named == "lanes" && s.duty(t, c.ID, 6*week.Day+2*60) == "off" {
			t.Errorf("%s was painted too", c.Name)
		}
	}
}

func TestEscapeAndEyedropper(t *testing.T) {
	s, p := quay(t)
	p.press(p.on("booth", 600), p.on("booth", 1200))
	p.shows(`[data-test="stroke"]`, "Mon 10:00–20:00")
	p.keys(kb.Escape)
	p.until(`!document.querySelector('[data-test="stroke"]')`)
	p.mouse(input.DispatchMouseEventTypeMouseReleased, p.on("booth", 1200), chromedp.ButtonLeft)
	if head, _ := s.store.Load(context.Background(), "quay"); head.Version != 1 {
		t.Errorf("an abandoned stroke was kept as version %d", head.Version)
	}
	alt := func(e *input.DispatchMouseEventParams) { e.Modifiers = int64(kb.ModifierAlt) }
	p.mouse(input.DispatchMouseEventTypeMousePressed, p.on("kiosk", 600), chromedp.ButtonLeft, alt)
	p.until(`document.querySelector('[data-duty="low"]').ariaChecked === 'true'`)
}

func TestKeyboardPaints(t *testing.T) {
	s, p := quay(t)
	eval[bool](p, `(document.querySelector('[role="grid"]').focus(), true)`)
	p.keys(kb.ArrowDown) // the cursor comes to the first row
	p.keys(kb.ArrowDown) // Ticket booth
	p.keys(kb.ArrowRight, kb.ModifierCtrl)
	p.keys(kb.ArrowRight, kb.ModifierShift)
	p.keys("7") // off
	p.until(isSaved + ` && document.querySelector('` + stateText + `').innerText.includes('revision 2')`)
	for at, want := range map[week.Minute]string{1439: "clock", 1440: "off", 1499: "off", 1500: "clock"} {
		if got := s.duty(t, "booth", at); got != want {
			t.Errorf("Ticket booth at %v: %s, want %s", at, got, want)
		}
	}
	row := eval[string](p, `document.querySelector('[data-channel="booth"] .time').ariaLabel`)
	if !strings.Contains(row, "Tuesday: Off 00:00 to 01:00, Round the clock 01:00 to 24:00") {
		t.Errorf("who listens hears %q", row)
	}
}

// field types a number into a field of the side pane.
func (p *page) field(name, value string) {
	p.Helper()
	css := `[data-field="` + name + `"] input`
	p.do(chromedp.Focus(chromedp.CSS(css)))
	eval[bool](p, `(document.querySelector('`+css+`').select(), true)`)
	p.keys(value)
	p.keys(kb.Enter)
}

func TestPanelsChangeTheFigures(t *testing.T) {
	s, p := quay(t)
	revision := 1
	saved := func() {
		t.Helper()
		revision++
		p.until(isSaved + ` && document.querySelector('` + stateText + `').innerText.includes('revision ` + string(rune('0'+revision)) + `')`)
	}
	p.choose("waiting")
	before := p.text(`[data-test="gb"]`)
	p.field("post", "90")
	saved()
	p.until(`document.querySelector('[data-test="gb"]').innerText !== '` + before + `'`)
	p.field("active", "9000")
	saved()
	p.click(`[data-tab="events"]`)
	p.field("mean", "30")
	saved()
	p.click(`.pane [data-field="typed-rate"]`)
	p.keys("30")
	p.click(`.pane [data-test="typed-hours"] label:last-of-type input`)
	p.keys("Mon 06:00-07:00")
	p.click(`.pane [data-test="typed-hours"] button`)
	saved()
	kept := p.text(verdict)
	p.click(`[data-tab="disk"]`)
	p.field("count", "5")
	saved()
	p.until(`document.querySelector('` + verdict + `').innerText !== '` + kept + `'`)

	head, err := s.store.Load(context.Background(), "quay")
	if err != nil {
		t.Fatal(err)
	}
	c := head.Plan.Channel("waiting")
	a := head.Plan.Activity("waiting")
	if c.PostSeconds != 90 || c.Streams.Main.Rate.ActiveKbps != 9000 || a.MeanSeconds != 30 || a.Rates().At(6*60+30) != 30 ||
		head.Plan.Pool("array").Drives[0].Count != 5 {
		t.Errorf("the plan holds %+v", c)
	}
	p.open("/sites/quay/history", ".history ol > li")
	p.shows(".history", "Array: 5 × 2 TB, RAID 5")
	p.shows(".history", "Waiting room: 90 s after an event")
	p.click(`[data-return="1"]`)
	p.shows(".history", "Back to revision 1")
	if c := s.plan(t).Channel("waiting"); c.PostSeconds != 20 {
		t.Errorf("back at the first revision %v s are kept after an event", c.PostSeconds)
	}
	p.click(`[data-return="6"]`)
	p.shows(".history", "Back to revision 6")
	if c := s.plan(t).Channel("waiting"); c.PostSeconds != 90 {
		t.Errorf("back at the sixth revision %v s are kept after an event", c.PostSeconds)
	}
}
