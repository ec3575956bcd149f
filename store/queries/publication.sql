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
SELECT number, head, published_at FROM publication WHERE session_id = ? ORDER BY number DESC LIMIT 1;

-- name: AddLink :exec
INSERT INTO share_link (token, session_id, secret) VALUES (?, ?, ?);

-- name: LiveLink :one
SELECT l.token, l.secret, l.season
FROM team_session s
         JOIN team_session own ON own.squad_id = s.squad_id
         JOIN share_link l ON l.session_id = own.id AND l.withdrawn_at IS NULL AND (own.id = s.id OR l.season)
WHERE s.id = ?
ORDER BY l.season DESC, l.created_at DESC LIMIT 1;

-- name: WithdrawLink :exec
UPDATE share_link SET withdrawn_at = CURRENT_TIMESTAMP(6) WHERE token = ? AND withdrawn_at IS NULL;

-- name: SetSeason :exec
UPDATE share_link SET season = ? WHERE token = ? AND withdrawn_at IS NULL;

-- name: Link :one
SELECT l.session_id, l.secret, l.season, s.squad_id, s.club_id, s.start_at, s.removed_at IS NOT NULL AS removed,
       CAST(COALESCE((SELECT MAX(p.number) FROM publication p WHERE p.session_id = s.id), 0) AS UNSIGNED) AS number
FROM share_link l JOIN team_session s ON s.id = l.session_id
WHERE l.token = ? AND l.withdrawn_at IS NULL;

-- name: NextPublished :one
SELECT s.id, s.start_at, CAST(MAX(p.number) AS UNSIGNED) AS number
FROM team_session s JOIN publication p ON p.session_id = s.id
WHERE s.squad_id = ? AND s.removed_at IS NULL AND s.start_at >= ?
GROUP BY s.id, s.start_at
ORDER BY s.start_at, s.id LIMIT 1;

-- name: LastPublished :one
SELECT s.id, s.start_at, CAST(MAX(p.number) AS UNSIGNED) AS number
FROM team_session s JOIN publication p ON p.session_id = s.id
WHERE s.squad_id = ? AND s.removed_at IS NULL
GROUP BY s.id, s.start_at
ORDER BY s.start_at DESC, s.id DESC LIMIT 1;

-- name: PublishedOfSquad :many
SELECT s.id, CAST(MAX(p.number) AS UNSIGNED) AS number, s.removed_at IS NOT NULL AS removed
FROM team_session s JOIN publication p ON p.session_id = s.id
WHERE s.squad_id = ? AND s.start_at >= ?
GROUP BY s.id, s.start_at, s.removed_at
ORDER BY s.start_at, s.id;

-- name: Publication :one
SELECT document, schedule, published_at FROM publication WHERE session_id = ? AND number = ?;

-- name: PersonKeys :many
SELECT person, turn, withdrawn FROM person_key WHERE token = ?;

-- name: RenewKey :exec
INSERT INTO person_key (token, person, turn, withdrawn) VALUES (?, ?, 1, FALSE)
ON DUPLICATE KEY UPDATE turn = turn + 1, withdrawn = FALSE;

-- name: WithdrawKey :exec
INSERT INTO person_key (token, person, turn, withdrawn) VALUES (?, ?, 1, TRUE)
ON DUPLICATE KEY UPDATE turn = turn + 1, withdrawn = TRUE;

-- name: AddNews :exec
INSERT INTO news (session_id, staff) VALUES (?, ?);

-- name: News :many
SELECT id, session_id, staff FROM news WHERE made_at > CURRENT_TIMESTAMP(6) - INTERVAL 5 SECOND;

-- name: PurgeNews :execrows
DELETE FROM news WHERE made_at < CURRENT_TIMESTAMP(6) - INTERVAL 1 HOUR LIMIT 1000;

-- name: SetSeen :exec
INSERT INTO seen (session_id, person, number, own, opened_at) VALUES (?, ?, ?, ?, ?)
ON DUPLICATE KEY UPDATE own = own OR VALUES(own);

-- name: SetAnswered :execrows
UPDATE seen SET answered_at = ? WHERE session_id = ? AND person = ? AND number = ? AND answered_at IS NULL;

-- name: Seen :many
SELECT person, number, own, opened_at, answered_at FROM seen WHERE session_id = ? ORDER BY number;

-- name: CountSeen :one
SELECT COUNT(*) FROM seen s WHERE s.session_id = ? AND s.number = (SELECT MAX(p.number) FROM publication p WHERE p.session_id = s.session_id);

-- name: ForgetSeen :exec
DELETE FROM seen WHERE session_id = ? AND person = ?;

