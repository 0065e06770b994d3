package api

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"os"
	"reflect"
	"strings"
	"testing"
	"time"

	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/internal/demo"
	"wakefield.example/internal/localpg"
	"wakefield.example/internal/localpg/pgtest"
	"wakefield.example/internal/store"

	"github.com/danielgtaylor/huma/v2"
	"github.com/go-chi/chi/v5"
)

var cluster *localpg.Cluster

func TestMain(m *testing.M) { os.Exit(pgtest.Run(m, &cluster)) }

// client talks to a running server over a database of its own.
type client struct {
	testing.TB
	url string
}

func start(t testing.TB, p *plan.Plan) *client {
	t.Helper()
	c, _ := serving(t, p, "", Options{})
	return c
}

// call makes a request and decodes the answer into T.
func call[T any](c *client, method, path, body string, status int) T {
	c.Helper()
	got, header, data := c.send(method, path, body, "Wakefield-Author", "J%C3%B3run")
	if got != status {
		c.Fatalf("%s %s: status %d, want %d: %s", method, path, got, status, data)
	}
	if kind := header.Get("Content-Type"); status >= 400 && kind != "application/problem+json" {
		c.Errorf("%s %s: a problem of type %q", method, path, kind)
	}
	var v T
	if err := json.Unmarshal([]byte(data), &v); err != nil {
		c.Fatalf("%v in %.200s", err, data)
	}
	return v
}

func paint(version int, channel, duty string) string {
	return fmt.Sprintf(`{"version":%d,"edits":[{"paint":{"channels":[%q],"hours":[{"days":["tue"],"from":"06:00","to":"22:00"}],"duty":%q}}]}`,
		version, channel, duty)
}

func TestWhatIsWorthMeasuring(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	list := call[[]estimate.Unknown](c, "GET", "/api/plans/site/knowing", "", 200)
	if len(list) < 3 || list[0].NarrowerDays < list[1].NarrowerDays || list[0].Name == "" {
		t.Errorf("%+v", list)
	}
}

func TestAChangeOnAVersionToComeIsToldSo(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	p := call[problemBody](c, "POST", "/api/plans/site/edits", paint(7, "kiosk", "clock"), 409)
	if p.Version != 1 || !strings.Contains(p.Detail, "made on version 7, and the newest is 1 now, of another history") {
		t.Errorf("%+v", p)
	}
}

// problemBody is what is looked at in a problem.
type problemBody struct {
	Status  int
	Detail  string
	Version int64
	Since   []store.Revision
}

func TestEditAnswersWithWhatChanged(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	before := call[View](c, "GET", "/api/plans/site", "", 200)
	if before.Version != 1 || len(before.Ribbons) != 16 || len(before.Tide.Base) != 336 || len(before.Findings) == 0 {
		t.Fatalf("version %d, %d ribbons, %d half hours, %d findings", before.Version, len(before.Ribbons),
			len(before.Tide.Base), len(before.Findings))
	}
	a := call[Answer](c, "POST", "/api/plans/site/edits", paint(1, "kiosk", "clock"), 200)
	if a.Version != 2 || len(a.Ribbons) != 1 || a.Ribbons[0].ID != "kiosk" || a.Sentence != "Kiosk front, Tue 06:00-22:00: Round the clock" ||
		a.Undo != a.Sentence || a.UndoBy != "Jórun" {
		t.Errorf("%+v", a)
	}
	if len(a.Patch) == 0 || a.Verdict.GigabytesPerDay <= before.Verdict.GigabytesPerDay {
		t.Errorf("patch %v, verdict %+v", a.Patch, a.Verdict)
	}
	after := call[View](c, "GET", "/api/plans/site", "", 200)
	figures, _ := json.Marshal(after.Verdict)
	answered, _ := json.Marshal(a.Verdict)
	if string(figures) != string(answered) {
		t.Errorf("the answer says %s, the site %s", answered, figures)
	}
	history := call[[]store.Revision](c, "GET", "/api/plans/site/revisions", "", 200)
	if len(history) != 2 || history[0].Author != "Jórun" {
		t.Errorf("%+v", history)
	}
	u := call[Answer](c, "POST", "/api/plans/site/undo", `{"version":2}`, 200)
	if u.Undo != "" || u.Redo != a.Sentence || u.Verdict.GigabytesPerDay != before.Verdict.GigabytesPerDay {
		t.Errorf("%+v", u.Verdict)
	}
	if r := call[Answer](c, "POST", "/api/plans/site/redo", `{"version":3}`, 200); r.Version != 4 || r.Undo != a.Sentence {
		t.Errorf("version %d, undo %q", r.Version, r.Undo)
	}
}

