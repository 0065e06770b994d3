package server

import (
	"sync"
	"time"

	"github.com/hashicorp/golang-lru/v2/simplelru"
)

// Bounds are how much a [Cache] remembers.
type Bounds[V any] struct {
	Entries int                      // at most, at least 1
	Bytes   int                      // that all may take together, of which the newest is kept whatever it takes; 0 for no bound
	Size    func(V) int              // about what one takes, in bytes; needed with Bytes
	Idle    time.Duration            // after which all is dropped if nobody asked; 0 for never
	Told    func(bytes, entries int) // after each change, may be nil
}

// Cache remembers what was asked for last, within bounds. Several may use it at once.
type Cache[K comparable, V any] struct {
	bounds Bounds[V]

	mutex sync.Mutex
	last  *simplelru.LRU[K, V]
	bytes int
	idle  *time.Timer
}

// NewCache returns an empty cache. It panics where the bounds leave no room for anything.
func NewCache[K comparable, V any](b Bounds[V]) *Cache[K, V] {
	c := &Cache[K, V]{bounds: b}
	last, err := simplelru.NewLRU(b.Entries, func(_ K, v V) { c.bytes -= c.size(v) })
	if err != nil {
		panic(err)
	}
	c.last = last
	return c
}

func (c *Cache[K, V]) size(v V) int {
	if c.bounds.Size == nil {
		return 0
	}
	return c.bounds.Size(v)
}

// asked puts off the time at which all is dropped.
func (c *Cache[K, V]) asked() {
	switch {
	case c.bounds.Idle == 0:
	case c.idle == nil:
		c.idle = time.AfterFunc(c.bounds.Idle, c.Forget)
	default:
		c.idle.Reset(c.bounds.Idle)
	}
}

// Get returns what is remembered under a key.
func (c *Cache[K, V]) Get(key K) (V, bool) {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	c.asked()
	return c.last.Get(key)
}

// Peek is Get for whoever only looks whether it is there: what is not used otherwise goes first all the same.
func (c *Cache[K, V]) Peek(key K) (V, bool) {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	return c.last.Peek(key)
}

// Newest returns what was asked for last of what has a key like this.
func (c *Cache[K, V]) Newest(like func(K) bool) (v V, ok bool) {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	keys := c.last.Keys()
	for i := len(keys) - 1; i >= 0; i-- {
		if like(keys[i]) {
			return c.last.Peek(keys[i])
		}
	}
	return v, false
}

// Put remembers something, in place of what was there.
func (c *Cache[K, V]) Put(key K, v V) { c.PutUnless(key, v, func(V) bool { return false }) }

// PutUnless is Put unless something holds for what is there.
func (c *Cache[K, V]) PutUnless(key K, v V, holds func(old V) bool) {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	c.asked()
	if old, ok := c.last.Peek(key); ok {
		if holds(old) {
			return
		}
		c.bytes -= c.size(old)
	}
	c.bytes += c.size(v)
	c.last.Add(key, v)
	for c.bounds.Bytes > 0 && c.bytes > c.bounds.Bytes && c.last.Len() > 1 {
		c.last.RemoveOldest()
	}
	c.tell()
}

// Forget drops all there is.
func (c *Cache[K, V]) Forget() {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	c.last.Purge()
	c.bytes = 0
	c.tell()
}

func (c *Cache[K, V]) tell() {
	if c.bounds.Told != nil {
		c.bounds.Told(c.bytes, c.last.Len())
	}
}
