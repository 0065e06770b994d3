// Package plantest helps tests that must notice every member of the plan format, also one
// that is added tomorrow.
package plantest

import (
	"encoding"
	"fmt"
	"os"
	"reflect"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// Read reads a plan file.
func Read(t testing.TB, file string) *plan.Plan {
	t.Helper()
	data, err := os.ReadFile(file)
	if err != nil {
		t.Fatal(err)
	}
	p, err := plan.Read(data)
	if err != nil {
		t.Fatal(err)
	}
	return p
}

// Whole is a plan that uses the whole format, for the tests of a room beside plan.
func Whole(t testing.TB) *plan.Plan {
	t.Helper()
	return Read(t, "../plan/testdata/whole.json")
}

// EachChange calls f with a copy of the plan for every value in it, in which that value is
// another, and the path of the value. Most copies are plans still; Check tells.
func EachChange(t testing.TB, p *plan.Plan, f func(path string, changed *plan.Plan)) {
	t.Helper()
	var walk func(path string, at func(*plan.Plan) reflect.Value)
	walk = func(path string, at func(*plan.Plan) reflect.Value) {
		v := at(p)
		for v.Kind() == reflect.Pointer {
			if v.IsNil() {
				return
			}
			v = v.Elem()
			outer := at
			at = func(q *plan.Plan) reflect.Value { return outer(q).Elem() }
		}
		if _, ok := v.Addr().Interface().(encoding.TextUnmarshaler); !ok {
			switch v.Kind() {
			case reflect.Struct:
				for i := range v.NumField() {
					name := v.Type().Field(i).Name
					walk(path+"."+name, func(q *plan.Plan) reflect.Value { return at(q).Field(i) })
				}
				return
			case reflect.Slice:
				for i := range v.Len() {
					walk(fmt.Sprintf("%s[%d]", path, i), func(q *plan.Plan) reflect.Value { return at(q).Index(i) })
				}
				return
			}
		}
		changed := Copy(t, p)
		if other(at(changed)) {
			f(path, changed)
		}
	}
	walk("", func(q *plan.Plan) reflect.Value { return reflect.ValueOf(q).Elem() })
}

// other makes a value another one. It tells whether it could.
func other(v reflect.Value) bool {
	switch x := v.Addr().Interface().(type) {
	case *week.Date:
		x.Year++
		return true
	case *week.Weekday:
		*x = (*x + 1) % 7
		return true
	case *week.Clock:
		*x = (*x + 15) % (24 * 60)
		return true
	}
	switch v.Kind() {
	case reflect.String:
		if v.String() == "" {
			return false
		}
		v.SetString(v.String() + "x")
	case reflect.Bool:
		v.SetBool(!v.Bool())
	case reflect.Float64:
		if v.Float() == 0.5 {
			v.SetFloat(0.375) // 0.5 would stay as it is
		} else {
			v.SetFloat(v.Float()*0.75 + 0.125)
		}
	case reflect.Int:
		v.SetInt(v.Int() + 1)
	default:
		return false
	}
	return true
}

// Copy is a plan that shares nothing with another.
func Copy(t testing.TB, p *plan.Plan) *plan.Plan {
	t.Helper()
	data, err := p.Bytes()
	if err != nil {
		t.Fatal(err)
	}
	q, err := plan.Restore(data)
	if err != nil {
		t.Fatal(err)
	}
	return q
}
