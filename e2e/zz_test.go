package e2e

import (
	"context"
	"encoding/json"
	"os"
	"testing"

	"github.com/chromedp/chromedp"

	"wakefield.example/internal/demo"
	"wakefield.example/internal/store"
)

func shot(p *page, file string) {
	data, err := chromedp.Run(p.ctx, chromedp.CaptureScreenshot())
	if err != nil {
		p.Fatal(err)
	}
	os.WriteFile(file, data, 0o644)
}

func TestZZ(t *testing.T) {
	s := serve(t, "zz-quay", demo.PennywhistleQuay())
	for _, f := range demo.QuayFound() {
		said, _ := json.Marshal(f.Data)
		if err := s.store.Bring(context.Background(), s.id, store.Brought{ID: f.ID, Kind: f.Kind, Name: f.Name, Said: said, Author: "Wakefield"}); err != nil {
			t.Fatal(err)
		}
	}
	p := browser(t, s, 1280, 800)
	p.open("/sites/zz-quay/measured", "[data-test=differ]")
	p.until(`!!document.querySelector('[data-test=then]')`)
	shot(p, "/tmp/m1.png")
	p.open("/sites/zz-quay/measured/missed", ".missed")
	shot(p, "/tmp/m2.png")
	p.open("/sites/zz-quay/measured/right", "[data-test=how-right]")
	shot(p, "/tmp/m3.png")
}
