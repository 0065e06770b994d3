package api

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"net/http"
	"net/url"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/handover"
	"wakefield.example/core/walktest"
	"wakefield.example/internal/papers"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
	"wakefield.example/web"
)

// registerWalkTest adds what is walked and tried on site: what a phone takes along, and what it brings back.
func registerWalkTest(api huma.API, s *service) {
	huma.Register(api, op("walkTest", http.MethodGet, "/api/plans/{id}/walk-test", "What a phone takes along to the site"), s.walkTest)
	huma.Register(api, op("walked", http.MethodGet, "/api/plans/{id}/walked", "What was seen on site, held against the plan"), s.walked)
	huma.Register(api, op("keepWalked", http.MethodPost, "/api/plans/{id}/walked", "Keep what was seen and decided on site"), s.keepWalked)
	huma.Register(api, op("walkCode", http.MethodGet, "/api/plans/{id}/walk-code", "A code that opens the walk test on a phone"), s.walkCode)
}

// WalkRecorder is a recorder as a phone needs it.
type WalkRecorder struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// WalkLook is where on a sheet something is set.
type WalkLook struct {
	Channel string         `json:"channel" doc:"Id"`
	Fault   walktest.Fault `json:"fault"`
	Step    string         `json:"step" doc:"Id of the step of its recorder's sheet"`
}

// WalkFault is a fault as it is called.
type WalkFault struct {
	Fault walktest.Fault `json:"fault"`
	Name  string         `json:"name"`
}

// WalkTest is what a phone takes along: the plan as its recorders take it, as walks and trials.
type WalkTest struct {
	Plan         string            `json:"plan" doc:"Id"`
	Version      int64             `json:"version"`
	Mark         string            `json:"mark"`
	Page         string            `json:"page" doc:"Which page for phones belongs to this server"`
	Site         string            `json:"site" doc:"Name"`
	Variant      string            `json:"variant" doc:"Name"`
	TimeZone     string            `json:"timeZone" doc:"IANA"`
	Cameras      []walktest.Camera `json:"cameras"`
	Trials       []walktest.Trial  `json:"trials"`
	Recorders    []WalkRecorder    `json:"recorders"`
	Looks        []WalkLook        `json:"looks"`
	Faults       []WalkFault       `json:"faults" doc:"In the order in which chances of them are added up"`
	Told         float64           `json:"told" doc:"Chance above which a fault is told"`
	Records      []walktest.Record `json:"records" doc:"What was seen until now, by everybody, oldest first"`
	PictureBytes int64             `json:"pictureBytes" doc:"Of all its snapshots together"`
	Now          time.Time         `json:"now" doc:"By the server's clock"`
}

// walkPlan is what the walk test of a plan is made of, and what was seen of it.
func (s *service) walkPlan(ctx context.Context, id string) (e entry, src *papers.Source, cameras []walktest.Camera,
	records []walktest.Record,
	err error) {
	if e, src, err = s.sourceOf(ctx, id); err != nil {
		return e, src, nil, nil, err
	}
	cameras, err = server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) ([]walktest.Camera,
		error) {
		return walktest.Of(ctx, src.Entered.Plan)
	})
	if err != nil {
		return e, src, nil, nil, err
	}
	records, err = s.recordsOf(ctx, id)
	return e, src, cameras, records, err
}

