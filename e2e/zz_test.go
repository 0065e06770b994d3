package e2e
import ("testing";"os";"context";"github.com/chromedp/chromedp";"wakefield.example/internal/demo";"wakefield.example/internal/demo/recorder")
func TestZZ(t *testing.T){
 s := serve(t,"none",nil)
 if err := demo.Fill(context.Background(), s.store); err!=nil {t.Fatal(err)}
 if err := recorder.Play(t.Context(), s.store, "", spoken.Seal); err!=nil {t.Fatal(err)}
 p := browser(t,s,1280,800)
 shot := func(n string){ b,err := chromedp.Run(p.ctx, chromedp.CaptureScreenshot()); if err!=nil {t.Fatal(err)}; os.WriteFile("/tmp/zz-"+n+".png",b,0644)}
 p.open("/sites/pennywhistle-quay/handover/devices", `[data-test="device-read"]`)
 shot("1")
 p.click(`[data-test="device-read"]`)
 p.until(`!!document.querySelector('[data-test="device-lines"]')`)
 shot("2")
 p.click(`[data-test="device-set"]`)
 p.until(`!!document.querySelector('[data-test="setting"]')`)
 shot("3")
 p.click(`[data-test="set-now"]`)
 p.until(`!!document.querySelector('[data-test="came"]')`)
 shot("4")
 p.click(`[data-test="device-new"]`)
 p.until(`!!document.querySelector('[data-test="device-form"]')`)
 shot("5")
}
