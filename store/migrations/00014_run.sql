-- While it runs, and what is learnt from it: a session's plan as it was when it began to
-- run, what was pressed, and the log: what was done, by block, drill and player. Rows of the
-- log carry their squad and day, so that a week, a season and a drill's history are each one
-- range of an index. Tests may be done before and after a session.
-- +goose Up
CREATE TABLE run (
    session_id BIGINT UNSIGNED NOT NULL PRIMARY KEY,
    document   MEDIUMTEXT      NOT NULL,
    schedule   MEDIUMTEXT      NOT NULL,
    begun_at   DATETIME(6)     NOT NULL,
    CONSTRAINT run_session FOREIGN KEY (session_id) REFERENCES team_session (id) ON DELETE CASCADE
);

CREATE TABLE run_event (
    session_id BIGINT UNSIGNED NOT NULL,
    arrived    INT UNSIGNED    NOT NULL, -- counts what came in of the session
    once       VARCHAR(64)     NOT NULL COLLATE ascii_bin,
    account_id BIGINT UNSIGNED NULL,     -- who pressed; NULL once they have left
    kind       VARCHAR(16)     NOT NULL,
    pressed_at DATETIME(3)     NOT NULL,
    made_at    DATETIME(6)     NOT NULL,
    content    MEDIUMTEXT      NOT NULL, -- JSON of the event
    PRIMARY KEY (session_id, arrived),
    UNIQUE KEY run_event_once (session_id, once),
    CONSTRAINT run_event_session FOREIGN KEY (session_id) REFERENCES team_session (id) ON DELETE CASCADE,
    CONSTRAINT run_event_account FOREIGN KEY (account_id) REFERENCES account (id) ON DELETE SET NULL
);

CREATE TABLE log_session (
    session_id BIGINT UNSIGNED NOT NULL PRIMARY KEY,
    squad_id   BIGINT UNSIGNED NOT NULL,
    day        DATE            NOT NULL, -- on the venue's clock
    kind       VARCHAR(16)     NOT NULL,
    title      VARCHAR(120)    NOT NULL,
    season     VARCHAR(40)     NOT NULL DEFAULT '',
    note       VARCHAR(400)    NOT NULL DEFAULT '',
    differs    TEXT            NOT NULL, -- JSON: what was otherwise than planned, sentences
    content    TEXT            NOT NULL, -- JSON: blocks and drills, to tell what changed from one time to the next
    edition    INT UNSIGNED    NOT NULL DEFAULT 1,
    made_by    BIGINT UNSIGNED NULL,
    made_at    DATETIME(6)     NOT NULL,
    KEY log_session_of (squad_id, day),
    CONSTRAINT log_session_session FOREIGN KEY (session_id) REFERENCES team_session (id) ON DELETE CASCADE,
    CONSTRAINT log_session_account FOREIGN KEY (made_by) REFERENCES account (id) ON DELETE SET NULL
);

CREATE TABLE log_block (
    session_id BIGINT UNSIGNED    NOT NULL,
    number     SMALLINT UNSIGNED  NOT NULL,
    squad_id   BIGINT UNSIGNED    NOT NULL,
    day        DATE               NOT NULL,
    block      VARCHAR(80)        NOT NULL COLLATE utf8mb4_bin,
    name       VARCHAR(120)       NOT NULL,
    phase      VARCHAR(16)        NOT NULL,
    leader     VARCHAR(120)       NOT NULL DEFAULT '',
    planned    MEDIUMINT UNSIGNED NOT NULL, -- seconds; 0: it was left out of the plan
    actual     MEDIUMINT UNSIGNED NOT NULL, -- seconds; 0: it was not done
    measured   BOOLEAN            NOT NULL, -- somebody said when it was over
    pace       DOUBLE             NOT NULL DEFAULT 1, -- what the plan had multiplied its doses' seconds by
    note       VARCHAR(400)       NOT NULL DEFAULT '',
    who        TEXT               NOT NULL, -- JSON: the persons who did it
    PRIMARY KEY (session_id, number),
    KEY log_block_of (squad_id, day),
    CONSTRAINT log_block_session FOREIGN KEY (session_id) REFERENCES log_session (session_id) ON DELETE CASCADE
);

