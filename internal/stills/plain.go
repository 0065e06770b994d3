package stills

import "bytes"

// Markers of a JPEG (ISO/IEC 10918-1, table B.1) that a still may have.
const (
	startOfImage, endOfImage, startOfScan = 0xd8, 0xd9, 0xda
	baselineFrame, huffman, quantization  = 0xc0, 0xc4, 0xdb
)

// isPlain tells whether a file is a JPEG that holds nothing but the picture: tables, one frame, one scan, and nothing
// behind its end.
func isPlain(data []byte) bool {
	if !bytes.HasPrefix(data, []byte{0xff, startOfImage}) {
		return false
	}
	for at := 2; at+4 <= len(data); {
		if data[at] != 0xff {
			return false
		}
		marker, length := data[at+1], int(data[at+2])<<8|int(data[at+3])
		at += 2 + length
		switch marker {
		case baselineFrame, huffman, quantization:
		case startOfScan:
			return at < len(data) && bytes.Index(data[at:], []byte{0xff, endOfImage}) == len(data)-at-2
		default:
			return false
		}
	}
	return false
}
