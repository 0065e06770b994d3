package store

import (
	"context"
	"encoding/json"
)

// Presence says that somebody has a page of a site open, and what is in hand there. Nobody keeps it: servers pass it on.
type Presence struct {
	Site  string `json:"site"`
	Who   string `json:"who" doc:"Tells tabs of browsers apart; those of one browser begin alike"`
	Name  string `json:"name" doc:"Of the person"`
	Plan  string `json:"plan" doc:"Id of the variant that is open"`
	Page  string `json:"page" doc:"Which page is open"`
	About string `json:"about,omitempty" doc:"What is in hand there, such as the id of a channel"`
	Gone  bool   `json:"gone,omitempty" doc:"Whether the page is closed"`
}

// TellPresence tells all servers on the database who is at a site.
func (s *Store) TellPresence(ctx context.Context, p Presence) error {
	data, err := json.Marshal(p)
	if err != nil {
		return err
	}
	_, err = s.pool.Exec(ctx, `select pg_notify($1, $2)`, presenceTold, string(data))
	return err
}
