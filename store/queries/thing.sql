-- name: Things :many
SELECT id, owner, body, edition FROM thing WHERE club_id = ? AND kind = ? ORDER BY owner, id;

-- name: ThingForUpdate :one
SELECT id, kind, owner, unique_as, body, edition FROM thing WHERE club_id = ? AND id = ? FOR UPDATE;

-- name: AddThing :execlastid
INSERT INTO thing (id, club_id, kind, owner, unique_as, body) VALUES (?, ?, ?, ?, ?, ?);

-- name: ChangeThing :exec
UPDATE thing SET unique_as = ?, body = ?, edition = edition + 1 WHERE club_id = ? AND id = ?;

-- name: RemoveThing :exec
DELETE FROM thing WHERE club_id = ? AND id = ?;

-- name: AddThingChange :exec
INSERT INTO thing_change (club_id, account_id, summary, changes) VALUES (?, ?, ?, ?);

-- name: NewestThingChange :one
SELECT id, summary, changes, made_at FROM thing_change WHERE club_id = ? AND account_id = ? AND undone_at IS NULL AND made_at > NOW(6) - INTERVAL 1 DAY ORDER BY id DESC LIMIT 1;

-- name: ThingChangeUndone :exec
UPDATE thing_change SET undone_at = CURRENT_TIMESTAMP(6) WHERE id = ?;

-- name: AddInvitation :exec
INSERT INTO invitation (token_hash, club_id, name, email, role, made_by, expires_at) VALUES (?, ?, ?, ?, ?, ?, ?);

-- name: Invitation :one
SELECT i.club_id, i.name, i.email, i.role, i.expires_at, i.used_at, club.name AS club_name FROM invitation i JOIN club ON club.id = i.club_id WHERE i.token_hash = ?;

-- name: UseInvitation :execrows
UPDATE invitation SET used_at = CURRENT_TIMESTAMP WHERE token_hash = ? AND used_at IS NULL AND expires_at > CURRENT_TIMESTAMP;

-- name: Accounts :many
SELECT id, email, name, role FROM account WHERE club_id = ? ORDER BY id;