func TestAnEditThatChangesNothingMakesNoRevision(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	quay := demo.PennywhistleQuay()
	audio := quay.Channel("booth").AudioKbps
	a := call[Answer](c, "POST", "/api/plans/site/edits",
		fmt.Sprintf(`{"version":1,"edits":[{"setAudio":{"channels":["booth"],"audioKbps":%v}}]}`, audio), 200)
	if a.Version != 1 || len(a.Patch) != 0 || len(a.Ribbons) != 0 || len(a.Figures) != 0 || len(a.Rows) != 0 {
		t.Errorf("%+v", a)
	}
	call[Answer](c, "POST", "/api/plans/site/edits", paint(1, "booth", "clock"), 200) // which it is already
	if history := call[[]store.Revision](c, "GET", "/api/plans/site/revisions", "", 200); len(history) != 1 {
		t.Errorf("%+v", history)
	}
}

func TestDraftKeepsNothing(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	d := call[Draft](c, "POST", "/api/plans/site/draft", paint(1, "waiting", "clock"), 200)
	a := call[Answer](c, "POST", "/api/plans/site/edits", paint(1, "waiting", "clock"), 200)
	if d.GigabytesPerDayChange <= 0 || d.GigabytesPerDay != a.Verdict.GigabytesPerDay || d.Sentence != a.Sentence ||
		d.EvidenceChange.FullPerDay < 0 {
		t.Errorf("the draft said %+v, then came %+v", d, a.Verdict)
	}
	if !reflect.DeepEqual(d.Ribbons, a.Ribbons) || len(d.Ribbons) != 1 || !reflect.DeepEqual(d.Tide, a.Tide) {
		t.Errorf("the draft drew %+v and the tide at %v, then came %+v and %v", d.Ribbons, d.Tide.Mean, a.Ribbons, a.Tide.Mean)
	}
}

func TestStaleEditIsAnswered409(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	call[Answer](c, "POST", "/api/plans/site/edits", paint(1, "kiosk", "clock"), 200)
	for _, path := range []string{"edits", "draft", "undo", "redo"} {
		p := call[problemBody](c, "POST", "/api/plans/site/"+path, map[bool]string{true: paint(1, "kiosk", "off"),
			false: `{"version":1}`}[path[0] == 'e' || path[0] == 'd'], 409)
		if p.Version != 2 || len(p.Since) != 1 || !strings.Contains(p.Since[0].Sentence, "Kiosk front") {
			t.Errorf("%s: %+v", path, p)
		}
	}
}

