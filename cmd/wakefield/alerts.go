package main

import (
	"fmt"
	"io"
	"text/tabwriter"

	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
)

// writeAlerts prints for people what causes do beside recording; nothing where they do nothing.
func writeAlerts(w io.Writer, p *plan.Plan, s *estimate.Result) error {
	t := tabwriter.NewWriter(w, 0, 0, 2, ' ', tabwriter.AlignRight)
	part := func(there int, heading string) bool {
		if there > 0 {
			fmt.Fprintf(t, "\n%s\t\n", heading)
		}
		return there > 0
	}
	if part(len(s.Messages), "message\tgo out a day\theld back\twhile quiet\tat night") {
		for i, m := range s.Messages {
			fmt.Fprintf(t, "%s\t%.1f\t%.1f\t%.1f\t%.1f\t\n", p.Messages[i].Name, m.PerDay, m.HeldBackPerDay, m.QuietPerDay, m.NightPerDay)
		}
	}
	if part(len(s.Outputs), "output\ttimes a day\ton\tat night\ton at night") {
		for i, o := range s.Outputs {
			fmt.Fprintf(t, "%s\t%.1f\t%.2f %%\t%.1f\t%.2f %%\t\n", p.Outputs[i].Name, o.PerDay, o.OnPercent, o.NightPerDay, o.NightOnPercent)
		}
	}
	if part(len(s.Monitors), "monitor\tshowings a day\ttaken\tin the busiest hour\tcut short") {
		for i, m := range s.Monitors {
			fmt.Fprintf(t, "%s\t%.1f\t%.1f %%\t%.1f %%\t%.1f %%\t\n", p.Monitors[i].Name, m.PerDay, m.OnPercent,
				m.BusiestOnPercent, m.CutShortPercent)
		}
	}
	if o := s.Offsite; o != nil && part(1, "off site\tGB a day\tof the uplink\tidle\tmean\t9 of 10\t99 of 100\tlate") {
		fmt.Fprintf(t, "all\t%.2f\t%.1f %%\t\t\t\t\t\t\n", o.GigabytesPerDay, o.UplinkPercent)
		for i, c := range s.Channels {
			if c.SafeSeconds == nil {
				continue
			}
			fmt.Fprintf(t, "%s\t\t\t%.0f s\t%s\t%s\t%s\t%s\t\n", p.Channels[i].Name, *c.SafeSeconds,
				orNever(c.MeanSafeSeconds), orNever(c.NinetySafeSeconds), orNever(c.WorstSafeSeconds), late(&c))
		}
	}
	return t.Flush()
}

// orNever is a time, or the word for what is never safe.
func orNever(seconds *float64) string {
	if seconds == nil {
		return "never"
	}
	return fmt.Sprintf("%.0f s", *seconds)
}

// late is the share of events that are safe too late, where anybody says what that is.
func late(c *estimate.Channel) string {
	if c.LatePercent == nil {
		return ""
	}
	return fmt.Sprintf("%.1f %%", *c.LatePercent)
}
