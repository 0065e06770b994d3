package api

import (
	"encoding/json"
	"fmt"
	"log/slog"
	"net"
	"net/netip"
	"net/url"
	"strings"
	"sync"
	"testing"
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/core/readout"
	"wakefield.example/internal/demo"
	"wakefield.example/internal/device"
	"wakefield.example/internal/standin"
	"wakefield.example/internal/store"
)

// password of the stand-ins of these tests; it may be in no answer, log or plan.
const devicePassword = "a password that nobody sees"

// spoken is how devices on loopback are spoken with.
func spoken(t testing.TB) Devices {
	t.Helper()
	seal, err := device.NewSeal(make([]byte, device.KeyBytes))
	if err != nil {
		t.Fatal(err)
	}
	return Devices{Seal: seal, Allowed: device.Allowed{netip.MustParsePrefix("127.0.0.0/8")}}
}

// played plays the recorder of a plan.
func played(t testing.TB, p *plan.Plan, quirks ...standin.Quirk) *standin.Device {
	t.Helper()
	d, err := standin.Start(t.Context(), standin.Options{Listen: "127.0.0.1:0", User: "fitter", Password: devicePassword,
		Plan: p, Quirks: quirks})
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(d.Close)
	return d
}

// added adds a device and returns the path of it.
func (c *client) added(d *standin.Device) string {
	c.Helper()
	b := fmt.Sprintf(`{"recorder":"nvr","address":%q,"user":"fitter","password":%q,"daily":true}`, d.HTTP, devicePassword)
	a := call[DeviceAnswered](c, "POST", "/api/plans/site/devices", b, 200)
	if a.ID == "" || len(a.Services) != 10 {
		c.Fatalf("%+v", a)
	}
	return "/api/plans/site/devices/" + a.ID
}

// done waits until nothing is done with the first device and returns it.
func (c *client) done() DeviceAt {
	c.Helper()
	for deadline := time.Now().Add(time.Minute); ; time.Sleep(20 * time.Millisecond) {
		d := call[DevicesOf](c, "GET", "/api/plans/site/devices", "", 200).Devices[0]
		if d.Work == nil || !d.Work.Running {
			return d
		}
		if time.Now().After(deadline) {
			c.Fatalf("%+v", d.Work)
		}
	}
}

func (c *client) began(path, body string, want int) string {
	c.Helper()
	status, _, said := c.send("POST", path, body)
	if status != want {
		c.Fatalf("%s: %d %s", path, status, said)
	}
	return said
}

// writing is a body that asks for parts of what is held.
func writing(h HeldDevice, lines []readout.Line) string {
	var parts []string
	for _, l := range lines {
		parts = append(parts, l.Part)
	}
	data, err := json.Marshal(WriteBody{Parts: parts, ReadAt: h.ReadAt, Version: h.Version})
	if err != nil {
		panic(err)
	}
	return string(data)
}

