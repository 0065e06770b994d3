package api

import (
	"encoding/json"
	"fmt"
	"io"
	"math"
	"net/http"
	"strings"
	"testing"

	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/solve"
	"wakefield.example/core/table"
	"wakefield.example/core/video"
	"wakefield.example/internal/demo"
	"wakefield.example/internal/formats"
	"wakefield.example/internal/store"
)

const setFrames = `{"version":%d,"edits":[{"setCells":{"columns":["main.fps"],"rows":[{"channel":%q,"values":[%q]}]}}]}`

func TestTheAnswerHasTheRowsThatChanged(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	before := call[Table](c, "GET", "/api/plans/site/table", "", 200)
	if len(before.Rows) != 16 || len(before.Columns) != len(table.Columns) || before.Columns[1].ID != "name" {
		t.Fatalf("%d rows, %d columns", len(before.Rows), len(before.Columns))
	}
	a := call[Answer](c, "POST", "/api/plans/site/edits", fmt.Sprintf(setFrames, 1, "lane-1", "9 fps"), 200)
	if len(a.Rows) != 1 || a.Rows[0].ID != "lane-1" || strings.Join(a.Rows[0].Departs, " ") != "main.fps" {
		t.Errorf("%+v", a.Rows)
	}
	// A name that stands in other rows changes them too.
	a = call[Answer](c, "POST", "/api/plans/site/edits",
		`{"version":2,"edits":[{"setWeek":{"week":{"id":"lanes","name":"Other","otherwise":"off"}}}]}`, 200)
	if len(a.Rows) != 2 {
		t.Errorf("%d rows show the name of the week", len(a.Rows))
	}
	tried := call[TriedCells](c, "POST", "/api/plans/site/table/try",
		`{"columns":["main.fps"],"rows":[{"channel":"lane-1","values":["x"]},{"channel":"lane-2","values":["8"]}]}`, 200)
	if len(tried.Bad) != 1 || tried.Bad[0].Row != 0 || tried.Good == nil || len(tried.Good.Rows) != 1 {
		t.Errorf("%+v", tried)
	}
	p := call[problemBody](c, "POST", "/api/plans/site/edits", fmt.Sprintf(setFrames, 3, "lane-1", "x"), 422)
	if !strings.Contains(p.Detail, "edits[0].setCells.rows[0].values[0]") {
		t.Errorf("%q", p.Detail)
	}
}

func (c *client) fetch(path string) (string, http.Header) {
	c.Helper()
	response, err := http.Get(c.url + path)
	if err != nil {
		c.Fatal(err)
	}
	defer response.Body.Close()
	data, _ := io.ReadAll(response.Body)
	if response.StatusCode != http.StatusOK {
		c.Fatalf("%s: %d %s", path, response.StatusCode, data)
	}
	return string(data), response.Header
}

func TestTablesGoOutAndComeIn(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	for _, kind := range []string{"csv", "xlsx"} {
		data, header := c.fetch("/api/plans/site/channels." + kind)
		if !strings.Contains(header.Get("Content-Disposition"), "Pennywhistle Quay, As surveyed, channels, 20") ||
			!strings.HasSuffix(header.Get("Content-Disposition"), "."+kind+`"`) {
			t.Errorf("%s", header)
		}
		read := call[formats.Table](c, "POST", "/api/plans/site/table/read", data, 200)
		if read.Same != 16 || len(read.Bad) != 0 {
			t.Errorf("%s: %+v", kind, read)
		}
	}
	p := call[problemBody](c, "POST", "/api/plans/site/table/read", "a,b\n1,2\n", 422)
	if !strings.Contains(p.Detail, "no heading is known") {
		t.Errorf("%q", p.Detail)
	}
}

