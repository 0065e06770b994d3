package device

import (
	"context"
	"errors"
	"net/netip"
	"slices"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/handover"
	"wakefield.example/core/plan"
	"wakefield.example/core/readout"
	"wakefield.example/core/video"
	"wakefield.example/internal/demo"
	"wakefield.example/internal/standin"
)

var loopback = Allowed{netip.MustParsePrefix("127.0.0.0/8")}

// play plays the recorder of a plan.
func play(t testing.TB, p *plan.Plan, quirks ...standin.Quirk) *standin.Device {
	t.Helper()
	d, err := standin.Start(t.Context(), standin.Options{Listen: "127.0.0.1:0", Discover: "127.0.0.1:0", User: "fitter",
		Password: "secret", Plan: p,
		Quirks: quirks})
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(d.Close)
	return d
}

// opened opens a stand-in.
func opened(t testing.TB, d *standin.Device, change ...func(*Options)) (*Client, error) {
	t.Helper()
	a, err := ReadAddress(d.HTTP)
	if err != nil {
		t.Fatal(err)
	}
	o := Options{Address: a, User: "fitter", Password: "secret", Allowed: loopback}
	for _, f := range change {
		f(&o)
	}
	c, err := Open(t.Context(), o)
	if err == nil {
		t.Cleanup(c.Close)
	}
	return c, err
}

func mustOpen(t testing.TB, d *standin.Device) *Client {
	t.Helper()
	c, err := opened(t, d)
	if err != nil {
		t.Fatal(err)
	}
	return c
}

func read(t testing.TB, c *Client) *readout.Device {
	t.Helper()
	return unbroken(t, func() (*readout.Device, error) { return c.Read(t.Context(), nil) })
}

// unbroken asks again where a connection broke: of a stand-in that drops some, those of one question may all be among them.
func unbroken(t testing.TB, ask func() (*readout.Device, error)) *readout.Device {
	t.Helper()
	for again := 0; ; again++ {
		d, err := ask()
		if err == nil {
			return d
		}
		if again == 5 || !broken(err) {
			t.Fatal(err)
		}
	}
}

func entered(p *plan.Plan) *plan.Plan { return handover.Enter(p, estimate.Figures(p, nil)).Plan }

var nvr = readout.Target{Recorder: "nvr"}

func trouble(err error) Trouble {
	var known *Error
	if errors.As(err, &known) {
		return known.Trouble
	}
	return ""
}

// TestARecorderIsReadAndHeldAgainstItsPlan finds nothing where nothing differs, and the three slips where there are three.
func TestARecorderIsReadAndHeldAgainstItsPlan(t *testing.T) {
	p := demo.PennywhistleQuay()
	told := 0
	d, err := mustOpen(t, play(t, p)).Read(t.Context(), func(done, of int, _ string) {
		if done > of {
			t.Errorf("%d of %d is done", done, of)
		}
		told++
	})
	if err != nil {
		t.Fatal(err)
	}
	if h := readout.Hold(p, entered(p), nvr, d); len(h.Lines) > 0 || h.Same != 16 {
		t.Errorf("%d the same, and %+v", h.Same, h.Lines)
	}
	if told < 40 || d.Model != "Stand-in recorder" || len(d.Unread) > 0 || len(d.Channels) != 16 || d.Channels[0].Oldest == nil {
		t.Errorf("%d steps were told: %+v", told, d)
	}
	slips := read(t, mustOpen(t, play(t, demo.AtTheQuay())))
	var got []string
	for _, l := range readout.Hold(p, entered(p), nvr, slips).Lines {
		got = append(got, l.About+", "+l.What+": "+l.Device+" → "+l.Plan)
	}
	want := []string{"Vehicle lane 1, main stream, frames a second: 10 → 15",
		"Kiosk front, around motion: 5 s before and 4 s after → 5 s before and 15 s after",
		"Fuel store contact, contact at rest: normally open → normally closed"}
	if !slices.Equal(got, want) {
		t.Errorf("%q", got)
	}
}

