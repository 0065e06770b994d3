package server

import (
	"bytes"
	"context"
	"crypto/rand"
	"encoding/json"
	"strings"

	"wakefield/core/plan"
	"wakefield/internal/store"
)

type file struct {
	Type        string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        []byte
}

// export writes the plan as a file. One that this program cannot read is written as it
// is stored.
func (s *service) export(ctx context.Context, in *SiteParam) (*file, error) {
	data, err := heavily(ctx, s.heavy.heavy, func() ([]byte, error) {
		document, err := s.store.Export(ctx, in.ID)
		if err != nil {
			return nil, err
		}
		p, err := plan.Restore(document)
		if err != nil {
			var raw bytes.Buffer
			err := json.Indent(&raw, document, "", "  ")
			return raw.Bytes(), err
		}
		return p.Write()
	})
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	return &file{"application/json", `attachment; filename="` + in.ID + `.json"`, data}, nil
}

// CreatedSite is a site that was made.
type CreatedSite struct {
	ID      string `json:"id"`
	Version int64  `json:"version"`
}

func (s *service) importPlan(ctx context.Context, in *struct {
	SentBy
	RawBody []byte `contentType:"application/json"`
}) (*body[CreatedSite], error) {
	return s.create(ctx, in.note("Site made from a plan file"), func() (*plan.Plan, error) { return plan.Read(in.RawBody) })
}

// create makes a site of a plan that can be estimated.
func (s *service) create(ctx context.Context, note store.Note, read func() (*plan.Plan, error)) (*body[CreatedSite], error) {
	head, err := heavily(ctx, s.heavy.heavy, func() (*store.Head, error) {
		p, err := read()
		if err != nil {
			return nil, err
		}
		head := &store.Head{ID: newID(p.Site.Name), Version: 1, Plan: p}
		made, err := s.estimate(ctx, head, nil)
		if err != nil {
			return nil, err
		}
		note.KeptDays = made.site.Verdict.KeptDays
		return s.store.Create(ctx, head.ID, note, p)
	})
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	return &body[CreatedSite]{CreatedSite{head.ID, head.Version}}, nil
}

// newID makes an id for a site from its name and a few letters of chance.
func newID(name string) string {
	return strings.TrimLeft(plan.Slug(name)+"-"+strings.ToLower(rand.Text()[:6]), "-")
}
