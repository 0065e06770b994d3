package week

import "errors"

// Hours are hours of the day on some days of the week, as a person writes them.
// No days means all seven. An end at or before its start runs into the next day:
// Friday 22:00 to 05:00 ends on Saturday. Equal times are an error, as is a start
// at 24:00.
type Hours struct {
	Days []Weekday
	From Clock
	To   Clock
}

// Check reports what is wrong with the hours, if anything.
func (h Hours) Check() error {
	switch {
	case h.From == h.To:
		return errors.New("starts and ends at the same time; a whole day is 00:00 to 24:00")
	case Minute(h.From) >= Day:
		return errors.New("starts at 24:00; write 00:00 of the next day")
	}
	return nil
}

// Spans lists the stretches of the week that the hours cover. What runs past the
// end of Sunday comes back at the start of Monday.
func (h Hours) Spans() []Span {
	days := h.Days
	if len(days) == 0 {
		days = Weekdays[:]
	}
	spans := make([]Span, 0, len(days)+1)
	for _, d := range days {
		from, to := d.Start()+Minute(h.From), d.Start()+Minute(h.To)
		if h.To <= h.From {
			to += Day
		}
		if to > Length {
			spans = append(spans, Span{0, to - Length})
			to = Length
		}
		spans = append(spans, Span{from, to})
	}
	return spans
}
