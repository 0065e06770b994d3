package plan

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
	"strings"
	"unicode/utf8"
)

// Within puts an error's path below another.
func Within(path string, err error) error {
	if e, ok := err.(*Error); ok {
		return &Error{strings.TrimSuffix(join(path, e.Path), "."), e.Reason}
	}
	return err
}

// MaxBytes is the size of the largest plan, as [Plan.Bytes] measures it. MaxFileBytes
// is the size of the largest file that Read accepts: the same with the spaces and line
// ends that are for people.
const (
	MaxBytes     = 16 << 20
	MaxFileBytes = 32 << 20
)

// Error is something wrong at one place of a document.
type Error struct {
	Path   string // such as "channels[3].week"; empty for the whole document
	Reason string
}

func (e *Error) Error() string {
	if e.Path == "" {
		return e.Reason
	}
	return e.Path + ": " + e.Reason
}

// Wrong is an [*Error] at a place.
func Wrong(path, format string, args ...any) error {
	return &Error{path, fmt.Sprintf(format, args...)}
}

// Read reads a plan and checks every rule of the format. The error, an [*Error],
// names the first place that is wrong.
func Read(data []byte) (*Plan, error) {
	if len(data) > MaxFileBytes {
		return nil, Wrong("", "larger than %d MiB, which no plan is", MaxFileBytes>>20)
	}
	p, err := Restore(data)
	if err == nil && len(data) > MaxBytes {
		err = p.CheckSize()
	}
	if err != nil {
		return nil, err
	}
	return p, nil
}

// Bytes is the plan as it is kept: JSON without spaces. Its length is the size of the
// plan.
func (p *Plan) Bytes() ([]byte, error) { return json.Marshal(p) }

// CheckSize refuses a plan that is larger than MaxBytes.
func (p *Plan) CheckSize() error {
	data, err := p.Bytes()
	if err != nil {
		return err
	}
	return CheckBytes(data)
}

// CheckBytes is [Plan.CheckSize] for a plan that has been written already.
func CheckBytes(data []byte) error {
	if len(data) > MaxBytes {
		return Wrong("", "larger than %d MiB, even without its spaces: %.1f MiB; no plan may be", MaxBytes>>20, float64(len(data))/(1<<20))
	}
	return nil
}

// byteOrderMark stands before the text in files of some programs.
var byteOrderMark = []byte("\ufeff")

// schemaMember says, in a plan file, where its schema is to be found. Editors of files look at it; it is no part of the plan.
const schemaMember = "$schema"

// Restore reads a plan that was accepted before: it obeys every rule but that of its
// size, which is one for what is new.
func Restore(data []byte) (*Plan, error) {
	data = bytes.TrimPrefix(data, byteOrderMark)
	if at := invalidUTF8(data); at >= 0 {
		line, column := position(data, at)
		return nil, Wrong("", "line %d, column %d: not UTF-8", line, column)
	}
	p := new(Plan)
	if err := decode(data, p); err != nil {
		return nil, err
	}
	if err := p.checkReferences(); err != nil {
		return nil, err
	}
	return p, nil
}

