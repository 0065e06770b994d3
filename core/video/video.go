// Package video knows what a second of a stream costs on disk.
//
// A [Stream] says how a camera encodes one picture: codec, size, frame rate,
// keyframe interval and a [Rate]. Its [Cost] is two bitrates, one while the scene
// is still and one while something moves; recorders that write keyframes only or
// fewer frames write a [Cut] of it.
package video

// Kbps is a bitrate in kbit/s, 1,000 bits a second.
type Kbps float64

// GigabytesPerDay is what the bitrate writes in a day, in GB of 10^9 bytes.
func (k Kbps) GigabytesPerDay() float64 { return float64(k) * 1000 / 8 * 86400 / 1e9 }

// Mbps is the rate in Mbit/s.
func (k Kbps) Mbps() float64 { return float64(k) / 1000 }

// Codec names a video compression.
type Codec string

const (
	H264  Codec = "h264"
	H265  Codec = "h265"
	AV1   Codec = "av1"
	MJPEG Codec = "mjpeg"
)

// Scene says how much moves when something moves.
type Scene string

const (
	Still    Scene = "still"
	Moderate Scene = "moderate"
	Busy     Scene = "busy"
)

// Stream is one encoded picture of a camera.
type Stream struct {
	Codec      Codec
	Width      int     // pixels
	Height     int     // pixels
	FPS        float64 // frames a second
	GOPSeconds float64 // keyframe interval in seconds
	KeyframeKB float64 // mean size of a keyframe in kB of 1,000 bytes; 0 where unknown
	Rate       Rate
}

// Kind tells how a rate is known.
type Kind string

const (
	Constant Kind = "constant" // Idle and Active are the same
	Variable Kind = "variable" // an encoder that spends less when nothing moves
	Modelled Kind = "modelled" // from picture size, codec, quality and scene
)

// Rate is the bitrate of a stream as it is known.
type Rate struct {
	Kind         Kind
	Idle, Active Kbps    // where Kind is Constant or Variable
	Quality      int     // 1 to 5, where Kind is Modelled
	Scene        Scene   // where Kind is Modelled
	Adaptive     bool    // where Kind is Modelled: the encoder spends less while nothing moves, see [Model]
	Max          Kbps    // where Kind is Modelled: the encoder never sends more; 0 for no limit
	Noise        float64 // what darkness multiplies the bitrate by, before the limit; 0 for nothing
}

// Cost is the bitrate of what is written, while the scene is still and while
// something moves.
type Cost struct{ Idle, Active Kbps }

// Add returns the cost of two things written together.
func (c Cost) Add(k Kbps) Cost { return Cost{c.Idle + k, c.Active + k} }

// Scale returns the cost times f.
func (c Cost) Scale(f float64) Cost { return Cost{c.Idle * Kbps(f), c.Active * Kbps(f)} }

// Cut says what a recorder leaves out of a stream. The zero Cut leaves out
// nothing.
type Cut struct {
	KeyframesOnly bool
	FPS           float64 // frames a second to keep; 0, or more than the stream has, keeps all
	Factor        float64 // that settings of the hour multiply the bitrate by, up to the encoder's limit; 0 for none
}

// Cost is what the stream costs whole.
func (s Stream) Cost() Cost {
	var cost Cost
	switch s.Rate.Kind {
	case Modelled:
		cost = Cost{s.modelled(false, s.FPS), s.modelled(true, s.FPS)}
	case Constant:
		cost = Cost{s.Rate.Active, s.Rate.Active}
	default:
		cost = Cost{s.Rate.Idle, s.Rate.Active}
	}
	cost = cost.Scale(s.noise())
	if s.Rate.Max > 0 {
		cost = Cost{min(cost.Idle, s.Rate.Max), min(cost.Active, s.Rate.Max)}
	}
	return cost
}

func (s Stream) noise() float64 {
	if s.Rate.Noise > 0 {
		return s.Rate.Noise
	}
	return 1
}

// Written is what the cut of the stream costs together with audio. Audio is added
// where the stream is written in full, not to keyframes alone.
func (s Stream) Written(cut Cut, audio Kbps) Cost {
	if f := cut.Factor; f > 0 && f != 1 {
		cut.Factor = 0
		cost := s.Written(cut, 0).Scale(f)
		if s.Rate.Max > 0 && f > 1 {
			cost = Cost{min(cost.Idle, s.Rate.Max), min(cost.Active, s.Rate.Max)}
		}
		if !cut.KeyframesOnly {
			cost = cost.Add(audio)
		}
		return cost
	}
	switch {
	case cut.KeyframesOnly:
		return s.keyframes()
	case cut.FPS > 0 && cut.FPS < s.FPS:
		cost := s.Cost()
		cost.Idle *= Kbps(s.thinning(false, cut.FPS))
		cost.Active *= Kbps(s.thinning(true, cut.FPS))
		return cost.Add(audio)
	default:
		return s.Cost().Add(audio)
	}
}
