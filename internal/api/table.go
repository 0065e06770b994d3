package api

import (
	"context"
	"net/http"
	"reflect"
	"slices"
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/core/table"
	"wakefield.example/internal/formats"
	"wakefield.example/internal/server"

	"github.com/danielgtaylor/huma/v2"
)

// registerTable adds the channel table.
func registerTable(api huma.API, s *service) {
	huma.Register(api, op("table", http.MethodGet, "/api/plans/{id}/table", "The channel table"), s.channelTable)
	huma.Register(api, op("exportTable", http.MethodGet, "/api/plans/{id}/channels.{format}", "The channel table as a file"), s.exportTable)
	huma.Register(api, fileOp(op("readTable", http.MethodPost, "/api/plans/{id}/table/read",
		"What a file says of the channels, before anything is changed"), server.TableBody), s.readTable)
	huma.Register(api, op("tryCells", http.MethodPost, "/api/plans/{id}/table/try", "Which cells could be set, without setting any"),
		s.tryCells)
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

func (s *service) channelTable(ctx context.Context, in *PlanParam) (*body[*Table], error) {
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
	PlanParam
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
	data, err := server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) ([]byte, error) { return write(e.head.Plan) })
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	return &file{kind, attached(e.head.Plan, "channels", in.Format, time.Now()), data}, nil
}

func (s *service) readTable(ctx context.Context, in *struct {
	PlanParam
	Names   string `query:"names" maxLength:"60000" doc:"What names mean that the plan does not know: a JSON array of sort, text, as and of"`
	RawBody []byte `contentType:"application/octet-stream"`
}) (*body[*formats.Table], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	names, err := formats.ReadNames(in.Names)
	if err != nil {
		return nil, huma.Error422UnprocessableEntity(err.Error())
	}
	t, err := reading(ctx, s, func(ctx context.Context) (*formats.Table, error) {
		return formats.ReadTable(ctx, in.RawBody, e.head.Plan, names...)
	})
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
	PlanParam
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
