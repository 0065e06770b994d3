package main

import (
	"context"
	"crypto/tls"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"net/http/pprof"
	"os"
	"os/signal"
	runtimedebug "runtime/debug"
	"syscall"
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/internal/api"
	"wakefield.example/internal/demo"
	"wakefield.example/internal/localpg"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

// listening is how a server is reached.
type listening struct {
	Listen        string   `default:"127.0.0.1:8460" env:"WAKEFIELD_LISTEN" help:"Address to serve on; port 0 takes a free one."`
	Host          []string `env:"WAKEFIELD_HOST" help:"Name by which browsers reach the server, beside localhost; may be given again."`
	Debug         string   `env:"WAKEFIELD_DEBUG" placeholder:"ADDRESS" help:"Loopback address to serve pprof on."`
	DeviceKeyFile string   `env:"WAKEFIELD_DEVICE_KEY_FILE" type:"path" help:"File with the key by which passwords of recorders and cameras are kept; made where there is none. WAKEFIELD_DEVICE_KEY is the key itself."`
	AllowDevice   []string `env:"WAKEFIELD_ALLOW_DEVICE" placeholder:"RANGE" help:"Addresses of recorders and cameras that are spoken with though they are refused usually: loopback and link-local ones, such as 127.0.0.0/8; may be given again."`

	Verbose bool `env:"WAKEFIELD_VERBOSE" help:"Log every request."`

	TLSCert      string        `env:"WAKEFIELD_TLS_CERT" type:"existingfile" and:"tls" help:"Certificate (PEM) to serve TLS with; read anew when it changes."`
	TLSKey       string        `env:"WAKEFIELD_TLS_KEY" type:"existingfile" and:"tls" help:"Its key (PEM)."`
	TrustedProxy []string      `env:"WAKEFIELD_TRUSTED_PROXY" placeholder:"ADDRESS" help:"Address or range of a proxy with TLS before the server, whose word on who asks is believed; may be given again."`
	Idle         time.Duration `env:"WAKEFIELD_IDLE" default:"30m" help:"After how long without use a session ends."`
	Longest      time.Duration `env:"WAKEFIELD_LONGEST" default:"12h" help:"After how long a session ends however it is used."`
}

func (l listening) log() *slog.Logger {
	level := slog.LevelInfo
	if l.Verbose {
		level = slog.LevelDebug
	}
	log := slog.New(slog.NewTextHandler(os.Stderr, &slog.HandlerOptions{Level: level}))
	slog.SetDefault(log)
	return log
}

// serveCommand serves over a database that is there.
type serveCommand struct {
	listening
	Database     string `env:"WAKEFIELD_DATABASE" help:"PostgreSQL URL. A password is better kept out of sight: in the environment, or in a file."`
	DatabaseFile string `env:"WAKEFIELD_DATABASE_FILE" type:"existingfile" help:"File that holds the PostgreSQL URL."`
	Open         bool   `env:"WAKEFIELD_OPEN" help:"Without accounts: whoever reaches the server may do everything. On loopback only."`
}

func (c *serveCommand) Run() error {
	ctx, stop := untilStopped()
	defer stop()
	log := c.log()
	url, err := databaseURL(c.Database, c.DatabaseFile)
	if err != nil {
		return err
	}
	s, err := store.Open(ctx, url)
	if err != nil {
		return err
	}
	defer s.Close()
	if c.Open {
		return serve(ctx, c.listening, s, api.Options{Log: log})
	}
	options, err := c.accounts(log)
	if err != nil {
		return err
	}
	return serve(ctx, c.listening, s, options)
}

// demoCommand serves the sample sites over a private PostgreSQL.
type demoCommand struct {
	listening
	Data  string `env:"WAKEFIELD_DATA" type:"path" help:"Folder of the database. (default: ~/.local/share/wakefield/postgres, as root /var/lib/wakefield/postgres)"`
	Reset bool   `help:"Start over with fresh sample sites; all sites in the folder are lost."`
	Yes   bool   `help:"Do not ask before --reset."`

	Accounts bool `help:"With accounts: three sample people, whose password is told."`
}

func (c *demoCommand) Run() error {
	ctx, stop := untilStopped()
	defer stop()
	log := c.log()
	dir, err := dataFolder(c.Data)
	if err != nil {
		return err
	}
	cluster, err := localpg.Open(ctx, dir)
	if err != nil {
		return err
	}
	defer cluster.Close()
	if err := cluster.Start(ctx); err != nil {
		return err
	}
	defer cluster.Stop()
	if err := cluster.Create(ctx, database); err != nil {
		return err
	}
	if c.Reset {
		if err := c.reset(ctx, cluster); err != nil {
			return err
		}
	}
	s, err := store.Open(ctx, cluster.URL(database))
	if err != nil {
		return err
	}
	defer s.Close()
	if err := demo.Fill(ctx, s); err != nil {
		return err
	}
	if err := c.play(ctx, s, dir); err != nil {
		return err
	}
	log.Info("PostgreSQL runs", "folder", dir)
	go cluster.KeepRunning(ctx, log)
	if !c.Accounts {
		return serve(ctx, c.listening, s, api.Options{Log: log})
	}
	options, err := c.accounts(log)
	if err != nil {
		return err
	}
	if options.Sample, err = demo.People(ctx, s); err != nil {
		return err
	}
	return serve(ctx, c.listening, s, options)
}

// reset empties the database, once it was said what goes and that it may.
func (c *demoCommand) reset(ctx context.Context, cluster *localpg.Cluster) error {
	if !c.Yes {
		s, err := store.Open(ctx, cluster.URL(database))
		if err != nil {
			return fmt.Errorf("%w; --reset --yes starts over without looking at it", err)
		}
		sites, err := s.List(ctx)
		s.Close()
		if err != nil {
			return err
		}
		question := "--reset removes what is in this folder, " + plan.Count(len(sites), "site") +
			" with all revisions, all accounts, and what happened around them:"
		for i, site := range sites {
			if i == 20 {
				question += fmt.Sprintf("\n  and %d more", len(sites)-i)
				break
			}
			question += fmt.Sprintf("\n  %s, revision %d", site.Name, site.Version)
		}
		if err := confirm(question); err != nil {
			return err
		}
	}
	if err := cluster.Drop(ctx, database); err != nil {
		return err
	}
	return cluster.Create(ctx, database)
}

func untilStopped() (context.Context, context.CancelFunc) {
	return signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
}

// memory is from where on garbage is collected more eagerly, unless GOMEMLIMIT says
// otherwise. What is at hand and a few large requests fit below it.
const memory = 450 << 20

// serve serves until the context ends, then lets requests finish.
func serve(ctx context.Context, l listening, s *store.Store, o api.Options) error {
	log := o.Log
	if os.Getenv("GOMEMLIMIT") == "" {
		runtimedebug.SetMemoryLimit(memory)
	}
	listener, err := net.Listen("tcp", l.Listen)
	if err != nil {
		return fmt.Errorf("%w; --listen 127.0.0.1:0 takes a free port", err)
	}
	if err := l.mayListen(listener.Addr(), o.Accounts != nil); err != nil {
		listener.Close()
		return err
	}
	if a, ok := listener.Addr().(*net.TCPAddr); ok && !a.IP.IsLoopback() && len(l.Host) == 0 {
		log.Warn("only requests to localhost are answered; --host NAME allows the name by which others reach it")
	}
	if l.Debug != "" {
		stop, err := debug(l.Debug, log)
		if err != nil {
			return err
		}
		defer stop()
	}
	streams, hangUp := context.WithCancel(context.Background())
	defer hangUp()
	o.Hosts = l.Host
	if o.Devices, err = l.devices(); err != nil {
		return err
	}
	o.Lines = true
	running := server.HTTP(api.New(ctx, s, o))
	running.BaseContext = func(net.Listener) context.Context { return streams }
	scheme := "http"
	if l.TLSCert != "" {
		scheme = "https"
		running.TLSConfig = &tls.Config{MinVersion: tls.VersionTLS12, GetCertificate: renewed(l.TLSCert, l.TLSKey)}
	}
	fmt.Printf("\n  Wakefield is at %s://%s  (Ctrl+C stops it)\n\n", scheme, listener.Addr())
	if err := greet(ctx, s, o, scheme+"://"+listener.Addr().String()); err != nil {
		return err
	}
	log.Info("started", "address", listener.Addr().String())
	ended := make(chan error, 1)
	go func() {
		if l.TLSCert != "" {
			ended <- running.ServeTLS(listener, "", "")
			return
		}
		ended <- running.Serve(listener)
	}()
	select {
	case err := <-ended:
		return err
	case <-ctx.Done():
	}
	fmt.Println("Stopping.")
	log.Info("stopping", "why", context.Cause(ctx))
	// Streams of changes end now; what is being done gets time to be done.
	grace, cancel := context.WithTimeout(context.Background(), 12*time.Second)
	defer cancel()
	time.AfterFunc(10*time.Second, hangUp)
	if err := running.Shutdown(grace); err != nil && !errors.Is(err, context.DeadlineExceeded) {
		return err
	}
	log.Info("stopped")
	return nil
}

// debug serves profiles of the running program, to this machine only.
func debug(address string, log *slog.Logger) (stop func(), err error) {
	host, _, err := net.SplitHostPort(address)
	if err != nil {
		return nil, fmt.Errorf("--debug: %w", err)
	}
	if ip := net.ParseIP(host); host != "localhost" && (ip == nil || !ip.IsLoopback()) {
		return nil, fmt.Errorf("--debug %s: only loopback addresses, such as 127.0.0.1:6060, as profiles tell what is in memory", address)
	}
	listener, err := net.Listen("tcp", address)
	if err != nil {
		return nil, fmt.Errorf("--debug: %w", err)
	}
	mux := http.NewServeMux()
	mux.HandleFunc("/debug/pprof/", pprof.Index)
	mux.HandleFunc("/debug/pprof/profile", pprof.Profile)
	mux.HandleFunc("/debug/pprof/trace", pprof.Trace)
	mux.HandleFunc("/debug/pprof/symbol", pprof.Symbol)
	running := &http.Server{Handler: mux, ReadHeaderTimeout: 5 * time.Second}
	go running.Serve(listener)
	log.Info("profiles are served", "address", "http://"+listener.Addr().String()+"/debug/pprof/")
	return func() { running.Close() }, nil
}

// openapiCommand prints the description of the API.
type openapiCommand struct{}

func (openapiCommand) Run() error {
	data, err := api.Describe()
	if err != nil {
		return err
	}
	_, err = os.Stdout.Write(append(data, '\n'))
	return err
}
