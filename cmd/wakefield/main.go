// Wakefield plans what every channel of a network video recorder records, and
// tells how long the disks will keep it.
package main

import (
	"errors"
	"fmt"
	"os"
	"strings"

	"github.com/alecthomas/kong"
)

// cli is the command line.
type cli struct {
	Demo     demoCommand     `cmd:"" help:"Serve the sample sites over a private PostgreSQL."`
	Serve    serveCommand    `cmd:"" help:"Serve over a PostgreSQL that is there."`
	Estimate estimateCommand `cmd:"" help:"Estimate a plan file."`
	Check    checkCommand    `cmd:"" help:"Check a plan file; exit status 1 if a finding is an error."`
	Papers   papersCommand   `cmd:"" help:"Write the sheets and papers of a plan file."`
	Measured measuredCommand `cmd:"" help:"Hold what was found at a site against its plan file."`
	StandIn  standInCommand  `cmd:"" name:"stand-in" help:"Play a recorder and its cameras on loopback."`
	Schema   schemaCommand   `cmd:"" help:"Print the JSON Schema of plan files."`
	Pull     pullCommand     `cmd:"" help:"Fetch a plan from a server."`
	Push     pushCommand     `cmd:"" help:"Give a plan to a server, as a new site or a further variant of one."`
	Backup   backupCommand   `cmd:"" help:"Write the whole database into a file."`
	Restore  restoreCommand  `cmd:"" help:"Bring a database back from such a file."`
	Delete   deleteCommand   `cmd:"" help:"Remove an archived site for good."`
	Thin     thinCommand     `cmd:"" help:"Remove old revisions of a site."`
	Company  companyCommand  `cmd:"" help:"Make a further company on a server, and a link for its first planner."`
	OpenAPI  openapiCommand  `cmd:"" name:"openapi" help:"Print the OpenAPI description of the API."`
	Version  versionCommand  `cmd:"" help:"Print which Wakefield this is."`
}

// unsetEmpty takes a variable of Wakefield's that is empty for one that is not set, as in a file of settings whose line was left
// blank: an empty path would be the working folder, an empty duration an error.
func unsetEmpty() {
	for _, v := range os.Environ() {
		if name, value, _ := strings.Cut(v, "="); strings.HasPrefix(name, "WAKEFIELD_") && value == "" {
			os.Unsetenv(name)
		}
	}
}

func main() {
	var c cli
	unsetEmpty()
	k := kong.Parse(&c, kong.Name("wakefield"), kong.UsageOnError(), kong.Vars{"quirks": quirks()},
		kong.Description("Plans what every channel of a recorder records, and tells how long the disks will keep it."))
	if err := k.Run(); err != nil {
		if text := err.Error(); text != "" {
			fmt.Fprintln(os.Stderr, text)
		}
		status := 1
		var e interface{ ExitCode() int }
		if errors.As(err, &e) {
			status = e.ExitCode()
		}
		os.Exit(status)
	}
}
