-- +goose Up

CREATE TABLE club (
    id         BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    name       VARCHAR(80)     NOT NULL CHECK (name <> ''),
    sport      VARCHAR(40)     NOT NULL,
    created_at DATETIME(6)     NOT NULL DEFAULT CURRENT_TIMESTAMP(6)
);

-- One row, locked while the first club is made, so that only one can be first.
CREATE TABLE founding (
    id TINYINT UNSIGNED NOT NULL PRIMARY KEY CHECK (id = 1)
);
INSERT INTO founding (id) VALUES (1);

CREATE TABLE account (
    id            BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    club_id       BIGINT UNSIGNED NOT NULL,
    email         VARCHAR(254)    NOT NULL,
    name          VARCHAR(80)     NOT NULL CHECK (name <> ''),
    role          ENUM ('coach', 'assistant', 'medical') NOT NULL,
    password_hash VARCHAR(200)    NOT NULL,
    created_at    DATETIME(6)     NOT NULL DEFAULT CURRENT_TIMESTAMP(6),
    UNIQUE KEY account_email (email),
    CONSTRAINT account_club FOREIGN KEY (club_id) REFERENCES club (id)
);

-- Signed-in browsers; the name and columns are those that the session store expects.
CREATE TABLE sessions (
    token  CHAR(43)     NOT NULL PRIMARY KEY,
    data   BLOB         NOT NULL,
    expiry TIMESTAMP(6) NOT NULL,
    KEY sessions_expiry_idx (expiry)
);

CREATE TABLE squad (
    id      BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    club_id BIGINT UNSIGNED NOT NULL,
    name    VARCHAR(80)     NOT NULL CHECK (name <> ''),
    grade   ENUM ('junior', 'club', 'elite') NOT NULL,
    UNIQUE KEY squad_name (club_id, name),
    CONSTRAINT squad_club FOREIGN KEY (club_id) REFERENCES club (id)
);

CREATE TABLE player (
    id       BIGINT UNSIGNED   NOT NULL AUTO_INCREMENT PRIMARY KEY,
    squad_id BIGINT UNSIGNED   NOT NULL,
    number   SMALLINT UNSIGNED NULL CHECK (number BETWEEN 1 AND 999),
    first    VARCHAR(80)       NOT NULL CHECK (first <> ''),
    last     VARCHAR(80)       NOT NULL,
    position VARCHAR(80)       NOT NULL,
    foot     ENUM ('left', 'right', 'both') NOT NULL,
    hand     ENUM ('left', 'right', 'both') NOT NULL,
    UNIQUE KEY player_number (squad_id, number),
    CONSTRAINT player_squad FOREIGN KEY (squad_id) REFERENCES squad (id)
);

CREATE TABLE venue (
    id        BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    club_id   BIGINT UNSIGNED NOT NULL,
    name      VARCHAR(80)     NOT NULL CHECK (name <> ''),
    time_zone VARCHAR(64)     NOT NULL,
    UNIQUE KEY venue_name (club_id, name),
    CONSTRAINT venue_club FOREIGN KEY (club_id) REFERENCES club (id)
);

CREATE TABLE zone (
    id       BIGINT UNSIGNED   NOT NULL AUTO_INCREMENT PRIMARY KEY,
    venue_id BIGINT UNSIGNED   NOT NULL,
    name     VARCHAR(80)       NOT NULL CHECK (name <> ''),
    capacity SMALLINT UNSIGNED NOT NULL CHECK (capacity > 0),
    lanes    SMALLINT UNSIGNED NOT NULL CHECK (lanes > 0),
    metres   SMALLINT UNSIGNED NOT NULL,
    surface  VARCHAR(40)       NOT NULL,
    UNIQUE KEY zone_name (venue_id, name),
    CONSTRAINT zone_venue FOREIGN KEY (venue_id) REFERENCES venue (id)
);

-- A match or training session. Its plan is kept in editions; head is the one in
-- force. start_at and time_zone repeat what that edition says, to be sorted by.
-- edition counts every change of head: who writes has to name the one they read.
CREATE TABLE team_session (
    id        BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    squad_id  BIGINT UNSIGNED NOT NULL,
    kind      ENUM ('match', 'training') NOT NULL,
    title     VARCHAR(80)     NOT NULL CHECK (title <> ''),
    start_at  DATETIME        NOT NULL,
    time_zone VARCHAR(64)     NOT NULL,
    head      INT UNSIGNED    NOT NULL,
    edition   INT UNSIGNED    NOT NULL DEFAULT 1,
    KEY team_session_start (squad_id, start_at),
    CONSTRAINT team_session_squad FOREIGN KEY (squad_id) REFERENCES squad (id)
);

CREATE TABLE plan_edition (
    session_id BIGINT UNSIGNED NOT NULL,
    number     INT UNSIGNED    NOT NULL,
    parent     INT UNSIGNED    NULL, -- the edition it was made from; none for the first
    document   JSON            NOT NULL,
    schedule   JSON            NOT NULL, -- the document fitted
    engine     INT UNSIGNED    NOT NULL, -- the version of the fit that made the schedule
    summary    VARCHAR(200)    NOT NULL, -- what it changed
    made_by    BIGINT UNSIGNED NULL,
    made_at    DATETIME(6)     NOT NULL DEFAULT CURRENT_TIMESTAMP(6),
    PRIMARY KEY (session_id, number),
    CONSTRAINT plan_edition_session FOREIGN KEY (session_id) REFERENCES team_session (id) ON DELETE CASCADE,
    CONSTRAINT plan_edition_parent FOREIGN KEY (session_id, parent) REFERENCES plan_edition (session_id, number) ON DELETE CASCADE,
    CONSTRAINT plan_edition_account FOREIGN KEY (made_by) REFERENCES account (id)
);

-- What the players see. The schedule is a copy: a published time never moves by itself.
CREATE TABLE publication (
    session_id   BIGINT UNSIGNED NOT NULL,
    number       INT UNSIGNED    NOT NULL,
    document     JSON            NOT NULL,
    schedule     JSON            NOT NULL,
    head         INT UNSIGNED    NOT NULL,
    published_at DATETIME(6)     NOT NULL DEFAULT CURRENT_TIMESTAMP(6),
    PRIMARY KEY (session_id, number),
    CONSTRAINT publication_edition FOREIGN KEY (session_id, head) REFERENCES plan_edition (session_id, number) ON DELETE CASCADE
);

CREATE TABLE share_link (
    token        CHAR(43)        NOT NULL PRIMARY KEY COLLATE ascii_bin,
    session_id   BIGINT UNSIGNED NOT NULL,
    created_at   DATETIME(6)     NOT NULL DEFAULT CURRENT_TIMESTAMP(6),
    withdrawn_at DATETIME(6)     NULL,
    KEY share_link_session (session_id),
    CONSTRAINT share_link_session FOREIGN KEY (session_id) REFERENCES team_session (id) ON DELETE CASCADE
);

-- +goose Down
DROP TABLE share_link, publication, plan_edition, team_session, zone, venue, player, squad, sessions, account, founding, club;
