package api

import (
	"strings"
	"testing"

	"wakefield.example/core/estimate"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/internal/demo"
)

// TestWhatChannelsNotice asks for the list of all channels, and for one picture as it is and as it is being drawn.
func TestWhatChannelsNotice(t *testing.T) {
	c := start(t, plantest.Read(t, "../../core/estimate/testdata/plans/watched-yard.json"))
	lines := call[[]TriggerLine](c, "GET", "/api/plans/site/triggers", "", 200)
	if len(lines) != 2 || lines[0].Channel != "yard" || lines[0].ArrivesPerDay <= 0 || lines[0].ArrivesPerDay >= lines[0].HappensPerDay ||
		lines[0].UnwantedTriggersPerDay <= 0 || lines[0].Why != "" || lines[0].MissedPerDay <= 0 {
		t.Errorf("%+v", lines)
	}
	was := call[InPicture](c, "POST", "/api/plans/site/channels/yard/picture", `{"edits":[]}`, 200)
	if len(was.Sight.Areas) != 3 || len(was.Sight.Walks) != 3 || was.Version != 1 || was.Course.HappensPerDay != lines[0].HappensPerDay {
		t.Errorf("%+v", was)
	}
	mask := `{"edits":[{"setArea":{"channel":"yard","area":{"id":"all","name":"All","ignore":true,"points":[[0,0],[1,0],[1,1],[0,1]]}}}]}`
	drawn := call[InPicture](c, "POST", "/api/plans/site/channels/yard/picture", mask, 200)
	if drawn.Course.UnwantedTriggersPerDay != 0 || drawn.Course.Why() != "no area there" || drawn.Sight.Walks[0].NoticedSeconds != nil {
		t.Errorf("%+v", drawn)
	}
	if again := call[InPicture](c, "POST", "/api/plans/site/channels/yard/picture", `{"edits":[]}`,
		200); again.Course.UnwantedTriggersPerDay != was.Course.UnwantedTriggersPerDay {
		t.Error("what was drawn was kept")
	}
	call[problemBody](c, "POST", "/api/plans/site/channels/nobody/picture", `{"edits":[]}`, 404)
	crossed := `{"edits":[{"setArea":{"channel":"yard","area":{"id":"x","name":"X","points":[[0,0],[1,1],[1,0],[0,1]]}}}]}`
	if problem := call[problemBody](c, "POST", "/api/plans/site/channels/yard/picture", crossed, 422); problem.Detail == "" {
		t.Errorf("%+v", problem)
	}
	call[Answer](c, "POST", "/api/plans/site/edits",
		`{"version":1,"edits":[{"removeArea":{"channel":"slip","area":"cells"}},{"setArea":{"channel":"slip","area":{"id":"m","name":"M","ignore":true,"points":[[0,0],[1,0],[1,1]]}}}]}`, 200)
	if lines := call[[]TriggerLine](c, "GET", "/api/plans/site/triggers", "", 200); lines[1].Why != "no area drawn" ||
		lines[1].ArrivesPerDay != 0 {
		t.Errorf("%+v", lines[1])
	}
}

