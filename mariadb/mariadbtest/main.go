// Package mariadbtest gives the tests of a package a private server.
package mariadbtest

import (
	"context"
	"fmt"
	"os"
	"syscall"
	"testing"

	"cuestart/mariadb"
)

// Folder is where tests keep what need not outlive them: in memory, where a system has such a place with room.
func Folder() string {
	const inMemory, room = "/dev/shm", 4 << 30
	var place syscall.Statfs_t
	if err := syscall.Statfs(inMemory, &place); err == nil && place.Bavail*uint64(place.Bsize) > room {
		return inMemory
	}
	return os.TempDir()
}

// unsafe are settings with which a server waits for no disk: what is in it does not outlive the tests.
var unsafe = []string{"--innodb-flush-log-at-trx-commit=0", "--innodb-doublewrite=OFF", "--innodb-flush-method=nosync",
	"--innodb-log-file-size=16M"}

// Run starts a server in a folder of its own, in memory where there is such a place, sets it, runs the
// tests and stops it again. It returns what TestMain has to exit with.
func Run(m *testing.M, server **mariadb.Server) int {
	dir, err := os.MkdirTemp(Folder(), "cuestart-test")
	if err == nil {
		defer os.RemoveAll(dir)
		*server, err = mariadb.Start(context.Background(), dir, unsafe...)
	}
	if err != nil {
		fmt.Fprintln(os.Stderr, "the tests have no database:", err)
		return 1
	}
	defer (*server).Stop()
	return m.Run()
}
