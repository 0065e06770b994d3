package device

import (
	"bufio"
	"context"
	"crypto/tls"
	"errors"
	"fmt"
	"net"
	"net/textproto"
	"net/url"
	"strconv"
	"strings"
	"time"

	"github.com/icholy/digest"
	"github.com/pion/rtp"
	"github.com/pion/sdp/v3"

	"wakefield.example/core/video"
	"wakefield.example/internal/rtsp"
)

// Watched is what came of a stream while it was watched.
type Watched struct {
	Codec   string
	Frames  []video.Packet // in the order in which they came
	Packets int            // of RTP
	Lost    int            // of RTP, by gaps in their numbers
}

// Longest is how long a stream is watched at most.
const Longest = 5 * time.Minute

// mostFrames that are kept of a stream: five minutes at 240 a second.
const mostFrames = 72_000

// Watch watches a stream over RTSP for a while, over TCP. Frames are counted as they came: it stops early where ctx does, and what
// came until then counts.
func (c *Client) Watch(ctx context.Context, profile string, length time.Duration, progress Progress) (*Watched, error) {
	text, err := c.address(ctx, "GetStreamUri", profile)
	if err != nil {
		return nil, err
	}
	u, err := url.Parse(strings.TrimSpace(text))
	if err != nil || u.Scheme != "rtsp" && u.Scheme != "rtsps" {
		return nil, &Error{Stranger, "It names no address of RTSP for its stream."}
	}
	port := u.Port()
	if port == "" {
		port = map[string]string{"rtsp": "554", "rtsps": "322"}[u.Scheme]
	}
	dialing, cancel := context.WithTimeout(ctx, 10*time.Second)
	defer cancel()
	conn, err := (&net.Dialer{}).DialContext(dialing, "tcp", net.JoinHostPort(c.ip.String(), port))
	if err != nil {
		return nil, troubleOf(err)
	}
	defer conn.Close()
	if u.Scheme == "rtsps" {
		secured := tls.Client(conn, c.tls())
		if err := secured.HandshakeContext(dialing); err != nil {
			return nil, troubleOf(err)
		}
		conn = secured
	}
	u.Host, u.User = net.JoinHostPort(c.o.Address.Host, port), nil
	p := &player{conn: conn, r: bufio.NewReaderSize(conn, 64<<10), user: c.o.User, password: c.o.Password, call: c.o.Call}
	return p.watch(ctx, u.String(), length, progress)
}

// player is one talk of RTSP.
type player struct {
	conn           net.Conn
	r              *bufio.Reader
	user, password string
	call           time.Duration
	seq            int
	session        string
	challenge      *digest.Challenge
	used           int // how often the challenge was answered
	buffer         [64 << 10]byte
}

// do sends a request and reads its answer; frames that come before it are dropped.
func (p *player) do(method, address string, header ...string) (*rtsp.Message, error) {
	for again := range 2 {
		p.seq++
		m := &rtsp.Message{Method: method, URL: address, Header: textproto.MIMEHeader{"CSeq": {strconv.Itoa(p.seq)}, "User-Agent": {"Wakefield"}}}
		for i := 0; i+1 < len(header); i += 2 {
			m.Header.Set(header[i], header[i+1])
		}
		if p.session != "" {
			m.Header.Set("Session", p.session)
		}
		if p.challenge != nil {
			p.used++
			proof, err := digest.Digest(p.challenge, digest.Options{Method: method, URI: address, Username: p.user,
				Password: p.password, Count: p.used})
			if err != nil {
				return nil, &Error{Closed, "How it asks for the password is not understood."}
			}
			m.Header.Set("Authorization", proof.String())
		}
		p.conn.SetDeadline(time.Now().Add(p.call))
		if err := m.Write(p.conn); err != nil {
			return nil, troubleOf(err)
		}
		answer, err := p.answer()
		if err != nil {
			return nil, err
		}
		if answer.Status == 401 && again == 0 && p.user != "" && p.takes(answer.Header.Values("Www-Authenticate")) {
			continue
		}
		switch {
		case answer.Status == 401:
			return nil, &Error{Closed, "It does not accept the user or the password for its streams."}
		case answer.Status >= 300 && answer.Status < 400:
			return nil, &Error{Elsewhere, "Its stream is elsewhere, which is not followed."}
		case answer.Status != 200:
			return nil, &Error{Refused, fmt.Sprintf("It answers %d %s to %s of its stream.", answer.Status, answer.Reason, method)}
		}
		if s, _, _ := strings.Cut(answer.Header.Get("Session"), ";"); s != "" {
			p.session = s
		}
		return answer, nil
	}
	return nil, &Error{Closed, "It does not accept the user or the password for its streams."}
}

