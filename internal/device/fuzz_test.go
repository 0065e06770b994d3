package device

import (
	"net/netip"
	"testing"

	"github.com/pion/rtp"

	"wakefield.example/core/seeded"
)

// FuzzAddress reads what nobody types. What is read is written so that it is read the same.
func FuzzAddress(fuzz *testing.F) {
	f := seeded.Of(fuzz, 3000)
	f.Add("https://recorder.lan:8443/onvif")
	f.Add("[fe80::1]:80")
	f.Add("10.0.4.0/24")
	f.Add("10\u2028/24")
	f.Fuzz(func(t *testing.T, text string) {
		if a, err := ReadAddress(text); err == nil {
			if again, err := ReadAddress(a.String()); err != nil || again != a {
				t.Errorf("%q is %+v, and then %+v, %v", text, a, again, err)
			}
		}
		if p, err := ReadNetwork(text); err == nil && (p.Addr().BitLen()-p.Bits() > 10 || p != p.Masked()) {
			t.Errorf("%q is searched as %v", text, p)
		}
	})
}

// FuzzPackets makes frames of packets that nobody sends: they have no more bytes than came.
func FuzzPackets(fuzz *testing.F) {
	f := seeded.Of(fuzz, 3000)
	f.Add("h264", []byte{24, 0, 2, 0x65, 1, 0, 1, 0x41}, 1, 2)
	f.Add("h265", []byte{48 << 1, 1, 0, 3, 19 << 1, 1, 9}, 1, 2)
	f.Add("h265", []byte{49 << 1, 1, 0x80 | 19}, 0xFFFFFFFF, 65535)
	f.Add("mjpeg", []byte{1}, 0, 0)
	f.Fuzz(func(t *testing.T, codec string, payload []byte, stamp, number int) {
		w := &Watched{}
		g := gathering{w: w, t: track{codec: codec, clock: 90000, payload: 96}}
		came := 0
		for k := range uint32(4) {
			p := rtp.Packet{Header: rtp.Header{Version: 2, PayloadType: 96, SequenceNumber: uint16(number) + uint16(k),
				Timestamp: uint32(stamp) + k/2*6000},
				Payload: payload}
			data, err := p.Marshal()
			if err != nil {
				t.Fatal(err)
			}
			g.add(data)
			came += len(payload)
		}
		g.add(payload) // no packet at all
		g.end()
		sum := 0.0
		for _, frame := range w.Frames {
			sum += frame.Bytes
		}
		if sum > float64(came)+float64(len(payload)) || w.Lost > 1<<15 {
			t.Errorf("%v bytes of %d, %d lost", sum, came, w.Lost)
		}
	})
}

// FuzzDescription reads descriptions of streams that nobody wrote.
func FuzzDescription(fuzz *testing.F) {
	f := seeded.Of(fuzz, 3000)
	f.Add([]byte("v=0\r\no=- 1 1 IN IP4 10.0.0.1\r\ns=x\r\nt=0 0\r\nm=video 0 RTP/AVP 96\r\na=rtpmap:96 H265/90000\r\na=control:track\r\n"))
	f.Add([]byte("v=0\r\nm=video 0 RTP/AVP 26\r\n"))
	f.Fuzz(func(t *testing.T, data []byte) {
		if p, err := pictureIn(data); err == nil && (p.codec == "" || p.clock < 0) {
			t.Errorf("%+v", p)
		}
	})
}

// TestControlsLeadNowhereElse keeps the address of a track at the device.
func TestControlsLeadNowhereElse(t *testing.T) {
	for control, want := range map[string]string{"": "rtsp://10.0.0.1:554/a", "track": "rtsp://10.0.0.1:554/a/track",
		"rtsp://203.0.113.9/b/track": "rtsp://10.0.0.1:554/b/track", "*": "rtsp://10.0.0.1:554/a"} {
		if got := controlled("rtsp://10.0.0.1:554/a", control); got != want {
			t.Errorf("%q leads to %q", control, got)
		}
	}
	if _, err := (Address{Host: "127.0.0.1"}).pin(t.Context(), Allowed{netip.MustParsePrefix("10.0.0.0/8")}); err == nil {
		t.Error("an address that is not allowed is kept")
	}
}
