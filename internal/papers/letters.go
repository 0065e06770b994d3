package papers

import (
	"fmt"
	"strings"
	"sync"
	"unicode"

	"golang.org/x/image/font"
	"golang.org/x/image/font/sfnt"
	"golang.org/x/image/math/fixed"
	"golang.org/x/text/unicode/bidi"
	"golang.org/x/text/unicode/norm"
	"golang.org/x/text/unicode/runenames"

	"wakefield.example/web"
)

// A face is a font that papers are set in.
type face int

const (
	regular face = iota
	semiBold
	other // for letters that the two do not have
)

// families are the names by which a document knows the faces.
var families = [...]string{"Text", "TextBold", "Other"}

// fontFile is a font with the widths of its letters.
type fontFile struct {
	data  []byte
	font  *sfnt.Font
	mu    sync.Mutex
	buf   sfnt.Buffer
	wide  map[rune]float64 // in ems; below 0 for a letter that it does not have
	units fixed.Int26_6
}

var loadFonts = sync.OnceValues(func() (out letters, err error) {
	for i, name := range []string{web.RegularFont, web.SemiBoldFont, web.OtherFont} {
		data, err := web.Font(name)
		if err != nil {
			return out, err
		}
		f, err := sfnt.Parse(data)
		if err != nil {
			return out, fmt.Errorf("the font %s: %w", name, err)
		}
		out[i] = &fontFile{data: data, font: f, wide: make(map[rune]float64), units: fixed.Int26_6(f.UnitsPerEm())}
	}
	return out, nil
})

// width is the width of a letter in ems, and whether the font has it.
func (f *fontFile) width(r rune) (float64, bool) {
	f.mu.Lock()
	defer f.mu.Unlock()
	w, known := f.wide[r]
	if !known {
		w = -1
		if glyph, err := f.font.GlyphIndex(&f.buf, r); err == nil && glyph != 0 && r <= 0xffff {
			if advance, err := f.font.GlyphAdvance(&f.buf, glyph, f.units, font.HintingNone); err == nil {
				w = float64(advance) / float64(f.units)
			}
		}
		f.wide[r] = w
	}
	return w, w >= 0
}

// letters knows which font has which letter.
type letters [3]*fontFile

// faceOf is the font in which a letter is set where another is asked for.
func (l letters) faceOf(r rune, asked face) (face, float64, bool) {
	for _, f := range []face{asked, other} {
		if w, ok := l[f].width(r); ok {
			return f, w, true
		}
	}
	return asked, 0, false
}

// clean is a text in letters that can be set: composed, without marks that only screens need, Arabic letters in the forms in
// which they join, and in place of what no font has, such as an emoji, its name in brackets.
func (l letters) clean(text string) string {
	text = joined(norm.NFC.String(text))
	var b strings.Builder
	for _, r := range text {
		switch {
		case r == '\n' || r == '\t' || unicode.Is(unicode.Zs, r):
			b.WriteByte(' ')
		case unicode.IsControl(r), unicode.Is(unicode.Cf, r), r >= 0xfe00 && r <= 0xfe0f:
		default:
			if _, _, ok := l.faceOf(r, regular); ok {
				b.WriteRune(r)
				continue
			}
			name := strings.ToLower(runenames.Name(r))
			if name == "" || strings.HasPrefix(name, "<") {
				name = fmt.Sprintf("U+%04X", r)
			}
			b.WriteString("[" + name + "]")
		}
	}
	return b.String()
}

// part is a part of a line in one font.
type part struct {
	face  face
	text  string
	width float64 // ems
}

// parts takes a line apart by fonts, in the order in which they stand on paper.
func (l letters) parts(line string, asked face) (out []part) {
	for _, r := range seen(line) {
		f, w, ok := l.faceOf(r, asked)
		if !ok {
			continue
		}
		if n := len(out); n > 0 && out[n-1].face == f {
			out[n-1].text += string(r)
			out[n-1].width += w
		} else {
			out = append(out, part{f, string(r), w})
		}
	}
	return out
}

// width is that of a text, in ems.
func (l letters) width(text string, asked face) (w float64) {
	for _, r := range text {
		_, each, _ := l.faceOf(r, asked)
		w += each
	}
	return w
}

