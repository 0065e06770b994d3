// Package estimate turns a plan into figures: what every channel writes over the
// week, how long every pool keeps it, and how sure that is. It is the one door
// through which the server and the command line ask.
//
// Estimates are incremental: [Run] given the site of an earlier plan computes anew
// only the channels whose footage can have changed. [RunContext] gives up when its
// context ends.
package estimate

import (
	"context"
	"sync"

	"wakefield/core/doubt"
	"wakefield/core/effect"
	"wakefield/core/footage"
	"wakefield/core/parallel"
	"wakefield/core/plan"
	"wakefield/core/resolve"
	"wakefield/core/storage"
	"wakefield/core/week"
	"wakefield/core/year"
)

// Format is the version of the figures.
const Format = "wakefield-estimate/1"

// Result is the estimate of one plan. Channels, pools and recorders are in the order
// of the plan.
type Result struct {
	Format    string            `json:"format"`
	Channels  []Channel         `json:"channels"`
	Pools     []Pool            `json:"pools"`
	Recorders []Recorder        `json:"recorders"`
	Messages  []effect.Told     `json:"messages"`
	Outputs   []effect.Switched `json:"outputs"`
	Monitors  []effect.Shown    `json:"monitors"`
	Offsite   *effect.Copied    `json:"offsite,omitempty" doc:"Absent where nothing is copied"`
	Verdict   Verdict           `json:"verdict"`

	plan     *plan.Plan
	site     *resolve.Site
	inputs   []resolve.Input
	played   []*resolve.Played
	doubts   []doubt.Drawn
	pooled   map[string]*doubt.Pool
	effects  *effect.Effects
	tiesOnce sync.Once
	ties     []TieFigures
	special  sync.Once
	year     *year.Year
}

// Channel is what one channel writes and how long it is kept. Days are absent where
// footage is never overwritten and no limit holds.
type Channel struct {
	ID              string   `json:"id"`
	WrittenPercent  float64  `json:"writtenPercent" doc:"Share of time in which anything is written"`
	EventPercent    float64  `json:"eventPercent" doc:"Share of time in which the event layer is admitted and covering"`
	AverageKbps     float64  `json:"averageKbps" doc:"Of footage"`
	GigabytesPerDay float64  `json:"gigabytesPerDay" doc:"Of footage and stills"`
	RetentionDays   *float64 `json:"retentionDays" required:"true" doc:"Days kept, typically"`
	WorstDays       *float64 `json:"worstDays" required:"true" doc:"Days kept at the worst hour of the week"`
	TriggersPerDay  float64  `json:"triggersPerDay" doc:"Own motion triggers"`
	CatchPercent    *float64 `json:"catchPercent,omitempty" doc:"Of the wanted events while detection is on, how many it notices by place, size and reliability; absent where it is off"`

	AwayPercent       *float64 `json:"awayPercent,omitempty" doc:"Share of time a movable camera looks elsewhere; absent where nothing sends it"`
	StillsPerDay      *float64 `json:"stillsPerDay,omitempty" doc:"Absent where it takes none"`
	SafeSeconds       *float64 `json:"safeSeconds,omitempty" doc:"From the end of an event until its footage is off site, with the uplink open and idle; absent where it is not copied"`
	MeanSafeSeconds   *float64 `json:"meanSafeSeconds,omitempty" doc:"The same on average, behind all that is copied; absent where it is not copied, or the uplink never catches up"`
	NinetySafeSeconds *float64 `json:"ninetySafeSeconds,omitempty" doc:"The same, of nine in ten events"`
	WorstSafeSeconds  *float64 `json:"worstSafeSeconds,omitempty" doc:"The same, of 99 in 100 events"`
	LatePercent       *float64 `json:"latePercent,omitempty" doc:"Of its events, those that are safe later than a person needs to take the recorder; absent where nobody says how long that is"`

	FullKbps     float64          `json:"fullKbps" doc:"Main stream in full while something moves"`
	RequiredDays *float64         `json:"requiredDays" required:"true" doc:"Days it must be kept"`
	Short        bool             `json:"short" doc:"Whether it typically keeps less than required"`
	LikelyDays   *doubt.Range     `json:"likelyDays,omitempty" doc:"Days kept, four times out of five"`
	HoldsPercent float64          `json:"holdsPercent" doc:"Share of draws in which the required days are kept"`
	Evidence     footage.Evidence `json:"evidence"`
}

// Pool is how full one pool of drives gets, and how soon.
type Pool struct {
	ID              string       `json:"id"`
	BoughtGB        float64      `json:"boughtGB"`
	UsableGB        float64      `json:"usableGB"`
	SpareGB         float64      `json:"spareGB" doc:"Of what was bought: hot spares"`
	RedundantGB     float64      `json:"redundantGB" doc:"Mirrors and parity, and what larger drives have beyond the smallest"`
	ReserveGB       float64      `json:"reserveGB" doc:"Kept free"`
	GigabytesPerDay float64      `json:"gigabytesPerDay"`
	ShortGB         float64      `json:"shortGB" doc:"Usable GB that are missing for all that is required of the pool's channels, typically"`
	RetentionDays   *float64     `json:"retentionDays" required:"true"`
	WorstDays       *float64     `json:"worstDays" required:"true"`
	LikelyDays      *doubt.Range `json:"likelyDays,omitempty"`
	YearlyTB        float64      `json:"yearlyTB" doc:"Terabytes written a year"`
}

