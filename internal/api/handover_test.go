package api

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"io"
	"strconv"
	"strings"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/internal/demo"
)

// halfHours is a site whose recorder knows half hours and one layer.
func halfHours() *plan.Plan {
	p := demo.BrackenhallCiderWorks()
	p.Recorders[0].Takes = &plan.Takes{StepMinutes: 30, PeriodsPerDay: 8, Layers: "one"}
	return p
}

// TestStepsAreTickedUntilTheyChange ticks steps, changes the plan under one of them, and takes a tick back.
func TestStepsAreTickedUntilTheyChange(t *testing.T) {
	c := start(t, demo.BrackenhallCiderWorks())
	sheets := func() RecorderSheet {
		t.Helper()
		return call[Sheets](c, "GET", "/api/plans/site/sheets", "", 200).Recorders[0]
	}
	before := sheets()
	if before.Entries == 0 || before.Entries > before.EntriesOneByOne {
		t.Fatalf("%d entries, %d one by one", before.Entries, before.EntriesOneByOne)
	}
	var times SheetStep
	for _, s := range before.Steps {
		if s.Do.Set != nil && s.Do.Set.Section == "times" && times.Key == "" {
			times = s
		}
	}
	tick := func(key string, done bool, want int) {
		t.Helper()
		body := fmt.Sprintf(`{"recorder":%q,"keys":[%q],"done":%v}`, before.ID, key, done)
		if status, _, answer := c.send("POST", "/api/plans/site/ticks", body, "Wakefield-Author", "Ada"); status != want {
			t.Fatalf("%d, want %d: %s", status, want, answer)
		}
	}
	tick(times.Key, true, 200)
	tick(before.Steps[0].Key, true, 200)
	tick(before.Steps[0].Key, true, 200) // twice is once
	find := func(r RecorderSheet, id string) SheetStep {
		t.Helper()
		for _, s := range r.Steps {
			if s.ID == id {
				return s
			}
		}
		t.Fatalf("no step %s", id)
		return SheetStep{}
	}
	now := sheets()
	if d := find(now, times.ID).Done; d == nil || d.Author != "Ada" || d.Revision != 1 || d.Step != times.ID {
		t.Errorf("%+v", d)
	}
	call[Sheets](c, "POST", "/api/plans/site/printed", fmt.Sprintf(`{"recorders":[%q],"version":1}`, before.ID), 200)
	if now = sheets(); now.Printed == nil || now.Printed.Revision != 1 || len(now.SinceThen) != 0 {
		t.Errorf("%+v %v", now.Printed, now.SinceThen)
	}
	channel := times.Do.Set.Channel
	call[Answer](c, "POST", "/api/plans/site/edits", `{"version":1,"edits":[{"setTimes":{"channels":["`+channel+`"],"postSeconds":77}}]}`, 200)
	now = sheets()
	var changed SheetStep
	for _, s := range now.Steps {
		if s.Do.Set != nil && s.Do.Set.Section == "times" && s.Do.Set.Channel == channel {
			changed = s
		}
	}
	if changed.Done != nil || !changed.Changed || !changed.Since || !strings.Contains(changed.Words, "77 s after it") {
		t.Errorf("%+v", changed)
	}
	if len(now.SinceThen) != 1 || !strings.Contains(now.SinceThen[0], "77 s") || len(now.Gone) != 1 || now.Gone[0].Key != times.Key {
		t.Errorf("since then %v, gone %+v", now.SinceThen, now.Gone)
	}
	if s := find(now, before.Steps[0].ID); s.Done == nil || s.Changed || s.Since {
		t.Errorf("what did not change: %+v", s)
	}
	tick(times.Key, true, 409) // it is on no sheet any more
	tick(times.Key, false, 200)
	tick(before.Steps[0].Key, false, 200)
	for _, s := range sheets().Steps {
		if s.Done != nil || s.Changed {
			t.Errorf("%s is ticked yet", s.ID)
		}
	}
	file := call[HandoverFile](c, "GET", "/api/plans/site/handover", "", 200)
	if file.Format != HandoverFormat || len(file.Printed) != 1 || len(file.Ticks) != 0 || file.Version != 2 {
		t.Errorf("%+v", file)
	}
	for body, want := range map[string]int{`{"recorder":"nobody","keys":["x"],"done":true}`: 404, `{"recorder":"` + before.ID +
		`","keys":[],"done":true}`: 422} {
		if status, _, answer := c.send("POST", "/api/plans/site/ticks", body); status != want {
			t.Errorf("%s: %d %s", body, status, answer)
		}
	}
	for body, want := range map[string]int{`{"recorders":["nobody"],"version":1}`: 404, `{"recorders":["` + before.ID +
		`"],"version":99}`: 422} {
		if status, _, answer := c.send("POST", "/api/plans/site/printed", body); status != want {
			t.Errorf("%s: %d %s", body, status, answer)
		}
	}
}

