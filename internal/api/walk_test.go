package api

import (
	"context"
	"encoding/json"
	"flag"
	"fmt"
	"io"
	"maps"
	"math/rand/v2"
	"net/http"
	"net/url"
	"slices"
	"strings"
	"testing"
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
)

var (
	walkFor = flag.Duration("walk", 0,
		"how long the API is walked over with other requests at every run; 0 for a fixed number of them, the same at every run")
	walkSeed = flag.Uint64("walkseed", 1, "which requests those are")
)

// described is the API as its own description has it.
type described struct {
	Paths map[string]map[string]struct {
		OperationID string
		Parameters  []struct {
			Name, In string
			Required bool
			Schema   schema
		}
		RequestBody struct {
			Content map[string]struct{ Schema schema }
		}
	}
	Components struct{ Schemas map[string]schema }
}

type schema struct {
	Ref                  string `json:"$ref"`
	Type                 any
	Enum                 []any
	Pattern, Format      string
	Minimum, Maximum     *float64
	MinItems, MaxItems   *int
	MinLength, MaxLength *int
	Items                *schema
	Properties           map[string]schema
	Required             []string
	OneOf                []schema
	AdditionalProperties any
}

// walker makes requests after the description of an API, by a seed.
type walker struct {
	api   described
	ops   []operation
	words []string            // ids and the like that the plan knows
	ids   map[string][]string // ids by the list that they stand in
	rng   *rand.Rand

	version int64 // of the plan
}

type operation struct {
	method, path, id string
	body             *schema
	file             bool
}

func newWalker(t *testing.T, p *plan.Plan, seed uint64) *walker {
	t.Helper()
	w := &walker{ids: map[string][]string{}, rng: rand.New(rand.NewPCG(seed, 3)), words: []string{"site", "", "main", "mon", "06:30", "24:00",
		"2026-02-29", "2026-11-28", "motion", "number", "1"}}
	description, err := Describe()
	if err == nil {
		err = json.Unmarshal(description, &w.api)
	}
	if err != nil {
		t.Fatal(err)
	}
	document, err := p.Bytes()
	if err != nil {
		t.Fatal(err)
	}
	var all any
	if err := json.Unmarshal(document, &all); err != nil {
		t.Fatal(err)
	}
	w.gather("", all)
	slices.Sort(w.words)
	w.words = slices.Compact(w.words)
	for path, methods := range w.api.Paths {
		for method, o := range methods {
			if o.OperationID == "changes" {
				continue // it does not end
			}
			op := operation{strings.ToUpper(method), path, o.OperationID, nil, false}
			for kind, content := range o.RequestBody.Content {
				if op.body = &content.Schema; kind != "application/json" || content.Schema.Format == "binary" || content.Schema.Ref == "" {
					op.file = true
				}
			}
			w.ops = append(w.ops, op)
		}
	}
	slices.SortFunc(w.ops, func(a, b operation) int { return strings.Compare(a.id, b.id) })
	return w
}

// gather finds the ids of a plan.
func (w *walker) gather(list string, v any) {
	switch v := v.(type) {
	case []any:
		for _, item := range v {
			w.gather(list, item)
		}
	case map[string]any:
		if id, ok := v["id"].(string); ok {
			w.words = append(w.words, id)
			w.ids[list] = append(w.ids[list], id)
		}
		for _, name := range slices.Sorted(maps.Keys(v)) {
			w.gather(name, v[name])
		}
	}
}

// meant are lists in which things stand that go by other names where they are asked for.
var meant = map[string]string{
	"duty": "duties", "otherwise": "duties", "activity": "activities", "nuisance": "activities", "input": "alarmInputs",
	"alarm": "alarmInputs", "button": "callButtons",
	"record": "channels", "offsite": "channels", "still": "channels", "motion": "channels", "lost": "channels", "tampered": "channels",
	"to": "channels", "locked": "channels",
}

