package account

import (
	"errors"
	"strings"
	"unicode"
	"unicode/utf8"

	"github.com/mtibben/confusables"
	"golang.org/x/text/secure/precis"
	"golang.org/x/text/unicode/norm"
)

// LongestName is in characters.
const LongestName = 60

// Name is a name as it is shown, and the key by which it is compared (RFC 8266, and the skeleton of Unicode TR 39): names
// that differ in case, width or spaces alone, or that look alike, are one.
func Name(typed string) (name, key string, err error) {
	if !utf8.ValidString(typed) {
		return "", "", errors.New("the name is not UTF-8")
	}
	if utf8.RuneCountInString(typed) > 4*LongestName {
		return "", "", errors.New("the name has more than 60 characters")
	}
	name = strings.Join(strings.Fields(norm.NFKC.String(typed)), " ")
	switch {
	case name == "":
		return "", "", errors.New("a name is needed")
	case utf8.RuneCountInString(name) > LongestName:
		return "", "", errors.New("the name has more than 60 characters")
	case strings.ContainsFunc(name, func(r rune) bool { return unicode.IsControl(r) || unicode.Is(unicode.Cf, r) }):
		return "", "", errors.New("the name has a character in it that is not seen")
	}
	folded, err := precis.Nickname.CompareKey(name)
	if err != nil {
		return "", "", errors.New("the name has a character in it that names may not have")
	}
	// The skeleton of what was folded is folded again: a Cyrillic capital may look like a Latin one.
	key = strings.ToLower(confusables.Skeleton(strings.ToLower(confusables.Skeleton(folded))))
	return name, key, nil
}
