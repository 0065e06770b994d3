package week

import "fmt"

// Weekday is a day of the week; Monday is 0.
type Weekday int

const (
	Monday Weekday = iota
	Tuesday
	Wednesday
	Thursday
	Friday
	Saturday
	Sunday
)

// Weekdays lists the seven days in order.
var Weekdays = [7]Weekday{Monday, Tuesday, Wednesday, Thursday, Friday, Saturday, Sunday}

var dayIDs = [7]string{"mon", "tue", "wed", "thu", "fri", "sat", "sun"}
var dayNames = [7]string{"Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"}

// String is the short form used in plan files: "mon" … "sun".
func (d Weekday) String() string { return dayIDs[d] }

// Name is the English name of the day.
func (d Weekday) Name() string { return dayNames[d] }

// Start is 00:00 of the day.
func (d Weekday) Start() Minute { return Minute(d) * Day }

// Next is the following day; Monday follows Sunday.
func (d Weekday) Next() Weekday { return (d + 1) % 7 }

// MarshalText writes the short form.
func (d Weekday) MarshalText() ([]byte, error) {
	if d < Monday || d > Sunday {
		return nil, fmt.Errorf("no weekday %d", int(d))
	}
	return []byte(d.String()), nil
}

// UnmarshalText reads the short form.
func (d *Weekday) UnmarshalText(text []byte) error {
	for i, id := range dayIDs {
		if id == string(text) {
			*d = Weekday(i)
			return nil
		}
	}
	return fmt.Errorf("no day %q; days are mon, tue, wed, thu, fri, sat, sun", text)
}
