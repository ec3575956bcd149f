-- An edition took 39 kB on disk, since its documents overflow a page; compressed
-- they take a quarter. Cut-downs are kept with the schedule that they belong to.
-- An old edition may go only where nothing was made from it: no cascade may take
-- the plan in force with it.

-- +goose Up
ALTER TABLE plan_edition
    MODIFY document MEDIUMTEXT /*M!100301 COMPRESSED */ CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
    MODIFY schedule MEDIUMTEXT /*M!100301 COMPRESSED */ CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
    ADD COLUMN cuts MEDIUMTEXT /*M!100301 COMPRESSED */ CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL AFTER engine,
    DROP FOREIGN KEY plan_edition_parent;
ALTER TABLE plan_edition
    ADD CONSTRAINT plan_edition_made_from FOREIGN KEY (session_id, parent) REFERENCES plan_edition (session_id, number);

ALTER TABLE publication
    MODIFY document MEDIUMTEXT /*M!100301 COMPRESSED */ CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
    MODIFY schedule MEDIUMTEXT /*M!100301 COMPRESSED */ CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
    DROP FOREIGN KEY publication_edition;
ALTER TABLE publication
    ADD CONSTRAINT publication_of FOREIGN KEY (session_id, head) REFERENCES plan_edition (session_id, number);

-- +goose Down
ALTER TABLE publication DROP FOREIGN KEY publication_of;
ALTER TABLE publication ADD CONSTRAINT publication_edition FOREIGN KEY (session_id, head) REFERENCES plan_edition (session_id, number) ON DELETE CASCADE;
ALTER TABLE plan_edition DROP FOREIGN KEY plan_edition_made_from, DROP COLUMN cuts;
ALTER TABLE plan_edition ADD CONSTRAINT plan_edition_parent FOREIGN KEY (session_id, parent) REFERENCES plan_edition (session_id, number) ON DELETE CASCADE;
