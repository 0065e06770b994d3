package onvif

import (
	"bytes"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"

	"github.com/beevik/etree"
	"golang.org/x/net/html/charset"
)

// What a message may have. A recorder of 192 channels answers with about two megabytes and thirty thousand elements.
const (
	MostBytes    = 16 << 20
	mostElements = 300_000
	deepestIn    = 100
)

// Envelope writes a message: header and body are its elements, and what they are of is declared where it begins.
func Envelope(header []*Element, body *Element) []byte {
	root := E("s:Envelope")
	if len(header) > 0 {
		root.AddChild(E("s:Header", header))
	}
	root.AddChild(E("s:Body", body))
	used := prefixes(root, nil)
	slices.Sort(used)
	attrs := make([]etree.Attr, 0, len(used)+len(root.Attr))
	for _, p := range used {
		attrs = append(attrs, etree.Attr{Space: "xmlns", Key: p, Value: Namespaces[p]})
	}
	for _, a := range attrs {
		root.CreateAttr(a.Space+":"+a.Key, a.Value)
	}
	doc := etree.NewDocument()
	doc.CreateProcInst("xml", `version="1.0" encoding="UTF-8"`)
	doc.SetRoot(root)
	out, err := doc.WriteToBytes()
	if err != nil {
		panic(err) // nothing but memory is written to
	}
	return out
}

// prefixes lists those that a tree uses: of elements, attributes, and of names that stand in texts, as topics and types do.
func prefixes(e *Element, used []string) []string {
	add := func(p string) {
		if Namespaces[p] != "" && !slices.Contains(used, p) {
			used = append(used, p)
		}
	}
	add(e.Space)
	inText := func(text string) {
		for field := range strings.FieldsSeq(text) {
			if p, _, named := strings.Cut(strings.TrimPrefix(field, "boolean("), ":"); named {
				add(p)
			}
		}
	}
	for _, a := range e.Attr {
		add(a.Space)
		inText(a.Value)
	}
	inText(e.Text())
	for _, child := range e.ChildElements() {
		used = prefixes(child, used)
	}
	return used
}

// Message is a message that was read.
type Message struct {
	Header *Element // nil where it has none
	Body   *Element // the first element of its body; nil for an empty one
}

// Read reads a message in any encoding that XML names. It is refused where it is larger than MostBytes, deeper or of more
// elements than any answer is, where it defines entities, and where it is no envelope of SOAP 1.2.
func Read(r io.Reader) (*Message, error) {
	data, err := io.ReadAll(io.LimitReader(r, MostBytes+1))
	if err != nil {
		return nil, err
	}
	root, err := tree(data)
	if err != nil {
		return nil, err
	}
	if !Is(root, "s:Envelope") {
		return nil, fmt.Errorf("the answer is no SOAP 1.2 message: it begins with %s", shortened(root.FullTag()))
	}
	m := &Message{Header: root.SelectElement("Header")}
	body := root.SelectElement("Body")
	if body == nil {
		return nil, errors.New("the answer is a SOAP message without a body")
	}
	if list := body.ChildElements(); len(list) > 0 {
		m.Body = list[0]
	}
	return m, nil
}

// tree reads XML within limits.
func tree(data []byte) (*Element, error) {
	if len(data) > MostBytes {
		return nil, fmt.Errorf("the answer is larger than %d MB", MostBytes>>20)
	}
	if err := within(data); err != nil {
		return nil, err
	}
	doc := etree.NewDocument()
	doc.ReadSettings.CharsetReader = charset.NewReaderLabel
	if err := doc.ReadFromBytes(data); err != nil {
		return nil, fmt.Errorf("the answer is no XML: %w", err)
	}
	switch {
	case doc.Root() != nil:
	case len(bytes.TrimSpace(data)) == 0:
		return nil, errors.New("the answer is empty")
	default:
		return nil, errors.New("the answer is no XML")
	}
	return doc.Root(), nil
}

// within asks what a tree would take, before it is made.
func within(data []byte) error {
	d := xml.NewDecoder(bytes.NewReader(data))
	d.CharsetReader = charset.NewReaderLabel
	elements, depth := 0, 0
	for {
		token, err := d.RawToken()
		if errors.Is(err, io.EOF) {
			return nil
		}
		if err != nil {
			return fmt.Errorf("the answer is no XML: %w", err)
		}
		switch token.(type) {
		case xml.StartElement:
			elements++
			depth++
		case xml.EndElement:
			depth--
		case xml.Directive:
			return errors.New("the answer defines a document type, which no SOAP message may")
		}
		if elements > mostElements || depth > deepestIn {
			return fmt.Errorf("the answer has more than %d elements, or lies more than %d deep", mostElements, deepestIn)
		}
	}
}

func shortened(s string) string {
	if len(s) > 60 {
		s = s[:60] + "…"
	}
	return s
}
