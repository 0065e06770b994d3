package api

import (
	"bufio"
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"wakefield.example/internal/backup"
	"wakefield.example/internal/demo"
	"wakefield.example/internal/store"
)

// events reads a stream of changes: its events by name, with what they say.
func events(t *testing.T, url string) <-chan [2]string {
	t.Helper()
	request, err := http.NewRequestWithContext(t.Context(), "GET", url, nil)
	if err != nil {
		t.Fatal(err)
	}
	request.Header.Set("Accept", "text/event-stream")
	response, err := http.DefaultClient.Do(request)
	if err != nil || response.StatusCode != 200 {
		t.Fatalf("%s: %v, %v", url, response, err)
	}
	out := make(chan [2]string, 1000)
	go func() {
		defer response.Body.Close()
		defer close(out)
		name := ""
		for lines := bufio.NewScanner(response.Body); lines.Scan(); {
			if n, ok := strings.CutPrefix(lines.Text(), "event: "); ok {
				name = n
			}
			if data, ok := strings.CutPrefix(lines.Text(), "data: "); ok {
				out <- [2]string{name, data}
			}
		}
	}()
	return out
}

// heard waits for an event that says something.
func heard(t *testing.T, from <-chan [2]string, name string, says ...string) string {
	t.Helper()
	end, last := time.After(10*time.Second), [2]string{}
	for {
		select {
		case e, open := <-from:
			if !open {
				t.Fatal("the stream ended")
			}
			last = e
			all := e[0] == name
			for _, s := range says {
				all = all && strings.Contains(e[1], s)
			}
			if all {
				return e[1]
			}
		case <-end:
			t.Fatalf("%s %q is not told; last was %s", name, says, last)
		}
	}
}

// TestABackupIsRestoredBesideRunningServers restores an early version under two servers that hold later ones, of which one
// page is in the midst of its work. Nothing of the lost history is served or kept any more, and nothing of the other is lost.
func TestABackupIsRestoredBesideRunningServers(t *testing.T) {
	c, s := serving(t, demo.PennywhistleQuay(), "", Options{})
	url := cluster.URL(t.Name())
	t.Cleanup(func() { _ = cluster.Drop(context.Background(), t.Name()+"_before") })
	second, err := store.Open(t.Context(), url)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(second.Close)
	server := httptest.NewServer(New(t.Context(), second, Options{}))
	t.Cleanup(server.Close)
	servers := []*client{c, {t, server.URL}}

	rename := func(version int64, mark, name string) string {
		return fmt.Sprintf(`{"version":%d,"mark":%q,"edits":[{"setSite":{"name":%q}}]}`, version, mark, name)
	}
	mark := call[SiteVersion](c, "GET", "/api/plans/site/version", "", 200).Mark
	call[Answer](c, "POST", "/api/plans/site/edits", rename(1, mark, "Two"), 200)
	file := filepath.Join(t.TempDir(), "backup")
	out, err := os.Create(file)
	if err != nil {
		t.Fatal(err)
	}
	if err := backup.Write(t.Context(), url, out); err != nil {
		t.Fatal(err)
	}
	out.Close()
	for v := int64(2); v < 7; v++ {
		call[Answer](servers[v%2], "POST", "/api/plans/site/edits", rename(v, mark, fmt.Sprint("Lost ", v+1)), 200)
	}
	stream := events(t, servers[1].url+"/api/changes?site=site")
	heard(t, stream, "change", `"version":7`)
	for _, c := range servers {
		if v := call[View](c, "GET", "/api/plans/site", "", 200); v.Version != 7 {
			t.Fatalf("version %d", v.Version)
		}
	}

	if _, err := backup.Restore(t.Context(), url, file, false, func(backup.Found) error { return nil }); err != nil {
		t.Fatal(err)
	}
	// Connections were ended; who asks while they come back is told that the database is away, and asks again.
	again := func(c *client, method, path, body string) (int, string) {
		for end := time.Now().Add(time.Minute); ; {
			status, _, body := c.send(method, path, body)
			if status != 503 || time.Now().After(end) {
				return status, body
			}
		}
	}
	for i, c := range servers {
		status, body := again(c, "GET", "/api/plans/site", "")
		var v View
		if err := json.Unmarshal([]byte(body), &v); status != 200 || err != nil || v.Version != 2 || v.Plan.Site.Name != "Two" || v.Mark == mark {
			t.Errorf("server %d serves version %d, %s; %d, %v", i, v.Version, v.Plan.Site.Name, status, err)
		}
		for name, on := range map[string]string{"of a version that is there too": rename(2, mark, "A"),
			"of one that is gone": rename(7, mark, "B"), "of one that is gone, without a mark": rename(7, "", "C")} {
			status, body := again(c, "POST", "/api/plans/site/edits", on)
			if status != 409 || !strings.Contains(body, `"restored":true`) || !strings.Contains(body, "backup was restored") {
				t.Errorf("server %d, an edit %s: %d, %.300s", i, name, status, body)
			}
		}
		for _, path := range []string{"undo", "redo"} {
			if status, body := again(c, "POST", "/api/plans/site/"+path, fmt.Sprintf(`{"version":2,"mark":%q}`, mark)); status != 409 ||
				!strings.Contains(body, `"restored":true`) {
				t.Errorf("server %d, %s: %d, %.300s", i, path, status, body)
			}
		}
		if status, body := again(c, "POST", "/api/plans/site/return", fmt.Sprintf(`{"version":2,"mark":%q,"revision":1}`, mark)); status != 409 {
			t.Errorf("server %d, return: %d, %.300s", i, status, body)
		}
	}
	heard(t, stream, "missed", "epoch")
	heard(t, stream, "change", `"version":2`)
	now := call[SiteVersion](c, "GET", "/api/plans/site/version", "", 200)
	for v := int64(2); v < 10; v++ {
		a := call[Answer](servers[v%2], "POST", "/api/plans/site/edits", rename(v, now.Mark, fmt.Sprint("New ", v+1)), 200)
		if a.Version != v+1 || !strings.Contains(a.Sentence, fmt.Sprint("New ", v+1)) {
			t.Errorf("%+v", a.Sentence)
		}
	}
	head, err := s.Load(t.Context(), "site")
	if err != nil || head.Version != 10 || head.Plan.Site.Name != "New 10" {
		t.Fatalf("%+v, %v", head, err)
	}
	for number, name := range map[int64]string{2: "Two", 3: "New 3", 9: "New 9"} {
		if p, err := s.At(t.Context(), head, number); err != nil || p.Site.Name != name {
			t.Errorf("revision %d: %v, %v", number, p, err)
		}
	}
}

