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

	"github.com/alexedwards/argon2id"
	"github.com/stretchr/testify/require"

	"cuestart/demo"
	"cuestart/store"
)

// Cheap is what a hash of a password costs in tests: next to nothing.
var Cheap = &argon2id.Params{Memory: 64, Iterations: 1, Parallelism: 1, SaltLength: 16, KeyLength: 32}

// Open is a database of a test's own, in today's schema and empty. A server gives the data source name of a database.
func Open(t *testing.T, dsn func(database string) string, name string) *store.Store {
	return copied(t, dsn, name, "made_empty", func(ctx context.Context, s *store.Store) error { return s.Migrate(ctx) })
}

// Filled is a database of a test's own, with the demo club as it is at a moment, the same for all tests of a package.
func Filled(t *testing.T, dsn func(database string) string, name string, at time.Time) *store.Store {
	return copied(t, dsn, name, "made_demo", func(ctx context.Context, s *store.Store) error {
		return errors.Join(s.Migrate(ctx), demo.Fill(ctx, s, at, Cheap))
	})
}

// made are what makes the databases that others are copied from, by their names: once each.
var made sync.Map

// copied is a database that is copied from one which is made first.
func copied(t *testing.T, dsn func(database string) string, name, from string,
	fill func(context.Context, *store.Store) error) *store.Store {
	script, _ := made.LoadOrStore(from, sync.OnceValues(func() (string, error) { return makeOnce(dsn, from, fill) }))
	text, err := script.(func() (string, error))()
	require.NoError(t, err)
	pool, err := sql.Open("mysql", dsn("")+"?multiStatements=true")
	require.NoError(t, err)
	defer pool.Close()
	_, err = pool.Exec(fmt.Sprintf("CREATE DATABASE `%s` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci; USE `%s`; ",
		name, name) + text)
	require.NoError(t, err)
	s, err := store.Open(context.Background(), dsn(name))
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	return s
}

// makeOnce makes a database, and gives the statements that copy its tables into another.
func makeOnce(dsn func(database string) string, name string,
	fill func(context.Context, *store.Store) error) (script string, err error) {
	ctx := context.Background()
	s, err := store.Open(ctx, dsn(name))
	if err != nil {
		return "", err
	}
	defer s.Close()
	if err := fill(ctx, s); err != nil {
		return "", err
	}
	pool, err := sql.Open("mysql", dsn(name))
	if err != nil {
		return "", err
	}
	defer pool.Close()
	rows, err := pool.Query("SELECT table_name, GROUP_CONCAT('`', column_name, '`' ORDER BY ordinal_position) " +
		"FROM information_schema.columns " +
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
