package api

import (
	"context"
	"fmt"
	"io"
	"net/http"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/pquerna/otp/totp"

	"wakefield.example/internal/account"
	"wakefield.example/internal/demo"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

// TestTheFirstPlannerComesInByALink makes the first account of a server, once.
func TestTheFirstPlannerComesInByALink(t *testing.T) {
	c, s := serving(t, demo.BrackenhallCiderWorks(), "", Options{Accounts: &server.Accounts{}})
	h := &house{TB: t, url: c.url, store: s}
	secret, err := account.First(t.Context(), s)
	if err != nil || secret == "" {
		t.Fatal(secret, err)
	}
	other, err := account.First(t.Context(), s) // as another server prints
	if err != nil {
		t.Fatal(err)
	}
	browser := h.visitor()
	h.wants(401, browser, "GET", "/api/sites", "")
	if kind := member(t, h.wants(200, browser, "POST", "/api/invitation", fmt.Sprintf(`{"secret": %q}`, secret)), "kind"); kind != "first" {
		t.Error(kind)
	}
	accept := func(secret, name, password string) string {
		return fmt.Sprintf(`{"secret": %q, "name": %q, "password": %q}`, secret, name, password)
	}
	for body, says := range map[string]string{
		accept(secret, "Ines Marrow", "short"):        "at least 12",
		accept(secret, "Ines Marrow", "password1234"): "commonest",
		accept(secret, "", everyonesPassword):         "name is needed",
	} {
		if said := h.wants(422, browser, "POST", "/api/invitation/accept", body); !strings.Contains(said, says) ||
			!strings.Contains(said, "body.") {
			t.Error(said)
		}
	}
	h.wants(404, browser, "POST", "/api/invitation/accept", accept(account.NewSecret(), "Eve", everyonesPassword))
	if said := h.wants(200, browser, "POST", "/api/invitation/accept", accept(secret, " Ines  Marrow ", everyonesPassword)); member(t, said,
		"name") != "Ines Marrow" ||
		member(t, said, "planner") != "true" {
		t.Error(said)
	}
	h.wants(404, h.visitor(), "POST", "/api/invitation/accept", accept(secret, "Eve", everyonesPassword))
	h.wants(404, h.visitor(), "POST", "/api/invitation/accept", accept(other, "Eve", everyonesPassword))
	if again, err := account.First(t.Context(), s); again != "" || err != nil {
		t.Errorf("another first planner may come: %q, %v", again, err)
	}
	// What was there before there were accounts is hers.
	if said := h.wants(200, browser, "GET", "/api/sites", ""); !strings.Contains(said, "Brackenhall") {
		t.Error(said)
	}
	// An edit says who made it, whatever a header says.
	h.wants(200, browser, "POST", "/api/plans/site/edits", `{"version": 1, "edits": [{"setSite": {"customer": "Wend"}}]}`,
		"Wakefield-Author", "Eve")
	if said := h.wants(200, browser, "GET", "/api/plans/site/revisions", ""); !strings.Contains(said, `"author":"Ines Marrow"`) ||
		strings.Contains(said, "Eve") {
		t.Error(said)
	}
}

// TestWhoIsWrongLearnsNothing signs in wrongly in every way: what is told is the same, and takes as long.
func TestWhoIsWrongLearnsNothing(t *testing.T) {
	h := withAccounts(t, demo.BrackenhallCiderWorks(), Options{})
	told := make(map[string]bool)
	took := map[string][]time.Duration{}
	for i := range 8 {
		for kind, name := range map[string]string{"somebody": "ada", "nobody": fmt.Sprintf("nobody-%d", i)} {
			begun := time.Now()
			told[withoutInstance(h.wants(401, h.visitor(), "POST", "/api/sign-in", fmt.Sprintf(`{"name": %q, "password": "wrong wrong wrong"}`,
				name)))] = true
			took[kind] = append(took[kind], time.Since(begun))
		}
	}
	if len(told) != 1 {
		t.Errorf("%v", told)
	}
	slices.Sort(took["somebody"])
	slices.Sort(took["nobody"])
	// Where nothing was hashed it would be ten times as quick, and more, on any machine.
	if a, b := took["somebody"][4], took["nobody"][4]; a > 4*b || b > 4*a {
		t.Errorf("medians: %v for a name there is, %v for one there is not", a, b)
	}
	for _, bad := range []string{`{"name": "", "password": ""}`, `{"name": "ada' or 1=1", "password": "x"}`,
		`{"name": "\u0000", "password": "x"}`} {
		if status, said := h.ask(h.visitor(), "POST", "/api/sign-in", bad); status != 401 && status != 422 && status != 400 {
			t.Errorf("%s: %d %s", bad, status, said)
		}
	}
	if status, _ := h.ask(h.visitor(), "POST", "/api/sign-in", `{"name": "ada", "password": "`+strings.Repeat("x", 1<<20)+
		`"}`); status != 413 && status != 422 {
		t.Errorf("a password of a megabyte: %d", status)
	}
}

func withoutInstance(said string) string {
	before, after, _ := strings.Cut(said, `"instance":"`)
	_, after, _ = strings.Cut(after, `"`)
	return before + after
}

// TestGuessingEnds tries passwords until nobody listens; others come in meanwhile.
func TestGuessingEnds(t *testing.T) {
	h := withAccounts(t, demo.BrackenhallCiderWorks(), Options{})
	wrong := func() int {
		status, _ := h.ask(h.visitor(), "POST", "/api/sign-in", `{"name": "ada", "password": "wrong wrong wrong"}`)
		return status
	}
	tries := 0
	for ; wrong() == 401 && tries < 50; tries++ {
	}
	if tries < 5 || tries > 12 {
		t.Errorf("%d tries", tries)
	}
	if status, said := h.ask(h.visitor(), "POST", "/api/sign-in",
		fmt.Sprintf(`{"name": "ada", "password": %q}`, everyonesPassword)); status != 429 ||
		!strings.Contains(said, "15 minutes") {
		t.Errorf("%d %s", status, said)
	}
	h.as("rea")
}

// TestACodeBesideThePassword sets one up and signs in with it: each is good once.
func TestACodeBesideThePassword(t *testing.T) {
	h := withAccounts(t, demo.BrackenhallCiderWorks(), Options{})
	ada := h.as("ada")
	secret := member(t, h.wants(200, ada, "POST", "/api/me/code/new", ""), "secret")
	code := func(steps int) string {
		c, err := totp.GenerateCode(secret, time.Now().Add(time.Duration(steps)*30*time.Second))
		if err != nil {
			t.Fatal(err)
		}
		return c
	}
	h.wants(422, ada, "POST", "/api/me/code", fmt.Sprintf(`{"current": "wrong", "code": %q}`, code(0)))
	h.wants(422, ada, "POST", "/api/me/code", fmt.Sprintf(`{"current": %q, "code": "000000"}`, everyonesPassword))
	said := h.wants(200, ada, "POST", "/api/me/code", fmt.Sprintf(`{"current": %q, "code": %q}`, everyonesPassword, code(0)))
	recovery := strings.Fields(strings.Trim(member(t, said, "codes"), "[]"))
	signIn := func(code string) (int, string) {
		return h.ask(h.visitor(), "POST", "/api/sign-in", fmt.Sprintf(`{"name": "ada", "password": %q, "code": %q}`, everyonesPassword, code))
	}
	if status, said := signIn(""); status != 401 || !strings.Contains(said, NeedsCode) {
		t.Errorf("%d %s", status, said)
	}
	now := code(0)
	if status, said := signIn(now); status != 200 {
		t.Errorf("%d %s", status, said)
	}
	for _, used := range []string{now, code(-1), "123456"} { // once used, it and those before are not taken any more
		if status, _ := signIn(used); status != 401 {
			t.Errorf("%s again: %d", used, status)
		}
	}
	for i, want := range []int{200, 401} {
		if status, said := signIn(recovery[0]); status != want {
			t.Errorf("use %d of a code for when the device is lost: %d %s", i+1, status, said)
		}
	}
	if left := member(t, h.wants(200, ada, "GET", "/api/me/passkeys", ""), "recovery"); left != "9" {
		t.Errorf("%s left", left)
	}
	h.wants(204, ada, "POST", "/api/me/code/remove", fmt.Sprintf(`{"current": %q}`, everyonesPassword))
	if status, _ := signIn(""); status != 200 {
		t.Errorf("%d", status)
	}
}

// TestTwoProofsAreAskedWhereTheCompanyWantsThem lets somebody with a password alone do nothing but set up another.
func TestTwoProofsAreAskedWhereTheCompanyWantsThem(t *testing.T) {
	h := withAccounts(t, demo.BrackenhallCiderWorks(), Options{})
	ada, rea := h.as("ada"), h.as("rea")
	h.wants(200, rea, "GET", "/api/plans/site", "")
	h.wants(204, ada, "PUT", "/api/company/second", `{"asksTwo": true}`)
	h.eventually(403, rea, "GET", "/api/plans/site", "")
	if said := h.wants(403, rea, "GET", "/api/sites", ""); !strings.Contains(said, "Set one up") {
		t.Error(said)
	}
	secret := member(t, h.wants(200, rea, "POST", "/api/me/code/new", ""), "secret")
	code, _ := totp.GenerateCode(secret, time.Now())
	h.wants(200, rea, "POST", "/api/me/code", fmt.Sprintf(`{"current": %q, "code": %q}`, everyonesPassword, code))
	h.eventually(200, rea, "GET", "/api/plans/site", "")
}

// eventually asks until the status is another: what is decided on one server is known on all a moment later.
func (h *house) eventually(status int, c *http.Client, method, path, body string) {
	h.Helper()
	for begun := time.Now(); ; time.Sleep(5 * time.Millisecond) {
		got, said := h.ask(c, method, path, body)
		if got == status {
			return
		}
		if time.Since(begun) > 10*time.Second {
			h.Fatalf("%s %s: still %d in place of %d: %s", method, path, got, status, said)
		}
	}
}

// TestSessionsEnd signs out here, elsewhere, everywhere, by a new password, by a planner and by being removed.
func TestSessionsEnd(t *testing.T) {
	h := withAccounts(t, demo.BrackenhallCiderWorks(), Options{})
	here, there, ada := h.as("rea"), h.as("rea"), h.as("ada")
	said := h.wants(200, here, "GET", "/api/me/sessions", "")
	if strings.Count(said, `"id"`) != 2 || strings.Count(said, `"here":true`) != 1 {
		t.Error(said)
	}
	// The cookie of before is none after.
	cookies := here.Jar.Cookies(mustURL(h.url))
	h.wants(204, here, "POST", "/api/sign-out", "")
	h.wants(401, here, "GET", "/api/sites", "")
	stolen := h.visitor()
	stolen.Jar.SetCookies(mustURL(h.url), cookies)
	h.wants(401, stolen, "GET", "/api/sites", "")
	h.wants(200, there, "GET", "/api/sites", "")
	h.wants(204, there, "POST", "/api/me/sessions/end", `{"session": ""}`)
	h.wants(401, there, "GET", "/api/sites", "")

	here, there = h.as("rea"), h.as("rea")
	h.wants(422, here, "POST", "/api/me/password", `{"current": "wrong", "password": "another seven herrings"}`)
	h.wants(204, here, "POST", "/api/me/password", fmt.Sprintf(`{"current": %q, "password": "another seven herrings"}`, everyonesPassword))
	h.wants(200, here, "GET", "/api/sites", "")
	h.eventually(401, there, "GET", "/api/sites", "")

	fitz := h.as("fitz")
	h.wants(204, ada, "POST", "/api/people/fitz/sign-out", "")
	h.wants(401, fitz, "GET", "/api/sites", "")
	h.wants(204, ada, "DELETE", "/api/people/rea", "")
	h.wants(401, here, "GET", "/api/sites", "")
	h.wants(401, h.visitor(), "POST", "/api/sign-in", `{"name": "rea", "password": "another seven herrings"}`)
	h.wants(422, ada, "DELETE", "/api/people/ada", "") // nobody would be left
	h.wants(404, ada, "DELETE", "/api/people/oda", "") // of another company
	if said := h.wants(200, ada, "GET", "/api/people", ""); strings.Contains(said, "oda") || strings.Contains(said, "argon") {
		t.Error(said)
	}
}

// TestAnUnusedSessionEnds leaves one alone for longer than it may be: neither asking who one is nor hearing of changes is use.
func TestAnUnusedSessionEnds(t *testing.T) {
	h := withAccounts(t, demo.BrackenhallCiderWorks(), Options{Accounts: &server.Accounts{Options: account.Options{Idle: time.Second,
		Longest: time.Hour}}})
	rea := h.as("rea")
	stream, err := rea.Get(h.url + "/api/changes")
	if err != nil {
		t.Fatal(err)
	}
	defer stream.Body.Close()
	for begun := time.Now(); member(t, h.wants(200, rea, "GET", "/api/me", ""), "here") == "true"; time.Sleep(20 * time.Millisecond) {
		if time.Since(begun) > 20*time.Second {
			t.Fatal("it goes on")
		}
	}
	h.wants(401, rea, "GET", "/api/sites", "")
	if _, err := io.Copy(io.Discard, stream.Body); err != nil { // it ends too
		t.Fatal(err)
	}
}

// TestInvitedPeopleComeIn invites a fitter, who comes in once by the link, and sets another's password.
func TestInvitedPeopleComeIn(t *testing.T) {
	h := withAccounts(t, demo.BrackenhallCiderWorks(), Options{})
	ada := h.as("ada")
	h.wants(404, ada, "POST", "/api/people/invitations", `{"name": "", "planner": false, "roles": [{"site": "foreign", "role": "fitter"}]}`)
	secret := member(t, h.wants(201, ada, "POST", "/api/people/invitations",
		`{"name": "Tobias Fenn", "planner": false, "roles": [{"site": "site", "role": "fitter"}]}`), "secret")
	for name, says := range map[string]string{"АDA": "looks like it", "Fitz": "looks like it"} { // a Cyrillic A
		if said := h.wants(422, h.visitor(), "POST", "/api/invitation/accept", fmt.Sprintf(`{"secret": %q, "name": %q, "password": %q}`, secret,
			name, everyonesPassword)); !strings.Contains(said, says) {
			t.Error(said)
		}
	}
	tobias := h.visitor()
	h.wants(200, tobias, "POST", "/api/invitation/accept", fmt.Sprintf(`{"secret": %q, "name": "Tobias Fenn", "password": %q}`,
		secret, everyonesPassword))
	h.wants(200, tobias, "GET", "/api/plans/site", "")
	h.wants(403, tobias, "POST", "/api/plans/site/undo", `{"version": 1}`)
	// A role is taken away in the midst of it.
	people, err := h.store.People(store.Of(context.Background(), "own"))
	if err != nil {
		t.Fatal(err)
	}
	at := slices.IndexFunc(people, func(p store.Person) bool { return p.Name == "Tobias Fenn" })
	h.wants(204, ada, "PUT", "/api/people/"+people[at].ID+"/roles", `{"planner": false, "roles": []}`)
	h.wants(404, tobias, "GET", "/api/plans/site", "")
	// A link for a new password ends the sessions there are.
	reset := member(t, h.wants(201, ada, "POST", "/api/people/"+people[at].ID+"/reset", ""), "secret")
	h.wants(200, h.visitor(), "POST", "/api/invitation/accept",
		fmt.Sprintf(`{"secret": %q, "name": "ignored", "password": "another seven herrings"}`, reset))
	h.eventually(401, tobias, "GET", "/api/me/sessions", "")
	h.wants(404, h.visitor(), "POST", "/api/invitation/accept",
		fmt.Sprintf(`{"secret": %q, "name": "", "password": "another seven herrings"}`, reset))
}
