package api

import (
	"context"
	"crypto/rand"
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/edit"
	"wakefield.example/core/measured"
	"wakefield.example/core/week"
	"wakefield.example/internal/formats"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

// registerMeasured adds what was found at a site, held against its plan.
func registerMeasured(api huma.API, s *service) {
	huma.Register(api, op("measured", http.MethodGet, "/api/plans/{id}/measured", "What was found at the site, held against the plan"),
		s.measured)
	huma.Register(api, op("measuredFile", http.MethodGet, "/api/plans/{id}/measured/file", "What was found, held against the plan, as a file"),
		s.measuredFile)
	huma.Register(api, fileOp(op("readFound", http.MethodPost, "/api/plans/{id}/measured/read",
		"What a file says was found at the site"), server.BundleBody), s.readFound)
	huma.Register(api, making(fileOp(op("bringFound", http.MethodPost, "/api/plans/{id}/measured", "Keep what a file says was found"),
		server.BundleBody)), s.bringFound)
	huma.Register(api, op("corrections", http.MethodPost, "/api/plans/{id}/measured/corrections",
		"Edits that write some of what was found into the plan, at once"), s.corrections)
	huma.Register(api, op("takeAwayFound", http.MethodDelete, "/api/plans/{id}/measured/{brought}", "Take what was brought in away again"),
		s.takeAwayFound)
}

// FoundParams say how a file is to be read.
type FoundParams struct {
	PlanParam
	As       string `query:"as" enum:",triggers,recordings,rates,oldest,settings" doc:"What it is; empty to recognise it"`
	Zone     string `query:"zone" maxLength:"100" doc:"Time zone of times that name none; the site's where absent"`
	Channels string `query:"channels" maxLength:"200000" doc:"Whom its texts mean, as a JSON object of ids; an empty id leaves one out"`
	Kinds    string `query:"kinds" maxLength:"20000" doc:"What kinds of lines mean, as a JSON object of start, stop, event and other"`
	On       string `query:"on" maxLength:"40" doc:"When the oldest footage was looked for, where a line does not say it; now where absent"`
	RawBody  []byte `contentType:"application/octet-stream"`
}

// understood reads a file.
func (s *service) understood(ctx context.Context, in *FoundParams) (entry, *formats.Found, error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return e, nil, s.problem(ctx, err)
	}
	ask, err := in.ask(e.head.Plan.Site.TimeZone)
	if err != nil {
		return e, nil, err
	}
	f, err := reading(ctx, s, func(ctx context.Context) (*formats.Found, error) {
		return formats.ReadFound(ctx, in.RawBody, e.head.Plan, ask)
	})
	return e, f, err
}

func (in *FoundParams) ask(site string) (ask formats.FoundAsk, err error) {
	name := in.Zone
	if name == "" {
		name = site
	}
	ask = formats.FoundAsk{As: in.As, On: time.Now()}
	if ask.Zone, err = time.LoadLocation(name); err != nil || name == "Local" {
		return ask, huma.Error422UnprocessableEntity("There is no time zone " + name + ".")
	}
	if in.On != "" {
		if ask.On, err = time.Parse(time.RFC3339, in.On); err != nil {
			return ask, huma.Error422UnprocessableEntity("When the oldest footage was looked for is written 2026-11-23T14:05:00Z.")
		}
	}
	for _, of := range []struct {
		text, what string
		into       any
	}{{in.Channels, "Whom the texts of the file mean", &ask.Channels}, {in.Kinds, "What kinds of lines mean", &ask.Kinds}} {
		if of.text == "" {
			continue
		}
		if err := json.Unmarshal([]byte(of.text), of.into); err != nil {
			return ask, huma.Error422UnprocessableEntity(of.what + " is no JSON object of texts.")
		}
	}
	return ask, nil
}

func (s *service) readFound(ctx context.Context, in *FoundParams) (*body[*formats.Found], error) {
	_, f, err := s.understood(ctx, in)
	if err != nil {
		return nil, err
	}
	return &body[*formats.Found]{f}, nil
}

// BroughtID is what something that was brought in is called by.
type BroughtID struct {
	ID string `json:"id"`
}

func (s *service) bringFound(ctx context.Context, in *struct {
	FoundParams
	SentBy
	Name string `query:"name" maxLength:"200" doc:"Of the file"`
}) (*body[BroughtID], error) {
	e, f, err := s.understood(ctx, &in.FoundParams)
	if err != nil {
		return nil, err
	}
	if len(f.Asks) > 0 {
		return nil, huma.Error422UnprocessableEntity("What the kinds of lines mean is not certain: say it first. Nothing was kept.")
	}
	if d := &f.Data; len(d.Logs)+len(d.Rates)+len(d.Oldest)+len(d.Settings) == 0 {
		return nil, huma.Error422UnprocessableEntity("Nothing of it is of a channel of this plan. Say whom its texts mean. Nothing was kept.")
	}
	said, err := json.Marshal(f.Data)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	b := store.Brought{ID: strings.ToLower(rand.Text()[:10]), Kind: f.As, Name: in.Name, Said: said, Author: in.note("").Author}
	if err := s.store.Bring(ctx, e.head.Site, b); err != nil {
		return nil, s.problem(ctx, err)
	}
	return &body[BroughtID]{BroughtID{b.ID}}, nil
}