// Write writes a plan as Read reads it, indented for people where that is not too
// large to be read again.
func (p *Plan) Write() ([]byte, error) {
	data, err := json.MarshalIndent(p, "", "  ")
	if err == nil && len(data) >= MaxFileBytes {
		data, err = p.Bytes()
	}
	if err != nil {
		return nil, err
	}
	return append(data, '\n'), nil
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

// decode reads JSON into a struct as encoding/json does, but refuses unknown,
// repeated, missing and null members, and says where.
func decode(data []byte, into any) error {
	r := &reader{data: data, tokens: json.NewDecoder(bytes.NewReader(data))}
	r.tokens.UseNumber()
	token, err := r.next()
	if err == nil {
		err = r.value("", token, reflect.ValueOf(into).Elem())
	}
	if err == nil {
		if _, end := r.tokens.Token(); end != io.EOF {
			err = r.syntax(errors.New("something follows the end of the document"))
		}
	}
	return err
}

type reader struct {
	data   []byte
	tokens *json.Decoder
}

func (r *reader) next() (json.Token, error) {
	token, err := r.tokens.Token()
	if err != nil {
		return nil, r.syntax(err)
	}
	return token, nil
}

// syntax says where the text stops being JSON.
func (r *reader) syntax(err error) error {
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
func (r *reader) value(path string, token json.Token, v reflect.Value) error {
	if token == nil {
		return Wrong(path, "null; leave out what is not known")
	}
	if e, ok := v.Addr().Interface().(either); ok {
		return r.either(path, token, e)
	}
	switch v.Type() {
	case areasType:
		return r.readAreas(path, token, v.Addr().Interface().(*Areas))
	case wordsType:
		return r.words(path, token, v.Addr().Interface().(*Words))
	case pointType:
		return r.point(path, token, v.Addr().Interface().(*Point))
	}
	if v.Kind() == reflect.Pointer {
		v.Set(reflect.New(v.Type().Elem()))
		return r.value(path, token, v.Elem())
	}
	if v.Addr().Type().Implements(textType) {
		s, ok := token.(string)
		if !ok {
			return Wrong(path, "%s where a text is wanted", kindOf(token))
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
			return Wrong(path, "%s where a text is wanted", kindOf(token))
		}
		v.SetString(s)
	case reflect.Bool:
		b, ok := token.(bool)
		if !ok {
			return Wrong(path, "%s where true or false is wanted", kindOf(token))
		}
		v.SetBool(b)
	default:
		return r.number(path, token, v)
	}
	return nil
}

func (r *reader) number(path string, token json.Token, v reflect.Value) error {
	n, ok := token.(json.Number)
	if !ok {
		return Wrong(path, "%s where a number is wanted", kindOf(token))
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

func (r *reader) list(path string, token json.Token, v reflect.Value) error {
	if token != json.Delim('[') {
		return Wrong(path, "%s where a list is wanted", kindOf(token))
	}
	v.Set(reflect.MakeSlice(v.Type(), 0, 0))
	for i := 0; ; i++ {
		token, err := r.next()
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

func (r *reader) point(path string, token json.Token, p *Point) error {
	var numbers []float64
	if err := r.list(path, token, reflect.ValueOf(&numbers).Elem()); err != nil {
		return err
	}
	if len(numbers) != len(p) {
		return Wrong(path, "%d numbers; a point has two, from the left and from the top", len(numbers))
	}
	copy(p[:], numbers)
	return checkPoint(path, *p)
}

func (r *reader) object(path string, token json.Token, v reflect.Value) error {
	if token != json.Delim('{') {
		return Wrong(path, "%s where an object is wanted", kindOf(token))
	}
	fields := membersOf(v.Type())
	seen := make(map[string]bool, len(fields))
	for {
		token, err := r.next()
		if err != nil {
			return err
		}
		name, ok := token.(string)
		if !ok {
			break
		}
		m, known := fields[name]
		switch {
		case name == schemaMember && v.Type() == reflect.TypeFor[Plan]() && !seen[name]:
			seen[name] = true
			if token, err = r.next(); err != nil {
				return err
			}
			if err := r.value(name, token, reflect.ValueOf(new(string)).Elem()); err != nil {
				return err
			}
			continue
		case !known && !seen[name]:
			return Wrong(join(path, name), "no such member")
		case seen[name]:
			return Wrong(join(path, name), "given twice")
		}
		seen[name] = true
		if token, err = r.next(); err != nil {
			return err
		}
		field := v.FieldByIndex(m.index)
		if err := r.value(join(path, name), token, field); err != nil {
			return err
		}
		if err := m.check(join(path, name), field); err != nil {
			return err
		}
	}
	for _, m := range orderedMembers(v.Type()) {
		if m.required && !seen[m.name] {
			return Wrong(join(path, m.name), "missing")
		}
	}
	return checkShape(path, v, seen)
}

func (r *reader) either(path string, token json.Token, e either) error {
	if id, ok := token.(string); ok {
		text, _ := e.named()
		*text = id
		return nil
	}
	if token != json.Delim('{') {
		_, kind := e.named()
		_, object := e.meaning()
		return Wrong(path, "%s where the id of a %s, or %s, is wanted", kindOf(token), kind, object)
	}
	return r.object(path, token, reflect.ValueOf(e.begin()).Elem())
}

func kindOf(token json.Token) string {
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

func join(path, name string) string {
	if path == "" {
		return name
	}
	if strings.HasPrefix(name, "[") {
		return path + name
	}
	return path + "." + name
}
