// Package demotest gives tests databases of their own: empty, or with the demo club in them.
package demotest

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"cuestart/demo"
	"cuestart/mariadb"
	"cuestart/store"
)

// Open is a database of a test's own on a server, in today's schema and empty.
func Open(t *testing.T, server *mariadb.Server, name string) *store.Store {
	return copied(t, server, name, "made_empty", func(ctx context.Context, s *store.Store) error { return s.Migrate(ctx) })
}

// Filled is a database of a test's own on a server, with the demo club as it is at a moment, the same for all
// tests of a package.
func Filled(t *testing.T, server *mariadb.Server, name string, at time.Time) *store.Store {
	return copied(t, server, name, "made_demo", func(ctx context.Context, s *store.Store) error {
		return errors.Join(s.Migrate(ctx), demo.Fill(ctx, s, at))
	})
}

// made are what makes the databases that others are copied from, by their names: once each.
var made sync.Map

// copied is a database that is copied from one which is made first.
func copied(t *testing.T, server *mariadb.Server, name, from string, fill func(context.Context, *store.Store) error) *store.Store {
	script, _ := made.LoadOrStore(from, sync.OnceValues(func() (string, error) { return makeOnce(server, from, fill) }))
	text, err := script.(func() (string, error))()
	require.NoError(t, err)
	pool, err := sql.Open("mysql", server.DSN("")+"?multiStatements=true")
	require.NoError(t, err)
	defer pool.Close()
	_, err = pool.Exec(fmt.Sprintf("CREATE DATABASE `%s` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci; USE `%s`; ", name, name) + text)
	require.NoError(t, err)
	s, err := store.Open(context.Background(), server.DSN(name))
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	return s
}

// makeOnce makes a database, and gives the statements that copy its tables into another.
func makeOnce(server *mariadb.Server, name string, fill func(context.Context, *store.Store) error) (script string, err error) {
	ctx := context.Background()
	s, err := store.Open(ctx, server.DSN(name))
	if err != nil {
		return "", err
	}
	defer s.Close()
	if err := fill(ctx, s); err != nil {
		return "", err
	}
	pool, err := sql.Open("mysql", server.DSN(name))
	if err != nil {
		return "", err
	}
	defer pool.Close()
	rows, err := pool.Query("SELECT table_name, GROUP_CONCAT('`', column_name, '`' ORDER BY ordinal_position) FROM information_schema.columns " +
		"WHERE table_schema = DATABASE() AND extra NOT LIKE '%GENERATED%' GROUP BY table_name")
	if err != nil {
		return "", err
	}
	columns := map[string]string{}
	for rows.Next() {
		var table, list string
		if err := rows.Scan(&table, &list); err != nil {
			return "", err
		}
		columns[table] = list
	}
	if err := rows.Err(); err != nil {
		return "", err
	}
	var all strings.Builder
	all.WriteString("SET foreign_key_checks = 0, unique_checks = 0;\n")
	for table, list := range columns {
		var as string
		if err := pool.QueryRow("SHOW CREATE TABLE `"+table+"`").Scan(&table, &as); err != nil {
			return "", err
		}
		fmt.Fprintf(&all, "%s;\nINSERT INTO `%s` (%s) SELECT %s FROM `%s`.`%s`;\n", as, table, list, list, name, table)
	}
	return all.String(), nil
}
