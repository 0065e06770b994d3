package papers

import (
	"bytes"
	"context"
	"encoding/json"
	"encoding/xml"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/xuri/excelize/v2"

	"wakefield.example/core/check"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/week"
)

// sample reads a sample site.
func sample(t testing.TB, name string) *plan.Plan {
	t.Helper()
	return plantest.Read(t, "../demo/"+name+".json")
}

func source(t testing.TB, p *plan.Plan) *Source {
	t.Helper()
	if err := p.Check(); err != nil {
		t.Fatalf("the plan is none: %v", err)
	}
	figures := estimate.Run(p, nil)
	s, err := New(context.Background(), p, figures, check.Findings(p, figures), week.Date{Year: 2027, Month: 3, Day: 2}, nil)
	if err != nil {
		t.Fatal(err)
	}
	s.Revision = 214
	return s
}

// word is a word of a page and where it stands, as another program reads it.
type word struct {
	Left   float64 `xml:"xMin,attr"`
	Top    float64 `xml:"yMin,attr"`
	Right  float64 `xml:"xMax,attr"`
	Bottom float64 `xml:"yMax,attr"`
	Text   string  `xml:",chardata"`
}

type pdfPage struct {
	Width  float64 `xml:"width,attr"`
	Height float64 `xml:"height,attr"`
	Words  []word  `xml:"word"`
}

// read reads a PDF back with poppler: its text in reading order, its pages, and what pdfinfo and pdffonts say.
func read(t *testing.T, data []byte) (text string, pages []pdfPage, info, fonts string) {
	t.Helper()
	file := filepath.Join(t.TempDir(), "paper.pdf")
	if err := os.WriteFile(file, data, 0o600); err != nil {
		t.Fatal(err)
	}
	run := func(name string, args ...string) []byte {
		var complaint bytes.Buffer
		c := exec.Command(name, args...)
		c.Stderr = &complaint
		out, err := c.Output()
		if err != nil || complaint.Len() > 0 {
			t.Fatalf("%s: %v %s", name, err, complaint.String())
		}
		return out
	}
	text = string(run("pdftotext", file, "-"))
	var doc struct {
		Pages []pdfPage `xml:"body>doc>page"`
	}
	boxes := run("pdftotext", "-bbox", file, "-")
	decoder := xml.NewDecoder(bytes.NewReader(boxes))
	decoder.Strict = false
	if err := decoder.Decode(&doc); err != nil {
		t.Fatalf("pdftotext -bbox: %v", err)
	}
	return text, doc.Pages, string(run("pdfinfo", file)), string(run("pdffonts", file))
}

// sound asks of a PDF what holds for all: fonts embedded, nothing outside the page, no words over one another, revision and page
// on every page.
func sound(t *testing.T, what string, data []byte, size Size) string {
	t.Helper()
	text, pages, info, fonts := read(t, data)
	lines := strings.Split(strings.TrimSpace(fonts), "\n")
	if len(lines) < 3 {
		t.Errorf("%s: no fonts: %s", what, fonts)
	}
	for _, line := range lines[2:] {
		fields := strings.Fields(line)
		if n := len(fields); n < 5 || fields[n-5] != "yes" {
			t.Errorf("%s: a font is not embedded: %s", what, line)
		}
	}
	if want := fmt.Sprintf("Pages:           %d", len(pages)); !strings.Contains(info, want) || len(pages) == 0 {
		t.Errorf("%s: %d pages read, pdfinfo says\n%s", what, len(pages), info)
	}
	wide, high := 595.28, 841.89
	if size == Letter {
		wide, high = 612, 792
	}
	for i, page := range pages {
		if page.Width-wide > 0.5 || wide-page.Width > 0.5 || page.Height-high > 0.5 || high-page.Height > 0.5 {
			t.Errorf("%s: page %d is %v × %v", what, i+1, page.Width, page.Height)
		}
		foot := 0
		for k, w := range page.Words {
			if w.Left < 20 || w.Right > page.Width-20 || w.Top < 20 || w.Bottom > page.Height-20 {
				t.Errorf("%s: page %d: %q stands at %.0f,%.0f to %.0f,%.0f", what, i+1, w.Text, w.Left, w.Top, w.Right, w.Bottom)
			}
			if w.Text == "214" || w.Text == "page" {
				foot++
			}
			for _, o := range page.Words[:k] {
				// Boxes of lines below one another share the room between them.
				if min(w.Right, o.Right)-max(w.Left, o.Left) > 0.5 && min(w.Bottom, o.Bottom)-max(w.Top, o.Top) > 0.45*(w.Bottom-w.Top) {
					t.Errorf("%s: page %d: %q and %q stand over one another", what, i+1, w.Text, o.Text)
				}
			}
		}
		if foot < 2 {
			t.Errorf("%s: page %d says neither revision nor page", what, i+1)
		}
	}
	return text
}

