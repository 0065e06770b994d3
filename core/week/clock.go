package week

import "fmt"

// Clock is a time of day in minutes since midnight, 0 to 1440. 24:00 is an end,
// never a start.
type Clock int

// String writes "HH:MM".
func (c Clock) String() string { return fmt.Sprintf("%02d:%02d", int(c)/60, int(c)%60) }

// MarshalText writes "HH:MM".
func (c Clock) MarshalText() ([]byte, error) { return []byte(c.String()), nil }

// UnmarshalText reads exactly "HH:MM" from 00:00 to 24:00.
func (c *Clock) UnmarshalText(text []byte) error {
	digit := func(i int) int { return int(text[i]) - '0' }
	if len(text) == 5 && text[2] == ':' {
		ok := true
		for _, i := range []int{0, 1, 3, 4} {
			ok = ok && digit(i) >= 0 && digit(i) <= 9
		}
		if ok {
			hour, minute := digit(0)*10+digit(1), digit(3)*10+digit(4)
			if at := hour*60 + minute; minute < 60 && at <= int(Day) {
				*c = Clock(at)
				return nil
			}
		}
	}
	return fmt.Errorf("no time %q; times of day are 00:00 to 24:00", text)
}
