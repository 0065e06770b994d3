package standin

import (
	"bufio"
	"context"
	"encoding/base64"
	"fmt"
	"math"
	"net"
	"net/textproto"
	"net/url"
	"strconv"
	"strings"
	"sync"
	"time"

	"github.com/pion/rtp"
	"github.com/pion/rtp/codecs"

	"wakefield.example/internal/onvif"
	"wakefield.example/internal/rtsp"
)

// serveStreams answers over RTSP.
func (d *Device) serveStreams(ctx context.Context, l net.Listener) {
	var talks sync.WaitGroup
	defer talks.Wait()
	for {
		c, err := l.Accept()
		if err != nil {
			return
		}
		d.mu.Lock()
		d.conns[c] = true
		d.mu.Unlock()
		talks.Add(1)
		go func() {
			defer talks.Done()
			defer func() {
				d.mu.Lock()
				delete(d.conns, c)
				d.mu.Unlock()
				c.Close()
			}()
			(&talk{Device: d, conn: c, r: bufio.NewReader(c)}).answer(ctx)
		}()
	}
}

// talk is one connection of RTSP.
type talk struct {
	*Device
	conn    net.Conn
	r       *bufio.Reader
	writing sync.Mutex
	channel byte // that RTP is interleaved on
	ready   bool
	stop    context.CancelFunc
	playing sync.WaitGroup
}

// answer answers until the connection ends.
func (t *talk) answer(ctx context.Context) {
	ctx, t.stop = context.WithCancel(ctx)
	defer t.playing.Wait()
	defer t.stop()
	for {
		m, _, err := rtsp.Next(t.r, nil)
		if err != nil {
			return
		}
		if m == nil || m.Method == "" {
			continue // what a player says of what it got
		}
		answer := t.request(ctx, m)
		answer.Header.Set("CSeq", m.Header.Get("CSeq"))
		t.writing.Lock()
		err = answer.Write(t.conn)
		t.writing.Unlock()
		if err != nil || m.Method == "TEARDOWN" {
			return
		}
	}
}

func status(code int, reason string) *rtsp.Message {
	return &rtsp.Message{Status: code, Reason: reason, Header: textproto.MIMEHeader{}}
}

// request answers one request.
func (t *talk) request(ctx context.Context, m *rtsp.Message) *rtsp.Message {
	if m.Method == "OPTIONS" {
		a := status(200, "OK")
		a.Header.Set("Public", "OPTIONS, DESCRIBE, SETUP, PLAY, GET_PARAMETER, TEARDOWN")
		return a
	}
	if !t.proves(m.Header.Get("Authorization"), m.Method) {
		a := status(401, "Unauthorized")
		for _, c := range t.challenges() {
			a.Header.Add("WWW-Authenticate", c)
		}
		return a
	}
	u, err := url.Parse(m.URL)
	if err != nil {
		return status(400, "Bad Request")
	}
	token := strings.TrimSuffix(strings.Trim(u.Path, "/"), "/track")
	t.mu.Lock()
	c, k := t.state.profile(token)
	var e onvif.Encoder
	if c != nil {
		e = c.Encoders[k]
	}
	t.mu.Unlock()
	if c == nil {
		return status(404, "Not Found")
	}
	switch m.Method {
	case "DESCRIBE":
		return t.describe(m, e)
	case "SETUP":
		return t.setUp(m)
	case "PLAY":
		if !t.ready {
			return status(455, "Method Not Valid in This State")
		}
		t.playing.Add(1)
		go func() {
			defer t.playing.Done()
			t.play(ctx, c, k, e)
		}()
		return t.session()
	case "GET_PARAMETER", "TEARDOWN":
		return t.session()
	}
	return status(405, "Method Not Allowed")
}

func (t *talk) session() *rtsp.Message {
	a := status(200, "OK")
	a.Header.Set("Session", "1;timeout=60")
	return a
}

