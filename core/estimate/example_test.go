package estimate_test

import (
	"fmt"
	"os"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
)

// A plan goes in, figures come out; after a change only what can be different is worked out anew.
func ExampleFigures() {
	data, err := os.ReadFile("testdata/yard-and-gate.json")
	if err != nil {
		fmt.Println(err)
		return
	}
	p, err := plan.Read(data)
	if err != nil {
		fmt.Println(err)
		return
	}
	result := estimate.Figures(p, nil)
	c := result.Channels[0]
	fmt.Printf("%s: %.1f %% written, %.1f GB a day\n", c.ID, c.WrittenPercent, c.GigabytesPerDay)

	post := 60.0
	changed, err := edit.After(p, edit.Edit{SetTimes: &edit.SetTimes{Channels: []string{c.ID}, PostSeconds: &post}})
	if err != nil {
		fmt.Println(err)
		return
	}
	c = estimate.Figures(changed, result).Channels[0]
	fmt.Printf("%s: %.1f %% written, %.1f GB a day\n", c.ID, c.WrittenPercent, c.GigabytesPerDay)
	// Output:
	// c1: 100.0 % written, 16.0 GB a day
	// c1: 100.0 % written, 16.5 GB a day
}