func TestBadRequests(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	plan, err := demo.BrackenhallCiderWorks().Write()
	if err != nil {
		t.Fatal(err)
	}
	tests := []struct {
		name, method, path, body string
		status                   int
		says                     string
	}{
		{"no site", "GET", "/api/sites/nowhere", "", 404, "no such site"},
		{"edit of no site", "POST", "/api/plans/nowhere/edits", paint(1, "kiosk", "clock"), 404, "no such site"},
		{"no duty", "POST", "/api/plans/site/edits", paint(1, "kiosk", "nap"), 422, `edits[0].paint.duty: no duty "nap"`},
		{"no channel", "POST", "/api/plans/site/edits", paint(1, "kisok", "off"), 422, `edits[0].paint.channels[0]: no channel "kisok"`},
		{"no edits", "POST", "/api/plans/site/edits", `{"version":1,"edits":[]}`, 422, "validation failed"},
		{"two changes in one", "POST", "/api/plans/site/edits",
			`{"version":1,"edits":[{"removeDuty":{"duty":"off"},"setAudio":{"channels":["booth"],"audioKbps":0}}]}`, 422, "an edit is one change"},
		{"no revision", "POST", "/api/plans/site/return", `{"version":1,"revision":7}`, 422, "There is no revision 7"},
		{"nothing to undo", "POST", "/api/plans/site/undo", `{"version":1}`, 422, "nothing to undo"},
		{"cut file", "POST", "/api/sites", string(plan[:500]), 422, "it ends too early"},
		{"negative rate", "POST", "/api/sites", strings.Replace(string(plan), `"perHour": 14`, `"perHour": -14`, 1), 422,
			"activities[0].blocks[0].perHour: -14 is below 0"},
		{"unknown member", "POST", "/api/sites", strings.Replace(string(plan), `"perHour": 14`, `"perHour": 14, "color": 1`, 1), 422,
			"activities[0].blocks[0].color: no such member"},
		{"reference to nothing", "POST", "/api/sites", strings.Replace(string(plan), `"pool": "disk"`, `"pool": "desk"`, 1), 422,
			`channels[0].pool: no pool "desk"`},
		{"40 MB", "POST", "/api/sites", strings.Repeat(" ", 40<<20), 422, "larger than 32 MiB, which no plan is"},
		{"90 MB", "POST", "/api/sites", strings.Repeat(" ", 90<<20), 413, "too large"},
	}
	for _, test := range tests {
		p := call[problemBody](c, test.method, test.path, test.body, test.status)
		if !strings.Contains(p.Detail, test.says) {
			t.Errorf("%s: %q, want %q", test.name, p.Detail, test.says)
		}
	}
	if sites := call[[]store.Summary](c, "GET", "/api/sites", "", 200); len(sites) != 1 || sites[0].Version != 1 {
		t.Errorf("something was stored: %+v", sites)
	}
}

func TestImportExport(t *testing.T) {
	c := start(t, nil)
	written, err := demo.BrackenhallCiderWorks().Write()
	if err != nil {
		t.Fatal(err)
	}
	made := call[CreatedSite](c, "POST", "/api/sites", string(written), 201)
	response, err := http.Get(c.url + "/api/plans/" + made.ID + "/file")
	if err != nil {
		t.Fatal(err)
	}
	defer response.Body.Close()
	exported, _ := io.ReadAll(response.Body)
	if !bytes.Equal(exported, written) {
		t.Error("what was imported is not what is exported")
	}
	if d := response.Header.Get("Content-Disposition"); !strings.Contains(d, "plan, 20") || !strings.Contains(d, ".json") {
		t.Errorf("disposition %q", d)
	}
}

func TestHealthAsksTheDatabase(t *testing.T) {
	c := start(t, nil)
	call[Health](c, "GET", "/healthz", "", 200)
	cluster.Stop()
	call[problemBody](c, "GET", "/healthz", "", 503)
	p := call[problemBody](c, "GET", "/api/sites", "", 503)
	if !strings.Contains(p.Detail, "Nothing was changed") {
		t.Errorf("%q", p.Detail)
	}
	if err := cluster.Start(context.Background()); err != nil {
		t.Fatal(err)
	}
	call[Health](c, "GET", "/healthz", "", 200)
}

func TestOtherSitesMayNotPost(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	request, _ := http.NewRequest("POST", c.url+"/api/plans/site/undo", strings.NewReader(`{"version":1}`))
	request.Header.Set("Content-Type", "application/json")
	request.Header.Set("Sec-Fetch-Site", "cross-site")
	response, err := http.DefaultClient.Do(request)
	if err != nil {
		t.Fatal(err)
	}
	response.Body.Close()
	if response.StatusCode != http.StatusForbidden {
		t.Errorf("status %d", response.StatusCode)
	}
}

