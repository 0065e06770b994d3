package formats

import (
	"bytes"
	"unicode/utf8"

	"golang.org/x/text/encoding/charmap"
	"golang.org/x/text/encoding/unicode"
)

// Names of the ways in which text is encoded.
const (
	inUTF8  = "UTF-8"
	inUTF16 = "UTF-16"
	in1252  = "Windows-1252"
)

// decoded returns text as UTF-8, whichever way of those that spreadsheets write it was
// encoded, and which that was. What is neither UTF-8 nor UTF-16 is taken for Windows-1252,
// in which every byte but five is a character, so whoever reads on should have a look.
func decoded(data []byte) (text []byte, encoding string) {
	var endian unicode.Endianness
	switch {
	case bytes.HasPrefix(data, []byte("\ufeff")):
		return bytes.TrimPrefix(data, []byte("\ufeff")), inUTF8
	case bytes.HasPrefix(data, []byte{0xff, 0xfe}), zeros(data, 1) > 0.3:
		endian = unicode.LittleEndian
	case bytes.HasPrefix(data, []byte{0xfe, 0xff}), zeros(data, 0) > 0.3:
		endian = unicode.BigEndian
	case utf8.Valid(data):
		return data, inUTF8
	default:
		if text, err := charmap.Windows1252.NewDecoder().Bytes(data); err == nil {
			return text, in1252
		}
		return data, inUTF8
	}
	if text, err := unicode.UTF16(endian, unicode.UseBOM).NewDecoder().Bytes(data); err == nil {
		return text, inUTF16
	}
	return data, inUTF8
}

// zeros is the share of the bytes at odd or at even places that are 0, of the first
// thousand: UTF-16 of Latin letters has them at one of the two, and none at the other.
func zeros(data []byte, odd int) float64 {
	data = data[:min(len(data), 1000)]
	n, of := [2]int{}, 0
	for i, b := range data {
		if b == 0 {
			n[i%2]++
		}
		if i%2 == odd {
			of++
		}
	}
	if n[1-odd] > 0 || of < 2 {
		return 0
	}
	return float64(n[odd]) / float64(of)
}
