package e2e

import (
	"context"
	"os"
	"strings"
	"testing"

	"wakefield/internal/demo"
)

func TestLook(t *testing.T) {
	look := os.Getenv("LOOK")
	if look == "" {
		t.Skip()
	}
	s := serve(t, "none", nil)
	if err := demo.Fill(context.Background(), s.store); err != nil {
		t.Fatal(err)
	}
	p := browser(t, s, lookWidth(), 800)
	for _, shot := range strings.Split(look, ",") {
		name, rest, _ := strings.Cut(shot, "=")
		path, js, _ := strings.Cut(rest, "#")
		p.open(path, "main")
		p.until(`document.readyState === 'complete'`)
		if js != "" {
			eval[any](p, `(async () => { `+strings.ReplaceAll(js, "¸", ",")+` })()`)
		}
		eval[bool](p, `new Promise(done => setTimeout(() => done(true), 900))`)
		p.shoot("/tmp/shots", name)
	}
}

func lookWidth() int {
	if os.Getenv("LOOKW") != "" {
		return 390
	}
	return 1280
}
