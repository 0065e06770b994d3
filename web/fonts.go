package web

import (
	"embed"
	"fmt"
)

//go:embed all:fonts
var fonts embed.FS

// Fonts that papers are set in, TrueType, as their npm packages have them.
const (
	RegularFont  = "AtkinsonHyperlegibleNext_400Regular.ttf"
	SemiBoldFont = "AtkinsonHyperlegibleNext_600SemiBold.ttf"
	OtherFont    = "DejaVuSans.ttf" // for letters that the others do not have
)

// Font is the file of a font. It is an error where the front end was not built.
func Font(name string) ([]byte, error) {
	data, err := fonts.ReadFile("fonts/" + name)
	if err != nil {
		return nil, fmt.Errorf("the font %s was not built into this program; run make build", name)
	}
	return data, nil
}
