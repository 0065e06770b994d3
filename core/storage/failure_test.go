package storage

import (
	"math"
	"testing"
)

func TestFail(t *testing.T) {
	four := []Bytes{4 * TB, 4 * TB, 4 * TB, 4 * TB}
	tests := []struct {
		name  string
		array Array
		want  Failure
	}{
		{"RAID 5", Array{Drives: four, Layout: RAID5}, Failure{Usable: 12 * TB}},
		{"RAID 5 with a spare", Array{Drives: four, Layout: RAID5, HotSpares: 1}, Failure{Usable: 8 * TB, Spare: true, MoreLeft: 1}},
		{"RAID 6", Array{Drives: four, Layout: RAID6}, Failure{Usable: 8 * TB, MoreLeft: 1}},
		{"RAID 1", Array{Drives: four[:3], Layout: RAID1}, Failure{Usable: 4 * TB, MoreLeft: 1}},
		{"RAID 10", Array{Drives: four, Layout: RAID10}, Failure{Usable: 8 * TB}},
		{"RAID 0", Array{Drives: four, Layout: RAID0}, Failure{Lost: 1}},
		{"span", Array{Drives: []Bytes{8 * TB, 2 * TB, 2 * TB}, Layout: Span}, Failure{Lost: 8.0 / 12, Usable: 4 * TB}},
		{"span of one", Array{Drives: four[:1], Layout: Span}, Failure{Lost: 1}},
		{"too few", Array{Drives: four[:2], Layout: RAID5}, Failure{Lost: 1}},
		{"no drives", Array{Layout: Span}, Failure{Lost: 1}},
	}
	for _, test := range tests {
		got := test.array.Fail()
		if math.Abs(got.Lost-test.want.Lost) > 1e-12 || got.Usable != test.want.Usable || got.Spare != test.want.Spare ||
			got.MoreLeft != test.want.MoreLeft {
			t.Errorf("%s: %+v, want %+v", test.name, got, test.want)
		}
	}
}

func TestWhatIsBoughtAddsUp(t *testing.T) {
	drives := []Bytes{8 * TB, 2 * TB, 4 * TB, 4 * TB, 4 * TB, 2 * TB}
	for _, layout := range []Layout{Span, RAID0, RAID1, RAID5, RAID6, RAID10} {
		a := Array{Drives: drives, Layout: layout, HotSpares: 1, Reserve: 0.1}
		if a.Spare() != 8*TB || a.Whole() > a.Bought()-a.Spare() || a.Usable() != a.Whole()*0.9 {
			t.Errorf("%s: spare %v, whole %v, usable %v of %v", layout, a.Spare(), a.Whole(), a.Usable(), a.Bought())
		}
	}
}
