package e2e

import (
	"net/url"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/internal/demo"
	"wakefield.example/internal/standin"
)

// plays plays the recorder of a plan.
func plays(t testing.TB, p *plan.Plan, quirks ...standin.Quirk) *standin.Device {
	t.Helper()
	d, err := standin.Start(t.Context(), standin.Options{Listen: "127.0.0.1:0", User: "fitter", Password: "secret", Plan: p, Quirks: quirks})
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(d.Close)
	return d
}

// reaches types how a device is reached, and waits until it is read.
func (p *page) reaches(d *standin.Device) {
	p.Helper()
	u, err := url.Parse(d.HTTP)
	if err != nil {
		p.Fatal(err)
	}
	form := `[data-test="device-form"] `
	p.into(form, "Address", u.Host)
	p.into(form, "User", "fitter")
	p.into(form, "Password", "secret")
	p.click(`[data-test="device-keep"]`)
	p.until(`!!document.querySelector('[data-test="device-lines"], [data-test="as-planned"]')`)
}

// TestADeviceIsSetAsPlanned adds a recorder, sees three slips, sets them as planned, sees what somebody changes behind its back, and puts
// back what was there.
func TestADeviceIsSetAsPlanned(t *testing.T) {
	d := plays(t, demo.AtTheQuay())
	_, p := quayAt(t, "/handover/devices", `[data-test="device-form"]`)
	p.reaches(d)
	p.shows(`[data-line="VS9/main.fps"]`, "Vehicle lane 1")
	p.shows(`[data-test="device-lines"]`, "normally open")
	p.shows(`[data-test="device-held"]`, "Luggage room: Keyframes, then full: keyframes only")
	p.click(`[data-line="VS9/main.fps"] input`)
	p.shows(`[data-test="device-set"]`, "Set 2 at the device")
	p.click(`[data-line="VS9/main.fps"] .where`)
	p.shows(`[data-test="device-take"]`, "Take 1 into the plan")
	p.click(`[data-test="all-lines"]`)
	p.click(`[data-test="device-set"]`)
	p.isClean("a device held against the plan")
	p.shows(`[data-test="setting"]`, "Kiosk front, around motion: 5 s before and 4 s after → 5 s before and 15 s after")
	p.click(`[data-test="set-now"]`)
	p.shows(`[data-test="came"]`, "3 of 3 settings as wanted")
	p.shows(`[data-test="as-planned"]`, "16 channels are as planned")

	if err := d.Change(func(s *standin.State) { s.Recordings[4].Name = "Somebody's" }); err != nil {
		t.Fatal(err)
	}
	p.click(`[data-test="device-read"]`)
	p.shows(`[data-test="drift"]`, "Gangway A, name: was Gangway A, is Somebody's")
	p.open("/sites/quay/findings", `[data-test="at-devices"]`)
	p.shows(`[data-test="at-devices"]`, "1 setting changed since it was set")
	p.click(`[data-test="at-devices"] a`)
	p.click(`[data-test="device-set"]`)
	p.click(`[data-test="set-now"]`)
	p.shows(`[data-test="as-planned"]`, "as planned")
	p.until(`!document.querySelector('[data-test="drift"]')`)
	p.click(`[data-test="put-back"]`)
	p.shows(`[data-test="setting"]`, "15 → 10")
	p.click(`[data-test="set-now"]`)
	p.shows(`[data-line="VS9/main.fps"]`, "10")

	// An encoder is set as one, so that all of it is shown.
	if err := d.Change(func(s *standin.State) { s.Channels[8].Encoders[0].Gov = 90 }); err != nil {
		t.Fatal(err)
	}
	p.click(`[data-test="device-read"]`)
	p.click(`[data-line="VS9/main.gop"] input`)
	p.shows(`[data-test="device-take"]`, "Take 3 into the plan")
	p.shows(`[data-test="device-set"]`, "Set 4 at the device")
}

