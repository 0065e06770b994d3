package handover

import (
	"fmt"
	"maps"
	"math/rand/v2"
	"os"
	"path/filepath"
	"slices"
	"testing"

	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// machine is a recorder that knows only type, copy and save.
type machine struct {
	weeks  map[string]*[7][]Period      // by channel
	values map[string]map[string]string // by channel and section, then by member
	areas  map[string][]string
}

// play does what the steps of a sheet say on a recorder as it is delivered.
func play(t *testing.T, channels []*plan.Channel, clock string, steps []Step) *machine {
	m := &machine{make(map[string]*[7][]Period), make(map[string]map[string]string), make(map[string][]string)}
	for _, c := range channels {
		var w [7][]Period
		for d := range w {
			w[d] = []Period{{0, week.Clock(week.Day), clock}}
		}
		m.weeks[c.ID] = &w
	}
	put := func(channel, section string, values map[string]any) {
		at := channel + " " + section
		if m.values[at] == nil {
			m.values[at] = make(map[string]string)
		}
		for k, v := range values {
			if v == unset {
				delete(m.values[at], k)
				continue
			}
			m.values[at][k] = written(v)
		}
	}
	for _, s := range steps {
		switch d := s.Do; {
		case d.Set != nil && d.Set.Day != nil:
			m.weeks[d.Set.Channel][*d.Set.Day] = d.Set.Periods
			if len(d.Set.Periods) != s.Entries {
				t.Fatalf("%s: %d entries for %d periods", s.ID, s.Entries, len(d.Set.Periods))
			}
		case d.Set != nil && d.Set.Section == "area":
			a := d.Set.Values["area"].(plan.Area)
			m.areas[d.Set.Channel] = append(m.areas[d.Set.Channel], a.ID)
		case d.Set != nil && d.Set.Channel != "":
			put(d.Set.Channel, d.Set.Section, d.Set.Values)
		case d.Camera != nil:
			put(d.Camera.Channel, "camera", d.Camera.Values)
		case d.CopyDay != nil:
			for _, to := range d.CopyDay.To {
				m.weeks[d.CopyDay.Channel][to] = m.weeks[d.CopyDay.Channel][d.CopyDay.Day]
			}
		case d.Copy != nil:
			for _, to := range d.Copy.To {
				if d.Copy.Section == "week" {
					w := *m.weeks[d.Copy.Channel]
					m.weeks[to] = &w
					continue
				}
				m.values[to+" "+d.Copy.Section] = maps.Clone(m.values[d.Copy.Channel+" "+d.Copy.Section])
			}
		}
	}
	return m
}

// takesOf are what some recorder might take.
func takesOf(random *rand.Rand) *plan.Takes {
	pick := func(list ...int) int { return list[random.IntN(len(list))] }
	t := &plan.Takes{StepMinutes: pick(0, 1, 5, 15, 30, 60, 1440), PeriodsPerDay: pick(0, 1, 2, 4,
		8), GridColumns: 11, GridRows: 9, SensitivitySteps: pick(0, 1, 7, 100)}
	t.Layers = []string{"", "one", "two"}[random.IntN(3)]
	t.Areas = []string{"", "polygon", "grid", "none"}[random.IntN(4)]
	for _, list := range []*[]float64{&t.PreSeconds, &t.PostSeconds, &t.FramesPerSecond} {
		for range random.IntN(4) {
			*list = append(*list, float64(1+random.IntN(40)))
		}
	}
	if random.IntN(2) == 0 {
		t.Copies = []string{}
		for _, c := range plan.CopiesTaken {
			if random.IntN(2) == 0 {
				t.Copies = append(t.Copies, c.ID)
			}
		}
	}
	return t
}

// examples are plans of sites, with weeks that change at odd minutes.
func examples(t testing.TB, each func(name string, p *plan.Plan, random *rand.Rand)) {
	files, err := filepath.Glob("../estimate/testdata/*.json")
	if err != nil || len(files) == 0 {
		t.Fatal("no examples", err)
	}
	more, _ := filepath.Glob("../estimate/testdata/plans/*.json")
	random := rand.New(rand.NewPCG(29, 4))
	for _, file := range append(files, more...) {
		data, err := os.ReadFile(file)
		if err != nil {
			t.Fatal(err)
		}
		p, err := plan.Read(data)
		if err != nil {
			continue // figures, not a plan
		}
		for round := range 3 {
			q := *p
			q.Recorders, q.Channels = slices.Clone(p.Recorders), slices.Clone(p.Channels)
			for i := range q.Recorders {
				q.Recorders[i].Takes = takesOf(random)
			}
			for i := range q.Channels {
				for range random.IntN(3*round + 1) {
					w := q.WeekOf(&q.Channels[i]).Clone()
					from := week.Clock(random.IntN(1440))
					to := week.Clock(random.IntN(1440))
					if from == to {
						continue
					}
					var days []week.Weekday
					if random.IntN(2) == 0 {
						days = []week.Weekday{week.Weekday(random.IntN(7))}
					}
					w.Blocks = append(w.Blocks, plan.DutyBlock{Hours: plan.Hours{Days: days, From: from, To: to},
						Duty: q.Duties[random.IntN(len(q.Duties))].ID})
					q.Channels[i].Week = plan.WeekRef{Own: w}
				}
			}
			if err := q.Check(); err != nil {
				t.Fatalf("%s: %v", file, err)
			}
			each(fmt.Sprintf("%s %d", filepath.Base(file), round), &q, random)
		}
	}
}

// TestTheStepsMakeThePlanAsEntered plays the steps of sheets into a machine.
func TestTheStepsMakeThePlanAsEntered(t *testing.T) {
	t.Parallel()
	examples(t, func(name string, p *plan.Plan, _ *rand.Rand) {
		e := Enter(p, estimate.Figures(p, nil))
		if err := e.Plan.Check(); err != nil {
			t.Fatalf("%s: the plan as entered: %v", name, err)
		}
		doc := Sheets(e, estimate.Figures(e.Plan, nil), week.Date{Year: 2027, Month: 3, Day: 1})
		for r, sheet := range doc.Recorders {
			w := newWriter(e, r)
			sum := 0
			for _, s := range sheet.Steps {
				sum += s.Entries
			}
			if sum != sheet.Entries || sheet.Entries > sheet.EntriesOneByOne {
				t.Errorf("%s: %d entries in steps, %d said, %d one by one", name, sum, sheet.Entries, sheet.EntriesOneByOne)
			}
			m := play(t, w.channels, "clock as delivered", sheet.Steps)
			w.compare(t, name, m)
		}
	})
}

// compare asks that what stands in the machine is the plan as entered.
func (w *writer) compare(t *testing.T, name string, m *machine) {
	for _, c := range w.channels {
		for d, day := range daysOf(w.plan.WeekOf(c).Steps()) {
			got := m.weeks[c.ID][d]
			for k := range max(len(day), len(got)) {
				if k >= len(day) || k >= len(got) || got[k].From != week.Clock(day[k].from) || got[k].To != week.Clock(day[k].to) ||
					got[k].Duty != day[k].duty && !(got[k].Duty == "clock as delivered" && w.isClock(day[k].duty)) &&
						!(w.isClock(got[k].Duty) && w.isClock(day[k].duty)) {
					t.Fatalf("%s: %s day %d: %v, want %v", name, c.ID, d, got, day)
				}
			}
		}
		if !c.NoCamera {
			w.holds(t, name, m, c)
		}
	}
}

// holds asks that values of a channel stand in the machine as in the plan.
func (w *writer) holds(t *testing.T, name string, m *machine, c *plan.Channel) {
	sections := map[string][]value{"times": timesOf(c)}
	if !c.CameraDecides() {
		sections["stream"] = streamsOf(c)
	}
	if !w.setAtCamera(c) {
		sections["detection"] = detectionOf(c)
	}
	for section, values := range sections {
		got := m.values[c.ID+" "+section]
		for _, v := range values {
			if got[v.name] != written(v.is) {
				t.Fatalf("%s: %s %s: %q, want %v", name, c.ID, v.name, got[v.name], v.is)
			}
		}
		if len(got) != len(values) {
			t.Fatalf("%s: %s %s: %v, want %v", name, c.ID, section, got, values)
		}
	}
	if c.CameraDecides() {
		for _, v := range streamsOf(c) {
			if got := m.values[c.ID+" camera"][v.name]; got != written(v.is) {
				t.Fatalf("%s: %s at the camera %s: %q, want %v", name, c.ID, v.name, got, v.is)
			}
		}
	}
	limits := m.values[c.ID+" disks"]
	if c.Keep.AtMostDays > 0 && limits["keep.atMostDays"] != written(c.Keep.AtMostDays) ||
		c.Keep.QuotaGB > 0 && limits["keep.quotaGB"] != written(c.Keep.QuotaGB) {
		t.Fatalf("%s: %s: limits %v, want %+v", name, c.ID, limits, c.Keep)
	}
	if c.Detection.Areas != nil && !w.setAtCamera(c) && len(m.areas[c.ID]) != len(c.Detection.Areas.List) {
		t.Fatalf("%s: %s: areas %v", name, c.ID, m.areas[c.ID])
	}
}

// TestWhatIsEnteredCanBeEntered asks that a plan as entered departs from nothing any more, and that it fits what is taken.
func TestWhatIsEnteredCanBeEntered(t *testing.T) {
	t.Parallel()
	examples(t, func(name string, p *plan.Plan, _ *rand.Rand) {
		e := Enter(p, estimate.Figures(p, nil))
		again := Enter(e.Plan, estimate.Figures(e.Plan, nil))
		if again.Differs() {
			t.Errorf("%s: %+v", name, again.Departures)
		}
		for i := range e.Plan.Channels {
			c := &e.Plan.Channels[i]
			takes := e.Plan.Recorder(c.Recorder).Takes
			for d, day := range daysOf(e.Plan.WeekOf(c).Steps()) {
				if takes.PeriodsPerDay > 0 && len(day) > takes.PeriodsPerDay {
					t.Errorf("%s: %s day %d has %d periods of %d", name, c.ID, d, len(day), takes.PeriodsPerDay)
				}
				for _, period := range day {
					if int(period.from)%takes.Step() != 0 {
						t.Errorf("%s: %s day %d begins a period at %v", name, c.ID, d, week.Clock(period.from))
					}
					if duty := e.Plan.Duty(period.duty); takes.Layers == "one" && duty.Base != nil && duty.Event != nil {
						t.Errorf("%s: %s has two layers", name, c.ID)
					}
				}
			}
		}
	})
}

// TestTwoLayersInOneLoseNoEvidence holds the estimate of plans whose recorders take one layer against that of the plans.
func TestTwoLayersInOneLoseNoEvidence(t *testing.T) {
	tried := 0
	examples(t, func(name string, p *plan.Plan, _ *rand.Rand) {
		for i := range p.Recorders {
			p.Recorders[i].Takes = &plan.Takes{Layers: "one"}
		}
		was := estimate.Figures(p, nil)
		e := Enter(p, was)
		if !e.Differs() {
			return
		}
		tried++
		is := estimate.Figures(e.Plan, nil)
		for i := range p.Channels {
			a, b := was.Channels[i].Evidence, is.Channels[i].Evidence
			if b.FullPerDay+halfKept*b.LowPerDay < a.FullPerDay+halfKept*a.LowPerDay-1e-6*(1+a.EventsPerDay) {
				t.Errorf("%s: %s keeps %+v, planned %+v", name, p.Channels[i].ID, b, a)
			}
		}
	})
	if tried < 5 {
		t.Errorf("only %d plans have two layers", tried)
	}
}
