package demo

import "wakefield.example/internal/demo/scenery"

type (
	solids = []scenery.Solid
	box    = scenery.Box
	post   = scenery.Post
	paint  = scenery.Paint
)

// row sets the same thing several times, each a step further.
func row(n int, dx, dz float64, one func(x, z float64) solids) (out solids) {
	for i := range n {
		out = append(out, one(float64(i)*dx, float64(i)*dz)...)
	}
	return out
}

func all(lists ...solids) (out solids) {
	for _, l := range lists {
		out = append(out, l...)
	}
	return out
}

// room is a room with a ceiling that the camera hangs in: walls left, right and at the back.
func room(left, right, deep, high float64) solids {
	return solids{
		box{X: left - 0.1, Z: deep / 2, W: 0.2, H: high, D: deep, Grey: 0.86},
		box{X: right + 0.1, Z: deep / 2, W: 0.2, H: high, D: deep, Grey: 0.84},
		box{X: (left + right) / 2, Z: deep + 0.1, W: right - left + 0.4, H: high, D: 0.2, Grey: 0.9},
		box{X: (left + right) / 2, Z: deep / 2, Y: high, W: right - left + 0.4, H: 0.2, D: deep, Grey: 0.96},
	}
}

// bench is a seat with a back.
func bench(x, z, long float64) solids {
	return solids{box{X: x, Z: z, Y: 0.38, W: long, H: 0.08, D: 0.45, Grey: 0.55}, box{X: x, Z: z + 0.24, Y: 0.46, W: long,
		H: 0.42, D: 0.06, Grey: 0.5},
		box{X: x - long/2 + 0.1, Z: z, W: 0.08, H: 0.38, D: 0.4, Grey: 0.4}, box{X: x + long/2 - 0.1, Z: z, W: 0.08, H: 0.38, D: 0.4, Grey: 0.4}}
}

// rail is a row of posts with a bar on them, away from the camera.
func rail(x, from, to float64) solids {
	list := solids{box{X: x, Z: (from + to) / 2, Y: 0.98, W: 0.06, H: 0.06, D: to - from, Grey: 0.35}, box{X: x, Z: (from + to) / 2, Y: 0.5,
		W: 0.04, H: 0.04, D: to - from, Grey: 0.4}}
	for z := from; z <= to; z += 2 {
		list = append(list, post{X: x, Z: z, R: 0.05, H: 1.02, Grey: 0.35})
	}
	return list
}

// lorry is a closed lorry, a car something lower; both face the camera.
func lorry(x, z float64) solids {
	return solids{box{X: x, Z: z + 2.6, Y: 0.5, W: 2.3, H: 2.6, D: 5, Grey: 0.8}, box{X: x, Z: z - 0.6, Y: 0.5, W: 2.1,
		H: 1.7, D: 1.3, Grey: 0.6},
		box{X: x, Z: z - 1.26, Y: 1.3, W: 1.8, H: 0.7, D: 0.06, Grey: 0.25}, box{X: x, Z: z + 2, W: 1.8, H: 0.5, D: 5.4, Grey: 0.2}}
}

func car(x, z float64) solids {
	return solids{box{X: x, Z: z, Y: 0.3, W: 1.75, H: 0.6, D: 4.1, Grey: 0.65}, box{X: x, Z: z + 0.3, Y: 0.9, W: 1.5, H: 0.55, D: 2.1,
		Grey: 0.4}, box{X: x, Z: z, W: 1.6, H: 0.3, D: 3.6, Grey: 0.2}}
}

// hut is a small house with a door towards the camera.
func hut(x, z, wide, high, deep float64) solids {
	return solids{box{X: x, Z: z, W: wide, H: high, D: deep, Grey: 0.75}, box{X: x, Z: z, Y: high, W: wide + 0.4, H: 0.15,
		D: deep + 0.4, Grey: 0.5},
		box{X: x + wide/5, Z: z - deep/2 - 0.02, W: 0.9, H: 2, D: 0.04, Grey: 0.45}}
}

func lamp(x, z float64) solids {
	return solids{post{X: x, Z: z, R: 0.08, H: 5, Grey: 0.4}, box{X: x, Z: z - 0.4, Y: 5, W: 0.2, H: 0.12, D: 1, Grey: 0.4}}
}

