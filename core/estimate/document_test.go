package estimate

import (
	"fmt"
	"os"
	"strings"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/resolve"
	"wakefield.example/core/video"
)

// usual is what is usually said of event recording: rate × (pre + length + post).
func usual(p *plan.Plan, site *Result, i int) float64 {
	sum := 0.0
	in := &site.inputs[i]
	for _, src := range append(in.Happening.Motion, in.Happening.Alarm...) {
		sum += src.Triggers.PerDay() * (src.Pre + src.Triggers.Mean + src.Post) / 86400
	}
	return 100 * sum
}

// TestDocumentedTable holds the table of docs/method.md against the program.
func TestDocumentedTable(t *testing.T) {
	doc := readDoc(t)
	for _, row := range []struct{ name, file string }{
		{"Quiet door", "quiet-door"}, {"Rush-hour hall", "rush-hour-hall"}, {"Busy yard", "busy-yard"}, {"Windblown trees", "windblown-trees"},
	} {
		p := plantest.Read(t, "testdata/plans/"+row.file+".json")
		site := Figures(p, nil)
		played := 0.0
		weeks := play(p, 100, 42)["c1"]
		for _, w := range weeks {
			played += 100 * w.event / weekSeconds / float64(len(weeks))
		}
		ours, naive := site.Channels[0].EventPercent, usual(p, site, 0)
		line := fmt.Sprintf("| %s | %.2f %% | %.2f %% | %.2f %% | ×%.2f |", row.name, ours, played, naive, naive/ours)
		if !strings.Contains(doc, line) {
			t.Errorf("docs/method.md lacks the line\n%s", line)
		}
	}
}

// TestDocumentedGroups holds the table of groups against the program: the same events in
// groups, played out, and each by itself.
func TestDocumentedGroups(t *testing.T) {
	doc := readDoc(t)
	for _, row := range []struct {
		name         string
		size, within float64
	}{{"a hall, families", 2.5, 60}, {"a gangway, people off a boat", 5, 90}, {"a ramp, vehicles behind each other", 3, 40}} {
		p := plantest.Read(t, "testdata/plans/rush-hour-hall.json")
		p.Channels = p.Channels[:1]
		alone := Figures(p, nil).Channels[0].EventPercent
		for i := range p.Activities {
			p.Activities[i].Groups = &plan.Groups{Size: row.size, WithinSeconds: row.within}
		}
		site := Figures(p, nil)
		played := 0.0
		weeks := play(p, 100, 42)["c1"]
		for _, w := range weeks {
			played += 100 * w.event / weekSeconds / float64(len(weeks))
		}
		line := fmt.Sprintf("| %s | %v within %v s | %.2f %% | %.2f %% | %.2f %% | %.2f %% |", row.name, row.size, row.within,
			site.Channels[0].EventPercent, played, alone, usual(p, site, 0))
		if !strings.Contains(doc, line) {
			t.Errorf("docs/method.md lacks the line\n%s", line)
		}
	}
}

// TestWorkedExamples computes the figures of the worked examples in docs/method.md.
func TestWorkedExamples(t *testing.T) {
	doc := readDoc(t)
	door := plantest.Read(t, "testdata/one-door.json")
	site := Figures(door, nil)
	modelled := resolve.Encoded(&plan.Stream{Codec: "h265", Width: 2560, Height: 1440, FPS: 15, GOPSeconds: 2,
		Rate: plan.Rate{Kind: "modelled", Quality: 3, Scene: "busy"}})
	for _, says := range []string{
		fmt.Sprintf("written %.2f %% of the week", site.Channels[1].WrittenPercent),
		fmt.Sprintf("%.2f GB a day", site.Channels[1].GigabytesPerDay),
		fmt.Sprintf("%.1f days typically, %.1f at the worst hour", *site.Pools[0].RetentionDays, *site.Pools[0].WorstDays),
		fmt.Sprintf("%.0f kbit/s while nothing moves and %.0f kbit/s while something does", modelled.Cost().Idle, modelled.Cost().Active),
		fmt.Sprintf("keyframes alone cost %.0f kbit/s", modelled.Written(video.Cut{KeyframesOnly: true}, 0).Active),
	} {
		if !strings.Contains(doc, says) {
			t.Errorf("docs/method.md does not say %q", says)
		}
	}
}

// readDoc returns docs/method.md with its lines joined, so that sentences may wrap.
func readDoc(t *testing.T) string {
	t.Helper()
	data, err := os.ReadFile("../../docs/method.md")
	if err != nil {
		t.Fatal(err)
	}
	return strings.ReplaceAll(string(data), "\n", " ")
}
