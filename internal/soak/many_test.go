//go:build soak

package soak

import (
	"bufio"
	"bytes"
	"context"
	"crypto/rand"
	"encoding/json"
	"fmt"
	"io"
	mathrand "math/rand/v2"
	"net/http"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/internal/demo"
	"wakefield.example/internal/localpg"
	"wakefield.example/internal/localpg/pgtest"
	"wakefield.example/internal/several"
	"wakefield.example/internal/store"
)

// How a company works that has many sites: each of its people has one open, changes it every few seconds, opens another now and then, and
// looks at the list or searches it.
const (
	people  = 200
	large   = 10 // sites of 192 channels
	pace    = 8 * time.Second
	opening = 40 * time.Second
	listing = 60 * time.Second
	coming  = time.Minute // within which they come in the morning
)

// howMany is how many sites there are; WAKEFIELD_SITES says otherwise.
func howMany(t *testing.T) int {
	n, err := strconv.Atoi(os.Getenv("WAKEFIELD_SITES"))
	if err != nil {
		return 2000
	}
	return max(n, people, large+1)
}

// many is a load of many sites on several servers.
type many struct {
	*testing.T
	servers *several.Servers
	sites   []string

	mutex sync.Mutex
	took  map[string][]time.Duration
	wrong []string
	heard atomic.Int64
	phase atomic.Value // of the load, by which times are told apart
}

// Phases of the load.
var phases = []string{"as people come", "at work", "as servers are restarted"}

// TestManySites keeps three servers behind a proxy under the load of many people at many sites, restarts one server after the other, and
// tells how long they waited and what the servers took.
func TestManySites(t *testing.T) {
	dir, remove := pgtest.Folder()
	t.Cleanup(remove)
	ctx := t.Context()
	cluster, err := localpg.Open(ctx, filepath.Join(dir, "postgres"))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { cluster.Close() })
	if err := cluster.Start(ctx); err != nil {
		t.Fatal(err)
	}
	t.Cleanup(cluster.Stop)
	database := pgtest.Database(t, cluster, "many")
	m := &many{T: t, took: make(map[string][]time.Duration)}
	m.phase.Store(phases[0])
	m.fill(ctx, database, howMany(t))
	began := time.Now()
	m.servers = several.Start(t, database)
	m.estimated(ctx)
	t.Logf("%d sites are estimated by three servers in %v", len(m.sites), time.Since(began).Round(time.Second))

	load, stop := context.WithTimeout(ctx, length(t))
	defer stop()
	var group sync.WaitGroup
	last := make([]int, people)
	for i := range people {
		group.Go(func() { last[i] = m.person(load, i) })
		group.Go(func() { m.listen(load, m.sites[i*len(m.sites)/people]) })
	}
	group.Go(func() { m.restarts(load) })
	largest := m.memory(load)
	group.Wait()
	m.verify(database, last)
	m.tell(largest)
}

// fill makes the sites: a few large ones, and others of 8 to 48 channels, half of them 24 or fewer.
func (m *many) fill(ctx context.Context, database string, n int) {
	s, err := store.Open(ctx, database)
	if err != nil {
		m.Fatal(err)
	}
	defer s.Close()
	r := mathrand.New(mathrand.NewPCG(34, 7))
	began := time.Now()
	for i := range n {
		var p *plan.Plan
		if i < large {
			p = demo.SaltmarshTramDepot()
		} else {
			cameras := 8 + r.IntN(17)
			if r.IntN(2) == 0 {
				cameras = 24 + r.IntN(25)
			}
			p, err = plan.Opening{Name: "x", TimeZone: "Europe/Dublin", Recorder: "Recorder", Channels: 64, IngestMbps: 400, Drives: 4, Terabytes: 8,
				Layout: "raid5", Cameras: cameras, Codec: []string{"h264", "h265"}[i%2], Width: 2560, Height: 1440, FPS: 15,
				Activity: plan.ActivityTemplates()[i%len(plan.ActivityTemplates())].ID, Duty: plan.ReadyMade()[i%4].ID, KeepDays: 30}.Plan()
			if err != nil {
				m.Fatal(err)
			}
		}
		p.Site.Name, p.Site.Customer = fmt.Sprintf("Weir house %d", i), fmt.Sprintf("Drainage board %d", i%40)
		id := fmt.Sprintf("weir-%d", i)
		if _, err := s.Create(ctx, id, store.Note{Author: "Load", Sentence: "Site made"}, p); err != nil {
			m.Fatal(err)
		}
		m.sites = append(m.sites, id)
	}
	m.Logf("%d sites are made in %v", n, time.Since(began).Round(time.Second))
}

