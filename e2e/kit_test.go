package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"golang.org/x/text/encoding/charmap"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/internal/demo"
)

const table = `[data-test="channel-table"]`

// kit opens a part of the Kit page of Pennywhistle Quay.
func kit(t testing.TB, part, ready string) (*site, *page) {
	t.Helper()
	s := serve(t, "quay", demo.PennywhistleQuay())
	p := browser(t, s, 1280, 800)
	p.open("/sites/quay/kit/"+part, ready)
	return s, p
}

// cell is the selector of a cell of the channel table.
func cell(channel, column string) string {
	return fmt.Sprintf(`[data-row=%q] [data-column=%q]`, channel, column)
}

// reveal scrolls the table sideways to a cell: only columns in view have any.
func (p *page) reveal(css string) {
	p.Helper()
	p.until(fmt.Sprintf(`(() => {
		const there = document.querySelector('%[1]s')
		const column = '%[1]s'.match(/data-column="([^"]+)"/)?.[1]
		if (!there && column) document.querySelector('[data-heading="' + column + '"]')?.scrollIntoView({ inline: 'center', block: 'nearest' })
		return !!there
	})()`, css))
}

// clickCell clicks a cell; more of them at once with a modifier.
func (p *page) clickCell(css string, options ...chromedp.MouseOption) {
	p.Helper()
	p.reveal(css)
	box := eval[[]float64](p,
		fmt.Sprintf(`(() => { const e = document.querySelector('%s'); e.scrollIntoView({ inline: 'center', block: 'nearest' }); const b = e.getBoundingClientRect(); return [b.left + b.width / 2, b.top + b.height / 2] })()`, css))
	p.do(chromedp.MouseClickXY(box[0], box[1], options...))
}

// typed types a text over a cell and keeps it.
func (p *page) typed(css, text string) {
	p.Helper()
	p.clickCell(css)
	p.keys(text)
	p.keys(kb.Enter)
}

// number sets a field by its name within a part of the page.
func (p *page) number(within, name, value string) {
	p.Helper()
	css := within + ` [data-field="` + name + `"] input`
	p.until(`((field) => (field?.focus(), field?.select(), !!field))(document.querySelector('` + css + `'))`)
	p.keys(value)
	p.keys(kb.Enter)
}

// labelled types into the field of that label, in the first such place.
func (p *page) labelled(label, value string) {
	p.Helper()
	p.until(fmt.Sprintf(`[...document.querySelectorAll('label')].some(l => l.innerText.trim() === %q && document.getElementById(l.htmlFor))`,
		label))
	id := eval[string](p, fmt.Sprintf(`[...document.querySelectorAll('label')].find(l => l.innerText.trim() === %q).htmlFor`, label))
	eval[bool](p, `(document.getElementById('`+id+`').focus(), document.getElementById('`+id+`').select(), true)`)
	p.keys(value)
	p.keys(kb.Enter)
}

// command presses a key with Ctrl, and does what the browser does on it.
func (p *page) command(key, name string) {
	p.Helper()
	p.do(chromedp.KeyEvent(key, chromedp.KeyModifiers(kb.ModifierCtrl), func(e *input.DispatchKeyEventParams) {
		if e.Type != input.DispatchKeyEventTypeKeyUp {
			e.Commands = []string{name}
		}
	}))
}

// paste copies a text from a field that is there for a moment only, and presses
// Ctrl+V where the focus was.
func (p *page) paste(text string) {
	p.Helper()
	eval[bool](p, fmt.Sprintf(`(() => {
		window.focused = document.activeElement
		window.source = document.body.appendChild(document.createElement('textarea'))
		source.value = %q
		source.focus()
		source.select()
		return true
	})()`, text))
	p.command("c", "copy")
	eval[bool](p, `(source.remove(), focused.focus(), true)`)
	p.command("v", "paste")
}

