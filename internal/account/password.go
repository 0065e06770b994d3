package account

import (
	"context"
	"errors"
	"fmt"
	"strings"
	"sync"
	"unicode/utf8"

	"github.com/alexedwards/argon2id"
	"github.com/trustelem/zxcvbn/frequency"
	"golang.org/x/sync/semaphore"
	"golang.org/x/text/secure/precis"
)

// Lengths of passwords, in characters.
const (
	ShortestPassword = 12
	LongestPassword  = 128
)

// hashing is how passwords are kept: Argon2id with 46 MiB, one pass and one lane.
var hashing = &argon2id.Params{Memory: 46 << 10, Iterations: 1, Parallelism: 1, SaltLength: 16, KeyLength: 32}

// hashesAtOnce bounds what hashing takes of memory and cores: the others wait.
var hashesAtOnce = semaphore.NewWeighted(2)

// common are the commonest passwords, in small letters.
var common = sync.OnceValue(func() map[string]bool {
	set := make(map[string]bool)
	for _, word := range frequency.FrequencyLists["passwords"] {
		set[word] = true
	}
	return set
})

// CheckPassword refuses a new password that is short, too long, common, or the person's name. What it is made of does not matter.
func CheckPassword(password, name string) error {
	n := utf8.RuneCountInString(password)
	switch {
	case !utf8.ValidString(password):
		return errors.New("the password is not UTF-8")
	case n < ShortestPassword:
		return fmt.Errorf("the password has %d characters; at least %d are needed. A few words in a row are good", n, ShortestPassword)
	case n > LongestPassword:
		return fmt.Errorf("the password has more than %d characters", LongestPassword)
	}
	small := strings.ToLower(password)
	compact := strings.Join(strings.Fields(small), "")
	plain := strings.TrimRight(compact, "0123456789!?.")
	switch {
	case common()[small], common()[compact], common()[plain]:
		return errors.New("this password is one of the commonest there are, and would be among the first that are tried")
	case repeated(compact):
		return errors.New("the password is one short text again and again")
	case name != "" && strings.Contains(compact, strings.Join(strings.Fields(strings.ToLower(name)), "")) && len(compact)-len(name) < 6:
		return errors.New("the password is the name with little more")
	}
	return nil
}

// repeated tells whether a text is one of at most six bytes again and again, or a common password is.
func repeated(s string) bool {
	for n := 1; n <= len(s)/2; n++ {
		if len(s)%n == 0 && strings.Repeat(s[:n], len(s)/n) == s && (n <= 6 || common()[s[:n]]) {
			return true
		}
	}
	return false
}

// HashPassword is a password as it is kept.
func HashPassword(ctx context.Context, password string) (string, error) {
	password, err := precis.OpaqueString.String(password)
	if err != nil {
		return "", errors.New("the password has a character in it that passwords may not have")
	}
	if err := hashesAtOnce.Acquire(ctx, 1); err != nil {
		return "", err
	}
	defer hashesAtOnce.Release(1)
	return argon2id.CreateHash(password, hashing)
}

// nobodys is the hash of a password that nobody has, so that a wrong name takes as long as a wrong password.
var nobodys = sync.OnceValue(func() string {
	hash, _ := argon2id.CreateHash(NewSecret(), hashing)
	return hash
})

// isPassword tells whether a password is the one of a hash; with an empty hash it takes as long and is not.
func isPassword(ctx context.Context, password, hash string) (bool, error) {
	if len(password) > 4*LongestPassword {
		password = "" // nobody has it
	}
	password, err := precis.OpaqueString.String(password)
	if err != nil {
		password = ""
	}
	none := hash == "" || password == ""
	if none {
		hash = nobodys()
	}
	if err := hashesAtOnce.Acquire(ctx, 1); err != nil {
		return false, err
	}
	defer hashesAtOnce.Release(1)
	same, err := argon2id.ComparePasswordAndHash(password, hash)
	return same && !none, err
}