// gangway is what both gangways look like; the hut stands at one side of them.
func gangway(side float64) scenery.Place {
	return scenery.Place{Ground: 0.83, Sky: 0.97,
		Painted: []paint{{X0: -90, X1: 90, Z0: 15, Z1: 400, Grey: 0.72, Waves: true}, {X0: -1.7, X1: 1.7, Z0: 3, Z1: 29, Grey: 0.9}},
		Solids: all(rail(-1.7, 9, 29), rail(1.7, 9, 29), hut(5.6*side, 13, 3, 2.6, 3),
			solids{box{X: 1, Z: 33, W: 44, H: 4.2, D: 7, Grey: 0.88}, box{X: 4, Z: 34, Y: 4.2, W: 18, H: 2.4, D: 5, Grey: 0.93},
				box{Z: 29.45, Y: 0, W: 3.2, H: 2.6, D: 0.1, Grey: 0.4}, box{X: 0, Z: 14.8, Y: -0.3, W: 60, H: 0.3, D: 0.5, Grey: 0.5}},
			row(4, -4.5*side, 0, func(x, _ float64) solids { return solids{post{X: x - 4*side, Z: 14.2, R: 0.2, H: 0.55, Grey: 0.3}} }))}
}

// lane is a lane for vehicles that wait to board, with its neighbours.
func lane() scenery.Place {
	return scenery.Place{Ground: 0.74, Sky: 0.96,
		Painted: []paint{{X0: -1.9, X1: -1.75, Z0: 0, Z1: 60, Grey: 0.97}, {X0: 1.75, X1: 1.9, Z0: 0, Z1: 60, Grey: 0.97},
			{X0: -1.75, X1: 1.75, Z0: 9, Z1: 9.4, Grey: 0.97},
			{X0: 5.3, X1: 5.45, Z0: 0, Z1: 60, Grey: 0.97}, {X0: -90, X1: 90, Z0: 62, Z1: 400, Grey: 0.7, Waves: true}},
		Solids: all(lorry(3.6, 20), car(3.5, 31), row(5, 0, 9, func(_, z float64) solids { return lamp(-4.2, 12+z) }),
			solids{box{X: -5.2, Z: 30, W: 0.3, H: 1.1, D: 52, Grey: 0.8}, box{X: 12, Z: 44, W: 8, H: 5, D: 14, Grey: 0.85}})}
}

// quayViews are those of all cameras of Pennywhistle Quay.
func quayViews() []view { return append(quayHouse(), quayOutside()...) }

