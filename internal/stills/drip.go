package stills

import (
	"bytes"
	"context"
	"io"
)

// drip gives a decoder its file a few bytes at a time, so few that it makes only some rows of them, and before each looks
// whether anybody waits for the picture still: decoders of the library take no context.
type drip struct {
	ctx  context.Context
	from io.Reader
	gone error // why nobody waits any more: decoders ask again
}

// dripBytes become less than 128 kB of pixels, as nothing unpacks to more than a thousand times its size.
const dripBytes = 128

func (d *drip) Read(to []byte) (int, error) {
	if d.gone == nil {
		d.gone = d.ctx.Err()
	}
	if d.gone != nil {
		return 0, d.gone
	}
	return d.from.Read(to[:min(len(to), dripBytes)])
}

// sink takes what an encoder makes, byte by byte, and looks at every one whether anybody waits for it still.
type sink struct {
	bytes.Buffer
	ctx context.Context
}

func (s *sink) Write(p []byte) (int, error) {
	if err := s.ctx.Err(); err != nil {
		return 0, err
	}
	return s.Buffer.Write(p)
}

func (s *sink) WriteByte(c byte) error {
	if err := s.ctx.Err(); err != nil {
		return err
	}
	return s.Buffer.WriteByte(c)
}

// Flush makes it what the encoder writes to without a buffer of its own.
func (s *sink) Flush() error { return s.ctx.Err() }
