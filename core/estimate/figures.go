package estimate

import (
	"wakefield.example/core/doubt"
	"wakefield.example/core/effect"
	"wakefield.example/core/footage"
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

	engine
}

// Channel is what one channel writes and how long it is kept. Days are absent where
// footage is never overwritten and no limit holds.
type Channel struct {
	ID              string   `json:"id"`
	WrittenPercent  float64  `json:"writtenPercent" doc:"Share of time in which anything is written"`
	EventPercent    float64  `json:"eventPercent" doc:"Share of time in which the event layer is admitted and covering"`
	AverageKbps     float64  `json:"averageKbps" doc:"Of footage"`
	GigabytesPerDay float64  `json:"gigabytesPerDay" doc:"Of footage and snapshots"`
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
