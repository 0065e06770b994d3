package edit

import (
	"wakefield.example/core/plan"
)

// SetPrices says what drives cost; absent, nobody knows.
type SetPrices struct {
	Prices *plan.Prices `json:"prices,omitempty"`
}

func (e *SetPrices) apply(p *plan.Plan) (*plan.Plan, error) {
	next := *p
	next.Prices = e.Prices
	return &next, nil
}

func (e *SetPrices) sentence(*plan.Plan) string {
	if e.Prices == nil {
		return "No prices"
	}
	return plan.Say("Prices of drives in %s, %s", e.Prices.Currency, plan.Count(len(e.Prices.Drives), "size"))
}
