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
func knownPages(t testing.TB) (pages []knownPage) {
	t.Helper()
	file, err := os.Open("../web/src/shell/pages.json")
	if err != nil {
		t.Fatal(err)
	}
	defer file.Close()
	list := json.NewDecoder(file) // token by token, as they have an order
	_, err = list.Token()
	for err == nil && list.More() {
		var name json.Token
		if name, err = list.Token(); err != nil {
			break
		}
		page := knownPage{Name: name.(string)}
		err = list.Decode(&page)
		pages = append(pages, page)
	}
	if err != nil || len(pages) < 5 {
		t.Fatal(len(pages), err)
	}
	return pages
}

// TestThePagesHaveSynonyms asks of every page and part what else people call it, which the command box finds it by.
func TestThePagesHaveSynonyms(t *testing.T) {
	data, err := os.ReadFile("../web/src/shell/synonyms.json")
	if err != nil {
		t.Fatal(err)
	}
	var synonyms map[string]string
	if err := json.Unmarshal(data, &synonyms); err != nil {
		t.Fatal(err)
	}
	known := 0
	for _, page := range knownPages(t) {
		titles := []string{page.Title}
		if len(page.Parts) > 0 {
			titles = titles[:0]
			for _, part := range page.Parts {
				titles = append(titles, part.Title)
			}
		}
		for _, title := range titles {
			if known++; synonyms[title] == "" {
				t.Errorf("nobody says what else %q is called", title)
			}
		}
	}
	if known != len(synonyms) {
		t.Errorf("%d pages and parts, %d with other names", known, len(synonyms))
	}
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
	pages := knownPages(t)
	here := func(k knownPage) string {
		return `document.querySelector('main.page')?.dataset.page === "` + k.Name + `" && !!document.querySelector('main.page h1')`
	}
	eval[bool](p, `(performance.setResourceTimingBufferSize(5000), true)`)
	// The last is where each round ends, so no page is where it is gone to from.
	for _, known := range pages {
		p.click(`.rail a[href="` + known.at("/sites/quay", "") + `"]`)
		p.until(here(known))
	}
	asked := eval[int](p, `performance.getEntriesByType('resource').filter((r) => new URL(r.name).pathname === '/api/sites/quay').length`)
	if asked != 1 {
		t.Errorf("the site was asked for %d times, and nothing of it changed", asked)
	}
	for _, known := range pages {
		p.keys(known.Key, kb.ModifierAlt|kb.ModifierShift)
		p.until(here(known))
	}
	for _, known := range pages {
		title := known.Title
		if len(known.Parts) > 0 {
			title = known.Parts[0].Title
		}
		p.keys("k", kb.ModifierCtrl)
		p.until(`document.activeElement === document.querySelector('[data-test="command"]')`)
		p.keys(title)
		p.until(`document.querySelector('[role="option"][aria-selected="true"]')?.textContent.includes("` + title + `")`)
		p.keys(kb.Enter)
		p.until(here(known))
		p.until(`!document.querySelector('[data-test="command"]')?.offsetWidth && document.getAnimations().length === 0`)
	}
}

// TestTitlesTellTabsApart reads the title of the window on pages, with a channel in hand, and off them; and goes to addresses of
// nothing, which say so.
func TestTitlesTellTabsApart(t *testing.T) {
	_, p := quay(t)
	titled := func(title string) {
		t.Helper()
		p.until(`document.title === ` + quotedJS(title))
	}
	titled("Week · Pennywhistle Quay · Wakefield")
	p.choose("booth")
	titled("Week · Ticket booth · Pennywhistle Quay · Wakefield")
	p.open("/sites/quay/kit/recorders", "main h1")
	titled("Recorders and drives · Pennywhistle Quay · Wakefield")
	p.open("/", "main h1")
	titled("Sites · Wakefield")
	p.open("/new", "main h1")
	titled("New site · Wakefield")
	p.open("/site/quay", `[data-test="nowhere"]`)
	p.shows(`[data-test="nowhere"]`, "/site/quay is no page of Wakefield")
	titled("Nothing here · Wakefield")
	p.click(`[data-test="nowhere"] a`)
	titled("Sites · Wakefield")
	p.open("/sites/quay/kit/cameras", `[data-test="no-part"]`)
	p.shows(`[data-test="no-part"]`, "There is no part “cameras” of Kit")
	p.click(`a[href="/sites/quay/kit/recorders"]`)
	titled("Recorders and drives · Pennywhistle Quay · Wakefield")
	p.open("/sites/nowhere", "main.failure")
	p.shows("main.failure", "There is no such site or plan.")
}
