package plan

import (
	"cmp"
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

// IDs are ids of one kind, of which many are made: however many things have one name, each id takes the same time.
type IDs struct {
	taken map[string]bool
	next  map[string]int // by what ids are made of, the number from which on there are free ones
}

// NewIDs begins with those that are taken, and keeps them.
func NewIDs(taken map[string]bool) *IDs { return &IDs{taken, make(map[string]int)} }

// Take makes an id as [FreeID] does, and takes it.
func (s *IDs) Take(name, otherwise string) string {
	slug := cmp.Or(Slug(name), otherwise)
	id := slug
	for n := max(2, s.next[slug]); s.taken[id]; n++ {
		id = fmt.Sprintf("%s-%d", slug, n)
		s.next[slug] = n + 1
	}
	s.taken[id] = true
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
	ids, free := make([]string, len(names)), NewIDs(taken)
	for i, name := range names {
		ids[i] = free.Take(name, Slug(kind))
	}
	return ids
}
