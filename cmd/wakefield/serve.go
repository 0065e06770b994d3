package main

import (
	"context"
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
	"wakefield.example/internal/demo"
	"wakefield.example/internal/localpg"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

// listening is how a server is reached.
type listening struct {
	Listen  string   `default:"127.0.0.1:8460" env:"WAKEFIELD_LISTEN" help:"Address to serve on; port 0 takes a free one."`
	Host    []string `env:"WAKEFIELD_HOST" help:"Name by which browsers reach the server, beside localhost; may be given again."`
	Debug   string   `env:"WAKEFIELD_DEBUG" placeholder:"ADDRESS" help:"Loopback address to serve pprof on."`
	Verbose bool     `env:"WAKEFIELD_VERBOSE" help:"Log every request."`
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
	return serve(ctx, c.listening, s, log)
}

// demoCommand serves the sample sites over a private PostgreSQL.
type demoCommand struct {
	listening
	Data  string `env:"WAKEFIELD_DATA" type:"path" help:"Folder of the database. (default: ~/.local/share/wakefield/postgres, as root /var/lib/wakefield/postgres)"`
	Reset bool   `help:"Start over with fresh sample sites; all sites in the folder are lost."`
	Yes   bool   `help:"Do not ask before --reset."`
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
	log.Info("PostgreSQL runs", "folder", dir)
	go cluster.KeepRunning(ctx, log)
	return serve(ctx, c.listening, s, log)
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
		question := "--reset removes what is in this folder, " + plan.Count(len(sites), "site") + " with all revisions:"
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
func serve(ctx context.Context, l listening, s *store.Store, log *slog.Logger) error {
	if os.Getenv("GOMEMLIMIT") == "" {
		runtimedebug.SetMemoryLimit(memory)
	}
	listener, err := net.Listen("tcp", l.Listen)
	if err != nil {
		return fmt.Errorf("%w; --listen 127.0.0.1:0 takes a free port", err)
	}
	warnBeyond(listener.Addr(), l.Host, log)
	if l.Debug != "" {
		stop, err := debug(l.Debug, log)
		if err != nil {
			return err
		}
		defer stop()
	}
	streams, hangUp := context.WithCancel(context.Background())
	defer hangUp()
	running := server.HTTP(server.New(ctx, s, server.Options{Log: log, Hosts: l.Host}))
	running.BaseContext = func(net.Listener) context.Context { return streams }
	fmt.Printf("\n  Wakefield is at http://%s  (Ctrl+C stops it)\n\n", listener.Addr())
	log.Info("started", "address", listener.Addr().String())
	ended := make(chan error, 1)
	go func() { ended <- running.Serve(listener) }()
	select {
	case err := <-ended:
		return err
	case <-ctx.Done():
	}
	fmt.Println("Stopping.")
	log.Info("stopping", "why", context.Cause(ctx))
	grace, cancel := context.WithTimeout(context.Background(), 10*time.Second)
	defer cancel()
	// Streams of changes never end by themselves; requests get a moment to.
	time.AfterFunc(time.Second, hangUp)
	if err := running.Shutdown(grace); err != nil && !errors.Is(err, context.DeadlineExceeded) {
		return err
	}
	log.Info("stopped")
	return nil
}

// warnBeyond says what is missing where others than this machine can reach a server.
func warnBeyond(address net.Addr, hosts []string, log *slog.Logger) {
	if a, ok := address.(*net.TCPAddr); !ok || a.IP.IsLoopback() {
		return
	}
	log.Warn("Wakefield is offered beyond this machine, and has neither accounts nor encryption of its own: "+
		"whoever reaches it can change everything. Put a proxy with TLS and a login before it", "address", address.String(), "hosts", hosts)
	if len(hosts) == 0 {
		log.Warn("only requests to localhost are answered; --host NAME allows the name by which others reach it")
	}
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
	data, err := server.Describe()
	if err != nil {
		return err
	}
	_, err = os.Stdout.Write(append(data, '\n'))
	return err
}
