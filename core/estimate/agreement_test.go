package estimate

import (
	"math"
	"path/filepath"
	"strings"
	"testing"

	"gonum.org/v1/gonum/stat"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
)

// TestPlayOutAgrees holds the closed form of every plan in testdata/plans against
// the event-by-event play-out, within the sampling error that the spread between
// the played weeks tells.
func TestPlayOutAgrees(t *testing.T) {
	files, _ := filepath.Glob("testdata/plans/*.json")
	if len(files) < 12 {
		t.Fatalf("only %d plans", len(files))
	}
	const weeks = 80
	for _, file := range files {
		t.Run(filepath.Base(file), func(t *testing.T) {
			t.Parallel()
			p := plantest.Read(t, file)
			site := Figures(p, nil)
			played := play(p, weeks, 42)
			for i, c := range p.Channels {
				agree(t, c.ID, &site.Channels[i], played[c.ID])
			}
		})
	}
}

// agree compares the figures of one channel. Five standard errors, with some room
// for the numerical error of 0.1 %, are passed once in a million figures.
func agree(t *testing.T, id string, got *Channel, weeks []tally) {
	t.Helper()
	figures := []struct {
		name   string
		got    float64
		of     func(tally) float64
		counts bool
	}{
		{"written %", got.WrittenPercent, func(w tally) float64 { return 100 * w.written / weekSeconds }, false},
		{"event %", got.EventPercent, func(w tally) float64 { return 100 * w.event / weekSeconds }, false},
		{"kbit/s", got.AverageKbps, func(w tally) float64 { return w.kbit / weekSeconds }, false},
		{"triggers a day", got.TriggersPerDay, func(w tally) float64 { return w.triggers / 7 }, true},
		{"in full a day", got.Evidence.FullPerDay, func(w tally) float64 { return w.full / 7 }, true},
		{"base only a day", got.Evidence.LowPerDay, func(w tally) float64 { return w.base / 7 }, true},
		{"missed a day", got.Evidence.MissedPerDay, func(w tally) float64 { return w.missed / 7 }, true},
	}
	for _, f := range figures {
		values := make([]float64, len(weeks))
		for i, w := range weeks {
			values[i] = f.of(w)
		}
		mean, deviation := stat.MeanStdDev(values, nil)
		sampling := deviation / math.Sqrt(float64(len(values)))
		if f.counts { // what is too rare to have been seen has no spread
			sampling = max(sampling, math.Sqrt(f.got/7/float64(len(values))))
		}
		if off := math.Abs(f.got - mean); off > 5*sampling+0.001*mean+1e-9 {
			t.Errorf("%s %s: %.5f, played %.5f ± %.5f", id, f.name, f.got, mean, sampling)
		}
	}
}

// TestPlayOutTellsDifferentPlansApart shows that the comparison can fail: five
// seconds more post-event time are seen.
func TestPlayOutTellsDifferentPlansApart(t *testing.T) {
	p := plantest.Read(t, "testdata/plans/rush-hour-hall.json")
	played := play(p, 80, 42)["c1"]
	p.Channels[0].PostSeconds += 5
	other := Figures(p, nil)
	mean := 0.0
	for _, w := range played {
		mean += 100 * w.written / weekSeconds / float64(len(played))
	}
	if off := other.Channels[0].WrittenPercent/mean - 1; off < 0.02 {
		t.Errorf("five seconds of post-event time make %.2f %% of a difference", 100*off)
	}
}

// TestPlansUseEveryMember asks that the plans between them use the whole format.
func TestPlansUseEveryMember(t *testing.T) {
	files, _ := filepath.Glob("testdata/plans/*.json")
	used := make(map[string]bool)
	alike := strings.NewReplacer(".sub.", ".main.", ".third.", ".main.")
	for _, file := range files {
		for _, path := range plan.MembersUsed(plantest.Read(t, file)) {
			used[alike.Replace(path)] = true
		}
	}
	for _, path := range plan.Members() {
		if !used[alike.Replace(path)] {
			t.Errorf("no plan uses %s", path)
		}
	}
}
