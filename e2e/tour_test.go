package e2e

import (
	"fmt"
	"os"
	"regexp"
	"strings"
	"testing"

	"github.com/chromedp/chromedp/kb"

	"wakefield.example/internal/demo"
)

// acts are what is done at those steps of the tour at which something is.
var acts = map[string]func(p *page){
	"A stroke, and its price": func(p *page) {
		p.click(`[data-duty="clock"]`)
		p.press(p.on("gangway-a", 1440+360), p.on("gangway-a", 4*1440+1320))
	},
	"A week that has not happened yet": func(p *page) {
		eval[bool](p, `((field) => (field.focus(), field.select(), true))(document.querySelector('input[aria-label="From"]'))`)
		p.keys("7 Dec 2026" + kb.Enter)
	},
	"Mend one, and take it back": func(p *page) {
		p.shows("main", "−0.69 GB a day") // it has been tried
		p.until(`[...document.querySelectorAll('.finding button')].some((b) => b.innerText === 'Record no audio' && (b.click(), true))`)
	},
}

// TestTheTour walks docs/tour.md: every address is opened, every act made, every figure that is promised looked for, and every
// button and name.
func TestTheTour(t *testing.T) {
	text, err := os.ReadFile("../docs/tour.md")
	if err != nil {
		t.Fatal(err)
	}
	steps := strings.Split(string(text), "\n## ")[1:]
	s := serve(t, "pennywhistle-quay", demo.PennywhistleQuay())
	s.brings(t)
	p := browser(t, s, 1280, 800)
	made := 0
	for i, step := range steps {
		heading, body, _ := strings.Cut(step, "\n")
		number, title, _ := strings.Cut(heading, " · ")
		if number != fmt.Sprint(i+1) {
			t.Errorf("step %q comes as number %d", heading, i+1)
		}
		address := regexp.MustCompile("(?m)^Address: `(/[^`]*)`$").FindStringSubmatch(body)
		figures := regexp.MustCompile(`\*\*([^*]+)\*\*`).FindAllStringSubmatch(body, -1)
		if address == nil || len(figures) == 0 {
			t.Fatalf("%s: it has an address, %v, and a figure, %v", heading, address, figures)
		}
		p.open("/", "main li")
		p.open(address[1], "main")
		p.shows(verdict, "days")
		plain := strings.ReplaceAll(body, "**", "")
		for _, name := range regexp.MustCompile(`\*([^*]+)\*`).FindAllStringSubmatch(plain, -1) {
			p.until(fmt.Sprintf(`(document.body.innerText + [...document.querySelectorAll('input')].map((i) => i.value)).includes(%q)`,
				strings.ReplaceAll(name[1], "\n", " ")))
		}
		if act := acts[title]; act != nil {
			act(p)
			made++
		}
		for _, f := range figures {
			p.until(fmt.Sprintf(`document.body.innerText.replace(/[\u202f\u00a0]/g, " ").includes(%q)`, f[1]))
		}
		switch {
		case strings.Contains(body, "Esc lets go"):
			p.keys(kb.Escape)
		case strings.Contains(body, "Ctrl+Z undoes it."):
			p.until(isSaved)
			p.keys("z", kb.ModifierCtrl)
			p.shows(verdict, "37.2 days")
			p.until(isSaved)
		}
	}
	if made != len(acts) || len(steps) != 16 {
		t.Errorf("%d acts of %d were made in %d steps", made, len(acts), len(steps))
	}
}
