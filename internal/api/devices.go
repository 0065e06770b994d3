package api

import (
	"context"
	"crypto/rand"
	"encoding/json"
	"errors"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/plan"
	"wakefield.example/core/readout"
	"wakefield.example/internal/device"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

// Devices are how recorders and cameras are spoken with. The zero value speaks with none whose password would have to be kept.
type Devices struct {
	Seal    *device.Seal   // of passwords; nil where there is no key
	Allowed device.Allowed // addresses that are spoken with though they are refused usually
	Ports   int            // port of discovery; 0 for that of the standard
}

// registerDevices adds recorders and cameras that are spoken with.
func registerDevices(api huma.API, s *service) {
	at := "/api/plans/{id}/devices"
	huma.Register(api, op("devices", http.MethodGet, at, "Recorders and cameras that are spoken with"), s.devices)
	huma.Register(api, op("findDevices", http.MethodPost, at+"/find", "What answers on a network"), s.findDevices)
	huma.Register(api, op("setDevice", http.MethodPost, at, "Add a device, or set how one is reached"), s.setDevice)
	huma.Register(api, op("removeDevice", http.MethodDelete, at+"/{device}", "Forget a device, and its password"), s.removeDevice)
	huma.Register(api, op("deviceCalls", http.MethodGet, at+"/{device}/calls", "What a device was asked, newest first"), s.deviceCalls)
	huma.Register(api, op("heldDevice", http.MethodGet, at+"/{device}/held", "What a device has, held against the plan"), s.heldDevice)
	huma.Register(api, op("takeFromDevice", http.MethodPost, at+"/{device}/take", "Edits that make the plan what a device has, at once"),
		s.takeFromDevice)
	huma.Register(api, op("readDevice", http.MethodPost, at+"/{device}/read", "Begin to read all that a device tells"), s.readDevice)
	huma.Register(api, op("writeDevice", http.MethodPost, at+"/{device}/write", "Begin to set parts of a device as the plan has them"),
		s.writeDevice)
	huma.Register(api, op("putBackDevice", http.MethodPost, at+"/{device}/put-back",
		"Begin to set a device as it was before anything was set"),
		s.putBackDevice)
	huma.Register(api, op("measureDevice", http.MethodPost, at+"/{device}/measure", "Begin to watch a stream of a device"), s.measureDevice)
	huma.Register(api, op("stopDevice", http.MethodPost, at+"/{device}/stop", "Stop what is being done with a device"), s.stopDevice)
	huma.Register(api, op("stillFromDevice", http.MethodPost, at+"/{device}/still", "Keep a snapshot of a camera beside the plans"),
		s.stillFromDevice)
	huma.Register(api, making(op("bringFromDevice", http.MethodPost, at+"/{device}/found", "Keep what a device told as what was found")),
		s.bringFromDevice)
	huma.Register(api, op("bringHistory", http.MethodPost, at+"/{device}/history",
		"Begin to read when a recorder wrote what, as what was found"),
		s.bringHistory)
	registerListening(api, s)
}

// DeviceParam names a device of a site.
type DeviceParam struct {
	PlanParam
	Device string `path:"device" maxLength:"60"`
}

// DeviceAt is a device as it is told of: never with its password.
type DeviceAt struct {
	ID       string `json:"id"`
	Recorder string `json:"recorder,omitempty" doc:"Id of the recorder that it is"`
	Channel  string `json:"channel,omitempty" doc:"Id of the channel whose camera it is"`
	Address  string `json:"address"`
	User     string `json:"user,omitempty"`
	Daily    bool   `json:"daily" doc:"Whether it is read once a day after it was set"`

	Made      string      `json:"made,omitempty" doc:"Make, model and firmware"`
	ReadAt    *time.Time  `json:"readAt,omitempty" doc:"When it was read; absent before"`
	WrittenAt *time.Time  `json:"writtenAt,omitempty" doc:"When it was set last"`
	BeforeAt  *time.Time  `json:"beforeAt,omitempty" doc:"From when what can be put back is"`
	Trouble   string      `json:"trouble,omitempty" doc:"Why it could not be spoken with"`
	Drifted   int         `json:"drifted,omitempty" doc:"How much of it is otherwise than it was set"`
	Work      *DeviceWork `json:"work,omitempty" doc:"What is done with it, or was last"`
}

// DeviceWork is what is done with a device, or was last.
type DeviceWork struct {
	What    string    `json:"what" enum:"read,write,putBack,measure,history"`
	Author  string    `json:"author"`
	Began   time.Time `json:"began"`
	Running bool      `json:"running"`
	Done    int       `json:"done"`
	Of      int       `json:"of" doc:"0 while it is not known"`
	At      string    `json:"at,omitempty" doc:"What it is at"`
	Trouble string    `json:"trouble,omitempty"`
	CameOf
}

// CameOf is what came of work with a device.
type CameOf struct {
	Set     []DeviceSet      `json:"set,omitempty" doc:"What became of each part that was to be set"`
	Watched *WatchedByDevice `json:"watched,omitempty" doc:"What came of a stream"`
	Brought string           `json:"brought,omitempty" doc:"Id of the list of recordings that was kept as found"`
}

// DevicesOf are the devices of a site.
type DevicesOf struct {
	Devices []DeviceAt `json:"devices"`
	Keeps   bool       `json:"keeps" doc:"Whether the server can keep passwords: it was started with a key for them"`
}

func (s *service) devices(ctx context.Context, in *PlanParam) (*body[DevicesOf], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	// What ended is kept with its device at once: whoever sees that it ended sees then what came of it.
	works, err := s.store.Works(ctx, e.head.Site)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	list, err := s.store.Devices(ctx, e.head.Site)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	out := DevicesOf{Devices: []DeviceAt{}, Keeps: s.apart.Seal != nil}
	for i := range list {
		at, err := deviceAt(&list[i], works)
		if err != nil {
			return nil, s.problem(ctx, err)
		}
		out.Devices = append(out.Devices, at)
	}
	return &body[DevicesOf]{out}, nil
}

func deviceAt(d *store.Device, works []store.Work) (DeviceAt, error) {
	out := DeviceAt{ID: d.ID, Recorder: d.Recorder, Channel: d.Channel, Address: d.Address, User: d.Username, Daily: d.Daily, ReadAt: d.SaidAt,
		WrittenAt: d.WrittenAt, BeforeAt: d.BeforeAt, Trouble: d.Trouble}
	if d.Said != nil {
		var said readout.Device
		if err := json.Unmarshal(d.Said, &said); err != nil {
			return out, err
		}
		out.Made = strings.TrimSpace(strings.Join([]string{said.Make, said.Model, said.Firmware}, " "))
	}
	var err error
	if out.Drifted, err = drifted(d); err != nil {
		return out, err
	}
	for i := range works {
		w := &works[i]
		if w.Device != d.ID {
			continue
		}
		out.Work = &DeviceWork{What: w.What, Author: w.Author, Began: w.Began, Running: w.Running(time.Now()), Done: w.Done,
			Of: w.Total, At: w.At,
			Trouble: w.Trouble}
		if !out.Work.Running && w.Ended == nil {
			out.Work.Trouble = "The server that did it was stopped before it was done."
		}
		if w.Result != nil {
			if err := json.Unmarshal(w.Result, &out.Work.CameOf); err != nil {
				return out, err
			}
		}
	}
	return out, nil
}

// SetDeviceBody says how a device is reached.
type SetDeviceBody struct {
	ID          string  `json:"id,omitempty" maxLength:"60" doc:"Of one that is there; absent for a new one"`
	Recorder    string  `json:"recorder,omitempty" maxLength:"100" doc:"Id of the recorder that it is"`
	Channel     string  `json:"channel,omitempty" maxLength:"100" doc:"Id of the channel whose camera it is"`
	Address     string  `json:"address" minLength:"1" maxLength:"300" doc:"Host and port, https:// before it for TLS"`
	User        string  `json:"user,omitempty" maxLength:"200"`
	Password    *string `json:"password,omitempty" maxLength:"500" doc:"Absent for the one that is kept"`
	Fingerprint string  `json:"fingerprint,omitempty" maxLength:"64" pattern:"^[0-9a-f]*$" doc:"SHA-256 of a certificate that is accepted though nobody vouches for it"`
	Daily       bool    `json:"daily,omitempty"`
}

// DeviceAnswered is what answers at an address.
type DeviceAnswered struct {
	ID          string   `json:"id,omitempty" doc:"Absent where it was not kept"`
	Services    []string `json:"services,omitempty"`
	ClockAhead  float64  `json:"clockAhead,omitempty" doc:"Seconds that its clock is ahead"`
	Fingerprint string   `json:"fingerprint,omitempty" doc:"Of a certificate that nobody vouches for: it is asked whether to accept it"`
	Why         string   `json:"why,omitempty"`
}

func (s *service) setDevice(ctx context.Context, in *struct {
	PlanParam
	SentBy
	Body SetDeviceBody
}) (*body[DeviceAnswered], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	b := &in.Body
	target := readout.Target{Recorder: b.Recorder, Channel: b.Channel}
	if (b.Recorder == "") == (b.Channel == "") || !target.In(e.head.Plan) {
		return nil, huma.Error422UnprocessableEntity("Say which recorder of the plan it is, or of which channel the camera.",
			&huma.ErrorDetail{Location: "body.recorder", Message: "is none of the plan's"})
	}
	address, err := device.ReadAddress(b.Address)
	if err != nil {
		return nil, huma.Error422UnprocessableEntity(server.Sentence(err.Error()),
			&huma.ErrorDetail{Location: "body.address", Message: err.Error()})
	}
	d := store.Device{ID: b.ID, Recorder: b.Recorder, Channel: b.Channel, Address: address.String(), Username: b.User,
		Fingerprint: b.Fingerprint, Daily: b.Daily}
	password, err := s.passwordFor(ctx, e.head.Site, &d, b.Password)
	if err != nil {
		return nil, err
	}
	k := &worker{service: s, site: e.head.Site, device: d, author: in.note("").Author}
	defer k.log(ctx)
	c, err := device.Open(ctx, device.Options{Address: address, User: d.Username, Password: password, Fingerprint: d.Fingerprint,
		Allowed: s.apart.Allowed, Said: k.said})
	var certificate *device.CertificateError
	if errors.As(err, &certificate) {
		return &body[DeviceAnswered]{DeviceAnswered{Fingerprint: certificate.Fingerprint, Why: certificate.Why}}, nil
	}
	if err != nil {
		return nil, deviceProblem(err)
	}
	defer c.Close()
	if err := s.store.SetDevice(ctx, e.head.Site, d); err != nil {
		return nil, s.problem(ctx, err)
	}
	return &body[DeviceAnswered]{DeviceAnswered{ID: d.ID, Services: c.Services(), ClockAhead: c.ClockAhead().Seconds()}}, nil
}

// passwordFor is the password that a device is to be asked with, and seals it; a new device gets an id.
func (s *service) passwordFor(ctx context.Context, site string, d *store.Device, typed *string) (string, error) {
	if d.ID == "" {
		d.ID = strings.ToLower(rand.Text()[:10])
		if typed == nil {
			typed = new(string)
		}
	} else if typed == nil {
		was, err := s.store.Device(ctx, site, d.ID)
		if err != nil {
			return "", s.problem(ctx, err)
		}
		if was.Address != d.Address && len(was.Secret) > 0 {
			return "", huma.Error422UnprocessableEntity("Type the password again: it was given for another address.",
				&huma.ErrorDetail{Location: "body.password", Message: "was given for another address"})
		}
		d.Secret = was.Secret
		return s.passwordOf(site, &was)
	}
	if *typed == "" {
		return "", nil
	}
	if s.apart.Seal == nil {
		return "",
			huma.Error422UnprocessableEntity("This server keeps no passwords of devices: it was started without a key for them, see --device-key-file.")
	}
	d.Secret = s.apart.Seal.Seal(*typed, site, d.ID)
	return *typed, nil
}

// passwordOf is the password of a device.
func (s *service) passwordOf(site string, d *store.Device) (string, error) {
	if len(d.Secret) == 0 {
		return "", nil
	}
	if s.apart.Seal == nil {
		return "", &device.Error{Trouble: device.Closed, Words: "This server has no key for the passwords of devices, see --device-key-file."}
	}
	return s.apart.Seal.Open(d.Secret, site, d.ID)
}

// deviceProblem is what is said where a device cannot be spoken with.
func deviceProblem(err error) error {
	var known *device.Error
	var certificate *device.CertificateError
	if errors.As(err, &known) || errors.As(err, &certificate) {
		return huma.Error422UnprocessableEntity(err.Error())
	}
	return err
}

func (s *service) removeDevice(ctx context.Context, in *struct {
	DeviceParam
	SentBy
}) (*struct{}, error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	return nil, s.problem(ctx, s.store.RemoveDevice(ctx, e.head.Site, in.Device))
}

// DeviceFound is what answered on a network.
type DeviceFound struct {
	device.Found
	Recorder string `json:"recorder,omitempty" doc:"Id of the recorder whose address it is in the plan"`
	Channel  string `json:"channel,omitempty" doc:"Id of the channel whose camera's address it is in the plan"`
	Known    bool   `json:"known,omitempty" doc:"Whether it is among the site's devices"`
}

// findPatience is how long answers are waited for.
const findPatience = 4 * time.Second

func (s *service) findDevices(ctx context.Context, in *struct {
	PlanParam
	Body struct {
		Network string `json:"network" minLength:"1" maxLength:"100" doc:"Such as 10.0.4.0/24; 1,024 addresses at most"`
	}
}) (*body[[]DeviceFound], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	network, err := device.ReadNetwork(in.Body.Network)
	if err != nil {
		return nil, huma.Error422UnprocessableEntity(server.Sentence(err.Error()),
			&huma.ErrorDetail{Location: "body.network", Message: err.Error()})
	}
	port := s.apart.Ports
	if port == 0 {
		port = 3702
	}
	list, err := device.Find(ctx, network, s.apart.Allowed, findPatience, port)
	if err != nil {
		return nil, huma.Error422UnprocessableEntity(server.Sentence(err.Error()))
	}
	known, err := s.store.Devices(ctx, e.head.Site)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	out := []DeviceFound{}
	for _, f := range list {
		found := DeviceFound{Found: f}
		found.Recorder, found.Channel = whose(e.head.Plan, f.Address)
		for _, d := range known {
			found.Known = found.Known || d.Address == f.Address
		}
		out = append(out, found)
	}
	return &body[[]DeviceFound]{out}, nil
}

// whose address it is in a plan.
func whose(p *plan.Plan, address string) (recorder, channel string) {
	same := func(text string) bool {
		a, err := device.ReadAddress(text)
		return err == nil && a.String() == address
	}
	for i := range p.Recorders {
		if same(p.Recorders[i].Address) {
			return p.Recorders[i].ID, ""
		}
	}
	for i := range p.Channels {
		if same(p.Channels[i].Address) {
			return "", p.Channels[i].ID
		}
	}
	return "", ""
}

// DeviceCall is one thing that a device was asked.
type DeviceCall struct {
	Author string    `json:"author"`
	Call   string    `json:"call" doc:"The operation"`
	Ended  string    `json:"ended" doc:"How it ended"`
	At     time.Time `json:"at"`
}

func (s *service) deviceCalls(ctx context.Context, in *DeviceParam) (*body[[]DeviceCall], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	list, err := s.store.Calls(ctx, e.head.Site, in.Device, 500)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	out := []DeviceCall{}
	for _, c := range list {
		out = append(out, DeviceCall{c.Author, c.Call, c.Ended, c.At})
	}
	return &body[[]DeviceCall]{out}, nil
}