// Recorder is what one recorder takes in and writes.
type Recorder struct {
	ID          string  `json:"id"`
	AverageMbps float64 `json:"averageMbps" doc:"Written, mean of the week"`
	BusiestMbps float64 `json:"busiestMbps" doc:"Written in the busiest hour of the week"`
	IntakeMbps  float64 `json:"intakeMbps" doc:"What the network must carry: every main stream at its active rate"`
	Channels    int     `json:"channels" doc:"Channels with a camera"`
}

// Verdict is whether the plan holds, in few figures.
type Verdict struct {
	Channel         string           `json:"channel,omitempty" doc:"The channel furthest below its required days, or with the least room beyond them; where nothing is required, one that a quota keeps shortest"`
	KeptDays        *float64         `json:"keptDays" required:"true" doc:"Days that channel is kept; where nothing is required, of the pool that keeps least"`
	WorstDays       *float64         `json:"worstDays" required:"true"`
	RequiredDays    *float64         `json:"requiredDays" required:"true"`
	LikelyDays      *doubt.Range     `json:"likelyDays,omitempty"`
	HoldsPercent    float64          `json:"holdsPercent" doc:"Share of draws in which every channel keeps its days"`
	Short           bool             `json:"short" doc:"Whether that channel typically keeps less than required"`
	ShortChannels   int              `json:"shortChannels" doc:"Channels that typically keep less than required"`
	GigabytesPerDay float64          `json:"gigabytesPerDay"`
	AverageMbps     float64          `json:"averageMbps"`
	UsableGB        float64          `json:"usableGB"`
	Evidence        footage.Evidence `json:"evidence"`
}

// Run estimates a plan. earlier, which may be nil, is an estimate of the same site
// before a change, and is left alone.
func Run(p *plan.Plan, earlier *Result) *Result {
	s, _ := run(context.Background(), p, earlier, options{draw: true})
	return s
}

// RunContext is [Run], given up with the error of the context when that ends.
func RunContext(ctx context.Context, p *plan.Plan, earlier *Result) (*Result, error) {
	return run(ctx, p, earlier, options{draw: true})
}

// Figures estimates a plan without the draws that tell how sure the figures are.
func Figures(p *plan.Plan, earlier *Result) *Result {
	s, _ := run(context.Background(), p, earlier, options{})
	return s
}

// FiguresContext is [Figures], given up with the error of the context when that ends.
func FiguresContext(ctx context.Context, p *plan.Plan, earlier *Result) (*Result, error) {
	return run(ctx, p, earlier, options{})
}

// options say what an estimate is for.
type options struct {
	draw    bool
	assured string // the channel whose bitrates are taken for measured, whatever the plan says
	night   string // the channel of which it is taken for known what its streams cost in the dark
	bend    func(i int, in *resolve.Input)

	noticing bool // whether it is taken for known how reliably cameras notice what is in sight
}

func run(ctx context.Context, p *plan.Plan, earlier *Result, o options) (*Result, error) {
	p = p.Connected()
	s := &Result{Format: Format, plan: p}
	s.site = resolve.Of(p, earlier.resolved())
	s.inputs = s.site.Inputs
	for i := range p.Channels {
		s.inputs[i].Guessed = s.inputs[i].Guessed && !o.noticing
		if p.Channels[i].ID == o.assured {
			s.inputs[i].Assure()
		}
		if p.Channels[i].ID == o.night {
			s.inputs[i].AssureNight()
		}
		if o.bend != nil {
			o.bend(i, &s.inputs[i])
		}
	}
	s.played = make([]*resolve.Played, len(p.Channels))
	s.doubts = make([]doubt.Drawn, len(p.Channels))
	s.Channels = make([]Channel, len(p.Channels))
	if err := s.play(ctx, p, earlier); err != nil {
		return nil, err
	}
	s.act(earlier)
	if err := s.store(ctx, p); err != nil {
		return nil, err
	}
	s.record(p)
	if o.draw {
		if err := s.draw(ctx, p, earlier); err != nil {
			return nil, err
		}
	}
	s.judge(p)
	return s, nil
}

