package api

import (
	"context"
	"errors"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/internal/account"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

// smallBodyBytes is what requests about accounts may have: no password is as long.
const smallBodyBytes = 64 << 10

// ofAccounts marks operations that there are with accounts only.
const ofAccounts = "accounts"

// accountOp is an operation about accounts. A server without them refuses it.
func accountOp(id, method, path, summary string) huma.Operation {
	o := op(id, method, path, summary)
	o.MaxBodyBytes = smallBodyBytes
	o.Metadata = map[string]any{ofAccounts: true}
	return o
}

// registerSignIn adds how somebody comes in, and goes.
func registerSignIn(api huma.API, s *service) {
	huma.Register(api, op("me", http.MethodGet, "/api/me", "Who is signed in"), s.me)
	huma.Register(api, accountOp("signIn", http.MethodPost, "/api/sign-in", "Sign in with name and password"), s.signIn)
	huma.Register(api, accountOp("beginPasskey", http.MethodPost, "/api/sign-in/passkey/begin", "What to ask a passkey"), s.beginPasskey)
	huma.Register(api, accountOp("signInByPasskey", http.MethodPost, "/api/sign-in/passkey", "Sign in with a passkey"), s.signInByPasskey)
	huma.Register(api, op("signOut", http.MethodPost, "/api/sign-out", "Sign out here"), s.signOut)
	huma.Register(api, accountOp("invitation", http.MethodPost, "/api/invitation", "What a link is good for"), s.invitation)
	huma.Register(api, accountOp("accept", http.MethodPost, "/api/invitation/accept", "Make the account of a link, or set its password"),
		s.accept)
}

// Me is who is signed in, and what they may do.
type Me struct {
	Accounts bool                   `json:"accounts" doc:"Whether people sign in at all; without, everybody may do everything"`
	Here     bool                   `json:"here" doc:"Whether somebody is signed in"`
	ID       string                 `json:"id"`
	Name     string                 `json:"name"`
	Planner  bool                   `json:"planner" doc:"Whether a planner of the whole company"`
	Roles    []store.Role           `json:"roles"`
	SetUp    bool                   `json:"setUp" doc:"Whether a code or a passkey is to be set up before anything else"`
	Sample   []account.SamplePerson `json:"sample,omitempty" doc:"The sample people of a demonstration"`
	Ends     *time.Time             `json:"ends,omitempty" doc:"When the session ends however it is used"`
}

func (s *service) me(ctx context.Context, _ *struct{}) (*body[Me], error) {
	if s.keeper == nil {
		return &body[Me]{Me{Here: true, Planner: true, Roles: []store.Role{}}}, nil
	}
	me := Me{Accounts: true, Roles: []store.Role{}, Sample: s.samplePeople}
	who := account.From(ctx)
	if who == nil {
		return &body[Me]{me}, nil
	}
	me.Here, me.ID, me.Name, me.Planner, me.SetUp, me.Ends = true, who.ID, who.Name, who.Planner, who.SetUp, &who.Ends
	for site, role := range who.Roles {
		me.Roles = append(me.Roles, store.Role{Site: site, Role: role})
	}
	return &body[Me]{me}, nil
}

// NeedsCode is the type of the problem that a code is asked beside a password that was right.
const NeedsCode = "wakefield:code"

// refusedSignIn is what is told of why somebody was not signed in.
func (s *service) refusedSignIn(ctx context.Context, err error) error {
	var unfit *account.Unfit
	switch {
	case errors.Is(err, account.ErrNeedCode):
		return &huma.ErrorModel{Type: NeedsCode, Status: http.StatusUnauthorized, Title: "Code needed",
			Detail: "Type the code that your app shows, or one of the codes for when it is lost."}
	case errors.Is(err, account.ErrPasskey):
		return huma.Error401Unauthorized("Your company asks for your passkey. Sign in with that.")
	case errors.Is(err, account.ErrTooOften):
		return huma.ErrorWithHeaders(huma.Error429TooManyRequests("There were too many wrong passwords. Wait 15 minutes, then try again."),
			http.Header{"Retry-After": {"900"}})
	case errors.Is(err, account.ErrWrong):
		return huma.Error401Unauthorized("Name, password or code is wrong.")
	case errors.Is(err, account.ErrNoPasskeys):
		return huma.Error422UnprocessableEntity("Browsers have passkeys for names only, such as localhost; this page was opened by an address of numbers.")
	case errors.As(err, &unfit):
		return huma.Error422UnprocessableEntity(server.Sentence(unfit.Why.Error()), &huma.ErrorDetail{Location: "body." + unfit.Field,
			Message: unfit.Why.Error()})
	}
	return s.problem(ctx, err)
}

func (s *service) signIn(ctx context.Context, in *struct {
	Body struct {
		Name     string `json:"name" maxLength:"300"`
		Password string `json:"password" maxLength:"2000"`
		Code     string `json:"code,omitempty" maxLength:"40" doc:"One-time code, or one for when the device is lost"`
	}
}) (*body[Me], error) {
	p, err := s.keeper.SignIn(ctx, in.Body.Name, in.Body.Password, in.Body.Code, server.Visitor(ctx))
	if err != nil {
		return nil, s.refusedSignIn(ctx, err)
	}
	how := "password"
	if p.Code != "" {
		how = "password and code"
	}
	return s.sat(ctx, p, how)
}

// sat signs a person in, and tells who they are.
func (s *service) sat(ctx context.Context, p *store.Person, how string) (*body[Me], error) {
	if err := s.keeper.Sit(ctx, p, how, server.Visitor(ctx)); err != nil {
		return nil, s.problem(ctx, err)
	}
	who, err := s.keeper.OfSession(ctx, true)
	if err != nil || who == nil {
		return nil, s.problem(ctx, errors.Join(err, errors.New("nobody sits where somebody just sat down")))
	}
	return s.me(account.As(ctx, who), nil)
}

// Origin is from where a page has the program, which passkeys are bound to.
type Origin struct {
	Origin string `header:"Origin" doc:"As browsers say it"`
}

func (s *service) beginPasskey(ctx context.Context, in *Origin) (*body[any], error) {
	asked, err := s.keeper.AskPasskey(ctx, in.Origin)
	if err != nil {
		return nil, s.refusedSignIn(ctx, err)
	}
	return &body[any]{asked}, nil
}

func (s *service) signInByPasskey(ctx context.Context, in *struct {
	Origin
	Body struct {
		Answer string `json:"answer" maxLength:"60000" doc:"JSON of the credential, as the browser gives it"`
	}
}) (*body[Me], error) {
	p, err := s.keeper.ByPasskey(ctx, in.Origin.Origin, []byte(in.Body.Answer))
	if err != nil {
		return nil, s.refusedSignIn(ctx, err)
	}
	return s.sat(ctx, p, "passkey")
}

func (s *service) signOut(ctx context.Context, _ *struct{}) (*struct{}, error) {
	who := account.From(ctx)
	if who == nil || who.Seat == "" {
		return nil, nil
	}
	s.note(ctx, who, "signed-out", "", "")
	return nil, s.problem(ctx, s.keeper.Leave(ctx, who))
}

// SecretBody is what a link consists of.
type SecretBody struct {
	Secret string `json:"secret" maxLength:"100" doc:"What follows the # of the link"`
}

func (s *service) invitation(ctx context.Context, in *struct{ Body SecretBody }) (*body[store.Invitation], error) {
	i, err := s.store.Invited(store.Everything(ctx), account.Hashed(in.Body.Secret))
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	i.Roles = []store.Role{} // names of sites are for who has come in
	return &body[store.Invitation]{*i}, nil
}

func (s *service) accept(ctx context.Context, in *struct {
	Body struct {
		SecretBody
		Name     string `json:"name" maxLength:"300" doc:"Ignored where a password is set"`
		Password string `json:"password" maxLength:"2000"`
	}
}) (*body[Me], error) {
	p, err := s.keeper.Accept(ctx, in.Body.Secret, in.Body.Name, in.Body.Password)
	if errors.Is(err, store.ErrNameTaken) {
		err = &account.Unfit{Field: "name", Why: errors.New("somebody has this name, or one that looks like it, already")}
	}
	if err != nil {
		return nil, s.refusedSignIn(ctx, err)
	}
	s.keeper.Note(ctx, nil, store.Happened{Who: p.Name, Person: p.ID, Company: p.Company, What: "account",
		Detail:  "made, or password set, by a link",
		Address: server.Visitor(ctx).Address, Request: server.Visitor(ctx).Request})
	return s.sat(ctx, p, "link")
}
