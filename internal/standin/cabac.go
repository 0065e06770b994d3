package standin

// cabac is the arithmetic coder of H.265 (clause 9.3), with the contexts of the few elements that are written.
type cabac struct {
	b           *bits
	low, span   uint32
	outstanding int
	first       bool

	skip                                          [3]odds
	intra, part, luma, chroma, cbfLuma, cbfChroma odds
}

// odds are how probable a bit is.
type odds struct {
	state uint8
	most  bool
}

// oddsOf begins one by its table's value, at a quantiser of 26.
func oddsOf(init int) odds {
	slope, offset := init>>4*5-45, init&15<<3-16
	state := min(max(1, (slope*26)>>4+offset), 126)
	if state <= 63 {
		return odds{uint8(63 - state), false}
	}
	return odds{uint8(state - 64), true}
}

func newCABAC(b *bits, keyframe bool) *cabac {
	c := &cabac{b: b}
	c.restart()
	if keyframe {
		c.part, c.luma, c.chroma = oddsOf(184), oddsOf(184), oddsOf(63)
		c.cbfLuma, c.cbfChroma = oddsOf(141), oddsOf(94)
		return c
	}
	for k, init := range []int{197, 185, 201} {
		c.skip[k] = oddsOf(init)
	}
	c.intra, c.part, c.luma, c.chroma = oddsOf(149), oddsOf(154), oddsOf(154), oddsOf(152)
	c.cbfLuma, c.cbfChroma = oddsOf(111), oddsOf(149)
	return c
}

// restart begins anew at a whole byte; what is probable stays.
func (c *cabac) restart() {
	c.low, c.span, c.outstanding, c.first = 0, 510, 0, true
}

func (c *cabac) put(v int) {
	if c.first {
		c.first = false
	} else {
		c.b.bit(v)
	}
	for ; c.outstanding > 0; c.outstanding-- {
		c.b.bit(1 - v)
	}
}

func (c *cabac) renormalise() {
	for c.span < 256 {
		switch {
		case c.low < 256:
			c.put(0)
		case c.low >= 512:
			c.low -= 512
			c.put(1)
		default:
			c.low -= 256
			c.outstanding++
		}
		c.span <<= 1
		c.low <<= 1
	}
}

// encode writes a bit of a context.
func (c *cabac) encode(of *odds, v bool) {
	least := uint32(rangeLeast[of.state][c.span>>6&3])
	c.span -= least
	if v != of.most {
		c.low += c.span
		c.span = least
		if of.state == 0 {
			of.most = !of.most
		}
		of.state = nextLeast[of.state]
	} else if of.state < 62 {
		of.state++
	}
	c.renormalise()
}

// bypass writes a bit that is as probable as its opposite.
func (c *cabac) bypass(v uint32) {
	c.low <<= 1
	if v != 0 {
		c.low += c.span
	}
	switch {
	case c.low >= 1024:
		c.put(1)
		c.low -= 1024
	case c.low < 512:
		c.put(0)
	default:
		c.low -= 512
		c.outstanding++
	}
}

// terminate writes whether something ends.
func (c *cabac) terminate(end bool) {
	c.span -= 2
	if end {
		c.low += c.span
		c.span = 2
	}
	c.renormalise()
}

// flush writes what is left after an end, up to a whole byte. The last bit is a one.
func (c *cabac) flush() {
	c.put(int(c.low >> 9 & 1))
	c.b.u(2, uint64(c.low>>7&3|1))
	c.b.align(0)
}

// rangeLeast is the span of the less probable bit, by state and quarter of the span (table 9-52).
var rangeLeast = [64][4]uint8{
	{128, 176, 208, 240}, {128, 167, 197, 227}, {128, 158, 187, 216}, {123, 150, 178, 205}, {116, 142, 169, 195}, {111, 135, 160, 185},
	{105, 128, 152, 175}, {100, 122, 144, 166}, {95, 116, 137, 158}, {90, 110, 130, 150}, {85, 104, 123, 142}, {81, 99, 117, 135},
	{77, 94, 111, 128}, {73, 89, 105, 122}, {69, 85, 100, 116}, {66, 80, 95, 110}, {62, 76, 90, 104}, {59, 72, 86, 99},
	{56, 69, 81, 94}, {53, 65, 77, 89}, {51, 62, 73, 85}, {48, 59, 69, 80}, {46, 56, 66, 76}, {43, 53, 63, 72},
	{41, 50, 59, 69}, {39, 48, 56, 65}, {37, 45, 54, 62}, {35, 43, 51, 59}, {33, 41, 48, 56}, {32, 39, 46, 53},
	{30, 37, 43, 50}, {29, 35, 41, 48}, {27, 33, 39, 45}, {26, 31, 37, 43}, {24, 30, 35, 41}, {23, 28, 33, 39},
	{22, 27, 32, 37}, {21, 26, 30, 35}, {20, 24, 29, 33}, {19, 23, 27, 31}, {18, 22, 26, 30}, {17, 21, 25, 28},
	{16, 20, 23, 27}, {15, 19, 22, 25}, {14, 18, 21, 24}, {14, 17, 20, 23}, {13, 16, 19, 22}, {12, 15, 18, 21},
	{12, 14, 17, 20}, {11, 14, 16, 19}, {11, 13, 15, 18}, {10, 12, 15, 17}, {10, 12, 14, 16}, {9, 11, 13, 15},
	{9, 11, 12, 14}, {8, 10, 12, 14}, {8, 9, 11, 13}, {7, 9, 11, 12}, {7, 9, 10, 12}, {7, 8, 10, 11},
	{6, 8, 9, 11}, {6, 7, 9, 10}, {6, 7, 8, 9}, {2, 2, 2, 2},
}

// nextLeast is the state after the less probable bit (table 9-53).
var nextLeast = [64]uint8{0, 0, 1, 2, 2, 4, 4, 5, 6, 7, 8, 9, 9, 11, 11, 12, 13, 13, 15, 15, 16, 16, 18, 18, 19, 19, 21,
	21, 22, 22, 23, 24, 24, 25,
	26, 26, 27, 27, 28, 29, 29, 30, 30, 30, 31, 32, 32, 33, 33, 33, 34, 34, 35, 35, 35, 36, 36, 36, 37, 37, 37, 38, 38, 63}
