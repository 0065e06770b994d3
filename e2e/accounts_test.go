package e2e

import (
	"context"
	"net/http"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/cdproto/webauthn"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"wakefield.example/core/plan"
	"wakefield.example/internal/account"
	"wakefield.example/internal/api"
	"wakefield.example/internal/demo"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
	"wakefield.example/internal/store/storetest"
)

// serveAccounts starts the application with accounts: a plan of a site, and the three sample people.
func serveAccounts(t *testing.T, id string, p *plan.Plan) *site {
	t.Helper()
	beside(t)
	ctx := context.Background()
	s := storetest.Open(t, cluster, t.Name(), "")
	served := &site{seat: sit(t), id: id, store: s}
	served.url = strings.Replace(served.seat.url, "127.0.0.1", "localhost", 1) // passkeys are for names
	if p != nil {
		if _, err := s.Create(ctx, id, store.Note{Author: "Test", Sentence: "Sample site made"}, p); err != nil {
			t.Fatal(err)
		}
		if _, err := demo.People(ctx, s); err != nil {
			t.Fatal(err)
		}
	}
	handler := api.New(t.Context(), s, api.Options{Accounts: &server.Accounts{}})
	served.seat.serves(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if instead := served.instead.Load(); instead == nil || !(*instead)(w, r) {
			handler.ServeHTTP(w, r)
		}
	}))
	return served
}

// into types a text into the field of a label within an element.
func (p *page) into(within, label, text string) {
	p.Helper()
	p.until(`(() => {
		const field = [...document.querySelectorAll('` + within + ` label')].find((l) => l.innerText.trim() === '` + label + `')?.control
		field?.focus()
		return !!field && document.activeElement === field
	})()`)
	p.keys("a", kb.ModifierCtrl)
	p.keys(text)
}

// signIn signs somebody in on whatever page is open.
func (p *page) signIn(name, password string) {
	p.Helper()
	p.into(`[data-test="sign-in"]`, "Name", name)
	p.into(`[data-test="sign-in"]`, "Password", password)
	p.click(`[data-test="sign-in-send"]`)
	p.until(`!document.querySelector('dialog')`)
}

// as opens a path as one of the sample people, in a browser window of its own.
func (p *page) as(name, path, ready string) *page {
	p.Helper()
	q := p.another()
	q.open(path, `[data-test="sign-in"]`)
	q.signIn(name, demo.PeoplesPassword)
	q.do(chromedp.WaitVisible(chromedp.CSS(ready)))
	return q
}

// isClean asks axe and the one scale about the page as it is.
func (p *page) isClean(where string) {
	p.Helper()
	p.asksAxe(where)
	p.onOneScale(where)
}

// asksAxe asks axe alone: pages for phones have sizes of their own.
func (p *page) asksAxe(where string) {
	p.Helper()
	axe, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
	if err != nil {
		p.Fatal(err)
	}
	p.do(chromedp.Evaluate[chromedp.Void](string(axe)))
	p.violations(where)
}

// TestFromTheFirstLinkToTheFirstSite begins with a server on which nobody has an account.
func TestFromTheFirstLinkToTheFirstSite(t *testing.T) {
	served := serveAccounts(t, "", nil)
	secret, err := account.First(t.Context(), served.store)
	if err != nil {
		t.Fatal(err)
	}
	p := browser(t, served, 1280, 800)
	p.open("/invitation#"+secret, `[data-test="invitation"]`)
	p.isClean("first account")
	p.into(`[data-test="invitation"]`, "Your name", "Ines Marrow")
	p.into(`[data-test="invitation"]`, "Password", "short")
	p.click(`[data-test="accept"]`)
	p.shows(`[data-test="invitation"]`, "at least 12 are needed")
	p.into(`[data-test="invitation"]`, "Password", "herring gull at low tide")
	p.shows(`[data-test="strength"]`, "hard to guess")
	p.click(`[data-test="invitation"] .see`)
	p.until(`document.querySelector('[autocomplete="new-password"]').type === 'text'`)
	p.click(`[data-test="accept"]`)
	p.do(chromedp.WaitVisible(chromedp.CSS(`[data-test="new-site"]`)))
	if hash := eval[string](p, `location.href`); strings.Contains(hash, secret) {
		t.Errorf("the link stays in the address: %s", hash)
	}
	p.shows(`[data-test="account"]`, "Ines Marrow")
	p.click(`[data-test="new-site"]`)
	p.shows(`[data-test="first-verdict"]`, "days")
	p.labelled("Site", "Little Pier")
	p.number("fieldset", "cameras", "6")
	p.click(`[data-test="make-site"]`)
	p.shows(".where", "Little Pier")
	list, err := served.store.List(store.Of(context.Background(), "own"))
	if err != nil || len(list) != 1 || list[0].Name != "Little Pier" {
		t.Fatalf("%v %+v", err, list)
	}
	// The link is used up.
	q := p.another()
	q.open("/invitation#"+secret, `[data-test="invitation-failure"]`)
	q.shows(`[data-test="invitation-failure"]`, "not valid any more")
}

