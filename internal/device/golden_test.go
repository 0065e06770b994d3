package device

import (
	"bytes"
	"context"
	"flag"
	"io"
	"maps"
	"net/http"
	"net/http/httptest"
	"net/http/httputil"
	"net/url"
	"os"
	"regexp"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/readout"
	"wakefield.example/core/week"
	"wakefield.example/internal/demo"
	"wakefield.example/internal/onvif"
	"wakefield.example/internal/standin"
)

var golden = flag.Bool("golden", false, "write testdata/requests.golden anew")

// What of a request is another every time.
var (
	secret  = regexp.MustCompile(`(?s)<wsse:Security.*?</wsse:Security>`)
	unique  = regexp.MustCompile(`urn:uuid:[0-9a-f-]+`)
	dates   = regexp.MustCompile(`(UID|DTSTART|DTEND):20(2[5-9]|[3-9]\d)\d{4}`) // of special days, which are of this year and the next
	address = regexp.MustCompile(`http://127\.0\.0\.1:\d+`)
)

// TestRequestsAreWrittenAsTheyWere holds a request of every operation, the first by its letters, against the one that was looked at, when
// reading, setting and listening. go test ./internal/device -run Requests -golden writes them anew, to be looked at.
func TestRequestsAreWrittenAsTheyWere(t *testing.T) {
	p := shutOn(t, sensitive(t, demo.PennywhistleQuay(), 50), 40)
	got := make(map[string]string)
	for _, quirks := range [][]standin.Quirk{nil, {standin.Media1}, {standin.Grid}} {
		d := play(t, golds(t), quirks...)
		c := through(t, d, got)
		before := read(t, c)
		q := *p
		q.Recorders = slices.Clone(p.Recorders)
		q.Recorders[0].Takes = readout.TakesOf(nil, before)
		wanted, _ := readout.Wanted(entered(&q), nvr, before)
		setAll(t, c, setAll(t, c, setAll(t, c, before, wanted), before), wanted) // as planned, back, and again
		if err := c.askCapabilities(t.Context()); err != nil {
			t.Error(err)
		}
		if _, err := c.Snapshot(t.Context(), "P15_main"); err != nil {
			t.Error(err)
		}
		if _, err := c.Watch(t.Context(), "P15_sub", time.Second/4, nil); err != nil {
			t.Error(err)
		}
		hearing(t, c)
	}
	var b strings.Builder
	for _, name := range slices.Sorted(maps.Keys(got)) {
		b.WriteString(name + "\n" + got[name] + "\n\n")
	}
	const path = "testdata/requests.golden"
	if *golden {
		if err := os.WriteFile(path, []byte(b.String()), 0o644); err != nil {
			t.Fatal(err)
		}
	}
	want, err := os.ReadFile(path)
	if err != nil {
		t.Fatal(err)
	}
	if string(want) != b.String() {
		for name, text := range got {
			if !strings.Contains(string(want), name+"\n"+text+"\n") {
				t.Errorf("%s is asked otherwise than it was:\n%s", name, text)
			}
		}
		t.Error("requests are others than those in testdata/requests.golden")
	}
}

// golds is the quay set otherwise in a way that takes every operation: jobs made and deleted, schedules made, changed and deleted, rules
// made, changed and deleted.
func golds(t *testing.T) *plan.Plan {
	t.Helper()
	p := different(t)
	corner := []plan.Point{{0.2, 0.2}, {0.6, 0.2}, {0.6, 0.7}}
	lamp := *p.Output("fuel-lamp")
	lamp.HoldSeconds = 33
	p, err := edit.After(shutOn(t, sensitive(t, p, 77)),
		edit.Edit{Paint: &edit.Paint{Channels: []string{"gangway-a"}, Hours: []plan.Hours{{From: 60, To: 90}}, Duty: "low"}},
		edit.Edit{Paint: &edit.Paint{Channels: []string{"booth"}, Hours: []plan.Hours{{From: 0, To: 1440}}, Duty: "clock"}},
		edit.Edit{SetOutput: &edit.SetOutput{Output: lamp}},
		edit.Edit{SetArea: &edit.SetArea{Channel: "hall", Area: plan.Area{ID: "more", Name: "More", Points: corner}}})
	if err != nil {
		t.Fatal(err)
	}
	return p
}

