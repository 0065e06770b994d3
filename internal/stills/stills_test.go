package stills

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/binary"
	"errors"
	"fmt"
	"hash/crc32"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"math/rand/v2"
	"os"
	"strings"
	"testing"

	"wakefield.example/core/seeded"
)

// halves is a picture that is black at the left and white at the right.
func halves(width, height int) image.Image {
	m := image.NewGray(image.Rect(0, 0, width, height))
	for y := range height {
		for x := width / 2; x < width; x++ {
			m.SetGray(x, y, color.Gray{255})
		}
	}
	return m
}

func asJPEG(t testing.TB, m image.Image) []byte {
	t.Helper()
	var out bytes.Buffer
	if err := jpeg.Encode(&out, m, &jpeg.Options{Quality: 95}); err != nil {
		t.Fatal(err)
	}
	return out.Bytes()
}

func asPNG(t testing.TB, m image.Image) []byte {
	t.Helper()
	var out bytes.Buffer
	if err := png.Encode(&out, m); err != nil {
		t.Fatal(err)
	}
	return out.Bytes()
}

// withSegment puts a segment behind the start of a JPEG.
func withSegment(data []byte, marker byte, content string) []byte {
	segment := append([]byte{0xff, marker}, byte((len(content)+2)>>8), byte(len(content)+2))
	return append(append(append([]byte{}, data[:2]...), append(segment, content...)...), data[2:]...)
}

// exif is metadata that says how a picture is to be turned, and where it was taken.
func exif(turn int) string {
	return "Exif\x00\x00MM\x00\x2a\x00\x00\x00\x08\x00\x02" +
		"\x01\x0e\x00\x02\x00\x00\x00\x0d\x00\x00\x00\x26" + // a description
		"\x01\x12\x00\x03\x00\x00\x00\x01\x00" + string(rune(turn)) + "\x00\x00" +
		"\x00\x00\x00\x00" + "secret-place\x00"
}

func decoded(t *testing.T, s *Still) image.Image {
	t.Helper()
	m, err := jpeg.Decode(bytes.NewReader(s.JPEG))
	if err != nil || m.Bounds().Dx() != s.Width || m.Bounds().Dy() != s.Height {
		t.Fatalf("%v, %d × %d: %v", m.Bounds(), s.Width, s.Height, err)
	}
	return m
}

// isDark tells whether a picture is dark at shares of its width and height.
func isDark(m image.Image, x, y float64) bool {
	b := m.Bounds()
	r, _, _, _ := m.At(int(x*float64(b.Dx())), int(y*float64(b.Dy()))).RGBA()
	return r < 0x8000
}

func TestEveryFormatIsTakenIn(t *testing.T) {
	webp, err := os.ReadFile("testdata/half.webp")
	if err != nil {
		t.Fatal(err)
	}
	for name, data := range map[string][]byte{"jpeg": asJPEG(t, halves(64, 48)), "png": asPNG(t, halves(64, 48)), "webp": webp} {
		s, err := Take(context.Background(), data)
		if err != nil {
			t.Errorf("%s: %v", name, err)
			continue
		}
		if m := decoded(t, s); s.Width != 64 || s.Height != 48 || !isDark(m, 0.2, 0.5) || isDark(m, 0.8, 0.5) {
			t.Errorf("%s: %d × %d", name, s.Width, s.Height)
		}
		if again, err := Take(context.Background(), s.JPEG); err != nil || again.ID != s.ID || !bytes.Equal(again.JPEG, s.JPEG) {
			t.Errorf("%s: taken in again it is another: %v", name, err)
		}
	}
}

