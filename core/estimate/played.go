package estimate

import (
	"wakefield/core/footage"
	"wakefield/core/storage"
	"wakefield/core/video"
	"wakefield/core/week"
)

// played is a week of footage with what is asked of it again and again. It does not
// change once it is made.
type played struct {
	shares []footage.Shares // how the time divides; channels that see the same share it
	week   footage.Week
	mean   footage.Bin
	hourly [storage.HoursOfWeek]storage.Bytes
}

func newPlayed(in *input, shares []footage.Shares) *played {
	p := &played{shares: shares, week: in.price(shares)}
	p.mean = p.week.Mean()
	for _, b := range p.week {
		p.hourly[b.Span.From/week.Hour] += bytesOver(b.Total(), b.Span.Minutes())
	}
	return p
}

func bytesOver(k video.Kbps, m week.Minute) storage.Bytes {
	return storage.Bytes(float64(k) * 1000 / 8 * float64(m) * 60)
}

// mbps is the mean bitrate, in Mbit/s, of what is written in an hour.
func mbps(perHour storage.Bytes) float64 { return float64(perHour) * 8 / 3600 / 1e6 }
