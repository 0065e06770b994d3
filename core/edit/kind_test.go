package edit

import (
	"reflect"
	"testing"

	"wakefield.example/core/plan"
)

// TestWhatFollowsAKind changes a stream of a camera kind, with channels that have it as it was, otherwise, or not at all.
func TestWhatFollowsAKind(t *testing.T) {
	of := func(fps float64) *plan.Stream { return &plan.Stream{Codec: "h264", Width: 640, Height: 480, FPS: fps} }
	for name, test := range map[string]struct{ mine, from, to, want *plan.Stream }{
		"as it was":                     {of(10), of(10), of(12), of(12)},
		"otherwise":                     {of(8), of(10), of(12), of(8)},
		"not at all, as the kind":       {nil, nil, of(12), of(12)},
		"not at all, and the kind had":  {nil, of(10), of(12), nil},
		"one that the kind did not":     {of(8), nil, of(12), of(8)},
		"as it was, and it goes":        {of(10), of(10), nil, nil},
		"otherwise, and it goes":        {of(8), of(10), nil, of(8)},
		"none anywhere":                 {nil, nil, nil, nil},
		"not at all, and the kind goes": {nil, of(10), nil, nil},
	} {
		if got := followed(test.mine, test.from, test.to); !reflect.DeepEqual(got, test.want) {
			t.Errorf("%s: %+v, want %+v", name, got, test.want)
		}
	}
}
