package effect

import (
	"math"
	"slices"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/resolve"
)

// of are the effects of a plan, and what they were found from.
func of(t *testing.T, p *plan.Plan, earlier *Effects) *Effects {
	t.Helper()
	var before *resolve.Site
	if earlier != nil {
		before = earlier.site
	}
	site := resolve.Of(p, before)
	played := make([]*resolve.Played, len(p.Channels))
	for i := range played {
		if earlier != nil && site.Inputs[i].Equal(&earlier.site.Inputs[i]) {
			played[i] = earlier.played[i]
			continue
		}
		in := &site.Inputs[i]
		played[i] = resolve.NewPlayed(in, in.Play(nil))
	}
	return Of(site, played, earlier)
}

// TestWhatIsToldAddsUp holds the hours of messages, outputs and monitors against their figures, and what goes out and what does
// not against what happens.
func TestWhatIsToldAddsUp(t *testing.T) {
	e := of(t, plantest.Read(t, "../estimate/testdata/plans/ties-of-every-kind.json"), nil)
	if len(e.Messages) == 0 || len(e.Outputs) == 0 || len(e.Monitors) == 0 {
		t.Fatalf("%+v", e)
	}
	perDay := func(hours []float64) float64 {
		sum := 0.0
		for _, v := range hours {
			sum += v
		}
		return sum / 7
	}
	near := func(what string, got, want float64) {
		t.Helper()
		if math.Abs(got-want) > 1e-9*(1+math.Abs(want)) {
			t.Errorf("%s: %v, want %v", what, got, want)
		}
	}
	hours := e.Hours()
	for k, m := range e.Messages {
		h := hours.Messages[k]
		near(m.ID+" sent", perDay(h.Sent), m.PerDay)
		near(m.ID+" held back", perDay(h.Held), m.HeldBackPerDay)
		near(m.ID+" quiet", perDay(h.Quiet), m.QuietPerDay)
		near(m.ID+" at its own interval", e.SentAt(m.ID, e.site.Plan.Message(m.ID).AtMostEverySeconds), m.PerDay)
		if seldom := e.SentAt(m.ID, 86400); m.PerDay > 0 && seldom >= m.PerDay && m.HeldBackPerDay > 0 {
			t.Errorf("%s: %v go out at one a day, %v now", m.ID, seldom, m.PerDay)
		}
	}
	for k, o := range e.Outputs {
		near(o.ID+" goes on", perDay(hours.Outputs[k].Begins), o.PerDay)
		near(o.ID+" is on", perDay(hours.Outputs[k].On)/24*100, o.OnPercent)
	}
	for k, m := range e.Monitors {
		near(m.ID+" shows", perDay(hours.Monitors[k].Shown), m.PerDay)
	}
}

// TestWhatDoesTheSameIsFoundOnce changes what nobody is told of, then a message.
func TestWhatDoesTheSameIsFoundOnce(t *testing.T) {
	p := plantest.Read(t, "../estimate/testdata/plans/ties-of-every-kind.json")
	before := of(t, p, nil)
	named := *p
	named.Channels = slices.Clone(p.Channels)
	named.Channels[0].Name += " again"
	if now := of(t, &named, before); now.alerts != before.alerts {
		t.Error("a name makes everything be told anew")
	}
	told := *p
	told.Messages = slices.Clone(p.Messages)
	told.Messages[0].AtMostEverySeconds *= 2
	now := of(t, &told, before)
	if now.alerts == before.alerts || now.Messages[0] == before.Messages[0] {
		t.Error("an interval twice as long changes nothing")
	}
	for k := 1; k < len(now.Messages); k++ {
		if id := now.Messages[k].ID; now.alerts.told[id] != before.alerts.told[id] {
			t.Errorf("%s was found anew", id)
		}
	}
	for i := range p.Channels {
		if now.copies != nil && now.copies.channel[i] != before.copies.channel[i] {
			t.Errorf("the copy of channel %d was found anew", i)
		}
	}
}

// TestAnAbsenceCostsEvidence sends a camera away and asks what its channel misses at home for it.
func TestAnAbsenceCostsEvidence(t *testing.T) {
	e := of(t, plantest.Read(t, "../estimate/testdata/plans/ties-of-every-kind.json"), nil)
	sent := e.Sent()
	if len(sent) == 0 {
		t.Fatal("no camera is sent anywhere")
	}
	for i, a := range e.Away {
		if a == nil {
			continue
		}
		home, left := e.played[i].Evidence(), a.Missing(e.played[i])
		if left.MissedPerDay < home.MissedPerDay || math.Abs(left.EventsPerDay-home.EventsPerDay) > 1e-9 {
			t.Errorf("channel %d: %+v at home, %+v away", i, home, left)
		}
		if share := a.Share.Mean(); share <= 0 || share >= 1 {
			t.Errorf("channel %d is away for %v", i, share)
		}
	}
}

// TestNothingIsCopiedWhereNobodySays leaves the copy out.
func TestNothingIsCopiedWhereNobodySays(t *testing.T) {
	p := plantest.Read(t, "../estimate/testdata/plans/ties-of-every-kind.json")
	with := of(t, p, nil)
	if with.Offsite == nil || with.CopyByHour() == nil || len(with.CopyByHour().Instead) != 3 {
		t.Fatalf("%+v", with.Offsite)
	}
	some := 0
	for i := range p.Channels {
		if s := with.Safe(i); s != nil {
			some++
			if s.NinetySeconds != nil && (*s.NinetySeconds < s.IdleSeconds-1e-9 && *s.MeanSeconds < s.IdleSeconds-1e-9 ||
				*s.WorstSeconds < *s.NinetySeconds) {
				t.Errorf("channel %d: %+v", i, s)
			}
		}
	}
	without := *p
	without.Offsite = nil
	without.Effects = slices.Clone(p.Effects)
	for i := range without.Effects {
		without.Effects[i].Offsite = nil
	}
	e := of(t, &without, nil)
	if some == 0 || e.Offsite != nil || e.CopyByHour() != nil || e.Safe(0) != nil {
		t.Errorf("%d channels are copied; without a copy %+v", some, e.Offsite)
	}
}
