package e2e

import (
	"context"
	"testing"

	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/cdproto/network"
	"github.com/chromedp/chromedp"

	"wakefield.example/internal/demo"
)

// BenchmarkFirstLook measures the first visit of somebody with a slow computer on a phone's line: nothing is in the cache, the
// processor is four times slower, and 4 Mbit/s come in after 60 ms. It prints the median time until the first ribbon is
// drawn, and the longest task of the page until then.
func BenchmarkFirstLook(b *testing.B) {
	s := serve(b, "quay", demo.PennywhistleQuay())
	p := browser(b, s, 1280, 800)
	p.open("/sites/quay", gangwayA+" canvas") // the server knows the site from here on
	p.hears()
	p.do(chromedp.Func(func(ctx context.Context, _ *chromedp.Target) error {
		if _, err := chromedp.Call(ctx, network.SetCacheDisabled, network.SetCacheDisabledParams{CacheDisabled: true}); err != nil {
			return err
		}
		line := &network.Conditions{Latency: 60, DownloadThroughput: 4e6 / 8, UploadThroughput: 1e6 / 8}
		if _, err := chromedp.Call(ctx, network.EmulateNetworkConditionsByRule,
			network.EmulateNetworkConditionsByRuleParams{MatchedNetworkConditions: []*network.Conditions{line}}); err != nil {
			return err
		}
		_, err := chromedp.Call(ctx, emulation.SetCPUThrottlingRate, emulation.SetCPUThrottlingRateParams{Rate: 4})
		return err
	}))
	var ink, longest []float64
	for b.Loop() {
		p.open("/sites/quay", gangwayA+" canvas")
		ink = append(ink, eval[float64](p, `new Promise((done) => {
			const look = () => {
				const c = document.querySelector('[data-channel="gangway-a"] canvas')
				if (c?.width && c.getContext('2d').getImageData(0, 0, c.width, 20).data.some((v) => v)) done(performance.now())
				else requestAnimationFrame(look)
			}
			look()
		})`))
		longest = append(longest, eval[float64](p, `new Promise((done) => {
			new PerformanceObserver((list) => done(Math.max(...list.getEntries().map((e) => e.duration)))).observe({ type: 'longtask', buffered: true })
			setTimeout(() => done(0), 500)
		})`))
	}
	promised(b, "first visit at a processor four times slower, 4 Mbit/s after 60 ms, nothing in the cache: first ink", median(ink)/1000, "s")
	promised(b, "first visit at a processor four times slower, 4 Mbit/s after 60 ms, nothing in the cache: longest task",
		median(longest)/1000, "s")
}
