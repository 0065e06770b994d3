package document

import (
	"bytes"
	"encoding"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"math"
	"reflect"
	"strconv"
	"unicode/utf8"
)

// Read reads JSON into what a pointer leads to as encoding/json does, but refuses unknown, repeated, missing and null
// members and values outside their limits. The error, an [*Error], names the first place that is wrong. A text may stand
// in the whole under the name beside, which is no member of it and is read over; none does where it is empty.
func Read(data []byte, into any, beside string) error {
	data = bytes.TrimPrefix(data, byteOrderMark)
	if at := invalidUTF8(data); at >= 0 {
		line, column := position(data, at)
		return Wrong("", "line %d, column %d: not UTF-8", line, column)
	}
	r := &Reader{data: data, tokens: json.NewDecoder(bytes.NewReader(data)), beside: beside}
	r.tokens.UseNumber()
	token, err := r.Next()
	if err == nil {
		err = r.Into("", token, into)
	}
	if err == nil {
		if _, end := r.tokens.Token(); end != io.EOF {
			err = r.syntax(errors.New("something follows the end of the document"))
		}
	}
	return err
}

// byteOrderMark stands before the text in files of some programs.
var byteOrderMark = []byte("\ufeff")

// Reader is on its way through a document.
type Reader struct {
	data   []byte
	tokens *json.Decoder
	beside string
}

// Into reads the value that begins with token into what a pointer leads to.
func (r *Reader) Into(path string, token json.Token, to any) error {
	return r.value(path, token, reflect.ValueOf(to).Elem())
}

// Next is the next token.
func (r *Reader) Next() (json.Token, error) {
	token, err := r.tokens.Token()
	if err != nil {
		return nil, r.syntax(err)
	}
	return token, nil
}

// syntax says where the text stops being JSON.
func (r *Reader) syntax(err error) error {
	at := int(r.tokens.InputOffset())
	var syntax *json.SyntaxError
	if errors.As(err, &syntax) {
		at = int(syntax.Offset)
	}
	if errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF) {
		at, err = len(r.data), errors.New("it ends too early")
	}
	line, column := position(r.data, at)
	return Wrong("", "line %d, column %d: not JSON: %v", line, column, err)
}

var textType = reflect.TypeFor[encoding.TextUnmarshaler]()

// value reads the value that begins with token.
func (r *Reader) value(path string, token json.Token, v reflect.Value) error {
	if token == nil {
		return Wrong(path, "null; leave out what is not known")
	}
	switch own := v.Addr().Interface().(type) {
	case Either:
		return r.textOrObject(path, token, own)
	case Source:
		if err := own.ReadFrom(r, path, token); err != nil {
			return err
		}
		if own, ok := own.(Checked); ok {
			return own.CheckAt(path)
		}
		return nil
	}
	if v.Kind() == reflect.Pointer {
		v.Set(reflect.New(v.Type().Elem()))
		return r.value(path, token, v.Elem())
	}
	if formOf(v.Type()).text {
		s, ok := token.(string)
		if !ok {
			return Wrong(path, "%s where a text is wanted", KindOf(token))
		}
		if err := v.Addr().Interface().(encoding.TextUnmarshaler).UnmarshalText([]byte(s)); err != nil {
			return Wrong(path, "%v", err)
		}
		return nil
	}
	switch v.Kind() {
	case reflect.Struct:
		return r.object(path, token, v)
	case reflect.Slice:
		return r.list(path, token, v)
	case reflect.String:
		s, ok := token.(string)
		if !ok {
			return Wrong(path, "%s where a text is wanted", KindOf(token))
		}
		v.SetString(s)
	case reflect.Bool:
		b, ok := token.(bool)
		if !ok {
			return Wrong(path, "%s where true or false is wanted", KindOf(token))
		}
		v.SetBool(b)
	default:
		return r.number(path, token, v)
	}
	return nil
}

