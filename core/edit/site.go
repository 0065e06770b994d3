package edit

import (
	"fmt"
	"strings"

	"wakefield.example/core/plan"
)

// SetSite sets what the site and the plan are called and where the site is. What is
// absent stays as it is.
type SetSite struct {
	Name     *string `json:"name,omitempty" minLength:"1" maxLength:"200" doc:"Name of the site"`
	Plan     *string `json:"plan,omitempty" minLength:"1" maxLength:"200" doc:"Name of the plan"`
	Customer *string `json:"customer,omitempty" maxLength:"200"`
	Address  *string `json:"address,omitempty" maxLength:"500"`
	Contact  *string `json:"contact,omitempty" maxLength:"500" doc:"Whom to ask at the customer's"`
	Notes    *string `json:"notes,omitempty" maxLength:"4000" doc:"What whoever goes there needs to know"`
	Wording  *string `json:"wording,omitempty" maxLength:"2000" doc:"What papers for the customer say before all else"`
	TimeZone *string `json:"timeZone,omitempty" maxLength:"100"`
}

func (e *SetSite) apply(p *plan.Plan) (*plan.Plan, error) {
	next := *p
	next.Name = plan.Or(e.Plan, p.Name)
	next.Site.Name = plan.Or(e.Name, p.Site.Name)
	next.Site.Customer = plan.Or(e.Customer, p.Site.Customer)
	next.Site.Address = plan.Or(e.Address, p.Site.Address)
	next.Site.Contact = plan.Or(e.Contact, p.Site.Contact)
	next.Site.Notes = plan.Or(e.Notes, p.Site.Notes)
	next.Site.Wording = plan.Or(e.Wording, p.Site.Wording)
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
	for _, said := range []struct {
		what string
		text *string
	}{{"Address", e.Address}, {"Contact", e.Contact}, {"Notes", e.Notes}, {"Wording of papers", e.Wording}} {
		if said.text == nil {
			continue
		}
		if text := strings.Join(strings.Fields(*said.text), " "); text == "" {
			parts = append(parts, said.what+" removed")
		} else {
			runes := []rune(text)
			parts = append(parts, said.what+": "+string(runes[:min(len(runes), 60)]))
		}
	}
	if e.Plan != nil {
		parts = append(parts, "Variant: "+next.Name)
	}
	return strings.Join(parts, "; ")
}
