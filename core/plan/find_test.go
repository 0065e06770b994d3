package plan

import (
	"reflect"
	"testing"
)

// TestThingsAreFoundByTheirIDs looks up every thing of a plan, and one of each kind that there is not.
func TestThingsAreFoundByTheirIDs(t *testing.T) {
	p := example(t)
	finders := map[string]func(id string) any{
		"duty": func(id string) any { return p.Duty(id) }, "activity": func(id string) any { return p.Activity(id) },
		"channel": func(id string) any { return p.Channel(id) }, "recorder": func(id string) any { return p.Recorder(id) },
		"pool": func(id string) any { return p.Pool(id) }, "week": func(id string) any { return p.Week(id) },
		"message": func(id string) any { return p.Message(id) }, "output": func(id string) any { return p.Output(id) },
		"monitor": func(id string) any { return p.Monitor(id) }, "alarm input": func(id string) any { return p.AlarmInput(id) },
		"call button": func(id string) any { return p.CallButton(id) }, "camera kind": func(id string) any { return p.Kind(id) },
		"object": func(id string) any { return p.Object(id) },
	}
	found := make(map[string]bool)
	p.EachThing(func(thing Thing) bool {
		find := finders[thing.Kind]
		if find == nil {
			return true
		}
		found[thing.Kind] = true
		if got := reflect.ValueOf(find(thing.Key)); got.IsNil() || got.Pointer() != thing.Value.Addr().Pointer() {
			t.Errorf("%s %s is not what is found by its id", thing.Kind, thing.Key)
		}
		return true
	})
	for kind, find := range finders {
		if !found[kind] {
			t.Errorf("the plan has no %s", kind)
		}
		if !reflect.ValueOf(find("none of these")).IsNil() {
			t.Errorf("a %s is found that is not there", kind)
		}
	}
	if p.Object("vehicle").MetresPerSecond != 4 {
		t.Error("a ready-made thing is not found")
	}
	if c := p.Channel("c2"); p.WeekOf(c) != &p.Week("gate").OwnWeek {
		t.Error("the channel's week is another one")
	}
}

func TestWhatIsAbsent(t *testing.T) {
	p := example(t)
	c1, c2 := p.Channel("c1"), p.Channel("c2")
	for what, got := range map[string][2]any{
		"alarm pre-event time":                  {c1.AlarmPreEvent(), 30.0},
		"alarm post-event time":                 {c1.AlarmPostEvent(), 60.0},
		"alarm pre-event time, as for motion":   {c2.AlarmPreEvent(), 5.0},
		"alarm post-event time, as for motion":  {c2.AlarmPostEvent(), 30.0},
		"own motion records":                    {c1.Detection.TiedToSelf(), true},
		"messages a day":                        {p.Message("m1").Readable(), 12.0},
		"messages a day, where nothing is said": {p.Message("m2").Readable(), 30.0},
		"a light":                               {p.Output("o1").Loud(), false},
		"a siren":                               {(&Output{Kind: "siren"}).Loud(), true},
		"who decides, where nothing is said":    {c1.CameraDecides(), false},
		"who decides":                           {c2.CameraDecides(), true},
		"how much it matters, unsaid":           {c1.Weight(), 2.0},
		"name of a preset":                      {c2.Movable.Name("road"), "Road"},
		"name of a preset that is not there":    {c1.Movable.Name("road"), "road"},
		"whether a fixed camera has presets":    {c1.Movable.Has("road"), false},
		"which stream, unsaid":                  {StreamName("").OrMain(), Main},
		"which stream":                          {Sub.OrMain(), Sub},
		"a stream that there is not":            {c1.Streams.Get(Third) == nil && c1.Streams.Get("fourth") == nil, true},
		"a stream that is replaced":             {c1.Streams.With(Sub, c2.Streams.Sub).Get(Sub), c2.Streams.Sub},
		"night where nothing is said":           {(*Night)(nil).Steps().At(0), false},
		"bytes of a snapshot at quality 3":      {c2.Stills.Bytes(), 1280 * 720 * 0.35 / 8},
		"bytes of a snapshot that was measured": {(&Stills{Kilobytes: 80}).Bytes(), 80000.0},
		"factor of settings that say nothing":   {Settings{}.Factor(), 1.0},
		"factor of half the bitrate, a step up": {Settings{Quality: 1, Percent: 50}.Factor(), 0.8},
		"minutes of a step, where all is taken": {(*Takes)(nil).Step(), 1},
		"minutes of a step":                     {p.Recorders[0].Takes.Step(), 30},
		"what a choice is called":               {Codecs.Name("h265"), "H.265"},
		"what a choice that is none is called":  {Codecs.Name("other"), "other"},
		"what all choices are called":           {InList(SmallestOf.Names()), "of the picture and of the area"},
	} {
		if got[0] != got[1] {
			t.Errorf("%s: %v, want %v", what, got[0], got[1])
		}
	}
}

