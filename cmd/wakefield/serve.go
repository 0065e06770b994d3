package main

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"os"
	"os/signal"
	"path/filepath"
	"syscall"
	"time"

	"wakefield/internal/demo"
	"wakefield/internal/localpg"
	"wakefield/internal/server"
	"wakefield/internal/store"
)

// listening is how a server is reached.
type listening struct {
	Listen  string `default:"127.0.0.1:8460" env:"WAKEFIELD_LISTEN" help:"Address to serve on; port 0 takes a free one."`
	Verbose bool   `env:"WAKEFIELD_VERBOSE" help:"Log every request."`
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
	Database string `required:"" env:"WAKEFIELD_DATABASE" help:"PostgreSQL URL."`
}

func (c *serveCommand) Run() error {
	ctx, stop := untilStopped()
	defer stop()
	s, err := store.Open(ctx, c.Database)
	if err != nil {
		return err
	}
	defer s.Close()
	return serve(ctx, c.listening, s, c.log())
}

// demoCommand serves the sample sites over a private PostgreSQL.
type demoCommand struct {
	listening
	Data  string `env:"WAKEFIELD_DATA" type:"path" help:"Folder of the database. (default: ~/.local/share/wakefield, as root /var/lib/wakefield)"`
	Reset bool   `help:"Start over with fresh sample sites."`
}

func (c *demoCommand) Run() error {
	ctx, stop := untilStopped()
	defer stop()
	log := c.log()
	dir, err := c.folder()
	if err != nil {
		return err
	}
	cluster, err := localpg.Open(ctx, dir)
	if err != nil {
		return err
	}
	if err := cluster.Start(ctx); err != nil {
		return fmt.Errorf("%w (is another demo running on %s?)", err, dir)
	}
	defer cluster.Stop()
	if c.Reset {
		if err := cluster.Drop(ctx, "wakefield"); err != nil {
			return err
		}
	}
	if err := cluster.Create(ctx, "wakefield"); err != nil {
		return err
	}
	s, err := store.Open(ctx, cluster.URL("wakefield"))
	if err != nil {
		return err
	}
	defer s.Close()
	if err := demo.Fill(ctx, s); err != nil {
		return err
	}
	return serve(ctx, c.listening, s, log)
}

// folder is where the database lives. PostgreSQL runs as a user of its own when
// root starts it, and that user cannot enter root's home.
func (c *demoCommand) folder() (string, error) {
	if c.Data != "" {
		return c.Data, nil
	}
	if os.Geteuid() == 0 {
		return "/var/lib/wakefield/postgres", nil
	}
	home, err := os.UserHomeDir()
	return filepath.Join(home, ".local", "share", "wakefield", "postgres"), err
}

func untilStopped() (context.Context, context.CancelFunc) {
	return signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
}

// serve serves until the context ends, then lets requests finish.
func serve(ctx context.Context, l listening, s *store.Store, log *slog.Logger) error {
	listener, err := net.Listen("tcp", l.Listen)
	if err != nil {
		return fmt.Errorf("%w; --listen 127.0.0.1:0 takes a free port", err)
	}
	running := server.HTTP(server.New(ctx, s, log))
	fmt.Printf("\n  Wakefield is at http://%s  (Ctrl+C stops it)\n\n", listener.Addr())
	ended := make(chan error, 1)
	go func() { ended <- running.Serve(listener) }()
	select {
	case err := <-ended:
		return err
	case <-ctx.Done():
	}
	fmt.Println("Stopping.")
	grace, cancel := context.WithTimeout(context.Background(), 10*time.Second)
	defer cancel()
	if err := running.Shutdown(grace); err != nil && !errors.Is(err, context.DeadlineExceeded) {
		return err
	}
	return nil
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
