package main

import (
	"context"
	"crypto/tls"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"os"
	"strings"
	"sync"
	"time"

	"github.com/realclientip/realclientip-go"

	"wakefield.example/core/plan"
	"wakefield.example/internal/account"
	"wakefield.example/internal/api"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

// accounts are the options of a server with accounts.
func (l listening) accounts(log *slog.Logger) (api.Options, error) {
	proxies, err := realclientip.AddressesAndRangesToIPNets(l.TrustedProxy...)
	if err != nil {
		return api.Options{}, fmt.Errorf("--trusted-proxy: %w", err)
	}
	if l.Idle < time.Minute || l.Longest < l.Idle {
		return api.Options{}, errors.New("--idle is a minute at least, and --longest not less than it")
	}
	return api.Options{Log: log, Accounts: &server.Accounts{Proxies: proxies,
		Options: account.Options{Idle: l.Idle, Longest: l.Longest, Secure: l.TLSCert != "" || len(proxies) > 0}}}, nil
}

// mayListen refuses to be reached by others than this machine without accounts, or with passwords in the clear.
func (l listening) mayListen(address net.Addr, accounts bool) error {
	if a, ok := address.(*net.TCPAddr); !ok || a.IP.IsLoopback() {
		return nil
	}
	switch {
	case !accounts:
		return fmt.Errorf("%s is reached by other machines, and without accounts whoever reaches it may do everything: leave out --open (of demo, add --accounts), or listen on 127.0.0.1", address)
	case l.TLSCert == "" && len(l.TrustedProxy) == 0:
		return fmt.Errorf("%s is reached by other machines, and passwords would go there in the clear: give --tls-cert and --tls-key, or --trusted-proxy with the address of the proxy that has TLS", address)
	}
	return nil
}

// greet prints how to come in for the first time.
func greet(ctx context.Context, s *store.Store, o api.Options, address string) error {
	if o.Accounts == nil {
		return nil
	}
	for _, p := range o.Sample {
		fmt.Printf("  %s (%s), password: %s\n", p.Name, p.What, p.Password)
	}
	secret, err := account.First(ctx, s)
	if err != nil {
		return err
	}
	if secret != "" {
		fmt.Printf("  Nobody has an account yet. Within an hour, once, the first planner makes one here:\n\n  %s/invitation#%s\n\n", address, secret)
	}
	return nil
}

// companyCommand makes a company beside those that are there.
type companyCommand struct {
	chosen
	Name string `arg:"" help:"Name of the company, as it stands at the head of its papers."`
}

func (c *companyCommand) Run() error {
	return c.withStore(func(ctx context.Context, s *store.Store) error {
		name := strings.TrimSpace(c.Name)
		id := plan.Slug(name)
		if id == "" || len(name) > 200 {
			return errors.New("a company has a name of 1 to 200 letters")
		}
		secret, err := account.FirstOf(ctx, s, id, name)
		if errors.Is(err, store.ErrNameTaken) {
			return fmt.Errorf("there is a company %s already", id)
		}
		if err == nil {
			fmt.Printf("%s is there. Within a week, once, its first planner makes an account at the server's address, with this behind it:\n\n  /invitation#%s\n", name, secret)
		}
		return err
	})
}

// renewed is the certificate of two files, read anew when one of them changed. While they do not fit together, as one is
// being replaced, the one before goes on.
func renewed(cert, key string) func(*tls.ClientHelloInfo) (*tls.Certificate, error) {
	var mutex sync.Mutex
	var have *tls.Certificate
	var of [2]time.Time
	return func(*tls.ClientHelloInfo) (*tls.Certificate, error) {
		mutex.Lock()
		defer mutex.Unlock()
		var now [2]time.Time
		for i, name := range []string{cert, key} {
			if info, err := os.Stat(name); err == nil {
				now[i] = info.ModTime()
			}
		}
		if have != nil && now == of {
			return have, nil
		}
		pair, err := tls.LoadX509KeyPair(cert, key)
		if err != nil {
			if have != nil {
				return have, nil
			}
			return nil, err
		}
		have, of = &pair, now
		return have, nil
	}
}
