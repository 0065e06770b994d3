package api

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

// Health is what /healthz and /readyz say when all is well.
type Health struct {
	Status string `json:"status" enum:"ok"`
}

// answersWithin is how long the database may take when it is asked how it is.
const answersWithin = 800 * time.Millisecond

func registerHealth(api huma.API, s *service) {
	huma.Register(api, op("health", http.MethodGet, "/healthz", "Whether the server and its database answer"), s.health)
	huma.Register(api, op("ready", http.MethodGet, "/readyz", "Whether changes can be saved"), s.ready)
}

func (s *service) health(ctx context.Context, _ *struct{}) (*body[Health], error) {
	return s.asked(ctx, s.store.Ping)
}

func (s *service) ready(ctx context.Context, _ *struct{}) (*body[Health], error) {
	return s.asked(ctx, s.store.Probe)
}

func (s *service) asked(ctx context.Context, ask func(context.Context) error) (*body[Health], error) {
	ctx, cancel := context.WithTimeout(ctx, answersWithin)
	defer cancel()
	err := ask(ctx)
	if err == nil {
		return &body[Health]{Health{"ok"}}, nil
	}
	s.log.WarnContext(ctx, "not well", "id", server.RequestID(ctx), "cause", err)
	switch store.TroubleOf(err) {
	case store.Full:
		return nil, huma.Error503ServiceUnavailable("The database has no room left on its disk.")
	case store.ReadOnly:
		return nil, huma.Error503ServiceUnavailable("The database may not be written to.")
	}
	return nil, huma.Error503ServiceUnavailable("The database does not answer.")
}
