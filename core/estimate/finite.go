package estimate

import (
	"fmt"
	"math"
	"reflect"
	"strings"

	"wakefield.example/core/document"
)

// CheckFinite tells whether every figure is a number. The rules of a plan are such
// that they are; where one is not all the same, the error, a [*document.Error], names the
// place of the plan that it belongs to, and the plan must not be kept.
func (s *Result) CheckFinite() error {
	for _, list := range []struct {
		path string
		of   any
	}{{"channels[%d]", s.Channels}, {"pools[%d]", s.Pools}, {"recorders[%d]", s.Recorders}} {
		v := reflect.ValueOf(list.of)
		for i := range v.Len() {
			if name := notFinite(v.Index(i)); name != "" {
				return &document.Error{Path: fmt.Sprintf(list.path, i), Reason: "its figures cannot be computed: " + name + " is no finite number"}
			}
		}
	}
	if name := notFinite(reflect.ValueOf(s.Verdict)); name != "" {
		return &document.Error{Reason: "the figures of the site cannot be computed: " + name + " is no finite number"}
	}
	return nil
}

// notFinite names the first member below a value that is no finite number, empty for
// none.
func notFinite(v reflect.Value) string {
	switch v.Kind() {
	case reflect.Pointer:
		if !v.IsNil() {
			return notFinite(v.Elem())
		}
	case reflect.Float64:
		if f := v.Float(); math.IsNaN(f) || math.IsInf(f, 0) {
			return "it"
		}
	case reflect.Struct:
		for i := range v.NumField() {
			if notFinite(v.Field(i)) != "" {
				name, _, _ := strings.Cut(v.Type().Field(i).Tag.Get("json"), ",")
				return name
			}
		}
	}
	return ""
}
