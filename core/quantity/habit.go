package quantity

import (
	"fmt"
	"regexp"
	"strings"
)

// Habit is how a file writes its numbers, as far as they tell: whether their fractions stand behind a comma or a point.
type Habit struct{ comma, point bool }

var (
	// Numbers that can be read in one way only: with a fraction that is no group of three digits, or with both signs in them.
	saysComma = regexp.MustCompile(`^[+-]?(\d+,(\d{1,2}|\d{4,})|0,\d+|\d{1,3}([. ]\d{3})+,\d+)(\s*[^\d\s.,].*)?$`)
	saysPoint = regexp.MustCompile(`^[+-]?(\d+\.(\d{1,2}|\d{4,})|0\.\d+|\d{1,3}([, ]\d{3})+\.\d+)(\s*[^\d\s.,].*)?$`)
	// Numbers whose sign may stand before a fraction or between thousands.
	mayComma = regexp.MustCompile(`^[+-]?[1-9]\d{0,2},\d{3}(\s*[^\d\s.,].*)?$`)
	mayPoint = regexp.MustCompile(`^[+-]?[1-9]\d{0,2}\.\d{3}(\s*[^\d\s.,].*)?$`)
)

// Learn takes in one number of the file.
func (h *Habit) Learn(text string) {
	if !strings.ContainsAny(text, ".,") {
		return
	}
	given := strings.TrimSpace(spaces.Replace(text))
	h.comma = h.comma || saysComma.MatchString(given)
	h.point = h.point || saysPoint.MatchString(given)
}

// Plain is a text as [Read] reads it. Where every number of the file that tells has its fraction behind a comma, one such as 1,125
// has too, and one such as 1.500 is refused as an [ErrTwoMeanings]: it may stand for thousands there.
func (h Habit) Plain(text string) (string, error) {
	if !h.comma || h.point {
		return text, nil
	}
	given := strings.TrimSpace(spaces.Replace(text))
	switch {
	case mayComma.MatchString(given):
		return strings.Replace(given, ",", ".", 1), nil
	case mayPoint.MatchString(given):
		return "", fmt.Errorf("“%s” %w here, where fractions stand behind a comma: write “%s” or “%s”", given, ErrTwoMeanings,
			strings.Replace(given, ".", "", 1), strings.Replace(given, ".", ",", 1))
	}
	return text, nil
}