// shutOn is a plan with other duties than on any other day on the Wednesdays after some days from today on, and no special days beside.
func shutOn(t *testing.T, p *plan.Plan, in ...int) *plan.Plan {
	t.Helper()
	days := []plan.SpecialDay{}
	for _, k := range in {
		day := today().Add(k)
		day = day.Add(int(week.Wednesday-day.Weekday()+7) % 7)
		days = append(days, plan.SpecialDay{Name: "Shut", From: day, To: day, Week: "shut"})
	}
	p, err := edit.After(p, edit.Edit{SetWeek: &edit.SetWeek{Week: plan.Week{ID: "shut", Name: "Shut", OwnWeek: plan.OwnWeek{Otherwise: "off",
		Blocks: []plan.DutyBlock{{Hours: plan.Hours{From: 183, To: 244}, Duty: "clock"}}}}}},
		edit.Edit{SetSpecialDays: &edit.SetSpecialDays{Days: days}})
	if err != nil {
		t.Fatal(err)
	}
	return p
}

// sensitive is a plan with a sensitivity for an area of a camera.
func sensitive(t *testing.T, p *plan.Plan, percent float64) *plan.Plan {
	t.Helper()
	p, err := edit.After(p, edit.Edit{SetArea: &edit.SetArea{Channel: "luggage", Area: plan.Area{ID: "door", Name: "Door",
		Points: []plan.Point{{0.4, 0.2}, {0.6, 0.2}, {0.6, 0.9}, {0.4, 0.9}}, SensitivityPercent: &percent}}})
	if err != nil {
		t.Fatal(err)
	}
	return p
}

// setAll sets all in which a device differs from what is wanted, and returns how it is then.
func setAll(t *testing.T, c *Client, now, wanted *readout.Device) *readout.Device {
	t.Helper()
	done := make(map[string]bool)
	for _, l := range readout.Lines(now, wanted, func(*readout.Channel) (id, name string) { return "", "" }) {
		if l.Part == "" || done[l.Part] || c.Write(t.Context(), wanted, l.Part) != nil {
			continue
		}
		done[l.Part] = true
		again, err := c.Again(t.Context(), now, l.Part)
		if err != nil {
			t.Fatal(err)
		}
		now = again
	}
	return now
}

// hearing listens until the first thing is told.
func hearing(t *testing.T, c *Client) {
	t.Helper()
	ctx, stop := context.WithTimeout(t.Context(), time.Minute)
	defer stop()
	if err := c.Listen(ctx, func() {}, func(Heard) { stop() }); err != nil {
		t.Error(err)
	}
}

// through opens a stand-in through a proxy that keeps a request of every operation.
func through(t *testing.T, d *standin.Device, got map[string]string) *Client {
	t.Helper()
	to, err := url.Parse(d.HTTP)
	if err != nil {
		t.Fatal(err)
	}
	var mu sync.Mutex
	proxy := httputil.NewSingleHostReverseProxy(to)
	s := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		body, err := io.ReadAll(r.Body)
		if err != nil {
			return
		}
		r.Body = io.NopCloser(bytes.NewReader(body))
		defer proxy.ServeHTTP(w, r)
		m, err := onvif.Read(bytes.NewReader(body))
		if err != nil || m.Body == nil {
			return
		}
		text := secret.ReplaceAllString(string(body), "<wsse:Security/>")
		text = address.ReplaceAllString(unique.ReplaceAllString(text, "urn:uuid:…"), "http://device")
		name := string(onvif.ServiceOf(m.Body.NamespaceURI())) + ":" + m.Body.Tag
		mu.Lock()
		defer mu.Unlock()
		text = strings.ReplaceAll(dates.ReplaceAllString(text, "$1:DATE"), "\r", "␍")
		if was, known := got[name]; !known || text < was {
			got[name] = text
		}
	}))
	t.Cleanup(s.Close)
	a, err := ReadAddress(s.URL)
	if err != nil {
		t.Fatal(err)
	}
	c, err := Open(t.Context(), Options{Address: a, User: "fitter", Password: "secret", Allowed: loopback})
	if err != nil {
		t.Fatal(err)
	}
	return c
}
