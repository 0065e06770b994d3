package e2e

import (
	"fmt"
	"math"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/internal/demo"
)

// picturePage opens a site with scenes on the page of triggers, at one of its channels.
func picturePage(t *testing.T, channel string) (*site, *page) {
	t.Helper()
	s := serve(t, "yard", plantest.Read(t, "../core/estimate/testdata/plans/watched-yard.json"))
	p := browser(t, s, 1280, 800)
	p.open("/sites/yard/triggers", `[data-test="course"]`)
	p.click(`[data-line="` + channel + `"]`)
	p.until(`document.querySelector('[data-test="detection"] h2').innerText === ` +
		fmt.Sprintf("%q", map[string]string{"yard": "Yard", "slip": "Slip"}[channel]))
	return s, p
}

// in is a place in the picture.
func (p *page) in(x, y float64) point {
	p.Helper()
	box := eval[[]float64](p,
		`(({left, top, width, height}) => [left, top, width, height])(document.querySelector('[data-test="board"]').getBoundingClientRect())`)
	return point{box[0] + x*box[2], box[1] + y*box[3]}
}

func (p *page) clickAt(at point, options ...chromedp.MouseOption) {
	p.Helper()
	options = append(options, chromedp.ButtonLeft, func(e *input.DispatchMouseEventParams) { e.ClickCount = 1 })
	p.mouse(input.DispatchMouseEventTypeMousePressed, at, options...)
	p.mouse(input.DispatchMouseEventTypeMouseReleased, at, options...)
}

// corners types the corners of what is picked.
func (p *page) corners(text string) {
	p.Helper()
	eval[bool](p,
		`(document.querySelector('[data-field="corners"] input').focus(), document.querySelector('[data-field="corners"] input').select(), true)`)
	p.keys(text)
	p.keys(kb.Enter)
}

// passes is what comes through a gate of the course.
func (p *page) passes(gate string) string { return p.text(`[data-gate="` + gate + `"] b`) }

func area(p *plan.Plan, channel, id string) *plan.Area {
	list := p.Channel(channel).Detection.List()
	for i := range list {
		if list[i].ID == id {
			return &list[i]
		}
	}
	return nil
}

