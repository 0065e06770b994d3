package edit_test

import (
	"fmt"
	"os"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
)

func wholePlan() *plan.Plan {
	data, err := os.ReadFile("../plan/testdata/whole.json")
	if err != nil {
		panic(err)
	}
	p, err := plan.Read(data)
	if err != nil {
		panic(err)
	}
	return p
}

// An edit makes a new plan and a sentence for the history; the old plan stays as it is.
func ExampleApply() {
	before := wholePlan()
	post := 45.0
	done, err := edit.Apply(before, edit.Edit{SetTimes: &edit.SetTimes{Channels: []string{before.Channels[0].ID}, PostSeconds: &post}})
	if err != nil {
		fmt.Println(err)
		return
	}
	fmt.Println(done.Sentence)
	fmt.Println(before.Channels[0].PostSeconds, "then", done.Plan.Channels[0].PostSeconds)
	_, err = edit.Apply(before, edit.Edit{RemoveDuty: &edit.RemoveDuty{Duty: "siesta"}})
	fmt.Println(err)
	// Output:
	// Yard: 45 s after an event
	// 20 then 45
	// edits[0].removeDuty.duty: no duty "siesta"
}

// Changes that two people made of different things go together; of the same thing, the second is asked.
func ExampleMerge() {
	base := wholePlan()
	channel := []string{base.Channels[0].ID}
	post, longer, pre := 45.0, 60.0, 9.0
	theirs, _ := edit.After(base, edit.Edit{SetTimes: &edit.SetTimes{Channels: channel, PostSeconds: &post}})
	_, ok := edit.Merge(base, theirs, []edit.Edit{{SetTimes: &edit.SetTimes{Channels: channel, PreSeconds: &pre}}})
	fmt.Println("another setting of it:", ok)
	_, ok = edit.Merge(base, theirs, []edit.Edit{{SetTimes: &edit.SetTimes{Channels: channel, PostSeconds: &longer}}})
	fmt.Println("the same setting:", ok)
	// Output:
	// another setting of it: true
	// the same setting: false
}