// set sets all that differs, reads it back, and tells what differs then.
func set(t *testing.T, c *Client, p *plan.Plan) (refused []string, left []readout.Line) {
	t.Helper()
	now := read(t, c)
	for _, l := range readout.Hold(p, entered(p), nvr, now).Lines {
		if l.Part == "" {
			continue
		}
		wanted, _ := readout.Wanted(entered(p), nvr, now)
		if err := c.Write(t.Context(), wanted, l.Part); err != nil {
			refused = append(refused, err.Error())
		}
		now = unbroken(t, func() (*readout.Device, error) { return c.Again(t.Context(), now, l.Part) })
	}
	if all := readout.Lines(read(t, c), now, func(*readout.Channel) (string, string) { return "", "" }); len(all) > 0 {
		t.Errorf("parts that are read back differ from all that is read: %+v", all)
	}
	return refused, readout.Hold(p, entered(p), nvr, now).Lines
}

// different is the quay with something of everything otherwise.
func different(t *testing.T) *plan.Plan {
	t.Helper()
	p := shutOn(t, demo.AtTheQuay(), 30, 37)
	corner := []plan.Point{{0.2, 0.2}, {0.6, 0.2}, {0.6, 0.7}}
	p, err := edit.After(p,
		edit.Edit{Paint: &edit.Paint{Channels: []string{"hall", "booth"}, Hours: []plan.Hours{{From: 7*60 + 15, To: 9*60 + 45}}, Duty: "off"}},
		edit.Edit{Paint: &edit.Paint{Channels: []string{"slipway"}, Hours: []plan.Hours{{From: 0, To: 1440}}, Duty: "low"}},
		edit.Edit{SetKeep: &edit.SetKeep{Channels: []string{"fuel"}, Keep: plan.Keep{AtMostDays: 12}}},
		edit.Edit{SetArea: &edit.SetArea{Channel: "slipway", Area: plan.Area{ID: "new", Name: "New", Points: corner}}})
	if err != nil {
		t.Fatal(err)
	}
	p.Channels = slices.Clone(p.Channels)
	p.Channel("workshop").Name = "Somewhere"
	off := p.Channel("waiting")
	off.Detection.On = !off.Detection.On
	return p
}

// TestWhatIsPlannedIsSet sets all that differs and sees it gone, on a recorder with polygons, one with a grid, and one of media 1.
func TestWhatIsPlannedIsSet(t *testing.T) {
	p := demo.PennywhistleQuay()
	for _, quirk := range []standin.Quirk{"", standin.OldPrefixes, standin.DigestOnly, standin.Drops, standin.ClockOff,
		standin.ZonelessTimes} {
		t.Run(string(quirk), func(t *testing.T) {
			t.Parallel()
			c := mustOpen(t, play(t, different(t), slices.DeleteFunc([]standin.Quirk{quirk}, func(q standin.Quirk) bool { return q == "" })...))
			before := len(readout.Hold(p, entered(p), nvr, read(t, c)).Lines)
			refused, left := set(t, c, p)
			if quirk == standin.Drops { // what is dropped in the middle is told, and set when it is tried again
				for range 8 {
					if refused, left = set(t, c, p); len(left) == 0 {
						refused = nil // what was tidied up after all was set may break too
						break
					}
				}
			}
			if before < 8 || len(refused) > 0 || len(left) > 0 {
				t.Errorf("of %d differences %q were refused, and %+v are left", before, refused, left)
			}
		})
	}
}

