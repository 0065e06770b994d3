package server

import (
	"context"
	"net/http"
	"slices"

	"github.com/danielgtaylor/huma/v2"

	"wakefield/core/edit"
	"wakefield/core/estimate"
	"wakefield/core/plan"
)

// registerTriggers adds what is asked of what cameras notice.
func registerTriggers(api huma.API, s *service) {
	huma.Register(api, op("triggers", http.MethodGet, "/api/plans/{id}/triggers", "What share of its wanted events each channel catches"), s.triggers)
	huma.Register(api, op("picture", http.MethodPost, "/api/plans/{id}/channels/{channel}/picture", "What becomes of all that is drawn in a channel's picture"), s.picture)
}

// TriggerLine is what one channel catches.
type TriggerLine struct {
	Channel  string  `json:"channel"`
	Happens  float64 `json:"happensPerDay" doc:"Wanted events"`
	Arrives  float64 `json:"arrivesPerDay" doc:"Of these, those that start a recording"`
	Missed   float64 `json:"missedPerDay" doc:"Of the wanted events, those of which nothing is kept, by whatever layer"`
	Unwanted float64 `json:"unwantedTriggersPerDay" doc:"Recordings that nuisance starts"`
	Why      string  `json:"why,omitempty" doc:"Why none arrives, in a few words"`
}

func (s *service) triggers(ctx context.Context, in *PlanParam) (*body[[]TriggerLine], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	lines, err := heavily(ctx, s.heavy.edits, func() ([]TriggerLine, error) { return triggerLines(e), nil })
	return &body[[]TriggerLine]{lines}, s.problem(ctx, err)
}

func triggerLines(e entry) []TriggerLine {
	out := []TriggerLine{}
	for i := range e.head.Plan.Channels {
		c := &e.head.Plan.Channels[i]
		if c.NoCamera {
			continue
		}
		course := e.site.CourseOf(i)
		line := TriggerLine{Channel: c.ID, Happens: course.HappensPerDay, Missed: course.Missed, Unwanted: course.Unwanted, Why: course.Why()}
		if n := len(course.Gates); n > 0 {
			line.Arrives = course.Gates[n-1].Pass
		}
		if n, known := c.Detection.Counted(); line.Why != "" && c.Detection.On && known && n == 0 {
			line.Why = "no area drawn"
		}
		out = append(out, line)
	}
	return out
}

// InPicture is what becomes of what is drawn in a picture.
type InPicture struct {
	Version int64           `json:"version" doc:"Of the plan"`
	Sight   estimate.Sight  `json:"sight"`
	Course  estimate.Course `json:"course"`
}

func (s *service) picture(ctx context.Context, in *struct {
	PlanParam
	Channel string `path:"channel" maxLength:"300" doc:"Id of the channel"`
	Body    struct {
		Edits []edit.Edit `json:"edits" maxItems:"20" doc:"What is being drawn, and not kept yet"`
	}
}) (*body[InPicture], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	drawn, err := heavily(ctx, s.heavy.edits, func() (InPicture, error) { return drawnIn(ctx, e, in.Channel, in.Body.Edits) })
	return &body[InPicture]{drawn}, s.problem(ctx, err)
}

func drawnIn(ctx context.Context, e entry, channel string, edits []edit.Edit) (InPicture, error) {
	at := slices.IndexFunc(e.head.Plan.Channels, func(c plan.Channel) bool { return c.ID == channel })
	if at < 0 {
		return InPicture{}, huma.Error404NotFound("There is no channel " + channel + ".")
	}
	result := e.site
	if len(edits) > 0 {
		next, err := edit.After(e.head.Plan, edits...)
		if err != nil {
			return InPicture{}, err
		}
		if result, err = estimate.FiguresContext(ctx, next, e.site); err != nil {
			return InPicture{}, err
		}
	}
	return InPicture{Version: e.head.Version, Sight: result.SightOf(at), Course: result.CourseOf(at)}, nil
}