// TestGridsOfRecorders gives the grid that is said, the usual one where nothing is, and none where areas are no cells.
func TestGridsOfRecorders(t *testing.T) {
	for _, test := range []struct {
		takes         *Takes
		columns, rows int
		on            bool
	}{
		{nil, 0, 0, false}, {&Takes{Areas: "polygon", GridRows: 3}, 0, 0, false}, {&Takes{Areas: "grid"}, 22, 18, true},
		{&Takes{Areas: "grid", GridColumns: 16, GridRows: 12}, 16, 12, true},
	} {
		if columns, rows, on := test.takes.Grid(); columns != test.columns || rows != test.rows || on != test.on {
			t.Errorf("%+v: %d by %d, %v", test.takes, columns, rows, on)
		}
	}
}

// TestWhatDrivesCost counts each drive at its price, and each size without a price once.
func TestWhatDrivesCost(t *testing.T) {
	p := example(t) // 4 × 4 TB, 1 × 2 TB, 1 × 8 TB
	if total, unknown := p.DrivesCost(); total != 0 || len(unknown) != 3 {
		t.Errorf("without prices: %v, unknown %v", total, unknown)
	}
	p.Prices = &Prices{Currency: "EUR", Drives: []DrivePrice{{4, 90}, {8.004, 150}}}
	if total, unknown := p.DrivesCost(); total != 510 || len(unknown) != 1 || unknown[0] != 2 {
		t.Errorf("%v, unknown %v; want 510 and the drive of 2 TB", total, unknown)
	}
}

// TestMentionsCanBeSet names others in the places of one channel and of one effect.
func TestMentionsCanBeSet(t *testing.T) {
	p := example(t)
	c, e := p.Channels[1], p.Effects[0]
	e.Record = []string{"c1", "c2"}
	for _, of := range []any{&c, &e} {
		MentionsIn(of, func(m Mention) bool {
			switch {
			case m.IsList() && m.Kind == "channel":
				m.Set("x", "y")
			case m.Kind == "pool":
				m.Set("elsewhere")
			}
			return true
		})
	}
	if c.Pool != "elsewhere" || len(e.Record) != 2 || e.Record[1] != "y" || p.Channels[1].Pool != "p1" {
		t.Errorf("pool %q, records %q", c.Pool, e.Record)
	}
	var in []string
	p.EachMention(func(m Mention) bool {
		if m.Kind == "pool" {
			in = append(in, m.In())
		}
		return true
	})
	if len(in) != 2 || in[1] != "channel 2, Gate" {
		t.Errorf("pools are named in %q", in)
	}
}

func TestPicturesAreListedOnce(t *testing.T) {
	p := example(t)
	if got := p.Pictures(); got != nil {
		t.Errorf("%q", got)
	}
	seen := &Scene{Picture: "sha"}
	p.Channels[0].Scene, p.Channels[1].Scene = seen, seen
	if got := p.Pictures(); len(got) != 1 || got[0] != "sha" {
		t.Errorf("%q", got)
	}
	cells := p.Channels[1].Detection.Area("tree").Cells // the first of 4 by 2
	on := cells.Painted()
	if !on(0, 0) || on(1, 0) || on(0, 1) {
		t.Error("it is not the first cell alone that is painted")
	}
	if (&AreaCells{Columns: 4, Rows: 2, On: "?"}).Painted()(0, 0) {
		t.Error("a cell is painted that cannot be read")
	}
}
