package main

import (
	"encoding/json"
	"fmt"
	"os"

	"wakefield.example/core/check"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/internal/api"
)

// checkCommand prints the findings about a plan file.
type checkCommand struct {
	JSON bool   `name:"json" help:"Print the findings as JSON."`
	Plan string `arg:"" help:"Plan file."`
}

// findingsAreErrors says with the exit status alone that a finding is an error.
type findingsAreErrors struct{}

func (findingsAreErrors) Error() string { return "" }
func (findingsAreErrors) ExitCode() int { return 1 }

func (c *checkCommand) Run() error {
	p, err := readPlan(c.Plan)
	if err != nil {
		return err
	}
	found := check.Findings(p, estimate.Run(p, nil))
	if c.JSON {
		out := json.NewEncoder(os.Stdout)
		out.SetIndent("", "  ")
		if err := out.Encode(found); err != nil {
			return err
		}
	} else {
		for _, f := range found {
			if f.Accepted != nil {
				fmt.Printf("accepted %s: %s Accepted: %s\n", f.Path, f.Sentence, f.Accepted.Reason)
				continue
			}
			fmt.Printf("%-7s  %s: %s %s\n", f.Severity, f.Path, f.Sentence, f.Reason)
		}
	}
	if check.Count(found)[check.Error] > 0 {
		return findingsAreErrors{}
	}
	return nil
}

// schemaCommand prints the JSON Schema of a plan file, or of a comparison.
type schemaCommand struct {
	Measured bool `help:"Of what wakefield measured prints as JSON."`
}

func (c schemaCommand) Run() error {
	schema := plan.Schema()
	if c.Measured {
		var err error
		if schema, err = api.FoundSchema(); err != nil {
			return err
		}
	}
	_, err := os.Stdout.Write(schema)
	return err
}
