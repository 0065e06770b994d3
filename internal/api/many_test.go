package api

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http/httptest"
	"strings"
	"sync"
	"testing"

	"wakefield.example/internal/demo"
	"wakefield.example/internal/store"
)

// TestFiftyEditorsOnAPoolOfFour has each on a channel of its own, all the time on the
// version they saw first: none is refused, none waits for ever, and who asks for
// health is answered.
func TestFiftyEditorsOnAPoolOfFour(t *testing.T) {
	c, s := serving(t, demo.SaltmarshTramDepot(), "&pool_max_conns=4", Options{})
	const editors, each = 50, 4
	var group sync.WaitGroup
	for i := range editors {
		group.Go(func() {
			channel := fmt.Sprintf("c%d-%d", i%6+1, i/6+1)
			for k := range each {
				duty := []string{"clock", "motion"}[k%2]
				if status, _, body := c.send("POST", "/api/plans/site/edits", paint(1, channel, duty)); k == 0 && status != 200 ||
					k > 0 && status != 409 && status != 200 {
					t.Errorf("editor %d: status %d: %.300s", i, status, body)
				}
			}
		})
	}
	for range 5 {
		if status, _, body := c.send("GET", "/healthz", ""); status != 200 {
			t.Errorf("health: %d, %s", status, body)
		}
	}
	group.Wait()
	history, err := s.History(context.Background(), "site", 0, 200, store.Search{})
	if err != nil || len(history) < editors+1 {
		t.Errorf("%d revisions, %v", len(history), err)
	}
}

// TestTwoServersMergeWhatDoesNotMeet has the clients of two servers change channels of
// their own as fast as they can.
func TestTwoServersMergeWhatDoesNotMeet(t *testing.T) {
	c, s := serving(t, crowd(16), "", Options{})
	other := httptest.NewServer(New(t.Context(), s, Options{}))
	t.Cleanup(other.Close)
	var group sync.WaitGroup
	for i := range 8 {
		group.Go(func() {
			d := &client{t, []string{c.url, other.URL}[i%2]}
			version := 1
			for k := range 10 {
				status, _, body := d.send("POST", "/api/plans/site/edits", paint(version, fmt.Sprintf("k%d", i), []string{"clock", "motion"}[k%2]))
				var a Answer
				if err := json.Unmarshal([]byte(body), &a); status != 200 || err != nil {
					t.Errorf("client %d: status %d: %.300s", i, status, body)
					return
				}
				version = int(a.Version)
			}
		})
	}
	group.Wait()
	if head, err := s.Load(context.Background(), "site"); err != nil || head.Version != 81 {
		t.Errorf("version %d, %v", head.Version, err)
	}
}

func TestAChangeSentTwiceIsMadeOnce(t *testing.T) {
	c, s := serving(t, demo.PennywhistleQuay(), "", Options{})
	for range 3 {
		status, _, body := c.send("POST", "/api/plans/site/edits", paint(1, "kiosk", "clock"), "Idempotency-Key", "a-1")
		var a Answer
		if err := json.Unmarshal([]byte(body), &a); status != 200 || err != nil || a.Version != 2 ||
			!strings.Contains(a.Sentence, "Kiosk front") || len(a.Ribbons) != 1 || len(a.Patch) == 0 {
			t.Fatalf("status %d, %v: %.300s", status, err, body)
		}
	}
	for range 2 {
		if status, _, body := c.send("POST", "/api/plans/site/undo", `{"version":2}`, "Idempotency-Key", "a-2"); status != 200 ||
			!strings.Contains(body, `"version":3`) {
			t.Fatalf("undo: %d: %.200s", status, body)
		}
	}
	written, err := demo.BrackenhallCiderWorks().Write()
	if err != nil {
		t.Fatal(err)
	}
	ids := make(map[string]bool)
	for range 2 {
		status, _, body := c.send("POST", "/api/sites", string(written), "Idempotency-Key", "a-3")
		var made CreatedSite
		if err := json.Unmarshal([]byte(body), &made); status != 201 || err != nil {
			t.Fatalf("import: %d: %s", status, body)
		}
		ids[made.ID] = true
	}
	if list, _ := s.List(context.Background()); len(list) != 2 || len(ids) != 1 {
		t.Errorf("%d sites, %v", len(list), ids)
	}
	if status, _, body := c.send("POST", "/api/plans/site/undo", `{"version":3}`, "Idempotency-Key", "a b"); status != 422 {
		t.Errorf("a key that is none: %d: %s", status, body)
	}
}