func (s *service) takeAwayFound(ctx context.Context, in *struct {
	PlanParam
	SentBy
	Brought string `path:"brought" maxLength:"60"`
}) (*struct{}, error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	return nil, s.problem(ctx, s.store.TakeAway(ctx, e.head.Site, in.Brought))
}

// BroughtIn is what was brought in, without its figures.
type BroughtIn struct {
	ID       string     `json:"id"`
	Kind     string     `json:"kind" enum:"triggers,recordings,rates,oldest,settings"`
	Name     string     `json:"name"`
	Author   string     `json:"author"`
	At       time.Time  `json:"at"`
	Channels int        `json:"channels"`
	From     *week.Date `json:"from,omitempty"`
	To       *week.Date `json:"to,omitempty"`
	Counts   bool       `json:"counts" doc:"Whether it counts; not where all of it was brought in anew"`
}

// MeasuredSite is what was found at a site.
type MeasuredSite struct {
	Version int64            `json:"version" doc:"Of the plan"`
	Brought []BroughtIn      `json:"brought" doc:"Newest first"`
	Result  *measured.Result `json:"result,omitempty" doc:"Absent where nothing was brought in"`
}

func (s *service) measured(ctx context.Context, in *PlanParam) (*body[MeasuredSite], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	list, err := s.store.BroughtOf(ctx, e.head.Site)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	out := MeasuredSite{Version: e.head.Version, Brought: []BroughtIn{}}
	data, ids, err := out.add(list)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	if len(list) > 0 {
		if out.Result, err = s.compared(ctx, e, ids, data); err != nil {
			return nil, s.problem(ctx, err)
		}
		if err := s.keepCompared(ctx, e, out.Result); err != nil {
			return nil, s.problem(ctx, err)
		}
	}
	return &body[MeasuredSite]{out}, nil
}

// add tells of what was brought in, and joins it.
func (m *MeasuredSite) add(list []store.Brought) (all measured.Data, ids string, err error) {
	each := make([]measured.Data, len(list))
	for k, b := range list {
		if err := json.Unmarshal(b.Said, &each[k]); err != nil {
			return all, "", fmt.Errorf("what was brought in as %s cannot be read: %w", b.ID, err)
		}
		ids += b.ID + " "
	}
	all, counts := measured.Joined(each)
	for k := len(list) - 1; k >= 0; k-- {
		b := list[k]
		in := BroughtIn{ID: b.ID, Kind: b.Kind, Name: b.Name, Author: b.Author, At: b.At, Counts: counts[k]}
		in.Channels, in.From, in.To = each[k].Extent()
		m.Brought = append(m.Brought, in)
	}
	return all, ids, nil
}

type comparisonOf struct {
	plan    string
	at      store.Stamp
	brought string
}

// mostComparisons are remembered, as they are asked for again after every change of a page; of some hundred kilobytes each.
const mostComparisons = 40

// compared holds what was brought in against a plan.
func (s *service) compared(ctx context.Context, e entry, ids string, data measured.Data) (*measured.Result, error) {
	key := comparisonOf{e.head.ID, store.Stamp{Mark: e.head.Mark, Version: e.head.Version}, ids}
	if known, ok := s.comparisons.Get(key); ok {
		return known, nil
	}
	r, err := server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) (*measured.Result, error) {
		return measured.Of(ctx, e.site, &data)
	})
	if err != nil {
		return nil, err
	}
	s.comparisons.Put(key, r)
	return r, nil
}

// FigureOf names a figure of a comparison.
type FigureOf struct {
	Kind    string `json:"kind" maxLength:"20"`
	ID      string `json:"id" maxLength:"200"`
	Channel string `json:"channel" maxLength:"200" doc:"The first of its channels"`
}

// Corrections are edits that can be made at once.
type Corrections struct {
	Version int64       `json:"version" doc:"Of the plan for which they are"`
	Edits   []edit.Edit `json:"edits"`
}

func (s *service) corrections(ctx context.Context, in *struct {
	PlanParam
	Body struct {
		Figures []FigureOf `json:"figures" minItems:"1" maxItems:"5000"`
	}
}) (*body[Corrections], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	r, err := s.found(ctx, e)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	wanted := make(map[FigureOf]bool)
	for _, f := range in.Body.Figures {
		wanted[f] = true
	}
	var list []measured.Figure
	for _, f := range r.Figures {
		of := FigureOf{Kind: f.Kind, ID: f.ID}
		if len(f.Channels) > 0 {
			of.Channel = f.Channels[0]
		}
		if wanted[of] {
			list = append(list, f)
		}
	}
	return &body[Corrections]{Corrections{e.head.Version, measured.Together(e.head.Plan, list)}}, nil
}

// found is what was found at the site of a plan; nothing where nothing was brought in.
func (s *service) found(ctx context.Context, e entry) (*measured.Result, error) {
	list, err := s.store.BroughtOf(ctx, e.head.Site)
	if err != nil || len(list) == 0 {
		return &measured.Result{}, err
	}
	data, ids, err := new(MeasuredSite).add(list)
	if err != nil {
		return nil, err
	}
	return s.compared(ctx, e, ids, data)
}

// measuredFile is a comparison as a file, such as the command line writes.
func (s *service) measuredFile(ctx context.Context, in *PlanParam) (*attachedJSON[*measured.Result], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	r, err := s.found(ctx, e)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	if r.Format == "" {
		return nil, huma.Error404NotFound("Nothing was brought in of this site.")
	}
	return &attachedJSON[*measured.Result]{attached(e.head.Plan, "measured", "json", time.Now()), r}, nil
}
