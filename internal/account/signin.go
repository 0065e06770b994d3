package account

import (
	"context"
	"errors"
	"time"

	"wakefield.example/internal/store"
)

// Errors of signing in.
var (
	ErrWrong    = errors.New("name, password or code is wrong")
	ErrNeedCode = errors.New("a code is needed")
	ErrTooOften = errors.New("too many wrong passwords")
	ErrPasskey  = errors.New("a passkey is asked for")
)

// Visitor is from where somebody comes.
type Visitor struct {
	Address string // IP
	Device  string // browser and system, as it says itself
	Request string // id of the request
}

// SignIn is who has a name, a password and, where they have set up codes, a code. The errors are ErrWrong, which says no more
// than that; ErrNeedCode where the password is right; ErrTooOften.
func (k *Keeper) SignIn(ctx context.Context, name, password, code string, from Visitor) (*store.Person, error) {
	ctx = store.Everything(ctx)
	_, key, err := Name(name)
	if err != nil {
		key = ""
	}
	p, err := k.store.PersonNamed(ctx, key)
	if err != nil && !errors.Is(err, store.ErrNoPerson) {
		return nil, err
	}
	if !k.limits.may(key, from.Address, func() bool { return p != nil && k.familiar(ctx, p.ID, from.Address) }) {
		return nil, ErrTooOften
	}
	hash := ""
	if p != nil {
		hash = p.Password
	}
	right, err := isPassword(ctx, password, hash)
	if err != nil {
		return nil, err
	}
	if right && p.AsksTwo && p.Code == "" && p.Passkeys > 0 {
		return nil, ErrPasskey
	}
	if right && p.Code != "" && code == "" {
		return nil, ErrNeedCode
	}
	if right && p.Code != "" {
		if right, err = k.takesCode(ctx, p, code); err != nil {
			return nil, err
		}
	}
	if !right {
		k.limits.failure(key, from.Address)
		k.Note(ctx, nil, store.Happened{Who: name, What: "refused", Detail: "name, password or code was wrong", Address: from.Address,
			Request: from.Request,
			Company: companyOf(p)})
		return nil, ErrWrong
	}
	return p, nil
}

func companyOf(p *store.Person) string {
	if p == nil {
		return ""
	}
	return p.Company
}

// Confirm tells whether somebody who is signed in knows their password. Where they have none, a passkey was shown.
func (k *Keeper) Confirm(ctx context.Context, w *Who, password string, from Visitor) error {
	p, err := k.store.Person(store.Everything(ctx), w.ID)
	if err != nil {
		return err
	}
	if p.Password == "" {
		return nil
	}
	if !k.limits.may(p.Key, from.Address, func() bool { return true }) {
		return ErrTooOften
	}
	right, err := isPassword(ctx, password, p.Password)
	if err == nil && !right {
		k.limits.failure(p.Key, from.Address)
		err = ErrWrong
	}
	return err
}

// familiar tells whether somebody signed in from an address in the last 30 days.
func (k *Keeper) familiar(ctx context.Context, person, address string) bool {
	list, err := k.store.Audited(ctx, store.Asked{What: "signed-in", Text: address, From: time.Now().AddDate(0, 0, -30), Limit: 50})
	if err != nil {
		return false
	}
	for _, h := range list {
		if h.Person == person && h.Address == address {
			return true
		}
	}
	return false
}

// Sit signs a person in: the session gets a new token, and a seat.
func (k *Keeper) Sit(ctx context.Context, p *store.Person, how string, from Visitor) error {
	if err := k.Sessions.RenewToken(ctx); err != nil {
		return err
	}
	seat := store.Seat{ID: NewID(), Device: from.Device, Address: from.Address, Expires: time.Now().Add(k.options.Longest)}
	if err := k.store.Sit(store.Everything(ctx), p.ID, seat); err != nil {
		return err
	}
	k.Sessions.Put(ctx, seatKey, seat.ID)
	k.Note(ctx, whoOf(p), store.Happened{What: "signed-in", Detail: how, Address: from.Address, Request: from.Request})
	return nil
}

// Leave signs out here.
func (k *Keeper) Leave(ctx context.Context, w *Who) error {
	if _, err := k.store.Leave(store.Everything(ctx), w.ID, w.Seat); err != nil {
		return err
	}
	k.Changed(w.ID)
	return k.Sessions.Destroy(ctx)
}

