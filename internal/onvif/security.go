package onvif

import (
	"crypto/sha1" //nolint:gosec // WS-UsernameToken Profile 1.0 digests with it
	"crypto/subtle"
	"encoding/base64"
	"time"
)

// createdLayout is how a token says when it was made.
const createdLayout = "2006-01-02T15:04:05.000Z"

// UsernameToken is the header by which somebody shows that he knows a password, by WS-UsernameToken Profile 1.0: the digest is
// base64(SHA-1(nonce + created + password)). at is by the device's clock, as it refuses what is old.
func UsernameToken(user, password string, nonce []byte, at time.Time) *Element {
	created := at.UTC().Format(createdLayout)
	return E("wsse:Security", Attr{"s:mustUnderstand", "true"}, E("wsse:UsernameToken",
		E("wsse:Username", user),
		E("wsse:Password", Attr{"Type",
			"http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-username-token-profile-1.0#PasswordDigest"},
			digest(nonce, created, password)),
		E("wsse:Nonce", Attr{"EncodingType",
			"http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-soap-message-security-1.0#Base64Binary"},
			base64.StdEncoding.EncodeToString(nonce)),
		E("wsu:Created", created)))
}

func digest(nonce []byte, created, password string) string {
	h := sha1.New() //nolint:gosec // as the profile says
	h.Write(nonce)
	h.Write([]byte(created))
	h.Write([]byte(password))
	return base64.StdEncoding.EncodeToString(h.Sum(nil))
}

// Token is what a message shows of who sends it.
type Token struct {
	User    string
	Nonce   string // as it came
	Created time.Time
	said    string
	created string
	nonce   []byte
}

// TokenOf reads the token of a header; nil where it has none that can be read.
func TokenOf(header *Element) *Token {
	t := At(header, "Security/UsernameToken")
	if t == nil {
		return nil
	}
	out := &Token{User: Text(t, "Username"), said: Text(t, "Password"), created: Text(t, "Created"), Nonce: Text(t, "Nonce")}
	var err error
	if out.nonce, err = base64.StdEncoding.DecodeString(out.Nonce); err != nil {
		return nil
	}
	if out.Created, err = time.Parse(time.RFC3339, out.created); err != nil {
		return nil
	}
	return out
}

// Proves tells whether whoever made the token knows the password.
func (t *Token) Proves(password string) bool {
	return subtle.ConstantTimeCompare([]byte(t.said), []byte(digest(t.nonce, t.created, password))) == 1
}
