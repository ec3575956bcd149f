package store

import (
	"context"
	"crypto/sha256"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"github.com/pressly/goose/v3"
)

//go:embed migrations/*.sql
var migrations embed.FS

// Migrate brings the schema up to date. It may be cut short at any moment, with the process or
// with the database, and called again: MariaDB commits each change of the schema by itself, so
// every statement is written down before and after it runs, and what was done is not done
// again.
func (s *Store) Migrate(ctx context.Context) error {
	return s.MigrateTo(ctx, math.MaxInt64)
}

// MigrateTo brings the schema to a version, up or down. There is no way down past
// what would lose something.
func (s *Store) MigrateTo(ctx context.Context, version int64) error {
	err := s.migrateTo(ctx, version)
	if err != nil {
		return fmt.Errorf("the schema cannot be brought up to date: %w", err)
	}
	return nil
}

// Pending is the version that the schema has, 0 where there is none yet, and whether there is
// a newer one.
func (s *Store) Pending(ctx context.Context) (version int64, pending bool, err error) {
	err = s.queryRow(ctx, "SELECT COALESCE(MAX(version_id), 0) FROM goose_db_version WHERE is_applied", &version)
	if isNoTable(err) {
		return 0, true, nil
	}
	files, err2 := fs.Glob(migrations, "migrations/*.sql")
	newest, err3 := versionOf(files[len(files)-1])
	return version, version < newest, errors.Join(err, err2, err3)
}

func (s *Store) queryRow(ctx context.Context, query string, into any) error {
	return s.pool.QueryRowContext(ctx, query).Scan(into)
}

// migratedWithin is how many seconds one process waits for another that migrates.
const migratedWithin = 600

func (s *Store) migrateTo(ctx context.Context, version int64) error {
	pool := sql.OpenDB(s.patient)
	defer pool.Close()
	conn, err := pool.Conn(ctx)
	if err != nil {
		return err
	}
	defer conn.Close()
	// What runs holds the lock by its own connection, which the server keeps until the statement
	// is over: also that of a process that was killed in it.
	var got sql.NullInt64
	if err := conn.QueryRowContext(ctx, "SELECT GET_LOCK(CONCAT('cuestart ', DATABASE()), ?)",
		migratedWithin).Scan(&got); err != nil || got.Int64 != 1 {
		return errors.Join(err, errors.New("another Cue Start is bringing it up to date"))
	}
	defer conn.ExecContext(context.WithoutCancel(ctx), "SELECT RELEASE_LOCK(CONCAT('cuestart ', DATABASE()))")
	all, err := steps(conn)
	if err != nil {
		return err
	}
	if err := begun(ctx, conn); err != nil {
		return err
	}
	provider, err := goose.NewProvider(goose.DialectMySQL, pool, nil, goose.WithGoMigrations(all...))
	if err != nil {
		return err
	}
	present, err := provider.GetDBVersion(ctx)
	if err == nil {
		_, err = conn.ExecContext(ctx,
			"DELETE FROM migration_step WHERE NOT down AND version <= ? OR down AND version > ?", present, present)
	}
	if err == nil && present > version {
		_, err = provider.DownTo(ctx, version)
	} else if err == nil {
		_, err = provider.UpTo(ctx, version)
	}
	return err
}

// begun makes the table of what was done, and mends that of versions where making it was cut
// short.
func begun(ctx context.Context, conn *sql.Conn) error {
	_, err := conn.ExecContext(ctx, `CREATE TABLE IF NOT EXISTS migration_step (
	version BIGINT  NOT NULL,
	down    BOOLEAN NOT NULL,
	step    INT     NOT NULL,
	before_ CHAR(64) CHARACTER SET ascii NOT NULL DEFAULT '', -- what the schema was when it began
	done    BOOLEAN NOT NULL,
	PRIMARY KEY (version, down, step)
)`)
	if err != nil {
		return err
	}
	_, err = conn.ExecContext(ctx,
		"INSERT INTO goose_db_version (version_id, is_applied) SELECT 0, TRUE FROM DUAL WHERE NOT EXISTS "+
			"(SELECT 1 FROM goose_db_version)")
	if isNoTable(err) {
		return nil
	}
	return err
}

// steps are the migrations, those in files run step by step on a connection.
func steps(conn *sql.Conn) (all []*goose.Migration, err error) {
	all = append(all, goose.NewGoMigration(6, &goose.GoFunc{RunTx: movePlayers}, nil))
	files, err := fs.Glob(migrations, "migrations/*.sql")
	for _, name := range files {
		text, problem := fs.ReadFile(migrations, name)
		version, problem2 := versionOf(name)
		if err = errors.Join(err, problem, problem2); err != nil {
			return nil, err
		}
		up, down, _ := strings.Cut(string(text), "-- +goose Down")
		run := func(text string, down bool) *goose.GoFunc {
			return &goose.GoFunc{RunDB: func(ctx context.Context, _ *sql.DB) error {
				return journal{conn, version, down}.run(ctx, statements(text))
			}}
		}
		all = append(all, goose.NewGoMigration(version, run(up, false), run(down, true)))
	}
	return all, err
}

