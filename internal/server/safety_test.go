package server

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	"wakefield/core/plan"
	"wakefield/core/week"
	"wakefield/internal/demo"
	"wakefield/internal/localpg"
	"wakefield/internal/localpg/pgtest"
	"wakefield/internal/store"
)

// serving is a server over a database of its own, with the store beneath it.
func serving(t testing.TB, p *plan.Plan, settings string, o Options) (*client, *store.Store) {
	t.Helper()
	s, err := store.Open(context.Background(), pgtest.Database(t, cluster, t.Name())+settings)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(s.Close)
	if p != nil {
		if _, err := s.Create(context.Background(), "site", store.Note{Author: "Test", Sentence: "Site made"}, p); err != nil {
			t.Fatal(err)
		}
	}
	server := httptest.NewServer(New(t.Context(), s, o))
	t.Cleanup(server.Close)
	return &client{t, server.URL}, s
}

// send makes a request with headers and returns status and body.
func (c *client) send(method, path, body string, headers ...string) (int, http.Header, string) {
	c.Helper()
	request, err := http.NewRequest(method, c.url+path, strings.NewReader(body))
	if err != nil {
		c.Fatal(err)
	}
	request.Header.Set("Content-Type", "application/json")
	for i := 0; i < len(headers); i += 2 {
		if headers[i] == "Host" {
			request.Host = headers[i+1]
		} else {
			request.Header.Set(headers[i], headers[i+1])
		}
	}
	response, err := http.DefaultClient.Do(request)
	if err != nil {
		c.Fatal(err)
	}
	defer response.Body.Close()
	data, err := io.ReadAll(response.Body)
	if err != nil {
		c.Fatal(err)
	}
	return response.StatusCode, response.Header, string(data)
}

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
				if status, _, body := c.send("POST", "/api/sites/site/edits", paint(1, channel, duty)); k == 0 && status != 200 || k > 0 && status != 409 && status != 200 {
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
	history, err := s.History(context.Background(), "site", 0, 200)
	if err != nil || len(history) < editors+1 {
		t.Errorf("%d revisions, %v", len(history), err)
	}
}

