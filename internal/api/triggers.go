package api

import (
	"context"
	"net/http"
	"slices"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/internal/server"
)

// registerTriggers adds what is asked of what cameras notice.
func registerTriggers(api huma.API, s *service) {
	huma.Register(api, op("triggers", http.MethodGet, "/api/plans/{id}/triggers", "What share of its wanted events each channel catches"),
		s.triggers)
	huma.Register(api, op("course", http.MethodGet, "/api/plans/{id}/channels/{channel}/course",
		"The course of a channel's events, by hour of the week too"), s.course)
	huma.Register(api, op("patchCost", http.MethodGet, "/api/plans/{id}/channels/{channel}/patches/{patch}/cost",
		"What moves in a patch costs, as it is and otherwise"), s.patchCost)
	huma.Register(api, op("picture", http.MethodPost, "/api/plans/{id}/channels/{channel}/picture",
		"What becomes of all that is drawn in a channel's picture"), s.picture)
}

// TriggerLine is what one channel catches.
type TriggerLine struct {
	Channel                string  `json:"channel"`
	HappensPerDay          float64 `json:"happensPerDay" doc:"Wanted events"`
	ArrivesPerDay          float64 `json:"arrivesPerDay" doc:"Of these, those that start a recording"`
	MissedPerDay           float64 `json:"missedPerDay" doc:"Of the wanted events, those of which nothing is kept, by whatever layer"`
	UnwantedTriggersPerDay float64 `json:"unwantedTriggersPerDay" doc:"Recordings that nuisance starts"`
	Why                    string  `json:"why,omitempty" doc:"Why none arrives, in a few words"`
}

