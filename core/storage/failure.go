package storage

import "slices"

// Failure is what the loss of one drive does to an array.
type Failure struct {
	Lost     float64 // share of the footage that is gone, 0 to 1
	Usable   Bytes   // what footage may fill from then on, until the drive is replaced
	Spare    bool    // whether a hot spare takes its place
	MoreLeft int     // drives that may fail after this one, before it is replaced, without loss
}

// Fail tells what happens when the largest of the working drives fails. RAID 1, 5, 6
// and 10 go on with all their footage; RAID 10 can lose any one drive, and more only
// where they are not of one pair, which is not counted on. A span loses what was on
// the drive. RAID 0 loses everything and writes nothing until it is made anew, and so
// does an array with too few drives for its layout.
func (a Array) Fail() Failure {
	tolerated := 0
	switch a.Layout {
	case RAID1:
		tolerated = a.Working() - 1
	case RAID5, RAID10:
		tolerated = 1
	case RAID6:
		tolerated = 2
	}
	usable := a.Usable()
	switch {
	case a.Working() < a.Layout.FewestDrives():
		return Failure{Lost: 1}
	case tolerated > 0 && a.HotSpares > 0:
		return Failure{Usable: usable, Spare: true, MoreLeft: tolerated}
	case tolerated > 0:
		return Failure{Usable: usable, MoreLeft: tolerated - 1}
	case a.Layout == Span:
		left := a
		drives := slices.Sorted(slices.Values(a.Drives))
		at := a.Working() - 1 // the largest are the spares
		left.Drives = slices.Delete(drives, at, at+1)
		after := left.Usable()
		if usable == 0 {
			return Failure{Lost: 1}
		}
		return Failure{Lost: 1 - float64(after/usable), Usable: after}
	}
	return Failure{Lost: 1}
}
