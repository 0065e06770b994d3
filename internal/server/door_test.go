package server

import (
	"encoding/json"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
)

func TestWhatIsReadKeepsItsBounds(t *testing.T) {
	read := WithinBounds(json.Unmarshal)
	for body, says := range map[string]string{
		`{"a": [1, "é \u00e9 \ud83d\ude00"]}`:        "",
		"{\"a\": \"\xff\"}":                          "not UTF-8",
		`{"a": "\ud83d"}`:                            "half a character",
		`{"a": "\ud83dx"}`:                           "half a character",
		`{"a": [{"b": "x\u0000"}]}`:                  "a[0].b: has a character U+0000",
		`{"a\u0000": 1}`:                             `"a\x00": has a character U+0000`,
		`{"a": "\\u0000"}`:                           "", // a backslash, and four zeros
		"[" + strings.Repeat("{},", 26_000) + "{}]":  "objects",
		"[" + strings.Repeat("1,", 1_600_000) + "1]": "values",
		`{"a": `: "unexpected end",
	} {
		var v any
		err := read([]byte(body), &v)
		if (err == nil) != (says == "") || err != nil && !strings.Contains(err.Error(), says) {
			t.Errorf("%.60q: %v, want %q", body, err, says)
		}
	}
}

func TestOnlyTextsComeThroughTheDoorByTheNamesOfTheServer(t *testing.T) {
	there := http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) { w.WriteHeader(204) })
	inside := hostsAllowed([]string{"plans.example"})(door(there))
	for _, test := range []struct {
		host, url string
		status    int
	}{
		{"localhost:80", "/api/sites?q=%C3%A9", 204}, {"127.0.0.1", "/", 204}, {"[::1]:8080", "/", 204}, {"PLANS.example", "/", 204},
		{"plans.example.evil.example", "/", 421}, {"", "/", 421},
		{"localhost", "/api/sites/%00", 404}, {"localhost", "/api/sites?q=%ff", 422}, {"localhost", "/api/sites?%0a=1", 422},
		{"localhost", "/api/sites?q=%zz", 400},
	} {
		r := httptest.NewRequest("GET", test.url, nil)
		r.Host = test.host
		w := httptest.NewRecorder()
		inside.ServeHTTP(w, r)
		if w.Code != test.status {
			t.Errorf("%s at %q: %d, want %d", test.url, test.host, w.Code, test.status)
		}
	}
}
