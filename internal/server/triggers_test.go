package server

import (
	"os"
	"testing"

	"wakefield/core/plan"
)

// TestWhatChannelsNotice asks for the list of all channels, and for one picture as it is and as it is being drawn.
func TestWhatChannelsNotice(t *testing.T) {
	data, err := os.ReadFile("../../core/estimate/testdata/plans/watched-yard.json")
	if err != nil {
		t.Fatal(err)
	}
	p, err := plan.Read(data)
	if err != nil {
		t.Fatal(err)
	}
	c := start(t, p)
	lines := call[[]TriggerLine](c, "GET", "/api/plans/site/triggers", "", 200)
	if len(lines) != 2 || lines[0].Channel != "yard" || lines[0].Arrives <= 0 || lines[0].Arrives >= lines[0].Happens || lines[0].Unwanted <= 0 || lines[0].Why != "" || lines[0].Missed <= 0 {
		t.Errorf("%+v", lines)
	}
	was := call[InPicture](c, "POST", "/api/plans/site/channels/yard/picture", `{"edits":[]}`, 200)
	if len(was.Sight.Areas) != 3 || len(was.Sight.Walks) != 3 || was.Version != 1 || was.Course.HappensPerDay != lines[0].Happens {
		t.Errorf("%+v", was)
	}
	mask := `{"edits":[{"setArea":{"channel":"yard","area":{"id":"all","name":"All","ignore":true,"points":[[0,0],[1,0],[1,1],[0,1]]}}}]}`
	drawn := call[InPicture](c, "POST", "/api/plans/site/channels/yard/picture", mask, 200)
	if drawn.Course.Unwanted != 0 || drawn.Course.Why() != "no area there" || drawn.Sight.Walks[0].Noticed != nil {
		t.Errorf("%+v", drawn)
	}
	if again := call[InPicture](c, "POST", "/api/plans/site/channels/yard/picture", `{"edits":[]}`, 200); again.Course.Unwanted != was.Course.Unwanted {
		t.Error("what was drawn was kept")
	}
	call[problemBody](c, "POST", "/api/plans/site/channels/nobody/picture", `{"edits":[]}`, 404)
	crossed := `{"edits":[{"setArea":{"channel":"yard","area":{"id":"x","name":"X","points":[[0,0],[1,1],[1,0],[0,1]]}}}]}`
	if problem := call[problemBody](c, "POST", "/api/plans/site/channels/yard/picture", crossed, 422); problem.Detail == "" {
		t.Errorf("%+v", problem)
	}
	call[Answer](c, "POST", "/api/plans/site/edits", `{"version":1,"edits":[{"removeArea":{"channel":"slip","area":"cells"}},{"setArea":{"channel":"slip","area":{"id":"m","name":"M","ignore":true,"points":[[0,0],[1,0],[1,1]]}}}]}`, 200)
	if lines := call[[]TriggerLine](c, "GET", "/api/plans/site/triggers", "", 200); lines[1].Why != "no area drawn" || lines[1].Arrives != 0 {
		t.Errorf("%+v", lines[1])
	}
}
