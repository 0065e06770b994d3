package api

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	"wakefield.example/internal/demo"
	"wakefield.example/internal/localpg"
	"wakefield.example/internal/localpg/pgtest"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

func TestErrorsTellTheTruthAndCanBeFound(t *testing.T) {
	var log bytes.Buffer
	c, s := serving(t, demo.PennywhistleQuay(), "", Options{Log: slog.New(slog.NewTextHandler(&log, nil))})
	s.Close()
	status, header, body := c.send("GET", "/api/sites/site", "")
	var p struct{ Instance, Detail string }
	if err := json.Unmarshal([]byte(body), &p); err != nil || status != 503 || p.Detail != server.AwayWords {
		t.Fatalf("%d: %s, %v", status, body, err)
	}
	id := header.Get("Wakefield-Request")
	if id == "" || p.Instance != "/requests/"+id || !strings.Contains(log.String(), id) || !strings.Contains(log.String(), "closed pool") {
		t.Errorf("request %s, problem %s, log:\n%s", id, p.Instance, log.String())
	}
	// Each cause has its status, and no cause but a database that is away has 503.
	for want, err := range map[int]error{
		409: &store.StaleError{}, 404: store.ErrNotFound, 422: store.ErrNothing, 429: server.ErrBusy, 499: context.Canceled,
		504: context.DeadlineExceeded,
		503: &store.UnsureError{Err: io.EOF}, 500: fmt.Errorf("the cause, which is not told"),
	} {
		var told interface {
			GetStatus() int
			Error() string
		}
		told, ok := server.ProblemOf(err).(interface {
			GetStatus() int
			Error() string
		})
		if want == 429 {
			continue // it carries a header beside
		}
		if !ok || told.GetStatus() != want || strings.Contains(told.Error(), "the cause") {
			t.Errorf("%v: %v", err, told)
		}
	}
}

// TestHealthOfAFrozenDatabase stops a PostgreSQL without ending it.
func TestHealthOfAFrozenDatabase(t *testing.T) {
	dir, remove := pgtest.Folder()
	defer remove()
	ctx := context.Background()
	frozen, err := localpg.Open(ctx, filepath.Join(dir, "data"))
	if err != nil {
		t.Fatal(err)
	}
	defer frozen.Close()
	if err := frozen.Start(ctx); err != nil {
		t.Fatal(err)
	}
	defer frozen.Stop()
	if err := frozen.Create(ctx, "frozen"); err != nil {
		t.Fatal(err)
	}
	s, err := store.Open(ctx, frozen.URL("frozen"))
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	server := httptest.NewServer(New(t.Context(), s, Options{}))
	defer server.Close()
	c := &client{t, server.URL}
	call[Health](c, "GET", "/healthz", "", 200)
	call[Health](c, "GET", "/readyz", "", 200)
	if _, err := s.Create(ctx, "site", store.Note{Author: "Test", Sentence: "Site made"}, demo.PennywhistleQuay()); err != nil {
		t.Fatal(err)
	}
	call[View](c, "GET", "/api/plans/site", "", 200)
	signal := func(sig syscall.Signal) {
		data, err := os.ReadFile(filepath.Join(dir, "data", "postmaster.pid"))
		if err != nil {
			t.Fatal(err)
		}
		pid, _ := strconv.Atoi(strings.SplitN(string(data), "\n", 2)[0])
		children, _ := os.ReadFile(fmt.Sprintf("/proc/%d/task/%d/children", pid, pid))
		for _, id := range append(strings.Fields(string(children)), strconv.Itoa(pid)) {
			n, _ := strconv.Atoi(id)
			if err := syscall.Kill(n, sig); err != nil {
				t.Fatal(err)
			}
		}
	}
	signal(syscall.SIGSTOP)
	start := time.Now()
	call[problemBody](c, "GET", "/healthz", "", 503)
	call[problemBody](c, "GET", "/readyz", "", 503)
	took := time.Since(start)
	// Who changes something, or many at once do, is told within five seconds that the database is away. That is the
	// database's doing and no refusal.
	start = time.Now()
	var group sync.WaitGroup
	for range 20 {
		group.Go(func() {
			if status, _, body := c.send("POST", "/api/plans/site/edits", paint(1, "kiosk", "clock")); status != 503 {
				t.Errorf("an edit: %d: %.200s", status, body)
			}
		})
	}
	group.Wait()
	edits := time.Since(start)
	call[problemBody](c, "GET", "/api/plans/site", "", 503)
	if metrics, _ := c.fetch("/metrics"); !strings.Contains(metrics, `wakefield_edits_total{outcome="database"} 20`) {
		t.Errorf("the edits were counted otherwise: %s", regexp.MustCompile(`wakefield_edits_total.*`).FindAllString(metrics, -1))
	}
	signal(syscall.SIGCONT)
	if edits > 8*time.Second { // 4.4 s, on a machine that has much else to do
		t.Errorf("a frozen database was waited for for %v", edits)
	}
	if took > 10*time.Second { // two of 0.8 s, on a machine that has much else to do
		t.Errorf("a frozen database was waited for for %v", took)
	}
	for {
		if status, _, _ := c.send("GET", "/healthz", ""); status == 200 {
			break
		}
	}
}

