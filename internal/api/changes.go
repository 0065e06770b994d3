package api

import (
	"context"
	"errors"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/sse"

	"wakefield.example/internal/account"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

const changesPath = "/api/changes"

// registerChanges adds the stream of changes: a beat at once and then regularly, and
// every change as it is made. That of some sites begins with the versions of their plans.
func registerChanges(api huma.API, s *service) {
	type request struct {
		Sites []string `query:"site,explode" maxItems:"50" doc:"Ids of the sites to hear of; absent for all"`
		Over  bool     `query:"passOver" doc:"Whether sites that are not there are passed over, in place of an error"`
	}
	sse.Register(api, huma.Operation{
		OperationID: "changes", Method: http.MethodGet, Path: changesPath, Summary: "Changes, as they are made",
		Middlewares: huma.Middlewares{s.heardSites(api)},
	}, map[string]any{"change": store.Changed{}, "site": store.SiteChanged{}, "present": store.Presence{}, "missed": server.Missed{},
		"beat": server.Beat{}},
		func(ctx context.Context, in *request, send sse.Sender) {
			l, leave := s.hub.Join(in.Sites)
			defer leave()
			if who := account.From(ctx); who != nil && s.keeper != nil {
				var done context.CancelFunc
				ctx, done = s.keeper.Listen(ctx, who)
				defer done()
			}
			beat := func() error { return send.Data(server.Beat{Seconds: s.beat.Seconds(), Away: s.hub.Away()}) }
			if beat() != nil {
				return
			}
			if s.sendVersions(ctx, in.Sites, send.Data) != nil {
				return
			}
			tick := time.NewTicker(s.beat)
			defer tick.Stop()
			for {
				select {
				case <-ctx.Done():
					return
				case <-s.life.Done(): // another server is to be had
					return
				case <-tick.C:
					if beat() != nil {
						return
					}
				case <-l.Ready:
					n := l.Take()
					n.Only(func(site string) bool { return s.maySee(ctx, site) })
					if n.Beat && beat() != nil || n.Send(send.Data) != nil {
						return
					}
				}
			}
		})
}

// heardSites refuses a stream of sites that are not there, or that whoever asks may not see, unless these are to be passed over.
func (s *service) heardSites(api huma.API) func(ctx huma.Context, next func(huma.Context)) {
	return func(ctx huma.Context, next func(huma.Context)) {
		if ctx.Query("passOver") == "true" {
			next(ctx)
			return
		}
		for _, site := range sitesHeard(ctx) {
			_, err := s.store.Site(ctx.Context(), site)
			if err == nil && !s.maySee(ctx.Context(), site) {
				err = store.ErrNotFound
			}
			if err != nil {
				told := s.problem(ctx.Context(), err).(huma.StatusError)
				_ = huma.WriteErr(api, ctx, told.GetStatus(), told.Error())
				return
			}
		}
		next(ctx)
	}
}

// sendVersions tells the versions of the plans of some sites as they are. Those that are not there, or that whoever asks may not see,
// have none.
func (s *service) sendVersions(ctx context.Context, sites []string, data func(any) error) error {
	for _, id := range sites {
		site, err := s.store.Site(ctx, id)
		if errors.Is(err, store.ErrNotFound) || err == nil && !s.maySee(ctx, id) {
			continue
		}
		if err != nil {
			return err
		}
		for _, p := range site.Plans {
			if err := data(store.Changed{Site: id, Plan: p.ID, Version: p.Version, Mark: p.Mark}); err != nil {
				return err
			}
		}
	}
	return nil
}

// sitesHeard are the sites that a stream is asked for.
func sitesHeard(ctx huma.Context) []string {
	u := ctx.URL()
	return u.Query()["site"]
}
