package api

import (
	"mime"
	"testing"
	"time"

	"wakefield.example/core/plan"
)

// TestFilesAreNamedForTheirSite names files of sites with all that people call them.
func TestFilesAreNamedForTheirSite(t *testing.T) {
	now := time.Date(2026, 11, 29, 23, 30, 0, 0, time.UTC)
	for _, c := range []struct{ site, variant, zone, want string }{
		{"Pennywhistle Quay", "As surveyed", "Europe/London", "Pennywhistle Quay, As surveyed, channels, 2026-11-29.csv"},
		{"Fährhalle", "naïve 2", "Pacific/Apia", "Fährhalle, naïve 2, channels, 2026-11-30.csv"},
		{`a/b\c:"d"?*<e>|f` + "\n", "...", "nowhere", "a-b-c--d----e--f-, channels, 2026-11-29.csv"},
	} {
		p := &plan.Plan{Name: c.variant, Site: plan.Site{Name: c.site, TimeZone: c.zone}}
		kind, params, err := mime.ParseMediaType(attached(p, "channels", "csv", now))
		if err != nil || kind != "attachment" || params["filename"] != c.want {
			t.Errorf("%q %q: %s %q %v, want %q", c.site, c.variant, kind, params["filename"], err, c.want)
		}
	}
}
