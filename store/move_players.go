package store

import (
	"cmp"
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"slices"
	"strings"
)

// movePlayers is the migration that moves players, rulings and tests out of the
// table of things into their own, with their ids, and lets each plan name its
// players' rows. Players who had left come back as rows that are removed: what is
// written down of changes still says who they were. It knows the tables and
// documents as they were then, not as the code has them now.
func movePlayers(ctx context.Context, tx *sql.Tx) error {
	for _, step := range []func(context.Context, *sql.Tx) error{addPlayers, addLeavers, addRulings, addTrials,
		nameRows} {
		if err := step(ctx, tx); err != nil {
			return err
		}
	}
	_, err := tx.ExecContext(ctx, "DELETE FROM thing WHERE kind IN ('player', 'restriction', 'trial')")
	return err
}

const addPlayer = `INSERT INTO player (id, club_id, squad_id, removed_at, number, first, last, position, foot, hand, level, build, notes, edition)
SELECT p.id, p.club_id, p.owner, p.removed_at, NULLIF(JSON_VALUE(p.body, '$.number'), 0), JSON_VALUE(p.body, '$.first'), JSON_VALUE(p.body, '$.last'),
       COALESCE(JSON_VALUE(p.body, '$.position'), ''), COALESCE(JSON_VALUE(p.body, '$.foot'), ''), COALESCE(JSON_VALUE(p.body, '$.hand'), ''),
       COALESCE(JSON_VALUE(p.body, '$.level'), ''), COALESCE(JSON_VALUE(p.body, '$.build'), ''), COALESCE(JSON_VALUE(p.body, '$.notes'), ''), p.edition
FROM `

func addPlayers(ctx context.Context, tx *sql.Tx) error {
	_, err := tx.ExecContext(ctx,
		addPlayer+"(SELECT id, club_id, owner, body, edition, CAST(NULL AS DATETIME(6)) AS removed_at FROM "+
			"thing WHERE kind = 'player') p ORDER BY p.id")
	return err
}

// addLeavers adds players who are not there any more as they were last.
func addLeavers(ctx context.Context, tx *sql.Tx) error {
	type leaver struct {
		club, squad uint64
		body, at    string
	}
	left := map[uint64]leaver{}
	rows, err := tx.QueryContext(ctx, "SELECT club_id, made_at, changes FROM thing_change ORDER BY id")
	if err != nil {
		return err
	}
	defer rows.Close()
	for rows.Next() {
		var club uint64
		var at string
		var changes []byte
		if err := rows.Scan(&club, &at, &changes); err != nil {
			return err
		}
		var lines []struct {
			ID            uint64
			Kind          string
			Owner         uint64
			Before, After json.RawMessage
		}
		if err := json.Unmarshal(changes, &lines); err != nil {
			return fmt.Errorf("a change of club %d: %w", club, err)
		}
		at = strings.NewReplacer("T", " ", "Z", "").Replace(at)
		for _, l := range lines {
			if body := cmp.Or(string(l.After), string(l.Before)); l.Kind == "player" && body != "" {
				left[l.ID] = leaver{club: club, squad: l.Owner, body: body, at: at}
			}
		}
	}
	if err := rows.Err(); err != nil {
		return err
	}
	for id, l := range left {
		_, err := tx.ExecContext(ctx,
			addPlayer+`(SELECT CAST(? AS UNSIGNED) AS id, s.club_id, s.id AS owner, ? AS body, 1 AS edition, CAST(? AS DATETIME(6)) AS removed_at FROM squad s WHERE s.id = ? AND s.club_id = ?) p
WHERE p.id NOT IN (SELECT id FROM player)`, id, l.body, l.at, l.squad, l.club)
		if err != nil {
			return err
		}
	}
	return nil
}

func addRulings(ctx context.Context, tx *sql.Tx) error {
	_, err := tx.ExecContext(ctx, `INSERT INTO ruling (id, club_id, player_id, no_jumps, no_overhead, max_effort, max_minutes, spare, from_day, until_day, review_day, reason, edition)
SELECT t.id, t.club_id, t.owner, COALESCE(JSON_VALUE(t.body, '$.no_jumps'), 0), COALESCE(JSON_VALUE(t.body, '$.no_overhead'), 0),
       COALESCE(JSON_VALUE(t.body, '$.max_effort'), 0), COALESCE(JSON_VALUE(t.body, '$.max_minutes'), 0),
       COALESCE(REPLACE(REPLACE(REPLACE(REPLACE(JSON_COMPACT(JSON_QUERY(t.body, '$.spare')), '[', ''), ']', ''), '"', ''), ', ', ','), ''),
       JSON_VALUE(t.body, '$.from'), JSON_VALUE(t.body, '$.until'), JSON_VALUE(t.body, '$.review'), COALESCE(JSON_VALUE(t.body, '$.reason'), ''), t.edition
FROM thing t JOIN player ON player.id = t.owner AND player.club_id = t.club_id WHERE t.kind = 'restriction' ORDER BY t.id`)
	return err
}

