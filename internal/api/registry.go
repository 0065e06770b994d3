package api

import (
	"path"
	"reflect"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/plan"
	"wakefield.example/core/walktest"
	"wakefield.example/core/week"
	"wakefield.example/internal/store"
)

// estimating are the packages whose types are figures of an estimate.
var estimating = map[string]bool{"estimate": true, "doubt": true, "effect": true, "footage": true, "year": true}

// registry names the schemas of the API. Two packages have a Channel; those of the
// estimate are called Estimated…, those of files Read…, those of sheets Sheet…, those of the walk test Walked…, those
// of what was found at a site Found…, those of devices Device…,
// and the site of the store, which
// has plans, is told from that of a plan.
func registry() huma.Registry {
	huma.DefaultArrayNullable = false // lists are empty, never null
	r := huma.NewMapRegistry("#/components/schemas/", func(t reflect.Type, hint string) string {
		name := huma.DefaultSchemaNamer(t, hint)
		for t.Kind() == reflect.Pointer {
			t = t.Elem()
		}
		if estimating[path.Base(t.PkgPath())] {
			return "Estimated" + name
		}
		if strings.HasSuffix(t.PkgPath(), "core/handover") {
			return "Sheet" + name
		}
		if strings.HasSuffix(t.PkgPath(), "core/walktest") {
			return "Walked" + name
		}
		if strings.HasSuffix(t.PkgPath(), "core/measured") {
			return "Found" + name
		}
		if strings.HasSuffix(t.PkgPath(), "core/readout") {
			return "Device" + strings.TrimPrefix(name, "Device")
		}
		if strings.HasSuffix(t.PkgPath(), "core/overview") {
			return "Overview" + name
		}
		if strings.HasSuffix(t.PkgPath(), "internal/formats") {
			return "Read" + name
		}
		if t == reflect.TypeFor[store.Site]() {
			return "StoredSite"
		}
		return name
	})
	r.RegisterTypeAlias(reflect.TypeFor[plan.WeekRef](), reflect.TypeFor[weekRef]())
	r.RegisterTypeAlias(reflect.TypeFor[plan.Areas](), reflect.TypeFor[areas]())
	r.RegisterTypeAlias(reflect.TypeFor[plan.Words](), reflect.TypeFor[words]())
	r.RegisterTypeAlias(reflect.TypeFor[walktest.Shown](), reflect.TypeFor[threeSeconds]())
	r.RegisterTypeAlias(reflect.TypeFor[week.Weekday](), reflect.TypeFor[weekday]())
	r.RegisterTypeAlias(reflect.TypeFor[week.Clock](), reflect.TypeFor[clock]())
	r.RegisterTypeAlias(reflect.TypeFor[week.Date](), reflect.TypeFor[date]())
	return r
}

type threeSeconds struct{}

// Schema says that each second that a walk shows may be absent.
func (threeSeconds) Schema(huma.Registry) *huma.Schema {
	three := 3
	return &huma.Schema{Type: "array", MinItems: &three, MaxItems: &three, Items: &huma.Schema{Type: "number", Nullable: true},
		Description: "Seconds after the start: the sign, the first and the last second of the footage; null where there is none"}
}

type weekRef struct{}

// Schema says that a channel's week is the id of a named one or its own.
func (weekRef) Schema(r huma.Registry) *huma.Schema {
	return &huma.Schema{OneOf: []*huma.Schema{
		{Type: "string", Description: "Id of a named week"},
		r.Schema(reflect.TypeFor[plan.OwnWeek](), true, "OwnWeek"),
	}}
}

type areas struct{}

// Schema says that detection areas are drawn, or only counted.
func (areas) Schema(r huma.Registry) *huma.Schema {
	none, most := 0.0, float64(plan.MostAreas)
	list := plan.MostDrawn
	return &huma.Schema{OneOf: []*huma.Schema{
		{Type: "integer", Minimum: &none, Maximum: &most, Description: "How many there are at the camera"},
		{Type: "array", Items: r.Schema(reflect.TypeFor[plan.Area](), true, "Area"), MaxItems: &list},
	}}
}

type words struct{}

// Schema says that words stand by the id of the duty that they are for.
func (words) Schema(huma.Registry) *huma.Schema {
	least, most := 1, 100
	return &huma.Schema{Type: "object", AdditionalProperties: &huma.Schema{Type: "string", MinLength: &least, MaxLength: &most}}
}

type weekday struct{}

// Schema lists the days.
func (weekday) Schema(huma.Registry) *huma.Schema {
	s := &huma.Schema{Type: "string"}
	for _, d := range week.Weekdays {
		s.Enum = append(s.Enum, d.String())
	}
	return s
}

type clock struct{}

// Schema says how times of day are written.
func (clock) Schema(huma.Registry) *huma.Schema {
	return &huma.Schema{Type: "string", Pattern: `^([01][0-9]|2[0-3]):[0-5][0-9]$|^24:00$`, Examples: []any{"06:30"}}
}

type date struct{}

// Schema says how dates are written.
func (date) Schema(huma.Registry) *huma.Schema { return &huma.Schema{Type: "string", Format: "date"} }