// estimated waits until all lines of the list are made.
func (m *many) estimated(ctx context.Context) {
	for ctx.Err() == nil {
		var e struct{ Done, Total int }
		if status, answer := m.ask("", "GET", "/api/sites/estimated", "", ""); status == http.StatusOK && json.Unmarshal(answer, &e) == nil &&
			e.Total == len(m.sites) && e.Done == e.Total {
			return
		}
		time.Sleep(time.Second)
	}
}

// ask asks something through the proxy, and notes how long it took under a name; an empty one is not noted.
func (m *many) ask(name, method, path, body, key string) (int, []byte) {
	began := time.Now()
	request, err := http.NewRequest(method, "http://"+m.servers.Address+path, strings.NewReader(body))
	if err != nil {
		m.Error(err)
		return 0, nil
	}
	request.Header.Set("Content-Type", "application/json")
	if key != "" {
		request.Header.Set("Idempotency-Key", key)
	}
	response, err := http.DefaultClient.Do(request)
	if err != nil {
		return 0, nil
	}
	defer response.Body.Close()
	answer, err := io.ReadAll(response.Body)
	if err != nil {
		return 0, nil
	}
	m.mutex.Lock()
	defer m.mutex.Unlock()
	if name != "" {
		name = m.phase.Load().(string) + ", " + name
		m.took[name] = append(m.took[name], time.Since(began))
	}
	if response.StatusCode >= 400 && !bytes.Contains(answer, []byte("busy")) && len(m.wrong) < 20 {
		m.wrong = append(m.wrong, fmt.Sprintf("%s %s: %d: %.200s", method, path, response.StatusCode, answer))
	}
	return response.StatusCode, answer
}

// person works at a site until the load ends, and returns the last value that was acknowledged.
func (m *many) person(ctx context.Context, i int) (last int) {
	r := mathrand.New(mathrand.NewPCG(uint64(i), 3))
	site := m.sites[i*len(m.sites)/people]
	pause(ctx, upTo(r, coming))
	version, mark := int64(1), ""
	var p struct {
		Plan struct {
			Version int64
			Mark    string
			Plan    struct{ Channels []struct{ ID string } }
		}
	}
	if status, answer := m.ask("a page's data", "GET", "/api/sites/"+site, "", ""); status != http.StatusOK ||
		json.Unmarshal(answer, &p) != nil {
		m.Errorf("%s cannot be opened: %d", site, status)
		return 0
	}
	version, mark = p.Plan.Version, p.Plan.Mark
	channel := p.Plan.Plan.Channels[0].ID
	opens, lists := time.Now().Add(upTo(r, opening)), time.Now().Add(upTo(r, listing))
	for value := 1; ctx.Err() == nil; value++ {
		key := rand.Text()
		body := fmt.Sprintf(`{"version":%d,"mark":%q,"edits":[{"setAudio":{"channels":[%q],"audioKbps":%d}}]}`, version, mark, channel, value)
		for {
			status, answer := m.ask("an edit", "POST", "/api/plans/"+site+"/edits", body, key)
			var a struct{ Version int64 }
			if status == http.StatusOK && json.Unmarshal(answer, &a) == nil {
				version, last = a.Version, value
				break
			}
			if ctx.Err() != nil && status != 0 {
				return last
			}
			time.Sleep(100 * time.Millisecond) // to be sent again with the same key
		}
		if time.Now().After(opens) {
			m.ask("a page's data", "GET", "/api/sites/"+m.sites[r.IntN(len(m.sites))], "", "")
			opens = time.Now().Add(opening/2 + upTo(r, opening))
		}
		if time.Now().After(lists) {
			m.ask("list of sites", "GET", "/api/sites", "", "")
			m.ask("search", "GET", fmt.Sprintf("/api/sites/search?text=camera+%d+weir", r.IntN(40)), "", "")
			lists = time.Now().Add(listing/2 + upTo(r, listing))
		}
		pause(ctx, pace/2+upTo(r, pace))
	}
	return last
}

