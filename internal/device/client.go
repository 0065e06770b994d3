package device

import (
	"bytes"
	"context"
	"crypto/rand"
	"crypto/sha256"
	"crypto/tls"
	"crypto/x509"
	"encoding/hex"
	"errors"
	"fmt"
	"io"
	"net"
	"net/http"
	"net/netip"
	"net/url"
	"strconv"
	"strings"
	"time"

	"github.com/icholy/digest"

	"wakefield.example/internal/onvif"
)

// Options say which device, and as whom.
type Options struct {
	Address        Address
	User, Password string
	Fingerprint    string // of the certificate that was accepted; empty where its issuer vouches for it
	Allowed        Allowed
	Call           time.Duration         // longest for one call; 20 s where it is 0
	Said           func(call, by string) // is told each call, and its end; nil for nobody
}

// Client speaks with one device.
type Client struct {
	o        Options
	ip       netip.Addr
	web      *http.Client
	services map[onvif.Service]string // paths
	clock    time.Duration            // how far its clock is ahead of ours
	zone     *time.Location           // of times that name none
}

const usualCall = 20 * time.Second

// Open resolves the address, asks what the clock shows and which services there are. Nothing is kept open.
func Open(ctx context.Context, o Options) (*Client, error) {
	if o.Call == 0 {
		o.Call = usualCall
	}
	ip, err := o.Address.pin(ctx, o.Allowed)
	if err != nil {
		var known *Error
		if errors.As(err, &known) {
			return nil, err
		}
		return nil, &Error{Forbidden, strings.ToUpper(err.Error()[:1]) + err.Error()[1:] + "."}
	}
	c := &Client{o: o, ip: ip, zone: time.UTC, services: map[onvif.Service]string{onvif.DeviceService: "/onvif/device_service"}}
	c.web = &http.Client{Transport: c.transport(), CheckRedirect: func(*http.Request,
		[]*http.Request) error {
		return http.ErrUseLastResponse
	}}
	if err := c.askClock(ctx); err != nil {
		return nil, err
	}
	return c, c.askServices(ctx)
}

// Close lets go of idle connections.
func (c *Client) Close() { c.web.CloseIdleConnections() }

// transport reaches the pinned address and no other.
func (c *Client) transport() http.RoundTripper {
	dialer := &net.Dialer{Timeout: 10 * time.Second}
	plain := &http.Transport{
		DialContext: func(ctx context.Context, network, address string) (net.Conn, error) {
			_, port, err := net.SplitHostPort(address)
			if err != nil {
				return nil, err
			}
			return dialer.DialContext(ctx, network, net.JoinHostPort(c.ip.String(), port))
		},
		TLSClientConfig:        c.tls(),
		TLSHandshakeTimeout:    10 * time.Second,
		ResponseHeaderTimeout:  c.o.Call,
		MaxResponseHeaderBytes: 64 << 10,
		MaxConnsPerHost:        4,
		MaxIdleConnsPerHost:    4,
		IdleConnTimeout:        5 * time.Second,
		DisableCompression:     true, // of an answer that unpacks to more than it is
	}
	if c.o.User == "" {
		return plain
	}
	return &digest.Transport{Username: c.o.User, Password: c.o.Password, Transport: plain}
}

// tls trusts a certificate that was accepted, or one whose issuer the machine trusts.
func (c *Client) tls() *tls.Config {
	return &tls.Config{
		MinVersion:         tls.VersionTLS12,
		InsecureSkipVerify: true, //nolint:gosec // VerifyConnection asks instead
		VerifyConnection: func(s tls.ConnectionState) error {
			sum := sha256.Sum256(s.PeerCertificates[0].Raw)
			found := hex.EncodeToString(sum[:])
			if c.o.Fingerprint != "" {
				if found != c.o.Fingerprint {
					return &CertificateError{found, "it is another than the one that was accepted"}
				}
				return nil
			}
			others := x509.NewCertPool()
			for _, more := range s.PeerCertificates[1:] {
				others.AddCert(more)
			}
			_, err := s.PeerCertificates[0].Verify(x509.VerifyOptions{DNSName: c.o.Address.Host, Intermediates: others})
			if err != nil {
				return &CertificateError{found, "no authority that this server knows vouches for it"}
			}
			return nil
		},
	}
}

