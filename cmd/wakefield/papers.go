package main

import (
	"context"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"time"

	"wakefield.example/core/check"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
	"wakefield.example/internal/papers"
)

// papersCommand writes the sheets and papers of a plan file.
type papersCommand struct {
	Plan     string   `arg:"" help:"Plan file."`
	To       string   `required:"" placeholder:"DIR" help:"Folder that they are written into; it is made where it is not there."`
	Paper    string   `enum:"a4,letter" default:"a4" help:"Size of paper: a4 or letter."`
	Recorder []string `help:"Ids or names of recorders; all where none is named."`
	Company  string   `help:"Name of the installer's company, at the head of papers."`
	Logo     string   `type:"existingfile" help:"JPEG or PNG beside that."`
	On       string   `placeholder:"DATE" help:"Date of the papers, from which days are counted, such as 2026-12-01; today where absent."`
}

func (c *papersCommand) Run() error {
	p, err := readPlan(c.Plan)
	if err != nil {
		return err
	}
	now := time.Now()
	on := week.Date{Year: now.Year(), Month: now.Month(), Day: now.Day()}
	if c.On != "" {
		if err := on.UnmarshalText([]byte(c.On)); err != nil {
			return notAPlan{fmt.Errorf("--on %s: %w", c.On, err)}
		}
	}
	var recorders []string
	for _, asked := range c.Recorder {
		id, err := recorderOf(p, asked)
		if err != nil {
			return err
		}
		recorders = append(recorders, id)
	}
	figures := estimate.Run(p, nil)
	source, err := papers.New(context.Background(), p, figures, check.Findings(p, figures), on, nil)
	if err != nil {
		return err
	}
	source.Company.Name = c.Company
	if c.Logo != "" {
		if source.Company.Logo, err = os.ReadFile(c.Logo); err != nil {
			return notAPlan{err}
		}
	}
	if err := os.MkdirAll(c.To, 0o755); err != nil {
		return notAPlan{err}
	}
	return source.Each(context.Background(), papers.Size(c.Paper), recorders, func(f papers.File) error {
		path := filepath.Join(c.To, f.Name)
		if err := os.WriteFile(path, f.Data, 0o644); err != nil {
			return err
		}
		_, err := fmt.Println(path)
		return err
	})
}

// recorderOf is the id of a recorder, by its id or its name.
func recorderOf(p *plan.Plan, asked string) (string, error) {
	for i := range p.Recorders {
		if r := &p.Recorders[i]; r.ID == asked || strings.EqualFold(r.Name, asked) {
			return r.ID, nil
		}
	}
	return "", notAPlan{fmt.Errorf("--recorder: no recorder %q", asked)}
}