func TestTypingInTheTable(t *testing.T) {
	s, p := kit(t, "", cell("hall", "name"))
	p.typed(cell("hall", "name"), "Great hall")
	p.revision(2)
	p.keys("2nd booth\t") // the cursor went down; Tab keeps and goes right
	p.revision(3)
	p.keys("Desks")
	p.keys(kb.Enter)
	p.revision(4)
	hall, booth := s.plan(t).Channel("hall"), s.plan(t).Channel("booth")
	if hall.Name != "Great hall" || booth.Name != "2nd booth" || booth.Group != "Desks" {
		t.Errorf("%s; %s in %s", hall.Name, booth.Name, booth.Group)
	}
	// A text that cannot be stays in its cell, with the reason, and nothing is lost.
	p.typed(cell("waiting", "main.fps"), "fast")
	p.shows(`[data-test="cell-trouble"]`, `“fast” is not a number`)
	p.shows(cell("waiting", "main.fps"), "fast")
	p.typed(cell("waiting", "main.fps"), "10 fps")
	p.until(`!document.querySelector('[data-test="cell-trouble"]')`)
	p.revision(5)
	if fps := s.plan(t).Channel("waiting").Streams.Main.FPS; fps != 10 {
		t.Errorf("%v frames a second", fps)
	}
	p.click(`[data-test="undo"]`)
	p.until(`document.querySelector('` + cell("waiting", "main.fps") + `').innerText === '15'`)
}

func TestSetAValueOnMany(t *testing.T) {
	s, p := kit(t, "", cell("hall", "main.fps"))
	kept := p.text(verdict)
	p.clickCell(cell("hall", "main.fps"))
	p.clickCell(cell("breakwater", "main.fps"), shiftClick)
	p.keys("5")
	p.keys(kb.Enter, kb.ModifierCtrl)
	p.revision(2)
	// Of the same rows another column, by the field above the table.
	p.clickCell(cell("hall", "main.gop"))
	p.clickCell(cell("breakwater", "main.gop"), shiftClick)
	p.click(`[data-test="set-all"]`)
	p.keys("4")
	p.keys(kb.Enter)
	p.revision(3)
	for _, c := range s.plan(t).Channels[:8] {
		if c.Streams.Main.FPS != 5 || c.Streams.Main.GOPSeconds != 4 {
			t.Errorf("%s: %v frames a second, keyframes every %v s", c.Name, c.Streams.Main.FPS, c.Streams.Main.GOPSeconds)
		}
	}
	if c := s.plan(t).Channel("lane-1"); c.Streams.Main.FPS != 15 {
		t.Errorf("%s was not selected", c.Name)
	}
	// Filling down: the first row's text goes into the others.
	p.typed(cell("hall", "main.rate"), "model 2 still")
	p.revision(4)
	p.clickCell(cell("hall", "main.rate"))
	p.clickCell(cell("luggage", "main.rate"), shiftClick)
	p.keys("d", kb.ModifierCtrl)
	p.revision(5)
	if r := s.plan(t).Channel("luggage").Streams.Main.Rate; r.Kind != "modelled" || r.Quality != 2 {
		t.Errorf("%+v", r)
	}
	p.until(`document.querySelector('` + verdict + `').innerText !== '` + kept + `'`)
}

