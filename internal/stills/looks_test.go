package stills

import (
	"bytes"
	"image"
	"image/color"
	"image/jpeg"
	"testing"

	"wakefield.example/core/looked"
)

// BenchmarkLooks tells the longest time, in ms, in which taking in the largest pictures does not look whether anybody waits.
func BenchmarkLooks(b *testing.B) {
	var photo bytes.Buffer
	if err := jpeg.Encode(&photo, image.NewYCbCr(image.Rect(0, 0, 8000, 6000), image.YCbCrSubsampleRatio420), nil); err != nil {
		b.Fatal(err)
	}
	for name, file := range map[string][]byte{
		"flat PNG":   flat(b, image.NewPaletted(image.Rect(0, 0, 8000, 6000), color.Palette{color.White, color.Black})),
		"16-bit PNG": flat(b, image.NewNRGBA64(image.Rect(0, 0, 6000, 4000))),
		"flat JPEG":  photo.Bytes(),
	} {
		b.Run(name, func(b *testing.B) {
			for b.Loop() {
				ctx := looked.Gaps()
				if _, err := Take(ctx, file); err != nil {
					b.Fatal(err)
				}
				b.ReportMetric(float64(ctx.Longest().Microseconds())/1000, "ms-unlooked")
			}
		})
	}
}
