package video

import (
	"cmp"
	"errors"
	"math"
	"slices"
)

// Packet is one encoded frame of a clip.
type Packet struct {
	Seconds  float64 // when it is shown, from any beginning
	Bytes    float64
	Keyframe bool
}

// Measured is what a clip tells about a stream.
type Measured struct {
	Seconds       float64   `json:"seconds" doc:"Length of the clip"`
	FPS           float64   `json:"fps"`
	GOPSeconds    float64   `json:"gopSeconds" doc:"Keyframe interval; that of the clip where it has one keyframe"`
	KeyframeKB    float64   `json:"keyframeKB" doc:"Mean size of a keyframe, kB of 1,000 bytes"`
	IdleKbps      float64   `json:"idleKbps"`
	ActiveKbps    float64   `json:"activeKbps"`
	Differ        bool      `json:"differ" doc:"Whether idle and moving stretches could be told apart; else both bitrates are the mean"`
	SpreadPercent float64   `json:"spreadPercent" doc:"Standard deviation of the bitrate from second to second, of the mean"`
	Stretches     []Stretch `json:"stretches" doc:"Idle and moving stretches, in turn"`
	Kbps          []float64 `json:"kbps" doc:"Bitrate of each second, keyframes spread over their group"`
	Warnings      []string  `json:"warnings" doc:"What makes the figures doubtful"`
}

// Stretch is a part of a clip, in seconds from its start.
type Stretch struct {
	From   float64 `json:"from"`
	To     float64 `json:"to"`
	Active bool    `json:"active"`
}

// NightFactor is what darkness multiplies the bitrate of a stream by, day being what it
// costs by day and m a clip of it taken at night. Where still and moving stretches can be
// told apart each is held against its like, and the factor is the geometric mean; else the
// clip is taken to be still.
func NightFactor(day Cost, m *Measured) float64 {
	if day.Idle <= 0 || day.Active <= 0 {
		return 1
	}
	still := m.IdleKbps / float64(day.Idle)
	if !m.Differ {
		return still
	}
	return math.Sqrt(still * m.ActiveKbps / float64(day.Active))
}

const (
	apart      = 1.6 // moving stretches cost at least this many times as much as still ones
	leastShare = 0.05
	shortClip  = 20.0 // seconds below which a clip tells little
)

// Measure finds what a stream costs from the frames of a clip, in the order in which
// they were written.
//
// The frames after a keyframe tell movement, as a keyframe costs much the same
// whatever happens. Their bitrates, second by second, are split in two where the
// variance within the parts of their logarithms is least; seconds alone among the
// other kind are given to their neighbours. Keyframes are spread over the group they
// begin. It fails where there are fewer than ten frames or no keyframe, or the frames
// show no time.
func Measure(packets []Packet) (*Measured, error) {
	frames := slices.Clone(packets)
	slices.SortStableFunc(frames, func(a, b Packet) int { return cmp.Compare(a.Seconds, b.Seconds) })
	for _, f := range frames {
		if !(f.Bytes >= 0) || math.IsInf(f.Bytes, 0) || math.IsNaN(f.Seconds) || math.IsInf(f.Seconds, 0) {
			return nil, errors.New("a frame has no size or no time")
		}
	}
	if len(frames) < 10 {
		return nil, errors.New("the clip has fewer than ten frames; record half a minute or more")
	}
	n := len(frames)
	start, span := frames[0].Seconds, frames[n-1].Seconds-frames[0].Seconds
	if span <= 0 || span > 7*86400 {
		return nil, errors.New("the frames of the clip show no time, or more than a week of it")
	}
	m := &Measured{FPS: float64(n-1) / span, Warnings: []string{}}
	m.Seconds = span + 1/m.FPS
	var keys []int
	for i := range frames {
		frames[i].Seconds -= start
		if frames[i].Keyframe {
			keys = append(keys, i)
			m.KeyframeKB += frames[i].Bytes / 1000
		}
	}
	if len(keys) == 0 {
		return nil, errors.New("the clip has no keyframe")
	}
	m.KeyframeKB /= float64(len(keys))
	m.GOPSeconds = m.Seconds
	if len(keys) > 1 {
		m.GOPSeconds = (frames[keys[len(keys)-1]].Seconds - frames[keys[0]].Seconds) / float64(len(keys)-1)
	} else {
		m.Warnings = append(m.Warnings, "The clip has one keyframe only, so the keyframe interval is not known.")
	}
	if m.Seconds < shortClip {
		m.Warnings = append(m.Warnings, "The clip is short: half a minute with and without movement tells more.")
	}
	m.split(frames, keys)
	return m, nil
}

