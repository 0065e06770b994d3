package api

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http/httptest"
	"reflect"
	"sync"
	"testing"

	"wakefield.example/internal/demo"
	"wakefield.example/internal/store"
)

// TestChangesMadeTogetherAreEachARevision has many change one plan at once, some of them meeting each other, some wrong, one
// sent twice. Each is answered for itself, is one revision with its author, or is refused; and undoing all leads back.
func TestChangesMadeTogetherAreEachARevision(t *testing.T) {
	_, s := serving(t, demo.PennywhistleQuay(), "", Options{})
	handler, app := build(t.Context(), s, Options{})
	server := httptest.NewServer(handler)
	t.Cleanup(server.Close)
	c := &client{t, server.URL}
	channels := demo.PennywhistleQuay().Channels
	release := holdTurn(t, app)
	var group sync.WaitGroup
	var mutex sync.Mutex
	kept := make(map[int64]string)
	statuses := make(map[int]int)
	for i := range 40 {
		group.Go(func() {
			channel, duty := channels[i%14].ID, []string{"off", "clock"}[i%2]
			if i == 39 {
				channel = "nowhere"
			}
			key := fmt.Sprint("key-", max(i, 1)) // the first two are one, sent twice
			if i == 0 {
				channel, duty = channels[1].ID, "clock"
			}
			hour := i / 14 * 3
			if i < 2 {
				hour = 20
			}
			body := fmt.Sprintf(`{"version":1,"edits":[{"paint":{"channels":[%q],"hours":[{"days":["tue"],"from":"%02d:00","to":"%02d:00"}],"duty":%q}}]}`, channel, hour, hour+2, duty)
			status, _, answer := c.send("POST", "/api/plans/site/edits", body, "Idempotency-Key", key, "Wakefield-Author", fmt.Sprint("Editor-", i))
			var a Answer
			if err := json.Unmarshal([]byte(answer), &a); err != nil {
				t.Error(err)
			}
			mutex.Lock()
			defer mutex.Unlock()
			if statuses[status]++; status != 200 {
				return
			}
			if a.Made == 0 { // it changed nothing
				return
			}
			kept[a.Made] = a.Sentence
			if a.From >= a.Made || a.Version < a.Made {
				t.Errorf("from %d, made %d, version %d", a.From, a.Made, a.Version)
			}
		})
	}
	release()
	group.Wait()
	if statuses[422] != 1 || statuses[200] < 30 || statuses[200]+statuses[409]+statuses[422] != 40 {
		t.Errorf("%v", statuses)
	}
	head, err := s.Load(context.Background(), "site")
	if err != nil {
		t.Fatal(err)
	}
	history, err := s.History(context.Background(), "site", 0, 100, store.Search{})
	if err != nil || int64(len(history)) != head.Version {
		t.Fatalf("%d revisions at version %d, %v", len(history), head.Version, err)
	}
	for _, r := range history[:len(history)-1] {
		if kept[r.Number] != r.Sentence {
			t.Errorf("revision %d is %q, and was answered as %q", r.Number, r.Sentence, kept[r.Number])
		}
		if p, err := s.At(context.Background(), head, r.Number); err != nil || p == nil {
			t.Errorf("revision %d: %v", r.Number, err)
		}
	}
	for version := head.Version; ; version++ {
		status, _, body := c.send("POST", "/api/plans/site/undo", fmt.Sprintf(`{"version":%d}`, version))
		if status == 422 {
			break
		}
		if status != 200 {
			t.Fatalf("%d: %s", status, body)
		}
	}
	if back, err := s.Load(context.Background(), "site"); err != nil || !reflect.DeepEqual(back.Plan, demo.PennywhistleQuay()) {
		t.Errorf("undoing all of it leads elsewhere: %v", err)
	}
}

// holdTurn keeps the turn of the plan until it is released, so that all that come meanwhile wait together.
func holdTurn(t *testing.T, app *service) (release func()) {
	t.Helper()
	hold, err := app.turns.Take(context.Background(), "site")
	if err != nil {
		t.Fatal(err)
	}
	return func() {
		for { // as soon as they wait
			app.batches.mutex.Lock()
			n := len(app.batches.waiting["site"])
			app.batches.mutex.Unlock()
			if n >= 40 {
				hold()
				return
			}
		}
	}
}