// TestAGridIsSet sets cells where the recorder has a grid, as it says itself.
func TestAGridIsSet(t *testing.T) {
	p := demo.PennywhistleQuay()
	c := mustOpen(t, play(t, different(t), standin.Grid))
	d := read(t, c)
	takes := readout.TakesOf(nil, d)
	if takes == nil || takes.Areas != "grid" || takes.GridColumns != 22 || takes.GridRows != 18 {
		t.Fatalf("%+v", takes)
	}
	p.Recorders[0].Takes = takes
	refused, left := set(t, c, p)
	if len(refused) > 0 || len(left) > 0 {
		t.Errorf("%q were refused, and %+v are left", refused, left)
	}
}

// TestWhatTheDeviceMakesOfItIsSaid meets devices that refuse, round and lie.
func TestWhatTheDeviceMakesOfItIsSaid(t *testing.T) {
	p := demo.PennywhistleQuay()
	p.Channels = slices.Clone(p.Channels)
	week := p.Channel("hall")
	week.Week = plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "clock",
		Blocks: []plan.DutyBlock{{Hours: plan.Hours{From: 615, To: 700}, Duty: "off"}}}}
	for _, of := range []struct {
		quirk         standin.Quirk
		refused, left string
	}{
		{standin.HalfHours, "Times stand on half hours", "what is recorded"},
		{standin.CameraFrames, "", "frames a second"},
		{standin.Lies, "", "frames a second"},
	} {
		t.Run(string(of.quirk), func(t *testing.T) {
			t.Parallel()
			refused, left := set(t, mustOpen(t, play(t, demo.AtTheQuay(), of.quirk)), p)
			if of.refused != "" && !strings.Contains(strings.Join(refused, " "), of.refused) || of.refused == "" && len(refused) > 0 {
				t.Errorf("refused: %q", refused)
			}
			if len(left) == 0 || !strings.Contains(left[0].What, of.left) {
				t.Errorf("left: %+v", left)
			}
		})
	}
}

// TestWhatIsNotThereIsNotAsked meets devices that lack services.
func TestWhatIsNotThereIsNotAsked(t *testing.T) {
	p := demo.PennywhistleQuay()
	d := read(t, mustOpen(t, play(t, p, standin.NoSchedules, standin.HearsOnly)))
	if d.ByHour || d.Channels[0].Detection != nil {
		t.Errorf("hours %v, detection %+v", d.ByHour, d.Channels[0].Detection)
	}
	hand := readout.Hold(p, entered(p), nvr, d).ByHand
	if !slices.ContainsFunc(hand, func(h readout.ByHand) bool { return strings.Contains(h.Words, "by the hour") }) {
		t.Errorf("%+v", hand)
	}
	ordinary := read(t, mustOpen(t, play(t, shutOn(t, p, 3), standin.NoSpecialDays)))
	hand = readout.Hold(shutOn(t, p, 3), entered(shutOn(t, p, 3)), nvr, ordinary).ByHand
	if !slices.ContainsFunc(hand, func(h readout.ByHand) bool { return h.Words == "special days: Shut" }) {
		t.Errorf("%+v", hand)
	}
	eight := read(t, mustOpen(t, play(t, p, standin.EightPeriods)))
	if eight.Periods != 8 {
		t.Errorf("%d periods", eight.Periods)
	}
	old := read(t, mustOpen(t, play(t, p, standin.Media1)))
	if len(old.Channels) != 16 || len(old.Channels[0].Streams) != 2 || old.Channels[0].Streams[0].Codec != "h264" ||
		old.Channels[0].Streams[0].Could == nil {
		t.Errorf("%+v", old.Channels[0])
	}
}

// TestTheClockIsCorrected logs in where the clock is off, and tells the footage's times by ours.
func TestTheClockIsCorrected(t *testing.T) {
	d := read(t, mustOpen(t, play(t, demo.PennywhistleQuay(), standin.ClockOff)))
	if off := d.ClockOffSeconds; off < 417 || off > 423 {
		t.Errorf("%v s", off)
	}
	if newest := time.Since(*d.Channels[0].Newest); newest.Abs() > time.Minute {
		t.Errorf("the newest footage is %v old", newest)
	}
}

