package server

import (
	"context"
	"encoding/json"
	"net/http"
	"net/url"
	"reflect"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"wakefield/core/activity"
	"wakefield/core/check"
	"wakefield/core/estimate"
	"wakefield/core/plan"
	"wakefield/core/table"
	"wakefield/core/video"
	"wakefield/core/week"
	"wakefield/internal/formats"
)

// registerKit adds what the description of a site's kit needs beside edits.
func registerKit(api huma.API, s *service) {
	file := func(op huma.Operation, largest int64) huma.Operation {
		op.MaxBodyBytes, op.SkipValidateBody = largest, true
		return op
	}
	huma.Register(api, op("beginnings", http.MethodGet, "/api/beginnings", "What a new plan can begin with"), s.beginnings)
	huma.Register(api, op("table", http.MethodGet, "/api/sites/{id}/table", "The channel table"), s.table)
	huma.Register(api, op("exportTable", http.MethodGet, "/api/sites/{id}/channels.{format}", "The channel table as a file"), s.exportTable)
	huma.Register(api, file(op("readTable", http.MethodPost, "/api/sites/{id}/table/read", "What a file says of the channels, before anything is changed"), tableBody), s.readTable)
	huma.Register(api, op("tryCells", http.MethodPost, "/api/sites/{id}/table/try", "Which cells could be set, without setting any"), s.tryCells)
	huma.Register(api, file(op("readLog", http.MethodPost, "/api/sites/{id}/log/read", "What an event log says of an activity"), largestBody), s.readLog)
	huma.Register(api, op("whatIf", http.MethodGet, "/api/sites/{id}/pools/{pool}/whatif", "What a failed drive, or one more, would do"), s.whatIf)
	measure := op("measureClip", http.MethodPost, "/api/clip", "What the frames of a clip tell about a stream")
	measure.MaxBodyBytes = clipBody
	huma.Register(api, measure, s.measureClip)
	huma.Register(api, op("measureNight", http.MethodPost, "/api/clip/night", "What darkness does to a stream, by a clip taken at night"), s.measureNight)
	huma.Register(api, op("readHours", http.MethodPost, "/api/hours", "Hours as people write them"), s.readHours)
	huma.Register(api, op("knowing", http.MethodGet, "/api/sites/{id}/knowing", "What would be worth measuring"), s.knowing)
	huma.Register(api, op("fixes", http.MethodGet, "/api/sites/{id}/fixes", "What the fixes of findings would do"), s.fixes)
	huma.Register(api, op("sample", http.MethodPost, "/api/sample", "What may happen in the busiest hour of an activity"), s.sample)
	huma.Register(api, op("curve", http.MethodPost, "/api/curve", "What a stream costs, and what its settings do to that"), s.curve)
}

// Beginnings are what a new plan can begin with.
type Beginnings struct {
	Duties     []plan.Duty     `json:"duties" doc:"Ready-made duties"`
	Activities []plan.Activity `json:"activities" doc:"Activities of invented places"`
	Scenes     []string        `json:"scenes" doc:"Ids of those that a camera can look at"`
	Model      ModelTable      `json:"model"`
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
	return &body[Beginnings]{Beginnings{plan.ReadyMade(), plan.ActivityTemplates(), plan.SceneTemplates(), ModelTable{m.BitsPerPixel, m.Step, m.Codec, m.Ratio, AdaptiveTable(m.Adaptive)}}}, nil
}

// Table is the channel table.
type Table struct {
	Version int64         `json:"version"`
	Columns []TableColumn `json:"columns"`
	Rows    []TableRow    `json:"rows"`
}

// TableColumn is a column with what may stand in it.
type TableColumn struct {
	table.Column
	Choices []string `json:"choices,omitempty" doc:"What may stand in it; absent for anything"`
}

// TableRow is a channel as a row of texts.
type TableRow struct {
	ID      string   `json:"id" doc:"Id of the channel"`
	Values  []string `json:"values" doc:"One for each column"`
	Departs []string `json:"departs" doc:"Columns in which it differs from its camera kind"`
}

func row(p *plan.Plan, c *plan.Channel) TableRow {
	departs := table.Departures(p, c)
	if departs == nil {
		departs = []string{}
	}
	return TableRow{c.ID, table.Texts(p, c), departs}
}

func (s *service) table(ctx context.Context, in *SiteParam) (*body[*Table], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	p := e.head.Plan
	t := &Table{Version: e.head.Version, Rows: []TableRow{}}
	for i := range table.Columns {
		t.Columns = append(t.Columns, TableColumn{table.Columns[i], table.Columns[i].Choices(p)})
	}
	for i := range p.Channels {
		t.Rows = append(t.Rows, row(p, &p.Channels[i]))
	}
	return &body[*Table]{t}, nil
}