// takes tells whether one of the challenges can be answered.
func (p *player) takes(challenges []string) bool {
	for _, text := range challenges {
		if c, err := digest.ParseChallenge(text); err == nil && digest.CanDigest(c) {
			p.challenge, p.used = c, 0
			return true
		}
	}
	return false
}

func (p *player) answer() (*rtsp.Message, error) {
	for range 10_000 {
		m, _, err := rtsp.Next(p.r, p.buffer[:0])
		if err != nil {
			return nil, talkTrouble(err)
		}
		if m != nil && m.Status != 0 {
			return m, nil
		}
	}
	return nil, &Error{Stranger, "It sends pictures and does not answer."}
}

func talkTrouble(err error) error {
	if err := troubleOf(err); !broken(err) {
		return err
	}
	return &Error{Stranger, "It ended the talk about its stream: " + lastOf(err) + "."}
}

// track is the picture of a stream.
type track struct {
	codec   string
	clock   float64
	payload uint8
	control string
}

// pictureIn finds the picture among what a description has.
func pictureIn(data []byte) (t track, err error) {
	var d sdp.SessionDescription
	if err := d.Unmarshal(data); err != nil {
		return t, &Error{Stranger, "It describes its stream in a way that is not understood."}
	}
	for _, m := range d.MediaDescriptions {
		if m.MediaName.Media != "video" {
			continue
		}
		t.control, _ = m.Attribute("control")
		for _, format := range m.MediaName.Formats {
			n, err := strconv.ParseUint(format, 10, 7)
			if err != nil {
				continue
			}
			codec, err := d.GetCodecForPayloadType(uint8(n))
			if err != nil {
				continue
			}
			switch name := strings.ToUpper(codec.Name); name {
			case "H264", "H265", "JPEG":
				t.codec, t.clock, t.payload = codecOf(name), float64(codec.ClockRate), uint8(n)
				return t, nil
			}
		}
		for _, format := range m.MediaName.Formats {
			if format == "26" { // JPEG by its number alone
				t.codec, t.clock, t.payload = "mjpeg", 90000, 26
				return t, nil
			}
		}
	}
	return t, &Error{Stranger, "There is no picture in its stream that is understood: H.264, H.265 and MJPEG are."}
}

// controlled is the address of a track.
func controlled(base, control string) string {
	switch {
	case control == "" || control == "*":
		return base
	case strings.HasPrefix(control, "rtsp://"), strings.HasPrefix(control, "rtsps://"):
		u, err := url.Parse(control)
		b, errBase := url.Parse(base)
		if err != nil || errBase != nil {
			return base
		}
		u.Host, u.User = b.Host, nil // never anywhere else
		return u.String()
	}
	return strings.TrimSuffix(base, "/") + "/" + control
}

func (p *player) watch(ctx context.Context, address string, length time.Duration, progress Progress) (*Watched, error) {
	defer context.AfterFunc(ctx, func() { p.conn.SetDeadline(time.Now()) })()
	described, err := p.do("DESCRIBE", address, "Accept", "application/sdp")
	if err != nil {
		return nil, err
	}
	t, err := pictureIn(described.Body)
	if err != nil {
		return nil, err
	}
	if _, err := p.do("SETUP", controlled(address, t.control), "Transport", "RTP/AVP/TCP;unicast;interleaved=0-1"); err != nil {
		return nil, err
	}
	if _, err := p.do("PLAY", address, "Range", "npt=0.000-"); err != nil {
		return nil, err
	}
	w := &Watched{Codec: t.codec}
	frames := gathering{w: w, t: t}
	began := time.Now()
	told := 0
	for {
		left := time.Until(began.Add(min(length, Longest)))
		if left <= 0 || ctx.Err() != nil || len(w.Frames) >= mostFrames {
			break
		}
		p.conn.SetReadDeadline(time.Now().Add(min(left+time.Second/10, p.call)))
		if ctx.Err() != nil {
			break
		}
		_, frame, err := rtsp.Next(p.r, p.buffer[:0])
		var late net.Error
		if errors.As(err, &late) && late.Timeout() && (ctx.Err() != nil || time.Until(began.Add(length)) <= 0) {
			break
		}
		if err != nil {
			if len(w.Frames) == 0 {
				return nil, talkTrouble(err)
			}
			break // what came until then counts
		}
		if frame != nil && frame.Channel == 0 {
			frames.add(frame.Data)
		}
		if s := int(time.Since(began).Seconds()); s > told && progress != nil {
			told = s
			progress(s, int(min(length, Longest).Seconds()), fmt.Sprintf("%d frames", len(w.Frames)))
		}
	}
	frames.end()
	p.conn.SetDeadline(time.Now().Add(time.Second))
	(&rtsp.Message{Method: "TEARDOWN", URL: address, Header: textproto.MIMEHeader{"CSeq": {strconv.Itoa(p.seq + 1)},
		"Session": {p.session}}}).Write(p.conn) // it notices in any case
	return w, nil
}

