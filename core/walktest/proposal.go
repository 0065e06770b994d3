package walktest

import (
	"wakefield.example/core/edit"
	"wakefield.example/core/picture"
	"wakefield.example/core/plan"
)

// Proposal are the edits that make the plan say what was found: the plan is wrong, or what stands at the recorder is to be kept.
// There are none where the plan has no setting for it, as of a camera that is turned; that is mended on site.
func Proposal(p *plan.Plan, channel string, found Case) []edit.Edit {
	c := p.Channel(channel)
	if c == nil {
		return nil
	}
	ids, d := []string{channel}, c.Detection
	detection := func() []edit.Edit {
		return []edit.Edit{{SetDetection: &edit.SetDetection{Channels: ids, Detection: d}}}
	}
	switch found.Fault {
	case Off:
		d.On = false
		return detection()
	case Untied:
		no := false
		d.RecordsSelf = &no
		return detection()
	case Wait:
		more := found.Value - leastSeconds(c)
		d.MinSeconds = max(0, round(d.MinSeconds+more, 0.1))
		if d.Drawn() {
			areas := *d.Areas
			areas.List = waiting(areas.List, more)
			d.Areas = &areas
		}
		return detection()
	case NoAreas:
		d.Areas = nil
		return detection()
	case Size:
		if !d.Drawn() {
			return nil
		}
		areas := *d.Areas
		areas.List = scaled(areas.List, found.Value)
		d.Areas = &areas
		return detection()
	case Pre:
		return []edit.Edit{{SetTimes: &edit.SetTimes{Channels: ids, PreSeconds: &found.Value}}}
	case Post:
		return []edit.Edit{{SetTimes: &edit.SetTimes{Channels: ids, PostSeconds: &found.Value}}}
	}
	return nil
}

// waiting are areas that wait for so many seconds more, those that have seconds of their own.
func waiting(list []plan.Area, more float64) []plan.Area {
	out := append([]plan.Area(nil), list...)
	for k := range out {
		if own := out[k].MinSeconds; own != nil {
			seconds := max(0, round(*own+more, 0.1))
			out[k].MinSeconds = &seconds
		}
	}
	return out
}

// scaled are areas of which the smallest size of the most attentive one becomes a share of the picture in %, and the others' in
// proportion.
func scaled(list []plan.Area, percent float64) []plan.Area {
	out := append([]plan.Area(nil), list...)
	least := 0.0
	for k := range list {
		if s := ofPicture(list, k); s > 0 && (least == 0 || s < least) {
			least = s
		}
	}
	for k := range out {
		switch {
		case out[k].Ignore:
		case least == 0:
			out[k].Smallest = &plan.Smallest{Percent: round(percent, 0.01), Of: "picture"}
		case out[k].Smallest != nil:
			s := *out[k].Smallest
			s.Percent = min(100, round(s.Percent*percent/least, 0.001))
			out[k].Smallest = &s
		}
	}
	return out
}

// ofPicture is the smallest size of a watched area, in % of the picture; 0 where there is none.
func ofPicture(list []plan.Area, k int) float64 {
	a := &list[k]
	if a.Ignore || a.Smallest == nil {
		return 0
	}
	if a.Smallest.Of != "area" {
		return a.Smallest.Percent
	}
	var ignored []picture.Shape
	for i := range list {
		if list[i].Ignore {
			ignored = append(ignored, list[i].Shape())
		}
	}
	return a.Smallest.Percent * picture.NewRegion(a.Shape(), ignored).Area()
}
