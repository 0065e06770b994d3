// Package demo holds the sample sites: Pennywhistle Quay, a small island ferry
// terminal, Brackenhall Cider Works, and Saltmarsh Tram Depot, a large one. All are
// invented.
package demo

import (
	"context"
	_ "embed"
	"encoding/json"
	"fmt"

	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/internal/stills"
	"wakefield.example/internal/store"
)

//go:embed pennywhistle-quay.json
var pennywhistle []byte

//go:embed brackenhall-cider-works.json
var brackenhall []byte

// PennywhistleQuay is the main sample: one recorder of 16 channels, four drives in
// RAID 5, activities that follow the sailings. What its cameras see is known; the pictures themselves come with [Fill].
func PennywhistleQuay() *plan.Plan {
	p := mustRead(pennywhistle)
	for _, v := range quayViews() {
		v.draw(p.Channel(v.channel))
	}
	return p
}

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
		make func() (*plan.Plan, []*stills.Still)
	}{
		{"saltmarsh-tram-depot", func() (*plan.Plan, []*stills.Still) { return SaltmarshTramDepot(), nil }},
		{"brackenhall-cider-works", func() (*plan.Plan, []*stills.Still) { return withPictures(BrackenhallCiderWorks(), ciderViews()) }},
		{"pennywhistle-quay", func() (*plan.Plan, []*stills.Still) { return withPictures(PennywhistleQuay(), quayViews()) }},
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
		p, pictures := site.make()
		note := store.Note{Author: Author, Sentence: "Sample site made", KeptDays: estimate.Figures(p, nil).Verdict.KeptDays}
		if _, err := s.Create(ctx, site.id, note, p, store.WithPictures(pictures)); err != nil {
			return fmt.Errorf("%s: %w", site.id, err)
		}
		if site.id == "pennywhistle-quay" {
			if err := bring(ctx, s, site.id, QuayFound()); err != nil {
				return fmt.Errorf("%s: %w", site.id, err)
			}
		}
	}
	return nil
}

// bring keeps what was found at a sample site.
func bring(ctx context.Context, s *store.Store, site string, list []Found) error {
	for _, f := range list {
		said, err := json.Marshal(f.Data)
		if err != nil {
			return err
		}
		if err := s.Bring(ctx, site, store.Brought{ID: f.ID, Kind: f.Kind, Name: f.Name, Said: said, Author: Author}); err != nil {
			return err
		}
	}
	return nil
}