// TestAnAreaIsDrawnDraggedAndMasked draws a watched area by clicks, drags a corner of it, masks all, and takes it back.
func TestAnAreaIsDrawnDraggedAndMasked(t *testing.T) {
	s, p := picturePage(t, "slip")
	before := p.passes("large enough")
	p.click(`[data-thing="area cells"] .cells`) // painted cells are shown, and picked
	p.shows(`[data-test="thing"]`, "Covers 24.3 % of the picture")
	p.click(`[data-tool="watch"]`)
	for _, at := range [][2]float64{{0.05, 0.5}, {0.25, 0.5}, {0.25, 0.95}, {0.05, 0.95}} {
		p.clickAt(p.in(at[0], at[1]))
	}
	p.clickAt(p.in(0.05, 0.5)) // the first point again ends it
	p.revision(2)
	made := area(s.plan(t), "slip", "area-1")
	if made == nil || len(made.Points) != 4 || math.Abs(made.Points[2][0]-0.25) > 0.003 || math.Abs(made.Points[2][1]-0.95) > 0.003 {
		t.Fatalf("%+v", made)
	}
	p.shows(`[data-test="thing"] h2`, "Area 1")
	p.until(`document.querySelector('[data-gate="large enough"] b').innerText !== '` + before + `'`) // vehicles pass there
	with := p.passes("large enough")

	// Dragging shows what it does before it is kept; Esc gives up.
	p.until(`!!document.querySelector('[data-test="thing"]').innerText.match(/Covers (8.9|9.0)/)`)
	p.press(p.in(0.25, 0.5), p.in(0.06, 0.93))
	p.until(`!!document.querySelector('[data-test="thing"]').innerText.match(/Covers [0-7]/)`)
	p.keys(kb.Escape)
	p.mouse(input.DispatchMouseEventTypeMouseReleased, p.in(0.06, 0.93), chromedp.ButtonLeft)
	p.until(`!!document.querySelector('[data-test="thing"]').innerText.match(/Covers (8.9|9.0)/)`)
	p.drag(p.in(0.25, 0.95), p.in(0.4, 0.9))
	p.revision(3)
	if c := area(s.plan(t), "slip", "area-1").Points[2]; math.Abs(c[0]-0.4) > 0.003 || math.Abs(c[1]-0.9) > 0.003 {
		t.Errorf("the corner is at %v", c)
	}
	p.keys("z", kb.ModifierCtrl)
	p.revision(4)

	// By keyboard: arrows move a corner, Delete removes it, Enter lays a plain area.
	eval[bool](p, `(document.querySelector('[data-corner="area area-1 0"]').focus(), true)`)
	p.keys(kb.ArrowRight, kb.ModifierShift)
	p.revision(5)
	if c := area(s.plan(t), "slip", "area-1").Points[0]; math.Abs(c[0]-0.07) > 0.003 {
		t.Errorf("the corner is at %v", c)
	}
	eval[bool](p, `(document.querySelector('[data-corner="area area-1 1"]').focus(), true)`)
	p.keys(kb.Delete)
	p.revision(6)
	if n := len(area(s.plan(t), "slip", "area-1").Points); n != 3 {
		t.Errorf("%d corners", n)
	}
	p.click(`[data-tool="ignore"]`)
	eval[bool](p, `(document.querySelector('[data-test="board"]').focus(), true)`)
	p.keys(kb.Enter)
	p.revision(7)
	if made := area(s.plan(t), "slip", "area-2"); made == nil || !made.Ignore {
		t.Errorf("%+v", made)
	}

	// Corners typed wrong stay, with the place; typed over each other they are refused, and nothing is lost.
	p.corners("5 5, 95 left")
	p.shows(`[data-test="picture-problem"]`, "Corner 2 is not two numbers")
	p.corners("5 5, 95 5, 120 90")
	p.shows(`[data-test="picture-problem"]`, "Corner 3 is outside the picture")
	p.corners("0 0, 100 100, 100 0, 0 100")
	p.shows(`[data-test="picture-problem"]`, "its sides cross each other")
	p.until(`!document.querySelector('[data-field="corners"] input').value.startsWith('0 0, 100 100')`) // refused, it is as it was
	p.corners("0 0, 100 0, 100 100, 0 100")
	p.revision(8)
	p.shows(`[data-line="slip"]`, "no area there")
	p.until(`document.querySelector('[data-gate="in an area"] b').innerText === '0'`)
	p.click(`[data-test="remove-thing"]`)
	p.revision(9)
	p.until(`document.querySelector('[data-gate="in an area"] b').innerText !== '0'`)
	if with == "0" {
		t.Error("nothing came through")
	}
}

// TestWhatMovesIsCountedOnce draws a patch where the nuisance of the whole channel is: it is asked whether it is that.
func TestWhatMovesIsCountedOnce(t *testing.T) {
	s, p := quayAt(t, "/triggers", `[data-line="slipway"]`)
	p.click(`[data-line="slipway"]`)
	p.until(`document.querySelector('[data-line="slipway"]').ariaPressed === 'true' && !!document.querySelector('[data-test="board"]')`)
	if s.plan(t).Channel("slipway").Nuisance == "" {
		t.Fatal("nothing moves there")
	}
	p.click(`[data-tool="patch"]`)
	for _, at := range []point{p.in(0.7, 0.2), p.in(0.9, 0.2), p.in(0.9, 0.35)} {
		p.clickAt(at)
	}
	p.keys(kb.Enter)
	p.revision(2)
	p.shows(`[data-test="twice"]`, "counts twice")
	p.click(`[data-test="not-twice"]`)
	p.revision(3)
	p.until(`!document.querySelector('[data-test="twice"]')`)
	if c := s.plan(t).Channel("slipway"); c.Nuisance != "" || len(c.Scene.Patches) == 0 {
		t.Errorf("%q, %+v", c.Nuisance, c.Scene)
	}
}