// url is a path at the device, on a port of its own where one is given.
func (c *Client) url(scheme, port, path string) string {
	if port == "" {
		port = strconv.Itoa(c.o.Address.Port)
	}
	return scheme + "://" + net.JoinHostPort(c.o.Address.Host, port) + path
}

func (c *Client) scheme() string {
	if c.o.Address.TLS {
		return "https"
	}
	return "http"
}

// pathOf is the path of an address that the device names: the host is always the one that we were given.
func pathOf(text string) (port, path string, err error) {
	u, err := url.Parse(strings.TrimSpace(text))
	if err != nil || len(text) > 2000 {
		return "", "", &Error{Stranger, "It names an address that is none."}
	}
	path = u.EscapedPath()
	if path == "" {
		path = "/"
	}
	if u.RawQuery != "" {
		path += "?" + u.RawQuery
	}
	return u.Port(), path, nil
}

// mostAgain is how often what broke on the way is asked again.
const mostAgain = 4

// ask calls an operation that may come twice: one that changes nothing, or sets something to a value. What breaks on the way is asked
// again.
func (c *Client) ask(ctx context.Context, s onvif.Service, body *onvif.Element) (*onvif.Element, error) {
	for again := 0; ; again++ {
		answer, err := c.call(ctx, s, body.Copy())
		if err == nil || again == mostAgain || !broken(err) {
			return answer, err
		}
	}
}

// call calls an operation once.
func (c *Client) call(ctx context.Context, s onvif.Service, body *onvif.Element) (*onvif.Element, error) {
	path := c.services[s]
	if path == "" {
		return nil, &Error{Refused, "It has no such service."}
	}
	return c.callAt(ctx, path, body, "")
}

// callAt calls an operation at a path. An action is for services that are addressed by it.
func (c *Client) callAt(ctx context.Context, path string, body *onvif.Element, action string) (answer *onvif.Element, err error) {
	ctx, cancel := context.WithTimeout(ctx, c.o.Call)
	defer cancel()
	began := time.Now()
	defer func() {
		if c.o.Said != nil {
			end := "answered"
			if err != nil {
				end = err.Error()
			}
			c.o.Said(body.Tag, fmt.Sprintf("%s after %d ms", strings.TrimSuffix(end, "."), time.Since(began).Milliseconds()))
		}
	}()
	var header []*onvif.Element
	if action != "" {
		header = append(header, onvif.E("wsa:Action", onvif.Attr{Name: "s:mustUnderstand", Value: "1"}, action),
			onvif.E("wsa:MessageID", "urn:uuid:"+newUUID()),
			onvif.E("wsa:ReplyTo", onvif.E("wsa:Address", "http://www.w3.org/2005/08/addressing/anonymous")),
			onvif.E("wsa:To", onvif.Attr{Name: "s:mustUnderstand", Value: "1"}, c.url(c.scheme(), "", path)))
	}
	if c.o.User != "" {
		nonce := make([]byte, 16)
		rand.Read(nonce)
		header = append(header, onvif.UsernameToken(c.o.User, c.o.Password, nonce, time.Now().Add(c.clock)))
	}
	message := onvif.Envelope(header, body)
	request, err := http.NewRequestWithContext(ctx, http.MethodPost, c.url(c.scheme(), "", path), bytes.NewReader(message))
	if err != nil {
		return nil, &Error{Stranger, "It names an address that is none."}
	}
	kind := "application/soap+xml; charset=utf-8"
	if action != "" {
		kind += `; action="` + action + `"`
	}
	request.Header.Set("Content-Type", kind)
	response, err := c.web.Do(request)
	if err != nil {
		return nil, troubleOf(err)
	}
	defer response.Body.Close()
	return c.answered(response)
}

