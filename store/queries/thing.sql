-- name: Things :many
SELECT id, within AS owner, body, edition FROM thing WHERE club_id = ? AND kind = ? ORDER BY within, id;

-- name: ThingForUpdate :one
SELECT id, kind, within AS owner, unique_as, body, edition FROM thing WHERE club_id = ? AND id = ? FOR UPDATE;

-- name: AddThing :execlastid
INSERT INTO thing (id, club_id, kind, squad_id, venue_id, unique_as, body) VALUES (?, ?, ?, ?, ?, ?, ?);

-- name: ChangeThing :exec
UPDATE thing SET unique_as = ?, body = ?, edition = edition + 1 WHERE club_id = ? AND id = ?;

-- name: RemoveThing :exec
DELETE FROM thing WHERE club_id = ? AND id = ?;

-- name: AddThingChange :exec
INSERT INTO thing_change (club_id, account_id, summary, changes) VALUES (?, ?, ?, ?);

-- name: NewestThingChange :one
SELECT id, summary, changes, made_at FROM thing_change
WHERE account_id = ? AND club_id = ? AND undone_at IS NULL AND made_at > NOW(6) - INTERVAL 1 DAY
ORDER BY made_at DESC, id DESC LIMIT 1;

-- name: NewestSummary :one
SELECT summary, made_at FROM thing_change
WHERE account_id = ? AND club_id = ? AND undone_at IS NULL AND made_at > NOW(6) - INTERVAL 1 DAY
ORDER BY made_at DESC, id DESC LIMIT 1;

-- name: ThingChangeUndone :exec
UPDATE thing_change SET undone_at = CURRENT_TIMESTAMP(6) WHERE id = ?;

-- name: PurgeThingChanges :execrows
DELETE FROM thing_change WHERE made_at < NOW(6) - INTERVAL 2 DAY LIMIT 1000;

-- name: BookEdition :one
SELECT book_edition FROM club WHERE id = ?;

-- name: BookChanged :exec
UPDATE club SET book_edition = book_edition + 1 WHERE id = ?;
