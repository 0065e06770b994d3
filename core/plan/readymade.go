package plan

import (
	"wakefield.example/core/week"
)

// PlainStream is a stream of which nothing is known yet: what cameras are usually
// set to, with a modelled bitrate.
func PlainStream(which StreamName) *Stream {
	s := &Stream{Codec: "h265", Width: 1920, Height: 1080, FPS: 15, GOPSeconds: 2, Rate: Rate{Kind: "modelled", Quality: 3, Scene: "moderate"}}
	if which != Main {
		s.Codec, s.Width, s.Height, s.FPS = "h264", 640, 360, 8
	}
	return s
}

// ReadyMade are the duties a new plan begins with.
func ReadyMade() []Duty {
	motion, either := []Trigger{Motion}, []Trigger{Motion, Alarm}
	return []Duty{
		{ID: "clock", Name: "Round the clock", Base: &Base{Stream: Main}},
		{ID: "motion", Name: "Motion only", Event: &Event{Stream: Main, On: motion}},
		{ID: "marks", Name: "Round the clock with marks", Base: &Base{Stream: Main}, Event: &Event{Stream: Main, On: either, Match: "any"}},
		{ID: "low", Name: "Low, then full", Base: &Base{Stream: Sub}, Event: &Event{Stream: Main, On: motion}},
		{ID: "keyframes", Name: "Keyframes, then full", Base: &Base{Stream: Main, KeyframesOnly: true}, Event: &Event{Stream: Main, On: motion}},
		{ID: "alarm", Name: "Alarm only", Event: &Event{Stream: Main, On: []Trigger{Alarm}}},
		{ID: "off", Name: "Off"},
	}
}

// SceneTemplates are the ids of those templates that a camera can look at: not what moves
// beside, nor what a contact tells.
func SceneTemplates() []string {
	beside := map[string]bool{"waves": true, "leaves": true, "headlights": true, "door": true}
	var out []string
	for _, a := range ActivityTemplates() {
		if !beside[a.ID] {
			out = append(out, a.ID)
		}
	}
	return out
}

// ActivityTemplates are invented places to start an activity from: guesses, and
// marked so, with groups where people or vehicles come together.
func ActivityTemplates() []Activity {
	working := []week.Weekday{week.Monday, week.Tuesday, week.Wednesday, week.Thursday, week.Friday}
	weekend := []week.Weekday{week.Saturday, week.Sunday}
	block := func(days []week.Weekday, from, to int, perHour float64) RateBlock {
		return RateBlock{Hours{days, week.Clock(from * 60), week.Clock(to * 60)}, perHour}
	}
	guess := func(id, name string, seconds, otherwise float64, blocks ...RateBlock) Activity {
		return Activity{ID: id, Name: name, Known: "guess", MeanSeconds: seconds, OtherwisePerHour: otherwise, Blocks: blocks}
	}
	in := func(size, seconds float64, a Activity) Activity {
		a.Groups = &Groups{Size: size, WithinSeconds: seconds}
		return a
	}
	return []Activity{
		in(3, 60, guess("hall", "A hall that fills before departures", 18, 0.2,
			block(nil, 6, 8, 40), block(nil, 8, 16, 18), block(nil, 16, 19, 45), block(nil, 19, 22, 10))),
		in(1.5, 20, guess("counter", "A counter in opening hours", 35, 0, block(working, 8, 18, 12), block(weekend, 9, 14, 8))),
		in(2, 40, guess("lane", "A lane for vehicles", 14, 1, block(nil, 6, 9, 30), block(nil, 9, 17, 12), block(nil, 17, 20, 28))),
		in(1, 60, guess("store", "A store that few enter", 60, 0.05, block(working, 7, 17, 1.5))),
		in(2, 120, guess("workshop", "A workshop on working days", 90, 0.1, block(working, 7, 12, 14), block(working, 13, 17, 12))),
		in(1, 60, guess("press", "A cider press in the season", 120, 0, block([]week.Weekday{0, 1, 2, 3, 4, 5}, 6, 20, 9))),
		in(2, 180, guess("yard", "A yard where trams turn in", 25, 2, block(nil, 4, 7, 22), block(nil, 7, 21, 8), block(nil, 21, 24, 18))),
		in(3, 240, guess("quay", "A quay with moorings", 30, 0.8, block(nil, 5, 22, 5))),
		in(1.7, 15, guess("entrance", "An entrance of offices", 8, 0.3,
			block(working, 7, 9, 60), block(working, 9, 12, 25), block(working, 12, 14, 45), block(working, 14, 16, 20),
			block(working, 16, 18, 50))),
		in(1.4, 15, guess("corridor", "A corridor of offices", 10, 0.2, block(working, 8, 18, 14))),
		in(1.6, 20, guess("street", "A street with passers-by", 12, 4, block(nil, 6, 9, 40), block(nil, 9, 17, 55), block(nil, 17, 20, 70),
			block(nil, 20, 24, 20))),
		in(2, 60, guess("carpark", "A car park of a shop", 25, 0.5, block([]week.Weekday{0, 1, 2, 3, 4, 5}, 8, 20, 22))),
		in(1, 60, guess("till", "A till of a shop", 60, 0, block([]week.Weekday{0, 1, 2, 3, 4, 5}, 8, 20, 18))),
		in(1.5, 120, guess("machines", "A machine hall in two shifts", 90, 0.3, block(working, 6, 22, 10))),
		in(3, 600, guess("loading", "A loading bay", 180, 0.05, block(working, 6, 16, 4))),
		in(4, 20, guess("school", "A corridor of a school", 6, 0.1, block(working, 8, 16, 15),
			RateBlock{Hours{working, 450, 480}, 240}, RateBlock{Hours{working, 570, 590}, 300}, RateBlock{Hours{working, 680, 695}, 300},
			RateBlock{Hours{working, 780, 810}, 240})),
		in(1.2, 20, guess("backdoor", "A quiet back door", 12, 0.05, block(working, 7, 18, 1.2))),
		in(1, 60, guess("fence", "A fence at night", 20, 0.1, block(nil, 22, 6, 0.25))),
		in(5, 40, guess("waves", "Waves and gulls (nuisance)", 6, 10, block(nil, 10, 20, 22))),
		in(4, 60, guess("leaves", "Wind in leaves (nuisance)", 8, 4, block(nil, 11, 19, 9))),
		in(2, 30, guess("headlights", "Headlights at night (nuisance)", 4, 0, block(nil, 18, 6, 6))),
		in(1.5, 15, guess("door", "A door contact", 20, 0.05, block(working, 7, 18, 2))),
	}
}
