package api

import (
	"encoding/csv"
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/xuri/excelize/v2"

	"wakefield.example/internal/demo"
	"wakefield.example/internal/formats"
)

// TestARehearsedWeek plays days out, asks about events and moments, and takes the week away as files.
func TestARehearsedWeek(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	const week = "from=2026-10-24&days=3&number=7" // a night with an hour twice
	w := call[Played](c, "GET", "/api/plans/site/rehearse?"+week, "", 200)
	if w.Seconds != 73*3600 || len(w.Days) != 3 || w.Days[1].Hours != 25 && w.Days[1].Hours != 24 || len(w.Channels) != 15 ||
		w.Sums.Wanted < 1000 || w.Sums.Full+w.Sums.Low+w.Sums.Missed != w.Sums.Wanted {
		t.Fatalf("%v s, %+v, %+v", w.Seconds, w.Days, w.Sums)
	}
	if w.Days[0].Change != 0 || w.Days[1].Hours == 25 && (w.Days[1].Change < 3600 || w.Days[1].Change > 4*3600) {
		t.Errorf("clocks change at %v and %v s", w.Days[0].Change, w.Days[1].Change)
	}
	if len(w.Others) != 2 || w.Others[1].Name != "clocks go forward" || w.Others[1].From.Weekday() != 0 || w.Others[0].From.Weekday() != 0 {
		t.Errorf("%+v", w.Others)
	}
	fates := [5]int{}
	for _, ch := range w.Channels {
		if len(ch.From) != len(ch.To) || len(ch.From) != len(ch.Layer) || len(ch.Start) != len(ch.Fate) || len(ch.Start) != len(ch.Event) {
			t.Fatalf("%s: columns of different lengths", ch.ID)
		}
		for k, fate := range ch.Fate {
			if ch.Start[k] >= 0 {
				fates[fate]++
			}
		}
	}
	if fates[0] != w.Sums.Missed || fates[1] != w.Sums.Low || fates[2] != w.Sums.Full {
		t.Errorf("%v against %+v", fates, w.Sums)
	}
	plan := demo.PennywhistleQuay()
	if len(w.Causes) < len(plan.AlarmInputs)+len(plan.CallButtons) || w.Causes[0].ID != plan.AlarmInputs[0].ID {
		t.Errorf("%d causes", len(w.Causes))
	}
	happened := 0
	for _, cause := range w.Causes {
		if happened += len(cause.Start); len(cause.Start) != len(cause.Length) || len(cause.Start) != len(cause.Event) {
			t.Errorf("%s: columns of different lengths", cause.Name)
		}
		for k := range min(1, len(cause.Event)) {
			told := call[map[string]any](c, "GET", fmt.Sprintf("/api/plans/site/rehearse/event?%s&event=%d", week, cause.Event[k]), "", 200)
			if !strings.Contains(told["sentence"].(string), cause.Name) {
				t.Errorf("%s is told as %v", cause.Name, told)
			}
		}
	}
	if happened < 20 {
		t.Errorf("%d alarms in three days", happened)
	}
	hall := w.Channels[0]
	story := call[map[string]any](c, "GET", fmt.Sprintf("/api/plans/site/rehearse/event?%s&event=%d", week, hall.Event[3]), "", 200)
	if !strings.Contains(story["sentence"].(string), "Ticket hall") {
		t.Errorf("%v", story)
	}
	at := func(more string) string { return "/api/plans/site/rehearse/have?" + week + "&channel=hall&at=" + more }
	if a := call[Answered](c, "GET", at("43200"), "", 200); a.Fate != "full" || a.Duty == "" || a.GoneOn == "" || a.SharePercent != 100 {
		t.Errorf("%+v", a)
	}
	if o := call[Odds](c, "GET", "/api/plans/site/rehearse/odds?"+week+"&channel=hall&at=43200", "", 200); o.Rehearsals != 200 || o.Full+o.Low+
		o.Missed != 200 || o.Full < 150 {
		t.Errorf("%+v", o)
	}
	worst := call[Worst](c, "GET", "/api/plans/site/rehearse/worst?"+week, "", 200)
	if worst.Hour == nil || len(worst.Gaps) == 0 || !worst.Copied {
		t.Errorf("%+v", worst)
	}
	for k, slow := range worst.Slow {
		if k > 0 && slow.Seconds > worst.Slow[k-1].Seconds {
			t.Errorf("%+v is not slowest first", worst.Slow)
		}
	}
	file := func(kind string) string {
		status, header, data := c.send("GET", "/api/plans/site/rehearse/file?kind="+kind+"&"+week, "")
		if status != 200 || !strings.Contains(header.Get("Content-Disposition"), "number 7, ") ||
			!strings.HasSuffix(header.Get("Content-Disposition"), "."+kind+`"`) {
			t.Fatalf("%s: %d %s", kind, status, data)
		}
		return data
	}
	rows, err := csv.NewReader(strings.NewReader(strings.TrimPrefix(file("csv"), "\ufeff"))).ReadAll()
	if err != nil || len(rows) < w.Sums.Wanted {
		t.Errorf("%d rows, %v", len(rows), err)
	}
	book, err := excelize.OpenReader(strings.NewReader(file("xlsx")))
	if err != nil {
		t.Fatal(err)
	}
	sheet, err := book.GetRows("Week")
	if err != nil || len(sheet) != len(rows) {
		t.Fatalf("%d rows in the workbook, %d in the text, %v", len(sheet), len(rows), err)
	}
	for k := 1; k < len(rows); k += 97 {
		cells := append(sheet[k], make([]string, 8-len(sheet[k]))...) // empty cells at the end are not told
		if at := cells[0] + " " + cells[1]; at != rows[k][0] || cells[2] != rows[k][1] || cells[7] != rows[k][6] {
			t.Errorf("%q, want %q", sheet[k], rows[k])
		}
		if raw, err := book.GetCellValue("Week", fmt.Sprint("A", k+1), excelize.Options{RawCellValue: true}); err != nil ||
			!strings.HasPrefix(raw, "4") {
			t.Errorf("a time is the text %q, %v", raw, err)
		}
	}
	if n := strings.Count(file("ics"), "BEGIN:VEVENT"); n != w.Sums.Wanted {
		t.Errorf("%d events in the calendar, %d wanted", n, w.Sums.Wanted)
	}
	var footage formats.WeekFile
	if err := json.Unmarshal([]byte(file("json")), &footage); err != nil || footage.Format != formats.WeekFormat ||
		len(footage.Channels) != 16 || len(footage.Channels[0].Segments) == 0 {
		t.Errorf("%v", err)
	}

	call[Answer](c, "POST", "/api/plans/site/edits",
		`{"version":1,"edits":[{"setTimes":{"channels":["kiosk","gangway-a"],"postSeconds":0,"preSeconds":0}}]}`, 200)
	if b := call[Beside](c, "GET", "/api/plans/site/rehearse/beside?"+week+"&revision=1", "", 200); b.Before != w.Sums ||
		b.Before.Wanted != b.After.Wanted || b.After.Hours >= b.Before.Hours {
		t.Errorf("%+v, then %+v", b.Before, b.After)
	}
	for path, status := range map[string]int{
		"/api/plans/site/rehearse?from=2026-13-40": 422, "/api/plans/site/rehearse?from=1066-10-14": 422,
		"/api/plans/site/rehearse?from=2026-10-24&days=15": 422, "/api/plans/nowhere/rehearse?from=2026-10-24": 404,
		"/api/plans/site/rehearse/event?" + week + "&event=99999999": 404, "/api/plans/site/rehearse/beside?" + week: 422,
		"/api/plans/site/rehearse/beside?" + week + "&variant=nowhere":   404,
		"/api/plans/site/rehearse/have?" + week + "&channel=nobody&at=1": 404, at("1000000"): 422,
	} {
		call[problemBody](c, "GET", path, "", status)
	}
}
