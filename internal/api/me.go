package api

import (
	"context"
	"errors"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/internal/account"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

// registerMe adds what people do with their own account.
func registerMe(api huma.API, s *service) {
	huma.Register(api, accountOp("changePassword", http.MethodPost, "/api/me/password", "Change one's password"), s.changePassword)
	huma.Register(api, accountOp("removePassword", http.MethodPost, "/api/me/password/remove", "Sign in by passkeys alone"), s.removePassword)
	huma.Register(api, accountOp("newCode", http.MethodPost, "/api/me/code/new", "A secret of one-time codes, not in use yet"), s.newCode)
	huma.Register(api, accountOp("useCode", http.MethodPost, "/api/me/code", "Ask for one-time codes from now on"), s.useCode)
	huma.Register(api, accountOp("removeCode", http.MethodPost, "/api/me/code/remove", "Ask for no codes any more"), s.removeCode)
	huma.Register(api, accountOp("passkeys", http.MethodGet, "/api/me/passkeys", "One's passkeys"), s.passkeys)
	huma.Register(api, accountOp("newPasskey", http.MethodPost, "/api/me/passkeys/new", "What to ask a browser to make a passkey"),
		s.newPasskey)
	huma.Register(api, accountOp("addPasskey", http.MethodPost, "/api/me/passkeys", "Keep a passkey"), s.addPasskey)
	huma.Register(api, accountOp("removePasskey", http.MethodDelete, "/api/me/passkeys/{key}", "Remove a passkey"), s.removePasskey)
	huma.Register(api, accountOp("seats", http.MethodGet, "/api/me/sessions", "Where one is signed in"), s.seats)
	huma.Register(api, accountOp("leave", http.MethodPost, "/api/me/sessions/end", "Sign out somewhere, or everywhere"), s.leave)
	huma.Register(api, accountOp("tokens", http.MethodGet, "/api/tokens", "Tokens for programs"), s.tokens)
	huma.Register(api, making(accountOp("makeToken", http.MethodPost, "/api/tokens", "Make a token")), s.makeToken)
	huma.Register(api, accountOp("endToken", http.MethodDelete, "/api/tokens/{token}", "End a token"), s.endToken)
}

// OwnSecret is the password of whoever asks for something that only they may do.
type OwnSecret struct {
	Current string `json:"current" maxLength:"2000" doc:"The password as it is; empty where there is none"`
}

func (s *service) confirmed(ctx context.Context, password string) (*account.Who, error) {
	who := account.From(ctx)
	err := s.keeper.Confirm(ctx, who, password, server.Visitor(ctx))
	if errors.Is(err, account.ErrWrong) {
		return nil, huma.Error422UnprocessableEntity("The password is wrong.", &huma.ErrorDetail{Location: "body.current", Message: "is wrong"})
	}
	if err != nil {
		return nil, s.refusedSignIn(ctx, err)
	}
	return who, nil
}

func (s *service) changePassword(ctx context.Context, in *struct {
	Body struct {
		OwnSecret
		Password string `json:"password" maxLength:"2000"`
	}
}) (*struct{}, error) {
	who, err := s.confirmed(ctx, in.Body.Current)
	if err != nil {
		return nil, err
	}
	if err := account.CheckPassword(in.Body.Password, who.Name); err != nil {
		return nil, s.refusedSignIn(ctx, &account.Unfit{Field: "password", Why: err})
	}
	hash, err := account.HashPassword(ctx, in.Body.Password)
	if err != nil {
		return nil, s.refusedSignIn(ctx, &account.Unfit{Field: "password", Why: err})
	}
	s.note(ctx, who, "account", "", "password changed")
	return nil, s.problem(ctx, s.store.SetPassword(ctx, who.ID, hash, who.Seat))
}

// removePassword leaves passkeys as the only way in. A code beside a password goes with it.
func (s *service) removePassword(ctx context.Context, in *struct{ Body OwnSecret }) (*struct{}, error) {
	who, err := s.confirmed(ctx, in.Body.Current)
	if err != nil {
		return nil, err
	}
	p, err := s.store.Person(ctx, who.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	if p.Passkeys == 0 {
		return nil, huma.Error422UnprocessableEntity("Add a passkey first: without a password it is the only way in.")
	}
	if err := s.store.SetCode(ctx, who.ID, "", nil); err != nil {
		return nil, s.problem(ctx, err)
	}
	s.note(ctx, who, "account", "", "password removed")
	return nil, s.problem(ctx, s.store.SetPassword(ctx, who.ID, "", who.Seat))
}

const codeKey = "new code"

func (s *service) newCode(ctx context.Context, _ *struct{}) (*body[account.NewCode], error) {
	code, err := account.MakeCode(account.From(ctx).Name)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	s.keeper.Sessions.Put(ctx, codeKey, code.Secret)
	return &body[account.NewCode]{*code}, nil
}

// Recovery are codes that are shown once.
type Recovery struct {
	Codes []string `json:"codes" doc:"Each good once, for when the device is lost; they are not shown again"`
}

func (s *service) useCode(ctx context.Context, in *struct {
	Body struct {
		OwnSecret
		Code string `json:"code" maxLength:"40" doc:"That the app shows now"`
	}
}) (*body[Recovery], error) {
	who, err := s.confirmed(ctx, in.Body.Current)
	if err != nil {
		return nil, err
	}
	secret := s.keeper.Sessions.GetString(ctx, codeKey)
	if secret == "" || !account.IsCode(in.Body.Code, secret) {
		return nil, huma.Error422UnprocessableEntity("The code is wrong. Is the clock of your device right?",
			&huma.ErrorDetail{Location: "body.code", Message: "is wrong"})
	}
	codes, hashes := account.NewRecovery()
	if err := s.store.SetCode(ctx, who.ID, secret, hashes); err != nil {
		return nil, s.problem(ctx, err)
	}
	s.keeper.Sessions.Remove(ctx, codeKey)
	s.note(ctx, who, "account", "", "one-time codes set up")
	return &body[Recovery]{Recovery{codes}}, nil
}

func (s *service) removeCode(ctx context.Context, in *struct{ Body OwnSecret }) (*struct{}, error) {
	who, err := s.confirmed(ctx, in.Body.Current)
	if err != nil {
		return nil, err
	}
	s.note(ctx, who, "account", "", "one-time codes removed")
	return nil, s.problem(ctx, s.store.SetCode(ctx, who.ID, "", nil))
}

// OwnKeys is what one signs in with.
type OwnKeys struct {
	Passkeys []store.Passkey `json:"passkeys"`
	Password bool            `json:"password" doc:"Whether there is a password"`
	Code     bool            `json:"code" doc:"Whether a one-time code is asked beside it"`
	Recovery int             `json:"recovery" doc:"How many codes for when the device is lost are left"`
}

func (s *service) passkeys(ctx context.Context, _ *struct{}) (*body[OwnKeys], error) {
	who := account.From(ctx)
	p, err := s.store.Person(ctx, who.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	keys := OwnKeys{Password: p.Password != "", Code: p.Code != ""}
	if keys.Passkeys, err = s.store.Passkeys(ctx, who.ID); err != nil {
		return nil, s.problem(ctx, err)
	}
	keys.Recovery, err = s.store.RecoveryLeft(ctx, who.ID)
	return &body[OwnKeys]{keys}, s.problem(ctx, err)
}

func (s *service) newPasskey(ctx context.Context, in *struct {
	Origin
	Body OwnSecret
}) (*body[any], error) {
	who, err := s.confirmed(ctx, in.Body.Current)
	if err != nil {
		return nil, err
	}
	asked, err := s.keeper.NewPasskey(ctx, who, in.Origin.Origin)
	if err != nil {
		return nil, s.refusedSignIn(ctx, err)
	}
	return &body[any]{asked}, nil
}

func (s *service) addPasskey(ctx context.Context, in *struct {
	Origin
	Body struct {
		Name   string `json:"name" maxLength:"60" doc:"By which it is known again"`
		Answer string `json:"answer" maxLength:"60000" doc:"JSON of the credential, as the browser gives it"`
	}
}) (*struct{}, error) {
	who := account.From(ctx)
	err := s.keeper.AddPasskey(ctx, who, in.Origin.Origin, in.Body.Name, []byte(in.Body.Answer))
	if errors.Is(err, account.ErrWrong) {
		return nil, huma.Error422UnprocessableEntity("The passkey was not taken. Begin once more.")
	}
	if err != nil {
		return nil, s.refusedSignIn(ctx, err)
	}
	s.note(ctx, who, "account", "", "passkey added")
	return nil, nil
}

func (s *service) removePasskey(ctx context.Context, in *struct {
	Key string `path:"key" maxLength:"2000"`
}) (*struct{}, error) {
	who := account.From(ctx)
	p, err := s.store.Person(ctx, who.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	if p.Password == "" && p.Passkeys == 1 {
		return nil, huma.Error422UnprocessableEntity("This is the only way in that you have. Set a password, or add another passkey, first.")
	}
	s.note(ctx, who, "account", "", "passkey removed")
	return nil, s.problem(ctx, s.store.RemovePasskey(ctx, who.ID, in.Key))
}

func (s *service) seats(ctx context.Context, _ *struct{}) (*body[[]store.Seat], error) {
	who := account.From(ctx)
	list, err := s.keeper.Seats(ctx, who.ID)
	for i := range list {
		list[i].Here = list[i].ID == who.Seat
	}
	return &body[[]store.Seat]{list}, s.problem(ctx, err)
}

func (s *service) leave(ctx context.Context, in *struct {
	Body struct {
		Session string `json:"session" maxLength:"100" doc:"Which one; empty for all, this one too"`
	}
}) (*struct{}, error) {
	who := account.From(ctx)
	if _, err := s.store.Leave(ctx, who.ID, in.Body.Session); err != nil {
		return nil, s.problem(ctx, err)
	}
	s.keeper.Changed(who.ID)
	s.note(ctx, who, "signed-out", "", "at another place, or everywhere")
	return nil, nil
}

func (s *service) tokens(ctx context.Context, in *struct {
	All bool `query:"all" doc:"Those of everybody; for planners of the company"`
}) (*body[[]store.Token], error) {
	who := account.From(ctx)
	person := who.ID
	if in.All && who.Planner {
		person = ""
	}
	list, err := s.store.Tokens(ctx, person)
	return &body[[]store.Token]{list}, s.problem(ctx, err)
}

// MadeSecret is something that is shown once.
type MadeSecret struct {
	ID     string `json:"id"`
	Secret string `json:"secret" doc:"It is kept as a hash only, and not shown again"`
}

func (s *service) makeToken(ctx context.Context, in *struct {
	Body struct {
		Name   string   `json:"name" minLength:"1" maxLength:"60" doc:"What it is for"`
		Writes bool     `json:"writes"`
		Sites  []string `json:"sites" maxItems:"200" doc:"Ids of the sites that it is for; empty for all that one may see"`
		Days   int      `json:"days" minimum:"1" maximum:"366" doc:"For how long it is good"`
	}
}) (*body[MadeSecret], error) {
	who := account.From(ctx)
	for _, site := range in.Body.Sites {
		if !s.maySee(ctx, site) {
			return nil, huma.Error422UnprocessableEntity("There is no site “" + site + "” that you may see.")
		}
	}
	t := store.Token{ID: account.NewID(), Name: strings.TrimSpace(in.Body.Name), Writes: in.Body.Writes, Sites: in.Body.Sites, Person: who.ID,
		Expires: time.Now().AddDate(0, 0, in.Body.Days)}
	secret := tokenPrefix + account.NewSecret()
	s.note(ctx, who, "token", "", "made: "+t.Name)
	return &body[MadeSecret]{MadeSecret{t.ID, secret}}, s.problem(ctx, s.store.AddToken(ctx, t, account.Hashed(secret)))
}

// tokenPrefix tells people and scanners of published code what they have before them.
const tokenPrefix = "wakefield_"

func (s *service) endToken(ctx context.Context, in *struct {
	Token string `path:"token" maxLength:"100"`
}) (*struct{}, error) {
	who := account.From(ctx)
	person := who.ID
	if who.Planner {
		person = ""
	}
	s.note(ctx, who, "token", "", "ended: "+in.Token)
	return nil, s.problem(ctx, s.store.EndToken(ctx, person, in.Token))
}
