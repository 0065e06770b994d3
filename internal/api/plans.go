package api

import (
	"bytes"
	"context"
	"encoding/json"
	"net/http"
	"strings"
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/internal/server"

	"github.com/danielgtaylor/huma/v2"
)

// registerPlans adds plans as they stand.
func registerPlans(api huma.API, s *service) {
	huma.Register(api, answering[View](api, op("getPlan", http.MethodGet, "/api/plans/{id}", "A plan with its figures")), s.get)
	huma.Register(api, op("exportPlan", http.MethodGet, "/api/plans/{id}/file", "The plan file"), s.export)
	huma.Register(api, op("planVersion", http.MethodGet, "/api/plans/{id}/version", "The newest version of a plan"), s.version)
	huma.Register(api, op("uses", http.MethodGet, "/api/plans/{id}/uses", "Where a plan names a thing"), s.uses)
	huma.Register(api, op("freeIDs", http.MethodPost, "/api/plans/{id}/ids", "Ids for new things, made of their names"), s.freeIDs)
}

func (s *service) uses(ctx context.Context, in *struct {
	PlanParam
	Kind  string `query:"kind" maxLength:"100" doc:"What it is, such as duty, week, activity, channel"`
	Thing string `query:"thing" maxLength:"300" doc:"Its id"`
}) (*body[[]plan.Use], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	return &body[[]plan.Use]{e.head.Plan.Uses(in.Kind, in.Thing)}, nil
}

// FreeIDs are ids that nothing of the plan has.
type FreeIDs struct {
	IDs []string `json:"ids" doc:"One for each name, in order"`
}

func (s *service) freeIDs(ctx context.Context, in *struct {
	PlanParam
	Body struct {
		Kind  string   `json:"kind" maxLength:"100" doc:"What the things are, such as duty, week, activity"`
		Names []string `json:"names" minItems:"1" maxItems:"5000"`
	}
}) (*body[FreeIDs], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	return &body[FreeIDs]{FreeIDs{e.head.Plan.FreeIDs(in.Body.Kind, in.Body.Names...)}}, nil
}

// export writes the plan as a file.
func (s *service) export(ctx context.Context, in *PlanParam) (*file, error) {
	out, err := server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) (*file, error) {
		data, p, err := s.planFile(ctx, in.ID)
		return &file{"application/json", attached(p, "plan", "json", time.Now()), data}, err
	})
	return out, s.problem(ctx, err)
}

// planFile is a plan as a file, and the pictures that it names. One that this program cannot read is written as it is
// stored.
func (s *service) planFile(ctx context.Context, id string) (data []byte, p *plan.Plan, err error) {
	unread := &plan.Plan{Site: plan.Site{Name: id}}
	document, err := s.store.Export(ctx, id)
	if err != nil {
		return nil, unread, err
	}
	p, err = plan.Restore(document)
	if err != nil {
		var raw bytes.Buffer
		err := json.Indent(&raw, document, "", "  ")
		return raw.Bytes(), unread, err
	}
	data, err = p.Write()
	return data, p, err
}

type getRequest struct {
	PlanParam
	Accepted string `header:"Accept-Encoding" hidden:"true"`
}

func (s *service) get(ctx context.Context, in *getRequest) (*written, error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	data, encoding, err := e.view(strings.Contains(in.Accepted, "gzip"))
	return &written{"application/json", encoding, "Accept-Encoding", data}, s.problem(ctx, err)
}
