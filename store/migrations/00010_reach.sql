-- What is said reaches everybody: keys of single people are renewed and withdrawn,
-- who has seen which edition, what is said from a phone, what has news for those who
-- have a page open, and a club's own pictures of drills. A link for a season shows the squad's next session.

-- +goose Up
CREATE TABLE person_key (
    token     CHAR(43)     NOT NULL COLLATE ascii_bin,
    person    VARCHAR(64)  NOT NULL COLLATE utf8mb4_bin, -- id of a player, or of a leader after "l-"
    turn      INT UNSIGNED NOT NULL DEFAULT 0,           -- counts how often the key was renewed
    withdrawn BOOLEAN      NOT NULL DEFAULT FALSE,
    PRIMARY KEY (token, person),
    CONSTRAINT person_key_link FOREIGN KEY (token) REFERENCES share_link (token) ON DELETE CASCADE
);

CREATE TABLE seen (
    session_id  BIGINT UNSIGNED NOT NULL,
    person      VARCHAR(64)     NOT NULL COLLATE utf8mb4_bin,
    number      INT UNSIGNED    NOT NULL, -- of the publication
    own         BOOLEAN         NOT NULL, -- it was their own link that was open
    opened_at   DATETIME(6)     NOT NULL,
    answered_at DATETIME(6)     NULL,
    PRIMARY KEY (session_id, person, number),
    CONSTRAINT seen_session FOREIGN KEY (session_id) REFERENCES team_session (id) ON DELETE CASCADE
);

CREATE TABLE word (
    id         BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    session_id BIGINT UNSIGNED NOT NULL,
    person     VARCHAR(64)     NOT NULL COLLATE utf8mb4_bin,
    once       VARCHAR(64)     NOT NULL COLLATE ascii_bin, -- a press that is sent twice is kept once
    kind       VARCHAR(16)     NOT NULL CHECK (kind IN ('late', 'easier', 'sore', 'pain', 'grid', 'missing')),
    block      VARCHAR(80)     NOT NULL DEFAULT '',
    item       INT UNSIGNED    NOT NULL DEFAULT 0,
    says       VARCHAR(400)    NOT NULL DEFAULT '',
    own        BOOLEAN         NOT NULL,
    pressed_at DATETIME(6)     NOT NULL,
    made_at    DATETIME(6)     NOT NULL,
    noted_at   DATETIME(6)     NULL, -- a coach, or medical staff, has taken it in
    UNIQUE KEY word_once (session_id, person, once),
    CONSTRAINT word_session FOREIGN KEY (session_id) REFERENCES team_session (id) ON DELETE CASCADE
);

CREATE TABLE drill_picture (
    club_id BIGINT UNSIGNED NOT NULL,
    code    VARCHAR(80)     NOT NULL COLLATE utf8mb4_bin,
    stamp   CHAR(12)        NOT NULL, -- of the content, so that a page asks for a new one
    content MEDIUMBLOB      NOT NULL, -- JPEG
    PRIMARY KEY (club_id, code),
    CONSTRAINT drill_picture_club FOREIGN KEY (club_id) REFERENCES club (id)
);

CREATE TABLE news (
    id         BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    session_id BIGINT UNSIGNED NOT NULL,
    made_at    DATETIME(6)     NOT NULL DEFAULT CURRENT_TIMESTAMP(6),
    KEY news_at (made_at)
);

-- +goose Down
DROP TABLE drill_picture;
DROP TABLE news;
DROP TABLE word;
DROP TABLE seen;
DROP TABLE person_key;
