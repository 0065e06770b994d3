package doubt

import (
	"math"
	"sync"

	"wakefield.example/core/plan"
)

// What latent numbers are of, by the names of their columns.
const (
	ofSiteAll   = "site"             // along each axis, and of bitrates: commonColumns
	ofSeason    = "season"           // what a season nobody stated does to all activity: 1
	unsaidAll   = "site unsaid"      // what channels share of what is unsaid: unsaidColumns
	reliability = "site reliability" // how much detectors notice: 1
	ofActivity  = "activity "        // and its id: axes
	ofChannel   = "channel "         // and its id: 1
	unsaidOf    = "unsaid "          // and the channel's id: unsaidColumns
)

// World is where sites are drawn from: columns of standard normal numbers by what they are of, a row for every draw. They are what
// all that is off is made of; drawn from what was found to be so, they are normal no more.
type World struct {
	columns                func(name string, columns int) []float64
	common, season, unsaid []float64
	noticed                []float64 // logarithm of how much more detectors notice
}

// NewWorld is a world of columns; a row has [Draws] of them.
func NewWorld(columns func(name string, columns int) []float64) *World {
	w := &World{columns: columns, common: columns(ofSiteAll, commonColumns), season: columns(ofSeason, 1),
		unsaid: columns(unsaidAll, unsaidColumns), noticed: make([]float64, Draws)}
	for i, z := range columns(reliability, 1) {
		w.noticed[i] = noticed(z)
	}
	return w
}

// prior is the world before anything was found: its numbers are independent of each other.
var prior = sync.OnceValue(func() *World { return NewWorld(Columns) })

// Column is one latent number of a site.
type Column struct {
	Name string
	At   int // among those of its name
	Of   int // how many there are of its name
}

// Latents are the columns that decide about figures, for whoever finds out more of them.
var (
	SiteRate     = Column{ofSiteAll, rateAxis, commonColumns}
	SiteLength   = Column{ofSiteAll, lengthAxis, commonColumns}
	SiteGroup    = Column{ofSiteAll, groupAxis, commonColumns}
	SiteBitrates = Column{ofSiteAll, axes, commonColumns}
	Season       = Column{ofSeason, 0, 1}
	Noticing     = Column{reliability, 0, 1}
	SiteIdle     = Column{unsaidAll, 1, unsaidColumns}
)

// Prior are the values of a column before anything was found, a draw each.
func (c Column) Prior() []float64 {
	all := Columns(c.Name, c.Of)
	out := make([]float64, Draws)
	for i := range out {
		out[i] = all[i*c.Of+c.At]
	}
	return out
}

// ActivityRate, ActivityLength and ActivityGroup are what an activity's figures are off by beside the site's, ChannelBitrates
// a channel's streams, and ChannelNight and ChannelIdle what nobody says of them.
func ActivityRate(id string) Column    { return Column{ofActivity + id, rateAxis, axes} }
func ActivityLength(id string) Column  { return Column{ofActivity + id, lengthAxis, axes} }
func ActivityGroup(id string) Column   { return Column{ofActivity + id, groupAxis, axes} }
func ChannelBitrates(id string) Column { return Column{ofChannel + id, 0, 1} }
func ChannelNight(id string) Column    { return Column{unsaidOf + id, 0, unsaidColumns} }
func ChannelIdle(id string) Column     { return Column{unsaidOf + id, 1, unsaidColumns} }

// Latent tells the value of a column.
type Latent func(Column) float64

// RateFactor is by what the rate of an activity is off.
func (f *Figures) RateFactor(z Latent) float64 {
	off := f.Rate * (ofSite*z(SiteRate) + ofOwn*z(ActivityRate(f.ID)) - centre(f.Rate))
	if f.Season && f.Rate > 0 {
		off += spread(seasonWide) * z(Season)
	}
	return math.Exp(off)
}

// LengthFactor is by what the mean length of its events is off.
func (f *Figures) LengthFactor(z Latent) float64 {
	return math.Exp(f.length * (ofSite*z(SiteLength) + ofOwn*z(ActivityLength(f.ID)) - centre(f.length)))
}

// GroupSize is how many of its events come together.
func (f *Figures) GroupSize(z Latent) float64 {
	by := [axes]float64{groupAxis: ofSite*z(SiteGroup) + ofOwn*z(ActivityGroup(f.ID)) - centre(f.size)}
	if g := f.off(by).Group; g.Grouped() {
		return g.Size
	}
	return 1
}

// OfOwn is the weight of an activity's own number beside the site's, by which the logarithm of a figure moves a width.
var OfOwn = ofOwn

// Widths are the standard deviations of the logarithms of the rate, the length, and the size of groups beyond 1.
func (f *Figures) Widths() (rate, length, size float64) { return f.Rate, f.length, f.size }

// Uncertain tells whether the rate, the length and the size of its groups may be off at all.
func (f *Figures) Uncertain() (rate, length, size bool) {
	return f.Rate > 0, f.length > 0, f.size > 0 || f.OpenGroups
}

// Noticed is the logarithm of how much more detectors notice whose reliability is a guess, for a value of [Noticing].
func Noticed(z float64) float64 { return noticed(z) }

// NoticingOf is the value of [Noticing] for that, and how much it changes with it; ok is false where none is: no detector notices
// more than all there is.
func NoticingOf(noticed float64) (z, slope float64, ok bool) {
	share := plan.GuessedReliability * math.Exp(noticed)
	missed := 1 - share
	if missed <= 0 || missed >= missedMost {
		return 0, 0, false
	}
	wide := spread(missedWide)
	return math.Log(missed/(1-plan.GuessedReliability)) / wide, -share / (missed * wide), true
}

// NoticedFactor is by what more detectors notice whose reliability is a guess.
func NoticedFactor(z Latent) float64 { return math.Exp(noticed(z(Noticing))) }

// StreamFactor is by what a stream of a channel is off that is known so well.
func StreamFactor(channel string, known float64, z Latent) float64 {
	return math.Exp(known * (ofSite*z(SiteBitrates) + ofOwn*z(ChannelBitrates(channel)) - centre(known)))
}

// NightFactor is what darkness multiplies the bitrates of a channel by of which nobody says it.
func NightFactor(channel string, z Latent) float64 { return ofNight(z(ChannelNight(channel))) }

// IdleFactor is by what the model of a still scene is off, beside the stream as a whole.
func IdleFactor(channel string, z Latent) float64 {
	return math.Exp(idleSpread * (ofSite*z(SiteIdle) + ofOwn*z(ChannelIdle(channel)) - centre(idleSpread)))
}
