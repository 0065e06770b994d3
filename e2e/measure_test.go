package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// dropFile drops a file on an element, as from the desktop.
func (p *page) dropFile(css, file string) {
	p.Helper()
	eval[bool](p, `(() => {
		const picker = document.body.appendChild(document.createElement('input'))
		picker.type = 'file'
		picker.id = 'dropped'
		return true
	})()`)
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`#dropped`), []string{file}, chromedp.NodeReady))
	eval[bool](p, fmt.Sprintf(`(() => {
		const picker = document.getElementById('dropped')
		const data = new DataTransfer()
		data.items.add(picker.files[0])
		picker.remove()
		for (const kind of ['dragover', 'drop']) document.querySelector(%q).dispatchEvent(new DragEvent(kind, { dataTransfer: data, bubbles: true, cancelable: true }))
		return true
	})()`, css))
}

func TestDropAClip(t *testing.T) {
	s, p := kit(t, "", cell("hall", "name"))
	p.clickCell(cell("slipway", "name"))
	p.shows(".pane", "Slipway")
	p.dropFile(`[data-test="clip-drop"]`, quietThenBusy().write(t, "slipway.mp4"))
	p.shows(`[data-test="measured"]`, "20.0 /s")
	if over := eval[float64](p, `(() => {
		let pane = document.querySelector('[data-test="measured"]')
		while (getComputedStyle(pane).overflowY !== 'auto') pane = pane.parentElement
		return pane.scrollWidth - pane.clientWidth
	})()`); over > 0 {
		t.Errorf("the pane is %v px wider than there is room", over)
	}
	p.shows(`[data-test="measured"]`, "60.0 kB")
	p.click(`[data-test="accept-clip"]`)
	p.revision(2)
	m := s.plan(t).Channel("slipway").Streams.Main
	still, moving := (60_000+39*2000)*8/2000.0, (60_000+39*12_000)*8/2000.0
	if m.Width != 640 || m.FPS != 20 || m.GOPSeconds != 2 || m.KeyframeKB != 60 || m.Rate.Known != "measured" ||
		m.Rate.IdleKbps < 0.98*still || m.Rate.IdleKbps > 1.02*still || m.Rate.ActiveKbps < 0.98*moving || m.Rate.ActiveKbps > 1.02*moving {
		t.Errorf("%+v; drawn with %v and %v kbit/s", m, still, moving)
	}
	words := filepath.Join(t.TempDir(), "words.mp4")
	os.WriteFile(words, []byte("this is no clip"), 0o644)
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`[data-test="clip"] input`), []string{words}, chromedp.NodeReady))
	p.shows(`[data-test="clip-drop"]`, "words.mp4 cannot be read")
}

// TestANightClipSaysWhatDarknessAdds measures a stream, drops the same clip as one taken at
// night, and types the hours as people do.
func TestANightClipSaysWhatDarknessAdds(t *testing.T) {
	s, p := kit(t, "", cell("hall", "name"))
	p.clickCell(cell("slipway", "name"))
	p.shows(".pane", "Slipway")
	file := quietThenBusy().write(t, "slipway.mp4")
	p.dropFile(`[data-test="clip-drop"]`, file)
	p.click(`[data-test="accept-clip"]`)
	p.revision(2)
	p.number(".pane", "night", "1,5")
	p.revision(3)
	p.until(`document.querySelector('[data-test="night-hours"] input').value === 'all days 20:00-06:00'`)
	p.shows(`[data-test="night-cost"]`, "At night")
	typeHours := func(text string) {
		eval[bool](p,
			`(document.querySelector('[data-test="night-hours"] input').focus(), document.querySelector('[data-test="night-hours"] input').select(), true)`)
		p.keys(text)
		p.keys(kb.Enter)
	}
	typeHours("Mon-Fry 19-7")
	p.shows(`[data-test="night-hours"]`, `no day "fry"`)
	typeHours("Mon-Fri 19-7, Sat 20.30-8")
	p.revision(4)
	p.until(`document.querySelector('[data-test="night-hours"] input').value === 'Mon-Fri 19:00-07:00, Sat 20:30-08:00'`)
	night := s.plan(t).Channel("slipway").Streams.Main.Rate.Night
	if night == nil || night.Factor != 1.5 || len(night.Hours.Blocks) != 2 || night.Hours.Blocks[1].From != 1230 {
		t.Errorf("%+v", night)
	}
	p.dropFile(`[data-test="clip-drop"]`, file)
	p.click(`[data-test="accept-night"]`)
	p.revision(5) // the very same clip: no more at night than by day
	if night := s.plan(t).Channel("slipway").Streams.Main.Rate.Night; night != nil {
		t.Errorf("%+v", night)
	}
}

// TestClipsOfEveryContainer reads real clips, which say the same in each container.
func TestClipsOfEveryContainer(t *testing.T) {
	_, p := kit(t, "", cell("hall", "name"))
	for _, kind := range []string{"mp4", "mkv", "mov", "ts"} {
		file, err := filepath.Abs("testdata/tiny." + kind)
		if err != nil {
			t.Fatal(err)
		}
		p.do(chromedp.SetUploadFiles(chromedp.CSS(`[data-test="clip"] input`), []string{file}, chromedp.NodeReady))
		p.shows(`[data-test="clip-drop"] h3`, "tiny."+kind)
		says := p.text(`[data-test="measured"]`)
		for _, want := range []string{"10.0 /s", "1.00 s"} {
			if !strings.Contains(says, want) {
				t.Errorf("%s: no %s in %q", kind, want, says)
			}
		}
		p.shows(`[data-test="clip-drop"]`, "The clip is short")
		p.click(`[data-test="clip-drop"] .link`)
	}
}

// TestALargeClipIsNotReadWhole counts the bytes that are read of a clip of 200 MB.
func TestALargeClipIsNotReadWhole(t *testing.T) {
	_, p := kit(t, "", cell("hall", "name"))
	large := quietThenBusy()
	large.spread = 200 << 20
	file := large.write(t, "large.mp4")
	if info, err := os.Stat(file); err != nil || info.Size() < 200<<20 {
		t.Fatalf("%v %v", err, info)
	}
	eval[bool](p, `(() => {
		window.bytesRead = 0
		const read = ReadableStreamDefaultReader.prototype.read
		ReadableStreamDefaultReader.prototype.read = async function () { const r = await read.apply(this, arguments); bytesRead += r.value?.length ?? 0; return r }
		const whole = Blob.prototype.arrayBuffer
		Blob.prototype.arrayBuffer = async function () { bytesRead += this.size; return whole.apply(this) }
		return true
	})()`)
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`[data-test="clip"] input`), []string{file}, chromedp.NodeReady))
	p.shows(`[data-test="measured"]`, "60.0 s")
	if read := eval[float64](p, `bytesRead`); read == 0 || read > 20<<20 {
		t.Errorf("%.1f MB of %d were read", read/1e6, 200)
	}
}
