package main

import (
	"encoding/json"
	"fmt"
	"io"
	"os"
	"text/tabwriter"

	"wakefield/core/estimate"
	"wakefield/core/plan"
)

// estimateCommand prints the figures of a plan file.
type estimateCommand struct {
	JSON bool   `name:"json" help:"Print the figures as JSON."`
	Plan string `arg:"" help:"Plan file."`
}

func (c *estimateCommand) Run() error {
	p, err := readPlan(c.Plan)
	if err != nil {
		return err
	}
	site := estimate.Run(p, nil)
	if c.JSON {
		out := json.NewEncoder(os.Stdout)
		out.SetIndent("", "  ")
		return out.Encode(site)
	}
	return writeTable(os.Stdout, p, site)
}

// notAPlan is an error of a file that is not a plan: exit status 2.
type notAPlan struct{ error }

func (notAPlan) ExitCode() int { return 2 }

func readPlan(file string) (*plan.Plan, error) {
	f, err := os.Open(file)
	if err != nil {
		return nil, notAPlan{err}
	}
	defer f.Close()
	data, err := io.ReadAll(io.LimitReader(f, plan.MaxFileBytes+1))
	if err != nil {
		return nil, notAPlan{err}
	}
	p, err := plan.Read(data)
	if err != nil {
		return nil, notAPlan{fmt.Errorf("%s: %w", file, err)}
	}
	return p, nil
}

// writeTable prints the figures for people.
func writeTable(w io.Writer, p *plan.Plan, s *estimate.Site) error {
	fmt.Fprintf(w, "%s: %s\n\n", p.Site.Name, p.Name)
	t := tabwriter.NewWriter(w, 0, 0, 2, ' ', tabwriter.AlignRight)
	fmt.Fprintln(t, "no.\tchannel\twritten\ton events\tkbit/s\tGB a day\tdays kept\tat worst\trequired\tfull quality\t")
	for i, c := range s.Channels {
		ch := p.Channels[i]
		if ch.NoCamera {
			fmt.Fprintf(t, "%d\t%s\tno camera\t\t\t\t\t\t\t\t\n", ch.Number, ch.Name)
			continue
		}
		fmt.Fprintf(t, "%d\t%s\t%.1f %%\t%.1f %%\t%.0f\t%.1f\t%s\t%s\t%s\t%s\t\n", ch.Number, ch.Name,
			c.WrittenPercent, c.EventPercent, c.AverageKbps, c.GigabytesPerDay,
			days(c.RetentionDays), days(c.WorstDays), days(c.Required), share(c.Evidence))
	}
	t.Flush()
	fmt.Fprintln(w)
	t = tabwriter.NewWriter(w, 0, 0, 2, ' ', tabwriter.AlignRight)
	fmt.Fprintln(t, "pool\tusable TB\tGB a day\tdays kept\tat worst\tfour times in five\t")
	for _, pool := range s.Pools {
		fmt.Fprintf(t, "%s\t%.2f\t%.1f\t%s\t%s\t%s\t\n", p.Pool(pool.ID).Name, pool.UsableGB/1000, pool.GigabytesPerDay,
			days(pool.RetentionDays), days(pool.WorstDays), span(pool.Sure))
	}
	t.Flush()
	fmt.Fprintln(w)
	t = tabwriter.NewWriter(w, 0, 0, 2, ' ', tabwriter.AlignRight)
	fmt.Fprintln(t, "recorder\twritten Mbps\tbusiest\tintake Mbps\tof\t")
	for i, r := range s.Recorders {
		fmt.Fprintf(t, "%s\t%.1f\t%.1f\t%.1f\t%v\t\n", p.Recorders[i].Name, r.AverageMbps, r.BusiestMbps, r.IntakeMbps, p.Recorders[i].IngestMbps)
	}
	return t.Flush()
}

// days writes a retention; footage that nothing takes away has none.
func days(d *float64) string {
	if d == nil {
		return "no limit"
	}
	return fmt.Sprintf("%.1f", *d)
}

func span(r *estimate.Range) string {
	if r == nil {
		return "no limit"
	}
	return fmt.Sprintf("%.1f to %.1f", r.Low, r.High)
}

func share(e estimate.Evidence) string {
	if e.EventsPerDay == 0 {
		return "-"
	}
	return fmt.Sprintf("%.0f %%", e.FullPercent)
}
