package plan

import (
	"encoding/json"

	"wakefield.example/core/document"
)

// MaxBytes is the size of the largest plan, as [Plan.Bytes] measures it. MaxFileBytes
// is the size of the largest file that Read accepts: the same with the spaces and line
// ends that are for people.
const (
	MaxBytes     = 16 << 20
	MaxFileBytes = 32 << 20
)

// Read reads a plan and checks every rule of the format. The error, a [*document.Error],
// names the first place that is wrong.
func Read(data []byte) (*Plan, error) {
	if len(data) > MaxFileBytes {
		return nil, document.Wrong("", "larger than %d MiB, which no plan is", MaxFileBytes>>20)
	}
	p, err := Restore(data)
	if err == nil && len(data) > MaxBytes {
		err = p.CheckSize()
	}
	if err != nil {
		return nil, err
	}
	return p, nil
}

// Bytes is the plan as it is kept: JSON without spaces. Its length is the size of the
// plan.
func (p *Plan) Bytes() ([]byte, error) { return json.Marshal(p) }

// CheckSize refuses a plan that is larger than MaxBytes.
func (p *Plan) CheckSize() error {
	data, err := p.Bytes()
	if err != nil {
		return err
	}
	return CheckBytes(data)
}

// CheckBytes is [Plan.CheckSize] for a plan that has been written already.
func CheckBytes(data []byte) error {
	if len(data) > MaxBytes {
		return document.Wrong("", "larger than %d MiB, even without its spaces: %.1f MiB; no plan may be", MaxBytes>>20,
			float64(len(data))/(1<<20))
	}
	return nil
}

// schemaMember says, in a plan file, where its schema is to be found. Editors of files look at it; it is no part of the plan.
const schemaMember = "$schema"

// Restore reads a plan that was accepted before: it obeys every rule but that of its
// size, which is one for what is new.
func Restore(data []byte) (*Plan, error) {
	p := new(Plan)
	if err := document.Read(data, p, schemaMember); err != nil {
		return nil, err
	}
	if err := p.checkReferences(); err != nil {
		return nil, err
	}
	return p, nil
}

// Write writes a plan as Read reads it, indented for people where that is not too
// large to be read again.
func (p *Plan) Write() ([]byte, error) {
	data, err := json.MarshalIndent(p, "", "  ")
	if err == nil && len(data) >= MaxFileBytes {
		data, err = p.Bytes()
	}
	if err != nil {
		return nil, err
	}
	return append(data, '\n'), nil
}
