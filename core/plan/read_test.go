package plan

import (
	"bytes"
	"encoding/json"
	"os"
	"reflect"
	"strings"
	"testing"

	"wakefield.example/core/document"
	"wakefield.example/core/seeded"
)

func whole(t testing.TB) []byte {
	t.Helper()
	data, err := os.ReadFile("testdata/whole.json")
	if err != nil {
		t.Fatal(err)
	}
	return data
}

func TestReadGivesBackWhatWriteWrote(t *testing.T) {
	p, err := Read(whole(t))
	if err != nil {
		t.Fatal(err)
	}
	written, err := p.Write()
	if err != nil {
		t.Fatal(err)
	}
	again, err := Read(written)
	if err != nil {
		t.Fatal(err)
	}
	if twice, err := again.Write(); err != nil || !bytes.Equal(twice, written) {
		t.Error("writing what was read again gives another file")
	}
	if c := again.Channel("c1"); *c.AlarmPreSeconds != 30 || *c.Detection.Catch != 0.9 || c.Streams.Main.KeyframeKB != 220 {
		t.Errorf("members were lost: %+v", c)
	}
}

func TestBadPlansNameThePlace(t *testing.T) {
	tests := []struct{ name, old, new, want string }{
		{"unknown member", `"reservePercent": 7`, `"reservePercent": 7, "colour": "red"`, `recorders[0].pools[0].colour: no such member`},
		{"member given twice", `"hotSpares": 0`, `"hotSpares": 0, "hotSpares": 1`, `recorders[0].pools[0].hotSpares: given twice`},
		{"missing member", `"meanSeconds": 8,`, ``, `activities[1].meanSeconds: missing`},
		{"reference to no week", `"week": "yard"`, `"week": "nite"`, `channels[0].week: no week "nite"`},
		{"reference to no duty", `"duty": "guard"`, `"duty": "gaurd"`, `weeks[1].blocks[0].duty: no duty "gaurd"`},
		{"reference to no activity", `"nuisance": "trees"`, `"nuisance": "tree"`, `channels[0].nuisance: no activity "tree"`},
		{"reference to no channel", `"when": { "motion": "c1" }`, `"when": { "motion": "c9" }`, `effects[1].when.motion: no channel "c9"`},
		{"duplicate id", `"id": "trees"`, `"id": "gate"`, `activities[2].id: a second activity "gate"`},
		{"negative rate", `"perHour": 40`, `"perHour": -4`, `activities[0].blocks[0].perHour: -4 is below 0`},
		{"rate of 10^9 an hour", `"perHour": 40`, `"perHour": 1000000000`, `activities[0].blocks[0].perHour: 1000000000 is above 1000000`},
		{"no such time", `"from": "06:30"`, `"from": "25:00"`, `activities[0].blocks[0].from: no time "25:00"; times of day are 00:00 to 24:00`},
		{"equal times", `"from": "08:00", "to": "13:00"`, `"from": "08:00", "to": "08:00"`,
			`activities[0].blocks[1]: starts and ends at the same time`},
		{"no such day", `["sun"]`, `["sonntag"]`, `weeks[1].blocks[1].days[0]: no day "sonntag"`},
		{"zero frame rate", `"fps": 20`, `"fps": 0`, `channels[1].streams.main.fps: 0 is below 0.01`},
		{"text for a number", `"preSeconds": 10`, `"preSeconds": "10"`, `channels[0].preSeconds: the text "10" where a number is wanted`},
		{"fraction of a channel", `"number": 1`, `"number": 1.5`, `channels[0].number: 1.5 where a whole number is wanted`},
		{"null", `"catch": 0.9`, `"catch": null`, `channels[0].detection.catch: null; leave out what is not known`},
		{"unknown codec", `"codec": "h265"`, `"codec": "h267"`, `channels[0].streams.main.codec: "h267" is none of h264, h265, av1, mjpeg`},
		{"rate of two kinds", `"kind": "constant", "kbps": 512`, `"kind": "constant", "kbps": 512, "quality": 3`,
			`channels[1].streams.sub.rate.quality: does not go with kind constant`},
		{"rate without figure", `"kbps": 512, `, ``, `channels[1].streams.sub.rate.kbps: missing; kind constant needs it`},
		{"cause of two kinds", `{ "alarm": "a1" }`, `{ "alarm": "a1", "motion": "c2" }`,
			`effects[0].when: wants exactly one of motion, alarm, lost, tampered, button and uplinkLost`},
		{"time zone", `"timeZone": "UTC"`, `"timeZone": "Moon/Copernicus"`, `site.timeZone: no time zone "Moon/Copernicus"`},
		{"other format", `wakefield-plan/1`, `wakefield-plan/9`, `format: "wakefield-plan/9" is none of wakefield-plan/1`},
		{"number beyond all", `"meanSeconds": 8`, `"meanSeconds": 1e999`, `activities[1].meanSeconds: 1e999 is too large a number`},
		{"at least above at most", `"atMostDays": 60`, `"atMostDays": 60, "atLeastDays": 90`,
			`channels[1].keep.atLeastDays: 90 days at least but 60 at most`},
		{"more spares than drives", `"hotSpares": 0`, `"hotSpares": 5`, `recorders[0].pools[0].hotSpares: 5 hot spares of 4 drives`},
		{"half a person in a group", `"meanSeconds": 8`, `"groups": {"size": 0.5, "withinSeconds": 60}, "meanSeconds": 8`,
			`activities[1].groups.size: 0.5 is below 1`},
		{"a crowd", `"meanSeconds": 8`, `"groups": {"size": 10000, "withinSeconds": 60}, "meanSeconds": 8`,
			`activities[1].groups.size: 10000 is above 1000`},
		{"a group at once", `"meanSeconds": 8`, `"groups": {"size": 3, "withinSeconds": 0}, "meanSeconds": 8`,
			`activities[1].groups.withinSeconds: 0 is below 1`},
		{"a group of a week", `"meanSeconds": 8`, `"groups": {"size": 3, "withinSeconds": 604800}, "meanSeconds": 8`,
			`activities[1].groups.withinSeconds: 604800 is above 21600`},
		{"less than nothing happens", `"timeZone": "UTC"`,
			`"timeZone": "UTC", "specialDays": [{"from": "2027-01-01", "to": "2027-01-02", "name": "x", "rateFactor": -1}]`,
			`site.specialDays[0].rateFactor: -1 is below 0`},
		{"night of a constant bitrate", `"kind": "constant", "kbps": 512`,
			`"kind": "constant", "kbps": 512, "night": {"factor": 2, "hours": {"blocks": [{"from": "20:00", "to": "06:00"}]}}`,
			`channels[1].streams.sub.rate.night: does not go with kind constant`},
		{"more areas than cameras have", `"catch": 0.9`, `"catch": 0.9, "areas": 2000`,
			`channels[0].detection.areas: 2000 areas; 0 to 1000 are possible`},
		{"camera without stream", `"streams": { "main": {`, `"streams": { "sub": {`, `channels[0].streams.main: missing`},
	}
	data := whole(t)
	for _, test := range tests {
		if !bytes.Contains(data, []byte(test.old)) {
			t.Fatalf("%s: the plan has no %s", test.name, test.old)
		}
		_, err := Read(bytes.Replace(data, []byte(test.old), []byte(test.new), 1))
		if err == nil || !strings.HasPrefix(err.Error(), test.want) {
			t.Errorf("%s: %v, want %s", test.name, err, test.want)
		}
	}
}

