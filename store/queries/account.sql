-- name: AddAccount :execlastid
INSERT INTO account (club_id, email, name, role, password_hash) VALUES (?, ?, ?, ?, ?);

-- name: AccountByEmail :one
SELECT id, club_id, email, name, role, password_hash, factor FROM account WHERE email = ? AND removed_at IS NULL AND suspended_at IS NULL;

-- name: Accounts :many
SELECT id, email, name, role, suspended_at, factor <> '' AS has_factor FROM account WHERE club_id = ? AND removed_at IS NULL ORDER BY id;

-- name: AccountForUpdate :one
SELECT id, email, name, role, suspended_at, password_hash, factor, factor_step FROM account WHERE id = ? AND club_id = ? AND removed_at IS NULL FOR UPDATE;

-- name: CountRole :one
SELECT COUNT(*) FROM account WHERE club_id = ? AND role = ? AND removed_at IS NULL AND suspended_at IS NULL;

-- name: HeadOf :one
SELECT id FROM account WHERE club_id = ? AND role = 'coach' AND removed_at IS NULL AND suspended_at IS NULL ORDER BY id LIMIT 1;

-- name: SetRole :exec
UPDATE account SET role = ? WHERE id = ?;

-- name: Suspend :exec
UPDATE account SET suspended_at = ? WHERE id = ?;

-- name: RemoveAccount :exec
UPDATE account SET removed_at = CURRENT_TIMESTAMP(6), email = CONCAT('removed-', id), name = 'A former member', password_hash = '', factor = '' WHERE id = ?;

-- name: SetPassword :exec
UPDATE account SET password_hash = ? WHERE id = ?;

-- name: SetLanguage :exec
UPDATE account SET language = ? WHERE id = ?;

-- name: SetFactor :exec
UPDATE account SET factor = ?, factor_step = 0 WHERE id = ?;

-- name: UseFactorStep :execrows
UPDATE account SET factor_step = ? WHERE id = ? AND factor_step < ?;

-- name: AddSignedIn :execlastid
INSERT INTO signed_in (account_id, agent, made_at, seen_at, proved_at) VALUES (?, ?, ?, ?, ?);

-- name: SignedIn :one
SELECT s.id AS sign_in, s.seen_at, s.proved_at, a.id, a.club_id, a.email, a.name, a.role, a.factor <> '' AS has_factor, a.language, club.name AS club_name, club.medical_factor, club.language AS club_language
FROM signed_in s JOIN account a ON a.id = s.account_id JOIN club ON club.id = a.club_id
WHERE s.id = ? AND s.ended_at IS NULL AND s.seen_at > ? AND a.removed_at IS NULL AND a.suspended_at IS NULL;

-- name: SignedInSeen :exec
UPDATE signed_in SET seen_at = ? WHERE id = ?;

-- name: SignedInProved :exec
UPDATE signed_in SET proved_at = ?, seen_at = ? WHERE id = ?;

-- name: SignedInsOf :many
SELECT id, agent, made_at, seen_at FROM signed_in WHERE account_id = ? AND ended_at IS NULL AND seen_at > ? ORDER BY seen_at DESC LIMIT 50;

-- name: EndSignedIn :execrows
UPDATE signed_in SET ended_at = CURRENT_TIMESTAMP(6) WHERE id = ? AND account_id = ? AND ended_at IS NULL;

-- name: EndSignedInsOf :exec
UPDATE signed_in SET ended_at = CURRENT_TIMESTAMP(6) WHERE account_id = ? AND id <> ? AND ended_at IS NULL;

-- name: PurgeSignedIns :execrows
DELETE FROM signed_in WHERE seen_at < CURRENT_TIMESTAMP - INTERVAL 30 DAY LIMIT 1000;

-- name: AddReset :exec
INSERT INTO password_reset (token_hash, account_id, expires_at) VALUES (?, ?, ?);

-- name: Reset :one
SELECT r.account_id, r.expires_at, r.used_at, a.email, a.club_id, a.name FROM password_reset r JOIN account a ON a.id = r.account_id
WHERE r.token_hash = ? AND a.removed_at IS NULL;

-- name: UseReset :execrows
UPDATE password_reset SET used_at = ? WHERE token_hash = ? AND used_at IS NULL;

-- name: PurgeResets :execrows
DELETE FROM password_reset WHERE expires_at < CURRENT_TIMESTAMP - INTERVAL 1 DAY LIMIT 1000;

-- name: AddInvitation :exec
INSERT INTO invitation (token_hash, club_id, name, email, role, made_by, expires_at, waits, vouched) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?);

-- name: Invitation :one
SELECT i.club_id, i.name, i.email, i.role, i.expires_at, i.used_at, i.withdrawn_at, i.waits, i.vouched, club.name AS club_name FROM invitation i JOIN club ON club.id = i.club_id WHERE i.token_hash = ?;

-- name: UseInvitation :execrows
UPDATE invitation SET used_at = CURRENT_TIMESTAMP WHERE token_hash = ? AND used_at IS NULL AND withdrawn_at IS NULL AND NOT waits AND expires_at > ?;

-- name: Invitations :many
SELECT id, name, email, role, expires_at, waits FROM invitation WHERE club_id = ? AND used_at IS NULL AND withdrawn_at IS NULL AND expires_at > ? ORDER BY id;

