package api

import (
	"bytes"
	"context"
	"image"
	"image/png"
	"net/http"
	"strings"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/internal/demo"
	"wakefield.example/internal/server"
	"wakefield.example/internal/stills"
)

// stillFile is a PNG of a plain grey.
func stillFile(t *testing.T, width, height int) string {
	t.Helper()
	var out bytes.Buffer
	if err := png.Encode(&out, image.NewGray(image.Rect(0, 0, width, height))); err != nil {
		t.Fatal(err)
	}
	return out.String()
}

// TestPicturesAreKeptBesideThePlan adds a picture, gives it to a channel, and follows it through undo, a duplicate, and
// a file with pictures and back.
func TestPicturesAreKeptBesideThePlan(t *testing.T) {
	p := demo.BrackenhallCiderWorks()
	c := start(t, p)
	channel := p.Channels[0].ID
	add := func(data string, want int) (kept KeptPicture) {
		t.Helper()
		return call[KeptPicture](c, "POST", "/api/plans/site/pictures", data, want)
	}
	first, second := add(stillFile(t, 320, 180), 201), add(stillFile(t, 640, 360), 201)
	if first.ID == second.ID || first.Width != 320 || second.Height != 360 || add(stillFile(t, 320, 180), 201) != first {
		t.Errorf("%+v, %+v", first, second)
	}
	shown := func(site, id string) bool {
		t.Helper()
		status, headers, body := c.send("GET", "/api/plans/"+site+"/pictures/"+id, "")
		if status != http.StatusOK {
			return false
		}
		if headers.Get("Content-Type") != "image/jpeg" || headers.Get("X-Content-Type-Options") != "nosniff" ||
			headers.Get("Cache-Control") != "private, max-age=31536000, immutable" || !strings.HasPrefix(body, "\xff\xd8") {
			t.Errorf("%v", headers)
		}
		if status, _, body := c.send("GET", "/api/plans/"+site+"/pictures/"+id, "", "If-None-Match",
			headers.Get("ETag")); status != http.StatusNotModified || body != "" {
			t.Errorf("asked for again: %d, %d bytes", status, len(body))
		}
		return true
	}
	set := func(version, id string) {
		t.Helper()
		call[Answer](c, "POST", "/api/plans/site/edits", `{"version":`+version+`,"edits":[{"setGround":{"channel":"`+channel+
			`","picture":"`+id+`"}}]}`, 200)
	}
	set("1", first.ID)
	set("2", second.ID)
	call[Answer](c, "POST", "/api/plans/site/undo", `{"version":3}`, 200)
	if got := call[View](c, "GET", "/api/plans/site", "", 200).Plan.Channels[0].Scene.Picture; got != first.ID || !shown("site", got) ||
		!shown("site", second.ID) {
		t.Errorf("after undo the picture is %q", got)
	}

	made := call[CreatedSite](c, "POST", "/api/sites/site/duplicate", `{"name":"Again"}`, 201)
	if !shown(made.ID, first.ID) || shown(made.ID, second.ID) {
		t.Error("a duplicate has the pictures that are in use, and no others")
	}

	_, headers, packed := c.send("GET", "/api/plans/site/zip", "")
	if headers.Get("Content-Type") != "application/zip" || !strings.Contains(headers.Get("Content-Disposition"), `, plan, 20`) ||
		!strings.HasSuffix(headers.Get("Content-Disposition"), `.zip"`) {
		t.Errorf("%v", headers)
	}
	status, _, body := c.send("POST", "/api/sites", packed, "Content-Type", "application/zip")
	if status != http.StatusCreated {
		t.Fatalf("%d %s", status, body)
	}
	back := call[[]SiteLine](c, "GET", "/api/sites", "", 200)[0].ID
	if !shown(back, first.ID) {
		t.Error("the picture did not come back")
	}
	// The file alone has no pictures, and says which it had.
	_, _, alone := c.send("GET", "/api/plans/site/file", "")
	lone := call[CreatedSite](c, "POST", "/api/sites", alone, 201)
	if scene := call[View](c, "GET", "/api/plans/"+lone.ID, "", 200).Plan.Channels[0].Scene; scene.Picture != first.ID ||
		shown(lone.ID, first.ID) {
		t.Errorf("%+v", scene)
	}
	// A picture that was put in by hand under another name is taken in, and its name follows.
	p.Channels[0].Scene = &plan.Scene{Picture: "gate"}
	file, err := p.Write()
	if err != nil {
		t.Fatal(err)
	}
	byHand, err := stills.Pack(context.Background(), file, []*stills.Still{{ID: "gate", JPEG: []byte(stillFile(t, 320, 180))}})
	if err != nil {
		t.Fatal(err)
	}
	hand := call[CreatedSite](c, "POST", "/api/sites", string(byHand), 201)
	if scene := call[View](c, "GET", "/api/plans/"+hand.ID, "", 200).Plan.Channels[0].Scene; scene.Picture != first.ID ||
		!shown(hand.ID, first.ID) {
		t.Errorf("%+v", scene)
	}
}

func TestPicturesThatCannotBeKept(t *testing.T) {
	c := start(t, demo.BrackenhallCiderWorks())
	for want, data := range map[string]string{
		"this is no picture that can be read": "<script>alert(1)</script>",
		"no picture of a camera":              stillFile(t, 600, 10),
		"8 are the most":                      strings.Repeat("x", stills.LargestBytes+1),
	} {
		if problem := call[problemBody](c, "POST", "/api/plans/site/pictures", data, 422); !strings.Contains(problem.Detail, want) {
			t.Errorf("%q; want %q", problem.Detail, want)
		}
	}
	call[problemBody](c, "POST", "/api/plans/site/pictures", strings.Repeat("x", stills.LargestBytes+server.SmallBody+1), 413)
	call[problemBody](c, "POST", "/api/plans/nothing/pictures", stillFile(t, 64, 64), 404)
	call[problemBody](c, "GET", "/api/plans/site/pictures/nothing", "", 404)
	call[problemBody](c, "GET", "/api/plans/site/pictures/%00", "", 404)
	call[problemBody](c, "GET", "/api/plans/nothing/zip", "", 404)
	call[problemBody](c, "POST", "/api/sites", "PK\x03\x04 and no more", 422)
}
