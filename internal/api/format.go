package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/plan"
	"wakefield.example/core/quantity"
	"wakefield.example/core/video"
	"wakefield.example/internal/release"
)

// registerFormat adds what does not depend on any plan.
func registerFormat(api huma.API, s *service) {
	huma.Register(api, op("format", http.MethodGet, "/api/format", "The values and limits of the members of a plan"), s.format)
	huma.Register(api, op("beginnings", http.MethodGet, "/api/beginnings", "What a new plan can begin with"), s.beginnings)
}

// PlanFormat is what may be written in a plan, by the names that people have for it.
type PlanFormat struct {
	Version string                        `json:"version" doc:"Of the program"`
	Choices plan.AllChoices               `json:"choices"`
	Limits  map[string]plan.Limits        `json:"limits" doc:"Of members that are numbers or texts, by their path, such as channels.preSeconds"`
	Units   map[string]map[string]float64 `json:"units" doc:"Units that may stand behind a number, in small letters, by the unit that is wanted: what one of them is"`
}

func (s *service) format(context.Context, *struct{}) (*body[PlanFormat], error) {
	return &body[PlanFormat]{PlanFormat{release.Version, plan.Every, plan.AllLimits(), quantity.Units}}, nil
}

// Beginnings are what a new plan can begin with.
type Beginnings struct {
	Duties     []plan.Duty      `json:"duties" doc:"Ready-made duties"`
	Activities []plan.Activity  `json:"activities" doc:"Activities of invented places"`
	Scenes     []string         `json:"scenes" doc:"Ids of those that a camera can look at"`
	Pictures   []plan.SceneKind `json:"pictures" doc:"Kinds of scenes to begin a picture with"`
	Model      ModelTable       `json:"model"`
}

// ModelTable is the table behind modelled bitrates.
type ModelTable struct {
	BitsPerPixel float64                 `json:"bitsPerPixel" doc:"Of an H.264 keyframe at quality 3"`
	Step         float64                 `json:"step" doc:"Factor between neighbouring qualities"`
	Codec        map[video.Codec]float64 `json:"codec" doc:"Factor of each codec"`
	Ratio        map[video.Scene]float64 `json:"ratio" doc:"Size of a keyframe over that of a following frame at 15 frames a second"`
	Adaptive     AdaptiveTable           `json:"adaptive" doc:"Of adaptive encoders while nothing moves"`
}

// AdaptiveTable is what adaptive encoders do while nothing moves.
type AdaptiveTable struct {
	Interval float64 `json:"interval" doc:"Factor of the keyframe interval"`
	Ratio    float64 `json:"ratio" doc:"Size of a keyframe over that of a following frame at 15 frames a second"`
}

func (s *service) beginnings(context.Context, *struct{}) (*body[Beginnings], error) {
	m := video.Model
	return &body[Beginnings]{Beginnings{plan.ReadyMade(), plan.ActivityTemplates(), plan.SceneTemplates(), plan.SceneKinds(),
		ModelTable{m.BitsPerPixel, m.Step, m.Codec, m.Ratio, AdaptiveTable(m.Adaptive)}}}, nil
}
