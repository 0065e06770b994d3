package rtsp

import (
	"bufio"
	"bytes"
	"net/textproto"
	"strings"
	"testing"

	"wakefield.example/core/seeded"
)

// TestMessagesComeBack writes and reads requests, answers and frames, one after the other.
func TestMessagesComeBack(t *testing.T) {
	var b bytes.Buffer
	for _, m := range []*Message{
		{Method: "DESCRIBE", URL: "rtsp://10.0.0.1/a", Header: textproto.MIMEHeader{"Cseq": {"1"}}},
		{Status: 401, Reason: "Unauthorized", Header: textproto.MIMEHeader{"Www-Authenticate": {"Digest a", "Digest b"}}},
		{Status: 200, Reason: "OK", Header: textproto.MIMEHeader{}, Body: []byte("v=0\r\n")},
	} {
		if err := m.Write(&b); err != nil {
			t.Fatal(err)
		}
		if err := (&Frame{2, []byte("frame")}).Write(&b); err != nil {
			t.Fatal(err)
		}
	}
	r := bufio.NewReader(&b)
	var got []string
	for range 6 {
		m, f, err := Next(r, nil)
		if err != nil {
			t.Fatal(err)
		}
		switch {
		case f != nil:
			got = append(got, string(f.Data))
		case m.Method != "":
			got = append(got, m.Method+" "+m.URL)
		default:
			got = append(got, m.Reason+string(m.Body)+strings.Join(m.Header.Values("WWW-Authenticate"), "+"))
		}
	}
	if s := strings.Join(got, "|"); s != "DESCRIBE rtsp://10.0.0.1/a|frame|UnauthorizedDigest a+Digest b|frame|OKv=0\r\n|frame" {
		t.Error(s)
	}
}

// TestWhatIsTooMuchIsRefused bounds lines, headers and bodies.
func TestWhatIsTooMuchIsRefused(t *testing.T) {
	for _, text := range []string{
		"RTSP/1.0 200 " + strings.Repeat("x", 9000) + "\r\n\r\n",
		"RTSP/1.0 200 OK\r\n" + strings.Repeat("A: b\r\n", 70) + "\r\n",
		"RTSP/1.0 200 OK\r\nContent-Length: 99999999\r\n\r\n",
		"RTSP/1.0 200 OK\r\nContent-Length: -1\r\n\r\n",
		"RTSP/1.0 2000 OK\r\n\r\n", "HTTP/1.1 200 OK\r\n\r\n", "RTSP/1.0 200 OK\r\nno header\r\n\r\n", "$", "$\x00\x00\x09abc",
	} {
		if m, f, err := Next(bufio.NewReader(strings.NewReader(text)), nil); err == nil {
			t.Errorf("%.40q is %+v %+v", text, m, f)
		}
	}
}

// FuzzNext reads what nobody wrote, to its end.
func FuzzNext(fuzz *testing.F) {
	f := seeded.Of(fuzz, 3000)
	f.Add([]byte("RTSP/1.0 200 OK\r\nCSeq: 1\r\nContent-Length: 3\r\n\r\nabc$\x00\x00\x02xy"))
	f.Add([]byte("PLAY rtsp://a RTSP/1.0\n\n"))
	f.Fuzz(func(t *testing.T, data []byte) {
		r := bufio.NewReader(bytes.NewReader(data))
		for range len(data) + 1 {
			m, frame, err := Next(r, nil)
			if err != nil {
				return
			}
			if (m == nil) == (frame == nil) {
				t.Fatal("neither a message nor a frame, or both")
			}
		}
		t.Fatal("it does not end")
	})
}
