package server

import (
	"context"
	"sync"
	"testing"
)

func TestTurnsAreTakenOneAfterTheOther(t *testing.T) {
	turns := NewTurns()
	inside, most := 0, 0
	var group sync.WaitGroup
	for range 50 {
		group.Go(func() {
			release, err := turns.Take(context.Background(), "site")
			if err != nil {
				t.Error(err)
				return
			}
			inside++ // the race detector sees whether this is guarded
			most = max(most, inside)
			inside--
			release()
		})
	}
	group.Wait()
	if most != 1 || len(turns.sites) != 0 {
		t.Errorf("%d at once, %d sites are remembered", most, len(turns.sites))
	}
	hold, _ := turns.Take(context.Background(), "site")
	gone, cancel := context.WithCancel(context.Background())
	cancel()
	if _, err := turns.Take(gone, "site"); err == nil {
		t.Error("who went away got a turn")
	}
	if free, err := turns.Take(context.Background(), "another"); err != nil {
		t.Error(err)
	} else {
		free()
	}
	hold()
	if len(turns.sites) != 0 {
		t.Errorf("%d sites are remembered", len(turns.sites))
	}
}
