package plan

import (
	"fmt"
	"regexp"
	"strings"
)

var notInID = regexp.MustCompile(`[^a-z0-9]+`)

// Slug makes an id of a name: small letters, digits and hyphens.
func Slug(name string) string {
	slug := strings.Trim(notInID.ReplaceAllString(strings.ToLower(name), "-"), "-")
	if len(slug) > 40 {
		slug = strings.TrimRight(slug[:40], "-")
	}
	return slug
}

// FreeID makes an id from a name that is not taken yet; otherwise is what an id is made of
// where the name has nothing for one.
func FreeID(name, otherwise string, taken func(id string) bool) string {
	slug := Slug(name)
	if slug == "" {
		slug = otherwise
	}
	id := slug
	for n := 2; taken(id); n++ {
		id = fmt.Sprintf("%s-%d", slug, n)
	}
	return id
}

// FreeIDs makes ids from names that no thing of a kind has yet, nor another of the names.
func (p *Plan) FreeIDs(kind string, names ...string) []string {
	taken := make(map[string]bool)
	p.EachThing(func(t Thing) bool {
		if t.Kind == kind {
			taken[t.Key] = true
		}
		return true
	})
	ids := make([]string, len(names))
	for i, name := range names {
		ids[i] = FreeID(name, Slug(kind), func(id string) bool { return taken[id] })
		taken[ids[i]] = true
	}
	return ids
}
