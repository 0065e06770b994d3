// Package stills takes in the pictures of cameras that planners draw on: it checks them, makes them small, and takes out
// what they tell beside what they show.
package stills

import (
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"image"
	"image/color"
	"image/draw"
	"image/jpeg"
	_ "image/png" // a format that is taken in

	xdraw "golang.org/x/image/draw"
	_ "golang.org/x/image/webp" // a format that is taken in
)

// Limits of what is taken in, and of what is kept.
const (
	LargestBytes = 8 << 20
	MostPixels   = 50_000_000  // told before anything is decoded
	mostDecoded  = 200_000_000 // bytes of the pixels, once they are decoded
	WidestKept   = 1920        // pixels
	aimBytes     = 400 << 10   // what is kept, where the quality allows
	tallestKept  = 4096        // pixels
)

// Type is the media type of every still that is kept.
const Type = "image/jpeg"

// Still is a picture as it is kept: a JPEG without any metadata.
type Still struct {
	ID            string // the first 32 digits of the SHA-256 of its bytes
	Width, Height int    // pixels
	JPEG          []byte
}

func newStill(data []byte, width, height int) *Still {
	sum := sha256.Sum256(data)
	return &Still{hex.EncodeToString(sum[:16]), width, height, data}
}

// Take makes a still of a JPEG, PNG or WebP file of at most [LargestBytes] and [MostPixels]: upright as its camera says,
// at most [WidestKept] wide, without metadata. One that is such a still already is kept as it is, so that it has the
// same id wherever it goes. The error says what is wrong with the file, or is that of the context.
//
// While it decodes and while it scales it looks at the context every few rows.
func Take(ctx context.Context, data []byte) (*Still, error) {
	config, format, err := look(data)
	if err != nil {
		return nil, err
	}
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	drops := &drip{ctx: ctx, from: bytes.NewReader(data)}
	picture, _, err := image.Decode(drops)
	if drops.gone != nil {
		return nil, drops.gone
	}
	if err != nil {
		return nil, fmt.Errorf("the picture cannot be decoded: it is damaged, or an animation (%w)", err)
	}
	if config.Width <= WidestKept && len(data) <= 2*aimBytes && isPlain(data) {
		return newStill(data, config.Width, config.Height), nil
	}
	small, err := fitted(ctx, picture, orientation(data, format))
	if err != nil {
		return nil, err
	}
	bounds := small.Bounds()
	kept, err := encoded(ctx, small)
	if err != nil {
		return nil, err
	}
	return newStill(kept, bounds.Dx(), bounds.Dy()), nil
}

// Decoded is how many bytes the pixels of a file take once they are decoded, at most; 0 for what is no picture. Nothing is
// decoded for it.
func Decoded(data []byte) int64 {
	config, _, err := look(data)
	if err != nil {
		return 0
	}
	return int64(config.Width) * int64(config.Height) * depth(config.ColorModel)
}

// look reads the head of a picture, and refuses what is not taken in.
func look(data []byte) (config image.Config, format string, err error) {
	if len(data) == 0 {
		return config, "", errors.New("the file is empty")
	}
	if len(data) > LargestBytes {
		return config, "", fmt.Errorf("the picture has %.1f MB; 8 are the most", float64(len(data))/(1<<20))
	}
	config, format, err = image.DecodeConfig(bytes.NewReader(data))
	if err != nil {
		return config, "", errors.New("this is no picture that can be read: JPEG, PNG and WebP can")
	}
	if config.Width <= 0 || config.Height <= 0 || config.Width > MostPixels/config.Height {
		return config, "", fmt.Errorf("the picture has %d × %d pixels, %.0f million; 50 million are the most",
			config.Width, config.Height, float64(config.Width)*float64(config.Height)/1e6)
	}
	if long, short := max(config.Width, config.Height), min(config.Width, config.Height); short < 16 || long > 20*short {
		return config, "", fmt.Errorf("the picture has %d × %d pixels, which is no picture of a camera", config.Width, config.Height)
	}
	if each := depth(config.ColorModel); int64(config.Width)*int64(config.Height) > mostDecoded/each {
		return config, "", fmt.Errorf("the picture has %d × %d pixels of %d bytes each; %d million are the most of such",
			config.Width, config.Height, each, mostDecoded/each/1_000_000)
	}
	return config, format, nil
}

// depth is how many bytes a pixel takes once it is decoded.
func depth(m color.Model) int64 {
	switch m {
	case color.GrayModel:
		return 1
	case color.Gray16Model:
		return 2
	case color.YCbCrModel:
		return 3
	case color.RGBA64Model, color.NRGBA64Model:
		return 8
	}
	if _, ok := m.(color.Palette); ok {
		return 1
	}
	return 4
}

// fitted turns a picture upright and makes it small enough; what can be seen through is on white.
func fitted(ctx context.Context, picture image.Image, turn int) (image.Image, error) {
	from := picture.Bounds()
	width, height := from.Dx(), from.Dy()
	widest := WidestKept
	if turn > 4 { // its width will be its height
		widest = tallestKept
		if height > WidestKept {
			widest = min(widest, max(1, width*WidestKept/height))
		}
	} else if height > tallestKept {
		widest = min(widest, max(1, width*tallestKept/height))
	}
	if width > widest {
		height, width = max(1, height*widest/width), widest
	}
	for picture.Bounds().Dx() >= 2*width && picture.Bounds().Dy() >= 2*height {
		half, err := halved(ctx, picture)
		if err != nil {
			return nil, err
		}
		picture = half
	}
	small := image.NewRGBA(image.Rect(0, 0, width, height))
	draw.Draw(small, small.Bounds(), image.White, image.Point{}, draw.Src)
	for y := 0; y < height; y += strip {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		part, _ := small.SubImage(image.Rect(0, y, width, min(y+strip, height))).(draw.Image)
		xdraw.ApproxBiLinear.Scale(part, small.Bounds(), picture, picture.Bounds(), draw.Over, nil)
	}
	return turned(small, turn), ctx.Err()
}

// strip is how many rows are scaled at once: some milliseconds of a wide picture.
const strip = 64

// halved is a picture of half the width and height: each pixel the mean of four, which is what linear interpolation comes to
// at just this scale. It takes no more memory than what it makes.
func halved(ctx context.Context, picture image.Image) (*image.RGBA, error) {
	b := picture.Bounds()
	small := image.NewRGBA(image.Rect(0, 0, b.Dx()/2, b.Dy()/2))
	quick := image.NewRGBA(image.Rect(0, 0, b.Dx()/2*2, 2*strip)) // as it is scaled without a call for every pixel
	for y := 0; y < small.Rect.Max.Y; y += strip {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		into := image.Rect(0, y, small.Rect.Max.X, min(y+strip, small.Rect.Max.Y))
		part := image.Rect(0, 0, quick.Rect.Max.X, 2*into.Dy())
		draw.Draw(quick, part, picture, image.Pt(b.Min.X, b.Min.Y+2*y), draw.Src)
		xdraw.ApproxBiLinear.Scale(small, into, quick, part, draw.Src, nil)
	}
	return small, nil
}

// encoded is a JPEG of about the bytes aimed at: the best of some qualities that is not larger, else the least of them.
func encoded(ctx context.Context, picture image.Image) ([]byte, error) {
	out := sink{ctx: ctx}
	for _, quality := range []int{88, 80, 70, 60, 50} {
		out.Reset()
		if err := jpeg.Encode(&out, picture, &jpeg.Options{Quality: quality}); err != nil {
			return nil, err
		}
		if out.Len() <= aimBytes {
			break
		}
	}
	return out.Bytes(), nil
}