// TestTwoServersMergeWhatDoesNotMeet has the clients of two servers change channels of
// their own as fast as they can.
func TestTwoServersMergeWhatDoesNotMeet(t *testing.T) {
	c, s := serving(t, demo.SaltmarshTramDepot(), "", Options{})
	other := httptest.NewServer(New(t.Context(), s, Options{}))
	t.Cleanup(other.Close)
	var group sync.WaitGroup
	for i := range 8 {
		group.Go(func() {
			d := &client{t, []string{c.url, other.URL}[i%2]}
			version := 1
			for k := range 10 {
				status, _, body := d.send("POST", "/api/sites/site/edits", paint(version, fmt.Sprintf("c1-%d", i+1), []string{"clock", "motion"}[k%2]))
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
		status, _, body := c.send("POST", "/api/sites/site/edits", paint(1, "kiosk", "clock"), "Idempotency-Key", "a-1")
		var a Answer
		if err := json.Unmarshal([]byte(body), &a); status != 200 || err != nil || a.Version != 2 || !strings.Contains(a.Sentence, "Kiosk front") || len(a.Ribbons) != 1 || len(a.Patch) == 0 {
			t.Fatalf("status %d, %v: %.300s", status, err, body)
		}
	}
	for range 2 {
		if status, _, body := c.send("POST", "/api/sites/site/undo", `{"version":2}`, "Idempotency-Key", "a-2"); status != 200 || !strings.Contains(body, `"version":3`) {
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
		var made Made
		if err := json.Unmarshal([]byte(body), &made); status != 201 || err != nil {
			t.Fatalf("import: %d: %s", status, body)
		}
		ids[made.ID] = true
	}
	if list, _ := s.List(context.Background()); len(list) != 2 || len(ids) != 1 {
		t.Errorf("%d sites, %v", len(list), ids)
	}
	if status, _, body := c.send("POST", "/api/sites/site/undo", `{"version":3}`, "Idempotency-Key", "a b"); status != 422 {
		t.Errorf("a key that is none: %d: %s", status, body)
	}
}

// TestWhatCannotBeEstimatedIsNotStored sends what bricked a site once.
func TestWhatCannotBeEstimatedIsNotStored(t *testing.T) {
	c, s := serving(t, demo.PennywhistleQuay(), "", Options{})
	for _, edit := range []string{
		`{"setKeep":{"channels":["booth","kiosk"],"keep":{"quotaGB":1e-10}}}`,
		`{"setRate":{"channels":["booth"],"stream":"main","rate":{"kind":"constant","kbps":1e-300,"known":"guess"}}}`,
	} {
		if status, _, body := c.send("POST", "/api/sites/site/edits", `{"version":1,"edits":[`+edit+`]}`); status != 422 {
			t.Errorf("%s: %d: %.300s", edit, status, body)
		}
	}
	call[View](c, "GET", "/api/sites/site", "", 200)
	call[Answer](c, "POST", "/api/sites/site/edits", paint(1, "kiosk", "clock"), 200)
	// On an old version too it is told what is wrong with it, not that others were quicker.
	p := call[problemBody](c, "POST", "/api/sites/site/edits", `{"version":1,"edits":[{"setSite":{"timeZone":"Nowhere"}}]}`, 422)
	if !strings.Contains(p.Detail, "no time zone") {
		t.Errorf("%q", p.Detail)
	}
	if v, err := s.Version(context.Background(), "site"); err != nil || v != 2 {
		t.Errorf("version %d, %v", v, err)
	}
}

// TestAPlanThatCannotBeShownStillOpens stores a plan that this program refuses.
func TestAPlanThatCannotBeShownStillOpens(t *testing.T) {
	p := demo.PennywhistleQuay()
	c, s := serving(t, p, "", Options{})
	ctx := context.Background()
	head, err := s.Load(ctx, "site")
	if err != nil {
		t.Fatal(err)
	}
	spoilt, err := p.Apply(plan.Edit{SetAudio: &plan.SetAudio{Channels: []string{"kiosk"}, AudioKbps: 64}})
	if err != nil {
		t.Fatal(err)
	}
	spoilt.Channels[0].Keep.QuotaGB = 1e-10 // an older Wakefield allowed it
	if _, err := s.Save(ctx, head, store.Note{Author: "Test", Sentence: "Quota"}, spoilt); err != nil {
		t.Fatal(err)
	}
	got := call[struct{ Type, Detail string }](c, "GET", "/api/sites/site", "", 500)
	if got.Type != Unreadable || !strings.Contains(got.Detail, "channels[0].keep.quotaGB: 1e-10 is below 0.001") {
		t.Errorf("%+v", got)
	}
	if status, _, body := c.send("GET", "/api/sites/site/plan", ""); status != 200 || !strings.Contains(body, "0.0000000001") && !strings.Contains(body, "1e-10") {
		t.Errorf("export: %d", status)
	}
	if history := call[[]store.Revision](c, "GET", "/api/sites/site/history", "", 200); len(history) != 2 {
		t.Errorf("%+v", history)
	}
	if v := call[SiteVersion](c, "GET", "/api/sites/site/version", "", 200); v.Version != 2 {
		t.Errorf("version %d", v.Version)
	}
	a := call[Answer](c, "POST", "/api/sites/site/return", `{"version":2,"revision":1}`, 200)
	if a.Version != 3 || a.Sentence != "Back to revision 1" {
		t.Errorf("%+v", a)
	}
	if v := call[View](c, "GET", "/api/sites/site", "", 200); v.Version != 3 {
		t.Errorf("version %d", v.Version)
	}
}

func TestOnlyKnownHostsAreAnswered(t *testing.T) {
	c, _ := serving(t, nil, "", Options{Hosts: []string{"plan.example"}})
	for host, want := range map[string]int{
		"localhost": 200, "localhost:8460": 200, "127.0.0.1:1": 200, "127.9.9.9": 200, "[::1]:8460": 200, "plan.example": 200, "PLAN.example:443": 200,
		"evil.example": 421, "evil.example:8460": 421, "192.0.2.7": 421, "localhost.evil.example": 421,
	} {
		if status, _, body := c.send("GET", "/healthz", "", "Host", host); status != want {
			t.Errorf("%s: %d, want %d: %s", host, status, want, body)
		}
	}
	// A name that was made to lead here: for the browser the page is of this origin.
	if status, _, _ := c.send("POST", "/api/sites", `{}`, "Host", "evil.example", "Origin", "http://evil.example"); status != 421 {
		t.Errorf("rebinding: %d", status)
	}
	if status, _, _ := c.send("POST", "/api/sites", `{}`, "Origin", "http://evil.example"); status != 403 {
		t.Errorf("another origin: %d", status)
	}
}

func TestTextsThatAreNoneAreRefusedAtTheDoor(t *testing.T) {
	c, s := serving(t, demo.PennywhistleQuay(), "", Options{})
	cyrillic := strings.Repeat("%D0%96", 54)
	tests := []struct {
		name, method, path, body, author string
		status                           int
		says                             string
	}{
		{"NUL in a name", "POST", "/api/sites/site/edits", `{"version":1,"edits":[{"setSite":{"name":"Quay\u0000"}}]}`, "", 422, "edits[0].setSite.name: has a character U+0000"},
		{"no UTF-8", "POST", "/api/sites/site/edits", "{\"version\":1,\"edits\":[{\"setSite\":{\"name\":\"Qu\xe4\"}}]}", "", 400, "UTF-8"},
		{"NUL in the author", "POST", "/api/sites/site/undo", `{"version":1}`, "A%00", 422, "header.Wakefield-Author"},
		{"no UTF-8 in the author", "POST", "/api/sites/site/undo", `{"version":1}`, "A%ff", 422, "header.Wakefield-Author"},
		{"half an escape", "POST", "/api/sites/site/undo", `{"version":1}`, "100%", 422, "header.Wakefield-Author"},
		{"a long author", "POST", "/api/sites/site/undo", `{"version":1}`, strings.Repeat("x", 61), 422, "header.Wakefield-Author"},
		{"NUL in the id", "GET", "/api/sites/a%00b", "", "", 404, "no such site"},
		{"no UTF-8 in the id", "GET", "/api/sites/a%ffb", "", "", 404, "no such site"},
		{"history of nothing", "GET", "/api/sites/nowhere/history", "", "", 404, "no such site"},
		{"changes of nothing", "GET", "/api/changes?site=nowhere", "", "", 404, "no such site"},
		{"an operation that is not there", "GET", "/api/nothing", "", "", 404, ""},
		{"an asset that is not there", "GET", "/assets/index-0000.js", "", "", 404, ""},
		{"an icon that is not there", "GET", "/apple-touch-icon.png", "", "", 404, ""},
		{"a long Cyrillic author", "POST", "/api/sites/site/edits", paint(1, "kiosk", "clock"), cyrillic, 200, "Kiosk front"},
	}
	for _, test := range tests {
		status, _, body := c.send(test.method, test.path, test.body, "Wakefield-Author", test.author)
		if status != test.status || !strings.Contains(body, test.says) || strings.Contains(body, "SQLSTATE") {
			t.Errorf("%s: %d, want %d: %.300s", test.name, status, test.status, body)
		}
	}
	history, err := s.History(context.Background(), "site", 0, 5)
	if err != nil || history[0].Author != strings.Repeat("Ж", 54) {
		t.Errorf("%+v, %v", history[0], err)
	}
}

func TestErrorsTellTheTruthAndCanBeFound(t *testing.T) {
	var log bytes.Buffer
	c, s := serving(t, demo.PennywhistleQuay(), "", Options{Log: slog.New(slog.NewTextHandler(&log, nil))})
	s.Close()
	status, header, body := c.send("GET", "/api/sites/site", "")
	var p struct{ Instance, Detail string }
	if err := json.Unmarshal([]byte(body), &p); err != nil || status != 503 || p.Detail != awayWords {
		t.Fatalf("%d: %s, %v", status, body, err)
	}
	id := header.Get("Wakefield-Request")
	if id == "" || p.Instance != "/requests/"+id || !strings.Contains(log.String(), id) || !strings.Contains(log.String(), "closed pool") {
		t.Errorf("request %s, problem %s, log:\n%s", id, p.Instance, log.String())
	}
	// Each cause has its status, and no cause but a database that is away has 503.
	for want, err := range map[int]error{
		409: &store.StaleError{}, 404: store.ErrNotFound, 422: store.ErrNothing, 429: errBusy, 499: context.Canceled, 504: context.DeadlineExceeded,
		503: &store.UnsureError{Err: io.EOF}, 500: fmt.Errorf("the cause, which is not told"),
	} {
		var told interface {
			GetStatus() int
			Error() string
		}
		told, ok := problemOf(err).(interface {
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
	signal(syscall.SIGCONT)
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
				call[Answer](c, "POST", "/api/sites/site/edits", paint(1, "kiosk", "clock"), 200)
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
	call[View](c, "GET", "/api/sites/site", "", 200)
	call[Answer](c, "POST", "/api/sites/site/edits", paint(1, "kiosk", "clock"), 200)
	call[problemBody](c, "POST", "/api/sites/site/edits", paint(1, "kiosk", "off"), 409)
	_, _, got := c.send("GET", "/metrics", "")
	for _, want := range []string{
		`wakefield_request_seconds_count{method="GET",route="/api/sites/{id}",status="200"} 1`,
		`wakefield_edits_total{outcome="kept"} 1`, `wakefield_edits_total{outcome="conflict"} 1`,
		"wakefield_estimate_seconds_count 2", "wakefield_cache_sites 1", "wakefield_database_connections_most 16", "go_goroutines",
	} {
		if !strings.Contains(got, want) {
			t.Errorf("no %s", want)
		}
	}
}

// TestLargePlansComeInAndGoOut imports a plan whose file for people is larger than the
// plan itself may be, changes it, exports it and imports that.
func TestLargePlansComeInAndGoOut(t *testing.T) {
	c, _ := serving(t, nil, "", Options{})
	p := demo.BrackenhallCiderWorks()
	blocks := make([]plan.DutyBlock, 5000)
	for i := range blocks {
		blocks[i] = plan.DutyBlock{Hours: plan.Hours{Days: []week.Weekday{0, 1, 2, 3}, From: 600, To: 660}, Duty: p.Duties[0].ID}
	}
	for i := range 30 {
		p.Weeks = append(p.Weeks, plan.Week{ID: fmt.Sprint("w", i), Name: "Filler", OwnWeek: plan.OwnWeek{Otherwise: p.Duties[0].ID, Blocks: blocks}})
	}
	written, err := p.Write()
	if err != nil || len(written) < plan.MaxBytes {
		t.Fatalf("%d bytes, %v", len(written), err)
	}
	made := call[Made](c, "POST", "/api/sites", string(written), 201)
	call[Answer](c, "POST", "/api/sites/"+made.ID+"/edits", `{"version":1,"edits":[{"setSite":{"name":"Larger still"}}]}`, 200)
	status, _, exported := c.send("GET", "/api/sites/"+made.ID+"/plan", "")
	if status != 200 || len(exported) < plan.MaxBytes {
		t.Fatalf("%d, %d bytes", status, len(exported))
	}
	call[Made](c, "POST", "/api/sites", exported, 201)
}

// TestHostileRequests asks for far too much. Each is refused in one line, and the
// server goes on.
func TestHostileRequests(t *testing.T) {
	c, _ := serving(t, demo.PennywhistleQuay(), "", Options{})
	tied := demo.SaltmarshTramDepot()
	all := make([]string, len(tied.Channels))
	for i := range tied.Channels {
		all[i] = tied.Channels[i].ID
	}
	for range 5 {
		for _, id := range all {
			tied.Effects = append(tied.Effects, plan.Effect{When: plan.When{Motion: id}, Record: all})
		}
	}
	ties, _ := tied.Write()
	tests := []struct {
		name, path, body string
		status           int
		says             string
	}{
		{"a clip of lists", "/api/clip", `{"seconds":[` + strings.Repeat("[],", 7<<20) + `1]}`, 400, "more than 1500000 values"},
		{"a clip too large", "/api/clip", strings.Repeat(" ", 63<<20), 413, "too large"},
		{"all record all", "/api/sites", string(ties), 422, "more than 100000 ties"},
		{"deep lists", "/api/sites/site/edits", strings.Repeat("[", 1<<20), 400, ""},
		{"many edits", "/api/sites/site/edits", `{"version":1,"edits":[` + strings.Repeat("{},", 600_000) + `{}]}`, 422, "validation failed"},
	}
	for _, test := range tests {
		if status, _, body := c.send("POST", test.path, test.body); status != test.status || !strings.Contains(body, test.says) || len(body) > 20_000 {
			t.Errorf("%s: %d: %.300s", test.name, status, body)
		}
	}
	call[Health](c, "GET", "/healthz", "", 200)
}

func TestTurnsAreTakenOneAfterTheOther(t *testing.T) {
	turns := newTurns()
	inside, most := 0, 0
	var group sync.WaitGroup
	for range 50 {
		group.Go(func() {
			release, err := turns.take(context.Background(), "site")
			if err != nil {
				t.Error(err)
				return
			}
			inside++ // the race detector sees whether this is guarded
			most = max(most, inside)
			inside--
			release()
		})
	}
	group.Wait()
	if most != 1 || len(turns.sites) != 0 {
		t.Errorf("%d at once, %d sites are remembered", most, len(turns.sites))
	}
	hold, _ := turns.take(context.Background(), "site")
	gone, cancel := context.WithCancel(context.Background())
	cancel()
	if _, err := turns.take(gone, "site"); err == nil {
		t.Error("who went away got a turn")
	}
	if free, err := turns.take(context.Background(), "another"); err != nil {
		t.Error(err)
	} else {
		free()
	}
	hold()
	if len(turns.sites) != 0 {
		t.Errorf("%d sites are remembered", len(turns.sites))
	}
}

// TestTheCacheCountsBytes puts more into it than it may hold.
func TestTheCacheCountsBytes(t *testing.T) {
	_, s := serving(t, nil, "", Options{})
	svc := &service{log: slog.New(slog.DiscardHandler), meters: newMeters(s, newHub())}
	svc.cache = newCache(svc.meters)
	p := demo.SaltmarshTramDepot()
	first, err := svc.estimate(t.Context(), &store.Head{ID: "0", Version: 1, Plan: p}, nil)
	if err != nil {
		t.Fatal(err)
	}
	if first.size() < 192*8000 {
		t.Errorf("192 channels are said to take %d bytes", first.size())
	}
	most := mostCached/first.size() + 20
	for i := range most {
		e := first
		e.head = &store.Head{ID: fmt.Sprint(i), Version: 1, Plan: p}
		svc.cache.put(e)
		svc.cache.put(e) // the same again is not counted twice
	}
	if svc.cache.bytes > mostCached || svc.cache.bytes < mostCached/2 || svc.cache.entries.Len() >= most {
		t.Errorf("%d bytes in %d entries of %d", svc.cache.bytes, svc.cache.entries.Len(), most)
	}
	if _, ok := svc.cache.get("0"); ok {
		t.Error("the oldest is still there")
	}
}

func TestWorkStopsWhenItsClientHasGone(t *testing.T) {
	_, s := serving(t, nil, "", Options{})
	svc := &service{log: slog.New(slog.DiscardHandler), meters: newMeters(s, newHub())}
	gone, cancel := context.WithCancel(t.Context())
	cancel()
	if _, err := svc.estimate(gone, &store.Head{Plan: demo.SaltmarshTramDepot()}, nil); err != context.Canceled {
		t.Errorf("%v", err)
	}
}
