package web

import (
	"bytes"
	"compress/gzip"
	"io/fs"
	"net/http/httptest"
	"regexp"
	"strings"
	"testing"
)

func get(t *testing.T, path string) string {
	t.Helper()
	w := httptest.NewRecorder()
	Handler().ServeHTTP(w, httptest.NewRequest("GET", path, nil))
	if w.Code != 200 {
		t.Fatalf("%s: %d", path, w.Code)
	}
	return w.Body.String()
}

// TestASiteIsAskedForAtOnce looks for the hints by which a browser fetches what the page asks first beside its scripts, and tries
// to get something else into the page by an address.
func TestASiteIsAskedForAtOnce(t *testing.T) {
	for path, want := range map[string]string{
		"/sites/quay":                       `href="/api/sites/quay">`,
		"/sites/quay/kit":                   `href="/api/sites/quay">`,
		"/sites/quay?variant=b%2F2":         `href="/api/sites/quay?plan=b%2F2">`,
		"/sites/a%22%3E%3Cscript%3E/week":   `href="/api/sites/a%22%3E%3Cscript%3E">`,
		"/sites/quay?variant=%22%3E%3Cb%3E": `href="/api/sites/quay?plan=%22%3E%3Cb%3E">`,
		"/":                                 `href="/api/format">`,
	} {
		page := get(t, path)
		if !strings.Contains(page, want) || strings.Count(page, "<script ") != 1 {
			t.Errorf("%s: %s, want %s", path, page, want)
		}
		if strings.Contains(page, "/api/sites/") != strings.HasPrefix(path, "/sites/") {
			t.Errorf("%s: %s", path, page)
		}
	}
}

// Of what is loaded before a site is shown there may be so much, compressed.
const (
	mostScripts = 150_000
	mostStyles  = 30_000
)

// TestTheFirstLoadIsSmall adds up what the page names in its head.
func TestTheFirstLoadIsSmall(t *testing.T) {
	files, err := fs.Sub(dist, "dist")
	if err != nil {
		t.Fatal(err)
	}
	sum := make(map[string]int)
	for _, m := range regexp.MustCompile(`(?:src|href)="/(assets/[^"]+[.](js|css))"`).FindAllStringSubmatch(get(t, "/"), -1) {
		data, err := fs.ReadFile(files, m[1])
		if err != nil {
			t.Fatal(err)
		}
		var packed bytes.Buffer
		w, _ := gzip.NewWriterLevel(&packed, gzip.DefaultCompression)
		w.Write(data)
		w.Close()
		sum[m[2]] += packed.Len()
	}
	t.Logf("scripts %d, styles %d bytes", sum["js"], sum["css"])
	if sum["js"] == 0 || sum["js"] > mostScripts || sum["css"] == 0 || sum["css"] > mostStyles {
		t.Errorf("scripts %d of %d, styles %d of %d bytes", sum["js"], mostScripts, sum["css"], mostStyles)
	}
}
