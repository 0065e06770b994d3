package e2e

import (
	"bytes"
	"image"
	"image/color"
	"image/png"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// get fetches something from the server.
func (s *site) get(t *testing.T, path string) []byte {
	t.Helper()
	response, err := http.Get(s.url + path)
	if err != nil {
		t.Fatal(err)
	}
	defer response.Body.Close()
	data, err := io.ReadAll(response.Body)
	if err != nil || response.StatusCode != http.StatusOK {
		t.Fatalf("%s: %s, %v", path, response.Status, err)
	}
	return data
}

// stillFile writes a picture that is dark at its left.
func stillFile(t *testing.T, name string, width, height int) string {
	t.Helper()
	m := image.NewGray(image.Rect(0, 0, width, height))
	for y := range height {
		for x := width / 2; x < width; x++ {
			m.SetGray(x, y, color.Gray{200})
		}
	}
	var out bytes.Buffer
	if err := png.Encode(&out, m); err != nil {
		t.Fatal(err)
	}
	file := filepath.Join(t.TempDir(), name)
	if err := os.WriteFile(file, out.Bytes(), 0o644); err != nil {
		t.Fatal(err)
	}
	return file
}

// isShown tells whether the still of the picture is there for whoever asks.
const isShown = `fetch(document.querySelector('[data-test="still"]').getAttribute('href')).then(r => r.ok && r.headers.get('content-type') === 'image/jpeg')`

// TestAChannelGetsAPicture drops a still, pastes another, takes that back, and gives files that are none; then it exports
// the plan with its pictures and makes a site of that again.
func TestAChannelGetsAPicture(t *testing.T) {
	s, p := picturePage(t, "slip")
	if eval[bool](p, `!!document.querySelector('[data-test="still"]')`) {
		t.Fatal("there is a still already")
	}
	p.dropFile(`[data-test="board"]`, stillFile(t, "slip.png", 640, 360))
	p.revision(2)
	p.until(`!!document.querySelector('[data-test="still"]')`)
	first := s.plan(t).Channel("slip").Scene.Picture
	if !eval[bool](p, isShown) {
		t.Error("the still is not there")
	}
	// In the dark it is darker, and nothing else is another colour.
	p.click(`[data-test="theme"]`)
	if all, still := eval[string](p, `getComputedStyle(document.documentElement).filter`), eval[string](p,
		`getComputedStyle(document.querySelector('[data-test="still"]')).filter`); all != "none" || still == "none" {
		t.Errorf("the page is filtered by %q, the still by %q", all, still)
	}
	// A screenshot is pasted, as WebP.
	eval[bool](p, `new Promise(done => {
		const canvas = document.createElement('canvas')
		canvas.width = 320
		canvas.height = 180
		canvas.getContext('2d').fillRect(0, 0, 100, 100)
		canvas.toBlob(blob => {
			const data = new DataTransfer()
			data.items.add(new File([blob], 'shot.webp', { type: 'image/webp' }))
			document.querySelector('[data-test="board"]').dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))
			done(true)
		}, 'image/webp')
	})`)
	p.revision(3)
	if second := s.plan(t).Channel("slip").Scene.Picture; second == first || second == "" {
		t.Errorf("%q after %q", second, first)
	}
	p.keys("z", kb.ModifierCtrl)
	p.revision(4)
	p.until(`document.querySelector('[data-test="still"]').getAttribute('href').endsWith('` + first + `')`)
	if !eval[bool](p, isShown) {
		t.Error("the still that undo brings back is not there")
	}

	// What is no picture is refused beside the picture, which stays.
	bad := filepath.Join(t.TempDir(), "notes.png")
	if err := os.WriteFile(bad, []byte("no picture"), 0o644); err != nil {
		t.Fatal(err)
	}
	p.dropFile(`[data-test="board"]`, bad)
	p.shows(`[data-test="picture-problem"]`,
		"notes.png: this is no picture that can be read: JPEG, PNG and WebP can The picture stays as it was.")
	large := filepath.Join(t.TempDir(), "large.jpg")
	if err := os.WriteFile(large, make([]byte, 9<<20), 0o644); err != nil {
		t.Fatal(err)
	}
	p.dropFile(`[data-test="board"]`, large)
	p.shows(`[data-test="picture-problem"]`, "large.jpg has 9.0 MB; 8 MB are the most.")

	// The yard's picture was not among what the plan came with.
	p.click(`[data-line="yard"]`)
	p.shows(`[data-test="still-missing"]`, "came without its pictures")
	p.click(`[data-test="remove-still"]`)
	p.revision(5)

	packed := s.get(t, "/api/plans/yard/zip")
	file := filepath.Join(t.TempDir(), "yard.zip")
	if err := os.WriteFile(file, packed, 0o644); err != nil {
		t.Fatal(err)
	}
	p.open("/", `[data-site="yard"]`)
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`[data-test="picker"] input`), []string{file}, chromedp.NodeReady))
	p.until(`location.pathname.startsWith('/sites/watched-yard-')`)
	made := strings.TrimPrefix(eval[string](p, `location.pathname`), "/sites/")
	p.open("/sites/"+made+"/triggers", `[data-test="course"]`)
	p.click(`[data-line="slip"]`)
	p.until(`!!document.querySelector('[data-test="still"]')`)
	if !eval[bool](p, isShown) || !strings.Contains(eval[string](p, `document.querySelector('[data-test="still"]').getAttribute('href')`),
		made) {
		t.Error("the still did not come back with the archive")
	}
}
