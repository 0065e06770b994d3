// Package plan is the plan document: everything decided for a site, how it is read and
// written, and the rules it keeps. Nothing here changes a plan; see package edit.
//
// A [Plan] is read from JSON by [Read], which names the path of whatever is wrong
// (`channels[3].week: no week "nite"`). What is known of a member stands in its struct
// tag: limits, which [Schema] publishes as JSON Schema, the kind of thing that a list
// holds, and the kind that an id refers to.
package plan

import (
	"math"
	"slices"

	"wakefield.example/core/video"
	"wakefield.example/core/week"
)

// Format is the version of the document that this package reads and writes.
const Format = "wakefield-plan/1"

// Plan is one whole plan. What stands aside in a tag is nothing that several channels look
// at when what they write is worked out.
type Plan struct {
	Format      string       `json:"format" aside:"yes" enum:"wakefield-plan/1"`
	Name        string       `json:"name" aside:"yes" minLength:"1" maxLength:"200" doc:"Name of the plan or variant"`
	Site        Site         `json:"site" aside:"yes"`
	Kinds       []Kind       `json:"kinds,omitempty" aside:"yes" holds:"camera kind" maxItems:"500" doc:"Camera kinds"`
	Duties      []Duty       `json:"duties" holds:"duty" maxItems:"500"`
	Weeks       []Week       `json:"weeks,omitempty" holds:"week" maxItems:"5000"`
	Activities  []Activity   `json:"activities,omitempty" holds:"activity" maxItems:"5000"`
	Objects     []Object     `json:"objects,omitempty" holds:"object" maxItems:"200" doc:"What walks through pictures, beside person, child, vehicle and smallAnimal"`
	Recorders   []Recorder   `json:"recorders" aside:"yes" holds:"recorder" maxItems:"500"`
	Channels    []Channel    `json:"channels" aside:"yes" holds:"channel" maxItems:"5000"`
	AlarmInputs []AlarmInput `json:"alarmInputs,omitempty" holds:"alarm input" maxItems:"5000"`
	CallButtons []CallButton `json:"callButtons,omitempty" holds:"call button" maxItems:"500"`
	Messages    []Message    `json:"messages,omitempty" aside:"yes" holds:"message" maxItems:"500" doc:"Who is told"`
	Outputs     []Output     `json:"outputs,omitempty" aside:"yes" holds:"output" maxItems:"500" doc:"Relays, sounders, lights and sirens"`
	Monitors    []Monitor    `json:"monitors,omitempty" aside:"yes" holds:"monitor" maxItems:"100" doc:"Screens that show the newest cause"`
	Offsite     *Offsite     `json:"offsite,omitempty" aside:"yes" doc:"The copy of footage elsewhere"`
	Effects     []Effect     `json:"effects,omitempty" holds:"-" apart:"yes" maxItems:"10000"`
	Prices      *Prices      `json:"prices,omitempty" aside:"yes" doc:"What drives cost"`
	Accepted    []Accepted   `json:"accepted,omitempty" aside:"yes" holds:"acceptance" maxItems:"5000" doc:"Findings taken on purpose"`
}

// Site is the place the plan is for.
type Site struct {
	Name        string       `json:"name" minLength:"1" maxLength:"200"`
	Customer    string       `json:"customer,omitempty" maxLength:"200"`
	Address     string       `json:"address,omitempty" maxLength:"500"`
	Contact     string       `json:"contact,omitempty" maxLength:"500" doc:"Whom to ask at the customer's: name, telephone, mail"`
	Notes       string       `json:"notes,omitempty" maxLength:"4000" doc:"What whoever goes there needs to know"`
	Wording     string       `json:"wording,omitempty" maxLength:"2000" doc:"What papers for the customer say before all else"`
	TimeZone    string       `json:"timeZone" maxLength:"100" doc:"IANA time zone, such as Atlantic/Faroe"`
	SpecialDays []SpecialDay `json:"specialDays,omitempty" holds:"-" maxItems:"2000"`
}

