package plan_test

import (
	"fmt"

	"wakefield.example/core/plan"
)

// The error of a plan names the first place that is wrong.
func ExampleRead() {
	_, err := plan.Read([]byte(`{ "format": "wakefield-plan/1", "nmae": "Plan" }`))
	fmt.Println(err)
	// Output:
	// nmae: no such member
}

// Hours are typed and shown in one way everywhere.
func ExampleReadHours() {
	hours, _ := plan.ReadHours("sat, sun 9-17")
	fmt.Println(plan.HoursText(hours))
	// Output:
	// Sat-Sun 09:00-17:00
}
