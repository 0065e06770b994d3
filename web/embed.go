// Package web holds the front end, embedded as it was built into dist.
package web

import (
	"embed"
	"io/fs"
	"net/http"
	"path"
	"strings"
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
	server := http.FileServerFS(files)
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		name := strings.TrimPrefix(path.Clean(r.URL.Path), "/")
		switch info, err := fs.Stat(files, name); {
		case strings.HasPrefix(name, "api/"), err != nil && (strings.HasPrefix(name, "assets/") || path.Ext(name) != ""):
			http.NotFound(w, r)
			return
		case err == nil && !info.IsDir():
			if strings.HasPrefix(name, "assets/") {
				w.Header().Set("Cache-Control", "public, max-age=31536000, immutable") // names change with contents
			}
		default:
			r.URL.Path = "/"
			w.Header().Set("Cache-Control", "no-cache")
			if _, err := fs.Stat(files, "index.html"); err != nil {
				http.Error(w, "The pages were not built into this program; run make build.", http.StatusNotImplemented)
				return
			}
		}
		server.ServeHTTP(w, r)
	})
}
