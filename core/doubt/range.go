package doubt

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/stat"
)

// Range is a figure with its doubt: the median of the draws, and the tenth and
// ninetieth percentile.
type Range struct {
	Likely float64 `json:"likely"`
	Low    float64 `json:"low"`
	High   float64 `json:"high"`

	CommonPercent float64 `json:"commonPercent" doc:"Share of the doubt, as variance of the logarithm, that is common to the site: no single measurement takes it away"`
}

// rangeOf is the median and the 80 % range of values, one a draw; nil where the upper end
// is not bounded.
func rangeOf(values []float64) *Range {
	sorted := slices.Clone(values)
	slices.Sort(sorted)
	at := func(share float64) float64 { return sorted[int(share*float64(len(sorted)-1)+0.5)] }
	r := Range{Likely: at(0.5), Low: at(0.1), High: at(0.9)}
	if math.IsInf(r.High, 1) {
		return nil
	}
	r.CommonPercent = 100 * commonPart(values)
	return &r
}

// commonPart is the part of the variance of the logarithms that what the site shares
// explains: its columns being independent, the sum of their squared correlations. Draws
// that are not bounded are left out.
func commonPart(values []float64) float64 {
	w := prior()
	site, season, unsaid := w.common, w.season, w.unsaid
	var logs []float64
	columns := make([][]float64, commonColumns+1+unsaidColumns)
	for i, v := range values {
		if v <= 0 || math.IsInf(v, 1) {
			continue
		}
		logs = append(logs, math.Log(v))
		row := slices.Concat(site[i*commonColumns:(i+1)*commonColumns], season[i:i+1], unsaid[i*unsaidColumns:(i+1)*unsaidColumns])
		for k := range columns {
			columns[k] = append(columns[k], row[k])
		}
	}
	if len(logs) < 2 || stat.Variance(logs, nil) < 1e-18 {
		return 0
	}
	sum := 0.0
	for _, column := range columns {
		r := stat.Correlation(logs, column, nil)
		sum += r * r
	}
	return min(sum, 1)
}
