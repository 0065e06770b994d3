package api

import (
	"bytes"
	"context"
	_ "embed"
	"html/template"
	"time"

	"wakefield.example/core/check"
	"wakefield.example/core/plan"
)

//go:embed compared.html
var comparedHTML string

var comparedPage = template.Must(template.New("compared").Parse(comparedHTML))

// comparedRow is a figure of all plans that are compared, in words.
type comparedRow struct {
	Name  string
	Cells []string
}

// compareFile writes plans side by side as a page that needs no server.
func (s *service) compareFile(ctx context.Context, in *compareRequest) (*file, error) {
	list, err := s.compare(ctx, in)
	if err != nil {
		return nil, err
	}
	_, first, err := s.planOf(ctx, in.ID, list.Body[0].ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	var page bytes.Buffer
	err = comparedPage.Execute(&page, map[string]any{
		"Site": first.head.Plan.Site.Name, "Customer": first.head.Plan.Site.Customer, "Address": first.head.Plan.Site.Address,
		"Wording": first.head.Plan.Site.Wording, "First": list.Body[0].Name,
		"Plans": list.Body, "Others": list.Body[1:], "Rows": comparedRows(list.Body),
	})
	return &file{"text/html; charset=utf-8", attached(first.head.Plan, "variants", "html", time.Now()), page.Bytes()}, s.problem(ctx, err)
}

func comparedRows(list []Compared) []comparedRow {
	days := func(d *float64) string {
		if d == nil {
			return "no limit"
		}
		return plan.Say("%.3g days", *d)
	}
	rows := []struct {
		name string
		say  func(c *Compared) string
	}{
		{"Days kept, of the channel nearest to what it must keep", func(c *Compared) string { return days(c.Verdict.KeptDays) }},
		{"Required of it", func(c *Compared) string {
			if c.Verdict.RequiredDays == nil {
				return "nothing"
			}
			return days(c.Verdict.RequiredDays)
		}},
		{"At the worst hour", func(c *Compared) string { return days(c.Verdict.WorstDays) }},
		{"On the worst date of the year", func(c *Compared) string {
			if c.Year == nil {
				return "no date is special"
			}
			return plan.Say("%.3g days on %s", c.Year.WorstDays, c.Year.WorstDate.String())
		}},
		{"Written a day", func(c *Compared) string { return plan.Say("%.3g GB", c.Verdict.GigabytesPerDay) }},
		{"Wanted events missed a day", func(c *Compared) string { return plan.Say("%.3g", c.Verdict.Evidence.MissedPerDay) }},
		{"Kept low a day", func(c *Compared) string { return plan.Say("%.3g", c.Verdict.Evidence.LowPerDay) }},
		{"Errors, warnings", func(c *Compared) string {
			return plan.Say("%d, %d", c.Findings[check.Error], c.Findings[check.Warning])
		}},
		{"Messages a day", func(c *Compared) string { return plan.Say("%.3g", c.MessagesPerDay) }},
		{"Price of the drives", func(c *Compared) string {
			switch {
			case c.Price == nil:
				return "no prices"
			case len(c.Price.UnknownTerabytes) > 0:
				return plan.Say("%.6g %s, and drives without a price", c.Price.Total, c.Price.Currency)
			}
			return plan.Say("%.6g %s", c.Price.Total, c.Price.Currency)
		}},
	}
	out := make([]comparedRow, len(rows))
	for i, r := range rows {
		out[i].Name = r.name
		for k := range list {
			out[i].Cells = append(out[i].Cells, r.say(&list[k]))
		}
	}
	return out
}
