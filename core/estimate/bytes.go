package estimate

import (
	"unsafe"

	"wakefield/core/footage"
)

// Bytes is about how much memory an estimate takes, for whoever keeps several. What
// channels share is counted once.
func (s *Result) Bytes() int {
	sum := len(s.Channels) * int(unsafe.Sizeof(Channel{})+unsafe.Sizeof(input{})+600)
	shared := make(map[*footage.Shares]bool, len(s.played))
	for i, p := range s.played {
		sum += len(p.week)*int(unsafe.Sizeof(footage.Bin{})) + int(unsafe.Sizeof(played{}))
		sum += len(s.doubts[i].kbps)*4 + (len(s.inputs[i].duties)+2*len(s.inputs[i].regimes))*48
		if len(p.shares) > 0 && !shared[&p.shares[0]] {
			shared[&p.shares[0]] = true
			sum += len(p.shares) * int(unsafe.Sizeof(footage.Shares{}))
		}
	}
	for _, d := range s.pooled {
		sum += len(d.holds) + len(d.from)*64
	}
	return sum
}
