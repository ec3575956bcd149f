-- name: Run :one
SELECT r.document, r.schedule, r.begun_at, r.followed, r.followed_events, r.due_by, r.trouble, r.clash FROM run r JOIN team_session s ON s.id = r.session_id WHERE r.session_id = ? AND s.club_id = ?;

-- name: BeginRun :exec
INSERT IGNORE INTO run (session_id, document, schedule, begun_at)
SELECT s.id, e.document, e.schedule, ? FROM team_session s JOIN plan_edition e ON e.session_id = s.id AND e.number = s.head WHERE s.id = ?;

-- name: RunEvents :many
SELECT arrived, content FROM run_event WHERE session_id = ? AND arrived > ? ORDER BY arrived LIMIT ?;

-- name: LastArrived :one
SELECT CAST(COALESCE(MAX(arrived), 0) AS UNSIGNED) AS last FROM run_event WHERE session_id = ?;

-- name: RunDue :exec
UPDATE run SET due_by = ? WHERE session_id = ?;

-- name: RunsDue :many
SELECT r.session_id, s.club_id, r.due_by FROM run r JOIN team_session s ON s.id = r.session_id WHERE r.due_by IS NOT NULL AND s.start_at > ? ORDER BY r.session_id LIMIT 200;

-- name: RunFollowed :exec
UPDATE run SET followed = ?, followed_events = ?, due_by = ?, trouble = '', clash = ? WHERE session_id = ?;

-- name: RunTrouble :exec
UPDATE run SET trouble = ? WHERE session_id = ?;

-- name: RunSays :one
SELECT trouble, clash, due_by IS NOT NULL AS due FROM run WHERE session_id = ?;


-- name: RewriteRun :exec
UPDATE run SET document = ?, schedule = ?, followed = ? WHERE session_id = ?;

-- name: RunText :many
SELECT document, schedule, followed FROM run WHERE session_id = ?;

-- name: RewriteEvent :exec
UPDATE run_event SET content = ? WHERE session_id = ? AND arrived = ?;

-- name: LogSession :one
SELECT l.session_id, l.squad_id, l.day, l.kind, l.title, l.season, l.note, l.differs, l.content, l.edition, COALESCE(a.name, '') AS maker, l.made_at
FROM log_session l JOIN team_session s ON s.id = l.session_id LEFT JOIN account a ON a.id = l.made_by
WHERE l.session_id = ? AND s.club_id = ?;

-- name: LogSessions :many
SELECT l.session_id, l.squad_id, l.day, l.kind, l.title, l.season, l.note, l.differs, l.content
FROM log_session l JOIN squad q ON q.id = l.squad_id
WHERE l.squad_id = ? AND q.club_id = ? AND l.day >= sqlc.arg(from_day) AND l.day <= sqlc.arg(to_day) ORDER BY l.day DESC, l.session_id DESC LIMIT ?;

-- name: LogBlocks :many
SELECT session_id, number, day, block, name, phase, leader, planned, actual, measured, pace, note, who FROM log_block
WHERE squad_id = ? AND day >= sqlc.arg(from_day) AND day <= sqlc.arg(to_day) ORDER BY day, session_id, number;

-- name: LogDrills :many
SELECT session_id, number, item, day, code, name, amount, seconds, without, ticks FROM log_drill
WHERE squad_id = ? AND day >= sqlc.arg(from_day) AND day <= sqlc.arg(to_day) ORDER BY day, session_id, number, item;

-- name: LogPlayers :many
SELECT session_id, person, roster, day, name, was, effort, note FROM log_player
WHERE squad_id = ? AND day >= sqlc.arg(from_day) AND day <= sqlc.arg(to_day) ORDER BY day, session_id, name;

-- name: BlocksOfLog :many
SELECT session_id, number, day, block, name, phase, leader, planned, actual, measured, pace, note, who FROM log_block WHERE session_id = ? ORDER BY number;

-- name: DrillsOfLog :many
SELECT session_id, number, item, day, code, name, amount, seconds, without, ticks FROM log_drill WHERE session_id = ? ORDER BY number, item;

-- name: PlayersOfLog :many
SELECT session_id, person, roster, day, name, was, effort, note FROM log_player WHERE session_id = ? ORDER BY name;

-- name: LogEdition :one
SELECT edition FROM log_session WHERE session_id = ? FOR UPDATE;

-- name: RemoveLog :exec
DELETE FROM log_session WHERE session_id = ?;