// TestADeviceIsReadSetAndPutBack goes the whole way: added, read, held, set, drifted, put back; and what it told goes to Measured.
func TestADeviceIsReadSetAndPutBack(t *testing.T) {
	c, s := serving(t, demo.PennywhistleQuay(), "", Options{Devices: spoken(t), Log: slog.Default()})
	d := played(t, demo.AtTheQuay())
	at := c.added(d)
	c.began(at+"/read", "", 204)
	if got := c.done(); got.Work.Trouble != "" || got.Made != "Wakefield Stand-in recorder 1.0" || got.ReadAt == nil {
		t.Fatalf("%+v %+v", got, got.Work)
	}
	held := call[HeldDevice](c, "GET", at+"/held", "", 200)
	if len(held.Lines) != 3 || held.Same != 14 || len(held.Drift)+len(held.Back) > 0 {
		t.Fatalf("%+v", held.Lines)
	}
	c.began(at+"/write", writing(HeldDevice{Version: held.Version + 1, ReadAt: held.ReadAt}, held.Lines), 409)
	c.began(at+"/write", writing(held, held.Lines), 204)
	if got := c.done(); len(got.Work.Set) != 3 || got.Work.Set[0].Ended != "set" || got.WrittenAt == nil || got.Drifted != 0 {
		t.Fatalf("%+v", got.Work)
	}
	if held = call[HeldDevice](c, "GET", at+"/held", "", 200); len(held.Lines) != 0 || len(held.Back) != 3 {
		t.Fatalf("%+v; back %+v", held.Lines, held.Back)
	}

	// Somebody changes it behind our back; the server looks by itself.
	if err := d.Change(func(s *standin.State) { s.Recordings[0].Name = "Somebody's" }); err != nil {
		t.Fatal(err)
	}
	due, err := s.DueDevices(t.Context(), time.Now().Add(time.Hour), 9)
	if err != nil || len(due) != 1 || due[0].Site != "site" {
		t.Fatalf("%+v, %v", due, err)
	}
	if due, err = s.DueDevices(t.Context(), time.Now().Add(-time.Hour), 9); err != nil || len(due) != 0 {
		t.Fatalf("%+v is due already, %v", due, err)
	}
	_, other := build(t.Context(), s, Options{Devices: spoken(t)}) // another server on the same database
	if err := other.readDue(t.Context(), time.Now().Add(time.Hour)); err != nil {
		t.Fatal(err)
	}
	if got := c.done(); got.Drifted != 1 || got.Work.Author != dailyAuthor {
		t.Fatalf("%+v", got)
	}
	held = call[HeldDevice](c, "GET", at+"/held", "", 200)
	if len(held.Drift) != 1 || held.Drift[0].Device != "Somebody's" || held.Drift[0].Plan != "Ticket hall" {
		t.Fatalf("%+v", held.Drift)
	}

	c.began(at+"/put-back", writing(held, held.Back), 204)
	if got := c.done(); got.Work.What != "putBack" || len(got.Work.Set) != 4 {
		t.Fatalf("%+v", got.Work)
	}
	if held = call[HeldDevice](c, "GET", at+"/held", "", 200); len(held.Lines) != 3 || len(held.Back) != 0 {
		t.Errorf("%+v; back %+v", held.Lines, held.Back)
	}
	if brought := call[[]BroughtID](c, "POST", at+"/found", "", 201); len(brought) != 2 {
		t.Errorf("%+v", brought)
	}
	c.began(at+"/history", `{"days":7}`, 204)
	if got := c.done(); got.Work.Brought == "" {
		t.Errorf("%+v", got.Work)
	}
	m := call[MeasuredSite](c, "GET", "/api/plans/site/measured", "", 200)
	if m.Result == nil || len(m.Result.Oldest) != 15 || len(m.Result.Logs) < 5 {
		t.Errorf("%+v", m.Result)
	}
}

// TestWhatADeviceHasIsTakenIntoThePlan takes one line, and refuses what differs no more.
func TestWhatADeviceHasIsTakenIntoThePlan(t *testing.T) {
	c, _ := serving(t, demo.PennywhistleQuay(), "", Options{Devices: spoken(t)})
	at := c.added(played(t, demo.AtTheQuay()))
	c.began(at+"/read", "", 204)
	c.done()
	held := call[HeldDevice](c, "GET", at+"/held", "", 200)
	lines, err := json.Marshal(map[string]any{"lines": []string{held.Lines[0].ID}})
	if err != nil {
		t.Fatal(err)
	}
	edits := call[Corrections](c, "POST", at+"/take", string(lines), 200)
	body, err := json.Marshal(map[string]any{"version": edits.Version, "edits": edits.Edits})
	if err != nil {
		t.Fatal(err)
	}
	if status, _, said := c.send("POST", "/api/plans/site/edits", string(body)); status != 200 {
		t.Fatalf("%d %s", status, said)
	}
	if now := call[HeldDevice](c, "GET", at+"/held", "", 200); len(now.Lines) != len(held.Lines)-1 {
		t.Errorf("%+v", now.Lines)
	}
	c.began(at+"/take", string(lines), 422)
}

// TestStreamsAndStillsComeFromTheDevice watches a stream for a while, and keeps a snapshot beside the plan.
func TestStreamsAndStillsComeFromTheDevice(t *testing.T) {
	c, _ := serving(t, demo.PennywhistleQuay(), "", Options{Devices: spoken(t)})
	at := c.added(played(t, demo.PennywhistleQuay()))
	c.began(at+"/measure", `{"token":"VS2","stream":"sub","seconds":5}`, 204)
	if got := c.done(); !strings.Contains(got.Work.Trouble, "Read it again") {
		t.Errorf("%+v", got.Work)
	}
	c.began(at+"/read", "", 204)
	c.done()
	c.began(at+"/measure", `{"token":"VS2","stream":"sub","seconds":6}`, 204)
	c.began(at+"/read", "", 409) // one thing at a time
	got := c.done()
	if w := got.Work.Watched; w == nil || w.Lost != 0 || w.Measured == nil || w.Measured.ActiveKbps < 400 || w.Measured.ActiveKbps > 500 {
		t.Errorf("%+v", got.Work)
	}
	kept := call[KeptPicture](c, "POST", at+"/still", `{"token":"VS2"}`, 200)
	if kept.Width != 1920 || kept.Height != 1080 {
		t.Errorf("%+v", kept)
	}
	if status, _, _ := c.send("GET", "/api/plans/site/pictures/"+kept.ID, ""); status != 200 {
		t.Error(status)
	}
	c.began(at+"/still", `{"token":"none"}`, 422)
}

