package plan

import (
	"wakefield.example/core/week"
)

// Accepted is a finding that was taken on purpose.
type Accepted struct {
	Finding string     `json:"finding" key:"yes" minLength:"1" maxLength:"2000" doc:"Key of the finding: its rule and what it says, so that it comes back when its figures change"`
	Reason  string     `json:"reason" minLength:"1" maxLength:"1000"`
	By      string     `json:"by,omitempty" maxLength:"100"`
	On      *week.Date `json:"on,omitempty"`
}
