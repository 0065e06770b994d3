package standin

import (
	"net/http"
	"strings"
	"time"

	"wakefield.example/internal/onvif"
)

// asked is a question with what it came with.
type asked struct {
	*Device
	r    *http.Request
	in   *onvif.Element
	m    *onvif.Message
	base string // scheme and host by which it was reached
}

// operation answers a question; the lock is held.
type operation func(q *asked) (*onvif.Element, *onvif.Fault)

// operations are all that are answered, by the prefix of their service and their name. What writes is kept afterwards.
var operations = map[string]operation{}

// writing are operations that change what the stand-in is set to.
var writing = map[string]bool{}

func answers(writes bool, list map[string]operation) {
	for name, f := range list {
		operations[name] = f
		writing[name] = writes
	}
}

// E is short for an element of an answer.
var E = onvif.E

// A is an attribute.
func A(name, value string) onvif.Attr { return onvif.Attr{Name: name, Value: value} }

func invalid(code, reason string) *onvif.Fault {
	return &onvif.Fault{Sender: true, Because: "InvalidArgVal", Code: code, Reason: reason}
}

// answer answers a question.
func (d *Device) answer(name string, r *http.Request, m *onvif.Message) (*onvif.Element, *onvif.Fault) {
	scheme := "http://"
	if r.TLS != nil {
		scheme = "https://"
	}
	q := &asked{d, r, m.Body, m, scheme + r.Host}
	if name == "tev:PullMessages" {
		return d.pullMessages(q) // which waits
	}
	f := operations[name]
	service, _, _ := strings.Cut(name, ":")
	if f == nil || !d.serves(onvif.Service(service)) {
		return nil, &onvif.Fault{Sender: true, Code: "ActionNotSupported", Reason: "There is no such action: " + m.Body.Tag}
	}
	d.mu.Lock()
	defer d.mu.Unlock()
	answer, fault := f(q)
	if fault == nil && writing[name] {
		if err := d.save(); err != nil {
			return nil, &onvif.Fault{Code: "Action", Reason: "It could not be kept: " + err.Error()}
		}
	}
	return answer, fault
}

// paths of services.
var paths = []struct {
	onvif.Service
	path, version string
}{
	{onvif.DeviceService, "/onvif/device_service", "20 12"}, {onvif.Media2, "/onvif/media2", "20 12"}, {onvif.Media, "/onvif/media", "20 12"},
	{onvif.DeviceIO, "/onvif/deviceio", "20 12"}, {onvif.PTZ, "/onvif/ptz", "20 12"}, {onvif.Analytics, "/onvif/analytics", "20 12"},
	{onvif.Events, "/onvif/events", "20 12"}, {onvif.RecordingControl, "/onvif/recording", "20 12"},
	{onvif.RecordingSearch, "/onvif/search", "20 12"}, {onvif.Schedule, "/onvif/schedule", "20 12"},
}

// serves tells whether it has a service.
func (d *Device) serves(s onvif.Service) bool {
	switch s {
	case onvif.Media2:
		return !d.has(Media1)
	case onvif.Analytics:
		return !d.has(HearsOnly)
	case onvif.Schedule:
		return !d.has(NoSchedules)
	}
	return true
}

func init() {
	answers(false, map[string]operation{
		"tds:GetSystemDateAndTime": func(q *asked) (*onvif.Element, *onvif.Fault) {
			return E("tds:GetSystemDateAndTimeResponse", onvif.SystemTime(q.now(), "UTC0")), nil
		},
		"tds:GetDeviceInformation": func(*asked) (*onvif.Element, *onvif.Fault) {
			return E("tds:GetDeviceInformationResponse", E("tds:Manufacturer", "Wakefield"), E("tds:Model", "Stand-in recorder"),
				E("tds:FirmwareVersion", "1.0"), E("tds:SerialNumber", "STAND-IN-1"), E("tds:HardwareId", "none")), nil
		},
		"tds:GetServices":     getServices,
		"tds:GetCapabilities": getCapabilities,
		"tds:GetScopes": func(q *asked) (*onvif.Element, *onvif.Fault) {
			e := E("tds:GetScopesResponse")
			for _, s := range q.scopes() {
				e.AddChild(E("tds:Scopes", E("tt:ScopeDef", "Fixed"), E("tt:ScopeItem", s)))
			}
			return e, nil
		},
		"tds:GetHostname": func(*asked) (*onvif.Element, *onvif.Fault) {
			return E("tds:GetHostnameResponse", E("tds:HostnameInformation", E("tt:FromDHCP", "false"), E("tt:Name", "stand-in"))), nil
		},
		"tds:GetServiceCapabilities": func(*asked) (*onvif.Element, *onvif.Fault) {
			return E("tds:GetServiceCapabilitiesResponse", E("tds:Capabilities", E("tds:Network"),
				E("tds:Security", A("UsernameToken", "true"), A("HttpDigest", "true")), E("tds:System"))), nil
		},
	})
}

func (d *Device) scopes() []string {
	return []string{"onvif://www.onvif.org/type/video_encoder", "onvif://www.onvif.org/type/recorder",
		"onvif://www.onvif.org/Profile/Streaming",
		"onvif://www.onvif.org/Profile/G", "onvif://www.onvif.org/Profile/T", "onvif://www.onvif.org/name/Stand-in%20recorder",
		"onvif://www.onvif.org/hardware/Wakefield"}
}

func getServices(q *asked) (*onvif.Element, *onvif.Fault) {
	e := E("tds:GetServicesResponse")
	for _, p := range paths {
		if q.serves(p.Service) {
			e.AddChild(E("tds:Service", E("tds:Namespace", onvif.Namespaces[string(p.Service)]), E("tds:XAddr", q.base+p.path),
				E("tds:Version", E("tt:Major", "20"), E("tt:Minor", "12"))))
		}
	}
	return e, nil
}

func getCapabilities(q *asked) (*onvif.Element, *onvif.Fault) {
	at := func(name string, s onvif.Service, more ...any) *onvif.Element {
		if !q.serves(s) {
			return nil
		}
		for _, p := range paths {
			if p.Service == s {
				return E(name, append([]any{E("tt:XAddr", q.base+p.path)}, more...)...)
			}
		}
		return nil
	}
	return E("tds:GetCapabilitiesResponse", E("tds:Capabilities",
		at("tt:Analytics", onvif.Analytics, E("tt:RuleSupport", "true"), E("tt:AnalyticsModuleSupport", "true")),
		at("tt:Device", onvif.DeviceService),
		at("tt:Events", onvif.Events, E("tt:WSSubscriptionPolicySupport", "false"), E("tt:WSPullPointSupport", "true"),
			E("tt:WSPausableSubscriptionManagerInterfaceSupport", "false")),
		at("tt:Media", onvif.Media, E("tt:StreamingCapabilities", E("tt:RTPMulticast", "false"), E("tt:RTP_TCP", "true"),
			E("tt:RTP_RTSP_TCP", "true"))),
		at("tt:PTZ", onvif.PTZ),
		E("tt:Extension", at("tt:DeviceIO", onvif.DeviceIO), at("tt:Recording", onvif.RecordingControl),
			at("tt:Search", onvif.RecordingSearch)))), nil
}

// said writes a moment as its clock has it.
func (d *Device) said(t time.Time) string {
	t = t.Add(d.ahead()).UTC()
	if d.has(ZonelessTimes) {
		return t.Format("2006-01-02T15:04:05")
	}
	return t.Format("2006-01-02T15:04:05Z")
}
