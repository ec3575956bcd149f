-- Drills that a player does in another form, easier or harder, by code.
-- +goose Up
ALTER TABLE player ADD COLUMN forms VARCHAR(1000) NOT NULL DEFAULT '' AFTER own_lines;

-- +goose Down
ALTER TABLE player DROP COLUMN forms;