// TestPasteABlock pastes sixteen cameras from a spreadsheet into a site that has
// none, and then a block with a mistake in it.
func TestPasteABlock(t *testing.T) {
	o := plan.Opening{Name: "Mole", TimeZone: "UTC", Recorder: "Recorder", Channels: 32, IngestMbps: 200, Drives: 2,
		Terabytes: 4, Layout: "span",
		Cameras: 1, Codec: "h265", Width: 1920, Height: 1080, FPS: 12, Activity: "quay", Duty: "low", KeepDays: 14}
	made, err := o.Plan()
	if err != nil {
		t.Fatal(err)
	}
	made, err = edit.After(made, edit.Edit{RemoveChannels: &edit.RemoveChannels{Channels: ids(made)[1:]}})
	if err != nil {
		t.Fatal(err)
	}
	s := serve(t, "mole", made)
	p := browser(t, s, 1280, 800)
	p.open("/sites/mole/kit", table)
	p.clickCell(cell("c1", "number")) // the first row is changed, the others are new
	var block strings.Builder
	for i := 1; i <= 16; i++ {
		fmt.Fprintf(&block, "%d\tBollard %d\tNorth\tyes\t\tH.264\t%d x 1440\t%d\r\n", i, i, 2560, 8+i%3)
	}
	p.paste(block.String())
	p.revision(2)
	p.until(`document.querySelectorAll('[data-row^="bollard"]').length === 15`)
	channels := s.plan(t).Channels
	if len(channels) != 16 || channels[15].Name != "Bollard 16" || channels[15].Streams.Main.Width != 2560 ||
		channels[15].Streams.Main.FPS != 9 || channels[2].Number != 3 {
		t.Errorf("%+v", channels)
	}
	p.shows(verdict, "days")
	// Two rows, one of them wrong: nothing is changed, all that is good is offered, and the wrong cell stays in hand.
	p.clickCell(cell("c1", "name"))
	p.paste("First\tSouth\tyes\nSecond\tSouth\tperhaps")
	p.shows(`[data-test="cell-trouble"]`, `"perhaps" is neither yes nor none`)
	if name := s.plan(t).Channel("c1").Name; name != "Bollard 1" {
		t.Errorf("half of a block was kept: %s", name)
	}
	p.click(`[data-test="set-rest"]`)
	p.revision(3)
	if a, b := s.plan(t).Channel("c1"), s.plan(t).Channel("bollard-2"); a.Name != "First" || b.Name != "Second" ||
		b.Group != "South" || b.NoCamera {
		t.Errorf("%s, %+v", a.Name, b)
	}
	p.shows(`[data-test="cell-trouble"]`, "perhaps")
	eval[bool](p,
		`(document.querySelector('[data-test="mend-cell"]').focus(), document.querySelector('[data-test="mend-cell"]').select(), true)`)
	p.keys("none" + kb.Enter)
	p.revision(4)
	p.until(`!document.querySelector('[data-test="cell-trouble"]')`)
	if !s.plan(t).Channel("bollard-2").NoCamera {
		t.Error("the cell that was mended is not set")
	}
	// Days at least beyond days at most: the column is named, and the block goes when its one wrong cell is right.
	eval[bool](p, `(document.querySelector('[data-test="channel-table"]').focus(), true)`)
	p.clickCell(cell("c1", "atLeast"))
	p.paste("10\t9\n20\t30")
	p.shows(`[data-test="cell-trouble"]`, "First, Delete after: 10 days at least but 9 at most")
	if keep := s.plan(t).Channel("bollard-2").Keep; keep.AtLeastDays == 20 {
		t.Error("half of a block was kept")
	}
	p.clickCell(cell("c1", "atMost"))
	p.keys("90" + kb.Enter)
	p.revision(5)
	if a, b := s.plan(t).Channel("c1").Keep, s.plan(t).Channel("bollard-2").Keep; a.AtLeastDays != 10 || a.AtMostDays != 90 ||
		b.AtLeastDays != 20 || b.AtMostDays != 30 {
		t.Errorf("%+v %+v", a, b)
	}
	p.keys("z", kb.ModifierCtrl)
	p.revision(6)
	p.keys("z", kb.ModifierCtrl)
	p.revision(7)
	p.until(`document.querySelector('` + cell("c1", "name") + `').innerText === 'First'`)
	p.keys("z", kb.ModifierCtrl)
	p.until(`document.querySelector('` + cell("c1", "name") + `').innerText === 'Bollard 1'`)
}

func ids(p *plan.Plan) (out []string) {
	for _, c := range p.Channels {
		out = append(out, c.ID)
	}
	return out
}

func TestRenumberByDraggingAndKeys(t *testing.T) {
	s, p := kit(t, "", cell("hall", "name"))
	grip := func(id string) point {
		box := eval[[]float64](p,
			fmt.Sprintf(`(() => { const b = document.querySelector('[data-row=%q] .grip').getBoundingClientRect(); return [b.left + 12, b.top + 6] })()`, id))
		return point{box[0], box[1]}
	}
	p.drag(grip("fuel"), grip("booth"))
	p.revision(2)
	if f, b := s.plan(t).Channel("fuel"), s.plan(t).Channel("booth"); f.Number != 2 || b.Number != 3 {
		t.Errorf("%s is %d, %s is %d", f.Name, f.Number, b.Name, b.Number)
	}
	p.clickCell(cell("hall", "name"))
	p.keys(kb.ArrowDown, kb.ModifierAlt)
	p.revision(3)
	if h, f := s.plan(t).Channel("hall"), s.plan(t).Channel("fuel"); h.Number != 2 || f.Number != 1 {
		t.Errorf("%s is %d, %s is %d", h.Name, h.Number, f.Name, f.Number)
	}
	p.clickCell(cell("spare", "name"))
	p.click(`[data-test="remove-channels"]`)
	p.revision(4)
	p.until(`!document.querySelector('[data-row="spare"]')`)
}

