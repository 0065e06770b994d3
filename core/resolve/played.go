package resolve

import (
	"wakefield.example/core/footage"
	"wakefield.example/core/storage"
	"wakefield.example/core/video"
	"wakefield.example/core/week"
)

// Played is a week of footage with what is asked of it again and again. It does not
// change once it is made.
type Played struct {
	Shares []footage.Shares // how the time divides; channels that see the same share it
	Week   footage.Week
	Mean   footage.Bin
	Hourly [storage.HoursOfWeek]storage.Bytes
}

func NewPlayed(in *Input, shares []footage.Shares) *Played {
	p := &Played{Shares: shares, Week: in.price(shares)}
	p.Mean = p.Week.Mean()
	for _, b := range p.Week {
		p.Hourly[b.Span.From/week.Hour] += BytesOver(b.Total(), b.Span.Minutes())
	}
	return p
}

func BytesOver(k video.Kbps, m week.Minute) storage.Bytes {
	return storage.Bytes(float64(k) * 1000 / 8 * float64(m) * 60)
}

// Mbps is the mean bitrate, in Mbit/s, of what is written in an hour.
func Mbps(perHour storage.Bytes) float64 { return float64(perHour) * 8 / 3600 / 1e6 }

// Evidence is the fate of a mean day's wanted events.
func (p *Played) Evidence() footage.Evidence {
	return footage.EvidenceOf(p.Mean.Full/7, p.Mean.Low/7, p.Mean.Missed/7)
}