// word is a text for a member or a parameter of a name: the id of such a thing, where there are some.
func (w *walker) word(name string, s schema) string {
	pick := func(list []string) string { return list[w.rng.IntN(len(list))] }
	for _, list := range []string{name, name + "s", meant[name]} {
		if ids := w.ids[list]; len(ids) > 0 && w.rng.IntN(8) > 0 {
			return pick(ids)
		}
	}
	switch {
	case slices.Contains([]string{"id", "plan", "like", "variant", "first", "second", "plans"}, name):
		return "site"
	case strings.HasPrefix(s.Pattern, "^([01]"):
		return pick([]string{"06:30", "22:00", "00:00", "24:00"})
	case s.Format == "date" || name == "from" && s.MaxLength != nil && *s.MaxLength == 10:
		return pick([]string{"2026-12-07", "2028-02-29", "2026-10-25"})
	case name == "from" || name == "to":
		return pick([]string{"2026-12-07T08:00", "2026-12-08T09:30"})
	case name == "timeZone":
		return "Europe/Dublin"
	}
	word := pick(w.words)
	if word == "" && s.MinLength != nil && *s.MinLength > 0 {
		word = "x"
	}
	return word
}

// value is one that a schema asks for, as far as it says, for a member or a parameter of a name.
func (w *walker) value(name string, s schema, depth int) any {
	if s.Ref != "" {
		return w.value(name, w.api.Components.Schemas[s.Ref[strings.LastIndexByte(s.Ref, '/')+1:]], depth)
	}
	if len(s.OneOf) > 0 {
		return w.value(name, s.OneOf[w.rng.IntN(len(s.OneOf))], depth)
	}
	if len(s.Enum) > 0 {
		return s.Enum[w.rng.IntN(len(s.Enum))]
	}
	kind := s.Type
	if several, ok := kind.([]any); ok {
		kind = several[w.rng.IntN(len(several))]
	}
	switch kind {
	case "object":
		out := make(map[string]any)
		names := slices.Sorted(maps.Keys(s.Properties))
		if len(s.Required) == 0 && len(names) > 20 { // an edit is one of many
			name := names[w.rng.IntN(len(names))]
			return map[string]any{name: w.value(name, s.Properties[name], depth+1)}
		}
		for _, name := range names {
			if slices.Contains(s.Required, name) || depth < 6 && w.rng.IntN(3) == 0 {
				out[name] = w.value(name, s.Properties[name], depth+1)
			}
		}
		// An edit, and whatever else has nothing but choices, has one of them at the least.
		if len(out) == 0 && len(names) > 0 {
			name := names[w.rng.IntN(len(names))]
			out[name] = w.value(name, s.Properties[name], depth+1)
		}
		return out
	case "array":
		n := w.rng.IntN(3)
		if s.MinItems != nil {
			n = max(n, *s.MinItems)
		}
		out := []any{}
		for range n {
			if s.Items != nil && depth < 8 {
				out = append(out, w.value(name, *s.Items, depth+1))
			}
		}
		return out
	case "number", "integer":
		low, high := -10.0, 100.0
		if s.Minimum != nil {
			low = *s.Minimum
		}
		if s.Maximum != nil {
			high = *s.Maximum
		}
		near := low + (min(high, low+100)-low)*w.rng.Float64()
		v := []float64{low, high, max(low, min(high, 1)), near, near, low + (high-low)*w.rng.Float64()}[w.rng.IntN(6)]
		if kind == "integer" {
			return int64(v)
		}
		return v
	case "boolean":
		return w.rng.IntN(2) == 0
	case "string":
		return w.word(name, s)
	}
	return nil
}

// wild are values that nobody expects.
func (w *walker) wild() any {
	return []any{nil, "", -1, 0, 1e308, -1e308, 1e-308, 9007199254740993.0, true, []any{}, map[string]any{}, "NaN", "\u202eabc",
		strings.Repeat("x", 5000), []any{[]any{[]any{}}},
		"2026-02-30", "25:00", "../..", "'; drop table plan", 0.1, 12345678901234567890.0}[w.rng.IntN(21)]
}

// spoilt is a value of which one part is another.
func (w *walker) spoilt(v any) any {
	switch v := v.(type) {
	case map[string]any:
		names := slices.Sorted(maps.Keys(v))
		if len(names) == 0 || w.rng.IntN(6) == 0 {
			break
		}
		name := names[w.rng.IntN(len(names))]
		if w.rng.IntN(8) == 0 {
			delete(v, name)
		} else {
			v[name] = w.spoilt(v[name])
		}
		return v
	case []any:
		if len(v) == 0 || w.rng.IntN(6) == 0 {
			break
		}
		i := w.rng.IntN(len(v))
		v[i] = w.spoilt(v[i])
		return v
	}
	return w.wild()
}

