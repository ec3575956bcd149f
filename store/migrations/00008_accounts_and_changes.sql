-- E-mail addresses are compared letter by letter; roles are checked, not listed
-- in a type. Changes that can be taken back are found by account and time, and
-- purged by time. book_edition counts the changes of a club's drills and sport, so
-- that what is worked out from them can be kept until it changes.

-- +goose Up
ALTER TABLE account
    MODIFY email VARCHAR(254) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
    MODIFY role VARCHAR(16) NOT NULL,
    ADD CONSTRAINT account_role CHECK (role IN ('coach', 'assistant', 'medical'));

ALTER TABLE invitation
    MODIFY email VARCHAR(254) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
    MODIFY role VARCHAR(16) NOT NULL,
    ADD CONSTRAINT invitation_role CHECK (role IN ('coach', 'assistant', 'medical')),
    ADD KEY invitation_over (expires_at);

ALTER TABLE thing_change
    MODIFY changes MEDIUMTEXT /*M!100301 COMPRESSED */ CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
    ADD KEY thing_change_of (account_id, undone_at, made_at),
    ADD KEY thing_change_over (made_at);
ALTER TABLE thing_change DROP KEY thing_change_newest, ADD KEY thing_change_club (club_id);

ALTER TABLE club ADD COLUMN book_edition INT UNSIGNED NOT NULL DEFAULT 0;

-- +goose Down
ALTER TABLE club DROP COLUMN book_edition;
ALTER TABLE thing_change ADD KEY thing_change_newest (club_id, account_id, undone_at, id);
ALTER TABLE thing_change DROP KEY thing_change_of, DROP KEY thing_change_over;
ALTER TABLE invitation DROP KEY invitation_over, DROP CONSTRAINT invitation_role, MODIFY role ENUM ('coach', 'assistant', 'medical') NOT NULL;
ALTER TABLE account DROP CONSTRAINT account_role, MODIFY role ENUM ('coach', 'assistant', 'medical') NOT NULL;
