-- name: AddHandedOut :exec
INSERT INTO handed_out (token, club_id, routine) VALUES (?, ?, ?);

-- name: HandedOut :one
SELECT token FROM handed_out WHERE club_id = ? AND routine = ? AND withdrawn_at IS NULL ORDER BY made_at LIMIT 1;

-- name: Handed :one
SELECT club_id, routine FROM handed_out WHERE token = ? AND withdrawn_at IS NULL;

-- name: WithdrawHanded :exec
UPDATE handed_out SET withdrawn_at = CURRENT_TIMESTAMP(6) WHERE club_id = ? AND routine = ? AND withdrawn_at IS NULL;
