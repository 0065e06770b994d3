// Command encode measures what encoders spend on moving pictures of a made-up place, and prints tables as docs/method.md has them:
// how bitrates go with codec, frames, keyframe interval, size, quality and noise. It takes ffmpeg and ffprobe from Debian;
// scripts/encodings installs them. Nothing is kept of the videos.
package main

import (
	"bytes"
	"encoding/json"
	"fmt"
	"log"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
)

// take is how a clip is made.
type take struct {
	codec         string
	width, height int
	fps           float64
	gop           float64 // seconds
	scene         string
	noise         float64
	qp            int
	kbps          int // constant bitrate; 0 for constant quality
}

// got is what came of it.
type got struct {
	kbps, key, following float64 // kbit/s; kbit of a keyframe and of a following frame
	psnr                 float64 // against the place without noise
}

const seconds = 12

var dir string

func run(t take) (g got) {
	file := filepath.Join(dir, "clip.mp4")
	size := fmt.Sprintf("%dx%d", t.width, t.height)
	raw := []string{"-f", "rawvideo", "-pix_fmt", "yuv420p", "-s", size, "-r", fmt.Sprint(t.fps), "-i", "-"}
	keyint := int(t.fps*t.gop + 0.5)
	args := append([]string{"-hide_banner", "-y"}, raw...)
	gop := []string{"-g", fmt.Sprint(keyint), "-keyint_min", fmt.Sprint(keyint), "-bf", "0"}
	rate := []string{"-qp", fmt.Sprint(t.qp)} // the same quantiser for all: by "crf" an encoder goes by the frame rate too
	if t.kbps > 0 {
		k := fmt.Sprintf("%dk", t.kbps)
		rate = []string{"-b:v", k, "-maxrate", k, "-bufsize", k}
	}
	switch t.codec {
	case "h264":
		args = append(append(args, "-c:v", "libx264", "-preset", "veryfast", "-tune", "zerolatency", "-x264-params", "scenecut=0"), gop...)
	case "h265":
		args = append(append(args, "-c:v", "libx265", "-preset", "veryfast", "-x265-params", "scenecut=0:log-level=none:rc-lookahead=0:bframes=0"+
			x265QP(t)), gop...)
	case "av1":
		args = append(args, "-c:v", "libsvtav1", "-preset", "9", "-g", fmt.Sprint(keyint), "-svtav1-params", "pred-struct=1:scd=0:rc=0:aq-mode=0")
	case "mjpeg":
		args = append(args, "-c:v", "mjpeg", "-pix_fmt", "yuvj420p", "-q:v", fmt.Sprint(t.qp))
	}
	if t.codec != "h265" && t.codec != "mjpeg" || t.kbps > 0 {
		args = append(args, rate...)
	}
	args = append(args, file)
	s := newScenery(t.width, t.height, t.scene, t.noise)
	var original bytes.Buffer
	for k := range int(seconds * t.fps) {
		original.Write(s.frame(float64(k) / t.fps))
	}
	command := exec.Command("ffmpeg", args...)
	command.Stdin = bytes.NewReader(original.Bytes())
	if out, err := command.CombinedOutput(); err != nil {
		log.Fatalf("%v: %s", err, out)
	}
	out, err := exec.Command("ffprobe", "-v", "error", "-select_streams", "v", "-show_entries", "packet=size,flags",
		"-of", "json", file).Output()
	if err != nil {
		log.Fatal(err)
	}
	var told struct {
		Packets []struct{ Size, Flags string }
	}
	if err := json.Unmarshal(out, &told); err != nil {
		log.Fatal(err)
	}
	keys, others := 0.0, 0.0
	for k, p := range told.Packets {
		if float64(k) < t.fps*t.gop && t.gop < seconds/2 {
			continue // an encoder begins otherwise than it goes on
		}
		bytes, _ := strconv.ParseFloat(p.Size, 64)
		if p.Flags[0] == 'K' {
			g.key += bytes * 8 / 1000
			keys++
		} else {
			g.following += bytes * 8 / 1000
			others++
		}
	}
	g.kbps = (g.key + g.following) / ((keys + others) / t.fps)
	g.key /= max(1, keys)
	g.following /= max(1, others)
	compare := exec.Command("ffmpeg", append(append([]string{"-hide_banner"}, raw...), "-i", file, "-lavfi", "psnr", "-f", "null", "-")...)
	clean := newScenery(t.width, t.height, t.scene, 0) // an encoder that leaves out noise is no worse for it
	original.Reset()
	for k := range int(seconds * t.fps) {
		original.Write(clean.frame(float64(k) / t.fps))
	}
	compare.Stdin = bytes.NewReader(original.Bytes())
	said, err := compare.CombinedOutput()
	if err != nil {
		log.Fatalf("%v: %s", err, said)
	}
	if m := regexp.MustCompile(`y:([0-9.]+)`).FindSubmatch(said); m != nil {
		g.psnr, _ = strconv.ParseFloat(string(m[1]), 64)
	}
	return g
}