// answered reads an answer.
func (c *Client) answered(r *http.Response) (*onvif.Element, error) {
	switch {
	case r.StatusCode >= 300 && r.StatusCode < 400:
		return nil, &Error{Elsewhere, "It answers that it is elsewhere now, which is not followed. Type the address at which it is."}
	case r.StatusCode == http.StatusUnauthorized, r.StatusCode == http.StatusForbidden:
		return nil, &Error{Closed, "It does not accept the user or the password."}
	case r.ContentLength > onvif.MostBytes:
		return nil, &Error{Stranger, fmt.Sprintf("Its answer is larger than %d MB.", onvif.MostBytes>>20)}
	}
	m, err := onvif.Read(r.Body)
	if err != nil {
		var closed net.Error
		if errors.As(err, &closed) || errors.Is(err, io.ErrUnexpectedEOF) || errors.Is(err, context.DeadlineExceeded) {
			return nil, troubleOf(err)
		}
		if r.StatusCode != http.StatusOK {
			return nil, &Error{Stranger, fmt.Sprintf("It answers %s; is it a recorder or a camera?", r.Status)}
		}
		return nil, &Error{Stranger, "It does not answer as a recorder or camera does: " + err.Error() + "."}
	}
	if f := onvif.FaultOf(m.Body); f != nil {
		return nil, faultTrouble(f)
	}
	if m.Body == nil {
		return nil, &Error{Stranger, "Its answer is empty."}
	}
	return m.Body, nil
}

// newUUID is a random one, version 4.
func newUUID() string {
	var b [16]byte
	rand.Read(b[:])
	b[6], b[8] = b[6]&0x0F|0x40, b[8]&0x3F|0x80
	return fmt.Sprintf("%x-%x-%x-%x-%x", b[:4], b[4:6], b[6:8], b[8:10], b[10:])
}

// askClock asks what the clock shows, which everybody may.
func (c *Client) askClock(ctx context.Context) error {
	before := time.Now()
	answer, err := c.ask(ctx, onvif.DeviceService, onvif.E("tds:GetSystemDateAndTime"))
	if err != nil {
		return err
	}
	now, err := onvif.SystemTimeOf(answer)
	if err != nil {
		return &Error{Stranger, strings.ToUpper(err.Error()[:1]) + err.Error()[1:] + "."}
	}
	after := time.Now()
	c.clock = now.Add(time.Second / 2).Sub(before.Add(after.Sub(before) / 2)) // it tells whole seconds
	return nil
}

// ClockAhead is how far the device's clock is ahead, to a second.
func (c *Client) ClockAhead() time.Duration { return c.clock.Round(time.Second) }

// askServices asks where the services are: by GetServices, or by GetCapabilities of devices that do not have it.
func (c *Client) askServices(ctx context.Context) error {
	answer, err := c.ask(ctx, onvif.DeviceService, onvif.E("tds:GetServices", onvif.E("tds:IncludeCapability", "false")))
	var refused *Error
	if err != nil && errors.As(err, &refused) && refused.Trouble == Refused {
		return c.askCapabilities(ctx)
	}
	if err != nil {
		return err
	}
	for _, e := range onvif.All(answer, "Service") {
		if s := onvif.ServiceOf(onvif.Text(e, "Namespace")); s != "" {
			if _, path, err := pathOf(onvif.Text(e, "XAddr")); err == nil {
				c.services[s] = path
			}
		}
	}
	return nil
}

func (c *Client) askCapabilities(ctx context.Context) error {
	answer, err := c.ask(ctx, onvif.DeviceService, onvif.E("tds:GetCapabilities", onvif.E("tds:Category", "All")))
	if err != nil {
		return err
	}
	for at, s := range map[string]onvif.Service{"Media": onvif.Media, "PTZ": onvif.PTZ, "Analytics": onvif.Analytics, "Events": onvif.Events,
		"Extension/DeviceIO": onvif.DeviceIO, "Extension/Recording": onvif.RecordingControl, "Extension/Search": onvif.RecordingSearch} {
		if text := onvif.Text(answer, "Capabilities/"+at+"/XAddr"); text != "" {
			if _, path, err := pathOf(text); err == nil {
				c.services[s] = path
			}
		}
	}
	return nil
}

// Has tells whether the device has a service.
func (c *Client) Has(s onvif.Service) bool { return c.services[s] != "" }
