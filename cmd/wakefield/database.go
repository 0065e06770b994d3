package main

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strings"

	"wakefield.example/internal/localpg"
)

// database is the name of the database in a private cluster.
const database = "wakefield"

// chosen is the database that a command works on: one that is there, or the private
// one of the demo.
type chosen struct {
	Database     string `env:"WAKEFIELD_DATABASE" help:"PostgreSQL URL; the demo's own database where neither this nor a file is given."`
	DatabaseFile string `env:"WAKEFIELD_DATABASE_FILE" type:"existingfile" help:"File with the PostgreSQL URL."`
	Data         string `env:"WAKEFIELD_DATA" type:"path" help:"Folder of the demo's database."`
}

// open returns the URL of the database, and how to leave it. The demo's server is
// started for the time where the demo does not run.
func (c chosen) open(ctx context.Context) (url string, leave func(), err error) {
	if c.Database != "" || c.DatabaseFile != "" {
		url, err = databaseURL(c.Database, c.DatabaseFile)
		return url, func() {}, err
	}
	dir, err := dataFolder(c.Data)
	if err != nil {
		return "", nil, err
	}
	cluster, err := localpg.Open(ctx, dir)
	if errors.Is(err, localpg.ErrInUse) {
		running := localpg.At(dir)
		return running.URL(database), func() {}, running.Create(ctx, database) // one of an older program may lack something
	}
	if err != nil {
		return "", nil, err
	}
	leave = func() { cluster.Stop(); cluster.Close() }
	if err = cluster.Start(ctx); err == nil {
		err = cluster.Create(ctx, database)
	}
	if err != nil {
		leave()
		return "", nil, err
	}
	return cluster.URL(database), leave, nil
}

// databaseURL is the URL given, or what a file holds.
func databaseURL(url, file string) (string, error) {
	switch {
	case url != "" && file != "":
		return "", errors.New("the database is named twice; --database or --database-file is enough")
	case url != "":
		return url, nil
	case file == "":
		return "", errors.New("no database is named: set WAKEFIELD_DATABASE, or give --database-file or --database")
	}
	data, err := os.ReadFile(file)
	if err != nil {
		return "", err
	}
	if url = strings.TrimSpace(string(data)); url == "" {
		return "", fmt.Errorf("%s is empty; the PostgreSQL URL should stand in it", file)
	}
	return url, nil
}

// dataFolder is where the demo's database lives. PostgreSQL runs as a user of its own
// when root starts it, and that user cannot enter root's home.
func dataFolder(given string) (string, error) {
	if given != "" {
		return given, nil
	}
	if os.Geteuid() == 0 {
		return "/var/lib/wakefield/postgres", nil
	}
	home, err := os.UserHomeDir()
	return filepath.Join(home, ".local", "share", "wakefield", "postgres"), err
}

// errNotConfirmed says that a question was not answered with yes.
var errNotConfirmed = errors.New("nothing was removed; answer yes, or give --yes")

// confirm asks on the terminal.
func confirm(question string) error {
	fmt.Fprintf(os.Stderr, "%s\nType yes to go on: ", question)
	answer, _ := bufio.NewReader(os.Stdin).ReadString('\n')
	if strings.TrimSpace(strings.ToLower(answer)) != "yes" {
		fmt.Fprintln(os.Stderr)
		return errNotConfirmed
	}
	return nil
}