func (s *service) triggers(ctx context.Context, in *PlanParam) (*body[[]TriggerLine], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	lines, err := server.Heavily(ctx, s.slots.Edits, func(ctx context.Context) ([]TriggerLine, error) { return triggerLines(e), nil })
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
		line := TriggerLine{Channel: c.ID, HappensPerDay: course.HappensPerDay, MissedPerDay: course.MissedPerDay,
			UnwantedTriggersPerDay: course.UnwantedTriggersPerDay, Why: course.Why()}
		if n := len(course.Gates); n > 0 {
			line.ArrivesPerDay = course.Gates[n-1].PassPerDay
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

	Standing *estimate.Standing `json:"standing,omitempty" doc:"Of what stands there, where something does"`
}

// Stand is an object that is stood in a picture.
type Stand struct {
	Object string     `json:"object" maxLength:"100"`
	Area   string     `json:"area" maxLength:"100" doc:"Id of the area that looks at it"`
	Feet   plan.Point `json:"feet"`
}

func (s *service) picture(ctx context.Context, in *struct {
	PlanParam
	Channel string `path:"channel" maxLength:"300" doc:"Id of the channel"`
	Body    struct {
		Edits []edit.Edit `json:"edits" maxItems:"20" doc:"What is being drawn, and not saved yet"`
		Stand *Stand      `json:"stand,omitempty"`
	}
}) (*body[InPicture], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	drawn, err := server.Heavily(ctx, s.slots.Edits, func(ctx context.Context) (InPicture, error) {
		return drawnIn(ctx, e, in.Channel, in.Body.Edits, in.Body.Stand)
	})
	return &body[InPicture]{drawn}, s.problem(ctx, err)
}

// channelIn is the place of a channel in a plan.
func channelIn(p *plan.Plan, id string) (int, error) {
	at := slices.IndexFunc(p.Channels, func(c plan.Channel) bool { return c.ID == id })
	if at < 0 {
		return 0, huma.Error404NotFound("There is no channel " + id + ".")
	}
	return at, nil
}

func drawnIn(ctx context.Context, e entry, channel string, edits []edit.Edit, stand *Stand) (out InPicture, err error) {
	at, err := channelIn(e.head.Plan, channel)
	if err != nil {
		return out, err
	}
	result := e.site
	if len(edits) > 0 {
		next, err := edit.After(e.head.Plan, edits...)
		if err == nil {
			at, err = channelIn(next, channel) // what is being drawn may have moved it, or taken it away
		}
		if err != nil {
			return out, err
		}
		if result, err = estimate.FiguresContext(ctx, next, e.site); err != nil {
			return out, err
		}
	}
	out = InPicture{Version: e.head.Version, Sight: result.SightOf(at), Course: result.CourseOf(at)}
	if stand != nil {
		out.Standing, err = result.StandIn(at, stand.Area, stand.Object, stand.Feet)
	}
	return out, err
}

// ChannelParam names a channel of a plan in the path.
type ChannelParam struct {
	PlanParam
	Channel string `path:"channel" maxLength:"300" doc:"Id of the channel"`
}

func (s *service) course(ctx context.Context, in *ChannelParam) (*body[estimate.Course], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	at, err := channelIn(e.head.Plan, in.Channel)
	if err != nil {
		return nil, err
	}
	return &body[estimate.Course]{e.site.CourseByHour(at)}, nil
}

// PatchCost is what a patch costs.
type PatchCost struct {
	Now      PatchFigures  `json:"now"`
	Without  PatchFigures  `json:"without" doc:"Were there no movement, or all of it ignored"`
	Unmasked *PatchFigures `json:"unmasked,omitempty" doc:"Were no area ignored; absent where none is"`
}

// PatchFigures are the figures of a channel as a patch leaves them.
type PatchFigures struct {
	TriggersPerDay float64  `json:"triggersPerDay" doc:"Of the patch"`
	GBPerDay       float64  `json:"gbPerDay" doc:"Of the channel"`
	KeptDays       *float64 `json:"keptDays" required:"true" doc:"Of the channel; null where nothing takes its footage away"`
}

func (s *service) patchCost(ctx context.Context, in *struct {
	ChannelParam
	Patch string `path:"patch" maxLength:"300" doc:"Id of the patch"`
}) (*body[PatchCost], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	cost, err := server.Heavily(ctx, s.slots.Edits, func(ctx context.Context) (PatchCost, error) {
		return patchCost(ctx, e, in.Channel, in.Patch)
	})
	return &body[PatchCost]{cost}, s.problem(ctx, err)
}

func patchCost(ctx context.Context, e entry, channel, patch string) (out PatchCost, err error) {
	p := e.head.Plan
	at, err := channelIn(p, channel)
	if err != nil {
		return out, err
	}
	figures := func(result *estimate.Result) PatchFigures {
		c := result.Channels[at]
		f := PatchFigures{GBPerDay: c.GigabytesPerDay, KeptDays: c.RetentionDays}
		for _, seen := range result.SightOf(at).Patches {
			if seen.ID == patch {
				f.TriggersPerDay = seen.TriggersPerDay
			}
		}
		return f
	}
	after := func(edits ...edit.Edit) (PatchFigures, error) {
		next, err := edit.After(p, edits...)
		if err != nil {
			return PatchFigures{}, err
		}
		result, err := estimate.FiguresContext(ctx, next, e.site)
		if err != nil {
			return PatchFigures{}, err
		}
		return figures(result), nil
	}
	out.Now = figures(e.site)
	if out.Without, err = after(edit.Edit{RemovePatch: &edit.RemovePatch{Channel: channel, Patch: patch}}); err != nil {
		return out, huma.Error404NotFound("There is no patch " + patch + " on that channel.")
	}
	var open []edit.Edit
	for _, a := range p.Channels[at].Detection.List() {
		if a.Ignore {
			open = append(open, edit.Edit{RemoveArea: &edit.RemoveArea{Channel: channel, Area: a.ID}})
		}
	}
	if open != nil && len(open) < len(p.Channels[at].Detection.List()) {
		unmasked, err := after(open...)
		if err != nil {
			return out, err
		}
		out.Unmasked = &unmasked
	}
	return out, nil
}
