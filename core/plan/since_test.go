package plan

import (
	"reflect"
	"slices"
	"testing"

	"wakefield.example/core/document"
)

// TestASecondLookFindsWhatAFirstOneFinds breaks every member of every list of a plan, and asks that a check which knows the plan
// before says the same as one that knows nothing.
func TestASecondLookFindsWhatAFirstOneFinds(t *testing.T) {
	p := example(t)
	broken, refused := 0, 0
	for _, list := range document.Members(reflect.TypeFor[Plan]()) {
		if list.Type.Kind() != reflect.Slice {
			continue
		}
		for i := range reflect.ValueOf(p).Elem().FieldByIndex(list.Index).Len() {
			for _, m := range document.Members(list.Type.Elem()) {
				q := *p
				own := copyOfSlice(reflect.ValueOf(&q).Elem().FieldByIndex(list.Index))
				if !breaks(own.Index(i).FieldByIndex(m.Index)) {
					continue
				}
				broken++
				first, second := q.Check(), q.CheckSince(p)
				if (first == nil) != (second == nil) || first != nil && first.Error() != second.Error() {
					t.Errorf("%s[%d].%s: %v, but since the plan before %v", list.Name, i, m.Name, first, second)
				}
				if first != nil {
					refused++
				}
			}
		}
	}
	if broken < 100 || refused < broken {
		t.Errorf("only %d members were broken and %d plans refused", broken, refused)
	}
	if err := p.CheckSince(p); err != nil {
		t.Error(err)
	}
	less := *p
	less.Duties = slices.Clone(p.Duties[1:])
	if first, second := less.Check(), less.CheckSince(p); first == nil || second == nil || first.Error() != second.Error() {
		t.Errorf("a duty that is named is taken away: %v, but since the plan before %v", first, second)
	}
}

func copyOfSlice(list reflect.Value) reflect.Value {
	own := reflect.MakeSlice(list.Type(), list.Len(), list.Len())
	reflect.Copy(own, list)
	list.Set(own)
	return own
}

// breaks puts a value in a member that hardly any plan may have, and tells whether it could.
func breaks(v reflect.Value) bool {
	switch v.Kind() {
	case reflect.Float64:
		v.SetFloat(-1e9)
	case reflect.Int:
		v.SetInt(-1e9)
	case reflect.String:
		v.SetString("a\x00b")
	default:
		return false
	}
	return true
}
