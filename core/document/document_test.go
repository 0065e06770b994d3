package document

import (
	"encoding/json"
	"errors"
	"reflect"
	"strings"
	"testing"
)

// gate is a document with something of everything.
type gate struct {
	Name    string   `json:"name" minLength:"1" maxLength:"10"`
	Kind    string   `json:"kind" enum:"swing,slide"`
	Metres  float64  `json:"metres" exclusiveMinimum:"0" maximum:"20"`
	Leaves  int      `json:"leaves,omitempty" minimum:"1" maximum:"2"`
	Locked  bool     `json:"locked,omitempty"`
	Days    []string `json:"days,omitempty" maxItems:"3" enum:"mon,tue,wed"`
	Bolts   []bolt   `json:"bolts,omitempty" maxItems:"2" doc:"From the top"`
	Spot    *spot    `json:"spot,omitempty"`
	Opening opening  `json:"opening,omitzero"`
}

type bolt struct {
	Key  string `json:"key,omitempty"`
	Code string `json:"code,omitempty"`
}

func (bolt) ExactlyOne() []string { return []string{"key", "code"} }

// spot is two numbers of which the second is not below the first.
type spot [2]int

func (s *spot) ReadFrom(r *Reader, path string, token json.Token) error {
	var list []int
	if err := r.Into(path, token, &list); err != nil {
		return err
	}
	if len(list) != 2 {
		return Wrong(path, "%d numbers; two are wanted", len(list))
	}
	copy(s[:], list)
	return nil
}

func (s *spot) CheckAt(path string) error {
	if s[1] < s[0] {
		return Wrong(path, "%d is below %d", s[1], s[0])
	}
	return nil
}

func (s *spot) Schema(of func(reflect.Type) Object) Object {
	return Object{"type": "array", "items": of(reflect.TypeFor[int]())}
}

// opening is the name of a rule, or a rule.
type opening struct {
	Rule string
	Own  *rule
}

type rule struct {
	Seconds float64 `json:"seconds" minimum:"0"`
	By      string  `json:"by" enum:"hand,motor"`
	Volts   int     `json:"volts,omitempty" minimum:"12"`
}

func (rule) Variants() (string, []Variant) {
	return "by", []Variant{{Kind: "hand", Members: []string{"seconds"}},
		{Kind: "motor", Members: []string{"seconds"}, Optional: []string{"volts"}}}
}

func (o *opening) Text() (*string, string) {
	if o.Own != nil {
		return nil, ""
	}
	return &o.Rule, "rule"
}
func (o *opening) Object() any               { return o.Own }
func (o *opening) Begin() any                { o.Own = new(rule); return o.Own }
func (o *opening) Meaning() (string, string) { return "Id of a rule", "a rule" }
func (o opening) MarshalJSON() ([]byte, error) {
	if o.Own != nil {
		return json.Marshal(o.Own)
	}
	return json.Marshal(o.Rule)
}

const whole = `{"name": "Yard", "kind": "swing", "metres": 4.5, "leaves": 2, "locked": true, "days": ["mon", "wed"],
	"bolts": [{"key": "A"}, {"code": "7"}], "spot": [3, 4], "opening": {"seconds": 8, "by": "motor", "volts": 24}}`

// TestWhatIsWrongHasAPlace changes one thing of a whole document at a time; what is read and what is checked in memory
// say the same of values.
func TestWhatIsWrongHasAPlace(t *testing.T) {
	for _, c := range []struct{ old, new, want string }{
		{`"Yard"`, `""`, "name: empty"},
		{`"Yard"`, `"Yard of the mill"`, "name: 16 characters; at most 10 are possible"},
		{`"Yard"`, `7`, "name: the number 7 where a text is wanted"},
		{`"Yard"`, `null`, "name: null; leave out what is not known"},
		{`"name": "Yard", `, ``, "name: missing"},
		{`"name"`, `"nome"`, "nome: no such member"},
		{`"kind": "swing"`, `"kind": "swing", "kind": "slide"`, "kind: given twice"},
		{`"swing"`, `"lift"`, `kind: "lift" is none of swing, slide`},
		{`4.5`, `0`, "metres: 0 is not above 0"},
		{`4.5`, `20.5`, "metres: 20.5 is above 20"},
		{`4.5`, `1e999`, "metres: 1e999 is too large a number"},
		{`"leaves": 2`, `"leaves": 1.5`, "leaves: 1.5 where a whole number is wanted"},
		{`"leaves": 2`, `"leaves": 3`, "leaves: 3 is above 2"},
		{`true`, `"yes"`, `locked: the text "yes" where true or false is wanted`},
		{`["mon", "wed"]`, `["mon", "sun"]`, `days[1]: "sun" is none of mon, tue, wed`},
		{`["mon", "wed"]`, `["mon", "mon", "mon", "mon"]`, "days: 4 entries; at most 3 are possible"},
		{`["mon", "wed"]`, `"mon"`, `days: the text "mon" where a list is wanted`},
		{`{"key": "A"}`, `{}`, "bolts[0]: wants exactly one of key and code"},
		{`{"code": "7"}`, `{"key": "B", "code": "7"}`, "bolts[1]: wants exactly one of key and code"},
		{`[3, 4]`, `[3]`, "spot: 1 numbers; two are wanted"},
		{`[3, 4]`, `[4, 3]`, "spot: 3 is below 4"},
		{`"volts": 24`, `"volts": 6`, "opening.volts: 6 is below 12"},
		{`"motor"`, `"hand"`, "opening.volts: does not go with by hand"},
		{`{"seconds": 8, "by": "motor", "volts": 24}`, `7`, "opening: the number 7 where the id of a rule, or a rule, is wanted"},
		{`"Yard"`, "\"Y\xe4rd\"", "line 1, column 12: not UTF-8"},
		{`true,`, `true`, "line 1, column 78: not JSON: "},
		{`24}}`, `24}`, "it ends too early"},
		{`24}}`, `24}} {`, "something follows the end of the document"},
	} {
		text := strings.Replace(whole, c.old, c.new, 1)
		if text == whole {
			t.Fatalf("%s is not in the document", c.old)
		}
		var g gate
		err := Read([]byte(text), &g, "")
		if err == nil || !strings.Contains(err.Error(), c.want) {
			t.Errorf("%s → %s: %v, want %s", c.old, c.new, err, c.want)
		}
		var wrong *Error
		if !errors.As(err, &wrong) {
			t.Errorf("%s → %s: %T", c.old, c.new, err)
		}
	}
}

