-- +goose Up

-- What a club keeps between sessions: players, units, rulings of medical staff,
-- grounds, kit, staff, routines, fixtures, and its changes of the drill book.
-- Each is a small document that a plan copies whole. owner is the thing it
-- belongs to (a zone its venue, a ruling its player) or the squad; 0 the club.
CREATE TABLE thing (
    id         BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    club_id    BIGINT UNSIGNED NOT NULL,
    kind       ENUM ('player', 'unit', 'restriction', 'venue', 'zone', 'kit', 'staff', 'routine', 'fixture', 'drill', 'sport', 'trial') NOT NULL,
    owner      BIGINT UNSIGNED NOT NULL DEFAULT 0,
    unique_as  VARCHAR(120)    NULL, -- what no other of its kind and owner may share
    body       JSON            NOT NULL CHECK (JSON_VALID(body)),
    edition    INT UNSIGNED    NOT NULL DEFAULT 1, -- counts its changes: who writes names the one they read
    changed_at DATETIME(6)     NOT NULL DEFAULT CURRENT_TIMESTAMP(6) ON UPDATE CURRENT_TIMESTAMP(6),
    UNIQUE KEY thing_unique (club_id, kind, owner, unique_as),
    CONSTRAINT thing_club FOREIGN KEY (club_id) REFERENCES club (id)
);

-- Every change of things, to be taken back: the bodies before and after.
CREATE TABLE thing_change (
    id         BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    club_id    BIGINT UNSIGNED NOT NULL,
    account_id BIGINT UNSIGNED NOT NULL,
    summary    VARCHAR(200)    NOT NULL,
    changes    JSON            NOT NULL CHECK (JSON_VALID(changes)),
    made_at    DATETIME(6)     NOT NULL DEFAULT CURRENT_TIMESTAMP(6),
    undone_at  DATETIME(6)     NULL,
    KEY thing_change_newest (club_id, account_id, undone_at, id),
    CONSTRAINT thing_change_club FOREIGN KEY (club_id) REFERENCES club (id),
    CONSTRAINT thing_change_account FOREIGN KEY (account_id) REFERENCES account (id)
);

INSERT INTO thing (club_id, kind, owner, unique_as, body)
SELECT squad.club_id, 'player', player.squad_id, IF(player.number IS NULL, NULL, CONCAT('#', player.number)),
       JSON_OBJECT('number', COALESCE(player.number, 0), 'first', player.first, 'last', player.last, 'position', player.position, 'foot', player.foot, 'hand', player.hand)
FROM player JOIN squad ON squad.id = player.squad_id ORDER BY player.id;

INSERT INTO thing (club_id, kind, owner, unique_as, body)
SELECT club_id, 'venue', 0, name, JSON_OBJECT('name', name, 'time_zone', time_zone) FROM venue ORDER BY id;

INSERT INTO thing (club_id, kind, owner, unique_as, body)
SELECT venue.club_id, 'zone', thing.id, zone.name,
       JSON_OBJECT('name', zone.name, 'capacity', zone.capacity, 'lanes', zone.lanes, 'metres', zone.metres, 'surface', zone.surface)
FROM zone
         JOIN venue ON venue.id = zone.venue_id
         JOIN thing ON thing.club_id = venue.club_id AND thing.kind = 'venue' AND thing.unique_as = venue.name
ORDER BY zone.id;

DROP TABLE player, zone, venue;

-- A session that was removed stays, to be brought back.
ALTER TABLE team_session ADD COLUMN removed_at DATETIME(6) NULL;

-- Who was asked to join the staff. Only a hash of the link's token is kept.
CREATE TABLE invitation (
    token_hash CHAR(64)        NOT NULL PRIMARY KEY COLLATE ascii_bin,
    club_id    BIGINT UNSIGNED NOT NULL,
    name       VARCHAR(80)     NOT NULL CHECK (name <> ''),
    email      VARCHAR(254)    NOT NULL,
    role       ENUM ('coach', 'assistant', 'medical') NOT NULL,
    made_by    BIGINT UNSIGNED NOT NULL,
    expires_at DATETIME        NOT NULL,
    used_at    DATETIME        NULL,
    KEY invitation_club (club_id),
    CONSTRAINT invitation_club FOREIGN KEY (club_id) REFERENCES club (id),
    CONSTRAINT invitation_account FOREIGN KEY (made_by) REFERENCES account (id)
);

-- +goose Down
ALTER TABLE team_session DROP COLUMN removed_at;
DROP TABLE invitation, thing_change, thing;
