package plan

import "wakefield.example/core/document"

// Check reports the first rule of the format that the plan breaks, as a [*document.Error].
func (p *Plan) Check() error {
	if err := document.Check("", p); err != nil {
		return err
	}
	return p.checkReferences()
}

// CheckSince enforces what Check does on a plan that was made from another one that
// passed: entries of its lists that are as they were there need no second look at their
// limits.
func (p *Plan) CheckSince(before *Plan) error {
	if err := document.CheckSince(p, before); err != nil {
		return err
	}
	return p.checkReferencesSince(before)
}