// TestOneThingAtATimeIsDoneWithADevice lets many ask at once: one of them begins, and the rest are told.
func TestOneThingAtATimeIsDoneWithADevice(t *testing.T) {
	c, _ := serving(t, demo.PennywhistleQuay(), "", Options{Devices: spoken(t)})
	at := c.added(played(t, demo.PennywhistleQuay()))
	var wg sync.WaitGroup
	var mu sync.Mutex
	count := make(map[int]int)
	for range 8 {
		wg.Go(func() {
			status, _, _ := c.send("POST", at+"/read", "")
			mu.Lock()
			defer mu.Unlock()
			count[status]++
		})
	}
	wg.Wait()
	if count[204] < 1 || count[204]+count[409] != 8 {
		t.Errorf("%v", count)
	}
	c.done()
}

// TestWorkIsStopped stops what takes long, and can be begun anew.
func TestWorkIsStopped(t *testing.T) {
	c, _ := serving(t, demo.PennywhistleQuay(), "", Options{Devices: spoken(t)})
	at := c.added(played(t, demo.PennywhistleQuay()))
	c.began(at+"/read", "", 204)
	c.done()
	c.began(at+"/measure", `{"token":"VS1","stream":"main","seconds":300}`, 204)
	began := time.Now()
	c.began(at+"/stop", "", 204)
	if got := c.done(); time.Since(began) > 30*time.Second {
		t.Errorf("%+v after %v", got.Work, time.Since(began))
	}
	c.began(at+"/read", "", 204)
	if got := c.done(); got.Work.Trouble != "" {
		t.Errorf("%+v", got.Work)
	}
}

// TestPasswordsOfDevicesAreSeenNowhere looks for one in every answer, in the plan, in the database, and in what is told of trouble.
func TestPasswordsOfDevicesAreSeenNowhere(t *testing.T) {
	c, s := serving(t, demo.PennywhistleQuay(), "", Options{Devices: spoken(t)})
	at := c.added(played(t, demo.PennywhistleQuay()))
	c.began(at+"/read", "", 204)
	c.done()
	for _, path := range []string{"/api/plans/site/devices", at + "/held", at + "/calls", "/api/plans/site",
		"/api/plans/site/export", "/metrics"} {
		if _, _, said := c.send("GET", path, ""); strings.Contains(said, devicePassword) || len(said) < 10 {
			t.Errorf("%s: %.200s", path, said)
		}
	}
	list, err := s.Devices(t.Context(), "site")
	if err != nil || len(list) != 1 || strings.Contains(fmt.Sprintf("%s %s", list[0].Secret, list[0].Said), devicePassword) ||
		len(list[0].Secret) < 20 {
		t.Errorf("%+v, %v", list, err)
	}
	if calls := call[[]DeviceCall](c, "GET", at+"/calls", "", 200); len(calls) < 40 || calls[0].Author != "Planner" {
		t.Errorf("%d calls are in the log", len(calls))
	}
	// A password that was given for one address is not sent to another.
	id := at[strings.LastIndexByte(at, '/')+1:]
	other := played(t, demo.PennywhistleQuay())
	status, _, said := c.send("POST", "/api/plans/site/devices",
		fmt.Sprintf(`{"id":%q,"recorder":"nvr","address":%q,"user":"fitter"}`, id, other.HTTP))
	if status != 422 || !strings.Contains(said, "another address") {
		t.Errorf("%d %s", status, said)
	}
}

