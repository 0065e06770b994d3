// Package compare says what differs between two plans, in sentences that name settings as people do, and carries single
// differences over from one plan to another.
//
// A [Part] is a setting of a thing: the keyframe interval of a channel's stream is part of its streams, a tie of a cause is a
// thing of its own. Parts of channels that differ in the same words are told as one [Sentence], for a group or for some
// channels. What each member of the format is called stands in one table, and a test asks for every member of the format.
package compare

import (
	"reflect"
	"slices"
	"strings"

	"wakefield.example/core/plan"
)

// Part is what can differ, and be carried over, by itself: a setting of a thing.
type Part struct {
	Kind   string `json:"kind" doc:"Of the thing: plan, site, tie, or what a list of the plan holds, such as channel or duty"`
	Key    string `json:"key,omitempty" doc:"What tells the thing apart: its id; of a tie the tie; empty for the plan and its site"`
	Member string `json:"member,omitempty" doc:"The setting; empty where the whole thing is there in one of the plans only"`
}

// Sentence is a difference in words.
type Sentence struct {
	Who      string   `json:"who" doc:"What it is about: channels, or another thing; with an upper case letter"`
	Words    string   `json:"words" doc:"What differs, the second plan's side first"`
	Kind     string   `json:"kind" doc:"Of what it is about"`
	Channels []string `json:"channels" doc:"Ids of the channels it is about"`
	Parts    []Part   `json:"parts" doc:"What it is about, for carrying it over"`
}

// String is the whole sentence.
func (s Sentence) String() string { return s.Who + ": " + s.Words }

// difference is one part that differs.
type difference struct {
	Part
	name  string // of the thing
	words string
}

// Plans says what differs in b from a, in the order of the document. Names of plans differ without being told: variants have
// one each.
func Plans(a, b *plan.Plan) []Sentence {
	c := &comparer{a: a, b: b}
	c.plan()
	return sentences(a, b, c.found)
}

// comparer compares two plans.
type comparer struct {
	a, b  *plan.Plan
	found []difference
}

func (c *comparer) add(kind, key, member, name, words string) {
	c.found = append(c.found, difference{Part{kind, key, member}, name, words})
}

// apart are members of a plan that are told by themselves, or not at all.
var apart = map[string]func(*comparer){
	"format":  func(*comparer) {},
	"name":    func(*comparer) {},
	"site":    (*comparer).site,
	"effects": (*comparer).ties,
}

func (c *comparer) plan() {
	a, b := reflect.ValueOf(c.a).Elem(), reflect.ValueOf(c.b).Elem()
	for _, m := range membersOf(a.Type()) {
		if tell, ok := apart[m.name]; ok {
			tell(c)
			continue
		}
		was, is := a.FieldByIndex(m.index), b.FieldByIndex(m.index)
		switch {
		case m.holds != "" && m.holds != plan.AsWhole:
			c.things(m.holds, was, is)
		case !same(was, is):
			c.add("plan", "", m.name, "The site", strings.Join(c.member(a.Type(), m, was, is), "; "))
		}
	}
}

func (c *comparer) site() {
	a, b := reflect.ValueOf(c.a.Site), reflect.ValueOf(c.b.Site)
	for _, m := range membersOf(a.Type()) {
		if was, is := a.FieldByIndex(m.index), b.FieldByIndex(m.index); !same(was, is) {
			c.add("site", "", m.name, "The site", strings.Join(c.member(a.Type(), m, was, is), "; "))
		}
	}
}

// things compares a list of things by their keys.
func (c *comparer) things(kind string, a, b reflect.Value) {
	if same(a, b) {
		return
	}
	was := make(map[string]reflect.Value)
	for i := range a.Len() {
		was[keyOf(a.Index(i))] = a.Index(i)
	}
	for i := range b.Len() {
		is := b.Index(i)
		key := keyOf(is)
		if before, ok := was[key]; !ok {
			c.add(kind, key, "", nameOf(is), "new"+c.described(kind, is))
		} else if !same(before, is) {
			c.thing(kind, key, before, is)
		}
		delete(was, key)
	}
	for i := range a.Len() {
		if key := keyOf(a.Index(i)); was[key].IsValid() {
			c.add(kind, key, "", nameOf(a.Index(i)), "gone")
		}
	}
}

// described says of a new thing what it is, where that is short.
func (c *comparer) described(kind string, v reflect.Value) string {
	switch x := v.Interface().(type) {
	case plan.Pool:
		return ", " + drives(x.Drives) + ", " + plan.Layouts.Name(x.Layout)
	case plan.Accepted:
		return ": " + x.Reason
	}
	return ""
}

// along are settings that are told, and carried, together with another, by the kind of thing.
var along = map[string]map[string][]string{
	"channel":  {"recorder": {"number", "pool"}},
	"activity": {"blocks": {"otherwisePerHour"}},
}