// TestASlowDeviceIsReadWhole waits for its answers, and says how far it is meanwhile.
func TestASlowDeviceIsReadWhole(t *testing.T) {
	s, err := standin.Start(t.Context(), standin.Options{Listen: "127.0.0.1:0", User: "fitter", Password: "secret",
		Plan:   demo.PennywhistleQuay(),
		Quirks: []standin.Quirk{standin.Slow}, Pause: 30 * time.Millisecond})
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(s.Close)
	if d := read(t, mustOpen(t, s)); len(d.Channels) != 16 || len(d.Unread) > 0 {
		t.Errorf("%+v", d.Unread)
	}
	c, err := opened(t, s, func(o *Options) { o.Call = 5 * time.Millisecond })
	if c != nil || trouble(err) != Late {
		t.Errorf("%v", err)
	}
}

// TestACertificateIsAskedAbout goes on only with the fingerprint that was accepted.
func TestACertificateIsAskedAbout(t *testing.T) {
	d := play(t, demo.PennywhistleQuay(), standin.SelfSigned)
	_, err := opened(t, d)
	var asked *CertificateError
	if !errors.As(err, &asked) || len(asked.Fingerprint) != 64 {
		t.Fatal(err)
	}
	c, err := opened(t, d, func(o *Options) { o.Fingerprint = asked.Fingerprint })
	if err != nil {
		t.Fatal(err)
	}
	read(t, c)
	_, err = opened(t, d, func(o *Options) { o.Fingerprint = strings.Repeat("0", 64) })
	if !errors.As(err, &asked) || !strings.Contains(asked.Why, "another") {
		t.Error(err)
	}
}

// TestPasswordsThatAreNotRight are told as such, at once or after a while.
func TestPasswordsThatAreNotRight(t *testing.T) {
	p := demo.PennywhistleQuay()
	c, err := opened(t, play(t, p), func(o *Options) { o.Password = "wrong" })
	if err == nil {
		_, err = c.Read(t.Context(), nil)
	}
	if trouble(err) != Closed || strings.Contains(err.Error(), "wrong") {
		t.Error(err)
	}
	if _, err := mustOpen(t, play(t, p, standin.LocksOut)).Read(t.Context(), nil); trouble(err) != Closed {
		t.Error(err)
	}
	if _, err := opened(t, play(t, p, standin.Moved)); trouble(err) != Elsewhere || strings.Contains(err.Error(), "192.0.2.7") {
		t.Error(err)
	}
}

// TestStreamsAreWatched measures streams of both codecs by the frames that came, still and moving.
func TestStreamsAreWatched(t *testing.T) {
	p := demo.PennywhistleQuay()
	d := play(t, p)
	c := mustOpen(t, d)
	for _, of := range []struct {
		profile, codec string
		kbps           float64
	}{{"P15_main", "h264", 0}, {"P1_sub", "h264", 448}, {"P1_main", "h265", 2850}} {
		t.Run(of.profile, func(t *testing.T) {
			t.Parallel()
			w, err := c.Watch(t.Context(), of.profile, 6*time.Second, nil)
			if err != nil {
				t.Fatal(err)
			}
			m, err := video.Measure(w.Frames)
			if err != nil {
				t.Fatal(err)
			}
			if w.Codec != of.codec || w.Lost > 0 || of.kbps > 0 && (m.ActiveKbps < 0.9*of.kbps || m.ActiveKbps > 1.1*of.kbps) {
				t.Errorf("%s, %d lost, %v kbit/s", w.Codec, w.Lost, m.ActiveKbps)
			}
		})
	}
	ctx, stop := context.WithCancel(t.Context())
	began := time.Now()
	_, err := c.Watch(ctx, "P1_sub", time.Minute, func(int, int, string) { stop() })
	if err != nil || time.Since(began) > 20*time.Second {
		t.Errorf("stopped after %v: %v", time.Since(began), err)
	}
	if _, err := c.Watch(t.Context(), "none", time.Second, nil); trouble(err) != Refused {
		t.Error(err)
	}
}

