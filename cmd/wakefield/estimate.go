package main

import (
	"context"
	"encoding/json"
	"fmt"
	"io"
	"os"
	"text/tabwriter"
	"time"

	"wakefield.example/core/doubt"
	"wakefield.example/core/estimate"
	"wakefield.example/core/footage"
	"wakefield.example/core/handover"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
	"wakefield.example/core/year"
)

// estimateCommand prints the figures of a plan file.
type estimateCommand struct {
	JSON    bool   `name:"json" help:"Print the figures as JSON."`
	Entered bool   `help:"Of the plan as its recorders take it."`
	Year    int    `help:"Follow this year too, date by date: special days, and clocks that change."`
	Plan    string `arg:"" help:"Plan file."`
}

func (c *estimateCommand) Run() error {
	p, err := readPlan(c.Plan)
	if err != nil {
		return err
	}
	site := estimate.Run(p, nil)
	figures := struct {
		*estimate.Result
		Year       *year.Year           `json:"year,omitempty"`
		Knowing    []estimate.Unknown   `json:"knowing"`
		Departures []handover.Departure `json:"departures,omitempty"`
	}{Result: site}
	if c.Entered {
		entered := handover.Enter(p, site)
		if figures.Departures = entered.Departures; entered.Plan != p {
			p = entered.Plan
			site = estimate.Run(p, site)
			figures.Result = site
		}
	}
	if c.Year != 0 {
		if figures.Year, err = site.Year(context.Background(), week.Date{Year: c.Year, Month: time.January, Day: 1}); err != nil {
			return notAPlan{fmt.Errorf("--year %d: %w", c.Year, err)}
		}
	}
	if c.JSON {
		if figures.Knowing, err = site.Knowing(context.Background()); err != nil {
			return err
		}
		out := json.NewEncoder(os.Stdout)
		out.SetIndent("", "  ")
		return out.Encode(figures)
	}
	err = writeTable(os.Stdout, p, site)
	if err == nil && c.Entered {
		err = writeDepartures(os.Stdout, p, figures.Departures)
	}
	if err != nil || figures.Year == nil {
		return err
	}
	return writeYear(os.Stdout, p, figures.Year)
}

// writeDepartures prints what is entered otherwise than planned.
func writeDepartures(w io.Writer, p *plan.Plan, list []handover.Departure) error {
	fmt.Fprintln(w)
	if len(list) == 0 {
		_, err := fmt.Fprintln(w, "Everything can be entered as planned.")
		return err
	}
	for _, d := range list {
		c := p.Channel(d.Channel)
		if _, err := fmt.Fprintf(w, "%s, %d %s: %s becomes %s\n", p.Recorder(d.Recorder).Name, c.Number, c.Name, d.Planned,
			d.Entered); err != nil {
			return err
		}
	}
	return nil
}

// writeYear prints the year of every pool for people.
func writeYear(w io.Writer, p *plan.Plan, y *year.Year) error {
	fmt.Fprintln(w)
	t := tabwriter.NewWriter(w, 0, 0, 2, ' ', tabwriter.AlignRight)
	fmt.Fprintf(t, "pool\t%d: least days kept\ton\tspecial day\tfull after\t\n", y.From.Year)
	for _, pool := range y.Pools {
		on, full := "-", "never"
		if pool.WorstDate != nil {
			on = pool.WorstDate.String()
		}
		if pool.FullAfterDays != nil {
			full = fmt.Sprintf("%.1f days", *pool.FullAfterDays)
		}
		fmt.Fprintf(t, "%s\t%s\t%s\t%s\t%s\t\n", p.Pool(pool.ID).Name, days(pool.WorstDays), on, pool.Name, full)
	}
	return t.Flush()
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
func writeTable(w io.Writer, p *plan.Plan, s *estimate.Result) error {
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
			days(c.RetentionDays), days(c.WorstDays), days(c.RequiredDays), share(c.Evidence))
	}
	t.Flush()
	fmt.Fprintln(w)
	t = tabwriter.NewWriter(w, 0, 0, 2, ' ', tabwriter.AlignRight)
	fmt.Fprintln(t, "pool\tusable TB\tGB a day\tdays kept\tat worst\tfour times in five\t")
	for _, pool := range s.Pools {
		fmt.Fprintf(t, "%s\t%.2f\t%.1f\t%s\t%s\t%s\t\n", p.Pool(pool.ID).Name, pool.UsableGB/1000, pool.GigabytesPerDay,
			days(pool.RetentionDays), days(pool.WorstDays), span(pool.LikelyDays))
	}
	t.Flush()
	fmt.Fprintln(w)
	t = tabwriter.NewWriter(w, 0, 0, 2, ' ', tabwriter.AlignRight)
	fmt.Fprintln(t, "recorder\twritten Mbit/s\tbusiest\tintake Mbit/s\tof\t")
	for i, r := range s.Recorders {
		fmt.Fprintf(t, "%s\t%.1f\t%.1f\t%.1f\t%v\t\n", p.Recorders[i].Name, r.AverageMbps, r.BusiestMbps, r.IntakeMbps, p.Recorders[i].IngestMbps)
	}
	if err := t.Flush(); err != nil {
		return err
	}
	return writeAlerts(w, p, s)
}

// days writes a retention; footage that nothing takes away has none.
func days(d *float64) string {
	if d == nil {
		return "no limit"
	}
	if *d > 36525 {
		return "over 100 years"
	}
	return fmt.Sprintf("%.1f", *d)
}

func span(r *doubt.Range) string {
	if r == nil {
		return "no limit"
	}
	return fmt.Sprintf("%.1f to %.1f", r.Low, r.High)
}

func share(e footage.Evidence) string {
	if e.EventsPerDay == 0 {
		return "-"
	}
	return fmt.Sprintf("%.0f %%", e.FullPercent)
}
