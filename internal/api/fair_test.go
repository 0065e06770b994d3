package api

import (
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"slices"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"wakefield.example/internal/demo"
)

// pace is how long requests took.
type pace struct {
	mutex sync.Mutex
	took  []time.Duration
}

func (p *pace) add(d time.Duration) {
	p.mutex.Lock()
	defer p.mutex.Unlock()
	p.took = append(p.took, d)
}

func (p *pace) median() time.Duration {
	p.mutex.Lock()
	defer p.mutex.Unlock()
	if len(p.took) == 0 {
		return 0
	}
	slices.Sort(p.took)
	return p.took[len(p.took)/2]
}

// versionOf is the version of the plan that everybody begins with.
func versionOf(b testing.TB, client *http.Client, url string) int64 {
	response, err := client.Get(url + "/api/plans/site/version")
	if err != nil {
		b.Fatal(err)
	}
	defer response.Body.Close()
	var a struct{ Version int64 }
	if err := json.NewDecoder(response.Body).Decode(&a); err != nil {
		b.Fatal(err)
	}
	return a.Version
}

// crowdOf lets so many people change one plan at once, each again as soon as it was answered, and others read it, each so
// often, and returns how long both took.
func crowdOf(b testing.TB, url string, editors, readers int, every, lasting time.Duration) (edits, reads *pace) {
	edits, reads = &pace{}, &pace{}
	transport := &http.Transport{MaxIdleConnsPerHost: 200}
	client := &http.Client{Transport: transport}
	defer transport.CloseIdleConnections()
	channels := demo.PennywhistleQuay().Channels
	var newest atomic.Int64
	newest.Store(versionOf(b, client, url))
	end := time.Now().Add(lasting)
	var group sync.WaitGroup
	for i := range editors {
		group.Go(func() {
			for n := 0; time.Now().Before(end); n++ {
				duty := []string{"off", "clock", "motion"}[n%3]
				hour := (i + 7*n) % 20 // no change is the same as the one before
				body := fmt.Sprintf(`{"version":%d,"edits":[{"paint":{"channels":[%q],"hours":[{"days":["tue"],"from":"%02d:00","to":"%02d:00"}],"duty":%q}}]}`,
					newest.Load(), channels[i%15].ID, hour, hour+2, duty)
				begin := time.Now()
				response, err := client.Post(url+"/api/plans/site/edits", "application/json", strings.NewReader(body))
				if err != nil {
					b.Error(err)
					return
				}
				data, _ := io.ReadAll(response.Body)
				response.Body.Close()
				edits.add(time.Since(begin))
				var a struct{ Version int64 }
				if json.Unmarshal(data, &a) == nil && response.StatusCode == 200 {
					for v := newest.Load(); a.Version > v && !newest.CompareAndSwap(v, a.Version); v = newest.Load() {
					}
				} else if response.StatusCode != 409 {
					b.Errorf("%d: %.200s", response.StatusCode, data)
				}
			}
		})
	}
	for range readers {
		group.Go(func() {
			for time.Now().Before(end) {
				begin := time.Now()
				response, err := client.Get(url + "/api/plans/site")
				if err != nil {
					b.Error(err)
					return
				}
				_, _ = io.Copy(io.Discard, response.Body)
				response.Body.Close()
				reads.add(time.Since(begin))
				time.Sleep(time.Until(begin.Add(every)))
			}
		})
	}
	group.Wait()
	return edits, reads
}

// BenchmarkEditorsAndReaders tells how many times as long as a lone person's edits and reads take among many.
func BenchmarkEditorsAndReaders(b *testing.B) {
	c, _ := serving(b, demo.PennywhistleQuay(), "", Options{})
	lasting := 4 * time.Second
	crowdOf(b, c.url, 1, 0, 0, time.Second)
	alone, _ := crowdOf(b, c.url, 1, 0, 0, lasting)
	_, unchanged := crowdOf(b, c.url, 0, 1, 0, lasting)
	_, read := crowdOf(b, c.url, 1, 1, time.Second/20, lasting) // of a plan that one person changes
	for _, crowd := range [][2]int{{50, 0}, {50, 50}, {50, 51}} {
		every := time.Second / 2
		if crowd[1] == 51 {
			every = 0 // as quickly as they are answered
		}
		edits, reads := crowdOf(b, c.url, crowd[0], crowd[1], every, lasting)
		b.ReportMetric(float64(edits.median())/float64(alone.median()), fmt.Sprintf("edits×/%d+%d", crowd[0], crowd[1]))
		b.ReportMetric(float64(reads.median())/float64(read.median()), fmt.Sprintf("reads×/%d+%d", crowd[0], crowd[1]))
		b.Logf("%v: %v an edit, %v a read; alone %v, %v beside one editor, %v of what nobody changes; %d edits, %d reads", crowd, edits.median(),
			reads.median(), alone.median(), read.median(), unchanged.median(), len(edits.took), len(reads.took))
	}
}
