package papers

import (
	"bytes"
	"image/png"

	"github.com/boombuler/barcode"
	"github.com/boombuler/barcode/qr"
)

// codePixels is how wide a code is.
const codePixels = 360

// Code is an address as a code that phones read (ISO/IEC 18004), as a PNG. It fails for an address that is too long.
func Code(address string) ([]byte, error) {
	code, err := qr.Encode(address, qr.M, qr.Auto)
	if err != nil {
		return nil, err
	}
	if code, err = barcode.Scale(code, codePixels, codePixels); err != nil {
		return nil, err
	}
	var out bytes.Buffer
	err = png.Encode(&out, code)
	return out.Bytes(), err
}

// phone sets the code that opens sheets and walk test on a phone, where there is a server that it can reach.
func (s *Source) phone(sh *sheet) {
	if s.Phone == "" {
		return
	}
	code, err := Code(s.Phone)
	if err != nil {
		return
	}
	const side = 22.0
	sh.room(side + 3)
	sh.space(1)
	top := sh.y
	sh.picture(code, sh.left, top, side, side)
	sh.inset("On a phone: scan this, and take steps and walk test along. No network is needed from then on.", text, side+4)
	sh.inset(s.Phone, small, side+4)
	sh.y = max(sh.y, top+side+2)
}
