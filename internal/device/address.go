// Package device speaks with recorders and cameras over ONVIF and RTSP: finds them, reads them as package readout has them,
// writes what is planned, measures streams and listens to events.
//
// A [Client] speaks with one device at one address that somebody named. Its name is resolved once and the address kept; nothing
// that the device answers leads anywhere else. Every call has a limit of time and of bytes.
package device

import (
	"context"
	"errors"
	"fmt"
	"net"
	"net/netip"
	"strconv"
	"strings"
	"time"
	"unicode"
)

// Address is where a device answers.
type Address struct {
	Host string // a name or an address
	Port int
	TLS  bool
}

// ReadAddress reads an address as people type it: "10.0.4.20", "recorder.lan:8000", "https://10.0.4.20", "[fe80::1]:80".
func ReadAddress(text string) (a Address, err error) {
	rest := strings.TrimSpace(text)
	if scheme, after, ok := strings.Cut(rest, "://"); ok {
		switch strings.ToLower(scheme) {
		case "http":
		case "https":
			a.TLS = true
		default:
			return a, fmt.Errorf("%s:// is no way to reach a device; http:// and https:// are", scheme)
		}
		rest = after
	}
	rest, _, _ = strings.Cut(rest, "/")
	if strings.Contains(rest, "@") {
		return a, errors.New("user and password are typed in fields of their own, not in the address")
	}
	a.Port = 80
	if a.TLS {
		a.Port = 443
	}
	a.Host = rest
	if host, port, err := net.SplitHostPort(rest); err == nil {
		if a.Port, err = strconv.Atoi(port); err != nil || a.Port < 1 || a.Port > 65535 {
			return a, fmt.Errorf("%q is no port; one is 1 to 65535", port)
		}
		a.Host = host
	}
	a.Host = strings.Trim(a.Host, "[]")
	if a.Host == "" || strings.ContainsAny(a.Host, " ,;'\"<>%?#[]\\@") || strings.ContainsFunc(a.Host, unreadable) ||
		len(a.Host) > 253 {
		return a, fmt.Errorf("%q is no address: a name or an IP address is, such as 10.0.4.20 or recorder.lan:8000", text)
	}
	return a, nil
}

// unreadable are characters that no name of a host has.
func unreadable(r rune) bool { return unicode.IsControl(r) || unicode.IsSpace(r) }

// String is the address as it is read.
func (a Address) String() string {
	usual := 80
	scheme := ""
	if a.TLS {
		usual, scheme = 443, "https://"
	}
	host := a.Host
	if strings.Contains(host, ":") {
		host = "[" + host + "]"
	}
	if a.Port == usual {
		return scheme + host
	}
	return scheme + host + ":" + strconv.Itoa(a.Port)
}

// Allowed are ranges that are spoken with though they are refused usually.
type Allowed []netip.Prefix

// metadata are addresses at which machines are told secrets.
var metadata = []netip.Addr{netip.MustParseAddr("169.254.169.254"), netip.MustParseAddr("fd00:ec2::254"),
	netip.MustParseAddr("100.100.100.200")}

// Check says why an address is not spoken with; nil where it is.
func (a Allowed) Check(ip netip.Addr) error {
	ip = ip.Unmap()
	for _, p := range a {
		if p.Contains(ip) {
			return nil
		}
	}
	for _, m := range metadata {
		if ip == m {
			return fmt.Errorf("%s is never spoken with: machines are told secrets there", ip)
		}
	}
	switch {
	case ip.IsLoopback():
		return fmt.Errorf("%s is this server itself; it is spoken with where the server was started with --allow-device", ip)
	case ip.IsLinkLocalUnicast():
		return fmt.Errorf("%s is a link-local address; it is spoken with where the server was started with --allow-device", ip)
	case ip.IsMulticast(), ip.IsUnspecified(), ip == netip.AddrFrom4([4]byte{255, 255, 255, 255}):
		return fmt.Errorf("%s is the address of no device", ip)
	}
	return nil
}

// pin resolves the host of an address, once.
func (a Address) pin(ctx context.Context, allowed Allowed) (netip.Addr, error) {
	if ip, err := netip.ParseAddr(a.Host); err == nil {
		return ip.Unmap(), allowed.Check(ip)
	}
	ctx, cancel := context.WithTimeout(ctx, 5*time.Second)
	defer cancel()
	list, err := net.DefaultResolver.LookupNetIP(ctx, "ip", a.Host)
	if err != nil || len(list) == 0 {
		return netip.Addr{}, &Error{Gone, fmt.Sprintf("No address is known for the name %s.", a.Host)}
	}
	for _, ip := range list {
		if err = allowed.Check(ip); err == nil {
			return ip.Unmap(), nil
		}
	}
	return netip.Addr{}, err
}