func addTrials(ctx context.Context, tx *sql.Tx) error {
	_, err := tx.ExecContext(ctx, `INSERT INTO trial (id, club_id, player_id, test, unit, better, day, edition)
SELECT t.id, t.club_id, t.owner, JSON_VALUE(t.body, '$.test'), COALESCE(JSON_VALUE(t.body, '$.unit'), ''), JSON_VALUE(t.body, '$.better'), JSON_VALUE(t.body, '$.day'), t.edition
FROM thing t JOIN player ON player.id = t.owner AND player.club_id = t.club_id WHERE t.kind = 'trial' ORDER BY t.id`)
	if err != nil {
		return err
	}
	_, err = tx.ExecContext(ctx, `INSERT INTO trial_try (trial_id, number, result)
SELECT trial.id, tries.number, tries.result FROM trial JOIN thing ON thing.id = trial.id,
     JSON_TABLE(thing.body, '$.tries[*]' COLUMNS (number FOR ORDINALITY, result DOUBLE PATH '$')) tries`)
	return err
}

// nameRows writes into each plan which rows of the club its players are: those of
// the same name in its squad, or else in the club, where there is only one.
func nameRows(ctx context.Context, tx *sql.Tx) error {
	sessions, err := column(ctx, tx, "SELECT id FROM team_session")
	if err != nil {
		return err
	}
	for _, id := range sessions {
		known, err := rowsByName(ctx, tx, id)
		if err != nil {
			return err
		}
		for _, table := range []string{"plan_edition", "publication"} {
			numbers, err := column(ctx, tx, "SELECT number FROM "+table+" WHERE session_id = ?", id)
			if err != nil {
				return err
			}
			for _, number := range numbers {
				if err := nameIn(ctx, tx, table, id, number, known); err != nil {
					return fmt.Errorf("%s %d of session %d: %w", table, number, id, err)
				}
			}
		}
	}
	return nil
}

// column reads whole numbers.
func column(ctx context.Context, tx *sql.Tx, query string, args ...any) (list []uint64, err error) {
	rows, err := tx.QueryContext(ctx, query, args...)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	for rows.Next() {
		var n uint64
		if err := rows.Scan(&n); err != nil {
			return nil, err
		}
		list = append(list, n)
	}
	return list, rows.Err()
}

// rowsByName are the rows of a session's club by the players' names in small
// letters; those of its own squad count before others.
func rowsByName(ctx context.Context, tx *sql.Tx, session uint64) (map[string]uint64, error) {
	rows, err := tx.QueryContext(ctx, `SELECT p.id, LOWER(CONCAT(p.first, ' ', p.last)), p.squad_id = s.squad_id FROM player p JOIN team_session s ON s.club_id = p.club_id
WHERE s.id = ? AND p.removed_at IS NULL`, session)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var own, others = map[string][]uint64{}, map[string][]uint64{}
	for rows.Next() {
		var id uint64
		var name string
		var of bool
		if err := rows.Scan(&id, &name, &of); err != nil {
			return nil, err
		}
		if of {
			own[name] = append(own[name], id)
		} else {
			others[name] = append(others[name], id)
		}
	}
	known := map[string]uint64{}
	for _, names := range []map[string][]uint64{others, own} {
		for name, ids := range names {
			if len(ids) == 1 {
				known[name] = ids[0]
			} else {
				delete(known, name)
			}
		}
	}
	return known, rows.Err()
}

// nameIn writes the rows of its players into one document.
func nameIn(ctx context.Context, tx *sql.Tx, table string, session, number uint64, known map[string]uint64) error {
	var text []byte
	if err := tx.QueryRowContext(ctx, "SELECT document FROM "+table+" WHERE session_id = ? AND number = ?", session,
		number).Scan(&text); err != nil {
		return err
	}
	document, err := withRows(text, known)
	if err != nil {
		return err
	}
	_, err = tx.ExecContext(ctx, "UPDATE "+table+" SET document = ? WHERE session_id = ? AND number = ?", document,
		session, number)
	return err
}

// withRows is a plan's document in which players name their row, each at most
// once.
func withRows(text []byte, known map[string]uint64) (string, error) {
	var document map[string]json.RawMessage
	if err := json.Unmarshal(text, &document); err != nil {
		return "", err
	}
	var players []map[string]any
	if err := json.Unmarshal(document["players"], &players); err != nil {
		return "", err
	}
	var named []uint64
	for _, p := range players {
		first, _ := p["first"].(string)
		last, _ := p["last"].(string)
		if id := known[strings.ToLower(first+" "+last)]; id > 0 && !slices.Contains(named, id) {
			p["roster"], named = id, append(named, id)
		}
	}
	var err error
	if document["players"], err = json.Marshal(players); err != nil {
		return "", err
	}
	whole, err := json.Marshal(document)
	return string(whole), err
}
