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

-- name: RecentDocuments :many
SELECT e.document
FROM team_session s
         JOIN squad ON squad.id = s.squad_id
         JOIN plan_edition e ON e.session_id = s.id AND e.number = s.head
WHERE squad.club_id = ? AND s.squad_id = ? AND s.removed_at IS NULL
ORDER BY s.start_at DESC, s.id DESC
LIMIT 6;