func TestReadinessTellsOfADatabaseThatCannotBeWritten(t *testing.T) {
	c, _ := serving(t, nil, "&default_transaction_read_only=off", Options{})
	call[Health](c, "GET", "/readyz", "", 200)
	url := cluster.URL(t.Name()) + "&default_transaction_read_only=on"
	s, err := store.Open(context.Background(), url)
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	server := httptest.NewServer(New(t.Context(), s, Options{}))
	defer server.Close()
	c = &client{t, server.URL}
	call[Health](c, "GET", "/healthz", "", 200)
	if p := call[problemBody](c, "GET", "/readyz", "", 503); !strings.Contains(p.Detail, "may not be written") {
		t.Errorf("%q", p.Detail)
	}
}

// TestReadinessTellsOfAFullDisk fills the disk of a PostgreSQL, where the machine lets us
// make a small one.
func TestReadinessTellsOfAFullDisk(t *testing.T) {
	dir, remove := pgtest.Folder()
	t.Cleanup(remove)
	if err := syscall.Mount("tmpfs", dir, "tmpfs", 0, "size=150m,mode=755"); err != nil {
		t.Skipf("a disk that is small enough to be filled needs leave to mount one: %v", err)
	}
	t.Cleanup(func() { syscall.Unmount(dir, syscall.MNT_DETACH) })
	ctx := context.Background()
	small, err := localpg.Open(ctx, filepath.Join(dir, "data"))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { small.Stop(); small.Close() })
	if err := errors.Join(small.Start(ctx), small.Create(ctx, "small")); err != nil {
		t.Fatal(err)
	}
	s, err := store.Open(ctx, small.URL("small"))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(s.Close)
	server := httptest.NewServer(New(t.Context(), s, Options{}))
	t.Cleanup(server.Close)
	c := &client{t, server.URL}
	call[Health](c, "GET", "/readyz", "", 200)
	fill := filepath.Join(dir, "fill")
	if err := os.WriteFile(fill, make([]byte, 200<<20), 0o600); !errors.Is(err, syscall.ENOSPC) {
		t.Fatalf("the disk is not full: %v", err)
	}
	if p := call[problemBody](c, "GET", "/readyz", "", 503); !strings.Contains(p.Detail, "no room left") {
		t.Errorf("%q", p.Detail)
	}
	call[Health](c, "GET", "/healthz", "", 200)
	if err := os.Remove(fill); err != nil {
		t.Fatal(err)
	}
	call[Health](c, "GET", "/readyz", "", 200)
}

// TestStreamsLive follows changes of all sites: there is a beat at once and again, and
// a change is heard though nobody asked for its site.
func TestStreamsLive(t *testing.T) {
	c, _ := serving(t, demo.PennywhistleQuay(), "", Options{Beat: 50 * time.Millisecond})
	ctx, cancel := context.WithTimeout(t.Context(), time.Minute)
	defer cancel()
	request, _ := http.NewRequestWithContext(ctx, "GET", c.url+"/api/changes", nil)
	response, err := http.DefaultClient.Do(request)
	if err != nil {
		t.Fatal(err)
	}
	defer response.Body.Close()
	beats, painted := 0, false
	for lines := bufio.NewScanner(response.Body); lines.Scan(); {
		if lines.Text() == "event: beat" {
			if beats++; beats == 3 && !painted {
				painted = true
				call[Answer](c, "POST", "/api/plans/site/edits", paint(1, "kiosk", "clock"), 200)
			}
		}
		if painted && strings.Contains(lines.Text(), `"version":2`) {
			if _, _, metrics := c.send("GET", "/metrics", ""); !strings.Contains(metrics, "wakefield_streams 1") {
				t.Error("the stream is not counted")
			}
			return
		}
	}
	t.Errorf("after %d beats the stream ended", beats)
}

func TestMetrics(t *testing.T) {
	c, _ := serving(t, demo.PennywhistleQuay(), "", Options{})
	call[View](c, "GET", "/api/plans/site", "", 200)
	call[Answer](c, "POST", "/api/plans/site/edits", paint(1, "kiosk", "clock"), 200)
	call[problemBody](c, "POST", "/api/plans/site/edits", paint(1, "kiosk", "off"), 409)
	_, _, got := c.send("GET", "/metrics", "")
	for _, want := range []string{
		`wakefield_request_seconds_count{method="GET",route="/api/plans/{id}",status="200"} 1`,
		`wakefield_edits_total{outcome="kept"} 1`, `wakefield_edits_total{outcome="conflict"} 1`,
		"wakefield_estimate_seconds_count 2", "wakefield_cache_sites 1", "wakefield_database_connections_most 16", "go_goroutines",
	} {
		if !strings.Contains(got, want) {
			t.Errorf("no %s", want)
		}
	}
}