// TestWhatADeviceNoticesIsHeard hears motion and contacts as they begin and end, by our clock.
func TestWhatADeviceNoticesIsHeard(t *testing.T) {
	for _, quirk := range []standin.Quirk{standin.ClockOff, standin.ZonelessTimes} {
		d := play(t, demo.PennywhistleQuay(), quirk)
		c := mustOpen(t, d)
		ctx, stop := context.WithTimeout(t.Context(), time.Minute)
		defer stop()
		var heard []Heard
		var began atomic.Bool
		err := c.Listen(ctx, func() {}, func(h Heard) {
			if h.First {
				if !began.Swap(true) {
					d.Move(3, true)
					d.Move(3, false)
					d.Trigger(1, true)
				}
				return
			}
			if h.Token == "VS3" || h.Token == "IN1" {
				heard = append(heard, h)
			}
			if len(heard) == 3 {
				stop()
			}
		})
		if err != nil || len(heard) != 3 {
			t.Fatalf("%v, %+v", err, heard)
		}
		if h := heard[0]; h.Kind != plan.Motion || !h.On || time.Since(h.At).Abs() > time.Minute {
			t.Errorf("%s: %+v", quirk, h)
		}
		if h := heard[2]; h.Kind != plan.Alarm || h.Token != "IN1" {
			t.Errorf("%+v", h)
		}
	}
}

// TestSnapshotsAreFetched fetches a picture by HTTP digest.
func TestSnapshotsAreFetched(t *testing.T) {
	data, err := mustOpen(t, play(t, demo.PennywhistleQuay())).Snapshot(t.Context(), "P2_main")
	if err != nil || len(data) < 1000 || string(data[:2]) != "\xFF\xD8" {
		t.Errorf("%d bytes, %v", len(data), err)
	}
}

// TestDevicesAreFound asks a network who is there.
func TestDevicesAreFound(t *testing.T) {
	d := play(t, demo.PennywhistleQuay())
	port := int(netip.MustParseAddrPort(d.Discovery).Port())
	list, err := Find(t.Context(), netip.MustParsePrefix("127.0.0.1/32"), loopback, 2*time.Second, port)
	if err != nil || len(list) != 1 || "http://"+list[0].Address != d.HTTP || list[0].Name != "Stand-in recorder" {
		t.Errorf("%+v, %v", list, err)
	}
	if _, err := Find(t.Context(), netip.MustParsePrefix("127.0.0.1/32"), nil, time.Second, port); err == nil {
		t.Error("loopback is searched though nobody allowed it")
	}
}

// TestAddressesAreReadAsTypedAndHeldToWhatIsAllowed names what is wrong.
func TestAddressesAreReadAsTypedAndHeldToWhatIsAllowed(t *testing.T) {
	for text, want := range map[string]string{"10.0.4.20": "10.0.4.20", " http://10.0.4.20:80/onvif/device_service ": "10.0.4.20",
		"https://recorder.lan": "https://recorder.lan", "recorder.lan:8000": "recorder.lan:8000", "[fd00::1]:81": "[fd00::1]:81"} {
		if a, err := ReadAddress(text); err != nil || a.String() != want {
			t.Errorf("%q is %v, %v", text, a, err)
		}
	}
	for _, text := range []string{"", "rtsp://10.0.0.1", "10.0.0.1:99999", "fitter:secret@10.0.0.1", "a b", "10.0.0.1:x"} {
		if a, err := ReadAddress(text); err == nil || strings.Contains(err.Error(), "secret") {
			t.Errorf("%q is %v, %v", text, a, err)
		}
	}
	for _, ip := range []string{"127.0.0.1", "::1", "169.254.1.1", "169.254.169.254", "fe80::1", "224.0.0.1", "0.0.0.0",
		"::ffff:127.0.0.1", "fd00:ec2::254"} {
		if err := (Allowed)(nil).Check(netip.MustParseAddr(ip)); err == nil {
			t.Errorf("%s is spoken with", ip)
		}
	}
	for _, ip := range []string{"10.0.4.20", "192.168.1.9", "203.0.113.7"} {
		if err := (Allowed)(nil).Check(netip.MustParseAddr(ip)); err != nil {
			t.Error(err)
		}
	}
	if err := loopback.Check(netip.MustParseAddr("127.3.2.1")); err != nil {
		t.Error(err)
	}
	for _, text := range []string{"10.0.0.0/8", "x", "fd00::/64"} {
		if p, err := ReadNetwork(text); err == nil {
			t.Errorf("%q is searched as %v", text, p)
		}
	}
}

