package video

import (
	"math"
	"testing"
)

func near(t *testing.T, what string, got, want float64) {
	t.Helper()
	if math.Abs(got-want) > 1e-6*max(1, math.Abs(want)) {
		t.Errorf("%s: %v, want %v", what, got, want)
	}
}

func TestKnownRates(t *testing.T) {
	constant := Stream{Codec: H264, FPS: 15, GOPSeconds: 2, Rate: Rate{Kind: Constant, Active: 3000}}
	if got := constant.Written(Cut{}, 64); got != (Cost{3064, 3064}) {
		t.Errorf("constant with audio: %v", got)
	}
	variable := Stream{Codec: H265, FPS: 15, GOPSeconds: 2, KeyframeKB: 220, Rate: Rate{Kind: Variable, Idle: 1400, Active: 4200}}
	if got := variable.Written(Cut{}, 0); got != (Cost{1400, 4200}) {
		t.Errorf("variable: %v", got)
	}
	if got := variable.Written(Cut{KeyframesOnly: true}, 64); got != (Cost{880, 880}) {
		t.Errorf("keyframes of known size every two seconds, no audio: %v", got)
	}
	variable.KeyframeKB = 0
	got := variable.Written(Cut{KeyframesOnly: true}, 0)
	near(t, "keyframes of unknown size, idle", float64(got.Idle), 1400*10.0/39)
	near(t, "keyframes of unknown size, active", float64(got.Active), 4200*10.0/39)
}

func TestModelledRate(t *testing.T) {
	s := Stream{Codec: H265, Width: 2560, Height: 1440, FPS: 15, GOPSeconds: 2, Rate: Rate{Kind: Modelled, Quality: 3, Scene: Busy}}
	k := 2560 * 1440 * 0.6 * 0.83 / 1000
	near(t, "idle", float64(s.Cost().Idle), k*(1+29.0/68)/2)
	near(t, "active", float64(s.Cost().Active), k*(1+29.0/15)/2)
	near(t, "keyframes alone", float64(s.Written(Cut{KeyframesOnly: true}, 0).Active), k/2)

	better := s
	better.Rate.Quality = 4
	near(t, "a quality step", float64(better.Cost().Idle/s.Cost().Idle), 1.6)

	jpeg := s
	jpeg.Codec = MJPEG
	near(t, "motion JPEG has no following frames", float64(jpeg.Cost().Idle), 2560*1440*0.6*1.8*15/1000)
	if jpeg.Written(Cut{KeyframesOnly: true}, 0) != jpeg.Cost() {
		t.Error("every frame of motion JPEG is a keyframe")
	}
}

func TestAdaptiveEncodersSpareWhatIsStill(t *testing.T) {
	s := Stream{Codec: H265, Width: 2560, Height: 1440, FPS: 15, GOPSeconds: 2, Rate: Rate{Kind: Modelled, Quality: 3,
		Scene: Busy, Adaptive: true}}
	k := 2560 * 1440 * 0.6 * 0.83 / 1000
	near(t, "idle", float64(s.Cost().Idle), k*(1+119.0/136)/8)
	near(t, "active", float64(s.Cost().Active), k*(1+29.0/15)/2)
	near(t, "keyframes alone, idle", float64(s.Written(Cut{KeyframesOnly: true}, 0).Idle), k/8)
	near(t, "keyframes alone, active", float64(s.Written(Cut{KeyframesOnly: true}, 0).Active), k/2)
	s.KeyframeKB = 100
	near(t, "keyframes of known size, idle", float64(s.Written(Cut{KeyframesOnly: true}, 0).Idle), 100)
	s.Rate.Kind, s.Rate.Idle, s.Rate.Active = Variable, 500, 900
	if s.Cost() != (Cost{500, 900}) {
		t.Error("what is known is not adapted")
	}
}

func TestNoiseAndTheEncodersLimit(t *testing.T) {
	s := Stream{Codec: H264, Width: 1920, Height: 1080, FPS: 15, GOPSeconds: 2, Rate: Rate{Kind: Modelled, Quality: 3, Scene: Moderate}}
	day := s.Cost()
	s.Rate.Noise = 1.8
	near(t, "at night", float64(s.Cost().Idle), 1.8*float64(day.Idle))
	s.Rate.Max = day.Active
	near(t, "at night, limited", float64(s.Cost().Active), float64(day.Active))
	near(t, "at night, below the limit", float64(s.Cost().Idle), min(1.8*float64(day.Idle), float64(day.Active)))
	near(t, "keyframes are a share of what is sent", float64(s.Written(Cut{KeyframesOnly: true}, 0).Active), float64(day.Active)*44/73)
	known := Stream{Codec: H264, FPS: 10, GOPSeconds: 2, KeyframeKB: 100, Rate: Rate{Kind: Variable, Idle: 500, Active: 900, Noise: 2}}
	near(t, "a measured stream", float64(known.Cost().Active), 1800)
	near(t, "its keyframes", float64(known.Written(Cut{KeyframesOnly: true}, 0).Idle), 800)
}

func TestFewerFrames(t *testing.T) {
	s := Stream{Codec: H264, Width: 1920, Height: 1080, FPS: 20, GOPSeconds: 2, Rate: Rate{Kind: Modelled, Quality: 3, Scene: Moderate}}
	fewer := s
	fewer.FPS = 5
	if got, want := s.Written(Cut{FPS: 5}, 0), fewer.Cost(); math.Abs(float64(got.Active-want.Active)) > 1e-9 {
		t.Errorf("thinned to 5 frames: %v, modelled at 5 frames: %v", got, want)
	}
	if got := s.Written(Cut{FPS: 25}, 0); got != s.Cost() {
		t.Error("a recorder cannot keep more frames than the camera sends")
	}
	s.Rate = Rate{Kind: Constant, Active: 4000}
	if got := s.Written(Cut{FPS: 5}, 0).Active; got <= 1000 || got >= 4000 {
		t.Errorf("a quarter of the frames costs more than a quarter, as keyframes stay: %v", got)
	}
}

func TestUnits(t *testing.T) {
	near(t, "GB a day at 1 Mbit/s", Kbps(1000).GigabytesPerDay(), 10.8)
	near(t, "Mbit/s", Kbps(2500).Mbps(), 2.5)
}
