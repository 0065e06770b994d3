package papers

import (
	"archive/zip"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"strings"

	"wakefield.example/core/handover"
	"wakefield.example/core/plan"
)

// Names are the files of [Source.Each], in their order.
func (s *Source) Names(recorders ...string) (out []string) {
	out = append(out, "customer.pdf")
	for _, r := range s.of(recorders) {
		name := fileName(r.Name, r.ID)
		out = append(out, "sheet-"+name+".pdf", "sheet-"+name+".xlsx")
	}
	out = append(out, "evidence.pdf", "walk-test.pdf")
	if s.Walked != nil && s.Walked.AnySeen() {
		out = append(out, "walked.pdf")
	}
	return append(out, "steps.json")
}

// fileName is a name that every file system takes, from that of a recorder; ids tell those of one name apart.
func fileName(name, id string) string {
	slug := plan.Slug(name)
	if r := []rune(slug); len(r) > 60 {
		slug = string(r[:60])
	}
	if slug == "" {
		slug = plan.Slug(id)
	}
	if slug == "" {
		slug = "recorder"
	}
	return slug
}

// Each makes all papers, one after the other, and hands each over as it is done. It is given up with the error of the context.
func (s *Source) Each(ctx context.Context, size Size, recorders []string, f func(File) error) error {
	taken := make(map[string]bool)
	give := func(name string, make func() ([]byte, error)) error {
		if err := ctx.Err(); err != nil {
			return err
		}
		data, err := make()
		if err != nil {
			return err
		}
		base, ending := name[:strings.LastIndexByte(name, '.')], name[strings.LastIndexByte(name, '.'):]
		for n := 2; taken[name]; n++ {
			name = fmt.Sprintf("%s-%d%s", base, n, ending)
		}
		taken[name] = true
		return f(File{name, data})
	}
	pdf := func(paper Paper, name string, recorders ...string) error {
		return give(name, func() ([]byte, error) { return s.PDF(paper, size, recorders...) })
	}
	if err := pdf(Customer, "customer.pdf"); err != nil {
		return err
	}
	for _, r := range s.of(recorders) {
		name := fileName(r.Name, r.ID)
		if err := pdf(Steps, "sheet-"+name+".pdf", r.ID); err != nil {
			return err
		}
		if err := give("sheet-"+name+".xlsx", func() ([]byte, error) { return s.Workbook(r.ID) }); err != nil {
			return err
		}
	}
	if err := pdf(Evidence, "evidence.pdf"); err != nil {
		return err
	}
	if err := pdf(WalkTest, "walk-test.pdf", recorders...); err != nil {
		return err
	}
	if s.Walked != nil && s.Walked.AnySeen() {
		if err := pdf(Walked, "walked.pdf"); err != nil {
			return err
		}
	}
	return give("steps.json", func() ([]byte, error) { return s.StepsFile(recorders...) })
}

// StepsFile are the steps as wakefield-steps/1, of the recorders named, all where none is.
func (s *Source) StepsFile(recorders ...string) ([]byte, error) {
	doc := s.Document()
	doc.Recorders = append([]handover.Sheet{}, s.of(recorders)...)
	return json.MarshalIndent(doc, "", "  ")
}

// Zip writes all papers into an archive, each as it is done.
func (s *Source) Zip(ctx context.Context, w io.Writer, size Size, recorders []string) error {
	z := zip.NewWriter(w)
	flusher, _ := w.(interface{ Flush() })
	err := s.Each(ctx, size, recorders, func(file File) error {
		part, err := z.CreateHeader(&zip.FileHeader{Name: file.Name, Method: zip.Deflate})
		if err == nil {
			_, err = part.Write(file.Data)
		}
		if err == nil {
			err = z.Flush()
		}
		if err == nil && flusher != nil {
			flusher.Flush()
		}
		return err
	})
	if err != nil {
		return err
	}
	return z.Close()
}
