package device

import (
	"context"
	"fmt"
	"net"
	"net/netip"
	"slices"
	"strings"
	"time"

	"wakefield.example/internal/onvif"
)

// Found is a device that answered when asked who is there.
type Found struct {
	Address  string `json:"address" doc:"As it is typed"`
	Name     string `json:"name,omitempty" doc:"As the device calls itself"`
	Hardware string `json:"hardware,omitempty" doc:"As the device says"`
}

// mostNetwork is how many addresses a network that is searched may have.
const mostNetwork = 1024

// ReadNetwork reads a network as people type it: "10.0.4.0/24", or one address.
func ReadNetwork(text string) (netip.Prefix, error) {
	text = strings.TrimSpace(text)
	p, err := netip.ParsePrefix(text)
	if err != nil {
		ip, err := netip.ParseAddr(text)
		if err != nil {
			return p, fmt.Errorf("%q is no network; one is written 10.0.4.0/24", text)
		}
		p = netip.PrefixFrom(ip, ip.BitLen())
	}
	p = p.Masked()
	if bits := p.Addr().BitLen() - p.Bits(); bits > 10 {
		return p, fmt.Errorf("%s has more than %d addresses; name a smaller one, such as a /24", p, mostNetwork)
	}
	return p, nil
}

// Find asks the addresses of a network who is there, by WS-Discovery to each of them, and once to all that listen on the link; only
// what is in the network counts. It takes as long as patience says. port is that of WS-Discovery, 3702, but in tests.
func Find(ctx context.Context, network netip.Prefix, allowed Allowed, patience time.Duration, port int) ([]Found, error) {
	if err := allowed.Check(network.Addr()); err != nil && network.Addr() != netip.AddrFrom4([4]byte{}) {
		return nil, err
	}
	conn, err := net.ListenUDP("udp", nil)
	if err != nil {
		return nil, err
	}
	defer conn.Close()
	ctx, cancel := context.WithTimeout(ctx, patience)
	defer cancel()
	defer context.AfterFunc(ctx, func() { conn.SetReadDeadline(time.Now()) })()
	id := "urn:uuid:" + newUUID()
	go askAll(ctx, conn, network, port, onvif.Probe(id))
	var out []Found
	buffer := make([]byte, 64<<10)
	for len(out) < mostNetwork {
		n, from, err := conn.ReadFromUDPAddrPort(buffer)
		if err != nil {
			break
		}
		if !network.Contains(from.Addr().Unmap()) {
			continue
		}
		for _, f := range answeredBy(buffer[:n], id, from.Addr().Unmap()) {
			if !slices.Contains(out, f) {
				out = append(out, f)
			}
		}
	}
	slices.SortFunc(out, func(a, b Found) int { return strings.Compare(a.Address, b.Address) })
	return out, nil
}

// askAll asks every address of a network, and once all that listen on the link.
func askAll(ctx context.Context, conn *net.UDPConn, network netip.Prefix, port int, probe []byte) {
	asked := 0
	for ip := network.Addr(); network.Contains(ip) && asked < mostNetwork && ctx.Err() == nil; ip = ip.Next() {
		conn.WriteToUDPAddrPort(probe, netip.AddrPortFrom(ip, uint16(port)))
		if asked++; asked%64 == 0 {
			select {
			case <-ctx.Done():
			case <-time.After(10 * time.Millisecond): // routers drop what comes all at once
			}
		}
	}
	if network.Addr().Is4() && !network.Addr().IsLoopback() && !network.IsSingleIP() && ctx.Err() == nil {
		conn.WriteToUDPAddrPort(probe, netip.MustParseAddrPort("239.255.255.250:3702"))
	}
}

// answeredBy are the devices of an answer to a probe that name the address from which it came; none of somebody else's answer.
func answeredBy(data []byte, id string, from netip.Addr) (out []Found) {
	list, err := onvif.MatchesOf(data, id)
	if err != nil {
		return nil
	}
	for _, m := range list {
		for _, text := range m.Addresses {
			if a, err := ReadAddress(text); err == nil && a.Host == from.String() {
				out = append(out, Found{a.String(), m.Named("name"), m.Named("hardware")})
			}
		}
	}
	return out
}