func TestLogsClipsAndCurves(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	if rows, _ := c.fetch("/api/plans/site/table"); strings.Contains(rows, `"departs":null`) || !strings.Contains(rows, `"departs":[]`) {
		t.Error("a channel that differs in nothing has no list of what it differs in")
	}
	log := call[formats.Log](c, "POST", "/api/plans/site/log/read",
		"begin,end\n2026-06-01T08:00:00Z,2026-06-01T08:00:30Z\n2026-06-02T08:00:00Z,2026-06-02T08:00:10Z\n", 200)
	if log.Events != 2 || log.Activity.MeanSeconds != 20 || log.Zone != "Europe/Dublin" || log.Sample[0].Start.Hour() != 9 {
		t.Errorf("%+v", log)
	}
	if p := call[problemBody](c, "POST", "/api/plans/site/log/read?zone=Nowhere", "x", 422); !strings.Contains(p.Detail, "no time zone") {
		t.Errorf("%q", p.Detail)
	}
	var f Frames
	for i := range 300 {
		f.Seconds, f.Bytes = append(f.Seconds, float64(i)/10), append(f.Bytes, 1000)
		if i%20 == 0 {
			f.Keyframes = append(f.Keyframes, i)
		}
	}
	frames, _ := json.Marshal(f)
	if m := call[video.Measured](c, "POST", "/api/streams/clip", string(frames), 200); m.GOPSeconds != 2 || m.KeyframeKB != 1 {
		t.Errorf("%+v", m)
	}
	// As long as a clip may be, and one frame more.
	for n, status := range map[int]int{500_000: 200, 500_001: 422} {
		long := Frames{Seconds: make([]float64, n), Bytes: make([]float64, n)}
		for i := range n {
			long.Seconds[i], long.Bytes[i] = float64(i)/25, 1000
			if i%50 == 0 {
				long.Keyframes = append(long.Keyframes, i)
			}
		}
		text, _ := json.Marshal(long)
		call[video.Measured](c, "POST", "/api/streams/clip", string(text), status)
	}
	call[problemBody](c, "POST", "/api/streams/clip", `{"seconds":[1,2],"bytes":[1],"keyframes":[]}`, 422)
	call[problemBody](c, "POST", "/api/streams/clip", `{"seconds":[1],"bytes":[1],"keyframes":[7]}`, 422)
	stream, _ := json.Marshal(plan.PlainStream(plan.Main))
	if curve := call[estimate.Curve](c, "POST", "/api/streams/curve", string(stream), 200); len(curve.ByFPS) < 5 ||
		curve.ActiveKbps <= curve.IdleKbps {
		t.Errorf("%+v", curve)
	}
	night := func(idle, active float64, differ bool) string {
		return fmt.Sprintf(`{"stream":{"codec":"h264","width":640,"height":360,"fps":10,"gopSeconds":2,"rate":{"kind":"variable","idleKbps":400,"activeKbps":900,"known":"measured"}},"idleKbps":%v,"activeKbps":%v,"differ":%v}`, idle, active, differ)
	}
	if n := call[NightClip](c, "POST", "/api/streams/night", night(720, 1620, true), 200); n.Factor != 1.8 {
		t.Errorf("%+v", n)
	}
	call[problemBody](c, "POST", "/api/streams/night", night(900000, 900000, false), 422)
	if h := call[WrittenHours](c, "POST", "/api/hours", `{"text":"mon to fri 7.45-16h10, Sun 22-6"}`,
		200); h.Text != "Mon-Fri 07:45-16:10, Sun 22:00-06:00" || len(h.Blocks) != 2 {
		t.Errorf("%+v", h)
	}
	if h := call[WrittenHours](c, "POST", "/api/hours", `{"blocks":[{"from":"20:00","to":"06:00"}]}`, 200); h.Text != "all days 20:00-06:00" {
		t.Errorf("%+v", h)
	}
	if p := call[problemBody](c, "POST", "/api/hours", `{"text":"Mon-Fry 8-9"}`, 422); !strings.Contains(p.Detail, "fry") {
		t.Errorf("%+v", p)
	}
	call[problemBody](c, "POST", "/api/hours", `{}`, 422)
	if b := call[Beginnings](c, "GET", "/api/beginnings", "", 200); len(b.Duties) != 7 || len(b.Activities) < 8 ||
		b.Model.BitsPerPixel != 0.6 {
		t.Errorf("%+v", b)
	}
	if w := call[[]solve.Scenario](c, "GET", "/api/plans/site/pools/array/whatif", "", 200); len(w) != 2 || w[1].Edit == nil {
		t.Errorf("%+v", w)
	}
}

