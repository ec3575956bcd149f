-- name: AddPublication :exec
INSERT INTO publication (session_id, number, document, schedule, head)
SELECT s.id, COALESCE((SELECT MAX(p.number) FROM publication p WHERE p.session_id = s.id), 0) + 1, e.document, e.schedule, s.head
FROM team_session s JOIN plan_edition e ON e.session_id = s.id AND e.number = s.head
WHERE s.id = ?;

-- name: PublishedHeads :many
SELECT number, head, published_at FROM publication WHERE session_id = ? ORDER BY number DESC;

-- name: RemovePublication :exec
DELETE FROM publication WHERE session_id = ? AND number = ?;

-- name: NewestPublication :one
SELECT p.number, p.head, p.published_at, l.token, l.season
FROM publication p LEFT JOIN share_link l ON l.session_id = p.session_id AND l.withdrawn_at IS NULL
WHERE p.session_id = ? ORDER BY p.number DESC, l.created_at DESC LIMIT 1;

-- name: AddLink :exec
INSERT INTO share_link (token, session_id, secret) VALUES (?, ?, ?);

-- name: LiveLink :one
SELECT token FROM share_link WHERE session_id = ? AND withdrawn_at IS NULL ORDER BY created_at DESC LIMIT 1;

-- name: WithdrawLinks :execrows
UPDATE share_link SET withdrawn_at = CURRENT_TIMESTAMP(6) WHERE session_id = ? AND withdrawn_at IS NULL;

-- name: Shared :one
SELECT l.session_id, COALESCE(l.withdrawn_at, s.removed_at) AS withdrawn_at, l.secret, l.season, s.start_at, s.club_id, p.number, p.document, p.schedule, p.published_at
FROM share_link l
         JOIN publication p ON p.session_id = l.session_id
         JOIN team_session s ON s.id = l.session_id
WHERE l.token = ?
ORDER BY p.number DESC
LIMIT 1;

-- name: LinkSecret :one
SELECT secret FROM share_link WHERE session_id = ? AND withdrawn_at IS NULL ORDER BY created_at DESC LIMIT 1;

-- name: SetSeason :exec
UPDATE share_link SET season = ? WHERE session_id = ? AND withdrawn_at IS NULL;
