package standin

import (
	"image/color"
	"math"
)

// A test picture is grey with a square of bars that wanders. The square is of whole macroblocks, which are coded as they are;
// all else is predicted. Data that nobody needs makes a frame as large as its bitrate wants.

// block is the side of a macroblock.
const block = 16

// square is where the square of bars is in a frame, in macroblocks, with a grey rim: what is predicted beside it stays grey, and
// where it was a frame ago nothing is left.
type square struct{ column, row, side int }

// sideFor is how large a square may be in a picture so many macroblocks wide and high, so that a frame of so many bytes has room for
// it.
func sideFor(columns, rows, bytes int) int {
	most := int(math.Sqrt(0.8 * float64(bytes) / 384))
	return max(1, min(columns, rows, max(3, min(most, min(columns, rows)/6))))
}

// squareAt is where one of a side is in the n'th frame. It moves a macroblock every second frame.
func squareAt(n, columns, rows, side int) square {
	turn := func(n, length int) int {
		if length <= 1 {
			return 0
		}
		n %= 2 * (length - 1)
		return min(n, 2*(length-1)-n)
	}
	return square{turn(n/2, columns-side), turn(n/6, rows-side), side}
}

func (s square) has(column, row int) bool {
	return column >= s.column && column < s.column+s.side && row >= s.row && row < s.row+s.side
}

// samples are a macroblock of the square as it is written: 256 of brightness, 64 of each colour.
func (s square) samples(column, row int) [384]byte {
	var out [384]byte
	bars := [...]color.YCbCr{{235, 128, 128}, {210, 16, 146}, {170, 166, 16}, {145, 54, 34}, {106, 202, 222}, {81, 90, 240}, {41, 240, 110}}
	if in := s.side > 2; in && (column == s.column || row == s.row || column == s.column+s.side-1 || row == s.row+s.side-1) {
		for k := range out {
			out[k] = 128
		}
		return out
	}
	c := bars[(column-s.column)%len(bars)]
	for k := range 256 {
		y := int(c.Y)
		if k/block == 0 || k%block == 0 {
			y = 16 + (row*7+column*3)%64
		}
		out[k] = byte(y)
	}
	for k := range 64 {
		out[256+k], out[320+k] = c.Cb, c.Cr
	}
	return out
}

// Encoder makes frames of a test picture.
type Encoder interface {
	// Sets are the parameter sets, each a unit without a start code.
	Sets() [][]byte
	// Frame is the n'th frame, of about so many bytes, as units without start codes. A keyframe needs no other.
	Frame(n int, keyframe bool, bytes int) [][]byte
}

// EncoderOf is an encoder of a codec, h264 or h265, whose frames but for keyframes are to have room in so many bytes.
func EncoderOf(codec string, width, height int, fps float64, bytes int) Encoder {
	columns, rows := (width+block-1)/block, (height+block-1)/block
	p := picture{columns, rows, width, height, sideFor(columns, rows, bytes), fps, 0}
	if codec == "h265" {
		return &h265{p}
	}
	return &h264{p}
}

// picture is what is encoded.
type picture struct {
	columns, rows, width, height, side int
	fps                                float64
	idr                                int // number of the last keyframe
}

// crop writes, as both standards have it, how much of the last macroblocks is not shown.
func (p *picture) crop(s *bits) {
	right, bottom := p.columns*block-p.width, p.rows*block-p.height
	if right+bottom == 0 {
		s.u(1, 0)
		return
	}
	s.u(1, 1)
	s.ue(0)
	s.ue(right / 2)
	s.ue(0)
	s.ue(bottom / 2)
}

// filled are the units of a frame with a message before them that nobody needs (user data, unregistered), so that they are of so
// many bytes together; without one where they are already. head begins the unit of a message.
func filled(head []byte, units [][]byte, bytes int) [][]byte {
	for _, u := range units {
		bytes -= len(u)
	}
	const name = "\xFFwakefield stand" // 16 bytes that say whose the data is
	n := bytes - len(head) - 2
	n -= n / 256 // bytes that say how long it is
	if n < len(name) {
		return units
	}
	u := append(append(make([]byte, 0, bytes+2), head...), 5)
	for k := n; ; k -= 255 {
		if k < 255 {
			u = append(u, byte(k))
			break
		}
		u = append(u, 0xFF)
	}
	u = append(u, name...)
	for range n - len(name) {
		u = append(u, 0xFF)
	}
	return append([][]byte{append(u, 0x80)}, units...)
}
