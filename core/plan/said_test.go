package plan_test

import (
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
)

// TestWhatPlansBeginWith holds ready-made duties, activities and the choices of a plan to what they were.
func TestWhatPlansBeginWith(t *testing.T) {
	plantest.Said(t, "beginnings", plantest.Figures(t, plan.ReadyMade())+plantest.Figures(t, plan.ActivityTemplates())+
		plantest.Figures(t, plan.Every))
}