func TestSitesAreOpenedDuplicatedAndPutAway(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	o := plan.Opening{Name: "Pier", TimeZone: "UTC", Recorder: "R", Channels: 4, IngestMbps: 40, Drives: 1, Terabytes: 4,
		Layout: "span", Cameras: 3,
		Codec: "h265", Width: 1920, Height: 1080, FPS: 10, Activity: "quay", Duty: "motion", KeepDays: 14}
	written, _ := json.Marshal(o)
	draft := call[OpeningDraft](c, "POST", "/api/openings/draft", string(written), 200)
	made := call[CreatedSite](c, "POST", "/api/openings", string(written), 201)
	verdict := call[SiteVerdict](c, "GET", "/api/sites/"+made.ID+"/verdict", "", 200)
	if *verdict.KeptDays != *draft.Verdict.KeptDays {
		t.Errorf("the draft says %v days, the site %v", *draft.Verdict.KeptDays, *verdict.KeptDays)
	}
	o.Cameras = 9
	written, _ = json.Marshal(o)
	if p := call[problemBody](c, "POST", "/api/openings", string(written), 422); !strings.Contains(p.Detail, "9 cameras on a recorder of 4") {
		t.Errorf("%q", p.Detail)
	}
	call[CreatedSite](c, "POST", "/api/sites/"+made.ID+"/duplicate", `{"name":"Pier, again"}`, 201)
	response, err := http.Post(c.url+"/api/sites/site/archive", "application/json", strings.NewReader(`{"archived":true}`))
	if err != nil || response.StatusCode != http.StatusNoContent {
		t.Fatalf("%v %v", err, response.Status)
	}
	response.Body.Close()
	list := call[[]SiteLine](c, "GET", "/api/sites", "", 200)
	byName := make(map[string]SiteLine)
	for _, s := range list {
		byName[s.Name] = s
	}
	if len(list) != 3 || !byName["Pennywhistle Quay"].Archived || byName["Pier, again"].Archived || byName["Pier"].State == nil ||
		byName["Pier, again"].State != nil {
		t.Errorf("%+v", list)
	}
	call[problemBody](c, "POST", "/api/sites/nowhere/archive", `{"archived":true}`, 404)
}

func TestChangesThatDoNotMeetAreMerged(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	call[Answer](c, "POST", "/api/plans/site/edits", paint(1, "kiosk", "clock"), 200)
	a := call[Answer](c, "POST", "/api/plans/site/edits", paint(1, "booth", "off"), 200)
	if a.Version != 3 {
		t.Errorf("version %d", a.Version)
	}
	v := call[View](c, "GET", "/api/plans/site", "", 200)
	for id, duty := range map[string]string{"kiosk": "clock", "booth": "off"} {
		if got := v.Plan.WeekOf(v.Plan.Channel(id)).Steps().At(1440 + 600); got != duty {
			t.Errorf("%s on Tuesday: %s", id, got)
		}
	}
	p := call[problemBody](c, "POST", "/api/plans/site/edits", paint(2, "booth", "motion"), 409)
	if len(p.Since) != 1 || p.Version != 3 {
		t.Errorf("%+v", p)
	}
}

