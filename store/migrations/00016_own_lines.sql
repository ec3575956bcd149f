-- What a player always does in own time, a line each.
-- +goose Up
ALTER TABLE player ADD COLUMN own_lines VARCHAR(500) NOT NULL DEFAULT '' AFTER build;

-- +goose Down
ALTER TABLE player DROP COLUMN own_lines;