// play finds what every channel writes. What an earlier estimate found is taken from
// there, and settings copied to many channels are played once.
func (s *Result) play(ctx context.Context, p *plan.Plan, earlier *Result) error {
	before := earlier.byID()
	alike := make(map[uint64]int) // channels played here, by fingerprint
	like := make([]int, len(p.Channels))
	var distinct, copies []int
	for i := range p.Channels {
		in := &s.inputs[i]
		if j, ok := before[p.Channels[i].ID]; ok && in.Equal(&earlier.inputs[j]) {
			s.played[i], s.doubts[i] = earlier.played[j], earlier.doubts[j]
			s.inputs[i] = earlier.inputs[j]
			continue
		}
		print := in.Fingerprint()
		if j, ok := alike[print]; ok && in.PlaysAlike(&s.inputs[j]) {
			like[i] = j
			copies = append(copies, i)
			continue
		}
		alike[print] = i
		distinct = append(distinct, i)
	}
	parallel.Do(len(distinct), func(k int) {
		if ctx.Err() == nil {
			in := &s.inputs[distinct[k]]
			s.played[distinct[k]] = resolve.NewPlayed(in, in.Play(nil))
		}
	})
	if ctx.Err() != nil {
		return ctx.Err()
	}
	for _, i := range copies {
		s.played[i] = resolve.NewPlayed(&s.inputs[i], s.played[like[i]].Shares)
	}
	for i := range p.Channels {
		s.Channels[i] = describe(&p.Channels[i], &s.inputs[i], s.played[i])
		s.Channels[i].CatchPercent = s.site.Noticing[i].Catch
		for _, t := range s.site.Triggers[i] {
			s.Channels[i].TriggersPerDay += t.Stated.PerDay()
		}
	}
	return nil
}

// resolved is what the plan of an estimate, which may be nil, means for its channels.
func (s *Result) resolved() *resolve.Site {
	if s == nil {
		return nil
	}
	return s.site
}

// act finds what causes do beside recording, and what that does to channels.
func (s *Result) act(earlier *Result) {
	var before *effect.Effects
	if earlier != nil {
		before = earlier.effects
	}
	e := effect.Of(s.site, s.played, before)
	s.effects = e
	s.Messages, s.Outputs, s.Monitors, s.Offsite = e.Messages, e.Outputs, e.Monitors, e.Offsite
	for i := range s.Channels {
		c := &s.Channels[i]
		if a := e.Away[i]; a != nil {
			percent := 100 * a.Share.Mean()
			c.AwayPercent, c.Evidence = &percent, a.Missing(s.played[i])
		}
		if st := e.Stills[i]; st != nil {
			perDay := st.PerDay()
			c.StillsPerDay = &perDay
			c.GigabytesPerDay += float64(st.Day()) / 1e9
		}
		if safe := e.Safe(i); safe != nil {
			c.SafeSeconds, c.MeanSafeSeconds, c.NinetySafeSeconds, c.WorstSafeSeconds = &safe.IdleSeconds, safe.MeanSeconds, safe.NinetySeconds, safe.WorstSeconds
			c.LatePercent = safe.LatePercent
		}
	}
}

// byID finds the channels of an estimate.
func (s *Result) byID() map[string]int {
	if s == nil {
		return nil
	}
	at := make(map[string]int, len(s.Channels))
	for i := range s.Channels {
		at[s.Channels[i].ID] = i
	}
	return at
}

// Week is what channel i writes, bin by bin.
func (s *Result) Week(i int) footage.Week { return s.played[i].Week }

// Duties is the duty of channel i at each minute, by its id.
func (s *Result) Duties(i int) week.Steps[string] { return s.inputs[i].Duties }

// DutyAt is what a duty means on channel i in every minute of the week: which layers write what, and which triggers count.
// The play-out of single weeks asks it too, so that a duty means the same to both.
func (s *Result) DutyAt(i int, duty string) week.Steps[footage.Regime] {
	return s.site.Regimes(&s.plan.Channels[i], week.Constant(duty))
}

// WeekOf are the duties of a named week.
func (s *Result) WeekOf(id string) week.Steps[string] { return s.site.Weeks[id] }

// describe writes the figures of a channel that need nothing but itself.
func describe(c *plan.Channel, in *resolve.Input, played *resolve.Played) Channel {
	mean := played.Mean
	out := Channel{
		ID:              c.ID,
		WrittenPercent:  100 * mean.Written,
		EventPercent:    100 * mean.Event,
		AverageKbps:     float64(mean.Total()),
		GigabytesPerDay: mean.Total().GigabytesPerDay(),
		FullKbps:        float64(in.Full),
		HoldsPercent:    100,
		Evidence:        played.Evidence(),
	}
	if c.Keep.AtLeastDays > 0 && !c.NoCamera {
		out.RequiredDays = &c.Keep.AtLeastDays
	}
	return out
}

// load is what a channel asks of its pool, hour by hour.
func (s *Result) load(c *plan.Channel, i int) storage.Load {
	hourly := s.played[i].Hourly
	if st := s.effects.Stills[i]; st != nil {
		for h := range hourly {
			hourly[h] += st.Hour(h)
		}
	}
	return storage.Load{Hourly: hourly, AtMost: storage.Days(c.Keep.AtMostDays), Quota: storage.Bytes(c.Keep.QuotaGB) * storage.GB}
}

func days(d storage.Days) *float64 {
	if !d.Bounded() {
		return nil
	}
	f := float64(d)
	return &f
}
