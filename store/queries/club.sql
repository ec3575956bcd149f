-- name: CountClubs :one
SELECT COUNT(*) FROM club;

-- name: AddClub :execlastid
INSERT INTO club (name, sport) VALUES (?, ?);

-- name: ClubName :one
SELECT name FROM club WHERE id = ?;

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

-- name: LockClub :one
SELECT id FROM club WHERE id = ? FOR UPDATE;

-- name: HoldClub :one
SELECT id FROM club WHERE id = ? LOCK IN SHARE MODE;
