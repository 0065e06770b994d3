package resolve

import (
	"encoding/binary"
	"hash/fnv"
	"math"
	"slices"

	"wakefield.example/core/footage"
	"wakefield.example/core/video"
	"wakefield.example/core/week"
)

// Input is all that decides what one channel writes.
type Input struct {
	Empty     bool // no camera
	Duties    week.Steps[string]
	Regimes   week.Steps[footage.Regime]
	Happening footage.Happening
	Full      video.Kbps // main stream in full

	// How well things are known, for the draws.
	Heard   Heard
	Layers  week.Steps[LayerStreams]
	Rates   [3]RateKnown
	Guessed bool // whether it is a guess how reliably it notices what is in sight
	Calls   int  // the stream that buttons record, as an index of rates
}

// LayerStreams says which streams a duty's layers write, as indices of rates.
type LayerStreams struct {
	Base, Event                 int
	BaseHalvings, EventHalvings float64 // of a modelled stream: how often its frames are halved
}

// Play plays the channel's week, at the stated figures where off is nil, else with every
// origin of what happens off by a factor.
func (in *Input) Play(off []Factor) []footage.Shares {
	switch {
	case in.Empty:
		return footage.Play(footage.Happening{}, week.Constant(footage.Regime{}))
	case off == nil:
		return footage.Play(in.Happening, in.Regimes)
	}
	return footage.Play(in.Heard.Happening(in.Happening, off), in.Regimes)
}

// price gives shares the channel's costs.
func (in *Input) price(shares []footage.Shares) footage.Week {
	return footage.Price(shares, in.Regimes)
}

// Fingerprint is the same for inputs that play alike, and mostly differs for others.
func (in *Input) Fingerprint() uint64 {
	h := fnv.New64a()
	var buffer [8]byte
	add := func(values ...float64) {
		for _, v := range values {
			binary.LittleEndian.PutUint64(buffer[:], math.Float64bits(v))
			h.Write(buffer[:])
		}
	}
	for _, r := range in.Regimes {
		add(float64(r.From), float64(r.Value.Admit))
	}
	for _, sources := range [][]footage.Source{in.Happening.Motion, in.Happening.Alarm} {
		for _, src := range sources {
			add(src.Pre, src.Post, src.Triggers.Mean, float64(src.Triggers.Intensity.Len()), src.Triggers.PerDay(), src.Events.Group.Size,
				src.Events.Group.Seconds)
		}
	}
	for _, n := range in.Happening.Noticed {
		add(float64(n.From), n.Value)
	}
	add(in.Happening.Call, in.Happening.Wanted.Mean)
	return h.Sum64()
}

// PlaysAlike tells whether two channels' time divides in the same way: they see the
// same and do the same, whatever it costs.
func (in *Input) PlaysAlike(other *Input) bool {
	regime := func(a, b week.Step[footage.Regime]) bool {
		return a.From == b.From && a.Value.HasBase == b.Value.HasBase && a.Value.Whole == b.Value.Whole && a.Value.CallLow == b.Value.CallLow &&
			a.Value.CallUnder == b.Value.CallUnder && a.Value.Admit == b.Value.Admit &&
			in.Happening.Moves(a.Value) == other.Happening.Moves(b.Value)
	}
	return in.Empty == other.Empty && slices.EqualFunc(in.Regimes, other.Regimes, regime) && in.sees(other)
}

// Assure takes the bitrates of a channel for measured.
func (in *Input) Assure() {
	for s := range in.Rates {
		if r := &in.Rates[s]; r.Known != "" {
			r.Known, r.Modelled = "measured", false
		}
	}
}

// AssureNight takes it for known what the streams of a channel cost in the dark.
func (in *Input) AssureNight() {
	for s := range in.Rates {
		in.Rates[s].NightUnsaid = false
	}
}

// same tells whether two inputs are one and the same.
func (in *Input) same(other *Input) bool {
	return in.Rates == other.Rates && in.Guessed == other.Guessed && !in.Empty && !other.Empty && len(in.Regimes) > 0 &&
		len(other.Regimes) > 0 && &in.Regimes[0] == &other.Regimes[0]
}

// Equal tells whether two inputs give the same footage and doubt.
func (in *Input) Equal(other *Input) bool {
	if in.same(other) {
		return true
	}
	return in.Empty == other.Empty && in.Full == other.Full && in.Rates == other.Rates && in.Guessed == other.Guessed &&
		slices.Equal(in.Duties, other.Duties) && slices.Equal(in.Layers, other.Layers) && slices.Equal(in.Regimes, other.Regimes) &&
		in.sees(other)
}

// sees tells whether the same happens to two channels, as well known.
func (in *Input) sees(other *Input) bool {
	return in.Happening.Equal(&other.Happening) && slices.Equal(in.Heard.Origins, other.Heard.Origins)
}

// ByStream is the mean bitrate of a week from each stream.
func (in *Input) ByStream(shares []footage.Shares) (out [3]float64) {
	in.EachBin(shares, func(_ int, b *footage.Bin, from LayerStreams) {
		part := float64(b.Span.Minutes()) / 10080
		out[from.Base] += part * float64(b.Base)
		out[from.Event] += part * float64(b.Motion+b.Alarm-b.Call)
		out[in.Calls] += part * float64(b.Call)
	})
	return out
}

// EachBin calls f with every bin of what is written, and with the streams that the duty's layers write then.
func (in *Input) EachBin(shares []footage.Shares, f func(k int, b *footage.Bin, from LayerStreams)) {
	var from LayerStreams
	next := 0
	bins := in.price(shares)
	for k := range bins {
		for next < len(in.Layers) && in.Layers[next].From <= bins[k].Span.From {
			from = in.Layers[next].Value
			next++
		}
		f(k, &bins[k], from)
	}
}

// FewerFrames tells whether anything of a modelled stream is written with fewer frames than it has.
func (in *Input) FewerFrames() bool {
	return slices.ContainsFunc(in.Layers, func(s week.Step[LayerStreams]) bool {
		return s.Value.BaseHalvings > 0 || s.Value.EventHalvings > 0
	})
}