// changedRows lists the rows of the table that differ between two plans.
func changedRows(before, after *plan.Plan) []TableRow {
	rows := []TableRow{}
	alike := reflect.DeepEqual(before.Recorders, after.Recorders) && reflect.DeepEqual(before.Kinds, after.Kinds) &&
		reflect.DeepEqual(before.Activities, after.Activities) && reflect.DeepEqual(before.Weeks, after.Weeks)
	for i := range after.Channels {
		c := &after.Channels[i]
		var was *plan.Channel
		if i < len(before.Channels) && before.Channels[i].ID == c.ID {
			was = &before.Channels[i]
		} else {
			was = before.Channel(c.ID)
		}
		if alike && was != nil && reflect.DeepEqual(was, c) {
			continue // names of other things stand in it, and they are the same
		}
		now := row(after, c)
		if was == nil || !slices.Equal(now.Values, table.Texts(before, was)) || !slices.Equal(now.Departs, row(before, was).Departs) {
			rows = append(rows, now)
		}
	}
	return rows
}

func (s *service) exportTable(ctx context.Context, in *struct {
	SiteParam
	Format string `path:"format" enum:"csv,xlsx"`
}) (*file, error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	kind, write := "text/csv; charset=utf-8", formats.WriteCSV
	if in.Format == "xlsx" {
		kind, write = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", formats.WriteXLSX
	}
	data, err := heavily(ctx, s.heavy.heavy, func() ([]byte, error) { return write(e.head.Plan) })
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	return &file{kind, `attachment; filename="` + in.ID + `-channels.` + in.Format + `"`, data}, nil
}

// reading reads a foreign file. What is wrong with it is the client's to know.
func reading[T any](ctx context.Context, s *service, read func() (T, error)) (T, error) {
	var wrong error
	v, err := heavily(ctx, s.heavy.heavy, func() (v T, err error) {
		v, wrong = read()
		return v, nil
	})
	if err != nil {
		return v, s.problem(ctx, err)
	}
	if wrong != nil {
		return v, huma.Error422UnprocessableEntity(wrong.Error())
	}
	return v, nil
}

func (s *service) readTable(ctx context.Context, in *struct {
	SiteParam
	RawBody []byte `contentType:"application/octet-stream"`
}) (*body[*formats.Table], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	t, err := reading(ctx, s, func() (*formats.Table, error) { return formats.ReadTable(in.RawBody, e.head.Plan) })
	if err != nil {
		return nil, err
	}
	return &body[*formats.Table]{t}, nil
}

// TriedCells tells which cells cannot be set.
type TriedCells struct {
	Bad  []table.CellError `json:"bad"`
	Good *table.Cells      `json:"good,omitempty" doc:"The rows in which every cell can be set; absent where there are none"`
}

func (s *service) tryCells(ctx context.Context, in *struct {
	SiteParam
	Body table.Cells
}) (*body[TriedCells], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	bad, good := in.Body.Try(e.head.Plan)
	if bad == nil {
		bad = []table.CellError{}
	}
	return &body[TriedCells]{TriedCells{bad, good}}, nil
}

