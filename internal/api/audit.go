package api

import (
	"bytes"
	"context"
	"encoding/csv"
	"encoding/json"
	"net/http"
	"strconv"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/internal/formats"
	"wakefield.example/internal/store"
)

// registerAudit adds what planners of a company read of what happened around accounts.
func registerAudit(api huma.API, s *service) {
	huma.Register(api, op("audit", http.MethodGet, "/api/audit", "What happened around accounts, newest first"), s.audit)
	huma.Register(api, op("auditFile", http.MethodGet, "/api/audit.{format}", "The same as a file"), s.auditFile)
}

// AuditParams are what is looked for.
type AuditParams struct {
	Text   string `query:"text" maxLength:"200" doc:"Only lines with this in them"`
	What   string `query:"what" maxLength:"40" doc:"Only lines of this kind"`
	From   string `query:"from" maxLength:"10" doc:"First date, such as 2026-11-29 (UTC)"`
	To     string `query:"to" maxLength:"10" doc:"Last date"`
	Before int64  `query:"before" minimum:"0" doc:"Only lines before this one; 0 for the newest"`
}

func (p AuditParams) asked(limit int) (store.Asked, error) {
	q := store.Asked{Text: p.Text, What: p.What, Before: p.Before, Limit: limit}
	for _, d := range []struct {
		text, at string
		into     *time.Time
		days     int
	}{{p.From, "from", &q.From, 0}, {p.To, "to", &q.To, 1}} {
		if d.text == "" {
			continue
		}
		day, err := time.Parse(time.DateOnly, d.text)
		if err != nil {
			return q, huma.Error422UnprocessableEntity("“"+d.text+"” is no date, such as 2026-11-29.",
				&huma.ErrorDetail{Location: "query." + d.at, Message: "is no date"})
		}
		*d.into = day.AddDate(0, 0, d.days)
	}
	return q, nil
}

func (s *service) audit(ctx context.Context, in *AuditParams) (*body[[]store.Happened], error) {
	q, err := in.asked(100)
	if err != nil {
		return nil, err
	}
	list, err := s.store.Audited(ctx, q)
	return &body[[]store.Happened]{list}, s.problem(ctx, err)
}

// mostExported lines are in a file.
const mostExported = 100_000

func (s *service) auditFile(ctx context.Context, in *struct {
	AuditParams
	Format string `path:"format" enum:"csv,jsonl"`
}) (*file, error) {
	q, err := in.asked(mostExported)
	if err != nil {
		return nil, err
	}
	list, err := s.store.Audited(ctx, q)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	var out bytes.Buffer
	kind := "text/csv; charset=utf-8"
	if in.Format == "jsonl" {
		kind = "application/jsonl"
		lines := json.NewEncoder(&out)
		for i := range list {
			if err := lines.Encode(list[i]); err != nil {
				return nil, s.problem(ctx, err)
			}
		}
	} else {
		w := csv.NewWriter(&out)
		_ = w.Write([]string{"number", "at", "who", "person", "what", "site", "detail", "address", "request"})
		for _, h := range list {
			_ = w.Write([]string{strconv.FormatInt(h.Number, 10), h.At.UTC().Format(time.RFC3339), formats.Defused(h.Who), h.Person, h.What, h.Site,
				formats.Defused(h.Detail), h.Address, h.Request})
		}
		w.Flush()
	}
	return &file{kind, `attachment; filename="audit.` + in.Format + `"`, out.Bytes()}, nil
}
