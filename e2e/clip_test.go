package e2e

import (
	"bytes"
	"encoding/binary"
	"os"
	"path/filepath"
	"testing"
)

// box writes a box of an ISO base media file (ISO/IEC 14496-12): its size, its type
// and what is in it.
func box(kind string, parts ...any) []byte {
	var b bytes.Buffer
	b.WriteString("\x00\x00\x00\x00" + kind)
	for _, part := range parts {
		switch part := part.(type) {
		case []byte:
			b.Write(part)
		case string:
			b.WriteString(part)
		default:
			binary.Write(&b, binary.BigEndian, part)
		}
	}
	binary.BigEndian.PutUint32(b.Bytes(), uint32(b.Len()))
	return b.Bytes()
}

// clip is a made-up MP4: frames of H.264 of given sizes at a frame rate, a keyframe
// every so many, the picture data nothing but zeros. Where spread is above 0, the
// file is as large as that, most of it a hole.
type clip struct {
	fps, gop      int
	sizes         []uint32
	width, height uint16
	spread        int64
}

// matrix of a picture that is not turned.
var matrix = []uint32{0x10000, 0, 0, 0, 0x10000, 0, 0, 0, 0x40000000}

func (c clip) write(t testing.TB, name string) string {
	t.Helper()
	n := uint32(len(c.sizes))
	const scale = 12800
	frame := uint32(scale / c.fps)
	var keys []uint32
	for i := uint32(0); i < n; i += uint32(c.gop) {
		keys = append(keys, i+1)
	}
	gap := uint64(0)
	if c.spread > 0 {
		gap = uint64(c.spread) / uint64(n)
	}
	moov := func(start uint64) []byte {
		offsets := make([]uint64, n)
		at := start
		for i, size := range c.sizes {
			offsets[i] = at
			at += max(uint64(size), gap)
		}
		avcC := box("avcC", []byte{1, 0x42, 0xc0, 0x1e, 0xff, 0xe1, 0, 8, 0x67, 0x42, 0xc0, 0x1e, 0xd9, 0x01, 0x40, 0x7b, 1, 0, 4,
			0x68, 0xce, 0x3c, 0x80})
		avc1 := box("avc1", make([]byte, 6), uint16(1), make([]byte, 16), c.width, c.height, uint32(0x480000), uint32(0x480000), uint32(0),
			uint16(1), make([]byte, 32), uint16(24), uint16(0xffff), avcC)
		stbl := box("stbl",
			box("stsd", uint32(0), uint32(1), avc1),
			box("stts", uint32(0), uint32(1), n, frame),
			box("stss", uint32(0), uint32(len(keys)), keys),
			box("stsc", uint32(0), uint32(1), uint32(1), uint32(1), uint32(1)),
			box("stsz", uint32(0), uint32(0), n, c.sizes),
			box("co64", uint32(0), n, offsets))
		dinf := box("dinf", box("dref", uint32(0), uint32(1), box("url ", uint32(1))))
		mdia := box("mdia",
			box("mdhd", uint32(0), uint32(0), uint32(0), uint32(scale), n*frame, uint16(0x55c4), uint16(0)),
			box("hdlr", uint32(0), uint32(0), "vide", make([]byte, 12), "video\x00"),
			box("minf", box("vmhd", uint32(1), make([]byte, 8)), dinf, stbl))
		tkhd := box("tkhd", uint32(3), uint32(0), uint32(0), uint32(1), uint32(0), n*frame, make([]byte,
			8), uint32(0), uint32(0), matrix, uint32(c.width)<<16, uint32(c.height)<<16)
		mvhd := box("mvhd", uint32(0), uint32(0), uint32(0), uint32(scale), n*frame, uint32(0x10000), uint16(0x100), make([]byte,
			10), matrix, make([]byte, 24), uint32(2))
		return box("moov", mvhd, box("trak", tkhd, mdia))
	}
	ftyp := box("ftyp", "isom", uint32(0x200), "isomiso2avc1mp41")
	header := uint64(len(ftyp) + len(moov(0)) + 16)
	total := uint64(0)
	for _, size := range c.sizes {
		total += max(uint64(size), gap)
	}
	path := filepath.Join(t.TempDir(), name)
	f, err := os.Create(path)
	if err != nil {
		t.Fatal(err)
	}
	defer f.Close()
	f.Write(ftyp)
	f.Write(moov(header))
	binary.Write(f, binary.BigEndian, uint32(1))
	f.WriteString("mdat")
	binary.Write(f, binary.BigEndian, total+16)
	if err := f.Truncate(int64(header + total)); err != nil {
		t.Fatal(err)
	}
	return path
}

// quietThenBusy is half a minute without movement and half a minute with.
func quietThenBusy() clip {
	c := clip{fps: 20, gop: 40, width: 640, height: 480}
	for i := range 1200 {
		switch {
		case i%40 == 0:
			c.sizes = append(c.sizes, 60_000)
		case i < 600:
			c.sizes = append(c.sizes, 2000)
		default:
			c.sizes = append(c.sizes, 12_000)
		}
	}
	return c
}
