package account

import (
	"bytes"
	"context"
	"crypto/rand"
	"crypto/subtle"
	"encoding/base64"
	"image/png"
	"strings"
	"time"

	"github.com/pquerna/otp"
	"github.com/pquerna/otp/totp"

	"wakefield.example/internal/store"
)

// codeSeconds is how long a one-time code is good (RFC 6238).
const codeSeconds = 30

// NewCode is a secret of one-time codes that is not in use yet.
type NewCode struct {
	Secret string `json:"secret" doc:"To type into an app that makes codes"`
	URL    string `json:"url" doc:"The same as an otpauth address"`
	Image  string `json:"image" doc:"The same as a picture to scan: a data address of a PNG"`
}

// MakeCode makes a secret of one-time codes for a person.
func MakeCode(name string) (*NewCode, error) {
	key, err := totp.Generate(totp.GenerateOpts{Issuer: "Wakefield", AccountName: name})
	if err != nil {
		return nil, err
	}
	img, err := key.Image(220, 220)
	if err != nil {
		return nil, err
	}
	var data bytes.Buffer
	if err := png.Encode(&data, img); err != nil {
		return nil, err
	}
	return &NewCode{key.Secret(), key.URL(), "data:image/png;base64," + base64.StdEncoding.EncodeToString(data.Bytes())}, nil
}

// stepOf is the time step of a code, 0 for a wrong one. A clock may be off by one step.
func stepOf(code, secret string, at time.Time) int64 {
	code = strings.Join(strings.Fields(code), "")
	for _, off := range []int64{0, -1, 1} {
		step := at.Unix()/codeSeconds + off
		want, err := totp.GenerateCodeCustom(secret, time.Unix(step*codeSeconds, 0),
			totp.ValidateOpts{Period: codeSeconds, Digits: otp.DigitsSix})
		if err == nil && subtle.ConstantTimeCompare([]byte(want), []byte(code)) == 1 {
			return step
		}
	}
	return 0
}

// recoveryCodes are how many codes there are for when the device is lost.
const recoveryCodes = 10

// NewRecovery makes them, with what is kept of them.
func NewRecovery() (codes, hashes []string) {
	for range recoveryCodes {
		text := strings.ToLower(rand.Text()[:16])
		code := text[:4] + "-" + text[4:8] + "-" + text[8:12] + "-" + text[12:]
		codes, hashes = append(codes, code), append(hashes, Hashed(plainCode(code)))
	}
	return codes, hashes
}

// plainCode is a code without what people type between its letters.
func plainCode(code string) string {
	return strings.Map(func(r rune) rune {
		if r == '-' || r == ' ' {
			return -1
		}
		return r
	}, strings.ToLower(code))
}

// takesCode takes a one-time code, or one for when the device is lost; each is good once.
func (k *Keeper) takesCode(ctx context.Context, p *store.Person, code string) (bool, error) {
	if step := stepOf(code, p.Code, time.Now()); step != 0 {
		return k.store.UseCode(ctx, p.ID, step)
	}
	if plain := plainCode(code); len(plain) == 16 {
		return k.store.UseRecovery(ctx, p.ID, Hashed(plain))
	}
	return false, nil
}

// IsCode tells whether a code is one of a secret now, before the secret is in use.
func IsCode(code, secret string) bool { return stepOf(code, secret, time.Now()) != 0 }
