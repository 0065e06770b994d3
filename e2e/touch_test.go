package e2e

import (
	"math"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
)

// touch puts a finger down, moves it along a way and lifts it.
func (p *page) touch(way ...point) {
	p.Helper()
	send := func(kind input.DispatchTouchEventType, at ...*input.TouchPoint) {
		p.Helper()
		if at == nil {
			at = []*input.TouchPoint{}
		}
		if _, err := chromedp.Call(p.ctx, input.DispatchTouchEvent, input.DispatchTouchEventParams{Type: kind, TouchPoints: at}); err != nil {
			p.Fatal(err)
		}
	}
	for i, at := range way {
		kind := input.DispatchTouchEventTypeTouchMove
		if i == 0 {
			kind = input.DispatchTouchEventTypeTouchStart
		}
		send(kind, &input.TouchPoint{X: at.x, Y: at.y})
	}
	send(input.DispatchTouchEventTypeTouchEnd)
}

// TestAFingerDraws drags a corner, lays an area by taps and paints cells, all by touch.
func TestAFingerDraws(t *testing.T) {
	s, p := picturePage(t, "slip")
	p.click(`[data-tool="watch"]`)
	for _, at := range [][2]float64{{0.1, 0.55}, {0.3, 0.55}, {0.2, 0.9}, {0.1, 0.55}} {
		p.touch(p.in(at[0], at[1]))
	}
	p.revision(2)
	made := area(s.plan(t), "slip", "area-1")
	if made == nil || len(made.Points) != 3 {
		t.Fatalf("%+v", made)
	}
	p.until(`!!document.querySelector('[data-corner="area area-1 2"]')`)
	p.still(`[data-corner="area area-1 2"]`)
	p.touch(p.in(0.2, 0.9), p.in(0.22, 0.85), p.in(0.26, 0.7))
	p.revision(3)
	if c := area(s.plan(t), "slip", "area-1").Points[2]; math.Abs(c[0]-0.26) > 0.01 || math.Abs(c[1]-0.7) > 0.01 {
		t.Errorf("the corner is at %v", c)
	}
	p.click(`[data-tool="brush"]`)
	p.touch(p.in(0.6, 0.2), p.in(0.7, 0.2), p.in(0.8, 0.2))
	p.revision(4)
	if made := area(s.plan(t), "slip", "area-2"); made == nil || made.Cells == nil {
		t.Errorf("%+v", made)
	}
}
