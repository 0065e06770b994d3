package main

import (
	"fmt"

	"wakefield.example/internal/release"
)

// versionCommand prints which Wakefield this is.
type versionCommand struct{}

func (versionCommand) Run() error {
	line := "wakefield " + release.Version
	if commit := release.Commit(); commit != "" {
		line += " (" + commit + ")"
	}
	_, err := fmt.Println(line)
	return err
}
