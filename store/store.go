// Package store keeps clubs, squads, sessions and their plans in MariaDB. Each method is one use
// case in one transaction; the SQL lies in queries, the schema in migrations.
package store

import (
	"context"
	"database/sql"
	"database/sql/driver"
	"errors"
	"fmt"
	"regexp"
	"syscall"
	"time"

	"github.com/alexedwards/scs/mysqlstore"
	"github.com/alexedwards/scs/v2"
	"github.com/go-sql-driver/mysql"

	"cuestart/mariadb"
	"cuestart/store/db"
)

// Errors that callers tell apart.
var (
	ErrMany     = errors.New("there is too much of this already")
	ErrNotFound = errors.New("there is no such thing in this club")
	ErrStale    = errors.New("somebody else changed this plan meanwhile")
	ErrWaits    = errors.New("medical staff of the club have to confirm this first")
	ErrTaken    = errors.New("this is taken already")
	ErrNothing  = errors.New("there is nothing to undo or redo")
)

// networkWithin is how long the database may be silent; statementWithin how many seconds a
// statement may take, but for migrations.
const (
	networkWithin   = 2 * time.Minute
	statementWithin = "30"
)

// Store is a database of Cue Start, by what lives and dies together in it. All methods may be
// called concurrently.
type Store struct {
	*database
	Accounts Accounts
	Clubs    Clubs
	People   People
	Sessions Sessions
	Shares   Shares
	Runs     Runs
	Logs     Logs
}

type (
	// Accounts are who signs in, who was invited, what is written down, what waits to be sent.
	Accounts struct{ *database }
	// Clubs are clubs and their squads, and the things that they keep.
	Clubs struct{ *database }
	// People are players as persons: what is ruled for them, who is hurt, who is forgotten.
	People struct{ *database }
	// Sessions are sessions with the editions of their plans.
	Sessions struct{ *database }
	// Shares are what is published, its links, and what people say by them.
	Shares struct{ *database }
	// Runs are sessions while they run.
	Runs struct{ *database }
	// Logs are what was done.
	Logs struct{ *database }
)

// database is the connections that all of them share.
type database struct {
	pool    *sql.DB
	patient driver.Connector // for migrations, which may take their time
	queries *db.Queries
}

