package compare

import (
	"errors"
	"testing"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
)

// TestASingleChangeIsTakenBack makes two changes one on the other and takes the first back: where they do not meet, the plan is
// as if only the second had been made; where they meet, that is told.
func TestASingleChangeIsTakenBack(t *testing.T) {
	begin := plantest.Whole(t)
	first, second := begin.Channels[0].ID, begin.Channels[1].ID
	client := "Wend"
	seconds := func(id string, pre, post *float64) edit.Edit {
		return edit.Edit{SetTimes: &edit.SetTimes{Channels: []string{id}, PreSeconds: pre, PostSeconds: post}}
	}
	seven, nine := 7.0, 9.0
	added := *begin.Channel(second)
	added.ID, added.Number, added.Name = "added", 4000, "Added"
	changes := map[string]edit.Edit{
		"seconds before":              seconds(first, &seven, nil),
		"other seconds before":        seconds(first, &nine, nil),
		"seconds of another":          seconds(second, &seven, nil),
		"seconds after":               seconds(first, nil, &nine),
		"a channel is added":          {SetChannel: &edit.SetChannel{Channel: added}},
		"the site has another client": {SetSite: &edit.SetSite{Customer: &client}},
	}
	meeting := map[[2]string]bool{
		{"seconds before", "other seconds before"}: true,
		{"other seconds before", "seconds before"}: true,
	}
	for one, e := range changes {
		after := must(t, begin, e)
		// Alone it leads back to the beginning.
		edits, meets, err := TakenBack(after, begin, after)
		if err != nil || len(meets) != 0 {
			t.Errorf("%s: %v, %v", one, meets, err)
			continue
		}
		if left := Plans(begin, must(t, after, edits...)); len(left) != 0 {
			t.Errorf("%s: left is %v", one, left)
		}
		if _, _, err := TakenBack(begin, begin, after); !errors.Is(err, ErrNothing) {
			t.Errorf("%s: there is something to take back of what was undone: %v", one, err)
		}
		for two, f := range changes {
			if one == two {
				continue
			}
			now := must(t, after, f)
			edits, meets, err := TakenBack(now, begin, after)
			if err != nil || (len(meets) > 0) != meeting[[2]string{one, two}] {
				t.Errorf("%s, then %s: %v, %v", one, two, meets, err)
				continue
			}
			want := must(t, begin, f)
			if len(meets) > 0 {
				want = begin // all the same it is as before
			}
			if left := Plans(want, must(t, now, edits...)); len(left) != 0 {
				t.Errorf("%s, then %s: %v is otherwise", one, two, left)
			}
		}
	}
}

func must(t *testing.T, p *plan.Plan, edits ...edit.Edit) *plan.Plan {
	t.Helper()
	done, err := edit.Apply(p, edits...)
	if err != nil {
		t.Fatal(err)
	}
	return done.Plan
}