-- name: AddWord :execlastid
INSERT IGNORE INTO word (session_id, person, once, kind, block, item, says, own, pressed_at, made_at)
VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?);

-- name: CountWords :one
SELECT COUNT(*) FROM word WHERE session_id = ? AND person = ? AND kind = ? AND own = ?;

-- name: HasWord :one
SELECT COUNT(*) FROM word WHERE session_id = ? AND person = ? AND once = ?;

-- name: DropOlderTicks :exec
DELETE FROM word WHERE session_id = ? AND person = ? AND kind = 'grid' AND block = ? AND item = ? AND id < sqlc.arg(newest);

-- name: AddHurt :execrows
INSERT IGNORE INTO hurt (club_id, session_id, person, roster, name, once, kind, says, said_by, own, pressed_at, made_at)
SELECT s.club_id, s.id, ?, ?, ?, ?, ?, ?, ?, ?, ?, ? FROM team_session s WHERE s.id = ?;

-- name: CountHurt :one
SELECT COUNT(*) FROM hurt WHERE session_id = ? AND person = ? AND own = ? AND said_by = '';

-- name: HasHurt :one
SELECT COUNT(*) FROM hurt WHERE session_id = ? AND person = ? AND once = ?;

-- name: HurtOfClub :many
SELECT h.id, h.session_id, s.title, s.start_at, s.time_zone, h.person, h.roster, h.name, h.kind, h.says, h.said_by, h.own, h.pressed_at, h.made_at, h.answer, h.answered_by, h.answered_at
FROM hurt h JOIN team_session s ON s.id = h.session_id WHERE h.club_id = ? AND h.answer = '' ORDER BY h.made_at LIMIT 500;

-- name: HurtOfSession :many
SELECT h.id, h.session_id, s.title, s.start_at, s.time_zone, h.person, h.roster, h.name, h.kind, h.says, h.said_by, h.own, h.pressed_at, h.made_at, h.answer, h.answered_by, h.answered_at
FROM hurt h JOIN team_session s ON s.id = h.session_id WHERE h.club_id = ? AND h.session_id = ? ORDER BY h.made_at LIMIT 500;

-- name: HurtOfPlayer :many
SELECT h.id, h.session_id, s.title, s.start_at, s.time_zone, h.person, h.roster, h.name, h.kind, h.says, h.said_by, h.own, h.pressed_at, h.made_at, h.answer, h.answered_by, h.answered_at
FROM hurt h JOIN team_session s ON s.id = h.session_id WHERE h.club_id = ? AND (h.roster = ? OR h.roster = 0 AND h.person = ?) ORDER BY h.made_at DESC LIMIT 100;

-- name: KnocksOfClub :many
SELECT person, roster, name, session_id, pressed_at, answer FROM hurt WHERE club_id = ? AND kind = 'head' AND (answer = '' OR answer = 'out' AND made_at > CURRENT_TIMESTAMP(6) - INTERVAL 3 DAY);

-- name: AnswerHurt :execrows
UPDATE hurt SET answer = ?, answered_by = ?, answered_at = ? WHERE id = ? AND club_id = ? AND answer = '';

-- name: HurtByID :one
SELECT h.id, h.session_id, s.title, s.start_at, s.time_zone, h.person, h.roster, h.name, h.kind, h.says, h.said_by, h.own, h.pressed_at, h.made_at, h.answer, h.answered_by, h.answered_at
FROM hurt h JOIN team_session s ON s.id = h.session_id WHERE h.id = ? AND h.club_id = ?;

-- name: ForgetHurt :exec
DELETE FROM hurt WHERE club_id = ? AND (roster = ? OR roster = 0 AND person = ?);

-- name: WordTexts :many
SELECT id, says FROM word WHERE session_id = ? AND says <> '';

-- name: RewriteWord :exec
UPDATE word SET says = ? WHERE id = ?;

-- name: Words :many
SELECT id, person, kind, block, item, says, own, pressed_at, made_at, noted_at FROM word WHERE session_id = ? AND kind <> 'grid' ORDER BY id;

-- name: GridWords :many
SELECT person, block, item, says FROM word WHERE session_id = ? AND person = ? AND kind = 'grid' ORDER BY id;

-- name: NoteWord :execrows
UPDATE word SET noted_at = ? WHERE session_id = ? AND id = ? AND noted_at IS NULL;

-- name: ForgetWords :exec
DELETE FROM word WHERE session_id = ? AND person = ?;

-- name: WordsOf :many
SELECT w.kind, w.says, w.made_at, s.title FROM word w JOIN team_session s ON s.id = w.session_id WHERE s.club_id = ? AND w.person = ? ORDER BY w.id;
