// Package web holds the front end, embedded as it was built into dist.
package web

import (
	"embed"
	"html"
	"io/fs"
	"mime"
	"net/http"
	"net/url"
	"path"
	"strings"
	"sync"
	"time"
)

//go:embed all:dist
var dist embed.FS

// Handler serves the front end: files as they are, and the page itself for every
// other path but those of files that are not there, as its router knows the rest.
func Handler() http.Handler {
	files, err := fs.Sub(dist, "dist")
	if err != nil {
		panic(err) // dist is embedded above
	}
	if err := mime.AddExtensionType(".webmanifest", "application/manifest+json"); err != nil {
		panic(err) // both are well written
	}
	server := http.FileServerFS(files)
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		name := strings.TrimPrefix(path.Clean(r.URL.Path), "/")
		page, hints := "index.html", asks
		switch info, err := fs.Stat(files, name); {
		case (err != nil || info.IsDir()) && (name+"/" == walkPaths || strings.HasPrefix(name, walkPaths)):
			page, hints = walkPage, func(*url.URL) []string { return nil }
		case err == nil && !info.IsDir():
			if strings.HasPrefix(name, "assets/") {
				w.Header().Set("Cache-Control", "public, max-age=31536000, immutable") // names change with contents
			} else {
				w.Header().Set("Cache-Control", "no-cache")
			}
			server.ServeHTTP(w, r)
			return
		case strings.HasPrefix(name, "api/"), err != nil && (strings.HasPrefix(name, "assets/") || path.Ext(name) != ""):
			http.NotFound(w, r)
			return
		}
		w.Header().Set("Cache-Control", "no-cache")
		data, err := fs.ReadFile(files, page)
		if err != nil {
			http.Error(w, "The pages were not built into this program; run make build.", http.StatusNotImplemented)
			return
		}
		http.ServeContent(w, r, "index.html", time.Time{}, strings.NewReader(ahead(string(data), hints(r.URL))))
	})
}

// asks are the addresses that the page asks first, whatever else it does, so that they are fetched beside its scripts.
func asks(u *url.URL) []string {
	list := []string{"/api/format"}
	rest, ok := strings.CutPrefix(u.Path, "/sites/")
	if id, _, _ := strings.Cut(rest, "/"); ok && id != "" {
		site := "/api/sites/" + url.PathEscape(id)
		if variant := u.Query().Get("variant"); variant != "" {
			site += "?" + url.Values{"plan": {variant}}.Encode()
		}
		list = append(list, site)
	}
	return list
}

// ahead is the page with hints to fetch some addresses at once.
func ahead(page string, addresses []string) string {
	var hints strings.Builder
	for _, a := range addresses {
		hints.WriteString(`<link rel="preload" as="fetch" crossorigin href="` + html.EscapeString(a) + "\">\n    ")
	}
	return strings.Replace(page, "<script ", hints.String()+"<script ", 1)
}

// walkPage is the page for phones, which works without a network once it was opened. Below walkPaths is no other page.
const (
	walkPage  = "walk.html"
	walkPaths = "walk/"
)

// WalkPage tells the page for phones that this program has from those of others: the name of its script. It is empty where the
// pages were not built in.
var WalkPage = sync.OnceValue(func() string {
	page, err := dist.ReadFile("dist/" + walkPage)
	if err != nil {
		return ""
	}
	_, rest, _ := strings.Cut(string(page), `src="/assets/`)
	name, _, _ := strings.Cut(rest, `"`)
	return name
})
