package rehearse

import "testing"

// TestHowManyDaysCanBePlayed words a refusal by what is too much and how many days are not.
func TestHowManyDaysCanBePlayed(t *testing.T) {
	for days, want := range []string{
		"about 3000000 events would happen, more than the 400000 that are played, even on one day",
		"about 3000000 events would happen, more than the 400000 that are played; 1 day can be",
		"about 3000000 events would happen, more than the 400000 that are played; 2 days can be",
	} {
		if got := (&TooManyError{Work{Events: 3e6}, days}).Error(); got != want {
			t.Errorf("%q, want %q", got, want)
		}
	}
}