func main() {
	var err error
	if dir, err = os.MkdirTemp("", "encode"); err != nil {
		log.Fatal(err)
	}
	defer os.RemoveAll(dir)
	usual := take{codec: "h264", width: 1280, height: 720, fps: 15, gop: 2, scene: "moderate", noise: 2, qp: 24}
	base := run(usual)
	row := func(what string, t take) got {
		g := run(t)
		bits := g.key * 1000 / float64(t.width*t.height)
		fmt.Printf("%-42s %6.0f kbit/s ×%.2f  keyframe %.2f bit/pixel, r %.1f, PSNR %.1f dB\n", what, g.kbps, g.kbps/base.kbps, bits,
			g.key/g.following, g.psnr)
		return g
	}
	fmt.Println("usual: H.264, 1280×720, 15 frames, keyframe every 2 s, moderate, day, one quantiser")
	row("usual", usual)
	parts := map[string]func(take, func(string, take) got){"table": table, "scenes": scenes, "codecs": codecs, "constant": constant}
	for _, part := range []string{"table", "scenes", "codecs", "constant"} {
		if len(os.Args) < 2 || os.Args[1] == part {
			parts[part](usual, row)
		}
	}
}

// table is what the model's table is taken from: light between day and dull, the three scenes. Codecs have a part of their own.
func table(usual take, row func(string, take) got) {
	for _, scene := range []string{"still", "moderate", "busy"} {
		t := usual
		t.scene, t.noise = scene, 2.5
		row(scene+", noise 2.5", t)
	}
}

// scenes are light, movement, frames, keyframe intervals, sizes and quantisers.
func scenes(usual take, row func(string, take) got) {
	for _, light := range []struct {
		name  string
		noise float64
	}{{"bright", 1}, {"day", 2}, {"dull", 3}, {"dusk", 4}, {"night", 6}} {
		for _, scene := range []string{"still", "moderate", "busy"} {
			t := usual
			t.scene, t.noise = scene, light.noise
			row(scene+", "+light.name, t)
		}
	}
	for _, fps := range []float64{5, 10, 15, 30} {
		for _, scene := range []string{"still", "moderate", "busy"} {
			t := usual
			t.fps, t.scene = fps, scene
			row(fmt.Sprintf("%s, %v frames", scene, fps), t)
		}
	}
	for _, gop := range []float64{1, 2, 4} {
		t := usual
		t.gop = gop
		row(fmt.Sprintf("keyframe every %v s", gop), t)
	}
	for _, size := range [][2]int{{640, 360}, {960, 540}, {1920, 1080}} {
		t := usual
		t.width, t.height = size[0], size[1]
		row(fmt.Sprintf("%d×%d", size[0], size[1]), t)
	}
	for _, qp := range []int{20, 24, 32, 36} {
		t := usual
		t.qp = qp
		row(fmt.Sprintf("quantiser %d for %d", qp, usual.qp), t)
	}
}

// codecs are those that give the same PSNR, in light so good that the quantiser and not noise decides it.
func codecs(usual take, row func(string, take) got) {
	for _, codec := range []string{"h265", "av1", "mjpeg"} {
		for _, light := range []float64{0.5} {
			like := usual
			like.noise, like.qp = light, 30
			want := run(like)
			t := like
			t.codec = codec
			best, off := 0, 1e9
			for _, qp := range map[string][]int{"h265": {24, 26, 28, 30, 32}, "av1": {24, 30, 36, 42, 48}, "mjpeg": {2, 3, 4, 5, 6, 8, 10}}[codec] {
				t.qp = qp
				if g := run(t); abs(g.psnr-want.psnr) < off {
					best, off = qp, abs(g.psnr-want.psnr)
				}
			}
			t.qp = best
			g := row(fmt.Sprintf("%s of equal PSNR, noise %v", codec, light), t)
			fmt.Printf("%-42s ×%.2f of H.264, its keyframes ×%.2f\n", "", g.kbps/want.kbps, g.key/want.key)
		}
	}
}

// constant is what frames and noise do to an encoder that keeps a bitrate.
func constant(usual take, row func(string, take) got) {
	for _, fps := range []float64{5, 15, 30} {
		for _, light := range []float64{2, 6} {
			t := usual
			t.fps, t.noise, t.kbps = fps, light, 1500
			row(fmt.Sprintf("constant bitrate 1500, %v frames, noise %v", fps, light), t)
		}
	}
}

func x265QP(t take) string {
	if t.kbps > 0 {
		return ""
	}
	return fmt.Sprintf(":qp=%d", t.qp)
}

func abs(v float64) float64 {
	if v < 0 {
		return -v
	}
	return v
}
