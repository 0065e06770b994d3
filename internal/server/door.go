package server

import (
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"
)

// door refuses addresses with texts in them that could be neither kept, looked for nor
// shown, whichever operation they are for: no UTF-8, or a control character.
func door(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if !IsText(r.URL.Path) {
			writeProblem(w, r, http.StatusNotFound, "There is nothing of that name: it is no text.")
			return
		}
		query, err := url.ParseQuery(r.URL.RawQuery)
		if err != nil {
			writeProblem(w, r, http.StatusBadRequest, "What follows the ? of the address is not percent-encoded.")
			return
		}
		for name, values := range query {
			for _, v := range append(values, name) {
				if !IsText(v) {
					writeProblem(w, r, http.StatusUnprocessableEntity, "The parameter "+strconv.QuoteToASCII(name)+
						" is no text: it is not UTF-8, or has a control character in it.")
					return
				}
			}
		}
		next.ServeHTTP(w, r)
	})
}

func IsText(s string) bool { return utf8.ValidString(s) && !strings.ContainsFunc(s, unicode.IsControl) }

// Bounds of a JSON body. Read into memory each value takes many times the two bytes that
// it can be written in, and each object is held against a schema with dozens of members.
const (
	MostValues  = 1_500_000
	MostObjects = 25_000
)

// WithinBounds refuses JSON that is no text, or that has too many values or objects, before it is
// read: what is not UTF-8 would be changed without a word, and so would halves of a
// character; a NUL could not be kept.
func WithinBounds(unmarshal func([]byte, any) error) func([]byte, any) error {
	return func(data []byte, v any) error {
		if !utf8.Valid(data) {
			return errors.New("the request is not UTF-8")
		}
		values, objects, nul := 0, 0, false
		for i := 0; i < len(data); i++ {
			switch data[i] {
			case '{':
				objects++
				values++
			case ',', '[':
				values++
			case '\\':
				n, unit, err := escape(data[i:])
				if err != nil {
					return fmt.Errorf("byte %d: %w", i, err)
				}
				nul = nul || n == 6 && unit == 0
				i += n - 1
			}
		}
		if values > MostValues {
			return fmt.Errorf("the request has more than %d values", MostValues)
		}
		if objects > MostObjects {
			return fmt.Errorf("the request has more than %d objects", MostObjects)
		}
		if err := unmarshal(data, v); err != nil || !nul {
			return err
		}
		if all, ok := v.(*any); ok { // read once without a schema, to be held against it
			if place := withNUL(*all, ""); place != "" {
				return fmt.Errorf("%s: has a character U+0000, which can be neither saved nor shown", place)
			}
		}
		return nil
	}
}

// withNUL is the place of a text with a NUL in it, empty for none.
func withNUL(v any, at string) string {
	switch v := v.(type) {
	case string:
		if strings.ContainsRune(v, 0) {
			return at
		}
	case []any:
		for i := range v {
			if place := withNUL(v[i], fmt.Sprintf("%s[%d]", at, i)); place != "" {
				return place
			}
		}
	case map[string]any:
		for name, member := range v {
			inside := strings.TrimPrefix(at+"."+name, ".")
			if strings.ContainsRune(name, 0) {
				return strings.TrimPrefix(at+"."+strconv.Quote(name), ".")
			}
			if place := withNUL(member, inside); place != "" {
				return place
			}
		}
	}
	return ""
}

// escape looks at an escape of JSON (RFC 8259, section 7) and returns how long it is, and the first unit of UTF-16 that it
// stands for where it names one.
func escape(data []byte) (length int, first rune, err error) {
	unit := func(at int) (rune, bool) {
		if len(data) < at+6 || data[at] != '\\' || data[at+1] != 'u' {
			return 0, false
		}
		n, err := strconv.ParseUint(string(data[at+2:at+6]), 16, 16)
		return rune(n), err == nil
	}
	first, ok := unit(0)
	switch {
	case !ok:
		return 2, 0, nil // of another kind, or none: whoever reads it will tell
	case first < 0xd800 || first > 0xdfff:
		return 6, first, nil
	}
	if second, ok := unit(6); ok && first < 0xdc00 && second >= 0xdc00 && second <= 0xdfff {
		return 12, first, nil
	}
	return 0, first, fmt.Errorf(`half a character (\u%04x), which would be changed without a word`, first)
}