// TestAFitterIsInvited has a planner invite somebody, who sees one site, ticks a step and changes nothing else.
func TestAFitterIsInvited(t *testing.T) {
	served := serveAccounts(t, "pennywhistle-quay", demo.PennywhistleQuay())
	if _, err := served.store.Create(context.Background(), "cider", store.Note{Author: "Test"}, demo.BrackenhallCiderWorks()); err != nil {
		t.Fatal(err)
	}
	p := browser(t, served, 1280, 800)
	p.open("/people", `[data-test="sign-in"]`)
	p.isClean("sign in")
	p.into(`[data-test="sign-in"]`, "Name", "ines marrow")
	p.into(`[data-test="sign-in"]`, "Password", "wrong wrong wrong")
	p.click(`[data-test="sign-in-send"]`)
	p.shows(`[data-test="sign-in-problem"]`, "Name, password or code is wrong.")
	p.signIn("ines marrow", demo.PeoplesPassword)
	p.click(`[data-test="invite"]`)
	p.into(`[data-test="invite-form"]`, "Name", "Wilma Tarn")
	eval[bool](p, `(() => {
		const role = document.querySelector('[data-role-at="pennywhistle-quay"]')
		role.value = 'fitter'
		return role.dispatchEvent(new Event('change', { bubbles: true }))
	})()`)
	p.isClean("people")
	p.click(`[data-test="invite-form"] .act`)
	p.do(chromedp.WaitVisible(chromedp.CSS(`[data-test="secret"]`)))
	link := p.text(`[data-test="secret"]`)

	q := p.another()
	q.do(chromedp.Navigate(link))
	q.do(chromedp.WaitVisible(chromedp.CSS(`[data-test="invitation"]`)))
	q.into(`[data-test="invitation"]`, "Password", "seven herrings in a boat")
	q.click(`[data-test="accept"]`)
	q.do(chromedp.WaitVisible(chromedp.CSS(`[data-site="pennywhistle-quay"]`)))
	if eval[bool](q, `!!document.querySelector('[data-site="cider"], [data-test="new-site"], [data-test="picker"]')`) {
		t.Error("a fitter sees what is not theirs")
	}
	q.open("/sites/pennywhistle-quay/handover", `[data-page="handover"] h1`)
	q.shows(`[data-test="state"]`, "fitter · revision 1")
	q.do(chromedp.WaitVisible(chromedp.CSS(`[data-step] input[type="checkbox"]`)))
	q.click(`[data-step] input[type="checkbox"]`)
	q.until(`[...document.querySelectorAll('[data-step]')].some((s) => s.innerText.includes('Wilma Tarn'))`)
	q.open("/sites/pennywhistle-quay", gangwayA+" canvas")
	q.press(q.on("booth", 600), q.on("booth", 700))
	q.mouse("mouseReleased", q.on("booth", 700), chromedp.ButtonLeft)
	q.shows(".el-message", "you are a fitter of this site")
	q.shows(`[data-test="reading"]`, "tick what is done on its sheets")
	q.open("/sites/cider", `main, [role="alert"]`)
	q.shows("body", "There is no such site or plan.")

	// The planner takes the role away in the midst of it: the page says so.
	p.open("/people", `[data-person="Wilma Tarn"]`)
	p.click(`[data-person="Wilma Tarn"] [data-test="remove-person"]`)
	p.click(`[data-test="really-remove"]`)
	q.do(chromedp.WaitVisible(chromedp.CSS(`[data-test="sign-in"]`)))
}