// inOrder asks that texts stand in a text one after the other.
func inOrder(t *testing.T, what, text string, parts ...string) {
	t.Helper()
	text = strings.Join(strings.Fields(text), " ")
	at := 0
	for _, p := range parts {
		k := strings.Index(text[at:], p)
		if k < 0 {
			t.Errorf("%s: %q does not follow", what, p)
			continue
		}
		at += k + len(p)
	}
}

func TestPapersOfTheQuay(t *testing.T) {
	t.Parallel()
	p := sample(t, "pennywhistle-quay")
	s := source(t, p)
	s.Company = Company{Name: "Lantern & Sons", Logo: logo(t)}
	for _, size := range []Size{A4, Letter} {
		for _, paper := range All {
			if size == Letter && (paper.ID == string(Evidence) || paper.ID == string(WalkTest)) {
				continue // set as the others are
			}
			data, err := s.PDF(Paper(paper.ID), size)
			if err != nil {
				t.Fatal(err)
			}
			text := sound(t, paper.ID+" "+string(size), data, size)
			switch Paper(paper.ID) {
			case Customer:
				inOrder(t, paper.ID, text, "Lantern & Sons", "What is recorded", "How long footage is kept", "Ticket booth comes off worst", "Terminal",
					"From when to when", "What is not recorded",
					"Sound is recorded by Ticket booth", "Who is told", "Harbour master", "How long it takes to hand footage over",
					"Agreed", "Place and date")
			case Steps:
				inOrder(t, paper.ID, text, "Harbour office recorder", "1 Network and clock", "1.1", "Time zone Europe/Dublin", "2 Cameras and names",
					"3 Streams", "4 Detection", "5 Ties", "6 Week", "7 Special days", "8 Disks", "9 Messages", "11 The check of it all", "Come back on")
			case Evidence:
				inOrder(t, paper.ID, text, "What the figures rest on", "How often things happen", "What streams send", "How many days",
					"How it is worked out")
			case WalkTest:
				inOrder(t, paper.ID, text, "Walk test", "Harbour office recorder", "Camera and walk", "Contacts", "normally closed")
			}
		}
	}
}

// logo is a picture of a lantern, as small as it gets.
func logo(t testing.TB) []byte {
	t.Helper()
	data, err := os.ReadFile("testdata/lantern.png")
	if err != nil {
		t.Fatal(err)
	}
	return data
}

