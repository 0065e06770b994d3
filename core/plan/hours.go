package plan

import (
	"fmt"

	"wakefield.example/core/document"
	"wakefield.example/core/week"
)

// SpansOf lists the stretches of the week that hours cover; the error names the hours that
// are none.
func SpansOf(hours []Hours) ([]week.Span, error) {
	var spans []week.Span
	for i, h := range hours {
		if err := h.Week().Check(); err != nil {
			return nil, document.Wrong(fmt.Sprintf("hours[%d]", i), "%v", err)
		}
		spans = append(spans, h.Week().Spans()...)
	}
	return spans, nil
}

// HoursInWords writes hours as "Tue-Fri 06:00-22:00"; more than four stretches are
// counted.
func HoursInWords(hours []Hours) string {
	if len(hours) > 4 {
		return fmt.Sprintf("%d stretches", len(hours))
	}
	return HoursText(hours)
}

// ReadHours reads hours as people type them, see [week.ReadHours].
func ReadHours(text string) ([]Hours, error) {
	read, err := week.ReadHours(text)
	if err != nil {
		return nil, err
	}
	out := make([]Hours, len(read))
	for i, h := range read {
		out[i] = HoursOf(h)
	}
	return out, nil
}

// HoursText writes hours as [ReadHours] reads them.
func HoursText(hours []Hours) string {
	list := make([]week.Hours, len(hours))
	for i, h := range hours {
		list[i] = h.Week()
	}
	return week.HoursText(list)
}

// Week is the hours as the calculation has them.
func (h Hours) Week() week.Hours { return week.Hours{Days: h.Days, From: h.From, To: h.To} }

// HoursWhere writes the hours in which steps hold true, as a person would.
func HoursWhere(steps week.Steps[bool]) []Hours {
	var out []Hours
	for _, b := range steps.Blocks(false) {
		out = append(out, HoursOf(b.Hours))
	}
	return out
}

// HoursOf writes hours of the calculation as the plan has them; it leaves out the days where they are all seven.
func HoursOf(h week.Hours) Hours {
	if len(h.Days) == len(week.Weekdays) {
		h.Days = nil
	}
	return Hours{h.Days, h.From, h.To}
}

// Steps is when the hours hold.
func (h HourList) Steps() week.Steps[bool] {
	blocks := make([]week.Block[bool], len(h.Blocks))
	for i, b := range h.Blocks {
		blocks[i] = week.Block[bool]{Hours: b.Week(), Value: true}
	}
	return week.FromBlocks(false, blocks)
}
