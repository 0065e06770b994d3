package seeded

import (
	"math"
	"math/rand/v2"
	"slices"
	"strconv"
)

// Values at which programs go wrong.
var (
	wholes = []int64{0, 1, -1, 2, 7, 24, 60, 127, 128, 255, 256, 1440, 10080, 32767, 65535, 1 << 31, -1 << 31, math.MaxInt64, math.MinInt64}
	floats = []float64{0, 1, -1, 0.5, 1e-9, 1e-300, 1e9, 1e300, math.MaxFloat64, math.SmallestNonzeroFloat64, math.Inf(1), math.Inf(-1),
		math.NaN(), math.Copysign(0, -1), 86400, 604800}
	pieces = []string{"", "\x00", "\xff", "\ufeff", "\u202e", "\u2028", "é", "😀", "'", "\"", ",", ";", "\t", "\n", "\r\n", "-", ".", ":", "=",
		"{", "}", "[", "]", "null", "true", "NaN", "1e999", "24:00", "2026-02-29", "99999999999999999999"}
)

func whole(rng *rand.Rand, v int64) int64 {
	switch rng.IntN(4) {
	case 0:
		return wholes[rng.IntN(len(wholes))]
	case 1:
		return v + rng.Int64N(33) - 16
	case 2:
		return v * (rng.Int64N(9) - 4)
	}
	return rng.Int64() >> rng.IntN(64)
}

func float(rng *rand.Rand, v float64) float64 {
	switch rng.IntN(5) {
	case 0:
		return floats[rng.IntN(len(floats))]
	case 1:
		return v + rng.NormFloat64()
	case 2:
		return rng.Float64()
	case 3:
		return float64(rng.IntN(100_000))
	}
	return v * math.Exp(3*rng.NormFloat64())
}

// longest bounds what grows.
const longest = 1 << 20

func text(rng *rand.Rand, v, other []byte) []byte {
	v = slices.Clone(v)
	for times := 1 + rng.IntN(4); times > 0; times-- {
		at := rng.IntN(len(v) + 1)
		length := rng.IntN(min(64, len(v)-at) + 1)
		switch rng.IntN(8) {
		case 0: // a byte is another
			if at < len(v) {
				v[at] = byte(rng.Uint32())
			}
		case 1:
			if at < len(v) {
				v[at] ^= 1 << rng.IntN(8)
			}
		case 2: // something goes
			v = slices.Delete(v, at, at+length)
		case 3: // something stands twice
			v = slices.Insert(v, at, slices.Clone(v[at:at+length])...)
		case 4: // something from another
			from := rng.IntN(len(other) + 1)
			v = slices.Insert(v, at, other[from:from+rng.IntN(min(64, len(other)-from)+1)]...)
		case 5:
			v = slices.Insert(v, at, []byte(pieces[rng.IntN(len(pieces))])...)
		case 6:
			v = number(rng, v, at)
		case 7: // the end is missing
			if rng.IntN(4) == 0 {
				v = v[:at]
			}
		}
		v = v[:min(len(v), longest)]
	}
	return v
}

// number puts another number in the place of the first one from a place on.
func number(rng *rand.Rand, v []byte, at int) []byte {
	digit := func(b byte) bool { return b >= '0' && b <= '9' }
	for at < len(v) && !digit(v[at]) {
		at++
	}
	end := at
	for end < len(v) && digit(v[end]) {
		end++
	}
	return slices.Replace(v, at, end, strconv.AppendInt(nil, whole(rng, rng.Int64N(100)), 10)...)
}
