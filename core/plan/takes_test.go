package plan

import (
	"encoding/json"
	"os"
	"reflect"
	"strings"
	"testing"
)

// wholeWith is the plan of all members with a text in the place of another.
func wholeWith(t *testing.T, old, text string) (*Plan, error) {
	t.Helper()
	data, err := os.ReadFile("testdata/whole.json")
	if err != nil {
		t.Fatal(err)
	}
	if !strings.Contains(string(data), old) {
		t.Fatalf("whole.json has no %s", old)
	}
	return Read([]byte(strings.Replace(string(data), old, text, 1)))
}

// TestWordsStandByTheirDuty reads words of a recorder as an object, writes them so, and names the place of what is wrong.
func TestWordsStandByTheirDuty(t *testing.T) {
	const words = `"words": { "guard": "Motion rec." }`
	p, err := wholeWith(t, words, `"words": { "thrift": "Sched.", "guard": "Motion rec." }`)
	if err != nil {
		t.Fatal(err)
	}
	if w := p.Recorders[0].Words; w.Of("guard") != "Motion rec." || w.Of("thrift") != "Sched." || w.Of("sure") != "" {
		t.Errorf("%+v", w)
	}
	data, err := json.Marshal(p.Recorders[0])
	if err != nil || !strings.Contains(string(data), `"words":{"guard":"Motion rec.","thrift":"Sched."}`) {
		t.Errorf("%s %v", data, err)
	}
	var back Recorder
	if err := json.Unmarshal(data, &back); err != nil || !reflect.DeepEqual(back, p.Recorders[0]) {
		t.Errorf("%+v %v", back, err)
	}
	for text, want := range map[string]string{
		`"words": { "nite": "x" }`:                                 `recorders[0].words.nite: no duty "nite"`,
		`"words": { "guard": "x", "guard": "y" }`:                  "recorders[0].words.guard: given twice",
		`"words": { "guard": "" }`:                                 "recorders[0].words.guard: empty",
		`"words": { "guard": 3 }`:                                  "recorders[0].words.guard: the number 3 where a text is wanted",
		`"words": [ "guard" ]`:                                     "recorders[0].words: a list where an object is wanted",
		`"words": { "guard": "` + strings.Repeat("x", 101) + `" }`: "recorders[0].words.guard: 101 characters; at most 100 are possible",
	} {
		if _, err := wholeWith(t, words, text); err == nil || err.Error() != want {
			t.Errorf("%s: %v, want %s", text, err, want)
		}
	}
}

// TestWhatARecorderCannotBeSaidToTake names the place.
func TestWhatARecorderCannotBeSaidToTake(t *testing.T) {
	for old, wrong := range map[string][2]string{
		`"stepMinutes": 30`:                  {`"stepMinutes": 0`, "recorders[0].takes.stepMinutes: 0 is below 1"},
		`"preSeconds": [0, 5, 10, 30]`:       {`"preSeconds": [0, -5]`, "recorders[0].takes.preSeconds[1]: -5 is not between 0 and 3600"},
		`"framesPerSecond": [5, 10, 15, 25]`: {`"framesPerSecond": [0]`, "recorders[0].takes.framesPerSecond[0]: 0 is not between 0.01 and 240"},
		`"areas": "grid"`:                    {`"areas": "hexagon"`, `recorders[0].takes.areas: "hexagon" is none of polygon, grid, none`},
		`"copies": ["days", "week"]`:         {`"copies": ["days", "days"]`, "recorders[0].takes.copies[1]: days is named twice"},
		`"gridColumns": 22, "gridRows": 18`:  {`"gridColumns": 500, "gridRows": 18`, "recorders[0].takes.gridColumns: 500 is above 128"},
	} {
		if _, err := wholeWith(t, old, wrong[0]); err == nil || err.Error() != wrong[1] {
			t.Errorf("%s: %v, want %s", wrong[0], err, wrong[1])
		}
	}
	p, err := wholeWith(t, `"copies": ["days", "week"]`, `"copies": []`)
	if err != nil {
		t.Fatal(err)
	}
	data, err := p.Write()
	if err != nil {
		t.Fatal(err)
	}
	again, err := Read(data)
	if err != nil || again.Recorders[0].Takes.CanCopy(CopiesDays) || again.Recorders[0].Takes.Copies == nil {
		t.Errorf("one that copies nothing is read as %+v, %v", again.Recorders[0].Takes, err)
	}
	if p, err = wholeWith(t, `, "copies": ["days", "week"]`, ``); err != nil || !p.Recorders[0].Takes.CanCopy(CopiesStream) {
		t.Errorf("one of which nothing is said copies nothing, %v", err)
	}
}
