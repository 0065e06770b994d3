package onvif

import (
	"encoding/base64"
	"errors"
	"fmt"
)

// ActiveCells writes which cells of a motion grid are watched as the analytics specification has it: one bit a cell, rows first,
// the first in the highest bit of a byte, packed by PackBits, in base64. bits are those bytes.
func ActiveCells(bits []byte) string { return base64.StdEncoding.EncodeToString(packBits(bits)) }

// CellsOf reads what ActiveCells writes, for a grid of so many cells. Bytes that were left out are zero.
func CellsOf(text string, cells int) ([]byte, error) {
	packed, err := base64.StdEncoding.DecodeString(text)
	if err != nil {
		return nil, errors.New("the cells that are watched are not base64")
	}
	want := (cells + 7) / 8
	bits, err := unpackBits(packed, want)
	if err != nil {
		return nil, err
	}
	if len(bits) < want {
		bits = append(bits, make([]byte, want-len(bits))...)
	}
	if rest := cells % 8; rest != 0 {
		bits[want-1] &= byte(0xFF << (8 - rest))
	}
	return bits, nil
}

// packBits packs bytes: a count n of 0 to 127 and n+1 bytes as they are, or −n of 1 to 127 and a byte that comes n+1 times.
func packBits(in []byte) (out []byte) {
	for k := 0; k < len(in); {
		same := 1
		for k+same < len(in) && in[k+same] == in[k] && same < 128 {
			same++
		}
		if same > 1 {
			out = append(out, byte(1-same), in[k])
			k += same
			continue
		}
		from := k
		for k < len(in) && k-from < 128 && (k+1 == len(in) || in[k] != in[k+1]) {
			k++
		}
		out = append(out, byte(k-from-1))
		out = append(out, in[from:k]...)
	}
	return out
}

// unpackBits unpacks at most so many bytes.
func unpackBits(in []byte, most int) (out []byte, err error) {
	for k := 0; k < len(in) && len(out) < most; {
		n := int(int8(in[k]))
		k++
		switch {
		case n == -128:
		case n < 0:
			if k >= len(in) {
				return nil, errors.New("the cells that are watched end in the middle")
			}
			for range 1 - n {
				out = append(out, in[k])
			}
			k++
		default:
			if k+n+1 > len(in) {
				return nil, errors.New("the cells that are watched end in the middle")
			}
			out = append(out, in[k:k+n+1]...)
			k += n + 1
		}
	}
	if len(out) > most {
		out = out[:most]
	}
	return out, nil
}

// Layout is the grid of a cell motion engine.
type Layout struct{ Columns, Rows int }

// mostCells along one side of a grid.
const mostCells = 1024

// LayoutOf reads the grid of a cell motion engine's module.
func LayoutOf(e *Element) (l Layout, err error) {
	var read [2]int
	for k, name := range []string{"Columns", "Rows"} {
		if _, err := fmt.Sscan(e.SelectAttrValue(name, ""), &read[k]); err != nil || read[k] < 1 || read[k] > mostCells {
			return l, fmt.Errorf("the grid says %q for its %s", shortened(e.SelectAttrValue(name, "")), name)
		}
	}
	return Layout{read[0], read[1]}, nil
}

// Element writes it, over all of the picture.
func (l Layout) Element() *Element {
	return E("tt:CellLayout", Attr{"Columns", whole(l.Columns)}, Attr{"Rows", whole(l.Rows)}, E("tt:Transformation",
		E("tt:Translate", Attr{"x", "-1"}, Attr{"y", "-1"}),
		E("tt:Scale", Attr{"x", plain(2 / float64(l.Columns))}, Attr{"y", plain(2 / float64(l.Rows))})))
}

// Polygon writes an outline of shares of the picture's width and height from the top left, in the coordinates of analytics: −1 to 1
// from the bottom left.
func Polygon(points [][2]float64) *Element {
	e := E("tt:Polygon")
	for _, p := range points {
		e.AddChild(E("tt:Point", Attr{"x", plain(2*p[0] - 1)}, Attr{"y", plain(1 - 2*p[1])}))
	}
	return e
}

// PolygonOf reads an outline; points outside the picture are brought to its edge.
func PolygonOf(e *Element) (out [][2]float64) {
	for _, p := range e.SelectElements("Point") {
		var x, y float64
		if _, err := fmt.Sscan(p.SelectAttrValue("x", ""), &x); err != nil {
			continue
		}
		if _, err := fmt.Sscan(p.SelectAttrValue("y", ""), &y); err != nil {
			continue
		}
		out = append(out, [2]float64{share((x + 1) / 2), share((1 - y) / 2)})
	}
	return out
}

// share is within 0 and 1, on a step that hides what sums of floats leave.
func share(x float64) float64 {
	if !(x > 0) { // not a number neither
		return 0
	}
	return float64(int(min(x, 1)*1e6+0.5)) / 1e6
}