// TestWalksAndPatchesAreMended draws a walk that is not noticed, reads why, mends it by the finding's fix; and masks a patch.
func TestWalksAndPatchesAreMended(t *testing.T) {
	s, p := picturePage(t, "yard")
	p.click(`[data-thing="walk far"]`)
	p.shows(`[data-test="walk-says"]`, "Never noticed")
	p.click(`[data-thing="walk barrow"] .wide`)
	p.shows(`[data-test="walk-says"]`, "is noticed after")
	// Along the walk: the walker is nearer, and larger, at its beginning.
	tall := func() float64 {
		return eval[float64](p, `document.querySelector('[data-test="moment"] rect').getBoundingClientRect().height`)
	}
	eval[bool](p, `(document.querySelector('[data-field="along"] [role="slider"]').focus(), true)`)
	p.keys(kb.ArrowRight)
	p.until(`!!document.querySelector('[data-test="moment"] rect')`)
	begin := tall()
	p.keys(kb.End)
	p.until(fmt.Sprintf(`document.querySelector('[data-test="moment"] rect').getBoundingClientRect().height < %v`, begin/1.3))
	// Pointing at the walk shows the walker there.
	p.mouse(input.DispatchMouseEventTypeMouseMoved, p.in(0.925, 0.675))
	p.mouse(input.DispatchMouseEventTypeMouseMoved, p.in(0.92, 0.67))
	p.until(fmt.Sprintf(`document.querySelector('[data-test="moment"] rect').getBoundingClientRect().height > %v`, 0.9*begin))
	p.number(`[data-test="thing"]`, "share", "30")
	p.shows(`[data-test="picture-problem"]`, "the shares of the walks are 105 % in all")
	p.number(`[data-test="thing"]`, "share", "10")
	p.revision(2)
	p.click(`[data-tool="walk"]`)
	p.clickAt(p.in(0.2, 0.9))
	p.clickAt(p.in(0.5, 0.7))
	p.keys(kb.Enter)
	p.revision(3)
	w := s.plan(t).Channel("yard").Scene.Walks
	if len(w) != 4 || w[3].SharePercent != 15 || w[3].Object != "person" {
		t.Fatalf("%+v", w)
	}
	p.shows(`[data-test="walk-says"]`, "m away")
	p.pick(`[data-test="thing"] [data-field="object"]`, "Vehicle")
	p.revision(4)

	p.click(`[data-thing="patch reeds"] polygon`)
	p.shows(`[data-test="patch-says"]`, "start a recording")
	nuisance := p.text(`[data-test="nuisance"]`)
	p.click(`[data-rule="patch-passes"] [data-mend]`)
	p.revision(5)
	p.until(`document.querySelector('[data-test="nuisance"]').innerText !== ` + fmt.Sprintf("%q", nuisance))
	if a := area(s.plan(t), "yard", "reeds"); a == nil || !a.Ignore {
		t.Errorf("%+v", a)
	}

	p.pick(`[data-field="copy"]`, "Slip")
	p.revision(6)
	p.shows(".el-message", "Every scene differs: look at them there.")
	if a, b := s.plan(t).Channel("yard").Detection.List(), s.plan(t).Channel("slip").Detection.List(); len(a) != 4 ||
		len(b) != 4 || b[3].ID != "reeds" {
		t.Errorf("%d areas of %d", len(b), len(a))
	}
	p.click(`[data-test="detection"] .el-switch`)
	p.revision(7)
	p.shows(`[data-line="yard"]`, "detection is off")
	p.until(`!!document.querySelector('[data-rule="detection-off"]')`)
}

// TestTwoPeopleTellDistances sets two people on an empty picture, and moves one where it cannot be.
func TestTwoPeopleTellDistances(t *testing.T) {
	s, p := cider(t)
	p.open("/sites/cider/triggers", `[data-test="course"]`)
	p.click(`[data-line="yard"]`)
	p.shows(`[data-test="camera"]`, "Set two people")
	for _, at := range [][2]float64{{0.3, 0.9}, {0.6, 0.55}} {
		p.click(`[data-tool="person"]`)
		p.clickAt(p.in(at[0], at[1]))
		p.until(isSaved)
	}
	p.shows(`[data-test="ground"]`, "the horizon is at 20")
	p.revision(3)
	// The farther one as tall as the nearer one: it is said, and nothing changes.
	far := s.plan(t).Channel("yard").Scene.People[1]
	p.drag(p.in(far.X, far.HeadY), p.in(far.X, far.FeetY-0.266))
	p.shows(`[data-test="picture-problem"]`, "both people stand equally far away")
	p.number(`[data-test="camera"]`, "degrees", "52")
	p.revision(4)
	if scene := s.plan(t).Channel("yard").Scene; len(scene.People) != 2 || scene.VerticalDegrees != 52 || scene.People[1] != far {
		t.Errorf("%+v", scene)
	}
	p.number(`[data-test="camera"]`, "degrees", "fifty")
	p.shows(`[data-test="camera"]`, "unchanged: 52")
	p.until(`document.querySelectorAll('[data-test="board"] text').length > 3`)
}

