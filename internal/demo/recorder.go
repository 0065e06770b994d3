package demo

import (
	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/table"
)

// Quay is the id of the site whose recorder is played.
const Quay = "pennywhistle-quay"

// AtTheQuay is the plan of Pennywhistle Quay as somebody entered it with three slips: the kiosk keeps 4 s after an event, the first
// lane has 10 frames a second, and the contact of the fuel store is taken to be open at rest.
func AtTheQuay() *plan.Plan {
	p := PennywhistleQuay()
	after := 4.0
	fuel := *p.AlarmInput("fuel-contact")
	fuel.Contact = "normallyOpen"
	p, err := edit.After(p,
		edit.Edit{SetTimes: &edit.SetTimes{Channels: []string{"kiosk"}, PostSeconds: &after}},
		edit.Edit{SetCells: &edit.SetCells{Cells: table.Cells{Columns: []string{"main.fps"},
			Rows: []table.CellRow{{Channel: "lane-1", Values: []string{"10"}}}}}},
		edit.Edit{SetAlarmInput: &edit.SetAlarmInput{AlarmInput: fuel}})
	if err != nil {
		panic("demo: " + err.Error())
	}
	return p
}
