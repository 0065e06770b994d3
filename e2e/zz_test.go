package e2e

import (
	"context"
	"net/http"
	"os"
	"testing"

	"github.com/chromedp/chromedp"

	"wakefield.example/internal/demo"
	"wakefield.example/internal/localpg/pgtest"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

func shot(p *page, name string) {
	data, err := chromedp.Run(p.ctx, chromedp.CaptureScreenshot())
	if err != nil {
		p.Fatal(err)
	}
	os.WriteFile("/tmp/"+name+".png", data, 0o644)
}

func TestZZ(t *testing.T) {
	ctx := context.Background()
	s, err := store.Open(ctx, pgtest.Database(t, cluster, t.Name()))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(s.Close)
	if err := demo.Fill(ctx, s); err != nil {
		t.Fatal(err)
	}
	sample, err := demo.People(ctx, s)
	if err != nil {
		t.Fatal(err)
	}
	served := &site{seat: sit(t), id: "pennywhistle-quay", store: s}
	served.url = served.seat.url
	served.seat.serves(http.HandlerFunc(server.New(t.Context(), s, server.Options{Accounts: &server.Accounts{}, Sample: sample}).ServeHTTP))
	p := browser(t, served, 1280, 800)
	p.open("/", `[data-test="sign-in"]`)
	shot(p, "a1")
	p.click(`[data-sample="Ines Marrow"]`)
	p.click(`[data-test="sign-in-send"]`)
	p.until(`!document.querySelector('dialog') && !!document.querySelector('[data-site]')`)
	shot(p, "a2")
	p.open("/account", `[data-test="sessions"]`)
	p.click(`[data-test="set-up-code"]`)
	p.until(`!!document.querySelector('[data-test="code-form"] img')`)
	shot(p, "a3")
	p.open("/people", `[data-test="people"]`)
	p.click(`[data-test="invite"]`)
	shot(p, "a4")
	p.open("/audit", `[data-test="audit"]`)
	shot(p, "a5")
	p.open("/sites/pennywhistle-quay/handover/links", `[data-test="link-form"]`)
	p.do(chromedp.SendKeys(chromedp.CSS(`[data-field="link-name"]`), "Isle of Wend ferries"))
	p.click(`[data-shows="prices"]`)
	p.click(`[data-test="make-link"]`)
	p.until(`!!document.querySelector('[data-test="made-link"]')`)
	shot(p, "a6")
	link := p.text(`[data-test="made-link"] pre`)
	q := p.another()
	q.do(chromedp.Navigate(link))
	q.until(`!!document.querySelector('canvas[role=img]')`)
	shot(q, "a7")
}
