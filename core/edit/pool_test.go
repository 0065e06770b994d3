package edit

import (
	"slices"
	"strings"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
)

// TestKeepOnAnotherRecorder takes channels to a pool of a recorder that they are not on.
func TestKeepOnAnotherRecorder(t *testing.T) {
	p := plantest.Read(t, "../../internal/demo/pennywhistle-quay.json")
	second := plan.Recorder{ID: "attic", Name: "Attic recorder", Channels: 8, IngestMbps: 80, Pools: []plan.Pool{
		{ID: "attic-1", Name: "First", Layout: "span", Drives: []plan.DriveGroup{{Count: 1, Terabytes: 4}}},
		{ID: "attic-2", Name: "Second", Layout: "span", Drives: []plan.DriveGroup{{Count: 1, Terabytes: 8}}},
	}}
	a, b := p.Channels[3].ID, p.Channels[5].ID
	next, err := After(p, Edit{SetRecorder: &SetRecorder{second}}, Edit{KeepOn: &KeepOn{[]string{b, a}, "attic-2"}})
	if err != nil {
		t.Fatal(err)
	}
	for number, id := range []string{b, a} {
		if c := next.Channel(id); c.Recorder != "attic" || c.Pool != "attic-2" || c.Number != number+1 {
			t.Errorf("%s is channel %d of %s on %s", id, c.Number, c.Recorder, c.Pool)
		}
	}
	if p.Channel(a).Pool == "attic-2" {
		t.Error("the plan before was changed")
	}
}

// TestASplitPoolMayMoveNoChannel splits a pool of which no channel is to go.
func TestASplitPoolMayMoveNoChannel(t *testing.T) {
	p := plantest.Read(t, "../../internal/demo/pennywhistle-quay.json")
	pool := p.Recorders[0].Pools[0].ID
	next, err := After(p, Edit{SplitPool: &SplitPool{pool, "second", "Second", nil}})
	if err != nil {
		t.Fatal(err)
	}
	if n := len(next.Recorders[0].Pools); n != len(p.Recorders[0].Pools)+1 || next.Recorders[0].Pools[1].ID != "second" {
		t.Errorf("%d pools", n)
	}
	for i := range next.Channels {
		if next.Channels[i].Pool != p.Channels[i].Pool {
			t.Errorf("%s is kept on %s", next.Channels[i].Name, next.Channels[i].Pool)
		}
	}
}

// TestWhereMovedChannelsAreKept takes a channel to a recorder of one pool, and to one that has none.
func TestWhereMovedChannelsAreKept(t *testing.T) {
	p := plantest.Read(t, "../../internal/demo/pennywhistle-quay.json")
	shed := plan.Recorder{ID: "shed", Name: "Shed recorder", Channels: 4, IngestMbps: 80, Pools: []plan.Pool{
		{ID: "shed-1", Name: "Only", Layout: "span", Drives: []plan.DriveGroup{{Count: 1, Terabytes: 4}}}}}
	moved := Edit{MoveChannels: &MoveChannels{Channels: []string{p.Channels[2].ID}, Recorder: "shed"}}
	next, err := After(p, Edit{SetRecorder: &SetRecorder{shed}}, moved)
	if err != nil {
		t.Fatal(err)
	}
	if c := next.Channel(p.Channels[2].ID); c.Recorder != "shed" || c.Pool != "shed-1" || c.Number != 1 {
		t.Errorf("it is channel %d of %s on %s", c.Number, c.Recorder, c.Pool)
	}
	shed.Pools = nil
	bare := *p
	bare.Recorders = append(slices.Clone(p.Recorders), shed)
	if _, err := After(&bare, moved); err == nil || !strings.Contains(err.Error(), "Shed recorder has no pool") {
		t.Errorf("without a pool: %v", err)
	}
}

func TestHalvesOfDrives(t *testing.T) {
	list := []plan.DriveGroup{{Count: 3, Terabytes: 8}, {Count: 2, Terabytes: 4}}
	stay, moved := halves(list, 3)
	if len(stay) != 1 || stay[0].Count != 2 || len(moved) != 2 || moved[0].Count != 1 || moved[1].Count != 2 || list[0].Count != 3 {
		t.Errorf("%v and %v of %v", stay, moved, list)
	}
	p := plantest.Read(t, "../../internal/demo/pennywhistle-quay.json")
	one := p.Recorders[0].Pools[0]
	one.Drives = []plan.DriveGroup{{Count: 1, Terabytes: 4}}
	one.Layout = "span"
	if _, err := After(p, Edit{SetPool: &SetPool{p.Recorders[0].ID, one}},
		Edit{SplitPool: &SplitPool{one.ID, "other", "Other", nil}}); err == nil {
		t.Error("a single drive was split")
	}
}