// TestTwoPeopleDrawInOnePicture lets two browsers draw on the picture of one channel, each an area of its own, the second
// before it has heard of the first.
func TestTwoPeopleDrawInOnePicture(t *testing.T) {
	s, first := picturePage(t, "yard")
	second := first.another()
	second.open("/sites/yard/triggers", `[data-test="course"]`)
	second.click(`[data-line="yard"]`)
	second.until(`!!document.querySelector('[data-thing="area foot"]')`)
	first.click(`[data-thing="area foot"] polygon`)
	second.click(`[data-pick="area door"]`) // the middle of it lies under a patch
	// Both type before either has been answered: the corners of two areas.
	first.corners("10 95, 30 45, 55 45, 75 95")
	second.corners("62 30, 90 30, 90 80, 62 80")
	for _, p := range []*page{first, second} {
		p.until(isSaved + ` && document.querySelector('` + stateText + `').innerText.includes('revision 3')`)
	}
	foot, door := area(s.plan(t), "yard", "foot"), area(s.plan(t), "yard", "door")
	if foot.Points[0] != (plan.Point{0.1, 0.95}) || door.Points[0] != (plan.Point{0.62, 0.3}) {
		t.Errorf("%v, %v", foot.Points, door.Points)
	}
	// Each sees what the other has drawn.
	first.until(`document.querySelector('[data-thing="area door"] polygon').getAttribute('points').startsWith('1102.')`)
	second.until(`!document.querySelector('[data-thing="area foot"] polygon').getAttribute('points').startsWith('266.')`)
}

// TestAnEmptyBoardSaysWhatToDo begins the picture of a camera of which nothing is known with a kind of scene, and takes it back.
func TestAnEmptyBoardSaysWhatToDo(t *testing.T) {
	s := serve(t, "cider", demo.BrackenhallCiderWorks())
	p := browser(t, s, 1280, 800)
	p.open("/sites/cider/triggers", `[data-test="empty-board"]`)
	p.click(`[data-line="yard"]`)
	p.shows(`[data-test="detection"]`, "Nothing is known of what it notices; guessed.")
	p.click(`[data-scene="yard"]`)
	p.revision(2)
	p.until(`!document.querySelector('[data-test="empty-board"]') && document.querySelectorAll('[data-thing^="walk"]').length === 2`)
	c := s.plan(t).Channel("yard")
	if _, known, _ := c.Ground(); !known || len(c.Scene.Walks) != 2 || len(c.Detection.List()) != 1 {
		t.Errorf("%+v", c.Scene)
	}
	p.keys("z", kb.ModifierCtrl)
	p.revision(3)
	p.shows(`[data-test="empty-board"]`, "Nothing is drawn")
}

// TestNamesInThePictureKeepApart looks at the names in every picture of the quay: none lies over another, none is cut.
func TestNamesInThePictureKeepApart(t *testing.T) {
	s, p := quayAt(t, "/triggers", `[data-test="course"]`)
	for _, c := range s.plan(t).Channels {
		if c.NoCamera {
			continue
		}
		p.click(`[data-line="` + c.ID + `"]`)
		p.until(`document.querySelector('[data-test="board"]').getAttribute('aria-label').startsWith(` +
			fmt.Sprintf("%q", "What "+c.Name+" sees") + `) && !!document.querySelector('[data-test="course"]')`)
		for _, pick := range append([]string{""}, walksOf(&c)...) {
			if pick != "" {
				p.click(`[data-pick="walk ` + pick + `"]`)
				p.shows(`[data-test="walk-says"]`, "otice")
			}
			p.until(`(() => {
				const board = document.querySelector('[data-test="board"]').getBoundingClientRect()
				const all = [...document.querySelectorAll('[data-test="board"] text')].filter((e) => e.textContent.trim()).map((e) => e.getBoundingClientRect())
				return all.every((a, i) => a.left > board.left - 1 && a.right < board.right + 1 && a.top > board.top - 1 && a.bottom < board.bottom + 1 &&
					all.slice(i + 1).every((b) => a.left >= b.right || b.left >= a.right || a.top >= b.bottom - 1 || b.top >= a.bottom - 1))
			})()`)
		}
	}
}

func walksOf(c *plan.Channel) (ids []string) {
	if c.Scene == nil {
		return nil
	}
	for _, w := range c.Scene.Walks {
		ids = append(ids, w.ID)
	}
	return ids
}
