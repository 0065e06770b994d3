package account

import (
	"bytes"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/hashicorp/golang-lru/v2/expirable"
)

// remembering keeps what cookies lead to at hand for a moment, so that not every request asks the database. Whether a session
// is still good is asked of its seat, of which every server hears at once.
type remembering struct {
	scs.Store
	lru *expirable.LRU[string, session]
}

type session struct {
	data    []byte
	expires time.Time // zero for not known
}

func (r *remembering) Find(token string) ([]byte, bool, error) {
	if s, known := r.lru.Get(token); known && (s.expires.IsZero() || time.Now().Before(s.expires)) {
		return s.data, true, nil
	}
	data, found, err := r.Store.Find(token)
	if err == nil && found {
		r.lru.Add(token, session{data: data})
	}
	return data, found, err
}

func (r *remembering) Commit(token string, data []byte, expires time.Time) error {
	if s, known := r.lru.Get(token); known && bytes.Equal(s.data, data) && s.expires.Equal(expires) {
		return nil
	}
	if err := r.Store.Commit(token, data, expires); err != nil {
		return err
	}
	r.lru.Add(token, session{data, expires})
	return nil
}

func (r *remembering) Delete(token string) error {
	r.lru.Remove(token)
	return r.Store.Delete(token)
}