func versionOf(name string) (int64, error) {
	number, _, _ := strings.Cut(strings.TrimPrefix(name, "migrations/"), "_")
	return strconv.ParseInt(number, 10, 64)
}

var dropped = regexp.MustCompile(`(?i)^DROP TABLE ([^;]*)$`)

var remarks = regexp.MustCompile(`(?m)(^|\s)--(\s.*)?$`)

// statements are those of a file. One that drops several tables is one for each: of several
// the server may drop some and be cut short.
func statements(text string) (list []string) {
	for _, one := range strings.Split(remarks.ReplaceAllString(text, ""), ";") {
		one = strings.TrimSpace(one)
		if drops := dropped.FindStringSubmatch(one); drops != nil {
			for _, table := range strings.Split(drops[1], ",") {
				list = append(list, "DROP TABLE "+strings.TrimSpace(table))
			}
		} else if one != "" {
			list = append(list, one)
		}
	}
	return list
}

// journal runs the statements of a migration, and writes down which are done.
type journal struct {
	conn    *sql.Conn
	version int64
	down    bool
}

func (j journal) run(ctx context.Context, statements []string) error {
	for n, statement := range statements {
		do := j.data
		if word := strings.ToUpper(strings.Fields(statement)[0]); slices.Contains([]string{"ALTER", "CREATE", "DROP"},
			word) {
			do = j.schema
		}
		if err := do(ctx, n, statement); err != nil {
			return fmt.Errorf("version %d, step %d: %w", j.version, n+1, err)
		}
	}
	return nil
}

// known tells whether a step has begun, what the schema was then, and whether it is done.
func (j journal) known(ctx context.Context, n int) (before string, has, done bool, err error) {
	err = j.conn.QueryRowContext(ctx,
		"SELECT before_, done FROM migration_step WHERE version = ? AND down = ? AND step = ?", j.version, j.down,
		n).Scan(&before, &done)
	if errors.Is(err, sql.ErrNoRows) {
		return "", false, false, nil
	}
	return before, true, done, err
}

// data runs a statement that changes rows, in one transaction with that it is done.
func (j journal) data(ctx context.Context, n int, statement string) error {
	if _, _, done, err := j.known(ctx, n); err != nil || done {
		return err
	}
	tx, err := j.conn.BeginTx(ctx, nil)
	if err != nil {
		return err
	}
	defer tx.Rollback()
	if _, err := tx.ExecContext(ctx, statement); err != nil {
		return err
	}
	if _, err := tx.ExecContext(ctx, "INSERT INTO migration_step (version, down, step, done) VALUES (?, ?, ?, TRUE)",
		j.version, j.down, n); err != nil {
		return err
	}
	return tx.Commit()
}

// schema runs a statement that changes the schema, which the server does whole or not at all:
// where it was begun and the schema is another than then, it was done.
func (j journal) schema(ctx context.Context, n int, statement string) error {
	before, has, done, err := j.known(ctx, n)
	if err != nil || done {
		return err
	}
	is, err := j.fingerprint(ctx)
	if err != nil {
		return err
	}
	if !has {
		if _, err := j.conn.ExecContext(ctx,
			"INSERT INTO migration_step (version, down, step, before_, done) VALUES (?, ?, ?, ?, FALSE)", j.version,
			j.down, n, is); err != nil {
			return err
		}
	}
	if !has || before == is {
		if _, err := j.conn.ExecContext(ctx, statement); err != nil {
			return err
		}
	}
	_, err = j.conn.ExecContext(ctx,
		"UPDATE migration_step SET done = TRUE WHERE version = ? AND down = ? AND step = ?", j.version, j.down, n)
	return err
}

var counts = regexp.MustCompile(` AUTO_INCREMENT=\d+`)

// fingerprint tells a schema from another.
func (j journal) fingerprint(ctx context.Context) (string, error) {
	rows, err := j.conn.QueryContext(ctx,
		"SELECT table_name FROM information_schema.tables WHERE table_schema = DATABASE() AND table_name NOT "+
			"IN ('migration_step', 'goose_db_version') ORDER BY table_name")
	if err != nil {
		return "", err
	}
	defer rows.Close()
	var names []string
	for rows.Next() {
		var name string
		if err := rows.Scan(&name); err != nil {
			return "", err
		}
		names = append(names, name)
	}
	if err := rows.Err(); err != nil {
		return "", err
	}
	sum := sha256.New()
	for _, name := range names {
		var text string
		if err := j.conn.QueryRowContext(ctx, "SHOW CREATE TABLE `"+name+"`").Scan(&name, &text); err != nil {
			return "", err
		}
		fmt.Fprintln(sum, counts.ReplaceAllString(text, ""))
	}
	return fmt.Sprintf("%x", sum.Sum(nil)), nil
}
