// Package store keeps clubs, squads, sessions and their plans in MariaDB. Each
// method is one use case in one transaction; the SQL lies in queries, the
// schema in migrations.
package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"time"

	"github.com/alexedwards/scs/mysqlstore"
	"github.com/alexedwards/scs/v2"
	"github.com/go-sql-driver/mysql"

	"cuestart/mariadb"
	"cuestart/store/db"
)

// Errors that callers tell apart.
var (
	ErrNotFound = errors.New("there is no such thing in this club")
	ErrStale    = errors.New("somebody else changed this plan meanwhile")
	ErrTaken    = errors.New("this is taken already")
	ErrNothing  = errors.New("there is nothing to undo or redo")
)

// Store is a database of Cue Start. Its methods may be called concurrently.
type Store struct {
	pool    *sql.DB
	queries *db.Queries
}

// Open connects to the database named by dsn, in the form of go-sql-driver,
// makes it if it is missing, and checks that its server will do. It does not
// migrate.
func Open(ctx context.Context, dsn string) (*Store, error) {
	config, err := mysql.ParseDSN(dsn)
	if err != nil || config.DBName == "" {
		return nil, fmt.Errorf("CUESTART_DSN is not of the form user:password@tcp(host:3306)/database")
	}
	config.ParseTime = true
	config.Loc = time.UTC
	config.InterpolateParams = true
	config.Timeout = 5 * time.Second
	config.Logger = &mysql.NopLogger{} // what fails is returned, and logged once by who asked
	if config.Params == nil {
		config.Params = map[string]string{}
	}
	config.Params["time_zone"] = "'+00:00'"
	config.Params["sql_mode"] = "'STRICT_ALL_TABLES,NO_ENGINE_SUBSTITUTION,ERROR_FOR_DIVISION_BY_ZERO'"
	config.Collation = "utf8mb4_unicode_ci"
	if err := create(ctx, config.Clone()); err != nil {
		return nil, err
	}
	connector, err := mysql.NewConnector(config)
	if err != nil {
		return nil, err
	}
	pool := sql.OpenDB(connector)
	pool.SetMaxOpenConns(32)
	pool.SetMaxIdleConns(16)
	pool.SetConnMaxIdleTime(5 * time.Minute)
	return &Store{pool: pool, queries: db.New(pool)}, nil
}

// create makes the database where it is missing, and checks the server.
func create(ctx context.Context, config *mysql.Config) error {
	name := config.DBName
	config.DBName = ""
	connector, err := mysql.NewConnector(config)
	if err != nil {
		return err
	}
	server := sql.OpenDB(connector)
	defer server.Close()
	var version string
	if err := server.QueryRowContext(ctx, "SELECT VERSION()").Scan(&version); err != nil {
		return fmt.Errorf("the database does not answer: %w", err)
	}
	if err := mariadb.CheckVersion(version); err != nil {
		return err
	}
	var found int
	err = server.QueryRowContext(ctx, "SELECT COUNT(*) FROM information_schema.schemata WHERE schema_name = ?", name).Scan(&found)
	if err == nil && found == 0 {
		_, err = server.ExecContext(ctx, "CREATE DATABASE `"+name+"` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci")
	}
	if err != nil {
		return fmt.Errorf("the database %s cannot be made: %w", name, err)
	}
	return nil
}

// SignIns keeps signed-in browsers in the database, and those that are over no
// longer. End its cleaning up when it is no longer used.
func (s *Store) SignIns() (kept scs.Store, end func()) {
	signIns := mysqlstore.NewWithCleanupInterval(s.pool, 10*time.Minute)
	return signIns, signIns.StopCleanup
}

// Ping tells whether the database answers.
func (s *Store) Ping(ctx context.Context) error { return s.pool.PingContext(ctx) }

// Tidy deletes what nobody can ask for any more: changes that are too old to be
// taken back, and invitations that were over a month ago.
func (s *Store) Tidy(ctx context.Context) error {
	for _, some := range []func(context.Context) (int64, error){s.queries.PurgeThingChanges, s.queries.PurgeInvitations} {
		for {
			n, err := some(ctx)
			if err != nil {
				return err
			}
			if n == 0 {
				break
			}
		}
	}
	return nil
}

// Close closes the connections.
func (s *Store) Close() error { return s.pool.Close() }

// within runs do in a transaction that is rolled back if do fails.
func (s *Store) within(ctx context.Context, do func(*db.Queries) error) error {
	tx, err := s.pool.BeginTx(ctx, nil)
	if err != nil {
		return err
	}
	defer tx.Rollback()
	if err := do(s.queries.WithTx(tx)); err != nil {
		return err
	}
	return tx.Commit()
}

// known turns the driver's errors into those of this package.
func known(err error) error {
	var refused *mysql.MySQLError
	switch {
	case errors.Is(err, sql.ErrNoRows):
		return ErrNotFound
	case errors.As(err, &refused) && refused.Number == 1062: // a unique key
		return ErrTaken
	case errors.As(err, &refused) && refused.Number == 1452: // a foreign key: its owner is another club's, or gone
		return ErrNotFound
	}
	return err
}
