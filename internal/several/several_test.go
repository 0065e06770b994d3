package several

import (
	"bufio"
	"context"
	"crypto/rand"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"wakefield.example/internal/demo"
	"wakefield.example/internal/localpg"
	"wakefield.example/internal/localpg/pgtest"
	"wakefield.example/internal/store"
)

var cluster *localpg.Cluster

func TestMain(m *testing.M) { os.Exit(pgtest.Run(m, &cluster)) }

// edits changes one channel again and again through the proxy, each change sent until it is acknowledged, and returns the last value.
func edits(t *testing.T, ctx context.Context, address, site, channel string) (last int) {
	version := int64(1)
	for value := 1; ctx.Err() == nil; value++ {
		body := fmt.Sprintf(`{"version": %d, "edits": [{"setAudio": {"channels": [%q], "audioKbps": %d}}]}`, version, channel, value)
		key := rand.Text()
		for again := 0; ; again++ {
			request, err := http.NewRequest("POST", "http://"+address+"/api/plans/"+site+"/edits", strings.NewReader(body))
			if err != nil {
				t.Error(err)
				return last
			}
			request.Header.Set("Content-Type", "application/json")
			request.Header.Set("Idempotency-Key", key)
			response, err := http.DefaultClient.Do(request)
			if err == nil {
				data, _ := io.ReadAll(response.Body)
				response.Body.Close()
				var answer struct{ Version int64 }
				if response.StatusCode == http.StatusOK && json.Unmarshal(data, &answer) == nil {
					version, last = answer.Version, value
					break
				}
				if response.StatusCode < 500 {
					t.Errorf("%d: %.200s", response.StatusCode, data)
					return last
				}
			}
			if again > 50 {
				t.Errorf("a change is not kept after %d times", again)
				return last
			}
			time.Sleep(50 * time.Millisecond)
		}
	}
	return last
}

// TestServersAreRestartedOneByOne changes three sites through the proxy while each server in turn is restarted: nothing that was
// acknowledged is lost, nothing is made twice, and what one hears comes through at once.
func TestServersAreRestartedOneByOne(t *testing.T) {
	database := pgtest.Database(t, cluster, "several")
	db, err := store.Open(t.Context(), database)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(db.Close)
	sites := []string{"quay", "mill", "depot"}
	for _, site := range sites {
		if _, err := db.Create(t.Context(), site, store.Note{Author: "Test"}, demo.PennywhistleQuay()); err != nil {
			t.Fatal(err)
		}
	}
	s := Start(t, database)
	if len(s.All) != 3 {
		t.Fatalf("%d servers", len(s.All))
	}
	var heard atomic.Int64
	ctx, stop := context.WithCancel(t.Context())
	var group, ears sync.WaitGroup
	ears.Go(func() { listen(ctx, s.Address, &heard) })
	last := make([]int, len(sites))
	for i, site := range sites {
		group.Go(func() { last[i] = edits(t, ctx, s.Address, site, "hall") })
	}
	for _, server := range s.All {
		before := heard.Load()
		for end := time.Now().Add(30 * time.Second); heard.Load() < before+5 && time.Now().Before(end); {
			time.Sleep(10 * time.Millisecond)
		}
		if heard.Load() < before+5 {
			t.Error("changes are not heard through the proxy")
		}
		s.Restart(server)
	}
	stop()
	group.Wait()
	ears.Wait()
	for i, site := range sites {
		head, err := db.Load(context.Background(), site)
		if err != nil {
			t.Fatal(err)
		}
		if got := int(head.Plan.Channel("hall").AudioKbps); got != last[i] || last[i] < 5 || head.Version != int64(last[i])+1 {
			t.Errorf("%s: version %d has %d, and %d was acknowledged last", site, head.Version, got, last[i])
		}
	}
}

// listen counts changes that are told of, and connects anew when the stream ends.
func listen(ctx context.Context, address string, heard *atomic.Int64) {
	for ctx.Err() == nil {
		request, err := http.NewRequestWithContext(ctx, "GET", "http://"+address+"/api/changes", nil)
		if err != nil {
			return
		}
		if response, err := http.DefaultClient.Do(request); err == nil {
			for lines := bufio.NewScanner(response.Body); lines.Scan(); {
				if strings.HasPrefix(lines.Text(), "event: change") {
					heard.Add(1)
				}
			}
			response.Body.Close()
		}
		time.Sleep(20 * time.Millisecond)
	}
}