func upTo(r *mathrand.Rand, d time.Duration) time.Duration { return time.Duration(r.Int64N(int64(d))) }

func pause(ctx context.Context, d time.Duration) {
	select {
	case <-ctx.Done():
	case <-time.After(d):
	}
}

// listen follows the changes of a site, as every open page does, and connects anew when the stream ends.
func (m *many) listen(ctx context.Context, site string) {
	for ctx.Err() == nil {
		request, err := http.NewRequestWithContext(ctx, "GET", "http://"+m.servers.Address+"/api/changes?site="+site, nil)
		if err != nil {
			return
		}
		if response, err := http.DefaultClient.Do(request); err == nil {
			for lines := bufio.NewScanner(response.Body); lines.Scan(); {
				if strings.HasPrefix(lines.Text(), "event: change") {
					m.heard.Add(1)
				}
			}
			response.Body.Close()
		}
		pause(ctx, 200*time.Millisecond)
	}
}

// restarts restarts one server after the other in the last part of the load.
func (m *many) restarts(ctx context.Context) {
	third := (length(m.T) - coming) / 2
	pause(ctx, coming)
	m.phase.Store(phases[1])
	pause(ctx, third)
	m.phase.Store(phases[2])
	for _, server := range m.servers.All {
		if ctx.Err() == nil {
			m.servers.Restart(server)
		}
		pause(ctx, third/6)
	}
}

// memory is the largest resident memory of a server, in kB, while the load lasts.
func (m *many) memory(ctx context.Context) (largest int64) {
	for ctx.Err() == nil {
		for _, server := range m.servers.All {
			status, _ := os.ReadFile(fmt.Sprintf("/proc/%d/status", server.PID()))
			for line := range strings.Lines(string(status)) {
				if rest, ok := strings.CutPrefix(line, "VmRSS:"); ok {
					n, _ := strconv.ParseInt(strings.Fields(rest)[0], 10, 64)
					largest = max(largest, n)
				}
			}
		}
		pause(ctx, 500*time.Millisecond)
	}
	return largest
}

// verify looks whether all that was acknowledged is there, once.
func (m *many) verify(database string, last []int) {
	for _, wrong := range m.wrong {
		m.Error(wrong)
	}
	ctx := context.Background()
	s, err := store.Open(ctx, database)
	if err != nil {
		m.Fatal(err)
	}
	defer s.Close()
	for i, want := range last {
		head, err := s.Load(ctx, m.sites[i*len(m.sites)/people])
		if err != nil {
			m.Fatal(err)
		}
		if got := int(head.Plan.Channels[0].AudioKbps); got != want && got != want+1 || head.Version != int64(got)+1 {
			m.Errorf("%s: version %d has %d; the last acknowledged was %d", head.ID, head.Version, got, want)
		}
	}
}

// tell says how long people waited, and what it took.
func (m *many) tell(largest int64) {
	for _, phase := range phases {
		for _, name := range []string{"an edit", "a page's data", "list of sites", "search"} {
			took := m.took[phase+", "+name]
			slices.Sort(took)
			if len(took) == 0 {
				continue
			}
			at := func(percent int) time.Duration { return took[(len(took)-1)*percent/100].Round(time.Millisecond) }
			m.Logf("%s: %-14s %6d times: median %v, 95 of 100 within %v, the longest %v", phase, name, len(took), at(50), at(95), at(100))
		}
	}
	m.Logf("%d changes heard; the largest server took %d MB", m.heard.Load(), largest>>10)
}
