package standin

// h265 encodes by ITU-T H.265, main profile: coding units of 16×16, intra without residual or skips, and pulse code for the square.
type h265 struct{ picture }

// profileOf writes profile_tier_level: main, level 6.2, which has room for all sizes.
func profileOf(b *bits) {
	b.u(8, 1)           // general profile main, main tier
	b.u(32, 0x60000000) // compatible with main and main 10
	b.u(4, 0b1001)      // progressive, frames only
	b.u(32, 0)
	b.u(12, 0)
	b.u(8, 186)
}

// Sets are video, sequence and picture parameters.
func (e *h265) Sets() [][]byte { return [][]byte{e.video(), e.sequence(), pictureSet()} }

func (e *h265) video() []byte {
	v := &bits{out: []byte{32 << 1, 1}}
	v.u(4, 0)
	v.u(2, 3)
	v.u(6, 0) // layers
	v.u(3, 0) // sub-layers
	v.u(1, 1)
	v.u(16, 0xFFFF)
	profileOf(v)
	v.u(1, 1)
	v.ue(1)
	v.ue(0)
	v.ue(0)
	v.u(6, 0)
	v.ue(0)
	v.u(1, 1) // timing
	v.u(32, 1000)
	v.u(32, uint64(1000*e.fps))
	v.u(1, 0)
	v.ue(0)
	v.u(1, 0)
	return escaped(v.trail())
}

func (e *h265) sequence() []byte {
	s := &bits{out: []byte{33 << 1, 1}}
	s.u(4, 0)
	s.u(3, 0)
	s.u(1, 1)
	profileOf(s)
	s.ue(0)
	s.ue(1) // 4:2:0
	s.ue(e.columns * block)
	s.ue(e.rows * block)
	e.crop(s)
	s.ue(0)
	s.ue(0)
	s.ue(4) // log2_max_pic_order_cnt − 4: 256
	s.u(1, 1)
	s.ue(1)
	s.ue(0)
	s.ue(0)
	s.ue(1) // smallest coding block 16
	s.ue(0) // and largest
	s.ue(0) // smallest transform 4
	s.ue(2) // largest 16
	s.ue(0)
	s.ue(0)
	s.u(1, 0)
	s.u(1, 0)
	s.u(1, 0)
	s.u(1, 1) // pulse code
	s.u(4, 7)
	s.u(4, 7)
	s.ue(1) // of 16
	s.ue(0)
	s.u(1, 1)
	s.ue(1) // one set of references
	s.ue(1) // one before
	s.ue(0)
	s.ue(0)
	s.u(1, 1)
	s.u(1, 0)
	s.u(1, 0)
	s.u(1, 0)
	s.u(1, 0) // no vui
	s.u(1, 0)
	return escaped(s.trail())
}

func pictureSet() []byte {
	p := &bits{out: []byte{34 << 1, 1}}
	p.ue(0)
	p.ue(0)
	p.u(1, 0)
	p.u(1, 0)
	p.u(3, 0)
	p.u(1, 0)
	p.u(1, 0)
	p.ue(0)
	p.ue(0)
	p.se(0)
	p.u(1, 0)
	p.u(1, 0)
	p.u(1, 0)
	p.se(0)
	p.se(0)
	p.u(1, 0)
	p.u(1, 0)
	p.u(1, 0)
	p.u(1, 0)
	p.u(1, 0)
	p.u(1, 0)
	p.u(1, 0)
	p.u(1, 1) // deblocking is controlled
	p.u(1, 0)
	p.u(1, 1) // and off
	p.u(1, 0)
	p.u(1, 0)
	p.ue(0)
	p.u(1, 0)
	p.u(1, 0)
	return escaped(p.trail())
}

// Frame is one slice, and data that fills.
func (e *h265) Frame(n int, keyframe bool, bytes int) [][]byte {
	kind := byte(1)
	if keyframe {
		kind, e.idr = 19, n
	}
	b := &bits{out: []byte{kind << 1, 1}}
	b.u(1, 1) // first slice of the picture
	if keyframe {
		b.u(1, 0)
	}
	b.ue(0)
	if keyframe {
		b.ue(2) // I
	} else {
		b.ue(1) // P
		b.u(8, uint64(n-e.idr)%256)
		b.u(1, 1) // the set of references
		b.u(1, 0) // as many as the set says
		b.ue(4)   // one candidate
	}
	b.se(0)
	b.u(1, 1) // alignment
	b.align(0)
	c := newCABAC(b, keyframe)
	s := squareAt(n, e.columns, e.rows, e.side)
	for row := range e.rows {
		for column := range e.columns {
			c.unit(s, column, row, keyframe)
			c.terminate(column == e.columns-1 && row == e.rows-1)
		}
	}
	c.flush()
	b.out = append(b.out, 0x80) // the bit that ends a slice stands at a byte of its own
	return filled([]byte{39 << 1, 1}, [][]byte{escaped(b.out)}, bytes)
}

// unit writes one coding unit.
func (c *cabac) unit(s square, column, row int, keyframe bool) {
	in := s.has(column, row)
	if !keyframe {
		ctx := 0
		if column > 0 && !s.has(column-1, row) {
			ctx++
		}
		if row > 0 && !s.has(column, row-1) {
			ctx++
		}
		c.encode(&c.skip[ctx], !in)
		if !in {
			return // one candidate, which is named by nothing
		}
		c.encode(&c.intra, true)
	}
	c.encode(&c.part, true) // not divided
	c.terminate(in)         // pulse code
	if in {
		c.flush()
		samples := s.samples(column, row)
		c.b.out = append(c.b.out, samples[:]...)
		c.restart()
		return
	}
	c.encode(&c.luma, true) // the first of the most probable modes
	c.bypass(0)
	c.encode(&c.chroma, false)
	c.encode(&c.cbfChroma, false)
	c.encode(&c.cbfChroma, false)
	c.encode(&c.cbfLuma, false)
}
