package demo

import (
	"context"
	"slices"
	"testing"

	"wakefield.example/core/estimate"
	"wakefield.example/core/measured"
)

// TestWhatIsTrueOfTheQuayIsFound looks whether what is brought in of the sample site tells the four things that are otherwise there
// than planned, and calls nothing else different.
func TestWhatIsTrueOfTheQuayIsFound(t *testing.T) {
	var list []measured.Data
	for _, f := range QuayFound() {
		list = append(list, f.Data)
	}
	data, _ := measured.Joined(list)
	r, err := measured.Of(context.Background(), estimate.Run(PennywhistleQuay(), nil), &data)
	if err != nil {
		t.Fatal(err)
	}
	var differ []string
	for _, f := range r.Figures {
		if f.MoreThanChance {
			differ = append(differ, f.Kind+" "+f.ID)
		}
	}
	slices.Sort(differ)
	if want := []string{"group gangway", "moving lane-1", "rate waves", "seconds kiosk"}; !slices.Equal(differ, want) {
		t.Errorf("%q differ, want %q", differ, want)
	}
	if len(r.Gaps)+len(r.Silences)+len(r.OddDays) > 0 {
		t.Errorf("%v %v %v", r.Gaps, r.Silences, r.OddDays)
	}
	truth := *estimate.Figures(QuayTruth(), nil).Pools[0].RetentionDays
	if d := r.Days[0].Found; d == nil || truth < d.Low || truth > d.High || d.High-d.Low > 3 {
		t.Errorf("%v days are kept, found %+v", truth, d)
	}
}

// TestThePlayedOutQuayIsTheOneOnFile plays a day of it again.
func TestThePlayedOutQuayIsTheOneOnFile(t *testing.T) {
	again, err := PlayQuay(context.Background())
	if err != nil {
		t.Fatal(err)
	}
	kept := QuayFound()
	if len(again) != len(kept) {
		t.Fatal(len(again))
	}
	for k := range again[0].Data.Logs {
		a, b := &again[0].Data.Logs[k], &kept[0].Data.Logs[k]
		if a.Channel != b.Channel || !slices.Equal(a.Counts, b.Counts) {
			t.Errorf("%s was played otherwise; go run ./internal/demo/found internal/demo/pennywhistle-found.json", a.Channel)
		}
	}
}
