package api

import (
	"fmt"
	"net"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/go-chi/chi/v5"

	"wakefield.example/internal/account"
	"wakefield.example/internal/demo"
	"wakefield.example/internal/server"
)

// TestAnAccountAsksTheDatabaseNothing counts what an edit and a look ask the database with accounts and without: once it is known
// who asks, nobody asks again.
func TestAnAccountAsksTheDatabaseNothing(t *testing.T) {
	h := withAccounts(t, demo.BrackenhallCiderWorks(), Options{})
	open, s := serving(t, demo.BrackenhallCiderWorks(), "", Options{})
	ada := h.as("ada")
	edit := func(version int) string {
		return fmt.Sprintf(`{"version": %d, "edits": [{"setSite": {"customer": "Wend %d"}}]}`, version, version)
	}
	counted := func(questions func() int64, do func()) int64 {
		before := questions()
		do()
		return questions() - before
	}
	for version := 1; version <= 3; version++ {
		with := counted(h.store.Questions, func() { h.wants(200, ada, "POST", "/api/plans/site/edits", edit(version)) })
		without := counted(s.Questions, func() { open.send("POST", "/api/plans/site/edits", edit(version)) })
		looked := counted(h.store.Questions, func() { h.wants(200, ada, "GET", "/api/sites/site", "") })
		anyhow := counted(s.Questions, func() { open.send("GET", "/api/sites/site", "") })
		if version > 1 && (with != without || looked != anyhow) { // the first time it is asked who somebody is
			t.Errorf("version %d: an edit asks %d times, without accounts %d; a look %d and %d", version, with, without, looked, anyhow)
		}
	}
}

// TestWithoutItsChecksTheProgramShowsNothingForeign takes the policy away, so that everybody may call everything: what is of
// another company is still not there, as the database does not show it.
func TestWithoutItsChecksTheProgramShowsNothingForeign(t *testing.T) {
	h := withAccounts(t, demo.BrackenhallCiderWorks(), Options{})
	oda := h.as("oda")
	h.app.policy = func(string, *account.Who, string, string) account.Decision { return account.Decision{Allowed: true} }
	api := newAPI(chi.NewRouter())
	register(api, &service{})
	asked := 0
	for path, item := range api.OpenAPI().Paths {
		for method, op := range map[string]*huma.Operation{"GET": item.Get, "POST": item.Post, "PUT": item.Put, "DELETE": item.Delete} {
			if op == nil || account.RuleOf(op.OperationID).Place == account.Nowhere || op.OperationID == "reachProgress" { // it counts in memory
				continue
			}
			asked++
			status, said := h.ask(oda, method, filled(path, "site"), bodies[op.OperationID])
			if status < 300 && said != "[]\n" && said != "[]" && said != "" || strings.Contains(said, "Brackenhall") {
				t.Errorf("%s: %d %.200s", op.OperationID, status, said)
			}
		}
	}
	if asked < 60 {
		t.Errorf("%d operations", asked)
	}
	if list := h.wants(200, oda, "GET", "/api/sites", ""); strings.Count(list, `"plan"`) != 1 {
		t.Error(list)
	}
	if version, err := h.store.Version(t.Context(), "site"); err != nil || version.Version != 1 {
		t.Errorf("%+v, %v", version, err)
	}
}

// bodies are what some operations need to get beyond reading their request.
var bodies = map[string]string{
	"edit":        `{"version": 1, "edits": [{"setSite": {"customer": "Eve"}}]}`,
	"undo":        `{"version": 1}`,
	"archiveSite": `{"archived": true}`,
	"adopt":       `{"plan": "site"}`,
	"makeLink":    `{"plan": "site", "name": "Eve", "shows": ["verdict"], "days": 1}`,
	"tick":        `{"done": [], "undone": []}`,
	"draft":       `{"version": 1, "edits": []}`,
}

// TestAStolenCookieIsOfNoUseElsewhere sends changes from other origins with the cookie of somebody who is signed in, and cookies
// that were tampered with.
func TestAStolenCookieIsOfNoUseElsewhere(t *testing.T) {
	h := withAccounts(t, demo.BrackenhallCiderWorks(), Options{})
	ada := h.as("ada")
	for _, headers := range [][]string{{"Sec-Fetch-Site", "cross-site"}, {"Origin", "https://evil.example"}, {"Sec-Fetch-Site", "same-site"}} {
		for path, body := range map[string]string{
			"/api/plans/site/undo": `{"version": 1}`, "/api/sign-out": "", "/api/tokens": `{"name": "x", "writes": true, "sites": [], "days": 1}`,
			"/api/people/invitations": `{"name": "", "planner": true, "roles": []}`,
		} {
			h.wants(403, ada, "POST", path, body, headers...)
		}
	}
	api := newAPI(chi.NewRouter())
	register(api, &service{})
	for path, item := range api.OpenAPI().Paths {
		for method, op := range map[string]*huma.Operation{"POST": item.Post, "PUT": item.Put, "DELETE": item.Delete} {
			if op != nil {
				h.wants(403, ada, method, filled(path, "site"), "{}", "Sec-Fetch-Site", "cross-site")
			}
		}
	}
	cookie := ada.Jar.Cookies(mustURL(h.url))[0]
	for _, value := range []string{cookie.Value[1:], strings.ToUpper(cookie.Value), "", "' or 1=1", strings.Repeat("x", 4000)} {
		other := h.visitor()
		other.Jar.SetCookies(mustURL(h.url), []*http.Cookie{{Name: cookie.Name, Value: value}})
		h.wants(401, other, "GET", "/api/sites", "")
	}
	h.wants(200, ada, "GET", "/api/sites", "")
}

