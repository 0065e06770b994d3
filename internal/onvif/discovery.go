package onvif

import (
	"errors"
	"strings"
)

// probeAction and matchesAction are what messages of WS-Discovery do.
const (
	probeAction   = "http://schemas.xmlsoap.org/ws/2005/04/discovery/Probe"
	matchesAction = "http://schemas.xmlsoap.org/ws/2005/04/discovery/ProbeMatches"
	discoveryTo   = "urn:schemas-xmlsoap-org:ws:2005:04:discovery"
	anonymous     = "http://schemas.xmlsoap.org/ws/2004/08/addressing/role/anonymous"
)

// Probe writes the question who is there, with an id of its own such as urn:uuid:….
func Probe(id string) []byte {
	return Envelope([]*Element{E("wsa4:Action", Attr{"s:mustUnderstand", "1"}, probeAction), E("wsa4:MessageID", id),
		E("wsa4:ReplyTo", E("wsa4:Address", anonymous)), E("wsa4:To", Attr{"s:mustUnderstand", "1"}, discoveryTo)},
		E("d:Probe", E("d:Types", "dn:NetworkVideoTransmitter")))
}

// Match is a device that answers a probe.
type Match struct {
	ID        string // its endpoint's, such as urn:uuid:…
	Addresses []string
	Scopes    []string
}

// Named is what a scope of the device says, such as its name or hardware; empty where it says nothing.
func (m Match) Named(what string) string {
	for _, s := range m.Scopes {
		if rest, ok := strings.CutPrefix(s, "onvif://www.onvif.org/"+what+"/"); ok {
			return strings.ReplaceAll(rest, "%20", " ")
		}
	}
	return ""
}

// Matches writes the answer to a probe.
func Matches(id, to string, m Match) []byte {
	return Envelope([]*Element{E("wsa4:Action", matchesAction), E("wsa4:MessageID", id), E("wsa4:RelatesTo", to), E("wsa4:To", anonymous)},
		E("d:ProbeMatches", E("d:ProbeMatch", E("wsa4:EndpointReference", E("wsa4:Address", m.ID)),
			E("d:Types", "dn:NetworkVideoTransmitter tds:Device"), E("d:Scopes", strings.Join(m.Scopes, " ")),
			E("d:XAddrs", strings.Join(m.Addresses, " ")), E("d:MetadataVersion", "1"))))
}

// MatchesOf reads the answer to a probe of an id.
func MatchesOf(data []byte, id string) (out []Match, err error) {
	m, err := Read(strings.NewReader(string(data)))
	if err != nil {
		return nil, err
	}
	if m.Body == nil || !Is(m.Body, "d:ProbeMatches") {
		return nil, errors.New("it is no answer to who is there")
	}
	if to := Text(m.Header, "RelatesTo"); to != id {
		return nil, errors.New("it answers another question")
	}
	for _, e := range m.Body.SelectElements("ProbeMatch") {
		out = append(out, Match{ID: Text(e, "EndpointReference/Address"), Addresses: strings.Fields(Text(e, "XAddrs")),
			Scopes: strings.Fields(Text(e, "Scopes"))})
	}
	return out, nil
}

// ProbeOf is the id of a probe that asks for recorders and cameras; empty for anything else.
func ProbeOf(data []byte) string {
	m, err := Read(strings.NewReader(string(data)))
	if err != nil || m.Body == nil || !Is(m.Body, "d:Probe") {
		return ""
	}
	for kind := range strings.FieldsSeq(Text(m.Body, "Types")) {
		if _, local, _ := strings.Cut(kind, ":"); local == "NetworkVideoTransmitter" || local == "Device" {
			return Text(m.Header, "MessageID")
		}
	}
	if Text(m.Body, "Types") == "" {
		return Text(m.Header, "MessageID")
	}
	return ""
}
