package api

import (
	"encoding/json"
	"fmt"
	"testing"

	"wakefield.example/internal/demo"
)

// TestADraftShowsAsManyRibbonsAsAWindow paints all channels of a large site: the figures are of all, the ribbons of as many as are
// ever seen at once.
func TestADraftShowsAsManyRibbonsAsAWindow(t *testing.T) {
	p := demo.SaltmarshTramDepot()
	c := start(t, p)
	ids := make([]string, len(p.Channels))
	for i := range p.Channels {
		ids[i] = p.Channels[i].ID
	}
	list, err := json.Marshal(ids)
	if err != nil {
		t.Fatal(err)
	}
	stroke := `{"version":1,"edits":[{"paint":{"channels":%s,"hours":[{"days":["tue"],"from":"06:00","to":"22:00"}],"duty":"off"}}]}`
	d := call[Draft](c, "POST", "/api/plans/site/draft", fmt.Sprintf(stroke, list), 200)
	if len(d.Ribbons) != mostDrafted || d.Channels <= mostDrafted {
		t.Errorf("%d ribbons of %d channels that are painted", len(d.Ribbons), d.Channels)
	}
}
