-- A session belongs to a club, and is listed by it: its digest is what a list
-- shows, so that no plan is read for that. What counts its changes is a revision;
-- head is an edition that is there, and none only while the first one is made.

-- +goose Up
ALTER TABLE squad
    MODIFY grade VARCHAR(16) NOT NULL,
    ADD CONSTRAINT squad_grade CHECK (grade IN ('junior', 'club', 'elite')),
    ADD UNIQUE KEY squad_of_club (id, club_id);

ALTER TABLE team_session ADD COLUMN club_id BIGINT UNSIGNED NULL AFTER id;
UPDATE team_session JOIN squad ON squad.id = team_session.squad_id SET team_session.club_id = squad.club_id;
ALTER TABLE team_session
    MODIFY club_id BIGINT UNSIGNED NOT NULL,
    MODIFY kind VARCHAR(16) NOT NULL,
    CHANGE edition revision INT UNSIGNED NOT NULL DEFAULT 1,
    MODIFY head INT UNSIGNED NULL,
    ADD COLUMN digest MEDIUMTEXT CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL, -- none: it is yet to be made, or by an older engine
    ADD CONSTRAINT team_session_kind CHECK (kind IN ('match', 'training')),
    ADD KEY team_session_coming (club_id, start_at, id),
    DROP FOREIGN KEY team_session_squad;
ALTER TABLE team_session
    ADD CONSTRAINT team_session_of FOREIGN KEY (squad_id, club_id) REFERENCES squad (id, club_id),
    ADD CONSTRAINT team_session_head FOREIGN KEY (id, head) REFERENCES plan_edition (session_id, number);

-- +goose Down
ALTER TABLE team_session DROP FOREIGN KEY team_session_head, DROP FOREIGN KEY team_session_of;
ALTER TABLE team_session
    DROP CONSTRAINT team_session_kind,
    DROP KEY team_session_coming,
    DROP COLUMN digest,
    DROP COLUMN club_id,
    CHANGE revision edition INT UNSIGNED NOT NULL DEFAULT 1,
    MODIFY head INT UNSIGNED NOT NULL,
    MODIFY kind ENUM ('match', 'training') NOT NULL,
    ADD CONSTRAINT team_session_squad FOREIGN KEY (squad_id) REFERENCES squad (id);
ALTER TABLE squad DROP CONSTRAINT squad_grade, DROP KEY squad_of_club, MODIFY grade ENUM ('junior', 'club', 'elite') NOT NULL;
