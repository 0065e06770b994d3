package main

import (
	"context"
	"encoding/json"
	"fmt"
	"io"
	"os"
	"text/tabwriter"
	"time"

	"wakefield.example/core/estimate"
	"wakefield.example/core/measured"
	"wakefield.example/core/plan"
	"wakefield.example/internal/formats"
)

// measuredCommand holds what was found at a site against its plan.
type measuredCommand struct {
	Log        []string `help:"Event log: start, end, channel. May be given several times, as all files may." type:"existingfile"`
	Recordings []string `help:"List of recordings: start, end, channel." type:"existingfile"`
	Rates      []string `help:"Measured bitrates: time, channel, kbps; means of an hour." type:"existingfile"`
	Oldest     []string `help:"Oldest footage: date, channel, oldest." type:"existingfile"`
	Settings   []string `help:"Channel table as the recorder has it." type:"existingfile"`
	On         string   `help:"When the oldest footage was looked for, where a line does not say it: 2026-11-23T14:05:00Z; now where absent."`
	JSON       bool     `name:"json" help:"Print the comparison as JSON."`
	Plan       string   `arg:"" help:"Plan file."`
}

func (c *measuredCommand) Run() error {
	p, err := readPlan(c.Plan)
	if err != nil {
		return err
	}
	data, err := c.read(p)
	if err != nil {
		return notAPlan{err}
	}
	r, err := measured.Of(context.Background(), estimate.Run(p, nil), &data)
	if err != nil {
		return err
	}
	if c.JSON {
		out := json.NewEncoder(os.Stdout)
		out.SetIndent("", "  ")
		return out.Encode(r)
	}
	return writeMeasured(os.Stdout, p, r)
}

// read reads all files, in the order of their kinds.
func (c *measuredCommand) read(p *plan.Plan) (all measured.Data, err error) {
	ask := formats.FoundAsk{On: time.Now()}
	if ask.Zone, err = time.LoadLocation(p.Site.TimeZone); err != nil {
		return all, err
	}
	if c.On != "" {
		if ask.On, err = time.Parse(time.RFC3339, c.On); err != nil {
			return all, fmt.Errorf("--on: %w", err)
		}
	}
	var list []measured.Data
	for _, of := range []struct {
		as    string
		files []string
	}{{formats.FoundTriggers, c.Log}, {formats.FoundRecordings, c.Recordings}, {formats.FoundRates, c.Rates}, {formats.FoundOldest, c.Oldest},
		{formats.FoundSettings, c.Settings}} {
		for _, file := range of.files {
			data, err := readSome(file)
			if err != nil {
				return all, err
			}
			ask.As = of.as
			f, err := formats.ReadFound(context.Background(), data, p, ask)
			if err != nil {
				return all, fmt.Errorf("%s: %w", file, err)
			}
			tellFound(os.Stderr, file, f)
			list = append(list, f.Data)
		}
	}
	if len(list) == 0 {
		return all, fmt.Errorf("nothing was found: give --log, --recordings, --rates, --oldest or --settings")
	}
	all, _ = measured.Joined(list)
	return all, nil
}

// tellFound says what of a file was not understood.
func tellFound(w io.Writer, file string, f *formats.Found) {
	for _, b := range f.Bad {
		fmt.Fprintf(w, "%s: line %d: %s: %q left out\n", file, b.Line, b.Reason, b.Text)
	}
	for _, c := range f.Channels {
		if c.Channel == "" {
			fmt.Fprintf(w, "%s: no channel %q in the plan: %s left out\n", file, c.Text, c.Says)
		}
	}
	for _, n := range f.Notes {
		fmt.Fprintf(w, "%s: %s\n", file, n)
	}
}

// writeMeasured prints a comparison for people.
func writeMeasured(w io.Writer, p *plan.Plan, r *measured.Result) error {
	fmt.Fprintf(w, "%s: %s\n", p.Site.Name, p.Name)
	if r.From != nil {
		fmt.Fprintf(w, "%v to %v, logs of %s\n", r.From, r.To, plan.Count(len(r.Logs), "channel"))
	}
	fmt.Fprintln(w)
	t := tabwriter.NewWriter(w, 0, 0, 2, ' ', tabwriter.AlignRight)
	fmt.Fprintln(t, "pool\tplanned days\tfound\toldest footage\t")
	for _, d := range r.Days {
		oldest := "-"
		if d.Oldest > 0 {
			oldest = fmt.Sprintf("%.1f", d.Oldest)
		}
		fmt.Fprintf(t, "%s\t%s\t%s\t%s\t\n", d.Name, span(d.Planned), span(d.Found), oldest)
	}
	if err := t.Flush(); err != nil {
		return err
	}
	fmt.Fprintln(w)
	t = tabwriter.NewWriter(w, 0, 0, 2, ' ', 0)
	fmt.Fprintln(t, "where\twhat\tplanned\tfound\tfour times in five\tdiffers\tdays\tbest explained by")
	for _, f := range r.Figures {
		differs, planned, found := "by chance", fmt.Sprintf("%.4g", f.Planned), fmt.Sprintf("%.4g", f.Found)
		if f.MoreThanChance {
			differs = "yes"
		}
		if f.PlannedText != "" || f.FoundText != "" {
			planned, found = f.PlannedText, f.FoundText
		}
		fmt.Fprintf(t, "%s\t%s\t%s\t%s\t%.4g to %.4g\t%s\t%+.1f\t%s\n", f.Name, f.What, planned, found, f.Low, f.High,
			differs, f.DaysWon, f.Words)
	}
	for _, n := range r.Notes {
		fmt.Fprintln(t, n)
	}
	return t.Flush()
}

// mostOfFile is how large a file of what was found may be: a million lines take less.
const mostOfFile = 200 << 20

// readSome reads a file that is not too large.
func readSome(file string) ([]byte, error) {
	info, err := os.Stat(file)
	if err != nil {
		return nil, err
	}
	if info.Size() > mostOfFile {
		return nil, fmt.Errorf("%s has %d MB; files of up to %d MB, and of a million lines, are read", file, info.Size()>>20, mostOfFile>>20)
	}
	return os.ReadFile(file)
}
