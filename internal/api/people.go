package api

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/internal/account"
	"wakefield.example/internal/store"
)

// registerPeople adds what planners of a company decide about people.
func registerPeople(api huma.API, s *service) {
	huma.Register(api, accountOp("people", http.MethodGet, "/api/people", "Who has an account"), s.people)
	huma.Register(api, making(accountOp("invite", http.MethodPost, "/api/people/invitations", "A link by which somebody makes an account")),
		s.invite)
	huma.Register(api, accountOp("setRoles", http.MethodPut, "/api/people/{person}/roles", "What somebody may do"), s.setRoles)
	huma.Register(api, making(accountOp("resetPassword", http.MethodPost, "/api/people/{person}/reset",
		"A link by which somebody sets a new password")), s.resetPassword)
	huma.Register(api, accountOp("endSeats", http.MethodPost, "/api/people/{person}/sign-out", "Sign somebody out everywhere"), s.endSeats)
	huma.Register(api, accountOp("removePerson", http.MethodDelete, "/api/people/{person}", "Remove an account"), s.removePerson)
	huma.Register(api, accountOp("askTwo", http.MethodPut, "/api/company/second",
		"Ask everybody for a passkey, or a code beside the password"), s.askTwo)
}

// PersonLine is somebody in a list.
type PersonLine struct {
	store.Person
	Code     bool `json:"code" doc:"Whether a one-time code is asked beside the password"`
	Passkeys int  `json:"passkeys" doc:"How many there are"`
	Seats    int  `json:"seats" doc:"At how many places they are signed in"`
	Me       bool `json:"me" doc:"Whether it is who asks"`
}

// People are those of the company.
type People struct {
	People  []PersonLine `json:"people"`
	AsksTwo bool         `json:"asksTwo" doc:"Whether everybody is asked for a passkey, or a code beside the password"`
}

func (s *service) people(ctx context.Context, _ *struct{}) (*body[People], error) {
	list, err := s.store.People(ctx)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	c, err := s.store.Company(ctx)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	out := People{People: []PersonLine{}, AsksTwo: c.AsksTwo}
	for _, p := range list {
		seats, err := s.keeper.Seats(ctx, p.ID)
		if err != nil {
			return nil, s.problem(ctx, err)
		}
		out.People = append(out.People, PersonLine{p, p.Code != "", p.Passkeys, len(seats), p.ID == account.From(ctx).ID})
	}
	return &body[People]{out}, nil
}

// PersonParam names a person in the path.
type PersonParam struct {
	Person string `path:"person" maxLength:"100" doc:"Id of the person"`
}

// RolesBody is what somebody may do.
type RolesBody struct {
	Planner bool         `json:"planner" doc:"Of all sites of the company"`
	Roles   []store.Role `json:"roles" maxItems:"5000" doc:"At single sites, where not a planner of all"`
}

// How long links are good.
const (
	invitationGood = 7 * 24 * time.Hour
	resetGood      = 24 * time.Hour
)

func (s *service) invite(ctx context.Context, in *struct {
	Body struct {
		RolesBody
		Name string `json:"name" maxLength:"300" doc:"Suggested; may be empty"`
	}
}) (*body[MadeSecret], error) {
	who := account.From(ctx)
	for _, r := range in.Body.Roles {
		if !s.maySee(ctx, r.Site) {
			return nil, s.problem(ctx, store.ErrNotFound)
		}
	}
	secret := account.NewSecret()
	s.note(ctx, who, "account", "", "invited: "+in.Body.Name)
	return &body[MadeSecret]{MadeSecret{Secret: secret}}, s.problem(ctx, s.store.Invite(ctx, store.Invitation{Hash: account.Hashed(secret),
		Company: who.Company, Kind: "invited", Name: in.Body.Name, Planner: in.Body.Planner, Roles: in.Body.Roles, MadeBy: who.Name,
		Expires: time.Now().Add(invitationGood)}))
}

func (s *service) setRoles(ctx context.Context, in *struct {
	PersonParam
	Body RolesBody
}) (*struct{}, error) {
	roles := in.Body.Roles
	if in.Body.Planner {
		roles = nil
	}
	if err := s.store.SetRoles(ctx, in.Person, in.Body.Planner, roles); err != nil {
		return nil, s.problem(ctx, err)
	}
	s.keeper.Changed(in.Person)
	detail := "planner of the company"
	if !in.Body.Planner {
		detail = "roles at sites:"
		for _, r := range roles {
			detail += " " + r.Site + " " + r.Role
		}
	}
	s.note(ctx, account.From(ctx), "role", "", in.Person+": "+detail)
	return nil, nil
}

func (s *service) resetPassword(ctx context.Context, in *PersonParam) (*body[MadeSecret], error) {
	p, err := s.store.Person(ctx, in.Person)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	who, secret := account.From(ctx), account.NewSecret()
	s.note(ctx, who, "account", "", "link for a new password of "+p.Name)
	return &body[MadeSecret]{MadeSecret{Secret: secret}}, s.problem(ctx, s.store.Invite(ctx, store.Invitation{Hash: account.Hashed(secret),
		Company: who.Company, Kind: "reset", Person: p.ID, Name: p.Name, MadeBy: who.Name, Expires: time.Now().Add(resetGood)}))
}

func (s *service) endSeats(ctx context.Context, in *PersonParam) (*struct{}, error) {
	if _, err := s.store.Person(ctx, in.Person); err != nil {
		return nil, s.problem(ctx, err)
	}
	if _, err := s.store.Leave(ctx, in.Person, ""); err != nil {
		return nil, s.problem(ctx, err)
	}
	s.keeper.Changed(in.Person)
	s.note(ctx, account.From(ctx), "account", "", "signed out everywhere: "+in.Person)
	return nil, nil
}

func (s *service) removePerson(ctx context.Context, in *PersonParam) (*struct{}, error) {
	if err := s.store.RemovePerson(ctx, in.Person); err != nil {
		return nil, s.problem(ctx, err)
	}
	s.keeper.Changed(in.Person)
	s.note(ctx, account.From(ctx), "account", "", "removed: "+in.Person)
	return nil, nil
}

func (s *service) askTwo(ctx context.Context, in *struct {
	Body struct {
		AsksTwo bool `json:"asksTwo"`
	}
}) (*struct{}, error) {
	s.note(ctx, account.From(ctx), "account", "", "a second proof of everybody: "+
		map[bool]string{true: "asked", false: "not asked"}[in.Body.AsksTwo])
	return nil, s.problem(ctx, s.store.AskTwo(ctx, in.Body.AsksTwo))
}