func TestNotJSONSaysWhere(t *testing.T) {
	data := whole(t)
	for text, want := range map[string]string{
		string(data[:714]):  "line 9, column 6: not JSON: it ends too early",
		"":                  "line 1, column 1: not JSON: it ends too early",
		"hello":             "line 1, column ",
		"[1,2]":             "a list where an object is wanted",
		string(data) + "{}": "line 69, column 2: not JSON: something follows",
	} {
		if _, err := Read([]byte(text)); err == nil || !strings.HasPrefix(err.Error(), want) {
			t.Errorf("%.20q: %v, want %s", text, err, want)
		}
	}
	if _, err := Read(make([]byte, 40<<20)); err == nil || err.Error() != "larger than 32 MiB, which no plan is" {
		t.Errorf("40 MiB: %v", err)
	}
}

// FuzzRead asks that whatever is accepted is also accepted by encoding/json, means
// the same there, and can be written and read again.
func FuzzRead(fuzz *testing.F) {
	f := seeded.Of(fuzz, 2000)
	f.Add(whole(f))
	f.Add([]byte(`{"format":"wakefield-plan/1","name":"x","site":{"name":"x","timeZone":"UTC"},"duties":[],"recorders":[],"channels":[]}`))
	f.Add([]byte(`{"channels":[{"week":{"otherwise":"a","blocks":[{"from":"22:00","to":"05:00","duty":"b"}]}}]}`))
	f.Fuzz(func(t *testing.T, data []byte) {
		p, err := Read(data)
		if err != nil {
			if _, ok := err.(*document.Error); !ok {
				t.Fatalf("an error without a place: %v", err)
			}
			return
		}
		var q Plan
		if err := json.Unmarshal(data, &q); err != nil {
			t.Fatalf("accepted what encoding/json refuses: %v", err)
		}
		if !reflect.DeepEqual(p, &q) {
			t.Fatal("encoding/json reads another plan")
		}
		written, err := p.Write()
		if err != nil {
			t.Fatal(err)
		}
		if _, err := Read(written); err != nil {
			t.Fatalf("cannot read what was written: %v", err)
		}
	})
}

func example(t testing.TB) *Plan {
	t.Helper()
	p, err := Read(whole(t))
	if err != nil {
		t.Fatal(err)
	}
	return p
}

// TestWhatOtherProgramsWriteIsRead puts before and into a plan what editors of files do, and what they do not.
func TestWhatOtherProgramsWriteIsRead(t *testing.T) {
	p := example(t)
	written, err := p.Write()
	if err != nil {
		t.Fatal(err)
	}
	marked := append([]byte("\ufeff"), written...)
	named := func(what string) []byte {
		return append([]byte(`{"$schema": `+what+`,`), bytes.TrimLeft(written, " \n{")...)
	}
	for name, data := range map[string][]byte{"a byte order mark": marked, "a schema": named(`"plan.schema.json"`)} {
		got, err := Read(data)
		if err != nil {
			t.Errorf("%s: %v", name, err)
			continue
		}
		if again, err := got.Write(); err != nil || !bytes.Equal(again, written) {
			t.Errorf("%s: another plan, %v", name, err)
		}
	}
	for what, want := range map[string]string{
		`3`: "$schema: the number 3 where a text is wanted", `null`: "$schema: null; leave out what is not known",
		`"a", "$schema": "b"`: "$schema: given twice",
	} {
		if _, err := Read(named(what)); err == nil || err.Error() != want {
			t.Errorf("%s: %v, want %s", what, err, want)
		}
	}
	inside := bytes.Replace(written, []byte(`"site": {`), []byte(`"site": {"$schema": "a",`), 1)
	if _, err := Read(inside); err == nil || err.Error() != "site.$schema: no such member" {
		t.Errorf("within the site: %v", err)
	}
	if _, err := Read([]byte("\ufeff\ufeff{}")); err == nil {
		t.Error("two byte order marks are read")
	}
}
