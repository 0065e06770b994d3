package demo

import (
	"bytes"
	"image"
	"image/jpeg"
	"math"
	"slices"
	"strings"
	"testing"

	"golang.org/x/image/draw"

	"wakefield.example/core/check"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
)

func TestSampleSitesKeepTheRules(t *testing.T) {
	for _, p := range []*plan.Plan{PennywhistleQuay(), BrackenhallCiderWorks(), SaltmarshTramDepot()} {
		if err := p.Check(); err != nil {
			t.Errorf("%s: %v", p.Site.Name, err)
		}
		v := estimate.Run(p, nil).Verdict
		if v.KeptDays == nil || v.RequiredDays == nil || v.Evidence.EventsPerDay == 0 {
			t.Errorf("%s has no verdict worth showing: %+v", p.Site.Name, v)
		}
	}
	if quay := PennywhistleQuay(); len(quay.Channels) != 16 || quay.Recorders[0].Pools[0].Layout != "raid5" {
		t.Error("Pennywhistle Quay is one recorder of 16 channels on RAID 5")
	}
	if depot := SaltmarshTramDepot(); len(depot.Channels) != 192 || len(depot.Recorders) != 6 {
		t.Error("Saltmarsh Tram Depot is 192 channels on six recorders")
	}
}

// TestPicturesAreThoseOfTheViews draws every view anew, smaller, and holds the picture that the program brings against it.
func TestPicturesAreThoseOfTheViews(t *testing.T) {
	list, i := append(pictures(quayViews()), pictures(ciderViews())...), 0
	const width, height = 240, 135
	Draw(width, height, func(channel string, drawn *image.Gray) {
		kept, err := jpeg.Decode(bytes.NewReader(list[i].JPEG))
		if err != nil {
			t.Fatal(err)
		}
		i++
		small := image.NewGray(drawn.Rect)
		draw.ApproxBiLinear.Scale(small, small.Rect, kept, kept.Bounds(), draw.Src, nil)
		off := 0.0
		for k, v := range drawn.Pix {
			off += math.Abs(float64(v)-float64(small.Pix[k])) / float64(len(drawn.Pix))
		}
		if off > 4 {
			t.Errorf("%s: the picture is off by %.1f greys in the mean: run go generate in internal/demo", channel, off)
		}
	})
	if i != 21 {
		t.Errorf("%d pictures; Pennywhistle Quay has 16 channels, Brackenhall 5", i)
	}
}

// TestScenesAreThoseOfTheCameras finds how each camera hangs by the people in its picture; and that two things are left to
// be found in what is drawn.
func TestScenesAreThoseOfTheCameras(t *testing.T) {
	p := PennywhistleQuay()
	cider, _ := withPictures(BrackenhallCiderWorks(), ciderViews())
	for _, v := range append(quayViews(), ciderViews()...) {
		c := p.Channel(v.channel)
		if c == nil {
			c = cider.Channel(v.channel)
		}
		g, known, err := c.Ground()
		if err != nil || !known || math.Abs(g.Camera-v.height) > 0.01*v.height || math.Abs(g.Horizon-v.horizon) > 0.01 {
			t.Errorf("%s: %+v, %v; it hangs at %v m, with the horizon at %v", v.channel, g, err, v.height, v.horizon)
		}
	}
	var found []string
	for _, f := range check.Findings(p, estimate.Run(p, nil)) {
		if strings.Contains(f.Path, ".scene") || strings.Contains(f.Path, ".areas") {
			found = append(found, f.Rule+" "+f.Channel)
		}
	}
	if want := []string{"patch-passes breakwater", "first-seconds-lost berth-north"}; !slices.Equal(found, want) {
		t.Errorf("found %q, want %q", found, want)
	}
}
