package week

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"
)

// String writes hours as a person does: "Tue-Fri 06:00-22:00", "all days" for all of the
// week. [ReadHours] reads it.
func (h Hours) String() string {
	times := fmt.Sprintf(" %v-%v", h.From, h.To)
	if h.From == 0 && Minute(h.To) == Day {
		times = ""
	}
	return daysText(h.Days) + times
}

func daysText(days []Weekday) string {
	if len(days) == 0 || len(days) == 7 {
		return "all days"
	}
	sorted := slices.Sorted(slices.Values(days))
	short := func(d Weekday) string { return d.Name()[:3] }
	first, last := sorted[0], sorted[len(sorted)-1]
	if len(sorted) > 1 && int(last-first) == len(sorted)-1 {
		return short(first) + "-" + short(last)
	}
	names := make([]string, len(sorted))
	for i, d := range sorted {
		names[i] = short(d)
	}
	return strings.Join(names, ", ")
}

// HoursText writes a list of hours. [ReadHours] reads it.
func HoursText(list []Hours) string {
	parts := make([]string, len(list))
	for i, h := range list {
		parts[i] = h.String()
		if i < len(list)-1 && h.From == 0 && Minute(h.To) == Day {
			parts[i] += " 00:00-24:00" // else its days would go with the times that follow
		}
	}
	return strings.Join(parts, ", ")
}

// someTime is what stands where a time of day is typed; [readTime] says whether it is one.
const someTime = `[0-9][0-9:.h]*(?:\s*[ap]\.?m\.?)?|noon|midnight`

var (
	dashes = strings.NewReplacer("–", "-", "—", "-", "−", "-", " to ", "-", " until ", "-", " till ", "-", ";", ",", " and ",
		",", "+", ",", "&", ",")
	partOfText = regexp.MustCompile(`^([a-z][a-z -]*?)?\s*(?:(` + someTime + `)\s*-\s*(` + someTime + `))?$`)
	timeOfText = regexp.MustCompile(`^([0-9]{1,2})(?:[:.h]([0-9]{2})|h)?\s*(?:([ap])\.?m\.?)?$`)
)

// ReadHours reads hours as people type them: "Mon-Fri 07:45-16:10", "Sun 22-6",
// "weekend", "Mon, Wed 8.30-12, Sat", "0745-1610", "7am-6:30 pm", "noon-19h". Days without times are whole days, and
// times without days are those of the days before, or of all days where there are none;
// days before a comma go with the times that follow. An end at or before its start runs into the next day.
func ReadHours(text string) ([]Hours, error) {
	var out []Hours
	var waiting []Weekday // days whose times are still to come
	for part := range strings.SplitSeq(dashes.Replace(strings.ToLower(strings.TrimSpace(text))), ",") {
		part = strings.Join(strings.Fields(part), " ")
		m := partOfText.FindStringSubmatch(part)
		if part == "" || m == nil {
			return nil, fmt.Errorf("%q are no hours; write them like Mon-Fri 07:45-16:10", text)
		}
		days, err := readDays(strings.TrimSpace(m[1]))
		if err != nil {
			return nil, err
		}
		if m[2] == "" {
			waiting = append(waiting, days...)
			continue
		}
		h := Hours{}
		if h.From, h.To, err = readTimes(m[2], m[3]); err != nil {
			return nil, err
		}
		if h.Days = tidy(append(waiting, days...)); len(h.Days) == 0 && len(out) > 0 {
			h.Days = out[len(out)-1].Days
		}
		if len(h.Days) == 7 || len(h.Days) == 0 {
			h.Days = nil
		}
		if err := h.Check(); err != nil {
			return nil, fmt.Errorf("%q %w", part, err)
		}
		out, waiting = append(out, h), nil
	}
	if len(waiting) > 0 {
		h := Hours{Days: tidy(waiting), To: Clock(Day)}
		if len(h.Days) == 7 {
			h.Days = nil
		}
		out = append(out, h)
	}
	return out, nil
}

func tidy(days []Weekday) []Weekday {
	slices.Sort(days)
	return slices.Compact(days)
}

// readDays reads one day, a stretch of them, or a word for several; none is all.
func readDays(text string) ([]Weekday, error) {
	switch text {
	case "":
		return nil, nil
	case "daily", "all days", "every day", "all", "all week", "every":
		return slices.Clone(Weekdays[:]), nil
	case "weekdays", "working days", "workdays":
		return []Weekday{Monday, Tuesday, Wednesday, Thursday, Friday}, nil
	case "weekend", "weekends":
		return []Weekday{Saturday, Sunday}, nil
	}
	var out []Weekday
	for _, word := range strings.Fields(text) {
		from, to, stretch := strings.Cut(word, "-")
		first, err := readDay(from)
		if err != nil {
			return nil, err
		}
		out = append(out, first)
		if !stretch {
			continue
		}
		last, err := readDay(to)
		if err != nil {
			return nil, err
		}
		for d := first; d != last; {
			d = d.Next()
			out = append(out, d)
		}
	}
	return out, nil
}

// readDay reads the name of a day or the beginning of one, of two letters at least.
func readDay(word string) (Weekday, error) {
	word = strings.TrimSuffix(word, ".")
	for d, name := range dayNames {
		name = strings.ToLower(name)
		if len(word) >= 2 && (strings.HasPrefix(name, word) || word == name+"s") {
			return Weekday(d), nil
		}
	}
	return 0, fmt.Errorf("no day %q; days are Mon, Tue, Wed, Thu, Fri, Sat, Sun", word)
}

// readTimes reads a start and an end. A start that does not say which half of the day is in that of the end where it is before it
// then: "7-9pm" begins at 19:00, "11-1pm" at 11:00.
func readTimes(from, to string) (start, end Clock, err error) {
	if start, err = readTime(from); err != nil {
		return 0, 0, err
	}
	if end, err = readTime(to); err != nil {
		return 0, 0, err
	}
	const noon = Clock(Day / 2)
	if m := timeOfText.FindStringSubmatch(to); m != nil && m[3] == "p" {
		if m := timeOfText.FindStringSubmatch(from); m != nil && m[3] == "" && start < noon && start+noon < end {
			start += noon
		}
	}
	return start, end, nil
}

// readTime reads a time of day: 7, 07:45, 7.45, 7h45, 19h, 0745, 7pm, 7:30 p.m., noon, midnight.
func readTime(text string) (Clock, error) {
	switch text {
	case "noon":
		return Clock(Day / 2), nil
	case "midnight":
		return 0, nil
	}
	if len(text) == 4 && !strings.ContainsAny(text, ":.hm ") {
		text = text[:2] + ":" + text[2:]
	}
	m := timeOfText.FindStringSubmatch(text)
	if m == nil {
		return 0, fmt.Errorf("no time %q; times of day are 00:00 to 24:00", text)
	}
	hour, _ := strconv.Atoi(m[1])
	minute, _ := strconv.Atoi(m[2])
	if half := m[3]; half != "" {
		if hour < 1 || hour > 12 {
			return 0, fmt.Errorf("no time %q; with am or pm hours are 1 to 12", text)
		}
		hour %= 12 // 12 am is midnight, 12 pm noon
		if half == "p" {
			hour += 12
		}
	}
	at := hour*60 + minute
	if minute > 59 || at > int(Day) {
		return 0, fmt.Errorf("no time %q; times of day are 00:00 to 24:00", text)
	}
	return Clock(at), nil
}