// TestEveryChangeOfASiteIsTold makes each through one server and hears of it from another that looks at the site.
func TestEveryChangeOfASiteIsTold(t *testing.T) {
	c, _ := serving(t, demo.PennywhistleQuay(), "", Options{})
	second, err := store.Open(t.Context(), cluster.URL(t.Name()))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(second.Close)
	server := httptest.NewServer(New(t.Context(), second, Options{}))
	t.Cleanup(server.Close)
	stream := events(t, server.URL+"/api/changes?site=site")
	heard(t, stream, "missed") // it listens now
	made := call[CreatedSite](c, "POST", "/api/sites/site/plans", `{"like":"site","name":"Second"}`, 201)
	heard(t, stream, "site", `"what":"variant"`, made.ID)
	call[Answer](c, "POST", "/api/plans/"+made.ID+"/edits", `{"version":1,"edits":[{"setSite":{"plan":"Another name"}}]}`, 200)
	heard(t, stream, "change", made.ID, "Another name", `"site":"site"`)
	for _, step := range []struct{ method, path, body, what string }{
		{"PUT", "/adopted", `{"plan":"` + made.ID + `"}`, "adopted"},
		{"POST", "/plans/site/removed", `{"removed":true}`, "removed"},
		{"POST", "/plans/site/removed", `{"removed":false}`, "back"},
		{"POST", "/archive", `{"archived":true}`, "archived"},
		{"POST", "/archive", `{"archived":false}`, "unarchived"},
	} {
		if status, _, body := c.send(step.method, "/api/sites/site"+step.path, step.body); status != 204 {
			t.Fatalf("%s: %d, %s", step.what, status, body)
		}
		heard(t, stream, "site", `"what":"`+step.what+`"`)
	}
	if status, _, body := c.send("PUT", "/api/plans/site/revisions/1/name", `{"name":"As sold"}`); status != 204 {
		t.Fatalf("%d, %s", status, body)
	}
	heard(t, stream, "site", `"what":"named"`, `"plan":"site"`)
	all := events(t, server.URL+"/api/changes")
	heard(t, all, "beat")
	other := call[CreatedSite](c, "POST", "/api/sites/site/duplicate", `{"name":"Other"}`, 201)
	heard(t, all, "site", `"what":"made"`, other.ID)
}

// TestAKeyBelongsToItsRequest uses keys again for other operations, places and bodies. Each is refused, and nothing is lost
// that was told to be kept.
func TestAKeyBelongsToItsRequest(t *testing.T) {
	c, s := serving(t, demo.PennywhistleQuay(), "", Options{})
	other := call[CreatedSite](c, "POST", "/api/sites/site/duplicate", `{"name":"Other"}`, 201)
	first := paint(1, "kiosk", "clock")
	if status, _, body := c.send("POST", "/api/plans/site/edits", first, "Idempotency-Key", "k"); status != 200 {
		t.Fatalf("%d: %s", status, body)
	}
	file, err := demo.BrackenhallCiderWorks().Write()
	if err != nil {
		t.Fatal(err)
	}
	for name, again := range map[string][3]string{
		"another body":      {"POST", "/api/plans/site/edits", paint(1, "kiosk", "off")},
		"another operation": {"POST", "/api/plans/site/undo", `{"version":2}`},
		"another place":     {"POST", "/api/plans/" + other.ID + "/edits", first},
		"an import":         {"POST", "/api/sites", string(file)},
		"a duplicate":       {"POST", "/api/sites/site/duplicate", `{"name":"Third"}`},
		"a variant":         {"POST", "/api/sites/site/plans", `{"like":"site","name":"Second"}`},
	} {
		status, _, body := c.send(again[0], again[1], again[2], "Idempotency-Key", "k")
		if status != 422 || !strings.Contains(body, "used for something else") {
			t.Errorf("%s: %d: %.300s", name, status, body)
		}
	}
	if status, _, body := c.send("POST", "/api/plans/site/edits", first, "Idempotency-Key", "k"); status != 200 ||
		!strings.Contains(body, `"version":2`) {
		t.Errorf("the same again: %d: %.300s", status, body)
	}
	if list, err := s.List(t.Context()); err != nil || len(list) != 2 {
		t.Errorf("%d sites, %v", len(list), err)
	}
}