// quayHouse are those of its rooms and gangways.
func quayHouse() []view {
	return []view{
		{channel: "hall", degrees: 50, height: 3.1, horizon: 0.2, people: [2]spot{{-1.5, 6}, {1.5, 14}},
			place: scenery.Place{Lamps: true, Ground: 0.88, Sky: 0.9, Painted: []paint{{X0: -1, X1: 1, Z0: 3, Z1: 19, Grey: 0.8}},
				Solids: all(room(-6.5, 6.5, 20, 4.4), bench(-5, 9, 2.2), bench(-5, 11.5, 2.2), bench(-5, 14, 2.2),
					solids{box{X: 5.6, Z: 12, W: 1.2, H: 1.1, D: 6, Grey: 0.6}, box{X: 5.6, Z: 12, Y: 1.1, W: 1.5, H: 0.08, D: 6.3, Grey: 0.45},
						box{X: 0, Z: 19.98, W: 3, H: 2.6, D: 0.06, Grey: 0.97},
						box{X: 0, Z: 19.94, W: 0.06, H: 2.6, D: 0.06, Grey: 0.3}, post{X: -3, Z: 13, R: 0.25, H: 4.4, Grey: 0.8},
						post{X: 3, Z: 13, R: 0.25, H: 4.4, Grey: 0.8}})},
			walks: []route{{"counter", "From the door to the counter", "person", 65, []spot{{0, 18.5}, {1.2, 13}, {4.3, 10.5}}},
				{"through", "Through to the gangways", "person", 35, []spot{{0, 18.5}, {-0.5, 11}, {-1.6, 5.5}}}},
			areas: []zone{{id: "floor", name: "Floor", ground: []spot{{-3, 5.2}, {3, 5.2}, {4.9, 9}, {4.9, 18.9}, {-4.6, 18.9}, {-3.9, 10}},
				smallest: 0.15}}},
		{channel: "booth", degrees: 62, height: 2.5, horizon: 0.12, people: [2]spot{{-0.6, 2.8}, {0.7, 4.6}},
			place: scenery.Place{Lamps: true, Ground: 0.8, Sky: 0.9,
				Solids: all(room(-2.2, 2.2, 5.6, 2.7), solids{box{X: 1.5, Z: 3.4, W: 1.3, H: 0.75, D: 2, Grey: 0.62},
					box{X: 1.5, Z: 3.4, Y: 0.75, W: 1.4, H: 0.05, D: 2.1, Grey: 0.45},
					box{X: 1.7, Z: 3.6, Y: 0.8, W: 0.5, H: 0.4, D: 0.05, Turn: 60, Grey: 0.25},
					box{X: 2.18, Z: 3.4, Y: 1.1, W: 0.06, H: 1, D: 1.6, Grey: 0.98}, box{X: -1.75, Z: 5, W: 0.8, H: 1, D: 0.8, Grey: 0.4},
					box{X: -0.4, Z: 5.58, W: 0.9, H: 2.05, D: 0.06, Grey: 0.5}, post{X: 0.5, Z: 3.3, R: 0.24, H: 0.5, Grey: 0.35}})},
			walks: []route{{"in", "From the door to the window", "person", 100, []spot{{-0.4, 5.2}, {0.1, 4}, {0.6, 3}}}},
			areas: []zone{{id: "room", name: "Floor and desk", ground: []spot{{-1.4, 2.45}, {1.3, 2.45}, {1.6, 5.4}, {-1.9, 5.4}}, smallest: 1}}},
		{channel: "waiting", degrees: 50, height: 2.9, horizon: 0.18, people: [2]spot{{0, 5}, {0.4, 11}},
			place: scenery.Place{Lamps: true, Ground: 0.86, Sky: 0.9, Solids: all(room(-5, 5, 14, 3.2),
				row(4, 0, 2.4, func(_, z float64) solids { return all(bench(-2.9, 5.4+z, 2.4), bench(2.9, 5.4+z, 2.4)) }),
				solids{box{X: 0, Z: 13.98, W: 1.8, H: 2.2, D: 0.06, Grey: 0.55}, box{X: -4.97, Z: 9, Y: 1, W: 0.06, H: 1.4, D: 5, Grey: 0.99},
					box{X: 4.4, Z: 13, W: 1, H: 1.9, D: 0.8, Grey: 0.45}})},
			walks: []route{{"sit", "From the door to a seat", "person", 70, []spot{{0, 13.2}, {0.3, 9}, {1.7, 7.4}}},
				{"child", "Children between the rows", "child", 30, []spot{{-0.8, 11.5}, {0.6, 8}, {-0.6, 5.2}}}},
			areas: []zone{{id: "aisle", name: "Aisle and seats", ground: []spot{{-2.6, 5}, {2.6, 5}, {4.6, 13.6}, {-4.6, 13.6}}, smallest: 0.4}}},
		{channel: "luggage", degrees: 54, height: 2.7, horizon: 0.15, people: [2]spot{{-0.4, 4}, {0.6, 8}},
			place: scenery.Place{Lamps: true, Ground: 0.78, Sky: 0.9, Solids: all(room(-3.4, 3.4, 10, 3),
				row(3, 0, 2.3, func(_, z float64) solids {
					var list solids
					for _, y := range []float64{0.1, 0.9, 1.7} {
						list = append(list, box{X: 2.8, Z: 4.6 + z, Y: y, W: 1.1, H: 0.06, D: 2.1, Grey: 0.45}, box{X: 2.8, Z: 4.3 + z, Y: y + 0.06, W: 0.7,
							H: 0.5, D: 0.5, Grey: 0.6}, box{X: 2.7, Z: 5.1 + z, Y: y + 0.06, W: 0.5, H: 0.35, D: 0.7, Turn: 15, Grey: 0.7})
					}
					return list
				}), solids{box{X: -1, Z: 9.98, W: 1.6, H: 2.2, D: 0.06, Grey: 0.5}, box{X: -2.4, Z: 5.5, W: 1.2, H: 0.9, D: 2.4, Grey: 0.55}})},
			walks: []route{{"rack", "From the door to the racks", "person", 100, []spot{{-1, 9.4}, {0.4, 7.4}, {1.5, 5}}}},
			areas: []zone{{id: "floor", name: "Floor", ground: []spot{{-1.6, 3.7}, {1.9, 3.7}, {2.2, 9.6}, {-2.6, 9.6}}, smallest: 0.8}}},
		{channel: "gangway-a", degrees: 46, height: 3.4, horizon: 0.2, people: [2]spot{{-0.8, 7}, {0.6, 16}}, place: gangway(-1),
			walks: []route{{"off", "Off the boat", "person", 70, []spot{{0, 24}, {0.3, 14}, {2.4, 6}}},
				{"hut", "Round the hut", "person", 30, []spot{{-4.4, 10.6}, {-2.6, 8.4}, {0.4, 6.2}}}},
			areas: []zone{{id: "deck", name: "Foot and deck", ground: []spot{{-3.4, 5.8}, {3.4, 5.8}, {1.9, 26}, {-1.9, 26}}, smallest: 0.12}}},
		{channel: "gangway-b", degrees: 46, height: 3.4, horizon: 0.2, people: [2]spot{{-0.8, 7}, {0.6, 16}}, place: gangway(1),
			walks: []route{{"off", "Off the boat", "person", 80, []spot{{0, 24}, {-0.3, 14}, {-2.2, 6}}},
				{"hut", "From the hut", "person", 20, []spot{{4.4, 10.6}, {2.6, 8.4}, {-0.4, 6.2}}}},
			areas: []zone{{id: "deck", name: "Foot and deck", ground: []spot{{-3.4, 5.8}, {3.4, 5.8}, {1.9, 26}, {-1.9, 26}}, smallest: 0.12}}},
	}
}

