package account

import (
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
	return limits{httprate.NewRateLimiter(pairFailures, pairWindow), httprate.NewRateLimiter(addressFailures, addressWindow),
		httprate.NewRateLimiter(nameFailures, nameWindow)}
}

// open tells whether somebody may try.
func isOpen(l *httprate.RateLimiter, key string) bool {
	may, _, err := l.Status(key)
	return err != nil || may
}

func failed(l *httprate.RateLimiter, key string, window time.Duration) {
	_ = l.Counter().Increment(key, time.Now().UTC().Truncate(window))
}

// may tells whether a password may be tried. Of a name that others try in vain, who signed in from their address before
// is not kept out.
func (l limits) may(key, address string, familiar func() bool) bool {
	return isOpen(l.address, address) && isOpen(l.pair, key+" "+address) && (isOpen(l.name, key) || familiar())
}

func (l limits) failure(key, address string) {
	failed(l.pair, key+" "+address, pairWindow)
	failed(l.address, address, addressWindow)
	failed(l.name, key, nameWindow)
}
