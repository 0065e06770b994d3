package footage

import (
	"reflect"
	"testing"

	"wakefield.example/core/activity"
	"wakefield.example/core/week"
)

// TestEqualSeesEveryMember makes one value after another in a happening another: no two such
// happenings are the same. A member that Equal forgets fails here, also one that is new.
func TestEqualSeesEveryMember(t *testing.T) {
	process := func() activity.Process {
		p := activity.New(week.Constant(activity.PerHour(6)), 20)
		p.Group = activity.Group{Size: 2, Seconds: 30}
		return p
	}
	source := func() Source {
		return Source{Triggers: process(), Pre: 5, Post: 10, Events: process(), Detection: activity.Detection{Hours: week.Constant(true),
			MinSeconds: 1, Catch: 0.9}}
	}
	happening := func() *Happening {
		return &Happening{Motion: []Source{source()}, Alarm: []Source{source()}, Own: []activity.Process{process()}, Caught: []Source{source()},
			Tied: true, Noticed: week.Constant(0.5), Wanted: process(), Call: 0.1}
	}
	if !happening().Equal(happening()) {
		t.Fatal("two happenings that are the same are not")
	}
	n := 0
	var walk func(path string, at func(*Happening) reflect.Value)
	walk = func(path string, at func(*Happening) reflect.Value) {
		v := at(happening())
		switch v.Kind() {
		case reflect.Struct:
			for i := range v.NumField() {
				if v.Type() == reflect.TypeFor[activity.Intensity]() {
					continue // made another below, as its fields are its own
				}
				walk(path+"."+v.Type().Field(i).Name, func(s *Happening) reflect.Value { return at(s).Field(i) })
			}
			if v.Type() != reflect.TypeFor[activity.Intensity]() {
				return
			}
		case reflect.Slice:
			if v.Len() == 0 {
				t.Errorf("%s is empty; the test does not see it", path)
				return
			}
			walk(path+"[0]", func(s *Happening) reflect.Value { return at(s).Index(0) })
		}
		changed := happening()
		f := at(changed)
		switch f.Kind() {
		case reflect.Float64:
			f.SetFloat(f.Float() + 0.5)
		case reflect.Bool:
			f.SetBool(!f.Bool())
		case reflect.Int:
			f.SetInt(f.Int() + 1)
		case reflect.Slice:
			f.Set(reflect.Zero(f.Type()))
		case reflect.Struct:
			f.Set(reflect.ValueOf(activity.New(week.Constant(activity.PerHour(7)), 20).Intensity))
		default:
			t.Fatalf("%s is a %v, which the test cannot make another", path, f.Kind())
		}
		n++
		if happening().Equal(changed) {
			t.Errorf("nobody sees that %s is another", path)
		}
	}
	walk("", func(s *Happening) reflect.Value { return reflect.ValueOf(s).Elem() })
	if n < 40 {
		t.Errorf("only %d values were changed", n)
	}
}
