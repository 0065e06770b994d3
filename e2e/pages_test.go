package e2e

import (
	"encoding/json"
	"os"
	"strings"
	"testing"

	"github.com/chromedp/chromedp/kb"
)

// knownPage is a page as the router, the rail and the commands know it.
type knownPage struct {
	Name, Path, Title, Key string
	Parts                  []struct{ Part, Title string }
}

// knownPages reads the one list of the pages of a site.
func knownPages(t *testing.T) (pages []knownPage) {
	t.Helper()
	text, err := os.ReadFile("../web/src/shell/pages.json")
	if err == nil {
		err = json.Unmarshal(text, &pages)
	}
	if err != nil || len(pages) < 5 {
		t.Fatal(len(pages), err)
	}
	return pages
}

// at is the address of a page, or of a part of it, below that of a site.
func (k knownPage) at(site, part string) string {
	path, _, _ := strings.Cut(k.Path, "/:")
	return strings.TrimSuffix(strings.TrimSuffix(site+"/"+path, "/")+"/"+part, "/")
}

// parts are those of a page, of which the first has no address of its own.
func (k knownPage) parts() []string {
	parts := []string{""}
	for _, p := range k.Parts {
		if p.Part != "" {
			parts = append(parts, p.Part)
		}
	}
	return parts
}

// TestEveryPageIsReached goes to each page by the rail, by its key and by the command box.
func TestEveryPageIsReached(t *testing.T) {
	_, p := quay(t)
	for _, known := range knownPages(t) {
		here := `document.querySelector('main.page')?.dataset.page === "` + known.Name + `" && !!document.querySelector('main.page h1')`
		away := func() {
			p.click(`.rail a[href="/sites/quay/history"]`)
			p.until(`!!document.querySelector('[data-page="history"] h1')`)
		}
		if known.Name == "history" {
			away = func() {
				p.click(`.rail a[href="/sites/quay/findings"]`)
				p.until(`!!document.querySelector('[data-page="findings"] h1')`)
			}
		}
		away()
		p.click(`.rail a[href="` + known.at("/sites/quay", "") + `"]`)
		p.until(here)
		away()
		p.keys(known.Key, kb.ModifierAlt|kb.ModifierShift)
		p.until(here)
		title := known.Title
		if len(known.Parts) > 0 {
			title = known.Parts[0].Title
		}
		away()
		p.keys("k", kb.ModifierCtrl)
		p.until(`document.activeElement === document.querySelector('[data-test="command"]')`)
		p.keys(title)
		p.until(`document.querySelector('[role="option"][aria-selected="true"]')?.textContent.includes("` + title + `")`)
		p.keys(kb.Enter)
		p.until(here)
		p.until(`!document.querySelector('[data-test="command"]')?.offsetWidth && document.getAnimations().length === 0`)
	}
}
