-- name: CountClubs :one
SELECT COUNT(*) FROM club;

-- name: AddClub :execlastid
INSERT INTO club (name, sport) VALUES (?, ?);

-- name: ClubName :one
SELECT name FROM club WHERE id = ?;

-- name: AddAccount :execlastid
INSERT INTO account (club_id, email, name, role, password_hash) VALUES (?, ?, ?, ?, ?);

-- name: AccountByEmail :one
SELECT id, club_id, email, name, role, password_hash FROM account WHERE email = ?;

-- name: Account :one
SELECT account.id, account.club_id, account.email, account.name, account.role, club.name AS club_name
FROM account JOIN club ON club.id = account.club_id
WHERE account.id = ?;

-- name: AddSquad :execlastid
INSERT INTO squad (club_id, name, grade) VALUES (?, ?, ?);

-- name: Squads :many
SELECT id, name, grade FROM squad WHERE club_id = ? ORDER BY id;

-- name: LockFounding :exec
SELECT id FROM founding WHERE id = 1 FOR UPDATE;

-- name: Club :one
SELECT name, sport FROM club WHERE id = ?;

-- name: Squad :one
SELECT id, name, grade FROM squad WHERE id = ? AND club_id = ?;

-- name: AddInvitation :exec
INSERT INTO invitation (token_hash, club_id, name, email, role, made_by, expires_at) VALUES (?, ?, ?, ?, ?, ?, ?);

-- name: Invitation :one
SELECT i.club_id, i.name, i.email, i.role, i.expires_at, i.used_at, club.name AS club_name FROM invitation i JOIN club ON club.id = i.club_id WHERE i.token_hash = ?;

-- name: UseInvitation :execrows
UPDATE invitation SET used_at = CURRENT_TIMESTAMP WHERE token_hash = ? AND used_at IS NULL AND expires_at > CURRENT_TIMESTAMP;

-- name: PurgeInvitations :execrows
DELETE FROM invitation WHERE expires_at < CURRENT_TIMESTAMP - INTERVAL 30 DAY LIMIT 1000;

-- name: Accounts :many
SELECT id, email, name, role FROM account WHERE club_id = ? ORDER BY id;
