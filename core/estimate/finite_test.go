package estimate

import (
	"math"
	"math/rand/v2"
	"path/filepath"
	"reflect"
	"strconv"
	"strings"
	"testing"

	"wakefield.example/core/edit"
	"wakefield.example/core/footage"
	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/seeded"
)

// TestExtremesWithinTheRules makes plans that are as far out as the rules allow.
func TestExtremesWithinTheRules(t *testing.T) {
	files, _ := filepath.Glob("testdata/plans/*.json")
	for _, file := range files {
		for _, test := range []struct {
			name   string
			change func(*plan.Channel)
		}{
			{"smallest quota", func(c *plan.Channel) { c.Keep = plan.Keep{QuotaGB: 0.001} }},
			{"shortest age", func(c *plan.Channel) { c.Keep = plan.Keep{AtMostDays: 0.01} }},
			{"largest picture, slowest", func(c *plan.Channel) {
				c.Streams.Main = &plan.Stream{Codec: "h264", Width: 32768, Height: 32768, FPS: 0.01, GOPSeconds: 0.001,
					Rate: plan.Rate{Kind: "modelled", Quality: 5, Scene: "busy"}}
			}},
			{"largest picture, quickest", func(c *plan.Channel) {
				c.Streams.Main = &plan.Stream{Codec: "mjpeg", Width: 32768, Height: 32768, FPS: 240, GOPSeconds: 3600,
					Rate: plan.Rate{Kind: "modelled", Quality: 5, Scene: "busy"}}
			}},
			{"next to nothing", func(c *plan.Channel) {
				c.Streams.Main = &plan.Stream{Codec: "h264", Width: 16, Height: 16, FPS: 0.01, GOPSeconds: 0.001,
					Rate: plan.Rate{Kind: "constant", Kbps: 0.001, Known: "guess"}}
			}},
		} {
			p := plantest.Read(t, file)
			for i := range p.Channels {
				test.change(&p.Channels[i])
			}
			if err := p.Check(); err != nil {
				t.Fatalf("%s, %s is not within the rules: %v", file, test.name, err)
			}
			if err := Run(p, nil).CheckFinite(); err != nil {
				t.Errorf("%s, %s: %v", file, test.name, err)
			}
		}
	}
}

func TestFiguresThatAreNoNumbersAreNamed(t *testing.T) {
	s := &Result{Channels: []Channel{{ID: "a"}, {ID: "b", Evidence: footage.Evidence{MissedPerDay: math.NaN()}}}}
	if err := s.CheckFinite(); err == nil || !strings.HasPrefix(err.Error(), "channels[1]: ") || !strings.Contains(err.Error(), "evidence") {
		t.Errorf("%v", err)
	}
	infinite := math.Inf(1)
	s = &Result{Verdict: Verdict{KeptDays: &infinite}}
	if err := s.CheckFinite(); err == nil || !strings.Contains(err.Error(), "keptDays") {
		t.Errorf("%v", err)
	}
}

// FuzzAnyEdit makes edits at random, with numbers drawn from all that the rules allow,
// their ends most of all. Whatever is accepted has figures.
func FuzzAnyEdit(fuzz *testing.F) {
	f := seeded.Of(fuzz, 20)
	for seed := range uint64(40) {
		f.Add(seed)
	}
	files, _ := filepath.Glob("testdata/plans/*.json")
	f.Fuzz(func(t *testing.T, seed uint64) {
		rng := rand.New(rand.NewPCG(seed, 1))
		p := plantest.Read(t, files[rng.IntN(len(files))])
		accepted := 0
		for range 12 {
			next, err := edit.After(p, anyEdit(t, rng, p))
			if err != nil {
				continue
			}
			accepted++
			p = next
		}
		site := Run(p, nil)
		if err := site.CheckFinite(); err != nil {
			data, _ := p.Bytes()
			t.Errorf("after %d edits: %v\n%s", accepted, err, data)
		}
	})
}

// anyEdit replaces something of the plan by a distorted copy of it.
func anyEdit(t testing.TB, rng *rand.Rand, p *plan.Plan) edit.Edit {
	p = plantest.Copy(t, p) // nothing of the plan itself is distorted
	c := p.Channels[rng.IntN(len(p.Channels))]
	distort := func(v any) { distort(rng, reflect.ValueOf(v).Elem()) }
	switch rng.IntN(6) {
	case 0:
		if len(p.Activities) == 0 {
			break
		}
		a := p.Activities[rng.IntN(len(p.Activities))]
		a.Groups = &plan.Groups{Size: 2, WithinSeconds: 60}
		distort(&a)
		return edit.Edit{SetActivity: &edit.SetActivity{Activity: a}}
	case 1:
		r := p.Recorders[rng.IntN(len(p.Recorders))]
		pool := r.Pools[rng.IntN(len(r.Pools))]
		distort(&pool)
		return edit.Edit{SetPool: &edit.SetPool{Recorder: r.ID, Pool: pool}}
	case 2:
		d := p.Duties[rng.IntN(len(p.Duties))]
		if d.Base != nil {
			distort(d.Base)
		}
		return edit.Edit{SetDuty: &edit.SetDuty{Duty: d}}
	case 3:
		distort(&c.Keep)
		return edit.Edit{SetKeep: &edit.SetKeep{Channels: []string{c.ID}, Keep: c.Keep}}
	case 4:
		distort(&c.Detection)
		return edit.Edit{SetDetection: &edit.SetDetection{Channels: []string{c.ID}, Detection: c.Detection}}
	}
	distort(&c)
	return edit.Edit{SetChannel: &edit.SetChannel{Channel: c}}
}

// distort sets numbers below a value to others that their tags allow, some of them.
func distort(rng *rand.Rand, v reflect.Value) {
	switch v.Kind() {
	case reflect.Pointer:
		if !v.IsNil() {
			distort(rng, v.Elem())
		}
	case reflect.Slice:
		for i := range v.Len() {
			distort(rng, v.Index(i))
		}
	case reflect.Struct:
		for i := range v.NumField() {
			field := v.Field(i)
			if k := field.Kind(); k != reflect.Float64 && k != reflect.Int {
				if field.CanSet() {
					distort(rng, field)
				}
				continue
			}
			tag := v.Type().Field(i).Tag
			low, err := strconv.ParseFloat(tag.Get("minimum"), 64)
			high, err2 := strconv.ParseFloat(tag.Get("maximum"), 64)
			if err != nil || err2 != nil || rng.IntN(3) > 0 || v.Type().Field(i).Name == "Number" {
				continue
			}
			f := []float64{low, high, math.Nextafter(low, high), low +
				rng.Float64()*(high-low), max(low, 1e-9) * math.Pow(high/max(low, 1e-9), rng.Float64())}[rng.IntN(5)]
			if field.Kind() == reflect.Int {
				field.SetInt(int64(f))
			} else {
				field.SetFloat(f)
			}
		}
	}
}
