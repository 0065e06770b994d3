package api

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/document"
	"wakefield.example/core/plan"
	"wakefield.example/internal/server"
	"wakefield.example/internal/stills"
)

// registerPictures adds the stills of cameras.
func registerPictures(api huma.API, s *service) {
	huma.Register(api, making(fileOp(op("addPicture", http.MethodPost, "/api/plans/{id}/pictures",
		"Store a snapshot beside the plans of a site"), stills.LargestBytes+server.SmallBody)), s.addPicture)
	huma.Register(api, op("getPicture", http.MethodGet, "/api/plans/{id}/pictures/{picture}", "A snapshot"), s.getPicture)
	huma.Register(api, op("exportBundle", http.MethodGet, "/api/plans/{id}/zip",
		"The plan file with the pictures that it names, as a zip archive"), s.exportBundle)
}

// KeptPicture is a still that is kept.
type KeptPicture struct {
	ID     string `json:"id" doc:"As a channel's scene names it"`
	Width  int    `json:"width" doc:"Pixels"`
	Height int    `json:"height" doc:"Pixels"`
	Bytes  int    `json:"bytes"`
}

func (s *service) addPicture(ctx context.Context, in *struct {
	PlanParam
	RawBody []byte `contentType:"application/octet-stream"`
}) (*body[KeptPicture], error) {
	still, err := reading(ctx, s, func(ctx context.Context) (*stills.Still, error) { return s.takeStill(ctx, in.RawBody) })
	if err != nil {
		return nil, err
	}
	if err := s.store.AddPicture(ctx, in.ID, still); err != nil {
		return nil, s.problem(ctx, err)
	}
	return &body[KeptPicture]{KeptPicture{still.ID, still.Width, still.Height, len(still.JPEG)}}, nil
}

// takeStill takes a picture in when there is memory for it.
func (s *service) takeStill(ctx context.Context, data []byte) (*stills.Still, error) {
	release, err := server.WaitFor(ctx, s.slots.Pictures, min(stills.Decoded(data), server.PictureBytes))
	if err != nil {
		return nil, err
	}
	defer release()
	return stills.Take(ctx, data)
}

// picture is a still as a file that never changes.
type picture struct {
	Type  string `header:"Content-Type"`
	Cache string `header:"Cache-Control"`
	ETag  string `header:"ETag"`
	Body  []byte
}

func (s *service) getPicture(ctx context.Context, in *struct {
	PlanParam
	Picture string `path:"picture" maxLength:"100" doc:"Id of the snapshot"`
	Known   string `header:"If-None-Match" maxLength:"200"`
}) (*picture, error) {
	list, err := s.store.Pictures(ctx, in.ID, []string{in.Picture})
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	if len(list) == 0 {
		return nil, huma.Error404NotFound("There is no such picture.")
	}
	tag := `"` + in.Picture + `"`
	if in.Known == tag {
		return nil, huma.Status304NotModified()
	}
	// Whoever may see the site may keep it; nobody between may.
	return &picture{stills.Type, "private, max-age=31536000, immutable", tag, list[0].JPEG}, nil
}

// exportBundle writes the plan file with its pictures. A plan that cannot be read comes without any.
func (s *service) exportBundle(ctx context.Context, in *PlanParam) (*file, error) {
	out, err := server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) (*file, error) {
		document, p, err := s.planFile(ctx, in.ID)
		if err != nil {
			return nil, err
		}
		named := p.Pictures()
		size, err := s.store.PictureBytes(ctx, in.ID, named)
		if err != nil {
			return nil, err
		}
		if all := size + int64(len(document)); all > server.BundleBody {
			return nil,
				huma.Error422UnprocessableEntity(fmt.Sprintf("The plan and its pictures have %d MB; an archive holds %d, which is as much as can be imported. The plan file can be exported by itself.", all>>20, server.BundleBody>>20))
		}
		list, err := s.store.Pictures(ctx, in.ID, named)
		if err != nil {
			return nil, err
		}
		data, err := stills.Pack(ctx, document, list)
		return &file{"application/zip", attached(p, "plan", "zip", time.Now()), data}, err
	})
	return out, s.problem(ctx, err)
}

// readBundle reads a plan file, or one in a zip archive with its pictures when there is memory for them.
func (s *service) readBundle(ctx context.Context, data []byte) (*plan.Plan, []*stills.Still, error) {
	if !stills.IsBundle(data) {
		p, err := plan.Read(data)
		return p, nil, err
	}
	var p *plan.Plan
	release, err := server.WaitFor(ctx, s.slots.Pictures, server.PictureBytes)
	if err != nil {
		return nil, nil, err
	}
	defer release()
	_, pictures, err := stills.Unpack(ctx, data, plan.MaxFileBytes, func(file []byte) (_ []string, err error) {
		if p, err = plan.Read(file); err != nil {
			return nil, err
		}
		return p.Pictures(), nil
	})
	var wrong *document.Error
	if ctx.Err() != nil {
		return nil, nil, ctx.Err() // it was stopped, which says nothing of the file
	}
	if err != nil && !errors.As(err, &wrong) {
		err = huma.Error422UnprocessableEntity(err.Error())
	}
	if err != nil {
		return nil, nil, err
	}
	var list []*stills.Still
	for i := range p.Channels {
		scene := p.Channels[i].Scene
		if scene == nil || pictures[scene.Picture] == nil {
			continue
		}
		still := pictures[scene.Picture]
		scene.Picture = still.ID // another, where it was made smaller
		if !slices.Contains(list, still) {
			list = append(list, still)
		}
	}
	return p, list, nil
}