// Seats are where somebody is signed in.
func (k *Keeper) Seats(ctx context.Context, person string) ([]store.Seat, error) {
	return k.store.Seats(ctx, person, time.Now().Add(-k.options.Idle))
}

// Note keeps in the audit that somebody did something. What cannot be kept is in the log at least.
func (k *Keeper) Note(ctx context.Context, w *Who, h store.Happened) {
	if w != nil {
		h.Who, h.Person, h.Company = w.Name, w.ID, w.Company
		if w.Token != "" {
			h.Detail += " (by token " + w.Token + ")"
		}
	}
	if err := k.store.Audit(store.Everything(context.WithoutCancel(ctx)), h); err != nil {
		k.log.ErrorContext(ctx, "not in the audit", "who", h.Who, "what", h.What, "site", h.Site, "detail", h.Detail, "cause", err)
	}
}

// First is a link's secret with which the first planner makes an account, good for an hour; empty where somebody has one.
func First(ctx context.Context, s *store.Store) (secret string, err error) {
	ctx = store.Everything(ctx)
	if any, err := s.AnyPerson(ctx); err != nil || any {
		return "", err
	}
	secret = NewSecret()
	return secret, s.Invite(ctx, store.Invitation{Hash: Hashed(secret), Company: "own", Kind: "first", Planner: true,
		Expires: time.Now().Add(time.Hour)})
}

// FirstOf is a link's secret with which the first planner of a new company makes an account, good for a week.
func FirstOf(ctx context.Context, s *store.Store, id, name string) (secret string, err error) {
	ctx = store.Everything(ctx)
	if err := s.AddCompany(ctx, id, name); err != nil {
		return "", err
	}
	secret = NewSecret()
	return secret, s.Invite(ctx, store.Invitation{Hash: Hashed(secret), Company: id, Kind: "invited", Planner: true,
		MadeBy:  "Whoever runs this server",
		Expires: time.Now().AddDate(0, 0, 7)})
}

// Accept makes the account that a link is for, or sets its password.
func (k *Keeper) Accept(ctx context.Context, secret, name, password string) (*store.Person, error) {
	ctx = store.Everything(ctx)
	i, err := k.store.Invited(ctx, Hashed(secret))
	if err != nil {
		return nil, err
	}
	p := store.Person{ID: NewID(), Secrets: store.Secrets{Handle: []byte(NewSecret())}}
	if i.Kind == "reset" {
		name = i.Name
	}
	if p.Name, p.Key, err = Name(name); err != nil {
		return nil, &Unfit{"name", err}
	}
	if err := CheckPassword(password, p.Name); err != nil {
		return nil, &Unfit{"password", err}
	}
	if p.Password, err = HashPassword(ctx, password); err != nil {
		return nil, &Unfit{"password", err}
	}
	return k.store.Accept(ctx, i.Hash, p)
}

// Unfit says that a name or a password cannot be taken, and why.
type Unfit struct {
	Field string
	Why   error
}

func (u *Unfit) Error() string { return u.Why.Error() }

// Linked is the link for customers of a secret, once its password was given in this session.
func (k *Keeper) Linked(ctx context.Context, secret string) (*store.Link, error) {
	l, err := k.store.LinkOf(store.Everything(ctx), Hashed(secret))
	if err != nil {
		return nil, err
	}
	if l.Password != "" && k.Sessions.GetString(ctx, "link "+l.ID) != Hashed(l.Password) {
		return l, ErrNeedCode
	}
	return l, nil
}

// Unlock gives the password of a link.
func (k *Keeper) Unlock(ctx context.Context, secret, password string, from Visitor) error {
	l, err := k.store.LinkOf(store.Everything(ctx), Hashed(secret))
	if err != nil {
		return err
	}
	if !k.limits.may("link "+l.ID, from.Address, func() bool { return false }) {
		return ErrTooOften
	}
	right, err := isPassword(ctx, password, l.Password)
	if err != nil {
		return err
	}
	if !right {
		k.limits.failure("link "+l.ID, from.Address)
		return ErrWrong
	}
	k.Sessions.Put(ctx, "link "+l.ID, Hashed(l.Password))
	return nil
}
