package device

import (
	"crypto/aes"
	"crypto/cipher"
	"crypto/rand"
	"encoding/base64"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strings"
)

// Seal keeps passwords of devices where the key is not: AES-256 in Galois/Counter Mode, bound to what they are of.
type Seal struct{ aead cipher.AEAD }

// KeyBytes is how long a key is.
const KeyBytes = 32

// NewSeal is a seal by a key of KeyBytes bytes.
func NewSeal(key []byte) (*Seal, error) {
	if len(key) != KeyBytes {
		return nil, fmt.Errorf("the key of devices has %d bytes; it is of %d", len(key), KeyBytes)
	}
	b, err := aes.NewCipher(key)
	if err != nil {
		return nil, err
	}
	aead, err := cipher.NewGCMWithRandomNonce(b)
	return &Seal{aead}, err
}

// ReadKey reads a key as it is written: base64 of its bytes.
func ReadKey(text string) ([]byte, error) {
	key, err := base64.StdEncoding.DecodeString(strings.TrimSpace(text))
	if err != nil || len(key) != KeyBytes {
		return nil, fmt.Errorf("the key of devices is base64 of %d bytes; `head -c %d /dev/urandom | base64` makes one", KeyBytes, KeyBytes)
	}
	return key, nil
}

// KeyFile reads the key in a file that nobody else may read. Where there is none, it is made with a new key.
func KeyFile(path string) ([]byte, error) {
	info, err := os.Stat(path)
	if errors.Is(err, os.ErrNotExist) {
		if err = makeKey(path); err == nil {
			info, err = os.Stat(path)
		}
	}
	if err != nil {
		return nil, err
	}
	if info.Mode().Perm()&0o077 != 0 {
		return nil, fmt.Errorf("others may read %s, which has the key of devices' passwords: chmod 600 %s", path, path)
	}
	data, err := os.ReadFile(path)
	if err != nil {
		return nil, err
	}
	key, err := ReadKey(string(data))
	if err != nil {
		return nil, fmt.Errorf("%s: %w", path, err)
	}
	return key, nil
}

// Seal seals a password of a device of a site.
func (s *Seal) Seal(password, site, id string) []byte {
	return s.aead.Seal(nil, nil, []byte(password), []byte(site+"\x00"+id))
}

// Open opens what was sealed for the device.
func (s *Seal) Open(sealed []byte, site, id string) (string, error) {
	if len(sealed) == 0 {
		return "", nil
	}
	plain, err := s.aead.Open(nil, nil, sealed, []byte(site+"\x00"+id))
	if err != nil {
		return "", &Error{Closed, "Its password was kept with another key than this server has. Type it again."}
	}
	return string(plain), nil
}

// makeKey writes a key where there is none. Of several servers that begin at once one makes it, whole, and the others find it.
func makeKey(path string) error {
	if err := os.MkdirAll(filepath.Dir(path), 0o700); err != nil {
		return err
	}
	f, err := os.CreateTemp(filepath.Dir(path), ".key-*") // nobody else may read it
	if err != nil {
		return err
	}
	defer os.Remove(f.Name())
	key := make([]byte, KeyBytes)
	rand.Read(key)
	_, err = f.WriteString(base64.StdEncoding.EncodeToString(key) + "\n")
	if err = errors.Join(err, f.Close()); err != nil {
		return err
	}
	if err = os.Link(f.Name(), path); errors.Is(err, os.ErrExist) {
		return nil
	}
	return err
}