// SpecialDay is a run of dates on which another week, or another day of the week,
// holds, or more or less happens than on others. Where two are of one date, the later in
// the list holds.
type SpecialDay struct {
	From   week.Date     `json:"from"`
	To     week.Date     `json:"to" doc:"Last date, inclusive"`
	Name   string        `json:"name" maxLength:"200"`
	Yearly bool          `json:"yearly,omitempty" doc:"Whether it comes every year, on the same day of the month"`
	Week   string        `json:"week,omitempty" ref:"week" doc:"Id of the week that holds"`
	UseDay *week.Weekday `json:"useDay,omitempty" doc:"Day of the week whose duties hold"`

	ActivityDay *week.Weekday `json:"activityDay,omitempty" doc:"Day of the week that it is in what happens; absent for its own"`

	RateFactor *float64 `json:"rateFactor,omitempty" minimum:"0" maximum:"100" doc:"How often all happens, times what it does on other days"`
}

// SomeOf are what a special day changes.
func (SpecialDay) SomeOf() (some, apart []string) {
	return []string{"week", "useDay", "activityDay", "rateFactor"}, []string{"week", "useDay"}
}

// StreamName names one of a camera's streams.
type StreamName string

const (
	Main  StreamName = "main"
	Sub   StreamName = "sub"
	Third StreamName = "third"
)

// OrMain is the stream, or the main one where none is named.
func (s StreamName) OrMain() StreamName {
	if s == "" {
		return Main
	}
	return s
}

// Duty is what a channel does in a block of time. With neither layer it is off.
type Duty struct {
	ID    string `json:"id" minLength:"1" maxLength:"100"`
	Name  string `json:"name" minLength:"1" maxLength:"100"`
	Mark  int    `json:"mark,omitempty" minimum:"0" maximum:"12" doc:"Which of the fixed set of swatches; 0 is chosen by what the duty writes"`
	Base  *Base  `json:"base,omitempty" doc:"What is written when nothing happens"`
	Event *Event `json:"event,omitempty" doc:"Which events count and what is written for them"`
}

// Base is the base layer of a duty.
type Base struct {
	Stream        StreamName `json:"stream" enum:"main,sub,third"`
	KeyframesOnly bool       `json:"keyframesOnly,omitempty"`
	FPS           float64    `json:"fps,omitempty" minimum:"0.01" maximum:"240" doc:"Frames a second to keep; absent keeps all"`
	Settings
}

// Event is the event layer of a duty.
type Event struct {
	Stream StreamName `json:"stream" enum:"main,sub,third"`
	On     []Trigger  `json:"on" minItems:"1" maxItems:"2" enum:"motion,alarm"`
	Match  string     `json:"match,omitempty" enum:"any,all" doc:"Whether any of the events is enough or all must hold at once"`
	FPS    float64    `json:"fps,omitempty" minimum:"0.01" maximum:"240"`
	Settings
}

// Settings are those of a stream that change with a duty, at recorders whose settings change by the hour.
type Settings struct {
	Quality int     `json:"quality,omitempty" minimum:"-4" maximum:"4" doc:"Steps of quality above or below the stream's, ×1.6 each; absent for as the stream"`
	Percent float64 `json:"percent,omitempty" minimum:"1" maximum:"400" doc:"Of the stream's bitrate; absent for all of it"`
}

// Factor is what the settings multiply a bitrate by.
func (s Settings) Factor() float64 {
	f := math.Pow(video.Model.Step, float64(s.Quality))
	if s.Percent > 0 {
		f *= s.Percent / 100
	}
	return f
}

// Trigger is a kind of event.
type Trigger string

const (
	Motion Trigger = "motion"
	Alarm  Trigger = "alarm"
)

// Week is a named week that channels follow.
type Week struct {
	ID   string `json:"id" minLength:"1" maxLength:"100"`
	Name string `json:"name" minLength:"1" maxLength:"100"`
	OwnWeek
}

// OwnWeek is a week of duties: one that holds otherwise, and blocks over it, a
// later block covering an earlier one.
type OwnWeek struct {
	Otherwise string      `json:"otherwise" ref:"duty" minLength:"1" maxLength:"100" doc:"Id of the duty outside the blocks"`
	Blocks    []DutyBlock `json:"blocks,omitempty" holds:"-" maxItems:"5000"`
}

