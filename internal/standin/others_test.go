package standin

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"wakefield.example/internal/demo"
)

func start(t testing.TB, o Options) *Device {
	t.Helper()
	if o.Plan == nil {
		o.Plan = demo.PennywhistleQuay()
	}
	o.Listen, o.User, o.Password = "127.0.0.1:0", "fitter", "secret"
	d, err := Start(t.Context(), o)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(d.Close)
	return d
}

// run runs a program of others; where it is not there, scripts/prepare installs it.
func run(t *testing.T, env []string, name string, args ...string) []byte {
	t.Helper()
	ctx, cancel := context.WithTimeout(t.Context(), time.Minute)
	defer cancel()
	c := exec.CommandContext(ctx, name, args...)
	c.Env = append(os.Environ(), env...)
	var out, said bytes.Buffer
	c.Stdout, c.Stderr = &out, &said
	if err := c.Run(); err != nil {
		t.Fatalf("%s: %v\n%s", name, err, said.Bytes())
	}
	return out.Bytes()
}

// TestAnotherClientUnderstandsIt connects with a client that we did not write, by media 2 and media 1, and asks for all that it knows.
func TestAnotherClientUnderstandsIt(t *testing.T) {
	modules, err := filepath.Abs("../../web/node_modules")
	if err != nil {
		t.Fatal(err)
	}
	for _, quirks := range [][]Quirk{nil, {DigestOnly}, {OldPrefixes}, {ClockOff}, {Media1}} {
		d := start(t, Options{Quirks: quirks})
		d.Move(15, true)
		u, err := url.Parse(d.HTTP)
		if err != nil {
			t.Fatal(err)
		}
		var got struct {
			Information struct{ Manufacturer, Model string }
			Profiles    []string
			Sources     []string
			Services    []struct{ Namespace, XAddr string }
			Stream      struct{ URI string }
			Snapshot    struct{ URI string }
			Recordings  []struct{ RecordingToken string }
			Messages    struct {
				NotificationMessage json.RawMessage
			}
		}
		out := run(t, []string{"NODE_PATH=" + modules}, "node", "testdata/others.cjs", u.Hostname(), u.Port(), "fitter", "secret")
		if err := json.Unmarshal(out, &got); err != nil {
			t.Fatalf("%v: %s", err, out)
		}
		if got.Information.Model != "Stand-in recorder" || len(got.Sources) != 16 || len(got.Profiles) != 30 ||
			len(got.Services) < len(paths)-1 ||
			!strings.HasPrefix(got.Stream.URI, d.RTSP) || !strings.HasPrefix(got.Snapshot.URI, d.HTTP) || len(got.Recordings) != 15 ||
			!strings.Contains(string(got.Messages.NotificationMessage), "MotionAlarm") {
			t.Errorf("%v: %+v", quirks, got)
		}
	}
}

// TestAnotherPlayerPlaysItsStreams looks at streams of both codecs, at sizes that are no multiple of a macroblock too, and decodes them.
func TestAnotherPlayerPlaysItsStreams(t *testing.T) {
	d := start(t, Options{})
	for profile, want := range map[string]string{"P1_main": "hevc,3840,2160", "P1_sub": "h264,704,576", "P15_main": "h264,1920,1080"} {
		t.Run(profile, func(t *testing.T) {
			t.Parallel()
			address := strings.Replace(d.RTSP, "rtsp://", "rtsp://fitter:secret@", 1) + "/" + profile
			out := run(t, nil, "ffprobe", "-v", "error", "-rtsp_transport", "tcp", "-show_entries", "stream=codec_name,width,height", "-of",
				"csv=p=0", address)
			if got := strings.TrimSpace(string(out)); got != want {
				t.Errorf("%q, not %q", got, want)
			}
		})
	}
}

// TestAnotherDecoderDecodesEveryFrame decodes what the encoders make and finds no fault.
func TestAnotherDecoderDecodesEveryFrame(t *testing.T) {
	dir := t.TempDir()
	for _, codec := range []string{"h264", "h265"} {
		for _, size := range [][2]int{{704, 576}, {1920, 1080}, {352, 198}} {
			e := EncoderOf(codec, size[0], size[1], 15, 6000)
			var stream []byte
			for n := range 40 {
				var units [][]byte
				if n%16 == 0 {
					units = e.Sets()
				}
				for _, u := range append(units, e.Frame(n, n%16 == 0, 6000)...) {
					stream = append(append(stream, 0, 0, 0, 1), u...)
				}
			}
			path := filepath.Join(dir, fmt.Sprint(codec, size[0], ".", codec))
			if err := os.WriteFile(path, stream, 0o600); err != nil {
				t.Fatal(err)
			}
			out := run(t, nil, "ffprobe", "-v", "warning", "-count_frames", "-show_entries", "stream=width,height,nb_read_frames",
				"-of", "csv=p=0", path)
			if got, want := strings.TrimSpace(string(out)), fmt.Sprintf("%d,%d,40", size[0], size[1]); got != want {
				t.Errorf("%s: %q, not %q", codec, got, want)
			}
			if out := run(t, nil, "ffmpeg", "-v", "warning", "-xerror", "-i", path, "-f", "null", "-"); len(out) > 0 {
				t.Errorf("%s", out)
			}
		}
	}
}

// TestWhatWasSetIsThereAfterARestart keeps its state in a file.
func TestWhatWasSetIsThereAfterARestart(t *testing.T) {
	path := filepath.Join(t.TempDir(), "state.json")
	d := start(t, Options{State: path})
	if err := d.Change(func(s *State) { s.Recordings[0].Name = "Another" }); err != nil {
		t.Fatal(err)
	}
	d.Close()
	if got := start(t, Options{State: path}).State(); got.Recordings[0].Name != "Another" {
		t.Errorf("%+v", got.Recordings[0])
	}
}

// TestItIsForLoopbackAlone refuses to listen elsewhere, and what it does not know.
func TestItIsForLoopbackAlone(t *testing.T) {
	p := demo.PennywhistleQuay()
	for _, o := range []Options{{Listen: "0.0.0.0:0", Plan: p}, {Listen: "127.0.0.1:0"}, {Listen: "127.0.0.1:0", Plan: p, Recorder: "none"},
		{Listen: "127.0.0.1:0", Plan: p, Quirks: []Quirk{"purrs"}}} {
		if d, err := Start(t.Context(), o); err == nil {
			d.Close()
			t.Errorf("%+v is played", o)
		}
	}
}

// TestMotionComesAsOftenAsPlanned lets a day pass before cameras and counts.
func TestMotionComesAsOftenAsPlanned(t *testing.T) {
	p := demo.PennywhistleQuay()
	d := start(t, Options{Plan: p})
	planned := p.Activity(p.Channel("hall").Activity)
	var began int
	s := incidentsOf(p, "nvr", &State{Channels: d.State().Channels, Inputs: d.State().Inputs}, 3)[0]
	at := time.Date(2026, 11, 2, 0, 0, 0, 0, time.UTC) // a Monday
	for range 7 * 86400 * 2 {
		at = at.Add(tick)
		if s.step(at, tick) && s.on {
			began++
		}
	}
	want := planned.Process().PerDay() * 7
	if busy := 1 - want/7*planned.MeanSeconds/86400; float64(began) < 0.8*want*busy || float64(began) > 1.2*want {
		t.Errorf("%d began, of about %v", began, want)
	}
}