// request is one of an operation; spoil says whether something about it is wrong.
func (w *walker) request(op operation, spoil bool) (path, body string) {
	path = op.path
	query := url.Values{}
	for _, p := range w.api.Paths[op.path][strings.ToLower(op.method)].Parameters {
		v := fmt.Sprint(w.value(p.Name, p.Schema, 0))
		if spoil && w.rng.IntN(8) == 0 {
			v = fmt.Sprint(w.wild())
		}
		switch {
		case p.In == "path":
			path = strings.Replace(path, "{"+p.Name+"}", url.PathEscape(v), 1)
		case p.In == "query" && (p.Required || w.rng.IntN(4) > 0):
			query.Set(p.Name, v)
		}
	}
	if p := query.Encode(); p != "" {
		path += "?" + p
	}
	if op.body == nil {
		return path, ""
	}
	if op.file {
		return path, []string{"", "{}", "x", "Name,No.\nA,1\n",
			"BEGIN:VCALENDAR\nBEGIN:VEVENT\nDTSTART:20261201T220000\nEND:VEVENT\nEND:VCALENDAR\n", "PK\x03\x04",
			"begin,end\n2026-06-22 08:00:00,2026-06-22 08:00:09\n"}[w.rng.IntN(7)]
	}
	v := w.value("", *op.body, 0)
	if m, ok := v.(map[string]any); ok && m["version"] != nil && w.rng.IntN(4) > 0 {
		m["version"] = w.version
		delete(m, "mark")
	}
	if spoil {
		v = w.spoilt(v)
	}
	data, err := json.Marshal(v)
	if err != nil {
		panic(err)
	}
	return path, string(data)
}

// answered sends a request and fails for whatever no request may do: a fault of the server, an answer that is no JSON though
// it says so, or none in time. That the database is slow just now is the machine's: whether it is ready is asked again.
func (c *client) answered(op operation, path, body string) {
	c.Helper()
	asks := 0
	if strings.HasPrefix(path, "/readyz") {
		asks = 5
	}
	for tries := 0; c.answeredOnce(op, path, body, tries < asks) == http.StatusServiceUnavailable && tries < asks; tries++ {
		time.Sleep(time.Second)
	}
}

// answeredOnce is the status of the answer; 503 is no failure where it may be asked again.
func (c *client) answeredOnce(op operation, path, body string, again bool) int {
	c.Helper()
	ctx, cancel := context.WithTimeout(context.Background(), 25*time.Second)
	defer cancel()
	request, err := http.NewRequestWithContext(ctx, op.method, c.url+path, strings.NewReader(body))
	if err != nil {
		return 0 // it cannot be sent at all
	}
	request.Header.Set("Content-Type", "application/json")
	response, err := http.DefaultClient.Do(request)
	var answer []byte
	status := 0
	if err == nil {
		status = response.StatusCode
		defer response.Body.Close()
		answer, err = io.ReadAll(response.Body)
	}
	short := body[:min(len(body), 1500)]
	switch {
	case err != nil:
		c.Errorf("%s %s: %v\n%q", op.method, path, err, short)
	case status == http.StatusServiceUnavailable && again:
	case response.StatusCode >= 500:
		c.Errorf("%s %s: %d: %.500s\n%q", op.method, path, response.StatusCode, answer, short)
	case strings.Contains(response.Header.Get("Content-Type"), "json") && len(answer) > 0 && !json.Valid(answer):
		c.Errorf("%s %s: %d with what is no JSON: %.300s\n%q", op.method, path, response.StatusCode, answer, short)
	}
	return status
}

