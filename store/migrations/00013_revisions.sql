-- Which edition was in force at each revision of a session, so that a change that was made
-- on an older one can be joined with what was changed since.
-- +goose Up
CREATE TABLE plan_revision (
    session_id BIGINT UNSIGNED NOT NULL,
    revision   INT UNSIGNED    NOT NULL,
    head       INT UNSIGNED    NOT NULL,
    PRIMARY KEY (session_id, revision),
    CONSTRAINT plan_revision_session FOREIGN KEY (session_id) REFERENCES team_session (id) ON DELETE CASCADE
);

-- What is news to staff alone wakes no player's phone.
ALTER TABLE news ADD COLUMN staff BOOLEAN NOT NULL DEFAULT FALSE;

-- +goose Down
ALTER TABLE news DROP COLUMN staff;
DROP TABLE plan_revision;