// gathering makes frames of packets: packets of one time stamp are one frame.
type gathering struct {
	w     *Watched
	t     track
	begun bool
	last  uint16 // number of the last packet
	stamp uint32
	wraps float64 // seconds that time stamps have gone round
	bytes int
	key   bool
}

func (g *gathering) add(data []byte) {
	var packet rtp.Packet
	if err := packet.Unmarshal(data); err != nil || packet.Version != 2 || packet.PayloadType != g.t.payload {
		return
	}
	if g.begun {
		if gap := packet.SequenceNumber - g.last - 1; gap > 0 && gap < 1<<15 {
			g.w.Lost += int(gap)
		}
	}
	g.w.Packets++
	g.last = packet.SequenceNumber
	if !g.begun {
		g.begun, g.stamp = true, packet.Timestamp
	}
	if packet.Timestamp != g.stamp {
		g.end()
		if packet.Timestamp < g.stamp && g.stamp-packet.Timestamp > 1<<31 {
			g.wraps += (1 << 32) / g.t.clock
		}
		g.stamp = packet.Timestamp
	}
	g.bytes += len(packet.Payload)
	g.key = g.key || keyIn(g.t.codec, packet.Payload)
}

// end ends the frame in hand.
func (g *gathering) end() {
	if g.bytes > 0 && len(g.w.Frames) < mostFrames {
		g.w.Frames = append(g.w.Frames, video.Packet{Seconds: g.wraps + float64(g.stamp)/g.t.clock, Bytes: float64(g.bytes), Keyframe: g.key})
	}
	g.bytes, g.key = 0, false
}

// keyIn tells whether a payload has a part of a picture that needs no other: IDR of H.264 (RFC 6184), any random access picture of
// H.265 (RFC 7798); every one of MJPEG.
func keyIn(codec string, p []byte) bool {
	switch codec {
	case "mjpeg":
		return true
	case "h264":
		return len(p) >= 2 && keyOf264(p)
	case "h265":
		return len(p) >= 3 && keyOf265(p)
	}
	return false
}

func keyOf264(p []byte) bool {
	switch kind := p[0] & 0x1F; kind {
	case 24: // several in one
		return anyOf(p[1:], func(unit []byte) bool { return unit[0]&0x1F == 5 })
	case 28, 29: // a part of one
		return p[1]&0x1F == 5
	default:
		return kind == 5
	}
}

func keyOf265(p []byte) bool {
	access := func(kind byte) bool { return kind >= 16 && kind <= 21 }
	switch kind := p[0] >> 1 & 0x3F; kind {
	case 48:
		return anyOf(p[2:], func(unit []byte) bool { return access(unit[0] >> 1 & 0x3F) })
	case 49:
		return access(p[2] & 0x3F)
	default:
		return access(kind)
	}
}

// anyOf tells whether something holds of one of the units that are in one payload, each after its length.
func anyOf(rest []byte, holds func(unit []byte) bool) bool {
	for len(rest) > 2 {
		n := int(rest[0])<<8 | int(rest[1])
		if n == 0 || n > len(rest)-2 {
			return false
		}
		if holds(rest[2 : 2+n]) {
			return true
		}
		rest = rest[2+n:]
	}
	return false
}