func TestRevisionsTidesAndCalendars(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	first := call[View](c, "GET", "/api/plans/site", "", 200)
	call[Answer](c, "POST", "/api/plans/site/edits", paint(1, "booth", "off"), 200)
	then := call[View](c, "GET", "/api/plans/site/revisions/1", "", 200)
	if then.Verdict.GigabytesPerDay != first.Verdict.GigabytesPerDay || then.Version != 1 {
		t.Errorf("%v GB a day at revision 1, %v then", then.Verdict.GigabytesPerDay, first.Verdict.GigabytesPerDay)
	}
	call[problemBody](c, "GET", "/api/plans/site/revisions/9", "", 404)
	call[Answer](c, "POST", "/api/plans/site/undo", `{"version":2}`, 200)
	call[Answer](c, "POST", "/api/plans/site/redo", `{"version":3}`, 200)
	if status, _, text := c.send("PUT", "/api/plans/site/revisions/2/name", `{"name":" As offered "}`); status != 204 {
		t.Errorf("%d %s", status, text)
	}
	call[problemBody](c, "PUT", "/api/plans/site/revisions/9/name", `{"name":"x"}`, 404)
	told := call[[]store.Revision](c, "GET", "/api/plans/site/revisions", "", 200)
	if told[2].Name != "As offered" || told[2].KeptDays == nil || *told[2].KeptDays <= *first.Verdict.KeptDays {
		t.Errorf("%+v", told[2])
	}
	if told[1].KeptDays != nil || *told[0].KeptDays != *told[2].KeptDays || told[0].Name != "" {
		t.Errorf("undone %+v, done again %+v", told[1], told[0])
	}
	if found := call[[]store.Revision](c, "GET", "/api/plans/site/revisions?text=offered", "", 200); len(found) != 1 || found[0].Number != 2 {
		t.Errorf("%+v are named so", found)
	}
	whole := call[Tide](c, "POST", "/api/plans/site/tide", `{}`, 200)
	part := call[Tide](c, "POST", "/api/plans/site/tide", `{"channels":["hall"],"from":480,"to":960}`, 200)
	if part.Mean <= 0 || part.Busiest >= whole.Busiest || part.BusiestAt < 480 || part.BusiestAt >= 960 {
		t.Errorf("%v at %v of %v", part.Busiest, part.BusiestAt, whole.Busiest)
	}
	// A time that ends before it begins runs over Sunday midnight.
	rest := call[Tide](c, "POST", "/api/plans/site/tide", `{"channels":["hall"],"from":960,"to":480}`, 200)
	all := call[Tide](c, "POST", "/api/plans/site/tide", `{"channels":["hall"]}`, 200)
	if mean := (part.Mean*480 + rest.Mean*9600) / 10080; math.Abs(mean-all.Mean) > 1e-6*all.Mean {
		t.Errorf("means of %v and %v make %v, not %v", part.Mean, rest.Mean, mean, all.Mean)
	}
	call[problemBody](c, "POST", "/api/plans/site/tide", `{"from":960,"to":960}`, 422)
	call[problemBody](c, "POST", "/api/plans/nowhere/tide", `{}`, 404)
	call[problemBody](c, "GET", "/api/plans/site/weeks/nowhen/calendar", "", 404)
	call[problemBody](c, "GET", "/api/plans/nowhere/weeks/lanes/calendar", "", 404)
	calendar, header := c.fetch("/api/plans/site/weeks/lanes/calendar")
	if !strings.HasPrefix(calendar, "BEGIN:VCALENDAR\r\n") || !strings.HasPrefix(header.Get("Content-Type"), "text/calendar") {
		t.Errorf("%s %.100s", header, calendar)
	}
	dates, _ := c.fetch("/api/plans/site/special-days")
	read := call[formats.Dates](c, "POST", "/api/plans/site/special-days/read", dates, 200)
	if len(read.Days) != 3 || len(read.LeftOut) != 0 || read.Days[0].RateFactor == nil || *read.Days[0].RateFactor != 1.6 ||
		read.Days[0].UseDay != nil {
		t.Errorf("%+v", read)
	}
	d := call[Draft](c, "POST", "/api/plans/site/draft", paint(4, "kiosk", "off"), 200)
	if d.Channels != 1 || d.Minutes != 960 {
		t.Errorf("%d channels, %d minutes", d.Channels, d.Minutes)
	}
}
