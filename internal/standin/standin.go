// Package standin plays a recorder with its cameras on loopback, by the same open standards as real ones: ONVIF over HTTP, streams
// over RTSP, discovery over UDP. What is written to it is kept in a file. Its cameras show a test picture whose bitrate is that of
// the plan; motion and contacts come as often as the plan's activities say; its footage is overwritten after as many days as the
// plan is estimated to keep.
//
// It is for demonstrations and for tests. With quirks it does what real devices do.
package standin

import (
	"context"
	"crypto/tls"
	"errors"
	"fmt"
	"io"
	"log"
	"net"
	"net/http"
	"os"
	"slices"
	"sync"
	"time"

	"github.com/google/renameio/v2"

	"wakefield.example/core/plan"
)

// Quirk is something that real devices do.
type Quirk string

// Quirks.
const (
	ClockOff      Quirk = "clock"           // its clock is seven minutes ahead
	HalfHours     Quirk = "half-hours"      // schedules stand on half hours
	NoSpecialDays Quirk = "no-special-days" // schedules follow no special days
	EightPeriods  Quirk = "eight-periods"   // schedules have eight periods a day
	CameraFrames  Quirk = "camera-frames"   // the camera decides the frame rate
	HearsOnly     Quirk = "hears-only"      // detection cannot be read or set
	NoSchedules   Quirk = "no-schedules"    // what is recorded does not follow hours
	Grid          Quirk = "grid"            // areas are cells of a grid
	Slow          Quirk = "slow"            // five seconds an answer
	Drops         Quirk = "drops"           // every fifth connection is dropped
	LocksOut      Quirk = "locks-out"       // the password is refused after a while
	Lies          Quirk = "lies"            // says yes to encoder settings and keeps its own
	OldPrefixes   Quirk = "old-prefixes"    // other prefixes and odd white space
	DigestOnly    Quirk = "digest-only"     // believes HTTP digest alone
	SelfSigned    Quirk = "self-signed"     // TLS with a certificate of its own
	Moved         Quirk = "moved"           // answers that it is elsewhere
	Media1        Quirk = "media-1"         // media 1 only, and so no H.265
	ZonelessTimes Quirk = "no-zone"         // times without their zone
)

// Quirks are all of them.
var Quirks = []Quirk{ClockOff, HalfHours, NoSpecialDays, EightPeriods, CameraFrames, HearsOnly, NoSchedules, Grid, Slow, Drops,
	LocksOut, Lies, OldPrefixes,
	DigestOnly, SelfSigned, Moved, Media1, ZonelessTimes}

// Options say what is played.
type Options struct {
	Listen         string // loopback address and port; port 0 takes a free one
	Discover       string // address and port of discovery; empty for none
	User, Password string
	Plan           *plan.Plan // whose recorder it is
	Recorder       string     // id; empty for the first
	State          string     // file in which what was written is kept; empty for memory alone
	Quirks         []Quirk
	Pause          time.Duration // of an answer where it is slow; 5 s where it is 0
	Seed           uint64
}

// Device is a stand-in that runs.
type Device struct {
	o         Options
	HTTP      string `json:"http"` // addresses at which it answers
	RTSP      string `json:"rtsp"`
	Discovery string `json:"discovery,omitempty"`
	Channels  int    `json:"channels"`

	mu     sync.Mutex
	state  *State
	begun  time.Time
	calls  int
	nonces map[string]bool
	asked  string // nonce of HTTP digest
	pulls  map[string]*pull
	pulled int

	searches map[string]*search
	searched int
	scenes   []*incident
	conns    map[net.Conn]bool
	web      *http.Server
	stop     context.CancelFunc
	running  sync.WaitGroup
}

