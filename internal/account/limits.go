package account

import (
	"net/http"
	"time"

	"github.com/go-chi/httprate"
)

// limits slow down who tries passwords. They count failures, in this server's memory.
type limits struct {
	pair    *httprate.RateLimiter // of a name from an address
	address *httprate.RateLimiter // of all names from an address
	name    *httprate.RateLimiter // of a name from addresses that it was never signed in from
}

// How many failures there may be in how long.
const (
	pairFailures, pairWindow       = 10, 15 * time.Minute
	addressFailures, addressWindow = 60, 15 * time.Minute
	nameFailures, nameWindow       = 60, time.Hour
)

func newLimits() limits {
	limiter := func(failures int, window time.Duration) *httprate.RateLimiter {
		return httprate.NewRateLimiter(failures, window, httprate.WithResponseHeaders(httprate.ResponseHeaders{}))
	}
	return limits{limiter(pairFailures, pairWindow), limiter(addressFailures, addressWindow), limiter(nameFailures, nameWindow)}
}

// isOpen tells whether there were fewer failures than there may be.
func isOpen(l *httprate.RateLimiter, key string, most int) bool {
	_, rate, err := l.Status(key)
	return err != nil || rate < float64(most)-0.5
}

// may tells whether a password may be tried. Of a name that others try in vain, who signed in from their address before
// is not kept out.
func (l limits) may(key, address string, familiar func() bool) bool {
	return isOpen(l.address, address, addressFailures) && isOpen(l.pair, key+" "+address, pairFailures) &&
		(isOpen(l.name, key, nameFailures) || familiar())
}

func (l limits) failure(key, address string) {
	count := func(l *httprate.RateLimiter, key string) { l.OnLimit(nil, &http.Request{}, key) }
	count(l.pair, key+" "+address)
	count(l.address, address)
	count(l.name, key)
}
