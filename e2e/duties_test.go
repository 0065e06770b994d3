package e2e

import (
	"context"
	"fmt"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// plan is the plan as it is stored.
func (s *site) plan(t testing.TB) *plan.Plan {
	t.Helper()
	head, err := s.store.Load(context.Background(), s.id)
	if err != nil {
		t.Fatal(err)
	}
	return head.Plan
}

// revision waits until a version is saved.
func (p *page) revision(n int) {
	p.Helper()
	p.until(fmt.Sprintf(`%s && document.querySelector('%s').innerText.includes('revision %d')`, isSaved, stateText, n))
}

func TestDutiesAreMadeChangedAndRemoved(t *testing.T) {
	s, p := quay(t)
	p.click(`[data-test="new-duty"]`)
	p.do(chromedp.SendKeys(chromedp.CSS(`[data-test="duty-name"]`), "Third, then full"))
	p.shows(".says", "Idle: the sub stream. On motion: the main stream.")
	p.click(`[data-test="duty-keep"]`)
	p.revision(2)
	p.until(`document.querySelector('[data-duty="third-then-full"]')?.ariaChecked === 'true'`)
	if d := s.plan(t).Duty("third-then-full"); d == nil || d.Base.Stream != "sub" || d.Event.Stream != "main" {
		t.Errorf("%+v", d)
	}

	p.until(`[...document.querySelectorAll('.el-overlay')].every(e => !e.offsetParent && getComputedStyle(e).display === 'none')`)
	p.drag(p.on("booth", 600), p.on("booth", 1200))
	p.revision(3)
	p.click(`[data-test="edit-duty"]`)
	p.shows(".el-dialog", "Used by 1 channel")
	p.click(`[data-test="duty-remove"]`)
	p.revision(4)
	if s.plan(t).Duty("third-then-full") != nil || s.duty(t, "booth", 660) != "clock" {
		t.Errorf("the booth's hours became %s", s.duty(t, "booth", 660))
	}
	p.keys("z", kb.ModifierCtrl)
	p.revision(5)
	if s.duty(t, "booth", 660) != "third-then-full" {
		t.Error("the duty did not come back")
	}
}

// item opens a menu and takes the entry with a text.
func (p *page) item(button, text string) {
	p.Helper()
	p.click(button)
	p.until(fmt.Sprintf(`[...document.querySelectorAll('.el-dropdown-menu__item')].some(e => e.offsetParent && e.innerText.includes(%q))`,
		text))
	eval[bool](p,
		fmt.Sprintf(`([...document.querySelectorAll('.el-dropdown-menu__item')].find(e => e.offsetParent && e.innerText.includes(%q)).click(), true)`, text))
}

func TestLookingCloserAtADay(t *testing.T) {
	s, p := quay(t)
	p.click(`[data-duty="off"]`)
	p.item(`[data-day="wed"]`, "Look closer at Wednesday")
	p.click(`[data-test="day-after"]`)
	p.until(`!!document.querySelector('[data-day="thu"]') && !document.querySelector('[data-day="wed"]')`)
	// The day is as wide as the week was: a fifth of it is 04:48.
	from, to := p.on("booth", 10080/5), p.on("booth", 10080/2)
	p.press(from, to)
	p.shows(`[data-test="stroke"]`, "Thu 05:00–12:00")
	p.mouse(input.DispatchMouseEventTypeMouseMoved, to, chromedp.ButtonLeft, shiftClick)
	p.shows(`[data-test="stroke"]`, "Thu 04:50–12:00")
	p.mouse(input.DispatchMouseEventTypeMouseReleased, to, chromedp.ButtonLeft, shiftClick)
	p.revision(2)
	for at, want := range map[week.Minute]string{289: "clock", 290: "off", 719: "off", 720: "clock"} {
		if got := s.duty(t, "booth", 3*week.Day+at); got != want {
			t.Errorf("at minute %d of Thursday: %s, want %s", at, got, want)
		}
	}
	p.keys(kb.Escape)
	p.until(`document.querySelectorAll('[data-day]').length === 7`)
}

func TestADayAndAWeekAreCopied(t *testing.T) {
	s, p := quay(t)
	p.choose("booth")
	p.click(`[data-duty="off"]`)
	p.item(`[data-day="sun"]`, "Paint all day: Off")
	p.revision(2)
	if s.duty(t, "booth", 6*week.Day+5) != "off" || s.duty(t, "booth", 5*week.Day+5) != "clock" {
		t.Error("Sunday was not painted")
	}
	p.item(`[data-day="sun"]`, "Copy onto Saturday")
	p.revision(3)
	if s.duty(t, "booth", 5*week.Day+5) != "off" || s.duty(t, "booth", 4*week.Day+5) != "clock" {
		t.Error("Sunday was not copied onto Saturday")
	}
	p.item(`[data-test="copy-week"]`, "of Terminal")
	p.revision(4)
	for _, id := range []string{"hall", "waiting", "luggage"} {
		if s.duty(t, id, 6*week.Day+5) != "off" || s.duty(t, id, 12*60) != "clock" {
			t.Errorf("%s has not the week of the booth", id)
		}
	}
	if s.duty(t, "gangway-a", 6*week.Day+5) != "motion" {
		t.Error("a channel of another group was changed")
	}
}
