package account

import (
	"context"
	"encoding/base64"
	"encoding/json"
	"errors"
	"fmt"
	"net"
	"net/url"
	"strings"

	"github.com/go-webauthn/webauthn/protocol"
	"github.com/go-webauthn/webauthn/webauthn"

	"wakefield.example/internal/store"
)

// keyholder is a person as passkeys know them.
type keyholder struct {
	*store.Person
	keys []webauthn.Credential
}

func (h *keyholder) WebAuthnID() []byte                         { return h.Handle }
func (h *keyholder) WebAuthnName() string                       { return h.Name }
func (h *keyholder) WebAuthnDisplayName() string                { return h.Name }
func (h *keyholder) WebAuthnCredentials() []webauthn.Credential { return h.keys }

// ErrNoPasskeys says that browsers know no passkeys for an address.
var ErrNoPasskeys = errors.New("browsers have passkeys for names, not for addresses of numbers")

// party is this server as passkeys know it, by the origin that a page has it from.
func party(origin string) (*webauthn.WebAuthn, error) {
	u, err := url.Parse(origin)
	if err != nil || u.Hostname() == "" || net.ParseIP(u.Hostname()) != nil {
		return nil, ErrNoPasskeys
	}
	return webauthn.New(&webauthn.Config{RPID: u.Hostname(), RPDisplayName: "Wakefield", RPOrigins: []string{origin},
		AuthenticatorSelection: protocol.AuthenticatorSelection{ResidentKey: protocol.ResidentKeyRequirementRequired,
			UserVerification: protocol.VerificationRequired}})
}

func (k *Keeper) keyholder(ctx context.Context, p *store.Person) (*keyholder, error) {
	list, err := k.store.Passkeys(store.Everything(ctx), p.ID)
	if err != nil {
		return nil, err
	}
	h := &keyholder{Person: p}
	for _, kept := range list {
		var c webauthn.Credential
		if err := json.Unmarshal(kept.Credential, &c); err != nil {
			return nil, err
		}
		h.keys = append(h.keys, c)
	}
	return h, nil
}

const ceremonyKey = "ceremony"

// keep remembers in the session what was asked of a passkey; it is good for one answer.
func (k *Keeper) keepCeremony(ctx context.Context, data *webauthn.SessionData) error {
	text, err := json.Marshal(data)
	if err == nil {
		k.Sessions.Put(ctx, ceremonyKey, string(text))
	}
	return err
}

func (k *Keeper) ceremony(ctx context.Context) (data webauthn.SessionData, err error) {
	text := k.Sessions.PopString(ctx, ceremonyKey)
	if text == "" {
		return data, ErrWrong
	}
	return data, json.Unmarshal([]byte(text), &data)
}

// NewPasskey is what a browser is to be asked to make a passkey.
func (k *Keeper) NewPasskey(ctx context.Context, w *Who, origin string) (*protocol.CredentialCreation, error) {
	rp, err := party(origin)
	if err != nil {
		return nil, err
	}
	p, err := k.store.Person(ctx, w.ID)
	if err != nil {
		return nil, err
	}
	h, err := k.keyholder(ctx, p)
	if err != nil {
		return nil, err
	}
	asked, data, err := rp.BeginRegistration(h, webauthn.WithExclusions(webauthn.Credentials(h.keys).CredentialDescriptors()))
	if err != nil {
		return nil, err
	}
	return asked, k.keepCeremony(ctx, data)
}

// AddPasskey keeps the passkey that a browser made.
func (k *Keeper) AddPasskey(ctx context.Context, w *Who, origin, name string, answer []byte) error {
	rp, err := party(origin)
	if err != nil {
		return err
	}
	data, err := k.ceremony(ctx)
	if err != nil {
		return err
	}
	parsed, err := protocol.ParseCredentialCreationResponseBytes(answer)
	if err != nil {
		return fmt.Errorf("%w: %w", ErrWrong, err)
	}
	p, err := k.store.Person(ctx, w.ID)
	if err != nil {
		return err
	}
	h, err := k.keyholder(ctx, p)
	if err != nil {
		return err
	}
	c, err := rp.CreateCredential(h, data, parsed)
	if err != nil {
		return fmt.Errorf("%w: %w", ErrWrong, err)
	}
	text, err := json.Marshal(c)
	if err != nil {
		return err
	}
	if name = strings.TrimSpace(name); name == "" {
		name = "Passkey"
	}
	return k.store.AddPasskey(ctx, w.ID, store.Passkey{ID: base64.RawURLEncoding.EncodeToString(c.ID), Name: name, Credential: text})
}

// AskPasskey is what a browser is to be asked to sign in with a passkey, whoever's it is.
func (k *Keeper) AskPasskey(ctx context.Context, origin string) (*protocol.CredentialAssertion, error) {
	rp, err := party(origin)
	if err != nil {
		return nil, err
	}
	asked, data, err := rp.BeginDiscoverableLogin(webauthn.WithUserVerification(protocol.VerificationRequired))
	if err != nil {
		return nil, err
	}
	return asked, k.keepCeremony(ctx, data)
}

// ByPasskey is who showed a passkey. The error is ErrWrong for one that nobody has.
func (k *Keeper) ByPasskey(ctx context.Context, origin string, answer []byte) (*store.Person, error) {
	rp, err := party(origin)
	if err != nil {
		return nil, err
	}
	ctx = store.Everything(ctx)
	data, err := k.ceremony(ctx)
	if err != nil {
		return nil, err
	}
	parsed, err := protocol.ParseCredentialRequestResponseBytes(answer)
	if err != nil {
		return nil, fmt.Errorf("%w: %w", ErrWrong, err)
	}
	user, c, err := rp.ValidatePasskeyLogin(func(_, handle []byte) (webauthn.User, error) {
		p, err := k.store.PersonOfHandle(ctx, handle)
		if err != nil {
			return nil, err
		}
		return k.keyholder(ctx, p)
	}, data, parsed)
	switch {
	case err != nil:
		return nil, fmt.Errorf("%w: %w", ErrWrong, err)
	case c.Authenticator.CloneWarning:
		return nil, fmt.Errorf("%w: the passkey was copied", ErrWrong)
	}
	text, err := json.Marshal(c)
	if err != nil {
		return nil, err
	}
	return user.(*keyholder).Person, k.store.UsedPasskey(ctx, base64.RawURLEncoding.EncodeToString(c.ID), text)
}