CREATE TABLE log_drill (
    session_id BIGINT UNSIGNED    NOT NULL,
    number     SMALLINT UNSIGNED  NOT NULL, -- of the block
    item       SMALLINT UNSIGNED  NOT NULL,
    squad_id   BIGINT UNSIGNED    NOT NULL,
    day        DATE               NOT NULL,
    code       VARCHAR(80)        NOT NULL COLLATE utf8mb4_bin,
    name       VARCHAR(120)       NOT NULL,
    amount     INT                NOT NULL,
    seconds    MEDIUMINT UNSIGNED NOT NULL, -- at work
    without    TEXT               NOT NULL, -- JSON: the persons of the block who left it out
    ticks      VARCHAR(400)       NOT NULL DEFAULT '', -- what was ticked of its grid, in words
    PRIMARY KEY (session_id, number, item),
    KEY log_drill_of (squad_id, day, code, seconds),
    KEY log_drill_last (squad_id, code, day),
    CONSTRAINT log_drill_block FOREIGN KEY (session_id, number) REFERENCES log_block (session_id, number) ON DELETE CASCADE
);

CREATE TABLE log_player (
    session_id BIGINT UNSIGNED  NOT NULL,
    person     VARCHAR(64)      NOT NULL COLLATE utf8mb4_bin,
    roster     BIGINT UNSIGNED  NOT NULL DEFAULT 0, -- the club's player; 0: nobody it knows
    squad_id   BIGINT UNSIGNED  NOT NULL,
    day        DATE             NOT NULL,
    name       VARCHAR(120)     NOT NULL,
    was        VARCHAR(8)       NOT NULL CHECK (was IN ('there', 'late', 'out', 'away')),
    effort     TINYINT UNSIGNED NULL CHECK (effort <= 10),
    note       VARCHAR(400)     NOT NULL DEFAULT '',
    PRIMARY KEY (session_id, person),
    KEY log_player_of (squad_id, day),
    KEY log_player_roster (roster, day),
    CONSTRAINT log_player_session FOREIGN KEY (session_id) REFERENCES log_session (session_id) ON DELETE CASCADE
);

ALTER TABLE word MODIFY kind VARCHAR(16) NOT NULL CHECK (kind IN ('late', 'easier', 'sore', 'pain', 'grid', 'missing', 'choice', 'effort'));

ALTER TABLE trial
    ADD COLUMN part VARCHAR(8) NOT NULL DEFAULT '' CHECK (part IN ('', 'before', 'after')),
    ADD COLUMN mean BOOLEAN NOT NULL DEFAULT FALSE,
    DROP KEY trial_once,
    ADD UNIQUE KEY trial_once (player_id, test, day, part);

ALTER TABLE thing
    DROP CONSTRAINT thing_kind,
    ADD CONSTRAINT thing_kind CHECK (kind IN ('unit', 'venue', 'zone', 'kit', 'staff', 'routine', 'fixture', 'drill', 'sport', 'target'));

-- +goose Down
DELETE FROM thing WHERE kind = 'target';
ALTER TABLE thing
    DROP CONSTRAINT thing_kind,
    ADD CONSTRAINT thing_kind CHECK (kind IN ('unit', 'venue', 'zone', 'kit', 'staff', 'routine', 'fixture', 'drill', 'sport'));
DELETE FROM trial WHERE part <> '';
ALTER TABLE trial DROP KEY trial_once, DROP COLUMN part, DROP COLUMN mean, ADD UNIQUE KEY trial_once (player_id, test, day);
DELETE FROM word WHERE kind = 'effort';
ALTER TABLE word MODIFY kind VARCHAR(16) NOT NULL CHECK (kind IN ('late', 'easier', 'sore', 'pain', 'grid', 'missing', 'choice'));
DROP TABLE log_player, log_drill, log_block, log_session, run_event, run;