func (s *service) walkTest(ctx context.Context, in *PlanParam) (*body[WalkTest], error) {
	e, src, cameras, records, err := s.walkPlan(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	p := src.Entered.Plan
	out := WalkTest{Plan: in.ID, Version: e.head.Version, Mark: e.head.Mark, Page: web.WalkPage(), Site: p.Site.Name,
		Variant:  e.head.Plan.Name,
		TimeZone: p.Site.TimeZone, Cameras: cameras, Trials: walktest.Trials(p), Recorders: []WalkRecorder{}, Looks: []WalkLook{},
		Faults: []WalkFault{}, Told: walktest.Told, Records: records, Now: time.Now()}
	for i := range p.Recorders {
		out.Recorders = append(out.Recorders, WalkRecorder{p.Recorders[i].ID, p.Recorders[i].Name})
	}
	for _, f := range walktest.Priors {
		out.Faults = append(out.Faults, WalkFault{f.Fault, f.Name})
	}
	out.Looks = append(out.Looks, looks(src.Document(), cameras)...)
	if out.PictureBytes, err = s.store.PictureBytes(ctx, in.ID, p.Pictures()); err != nil {
		return nil, s.problem(ctx, err)
	}
	return &body[WalkTest]{out}, nil
}

// looks are the steps of the sheets at which what may be wrong is set.
func looks(doc handover.Document, cameras []walktest.Camera) (out []WalkLook) {
	for i := range doc.Recorders {
		sheet := &doc.Recorders[i]
		for k := range cameras {
			if cameras[k].Recorder != sheet.ID {
				continue
			}
			for _, f := range walktest.Priors {
				if step := walktest.Look(sheet, cameras[k].Channel, f.Fault); step != "" {
					out = append(out, WalkLook{cameras[k].Channel, f.Fault, step})
				}
			}
		}
	}
	return out
}

// WalkReport is how far the walk test is.
type WalkReport struct {
	Version int64 `json:"version" doc:"Of the plan"`
	walktest.Report
	Address string `json:"address" doc:"Path of the page for phones"`
}

func (s *service) walked(ctx context.Context, in *PlanParam) (*body[WalkReport], error) {
	e, src, cameras, records, err := s.walkPlan(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	report, err := server.Heavily(ctx, s.slots.Heavy, func(context.Context) (walktest.Report, error) {
		return s.reported(e, src, cameras, records), nil
	})
	return &body[WalkReport]{WalkReport{e.head.Version, report, walkPath(in.ID)}}, s.problem(ctx, err)
}

// walkedBeside is the report of a plan, for papers.
func (s *service) walkedBeside(ctx context.Context, id string) (*walktest.Report, error) {
	e, src, cameras, records, err := s.walkPlan(ctx, id)
	if err != nil {
		return nil, err
	}
	report := s.reported(e, src, cameras, records)
	return &report, nil
}

// reported is a report with the steps where to look. Proposals are changes of the plan, not of what its recorders take.
func (s *service) reported(e entry, src *papers.Source, cameras []walktest.Camera, records []walktest.Record) walktest.Report {
	report := walktest.Reported(e.head.Plan, cameras, walktest.Trials(src.Entered.Plan), records, thisMinute(e))
	doc := src.Document()
	for i := range report.Cameras {
		c := &report.Cameras[i]
		k := slices.IndexFunc(doc.Recorders, func(r handover.Sheet) bool { return r.ID == c.Recorder })
		if k >= 0 && len(c.Likely) > 0 {
			c.Look = walktest.Look(&doc.Recorders[k], c.Channel, c.Likely[0].Fault)
		}
	}
	return report
}

// recordsOf are what was noted of a plan.
func (s *service) recordsOf(ctx context.Context, id string) ([]walktest.Record, error) {
	list, err := s.store.WalkedOf(ctx, id)
	if err != nil {
		return nil, err
	}
	out := make([]walktest.Record, 0, len(list))
	for _, w := range list {
		r := walktest.Record{ID: w.ID, About: w.About, Revision: w.Revision, By: w.NotedBy, Author: w.Author, At: w.At, Clock: w.Clock}
		if err := json.Unmarshal(w.Said, &r.Said); err != nil {
			return nil, fmt.Errorf("what was noted as %s cannot be read: %w", w.ID, err)
		}
		out = append(out, r)
	}
	return out, nil
}

// Noted is a record as a phone sends it.
type Noted struct {
	walktest.Record
	AgeSeconds float64 `json:"ageSeconds" minimum:"0" maximum:"400000000" doc:"How long ago it was noted, by the clock that it names"`
}

// RefusedRecord is one that is not kept, and why. The phone keeps it.
type RefusedRecord struct {
	ID  string `json:"id"`
	Why string `json:"why"`
}

// KeptRecords says what became of records.
type KeptRecords struct {
	Kept    []string        `json:"kept" doc:"Ids of those that are kept now, or were before"`
	Refused []RefusedRecord `json:"refused"`
	Version int64           `json:"version" doc:"Of the plan now"`
	Page    string          `json:"page" doc:"Which page for phones belongs to this server"`
	Now     time.Time       `json:"now"`
}

func (s *service) keepWalked(ctx context.Context, in *struct {
	PlanParam
	SentBy
	Body struct {
		Records []Noted `json:"records" minItems:"1" maxItems:"500"`
	}
}) (*body[KeptRecords], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	now, author := time.Now(), in.note("").Author
	out := KeptRecords{Kept: []string{}, Refused: []RefusedRecord{}, Version: e.head.Version, Page: web.WalkPage(), Now: now}
	var list []store.Walked
	for i := range in.Body.Records {
		r := &in.Body.Records[i]
		kind := r.Kind()
		if kind == "" {
			out.Refused = append(out.Refused, RefusedRecord{r.ID, "It says nothing, or several things at once."})
			continue
		}
		said, err := json.Marshal(r.Said)
		if err != nil {
			return nil, s.problem(ctx, err)
		}
		by := r.By
		if by == "" {
			by = author
		}
		list = append(list, store.Walked{ID: r.ID, Kind: kind, About: r.About, Said: said, Revision: r.Revision, NotedBy: by, Author: author,
			At: now.Add(-time.Duration(math.Round(r.AgeSeconds*1000)) * time.Millisecond), Clock: r.Clock})
	}
	others, err := s.store.KeepWalked(ctx, e.head.Site, in.ID, list)
	if errors.Is(err, store.ErrManyTicks) {
		return nil,
			huma.Error422UnprocessableEntity(fmt.Sprintf("A plan keeps %d of these at most. Nothing was kept here; the phone has it still.",
				store.MostWalked))
	}
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	for _, w := range list {
		if slices.Contains(others, w.ID) {
			out.Refused = append(out.Refused, RefusedRecord{w.ID, "Something else was kept under this id before."})
		} else {
			out.Kept = append(out.Kept, w.ID)
		}
	}
	return &body[KeptRecords]{out}, nil
}

// walkPath is the path of the page for phones.
func walkPath(plan string) string { return "/walk/" + url.PathEscape(plan) }

// Reached is how whoever asks reaches the server.
type Reached struct{ base string }

// Resolve finds the address by which the request came.
func (r *Reached) Resolve(ctx huma.Context) []error {
	scheme := "http"
	if server.Encrypted(ctx.Context()) {
		scheme = "https"
	}
	r.base = scheme + "://" + ctx.Host()
	return nil
}

func (s *service) walkCode(ctx context.Context, in *struct {
	PlanParam
	Reached
}) (*picture, error) {
	if _, err := s.current(ctx, in.ID); err != nil {
		return nil, s.problem(ctx, err)
	}
	code, err := papers.Code(in.base + walkPath(in.ID))
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	return &picture{"image/png", "private, no-cache", "", code}, nil
}
