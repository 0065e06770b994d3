package doubt

import (
	"math"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
)

func TestHowFarEachFigureMayBeOff(t *testing.T) {
	for known, factor := range map[string]float64{"guess": 1.5, "datasheet": 1.2, "surveyed": 1.1, "measured": 1.05} {
		if got := Factor(RateSpread(resolve.RateKnownOf(&plan.Stream{Rate: plan.Rate{Kind: "constant",
			Known: known}}))); math.Abs(got-factor) > 1e-9 {
			t.Errorf("a bitrate that is a %s may be off by %v, want %v", known, got, factor)
		}
	}
	if got := Factor(RateSpread(resolve.RateKnownOf(&plan.Stream{Rate: plan.Rate{Kind: "modelled",
		Known: "measured"}}))); math.Abs(got-1.8) > 1e-9 {
		t.Errorf("a modelled bitrate may be off by %v", got)
	}
	for known, factors := range map[string][3]float64{"guess": {2, 1.5, 2}, "surveyed": {1.4, 1.25, 1.4}, "measured": {1.15, 1.1, 1.15}} {
		a := plan.Activity{ID: "a", Known: known, MeanSeconds: 10, OtherwisePerHour: 1, Groups: &plan.Groups{Size: 3, WithinSeconds: 30}}
		c := Of(resolve.OriginOf(&a, false))
		for k, got := range []float64{Factor(c.Rate), Factor(c.length), Factor(c.size)} {
			if math.Abs(got-factors[k]) > 1e-9 {
				t.Errorf("%s: figure %d of an activity may be off by %v, want %v", known, k, got, factors[k])
			}
		}
		a.Doubt = &plan.Doubt{Rate: 1.3, Seconds: 1.2, Size: 1.7}
		if c := Of(resolve.OriginOf(&a, false)); math.Abs(Factor(c.Rate)-1.3)+math.Abs(Factor(c.length)-1.2)+
			math.Abs(Factor(c.size)-1.7) > 1e-9 ||
			math.Abs(c.Stated().Size-1.7) > 1e-9 {
			t.Errorf("%s: what is stated is not what it may be off: %+v", known, c)
		}
		a.Doubt, a.Groups = nil, nil
		if c := Of(resolve.OriginOf(&a, false)); c.size != 0 || c.OpenGroups != (known == "guess") {
			t.Errorf("%s, nothing said of groups: %+v", known, c)
		}
	}
}

func TestHowMuchOfTheDoubtIsCommon(t *testing.T) {
	site := prior().common
	own := make([]float64, Draws)
	for i := range own {
		own[i] = math.Sin(float64(i) * 12.9898)
	}
	for share, want := range map[float64]float64{0: 0, 0.5: 0.5, 1: 1} {
		values := make([]float64, Draws)
		for i := range values {
			values[i] = math.Exp(0.2 * (math.Sqrt(share)*site[i*commonColumns] + math.Sqrt(2*(1-share))*own[i]))
		}
		if got := commonPart(values); math.Abs(got-want) > 0.05 {
			t.Errorf("%v of the doubt is common, not %v", got, want)
		}
	}
	if got := commonPart([]float64{3, 3, 3}); got != 0 {
		t.Errorf("of no doubt %v is common", got)
	}
}

func TestAlongMovesAsOne(t *testing.T) {
	slopes := [][3]float64{{2, 0.3, 1}, {1, 0.1, -2}, {-0.5, 0.2, 0}}
	u := []float64{0.8, 0.6, 0}
	for stream := range 2 {
		sum := 0.0
		for k, by := range along(slopes, u, stream) {
			sum += by * u[k]
		}
		if math.Abs(sum-1) > 1e-12 {
			t.Errorf("stream %d moves by %v", stream, sum)
		}
	}
	if by := along(slopes, u, 2); by[0] != 0.8 || by[1] != 0.6 || by[2] != 0 {
		t.Errorf("a stream that goes up and down by about the same moves along %v", by)
	}
	if along(slopes, nil, 0) != nil {
		t.Error("there is a way along nothing")
	}
}
