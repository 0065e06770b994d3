package e2e

import (
	"context"
	"net"
	"net/http"
	"os"
	"os/exec"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/chromedp/chromedp"

	"wakefield.example/internal/server"
)

// seat is a browser and the address that it knows. A browser takes seconds to start and to warm up, and keeps what it has
// fetched and compiled by address; so the tests sit down at a few, one after the other.
type seat struct {
	url     string
	handler atomic.Pointer[http.HandlerFunc]
	conns   sync.Map // net.Conn → true, of those that are open
	// ctx is that of the browser, once there is one.
	ctx context.Context
}

// free are the seats at which no test sits now, all are those that there are.
var (
	seats     sync.Mutex
	free, all []*seat
)

// sit takes a seat until the test has ended.
func sit(t testing.TB) *seat {
	t.Helper()
	seats.Lock()
	defer seats.Unlock()
	var s *seat
	if n := len(free); n > 0 {
		s, free = free[n-1], free[:n-1]
	} else {
		listener, err := net.Listen("tcp", "127.0.0.1:0")
		if err != nil {
			t.Fatal(err)
		}
		s = &seat{url: "http://" + listener.Addr().String()}
		all = append(all, s)
		running := server.HTTP(s)
		running.ConnState = func(c net.Conn, state http.ConnState) {
			if state == http.StateClosed || state == http.StateHijacked {
				s.conns.Delete(c)
			} else {
				s.conns.Store(c, true)
			}
		}
		go running.Serve(listener)
	}
	t.Cleanup(func() {
		s.handler.Store(nil)
		seats.Lock()
		defer seats.Unlock()
		free = append(free, s)
	})
	return s
}

// serves has a handler answer at a seat's address.
func (s *seat) serves(h http.HandlerFunc) { s.handler.Store(&h) }

// breaks ends all connections, as a server does that goes away.
func (s *seat) breaks() {
	s.conns.Range(func(c, _ any) bool {
		c.(net.Conn).Close()
		return true
	})
}

// ServeHTTP lets the site of the test that sits here answer.
func (s *seat) ServeHTTP(w http.ResponseWriter, r *http.Request) {
	if h := s.handler.Load(); h != nil {
		(*h)(w, r)
		return
	}
	http.Error(w, "no test sits here", http.StatusServiceUnavailable)
}

// browser is the seat's, started by the first that asks for it.
func (s *seat) browser(t testing.TB) context.Context {
	t.Helper()
	if s.ctx == nil || s.ctx.Err() != nil {
		s.ctx = start(t)
	}
	return s.ctx
}

// closeBrowsers ends all browsers and waits for their end.
func closeBrowsers() {
	for _, s := range all {
		if s.ctx != nil {
			chromedp.Cancel(s.ctx)
		}
	}
}

// start starts Chromium with a fresh profile.
func start(t testing.TB) context.Context {
	t.Helper()
	path := ""
	for _, name := range []string{"chromium-headless-shell", "chromium"} {
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
		// Nothing fades or slides, and texts are drawn in grey: a sixth of the machine's time went there.
		chromedp.Flag("force-prefers-reduced-motion", true), chromedp.Flag("disable-lcd-text", true), chromedp.Flag("num-raster-threads", "1"),
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
