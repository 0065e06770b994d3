package demo

import (
	"testing"

	"wakefield/core/estimate"
	"wakefield/core/plan"
)

func TestSampleSitesKeepTheRules(t *testing.T) {
	for _, p := range []*plan.Plan{PennywhistleQuay(), BrackenhallCiderWorks(), SaltmarshTramDepot()} {
		if err := p.Check(); err != nil {
			t.Errorf("%s: %v", p.Site.Name, err)
		}
		v := estimate.Run(p, nil).Verdict
		if v.KeptDays == nil || v.RequiredDays == nil || v.Evidence.EventsPerDay == 0 {
			t.Errorf("%s has no verdict worth showing: %+v", p.Site.Name, v)
		}
	}
	if quay := PennywhistleQuay(); len(quay.Channels) != 16 || quay.Recorders[0].Pools[0].Layout != "raid5" {
		t.Error("Pennywhistle Quay is one recorder of 16 channels on RAID 5")
	}
	if depot := SaltmarshTramDepot(); len(depot.Channels) != 192 || len(depot.Recorders) != 6 {
		t.Error("Saltmarsh Tram Depot is 192 channels on six recorders")
	}
}