// DutyBlock is a duty over some hours.
type DutyBlock struct {
	Hours
	Duty string `json:"duty" ref:"duty" minLength:"1" maxLength:"100"`
}

// Hours are hours of the day on some days; see [week.Hours].
type Hours struct {
	Days []week.Weekday `json:"days,omitempty" maxItems:"7" doc:"Empty or missing means all seven"`
	From week.Clock     `json:"from"`
	To   week.Clock     `json:"to" doc:"At or before the start it runs into the next day"`
}

// Activity is how often something happens, hour by hour, and how long it lasts.
type Activity struct {
	ID               string      `json:"id" minLength:"1" maxLength:"100"`
	Name             string      `json:"name" minLength:"1" maxLength:"100"`
	Known            string      `json:"known" enum:"guess,surveyed,measured"`
	MeanSeconds      float64     `json:"meanSeconds" minimum:"0.1" maximum:"604800" doc:"Mean length of an event"`
	OtherwisePerHour float64     `json:"otherwisePerHour,omitempty" minimum:"0" maximum:"1000000"`
	Blocks           []RateBlock `json:"blocks,omitempty" holds:"-" maxItems:"5000"`
	Groups           *Groups     `json:"groups,omitempty" doc:"How many events come together; absent where each comes by itself"`
	Doubt            *Doubt      `json:"doubt,omitempty" doc:"How far its figures may be off, where that is known better than known says"`
}

// Doubt is how far the figures of an activity may be off four times out of five: factors up and down.
type Doubt struct {
	Rate    float64 `json:"rate" minimum:"1" maximum:"100" doc:"Of how often it happens"`
	Seconds float64 `json:"seconds" minimum:"1" maximum:"100" doc:"Of the mean length of an event"`
	Size    float64 `json:"size" minimum:"1" maximum:"100" doc:"Of the size of groups beyond 1"`
}

// Groups says that events come several at a time, see [activity.Group].
type Groups struct {
	Size          float64 `json:"size" minimum:"1" maximum:"1000" doc:"Mean events in a group"`
	WithinSeconds float64 `json:"withinSeconds" minimum:"1" maximum:"21600" doc:"Over how long a group is spread"`
}

// RateBlock is a rate of events over some hours.
type RateBlock struct {
	Hours
	PerHour float64 `json:"perHour" minimum:"0" maximum:"1000000"`
}

// Recorder is one network video recorder.
type Recorder struct {
	ID              string  `json:"id" minLength:"1" maxLength:"100"`
	Name            string  `json:"name" minLength:"1" maxLength:"100"`
	Channels        int     `json:"channels" minimum:"1" maximum:"5000" doc:"Channels it has"`
	Licences        int     `json:"licences,omitempty" minimum:"0" maximum:"5000" doc:"Channels it may use; absent for all"`
	IngestMbps      float64 `json:"ingestMbps" minimum:"0.001" maximum:"1000000" doc:"What it can take in from the network"`
	PreSecondsLimit float64 `json:"preSecondsLimit,omitempty" minimum:"0.1" maximum:"86400" doc:"Longest pre-event time its buffer holds"`
	DriveMBps       float64 `json:"driveMBps,omitempty" minimum:"0.001" maximum:"1000000" doc:"What it can write to its drives, MB a second"`
	Address         string  `json:"address,omitempty" maxLength:"200" doc:"Host and port at which it answers; never a name or password"`
	Takes           *Takes  `json:"takes,omitempty" doc:"What can be entered at it; absent for all that is planned"`
	Words           Words   `json:"words,omitempty" holds:"-" goes:"leaves" maxItems:"500" doc:"What the fitter calls duties there, by their id"`
	Pools           []Pool  `json:"pools" holds:"pool" maxItems:"100"`
}