func TestPicturesAreTurnedUprightAndTellNothingElse(t *testing.T) {
	plain := asJPEG(t, halves(64, 48))
	// Where the dark half lies, as EXIF numbers the ways to turn.
	for turn, dark := range map[int][2]float64{1: {0.2, 0.5}, 2: {0.8, 0.5}, 3: {0.8, 0.5}, 4: {0.2, 0.5}, 5: {0.5, 0.2}, 6: {0.5, 0.2},
		7: {0.5, 0.8}, 8: {0.5, 0.8}} {
		s, err := Take(context.Background(), withSegment(plain, 0xe1, exif(turn)))
		if err != nil {
			t.Fatal(err)
		}
		m := decoded(t, s)
		if !isDark(m, dark[0], dark[1]) || isDark(m, 1-dark[0], 1-dark[1]) || (s.Width == 64) != (turn < 5) {
			t.Errorf("turned by %d it is %d × %d, and dark elsewhere", turn, s.Width, s.Height)
		}
		if bytes.Contains(s.JPEG, []byte("secret")) || bytes.Contains(s.JPEG, []byte("Exif")) {
			t.Errorf("turned by %d it still tells where it was taken", turn)
		}
	}
	for name, data := range map[string][]byte{
		"a comment":       withSegment(plain, 0xfe, "secret"),
		"behind its end":  append(append([]byte{}, plain...), "secret"...),
		"a picture again": append(append([]byte{}, plain...), plain...),
	} {
		if s, err := Take(context.Background(), data); err != nil || bytes.Contains(s.JPEG, []byte("secret")) ||
			!isPlain(s.JPEG) || isPlain(data) {
			t.Errorf("%s: %v", name, err)
		}
	}
}

func TestLargePicturesBecomeSmall(t *testing.T) {
	rng := rand.New(rand.NewPCG(1, 1))
	noise := image.NewRGBA(image.Rect(0, 0, 2600, 700))
	for i := range noise.Pix {
		noise.Pix[i] = byte(rng.Uint32())
	}
	data := asJPEG(t, noise)
	s, err := Take(context.Background(), data)
	if err != nil {
		t.Fatal(err)
	}
	if s.Width != WidestKept || s.Height != 516 || len(s.JPEG) > 2*aimBytes || len(s.JPEG) > len(data)/3 {
		t.Errorf("%d × %d, %d bytes of %d", s.Width, s.Height, len(s.JPEG), len(data))
	}
	tall, err := Take(context.Background(), withSegment(asJPEG(t, halves(2000, 3000)), 0xe1, exif(6)))
	if err != nil || tall.Width != WidestKept || tall.Height != 1280 {
		t.Errorf("turned: %+v, %v", tall, err)
	}
	if long, err := Take(context.Background(), asPNG(t, halves(1500, 6000))); err != nil || long.Height > tallestKept || long.Width != 1024 {
		t.Errorf("long: %d × %d, %v", long.Width, long.Height, err)
	}
}

// bomb is a PNG of a few bytes that says it has so many pixels.
func bomb(width, height uint32) []byte {
	head := append([]byte("IHDR"), make([]byte, 13)...)
	binary.BigEndian.PutUint32(head[4:], width)
	binary.BigEndian.PutUint32(head[8:], height)
	head[12], head[13] = 8, 2
	out := append([]byte("\x89PNG\r\n\x1a\n\x00\x00\x00\x0d"), head...)
	return binary.BigEndian.AppendUint32(out, crc32.ChecksumIEEE(head))
}

func TestWhatIsNoPictureIsRefused(t *testing.T) {
	good := asJPEG(t, halves(640, 480))
	for want, data := range map[string][]byte{
		"the file is empty": {},
		"the picture has 12500 × 8000 pixels, 100 million; 50 million are the most": bomb(12500, 8000),
		"60000 × 60000 pixels":           bomb(60000, 60000),
		"no picture of a camera":         asPNG(t, halves(800, 12)),
		"no picture that can be read":    []byte("<svg xmlns='http://www.w3.org/2000/svg'/>"),
		"it is damaged, or an animation": good[:len(good)/2],
		"8 are the most":                 append(good, make([]byte, LargestBytes)...),
	} {
		if s, err := Take(context.Background(), data); err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%v, %v; want %q", s != nil, err, want)
		}
	}
}

