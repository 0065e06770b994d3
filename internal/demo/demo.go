// Package demo holds the sample sites: Pennywhistle Quay, a small island ferry
// terminal, Brackenhall Cider Works, and Saltmarsh Tram Depot, a large one. All are
// invented.
package demo

import (
	"context"
	_ "embed"
	"fmt"

	"wakefield/core/estimate"
	"wakefield/core/plan"
	"wakefield/internal/store"
)

//go:embed pennywhistle-quay.json
var pennywhistle []byte

//go:embed brackenhall-cider-works.json
var brackenhall []byte

// PennywhistleQuay is the main sample: one recorder of 16 channels, four drives in
// RAID 5, activities that follow the sailings.
func PennywhistleQuay() *plan.Plan { return mustRead(pennywhistle) }

// BrackenhallCiderWorks is the small sample.
func BrackenhallCiderWorks() *plan.Plan { return mustRead(brackenhall) }

// mustRead reads a plan that is part of the program.
func mustRead(data []byte) *plan.Plan {
	p, err := plan.Read(data)
	if err != nil {
		panic("demo: " + err.Error())
	}
	return p
}

// Author is who made the sample sites.
const Author = "Wakefield"

// Fill stores the sample sites that are not in the store yet; what was changed in
// them stays.
func Fill(ctx context.Context, s *store.Store) error {
	sites := []struct {
		id   string
		make func() *plan.Plan
	}{
		{"saltmarsh-tram-depot", SaltmarshTramDepot},
		{"brackenhall-cider-works", BrackenhallCiderWorks},
		{"pennywhistle-quay", PennywhistleQuay},
	}
	list, err := s.List(ctx)
	if err != nil {
		return err
	}
	there := make(map[string]bool)
	for _, p := range list {
		there[p.ID] = true
	}
	for _, site := range sites {
		if there[site.id] {
			continue
		}
		p := site.make()
		note := store.Note{Author: Author, Sentence: "Sample site made", KeptDays: estimate.Figures(p, nil).Verdict.KeptDays}
		if _, err := s.Create(ctx, site.id, note, p); err != nil {
			return fmt.Errorf("%s: %w", site.id, err)
		}
	}
	return nil
}
