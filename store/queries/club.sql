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

-- name: AddPlayer :execlastid
INSERT INTO player (squad_id, number, first, last, position, foot, hand) VALUES (?, ?, ?, ?, ?, ?, ?);

-- name: AddVenue :execlastid
INSERT INTO venue (club_id, name, time_zone) VALUES (?, ?, ?);

-- name: AddZone :execlastid
INSERT INTO zone (venue_id, name, capacity, lanes, metres, surface) VALUES (?, ?, ?, ?, ?, ?);

-- name: LockFounding :exec
SELECT id FROM founding WHERE id = 1 FOR UPDATE;