// TestATableOfAnotherEncodingIsShownBeforeItIsUsed imports what a spreadsheet saved in
// Windows-1252: each change is told before it is made.
func TestATableOfAnotherEncodingIsShownBeforeItIsUsed(t *testing.T) {
	s, p := kit(t, "", cell("hall", "name"))
	text, err := charmap.Windows1252.NewEncoder().String("No.;Name\r\n1;Fährhalle\r\n2;Ticket booth\r\n40;Neuer Kai\r\n")
	if err != nil {
		t.Fatal(err)
	}
	file := filepath.Join(t.TempDir(), "kanäle.csv")
	os.WriteFile(file, []byte(text), 0o644)
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`[data-test="table-file"] input`), []string{file}, chromedp.NodeReady))
	p.shows(`[data-test="encoding"]`, "Windows-1252")
	p.shows(`[data-test="table-rows"]`, "Ticket hall → Fährhalle")
	p.shows(`[data-test="table-rows"]`, "Neuer Kai (new)")
	p.isClean("the import of a table")
	p.click(`[data-test="accept-table"]`)
	p.revision(2)
	if c := s.plan(t).Channel("hall"); c.Name != "Fährhalle" {
		t.Errorf("it is called %q", c.Name)
	}
}

func TestImportABrokenTable(t *testing.T) {
	s, p := kit(t, "", cell("hall", "name"))
	file := filepath.Join(t.TempDir(), "cameras.csv")
	os.WriteFile(file, []byte("No.;Name;Frames;Shoe size\n1;Grand hall;12;44\n2;Booth;quick;44\n17;Lantern;8;44\n"), 0o644)
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`[data-test="table-file"] input`), []string{file}, chromedp.NodeReady))
	p.shows(".el-dialog", "1 channel to add, 1 to change")
	p.shows(".el-dialog", `“quick” is not a number`)
	p.shows(".el-dialog", "Shoe size")
	if row := p.text(`[data-test="table-bad"] tbody tr`); !strings.HasPrefix(row, "3") || !strings.Contains(row, "Frames") {
		t.Errorf("the bad cell is named as %q", row)
	}
	p.click(`[data-test="accept-table"]`)
	p.revision(2)
	if c := s.plan(t).Channel("hall"); c.Name != "Grand hall" || c.Streams.Main.FPS != 12 || s.plan(t).Channel("lantern") == nil ||
		s.plan(t).Channel("booth").Name != "Ticket booth" {
		t.Errorf("%+v", c)
	}
	file = filepath.Join(t.TempDir(), "words.csv")
	os.WriteFile(file, []byte("just some words\nno table\n"), 0o644)
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`[data-test="table-file"] input`), []string{file}, chromedp.NodeReady))
	p.shows(".el-dialog", "no heading is known")
}

func TestRecordersAndDrives(t *testing.T) {
	s, p := kit(t, "recorders", `[data-scenario="more"]`)
	p.shows(`[data-scenario="failed"]`, "All footage stays")
	kept := p.text(verdict)
	p.click(`[data-scenario="more"] button`)
	p.revision(2)
	p.until(`document.querySelector('` + verdict + `').innerText !== '` + kept + `'`)
	if n := s.plan(t).Pool("array").Drives[0].Count; n != 5 {
		t.Errorf("%d drives", n)
	}
	p.number(`[data-recorder="nvr"]`, "ingest", "90")
	p.revision(3)
	p.until(`!!document.querySelector('.gauge.over')`)
	p.click(`[data-test="remove-recorder"]`)
	p.shows(`[data-recorder="nvr"]`, "the channel 1, Ticket hall names it")
	p.click(`[data-test="new-recorder"]`)
	p.revision(4)
	p.until(`document.querySelectorAll('[data-recorder]').length === 2`)
	// Channels move to it by dragging their rows onto its name.
	p.click(`[data-part="channels"]`)
	p.until(`!!document.querySelector('[data-drop-recorder="recorder-2"]') && !!document.querySelector('[data-row="hall"] .grip')`)
	from := eval[[]float64](p,
		`(() => { const b = document.querySelector('[data-row="hall"] .grip').getBoundingClientRect(); return [b.left + 12, b.top + 6] })()`)
	to := eval[[]float64](p,
		`(() => { const b = document.querySelector('[data-drop-recorder="recorder-2"]').getBoundingClientRect(); return [b.left + 20, b.top + 6] })()`)
	p.drag(point{from[0], from[1]}, point{to[0], to[1]})
	p.revision(5)
	if c := s.plan(t).Channel("hall"); c.Recorder != "recorder-2" || c.Pool != "recorder-2-drives" || c.Number != 1 {
		t.Errorf("%+v", c)
	}
}

