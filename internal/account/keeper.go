package account

import (
	"context"
	"errors"
	"log/slog"
	"sync"
	"sync/atomic"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/hashicorp/golang-lru/v2/expirable"

	"wakefield.example/internal/store"
)

// Options are how accounts are kept. The zero value works.
type Options struct {
	Idle    time.Duration // after which without use a session ends; 0 for 30 minutes
	Longest time.Duration // after which it ends however it is used; 0 for 12 hours
	Secure  bool          // whether browsers come over TLS alone
}

// Keeper knows who is signed in.
type Keeper struct {
	store    *store.Store
	log      *slog.Logger
	options  Options
	Sessions *scs.SessionManager

	seats  *expirable.LRU[string, *sitting] // by seat
	tokens *expirable.LRU[string, *Who]     // by hash
	owners *expirable.LRU[string, owner]    // by plan or site; they never change
	deaf   atomic.Bool                      // whether nobody would tell of changes: then nothing is remembered

	mutex   sync.Mutex
	streams map[*stream]bool
	limits  limits
}

// sitting is who sits at a seat, and when they did something.
type sitting struct {
	who  Who
	used atomic.Int64 // seconds since 1970
	kept atomic.Int64 // what of it is in the database
}

type owner struct{ company, site string }

// How long what is known of people is believed without a word from the database, which tells of every change.
const believed = 5 * time.Minute

// New is a keeper over a store, until the context ends.
func New(ctx context.Context, s *store.Store, log *slog.Logger, o Options) (*Keeper, error) {
	if o.Idle <= 0 {
		o.Idle = 30 * time.Minute
	}
	if o.Longest <= 0 {
		o.Longest = 12 * time.Hour
	}
	kept, err := s.Sessions(ctx)
	if err != nil {
		return nil, err
	}
	k := &Keeper{store: s, log: log, options: o, streams: make(map[*stream]bool), limits: newLimits(),
		seats:  expirable.NewLRU[string, *sitting](10_000, nil, believed),
		tokens: expirable.NewLRU[string, *Who](2_000, nil, believed),
		owners: expirable.NewLRU[string, owner](50_000, nil, 0)}
	k.Sessions = scs.New()
	k.Sessions.Store = &remembering{Store: kept, lru: expirable.NewLRU[string, session](10_000, nil, 20*time.Second)}
	k.Sessions.Lifetime = o.Longest
	k.Sessions.HashTokenInStore = true
	k.Sessions.Cookie.Name = "wakefield"
	k.Sessions.Cookie.SameSite = 2 // lax: a link from elsewhere opens a page, and changes nothing
	if o.Secure {
		k.Sessions.Cookie.Name, k.Sessions.Cookie.Secure = "__Host-wakefield", true
	}
	return k, nil
}

const seatKey = "seat"

// OfSession is who is signed in in the session of a context; nil for nobody. What is only listened to is no use of it.
func (k *Keeper) OfSession(ctx context.Context, isUse bool) (*Who, error) {
	seat := k.Sessions.GetString(ctx, seatKey)
	if seat == "" {
		return nil, nil
	}
	now := time.Now()
	s, known := k.seats.Get(seat)
	if !known || k.deaf.Load() || now.After(s.who.Ends) || now.Unix()-s.used.Load() > int64(k.options.Idle/time.Second) {
		p, seen, ends, err := k.store.Seated(store.Everything(ctx), seat, now.Add(-k.options.Idle))
		if errors.Is(err, store.ErrNoPerson) {
			k.seats.Remove(seat)
			return nil, nil
		}
		if err != nil {
			return nil, err
		}
		s = &sitting{who: *whoOf(p)}
		s.who.Seat, s.who.Ends = seat, ends
		s.used.Store(seen.Unix())
		s.kept.Store(seen.Unix())
		k.seats.Add(seat, s)
	}
	if isUse {
		s.used.Store(now.Unix())
		k.keepUse(ctx, seat, s)
	}
	return &s.who, nil
}

// keepUse writes down that a seat is in use, every tenth of the time after which it would end, while the answer goes on.
func (k *Keeper) keepUse(ctx context.Context, seat string, s *sitting) {
	used, kept := s.used.Load(), s.kept.Load()
	if used-kept < int64(k.options.Idle/time.Second)/10 || !s.kept.CompareAndSwap(kept, used) {
		return
	}
	go func() {
		ctx, cancel := context.WithTimeout(store.Everything(context.WithoutCancel(ctx)), store.Patience)
		defer cancel()
		if err := k.store.Seen(ctx, seat); err != nil {
			s.kept.Store(kept)
		}
	}()
}

func whoOf(p *store.Person) *Who {
	w := &Who{ID: p.ID, Name: p.Name, Company: p.Company, Planner: p.Planner,
		SetUp: p.AsksTwo && p.Code == "" && p.Passkeys == 0, Roles: make(map[string]string, len(p.Roles))}
	for _, r := range p.Roles {
		w.Roles[r.Site] = r.Role
	}
	return w
}

// OfToken is who made a token, as far as it goes; nil for one that is none.
func (k *Keeper) OfToken(ctx context.Context, secret string) (*Who, error) {
	hash := Hashed(secret)
	if w, known := k.tokens.Get(hash); known && !k.deaf.Load() && time.Now().Before(w.Ends) {
		return w, nil
	}
	ctx = store.Everything(ctx)
	t, err := k.store.TokenOf(ctx, hash)
	if errors.Is(err, store.ErrNoLink) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	p, err := k.store.Person(ctx, t.Person)
	if errors.Is(err, store.ErrNoPerson) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	w := whoOf(p)
	w.SetUp = false // the token was made by somebody who could
	w.Token, w.ReadOnly, w.Only, w.Ends = t.ID, !t.Writes, t.Sites, t.Expires
	k.tokens.Add(hash, w)
	if t.Used == nil || time.Since(*t.Used) > time.Minute {
		err = k.store.UsedToken(ctx, t.ID)
	}
	return w, err
}

// Owner is whose a site is, and which site a plan is of. It fails with store.ErrNotFound.
func (k *Keeper) Owner(ctx context.Context, id string, isPlan bool) (company, site string, err error) {
	key := "site " + id
	if isPlan {
		key = "plan " + id
	}
	if o, known := k.owners.Get(key); known {
		return o.company, o.site, nil
	}
	company, site, err = k.store.Owner(ctx, id, isPlan)
	if err == nil {
		k.owners.Add(key, owner{company, site})
	}
	return company, site, err
}

// Changed forgets what is known of a person, as something of them changed, and ends what they listen to.
func (k *Keeper) Changed(person string) {
	for _, seat := range k.seats.Keys() {
		if s, ok := k.seats.Peek(seat); ok && s.who.ID == person {
			k.seats.Remove(seat)
		}
	}
	for _, hash := range k.tokens.Keys() {
		if w, ok := k.tokens.Peek(hash); ok && w.ID == person {
			k.tokens.Remove(hash)
		}
	}
	k.endStreams(func(s *stream) bool { return s.who.ID == person })
}

// Missed forgets everything, as changes may have been missed; a restored database has other people.
func (k *Keeper) Missed() {
	k.seats.Purge()
	k.tokens.Purge()
	k.owners.Purge()
	k.deaf.Store(false)
	k.endStreams(func(*stream) bool { return true })
}

// Deaf says that nobody tells of changes at present.
func (k *Keeper) Deaf() { k.deaf.Store(true) }
