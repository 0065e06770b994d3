package e2e

import (
	"context"
	"os"
	"os/exec"
	"sync"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
)

// A browser takes seconds to start and to warm up, so the tests use a few, one after the other. idle are those that no
// test uses now, started are all.
var (
	browsers      sync.Mutex
	idle, started []context.Context
)

// borrow takes a browser that no test uses, or starts one.
func borrow(t testing.TB) context.Context {
	t.Helper()
	browsers.Lock()
	defer browsers.Unlock()
	for len(idle) > 0 {
		b := idle[len(idle)-1]
		idle = idle[:len(idle)-1]
		if b.Err() == nil {
			return b
		}
	}
	b := start(t)
	started = append(started, b)
	return b
}

// giveBack lets other tests have a browser.
func giveBack(b context.Context) {
	browsers.Lock()
	defer browsers.Unlock()
	idle = append(idle, b)
}

// closeBrowsers ends all browsers and waits for their end.
func closeBrowsers() {
	for _, b := range started {
		chromedp.Cancel(b)
	}
}

// start starts Chromium with a fresh profile.
func start(t testing.TB) context.Context {
	t.Helper()
	path := ""
	for _, name := range []string{"chromium", "chromium-browser", "google-chrome"} {
		if p, err := exec.LookPath(name); err == nil {
			path = p
			break
		}
	}
	if path == "" {
		t.Fatal("Chromium is not installed; scripts/prepare installs Debian's")
	}
	options := []chromedp.ExecAllocatorOption{
		chromedp.ExecPath(path), chromedp.Headless, chromedp.NoFirstRun, chromedp.DisableGPU,
		chromedp.Flag("disable-quic", true), chromedp.Flag("disable-background-networking", true),
		chromedp.Flag("disable-component-update", true), chromedp.Flag("disable-sync", true),
		chromedp.Flag("disable-dev-shm-usage", true), chromedp.Flag("hide-scrollbars", true), chromedp.Flag("force-color-profile", "srgb"),
		chromedp.WindowSize(1280, 800), chromedp.WSURLReadTimeout(2 * time.Minute),
	}
	if os.Geteuid() == 0 {
		options = append(options, chromedp.NoSandbox)
	}
	allocator, _ := chromedp.NewExecAllocator(context.Background(), options...)
	b, _ := chromedp.NewContext(allocator)
	if _, err := chromedp.Run(b, chromedp.Evaluate[bool]("true")); err != nil {
		t.Fatal("starting Chromium: ", err)
	}
	return b
}
