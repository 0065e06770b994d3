package edit

import (
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/week"
)

// TestSpecialDaysInWords says what became of the list of special days.
func TestSpecialDaysInWords(t *testing.T) {
	day := func(name string, of int) plan.SpecialDay {
		date := week.Date{Year: 2027, Month: 5, Day: of}
		return plan.SpecialDay{From: date, To: date, Name: name, UseDay: ptr(week.Sunday)}
	}
	fair, race, fete := day("Fair", 1), day("Race", 2), day("Fete", 3)
	for _, test := range []struct {
		was, now []plan.SpecialDay
		says     string
	}{
		{[]plan.SpecialDay{fair}, []plan.SpecialDay{fair, race}, "Special day added: Race, 2027-05-02"},
		{[]plan.SpecialDay{fair}, []plan.SpecialDay{race}, "Special day changed: Race, 2027-05-02"},
		{[]plan.SpecialDay{fair, race}, []plan.SpecialDay{fair}, "Special day removed: Race, 2027-05-02"},
		{[]plan.SpecialDay{fair, race}, []plan.SpecialDay{race, fair}, "Special days: another order, which decides what applies on a date that two of them share"},
		{[]plan.SpecialDay{fair}, []plan.SpecialDay{race, fete}, "Special days: 2 added, 1 removed"},
		{[]plan.SpecialDay{fair, race}, []plan.SpecialDay{fete}, "Special days: 1 added, 2 removed"},
		{nil, []plan.SpecialDay{race, fete}, "Special days: 2 added, 0 removed"},
	} {
		p := plantest.Whole(t)
		p.Site.SpecialDays = test.was
		if got := (&SetSpecialDays{test.now}).sentence(p); got != test.says {
			t.Errorf("%q, want %q", got, test.says)
		}
	}
}
