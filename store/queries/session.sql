-- name: AddSession :execlastid
INSERT INTO team_session (squad_id, kind, title, start_at, time_zone, head) VALUES (?, ?, ?, ?, ?, 1);

-- name: SessionsFrom :many
SELECT s.id, s.title, s.start_at, s.time_zone, s.edition, squad.name AS squad_name, e.document, e.schedule, e.engine,
       (SELECT COUNT(*) FROM publication p WHERE p.session_id = s.id) AS publications
FROM team_session s
         JOIN squad ON squad.id = s.squad_id
         JOIN plan_edition e ON e.session_id = s.id AND e.number = s.head
WHERE squad.club_id = ? AND s.start_at >= ? AND s.removed_at IS NULL
ORDER BY s.start_at, s.id
LIMIT 50;

-- name: Session :one
SELECT s.id, s.title, s.start_at, s.time_zone, s.head, s.edition, squad.name AS squad_name, e.document, e.schedule, e.engine, e.parent, e.summary, e.made_at
FROM team_session s
         JOIN squad ON squad.id = s.squad_id
         JOIN plan_edition e ON e.session_id = s.id AND e.number = s.head
WHERE s.id = ? AND squad.club_id = ? AND s.removed_at IS NULL;

-- name: LatestSession :one
SELECT e.document
FROM team_session s
         JOIN squad ON squad.id = s.squad_id
         JOIN plan_edition e ON e.session_id = s.id AND e.number = s.head
WHERE squad.club_id = ? AND s.squad_id = ? AND s.kind = ? AND s.removed_at IS NULL
ORDER BY s.start_at DESC, s.id DESC
LIMIT 1;

-- name: LockSession :one
SELECT s.head, s.edition, CAST((SELECT MAX(e.number) FROM plan_edition e WHERE e.session_id = s.id) AS UNSIGNED) AS newest
FROM team_session s
         JOIN squad ON squad.id = s.squad_id
WHERE s.id = ? AND squad.club_id = ? AND s.removed_at IS NULL FOR UPDATE;

-- name: AddEdition :exec
INSERT INTO plan_edition (session_id, number, parent, document, schedule, engine, summary, made_by) VALUES (?, ?, ?, ?, ?, ?, ?, ?);

-- name: Edition :one
SELECT number, parent, document, schedule, engine, summary, made_at FROM plan_edition WHERE session_id = ? AND number = ?;

-- name: NextEdition :one
SELECT number, summary FROM plan_edition WHERE session_id = ? AND parent = ? ORDER BY number DESC LIMIT 1;

-- name: SetHead :exec
UPDATE team_session SET head = ?, edition = edition + 1, title = ?, start_at = ?, time_zone = ? WHERE id = ?;

-- name: Refitted :exec
UPDATE plan_edition SET schedule = ?, engine = ? WHERE session_id = ? AND number = ?;

-- name: RemoveSession :execrows
UPDATE team_session s JOIN squad ON squad.id = s.squad_id SET s.removed_at = CURRENT_TIMESTAMP(6) WHERE s.id = ? AND squad.club_id = ? AND s.removed_at IS NULL;

-- name: RestoreSession :execrows
UPDATE team_session s JOIN squad ON squad.id = s.squad_id SET s.removed_at = NULL WHERE s.id = ? AND squad.club_id = ? AND s.removed_at IS NOT NULL;
