// Package stills takes in the pictures of cameras that planners draw on: it checks them, makes them small, and takes out
// what they tell beside what they show.
package stills

import (
	"bytes"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"image"
	"image/draw"
	"image/jpeg"
	_ "image/png" // a format that is taken in

	xdraw "golang.org/x/image/draw"
	_ "golang.org/x/image/webp" // a format that is taken in
)

// Limits of what is taken in, and of what is kept.
const (
	LargestBytes = 8 << 20
	MostPixels   = 50_000_000 // told before anything is decoded
	WidestKept   = 1920       // pixels
	aimBytes     = 400 << 10  // what is kept, where the quality allows
	tallestKept  = 4096       // pixels
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
// same id wherever it goes. The error says what is wrong with the file.
func Take(data []byte) (*Still, error) {
	if len(data) == 0 {
		return nil, errors.New("the file is empty")
	}
	if len(data) > LargestBytes {
		return nil, fmt.Errorf("the picture has %.1f MB; 8 are the most", float64(len(data))/(1<<20))
	}
	config, format, err := image.DecodeConfig(bytes.NewReader(data))
	if err != nil {
		return nil, errors.New("this is no picture that can be read: JPEG, PNG and WebP can")
	}
	if config.Width <= 0 || config.Height <= 0 || config.Width > MostPixels/config.Height {
		return nil, fmt.Errorf("the picture has %d × %d pixels, %.0f million; 50 million are the most",
			config.Width, config.Height, float64(config.Width)*float64(config.Height)/1e6)
	}
	if long, short := max(config.Width, config.Height), min(config.Width, config.Height); short < 16 || long > 20*short {
		return nil, fmt.Errorf("the picture has %d × %d pixels, which is no picture of a camera", config.Width, config.Height)
	}
	picture, _, err := image.Decode(bytes.NewReader(data))
	if err != nil {
		return nil, fmt.Errorf("the picture cannot be decoded: it is damaged, or an animation (%w)", err)
	}
	if config.Width <= WidestKept && len(data) <= 2*aimBytes && isPlain(data) {
		return newStill(data, config.Width, config.Height), nil
	}
	small := fitted(picture, orientation(data, format))
	bounds := small.Bounds()
	kept, err := encoded(small)
	if err != nil {
		return nil, err
	}
	return newStill(kept, bounds.Dx(), bounds.Dy()), nil
}

// fitted turns a picture upright and makes it small enough; what can be seen through is on white.
func fitted(picture image.Image, turn int) image.Image {
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
	small := image.NewRGBA(image.Rect(0, 0, width, height))
	draw.Draw(small, small.Bounds(), image.White, image.Point{}, draw.Src)
	xdraw.CatmullRom.Scale(small, small.Bounds(), picture, from, draw.Over, nil)
	return turned(small, turn)
}

// encoded is a JPEG of about the bytes aimed at: the best of some qualities that is not larger, else the least of them.
func encoded(picture image.Image) ([]byte, error) {
	var out bytes.Buffer
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