// Pool is a set of drives that fills as one ring.
type Pool struct {
	ID             string       `json:"id" minLength:"1" maxLength:"100"`
	Name           string       `json:"name" minLength:"1" maxLength:"100"`
	Drives         []DriveGroup `json:"drives" holds:"-" maxItems:"100"`
	Layout         string       `json:"layout" enum:"span,raid0,raid1,raid5,raid6,raid10"`
	HotSpares      int          `json:"hotSpares,omitempty" minimum:"0" maximum:"1000"`
	ReservePercent float64      `json:"reservePercent,omitempty" minimum:"0" maximum:"99"`
}

// DriveGroup is a number of equal drives.
type DriveGroup struct {
	Count     int     `json:"count" minimum:"1" maximum:"1000"`
	Terabytes float64 `json:"terabytes" minimum:"0.001" maximum:"1000" doc:"Size of one, TB of 10^12 bytes"`
	YearlyTB  float64 `json:"yearlyTB,omitempty" minimum:"0.001" maximum:"1000000" doc:"Workload rating of one drive, TB a year"`
}

// Prices are what it costs to keep footage longer.
type Prices struct {
	Currency string       `json:"currency" key:"yes" minLength:"1" maxLength:"20" doc:"In which prices are, such as EUR"`
	Drives   []DrivePrice `json:"drives,omitempty" holds:"-" maxItems:"100"`
}

// DrivePrice is what one drive of a size costs.
type DrivePrice struct {
	Terabytes float64 `json:"terabytes" minimum:"0.001" maximum:"1000" doc:"Size of the drive, TB of 10^12 bytes"`
	Each      float64 `json:"each" minimum:"0" maximum:"1000000000"`
}

// Of is the price of a drive of a size, and whether it is known. Sizes are compared to a
// thousandth.
func (p *Prices) Of(terabytes float64) (each float64, known bool) {
	if p != nil {
		for _, d := range p.Drives {
			if math.Abs(d.Terabytes-terabytes) < terabytes/1000 {
				return d.Each, true
			}
		}
	}
	return 0, false
}

// DrivesCost is what all drives of a plan cost, as far as prices are known, and the sizes of
// drives of which they are not, each once.
func (p *Plan) DrivesCost() (total float64, unknown []float64) {
	for i := range p.Recorders {
		for k := range p.Recorders[i].Pools {
			for _, d := range p.Recorders[i].Pools[k].Drives {
				each, known := p.Prices.Of(d.Terabytes)
				total += each * float64(d.Count)
				if !known && !slices.Contains(unknown, d.Terabytes) {
					unknown = append(unknown, d.Terabytes)
				}
			}
		}
	}
	return total, unknown
}

// AlarmInput is a contact wired to a recorder.
type AlarmInput struct {
	ID       string `json:"id" minLength:"1" maxLength:"100"`
	Name     string `json:"name" minLength:"1" maxLength:"100"`
	Recorder string `json:"recorder" ref:"recorder" minLength:"1" maxLength:"100"`
	Activity string `json:"activity" ref:"activity" minLength:"1" maxLength:"100"`
	Contact  string `json:"contact,omitempty" enum:"normallyOpen,normallyClosed" doc:"Absent where nobody has looked"`
	Guards   string `json:"guards,omitempty" ref:"recorder" goes:"clears" maxLength:"100" doc:"Id of the recorder whose housing the contact watches"`
}

// CallButton is a record-now button: it makes channels write their main stream for
// a while, whatever their duty.
type CallButton struct {
	ID             string   `json:"id" minLength:"1" maxLength:"100"`
	Name           string   `json:"name" minLength:"1" maxLength:"100"`
	PressesPerWeek float64  `json:"pressesPerWeek" minimum:"0" maximum:"1000000"`
	HoldSeconds    float64  `json:"holdSeconds" minimum:"0" maximum:"604800"`
	Records        []string `json:"records" ref:"channel" maxItems:"5000"`

	Stream StreamName `json:"stream,omitempty" enum:"main,sub,third" doc:"That it records; absent for the main stream"`
	FPS    float64    `json:"fps,omitempty" minimum:"0.01" maximum:"240" doc:"Frames a second that it records; absent for all"`
}
