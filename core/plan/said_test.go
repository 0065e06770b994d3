package plan_test

import (
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/quantity"
)

// TestWhatPlansBeginWith holds ready-made duties, activities, the choices of a plan and the units of its numbers to what they were.
func TestWhatPlansBeginWith(t *testing.T) {
	plantest.Said(t, "beginnings", plantest.Figures(t, plan.ReadyMade())+plantest.Figures(t, plan.ActivityTemplates())+
		plantest.Figures(t, plan.Every)+plantest.Figures(t, quantity.Units))
}