// TestAPasskeyIsEnough adds one, signs out and comes in by it, without a password.
func TestAPasskeyIsEnough(t *testing.T) {
	served := serveAccounts(t, "pennywhistle-quay", demo.BrackenhallCiderWorks())
	p := browser(t, served, 1280, 800)
	p.do(chromedp.Func(func(ctx context.Context, target *chromedp.Target) error {
		if _, err := chromedp.Call(ctx, webauthn.Enable, webauthn.EnableParams{}); err != nil {
			return err
		}
		_, err := chromedp.Call(ctx, webauthn.AddVirtualAuthenticator,
			webauthn.AddVirtualAuthenticatorParams{Options: &webauthn.VirtualAuthenticatorOptions{
				Protocol: "ctap2", Transport: "internal", HasResidentKey: true, HasUserVerification: true, IsUserVerified: true,
				AutomaticPresenceSimulation: true}})
		return err
	}))
	p.open("/account", `[data-test="sign-in"]`)
	p.signIn("Ines Marrow", demo.PeoplesPassword)
	p.click(`[data-test="add-passkey"]`)
	p.into(`[data-test="passkey-form"]`, "Name", "Desk")
	p.into(`[data-test="passkey-form"]`, "Password now", demo.PeoplesPassword)
	p.isClean("account")
	p.click(`[data-test="passkey-form"] .act`)
	p.shows(`[data-test="keys"]`, "Desk, since")
	p.click(`[data-test="no-password"]`)
	p.into(`[data-test="no-password-form"]`, "Password now", demo.PeoplesPassword)
	p.click(`[data-test="no-password-form"] .act`)
	p.until(`document.querySelector('[data-test="keys"] tr').innerText.includes('none')`)
	p.item(`[data-test="account"]`, "Sign out")
	p.click(`[data-test="by-passkey"]`)
	p.until(`!document.querySelector('dialog') && document.querySelector('[data-test="who"]')?.innerText.includes('Ines Marrow')`)
	if n := eval[float64](p,
		`fetch('/api/audit?what=signed-in').then(r => r.json()).then(l => l.filter(h => h.detail === 'passkey').length)`); n != 1 {
		t.Errorf("%v times by a passkey", n)
	}
}

// TestACustomerLooksByALink makes a link with a password, opens it elsewhere, also on a phone, and ends it.
func TestACustomerLooksByALink(t *testing.T) {
	served := serveAccounts(t, "pennywhistle-quay", demo.PennywhistleQuay())
	p := browser(t, served, 1280, 800).as("Ines Marrow", "/sites/pennywhistle-quay/handover/links", `[data-test="link-form"]`)
	p.do(chromedp.SendKeys(chromedp.CSS(`[data-field="link-name"]`), "Isle of Wend"))
	p.do(chromedp.SendKeys(chromedp.CSS(`[data-field="link-password"]`), "salt and iron"))
	p.isClean("links")
	p.click(`[data-test="make-link"]`)
	p.do(chromedp.WaitVisible(chromedp.CSS(`[data-test="made-link"] pre`)))
	link := p.text(`[data-test="made-link"] pre`)

	q := p.another()
	q.do(chromedp.EmulateViewport(390, 844), chromedp.Navigate(link))
	q.into(`[data-test="unlock"]`, "Password", "salt and water")
	q.click(`[data-test="unlock"] .act`)
	q.shows(`[data-test="unlock"]`, "The password is wrong.")
	q.into(`[data-test="unlock"]`, "Password", "salt and iron")
	q.click(`[data-test="unlock"] .act`)
	q.shows(`[data-test="shared-verdict"]`, "37.2 days of 40 required")
	q.until(`document.querySelectorAll('[data-test="shared-weeks"] canvas').length === 15 && !!document.querySelector('canvas[role=img]')`)
	if wide := eval[float64](q, `document.querySelector('[data-test="shared"]').scrollWidth`); wide > 390 {
		t.Errorf("%v wide on a phone", wide)
	}
	q.isClean("by a link")
	p.open("/sites/pennywhistle-quay/handover/links", `[data-test="links"]`)
	p.shows(`[data-test="links"]`, "2 times")
	p.click(`[data-test="end-link"]`)
	p.shows(`[data-test="links"]`, "ended")
	q.do(chromedp.Reload())
	q.shows(`[data-test="shared-failure"]`, "not valid any more")
}

