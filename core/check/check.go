// Package check looks a plan over for what goes wrong on site: settings that must
// agree and do not, footage that will be missing, limits that are passed.
//
// Each rule is a plain function over one [site]. A [Finding] says what is wrong in
// a sentence an installer understands, where, why, with figures, and where there is
// one, the edit that mends it.
package check

import (
	"cmp"
	"fmt"
	"hash/fnv"
	"reflect"
	"slices"
	"strings"

	"wakefield.example/core/cause"
	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/parallel"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// Severity says how bad a finding is.
type Severity string

const (
	Error   Severity = "error"   // footage missing, or kept too long
	Warning Severity = "warning" // it may go wrong
	Hint    Severity = "hint"    // worth a look
)

// Rank is 0 for the most severe.
func (s Severity) Rank() int { return slices.Index([]Severity{Error, Warning, Hint}, s) }

// Finding is one thing the checks noticed.
type Finding struct {
	ID       string            `json:"id" doc:"Rule and place; no two findings of a plan share it"`
	Rule     string            `json:"rule" doc:"Which rule found it"`
	Severity Severity          `json:"severity" enum:"error,warning,hint"`
	Sentence string            `json:"sentence"`
	Reason   string            `json:"reason"`
	Path     string            `json:"path" doc:"Place in the plan document"`
	Channel  string            `json:"channel,omitempty" doc:"Id of the channel it is about, of several the one that is worst off"`
	Channels []string          `json:"channels,omitempty" doc:"Ids of all channels that it is about, where there are several"`
	Pool     string            `json:"pool,omitempty" doc:"Id of the pool it is about"`
	Recorder string            `json:"recorder,omitempty" doc:"Id of the recorder it is about"`
	Fix      *Fix              `json:"fix,omitempty"`
	Choices  []Fix             `json:"choices,omitempty" doc:"Other ways to mend it"`
	Decision string            `json:"decision,omitempty" doc:"Whose decision it is, where no fix is offered"`
	Places   []Place           `json:"places,omitempty" doc:"What is found on each channel, where there are several"`
	Gate     estimate.GateName `json:"gate,omitempty" doc:"Which gate of the course loses what it is about"`
	Cost     float64           `json:"cost" doc:"How much it costs, in channels of which all would be lost; orders findings of one severity"`

	Key      string         `json:"key" doc:"What an acceptance names: the rule and what it says, so that it comes back when its figures change"`
	Accepted *plan.Accepted `json:"accepted,omitempty" doc:"Who accepted it, and why"`

	// Findings of one cause are told as one, in the words of those of several; the first
	// is the one that is worst off. Where nothing is lost by a finding, worse is how much
	// there is of it.
	cause   string
	worse   float64
	several func(n int) string
}

// Place is what a finding about several channels says of one of them.
type Place struct {
	Channel  string `json:"channel"`
	Sentence string `json:"sentence"`
}

// Fix mends a finding.
type Fix struct {
	Label string      `json:"label" doc:"What the edits do"`
	Edits []edit.Edit `json:"edits"`
}

// Equal tells whether two findings say the same.
func (f *Finding) Equal(other *Finding) bool {
	a, b := *f, *other
	a.several, b.several = nil, nil // functions compare as different, and their words are in the sentence
	return reflect.DeepEqual(a, b)
}

// Findings checks a plan with its estimate. Most severe come first, of these what costs
// most, then by place; those that are accepted come last.
func Findings(p *plan.Plan, s *estimate.Result) []Finding {
	return found(p, s, append(siteRules[:len(siteRules):len(siteRules)], enteredOtherwise))
}

// findingsLike are the findings among which those of a rule are. What recorders do not take is asked only where that is the rule:
// it is the one rule that estimates other plans.
func findingsLike(rule string, p *plan.Plan, s *estimate.Result) []Finding {
	if strings.HasPrefix(rule, enteredPrefix) {
		return Findings(p, s)
	}
	return found(p, s, siteRules)
}

func found(p *plan.Plan, s *estimate.Result, siteRules []func(*site)) []Finding {
	c := newSite(p, s)
	by := make([][]Finding, 1+len(siteRules)) // of each rule: they do not depend on each other
	parallel.Do(len(by), func(i int) {
		part := *c
		if i == 0 {
			part.lookAtChannels()
		} else {
			siteRules[i-1](&part)
		}
		by[i] = part.found
	})
	c.found = append(c.found, slices.Concat(by...)...)
	c.found = together(c.found)
	for i := range c.found {
		f := &c.found[i]
		f.ID, f.Key = f.Rule+" "+f.Path, f.key()
		if f.Fix == nil {
			f.Decision = rules[f.Rule].decision
		}
		for k := range p.Accepted {
			if p.Accepted[k].Finding == f.Key {
				f.Accepted = &p.Accepted[k]
			}
		}
	}
	open := func(f Finding) int {
		if f.Accepted != nil {
			return 1
		}
		return 0
	}
	slices.SortStableFunc(c.found, func(a, b Finding) int {
		return cmp.Or(cmp.Compare(open(a), open(b)), cmp.Compare(a.Severity.Rank(), b.Severity.Rank()), cmp.Compare(b.Cost, a.Cost))
	})
	return c.found
}

// lookAtChannels applies the rules of channels to each of them.
func (c *site) lookAtChannels() {
	for i := range c.plan.Channels {
		ch := &channel{Channel: &c.plan.Channels[i], index: i, figures: &c.figures.Channels[i], duties: c.figures.Duties(i)}
		for _, rule := range channelRules {
			rule(c, ch)
		}
	}
}

// key is what an acceptance names: what the finding says, and of several channels a mark of
// what it says of each, as an acceptance is of these channels at these figures.
func (f *Finding) key() string {
	key := f.Rule + ": " + f.Sentence
	if len(f.Places) == 0 {
		return key
	}
	h := fnv.New64a()
	for _, p := range f.Places {
		fmt.Fprintf(h, "%q %q ", p.Channel, p.Sentence)
	}
	return fmt.Sprintf("%s (%x)", key, h.Sum64())
}

// together makes one finding of those that have one cause.
func together(found []Finding) []Finding {
	of := make(map[string][]int)
	for i, f := range found {
		if f.cause != "" {
			of[f.cause] = append(of[f.cause], i)
		}
	}
	var out []Finding
	for i, f := range found {
		same := of[f.cause]
		if f.cause == "" || len(same) == 1 {
			out = append(out, f)
			continue
		}
		if i != same[0] {
			continue
		}
		worst, cost := f, 0.0
		var channels []string
		var places []Place
		var edits []edit.Edit
		mendable := true
		for _, k := range same {
			one := &found[k]
			channels, places = append(channels, one.Channel), append(places, Place{one.Channel, one.Sentence})
			cost += one.Cost
			if one.worse > worst.worse {
				worst = *one
			}
			if mendable = mendable && one.Fix != nil && one.Fix.Label == f.Fix.Label; mendable {
				edits = append(edits, one.Fix.Edits...)
			}
		}
		worst.Sentence, worst.Channels, worst.Places, worst.Cost = worst.several(len(same)), channels, places, cost
		if worst.Pool == "" { // else the pool is mended once
			worst.Fix = nil
			if mendable {
				worst.Fix = &Fix{f.Fix.Label, edits}
			}
		}
		out = append(out, worst)
	}
	if out == nil {
		out = []Finding{}
	}
	return out
}

// Count is the number of findings of each severity that are not accepted.
func Count(found []Finding) map[Severity]int {
	n := make(map[Severity]int)
	for _, f := range found {
		if f.Accepted == nil {
			n[f.Severity]++
		}
	}
	return n
}

// Trouble is how much trouble a plan is in, to order sites by: the share of its days that
// the worst channel is short of comes first, then errors, then warnings.
func Trouble(s *estimate.Result, n map[Severity]int) float64 {
	missing := 0.0
	if v := s.Verdict; v.Short && v.KeptDays != nil {
		missing = 1 - *v.KeptDays / *v.RequiredDays
	}
	return missing*1e6 + float64(n[Error])*1e3 + float64(n[Warning])
}

// channelRules look at one channel at a time, siteRules at all of it; [enteredOtherwise] comes beside them.
var (
	channelRules = []func(*site, *channel){
		detectionOff, blindHours, noArea, untied, alarmWithoutInput, missingStream, emptyRecords, nothingRecorded,
		retention, preBeyondBuffer, postTooShort, keyframeGap, framesBeyondCamera, cameraDecides, audio, likelyMisses,
		scene, setElsewhere,
	}
	siteRules = []func(*site){effectsNotAdmitted, tiesNeverAct, messages, outputs, monitors, sentAway, stillsIncomplete,
		offsite, losses, contacts,
		recorderLimits, poolLimits, shortOnDates, oddOneOut, guesses, nights, hiddenDays, worseInEvents}
)

// site is a plan being checked.
type site struct {
	plan    *plan.Plan
	figures *estimate.Result
	duties  map[string]*plan.Duty
	causes  *cause.Causes
	ties    []estimate.TieFigures
	found   []Finding
}

// channel is a channel being checked.
type channel struct {
	*plan.Channel
	index   int
	figures *estimate.Channel
	duties  week.Steps[string]
}

func newSite(p *plan.Plan, s *estimate.Result) *site {
	c := &site{plan: p, figures: s, duties: make(map[string]*plan.Duty), causes: s.Causes(), ties: s.Ties(), found: []Finding{}}
	for i := range p.Duties {
		c.duties[p.Duties[i].ID] = &p.Duties[i]
	}
	return c
}

// records tells whether any cause of a kind records a channel.
func (c *site) records(ch *channel, kind cause.Kind) bool {
	return slices.ContainsFunc(c.causes.Records[ch.index], func(t cause.Tie) bool { return t.Cause.Kind == kind })
}

// recordsAny tells whether motion on a channel records any channel.
func (c *site) recordsAny(ch *channel) bool {
	for _, list := range c.causes.Records {
		if slices.ContainsFunc(list, func(t cause.Tie) bool { return t.Cause.Kind == cause.Motion && t.Cause.At == ch.index }) {
			return true
		}
	}
	return false
}

// report keeps a finding about a channel.
func (c *site) report(ch *channel, severity Severity, rule, member, sentence, reason string, fix *Fix) {
	path := fmt.Sprintf("channels[%d]", ch.index)
	if member != "" {
		path += "." + member
	}
	f := Finding{Rule: rule, Severity: severity, Sentence: sentence, Reason: reason, Path: path, Channel: ch.ID, Fix: fix,
		Gate: rules[rule].gate}
	if words := rules[rule].several; words != "" {
		f.cause = fmt.Sprint(rule, " ", severity)
		f.several = func(n int) string { return fmt.Sprintf(words, n) }
	}
	c.found = append(c.found, f)
}

// costs says what the last finding costs, as a share of all that its channel records, from
// 0 to 1.
func (c *site) costs(share float64) { c.found[len(c.found)-1].Cost = share }

// withCause tells the last finding apart from others of its rule that have another cause.
func (c *site) withCause(cause, words string) {
	f := &c.found[len(c.found)-1]
	f.cause += " " + cause
	f.several = func(n int) string { return fmt.Sprintf(words, n) }
}

// fix makes a fix of one edit.
func fix(label string, e edit.Edit) *Fix { return &Fix{label, []edit.Edit{e}} }

// where finds the hours in which the duty of a channel satisfies f.
func (c *site) where(ch *channel, f func(*plan.Duty) bool) week.Steps[bool] {
	return week.Map(ch.duties, func(id string) bool {
		d := c.duties[id]
		return d != nil && f(d)
	})
}

func not(a week.Steps[bool]) week.Steps[bool] {
	return week.Map(a, func(on bool) bool { return !on })
}

// hours is how many hours a week the steps hold.
func hours(s week.Steps[bool]) float64 { return 168 * s.Share(func(on bool) bool { return on }) }

func inWords(s week.Steps[bool]) string { return plan.HoursInWords(plan.HoursWhere(s)) }

func admits(d *plan.Duty, t plan.Trigger) bool {
	return d.Event != nil && slices.Contains(d.Event.On, t)
}

func admitsMotion(d *plan.Duty) bool { return admits(d, plan.Motion) }
func admitsAlarm(d *plan.Duty) bool  { return admits(d, plan.Alarm) }

// needsBoth tells whether neither motion nor alarm is enough alone.
func needsBoth(d *plan.Duty) bool { return admitsMotion(d) && admitsAlarm(d) && d.Event.Match == "all" }
