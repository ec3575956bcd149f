package mariadb_test

import (
	"context"
	"database/sql"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	_ "github.com/go-sql-driver/mysql"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/mariadb"
)

func start(t *testing.T, dir string) *mariadb.Server {
	server, err := mariadb.Start(context.Background(), dir)
	require.NoError(t, err)
	return server
}

func open(t *testing.T, server *mariadb.Server) *sql.DB {
	db, err := sql.Open("mysql", server.DSN(""))
	require.NoError(t, err)
	t.Cleanup(func() { db.Close() })
	return db
}

func TestNothingIsLostWhenTheServerIsKilledOrAFolderReused(t *testing.T) {
	dir := filepath.Join(t.TempDir(), strings.Repeat("a-long-folder-name-", 8)) // its socket has to go elsewhere
	server := start(t, dir)
	db := open(t, server)
	_, err := db.Exec("CREATE DATABASE kept")
	require.NoError(t, err)
	_, err = db.Exec("CREATE TABLE kept.note (text VARCHAR(20))")
	require.NoError(t, err)
	_, err = db.Exec("INSERT INTO kept.note VALUES ('still here')")
	require.NoError(t, err)

	_, err = mariadb.Start(context.Background(), dir)
	assert.ErrorIs(t, err, mariadb.ErrInUse)

	var text string
	for range 6 { // within a minute
		require.NoError(t, syscall.Kill(server.PID(), syscall.SIGKILL))
		text = ""
		require.Eventually(t, func() bool {
			return db.QueryRow("SELECT text FROM kept.note").Scan(&text) == nil
		}, 30*time.Second, 100*time.Millisecond, "a killed server comes back by itself")
		assert.Equal(t, "still here", text)
	}
	require.NoError(t, server.Stop())

	again := start(t, dir)
	require.NoError(t, open(t, again).QueryRow("SELECT text FROM kept.note").Scan(&text))
	require.NoError(t, again.Stop())
}

// Six that start at once, on data folders that are still empty, do not meet.
func TestSixStartAtOnce(t *testing.T) {
	var all sync.WaitGroup
	for range 6 {
		dir := t.TempDir()
		all.Go(func() {
			server, err := mariadb.Start(context.Background(), dir)
			if assert.NoError(t, err) {
				assert.NoError(t, open(t, server).Ping())
				assert.NoError(t, server.Stop())
			}
		})
	}
	all.Wait()
}

// A server that cannot come back is given up in the end, and who waits is told.
func TestAServerThatDoesNotStayUpIsGivenUp(t *testing.T) {
	defer mariadb.GiveUpIn(time.Second)()
	dir := t.TempDir()
	server := start(t, dir)
	require.NoError(t, os.RemoveAll(filepath.Join(dir, "data")))
	require.NoError(t, syscall.Kill(server.PID(), syscall.SIGKILL))
	select {
	case <-server.Gone():
	case <-time.After(30 * time.Second):
		require.Fail(t, "it tries for ever")
	}
}

func TestVersionsThatWillNotDo(t *testing.T) {
	assert.NoError(t, mariadb.CheckVersion("mariadbd  Ver 10.11.19-MariaDB-0+deb12u1 for debian-linux-gnu"))
	assert.NoError(t, mariadb.CheckVersion("11.8.2-MariaDB"))
	assert.ErrorContains(t, mariadb.CheckVersion("10.5.29-MariaDB"), "too old")
	assert.ErrorContains(t, mariadb.CheckVersion("mysqld  Ver 8.0.36"), "not MariaDB")
}

func TestAFolderThatCannotBeMadeIsOneSentence(t *testing.T) {
	file := filepath.Join(t.TempDir(), "file")
	require.NoError(t, os.WriteFile(file, nil, 0o600))
	_, err := mariadb.Start(context.Background(), filepath.Join(file, "below"))
	assert.ErrorContains(t, err, "data folder cannot be made")
}
