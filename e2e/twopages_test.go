package e2e

import (
	"fmt"
	"regexp"
	"strings"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/internal/demo"
)

// stands is where a figure stands: on a page, in an element, and what is written of it there; %s is the figure.
type stands struct{ page, css, pattern string }

// onlyQuay are figures that one of the two sites has.
var onlyQuay = map[string]bool{"the worst date": true, "safe off site": true, "safe off site, nearly always": true, "messages": true,
	"messages held back": true, "days of the booth": true}

// figuresOnPages are those that more than one page shows, with all the places at which they are. One who adds a place adds it here.
var figuresOnPages = map[string][]stands{
	"days kept of the verdict": {
		{"", ".verdict", `^(\S+ days)`},
		{"/storage", `[data-band]`, `· (\S+ days)`},
		{"/compare", `[data-test="verdicts"]`, `days kept, of the channel nearest to what it must keep\s+(\S+) d `},
		{"/", `[data-site="site"] .kept`, `^(\S+ days)`},
	},
	"required days of the verdict": {
		{"", ".verdict", `of (\S+) required`},
		{"/compare", `[data-test="verdicts"]`, `of (\S+) required`},
		{"/", `[data-site="site"] .kept`, `of (\S+)`},
	},
	"the worst hour": {
		{"/storage", `[data-band]`, `(\S+) at the worst hour`},
		{"/compare", `[data-test="verdicts"]`, `at the worst hour\s+(\S+) d`},
	},
	"the worst date": {
		{"/weeks#days", `[data-test="year-line"]`, `at worst (\S+) days on`},
		{"/storage", `[data-test="year-line"]`, `at worst (\S+) days on`},
		{"/compare", `[data-test="verdicts"]`, `on the worst date of the year\s+(\S+) d on`},
	},
	"the chance": {
		{"", ".verdict", `(\S+) % chance all are met`},
		{"/compare", `[data-test="verdicts"]`, `(\S+) % chance all are met`},
	},
	"GB a day": {
		{"", ".verdict", `(\S+ [GT]B) a day`},
		{"/storage", `[data-band]`, `(\S+ [GT]B) a day`},
		{"/compare", `[data-test="verdicts"]`, `written a day\s+(\S+ [GT]B)`},
	},
	"events missed a day": {
		{"", ".verdict", `(\S+) missed a day`},
		{"/compare", `[data-test="verdicts"]`, `wanted events missed a day\s+(\S+)`},
	},
	"days of the booth": {
		{"", ".verdict", `^(\S+ days)`},
		{"/findings", "main", `Ticket booth keeps (\S+) days of`},
	},
	"safe off site": {
		{"/triggers/offsite", "main", `nine of ten are safe within (\S+) \S+ of`},
		{"/triggers/offsite", "main", `Nine of ten are safe within (\S+) \S+,`},
		{"/findings", "main", `Nine of ten are safe within (\S+) \S+,`},
	},
	"safe off site, nearly always": {
		{"/triggers/offsite", "main", `of the event, 99 of 100 within (\S+) `},
		{"/findings", "main", `min, 99 of 100 within (\S+) `},
	},
	"messages": {
		{"/triggers/messages", "main", `(\S+) a day go out \S+ held back`},
		{"/findings", "main", `Harbour phone: (\S+) a day go out`},
	},
	"messages held back": {
		{"/triggers/messages", "main", `a day go out (\S+) held back`},
		{"/findings", "main", `Harbour phone: \S+ a day go out and (\S+) do not`},
	},
	"errors": {
		{"", `[data-test="verdict-findings"]`, `^(\d+) ·`},
		{"/", `[data-site="site"] .found`, `^(\d+) error`},
	},
}

// TestTwoReadersOneMeaning asks every page for the figures that stand on others too.
func TestTwoReadersOneMeaning(t *testing.T) {
	for name, made := range map[string]*plan.Plan{"quay": demo.PennywhistleQuay(), "cider works": demo.BrackenhallCiderWorks()} {
		t.Run(name, func(t *testing.T) {
			s := serve(t, "site", made)
			p := browser(t, s, 1400, 900)
			texts := make(map[[2]string]string)
			read := func(at stands) string {
				key := [2]string{at.page, at.css}
				if _, ok := texts[key]; !ok {
					path, tab, _ := strings.Cut(at.page, "#")
					if path != "/" {
						path = "/sites/site" + path
					}
					p.open(path, "main")
					if tab != "" {
						p.click(fmt.Sprintf(`[data-tab=%q]`, tab))
					}
					texts[key] = ""
					for k := range figuresOnPages {
						for _, other := range figuresOnPages[k] {
							if other.page == at.page && (name == "quay" || !onlyQuay[k]) {
								p.until(fmt.Sprintf(`new RegExp(%s).test((document.querySelector(%q)?.innerText ?? '').trim().split(/\s+/).join(' '))`,
									quotedJS(other.pattern), other.css))
								texts[[2]string{at.page, other.css}] = eval[string](p, fmt.Sprintf(`document.querySelector(%q)?.innerText ?? ''`, other.css))
							}
						}
					}
				}
				return strings.Join(strings.Fields(texts[key]), " ")
			}
			for figure, places := range figuresOnPages {
				if onlyQuay[figure] && name != "quay" {
					continue
				}
				said := ""
				for _, at := range places {
					m := regexp.MustCompile(at.pattern).FindStringSubmatch(read(at))
					if m == nil {
						t.Errorf("%s: %s, %s does not say it: %.300s", figure, at.page, at.css, read(at))
						continue
					}
					got := strings.Fields(m[1])[0]
					if said == "" {
						said = got
					}
					if got != said {
						t.Errorf("%s: %s says %s, another page %s", figure, at.page, got, said)
					}
				}
			}
		})
	}
}