// TestPasswordsAreSealed opens only with the same key and for the same device.
func TestPasswordsAreSealed(t *testing.T) {
	seal, err := NewSeal(make([]byte, KeyBytes))
	if err != nil {
		t.Fatal(err)
	}
	sealed := seal.Seal("secret", "site", "a")
	if got, err := seal.Open(sealed, "site", "a"); err != nil || got != "secret" || strings.Contains(string(sealed), "secret") {
		t.Errorf("%q, %v", got, err)
	}
	other, err := NewSeal([]byte(strings.Repeat("k", KeyBytes)))
	if err != nil {
		t.Fatal(err)
	}
	for _, wrong := range []func() (string, error){
		func() (string, error) { return seal.Open(sealed, "site", "b") },
		func() (string, error) { return other.Open(sealed, "site", "a") },
	} {
		if got, err := wrong(); trouble(err) != Closed || got != "" {
			t.Errorf("%q, %v", got, err)
		}
	}
	together := t.TempDir() + "/together"
	keys := make([]string, 8)
	var group sync.WaitGroup
	for i := range keys {
		group.Go(func() {
			key, err := KeyFile(together)
			if err != nil {
				t.Error(err)
			}
			keys[i] = string(key)
		})
	}
	group.Wait()
	if slices.Sort(keys); keys[0] != keys[7] || len(keys[0]) != KeyBytes {
		t.Error("servers that begin at once have keys of their own")
	}
	path := t.TempDir() + "/beside/key"
	made, err := KeyFile(path)
	if err != nil || len(made) != KeyBytes {
		t.Fatal(err)
	}
	if again, err := KeyFile(path); err != nil || string(again) != string(made) {
		t.Error(err)
	}
}

// TestWhenWhatWasRecordedIsRead reads the history of a recorder in parts, by our clock, and the same when it is asked again.
func TestWhenWhatWasRecordedIsRead(t *testing.T) {
	s := play(t, demo.PennywhistleQuay(), standin.ClockOff)
	c := mustOpen(t, s)
	d := read(t, c)
	to := time.Now().Truncate(time.Hour)
	from := to.AddDate(0, 0, -7)
	list, err := c.History(t.Context(), d, from, to, nil)
	if err != nil {
		t.Fatal(err)
	}
	count := make(map[string]int)
	for k, r := range list {
		count[r.Token]++
		if r.Start.Before(from) || r.End.After(to) || !r.Start.Before(r.End) ||
			k > 0 && r.Token == list[k-1].Token && r.Start.Before(list[k-1].End) {
			t.Fatalf("%+v after %+v", r, list[max(0, k-1)])
		}
	}
	if len(count) < 4 || count["VS5"] < 500 || count["VS1"] > 0 { // the hall is written round the clock by day, which tells nothing
		t.Errorf("%v", count)
	}
	if again, err := c.History(t.Context(), d, from, to, nil); err != nil || !slices.Equal(again, list) {
		t.Errorf("%d and then %d, %v", len(list), len(again), err)
	}
}
