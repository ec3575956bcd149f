-- Who may see and change what: members are suspended and removed, sign-ins are
-- listed and ended, a second factor; letters wait in the outbox until they are
-- sent; what touches rulings and access is written down; a change that is sent twice
-- is made once; links end, and each player has a key of their own to theirs.

-- +goose Up
ALTER TABLE account
    ADD COLUMN suspended_at DATETIME(6) NULL,
    ADD COLUMN removed_at   DATETIME(6) NULL,
    ADD COLUMN factor       VARCHAR(64) NOT NULL DEFAULT '', -- the secret of the second factor, base 32; '': none
    ADD COLUMN factor_step  BIGINT      NOT NULL DEFAULT 0;  -- the newest step that was used; none is good twice

ALTER TABLE club
    ADD COLUMN reasons_days   SMALLINT UNSIGNED NOT NULL DEFAULT 365, -- that the reason of a ruling is kept after its end
    ADD COLUMN tests_days     SMALLINT UNSIGNED NOT NULL DEFAULT 1095,
    ADD COLUMN sessions_days  SMALLINT UNSIGNED NOT NULL DEFAULT 730,
    ADD COLUMN medical_factor BOOLEAN           NOT NULL DEFAULT FALSE; -- medical staff need a second factor

ALTER TABLE invitation
    ADD COLUMN id           BIGINT UNSIGNED NOT NULL AUTO_INCREMENT UNIQUE KEY,
    ADD COLUMN withdrawn_at DATETIME(6) NULL,
    ADD COLUMN waits        BOOLEAN NOT NULL DEFAULT FALSE; -- for medical staff to confirm it

CREATE TABLE signed_in (
    id         BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    account_id BIGINT UNSIGNED NOT NULL,
    agent      VARCHAR(120)    NOT NULL,
    made_at    DATETIME(6)     NOT NULL,
    seen_at    DATETIME(6)     NOT NULL,
    proved_at  DATETIME(6)     NOT NULL, -- when the password was last given, or a medical page used within its limit
    ended_at   DATETIME(6)     NULL,
    KEY signed_in_of (account_id, ended_at),
    KEY signed_in_over (seen_at),
    CONSTRAINT signed_in_account FOREIGN KEY (account_id) REFERENCES account (id) ON DELETE CASCADE
);

CREATE TABLE password_reset (
    token_hash CHAR(64)        NOT NULL PRIMARY KEY,
    account_id BIGINT UNSIGNED NOT NULL,
    expires_at DATETIME(6)     NOT NULL,
    used_at    DATETIME(6)     NULL,
    KEY password_reset_over (expires_at),
    CONSTRAINT password_reset_account FOREIGN KEY (account_id) REFERENCES account (id) ON DELETE CASCADE
);

CREATE TABLE letter (
    id        BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    recipient VARCHAR(254)    NOT NULL,
    subject   VARCHAR(160)    NOT NULL,
    body      TEXT            NOT NULL,
    made_at   DATETIME(6)     NOT NULL DEFAULT CURRENT_TIMESTAMP(6),
    sent_at   DATETIME(6)     NULL,
    tries     TINYINT UNSIGNED NOT NULL DEFAULT 0,
    KEY letter_unsent (sent_at, tries, id),
    KEY letter_over (made_at)
);

CREATE TABLE audit (
    id         BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    club_id    BIGINT UNSIGNED NOT NULL,
    who        VARCHAR(120)    NOT NULL,
    what       VARCHAR(40)     NOT NULL,
    subject    VARCHAR(160)    NOT NULL,
    made_at    DATETIME(6)     NOT NULL,
    KEY audit_of (club_id, made_at),
    KEY audit_over (made_at),
    CONSTRAINT audit_club FOREIGN KEY (club_id) REFERENCES club (id)
);

CREATE TABLE once (
    account_id BIGINT UNSIGNED NOT NULL,
    token      VARCHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    made_at    DATETIME(6)     NOT NULL DEFAULT CURRENT_TIMESTAMP(6),
    PRIMARY KEY (account_id, token),
    KEY once_over (made_at)
);

ALTER TABLE share_link
    ADD COLUMN secret CHAR(64) NOT NULL DEFAULT '',
    ADD COLUMN season BOOLEAN  NOT NULL DEFAULT FALSE;
UPDATE share_link SET secret = SHA2(CONCAT(UUID(), RAND(), token), 256);
DELETE FROM sessions;

-- +goose Down
ALTER TABLE share_link DROP COLUMN secret, DROP COLUMN season;
DROP TABLE once;
DROP TABLE audit;
DROP TABLE letter;
DROP TABLE password_reset;
DROP TABLE signed_in;
ALTER TABLE invitation DROP COLUMN waits, DROP COLUMN withdrawn_at, DROP COLUMN id;
ALTER TABLE club DROP COLUMN medical_factor, DROP COLUMN sessions_days, DROP COLUMN tests_days, DROP COLUMN reasons_days;
ALTER TABLE account DROP COLUMN factor_step, DROP COLUMN factor, DROP COLUMN removed_at, DROP COLUMN suspended_at;