// Open connects to the database named by dsn, in the form of go-sql-driver, makes it if it is
// missing, and checks that its server will do. It does not migrate.
func Open(ctx context.Context, dsn string) (*Store, error) {
	config, err := mysql.ParseDSN(dsn)
	if err != nil || config.DBName == "" {
		return nil, fmt.Errorf("CUESTART_DSN is not of the form user:password@tcp(host:3306)/database")
	}
	config.ParseTime = true
	config.Loc = time.UTC
	config.InterpolateParams = true
	config.Timeout = 5 * time.Second
	config.ReadTimeout, config.WriteTimeout = networkWithin, networkWithin
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
	patient, err := mysql.NewConnector(config.Clone())
	if err != nil {
		return nil, err
	}
	config.Params["max_statement_time"] = statementWithin
	connector, err := mysql.NewConnector(config)
	if err != nil {
		return nil, err
	}
	pool := sql.OpenDB(connector)
	pool.SetMaxOpenConns(32)
	pool.SetMaxIdleConns(16)
	pool.SetConnMaxIdleTime(5 * time.Minute)
	d := &database{pool: pool, queries: db.New(pool), patient: patient}
	return &Store{database: d, Accounts: Accounts{d}, Clubs: Clubs{d}, People: People{d}, Sessions: Sessions{d},
		Shares: Shares{d}, Runs: Runs{d}, Logs: Logs{d}}, nil
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
	err = server.QueryRowContext(ctx, "SELECT COUNT(*) FROM information_schema.schemata WHERE schema_name = ?",
		name).Scan(&found)
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

// Tidy deletes what nobody can ask for any more, and what the clubs keep no longer, in
// small batches.
func (s *Store) Tidy(ctx context.Context) error {
	for _, some := range []func(context.Context) (int64, error){s.queries.PurgeThingChanges, s.queries.PurgeInvitations,
		s.queries.PurgeSignedIns, s.queries.PurgeResets,
		s.queries.PurgeLetters, s.queries.PurgeBrowsers, s.queries.PurgeAudit, s.queries.PurgeOnce, s.queries.PurgeNews,
		s.queries.ForgetReasons, s.forgetTrials, s.forgetSessions} {
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
	return s.thinOver(ctx)
}

// How long after its start a session is thinned, the first and the second time.
var thinnedAfter = []time.Duration{keptAll + 24*time.Hour, keptDaily + 24*time.Hour}

// thinOver thins what is kept of sessions that were a month ago, and again after a year,
// each once and in a transaction, the oldest first.
func (s *Store) thinOver(ctx context.Context) error {
	for times, after := range thinnedAfter {
		for {
			rows, err := s.queries.SessionsToThin(ctx, db.SessionsToThinParams{Thinned: uint8(times),
				StartAt: time.Now().UTC().Add(-after)})
			if err != nil || len(rows) == 0 {
				if err != nil {
					return err
				}
				break
			}
			for _, row := range rows {
				err := s.within(ctx, func(q *db.Queries) error {
					return errors.Join(thin(ctx, q, row.ID, uint32(row.Head.Int32), time.Now().UTC()),
						q.SessionThinned(ctx, db.SessionThinnedParams{Thinned: uint8(times) + 1, ID: row.ID}))
				})
				if err != nil {
					return err
				}
			}
		}
	}
	return nil
}

// forgetTrials deletes some of the tests that are older than their club keeps them.
func (s *Store) forgetTrials(ctx context.Context) (int64, error) {
	ids, err := s.queries.OldTrials(ctx)
	for _, id := range ids {
		if err == nil {
			err = s.queries.ForgetTrial(ctx, id)
		}
	}
	return int64(len(ids)), err
}

// forgetSessions deletes some of the sessions that are older than their club keeps
// them, each in a transaction.
func (s *Store) forgetSessions(ctx context.Context) (int64, error) {
	ids, err := s.queries.OldSessions(ctx)
	for _, id := range ids {
		if err == nil {
			err = s.within(ctx, func(q *db.Queries) error {
				return errors.Join(q.LooseEditions(ctx, id), q.ForgetSession(ctx, id))
			})
		}
	}
	return int64(len(ids)), err
}

// Close closes the connections.
func (s *Store) Close() error { return s.pool.Close() }

// Once names a change, so that one that is sent twice is made once.
type Once struct {
	Account uint64
	Token   string
}

// ErrDone is returned where a change of that name was made before: nothing is done.
var ErrDone = errors.New("that was saved already")

type onceKey struct{}

// WithOnce has the first transaction under the context write down its name.
func WithOnce(ctx context.Context, o Once) context.Context {
	return context.WithValue(ctx, onceKey{}, &o)
}

// within runs do in a transaction that is rolled back if do fails. Where the context
// names the change, the name is kept with it: a second one of that name fails with
// ErrDone, and a commit that was made although its answer was lost is no failure.
func (s *database) within(ctx context.Context, do func(*db.Queries) error) error {
	tx, err := s.pool.BeginTx(ctx, nil)
	if err != nil {
		return err
	}
	defer tx.Rollback()
	queries := s.queries.WithTx(tx)
	name, _ := ctx.Value(onceKey{}).(*Once)
	named := name != nil && name.Token != ""
	token := ""
	if named {
		token = name.Token
		err := queries.AddOnce(ctx, db.AddOnceParams{AccountID: name.Account, Token: token})
		if errors.Is(known(err), ErrTaken) {
			return ErrDone
		} else if err != nil {
			return err
		}
	}
	if err := do(queries); err != nil {
		return err
	}
	err = tx.Commit()
	if err != nil && named && s.made(ctx, name.Account, token) {
		err = nil
	}
	if err == nil && named {
		name.Token = "" // what else this request does is another change
	}
	return err
}

// made tells whether a change of that name was committed.
func (s *database) made(ctx context.Context, account uint64, token string) bool {
	look, cancel := context.WithTimeout(context.WithoutCancel(ctx), 5*time.Second)
	defer cancel()
	n, err := s.queries.HasOnce(look, db.HasOnceParams{AccountID: account, Token: token})
	return err == nil && n > 0
}

// full is how the server names error 28 of the system in the words of other errors: that a file
// cannot be written (3), a storage engine's (1030), and so on.
var full = regexp.MustCompile(`No space left|(?i:err(no|code|or)):? "?28\b`)

// IsFull tells whether an error is that of a full disk.
func IsFull(err error) bool {
	var refused *mysql.MySQLError
	if !errors.As(err, &refused) {
		return errors.Is(err, syscall.ENOSPC)
	}
	return refused.Number == 1021 || refused.Number == 1114 || full.MatchString(refused.Message)
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

// isNoTable tells whether an error is that there is no such table.
func isNoTable(err error) bool {
	var refused *mysql.MySQLError
	return errors.As(err, &refused) && refused.Number == 1146
}