func (r *Reader) number(path string, token json.Token, v reflect.Value) error {
	n, ok := token.(json.Number)
	if !ok {
		return Wrong(path, "%s where a number is wanted", KindOf(token))
	}
	f, err := strconv.ParseFloat(n.String(), 64)
	if err != nil {
		return Wrong(path, "%v is too large a number", n)
	}
	if v.Kind() == reflect.Float64 {
		v.SetFloat(f)
		return nil
	}
	if f != math.Trunc(f) || math.Abs(f) > 1e9 {
		return Wrong(path, "%v where a whole number is wanted", n)
	}
	v.SetInt(int64(f))
	return nil
}

func (r *Reader) list(path string, token json.Token, v reflect.Value) error {
	if token != json.Delim('[') {
		return Wrong(path, "%s where a list is wanted", KindOf(token))
	}
	v.Set(reflect.MakeSlice(v.Type(), 0, 0))
	for i := 0; ; i++ {
		token, err := r.Next()
		if err != nil {
			return err
		}
		if token == json.Delim(']') {
			return nil
		}
		item := reflect.New(v.Type().Elem()).Elem()
		if err := r.value(path+"["+strconv.Itoa(i)+"]", token, item); err != nil {
			return err
		}
		v.Set(reflect.Append(v, item))
	}
}

func (r *Reader) object(path string, token json.Token, v reflect.Value) error {
	if token != json.Delim('{') {
		return Wrong(path, "%s where an object is wanted", KindOf(token))
	}
	f := formOf(v.Type())
	seen, beside := make([]bool, len(f.members)), false
	for {
		token, err := r.Next()
		if err != nil {
			return err
		}
		name, ok := token.(string)
		if !ok {
			break
		}
		i, known := f.at[name]
		switch {
		case path == "" && name == r.beside && name != "" && !beside:
			beside = true
			if token, err = r.Next(); err != nil {
				return err
			}
			if err := r.Into(name, token, new(string)); err != nil {
				return err
			}
			continue
		case known && seen[i] || beside && name == r.beside:
			return Wrong(Join(path, name), "given twice")
		case !known:
			return Wrong(Join(path, name), "no such member")
		}
		seen[i] = true
		if token, err = r.Next(); err != nil {
			return err
		}
		at, m := Join(path, name), &f.members[i]
		field := v.FieldByIndex(m.Index)
		if err := r.value(at, token, field); err != nil {
			return err
		}
		if err := m.Check(at, field); err != nil {
			return err
		}
	}
	return f.complete(path, v, seen)
}

// complete refuses a struct without a member that must be there, or with members that do not go together.
func (f *form) complete(path string, v reflect.Value, given []bool) error {
	for i, m := range f.members {
		if m.Required && !given[i] {
			return Wrong(Join(path, m.Name), "missing")
		}
	}
	return checkShape(path, v, given)
}

func (r *Reader) textOrObject(path string, token json.Token, e Either) error {
	if id, ok := token.(string); ok {
		text, _ := e.Text()
		*text = id
		return nil
	}
	if token != json.Delim('{') {
		_, kind := e.Text()
		_, object := e.Meaning()
		return Wrong(path, "%s where the id of a %s, or %s, is wanted", KindOf(token), kind, object)
	}
	return r.object(path, token, reflect.ValueOf(e.Begin()).Elem())
}

// KindOf is what a token begins, in words: "the text \"yes\"".
func KindOf(token json.Token) string {
	switch token := token.(type) {
	case json.Delim:
		if token == '{' {
			return "an object"
		}
		return "a list"
	case string:
		return fmt.Sprintf("the text %q", token)
	case bool:
		return strconv.FormatBool(token)
	default:
		return fmt.Sprint("the number ", token)
	}
}

// invalidUTF8 is where a text stops being UTF-8, -1 where it is all through.
func invalidUTF8(data []byte) int {
	if utf8.Valid(data) {
		return -1
	}
	for at := 0; ; {
		r, size := utf8.DecodeRune(data[at:])
		if r == utf8.RuneError && size == 1 {
			return at
		}
		at += size
	}
}

// position is the line and the column of a byte, from 1.
func position(data []byte, at int) (line, column int) {
	before := data[:min(max(at, 0), len(data))]
	return bytes.Count(before, []byte("\n")) + 1, len(before) - bytes.LastIndexByte(before, '\n')
}
