-- What is left a thing belongs to a squad, to a venue, or to the club, and its
-- owner is one that is there.

-- +goose Up
ALTER TABLE thing
    MODIFY kind VARCHAR(16) NOT NULL,
    ADD COLUMN squad_id BIGINT UNSIGNED NULL AFTER owner,
    ADD COLUMN venue_id BIGINT UNSIGNED NULL AFTER squad_id;
UPDATE thing SET squad_id = owner WHERE kind = 'unit';
UPDATE thing SET venue_id = owner WHERE kind = 'zone';
DELETE z FROM thing z LEFT JOIN thing v ON v.id = z.venue_id WHERE z.kind = 'zone' AND v.id IS NULL;
ALTER TABLE thing
    DROP KEY thing_unique,
    DROP COLUMN owner,
    ADD COLUMN within BIGINT UNSIGNED AS (COALESCE(squad_id, venue_id, 0)) VIRTUAL,
    ADD UNIQUE KEY thing_unique (club_id, kind, within, unique_as),
    ADD CONSTRAINT thing_kind CHECK (kind IN ('unit', 'venue', 'zone', 'kit', 'staff', 'routine', 'fixture', 'drill', 'sport')),
    ADD CONSTRAINT thing_of_squad CHECK ((kind = 'unit') = (squad_id IS NOT NULL)),
    ADD CONSTRAINT thing_of_venue CHECK ((kind = 'zone') = (venue_id IS NOT NULL)),
    ADD CONSTRAINT thing_squad FOREIGN KEY (squad_id, club_id) REFERENCES squad (id, club_id),
    ADD CONSTRAINT thing_venue FOREIGN KEY (venue_id) REFERENCES thing (id);

-- +goose Down
SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'there is no way back from here: restore a backup';