// TestWhatBrowsersAreTold looks at the headers of a page, an answer and a cookie.
func TestWhatBrowsersAreTold(t *testing.T) {
	proxy := net.IPNet{IP: net.IPv4(127, 0, 0, 0), Mask: net.CIDRMask(8, 32)}
	h := withAccounts(t, demo.BrackenhallCiderWorks(),
		Options{Accounts: &server.Accounts{Options: account.Options{Secure: true}, Proxies: []net.IPNet{proxy}}})
	ask := func(path string, headers ...string) http.Header {
		r, _ := http.NewRequest("POST", h.url+path, strings.NewReader(fmt.Sprintf(`{"name": "ada", "password": %q}`, everyonesPassword)))
		if path == "/" {
			r.Method, r.Body, r.ContentLength = "GET", http.NoBody, 0
		}
		for i := 0; i < len(headers); i += 2 {
			r.Header.Set(headers[i], headers[i+1])
		}
		answer, err := http.DefaultClient.Do(r)
		if err != nil {
			t.Fatal(err)
		}
		answer.Body.Close()
		return answer.Header
	}
	page, signed := ask("/", "X-Forwarded-Proto", "https"), ask("/api/sign-in", "X-Forwarded-Proto", "https",
		"X-Forwarded-For", "198.51.100.7")
	for name, has := range map[string]string{"Content-Security-Policy": "frame-ancestors 'none'", "X-Content-Type-Options": "nosniff",
		"Referrer-Policy": "same-origin", "Strict-Transport-Security": "max-age=", "Cross-Origin-Opener-Policy": "same-origin",
		"Permissions-Policy": "camera=()"} {
		if !strings.Contains(page.Get(name), has) || !strings.Contains(signed.Get(name), has) {
			t.Errorf("%s: %q, %q", name, page.Get(name), signed.Get(name))
		}
	}
	if cookie := signed.Get("Set-Cookie"); !strings.HasPrefix(cookie, "__Host-wakefield=") || !strings.Contains(cookie, "HttpOnly") ||
		!strings.Contains(cookie, "Secure") || !strings.Contains(cookie, "SameSite=Lax") || !strings.Contains(cookie, "Path=/") ||
		strings.Contains(cookie, "Domain") {
		t.Error(cookie)
	}
	if signed.Get("Cache-Control") != "no-store" && !strings.Contains(signed.Get("Cache-Control"), "no-store") {
		t.Error(signed.Values("Cache-Control"))
	}
	if plain := ask("/"); plain.Get("Strict-Transport-Security") != "" {
		t.Error("who did not come over TLS is told to")
	}
	seats, err := h.store.Seats(t.Context(), "ada", time.Time{})
	if err != nil || len(seats) == 0 || seats[0].Address != "198.51.100.7" {
		t.Errorf("%+v, %v", seats, err)
	}
}

// TestAProxyIsBelievedThatIsTrusted tells addresses of those who ask, by a proxy that is trusted and by anybody.
func TestAProxyIsBelievedThatIsTrusted(t *testing.T) {
	loopback := net.IPNet{IP: net.IPv4(127, 0, 0, 0), Mask: net.CIDRMask(8, 32)}
	for _, test := range []struct {
		proxies []net.IPNet
		headers map[string]string
		want    string
	}{
		{nil, map[string]string{"X-Forwarded-For": "198.51.100.7"}, "127.0.0.1"},
		{[]net.IPNet{loopback}, map[string]string{"X-Forwarded-For": "198.51.100.7"}, "198.51.100.7"},
		{[]net.IPNet{loopback}, map[string]string{"X-Forwarded-For": "203.0.113.9, 198.51.100.7"}, "198.51.100.7"},
		{[]net.IPNet{loopback}, map[string]string{"Forwarded": `for=198.51.100.8;proto=https`}, "198.51.100.8"},
		{[]net.IPNet{loopback}, nil, "127.0.0.1"},
		{[]net.IPNet{{IP: net.IPv4(192, 0, 2, 0), Mask: net.CIDRMask(24, 32)}}, map[string]string{"X-Forwarded-For": "198.51.100.7"},
			"127.0.0.1"},
	} {
		var got string
		r, _ := http.NewRequest("GET", "http://localhost/", nil)
		r.RemoteAddr = "127.0.0.1:4711"
		for name, value := range test.headers {
			r.Header.Set(name, value)
		}
		server.Visited(test.proxies)(http.HandlerFunc(func(_ http.ResponseWriter,
			r *http.Request) {
			got = server.Visitor(r.Context()).Address
		})).ServeHTTP(nil, r)
		if got != test.want {
			t.Errorf("%+v: %s", test, got)
		}
	}
}

// TestWithoutAccountsNothingIsAskedOfThem calls everything about accounts on a server that has none.
func TestWithoutAccountsNothingIsAskedOfThem(t *testing.T) {
	c, s := serving(t, demo.BrackenhallCiderWorks(), "", Options{})
	h := &house{TB: t, url: c.url, store: s}
	api := newAPI(chi.NewRouter())
	register(api, &service{})
	refused := 0
	for path, item := range api.OpenAPI().Paths {
		for method, op := range map[string]*huma.Operation{"GET": item.Get, "POST": item.Post, "PUT": item.Put, "DELETE": item.Delete} {
			if op == nil || op.Metadata[ofAccounts] == nil {
				continue
			}
			refused++
			if said := h.wants(422, h.visitor(), method, filled(path, "site"), "{}"); !strings.Contains(said, "has no accounts") {
				t.Errorf("%s: %s", op.OperationID, said)
			}
		}
	}
	if refused < 30 {
		t.Errorf("%d operations", refused)
	}
	h.wants(200, h.visitor(), "GET", "/api/me", "")
}
