package standin

// h264 encodes by ITU-T H.264, baseline: I slices of 16×16 prediction without residual, P slices of skips, I_PCM for the square.
type h264 struct{ picture }

// level is the least one whose frames are as large.
func (e *h264) level() uint64 {
	n := e.columns * e.rows
	for _, l := range []struct {
		most  int
		level uint64
	}{{1620, 30}, {3600, 31}, {8192, 40}, {22080, 50}, {36864, 51}} {
		if n <= l.most {
			return l.level
		}
	}
	return 62
}

// Sets are sequence and picture parameters.
func (e *h264) Sets() [][]byte {
	s := &bits{out: []byte{0x67}}
	s.u(8, 66) // baseline
	s.u(8, 0xC0)
	s.u(8, e.level())
	s.ue(0)   // id
	s.ue(0)   // log2_max_frame_num − 4: 16
	s.ue(2)   // picture order as decoded
	s.ue(1)   // reference frames
	s.u(1, 0) // no gaps
	s.ue(e.columns - 1)
	s.ue(e.rows - 1)
	s.u(1, 1) // frames only
	s.u(1, 1) // direct_8x8_inference
	e.crop(s)
	s.u(1, 1) // vui
	s.u(4, 0)
	s.u(1, 1) // timing
	s.u(32, 1000)
	s.u(32, uint64(2000*e.fps))
	s.u(1, 1)
	s.u(4, 0)
	p := &bits{out: []byte{0x68}}
	p.ue(0)
	p.ue(0)
	p.u(1, 0) // CAVLC
	p.u(1, 0)
	p.ue(0)
	p.ue(0)
	p.ue(0)
	p.u(1, 0)
	p.u(2, 0)
	p.se(0)
	p.se(0)
	p.se(0)
	p.u(1, 1) // deblocking is controlled
	p.u(1, 0)
	p.u(1, 0)
	return [][]byte{escaped(s.trail()), escaped(p.trail())}
}

// Frame is one slice, and data that fills.
func (e *h264) Frame(n int, keyframe bool, bytes int) [][]byte {
	b := &bits{out: []byte{0x41}}
	if keyframe {
		b.out[0] = 0x65
		e.idr = n
	}
	b.ue(0) // first macroblock
	if keyframe {
		b.ue(7)
	} else {
		b.ue(5)
	}
	b.ue(0)
	b.u(4, uint64((n-e.idr)%16)) // frame_num
	if keyframe {
		b.ue(n / 7 % 2) // idr_pic_id differs from that of the one before
		b.u(2, 0)
	} else {
		b.u(1, 0) // as many references as the set says
		b.u(1, 0)
		b.u(1, 0)
	}
	b.se(0)
	b.ue(1) // no deblocking
	s := squareAt(n, e.columns, e.rows, e.side)
	skipped := 0
	for row := range e.rows {
		for column := range e.columns {
			in := s.has(column, row)
			switch {
			case keyframe && !in:
				b.ue(3) // I_16x16, DC, no residual
				b.ue(0)
				b.se(0)
				e.noCoefficients(b, s, column, row)
				continue
			case !in:
				skipped++
				continue
			case keyframe:
				b.ue(25)
			default:
				b.ue(skipped)
				skipped = 0
				b.ue(30)
			}
			b.align(0)
			samples := s.samples(column, row)
			b.out = append(b.out, samples[:]...)
		}
	}
	if skipped > 0 {
		b.ue(skipped)
	}
	return filled([]byte{0x06}, [][]byte{escaped(b.trail())}, bytes)
}

// noCoefficients writes that a block has none. How, depends on how many the blocks beside and above have: 16 where they are I_PCM.
func (e *h264) noCoefficients(b *bits, s square, column, row int) {
	of := func(column, row int) int {
		if s.has(column, row) {
			return 16
		}
		return 0
	}
	n := 0
	switch {
	case column > 0 && row > 0:
		n = (of(column-1, row) + of(column, row-1) + 1) / 2
	case column > 0:
		n = of(column-1, row)
	case row > 0:
		n = of(column, row-1)
	}
	if n >= 8 {
		b.u(6, 3)
		return
	}
	b.bit(1)
}