// split tells still seconds from moving ones and takes the mean bitrate of each.
func (m *Measured) split(frames []Packet, keys []int) {
	seconds := max(1, int(math.Floor(m.Seconds+0.5)))
	following, all := make([]float64, seconds), make([]float64, seconds)
	second := func(t float64) int { return min(seconds-1, int(t)) }
	for _, f := range frames {
		if !f.Keyframe {
			following[second(f.Seconds)] += f.Bytes * 8 / 1000
			all[second(f.Seconds)] += f.Bytes * 8 / 1000
		}
	}
	for i, k := range keys {
		until := m.Seconds
		if i+1 < len(keys) {
			until = frames[keys[i+1]].Seconds
		}
		spread(all, frames[k].Seconds, min(until, float64(seconds)), frames[k].Bytes*8/1000)
	}
	m.Kbps = all
	tell := following
	if len(keys) == len(frames) {
		tell = all // keyframes alone, such as motion JPEG
	}
	active := twoParts(tell)
	mean, sum := 0.0, [2]float64{}
	count := [2]float64{}
	for i, kbps := range all {
		mean += kbps / float64(seconds)
		sum[index(active[i])] += kbps
		count[index(active[i])]++
	}
	for _, kbps := range all {
		m.SpreadPercent += (kbps - mean) * (kbps - mean) / float64(seconds)
	}
	m.SpreadPercent = 100 * math.Sqrt(m.SpreadPercent) / max(mean, 1e-9)
	m.IdleKbps, m.ActiveKbps = mean, mean
	if least := leastShare * float64(seconds); count[0] > least && count[1] > least {
		idle, moving := sum[0]/count[0], sum[1]/count[1]
		if m.Differ = moving > idle*1.1; m.Differ {
			m.IdleKbps, m.ActiveKbps = idle, moving
		}
	}
	if !m.Differ {
		clear(active)
		m.Warnings = append(m.Warnings,
			"Idle and moving stretches cost the same here: either nothing moved, or something always moved, or the encoder sends a constant bitrate.")
	}
	for i := range active {
		if last := len(m.Stretches) - 1; last >= 0 && m.Stretches[last].Active == active[i] {
			m.Stretches[last].To = float64(i + 1)
		} else {
			m.Stretches = append(m.Stretches, Stretch{float64(i), float64(i + 1), active[i]})
		}
	}
	m.Stretches[len(m.Stretches)-1].To = m.Seconds
}

func index(b bool) int {
	if b {
		return 1
	}
	return 0
}

// spread adds an amount evenly from one moment to another.
func spread(seconds []float64, from, to, amount float64) {
	if to <= from {
		seconds[min(len(seconds)-1, int(from))] += amount
		return
	}
	for i := int(from); i < len(seconds) && float64(i) < to; i++ {
		seconds[i] += amount * (min(to, float64(i+1)) - max(from, float64(i))) / (to - from)
	}
}

// twoParts tells which values belong to the upper of two parts: where the variance
// of the logarithms within the parts is least, if the parts are apart.
func twoParts(values []float64) []bool {
	upper := make([]bool, len(values))
	logs := make([]float64, len(values))
	for i, v := range values {
		logs[i] = math.Log(max(v, 1))
	}
	sorted := slices.Sorted(slices.Values(logs))
	total := 0.0
	for _, v := range sorted {
		total += v
	}
	best, cut, low := 0.0, math.Inf(1), 0.0
	for i := 1; i < len(sorted); i++ {
		low += sorted[i-1]
		a, b := float64(i), float64(len(sorted)-i)
		gap := (total-low)/b - low/a
		// The variance between the parts is a·b·gap²; that within is the rest.
		if between := a * b * gap * gap; between > best && gap > math.Log(apart) {
			best, cut = between, (sorted[i-1]+sorted[i])/2
		}
	}
	for i, v := range logs {
		upper[i] = v > cut
	}
	for i := 1; i+1 < len(upper); i++ {
		if upper[i-1] == upper[i+1] {
			upper[i] = upper[i-1]
		}
	}
	return upper
}
