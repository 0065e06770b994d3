package compare

import (
	"cmp"
	"reflect"
	"slices"
	"strconv"

	"wakefield.example/core/document"
	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
)

// Copied is what copying channels into a plan of another site comes to.
type Copied struct {
	Edits    []edit.Edit `json:"edits"`
	Channels []string    `json:"channels" doc:"Ids of the channels in the plan that they are copied into, in the order in which they were named"`
	Renamed  []string    `json:"renamed" doc:"What has another name here, as this plan has something else of that name: one sentence each"`
	Left     []string    `json:"left" doc:"What is not copied: one sentence each"`
	Pictures []string    `json:"-"` // that the channels name
}

// CopyChannels are the edits that copy channels of one plan into another, onto a recorder and a pool of it: with the weeks,
// duties, activities, camera kinds and objects that they name, where the plan does not have these as they are; of two that differ
// both stay, the one that comes under another name. Numbers are the first that no camera has. Ties stay behind, as contacts,
// sounders and other channels do. A channel that is not there, or more of them than the recorder has room for, is a
// [*document.Error].
func CopyChannels(to, from *plan.Plan, ids []string, recorder, pool string) (*Copied, error) {
	r := to.Recorder(recorder)
	if r == nil {
		return nil, document.Wrong("recorder", "no recorder %q", recorder)
	}
	if !slices.ContainsFunc(r.Pools, func(p plan.Pool) bool { return p.ID == pool }) {
		return nil, document.Wrong("pool", "%s has no pool %q", r.Name, pool)
	}
	bytes, err := from.Bytes()
	if err != nil {
		return nil, err
	}
	q, err := plan.Restore(bytes) // nobody else has it, so names in it can be changed
	if err != nil {
		return nil, err
	}
	out := &Copied{Channels: []string{}, Renamed: []string{}, Left: []string{}}
	for _, kind := range []string{"duty", "week", "activity", "camera kind", "object"} {
		out.Renamed = append(out.Renamed, apartFrom(to, q, kind, from.Site.Name)...)
	}
	places := freePlaces(to, r)
	if len(ids) > len(places) {
		return nil, document.Wrong("channels", "%s has room for %d more, and these are %d; choose fewer, or another recorder", r.Name, len(places), len(ids))
	}
	var parts []Part
	copied := make([]plan.Channel, len(ids))
	for i, id := range ids {
		there := q.Channel(id)
		if there == nil {
			return nil, document.Wrong("channels["+strconv.Itoa(i)+"]", "no channel %q", id)
		}
		c := &copied[i]
		*c = *there
		next := cmp.Or(places[i].id, plan.FreeID(c.Name, "channel", func(id string) bool {
			return to.Channel(id) != nil || slices.Contains(out.Channels, id)
		}))
		c.ID, c.Recorder, c.Pool, c.Number, c.Address = next, recorder, pool, places[i].number, ""
		if c.Scene != nil && c.Scene.Picture != "" {
			out.Pictures = append(out.Pictures, c.Scene.Picture)
		}
		out.Channels = append(out.Channels, next)
		parts = append(parts, Part{Kind: "channel", Key: next})
	}
	for i := range from.Effects {
		if slices.ContainsFunc(ids, func(id string) bool { return names(&from.Effects[i], id) }) {
			out.Left = append(out.Left, "tie: "+from.Effects[i].String())
		}
	}
	q.Channels = copied // those that stay there may have the same ids
	out.Edits, err = Carry(to, q, parts)
	return out, err
}

// names tells whether a tie names a channel.
func names(e *plan.Effect, id string) (named bool) {
	plan.MentionsIn(e, func(m plan.Mention) bool {
		named = named || m.Kind == "channel" && slices.Contains(m.Keys(), id)
		return !named
	})
	return named
}

// place is a number of a recorder for a channel, with the id of the one without a camera that stands there.
type place struct {
	number int
	id     string // empty for none
}

// freePlaces are the numbers of a recorder that no camera has.
func freePlaces(p *plan.Plan, r *plan.Recorder) (out []place) {
	for n := 1; n <= r.Channels; n++ {
		k := slices.IndexFunc(p.Channels, func(c plan.Channel) bool { return c.Recorder == r.ID && c.Number == n })
		switch {
		case k < 0:
			out = append(out, place{number: n})
		case p.Channels[k].NoCamera:
			out = append(out, place{n, p.Channels[k].ID})
		}
	}
	return out
}

// apartFrom gives things of a kind other ids and names where a plan has others of these ids, and says so.
func apartFrom(to, q *plan.Plan, kind, site string) (said []string) {
	var differ []string
	q.EachThing(func(t plan.Thing) bool {
		if t.Kind == kind {
			if here, has := thing(to, kind, t.Key); has && !reflect.DeepEqual(here.Interface(), t.Value.Interface()) {
				differ = append(differ, t.Key)
			}
		}
		return true
	})
	for _, key := range differ {
		v, ok := thing(q, kind, key)
		if !ok {
			continue
		}
		name := v.FieldByName("Name")
		was := name.String()
		called := was + ", " + site
		if r := []rune(called); len(r) > 100 {
			called = string(r[:100])
		}
		next := plan.FreeID(called, key, func(id string) bool {
			_, a := thing(to, kind, id)
			_, b := thing(q, kind, id)
			return a || b
		})
		q.EachMention(func(m plan.Mention) bool {
			if m.Kind == kind && slices.Contains(m.Keys(), key) {
				keys := slices.Clone(m.Keys())
				for i := range keys {
					if keys[i] == key {
						keys[i] = next
					}
				}
				m.Set(keys...)
			}
			return true
		})
		v.FieldByName("ID").SetString(next)
		name.SetString(called)
		said = append(said, plan.Say("%s %s is there already and is another; it comes as %s.", kind, was, called))
	}
	return said
}
