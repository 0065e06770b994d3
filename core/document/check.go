package document

import (
	"encoding"
	"iter"
	"math"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"
)

// Check enforces the limits in the tags of what a pointer leads to, which stands at a place of a document. The error, an
// [*Error], names the first place that is wrong.
func Check(path string, of any) error { return check(path, reflect.ValueOf(of).Elem()) }

// CheckSince enforces what Check does on a whole document that was made from another one that passed: entries of its
// lists that are as they were there need no second look at their limits. Both are pointers to the same type of struct.
func CheckSince(document, before any) error {
	now, was := reflect.ValueOf(document).Elem(), reflect.ValueOf(before).Elem()
	left := reflect.New(now.Type()).Elem()
	left.Set(now)
	for _, m := range Members(now.Type()) {
		list, old := now.FieldByIndex(m.Index), was.FieldByIndex(m.Index)
		if list.Kind() != reflect.Slice {
			continue
		}
		if err := m.Check(m.Name, list); err != nil {
			return err
		}
		for i, entry := range Changed(list, old) {
			if err := check(m.Name+"["+strconv.Itoa(i)+"]", entry); err != nil {
				return err
			}
		}
		left.FieldByIndex(m.Index).SetZero()
	}
	return check("", left)
}

// Changed are the entries of a list that are not as they were at their place in another. Two that are one and the same
// list differ nowhere, which costs nothing to tell.
func Changed(list, old reflect.Value) iter.Seq2[int, reflect.Value] {
	return func(yield func(int, reflect.Value) bool) {
		if list.Len() == old.Len() && (list.Len() == 0 || list.Pointer() == old.Pointer()) {
			return
		}
		for i := range list.Len() {
			if i < old.Len() && reflect.DeepEqual(list.Index(i).Interface(), old.Index(i).Interface()) {
				continue
			}
			if !yield(i, list.Index(i)) {
				return
			}
		}
	}
}

// check enforces the limits in the struct tags on v and everything below it.
func check(path string, v reflect.Value) error {
	if v.CanAddr() {
		if own, ok := v.Addr().Interface().(Checked); ok {
			if err := own.CheckAt(path); err != nil {
				return err
			}
		}
		switch own := v.Addr().Interface().(type) {
		case Either:
			v = reflect.ValueOf(own.Object())
		case Holder:
			v = reflect.ValueOf(own.Holds()).Elem()
		}
	}
	switch {
	case v.Kind() == reflect.Pointer:
		if v.IsNil() {
			return nil
		}
		return check(path, v.Elem())
	case v.Kind() == reflect.Slice:
		for i := range v.Len() {
			if err := check(path+"["+strconv.Itoa(i)+"]", v.Index(i)); err != nil {
				return err
			}
		}
		return nil
	case !hasMembers(v.Type()):
		return nil
	}
	members := Members(v.Type())
	given := make([]bool, len(members))
	for i := range members {
		m := &members[i]
		f := v.FieldByIndex(m.Index)
		if !m.Required && f.IsZero() {
			continue
		}
		given[i] = true
		at := Join(path, m.Name)
		if err := m.Check(at, f); err != nil {
			return err
		}
		if err := check(at, f); err != nil {
			return err
		}
	}
	return checkShape(path, v, given)
}

// Check enforces the member's own limits.
func (m Member) Check(path string, v reflect.Value) error {
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

func (m Member) checkEnum(path, value string) error {
	if m.enum != nil && !slices.Contains(m.enum, value) {
		return Wrong(path, "%q is none of %s", value, strings.Join(m.enum, ", "))
	}
	return nil
}

func (m Member) checkSize(path, of, what string, n int) error {
	if limit, ok := m.Limit("min" + what); ok && float64(n) < limit {
		if n == 0 {
			return Wrong(path, "empty")
		}
		return Wrong(path, "%d %s; at least %v are wanted", n, of, limit)
	}
	if limit, ok := m.Limit("max" + what); ok && float64(n) > limit {
		return Wrong(path, "%d %s; at most %v are possible", n, of, limit)
	}
	return nil
}

func (m Member) checkNumber(path string, f float64) error {
	if math.IsNaN(f) || math.IsInf(f, 0) {
		return Wrong(path, "not a finite number")
	}
	if limit, ok := m.Limit("minimum"); ok && f < limit {
		return Wrong(path, "%s is below %s", plain(f), plain(limit))
	}
	if limit, ok := m.Limit("exclusiveMinimum"); ok && f <= limit {
		return Wrong(path, "%v is not above %v", f, limit)
	}
	if limit, ok := m.Limit("maximum"); ok && f > limit {
		return Wrong(path, "%s is above %s", plain(f), plain(limit))
	}
	return nil
}

// plain is a number as people write it, without an exponent.
func plain(f float64) string { return strconv.FormatFloat(f, 'f', -1, 64) }
