package measured

import (
	"reflect"
	"slices"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
)

// Together are the edits of several figures that can be made at once. Those of one activity, each of which says it whole, become
// one that says what any of them changes; p is the plan that all of them were found for.
func Together(p *plan.Plan, figures []Figure) []edit.Edit {
	out := []edit.Edit{}
	at := make(map[string]int) // of activities, in out
	for k := range figures {
		for _, e := range figures[k].Edits {
			if e.SetActivity == nil {
				if !slices.ContainsFunc(out, func(o edit.Edit) bool { return reflect.DeepEqual(o, e) }) {
					out = append(out, e)
				}
				continue
			}
			a := e.SetActivity.Activity
			i, again := at[a.ID]
			if !again {
				at[a.ID] = len(out)
				out = append(out, e)
				continue
			}
			if stood := p.Activity(a.ID); stood != nil {
				merged := mergedInto(out[i].SetActivity.Activity, a, *stood)
				out[i] = edit.Edit{SetActivity: &edit.SetActivity{Activity: merged}}
			}
		}
	}
	return out
}

// mergedInto takes into an activity what another one changes of what stood there.
func mergedInto(into, other, stood plan.Activity) plan.Activity {
	left, before := plan.Or(into.Doubt, plan.Doubt{Rate: 1, Seconds: 1, Size: 1}), doubtOf(&stood)
	said := plan.Or(other.Doubt, before)
	if other.OtherwisePerHour != stood.OtherwisePerHour || !reflect.DeepEqual(other.Blocks, stood.Blocks) {
		into.OtherwisePerHour, into.Blocks = other.OtherwisePerHour, other.Blocks
	}
	if other.MeanSeconds != stood.MeanSeconds {
		into.MeanSeconds = other.MeanSeconds
	}
	if !reflect.DeepEqual(other.Groups, stood.Groups) {
		into.Groups = other.Groups
	}
	if said.Rate != before.Rate {
		left.Rate = said.Rate
	}
	if said.Seconds != before.Seconds {
		left.Seconds = said.Seconds
	}
	if said.Size != before.Size {
		left.Size = said.Size
	}
	into.Doubt, into.Known = &left, other.Known
	return into
}
