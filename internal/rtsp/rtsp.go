// Package rtsp is as much of RTSP 1.0 (RFC 2326) over TCP as is needed to look at a stream: messages, and the frames that are
// interleaved with them. Who asks is package device, who answers package standin.
package rtsp

import (
	"bufio"
	"errors"
	"fmt"
	"io"
	"net/textproto"
	"strconv"
	"strings"
)

// What a message may have.
const (
	mostHeaders = 64
	mostLine    = 8 << 10
	mostBody    = 256 << 10
)

// Message is a request or an answer. A request has a method, an answer a status.
type Message struct {
	Method string
	URL    string
	Status int
	Reason string
	Header textproto.MIMEHeader
	Body   []byte
}

// Frame is a block that is interleaved with messages: RTP on even channels, RTCP on odd ones.
type Frame struct {
	Channel byte
	Data    []byte
}

// Write writes a message.
func (m *Message) Write(w io.Writer) error {
	var b strings.Builder
	if m.Method != "" {
		fmt.Fprintf(&b, "%s %s RTSP/1.0\r\n", m.Method, m.URL)
	} else {
		fmt.Fprintf(&b, "RTSP/1.0 %d %s\r\n", m.Status, m.Reason)
	}
	for name, values := range m.Header {
		for _, v := range values {
			fmt.Fprintf(&b, "%s: %s\r\n", name, v)
		}
	}
	if len(m.Body) > 0 {
		fmt.Fprintf(&b, "Content-Length: %d\r\n", len(m.Body))
	}
	b.WriteString("\r\n")
	b.Write(m.Body)
	_, err := io.WriteString(w, b.String())
	return err
}

// Write writes a frame.
func (f *Frame) Write(w io.Writer) error {
	if len(f.Data) > 0xFFFF {
		return errors.New("rtsp: a frame holds 65,535 bytes at most")
	}
	head := [4]byte{'$', f.Channel, byte(len(f.Data) >> 8), byte(len(f.Data))}
	if _, err := w.Write(head[:]); err != nil {
		return err
	}
	_, err := w.Write(f.Data)
	return err
}

// Next reads a message or a frame: one of the two is not nil. data of a frame is good until the next call only where buffer is
// given, which is used for it as far as it reaches.
func Next(r *bufio.Reader, buffer []byte) (*Message, *Frame, error) {
	first, err := r.Peek(1)
	if err != nil {
		return nil, nil, err
	}
	if first[0] != '$' {
		m, err := readMessage(r)
		return m, nil, err
	}
	var head [4]byte
	if _, err := io.ReadFull(r, head[:]); err != nil {
		return nil, nil, err
	}
	n := int(head[2])<<8 | int(head[3])
	if cap(buffer) < n {
		buffer = make([]byte, n)
	}
	buffer = buffer[:n]
	if _, err := io.ReadFull(r, buffer); err != nil {
		return nil, nil, err
	}
	return nil, &Frame{head[1], buffer}, nil
}

// line reads one line without its end.
func line(r *bufio.Reader) (string, error) {
	var out []byte
	for {
		part, more, err := r.ReadLine()
		if err != nil {
			return "", err
		}
		if out = append(out, part...); len(out) > mostLine {
			return "", errors.New("a line of an RTSP message is longer than 8 kB")
		}
		if !more {
			return string(out), nil
		}
	}
}

func readMessage(r *bufio.Reader) (*Message, error) {
	start, err := line(r)
	if err != nil {
		return nil, err
	}
	m := &Message{Header: textproto.MIMEHeader{}}
	one, rest, _ := strings.Cut(start, " ")
	two, three, _ := strings.Cut(rest, " ")
	switch {
	case strings.HasPrefix(one, "RTSP/1."):
		if m.Status, err = strconv.Atoi(two); err != nil || m.Status < 100 || m.Status > 999 {
			return nil, fmt.Errorf("not an RTSP answer: %q", clipped(start))
		}
		m.Reason = three
	case strings.HasPrefix(three, "RTSP/1."):
		m.Method, m.URL = one, two
	default:
		return nil, fmt.Errorf("not an RTSP message: %q", clipped(start))
	}
	for n := 0; ; n++ {
		text, err := line(r)
		if err != nil {
			return nil, err
		}
		if text == "" {
			break
		}
		if n == mostHeaders {
			return nil, fmt.Errorf("an RTSP message has more than %d headers", mostHeaders)
		}
		name, value, ok := strings.Cut(text, ":")
		if !ok {
			return nil, fmt.Errorf("not a header of RTSP: %q", clipped(text))
		}
		m.Header.Add(strings.TrimSpace(name), strings.TrimSpace(value))
	}
	length := m.Header.Get("Content-Length")
	if length == "" {
		return m, nil
	}
	n, err := strconv.Atoi(length)
	if err != nil || n < 0 || n > mostBody {
		return nil, fmt.Errorf("an RTSP message of %s bytes", clipped(length))
	}
	m.Body = make([]byte, n)
	_, err = io.ReadFull(r, m.Body)
	return m, err
}

func clipped(s string) string {
	if len(s) > 60 {
		return s[:60] + "…"
	}
	return s
}