// TestThePlanAsEnteredStandsBesideThePlan asks for both.
func TestThePlanAsEnteredStandsBesideThePlan(t *testing.T) {
	c := start(t, demo.BrackenhallCiderWorks())
	if e := call[EnteredPlan](c, "GET", "/api/plans/site/entered", "", 200); e.Differs || len(e.Stretches) != 0 ||
		e.Verdict.GigabytesPerDay != e.Planned.GigabytesPerDay {
		t.Errorf("%+v", e)
	}
	p := halfHours()
	p.Recorders[0].Takes.Layers = "" // else whole blocks are entered otherwise
	channel := p.Channels[0].ID
	var recorder bytes.Buffer
	if err := json.NewEncoder(&recorder).Encode(p.Recorders[0]); err != nil {
		t.Fatal(err)
	}
	duty := ""
	for _, d := range p.Duties {
		if d.Base != nil && d.Event == nil && *d.Base == (plan.Base{Stream: plan.Main}) {
			duty = d.ID
		}
	}
	edits := `{"version":1,"edits":[{"setRecorder":{"recorder":` + recorder.String() + `}},{"paint":{"channels":["` + channel +
		`"],"hours":[{"from":"07:40","to":"09:10"}],"duty":"` + duty + `"}}]}`
	answer := call[Answer](c, "POST", "/api/plans/site/edits", edits, 200)
	rules := make(map[string]bool)
	for _, run := range answer.Findings {
		if run.Finding != nil {
			rules[run.Finding.Rule] = true
		}
	}
	if !rules["entered-times"] {
		t.Errorf("findings %v", rules)
	}
	e := call[EnteredPlan](c, "GET", "/api/plans/site/entered", "", 200)
	if !e.Differs || len(e.Stretches) == 0 || e.Stretches[0].Channel != channel || len(e.Departures) == 0 {
		t.Errorf("%+v", e)
	}
	for _, s := range e.Stretches {
		if s.To-s.From >= 30 && s.Duty == duty {
			t.Errorf("a whole half hour is entered otherwise: %+v", s)
		}
	}
}

// TestPapersComeOutOfTheServer asks for each paper, and for all of them.
func TestPapersComeOutOfTheServer(t *testing.T) {
	c := start(t, halfHours())
	recorder := halfHours().Recorders[0].ID
	for path, begins := range map[string]string{"customer": "%PDF-", "sheet?size=letter&recorder=" + recorder: "%PDF-", "evidence": "%PDF-",
		"walk-test": "%PDF-", "workbook": "PK\x03\x04", "steps": "{"} {
		status, headers, data := c.send("GET", "/api/plans/site/papers/"+path, "")
		if status != 200 || !strings.HasPrefix(data, begins) {
			t.Errorf("%s: %d %.60q", path, status, data)
		}
		if kept := headers.Get("Content-Disposition"); strings.HasPrefix(begins, "%PDF") != (kept == "inline") {
			t.Errorf("%s: %s", path, kept)
		}
	}
	if _, headers, _ := c.send("GET", "/api/plans/site/papers/customer?keep=true", ""); !strings.Contains(headers.Get("Content-Disposition"),
		".pdf") {
		t.Errorf("%v", headers)
	}
	for path, want := range map[string]int{"nothing": 422, "sheet?recorder=nobody": 404, "sheet?size=a0": 422} {
		if status, _, answer := c.send("GET", "/api/plans/site/papers/"+path, ""); status != want {
			t.Errorf("%s: %d %s", path, status, answer)
		}
	}
	status, headers, data := c.send("GET", "/api/plans/site/papers", "")
	if status != 200 {
		t.Fatalf("%d %s", status, data)
	}
	archive, err := zip.NewReader(strings.NewReader(data), int64(len(data)))
	if err != nil {
		t.Fatal(err)
	}
	if n, _ := strconv.Atoi(headers.Get("Wakefield-Papers")); n != len(archive.File) || n != 6 {
		t.Errorf("%d files, %d told", len(archive.File), n)
	}
	for _, f := range archive.File {
		part, err := f.Open()
		if err == nil {
			_, err = io.Copy(io.Discard, part)
		}
		if err != nil {
			t.Errorf("%s: %v", f.Name, err)
		}
	}
	if status, _, answer := c.send("GET", "/api/plans/site/papers?recorder=nobody", ""); status != 404 {
		t.Errorf("%d %s", status, answer)
	}
}

// TestTheCompanyIsSetOnce names it, and gives it a logo that is half transparent.
func TestTheCompanyIsSetOnce(t *testing.T) {
	c := start(t, demo.BrackenhallCiderWorks())
	if got := call[CompanyOf](c, "GET", "/api/company", "", 200); got != (CompanyOf{}) {
		t.Errorf("%+v", got)
	}
	if status, _, _ := c.send("GET", "/api/company/logo", ""); status != 404 {
		t.Errorf("no logo: %d", status)
	}
	call[CompanyOf](c, "PUT", "/api/company", `{"name":"Lantern & Sons"}`, 200)
	img := image.NewNRGBA(image.Rect(0, 0, 80, 32))
	for x := range 40 {
		img.Set(x, 5, color.NRGBA{R: 90, A: 128})
	}
	var logo bytes.Buffer
	if err := png.Encode(&logo, img); err != nil {
		t.Fatal(err)
	}
	if got := call[CompanyOf](c, "PUT", "/api/company/logo", logo.String(), 200); !got.Logo || got.Name != "Lantern & Sons" {
		t.Errorf("%+v", got)
	}
	_, _, kept := c.send("GET", "/api/company/logo", "")
	back, err := png.Decode(strings.NewReader(kept))
	if err != nil {
		t.Fatal(err)
	}
	if _, _, _, alpha := back.At(70, 20).RGBA(); alpha != 0xffff {
		t.Error("the logo is transparent")
	}
	for what, data := range map[string]string{"no picture": "hello", "cut off": logo.String()[:60], "too large": stillFile(t, 2000, 10)} {
		if status, _, answer := c.send("PUT", "/api/company/logo", data); status != 422 {
			t.Errorf("%s: %d %s", what, status, answer)
		}
	}
	if status, _, answer := c.send("PUT", "/api/company", `{"name":"a\u0007b"}`); status != 422 {
		t.Errorf("%d %s", status, answer)
	}
	if _, _, page := c.send("GET", "/api/plans/site/papers/customer", ""); !strings.HasPrefix(page, "%PDF-") {
		t.Errorf("%.40q", page)
	}
	if got := call[CompanyOf](c, "DELETE", "/api/company/logo", "", 200); got.Logo {
		t.Errorf("%+v", got)
	}
}
