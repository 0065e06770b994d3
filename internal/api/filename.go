package api

import (
	"mime"
	"strings"
	"time"

	"wakefield.example/core/plan"
)

// attached names a file that a browser keeps: site, variant, what it is, and the date on site, as "Pennywhistle Quay, As surveyed,
// channels, 2026-11-29.csv" (RFC 6266).
func attached(p *plan.Plan, what, extension string, now time.Time) string {
	if zone, err := time.LoadLocation(p.Site.TimeZone); err == nil {
		now = now.In(zone)
	}
	parts := []string{p.Site.Name, p.Name, what, now.Format(time.DateOnly)}
	name := parts[:0]
	for _, part := range parts {
		if part = fileWords(part); part != "" {
			name = append(name, part)
		}
	}
	return mime.FormatMediaType("attachment", map[string]string{"filename": strings.Join(name, ", ") + "." + extension})
}

// fileWords are words as a file may be called on any system.
func fileWords(text string) string {
	kept := strings.Map(func(r rune) rune {
		if r < ' ' || r == 0x7f || strings.ContainsRune(`/\:*?"<>|`, r) {
			return '-'
		}
		return r
	}, text)
	runes := []rune(strings.Join(strings.Fields(kept), " "))
	return strings.Trim(string(runes[:min(len(runes), 60)]), ". ")
}
