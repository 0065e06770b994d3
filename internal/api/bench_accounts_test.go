package api

import (
	"bufio"
	"fmt"
	"net/http"
	"strings"
	"testing"
	"time"

	"wakefield.example/internal/demo"
)

// BenchmarkAccounts is what a server with accounts does, beside one without: a stroke, a page's data, and a change that is heard
// by 200 pages.
func BenchmarkAccounts(b *testing.B) {
	for _, accounts := range []bool{false, true} {
		name := map[bool]string{false: "open", true: "signed in"}[accounts]
		var url string
		browser := &http.Client{Transport: &http.Transport{MaxIdleConnsPerHost: 300}}
		h := &house{TB: b}
		ready := func(b *testing.B) {
			if accounts {
				h = withAccounts(b, demo.PennywhistleQuay(), Options{})
				browser.Jar = h.as("ada").Jar
			} else {
				c := start(b, demo.PennywhistleQuay())
				h = &house{TB: b, url: c.url}
			}
			url = h.url
		}
		edit := func(version int) string {
			return paint(version, "kiosk", []string{"clock", "motion"}[version%2])
		}
		b.Run("edit/"+name, func(b *testing.B) {
			ready(b)
			for version := 1; b.Loop(); version++ {
				h.wants(200, browser, "POST", "/api/plans/site/edits", edit(version))
			}
		})
		b.Run("page/"+name, func(b *testing.B) {
			ready(b)
			for b.Loop() {
				h.wants(200, browser, "GET", "/api/sites/site", "")
			}
		})
		b.Run("200 streams/"+name, func(b *testing.B) {
			ready(b)
			heard := make(chan int, 10_000)
			for range 200 {
				answer, err := browser.Get(url + "/api/changes")
				if err != nil || answer.StatusCode != 200 {
					b.Fatal(answer.Status, err)
				}
				b.Cleanup(func() { answer.Body.Close() })
				go func() {
					for lines := bufio.NewScanner(answer.Body); lines.Scan(); {
						var version int
						if _, after, found := strings.Cut(lines.Text(), `"version":`); found {
							fmt.Sscan(strings.TrimRight(after, "}"), &version)
							heard <- version
						}
					}
				}()
			}
			for version := 1; b.Loop(); version++ {
				h.wants(200, browser, "POST", "/api/plans/site/edits", edit(version))
				late := time.After(time.Minute)
				for left := 200; left > 0; {
					select {
					case v := <-heard:
						if v == version+1 {
							left--
						}
					case <-late:
						b.Fatalf("%d of 200 heard nothing of version %d", left, version+1)
					}
				}
			}
		})
	}
}
