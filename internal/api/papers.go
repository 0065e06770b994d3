package api

import (
	"bytes"
	"context"
	"fmt"
	"image"
	"image/png"
	"net/http"
	"strconv"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/walktest"
	"wakefield.example/core/week"
	"wakefield.example/internal/papers"
	"wakefield.example/internal/server"
	"wakefield.example/internal/stills"
	"wakefield.example/internal/store"
)

// registerPapers adds what is handed over on paper, and the company that hands it over.
func registerPapers(api huma.API, s *service) {
	huma.Register(api, op("paper", http.MethodGet, "/api/plans/{id}/papers/{paper}", "A paper as it is printed, or the sheet as a workbook"),
		s.paper)
	huma.Register(api, op("papers", http.MethodGet, "/api/plans/{id}/papers", "All papers in one archive, each as it is done"), s.papers)
	huma.Register(api, op("company", http.MethodGet, "/api/company", "The installer's company"), s.company)
	huma.Register(api, op("nameCompany", http.MethodPut, "/api/company", "Name the installer's company"), s.nameCompany)
	huma.Register(api, op("logo", http.MethodGet, "/api/company/logo", "The company's logo"), s.logo)
	huma.Register(api, fileOp(op("setLogo", http.MethodPut, "/api/company/logo", "Set the company's logo"),
		stills.LargestBytes+server.SmallBody),
		s.setLogo)
	huma.Register(api, op("removeLogo", http.MethodDelete, "/api/company/logo", "Take the company's logo away"), s.removeLogo)
}

type sourceKey struct {
	plan string
	at   store.Stamp
	on   week.Date
}

type printedKey struct {
	plan, mark string
	revision   int64
}

// mostSources of each are remembered: as many as a few people work on.
const mostSources = 6

// sourceOf is what papers of a plan are made of, as it stands, today by the clocks of the site.
func (s *service) sourceOf(ctx context.Context, id string) (entry, *papers.Source, error) {
	e, err := s.current(ctx, id)
	if err != nil {
		return e, nil, err
	}
	on := today(e)
	key := sourceKey{id, e.head.Stamp(), on}
	if src, ok := s.sources.Get(key); ok {
		return e, src, nil
	}
	src, err := server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) (*papers.Source, error) {
		last, _ := s.sources.Newest(func(k sourceKey) bool { return k.plan == id })
		src, err := papers.New(ctx, e.head.Plan, e.site, e.found, on, last)
		if err == nil {
			src.Revision = e.head.Version
		}
		return src, err
	})
	if err != nil {
		return e, nil, err
	}
	s.sources.Put(key, src)
	return e, src, nil
}

// today is the date on the clocks of a site.
func today(e entry) week.Date {
	now := time.Now()
	if zone, err := time.LoadLocation(e.head.Plan.Site.TimeZone); err == nil {
		now = now.In(zone)
	}
	return week.Date{Year: now.Year(), Month: now.Month(), Day: now.Day()}
}

// thisMinute is the moment of the week on the clocks of a site.
func thisMinute(e entry) week.Minute {
	now := time.Now()
	if zone, err := time.LoadLocation(e.head.Plan.Site.TimeZone); err == nil {
		now = now.In(zone)
	}
	return today(e).Weekday().Start() + week.Minute(60*now.Hour()+now.Minute())
}

// dressed is a source with the company and the pictures of cameras.
func (s *service) dressed(ctx context.Context, src *papers.Source, planID string, walked *walktest.Report,
	base string) (*papers.Source, error) {
	out := *src
	out.Walked = walked
	if base != "" {
		out.Phone = base + walkPath(planID)
	}
	company, err := s.store.Company(ctx)
	if err != nil {
		return nil, err
	}
	out.Company = papers.Company{Name: company.Name, Logo: company.Logo}
	named := src.Plan.Pictures()
	if walked != nil {
		named = append(named, walked.Photos()...)
	}
	size, err := s.store.PictureBytes(ctx, planID, named)
	if err != nil {
		return nil, err
	}
	if size > mostPaperPictures {
		return &out, nil // areas are drawn on white
	}
	list, err := s.store.Pictures(ctx, planID, named)
	if err != nil {
		return nil, err
	}
	by := make(map[string][]byte, len(list))
	for _, p := range list {
		by[p.ID] = p.JPEG
	}
	out.Picture = func(id string) []byte { return by[id] }
	return &out, nil
}

// mostPaperPictures is how many bytes of pictures papers have in them.
const mostPaperPictures = 48 << 20

// PaperParam says how papers are made.
type PaperParam struct {
	PlanParam
	Size string `query:"size" enum:"a4,letter" default:"a4" doc:"Of the paper"`
	Reached
	Recorder []string `query:"recorder,explode" maxItems:"500" doc:"Ids of recorders; all where none is named"`
}

