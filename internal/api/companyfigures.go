package api

import (
	"context"
	"encoding/json"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/overview"
)

// registerCompanyFigures adds what a company has planned altogether.
func registerCompanyFigures(api huma.API, s *service) {
	huma.Register(api, op("companyFigures", http.MethodGet, "/api/company/figures",
		"What the company has planned altogether: storage, days kept against required, findings, who accepted them"), s.companyFigures)
}

// CompanyFigures are what a company has planned altogether.
type CompanyFigures struct {
	overview.Company
	Left int `json:"left" doc:"Sites in work that are not estimated as they are yet, and are not among these"`
}

func (s *service) companyFigures(ctx context.Context, _ *struct{}) (*body[CompanyFigures], error) {
	list, err := s.store.FoundAtAll(ctx)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	total, err := s.store.Places(ctx)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	lines := make([]overview.OfCustomer, 0, len(list))
	for _, of := range list {
		line := overview.OfCustomer{Customer: of.Customer, Line: new(overview.Line)}
		if json.Unmarshal(of.Said, line.Line) == nil && json.Unmarshal(of.Found, &line.Found) == nil {
			lines = append(lines, line)
		}
	}
	return &body[CompanyFigures]{CompanyFigures{overview.Add(lines), total - len(lines)}}, nil
}
