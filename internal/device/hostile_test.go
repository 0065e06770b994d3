package device

import (
	"fmt"
	"io"
	"net"
	"net/http"
	"net/http/httptest"
	"runtime"
	"strings"
	"testing"
	"time"
)

// hostile is a client of a server that answers as it pleases.
func hostile(t *testing.T, answer http.HandlerFunc) (*Client, error) {
	t.Helper()
	s := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		io.Copy(io.Discard, r.Body) // only then a server notices that whoever asked is gone
		answer(w, r)
	}))
	t.Cleanup(func() {
		s.CloseClientConnections()
		s.Close()
	})
	a, err := ReadAddress(s.URL)
	if err != nil {
		t.Fatal(err)
	}
	return Open(t.Context(), Options{Address: a, User: "u", Password: "p", Allowed: loopback, Call: 2 * time.Second})
}

// TestHostileAnswersAreBounded meets answers that are too large, do not end, come in drips, unpack themselves or lead elsewhere: each is
// told, within its time, and takes no more memory than an answer may.
func TestHostileAnswersAreBounded(t *testing.T) {
	filler := strings.Repeat("<a/>", 256)
	for name, of := range map[string]struct {
		want   Trouble
		answer http.HandlerFunc
	}{
		"100 MB": {Stranger, func(w http.ResponseWriter, _ *http.Request) {
			w.Header().Set("Content-Length", fmt.Sprint(100<<20))
			for range 100 << 10 {
				if _, err := io.WriteString(w, filler); err != nil {
					return
				}
			}
		}},
		"endless": {Stranger, func(w http.ResponseWriter, _ *http.Request) {
			for {
				if _, err := io.WriteString(w, filler); err != nil {
					return
				}
			}
		}},
		"drips": {Late, func(w http.ResponseWriter, r *http.Request) {
			for r.Context().Err() == nil {
				io.WriteString(w, " ")
				w.(http.Flusher).Flush()
				time.Sleep(20 * time.Millisecond)
			}
		}},
		"silence": {Late, func(_ http.ResponseWriter, r *http.Request) { <-r.Context().Done() }},
		"a bomb": {Stranger, func(w http.ResponseWriter, _ *http.Request) {
			io.WriteString(w, `<!DOCTYPE a [<!ENTITY b "`+strings.Repeat("x", 1000)+`"><!ENTITY c "`+strings.Repeat("&b;", 1000)+`">]><a>&c;</a>`)
		}},
		"a file": {Stranger, func(w http.ResponseWriter, _ *http.Request) {
			io.WriteString(w, `<!DOCTYPE a [<!ENTITY b SYSTEM "file:///etc/passwd">]><a>&b;</a>`)
		}},
		"a page": {Stranger, func(w http.ResponseWriter, _ *http.Request) { io.WriteString(w, "<html><body>Sign in</body></html>") }},
		"another encoding": {Stranger, func(w http.ResponseWriter, _ *http.Request) {
			io.WriteString(w, `<?xml version="1.0" encoding="nothing-known"?><a/>`)
		}},
		"elsewhere": {Elsewhere, func(w http.ResponseWriter, r *http.Request) {
			http.Redirect(w, r, "http://169.254.169.254/", http.StatusFound)
		}},
		"nobody": {Closed, func(w http.ResponseWriter, _ *http.Request) { w.WriteHeader(http.StatusUnauthorized) }},
		"hangs up": {Gone, func(w http.ResponseWriter, _ *http.Request) {
			if c, _, err := http.NewResponseController(w).Hijack(); err == nil {
				c.Close()
			}
		}},
	} {
		t.Run(name, func(t *testing.T) {
			var before, after runtime.MemStats
			runtime.ReadMemStats(&before)
			_, err := hostile(t, of.answer)
			runtime.ReadMemStats(&after)
			if trouble(err) != of.want {
				t.Errorf("%v", err)
			}
			if err != nil && strings.Contains(err.Error(), "127.0.0.1") {
				t.Errorf("it tells an address: %v", err)
			}
			if taken := after.TotalAlloc - before.TotalAlloc; taken > 400<<20 {
				t.Errorf("%d MB were taken", taken>>20)
			}
		})
	}
}

// TestWhereNobodyListens tells a port at which nothing is from one that speaks otherwise.
func TestWhereNobodyListens(t *testing.T) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	a, err := ReadAddress(l.Addr().String())
	if err != nil {
		t.Fatal(err)
	}
	l.Close()
	o := Options{Address: a, Allowed: loopback, Call: 2 * time.Second}
	if _, err := Open(t.Context(), o); trouble(err) != Gone || !strings.Contains(err.Error(), "listens") {
		t.Error(err)
	}
	o.Allowed = nil
	if _, err := Open(t.Context(), o); trouble(err) != Forbidden || !strings.Contains(err.Error(), "--allow-device") {
		t.Error(err)
	}
	s := httptest.NewServer(http.NotFoundHandler())
	defer s.Close()
	tls := Options{Allowed: loopback, Call: 2 * time.Second}
	if tls.Address, err = ReadAddress(strings.Replace(s.URL, "http", "https", 1)); err != nil {
		t.Fatal(err)
	}
	if _, err := Open(t.Context(), tls); trouble(err) != Stranger || !strings.Contains(err.Error(), "TLS") {
		t.Error(err)
	}
}