func (c *comparer) thing(kind, key string, a, b reflect.Value) {
	told := make(map[string]bool)
	words := make(map[string][]string)
	var order []string
	for _, m := range membersOf(a.Type()) {
		was, is := a.FieldByIndex(m.index), b.FieldByIndex(m.index)
		switch {
		case m.holds != "" && m.holds != plan.AsWhole:
			c.things(m.holds, was, is)
		case !same(was, is):
			words[m.name] = c.member(a.Type(), m, was, is)
			order = append(order, m.name)
		}
	}
	if was, ok := a.Interface().(plan.Activity); ok && words["blocks"] != nil {
		is := b.Interface().(plan.Activity)
		words["blocks"] = rates(&was, &is)
		delete(words, "otherwisePerHour") // it is in the rates
	}
	for _, name := range order {
		for _, with := range along[kind][name] {
			words[name] = append(words[name], words[with]...)
			told[with] = true
		}
	}
	for _, name := range order {
		if text := strings.Join(words[name], "; "); text != "" && !told[name] {
			c.add(kind, key, name, nameOf(b), text)
		}
	}
}

// ties compares what causes what, tie by tie.
func (c *comparer) ties() {
	if same(reflect.ValueOf(c.a.Effects), reflect.ValueOf(c.b.Effects)) {
		return
	}
	was, now := tiesOf(c.a), tiesOf(c.b)
	for _, tie := range sortedTies(c.b) {
		if before, ok := was[tie]; !ok {
			c.add("tie", tie, "", "What causes what", now[tie])
		} else if before != now[tie] {
			c.add("tie", tie, "", "What causes what", now[tie]+" (before: "+before+")")
		}
	}
	for _, tie := range sortedTies(c.a) {
		if _, ok := now[tie]; !ok && !namesGone(tie, c.b) {
			c.add("tie", tie, "", "What causes what", "no longer: "+was[tie])
		}
	}
}

// sentences tells differences of channels in the same words as one, and ties of one plan beside each other.
func sentences(a, b *plan.Plan, found []difference) []Sentence {
	out := []Sentence{}
	at := make(map[[3]string]int)
	for _, d := range found {
		alike := [3]string{d.Kind, d.Member, d.words}
		if k, ok := at[alike]; ok && d.Kind == "channel" {
			out[k].Parts = append(out[k].Parts, d.Part)
			out[k].Channels = append(out[k].Channels, d.Key)
			continue
		}
		at[alike] = len(out)
		s := Sentence{Who: who(d), Words: d.words, Kind: d.Kind, Channels: []string{}, Parts: []Part{d.Part}}
		if d.Kind == "channel" {
			s.Channels = append(s.Channels, d.Key)
		}
		out = append(out, s)
	}
	for i := range out {
		if out[i].Kind == "channel" {
			out[i].Who = channels(a, b, out[i].Channels)
		}
	}
	return out
}

// who is what a difference is about, in words.
func who(d difference) string {
	if d.Kind == "plan" || d.Kind == "site" || d.Kind == "tie" {
		return d.name
	}
	if d.Kind == "acceptance" {
		return "Finding accepted, " + d.name
	}
	return strings.ToUpper(d.Kind[:1]) + d.Kind[1:] + " " + d.name
}

// channels are channels in words: a whole group by its name, up to three by theirs, more by number.
func channels(a, b *plan.Plan, ids []string) string {
	of := func(id string) *plan.Channel {
		if c := b.Channel(id); c != nil {
			return c
		}
		return a.Channel(id)
	}
	group := of(ids[0]).Group
	all := 0
	for i := range b.Channels {
		if b.Channels[i].Group == group {
			all++
		}
	}
	names := make([]string, len(ids))
	for i, id := range ids {
		c := of(id)
		names[i] = c.Name
		if c.Group != group {
			group = ""
		}
	}
	switch {
	case group != "" && len(ids) > 1 && all == len(ids):
		return "All of " + group
	case len(ids) > 3 && group != "":
		return plan.Say("%d channels of %s", len(ids), group)
	case len(ids) > 3:
		return plan.Say("%d channels", len(ids))
	case len(ids) > 1:
		return plan.InList(names)
	}
	return names[0]
}

// same compares two values of one type; shared lists are equal without being looked at.
func same(a, b reflect.Value) bool {
	if a.Kind() == reflect.Slice {
		if a.Len() != b.Len() {
			return false
		}
		if a.Len() == 0 || a.Pointer() == b.Pointer() {
			return true
		}
	}
	return reflect.DeepEqual(a.Interface(), b.Interface())
}

// members are the names of the members of a part that are told together with it, itself first.
func (p Part) members() []string {
	return slices.Concat([]string{p.Member}, along[p.Kind][p.Member])
}
