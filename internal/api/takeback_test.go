package api

import (
	"fmt"
	"strings"
	"testing"

	"wakefield.example/internal/demo"
)

// TestOnesOwnChangeIsTakenBack takes a change back after others changed other things, and after they changed the same.
func TestOnesOwnChangeIsTakenBack(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	edit := func(version int, body, author string) {
		t.Helper()
		if status, _, said := c.send("POST", "/api/plans/site/edits", fmt.Sprintf(`{"version": %d, "edits": [%s]}`, version, body),
			"Wakefield-Author", author); status != 200 {
			t.Fatal(status, said)
		}
	}
	seconds := func(channel string, pre int) string {
		return fmt.Sprintf(`{"setTimes": {"channels": [%q], "preSeconds": %d}}`, channel, pre)
	}
	back := func(number, version int, more string) (int, string) {
		status, _, said := c.send("POST", fmt.Sprintf("/api/plans/site/revisions/%d/take-back", number),
			fmt.Sprintf(`{"version": %d%s}`, version, more), "Wakefield-Author", "Ines")
		return status, said
	}
	was := demo.PennywhistleQuay().Channel("kiosk").PreSeconds
	edit(1, seconds("kiosk", 11), "Ines")  // makes revision 2
	edit(2, seconds("booth", 12), "Odile") // 3
	status, said := back(2, 3, "")
	if status != 200 || !strings.Contains(said, "Taken back: ") {
		t.Fatal(status, said)
	}
	view := call[View](c, "GET", "/api/plans/site", "", 200)
	if got := view.Plan.Channel("kiosk").PreSeconds; got != was || view.Plan.Channel("booth").PreSeconds != 12 {
		t.Errorf("%v s before events, %v of the other", got, view.Plan.Channel("booth").PreSeconds)
	}
	if status, said := back(2, 4, ""); status != 422 || !strings.Contains(said, NothingType) {
		t.Error(status, said)
	}
	edit(4, seconds("kiosk", 13), "Ines")  // 5
	edit(5, seconds("kiosk", 14), "Odile") // 6
	if status, said := back(5, 6, ""); status != 422 || !strings.Contains(said, MeetsType) || !strings.Contains(said, "13") ||
		!strings.Contains(said, "14") {
		t.Error(status, said)
	}
	if status, said := back(5, 6, `, "anyway": true`); status != 200 {
		t.Error(status, said)
	}
	view = call[View](c, "GET", "/api/plans/site", "", 200)
	if got := view.Plan.Channel("kiosk").PreSeconds; got != was || view.Version != 7 {
		t.Errorf("%v s, version %d", got, view.Version)
	}
	for _, number := range []int{1, 7000} {
		if status, said := back(number, 7, ""); status != 422 || !strings.Contains(said, NothingType) {
			t.Error(number, status, said)
		}
	}
	if status, said := back(6, 3, ""); status != 409 {
		t.Error(status, said)
	}
}
