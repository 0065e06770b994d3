package stills

import (
	"bytes"
	"context"
	"errors"
	"image"
	"image/color"
	"image/png"
	"strings"
	"testing"

	"wakefield.example/core/looked"
)

func flat(t testing.TB, m image.Image) []byte {
	t.Helper()
	var out bytes.Buffer
	if err := (&png.Encoder{CompressionLevel: png.BestSpeed}).Encode(&out, m); err != nil {
		t.Fatal(err)
	}
	return out.Bytes()
}

// TestTakingInStopsWhenNobodyWaits takes in a large picture and a bundle of them. While it scales it looks at its context every
// few rows; whenever that ends, it goes no further.
func TestTakingInStopsWhenNobodyWaits(t *testing.T) {
	black := color.Palette{color.White, color.Black}
	large := flat(t, image.NewPaletted(image.Rect(0, 0, 6400, 4800), black))
	whole := looked.At(0)
	if _, err := Take(whole, large); err != nil || whole.Times() < 4800/2/strip {
		t.Fatalf("%d looks, %v", whole.Times(), err)
	}
	for _, end := range []int{1, 2, whole.Times() / 2, whole.Times()} {
		ctx := looked.At(end)
		if _, err := Take(ctx, large); !errors.Is(err, context.Canceled) || ctx.Times() > end+1 {
			t.Errorf("ended at look %d it looked %d times: %v", end, ctx.Times(), err)
		}
	}
	bundle := zipped(t, "plan.json", "{}", "pictures/a.png", string(large), "pictures/b.png", string(large))
	ctx := looked.At(20)
	_, _, err := Unpack(ctx, bundle, 100, func([]byte) ([]string, error) { return []string{"a", "b"}, nil })
	if !errors.Is(err, context.Canceled) || ctx.Times() > 21 {
		t.Errorf("a bundle: %d looks, %v", ctx.Times(), err)
	}
}

// TestPicturesHaveABudget asks for more than is decoded: of one picture by its bytes, of a bundle by all its pixels and bytes.
// All of it is told before anything is decoded.
func TestPicturesHaveABudget(t *testing.T) {
	deep := flat(t, image.NewNRGBA64(image.Rect(0, 0, 7000, 4000)))
	if _, err := Take(context.Background(), deep); err == nil ||
		!strings.Contains(err.Error(), "pixels of 8 bytes each; 25 million are the most") {
		t.Errorf("%v", err)
	}
	if got := Decoded(flat(t, image.NewNRGBA64(image.Rect(0, 0, 100, 50)))); got != 40_000 {
		t.Errorf("%d bytes are decoded", got)
	}
	large := string(flat(t, image.NewPaletted(image.Rect(0, 0, 8000, 6000), color.Palette{color.White, color.Black})))
	files, names := []string{"plan.json", "{}"}, []string{}
	for _, name := range strings.Split("abcdefg", "") {
		files, names = append(files, name+".png", large), append(names, name)
	}
	named := func([]byte) ([]string, error) { return names, nil }
	if _, _, err := Unpack(context.Background(), zipped(t, files...), 100, named); err == nil ||
		!strings.Contains(err.Error(), "more than 300 million pixels together") {
		t.Errorf("%v", err)
	}
	// A head that says little, and behind it what unpacks to much.
	padded := string(flat(t, image.NewPaletted(image.Rect(0, 0, 64, 64), color.Palette{color.White}))) + strings.Repeat("\x00", 7<<20)
	files, names = []string{"plan.json", "{}"}, nil
	for _, name := range strings.Split("abcdefghijklmnopqrstuvwxyz", "") {
		files, names = append(files, name+".png", padded), append(names, name)
	}
	if _, _, err := Unpack(context.Background(), zipped(t, files...), 100, named); err == nil ||
		!strings.Contains(err.Error(), "more than 160 MB once they are unpacked") {
		t.Errorf("%v", err)
	}
}