func TestCameraKinds(t *testing.T) {
	s, p := kit(t, "kinds", `[data-kind="lane"]`)
	p.shows("section", "main bitrate differs")
	p.number(".sheet", "fps", "8")
	p.revision(2)
	lane, barrier := s.plan(t).Channel("lane-2"), s.plan(t).Channel("barrier")
	if lane.Streams.Main.FPS != 8 || barrier.Streams.Main.FPS != 8 || barrier.Streams.Main.Rate == lane.Streams.Main.Rate {
		t.Errorf("%+v, %+v", lane.Streams.Main, barrier.Streams.Main)
	}
	p.click(".departs button")
	p.revision(3)
	if barrier := s.plan(t).Channel("barrier"); barrier.Streams.Main.Rate != lane.Streams.Main.Rate {
		t.Errorf("%+v", barrier.Streams.Main)
	}
	p.click(`[data-test="new-kind"]`)
	p.revision(4)
	p.click(`[data-part="channels"]`)
	p.clickCell(cell("fuel", "kind"))
	p.keys("8 mp bullet, lanes")
	p.keys(kb.Enter)
	p.revision(5)
	if c := s.plan(t).Channel("fuel"); c.Kind != "lane" || c.Streams.Main.FPS != 8 {
		t.Errorf("%+v", c)
	}
}

// TestATableOfAnotherSite imports a table whose names this plan does not have: one is mapped, one left out, the rest made.
func TestATableOfAnotherSite(t *testing.T) {
	s, p := kit(t, "", cell("hall", "name"))
	file := filepath.Join(t.TempDir(), "other.csv")
	os.WriteFile(file,
		[]byte("No.;Name;Group;Camera kind;Activity;Week\n41;North gate;Gates;Dome 4;A corridor of offices;Gate week\n42;South gate;Gates;Dome 4;Gulls over the gate;Gate week\n"), 0o644)
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`[data-test="table-file"] input`), []string{file}, chromedp.NodeReady))
	p.shows(`[data-test="table-names"]`, "4 names to be decided; until then their lines are left out.")
	p.shows(".el-dialog", "2 rows left out")
	p.pick(`[data-name="kind Dome 4"]`, "Leave it out")
	p.pick(`[data-name="activity Gulls over the gate"]`, s.plan(t).Activities[0].Name)
	p.shows(`[data-test="table-names"]`, "2 names to be decided")
	p.click(`[data-test="make-names"]`)
	p.shows(`[data-test="table-names"]`, "All are decided.")
	p.until(`!document.querySelector('[data-test="table-bad"]')`)
	p.click(`[data-test="accept-table"]`)
	p.revision(2)
	now := s.plan(t)
	north, south := now.Channels[len(now.Channels)-2], now.Channels[len(now.Channels)-1]
	if north.Name != "North gate" || north.Group != "Gates" || north.Kind != "" ||
		now.Activity(north.Activity).Name != "A corridor of offices" || now.Week(north.Week.Named).Name != "Gate week" {
		t.Errorf("%+v", north)
	}
	if south.Activity != now.Activities[0].ID {
		t.Errorf("%s looks at %s", south.Name, south.Activity)
	}
	p.keys("z", kb.ModifierCtrl)
	p.revision(3)
	if n := len(s.plan(t).Channels); n != len(now.Channels)-2 {
		t.Errorf("%d channels after undo", n)
	}
}