// TestNoRequestIsTooMuch walks over all operations with requests that are valid, nearly valid, and empty, on a plan that uses
// every member. go test ./internal/server -run NoRequest -walk 10m -walkseed 7 walks on with others.
func TestNoRequestIsTooMuch(t *testing.T) {
	p := plantest.Read(t, "../../core/plan/testdata/whole.json")
	c, s := serving(t, p, "", Options{})
	w := newWalker(t, p, *walkSeed)
	end := time.Now().Add(*walkFor)
	for n := 0; n < 8*len(w.ops) && *walkFor == 0 || *walkFor > 0 && time.Now().Before(end); n++ {
		op := w.ops[n%len(w.ops)]
		if now, err := s.Version(t.Context(), "site"); err == nil {
			w.version = now.Version
		}
		path, body := w.request(op, n/len(w.ops)%3 > 0)
		if n/len(w.ops) == 5 && op.body != nil {
			body = ""
		}
		c.answered(op, path, body)
		if n%500 == 499 { // whatever was kept is a plan that opens
			if _, err := s.Load(t.Context(), "site"); err != nil {
				t.Fatal(err)
			}
		}
	}
	c.answered(operation{method: "GET"}, "/api/plans/site", "")
}

// odd are texts that should never get further than the door, or be kept as they are.
var odd = map[string]string{"NUL": "a\x00b", "no UTF-8": "a\xffb", "a megabyte": strings.Repeat("ж",
	1<<19), "right to left": "a\u202eb\u2066c", "a control character": "a\x1bb"}

// TestEveryTextComesThroughOneDoor puts odd texts into every parameter of every operation, and into every text of a body.
func TestEveryTextComesThroughOneDoor(t *testing.T) {
	p := plantest.Read(t, "../../core/plan/testdata/whole.json")
	c, _ := serving(t, p, "", Options{})
	w := newWalker(t, p, 1)
	texts := 0
	for _, op := range w.ops {
		parameters := w.api.Paths[op.path][strings.ToLower(op.method)].Parameters
		for _, parameter := range parameters {
			for kind, text := range odd {
				if kind == "a megabyte" {
					text = text[:30_000] // of the 64 kB that an address and its headers may have
				}
				path, body := w.request(op, false)
				bare, query, _ := strings.Cut(path, "?")
				values, _ := url.ParseQuery(query)
				switch parameter.In {
				case "path":
					bare = op.path
					for _, other := range parameters {
						v := "site"
						if other.Name == parameter.Name {
							v = text
						}
						bare = strings.Replace(bare, "{"+other.Name+"}", url.PathEscape(v), 1)
					}
				case "query":
					values.Set(parameter.Name, text)
				}
				texts++
				c.answered(op, bare+"?"+values.Encode(), body)
			}
		}
		if op.body == nil || op.file {
			continue
		}
		// Each place of the body once, until a fresh one has no place that was not seen.
		seen := make(map[string]bool)
		for range 40 {
			path, _ := w.request(op, false)
			v := w.value("", *op.body, 0)
			places := []string{}
			textsOf(v, "", func(at string, set func(string)) { places = append(places, at) })
			for _, place := range places {
				if seen[place] || len(seen) > 60 {
					continue
				}
				seen[place] = true
				kind := slices.Sorted(maps.Keys(odd))[len(seen)%len(odd)]
				textsOf(v, "", func(at string, set func(string)) {
					if at == place {
						set("\ue000")
					}
				})
				data, _ := json.Marshal(v)
				quoted, _ := json.Marshal(odd[kind])
				switch kind {
				case "no UTF-8":
					quoted = []byte("\"a\xffb\"")
				case "a control character":
					quoted = []byte(`"\ud800"`)
				}
				texts++
				c.answered(op, path, strings.ReplaceAll(string(data), "\"\ue000\"", string(quoted)))
			}
		}
	}
	if texts < 1000 {
		t.Errorf("%d texts only", texts)
	}
}

// textsOf visits all texts of a value, by the names of the members that lead there.
func textsOf(v any, at string, visit func(at string, set func(string))) {
	switch v := v.(type) {
	case map[string]any:
		for _, name := range slices.Sorted(maps.Keys(v)) {
			if _, ok := v[name].(string); ok {
				visit(at+"."+name, func(s string) { v[name] = s })
			} else {
				textsOf(v[name], at+"."+name, visit)
			}
		}
	case []any:
		for i := range v {
			if _, ok := v[i].(string); ok {
				visit(at+"[]", func(s string) { v[i] = s })
			} else {
				textsOf(v[i], at+"[]", visit)
			}
		}
	}
}
