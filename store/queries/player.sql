-- name: Players :many
SELECT id, squad_id, number, first, last, position, foot, hand, bats, level, build, own_lines, forms, notes, edition FROM player
WHERE club_id = ? AND removed_at IS NULL ORDER BY squad_id, id;

-- name: PlayerForUpdate :one
SELECT id, squad_id, number, first, last, position, foot, hand, bats, level, build, own_lines, forms, notes, edition FROM player
WHERE club_id = ? AND id = ? AND removed_at IS NULL FOR UPDATE;

-- name: AddPlayer :execlastid
INSERT INTO player (club_id, squad_id, number, first, last, position, foot, hand, bats, level, build, own_lines, forms, notes) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?);

-- name: ChangePlayer :exec
UPDATE player SET number = ?, first = ?, last = ?, position = ?, foot = ?, hand = ?, bats = ?, level = ?, build = ?, own_lines = ?, forms = ?, notes = ?, edition = edition + 1, removed_at = NULL
WHERE club_id = ? AND id = ?;

-- name: RemovePlayer :exec
UPDATE player SET removed_at = CURRENT_TIMESTAMP(6), edition = edition + 1 WHERE club_id = ? AND id = ?;

-- name: Rulings :many
SELECT id, player_id, no_jumps, no_overhead, max_effort, max_minutes, spare, from_day, until_day, review_day, '' AS reason, edition FROM ruling
WHERE club_id = ? ORDER BY player_id, id;

-- name: ReasonsOf :many
SELECT r.id, r.reason, TRIM(CONCAT(p.first, ' ', p.last)) AS name FROM ruling r JOIN player p ON p.id = r.player_id WHERE r.club_id = ? AND r.player_id = ? AND r.reason <> '';

-- name: RulingForUpdate :one
SELECT id, player_id, no_jumps, no_overhead, max_effort, max_minutes, spare, from_day, until_day, review_day, reason, edition FROM ruling
WHERE club_id = ? AND id = ? FOR UPDATE;

-- name: AddRuling :execlastid
INSERT INTO ruling (id, club_id, player_id, no_jumps, no_overhead, max_effort, max_minutes, spare, from_day, until_day, review_day, reason)
VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?);

-- name: ChangeRuling :exec
UPDATE ruling SET no_jumps = ?, no_overhead = ?, max_effort = ?, max_minutes = ?, spare = ?, from_day = ?, until_day = ?, review_day = ?, reason = ?, edition = edition + 1
WHERE club_id = ? AND id = ?;

-- name: RemoveRuling :exec
DELETE FROM ruling WHERE club_id = ? AND id = ?;

-- name: Trials :many
SELECT id, player_id, test, unit, better, day, part, mean, edition FROM trial WHERE club_id = ? ORDER BY player_id, id;

-- name: TrialTries :many
SELECT trial_id, result FROM trial_try JOIN trial ON trial.id = trial_try.trial_id WHERE trial.club_id = ? ORDER BY trial_id, number;

-- name: TriesOf :many
SELECT result FROM trial_try WHERE trial_id = ? ORDER BY number;

-- name: TrialForUpdate :one
SELECT id, player_id, test, unit, better, day, part, mean, edition FROM trial WHERE club_id = ? AND id = ? FOR UPDATE;

-- name: AddTrial :execlastid
INSERT INTO trial (id, club_id, player_id, test, unit, better, day, part, mean) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?);

-- name: ChangeTrial :exec
UPDATE trial SET test = ?, unit = ?, better = ?, day = ?, part = ?, mean = ?, edition = edition + 1 WHERE club_id = ? AND id = ?;

-- name: RemoveTrial :exec
DELETE FROM trial WHERE club_id = ? AND id = ?;

-- name: RemoveTries :exec
DELETE FROM trial_try WHERE trial_id = ?;

-- name: AddTry :exec
INSERT INTO trial_try (trial_id, number, result) VALUES (?, ?, ?);

-- name: LeftPlayers :many
SELECT id, first, last FROM player WHERE club_id = ? AND squad_id = ? AND removed_at IS NOT NULL;

-- name: BringBack :execrows
UPDATE player SET removed_at = NULL, number = NULL, edition = edition + 1 WHERE club_id = ? AND squad_id = ? AND id = ? AND removed_at IS NOT NULL;

-- name: EraseRulings :exec
DELETE FROM ruling WHERE club_id = ? AND player_id = ?;

-- name: EraseTrials :exec
DELETE FROM trial WHERE club_id = ? AND player_id = ?;

-- name: EraseChanges :exec
DELETE FROM thing_change WHERE club_id = ?;

-- name: ErasePlayer :exec
DELETE FROM player WHERE club_id = ? AND id = ?;

-- name: EveryPlayer :many
SELECT id, squad_id, first, last, removed_at IS NOT NULL AS gone FROM player WHERE club_id = ? ORDER BY id;

-- name: NamesOfClub :many
SELECT id, first, last FROM player WHERE club_id = ? AND id <> ?;

-- name: LoseName :exec
UPDATE player SET removed_at = COALESCE(removed_at, CURRENT_TIMESTAMP(6)), number = NULL, first = ?, last = '', notes = '', own_lines = '', forms = '', build = '', edition = edition + 1 WHERE club_id = ? AND id = ?;

-- name: AddErasing :exec
INSERT INTO erasing (player_id, club_id, first, last) VALUES (?, ?, ?, ?);

-- name: Erasing :many
SELECT player_id, club_id, first, last FROM erasing ORDER BY player_id LIMIT 100;

-- name: Erased :exec
DELETE FROM erasing WHERE player_id = ?;
