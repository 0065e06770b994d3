package plan

// SceneKind is a kind of scene to begin with where nothing is known of a picture: how such a camera mostly hangs, an area to
// watch, and ways that people or vehicles take. All of it is a guess, to be dragged to what the picture shows.
type SceneKind struct {
	ID              string  `json:"id"`
	Name            string  `json:"name"`
	VerticalDegrees float64 `json:"verticalDegrees" doc:"Vertical angle of view"`
	CameraMetres    float64 `json:"cameraMetres"`
	TiltDegrees     float64 `json:"tiltDegrees"`
	Area            Area    `json:"area"`
	Walks           []Walk  `json:"walks"`
}

// SceneKinds are those that there are.
func SceneKinds() []SceneKind {
	area := func(name string, points ...Point) Area { return Area{ID: "watched", Name: name, Points: points} }
	walk := func(id, name, object string, share float64, points ...Point) Walk {
		return Walk{ID: id, Name: name, Object: object, SharePercent: share, Points: points}
	}
	return []SceneKind{
		{"door", "A door, from inside", 50, 2.6, 20, area("Before the door", Point{0.2, 0.4}, Point{0.8, 0.4},
			Point{0.9, 0.95}, Point{0.1, 0.95}),
			[]Walk{walk("in", "In at the door", "person", 100, Point{0.5, 0.42}, Point{0.42, 0.95})}},
		{"corridor", "A corridor", 45, 2.6, 15, area("The floor", Point{0.4, 0.3}, Point{0.6, 0.3}, Point{0.95, 0.98}, Point{0.05, 0.98}),
			[]Walk{walk("along", "Along it", "person", 100, Point{0.5, 0.32}, Point{0.58, 0.97})}},
		{"yard", "A yard", 55, 5, 22, area("The yard", Point{0.15, 0.35}, Point{0.85, 0.35}, Point{0.97, 0.95}, Point{0.03, 0.95}),
			[]Walk{walk("across", "Across it", "person", 60, Point{0.06, 0.7}, Point{0.94, 0.5}),
				walk("through", "In by vehicle", "vehicle", 40, Point{0.85, 0.4}, Point{0.4, 0.9})}},
		{"fence", "Along a fence", 40, 4, 12, area("This side of it", Point{0.3, 0.35}, Point{0.6, 0.35}, Point{0.95, 0.97}, Point{0.2, 0.97}),
			[]Walk{walk("along", "Along the fence", "person", 100, Point{0.46, 0.37}, Point{0.6, 0.95})}},
	}
}
