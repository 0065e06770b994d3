package edit

import (
	"fmt"
	"strings"

	"wakefield/core/plan"
)

// SetSite sets what the site and the plan are called and where the site is. What is
// absent stays as it is.
type SetSite struct {
	Name     *string `json:"name,omitempty" minLength:"1" maxLength:"200" doc:"Name of the site"`
	Plan     *string `json:"plan,omitempty" minLength:"1" maxLength:"200" doc:"Name of the plan"`
	Customer *string `json:"customer,omitempty" maxLength:"200"`
	TimeZone *string `json:"timeZone,omitempty" maxLength:"100"`
}

func (e *SetSite) apply(p *plan.Plan) (*plan.Plan, error) {
	next := *p
	next.Name = plan.Or(e.Plan, p.Name)
	next.Site.Name = plan.Or(e.Name, p.Site.Name)
	next.Site.Customer = plan.Or(e.Customer, p.Site.Customer)
	next.Site.TimeZone = plan.Or(e.TimeZone, p.Site.TimeZone)
	return &next, nil
}

func (e *SetSite) sentence(p *plan.Plan) string {
	next, _ := e.apply(p)
	var parts []string
	if e.Name != nil || e.TimeZone != nil {
		parts = append(parts, fmt.Sprintf("Site: %s, %s", next.Site.Name, next.Site.TimeZone))
	}
	if e.Customer != nil {
		parts = append(parts, "Customer: "+next.Site.Customer)
	}
	if e.Plan != nil {
		parts = append(parts, "Variant: "+next.Name)
	}
	return strings.Join(parts, "; ")
}
