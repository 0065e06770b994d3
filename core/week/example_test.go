package week_test

import (
	"fmt"

	"wakefield.example/core/week"
)

// Hours are written as people say them and hold on every week; times may run over midnight.
func ExampleReadHours() {
	hours, err := week.ReadHours("mon-fri 22:00-05:00, sat 00:00-24:00")
	if err != nil {
		fmt.Println(err)
		return
	}
	for _, h := range hours {
		fmt.Println(h, "spans:", len(h.Spans()))
	}
	_, err = week.ReadHours("mon 25:00-26:00")
	fmt.Println(err)
	// Output:
	// Mon-Fri 22:00-05:00 spans: 5
	// Sat spans: 1
	// no time "25:00"; times of day are 00:00 to 24:00
}

// Steps are a value that holds from one moment of the week to the next.
func ExampleSteps_Paint() {
	duty := week.Constant("motion only")
	opening := week.Span{From: 6 * week.Hour, To: 22 * week.Hour} // of Monday
	duty = duty.Paint(opening, "round the clock")
	for span, what := range duty.Runs() {
		fmt.Println(span, what)
	}
	fmt.Printf("%.1f %% round the clock\n", 100*duty.Share(func(d string) bool { return d == "round the clock" }))
	// Output:
	// mon 00:00-06:00 motion only
	// mon 06:00-22:00 round the clock
	// mon 22:00-sun 24:00 motion only
	// 9.5 % round the clock
}

// On special days another week holds; the later of two in the list hides the earlier.
func ExampleCalendar_Holding() {
	festival := week.DateRange{From: week.Date{Year: 2027, Month: 8, Day: 9}, To: week.Date{Year: 2027, Month: 8, Day: 15}}
	closed := week.DateRange{From: week.Date{Year: 2027, Month: 8, Day: 11}, To: week.Date{Year: 2027, Month: 8, Day: 11}}
	fmt.Println(week.Calendar{festival, closed}.Holding(week.Date{Year: 2027, Month: 8, Day: 8}, 5))
	// Output:
	// [-1 0 0 1 0]
}
