package scenery

import (
	"image"
	"math"
	"testing"

	"wakefield.example/core/picture"
)

// rows are the first and the last row in which a picture with somebody in it is another than without.
func rows(with, without *image.Gray) (top, bottom float64) {
	height := with.Rect.Dy()
	first, last := -1, -1
	for i, v := range with.Pix {
		if math.Abs(float64(v)-float64(without.Pix[i])) > 4 {
			if first < 0 {
				first = i / with.Stride
			}
			last = i / with.Stride
		}
	}
	return float64(first) / float64(height), float64(last+1) / float64(height)
}

// TestTwoPeopleTellHowTheCameraHangs draws two people of 1.7 m, measures them in the picture, and finds the camera.
func TestTwoPeopleTellHowTheCameraHangs(t *testing.T) {
	for _, camera := range []Camera{
		{Height: 3.4, Focal: picture.FocalOf(46), Horizon: 0.18, Aspect: 16.0 / 9},
		{Height: 2.6, Focal: picture.FocalOf(60), Horizon: 0.3, Aspect: 4.0 / 3},
		{Height: 7, Focal: picture.FocalOf(30), Horizon: -0.1, Aspect: 16.0 / 9},
	} {
		height := 1080
		width := int(camera.Aspect * float64(height))
		empty := Place{Ground: 0.9, Sky: 1}
		without := Render(empty, camera, width, height)
		measure := func(x, z float64) picture.Person {
			// Thin, so that the row of the feet is that of the middle of the foot. The shadow falls away from the camera.
			at := Place{Ground: 0.9, Sky: 1, Solids: []Solid{Post{X: x, Z: z, R: 0.01, H: picture.PersonMetres, Grey: 0.1}}}
			head, feet := rows(Render(at, camera, width, height), without)
			return picture.Person{Feet: feet, Head: head}
		}
		near := camera.Height * camera.Focal / (0.95 - camera.Horizon)
		a, b := measure(-0.5, near), measure(0.8, 2*near)
		g, err := picture.FromTwo(a, b, camera.Focal, camera.Aspect)
		if err != nil {
			t.Errorf("%+v: %v", camera, err)
			continue
		}
		if math.Abs(g.Camera-camera.Height) > 0.01*camera.Height || math.Abs(g.Horizon-camera.Horizon) > 0.01 {
			t.Errorf("%+v is taken for %+v", camera, g)
		}
	}
}

func TestSolidsAreMetWhereTheyStand(t *testing.T) {
	eye, ahead := vector{0, 1, 0}, vector{0, 0, 1}
	for name, test := range map[string]struct {
		solid Solid
		far   float64
		ok    bool
	}{
		"a box ahead":            {Box{Z: 10, W: 2, H: 2, D: 4}, 8, true},
		"a box turned":           {Box{Z: 10, W: 2, H: 2, D: 4, Turn: 90}, 9, true},
		"a box turned by halves": {Box{Z: 10, W: 2, H: 2, D: 2, Turn: 45}, 10 - math.Sqrt2, true},
		"a box beside":           {Box{X: 3, Z: 10, W: 2, H: 2, D: 4}, 0, false},
		"a box behind":           {Box{Z: -10, W: 2, H: 2, D: 4}, 0, false},
		"a low box":              {Box{Z: 10, W: 2, H: 0.9, D: 4}, 0, false},
		"a post":                 {Post{Z: 5, R: 0.5, H: 2}, 4.5, true},
		"a low post":             {Post{Z: 5, R: 0.5, H: 0.5}, 0, false},
	} {
		far, normal, ok := test.solid.hit(eye, ahead)
		if ok != test.ok || ok && (math.Abs(far-test.far) > 1e-9 || normal.z >= 0 || math.Abs(normal.dot(normal)-1) > 1e-9) {
			t.Errorf("%s: %v, %v, %v", name, far, normal, ok)
		}
	}
	if _, normal, ok := (Post{Z: 5, R: 0.5, H: 0.5}).hit(eye, vector{0, -0.5 / 5, 1}); !ok || normal.y != 1 {
		t.Errorf("the top of a post: %v, %v", normal, ok)
	}
}