func TestSeveralServersOnOneDatabase(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	s, err := store.Open(context.Background(), cluster.URL(t.Name()))
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	other := httptest.NewServer(New(t.Context(), s, Options{}))
	defer other.Close()
	d := &client{t, other.URL}
	call[View](d, "GET", "/api/plans/site", "", 200)
	call[Answer](c, "POST", "/api/plans/site/edits", paint(1, "kiosk", "clock"), 200)
	if v := call[View](d, "GET", "/api/plans/site", "", 200); v.Version != 2 {
		t.Errorf("the other server shows version %d", v.Version)
	}
	call[Answer](d, "POST", "/api/plans/site/undo", `{"version":2}`, 200)
}

// TestChangesAreToldToEveryServersPages makes a change through one server and hears
// of it from another.
func TestChangesAreToldToEveryServersPages(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	s, err := store.Open(t.Context(), cluster.URL(t.Name()))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(s.Close)
	other := httptest.NewServer(New(t.Context(), s, Options{}))
	t.Cleanup(other.Close)
	ctx, cancel := context.WithTimeout(t.Context(), time.Minute)
	defer cancel()
	request, err := http.NewRequestWithContext(ctx, "GET", other.URL+"/api/changes?site=site", nil)
	if err != nil {
		t.Fatal(err)
	}
	request.Header.Set("Accept", "text/event-stream")
	response, err := http.DefaultClient.Do(request)
	if err != nil {
		t.Fatal(err)
	}
	defer response.Body.Close()
	next := func(lines *bufio.Scanner) store.Changed {
		t.Helper()
		for lines.Scan() {
			if data, ok := strings.CutPrefix(lines.Text(), "data: "); ok && strings.Contains(data, "version") {
				var change store.Changed
				if err := json.Unmarshal([]byte(data), &change); err != nil {
					t.Fatal(err)
				}
				return change
			}
		}
		t.Fatalf("the stream ended: %v", lines.Err())
		return store.Changed{}
	}
	lines := bufio.NewScanner(response.Body)
	if first := next(lines); first.Version != 1 {
		t.Errorf("at first %+v", first)
	}
	// The other server may not listen to the database yet; later changes are heard.
	go func() {
		for version := 1; ctx.Err() == nil && version < 200; version++ {
			body := strings.NewReader(paint(version, "kiosk", []string{"clock", "off"}[version%2]))
			if r, err := http.Post(c.url+"/api/plans/site/edits", "application/json", body); err == nil {
				r.Body.Close()
			}
		}
	}()
	change := next(lines)
	for change.Version == 1 { // told again when the server began to listen
		change = next(lines)
	}
	if change.Version < 2 || !strings.Contains(change.Sentence, "Kiosk front, Tue 06:00-22:00") || change.Author != "Planner" {
		t.Errorf("then %+v", change)
	}
}

// BenchmarkPaint is the answer to a stroke, stored and estimated.
func BenchmarkPaint(b *testing.B) {
	for _, site := range []struct {
		name    string
		plan    *plan.Plan
		channel string
	}{{"16 channels", demo.PennywhistleQuay(), "kiosk"}, {"192 channels", demo.SaltmarshTramDepot(), "c1-1"}} {
		b.Run(site.name, func(b *testing.B) {
			c := start(b, site.plan)
			version := int(call[View](c, "GET", "/api/plans/site", "", 200).Version)
			call[Answer](c, "POST", "/api/plans/site/edits", paint(version, site.channel, "off"), 200)
			duties := []string{"clock", "motion"}
			for b.Loop() {
				version++
				call[Answer](c, "POST", "/api/plans/site/edits", paint(version, site.channel, duties[version%2]), 200)
			}
		})
	}
}

// TestServersShareNothing makes one, and asks that what all others begin with is as it was: each reads a request once.
func TestServersShareNothing(t *testing.T) {
	newAPI(chi.NewRouter())
	var v any
	if err := huma.DefaultFormats["application/json"].Unmarshal([]byte("\"a\xff\""), &v); err != nil {
		t.Errorf("reading a request became stricter for whoever comes next: %v", err)
	}
}
