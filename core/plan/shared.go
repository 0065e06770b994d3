package plan

import (
	"reflect"
	"sync"
)

// SharesWhatChannelsHear tells whether two plans have in common all that several channels
// look at, so that what a channel writes can only have changed where the channel itself
// did. It goes by what the tags of the plan put aside. Edits copy what they change and
// share the rest, so it is enough to look at where lists lie; false may be answered where
// the two are alike.
func (p *Plan) SharesWhatChannelsHear(q *Plan) bool {
	if len(p.Channels) != len(q.Channels) {
		return false
	}
	a, b := reflect.ValueOf(p).Elem(), reflect.ValueOf(q).Elem()
	for _, i := range notAside(a.Type()) {
		x, y := a.Field(i), b.Field(i)
		if x.Len() != y.Len() || x.Len() > 0 && x.Pointer() != y.Pointer() {
			return false
		}
	}
	for i := range p.Channels {
		if p.Channels[i] != q.Channels[i] && !heardAlike(&p.Channels[i], &q.Channels[i]) {
			return false
		}
	}
	return true
}

// heardAlike tells whether others can hear no difference between two channels.
func heardAlike(c, d *Channel) bool {
	if !SameScene(c, d) {
		return false // the shape of the picture tells what is noticed in it
	}
	a, b := reflect.ValueOf(c).Elem(), reflect.ValueOf(d).Elem()
	for _, i := range notAside(a.Type()) {
		if !a.Field(i).Equal(b.Field(i)) {
			return false
		}
	}
	return true
}

var asideCache sync.Map // reflect.Type → []int

// notAside are the fields of a struct that its tags do not put aside.
func notAside(t reflect.Type) []int {
	if known, ok := asideCache.Load(t); ok {
		return known.([]int)
	}
	var out []int
	for i := range t.NumField() {
		if t.Field(i).Tag.Get("aside") == "" {
			out = append(out, i)
		}
	}
	asideCache.Store(t, out)
	return out
}

// SharesAlerts tells whether two plans have their messages, outputs and monitors in common, of which no footage depends.
func (p *Plan) SharesAlerts(q *Plan) bool {
	return same(p.Messages, q.Messages) && same(p.Outputs, q.Outputs) && same(p.Monitors, q.Monitors)
}

// SharesStills tells whether the channels of two plans, of which there are as many, take the same stills.
func (p *Plan) SharesStills(q *Plan) bool {
	for i := range p.Channels {
		if p.Channels[i].Stills != q.Channels[i].Stills {
			return false
		}
	}
	return true
}

// same tells whether two lists are one and the same.
func same[T any](a, b []T) bool { return len(a) == len(b) && (len(a) == 0 || &a[0] == &b[0]) }
