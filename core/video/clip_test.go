package video

import (
	"math"
	"math/rand/v2"
	"strings"
	"testing"
)

// clip is a made-up clip: groups of a keyframe and following frames, which are
// larger while something moves.
func clip(seconds, fps, gop, keyframe, still, moving float64, moves func(t float64) bool) []Packet {
	random := rand.New(rand.NewPCG(7, 7))
	var packets []Packet
	for i := range int(seconds * fps) {
		t := float64(i) / fps
		p := Packet{Seconds: 100 + t, Bytes: still * (0.9 + 0.2*random.Float64())}
		if moves(t) {
			p.Bytes = moving * (0.9 + 0.2*random.Float64())
		}
		if i%int(fps*gop) == 0 {
			p.Keyframe, p.Bytes = true, keyframe
		}
		packets = append(packets, p)
	}
	return packets
}

// TestSpreadIsThatOfSeconds alternates between seconds of 1 and of 3 Mbit.
func TestSpreadIsThatOfSeconds(t *testing.T) {
	var packets []Packet
	for i := range 600 {
		packets = append(packets, Packet{Seconds: float64(i) / 10, Bytes: float64(1+2*(i/10%2)) * 12500, Keyframe: i%10 == 0})
	}
	m, err := Measure(packets)
	if err != nil {
		t.Fatal(err)
	}
	within(t, "spread", m.SpreadPercent, 50, 2)
}

func within(t *testing.T, what string, got, want, percent float64) {
	t.Helper()
	if math.Abs(got-want) > want*percent/100 {
		t.Errorf("%s: %.4g, want %.4g", what, got, want)
	}
}

func TestMeasureTellsStillFromMoving(t *testing.T) {
	moves := func(t float64) bool { return t >= 20 && t < 35 }
	m, err := Measure(clip(60, 20, 2, 80_000, 3000, 20_000, moves))
	if err != nil {
		t.Fatal(err)
	}
	keyframes := 80_000 * 8 / 1000.0 / 2 // kbit/s
	within(t, "frame rate", m.FPS, 20, 0.1)
	within(t, "keyframe interval", m.GOPSeconds, 2, 0.1)
	within(t, "keyframe", m.KeyframeKB, 80, 0.1)
	within(t, "still", m.IdleKbps, keyframes+3000*8/1000*19.5, 2)
	within(t, "moving", m.ActiveKbps, keyframes+20_000*8/1000*19.5, 2)
	if len(m.Stretches) != 3 || m.Stretches[1] != (Stretch{20, 35, true}) || !m.Differ || len(m.Warnings) != 0 || len(m.Kbps) != 60 {
		t.Errorf("%+v", m)
	}
	sum, bits := 0.0, 0.0
	for _, kbps := range m.Kbps {
		sum += kbps
	}
	for _, p := range clip(60, 20, 2, 80_000, 3000, 20_000, moves) {
		bits += p.Bytes * 8 / 1000
	}
	within(t, "all seconds together", sum, bits, 0.01)
}

func TestMeasureOrderAndReordering(t *testing.T) {
	packets := clip(40, 10, 4, 50_000, 2000, 9000, func(t float64) bool { return t > 30 })
	want, _ := Measure(packets)
	packets[11], packets[12] = packets[12], packets[11] // frames are often written out of order
	got, err := Measure(packets)
	if err != nil || got.IdleKbps != want.IdleKbps || got.FPS != want.FPS {
		t.Errorf("%v %+v", err, got)
	}
}

func TestMeasureConstant(t *testing.T) {
	m, err := Measure(clip(60, 15, 2, 30_000, 8000, 8000, func(float64) bool { return false }))
	if err != nil || m.Differ || m.IdleKbps != m.ActiveKbps || len(m.Stretches) != 1 || len(m.Warnings) != 1 {
		t.Errorf("%v %+v", err, m)
	}
	// A clip of a second is one second, and little as it is the bitrate is that of what it has.
	if m, err = Measure(clip(1, 15, 1, 30_000, 8000, 8000, func(float64) bool { return false })); err != nil {
		t.Fatal(err)
	}
	within(t, "a second", m.IdleKbps, (30+14*8)*8, 30)
	jpeg := clip(30, 5, 0.2, 60_000, 0, 0, func(float64) bool { return false })
	if m, err = Measure(jpeg); err != nil || math.Abs(m.GOPSeconds-0.2) > 1e-9 {
		t.Errorf("motion JPEG: %v %+v", err, m)
	}
	within(t, "motion JPEG", m.IdleKbps, 60*8*5, 1)
}

func TestMeasureRefuses(t *testing.T) {
	few := []Packet{{0, 1, true}}
	still := make([]Packet, 20)
	still[0].Keyframe = true
	none := clip(10, 10, 1, 1, 1, 1, func(float64) bool { return false })
	for i := range none {
		none[i].Keyframe = false
	}
	bad := clip(10, 10, 1, 1, 1, 1, func(float64) bool { return false })
	bad[3].Bytes = math.NaN()
	for want, packets := range map[string][]Packet{"fewer than ten": few, "no time": still, "no keyframe": none, "no size": bad} {
		if _, err := Measure(packets); err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%v, want %s", err, want)
		}
	}
	short, err := Measure(clip(8, 10, 60, 9000, 100, 100, func(float64) bool { return false }))
	if err != nil || len(short.Warnings) != 3 {
		t.Errorf("%v %+v", err, short)
	}
}

func TestNightFactor(t *testing.T) {
	day := Cost{1000, 3000}
	near(t, "told apart", NightFactor(day, &Measured{IdleKbps: 1800, ActiveKbps: 5400, Differ: true}), 1.8)
	near(t, "told apart, each by another factor", NightFactor(day, &Measured{IdleKbps: 4000, ActiveKbps: 3000, Differ: true}), 2)
	near(t, "still throughout", NightFactor(day, &Measured{IdleKbps: 1500, ActiveKbps: 1500}), 1.5)
	near(t, "of nothing", NightFactor(Cost{}, &Measured{IdleKbps: 1500, ActiveKbps: 1500}), 1)
}