// TestWhatIsInMemoryIsCheckedAlike does the same to a document that has been read, with and without one before.
func TestWhatIsInMemoryIsCheckedAlike(t *testing.T) {
	read := func() *gate {
		g := new(gate)
		if err := Read([]byte(whole), g, ""); err != nil {
			t.Fatal(err)
		}
		return g
	}
	if err := Check("", read()); err != nil {
		t.Fatal(err)
	}
	for want, change := range map[string]func(*gate){
		"name: empty":                                          func(g *gate) { g.Name = "" },
		`kind: "lift" is none of swing, slide`:                 func(g *gate) { g.Kind = "lift" },
		"metres: -1 is not above 0":                            func(g *gate) { g.Metres = -1 },
		`days[0]: "sun" is none of mon, tue, wed`:              func(g *gate) { g.Days = []string{"sun"} },
		"bolts[1]: wants exactly one of key and code":          func(g *gate) { g.Bolts = []bolt{g.Bolts[0], {}} },
		"bolts: 3 entries; at most 2 are possible":             func(g *gate) { g.Bolts = append(g.Bolts, bolt{Key: "C"}) },
		"spot: 0 is below 3":                                   func(g *gate) { g.Spot = &spot{3, 0} },
		"opening.seconds: -1 is below 0":                       func(g *gate) { g.Opening = opening{Own: &rule{Seconds: -1, By: "hand"}} },
		"name: has a character U+0000, which no text can have": func(g *gate) { g.Name = "a\x00" },
		"name: is not UTF-8":                                   func(g *gate) { g.Name = "a\xff" },
	} {
		before, now := read(), read()
		change(now)
		for how, err := range map[string]error{"anew": Check("", now), "since": CheckSince(now, before)} {
			if err == nil || err.Error() != want {
				t.Errorf("%s: %v, want %s", how, err, want)
			}
		}
		if err := Within("gates[2]", Check("", now)); err == nil || err.Error() != "gates[2]."+want {
			t.Errorf("below another: %v, want gates[2].%s", err, want)
		}
	}
}

// TestTheSchemaSaysWhatIsRead asks the schema for the limits of the tags, and the walks for the members.
func TestTheSchemaSaysWhatIsRead(t *testing.T) {
	var schema Object
	if err := json.Unmarshal(Schema(reflect.TypeFor[gate](), "A gate", "$schema", nil), &schema); err != nil {
		t.Fatal(err)
	}
	members := schema["properties"].(Object)
	for path, want := range map[string]any{
		"name.maxLength": 10.0, "metres.exclusiveMinimum": 0.0, "leaves.type": "integer", "bolts.description": "From the top",
		"$schema.type": "string", "spot.type": "array",
	} {
		name, limit, _ := strings.Cut(path, ".")
		if got := members[name].(Object)[limit]; got != want {
			t.Errorf("%s: %v, want %v", path, got, want)
		}
	}
	var names []string
	EachMember(reflect.TypeFor[gate](), func(path string, _ Member) { names = append(names, path) })
	if got := strings.Join(names,
		" "); got != "name kind metres leaves locked days bolts bolts.key bolts.code spot opening opening.seconds opening.by opening.volts" {
		t.Error(got)
	}
	var g gate
	if err := Read([]byte(`{"$schema": "gate.json", "name": "Yard", "kind": "slide", "metres": 3, "bolts": [{"key": "A"}], "opening": "quick"}`), &g, "$schema"); err != nil {
		t.Fatal(err)
	}
	if got := strings.Join(Used(&g), " "); g.Opening.Rule != "quick" || got != "name kind metres bolts bolts.key opening" {
		t.Errorf("%+v: %s", g, got)
	}
}

// FuzzRead reads texts that are nearly a gate: what is accepted obeys the limits, and is accepted again as it is written.
func FuzzRead(fuzz *testing.F) {
	for _, text := range []string{whole, `{}`, `[]`, "\ufeff" + whole, `{"name": "Yard", "kind": "slide", "metres": 3}`,
		strings.Replace(whole, "true", "tru", 1)} {
		fuzz.Add([]byte(text))
	}
	fuzz.Fuzz(func(t *testing.T, data []byte) {
		var g, again gate
		if Read(data, &g, "") != nil {
			return
		}
		if err := Check("", &g); err != nil {
			t.Fatalf("%s is read, and then: %v", data, err)
		}
		written, err := json.Marshal(&g)
		if err != nil {
			t.Fatal(err)
		}
		if err := Read(written, &again, ""); err != nil || !reflect.DeepEqual(g, again) {
			t.Fatalf("%s is read as %s: %v", data, written, err)
		}
	})
}
