// Package storage knows drives, the arrays made of them, and how many days of
// footage a pool holds.
package storage

import (
	"math"
	"slices"
)

// Bytes is an amount of data.
type Bytes float64

const (
	GB Bytes = 1e9
	TB Bytes = 1e12
)

// Layout is how the drives of a pool are arrayed.
type Layout string

const (
	Span   Layout = "span"   // one after the other
	RAID0  Layout = "raid0"  // striped, no redundancy
	RAID1  Layout = "raid1"  // every drive holds the same
	RAID5  Layout = "raid5"  // one drive's worth of parity
	RAID6  Layout = "raid6"  // two drives' worth of parity
	RAID10 Layout = "raid10" // striped pairs of mirrors
)

// FewestDrives is how many drives the layout needs to work, hot spares apart.
func (l Layout) FewestDrives() int {
	return map[Layout]int{Span: 1, RAID0: 2, RAID1: 2, RAID5: 3, RAID6: 4, RAID10: 4}[l]
}

// Array is a set of drives in one layout.
type Array struct {
	Drives    []Bytes // size of each drive, hot spares included
	Layout    Layout
	HotSpares int     // drives that wait for another to fail, 0 ≤ HotSpares ≤ len(Drives)
	Reserve   float64 // share of the array kept free, 0 ≤ Reserve < 1
}

// Bought is the size of all drives together.
func (a Array) Bought() Bytes {
	sum := Bytes(0)
	for _, d := range a.Drives {
		sum += d
	}
	return sum
}

// Working is how many drives hold data or parity.
func (a Array) Working() int { return max(0, len(a.Drives)-a.HotSpares) }

// Usable is what footage may fill. With n working drives and s the smallest of all:
// RAID 0 n·s, RAID 1 s, RAID 5 (n−1)·s, RAID 6 (n−2)·s, RAID 10 ⌊n/2⌋·s, span the
// sum; less the reserve. The largest drives of a span are its spares, as a spare
// must be able to stand in for any.
func (a Array) Usable() Bytes { return a.Whole() * Bytes(1-a.Reserve) }

// Spare is the size of the hot spares, the largest drives there are.
func (a Array) Spare() Bytes {
	drives := slices.Sorted(slices.Values(a.Drives))
	sum := Bytes(0)
	for _, d := range drives[a.Working():] {
		sum += d
	}
	return sum
}

// Whole is what footage may fill, the reserve included.
func (a Array) Whole() Bytes {
	n := a.Working()
	if n == 0 {
		return 0
	}
	drives := slices.Sorted(slices.Values(a.Drives))
	s := drives[0]
	var whole Bytes
	switch a.Layout {
	case RAID0:
		whole = Bytes(n) * s
	case RAID1:
		whole = s
	case RAID5:
		whole = Bytes(n-1) * s
	case RAID6:
		whole = Bytes(max(0, n-2)) * s
	case RAID10:
		whole = Bytes(n/2) * s
	default:
		for _, d := range drives[:n] {
			whole += d
		}
	}
	return whole
}

// Days is a retention; Forever where nothing is ever overwritten.
type Days float64

// Forever is the retention of footage that no limit takes away.
var Forever = Days(math.Inf(1))

// Bounded tells whether the footage is ever overwritten or expires.
func (d Days) Bounded() bool { return !math.IsInf(float64(d), 1) }