// vehicles are the ways of vehicles down a lane, and of people beside them.
func vehicles(x float64) []route {
	return []route{{"board", "Down the lane", "vehicle", 85, []spot{{x, 34}, {x, 5.6}}},
		{"foot", "On foot beside it", "person", 15, []spot{{x - 1.2, 13}, {x - 1.3, 5.8}}}}
}

// quayOutside are those of its berths, lanes and sheds.
func quayOutside() []view {
	return []view{
		{channel: "berth-north", degrees: 46, height: 3.14, horizon: 0.178,
			place: scenery.Place{Ground: 0.84, Sky: 0.97, Painted: []paint{{X0: -200, X1: 200, Z0: 24, Z1: 500, Grey: 0.7, Waves: true},
				{X0: -200, X1: -5.2, Z0: 9.5, Z1: 500, Grey: 0.7, Waves: true}},
				Solids: all(row(5, 1.4, 3.4, func(x, z float64) solids { return solids{post{X: -4.6 + x*0.1, Z: 9 + z, R: 0.24, H: 0.6, Grey: 0.3}} }),
					solids{box{X: 3.6, Z: 13, W: 0.8, H: 4.5, D: 0.8, Grey: 0.5}, box{X: 2.2, Z: 13, Y: 4.5, W: 4.4, H: 0.5, D: 0.5, Grey: 0.5},
						box{X: 3.6, Z: 13, W: 1.8, H: 0.8, D: 1.8, Grey: 0.6},
						box{X: -16, Z: 36, W: 26, H: 5, D: 8, Grey: 0.9}, box{X: -14, Z: 37, Y: 5, W: 12, H: 2.6, D: 5, Grey: 0.94},
						box{X: 5.6, Z: 23.6, Y: 0, W: 0.7, H: 1.1, D: 0.1, Grey: 0.3}})}},
		{channel: "breakwater", degrees: 40, height: 4.2, horizon: 0.18, people: [2]spot{{-0.6, 9}, {0.5, 20}},
			place: scenery.Place{Ground: 0.66, Sky: 0.97, Painted: []paint{{X0: -300, X1: 300, Z0: 0, Z1: 600, Grey: 0.7, Waves: true},
				{X0: -2.6, X1: 2.6, Z0: 0, Z1: 74, Grey: 0.86}},
				Solids: all(solids{box{X: 3, Z: 40, W: 0.8, H: 1.3, D: 68, Grey: 0.78}},
					row(6, 0, 10, func(_, z float64) solids { return lamp(-2.3, 14+z) }),
					row(14, 0, 4.6, func(_, z float64) solids {
						return solids{box{X: -3.4 - 0.3*float64(int(z)%3), Z: 9 + z, W: 1.5, H: 0.7, D: 1.7, Turn: 20 + 7*z, Grey: 0.55}}
					}), solids{post{X: 0, Z: 76, R: 1.6, H: 6, Grey: 0.92}, post{X: 0, Z: 76, Y: 6, R: 1.1, H: 1.5, Grey: 0.5}})},
			walks: []route{{"out", "Out along the wall", "person", 60, []spot{{0.2, 8.2}, {0.4, 30}}},
				{"back", "Back to the quay", "person", 40, []spot{{-0.6, 28}, {-0.4, 8.4}}}},
			areas: []zone{{id: "wall", name: "Wall and stones", ground: []spot{{-4.6, 7.8}, {2.6, 7.8}, {2.6, 34}, {-4.6, 34}}, smallest: 0.1}},
			patches: []zone{{id: "surf", name: "Surf on the stones", activity: "waves", blob: 0.5,
				ground: []spot{{-4.5, 8.6}, {-2.8, 8.6}, {-2.8, 28}, {-4.5, 28}}}}},
		{channel: "lane-1", degrees: 44, height: 4.6, horizon: 0.16, people: [2]spot{{-1, 8}, {1, 20}}, place: lane(), walks: vehicles(0),
			areas: []zone{{id: "lane", name: "Lane", ground: []spot{{-2.6, 6.2}, {2.3, 6.2}, {2.2, 38}, {-2.2, 38}}, smallest: 0.3}}},
		{channel: "lane-2", degrees: 44, height: 4.6, horizon: 0.16, people: [2]spot{{-1, 8}, {1, 20}}, place: lane(), walks: vehicles(0.2),
			areas: []zone{{id: "lane", name: "Lane", ground: []spot{{-2.6, 6.2}, {2.3, 6.2}, {2.2, 38}, {-2.2, 38}}, smallest: 0.3}}},
		{channel: "barrier", degrees: 40, height: 3.2, horizon: 0.22, people: [2]spot{{-1.4, 8}, {1.2, 15}},
			place: scenery.Place{Ground: 0.75, Sky: 0.96, Painted: []paint{{X0: -2.4, X1: 2.4, Z0: 0, Z1: 60, Grey: 0.7},
				{X0: -2.4, X1: 2.4, Z0: 10.6, Z1: 11, Grey: 0.97}},
				Solids: all(solids{box{X: 3, Z: 12, W: 0.4, H: 1.1, D: 0.4, Grey: 0.4},
					box{X: 0.2, Z: 12, Y: 0.95, W: 5.4, H: 0.1, D: 0.08, Grey: 0.95}, box{X: 0.9, Z: 11.95, Y: 0.94, W: 0.7, H: 0.12, D: 0.02, Grey: 0.3},
					box{X: -0.9, Z: 11.95, Y: 0.94, W: 0.7, H: 0.12, D: 0.02, Grey: 0.3}}, hut(5.6, 14, 2.4, 2.5, 2.4), car(0.3, 19), lorry(0.2, 28),
					solids{box{X: -7, Z: 22, W: 0.4, H: 2.2, D: 30, Grey: 0.82}})},
			walks: []route{{"through", "Up to the barrier and through", "vehicle", 90, []spot{{0, 26}, {0, 5.4}}},
				{"round", "On foot round its end", "person", 10, []spot{{-2.6, 15}, {-2.4, 6.4}}}},
			areas: []zone{{id: "road", name: "Road", ground: []spot{{-3, 5.6}, {2.4, 5.6}, {2.4, 30}, {-3.4, 30}}, smallest: 0.25},
				{id: "glare", name: "Lit wall", ignore: true, picture: []spot{{0.02, 0.17}, {0.4, 0.2}, {0.36, 0.36}, {0.02, 0.66}}}},
			patches: []zone{{id: "beams", name: "Headlights on the wall", activity: "headlights", blob: 2,
				picture: []spot{{0.04, 0.22}, {0.3, 0.24}, {0.27, 0.36}, {0.05, 0.5}}}}},
		{channel: "kiosk", degrees: 52, height: 2.9, horizon: 0.2, people: [2]spot{{-1, 4.6}, {1, 8}},
			place: scenery.Place{Ground: 0.8, Sky: 0.96, Painted: []paint{{X0: -60, X1: 60, Z0: 16, Z1: 300, Grey: 0.7, Waves: true}},
				Solids: all(solids{box{X: 0, Z: 11, W: 6, H: 2.8, D: 3, Grey: 0.78}, box{X: 0, Z: 9, Y: 2.5, W: 6.2, H: 0.1, D: 1.4, Grey: 0.5},
					box{X: 0, Z: 9.47, Y: 1, W: 4, H: 1.2, D: 0.06, Grey: 0.35}, box{X: 0, Z: 9.3, Y: 0.95, W: 4.2, H: 0.06, D: 0.5, Grey: 0.6}},
					bench(-4, 7, 1.8), solids{post{X: 3.6, Z: 8, R: 0.3, H: 0.9, Grey: 0.4}})},
			walks: []route{{"up", "Up to the window", "person", 80, []spot{{-2.4, 4.4}, {-0.6, 7}, {0.4, 8.8}}},
				{"past", "Past it", "person", 20, []spot{{-3.4, 6}, {3.4, 6.4}}}},
			areas: []zone{{id: "front", name: "Before the window", ground: []spot{{-2.6, 4.1}, {2.6, 4.1}, {4, 9.2}, {-4, 9.2}}, smallest: 0.6}}},
		{channel: "fuel", degrees: 48, height: 3, horizon: 0.18, people: [2]spot{{-1, 5.4}, {1.4, 10}},
			place: scenery.Place{Ground: 0.76, Sky: 0.96, Solids: all(solids{post{X: -2.4, Z: 11, R: 1.3, H: 3.4, Grey: 0.85},
				post{X: 1.2, Z: 11.6, R: 1.3, H: 3.4, Grey: 0.85}, box{X: -0.6, Z: 9.4, W: 7.4, H: 0.5, D: 0.2, Grey: 0.6},
				box{X: 0, Z: 15, W: 16, H: 3.6, D: 0.3, Grey: 0.8}, box{X: 4.6, Z: 14.8, W: 1.2, H: 2.1, D: 0.1, Grey: 0.4},
				box{X: 4.4, Z: 8, W: 0.5, H: 1.4, D: 0.5, Grey: 0.4}}, rail(-4.6, 5, 13))}},
		{channel: "workshop", degrees: 54, height: 3.6, horizon: 0.18, people: [2]spot{{-1, 6}, {1.5, 11}},
			place: scenery.Place{Lamps: true, Ground: 0.72, Sky: 0.9, Painted: []paint{{X0: -1.2, X1: 1.2, Z0: 3, Z1: 15, Grey: 0.8}},
				Solids: all(room(-6, 6, 15, 5), solids{box{X: -5.2, Z: 9, W: 1.2, H: 0.9, D: 6, Grey: 0.5},
					box{X: -5.7, Z: 9, Y: 1.2, W: 0.2, H: 1.2, D: 5, Grey: 0.7}, box{X: 3.2, Z: 8.6, W: 1.6, H: 0.5, D: 2.6, Grey: 0.4},
					box{X: 3.2, Z: 8.6, Y: 0.5, W: 1, H: 0.9, D: 2, Grey: 0.55}, post{X: 3.2, Z: 7.2, Y: 0.6, R: 0.4, H: 0.5, Grey: 0.3},
					box{X: 0, Z: 14.98, W: 4, H: 3.6, D: 0.06, Grey: 0.6}, box{X: 0, Z: 9, Y: 4.4, W: 12, H: 0.4, D: 0.5, Grey: 0.45},
					box{X: 3.2, Z: 9, Y: 3.1, W: 0.06, H: 1.3, D: 0.06, Grey: 0.3}})},
			walks: []route{{"bench", "From the doors to the bench", "person", 60, []spot{{0, 14}, {-1.2, 10}, {-3.6, 8}}},
				{"engine", "Round the engine", "person", 40, []spot{{1.2, 12.6}, {1.6, 8.6}, {1.4, 6}}}},
			areas: []zone{{id: "floor", name: "Floor", ground: []spot{{-4, 5.6}, {4, 5.6}, {5.4, 14.4}, {-5.4, 14.4}}, smallest: 0.4}}},
		{channel: "slipway", degrees: 44, height: 4, horizon: 0.2, people: [2]spot{{-1, 8}, {1, 16}},
			place: scenery.Place{Ground: 0.8, Sky: 0.97, Painted: []paint{{X0: -200, X1: 200, Z0: 21, Z1: 500, Grey: 0.7, Waves: true},
				{X0: -3, X1: 3, Z0: 5, Z1: 21, Grey: 0.72}, {X0: -1, X1: -0.85, Z0: 5, Z1: 21, Grey: 0.4}, {X0: 0.85, X1: 1, Z0: 5, Z1: 21, Grey: 0.4}},
				Solids: all(solids{box{X: 0.2, Z: 15, Y: 0.5, W: 1.8, H: 0.9, D: 5.4, Turn: 4, Grey: 0.88},
					box{X: 0.2, Z: 16, Y: 1.4, W: 1.3, H: 0.9, D: 1.8, Turn: 4, Grey: 0.7}, box{X: 0, Z: 15, W: 1.4, H: 0.5, D: 4, Grey: 0.4},
					box{X: -3.4, Z: 13, W: 0.4, H: 0.8, D: 17, Grey: 0.65}, box{X: 3.4, Z: 13, W: 0.4, H: 0.8, D: 17, Grey: 0.65},
					box{X: 5.6, Z: 11, W: 1.2, H: 1.4, D: 1.6, Grey: 0.5}})}},
		// The last channel has no camera yet: this is what one would see that hung where it could.
		{channel: "spare", degrees: 46, height: 4, horizon: 0.18, people: [2]spot{{-1, 8}, {1, 17}},
			place: scenery.Place{Ground: 0.82, Sky: 0.97, Painted: []paint{{X0: -200, X1: 200, Z0: 26, Z1: 500, Grey: 0.7, Waves: true}},
				Solids: all(hut(-6, 17, 4, 2.7, 3.4), row(5, 0, 0.9, func(_, z float64) solids {
					return solids{box{X: 3.4, Z: 22.4 + z, Y: -0.2, W: 3.2, H: 0.9 - 0.18*z, D: 0.9, Grey: 0.75}}
				}), rail(1.6, 14, 22), solids{post{X: 8, Z: 24, R: 0.12, H: 7, Grey: 0.45},
					box{X: 8.6, Z: 24, Y: 6.2, W: 1.1, H: 0.7, D: 0.04, Grey: 0.35}})}},
	}
}

