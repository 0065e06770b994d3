package e2e

import (
	"os"
	"testing"

	"github.com/chromedp/chromedp"

	"wakefield.example/internal/demo"
)

func (p *page) pic(name string) {
	data, err := chromedp.Run(p.ctx, chromedp.CaptureScreenshot())
	if err != nil {
		p.Fatal(err)
	}
	os.WriteFile("/tmp/pics/"+name+".png", data, 0o644)
}

func TestZZ(t *testing.T) {
	os.MkdirAll("/tmp/pics", 0o755)
	s := serve(t, "quay", demo.PennywhistleQuay())
	p := browser(t, s, 1280, 800).another()
	p.do(chromedp.EmulateViewport(390, 844))
	p.open("/walk/quay", `.rows a`)
	p.pic("w1")
	p.do(chromedp.Evaluate[chromedp.Void](`location.hash = "camera/gangway-a"`))
	p.do(chromedp.WaitVisible(chromedp.CSS(`[data-test="start"]`)))
	p.pic("w2")
	p.click(`[data-test="start"]`)
	p.until(`document.querySelector('.clock')?.innerText > '0.8'`)
	p.pic("w3")
	p.until(`parseFloat(document.querySelector('.clock')?.innerText) > 7.5`)
	p.click(`[data-test="sign"]`)
	p.until(`document.querySelector('.got')`)
	p.pic("w4")
	p.click(`[data-test="out"]`)
	p.do(chromedp.WaitVisible(chromedp.CSS(`[data-test="set-clock"]`)))
	p.pic("w5")
	p.click(`[data-test="set-clock"]`)
	p.do(chromedp.WaitVisible(chromedp.CSS(`[data-test="clock-now"]`)))
	p.pic("w6")
	p.click(`[data-test="clock-now"]`)
	p.do(chromedp.WaitVisible(chromedp.CSS(`[data-test="save-footage"]`)))
	p.pic("w7")
	p.click(`[data-test="save-footage"]`)
	p.do(chromedp.WaitVisible(chromedp.CSS(`[data-test="found"]`)))
	p.do(chromedp.Evaluate[chromedp.Void](`document.querySelector('[data-test="found"]').scrollIntoView()`))
	p.pic("w8")
	t.Log(p.text(`[data-test="found"]`), p.text(`[data-test="state"]`))
	for _, v := range []string{"trials", "trial/input:fuel-door", "steps", "finish", "more"} {
		p.do(chromedp.Evaluate[chromedp.Void](`location.hash = "` + v + `"`))
		p.until(`document.querySelector('main').innerText.length > 40`)
		p.do(chromedp.WaitVisible(chromedp.CSS(`main h2`)))
		p.pic("w9" + v[:5])
	}
}
