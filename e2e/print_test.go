package e2e

import (
	"context"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/emulation"
	cdppage "github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"

	"wakefield.example/internal/demo"
)

// printed is the text of the page as it is printed on A4, and how many sheets it takes.
func (p *page) printed() (text string, sheets int) {
	p.Helper()
	var data []byte
	p.do(chromedp.Func(func(ctx context.Context, target *chromedp.Target) error {
		told, err := chromedp.Call(ctx, cdppage.PrintToPDF, cdppage.PrintToPDFParams{PaperWidth: 8.27, PaperHeight: 11.69})
		if err != nil {
			return err
		}
		data = told.Data
		return nil
	}))
	file := filepath.Join(p.TempDir(), "page.pdf")
	if dir := os.Getenv("WAKEFIELD_PRINTED"); dir != "" {
		file = filepath.Join(dir, strings.NewReplacer("/", "-", ":", "-").Replace(p.Name())+
			eval[string](p, "location.pathname.replaceAll('/', '-')")+".pdf")
	}
	if err := os.WriteFile(file, data, 0o600); err != nil {
		p.Fatal(err)
	}
	out, err := exec.Command("pdftotext", "-layout", file, "-").Output()
	if err != nil {
		p.Fatal(err)
	}
	return string(out), strings.Count(string(out), "\f")
}

// onPaper has the page look as it is printed while something is looked at.
func (p *page) onPaper(look func()) {
	p.Helper()
	media := func(media string) {
		p.do(chromedp.Func(func(ctx context.Context, target *chromedp.Target) error {
			_, err := chromedp.Call(ctx, emulation.SetEmulatedMedia, emulation.SetEmulatedMediaParams{Media: media})
			return err
		}))
	}
	media("print")
	defer media("")
	look()
}

// TestPagesArePrintedWhole prints pages: their matter stands on as many sheets as it takes, all rows of long lists among it, and
// the bars do not.
func TestPagesArePrintedWhole(t *testing.T) {
	s := serve(t, "depot", demo.SaltmarshTramDepot())
	p := browser(t, s, 1280, 800)
	last := demo.SaltmarshTramDepot()
	names := []string{last.Channels[0].Name, last.Channels[95].Name, last.Channels[191].Name}
	for _, page := range []struct {
		path, ready string
		least       int
		has         []string
	}{
		{"/sites/depot", `[data-channel="c1-1"] canvas`, 3, names},
		{"/sites/depot/kit", `[data-row]`, 3, names},
		{"/sites/depot/findings", `.finding`, 1, []string{"warnings"}},
		{"/sites/depot/storage", `[data-test="levers"]`, 2, []string{"What would it take"}},
		{"/sites/depot/history", `.history ol > li`, 1, []string{"History"}},
	} {
		p.open(page.path, page.ready)
		p.shows(verdict, "days")
		text, sheets := p.printed()
		flat := strings.Join(strings.Fields(text), " ")
		for _, has := range page.has {
			if !strings.Contains(strings.ToLower(flat), strings.ToLower(has)) {
				t.Errorf("%s: %q is not on paper", page.path, has)
			}
		}
		// Every column of the table is there: a sheet is narrower than the screen. What is pressed is not.
		for _, heading := range eval[[]string](p, `[...document.querySelectorAll('[data-heading]')].map((e) => e.firstChild.nodeValue.trim())`) {
			if !strings.Contains(flat, heading) {
				t.Errorf("%s: the column %q is not on paper", page.path, heading)
			}
		}
		if !strings.Contains(flat, "errors · warnings · hints") {
			t.Errorf("%s: the end of the verdict is not on paper", page.path)
		}
		for _, act := range []string{"Add a channel", "painting the rows", "+ New", "Find channels"} {
			if strings.Contains(flat, act) {
				t.Errorf("%s: %q is printed", page.path, act)
			}
		}
		if sheets < page.least {
			t.Errorf("%s takes %d sheets", page.path, sheets)
		}
		if strings.Contains(flat, "Ctrl+K") || strings.Contains(flat, "Export plan") {
			t.Errorf("%s: the bar is printed", page.path)
		}
	}
	if eval[bool](p, `matchMedia('print').matches`) {
		t.Error("it is on paper still")
	}

	// Weeks are drawn for a window, and on paper as wide as the headings of their days are.
	p.goes("/sites/depot", `[data-channel="c1-1"] canvas`)
	p.onPaper(func() {
		p.until(`(() => {
			const right = (css) => document.querySelector(css).getBoundingClientRect().right
			document.querySelector('[data-channel="c1-1"] canvas').style.width = '200px'
			if (document.querySelector('[data-duty] svg rect.base').getBoundingClientRect().height < 1) return false // the legend
			return Math.abs(right('[data-channel="c1-1"] canvas') - right('[data-day-heading="6"]')) < 2
		})()`)
	})
}