func (s *service) paper(ctx context.Context, in *struct {
	PaperParam
	Paper string `path:"paper" enum:"customer,sheet,evidence,walk-test,walked,workbook,steps"`
	Keep  bool   `query:"keep" doc:"Whether a browser keeps it as a file rather than showing it"`
}) (*file, error) {
	e, src, err := s.sourceOf(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	for _, id := range in.Recorder {
		if e.head.Plan.Recorder(id) == nil {
			return nil, huma.Error404NotFound("There is no such recorder in the plan any more.")
		}
	}
	var walked *walktest.Report
	if in.Paper == string(papers.Walked) {
		if walked, err = s.walkedBeside(ctx, in.ID); err != nil {
			return nil, s.problem(ctx, err)
		}
	}
	out, err := server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) (*file, error) {
		src, err := s.dressed(ctx, src, in.ID, walked, in.base)
		if err != nil {
			return nil, err
		}
		switch in.Paper {
		case "workbook":
			data, err := src.Workbook(in.Recorder...)
			return &file{"application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", attached(e.head.Plan, "sheet", "xlsx", time.Now()),
				data}, err
		case "steps":
			data, err := src.StepsFile(in.Recorder...)
			return &file{"application/json", attached(e.head.Plan, "steps", "json", time.Now()), data}, err
		}
		data, err := src.PDF(papers.Paper(in.Paper), papers.Size(in.Size), in.Recorder...)
		named := "inline"
		if in.Keep {
			named = attached(e.head.Plan, papers.All.Name(in.Paper), "pdf", time.Now())
		}
		return &file{"application/pdf", named, data}, err
	})
	return out, s.problem(ctx, err)
}

// papers sends an archive with all papers, and how many there are in its header: a client sees each as it arrives.
func (s *service) papers(ctx context.Context, in *PaperParam) (*huma.StreamResponse, error) {
	e, src, err := s.sourceOf(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	for _, id := range in.Recorder {
		if e.head.Plan.Recorder(id) == nil {
			return nil, huma.Error404NotFound("There is no such recorder in the plan any more.")
		}
	}
	walked, err := s.walkedBeside(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	src, err = s.dressed(ctx, src, in.ID, walked, in.base)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	return &huma.StreamResponse{Body: func(hc huma.Context) {
		hc.SetHeader("Content-Type", "application/zip")
		hc.SetHeader("Content-Disposition", attached(e.head.Plan, "papers", "zip", time.Now()))
		hc.SetHeader("Wakefield-Papers", strconv.Itoa(len(src.Names(in.Recorder...))))
		w := hc.BodyWriter()
		_, err := server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) (struct{}, error) {
			return struct{}{}, src.Zip(ctx, w, papers.Size(in.Size), in.Recorder)
		})
		if err != nil && ctx.Err() == nil {
			// What was sent ends without its table of contents, which no program takes for an archive.
			s.log.ErrorContext(ctx, "papers", "id", server.RequestID(ctx), "cause", err)
		}
	}}, nil
}

// CompanyOf is the installer's company.
type CompanyOf struct {
	Name string `json:"name" maxLength:"200" doc:"As it stands at the head of papers; empty for none"`
	Logo bool   `json:"logo,omitempty" doc:"Whether there is a logo"`
}

func (s *service) company(ctx context.Context, _ *struct{}) (*body[CompanyOf], error) {
	c, err := s.store.Company(ctx)
	return &body[CompanyOf]{CompanyOf{c.Name, c.Logo != nil}}, s.problem(ctx, err)
}

func (s *service) nameCompany(ctx context.Context, in *struct {
	Body struct {
		Name string `json:"name" maxLength:"200"`
	}
}) (*body[CompanyOf], error) {
	if !server.IsText(in.Body.Name) {
		return nil, huma.Error422UnprocessableEntity("The name is no text.",
			&huma.ErrorDetail{Location: "body.name", Message: "has a control character in it"})
	}
	if err := s.store.NameCompany(ctx, in.Body.Name); err != nil {
		return nil, s.problem(ctx, err)
	}
	return s.company(ctx, nil)
}

func (s *service) logo(ctx context.Context, _ *struct{}) (*picture, error) {
	c, err := s.store.Company(ctx)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	if c.Logo == nil {
		return nil, huma.Error404NotFound("There is no logo.")
	}
	return &picture{"image/png", "no-cache", "", c.Logo}, nil
}

// largestLogo is how many pixels a logo has at most each way: on paper it is 42 mm wide.
const largestLogo = 1600

func (s *service) setLogo(ctx context.Context, in *struct {
	RawBody []byte `contentType:"application/octet-stream"`
}) (*body[CompanyOf], error) {
	data, err := reading(ctx, s, func(ctx context.Context) ([]byte, error) {
		release, err := server.WaitFor(ctx, s.slots.Pictures, min(stills.Decoded(in.RawBody), server.PictureBytes))
		if err != nil {
			return nil, err
		}
		defer release()
		return takeLogo(in.RawBody)
	})
	if err != nil {
		return nil, err
	}
	if err := s.store.SetLogo(ctx, data); err != nil {
		return nil, s.problem(ctx, err)
	}
	return s.company(ctx, nil)
}

// takeLogo is a logo as a PNG that papers can hold, with white where it was transparent.
func takeLogo(data []byte) ([]byte, error) {
	config, _, err := image.DecodeConfig(bytes.NewReader(data))
	if err != nil {
		return nil, fmt.Errorf("the logo is no picture that can be read; PNG and JPEG can")
	}
	if config.Width > largestLogo || config.Height > largestLogo {
		return nil, fmt.Errorf("the logo is %d × %d pixels; at most %d × %d are possible", config.Width, config.Height, largestLogo, largestLogo)
	}
	img, _, err := image.Decode(bytes.NewReader(data))
	if err != nil {
		return nil, fmt.Errorf("the logo cannot be read to its end")
	}
	var out bytes.Buffer
	err = png.Encode(&out, papers.OnWhite(img))
	return out.Bytes(), err
}

func (s *service) removeLogo(ctx context.Context, _ *struct{}) (*body[CompanyOf], error) {
	if err := s.store.SetLogo(ctx, nil); err != nil {
		return nil, s.problem(ctx, err)
	}
	return s.company(ctx, nil)
}
