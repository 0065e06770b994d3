package e2e

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"wakefield.example/core/estimate"
	"wakefield.example/core/week"
)

// three writes a figure as the page does, with three digits.
func three(v float64) string {
	switch {
	case math.Abs(v) >= 99.95:
		return fmt.Sprintf("%.0f", v)
	case math.Abs(v) >= 9.995:
		return fmt.Sprintf("%.1f", v)
	}
	return fmt.Sprintf("%.2f", v)
}

// TestTheVerdictIsThatOfTheEstimate reads every figure of the verdict, and of each channel's bar, before and after a
// stroke, and works them out anew.
func TestTheVerdictIsThatOfTheEstimate(t *testing.T) {
	s, p := quay(t)
	for revision := 1; revision <= 2; revision++ {
		if revision == 2 {
			p.click(`[data-duty="off"]`)
			p.drag(p.on("booth", 600), p.on("booth", 7000))
			p.revision(2)
			p.until(`document.querySelector('.verdict').ariaBusy !== 'true'`)
		}
		made := s.plan(t)
		result := estimate.Run(made, nil)
		v := result.Verdict
		gb := func(v float64) string {
			if v >= 1000 {
				return three(v/1000) + " TB"
			}
			return three(v) + " GB"
		}
		shown := p.text(".verdict")
		for _, figure := range []string{
			three(*v.KeptDays) + " days", fmt.Sprintf("of %v required", *v.RequiredDays), made.Channel(v.Channel).Name,
			three(v.LikelyDays.Low) + " – " + three(v.LikelyDays.High) + " days",
			fmt.Sprintf("%.0f %% chance all are met", math.Floor(v.HoldsPercent+0.5)),
			gb(v.GigabytesPerDay), three(v.AverageMbps) + " Mbit/s mean", gb(v.UsableGB),
			three(v.Evidence.KeptPercent) + " %", three(v.Evidence.MissedPerDay) + " missed a day",
		} {
			if !strings.Contains(shown, figure) {
				t.Errorf("revision %d: the verdict does not say %q: %s", revision, figure, shown)
			}
		}
		bars := 0
		for i, c := range result.Channels {
			row := fmt.Sprintf(`[data-channel=%q]`, c.ID)
			if c.RequiredDays == nil || !eval[bool](p, fmt.Sprintf(`!!document.querySelector('%s .bar')`, row)) {
				continue
			}
			bars++
			// The bar ends at one and a half times what is required, and its tick stands at that.
			at := eval[[]float64](p, fmt.Sprintf(`(() => {
				const box = (css) => document.querySelector('%s ' + css).getBoundingClientRect()
				return [box('.fill').width / box('.bar').width, (box('.tick').left - box('.bar').left) / box('.bar').width, box('.bar').width]
			})()`, row))
			want := 1.0
			if c.RetentionDays != nil {
				want = min(1, *c.RetentionDays/(1.5**c.RequiredDays))
			}
			if off := 1.5 / at[2]; math.Abs(at[0]-want) > off || math.Abs(at[1]-2.0/3) > off {
				t.Errorf("the bar of %s is filled to %.3f, its tick at %.3f; want %.3f", result.Channels[i].ID, at[0], at[1], want)
			}
		}
		if bars < 8 {
			t.Errorf("%d bars", bars)
		}
	}
}

// TestStrokesSnapToHalfHours paints from and to times that are none, and finer ones with Shift.
func TestStrokesSnapToHalfHours(t *testing.T) {
	s, p := quay(t)
	p.click(`[data-duty="off"]`)
	// Ends that are nearer to the half hour before, and ends that are nearer to the one after.
	p.drag(p.on("booth", 640), p.on("booth", 820))
	p.revision(2)
	p.drag(p.on("booth", 1440+660), p.on("booth", 1440+840))
	p.revision(3)
	for at, duty := range map[week.Minute]string{629: "clock", 630: "off", 809: "off", 810: "clock", 1440 + 659: "clock", 1440 + 660: "off",
		1440 + 839: "off", 1440 + 840: "clock"} {
		if got := s.duty(t, "booth", at); got != duty {
			t.Errorf("%v: %s, want %s", at, got, duty)
		}
	}
	p.item(`[data-day="wed"]`, "Look closer at Wednesday")
	p.until(`!!document.querySelector('[data-test="whole-week"]')`)
	on := func(minute int) point { return p.on("booth", 7*minute) } // a day is as wide as a week was
	shift := func(e *input.DispatchMouseEventParams) { e.Modifiers = int64(kb.ModifierShift) }
	p.mouse(input.DispatchMouseEventTypeMouseMoved, on(618))
	p.mouse(input.DispatchMouseEventTypeMousePressed, on(618), chromedp.ButtonLeft, shift)
	p.mouse(input.DispatchMouseEventTypeMouseMoved, on(700), chromedp.ButtonLeft, shift)
	p.mouse(input.DispatchMouseEventTypeMouseMoved, on(734), chromedp.ButtonLeft, shift)
	p.mouse(input.DispatchMouseEventTypeMouseReleased, on(734), chromedp.ButtonLeft, shift)
	p.revision(4)
	first, last := week.Minute(0), week.Minute(0)
	painted := s.plan(t)
	steps := painted.WeekOf(painted.Channel("booth")).Steps()
	for m := 2 * week.Day; m < 3*week.Day; m++ {
		if steps.At(m) == "off" {
			if first == 0 {
				first = m
			}
			last = m + 1
		}
	}
	if first != 2*week.Day+620 && first != 2*week.Day+615 || last != 2*week.Day+735 {
		t.Errorf("painted from %v to %v", first, last)
	}
}

// TestTheLastRowIsCopied copies cells up to the table's last row, as text of a spreadsheet.
func TestTheLastRowIsCopied(t *testing.T) {
	s, p := quayAt(t, "/kit", table)
	channels := s.plan(t).Channels
	last := channels[len(channels)-1]
	p.clickCell(cell(channels[0].ID, "name"))
	p.keys(kb.End, kb.ModifierCtrl)
	p.clickCell(cell(channels[len(channels)-2].ID, "name"))
	p.keys(kb.ArrowDown, kb.ModifierShift)
	p.keys(kb.ArrowRight, kb.ModifierShift)
	eval[bool](p, `(document.addEventListener('copy', (e) => (window.copied = e.clipboardData.getData('text/plain'))), true)`)
	p.command("c", "copy")
	p.until(`!!window.copied`)
	before := channels[len(channels)-2]
	if got, want := eval[string](p, `window.copied`), before.Name+"\t"+before.Group+"\n"+last.Name+"\t"+last.Group; got != want {
		t.Errorf("copied %q, want %q", got, want)
	}
}

// TestTheThemeIsKept goes dark and comes back, over a reload.
func TestTheThemeIsKept(t *testing.T) {
	_, p := quay(t)
	paper := func() string { return eval[string](p, `getComputedStyle(document.body).backgroundColor`) }
	light := paper()
	p.click(`[data-test="theme"]`)
	p.until(`getComputedStyle(document.body).backgroundColor !== '` + light + `'`)
	dark := paper()
	if dark != "rgb(23, 19, 29)" || light != "rgb(247, 243, 234)" {
		t.Errorf("light %s, dark %s", light, dark)
	}
	p.open("/sites/quay", gangwayA+" canvas")
	if got := paper(); got != dark {
		t.Errorf("after opening it again %s", got)
	}
	p.shows(`[data-test="theme"]`, "Light")
	p.click(`[data-test="theme"]`)
	p.until(`getComputedStyle(document.body).backgroundColor === '` + light + `'`)
}