-- name: WithdrawInvitation :execrows
UPDATE invitation SET withdrawn_at = CURRENT_TIMESTAMP(6) WHERE id = ? AND club_id = ? AND used_at IS NULL AND withdrawn_at IS NULL;

-- name: ConfirmInvitation :execrows
UPDATE invitation SET waits = FALSE, vouched = TRUE, token_hash = ?, expires_at = ? WHERE id = ? AND club_id = ? AND waits AND used_at IS NULL AND withdrawn_at IS NULL;

-- name: InvitationByID :one
SELECT name, email, role FROM invitation WHERE id = ? AND club_id = ?;

-- name: PurgeInvitations :execrows
DELETE FROM invitation WHERE expires_at < CURRENT_TIMESTAMP - INTERVAL 30 DAY LIMIT 1000;

-- name: AddLetter :exec
INSERT INTO letter (recipient, subject, body) VALUES (?, ?, ?);

-- name: Letters :many
SELECT id, recipient, subject, body, made_at, sent_at FROM letter ORDER BY id DESC LIMIT 50;

-- name: UnsentLetters :many
SELECT id, recipient, subject, body FROM letter WHERE sent_at IS NULL AND tries < 10 ORDER BY id LIMIT 20;

-- name: LetterSent :exec
UPDATE letter SET sent_at = CURRENT_TIMESTAMP(6) WHERE id = ?;

-- name: LetterTried :exec
UPDATE letter SET tries = tries + 1 WHERE id = ?;

-- name: PurgeLetters :execrows
DELETE FROM letter WHERE made_at < CURRENT_TIMESTAMP - INTERVAL 8 DAY LIMIT 1000;

-- name: AddAudit :exec
INSERT INTO audit (club_id, who, what, subject, made_at) VALUES (?, ?, ?, ?, ?);

-- name: AuditOf :many
SELECT who, what, subject, made_at FROM audit WHERE club_id = ? ORDER BY made_at DESC, id DESC LIMIT ? OFFSET ?;

-- name: PurgeAudit :execrows
DELETE FROM audit WHERE made_at < CURRENT_TIMESTAMP - INTERVAL 400 DAY LIMIT 1000;

-- name: AddOnce :exec
INSERT INTO once (account_id, token) VALUES (?, ?);

-- name: HasOnce :one
SELECT COUNT(*) FROM once WHERE account_id = ? AND token = ?;

-- name: PurgeOnce :execrows
DELETE FROM once WHERE made_at < CURRENT_TIMESTAMP - INTERVAL 2 DAY LIMIT 1000;

-- name: Terms :one
SELECT reasons_days, tests_days, sessions_days, medical_factor, language FROM club WHERE id = ?;

-- name: SetTerms :exec
UPDATE club SET reasons_days = ?, tests_days = ?, sessions_days = ?, medical_factor = ?, language = ? WHERE id = ?;

-- name: ForgetReasons :execrows
UPDATE ruling r JOIN club c ON c.id = r.club_id SET r.reason = ''
WHERE r.reason <> '' AND r.until_day IS NOT NULL AND r.until_day < CURRENT_DATE - INTERVAL c.reasons_days DAY;

-- name: OldTrials :many
SELECT t.id FROM trial t JOIN club c ON c.id = t.club_id WHERE t.day < CURRENT_DATE - INTERVAL c.tests_days DAY LIMIT 200;

-- name: ForgetTrial :exec
DELETE FROM trial WHERE id = ?;

-- name: OldSessions :many
SELECT s.id FROM team_session s JOIN club c ON c.id = s.club_id WHERE s.start_at < CURRENT_TIMESTAMP - INTERVAL c.sessions_days DAY LIMIT 20;

-- name: ForgetSession :exec
DELETE FROM team_session WHERE id = ?;

-- name: InvitationWaits :exec
UPDATE invitation SET waits = TRUE WHERE token_hash = ?;

-- name: EndResetsOf :exec
DELETE FROM password_reset WHERE account_id = ?;

-- name: AddRecoveryCode :exec
INSERT INTO recovery_code (account_id, code_hash) VALUES (?, ?);

-- name: DropRecoveryCodes :exec
DELETE FROM recovery_code WHERE account_id = ?;

-- name: UseRecoveryCode :execrows
UPDATE recovery_code SET used_at = CURRENT_TIMESTAMP(6) WHERE account_id = ? AND code_hash = ? AND used_at IS NULL;

-- name: CountRecoveryCodes :one
SELECT COUNT(*) FROM recovery_code WHERE account_id = ? AND used_at IS NULL;

-- name: KnowBrowser :exec
INSERT INTO known_browser (token_hash, account_id, seen_at) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE seen_at = VALUES(seen_at);

-- name: KnowsBrowser :one
SELECT COUNT(*) FROM known_browser k JOIN account a ON a.id = k.account_id WHERE k.token_hash = ? AND a.email = ? AND a.removed_at IS NULL;

-- name: IsKnownBrowser :one
SELECT COUNT(*) FROM known_browser WHERE token_hash = ?;

-- name: ForgetBrowsersOf :exec
DELETE FROM known_browser WHERE account_id = ?;

-- name: PurgeBrowsers :execrows
DELETE FROM known_browser WHERE seen_at < CURRENT_TIMESTAMP - INTERVAL 180 DAY LIMIT 1000;
