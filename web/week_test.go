package web

import (
	"encoding/json"
	"os"
	"strings"
	"testing"
)

// fromMonday are the members of the API that count from Monday, and where the page counts them from the day that its reader begins a
// week with.
var fromMonday = map[string]string{
	"EnteredStretch.from":    "habits/turn.ts",
	"EstimatedRateStep.from": "habits/turn.ts",
	"Ink.from":               "habits/turn.ts",
	"RailStep.from":          "habits/turn.ts",
	"Tide.busiestAt":         "habits/turn.ts",
	"Sample.from":            "kit/activities/GroupsEditor.vue",
	"WalkedSince.from":       "walk/expect.ts", // compared with the minute of a walk, and shown nowhere
	"WalkedWalkSaid.minute":  "walk/expect.ts",
}

// TestWhatCountsFromMondayIsTurned meets a member of the API that says it counts from Monday and that no page turns.
func TestWhatCountsFromMondayIsTurned(t *testing.T) {
	data, err := os.ReadFile("src/api/openapi.json")
	if err != nil {
		t.Fatal(err)
	}
	var api struct {
		Components struct {
			Schemas map[string]struct {
				Properties map[string]struct{ Description string }
			}
		}
	}
	if err := json.Unmarshal(data, &api); err != nil {
		t.Fatal(err)
	}
	said := make(map[string]bool)
	for name, schema := range api.Components.Schemas {
		for member, property := range schema.Properties {
			if strings.Contains(property.Description, "since Monday 00:00") {
				said[name+"."+member] = true
			}
		}
	}
	for member := range said {
		if fromMonday[member] == "" {
			t.Errorf("%s counts from Monday: have web/src/habits/turn.ts turn it", member)
		}
	}
	for member, file := range fromMonday {
		if !said[member] {
			t.Errorf("%s no longer says that it counts from Monday", member)
		}
		if _, err := os.Stat("src/" + file); err != nil {
			t.Errorf("%s is turned in %v", member, err)
		}
	}
}
