package api

import (
	"fmt"
	"testing"

	"wakefield.example/core/check"
	"wakefield.example/internal/demo"
)

// TestFindingsAfterAChange keeps the findings as a page does, by what each answer says became of them, and
// compares them with the whole list.
func TestFindingsAfterAChange(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	shown := call[View](c, "GET", "/api/plans/site", "", 200).Findings
	kept := shown[0]
	for i, edits := range []string{
		`{"setTimes":{"channels":["kiosk"],"preSeconds":0}}`,
		`{"paint":{"channels":["kiosk"],"duty":"off","hours":[{"from":"06:00","to":"22:00"}]}}`,
		`{"acceptFinding":{"finding":` + fmt.Sprintf("%q", kept.Key) + `,"reason":"known"}}`,
		`{"removeChannels":{"channels":["kiosk"]}}`,
		`{"setSite":{"name":"Elsewhere"}}`,
	} {
		a := call[Answer](c, "POST", "/api/plans/site/edits", fmt.Sprintf(`{"version":%d,"edits":[%s]}`, i+1, edits), 200)
		var next []check.Finding
		fresh := 0
		for _, run := range a.Findings {
			if run.Finding != nil {
				next, fresh = append(next, *run.Finding), fresh+1
				continue
			}
			next = append(next, shown[run.From:run.From+run.Count]...)
		}
		whole := call[View](c, "GET", "/api/plans/site", "", 200).Findings
		if len(next) != len(whole) {
			t.Fatalf("%s: %d findings, there are %d", edits, len(next), len(whole))
		}
		for k := range next {
			if !next[k].Equal(&whole[k]) {
				t.Errorf("%s: finding %d is %+v, not %+v", edits, k, next[k], whole[k])
			}
		}
		if fresh == len(whole) {
			t.Errorf("%s: all are told anew", edits)
		}
		shown = next
	}
}
