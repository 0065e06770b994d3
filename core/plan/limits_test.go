package plan

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"
)

func TestTextsAreTexts(t *testing.T) {
	p := example(t)
	p.Channels[0].Name = "Gang\x00way"
	if err := p.Check(); err == nil || !strings.HasPrefix(err.Error(), "channels[0].name: has a character U+0000") {
		t.Errorf("%v", err)
	}
	data := strings.Replace(string(whole(t)), `"name": "`, "\"name\": \"K\xe4the ", 1)
	if _, err := Read([]byte(data)); err == nil || !strings.HasPrefix(err.Error(), "line ") || !strings.HasSuffix(err.Error(), "not UTF-8") {
		t.Errorf("%v", err)
	}
	if strings.Replace(data, "\xe4", "", 1) == data {
		t.Error("the plan was not spoilt")
	}
}

func TestBudgetsOfTheWholePlan(t *testing.T) {
	p := example(t)
	all := make([]string, 5000)
	for i := range all {
		all[i] = "c1"
	}
	for range 20 {
		p.Effects = append(p.Effects, Effect{When: When{Motion: "c1"}, Record: all})
	}
	if err := p.Check(); err == nil || !strings.Contains(err.Error(), "]: more than 100000 ties") {
		t.Errorf("%v", err)
	}
	p = example(t)
	p.Effects = p.Effects[:0]
	for range 19 {
		p.Effects = append(p.Effects, Effect{When: When{Motion: "c1"}, Record: all})
	}
	if err := p.Check(); err != nil {
		t.Errorf("95,000 ties: %v", err)
	}
	p = example(t)
	for i := range 11 {
		r := p.Recorders[0]
		r.ID, r.Pools = fmt.Sprint("more", i), nil
		for j := range 100 {
			pool := p.Recorders[0].Pools[0]
			pool.ID = fmt.Sprint("pool", i, "-", j)
			r.Pools = append(r.Pools, pool)
		}
		p.Recorders = append(p.Recorders, r)
	}
	if err := p.Check(); err == nil || !strings.Contains(err.Error(), "].pools: more than 1000 pools") {
		t.Errorf("%v", err)
	}
}

// TestOneMeasureOfSize makes a plan that is just small enough. It is larger than the
// limit as a file for people, and can be read back all the same.
func TestOneMeasureOfSize(t *testing.T) {
	p := example(t)
	long := strings.Repeat("o", 100) // large by what is written, so that it is read in a second
	p.Duties = append(p.Duties, Duty{ID: long, Name: "Off too"})
	blocks := make([]DutyBlock, 5000)
	for i := range blocks {
		blocks[i] = DutyBlock{Hours{From: 600, To: 660}, long}
	}
	filler := func() Week {
		return Week{ID: fmt.Sprint("w", len(p.Weeks)), Name: "Filler", OwnWeek: OwnWeek{Otherwise: "off", Blocks: blocks}}
	}
	p.Weeks = append(p.Weeks, filler())
	one, err := json.Marshal(p.Weeks[len(p.Weeks)-1])
	if err != nil {
		t.Fatal(err)
	}
	most := MaxBytes/len(one) - 1
	for _, n := range []int{most * 95 / 100, most} {
		for len(p.Weeks) < n {
			p.Weeks = append(p.Weeks, filler())
		}
		written, err := p.Write()
		if err != nil || len(written) > MaxFileBytes || n < most && len(written) <= MaxBytes {
			t.Fatalf("%d bytes, %v", len(written), err)
		}
		if _, err := Read(written); err != nil {
			t.Errorf("what was written cannot be read: %v", err)
		}
	}
	for range 5 {
		p.Weeks = append(p.Weeks, filler())
	}
	written, err := p.Write()
	if err != nil {
		t.Fatal(err)
	}
	if _, err := Read(written); err == nil || !strings.Contains(err.Error(), "larger than 16 MiB") {
		t.Errorf("a plan too large: %v", err)
	}
	if kept, err := Restore(written); err != nil || len(kept.Weeks) != len(p.Weeks) {
		t.Errorf("a plan that was accepted once: %v", err)
	}
}
