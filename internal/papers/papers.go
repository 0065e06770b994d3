// Package papers writes what is handed over on paper: the page for the customer, the sheet that a fitter works from, the
// evidence behind the figures, the form of the walk test, and the walk test as it was done. Each is a PDF with its fonts in it;
// the sheet is a workbook too.
//
// What steps say comes from package handover, so that paper, screen and phone have the same words.
//
// PDFs are written with codeberg.org/go-pdf/fpdf. It was held against github.com/signintech/gopdf and
// github.com/tdewolff/canvas on two pages of text with a drawn ribbon each: it takes 0.6 and 0.26 of their time (medians of one
// run, 2026-11-29), is the one that is kept up (a release in 2026; theirs are of July 2025) and needs nothing beside itself,
// where canvas brings 70 modules; it has bookmarks, page counts, clipping and embedded subsets of TrueType fonts. None of them
// tags its pages, so that a reader for the blind has the text in its order and the headings as bookmarks, but no structure.
// github.com/johnfercher/maroto/v2 lays rows out on top of an older relative of fpdf, and draws no ribbons.
package papers

import (
	"context"
	"fmt"
	"time"

	"wakefield.example/core/check"
	"wakefield.example/core/estimate"
	"wakefield.example/core/handover"
	"wakefield.example/core/plan"
	"wakefield.example/core/walktest"
	"wakefield.example/core/week"
)

// Paper is one of the papers.
type Paper string

// Papers.
const (
	Customer Paper = "customer"
	Steps    Paper = "sheet"
	Evidence Paper = "evidence"
	WalkTest Paper = "walk-test"
	Walked   Paper = "walked"
)

// All are the papers by name, in the order in which they are offered.
var All = plan.Choices{
	{ID: string(Customer), Name: "For the customer"},
	{ID: string(Steps), Name: "Sheet"},
	{ID: string(Evidence), Name: "Evidence"},
	{ID: string(WalkTest), Name: "Walk test"},
	{ID: string(Walked), Name: "Walk test, as it was done"},
}

// Company is the installer's, as it stands at the head of papers.
type Company struct {
	Name string
	Logo []byte // JPEG or PNG without transparency; nil for none
}

// Source is what papers are made of.
type Source struct {
	Plan     *plan.Plan // as planned
	Figures  *estimate.Result
	Entered  *handover.Entered
	As       *estimate.Result // of the plan as entered
	Findings []check.Finding
	Revision int64 // 0 for a file
	Variant  string
	On       week.Date // of the papers
	Company  Company
	// Picture is the JPEG of a stored snapshot; nil where there is none. It may be nil itself.
	Picture func(id string) []byte
	Walked  *walktest.Report // what was walked; nil for nothing
	Phone   string           // address of the page for phones; empty where there is none

	document handover.Document
}

// New makes the source of papers of a plan: as entered, with its estimates. earlier, which may be nil, is one of the plan before
// a change. It is given up with the error of the context.
func New(ctx context.Context, p *plan.Plan, figures *estimate.Result, found []check.Finding, on week.Date,
	earlier *Source) (*Source, error) {
	s := &Source{Plan: p, Figures: figures, Findings: found, Variant: p.Name, On: on, Entered: handover.Enter(p, figures), As: figures}
	if s.Entered.Plan != p {
		var err error
		before := figures
		if earlier != nil && earlier.Entered.Differs() {
			before = earlier.As
		}
		if s.As, err = estimate.RunContext(ctx, s.Entered.Plan, before); err != nil {
			return nil, err
		}
	}
	s.document = handover.Sheets(s.Entered, s.As, on)
	return s, ctx.Err()
}

// Document are the steps of all recorders.
func (s *Source) Document() handover.Document {
	doc := s.document
	doc.Revision = s.Revision
	return doc
}

// File is a paper as a file.
type File struct {
	Name string
	Data []byte
}

// PDF writes a paper. Of the sheet and the walk test only the recorders named, all where none is.
func (s *Source) PDF(paper Paper, size Size, recorders ...string) ([]byte, error) {
	mark := longDate(s.On)
	if s.Revision > 0 {
		mark = fmt.Sprintf("revision %d · ", s.Revision) + mark
	}
	made := s.On.At(0, time.UTC)
	sh, err := newSheet(size, All.Name(string(paper))+": "+s.Plan.Site.Name, s.Plan.Site.Name+" · "+s.Variant, mark, made)
	if err != nil {
		return nil, err
	}
	switch paper {
	case Customer:
		s.customer(sh)
	case Steps:
		s.steps(sh, recorders)
	case Evidence:
		s.evidence(sh)
	case WalkTest:
		s.walkTest(sh, recorders)
	case Walked:
		s.walked(sh)
	default:
		return nil, fmt.Errorf("papers: no paper %q", paper)
	}
	return sh.bytes()
}

// longDate is a date as papers write it.
func longDate(d week.Date) string { return fmt.Sprintf("%d %s %d", d.Day, d.Month, d.Year) }

// letterhead sets the company's logo and name, and the title.
func (s *Source) letterhead(sh *sheet, words string) {
	top := sh.y
	if len(s.Company.Logo) > 0 {
		if w, h := sh.picture(s.Company.Logo, sh.left+sh.width-42, top, 42, 16); w > 0 {
			sh.y = max(sh.y, top+h+2)
		}
	}
	if s.Company.Name != "" {
		sh.put(sh.left, top+small.points*mm, sh.letters.clean(s.Company.Name), small, sh.width-50, false)
		top += small.line() + 2
	}
	lines := sh.wrapped(words, title, sh.width-46)
	sh.bookmark(words, 0, top)
	top += sh.column(sh.left, top, lines, title)
	about := s.Plan.Site.Name
	if s.Plan.Site.Customer != "" {
		about += " · " + s.Plan.Site.Customer
	}
	lines = sh.wrapped(about, text, sh.width-46)
	top += sh.column(sh.left, top+0.5, lines, text) + 2
	sh.y = max(sh.y, top)
	sh.rule(sh.y)
	sh.y += 3
}
