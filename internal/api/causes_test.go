package api

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"wakefield.example/core/estimate"
	"wakefield.example/core/plan/plantest"
)

// TestWhatCausesWhat asks for all ties, for what they do by hour, and for the same with a change that is not kept.
func TestWhatCausesWhat(t *testing.T) {
	c := start(t, plantest.Read(t, "../../core/estimate/testdata/plans/ties-of-every-kind.json"))
	ties := call[TiesBody](c, "GET", "/api/plans/site/ties", "", 200)
	names := map[string]estimate.CauseLine{}
	for _, line := range ties.Causes {
		names[line.Kind+" "+line.Name] = line
		if line.When.Area != "" && (line.Of != line.When.Motion || line.HappensPerDay == nil || *line.HappensPerDay <= 0) {
			t.Errorf("%+v", line)
		}
	}
	for name, keeps := range map[string]string{"motion Yard": "itself", "alarm Hatch contact": "", "button Help point": "", "lost Slip": "",
		"tampered Yard": "", "uplinkLost Uplink lost": ""} {
		if line, ok := names[name]; !ok || line.Keeps != keeps {
			t.Errorf("%s: %+v", name, line)
		}
	}
	if lost := names["lost Yard"]; lost.HappensPerDay != nil || names["lost Slip"].HappensPerDay == nil ||
		math.Abs(*names["button Help point"].HappensPerDay-20.0/7) > 1e-9 {
		t.Errorf("%+v", lost)
	}
	if len(ties.Ties) != 26 || ties.Version != 1 {
		t.Errorf("%d ties", len(ties.Ties))
	}
	for _, tie := range ties.Ties {
		if tie.ActsPerDay < 0 || tie.ActsPerDay > tie.HappensPerDay*1.000001 || (tie.ActsPerDay == 0) != (tie.Why != "") {
			t.Errorf("%+v", tie)
		}
	}
	was := call[AlertsBody](c, "POST", "/api/plans/site/alerts", `{"edits":[]}`, 200)
	if len(was.Messages) != 2 || len(was.Hours.Messages[0].Sent) != 168 || len(was.Hours.Away) != 1 || len(was.Hours.Stills) != 2 ||
		was.Copy == nil || len(was.Copy.Instead) != 3 || len(was.Copy.Channels) != 1 {
		t.Errorf("%+v", was)
	}
	rare := `{"edits":[{"setMessage":{"message":{"id":"m2","name":"Office","to":"The office","atMostEverySeconds":86400}}}]}`
	if then := call[AlertsBody](c, "POST", "/api/plans/site/alerts", rare, 200); then.Messages[1].PerDay >= 1.01 ||
		then.Messages[1].HeldBackPerDay <= was.Messages[1].HeldBackPerDay {
		t.Errorf("%+v", then.Messages[1])
	}
	if again := call[AlertsBody](c, "POST", "/api/plans/site/alerts", `{"edits":[]}`, 200); again.Messages[1] != was.Messages[1] {
		t.Error("what was tried was kept")
	}
	call[problemBody](c, "POST", "/api/plans/site/alerts", strings.Replace(rare, "86400", "0", 1), 422)
	call[problemBody](c, "GET", "/api/plans/nowhere/ties", "", 404)
	call[problemBody](c, "POST", "/api/plans/nowhere/alerts", `{"edits":[]}`, 404)
}

// TestAContactTheWrongWayRound asks what it would do.
func TestAContactTheWrongWayRound(t *testing.T) {
	c := start(t, plantest.Read(t, "../../core/estimate/testdata/plans/ties-of-every-kind.json"))
	wrong := call[estimate.WrongWay](c, "GET", "/api/plans/site/inputs/a1/wrong", "", 200)
	if len(wrong.Channels) != 1 || wrong.Channels[0] != "slip" || wrong.MoreGigabytesPerDay <= 0 || wrong.KeptDays == nil ||
		*wrong.KeptDays >= *wrong.KeptDaysNow {
		t.Errorf("%+v", wrong)
	}
	if none := call[estimate.WrongWay](c, "GET", "/api/plans/site/inputs/a2/wrong", "", 200); len(none.Channels) != 0 ||
		none.MoreGigabytesPerDay != 0 {
		t.Errorf("%+v", none)
	}
	call[problemBody](c, "GET", "/api/plans/site/inputs/a9/wrong", "", 404)
}

// TestAChangeTellsItsTies follows the list of ties by what changes tell of it.
func TestAChangeTellsItsTies(t *testing.T) {
	c := start(t, plantest.Read(t, "../../core/estimate/testdata/plans/ties-of-every-kind.json"))
	list := call[TiesBody](c, "GET", "/api/plans/site/ties", "", 200).Ties
	for i, edit := range []string{
		`{"addEffect":{"effect":{"when":{"motion":"yard"},"message":["m1"]}}}`,
		`{"addEffect":{"effect":{"when":{"alarm":"a2"},"monitor":["v1"],"output":["o1"]}}}`,
		`{"removeEffect":{"effect":{"when":{"lost":"slip"},"message":["m1","m2"],"record":["slip"]}}}`,
		`{"removeAlarmInput":{"alarmInput":"a1"}}`,
		`{"setAudio":{"channels":["slip"],"audioKbps":10}}`,
		`{"setMessage":{"message":{"id":"m1","name":"Night phone","to":"The porter","atMostEverySeconds":60,"hours":{"blocks":[{"from":"18:00","to":"19:00"}]}}}}`,
	} {
		a := call[Answer](c, "POST", "/api/plans/site/edits", fmt.Sprintf(`{"version":%d,"edits":[%s]}`, i+1, edit), 200)
		if a.Ties != nil {
			behind := slices.Clone(list[a.Ties.From+a.Ties.Gone:])
			for k := range behind {
				behind[k].Effect += a.Ties.Shift
			}
			list = append(append(slices.Clone(list[:a.Ties.From]), a.Ties.Put...), behind...)
		} else if i != 4 {
			t.Errorf("%s changes no tie", edit)
		}
		if now := call[TiesBody](c, "GET", "/api/plans/site/ties", "", 200).Ties; !slices.Equal(now, list) {
			t.Fatalf("%s: %+v, want %+v", edit, list, now)
		}
	}
}
