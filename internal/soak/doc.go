// Package soak holds a test that keeps a whole Wakefield under load for as long as one
// likes, while its server and its database are killed and hostile files come in between.
// It is run by make soak, not by make test.
package soak
