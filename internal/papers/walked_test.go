package papers

import (
	"context"
	"strings"
	"testing"
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/core/walktest"
)

// walkedReport has one walk of every camera, a trial that fails, a decision and a signature.
func walkedReport(t testing.TB, p *plan.Plan) *walktest.Report {
	t.Helper()
	cameras, err := walktest.Of(context.Background(), p)
	if err != nil {
		t.Fatal(err)
	}
	at := time.Date(2026, 11, 29, 10, 0, 0, 0, time.UTC)
	var records []walktest.Record
	add := func(about string, said walktest.Said) {
		records = append(records, walktest.Record{ID: string(rune('a' + len(records))), About: about, Revision: 1, By: "Tobias Fenn",
			At: at.Add(time.Duration(len(records)) * time.Minute), Said: said})
	}
	for i := range cameras {
		c := &cameras[i]
		if len(c.Walks) == 0 {
			continue
		}
		w := &c.Walks[0]
		add(c.Channel, walktest.Said{Walk: &walktest.WalkSaid{Seen: walktest.Seen{Walk: w.ID, NoSign: true, NoShot: true}, Key: w.Expected[0].Key,
			Name: w.Name, Planned: w.Expected[0].Shown, Remark: "½ of it in the rain"}})
	}
	add(cameras[0].Channel, walktest.Said{Decision: &walktest.Decision{What: "leave", Reason: "the counter is moved in spring"}})
	trials := walktest.Trials(p)
	door := trials[0]
	for _, tr := range trials {
		if tr.Kind == "input" {
			door = tr
		}
	}
	add(door.ID, walktest.Said{Trial: &walktest.TrialSaid{Key: door.Key, Name: door.Name, Remark: "the relay sticks",
		Lines: []walktest.LineSaw{{ID: "x", Words: "The light goes on.", Right: false}}}})
	add("", walktest.Said{Signature: &walktest.Signature{Name: "Ines Marrow", Remark: "seen on site",
		Strokes: [][][]float64{{{0.1, 0.5}, {0.4, 0.2}, {0.9, 0.8}}, {{0.2}, {7, 7}}}}})
	r := walktest.Reported(p, cameras, trials, records, 0)
	return &r
}

// TestTheWalkTestAsItWasDone reads back who, when, expected, seen, decided and signed.
func TestTheWalkTestAsItWasDone(t *testing.T) {
	t.Parallel()
	p := sample(t, "pennywhistle-quay")
	s := source(t, p)
	data, err := s.PDF(Walked, A4)
	if err != nil {
		t.Fatal(err)
	}
	inOrder(t, "of nothing", sound(t, "walked", data, A4), "Nothing was walked")
	s.Walked = walkedReport(t, p)
	s.Picture = func(string) []byte { return logo(t) }
	s.Walked.Cameras[0].Photos = []walktest.Record{{Said: walktest.Said{Photo: &walktest.Photo{Picture: "x"}}}}
	if data, err = s.PDF(Walked, A4); err != nil {
		t.Fatal(err)
	}
	inOrder(t, "walked", sound(t, "walked", data, A4), "The walk test is not finished", "Harbour office recorder", "Ticket hall: left so",
		"Tobias Fenn", "the counter is moved in spring", "Most likely: ", "Tried once", "not seen: The light goes on. the relay sticks", "Signed",
		"Ines Marrow", "seen on site")
	names := strings.Join(s.Names(), " ")
	if !strings.Contains(names, "walked.pdf") {
		t.Error(names)
	}
	s.Phone = "https://office.example/walk/quay"
	for _, paper := range []Paper{Steps, WalkTest} {
		if data, err = s.PDF(paper, A4); err != nil {
			t.Fatal(err)
		}
		inOrder(t, string(paper), sound(t, string(paper), data, A4), "scan this", "office.example/walk/quay")
	}
	if _, err := Code(strings.Repeat("x", 5000)); err == nil {
		t.Error("a code of an address that is too long")
	}
}
