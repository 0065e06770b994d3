package handover

import (
	"testing"

	"wakefield.example/core/footage"
	"wakefield.example/core/video"
	"wakefield.example/core/week"
)

// TestWhatAStretchIsWorth weighs two bins, of the first half: what is kept in full counts whole, what is kept low half, and bytes are
// those written.
func TestWhatAStretchIsWorth(t *testing.T) {
	bin := func(from, to week.Minute, full, low float64, kbps video.Kbps) footage.Bin {
		return footage.Bin{Span: week.Span{From: from, To: to}, Full: full, Low: low, Base: kbps}
	}
	planned := footage.Week{bin(0, 60, 9, 9, 8000), bin(60, 120, 8, 4, 800), bin(120, 180, 2, 0, 80), bin(180, 240, 5, 5, 8000)}
	// From 90 to 180: half of 8 and 4, and 2; 30 min of 100 kB/s and 60 of 10.
	over := week.Span{From: 90, To: 180}
	if got := weigh(planned, over); got != (weight{events: 4 + 1 + 2, bytes: 30*60*100e3 + 60*60*10e3}) {
		t.Errorf("%+v", got)
	}
	entered := footage.Week{bin(0, 120, 8, 0, 400), bin(120, 240, 0, 0, 8000)}
	// It has 2 of these events, and writes more: 30 min of 50 kB/s and 60 of 1,000.
	more := int64(30*60*50e3 + 60*60*1000e3 - 30*60*100e3 - 60*60*10e3)
	if got := worse(planned, entered, over); got != (loss{evidence: 5e9, bytes: more, minutes: 90}) {
		t.Errorf("%+v", got)
	}
	// The other way round it keeps more and writes less, which makes up for nothing.
	if got := worse(entered, planned, over); got != (loss{minutes: 90}) {
		t.Errorf("the other way round: %+v", got)
	}
}