func zipped(t testing.TB, files ...string) []byte {
	t.Helper()
	var out bytes.Buffer
	z := zip.NewWriter(&out)
	for i := 0; i < len(files); i += 2 {
		w, err := z.Create(files[i])
		if err != nil {
			t.Fatal(err)
		}
		fmt.Fprint(w, files[i+1])
	}
	if err := z.Close(); err != nil {
		t.Fatal(err)
	}
	return out.Bytes()
}

func TestBundlesComeBack(t *testing.T) {
	still, err := Take(context.Background(), asPNG(t, halves(64, 48)))
	if err != nil {
		t.Fatal(err)
	}
	named := func([]byte) ([]string, error) { return []string{still.ID, "gone"}, nil }
	packed, err := Pack(context.Background(), []byte(`{"a":1}`), []*Still{still})
	if err != nil || !IsBundle(packed) {
		t.Fatal(err)
	}
	plan, pictures, err := Unpack(context.Background(), packed, 100, named)
	if err != nil || string(plan) != `{"a":1}` || len(pictures) != 1 || pictures[still.ID].ID != still.ID {
		t.Errorf("%s, %v, %v", plan, pictures, err)
	}
	// As people pack it again, with what their machines add.
	again := zipped(t, "quay/", "", "quay/plan.json", "{}", "__MACOSX/quay/._plan.json", "x", "quay/.DS_Store", "x", "quay/notes.txt", "x",
		"quay/"+still.ID+".PNG", string(asPNG(t, halves(64, 48))), "quay/unnamed.jpg", "no picture")
	if plan, pictures, err = Unpack(context.Background(), again, 100, named); err != nil || string(plan) != "{}" || len(pictures) != 1 {
		t.Errorf("%s, %v, %v", plan, pictures, err)
	}
	for want, data := range map[string][]byte{
		"the zip archive is damaged":        packed[:len(packed)/2],
		"there is no plan file":             zipped(t, "a.txt", "x"),
		"more than one plan file":           zipped(t, "a.json", "{}", "b.json", "{}"),
		"plan.json is larger than 0 MB":     zipped(t, "plan.json", strings.Repeat(" ", 101)),
		"gone.jpg: this is no picture":      zipped(t, "plan.json", "{}", "gone.jpg", "x"),
		"gone.webp is larger than 8 MB":     zipped(t, "plan.json", "{}", "gone.webp", strings.Repeat("x", LargestBytes+1)),
		"the zip archive has 10001 files":   zipped(t, strings.Split(strings.Repeat("a,x,", 10001), ",")[:20002]...),
		"what the reader of the plan finds": zipped(t, "plan.json", "bad"),
	} {
		_, _, err := Unpack(context.Background(), data, 100, func(plan []byte) ([]string, error) {
			if string(plan) == "bad" {
				return nil, errors.New("what the reader of the plan finds")
			}
			return named(plan)
		})
		if err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%v; want %q", err, want)
		}
	}
}

// FuzzTake takes in what may be a picture. Whatever is taken in is a plain JPEG within the limits, and stays as it is.
func FuzzTake(fuzz *testing.F) {
	f := seeded.Of(fuzz, 500)
	webp, err := os.ReadFile("testdata/half.webp")
	if err != nil {
		f.Fatal(err)
	}
	f.Add(webp)
	f.Add(asJPEG(f, halves(20, 16)))
	f.Add(withSegment(asJPEG(f, halves(20, 16)), 0xe1, exif(6)))
	f.Add(asPNG(f, halves(20, 16)))
	f.Add(bomb(9000, 9000))
	f.Fuzz(func(t *testing.T, data []byte) {
		if config, _, err := image.DecodeConfig(bytes.NewReader(data)); err == nil && config.Width*config.Height > 1<<20 &&
			config.Width*config.Height < MostPixels {
			t.Skip("takes long")
		}
		s, err := Take(context.Background(), data)
		if err != nil {
			return
		}
		if !isPlain(s.JPEG) || s.Width > WidestKept {
			t.Errorf("%d × %d, plain %v", s.Width, s.Height, isPlain(s.JPEG))
		}
		if again, err := Take(context.Background(), s.JPEG); err != nil || again.ID != s.ID {
			t.Errorf("taken in again: %v", err)
		}
	})
}