// barrel is a cask that stands.
func barrel(x, z, size float64) solids {
	return solids{post{X: x, Z: z, R: 0.36 * size, H: size, Grey: 0.5}, post{X: x, Z: z, Y: size, R: 0.3 * size, H: 0.03, Grey: 0.65}}
}

// ciderViews are those of all cameras of Brackenhall Cider Works. Nothing is drawn in them yet.
func ciderViews() []view {
	return []view{
		{channel: "gate", degrees: 44, height: 3.6, horizon: 0.2, people: [2]spot{{-1, 7}, {1, 15}},
			place: scenery.Place{Ground: 0.78, Sky: 0.97, Painted: []paint{{X0: -2.2, X1: 2.2, Z0: 0, Z1: 90, Grey: 0.7}},
				Solids: all(solids{box{X: -3, Z: 16, W: 0.9, H: 2.4, D: 0.9, Grey: 0.7}, box{X: 3, Z: 16, W: 0.9, H: 2.4, D: 0.9, Grey: 0.7},
					box{X: -1.6, Z: 14.8, W: 0.1, H: 1.3, D: 2.4, Turn: 25, Grey: 0.5},
					box{X: 9, Z: 20, W: 11, H: 1.4, D: 0.4, Grey: 0.65}, box{X: -9, Z: 20, W: 11, H: 1.4, D: 0.4, Grey: 0.65}},
					row(6, 3.4, 1.6, func(x, z float64) solids {
						return solids{post{X: x - 9, Z: 30 + z, R: 0.25, H: 2, Grey: 0.4}, post{X: x - 9, Z: 30 + z, Y: 2, R: 1.5, H: 2.4, Grey: 0.6}}
					}))}},
		{channel: "yard", degrees: 50, height: 4.4, horizon: 0.18, people: [2]spot{{-1.5, 8}, {2, 17}},
			place: scenery.Place{Ground: 0.8, Sky: 0.97, Solids: all(solids{box{X: -8, Z: 18, W: 8, H: 4.2, D: 10, Grey: 0.82},
				box{X: -4.1, Z: 16, W: 0.1, H: 2.6, D: 2.4, Grey: 0.4}, box{X: 7, Z: 26, W: 12, H: 3.6, D: 6, Grey: 0.75},
				box{X: 5, Z: 22.9, W: 2.6, H: 2.6, D: 0.1, Grey: 0.4}, box{X: 4, Z: 12, Y: 0.5, W: 1.8, H: 0.7, D: 3.2, Turn: 30, Grey: 0.6},
				box{X: 4, Z: 12, W: 1.4, H: 0.5, D: 2.6, Turn: 30, Grey: 0.3}},
				row(4, 0.85, 0, func(x, _ float64) solids { return barrel(-3+x, 12.5, 0.95) }))}},
		{channel: "press", degrees: 54, height: 3.4, horizon: 0.18, people: [2]spot{{-1, 5.6}, {1.4, 10}},
			place: scenery.Place{Lamps: true, Ground: 0.75, Sky: 0.9, Solids: all(room(-5.4, 5.4, 13, 4.6),
				solids{box{X: 1.6, Z: 8.6, W: 2.2, H: 0.7, D: 2.2, Grey: 0.5}, box{X: 0.6, Z: 8.6, Y: 0.7, W: 0.16, H: 2.2, D: 0.16, Grey: 0.4},
					box{X: 2.6, Z: 8.6, Y: 0.7, W: 0.16, H: 2.2, D: 0.16, Grey: 0.4}, box{X: 1.6, Z: 8.6, Y: 2.8, W: 2.5, H: 0.3, D: 0.5, Grey: 0.45},
					post{X: 1.6, Z: 8.6, Y: 0.7, R: 0.7, H: 0.9, Grey: 0.6}, post{X: 1.6, Z: 8.6, Y: 1.6, R: 0.12, H: 1.3, Grey: 0.3},
					post{X: -3.6, Z: 10, R: 1, H: 2.6, Grey: 0.8}, post{X: -3.6, Z: 7.4, R: 1, H: 2.6, Grey: 0.8},
					box{X: 0, Z: 12.98, W: 2.6, H: 3, D: 0.06, Grey: 0.55}})}},
		{channel: "cellar", degrees: 54, height: 2.6, horizon: 0.16, people: [2]spot{{-0.5, 4}, {0.4, 7.4}},
			place: scenery.Place{Lamps: true, Ground: 0.7, Sky: 0.9, Solids: all(room(-3, 3, 9, 2.9),
				row(4, 0, 1.3, func(_, z float64) solids { return all(barrel(-2.3, 4+z, 1.1), barrel(2.3, 4+z, 1.1)) }),
				solids{box{X: 0, Z: 8.98, W: 1.4, H: 2.1, D: 0.06, Grey: 0.4}, box{X: 0, Z: 8.95, Y: 0.9, W: 1.1, H: 0.08, D: 0.04, Grey: 0.25}})}},
		{channel: "bottling", degrees: 52, height: 3.2, horizon: 0.2, people: [2]spot{{-1.8, 5.4}, {1.8, 9}},
			place: scenery.Place{Lamps: true, Ground: 0.82, Sky: 0.9,
				Solids: all(room(-4.6, 4.6, 12, 3.8), solids{box{X: 0, Z: 7.6, Y: 0.8, W: 0.7, H: 0.12, D: 7, Grey: 0.5},
					box{X: 0, Z: 9, W: 1.8, H: 2.2, D: 1.6, Grey: 0.7}, box{X: 3.6, Z: 8, W: 1.4, H: 1.2, D: 3, Grey: 0.55}},
					row(5, 0, 1.5, func(_, z float64) solids {
						return solids{box{X: 0, Z: 4.6 + z, W: 0.5, H: 0.8, D: 0.1, Grey: 0.35}}
					}), row(9, 0, 0.3, func(_, z float64) solids {
						return solids{post{X: 0, Z: 4.4 + z, Y: 0.92, R: 0.05, H: 0.26, Grey: 0.3}}
					}))}},
	}
}
