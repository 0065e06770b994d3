package solve

import (
	"math"
	"slices"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/storage"
)

// loneOptions are changes of channel i that are offered one by one: a better codec and fewer keyframes, which the camera has to be
// able to do; and footage that goes when it is as old as is required.
func (p *Prepared) loneOptions(i int) (out []option) {
	c := &p.plan.Channels[i]
	main := c.Streams.Main
	stream := func(words string, change func(*plan.Stream)) {
		next := *main
		change(&next)
		out = append(out, option{
			words:  words,
			edits:  []edit.Edit{{SetStream: &edit.SetStream{Channels: []string{c.ID}, Stream: plan.Main, Settings: &next}}},
			change: func(c *plan.Channel) { c.Streams.Main = &next },
		})
	}
	if main != nil && main.Rate.Kind == "modelled" {
		if main.Codec == "h264" || main.Codec == "mjpeg" {
			stream("H.265 instead of "+plan.Codecs.Name(main.Codec)+", where camera and recorder can", func(s *plan.Stream) { s.Codec = "h265" })
		}
		if main.GOPSeconds < 8 && main.Codec != "mjpeg" {
			longer := 2 * main.GOPSeconds
			stream(plan.Say("a keyframe every %v s instead of %v, where the camera can", longer,
				main.GOPSeconds), func(s *plan.Stream) { s.GOPSeconds = longer })
		}
	}
	now := p.site.Channels[i].RetentionDays
	if least := c.Keep.AtLeastDays; least > 0 && (now == nil || *now > least+1) && (c.Keep.AtMostDays == 0 || c.Keep.AtMostDays > least+1) {
		keep := c.Keep
		keep.AtMostDays = math.Ceil(least)
		out = append(out, option{
			words: plan.Say("deleted after %v days, the days required", keep.AtMostDays),
			edits: []edit.Edit{{SetKeep: &edit.SetKeep{Channels: []string{c.ID}, Keep: keep}}},
			keep:  &keep,
		})
	}
	return out
}

// masks are patches of channel i that detection does not watch any more. Each takes an estimate of the plan, as what a
// camera notices is at stake; channels whose motion records others are left out, as those would write less too.
func (p *Prepared) masks(i int) (out []Choice) {
	c := &p.plan.Channels[i]
	if c.Scene == nil || c.Detection.Areas == nil || c.Detection.Areas.Count != nil || len(c.Detection.Areas.List) == 0 ||
		slices.ContainsFunc(p.plan.Effects, func(e plan.Effect) bool { return e.When.Motion == c.ID }) {
		return nil
	}
	for _, patch := range c.Scene.Patches {
		id := "mask-" + patch.ID
		if c.Detection.Area(id) != nil || len(out) == mostMasks {
			continue
		}
		mask := plan.Area{ID: id, Name: patch.Name + ", ignored", Ignore: true, Points: patch.Points}
		choice := Choice{Words: []string{patch.Name + " ignored"}, Edits: []edit.Edit{{SetArea: &edit.SetArea{Channel: c.ID, Area: mask}}},
			alone: true}
		next, err := edit.After(p.plan, choice.Edits...)
		if err != nil {
			continue // there is no room for another area, say
		}
		figures := &estimate.Figures(next, p.site).Channels[i]
		choice.Daily, choice.evidence = storage.Bytes(figures.GigabytesPerDay)*storage.GB, figures.Evidence
		out = append(out, choice)
	}
	return out
}

// mostMasks of a channel are tried.
const mostMasks = 4
