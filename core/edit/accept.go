package edit

import (
	"fmt"
	"regexp"
	"slices"
	"strings"

	"wakefield.example/core/document"
	"wakefield.example/core/plan"
)

// AcceptFinding accepts a finding, or gives another reason for it.
type AcceptFinding struct {
	plan.Accepted
}

func (e *AcceptFinding) apply(p *plan.Plan) (*plan.Plan, error) {
	next := *p
	next.Accepted = put(p.Accepted, e.Accepted, func(a *plan.Accepted) bool { return a.Finding == e.Finding })
	return &next, nil
}

func (e *AcceptFinding) sentence(*plan.Plan) string {
	return fmt.Sprintf("Finding accepted: %s (%s)", said(e.Finding), e.Reason)
}

// ReopenFinding takes an acceptance back.
type ReopenFinding struct {
	Finding string `json:"finding" minLength:"1" maxLength:"2000"`
}

func (e *ReopenFinding) apply(p *plan.Plan) (*plan.Plan, error) {
	next := *p
	at := slices.IndexFunc(p.Accepted, func(a plan.Accepted) bool { return a.Finding == e.Finding })
	if at < 0 {
		return nil, document.Wrong("finding", "none such is accepted")
	}
	next.Accepted = slices.Delete(slices.Clone(p.Accepted), at, at+1)
	return &next, nil
}

func (e *ReopenFinding) sentence(*plan.Plan) string { return "Finding open again: " + said(e.Finding) }

// said is what a finding's key says, without its rule and the mark of its places.
func said(key string) string {
	_, text, found := strings.Cut(key, ": ")
	if !found {
		text = key
	}
	return placesMark.ReplaceAllString(text, "")
}

var placesMark = regexp.MustCompile(` \([0-9a-f]{1,16}\)$`)
