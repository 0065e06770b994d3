package plan

import (
	"encoding"
	"math"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"
)

// checkRules enforces the limits in the struct tags on v and everything below it.
func checkRules(path string, v reflect.Value) error {
	if v.CanAddr() {
		if e, ok := v.Addr().Interface().(either); ok {
			v = reflect.ValueOf(e.object())
		}
	}
	switch v.Type() {
	case areasType:
		a := v.Interface().(Areas)
		if err := checkAreas(path, a); err != nil {
			return err
		}
		return checkRules(path, reflect.ValueOf(&a.List).Elem())
	case pointType:
		return checkPoint(path, v.Interface().(Point))
	}
	switch {
	case v.Kind() == reflect.Pointer:
		if v.IsNil() {
			return nil
		}
		return checkRules(path, v.Elem())
	case v.Kind() == reflect.Slice:
		for i := range v.Len() {
			if err := checkRules(path+"["+strconv.Itoa(i)+"]", v.Index(i)); err != nil {
				return err
			}
		}
		return nil
	case v.Kind() != reflect.Struct || v.Addr().Type().Implements(textType):
		return nil
	}
	given := make(map[string]bool)
	for _, m := range orderedMembers(v.Type()) {
		f := v.FieldByIndex(m.index)
		if !m.required && f.IsZero() {
			continue
		}
		given[m.name] = true
		at := join(path, m.name)
		if err := m.check(at, f); err != nil {
			return err
		}
		if err := checkRules(at, f); err != nil {
			return err
		}
	}
	return checkShape(path, v, given)
}

// check enforces the member's own limits.
func (m member) check(path string, v reflect.Value) error {
	if v.Kind() == reflect.Pointer {
		v = v.Elem()
	}
	if t, ok := v.Interface().(encoding.TextMarshaler); ok {
		if _, err := t.MarshalText(); err != nil {
			return Wrong(path, "%v", err)
		}
		return nil
	}
	switch v.Kind() {
	case reflect.Float64:
		return m.checkNumber(path, v.Float())
	case reflect.Int:
		return m.checkNumber(path, float64(v.Int()))
	case reflect.String:
		if err := checkText(path, v.String()); err != nil {
			return err
		}
		if err := m.checkEnum(path, v.String()); err != nil {
			return err
		}
		return m.checkSize(path, "characters", "Length", utf8.RuneCountInString(v.String()))
	case reflect.Slice:
		if v.Type().Elem().Kind() == reflect.String {
			for i := range v.Len() {
				at := path + "[" + strconv.Itoa(i) + "]"
				if err := checkText(at, v.Index(i).String()); err != nil {
					return err
				}
				if err := m.checkEnum(at, v.Index(i).String()); err != nil {
					return err
				}
			}
		}
		return m.checkSize(path, "entries", "Items", v.Len())
	}
	return nil
}

// checkText refuses what is no text: it could be neither kept nor shown.
func checkText(path, text string) error {
	if strings.ContainsRune(text, 0) {
		return Wrong(path, "has a character U+0000, which no text can have")
	}
	if !utf8.ValidString(text) {
		return Wrong(path, "is not UTF-8")
	}
	return nil
}

func (m member) checkEnum(path, value string) error {
	if m.enum != nil && !slices.Contains(m.enum, value) {
		return Wrong(path, "%q is none of %s", value, strings.Join(m.enum, ", "))
	}
	return nil
}

func (m member) checkSize(path, of, what string, n int) error {
	if limit, ok := m.limit("min" + what); ok && float64(n) < limit {
		if n == 0 {
			return Wrong(path, "empty")
		}
		return Wrong(path, "%d %s; at least %v are wanted", n, of, limit)
	}
	if limit, ok := m.limit("max" + what); ok && float64(n) > limit {
		return Wrong(path, "%d %s; at most %v are possible", n, of, limit)
	}
	return nil
}

func (m member) checkNumber(path string, f float64) error {
	if math.IsNaN(f) || math.IsInf(f, 0) {
		return Wrong(path, "not a finite number")
	}
	if limit, ok := m.limit("minimum"); ok && f < limit {
		return Wrong(path, "%v is below %v", f, limit)
	}
	if limit, ok := m.limit("exclusiveMinimum"); ok && f <= limit {
		return Wrong(path, "%v is not above %v", f, limit)
	}
	if limit, ok := m.limit("maximum"); ok && f > limit {
		return Wrong(path, "%v is above %v", f, limit)
	}
	return nil
}

// limit is a numeric limit of the member, if it has one of that name.
func (m member) limit(name string) (float64, bool) {
	f, ok := m.limits[name]
	return f, ok
}

// CheckAt enforces the limits in the struct tags of what a pointer leads to, which stands
// at a place of a document.
func CheckAt(path string, v any) error { return checkRules(path, reflect.ValueOf(v).Elem()) }

// CheckSince enforces what Check does on a plan that was made from another one that
// passed: entries of its lists that are as they were there need no second look at their
// limits.
func (p *Plan) CheckSince(before *Plan) error {
	rest := *p
	now, was, left := reflect.ValueOf(p).Elem(), reflect.ValueOf(before).Elem(), reflect.ValueOf(&rest).Elem()
	for _, m := range orderedMembers(now.Type()) {
		list, old := now.FieldByIndex(m.index), was.FieldByIndex(m.index)
		if list.Kind() != reflect.Slice {
			continue
		}
		if err := m.check(m.name, list); err != nil {
			return err
		}
		if list.Len() != old.Len() || list.Len() > 0 && list.Pointer() != old.Pointer() {
			for i := range list.Len() {
				if i < old.Len() && reflect.DeepEqual(list.Index(i).Interface(), old.Index(i).Interface()) {
					continue
				}
				if err := checkRules(m.name+"["+strconv.Itoa(i)+"]", list.Index(i)); err != nil {
					return err
				}
			}
		}
		left.FieldByIndex(m.index).SetZero()
	}
	if err := rest.checkLimits(); err != nil {
		return err
	}
	return p.checkReferencesSince(before)
}

// checkLimits enforces the limits of every member of a plan.
func (p *Plan) checkLimits() error { return CheckAt("", p) }
