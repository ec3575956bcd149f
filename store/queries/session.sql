-- name: AddSession :execlastid
INSERT INTO team_session (club_id, squad_id, kind, title, start_at, time_zone, digest) VALUES (?, ?, ?, ?, ?, ?, ?);

-- name: SessionsFrom :many
SELECT s.id, s.revision, s.head, s.digest, squad.name AS squad_name, EXISTS (SELECT 1 FROM publication p WHERE p.session_id = s.id) AS published
FROM team_session s
         STRAIGHT_JOIN squad ON squad.id = s.squad_id -- else the digests of all are sorted
WHERE s.club_id = ? AND s.start_at >= ? AND s.removed_at IS NULL
ORDER BY s.start_at, s.id
LIMIT ?;

-- name: CountSessionsFrom :one
SELECT COUNT(*) FROM team_session WHERE club_id = ? AND start_at >= ? AND removed_at IS NULL;

-- name: Session :one
SELECT s.id, s.head, s.revision, squad.name AS squad_name, e.document, e.schedule, e.engine, e.parent, e.summary, e.made_at, e.made_by,
       COALESCE(a.name, '') AS maker
FROM team_session s
         JOIN squad ON squad.id = s.squad_id
         JOIN plan_edition e ON e.session_id = s.id AND e.number = s.head
         LEFT JOIN account a ON a.id = e.made_by
WHERE s.id = ? AND s.club_id = ? AND s.removed_at IS NULL;

-- name: LatestSessions :many
SELECT e.document
FROM team_session s JOIN plan_edition e ON e.session_id = s.id AND e.number = s.head
WHERE s.club_id = ? AND s.squad_id = ? AND s.kind = ? AND s.removed_at IS NULL
ORDER BY s.start_at DESC, s.id DESC
LIMIT 20;

-- name: EarlierDigests :many
SELECT s.digest
FROM team_session s JOIN team_session present ON present.squad_id = s.squad_id AND present.kind = s.kind
WHERE present.id = ? AND s.id <> present.id AND s.start_at < present.start_at AND s.removed_at IS NULL AND s.digest IS NOT NULL
ORDER BY s.start_at DESC, s.id DESC
LIMIT ?;

-- name: RecentDocuments :many
SELECT e.document
FROM team_session s JOIN plan_edition e ON e.session_id = s.id AND e.number = s.head
WHERE s.club_id = ? AND s.squad_id = ? AND s.removed_at IS NULL
ORDER BY s.start_at DESC, s.id DESC
LIMIT 6;

-- name: LockSession :one
SELECT s.head, s.revision, CAST((SELECT MAX(e.number) FROM plan_edition e WHERE e.session_id = s.id) AS UNSIGNED) AS newest
FROM team_session s
WHERE s.id = ? AND s.club_id = ? AND s.removed_at IS NULL FOR UPDATE;

-- name: AddEdition :exec
INSERT INTO plan_edition (session_id, number, parent, document, schedule, engine, summary, made_by, made_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?);

-- name: Edition :one
SELECT document, schedule, engine FROM plan_edition WHERE session_id = ? AND number = ?;

-- name: Parent :one
SELECT parent FROM plan_edition WHERE session_id = ? AND number = ?;

-- name: NextEdition :one
SELECT number, summary FROM plan_edition WHERE session_id = ? AND parent = ? ORDER BY number DESC LIMIT 1;

-- name: SetHead :exec
UPDATE team_session SET head = ?, revision = revision + 1, title = ?, start_at = ?, time_zone = ?, digest = ? WHERE id = ?;

-- name: FirstHead :exec
UPDATE team_session SET head = 1 WHERE id = ?;

-- name: Refitted :exec
UPDATE plan_edition SET schedule = ?, engine = ?, cuts = NULL WHERE session_id = ? AND number = ?;

-- name: SetDigest :exec
UPDATE team_session SET digest = ? WHERE id = ? AND head = ?;

-- name: Cuts :one
SELECT cuts FROM plan_edition WHERE session_id = ? AND number = ? AND engine = ?;

-- name: SetCuts :exec
UPDATE plan_edition SET cuts = ? WHERE session_id = ? AND number = ? AND engine = ?;

-- name: EditionTree :many
SELECT number, parent, made_at FROM plan_edition WHERE session_id = ? ORDER BY number;

-- name: Reparent :exec
UPDATE plan_edition SET parent = ? WHERE session_id = ? AND number = ?;

-- name: RemoveEdition :exec
DELETE FROM plan_edition WHERE session_id = ? AND number = ?;

-- name: RemoveSession :execrows
UPDATE team_session SET removed_at = CURRENT_TIMESTAMP(6) WHERE id = ? AND club_id = ? AND removed_at IS NULL;

-- name: RestoreSession :execrows
UPDATE team_session SET removed_at = NULL WHERE id = ? AND club_id = ? AND removed_at IS NOT NULL;

-- name: LooseEditions :exec
UPDATE plan_edition SET parent = NULL WHERE session_id = ?;

-- name: SessionIDs :many
SELECT id FROM team_session WHERE club_id = ? ORDER BY start_at, id;

-- name: HeadDocument :one
SELECT s.start_at, e.document FROM team_session s JOIN plan_edition e ON e.session_id = s.id AND e.number = s.head WHERE s.id = ?;

-- name: EditionDocuments :many
SELECT number, document, schedule, summary FROM plan_edition WHERE session_id = ?;

-- name: RewriteEdition :exec
UPDATE plan_edition SET document = ?, schedule = ?, summary = ? WHERE session_id = ? AND number = ?;

-- name: PublicationDocuments :many
SELECT number, document, schedule FROM publication WHERE session_id = ?;

-- name: RewritePublication :exec
UPDATE publication SET document = ?, schedule = ? WHERE session_id = ? AND number = ?;

-- name: ForgetDigest :exec
UPDATE team_session SET digest = NULL WHERE id = ?;

-- name: SessionsToThin :many
SELECT id, head FROM team_session WHERE thinned = ? AND start_at < ? AND head IS NOT NULL ORDER BY start_at, id LIMIT 500;

-- name: SessionThinned :exec
UPDATE team_session SET thinned = ? WHERE id = ?;

-- name: History :many
SELECT e.number, e.summary, e.made_at, COALESCE(a.name, '') AS made_by
FROM plan_edition e
         JOIN team_session s ON s.id = e.session_id
         LEFT JOIN account a ON a.id = e.made_by
WHERE e.session_id = ? AND s.club_id = ? AND s.removed_at IS NULL
ORDER BY e.number DESC
LIMIT ?;

-- name: AddRevision :exec
INSERT IGNORE INTO plan_revision (session_id, revision, head) VALUES (?, ?, ?);

-- name: RevisionDocument :one
SELECT e.document, e.schedule, e.engine
FROM plan_revision r JOIN plan_edition e ON e.session_id = r.session_id AND e.number = r.head
WHERE r.session_id = ? AND r.revision = ?;

-- name: PurgeRevisions :exec
DELETE FROM plan_revision WHERE session_id = ? AND revision < ?;

-- name: InForce :one
SELECT s.revision, e.summary, e.made_at, e.made_by, COALESCE(a.name, '') AS maker
FROM team_session s
         JOIN plan_edition e ON e.session_id = s.id AND e.number = s.head
         LEFT JOIN account a ON a.id = e.made_by
WHERE s.id = ? AND s.club_id = ? AND s.removed_at IS NULL;

-- name: AnySession :one
SELECT EXISTS(SELECT 1 FROM team_session WHERE club_id = ? AND removed_at IS NULL);
