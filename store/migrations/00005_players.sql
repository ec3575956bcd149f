-- Players have a row of their own, which stays: plans, rulings, tests and later
-- logs name it. Who leaves has a removed_at. Rulings and tests are rows too. The
-- next migration moves them here, with their ids, so that changes that are
-- written down can still be taken back.

-- +goose Up
CREATE TABLE player (
    id          BIGINT UNSIGNED   NOT NULL AUTO_INCREMENT PRIMARY KEY,
    club_id     BIGINT UNSIGNED   NOT NULL,
    squad_id    BIGINT UNSIGNED   NOT NULL,
    number      SMALLINT UNSIGNED NULL CHECK (number BETWEEN 1 AND 999),
    first       VARCHAR(80)       NOT NULL CHECK (first <> ''),
    last        VARCHAR(80)       NOT NULL,
    position    VARCHAR(80)       NOT NULL,
    foot        VARCHAR(8)        NOT NULL CHECK (foot IN ('', 'left', 'right', 'both')),
    hand        VARCHAR(8)        NOT NULL CHECK (hand IN ('', 'left', 'right', 'both')),
    level       VARCHAR(16)       NOT NULL CHECK (level IN ('', 'junior', 'club', 'elite')),
    build       VARCHAR(16)       NOT NULL CHECK (build IN ('', 'stiff', 'hypermobile')),
    notes       VARCHAR(500)      NOT NULL,
    edition     INT UNSIGNED      NOT NULL DEFAULT 1,
    changed_at  DATETIME(6)       NOT NULL DEFAULT CURRENT_TIMESTAMP(6) ON UPDATE CURRENT_TIMESTAMP(6),
    removed_at  DATETIME(6)       NULL,
    worn        SMALLINT UNSIGNED AS (IF(removed_at IS NULL, number, NULL)) VIRTUAL, -- a number is free again once its player has left
    UNIQUE KEY player_of_club (id, club_id),
    UNIQUE KEY player_number (squad_id, worn),
    KEY player_by_club (club_id, squad_id),
    CONSTRAINT player_of FOREIGN KEY (squad_id, club_id) REFERENCES squad (id, club_id)
);

CREATE TABLE ruling (
    id           BIGINT UNSIGNED  NOT NULL AUTO_INCREMENT PRIMARY KEY,
    club_id      BIGINT UNSIGNED  NOT NULL,
    player_id    BIGINT UNSIGNED  NOT NULL,
    no_jumps     BOOLEAN          NOT NULL,
    no_overhead  BOOLEAN          NOT NULL,
    max_effort   TINYINT UNSIGNED NOT NULL CHECK (max_effort <= 100), -- per cent; 0: no limit
    max_minutes  SMALLINT UNSIGNED NOT NULL CHECK (max_minutes <= 240), -- 0: no limit
    spare        VARCHAR(200)     NOT NULL, -- joints, with a comma between
    from_day     DATE             NOT NULL,
    until_day    DATE             NULL, -- none: until it is lifted
    review_day   DATE             NULL,
    reason       VARCHAR(500)     NOT NULL, -- for medical staff only
    edition      INT UNSIGNED     NOT NULL DEFAULT 1,
    changed_at   DATETIME(6)      NOT NULL DEFAULT CURRENT_TIMESTAMP(6) ON UPDATE CURRENT_TIMESTAMP(6),
    KEY ruling_by_club (club_id, player_id),
    CONSTRAINT ruling_for FOREIGN KEY (player_id, club_id) REFERENCES player (id, club_id)
);

CREATE TABLE trial (
    id         BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    club_id    BIGINT UNSIGNED NOT NULL,
    player_id  BIGINT UNSIGNED NOT NULL,
    test       VARCHAR(80)     NOT NULL CHECK (test <> ''),
    unit       VARCHAR(20)     NOT NULL,
    better     VARCHAR(8)      NOT NULL CHECK (better IN ('higher', 'lower')),
    day        DATE            NOT NULL,
    edition    INT UNSIGNED    NOT NULL DEFAULT 1,
    changed_at DATETIME(6)     NOT NULL DEFAULT CURRENT_TIMESTAMP(6) ON UPDATE CURRENT_TIMESTAMP(6),
    UNIQUE KEY trial_once (player_id, test, day),
    KEY trial_by_club (club_id, player_id, day),
    CONSTRAINT trial_of FOREIGN KEY (player_id, club_id) REFERENCES player (id, club_id)
);

CREATE TABLE trial_try (
    trial_id BIGINT UNSIGNED  NOT NULL,
    number   TINYINT UNSIGNED NOT NULL,
    result   DOUBLE           NOT NULL,
    PRIMARY KEY (trial_id, number),
    CONSTRAINT trial_try_of FOREIGN KEY (trial_id) REFERENCES trial (id) ON DELETE CASCADE
);

-- +goose Down
DROP TABLE trial_try, trial, ruling, player;
