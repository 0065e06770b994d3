package stills

import (
	"bytes"
	"image"
	"time"

	"github.com/bep/imagemeta"
)

// orientation is how a camera says that its picture is to be turned, from 1 (not at all) to 8, as EXIF numbers it.
func orientation(data []byte, format string) int {
	kind, ok := map[string]imagemeta.ImageFormat{"jpeg": imagemeta.JPEG, "png": imagemeta.PNG, "webp": imagemeta.WebP}[format]
	if !ok {
		return 1
	}
	turn := 1
	// What cannot be read of the metadata turns nothing.
	_, _ = imagemeta.Decode(imagemeta.Options{
		R: bytes.NewReader(data), ImageFormat: kind, Sources: imagemeta.EXIF, Timeout: 2 * time.Second,
		ShouldHandleTag: func(tag imagemeta.TagInfo) bool { return tag.Tag == "Orientation" },
		HandleTag: func(tag imagemeta.TagInfo) error {
			if v, ok := tag.Value.(uint16); ok && v >= 1 && v <= 8 {
				turn = int(v)
			}
			return imagemeta.ErrStopWalking
		},
	})
	return turn
}

// turned is a picture turned and mirrored as EXIF numbers it.
func turned(from *image.RGBA, turn int) *image.RGBA {
	if turn == 1 {
		return from
	}
	width, height := from.Rect.Dx(), from.Rect.Dy()
	size := image.Rect(0, 0, width, height)
	if turn > 4 {
		size = image.Rect(0, 0, height, width)
	}
	to := image.NewRGBA(size)
	for y := range height {
		for x := range width {
			right, low := width-1-x, height-1-y
			p := [9]image.Point{1: {x, y}, 2: {right, y}, 3: {right, low}, 4: {x, low}, 5: {y, x}, 6: {low, x}, 7: {low, right}, 8: {y, right}}[turn]
			copy(to.Pix[to.PixOffset(p.X, p.Y):][:4], from.Pix[from.PixOffset(x, y):][:4])
		}
	}
	return to
}