// Start plays a recorder until ctx ends or it is closed.
func Start(ctx context.Context, o Options) (*Device, error) {
	if o.Plan == nil || len(o.Plan.Recorders) == 0 {
		return nil, errors.New("a stand-in needs a plan with a recorder")
	}
	if o.Recorder == "" {
		o.Recorder = o.Plan.Recorders[0].ID
	}
	if o.Plan.Recorder(o.Recorder) == nil {
		return nil, fmt.Errorf("the plan has no recorder %q", o.Recorder)
	}
	for _, q := range o.Quirks {
		if !slices.Contains(Quirks, q) {
			return nil, fmt.Errorf("no quirk %q; they are %v", q, Quirks)
		}
	}
	host, _, err := net.SplitHostPort(o.Listen)
	if err != nil {
		return nil, err
	}
	if ip := net.ParseIP(host); ip == nil || !ip.IsLoopback() {
		return nil, fmt.Errorf("a stand-in listens on loopback only, not on %s", host)
	}
	if o.Pause == 0 {
		o.Pause = usualPause
	}
	d := &Device{o: o, nonces: make(map[string]bool), pulls: make(map[string]*pull), searches: make(map[string]*search),
		conns: make(map[net.Conn]bool), begun: time.Now()}
	if d.state, err = loadState(o.State); err != nil {
		return nil, err
	}
	if d.state == nil {
		d.state = stateOf(o.Plan, o.Recorder, d.has(Grid), d.has(Media1), specialFrom(o.Quirks))
	}
	d.Channels = len(d.state.Channels)
	d.scenes = incidentsOf(o.Plan, o.Recorder, d.state, o.Seed)
	ctx, d.stop = context.WithCancel(ctx)
	if err := d.listen(ctx, host); err != nil {
		d.Close()
		return nil, err
	}
	return d, nil
}

// listen opens what it answers on.
func (d *Device) listen(ctx context.Context, host string) error {
	web, err := net.Listen("tcp", d.o.Listen)
	if err != nil {
		return err
	}
	d.HTTP = "http://" + web.Addr().String()
	if d.has(SelfSigned) {
		certificate, err := selfSigned(host)
		if err != nil {
			return err
		}
		web = tls.NewListener(web, &tls.Config{MinVersion: tls.VersionTLS12, Certificates: []tls.Certificate{certificate}})
		d.HTTP = "https://" + web.Addr().String()
	}
	streams, err := net.Listen("tcp", net.JoinHostPort(host, "0"))
	if err != nil {
		return err
	}
	d.RTSP = "rtsp://" + streams.Addr().String()
	d.web = &http.Server{Handler: d.handler(), ReadHeaderTimeout: 10 * time.Second, ErrorLog: log.New(io.Discard, "", 0)}
	d.run(func() { d.web.Serve(web) })
	d.run(func() { d.serveStreams(ctx, streams) })
	d.run(func() { d.live(ctx) })
	context.AfterFunc(ctx, func() { d.web.Close(); streams.Close(); d.hangUp() })
	if d.o.Discover != "" {
		return d.discoverable(ctx)
	}
	return nil
}

func (d *Device) run(f func()) {
	d.running.Add(1)
	go func() {
		defer d.running.Done()
		f()
	}()
}

// Close ends it, and waits for that.
func (d *Device) Close() {
	d.stop()
	d.running.Wait()
}

func (d *Device) hangUp() {
	d.mu.Lock()
	defer d.mu.Unlock()
	for c := range d.conns {
		c.Close()
	}
}

func (d *Device) has(q Quirk) bool { return slices.Contains(d.o.Quirks, q) }

// now is what its clock shows.
func (d *Device) now() time.Time {
	return time.Now().Add(d.ahead())
}

// ahead is how far its clock is ahead.
func (d *Device) ahead() time.Duration {
	if d.has(ClockOff) {
		return 7 * time.Minute
	}
	return 0
}

// Change changes what it is set to behind everybody's back, as somebody at its menus would.
func (d *Device) Change(f func(*State)) error {
	d.mu.Lock()
	defer d.mu.Unlock()
	f(d.state)
	return d.save()
}

// State is a copy of what it is set to.
func (d *Device) State() State {
	d.mu.Lock()
	defer d.mu.Unlock()
	return d.state.clone()
}

// save keeps the state. The lock is held.
func (d *Device) save() error {
	if d.o.State == "" {
		return nil
	}
	data, err := d.state.bytes()
	if err != nil {
		return err
	}
	return renameio.WriteFile(d.o.State, data, 0o600)
}

func loadState(path string) (*State, error) {
	if path == "" {
		return nil, nil
	}
	data, err := os.ReadFile(path)
	if errors.Is(err, os.ErrNotExist) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	return readState(data)
}
