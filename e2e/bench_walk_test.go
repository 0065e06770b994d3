package e2e

import (
	"bytes"
	"context"
	"image"
	"image/color"
	"image/jpeg"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"

	"wakefield.example/core/plan"
	"wakefield.example/internal/demo"
	"wakefield.example/internal/stills"
)

// BenchmarkTakeAlong takes a site of 192 channels along, 64 of them with walks and a snapshot, onto a phone that has nothing of it
// yet: milliseconds until its cameras are listed, and megabytes that came.
func BenchmarkTakeAlong(b *testing.B) {
	s, p := walkedDepot(b)
	var took, came []float64
	for b.Loop() {
		q := p.phone()
		q.runsFirst(`{
				const look = () => document.querySelector('.rows a') ? (window.listed = performance.now()) : requestAnimationFrame(look)
				requestAnimationFrame(look)
			}`)
		q.open("/walk/"+s.id, `.rows a`)
		q.until(`window.listed > 0`)
		answer := eval[[]float64](q, `[window.listed, performance.getEntriesByType('resource').reduce((n, e) => n + e.transferSize, 0) / 1e6]`)
		took, came = append(took, answer[0]), append(came, answer[1])
	}
	slices.Sort(took)
	promised(b, "64 cameras with walks and snapshots come along on a phone: until they are listed", took[len(took)/2], "ms")
	promised(b, "64 cameras with walks and snapshots come along on a phone: how much comes", slices.Max(came), "MB")
}

// BenchmarkTap taps when the sign comes on a CPU that is four times slower, and measures until the page shows it.
func BenchmarkTap(b *testing.B) {
	s, p := walkedDepot(b)
	q := p.phone()
	q.open("/walk/"+s.id, `.rows a`)
	q.do(chromedp.Func(func(ctx context.Context, target *chromedp.Target) error {
		_, err := chromedp.Call(ctx, emulation.SetCPUThrottlingRate, emulation.SetCPUThrottlingRateParams{Rate: 4})
		return err
	}))
	var took []float64
	for b.Loop() {
		q.goTo("camera", "c1-1")
		q.click(`[data-test="start"]`)
		q.until(`parseFloat(document.querySelector('.clock')?.innerText) > 0.5`)
		took = append(took, eval[float64](q, `new Promise((done) => {
			const from = performance.now()
			document.querySelector('[data-test="sign"]').dispatchEvent(new PointerEvent('pointerdown', { bubbles: true }))
			const look = () => document.querySelector('.got') ? done(performance.now() - from) : requestAnimationFrame(look)
			look()
		})`))
	}
	slices.Sort(took)
	promised(b, "a tap when the sign comes to its time, at a processor four times slower: median", took[len(took)/2], "ms")
	promised(b, "a tap when the sign comes to its time, at a processor four times slower: longest", took[len(took)-1], "ms")
}

// walkedDepot is a site of 192 channels, 64 with the walks and areas of the ferry terminal's cameras and a noisy snapshot each.
func walkedDepot(b *testing.B) (*site, *page) {
	b.Helper()
	depot, quay := demo.SaltmarshTramDepot(), demo.PennywhistleQuay()
	var scenes []*plan.Channel
	for i := range quay.Channels {
		if c := &quay.Channels[i]; c.Scene != nil && len(c.Scene.Walks) > 0 {
			scenes = append(scenes, c)
		}
	}
	random := rand.New(rand.NewPCG(1, 9))
	var pictures []*stills.Still
	for i := range 64 {
		m := image.NewGray(image.Rect(0, 0, 1280, 720))
		for y := range 720 {
			for x := range 1280 {
				m.SetGray(x, y, color.Gray{uint8(x/8 + y/8 + random.IntN(30))})
			}
		}
		var out bytes.Buffer
		if err := jpeg.Encode(&out, m, nil); err != nil {
			b.Fatal(err)
		}
		still, err := stills.Take(context.Background(), out.Bytes())
		if err != nil {
			b.Fatal(err)
		}
		pictures = append(pictures, still)
		c, like := &depot.Channels[i], scenes[i%len(scenes)]
		scene := *like.Scene
		scene.Picture, scene.Patches = still.ID, nil
		c.Scene, c.Detection.On, c.Detection.Areas, c.Detection.Catch = &scene, true, like.Detection.Areas, nil
	}
	depot.Objects = append(depot.Objects, quay.Objects...)
	s := serve(b, "depot", depot)
	for _, still := range pictures {
		if err := s.store.AddPicture(context.Background(), "depot", still); err != nil {
			b.Fatal(err)
		}
	}
	return s, browser(b, s, 1280, 800)
}