// TestAnEmptySiteIsDescribedByItsRecorder takes all that a recorder tells into a plan with one camera, and takes it back.
func TestAnEmptySiteIsDescribedByItsRecorder(t *testing.T) {
	empty, err := plan.Opening{Name: "New", TimeZone: "Atlantic/Faroe", Recorder: "Recorder", Channels: 16, IngestMbps: 160,
		Drives: 4, Terabytes: 2,
		Layout: "raid5", Cameras: 1, Codec: "h264", Width: 1280, Height: 720, FPS: 10, Activity: plan.ActivityTemplates()[0].ID,
		Duty: plan.ReadyMade()[0].ID}.Plan()
	if err != nil {
		t.Fatal(err)
	}
	s := serve(t, "new", empty)
	p := browser(t, s, 1280, 800)
	p.open("/sites/new/handover/devices", `[data-test="device-form"]`)
	p.reaches(plays(t, demo.PennywhistleQuay()))
	p.click(`[data-test="device-take"]`)
	p.shows(`[data-test="as-planned"]`, "as planned")
	p.open("/sites/new", `[data-test="kept"]`)
	p.shows(`main`, "Gangway A")
	p.shows(`main`, "Slipway")
}

// TestAStreamIsMeasuredAndEventsAreHeard watches a stream, takes what it costs into the plan, hears somebody walk, and keeps that as a log.
func TestAStreamIsMeasuredAndEventsAreHeard(t *testing.T) {
	d := plays(t, demo.PennywhistleQuay())
	_, p := quayAt(t, "/handover/devices", `[data-test="device-form"]`)
	p.reaches(d)
	eval[bool](p, `(() => {
		for (const [label, value, kind] of [['Stream', 'sub', 'change'], ['Seconds', '6', 'input']]) {
			const field = document.querySelector('[aria-label="' + label + '"]')
			field.value = value
			field.dispatchEvent(new Event(kind))
		}
		return true
	})()`)
	p.click(`[data-test="device-watch"]`)
	p.shows(`[data-test="watched"]`, "none lost")
	p.click(`[data-test="use-watched"]`)
	p.revision(2)
	p.click(`[data-test="device-still"]`)
	p.revision(3)
	p.click(`[data-test="listen"]`)
	p.shows(`[data-test="ears"]`, "Walk before a camera")
	d.Move(3, true)
	p.shows(`[data-test="heard"]`, "Waiting room moves")
	d.Move(3, false)
	p.shows(`[data-test="heard"]`, "Waiting room is still again")
	d.Trigger(1, true)
	p.shows(`[data-test="heard"]`, "Fuel store contact triggers")
	p.click(`[data-test="keep-heard"]`)
	p.shows(`body`, "Kept as an event log")
	p.open("/sites/quay/measured", `[data-test="history"]`)
	p.click(`[data-test="history"]`)
	p.shows(`[data-test="bring-in"]`, "recordings of 127.0.0.1")
	p.open("/sites/quay/handover/walk", `[data-test="walk-ears"]`)
	p.click(`[data-test="walk-ears"] [data-test="listen"]`)
	p.shows(`[data-test="walk-ears"]`, "Walk before a camera")
	d.Move(5, true)
	p.shows(`[data-test="walk-ears"]`, "Gangway A moves")
}

// TestADeviceThatCannotBeSpokenWithIsSaid names what is wrong, and lets a certificate be accepted.
func TestADeviceThatCannotBeSpokenWithIsSaid(t *testing.T) {
	d := plays(t, demo.PennywhistleQuay(), standin.SelfSigned)
	_, p := quayAt(t, "/handover/devices", `[data-test="device-form"]`)
	form := `[data-test="device-form"] `
	p.into(form, "Address", "127.0.0.1:1")
	p.click(`[data-test="device-keep"]`)
	p.shows(`[data-test="device-problem"]`, "Nothing listens at that port")
	p.into(form, "Address", d.HTTP)
	p.into(form, "User", "fitter")
	p.into(form, "Password", "secret")
	p.click(`[data-test="device-keep"]`)
	p.shows(`[data-test="certificate"]`, "fingerprint")
	p.click(`[data-test="certificate"] button`)
	p.shows(`[data-test="as-planned"]`, "16 channels")
	d.Close()
	p.click(`[data-test="device-read"]`)
	p.shows(`[data-test="device-trouble"]`, "Nothing listens")
	p.shows(`[data-test="as-planned"]`, "16 channels") // what was read stays
	p.click(`[data-test="forget"]`)
	p.click(`[data-test="device-forget"]`)
	p.until(`!!document.querySelector('[data-test="device-form"]')`)
}
