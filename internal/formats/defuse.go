// Package formats reads and writes the files that come from and go to other
// programs: tables as CSV and XLSX, event logs, calendars. One file each.
package formats

import "strings"

// Defused is a text that no spreadsheet takes for a formula.
func Defused(text string) string { return defuse(text) }

// defuse keeps a spreadsheet from taking a text for a formula: an apostrophe goes
// before what it would compute. rearm takes it away again, and nothing else.
func defuse(text string) string {
	if explosive(text) || strings.HasPrefix(text, "'") && (explosive(text[1:]) || strings.HasPrefix(text[1:], "'")) {
		return "'" + text
	}
	return text
}

func rearm(text string) string {
	if rest, ok := strings.CutPrefix(text, "'"); ok && (explosive(rest) || strings.HasPrefix(rest, "'")) {
		return rest
	}
	return text
}

func explosive(text string) bool {
	return text != "" && strings.ContainsRune("=+-@\t\r\n", rune(text[0]))
}
