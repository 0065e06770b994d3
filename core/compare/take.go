package compare

import (
	"reflect"
	"slices"
	"strconv"
	"strings"

	"wakefield.example/core/document"
	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
)

// Taking is something of another site's plan that a plan could take: a thing that it does not have, or a setting that is another here.
type Taking struct {
	ID    string `json:"id" doc:"Of the same taking whenever it is looked for"`
	Kind  string `json:"kind" doc:"Of the thing: duty, week, activity, camera kind, object, message, special day, recorder, site or plan"`
	Who   string `json:"who" doc:"What it is about, in words"`
	Words string `json:"words" doc:"What differs, the other plan's side first"`
	New   bool   `json:"new" doc:"Whether this plan does not have the thing"`

	parts []Part
	day   *plan.SpecialDay
	takes string // id of the recorder here
}

// taken are kinds of things that sites take from each other: how a company plans, and nothing that stands at one place.
var taken = []string{"duty", "week", "activity", "camera kind", "object", "message"}

// Takings are what a plan could take from one of another site, in the order of the document. What only it has itself stays, so a
// plan that departs from another is told of it, and never loses anything to it.
func Takings(to, from *plan.Plan) (out []Taking) {
	for _, s := range Plans(to, from) {
		if !slices.Contains(taken, s.Kind) && !wording(s) {
			continue
		}
		there := slices.DeleteFunc(slices.Clone(s.Parts), func(p Part) bool {
			switch p.Member { // what it does not have takes nothing away
			case "wording":
				return from.Site.Wording == ""
			case "prices":
				return from.Prices == nil
			}
			_, ok := thing(from, p.Kind, p.Key)
			return !ok && p.Kind != "site" && p.Kind != "plan"
		})
		if len(there) == 0 {
			continue
		}
		out = append(out, Taking{ID: idOf(there), Kind: s.Kind, Who: s.Who, Words: s.Words, New: there[0].Key != "" && there[0].Member == "",
			parts: there})
	}
	for i := range from.Site.SpecialDays {
		out = append(out, takeDay(to, from, &from.Site.SpecialDays[i])...)
	}
	return append(out, takeTakes(to, from)...)
}

// wording tells of settings of the site or the plan that are a company's rather than a place's.
func wording(s Sentence) bool {
	p := s.Parts[0]
	return p.Kind == "site" && p.Member == "wording" || p.Kind == "plan" && p.Member == "prices"
}

func idOf(parts []Part) string {
	words := make([]string, len(parts))
	for i, p := range parts {
		words[i] = p.Kind + "/" + p.Key + "/" + p.Member
	}
	return strings.Join(words, " ")
}

// takeDay is a special day that the plan lacks, or has otherwise under the same name.
func takeDay(to, from *plan.Plan, d *plan.SpecialDay) []Taking {
	t := Taking{ID: "special day/" + d.Name + "/" + d.From.String(), Kind: "special day", Who: "Special day " +
		d.Name, Words: wordsOfDay(from, d), day: d, New: true}
	if d.Week != "" {
		t.parts = []Part{{Kind: "week", Key: d.Week}}
	}
	for i := range to.Site.SpecialDays {
		if has := &to.Site.SpecialDays[i]; sameSpecial(has, d) {
			if reflect.DeepEqual(*has, *d) {
				return nil
			}
			t.New = false
		}
	}
	return []Taking{t}
}

// wordsOfDay says when a special day is, and what holds then.
func wordsOfDay(p *plan.Plan, d *plan.SpecialDay) string {
	text := d.From.String()
	if d.To != d.From {
		text += " to " + d.To.String()
	}
	if d.Yearly {
		text += ", every year"
	}
	if w := p.Week(d.Week); w != nil {
		text += ": " + w.Name
	} else if d.UseDay != nil {
		text += ": as on " + d.UseDay.Name()
	}
	if d.ActivityDay != nil {
		text += ", what happens as on " + d.ActivityDay.Name()
	}
	if d.RateFactor != nil {
		text += plan.Say(", %v times as much happens", *d.RateFactor)
	}
	return text
}

// sameSpecial tells whether two special days are one that was changed: of one name, and yearly or in the same year.
func sameSpecial(a, b *plan.SpecialDay) bool {
	return a.Name == b.Name && (a.Yearly && b.Yearly || a.From.Year == b.From.Year)
}

// takeTakes is what can be entered at recorders, where the other plan says it of the recorder of the same id, or of one alone.
func takeTakes(to, from *plan.Plan) (out []Taking) {
	for i := range to.Recorders {
		here := &to.Recorders[i]
		there := takesFor(from, here.ID)
		if there == nil || reflect.DeepEqual(here.Takes, there.Takes) {
			continue
		}
		out = append(out, Taking{ID: "takes/" + here.ID, Kind: "recorder", Who: "Recorder " + here.Name,
			Words: "what can be entered there, as at " + there.Name,
			takes: here.ID})
	}
	return out
}

func takesFor(from *plan.Plan, id string) *plan.Recorder {
	if r := from.Recorder(id); r != nil && r.Takes != nil {
		return r
	}
	var only *plan.Recorder
	for i := range from.Recorders {
		if r := &from.Recorders[i]; r.Takes != nil {
			if only != nil {
				return nil
			}
			only = r
		}
	}
	return only
}

// Take are the edits that take some of what [Takings] offers, by their ids, with what it names and the plan does not have. An id
// that is offered no more is a [*document.Error].
func Take(to, from *plan.Plan, ids []string) (edits []edit.Edit, err error) {
	offered := Takings(to, from)
	var parts []Part
	special := slices.Clone(to.Site.SpecialDays)
	changed := false
	var last []edit.Edit
	for i, id := range ids {
		k := slices.IndexFunc(offered, func(t Taking) bool { return t.ID == id })
		if k < 0 {
			return nil, document.Wrong("take["+strconv.Itoa(i)+"]", "is not offered any more")
		}
		t := &offered[k]
		switch {
		case t.takes != "":
			r := *to.Recorder(t.takes)
			r.Takes = takesFor(from, r.ID).Takes
			last = append(last, edit.Edit{SetRecorder: &edit.SetRecorder{Recorder: r}})
		case t.day != nil:
			if t.day.Week != "" && to.Week(t.day.Week) == nil {
				parts = append(parts, t.parts...)
			}
			at := slices.IndexFunc(special, func(d plan.SpecialDay) bool { return sameSpecial(&d, t.day) })
			if at >= 0 {
				special[at] = *t.day
			} else {
				special = append(special, *t.day)
			}
			changed = true
		default:
			parts = append(parts, t.parts...)
		}
	}
	if len(parts) > 0 {
		if edits, err = Carry(to, from, parts); err != nil {
			return nil, err
		}
	}
	if changed {
		last = append(last, edit.Edit{SetSpecialDays: &edit.SetSpecialDays{Days: special}})
	}
	return append(edits, last...), nil
}