// describe describes a stream.
func (t *talk) describe(m *rtsp.Message, e onvif.Encoder) *rtsp.Message {
	codec := strings.ToLower(e.Encoding)
	sets := EncoderOf(codec, e.Width, e.Height, e.FPS, 0).Sets()
	var fmtp string
	if codec == "h265" {
		fmtp = fmt.Sprintf("sprop-vps=%s;sprop-sps=%s;sprop-pps=%s", b64(sets[0]), b64(sets[1]), b64(sets[2]))
	} else {
		fmtp = fmt.Sprintf("packetization-mode=1;profile-level-id=%02X%02X%02X;sprop-parameter-sets=%s,%s", sets[0][1], sets[0][2], sets[0][3],
			b64(sets[0]), b64(sets[1]))
	}
	a := status(200, "OK")
	a.Header.Set("Content-Type", "application/sdp")
	a.Header.Set("Content-Base", strings.TrimSuffix(m.URL, "/")+"/")
	a.Body = []byte(strings.Join([]string{"v=0", "o=- 1 1 IN IP4 127.0.0.1", "s=Test picture", "c=IN IP4 0.0.0.0", "t=0 0", "a=control:*",
		"m=video 0 RTP/AVP 96", "a=rtpmap:96 " + e.Encoding + "/90000", "a=fmtp:96 " + fmtp,
		"a=framerate:" + strconv.FormatFloat(e.FPS, 'f', -1, 64), "a=control:track", ""}, "\r\n"))
	return a
}

func b64(b []byte) string { return base64.StdEncoding.EncodeToString(b) }

// setUp agrees on interleaving; anything else is no transport here.
func (t *talk) setUp(m *rtsp.Message) *rtsp.Message {
	for _, transport := range strings.Split(m.Header.Get("Transport"), ",") {
		if !strings.Contains(transport, "RTP/AVP/TCP") {
			continue
		}
		t.ready = true
		for _, p := range strings.Split(transport, ";") {
			if v, ok := strings.CutPrefix(strings.TrimSpace(p), "interleaved="); ok {
				first, _, _ := strings.Cut(v, "-")
				n, err := strconv.ParseUint(first, 10, 8)
				if err != nil {
					return status(400, "Bad Request")
				}
				t.channel = byte(n)
			}
		}
		a := t.session()
		a.Header.Set("Transport", fmt.Sprintf("RTP/AVP/TCP;unicast;interleaved=%d-%d", t.channel, t.channel+1))
		return a
	}
	return status(461, "Unsupported Transport")
}

// payloadSize is how large a packet of RTP is.
const payloadSize = 1400

// play sends frames as fast as they are taken, each when it is due, until ctx ends. A frame is as large as the bitrate wants that
// the channel has while nothing moves, or while something does.
func (t *talk) play(ctx context.Context, c *Channel, k int, e onvif.Encoder) {
	codec := strings.ToLower(e.Encoding)
	encoder := EncoderOf(codec, e.Width, e.Height, e.FPS, frameBytes(min(c.Idle[k], float64(e.Kbps)), e, false))
	var payloader rtp.Payloader = &codecs.H264Payloader{}
	if codec == "h265" {
		payloader = &codecs.H265Payloader{SkipAggregation: true}
	}
	packets := rtp.NewPacketizer(payloadSize, 96, 0x57414B45, payloader, rtp.NewFixedSequencer(1), 90000)
	began := time.Now()
	for n := 0; ; n++ {
		due := time.Duration(float64(n) / e.FPS * float64(time.Second))
		select {
		case <-ctx.Done():
			return
		case <-time.After(time.Until(began.Add(due))):
		}
		keyframe := n%max(1, e.Gov) == 0
		kbps := c.Idle[k]
		if t.moving(c) {
			kbps = c.Active[k]
		}
		if e.Constant {
			kbps = float64(e.Kbps)
		}
		var units [][]byte
		if keyframe {
			units = encoder.Sets()
		}
		units = append(units, encoder.Frame(n, keyframe, frameBytes(min(kbps, float64(e.Kbps)), e, keyframe))...)
		var stream []byte
		for _, u := range units {
			stream = append(append(stream, 0, 0, 0, 1), u...)
		}
		for _, p := range packets.Packetize(stream, 0) {
			p.Timestamp = uint32(math.Round(due.Seconds() * 90000))
			data, err := p.Marshal()
			if err != nil {
				return
			}
			t.writing.Lock()
			t.conn.SetWriteDeadline(time.Now().Add(20 * time.Second))
			err = (&rtsp.Frame{Channel: t.channel, Data: data}).Write(t.conn)
			t.writing.Unlock()
			if err != nil {
				return
			}
		}
	}
}

// keyframeTimes is how many times a keyframe is as large as another frame.
const keyframeTimes = 6

// frameBytes is how large a frame is so that a group of pictures has the bitrate.
func frameBytes(kbps float64, e onvif.Encoder, keyframe bool) int {
	gov := float64(max(1, e.Gov))
	perGroup := kbps * 1000 / 8 * gov / e.FPS
	other := perGroup / (gov - 1 + keyframeTimes)
	if keyframe {
		return int(other * keyframeTimes)
	}
	return int(other)
}
