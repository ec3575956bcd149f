-- Who was hurt, or is in pain: a record of its own, kept apart from what else is said from
-- phones, until medical staff have answered. A session that runs remembers what it put in
-- force, and what is still to be put. Invitations of medical staff say who confirmed them;
-- second factors have codes for when a phone is lost; browsers that have signed in before
-- are told from those that guess.
-- +goose Up
CREATE TABLE hurt (
    id          BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    club_id     BIGINT UNSIGNED NOT NULL,
    session_id  BIGINT UNSIGNED NOT NULL,
    person      VARCHAR(64)     NOT NULL COLLATE utf8mb4_bin, -- id of the player in the session's plan
    roster      BIGINT UNSIGNED NOT NULL DEFAULT 0,           -- the club's player; 0: nobody it knows
    name        VARCHAR(160)    NOT NULL,
    once        VARCHAR(64)     NOT NULL COLLATE ascii_bin,   -- a press that is sent twice is kept once
    kind        VARCHAR(8)      NOT NULL CHECK (kind IN ('pain', 'hurt', 'head')),
    says        VARCHAR(400)    NOT NULL DEFAULT '',
    said_by     VARCHAR(120)    NOT NULL DEFAULT '', -- who pressed at the pitch side; '': the player, from their phone
    own         BOOLEAN         NOT NULL DEFAULT FALSE,
    pressed_at  DATETIME(6)     NOT NULL,
    made_at     DATETIME(6)     NOT NULL,
    answer      VARCHAR(8)      NOT NULL DEFAULT '' CHECK (answer IN ('', 'out', 'on')), -- '': medical staff have not answered
    answered_by VARCHAR(120)    NOT NULL DEFAULT '',
    answered_at DATETIME(6)     NULL,
    UNIQUE KEY hurt_once (session_id, person, once),
    KEY hurt_open (club_id, answer, made_at),
    KEY hurt_of (roster, made_at),
    CONSTRAINT hurt_session FOREIGN KEY (session_id) REFERENCES team_session (id) ON DELETE CASCADE
);
INSERT INTO hurt (club_id, session_id, person, name, once, kind, says, own, pressed_at, made_at, answer, answered_at)
SELECT s.club_id, w.session_id, w.person, w.person, w.once, 'pain', w.says, w.own, w.pressed_at, w.made_at, IF(w.noted_at IS NULL, '', 'on'), w.noted_at
FROM word w JOIN team_session s ON s.id = w.session_id WHERE w.kind = 'pain' ORDER BY w.id;
DELETE FROM word WHERE kind = 'pain';
ALTER TABLE word MODIFY kind VARCHAR(16) NOT NULL CHECK (kind IN ('late', 'easier', 'sore', 'grid', 'missing', 'choice', 'effort'));

ALTER TABLE run
    ADD COLUMN followed MEDIUMTEXT   NULL,                   -- the document that it put in force last; none: nothing yet
    ADD COLUMN followed_events INT UNSIGNED NOT NULL DEFAULT 0, -- how many events that followed
    ADD COLUMN due_by   BIGINT UNSIGNED NULL,                -- the account whose change is still to be put in force; none: nothing is
    ADD COLUMN trouble  VARCHAR(400) NOT NULL DEFAULT '',    -- why it could not be, in words
    ADD COLUMN clash    VARCHAR(400) NOT NULL DEFAULT '',    -- what the board had otherwise, in words
    ADD KEY run_due (due_by);

ALTER TABLE invitation ADD COLUMN vouched BOOLEAN NOT NULL DEFAULT FALSE; -- medical staff invited or confirmed
UPDATE invitation SET vouched = TRUE WHERE role = 'medical' AND used_at IS NOT NULL;

CREATE TABLE recovery_code (
    account_id BIGINT UNSIGNED NOT NULL,
    code_hash  CHAR(64)        NOT NULL COLLATE ascii_bin,
    used_at    DATETIME(6)     NULL,
    PRIMARY KEY (account_id, code_hash),
    CONSTRAINT recovery_code_account FOREIGN KEY (account_id) REFERENCES account (id) ON DELETE CASCADE
);

CREATE TABLE known_browser (
    token_hash CHAR(64)        NOT NULL COLLATE ascii_bin,
    account_id BIGINT UNSIGNED NOT NULL,
    seen_at    DATETIME(6)     NOT NULL,
    PRIMARY KEY (token_hash, account_id),
    KEY known_browser_over (seen_at),
    CONSTRAINT known_browser_account FOREIGN KEY (account_id) REFERENCES account (id) ON DELETE CASCADE
);

-- Who is being forgotten: what is kept of them in plans is rewritten session by session, and
-- gone on with where that was cut short.
CREATE TABLE erasing (
    player_id BIGINT UNSIGNED NOT NULL PRIMARY KEY,
    club_id   BIGINT UNSIGNED NOT NULL,
    first     VARCHAR(80)     NOT NULL,
    last      VARCHAR(80)     NOT NULL,
    CONSTRAINT erasing_club FOREIGN KEY (club_id) REFERENCES club (id)
);

-- How often a session that is over has been thinned: a month and a year after it.
ALTER TABLE team_session
    ADD COLUMN thinned TINYINT UNSIGNED NOT NULL DEFAULT 0,
    ADD KEY team_session_thinned (thinned, start_at, id);

-- +goose Down
ALTER TABLE team_session DROP KEY team_session_thinned, DROP COLUMN thinned;
DROP TABLE erasing;
DROP TABLE known_browser;
DROP TABLE recovery_code;
ALTER TABLE invitation DROP COLUMN vouched;
ALTER TABLE run DROP KEY run_due, DROP COLUMN clash, DROP COLUMN trouble, DROP COLUMN due_by, DROP COLUMN followed_events, DROP COLUMN followed;
ALTER TABLE word MODIFY kind VARCHAR(16) NOT NULL CHECK (kind IN ('late', 'easier', 'sore', 'pain', 'grid', 'missing', 'choice', 'effort'));
INSERT INTO word (session_id, person, once, kind, says, own, pressed_at, made_at, noted_at)
SELECT session_id, person, once, 'pain', says, own, pressed_at, made_at, answered_at FROM hurt;
DROP TABLE hurt;
