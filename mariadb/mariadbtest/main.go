// Package mariadbtest gives the tests of a package a private server.
package mariadbtest

import (
	"context"
	"fmt"
	"os"
	"testing"

	"cuestart/mariadb"
)

// Run starts a server in a folder of its own, sets it, runs the tests and
// stops it again. It returns what TestMain has to exit with.
func Run(m *testing.M, server **mariadb.Server) int {
	dir, err := os.MkdirTemp("", "cuestart-test")
	if err == nil {
		defer os.RemoveAll(dir)
		*server, err = mariadb.Start(context.Background(), dir)
	}
	if err != nil {
		fmt.Fprintln(os.Stderr, "the tests have no database:", err)
		return 1
	}
	defer (*server).Stop()
	return m.Run()
}
