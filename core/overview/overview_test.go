package overview

import (
	"math"
	"os"
	"slices"
	"testing"

	"wakefield.example/core/check"
	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
)

func sample(t testing.TB) (*plan.Plan, *estimate.Result, []check.Finding) {
	t.Helper()
	data, err := os.ReadFile("../estimate/testdata/landing-stage.json")
	if err != nil {
		t.Fatal(err)
	}
	p, err := plan.Read(data)
	if err != nil {
		t.Fatal(err)
	}
	p, err = edit.After(p, edit.Edit{SetKeep: &edit.SetKeep{Channels: []string{p.Channels[0].ID, p.Channels[1].ID},
		Keep: plan.Keep{AtLeastDays: 30}}})
	if err != nil {
		t.Fatal(err)
	}
	r := estimate.Run(p, nil)
	return p, r, check.Findings(p, r)
}

// TestALineSaysWhatThePagesSay holds a line against the verdict and the findings of the plan, before and after one is accepted.
func TestALineSaysWhatThePagesSay(t *testing.T) {
	p, r, found := sample(t)
	l := Of(p, r, found)
	if l.KeptDays == nil || *l.KeptDays != *r.Verdict.KeptDays || l.Worst == nil || p.Channel(l.Worst.ID).Name != l.Worst.Name ||
		l.Short != r.Verdict.Short {
		t.Errorf("%+v, %+v", l, l.Worst)
	}
	open := 0
	for _, f := range FoundOf(found) {
		open += f.Open
	}
	if n := check.Count(found); open != l.Errors+l.Warnings+l.Hints || l.Errors != n[check.Error] || open == 0 {
		t.Errorf("%d findings are open: %+v", open, l)
	}
	accepted, err := edit.After(p,
		edit.Edit{AcceptFinding: &edit.AcceptFinding{Accepted: plan.Accepted{Finding: found[0].Key, Reason: "Agreed", By: "Ada"}}})
	if err != nil {
		t.Fatal(err)
	}
	after, kinds := Of(accepted, r, check.Findings(accepted, r)), FoundOf(check.Findings(accepted, r))
	k := slices.IndexFunc(kinds, func(f Found) bool { return f.Rule == found[0].Rule && f.Severity == found[0].Severity })
	if kinds[k].Accepted["Ada"] != 1 || after.Errors+after.Warnings+after.Hints != open-1 {
		t.Errorf("%+v", kinds[k])
	}
}

// TestSearchingFindsWhatIsThere asks for words of channels, addresses and findings, in any order and beside the site's name.
func TestSearchingFindsWhatIsThere(t *testing.T) {
	p, _, found := sample(t)
	words := Words(p, found)
	c := &p.Channels[1]
	for text, want := range map[string]string{c.Name: c.ID, p.Site.Name + " " + c.Name: c.ID, "nowhere " + c.Name: "", " ": ""} {
		got := Ask(text).In(words, 100)
		if has := slices.ContainsFunc(got, func(w Word) bool { return w.ID == c.ID && w.Kind == "channel" }); has != (want != "") {
			t.Errorf("%q finds %+v", text, got)
		}
	}
	if got := Ask(p.Site.Name).In(words, 100); len(got) == 0 || got[0].Kind != "site" {
		t.Errorf("%+v", got)
	}
	for _, w := range Ask(p.Site.Name).In(words, 100) {
		if w.Kind == "channel" && w.ID == c.ID {
			t.Error("the name of the site finds a channel that does not have it")
		}
	}
	if got := Ask("a").In(words, 3); len(got) != 3 {
		t.Errorf("%d of 3", len(got))
	}
}

// TestWhatMovedIsMoreThanADay.
func TestWhatMovedIsMoreThanADay(t *testing.T) {
	days := func(d float64) *Line { return &Line{KeptDays: &d} }
	for _, of := range []struct {
		was, now *Line
		moved    bool
	}{{days(30), days(30.9), false}, {days(30), days(28.9), true}, {days(30), &Line{}, true}, {&Line{}, &Line{}, false},
		{days(30), &Line{KeptDays: days(30).KeptDays, Short: true}, true}} {
		if Moved(of.was, of.now) != of.moved {
			t.Errorf("%+v to %+v", of.was, of.now)
		}
	}
}

// TestSitesAddUp adds three sites of two customers.
func TestSitesAddUp(t *testing.T) {
	days := func(d float64) *float64 { return &d }
	lines := []OfCustomer{
		{"Pier", &Line{KeptDays: days(31), RequiredDays: days(30), Channels: 4, UsableGB: 1000, GigabytesPerDay: 30},
			[]Found{{"retention", check.Error, 0, map[string]int{"Ada": 2}}, {"audio", check.Hint, 3, nil}}},
		{"Pier", &Line{KeptDays: days(15), RequiredDays: days(30), Short: true, Channels: 2, UsableGB: 500},
			[]Found{{"retention", check.Error, 1, map[string]int{"Ada": 1, Nobody: 1}}}},
		{"Mill", &Line{RequiredDays: days(30), Channels: 1, UsableGB: 4000}, nil},
		{"Mill", &Line{KeptDays: days(9)}, nil},
	}
	c := Add(lines)
	if c.Sites != 4 || c.Channels != 7 || c.UsableGB != 5500 || c.Short != 1 || c.Free != 1 || c.GigabytesPerDay != 30 {
		t.Errorf("%+v", c)
	}
	var kept []int
	n := 0
	for _, k := range c.Kept {
		kept = append(kept, k.Sites)
		n += k.Sites
	}
	if !slices.Equal(kept, []int{0, 1, 0, 1, 0, 1}) || n+c.Free != c.Sites {
		t.Errorf("%v", kept)
	}
	if len(c.Found) != 2 || c.Found[0] != (AllOf{"retention", check.Error, 1, 1, 4}) || c.Found[1].Sites != 1 {
		t.Errorf("%+v", c.Found)
	}
	if len(c.Accepted) != 2 || c.Accepted[0] != (ByWhom{"Ada", 3, 2}) {
		t.Errorf("%+v", c.Accepted)
	}
	if len(c.Customers) != 2 || c.Customers[0] != (Ordered{"Mill", 2, 1, 4000, 0}) || c.Customers[1].Short != 1 {
		t.Errorf("%+v", c.Customers)
	}
	if none := Add(nil); none.Sites != 0 || none.Found == nil || math.IsNaN(none.UsableGB) {
		t.Errorf("%+v", none)
	}
}

// TestTheMethodHasAPrint is the same twice, and the probe has something to tell methods apart by.
func TestTheMethodHasAPrint(t *testing.T) {
	a, err := Method(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	if b, err := Method(t.Context()); err != nil || a != b || len(a) != 16 {
		t.Errorf("%q and %q, %v", a, b, err)
	}
	p, err := probe("h264")
	if err != nil {
		t.Fatal(err)
	}
	r := estimate.Run(p, nil)
	if found := check.Findings(p, r); r.Verdict.KeptDays == nil || len(found) == 0 {
		t.Errorf("%+v, %d findings", r.Verdict, len(found))
	}
}