// TestWhatCannotBeSpokenWithIsSaid names what is wrong with an address, a password, a recorder, a certificate.
func TestWhatCannotBeSpokenWithIsSaid(t *testing.T) {
	p := demo.PennywhistleQuay()
	c, _ := serving(t, p, "", Options{Devices: spoken(t)})
	d, secured := played(t, p), played(t, p, standin.SelfSigned)
	for body, want := range map[string]string{
		`{"recorder":"nvr","address":"a b"}`:                         "no address",
		`{"recorder":"none","address":"10.0.0.1"}`:                   "which recorder",
		`{"address":"10.0.0.1"}`:                                     "which recorder",
		`{"recorder":"nvr","channel":"hall","address":"10.0.0.1"}`:   "which recorder",
		`{"recorder":"nvr","address":"169.254.169.254"}`:             "never spoken with",
		`{"recorder":"nvr","address":"fitter:x@10.0.0.1"}`:           "fields of their own",
		`{"recorder":"nvr","address":"127.0.0.1:1"}`:                 "Nothing listens",
		`{"recorder":"nvr","address":"` + d.HTTP[7:] + `","id":"x"}`: "no such",
	} {
		if status, _, said := c.send("POST", "/api/plans/site/devices", body); status < 400 || !strings.Contains(said, want) {
			t.Errorf("%s: %d %s", body, status, said)
		}
	}
	body := fmt.Sprintf(`{"recorder":"nvr","address":%q,"user":"fitter","password":%q`, secured.HTTP, devicePassword)
	a := call[DeviceAnswered](c, "POST", "/api/plans/site/devices", body+"}", 200)
	if a.ID != "" || len(a.Fingerprint) != 64 {
		t.Fatalf("%+v", a)
	}
	a = call[DeviceAnswered](c, "POST", "/api/plans/site/devices", body+`,"fingerprint":"`+a.Fingerprint+`"}`, 200)
	at := "/api/plans/site/devices/" + a.ID
	c.began(at+"/read", "", 204)
	if got := c.done(); got.Work.Trouble != "" {
		t.Errorf("%+v", got.Work)
	}
	for _, network := range []string{"10.0.0.0/8", "x"} {
		if status, _, said := c.send("POST", "/api/plans/site/devices/find", `{"network":"`+network+`"}`); status != 422 {
			t.Errorf("%s: %d %s", network, status, said)
		}
	}
	if status, _, _ := c.send("DELETE", at, ""); status != 204 {
		t.Error(status)
	}
	if status, _, _ := c.send("GET", at+"/held", ""); status != 404 {
		t.Error(status)
	}
}

// TestDevicesAreFoundOnANetwork finds a stand-in, and whose address it is in the plan.
func TestDevicesAreFoundOnANetwork(t *testing.T) {
	p := demo.PennywhistleQuay()
	d, err := standin.Start(t.Context(), standin.Options{Listen: "127.0.0.1:0", Discover: "127.0.0.1:0", User: "fitter",
		Password: devicePassword, Plan: p})
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(d.Close)
	u, err := url.Parse(d.HTTP)
	if err != nil {
		t.Fatal(err)
	}
	p.Recorders[0].Address = u.Host
	o := Options{Devices: spoken(t)}
	o.Devices.Ports = int(netip.MustParseAddrPort(d.Discovery).Port())
	c, _ := serving(t, p, "", o)
	list := call[[]DeviceFound](c, "POST", "/api/plans/site/devices/find", `{"network":"127.0.0.1"}`, 200)
	if len(list) != 1 || list[0].Recorder != "nvr" || list[0].Address != u.Host || list[0].Known {
		t.Errorf("%+v", list)
	}
}

// TestWorkOfAServerThatIsGoneIsToldOf does not show for ever as at work what nobody does any more.
func TestWorkOfAServerThatIsGoneIsToldOf(t *testing.T) {
	w := store.Work{Device: "d", What: "write", Until: time.Now().Add(-time.Second)}
	at, err := deviceAt(&store.Device{ID: "d"}, []store.Work{w})
	if err != nil || at.Work.Running || !strings.Contains(at.Work.Trouble, "was stopped before") {
		t.Errorf("%+v, %v", at.Work, err)
	}
}

// TestADeviceThatHangsDelaysNoOther reads a recorder while two others do not answer.
func TestADeviceThatHangsDelaysNoOther(t *testing.T) {
	c, s := serving(t, demo.PennywhistleQuay(), "", Options{Devices: spoken(t)})
	silent, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { silent.Close() })
	for k := range 2 {
		id := fmt.Sprint("z", k)
		if err := s.SetDevice(t.Context(), "site", store.Device{ID: id, Channel: "hall", Address: silent.Addr().String()}); err != nil {
			t.Fatal(err)
		}
		c.began("/api/plans/site/devices/"+id+"/read", "", 204)
	}
	at := c.added(played(t, demo.PennywhistleQuay()))
	c.began(at+"/read", "", 204)
	if got := c.done(); got.ReadAt == nil || got.Recorder != "nvr" {
		t.Errorf("%+v", got)
	}
	for _, d := range call[DevicesOf](c, "GET", "/api/plans/site/devices", "", 200).Devices[1:] {
		if d.Work == nil || !d.Work.Running {
			t.Errorf("%s does not hang, so that nothing is shown by this: %+v", d.ID, d.Work)
		}
		c.began("/api/plans/site/devices/"+d.ID+"/stop", "", 204)
	}
}
