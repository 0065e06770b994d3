package store

import (
	"encoding/json"
	"reflect"
	"slices"
	"strconv"
	"strings"

	jsonpatch "github.com/evanphx/json-patch/v5"
	"github.com/wI2L/jsondiff"

	"wakefield.example/core/plan"
)

// Patch is the JSON Patch that leads from one plan to another.
func Patch(from, to *plan.Plan) (json.RawMessage, error) {
	forward, _, err := patches(from, to)
	return forward, err
}

// difference gathers patches in both directions.
type difference struct{ there, back []jsondiff.Operation }

// compare adds what differs between two values at a path.
func (d *difference) compare(path string, a, b any) error {
	x, err := generic(a)
	if err != nil {
		return err
	}
	y, err := generic(b)
	if err != nil {
		return err
	}
	for _, way := range []struct {
		into *[]jsondiff.Operation
		a, b any
	}{{&d.there, x, y}, {&d.back, y, x}} {
		patch, err := jsondiff.CompareWithoutMarshal(way.a, way.b)
		if err != nil {
			return err
		}
		for _, operation := range patch {
			operation.Path = path + operation.Path
			*way.into = append(*way.into, operation)
		}
	}
	return nil
}

// written are the patches as JSON.
func (d *difference) written() (forward, backward json.RawMessage, err error) {
	if forward, err = written(d.there); err != nil {
		return nil, nil, err
	}
	backward, err = written(d.back)
	return forward, backward, err
}

func written(operations []jsondiff.Operation) (json.RawMessage, error) {
	if operations == nil {
		return json.RawMessage("[]"), nil
	}
	return json.Marshal(operations)
}

// patches compares two plans in both directions. Only members that differ are looked
// at, and of lists as long as they were only the entries that differ; of channels, where
// they are the same ones in the same order.
func patches(from, to *plan.Plan) (forward, backward json.RawMessage, err error) {
	var d difference
	a, b := reflect.ValueOf(from).Elem(), reflect.ValueOf(to).Elem()
	rest, other := *from, *to
	left, right := reflect.ValueOf(&rest).Elem(), reflect.ValueOf(&other).Elem()
	for k := range a.NumField() {
		x, y := a.Field(k), b.Field(k)
		if x.Kind() != reflect.Slice || x.Len() != y.Len() || x.Len() == 0 {
			continue
		}
		if name, _, _ := strings.Cut(a.Type().Field(k).Tag.Get("json"), ","); name != "channels" || sameChannels(from, to) {
			if err := d.entries("/"+name, x, y); err != nil {
				return nil, nil, err
			}
			left.Field(k).SetZero()
			right.Field(k).SetZero()
		}
	}
	if !reflect.DeepEqual(rest, other) {
		if err := d.compare("", rest, other); err != nil {
			return nil, nil, err
		}
	}
	return d.written()
}

// entries adds what differs between two lists of one length, entry by entry.
func (d *difference) entries(path string, a, b reflect.Value) error {
	if a.Pointer() == b.Pointer() {
		return nil
	}
	for i := range a.Len() {
		x, y := a.Index(i).Interface(), b.Index(i).Interface()
		if reflect.DeepEqual(x, y) {
			continue
		}
		if err := d.compare(path+"/"+strconv.Itoa(i), x, y); err != nil {
			return err
		}
	}
	return nil
}

// documentPatches compares a document that is no plan with one.
func documentPatches(from json.RawMessage, to *plan.Plan) (forward, backward json.RawMessage, err error) {
	var d difference
	if err := d.compare("", from, to); err != nil {
		return nil, nil, err
	}
	return d.written()
}

// sameChannels tells whether two plans have the same channels in the same order.
func sameChannels(a, b *plan.Plan) bool {
	return slices.EqualFunc(a.Channels, b.Channels, func(x, y plan.Channel) bool { return x.ID == y.ID })
}

// generic is a value as maps and lists.
func generic(of any) (v any, err error) {
	data, err := json.Marshal(of)
	if err == nil {
		err = json.Unmarshal(data, &v)
	}
	return v, err
}

// apply applies patches to a document in turn. The document is read once.
func apply(document []byte, patches []json.RawMessage) ([]byte, error) {
	var all jsonpatch.Patch
	for _, patch := range patches {
		steps, err := jsonpatch.DecodePatch(patch)
		if err != nil {
			return nil, err
		}
		all = append(all, steps...)
	}
	if len(all) == 0 {
		return document, nil
	}
	return all.Apply(document)
}

// patched applies a JSON Patch to a plan.
func patched(p *plan.Plan, patch json.RawMessage) (*plan.Plan, error) {
	document, err := p.Bytes()
	if err != nil {
		return nil, err
	}
	if document, err = apply(document, []json.RawMessage{patch}); err != nil {
		return nil, err
	}
	return plan.Restore(document)
}