// TestNamesThatNoFontHas has names of 120 letters, emoji, and from right to left.
func TestNamesThatNoFontHas(t *testing.T) {
	t.Parallel()
	p := sample(t, "pennywhistle-quay")
	long := strings.Repeat("Donaudampfschiff", 6)[:96] + " 4"
	names := []string{"Kai ⚓️ 🚢 nord", "מזח צפוני 3", "رصيف الشمال", long, "Ünder ﬁtting №7 ½", "日本の埠頭"}
	for i, name := range names {
		p.Channels[i].Name = name
	}
	p.Recorders[0].Name = "Büro 🛟 " + strings.Repeat("x", 80)
	p.Site.Name = "مرفأ " + strings.Repeat("Pennywhistle ", 9)
	p.Site.Customer = strings.Repeat("W", 200)
	s := source(t, p)
	s.Walked = walkedReport(t, p)
	for _, paper := range All {
		data, err := s.PDF(Paper(paper.ID), A4)
		if err != nil {
			t.Fatal(err)
		}
		text := sound(t, paper.ID, data, A4)
		if paper.ID != string(Customer) {
			inOrder(t, paper.ID, text, "[ship]")
			if !strings.Contains(text, "½") || strings.ContainsRune(text, '\ufffd') {
				t.Errorf("%s: letters are lost", paper.ID)
			}
		}
	}
	l, err := loadFonts()
	if err != nil {
		t.Fatal(err)
	}
	if got, want := l.clean("日本🚢"), "[U+65E5][U+672C][ship]"; got != want {
		t.Errorf("%q, want %q", got, want)
	}
	// Alef, lam and meem: alone, at the beginning, at the end, and seen from the left.
	if got, want := seen(l.clean("الم")), "\ufee2\ufedf\ufe8d"; got != want {
		t.Errorf("%q, want %q", got, want)
	}
	for text, want := range map[string]string{"Pier שלום 3": "Pier 3 םולש", "שלום 12.5 m, (אב)": "12.5 םולש m, (בא)", "Pier 3": "Pier 3"} {
		if got := seen(text); got != want {
			t.Errorf("%q is seen as %q, want %q", text, got, want)
		}
	}
}

// TestPapersOfLittle has plans with no recorder, no camera and a recorder that takes nothing.
func TestPapersOfLittle(t *testing.T) {
	t.Parallel()
	empty := &plan.Plan{Format: plan.Format, Name: "Empty", Site: plan.Site{Name: "Nowhere", TimeZone: "UTC"}, Duties: plan.ReadyMade(),
		Recorders: []plan.Recorder{}, Channels: []plan.Channel{}}
	nothing := sample(t, "pennywhistle-quay")
	nothing.Recorders[0].Takes = &plan.Takes{StepMinutes: 1440, PeriodsPerDay: 1, Layers: "one", PreSeconds: []float64{0},
		PostSeconds: []float64{0}, FramesPerSecond: []float64{1}, SensitivitySteps: 1, Areas: "none", Copies: []string{}}
	bare := sample(t, "pennywhistle-quay")
	for i := range bare.Channels {
		bare.Channels[i].NoCamera = true
	}
	for name, p := range map[string]*plan.Plan{"no recorder": empty, "takes nothing": nothing, "no camera": bare} {
		s := source(t, p)
		for _, paper := range All {
			data, err := s.PDF(Paper(paper.ID), A4)
			if err != nil {
				t.Fatal(err)
			}
			sound(t, name+" "+paper.ID, data, A4)
		}
		if _, err := s.Workbook(); err != nil {
			t.Errorf("%s: %v", name, err)
		}
	}
}

// TestManyAreas has a sheet with 192 areas, drawn and painted.
func TestManyAreas(t *testing.T) {
	t.Parallel()
	p := sample(t, "pennywhistle-quay")
	p.Recorders[0].Takes = &plan.Takes{Areas: "grid"}
	p.Effects = nil
	for i := range 12 {
		var list []plan.Area
		for k := range 16 {
			x := float64(k) / 20
			list = append(list, plan.Area{ID: fmt.Sprint("a", k), Name: fmt.Sprint("Area ", k), Ignore: k > 0 && k%3 == 0,
				Points: []plan.Point{{x, 0.1}, {x + 0.2, 0.15}, {x + 0.1, 0.9}}})
		}
		p.Channels[i].Detection.On, p.Channels[i].Detection.Areas = true, &plan.Areas{List: list}
	}
	data, err := source(t, p).PDF(Steps, A4)
	if err != nil {
		t.Fatal(err)
	}
	text := strings.Join(strings.Fields(sound(t, "many areas", data, A4)), "")
	if n := strings.Count(text, "of22×18"); n < 192 {
		t.Errorf("%d areas are on the sheet", n)
	}
}