// TestWhatAPatchCosts asks for the cost of a patch as it is, ignored, and with nothing ignored; and for a course by hour.
func TestWhatAPatchCosts(t *testing.T) {
	c := start(t, plantest.Read(t, "../../core/estimate/testdata/plans/watched-yard.json"))
	cost := call[PatchCost](c, "GET", "/api/plans/site/channels/yard/patches/reeds/cost", "", 200)
	if cost.Now.TriggersPerDay <= 0 || cost.Without.TriggersPerDay != 0 || cost.Unmasked == nil ||
		cost.Unmasked.TriggersPerDay <= cost.Now.TriggersPerDay ||
		cost.Without.GBPerDay >= cost.Now.GBPerDay || cost.Now.GBPerDay >= cost.Unmasked.GBPerDay ||
		*cost.Without.KeptDays <= *cost.Unmasked.KeptDays {
		t.Errorf("%+v, %+v", cost, cost.Unmasked)
	}
	call[problemBody](c, "GET", "/api/plans/site/channels/yard/patches/none/cost", "", 404)
	call[problemBody](c, "GET", "/api/plans/site/channels/none/patches/reeds/cost", "", 404)
	course := call[estimate.Course](c, "GET", "/api/plans/site/channels/slip/course", "", 200)
	if course.Hours == nil || len(course.Hours.Happens) != 168 || len(course.Hours.Gates) != len(course.Gates) {
		t.Errorf("%+v", course)
	}
	call[problemBody](c, "GET", "/api/plans/site/channels/none/course", "", 404)

	ask := `{"edits":[],"stand":{"object":"person","area":"foot","feet":[0.4,0.8]}}`
	if s := call[InPicture](c, "POST", "/api/plans/site/channels/yard/picture", ask, 200).Standing; s == nil || s.OfPicturePercent <= 0.6 ||
		s.OfAreaPercent <= s.OfPicturePercent {
		t.Errorf("%+v", s)
	}
	call[problemBody](c, "POST", "/api/plans/site/channels/yard/picture", strings.Replace(ask, "0.8", "0.01", 1), 422)
	// The slip waits for motion day and night; its detection works from 4 to 22.
	if deaf := call[View](c, "GET", "/api/plans/site", "", 200).Ribbons[1].Deaf; len(deaf) != 8 || deaf[1] != (HourSpan{22 * 60, 28 * 60}) {
		t.Errorf("%+v", deaf)
	}
}

func TestHoursArePainted(t *testing.T) {
	c := start(t, demo.BrackenhallCiderWorks())
	for _, test := range []struct{ ask, text string }{
		{`{"stroke":{"hours":[{"days":["mon"],"from":"06:00","to":"08:00"}],"on":false}}`, "Mon 00:00-06:00, Mon 08:00-24:00, Tue-Sun"},
		{`{"blocks":[{"from":"06:00","to":"22:00"}],"stroke":{"hours":[{"from":"20:00","to":"23:00"}],"on":true}}`, "all days 06:00-23:00"},
		{`{"blocks":[{"from":"06:00","to":"22:00"}],"stroke":{"hours":[{"from":"05:00","to":"12:00"}],"on":false}}`, "all days 12:00-22:00"},
	} {
		if got := call[WrittenHours](c, "POST", "/api/hours", test.ask, 200); got.Text != test.text || got.Always {
			t.Errorf("%+v, want %s", got, test.text)
		}
	}
	all := call[WrittenHours](c, "POST", "/api/hours",
		`{"blocks":[{"from":"06:00","to":"22:00"}],"stroke":{"hours":[{"from":"00:00","to":"24:00"}],"on":true}}`, 200)
	if !all.Always {
		t.Errorf("%+v", all)
	}
	if p := call[problemBody](c, "POST", "/api/hours",
		`{"blocks":[{"from":"06:00","to":"22:00"}],"stroke":{"hours":[{"from":"06:00","to":"22:00"}],"on":false}}`,
		422); p.Detail != "no hour would be left" {
		t.Errorf("%q", p.Detail)
	}
}

// TestAPictureOfAChannelThatGoes is drawn with edits that take the channel away, or one before it.
func TestAPictureOfAChannelThatGoes(t *testing.T) {
	c, _ := serving(t, demo.PennywhistleQuay(), "", Options{})
	last := demo.PennywhistleQuay().Channels[len(demo.PennywhistleQuay().Channels)-1].ID
	first := demo.PennywhistleQuay().Channels[0].ID
	remove := func(id string) string { return `{"edits": [{"removeChannels": {"channels": ["` + id + `"]}}]}` }
	c.does("POST", "/api/plans/site/channels/"+last+"/picture", remove(last), 404)
	c.does("POST", "/api/plans/site/channels/"+last+"/picture", remove(first), 200)
}