func (s *service) readLog(ctx context.Context, in *struct {
	SiteParam
	Start   int    `query:"start" default:"-1" minimum:"-1" maximum:"1000" doc:"Column of the starts; -1 to recognise it"`
	End     int    `query:"end" default:"-1" minimum:"-1" maximum:"1000" doc:"Column of ends or lengths; -1 for none"`
	Channel int    `query:"channel" default:"-2" minimum:"-2" maximum:"1000" doc:"Column that tells whose event it is; -1 for none, -2 to recognise it"`
	Kind    int    `query:"kind" default:"-2" minimum:"-2" maximum:"1000" doc:"Column that tells what a line means; -1 for none, -2 to recognise it"`
	Pick    string `query:"pick" maxLength:"300" doc:"Whose events are wanted, of several channels"`
	As      string `query:"as" maxLength:"20000" doc:"What kinds of lines mean, as a JSON object of start, stop, event and other"`
	Zone    string `query:"zone" maxLength:"100" doc:"Time zone of times that name none; the site's where absent"`
	From    string `query:"from" doc:"First date on which the log was kept; that of the first event where absent"`
	To      string `query:"to" doc:"Last date on which it was kept"`
	RawBody []byte `contentType:"application/octet-stream"`
}) (*body[*formats.Log], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	name := in.Zone
	if name == "" {
		name = e.head.Plan.Site.TimeZone
	}
	zone, err := time.LoadLocation(name)
	if err != nil || name == "Local" {
		return nil, huma.Error422UnprocessableEntity("There is no time zone " + name + ".")
	}
	which := &formats.LogColumns{Start: in.Start, End: in.End, Channel: in.Channel, Kind: in.Kind, Pick: in.Pick}
	if in.As != "" {
		if err := json.Unmarshal([]byte(in.As), &which.As); err != nil {
			return nil, huma.Error422UnprocessableEntity("What kinds of lines mean is no JSON object of texts.")
		}
	}
	var kept formats.LogPeriod
	for _, date := range []struct {
		text string
		into *week.Date
	}{{in.From, &kept.From}, {in.To, &kept.To}} {
		if date.text == "" {
			continue
		}
		if err := date.into.UnmarshalText([]byte(date.text)); err != nil {
			return nil, huma.Error422UnprocessableEntity(err.Error())
		}
	}
	l, err := reading(ctx, s, func() (*formats.Log, error) { return formats.ReadLog(in.RawBody, zone, which, kept) })
	if err != nil {
		return nil, err
	}
	return &body[*formats.Log]{l}, nil
}

func (s *service) whatIf(ctx context.Context, in *struct {
	SiteParam
	Pool string `path:"pool" maxLength:"300" doc:"Id of the pool"`
}) (*body[[]estimate.Scenario], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	pool, err := url.PathUnescape(in.Pool)
	if err != nil {
		pool = in.Pool
	}
	return &body[[]estimate.Scenario]{e.site.WhatIf(pool)}, nil
}

// Frames are the frames of a clip, in the order written. Nothing of the picture
// leaves the browser.
type Frames struct {
	Seconds   []float64 `json:"seconds" maxItems:"500000" doc:"When each is shown"`
	Bytes     []float64 `json:"bytes" maxItems:"500000" doc:"Size of each"`
	Keyframes []int     `json:"keyframes" maxItems:"500000" doc:"Which of them are keyframes, counted from 0"`
}

func (s *service) measureClip(ctx context.Context, in *struct{ Body Frames }) (*body[*video.Measured], error) {
	f := in.Body
	if len(f.Seconds) != len(f.Bytes) {
		return nil, huma.Error422UnprocessableEntity("Every frame has a time and a size.")
	}
	packets := make([]video.Packet, len(f.Seconds))
	for i := range packets {
		packets[i] = video.Packet{Seconds: f.Seconds[i], Bytes: f.Bytes[i]}
	}
	for _, k := range f.Keyframes {
		if k < 0 || k >= len(packets) {
			return nil, huma.Error422UnprocessableEntity("A keyframe that is none of the frames.")
		}
		packets[k].Keyframe = true
	}
	m, err := reading(ctx, s, func() (*video.Measured, error) { return video.Measure(packets) })
	if err != nil {
		return nil, err
	}
	return &body[*video.Measured]{m}, nil
}

func (s *service) knowing(ctx context.Context, in *SiteParam) (*body[[]estimate.Unknown], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	list, err := heavily(ctx, s.heavy.heavy, func() ([]estimate.Unknown, error) { return e.site.Knowing(ctx) })
	return &body[[]estimate.Unknown]{list}, s.problem(ctx, err)
}

func (s *service) fixes(ctx context.Context, in *SiteParam) (*body[[]check.FixEffect], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	list, err := heavily(ctx, s.heavy.heavy, func() ([]check.FixEffect, error) { return check.Effects(ctx, e.head.Plan, e.site, e.found) })
	return &body[[]check.FixEffect]{list}, s.problem(ctx, err)
}

// Sample is an hour as it may be.
type Sample struct {
	From   week.Minute      `json:"from" doc:"When the hour begins, in minutes since Monday 00:00"`
	Events []activity.Drawn `json:"events" doc:"In seconds from then"`
}

func (s *service) sample(_ context.Context, in *struct {
	Seed uint64 `query:"seed" doc:"Another gives another hour"`
	Body plan.Activity
}) (*body[Sample], error) {
	p := in.Body.Process()
	from := p.BusiestHour()
	return &body[Sample]{Sample{week.Minute(from / 60), p.Sample(from, in.Seed)}}, nil
}

func (s *service) curve(_ context.Context, in *struct{ Body plan.Stream }) (*body[estimate.Curve], error) {
	return &body[estimate.Curve]{estimate.CurveOf(&in.Body)}, nil
}