-- name: AddLogSession :exec
INSERT INTO log_session (session_id, squad_id, day, kind, title, season, note, differs, content, edition, made_by, made_at)
SELECT s.id, s.squad_id, ?, s.kind, s.title, ?, ?, ?, ?, ?, ?, ? FROM team_session s WHERE s.id = ?;

-- name: AddLogBlock :exec
INSERT INTO log_block (session_id, number, squad_id, day, block, name, phase, leader, planned, actual, measured, pace, note, who)
SELECT l.session_id, ?, l.squad_id, l.day, ?, ?, ?, ?, ?, ?, ?, ?, ?, ? FROM log_session l WHERE l.session_id = ?;

-- name: AddLogDrill :exec
INSERT INTO log_drill (session_id, number, item, squad_id, day, code, name, amount, seconds, without, ticks)
SELECT l.session_id, ?, ?, l.squad_id, l.day, ?, ?, ?, ?, ?, ? FROM log_session l WHERE l.session_id = ?;

-- name: AddLogPlayer :exec
INSERT INTO log_player (session_id, person, roster, squad_id, day, name, was, effort, note)
SELECT l.session_id, ?, ?, l.squad_id, l.day, ?, ?, ?, ? FROM log_session l WHERE l.session_id = ?;

-- name: SeasonCounts :many
SELECT d.code, MAX(d.name) AS name, COUNT(DISTINCT d.session_id) AS times, MAX(d.day) AS last
FROM log_drill d JOIN log_session l ON l.session_id = d.session_id
WHERE d.squad_id = ? AND d.day >= sqlc.arg(from_day) AND d.day <= sqlc.arg(to_day) GROUP BY d.code ORDER BY times DESC, name LIMIT 400;

-- name: LastDone :many
SELECT code, MAX(day) AS last FROM log_drill WHERE squad_id = ? GROUP BY code;

-- name: UnloggedSessions :many
SELECT s.id, s.start_at, e.document, e.schedule, e.engine FROM team_session s JOIN plan_edition e ON e.session_id = s.id AND e.number = s.head
WHERE s.club_id = ? AND s.squad_id = ? AND s.start_at >= sqlc.arg(from_at) AND s.start_at < sqlc.arg(to_at) AND s.removed_at IS NULL
  AND NOT EXISTS (SELECT 1 FROM log_session l WHERE l.session_id = s.id) ORDER BY s.start_at LIMIT 30;

-- name: SquadOfSession :one
SELECT squad_id FROM team_session WHERE id = ? AND club_id = ?;

-- name: BlockRuns :many
SELECT name, planned, actual, pace FROM log_block WHERE squad_id = ? AND measured AND planned > 0 AND actual > 0 AND day >= ? ORDER BY day, session_id, number LIMIT 2000;

-- name: ForgetLogPlayer :exec
UPDATE log_player SET name = ?, roster = 0, note = '', effort = NULL WHERE roster = ?;

-- name: RewriteLogNotes :exec
UPDATE log_block SET note = ? WHERE session_id = ? AND number = ?;

-- name: RewriteLogSession :exec
UPDATE log_session SET note = ?, differs = ? WHERE session_id = ?;

-- name: WordsOfSessions :many
SELECT w.session_id, w.person, w.kind, w.block, w.item, w.says, w.pressed_at FROM word w JOIN team_session s ON s.id = w.session_id
WHERE s.squad_id = ? AND s.start_at >= sqlc.arg(from_at) AND s.start_at < sqlc.arg(to_at) AND w.kind IN ('effort', 'sore', 'easier') ORDER BY w.id LIMIT 2000;

-- name: RunOnces :many
SELECT once FROM run_event WHERE session_id = ?;

-- name: LogTexts :many
SELECT note, differs FROM log_session WHERE session_id = ?;

-- name: AttendedBy :many
SELECT p.day, l.title, p.was, p.effort, p.note FROM log_player p JOIN log_session l ON l.session_id = p.session_id JOIN squad q ON q.id = p.squad_id
WHERE p.roster = ? AND q.club_id = ? ORDER BY p.day;

-- name: HasRun :one
SELECT COUNT(*) FROM run WHERE session_id = ?;

-- name: AllGridWords :many
SELECT w.person, w.block, w.item, w.says, w.pressed_at FROM word w
WHERE w.session_id = ? AND w.kind = 'grid' AND NOT EXISTS (SELECT 1 FROM word n WHERE n.session_id = w.session_id AND n.person = w.person AND n.kind = 'grid'
  AND n.block = w.block AND n.item = w.item AND n.id > w.id) ORDER BY w.id;