// lines breaks a clean text into lines of at most so many ems, at spaces, or within words that are longer than a line.
func (l letters) lines(text string, asked face, ems float64) (out []string) {
	space := l.width(" ", asked)
	line, wide := "", 0.0
	flush := func() {
		if line != "" {
			out = append(out, line)
		}
		line, wide = "", 0
	}
	for _, word := range strings.Fields(text) {
		w := l.width(word, asked)
		if line != "" && wide+space+w > ems {
			flush()
		}
		for w > ems {
			cut, at := 0.0, 0
			for i, r := range word {
				_, each, _ := l.faceOf(r, asked)
				if cut+each > ems && i > 0 {
					break
				}
				cut, at = cut+each, i+len(string(r))
			}
			out = append(out, word[:at])
			word = word[at:]
			w = l.width(word, asked)
		}
		if word == "" {
			continue
		}
		if line != "" {
			line, wide = line+" ", wide+space
		}
		line, wide = line+word, wide+w
	}
	flush()
	return out
}

// seen is a line as it stands on paper: what is written from right to left in the order of the eye from left to right.
func seen(line string) string {
	if strings.IndexFunc(line, rightToLeft) < 0 {
		return line
	}
	var p bidi.Paragraph
	// Lines are of English: what is written from right to left stands in it as a name does.
	if _, err := p.SetString(leftToRight + line); err != nil {
		return line
	}
	order, err := p.Order()
	if err != nil {
		return line
	}
	// What is written from right to left, and numbers that follow in it, stand in the opposite order.
	var b strings.Builder
	var backward []string
	flush := func() {
		for i := len(backward) - 1; i >= 0; i-- {
			b.WriteString(backward[i])
		}
		backward = nil
	}
	for i := range order.NumRuns() {
		run := order.Run(i)
		words := strings.TrimPrefix(run.String(), leftToRight)
		if run.Direction() == bidi.RightToLeft {
			backward = append(backward, bidi.ReverseString(words))
			continue
		}
		if number := words[:len(words)-len(strings.TrimLeft(words, "0123456789.,:%"))]; len(backward) > 0 && number != "" {
			backward = append(backward, number)
			words = words[len(number):]
		}
		if words != "" {
			flush()
			b.WriteString(words)
		}
	}
	flush()
	return b.String()
}

// leftToRight is a mark that nobody sees, from which on a line goes from left to right.
const leftToRight = "\u200e"

func rightToLeft(r rune) bool {
	p, _ := bidi.LookupRune(r)
	return p.Class() == bidi.R || p.Class() == bidi.AL
}

// forms are the shapes of an Arabic letter: alone, at the end, at the beginning and in the middle of letters that join.
type forms struct{ alone, end, begin, middle rune }

// arabic are the shapes of letters, read from the names of the characters that have them.
var arabic = sync.OnceValue(func() map[rune]forms {
	byName := make(map[string]rune)
	for r := rune(0x600); r <= 0x6ff; r++ {
		byName[runenames.Name(r)] = r
	}
	out := make(map[rune]forms)
	for r := rune(0xfb50); r <= 0xfeff; r++ {
		name := runenames.Name(r)
		for suffix, set := range map[string]func(*forms){
			" ISOLATED FORM": func(f *forms) { f.alone = r },
			" FINAL FORM":    func(f *forms) { f.end = r },
			" INITIAL FORM":  func(f *forms) { f.begin = r },
			" MEDIAL FORM":   func(f *forms) { f.middle = r },
		} {
			if base, ok := strings.CutSuffix(name, suffix); ok {
				if letter, known := byName[base]; known {
					f := out[letter]
					set(&f)
					out[letter] = f
				}
			}
		}
	}
	return out
})

// joined is a text whose Arabic letters have the shapes in which they join.
func joined(text string) string {
	if strings.IndexFunc(text, func(r rune) bool { return r >= 0x600 && r <= 0x6ff }) < 0 {
		return text
	}
	list := []rune(text)
	shapes := arabic()
	at := func(i int) (forms, bool) {
		if i < 0 || i >= len(list) {
			return forms{}, false
		}
		f, ok := shapes[list[i]]
		return f, ok
	}
	out := make([]rune, len(list))
	for i, r := range list {
		out[i] = r
		f, ok := at(i)
		if !ok {
			continue
		}
		before, joinsBefore := at(i - 1)
		_, joinsAfter := at(i + 1)
		joinsBefore = joinsBefore && before.begin != 0 && f.end != 0
		joinsAfter = joinsAfter && f.begin != 0
		switch {
		case joinsBefore && joinsAfter && f.middle != 0:
			out[i] = f.middle
		case joinsBefore:
			out[i] = f.end
		case joinsAfter:
			out[i] = f.begin
		case f.alone != 0:
			out[i] = f.alone
		}
	}
	return string(out)
}
