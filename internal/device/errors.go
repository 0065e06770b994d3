package device

import (
	"context"
	"crypto/tls"
	"errors"
	"fmt"
	"net"
	"strings"
	"syscall"

	"wakefield.example/internal/onvif"
)

// Trouble is why a device could not be spoken with.
type Trouble string

// Kinds of trouble.
const (
	Gone        Trouble = "gone"        // nothing answers there
	Late        Trouble = "late"        // it takes too long
	Stranger    Trouble = "stranger"    // what answers speaks otherwise
	Closed      Trouble = "closed"      // user or password are not accepted
	Certificate Trouble = "certificate" // its certificate is not trusted
	Elsewhere   Trouble = "elsewhere"   // it sends us to another address
	Refused     Trouble = "refused"     // it refuses what is asked, in its own words
	Forbidden   Trouble = "forbidden"   // we do not speak with that address
)

// Error is a trouble in words.
type Error struct {
	Trouble Trouble
	Words   string
}

func (e *Error) Error() string { return e.Words }

// CertificateError is a certificate that nobody vouches for. Whoever has seen the fingerprint at the device may accept it.
type CertificateError struct {
	Fingerprint string // SHA-256, in hexadecimal
	Why         string
}

func (e *CertificateError) Error() string {
	return fmt.Sprintf("Its certificate is not trusted: %s. Its SHA-256 fingerprint is %s.", e.Why, e.Fingerprint)
}

// troubleOf says what went wrong on the way.
func troubleOf(err error) error {
	var certificate *CertificateError
	var known *Error
	var fault *onvif.Fault
	var notTLS tls.RecordHeaderError
	var net net.Error
	switch {
	case err == nil:
		return nil
	case errors.As(err, &certificate):
		return certificate
	case errors.As(err, &known):
		return known
	case errors.As(err, &fault):
		return faultTrouble(fault)
	case errors.As(err, &notTLS) || strings.Contains(err.Error(), "server gave HTTP response to HTTPS client"):
		return &Error{Stranger, "It does not speak TLS at that port. Try http:// before the address."}
	case errors.Is(err, context.DeadlineExceeded), errors.As(err, &net) && net.Timeout():
		return &Error{Late, "It did not answer in time."}
	case errors.Is(err, context.Canceled):
		return err
	case errors.Is(err, syscall.ECONNREFUSED):
		return &Error{Gone, "Nothing listens at that port."}
	case errors.Is(err, syscall.EHOSTUNREACH), errors.Is(err, syscall.ENETUNREACH):
		return &Error{Gone, "No way leads to that address from here."}
	}
	return &Error{Gone, "The connection broke: " + lastOf(err) + "."}
}

// lastOf is the innermost reason of an error: what wraps it names our own addresses.
func lastOf(err error) string {
	for {
		inner := errors.Unwrap(err)
		if inner == nil {
			return err.Error()
		}
		err = inner
	}
}

func faultTrouble(f *onvif.Fault) error {
	if f.Has("NotAuthorized") || f.Has("FailedAuthentication") {
		return &Error{Closed, "It does not accept the user or the password."}
	}
	return &Error{Refused, "It says: " + f.Error() + "."}
}

// broken tells whether asking again may help.
func broken(err error) bool {
	var known *Error
	return errors.As(err, &known) && known.Trouble == Gone && strings.HasPrefix(known.Words, "The connection broke")
}
