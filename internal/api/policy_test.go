package api

import (
	"net/http"
	"regexp"
	"strings"
	"testing"

	"github.com/danielgtaylor/huma/v2"
	"github.com/go-chi/chi/v5"

	"wakefield.example/internal/account"
	"wakefield.example/internal/demo"
)

// TestEveryOperationIsSpokenFor asks of every operation of the API what it needs, and calls it as everybody there is: at a site
// of their own and at a foreign one. What a request means is not looked at: it is none that any operation takes, so that
// whoever is let through is refused for that.
func TestEveryOperationIsSpokenFor(t *testing.T) {
	h := withAccounts(t, demo.BrackenhallCiderWorks(), Options{})
	people := map[string]*http.Client{"": h.visitor()}
	for _, name := range []string{"ada", "fitz", "rea", "plato", "nona", "oda"} {
		people[name] = h.as(name)
	}
	api := newAPI(chi.NewRouter())
	register(api, &service{})
	operations := 0
	for path, item := range api.OpenAPI().Paths {
		for method, o := range map[string]*huma.Operation{"GET": item.Get, "POST": item.Post, "PUT": item.Put, "DELETE": item.Delete,
			"PATCH": item.Patch} {
			if o == nil || o.OperationID == "changes" { // the stream has a test of its own
				continue
			}
			op := o.OperationID
			operations++
			rule := account.RuleOf(op)
			if method != "GET" && rule.Need == account.Read && !asking[op] {
				t.Errorf("%s: a reader may, though it may change something", op)
			}
			if rule.Need == account.Refused {
				t.Errorf("%s: nobody says who may", op)
				continue
			}
			for name, who := range people {
				for _, site := range []string{"site", "foreign"} {
					want := allowedTo(rule, name, site)
					status, said := h.ask(who, method, filled(path, site), "{", "Idempotency-Key", "!") // no key, and no JSON
					got := verdictOf(status, said)
					if got != want && !(want == "" && op == "signOut") {
						t.Errorf("%s as %q at %s: %d in place of %q: %.120s", op, name, site, status, want, said)
					}
					if op == "signOut" && name != "" {
						people[name] = h.as(name)
						who = people[name]
					}
				}
			}
		}
	}
	if operations < 100 {
		t.Errorf("%d operations", operations)
	}
}

// asking are operations that are no GET, as what is asked does not fit into an address, and that change nothing.
var asking = map[string]bool{"take": true, "alerts": true, "picture": true, "draft": true, "freeIDs": true, "readLog": true, "reach": true,
	"readFound": true, "missed": true, "corrections": true, "takeFromDevice": true,
	"readSpecialDays": true, "readTable": true, "tryCells": true, "takeOff": true, "tideOf": true, "present": true, "readWeek": true}

// verdictOf is how somebody was kept out: "" for not at all, by the words of the policy.
func verdictOf(status int, said string) string {
	switch {
	case status == 401 && strings.Contains(said, "Sign in first"):
		return "sign in"
	case status == 403 && strings.Contains(said, "is for") || status == 403 && strings.Contains(said, "for its planners"):
		return "not you"
	case status == 404 && strings.Contains(said, "no such site or plan"):
		return "not there"
	}
	return ""
}

// allowedTo says of the whole table what the test holds to be right, in words of its own.
func allowedTo(r account.Rule, name, site string) string {
	role := map[string]string{"ada": "planner", "plato": "planner", "fitz": "fitter", "rea": "reader"}[name]
	if site == "foreign" {
		role = map[string]string{"oda": "planner"}[name]
	}
	whole := name == "ada" || name == "oda"
	switch {
	case r.Need == account.Anybody, r.Need == account.ByLink:
		return ""
	case name == "":
		return "sign in"
	case r.Need == account.Member:
		return ""
	case r.Place != account.Nowhere && role == "":
		return "not there"
	case r.Need == account.Company && whole, r.Need == account.Read:
		return ""
	case r.Need == account.Fit && role != "reader", r.Need == account.Plan && role == "planner":
		return ""
	}
	return "not you"
}

var braces = regexp.MustCompile(`\{[^}]*\}`)

// filled puts a site into a path; both plans are called as their sites.
func filled(path, site string) string {
	path = strings.ReplaceAll(path, "{id}", site)
	path = strings.ReplaceAll(path, "{format}", "csv")
	return braces.ReplaceAllString(path, "1")
}
