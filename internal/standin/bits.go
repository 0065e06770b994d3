package standin

// bits writes a bit stream, the highest bit of a byte first.
type bits struct {
	out  []byte
	free int // bits of the last byte that are not written
}

func (b *bits) bit(v int) {
	if b.free == 0 {
		b.out, b.free = append(b.out, 0), 8
	}
	b.free--
	b.out[len(b.out)-1] |= byte(v&1) << b.free
}

// u writes n bits of a number.
func (b *bits) u(n int, v uint64) {
	for k := n - 1; k >= 0; k-- {
		b.bit(int(v >> k))
	}
}

// ue writes a number as Exp-Golomb code.
func (b *bits) ue(v int) {
	n := 0
	for (v+1)>>n > 1 {
		n++
	}
	b.u(n, 0)
	b.u(n+1, uint64(v+1))
}

// se writes a signed number as Exp-Golomb code.
func (b *bits) se(v int) {
	if v > 0 {
		b.ue(2*v - 1)
	} else {
		b.ue(-2 * v)
	}
}

// align fills the byte in hand with a bit.
func (b *bits) align(v int) {
	for b.free > 0 {
		b.bit(v)
	}
}

// trail ends a unit: a one, and zeros to the end of the byte.
func (b *bits) trail() []byte {
	b.bit(1)
	b.align(0)
	return b.out
}

// escaped is a unit with the bytes that keep it from looking like the start of another.
func escaped(unit []byte) []byte {
	out := make([]byte, 0, len(unit)+len(unit)/64)
	zeros := 0
	for _, c := range unit {
		if zeros >= 2 && c <= 3 {
			out, zeros = append(out, 3), 0
		}
		out = append(out, c)
		if zeros++; c != 0 {
			zeros = 0
		}
	}
	return out
}
