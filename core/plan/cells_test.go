package plan

import (
	"encoding/base64"
	"math"
	"strings"
	"testing"

	"wakefield.example/core/document"
	"wakefield.example/core/picture"
	"wakefield.example/core/seeded"
)

// FuzzCells gives areas cells of any kind. What the rules accept covers as much of the picture as there are cells painted.
func FuzzCells(fuzz *testing.F) {
	f := seeded.Of(fuzz, 2000)
	f.Add(16, 9, "AAAAAAAAD+AP4A/gD+AP4AAA")
	f.Add(128, 96, strings.Repeat("qqqqqqqqqqqqqqqqqqqqqVVVVVVVVVVVVVVVVVVVVQ==", 1))
	f.Add(1, 1, "gA==")
	f.Add(-1, 7, "")
	f.Add(3, 3, "not base64")
	f.Fuzz(func(t *testing.T, columns, rows int, on string) {
		area := Area{ID: "a", Name: "A", Cells: &AreaCells{Columns: columns, Rows: rows, On: on}}
		if document.Check("area", &area) != nil {
			return
		}
		c := &checker{}
		c.areas("areas", []Area{area})
		shape := area.Shape()
		if c.err != nil {
			if shape != nil {
				t.Error("cells that are refused cover something")
			}
			return
		}
		bits, err := base64.StdEncoding.DecodeString(on)
		if err != nil {
			t.Fatal(err)
		}
		painted := 0
		for i := range columns * rows {
			painted += int(bits[i/8] >> (7 - i%8) & 1)
		}
		if got, want := picture.NewRegion(shape, nil).Area(), float64(painted)/float64(columns*rows); math.Abs(got-want) > 1e-9 {
			t.Errorf("%d of %d × %d cells are painted, and cover %v", painted, columns, rows, got)
		}
	})
}