// TestTheWorkbookAndTheStepsSayTheSame reads both back.
func TestTheWorkbookAndTheStepsSayTheSame(t *testing.T) {
	t.Parallel()
	p := sample(t, "pennywhistle-quay")
	p.Channels[0].Name = "=HYPERLINK(1)"
	s := source(t, p)
	var files []string
	var steps, book []byte
	if err := s.Each(context.Background(), A4, nil, func(f File) error {
		files = append(files, f.Name)
		switch {
		case f.Name == "steps.json":
			steps = f.Data
		case strings.HasSuffix(f.Name, ".xlsx"):
			book = f.Data
		}
		return nil
	}); err != nil {
		t.Fatal(err)
	}
	if !slices.Equal(files, s.Names()) {
		t.Errorf("%v, and named before %v", files, s.Names())
	}
	var doc struct {
		Format    string
		Revision  int64
		Recorders []struct {
			Name  string
			Steps []struct{ ID, Words string }
		}
	}
	if err := json.Unmarshal(steps, &doc); err != nil || doc.Format != "wakefield-steps/1" || doc.Revision != 214 {
		t.Fatalf("%v %+v", err, doc)
	}
	f, err := excelize.OpenReader(bytes.NewReader(book))
	if err != nil {
		t.Fatal(err)
	}
	rows, err := f.GetRows(f.GetSheetName(0))
	if err != nil || len(rows) != len(doc.Recorders[0].Steps)+3 {
		t.Fatalf("%d rows of %d steps, %v", len(rows), len(doc.Recorders[0].Steps), err)
	}
	data, err := s.PDF(Steps, A4)
	if err != nil {
		t.Fatal(err)
	}
	text, _, _, _ := read(t, data)
	words := strings.ReplaceAll(strings.Join(strings.Fields(text), " "), " ", "")
	for i, st := range doc.Recorders[0].Steps {
		// Beside an area its picture has numbers, which stand between the words.
		if plain := strings.ReplaceAll(st.Words, " ", ""); !strings.Contains(words, plain) && !strings.Contains(st.Words, "% across and down") {
			t.Errorf("the PDF does not say %s %q", st.ID, st.Words)
		}
		if rows[i+3][0] != st.ID || rows[i+3][2] != st.Words {
			t.Fatalf("%v, want %+v", rows[i+3], st)
		}
	}
	for i := range rows {
		if formula, _ := f.GetCellFormula(f.GetSheetName(0), fmt.Sprintf("C%d", i+1)); formula != "" {
			t.Errorf("row %d is a formula", i+1)
		}
	}
}

// TestPapersCanBeStopped ends while papers are made.
func TestPapersCanBeStopped(t *testing.T) {
	s := source(t, sample(t, "pennywhistle-quay"))
	ctx, stop := context.WithCancel(context.Background())
	n := 0
	err := s.Each(ctx, A4, nil, func(File) error {
		n++
		stop()
		return nil
	})
	if err == nil || n != 1 {
		t.Errorf("%d papers, %v", n, err)
	}
}

// TestBookmarks asks for a bookmark for every heading.
func TestBookmarks(t *testing.T) {
	t.Parallel()
	data, err := source(t, sample(t, "pennywhistle-quay")).PDF(Steps, A4)
	if err != nil {
		t.Fatal(err)
	}
	for _, title := range []string{"Harbour office recorder", "6  Week", "11  The check of it all"} {
		var utf16 []byte
		for _, r := range title {
			utf16 = append(utf16, byte(r>>8), byte(r))
		}
		if !bytes.Contains(data, append([]byte("/Title (\xfe\xff"), utf16...)) {
			t.Errorf("no bookmark %q", title)
		}
	}
}

func BenchmarkCustomersPage(b *testing.B) {
	s := source(b, sample(b, "pennywhistle-quay"))
	for b.Loop() {
		if _, err := s.PDF(Customer, A4); err != nil {
			b.Fatal(err)
		}
	}
}