// TestASessionEndsElsewhere ends a session while a stroke is on its way: it waits, and is saved when somebody signs in again.
func TestASessionEndsElsewhere(t *testing.T) {
	served := serveAccounts(t, "pennywhistle-quay", demo.PennywhistleQuay())
	p := browser(t, served, 1280, 800).as("Ines Marrow", "/sites/pennywhistle-quay", gangwayA+" canvas")
	if _, err := served.store.Leave(context.Background(), "sample-planner", ""); err != nil {
		t.Fatal(err)
	}
	// The page hears of it at once, with nothing done on it.
	p.do(chromedp.WaitVisible(chromedp.CSS(`[data-test="sign-in"]`)))
	p.signIn("Ines Marrow", demo.PeoplesPassword)
	p.do(chromedp.WaitVisible(chromedp.CSS(gangwayA + " canvas")))
	// Now it ends while a stroke is in hand, before the page hears of it.
	p.press(p.on("kiosk", 600), p.on("kiosk", 700))
	if _, err := served.store.Leave(context.Background(), "sample-planner", ""); err != nil {
		t.Fatal(err)
	}
	p.until(`fetch('/api/sites').then((r) => r.status === 401)`)
	p.mouse("mouseReleased", p.on("kiosk", 700), chromedp.ButtonLeft)
	p.until(`document.querySelector('dialog')?.innerText.includes('1 change not saved')`)
	p.signIn("Ines Marrow", demo.PeoplesPassword)
	p.shows(`[data-test="state"]`, "saved · revision 2")
	p.click(`[data-test="undo"]`) // it is one's own, and not asked about
	p.shows(`[data-test="state"]`, "saved · revision 3")
	p.click(`[data-test="redo"]`)
	p.shows(`[data-test="state"]`, "saved · revision 4")
	head, err := served.store.Load(context.Background(), "pennywhistle-quay")
	if err != nil || head.Version != 4 || head.UndoBy != "Ines Marrow" {
		t.Errorf("%+v, %v", head.UndoBy, err)
	}
	// A role that is taken away in the midst of a stroke: the stroke is kept on the page, and said.
	err = served.store.AddPerson(context.Background(), store.Person{ID: "other", Company: "own", Name: "Other", Planner: true,
		Secrets: store.Secrets{Key: "other", Handle: []byte("other")}})
	if err != nil {
		t.Fatal(err)
	}
	p.press(p.on("kiosk", 800), p.on("kiosk", 900))
	if err := served.store.SetRoles(context.Background(), "sample-planner", false, []store.Role{{Site: "pennywhistle-quay",
		Role: "reader"}}); err != nil {
		t.Fatal(err)
	}
	p.until(`fetch('/api/plans/pennywhistle-quay/undo', { method: 'POST', body: '{}' }).then((r) => r.status === 403)`)
	p.mouse("mouseReleased", p.on("kiosk", 900), chromedp.ButtonLeft)
	p.shows(`[data-test="aside"]`, "You are a reader of this site")
}

// TestThePagesOfAccountsOnAPhone looks at each at the width of a phone.
func TestThePagesOfAccountsOnAPhone(t *testing.T) {
	served := serveAccounts(t, "pennywhistle-quay", demo.BrackenhallCiderWorks())
	secret := account.NewSecret()
	err := served.store.Invite(context.Background(), store.Invitation{Hash: account.Hashed(secret), Company: "own", Kind: "invited",
		MadeBy: "Ines Marrow", Expires: time.Now().Add(time.Hour)})
	if err != nil {
		t.Fatal(err)
	}
	p := browser(t, served, 390, 844)
	looks := func(path, ready string) {
		t.Helper()
		p.open(path, ready)
		if wide := eval[float64](p, `Math.max(document.documentElement.scrollWidth, document.querySelector('dialog')?.scrollWidth ?? 0)`); wide > 390 {
			t.Errorf("%s is %v wide", path, wide)
		}
		p.asksAxe(path + " on a phone")
	}
	looks("/invitation#"+secret, `[data-test="invitation"]`)
	looks("/invitation#none", `[data-test="invitation-failure"]`)
	looks("/", `[data-test="sign-in"]`)
	p.signIn("Ines Marrow", demo.PeoplesPassword)
	p.do(chromedp.WaitVisible(chromedp.CSS(`[data-site="pennywhistle-quay"]`)))
	looks("/account", `[data-test="sessions"]`)
	looks("/people", `[data-test="people"]`)
	looks("/audit", `[data-test="audit"]`)
	looks("/sites/pennywhistle-quay/handover/links", `[data-test="link-form"]`)
	p.item(`[data-test="account"]`, "Sign out")
	p.do(chromedp.WaitVisible(chromedp.CSS(`[data-test="sign-in"]`)))
}
