package plan

import (
	"os"
	"strings"
	"testing"
)

// TestThingsInAPictureAreThereOnce spoils a plan's scene in ways that no edit can.
func TestThingsInAPictureAreThereOnce(t *testing.T) {
	data, err := os.ReadFile("testdata/whole.json")
	if err != nil {
		t.Fatal(err)
	}
	for _, test := range []struct{ was, is, want string }{
		{`"id": "out", "name": "Out"`, `"id": "in", "name": "Out"`, `channels[1].scene.walks[1].id: a second walk "in"`},
		{`"id": "tree", "name": "Tree"`, `"id": "lane", "name": "Tree"`, `channels[1].detection.areas[1].id: a second area "lane"`},
		{`[[0.4, 0.95], [0.45, 0.5]]`, `[[0.4, 0.95], [0.4, 0.95]]`, `channels[1].scene.walks[0].points[1]: is where the one before is`},
		{`[[0.4, 0.95], [0.45, 0.5]]`, `[[0.4, 0.95, 1], [0.45, 0.5]]`, `channels[1].scene.walks[0].points[0]: 3 numbers; a point has two`},
		{`"headY": 0.33`, `"headY": 0.6`, `channels[1].scene.people: a person's head is above the feet`},
		{`"on": "gA=="`, `"on": "?"`, `channels[1].detection.areas[1].cells.on: is not base64`},
	} {
		spoilt := strings.Replace(string(data), test.was, test.is, 1)
		if _, err := Read([]byte(spoilt)); spoilt == string(data) || err == nil || !strings.HasPrefix(err.Error(), test.want) {
			t.Errorf("%v, want %s", err, test.want)
		}
	}
}
