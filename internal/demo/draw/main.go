// Command draw draws the pictures of the sample site's cameras into the folder pictures. Run it by go generate after a
// view was changed.
package main

import (
	"bytes"
	"context"
	"image"
	"image/png"
	"log"
	"os"
	"path/filepath"

	"wakefield.example/internal/demo"
	"wakefield.example/internal/stills"
)

func main() {
	demo.Draw(960, 540, func(channel string, picture *image.Gray) {
		var file bytes.Buffer
		if err := png.Encode(&file, picture); err != nil {
			log.Fatal(err)
		}
		still, err := stills.Take(context.Background(), file.Bytes())
		if err == nil {
			err = os.WriteFile(filepath.Join("pictures", channel+".jpg"), still.JPEG, 0o644)
		}
		if err != nil {
			log.Fatal(channel, ": ", err)
		}
	})
}
