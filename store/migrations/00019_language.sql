-- The language in which pages speak: to a club, and to one of its people, where that is another.
-- +goose Up
ALTER TABLE club ADD COLUMN language VARCHAR(8) NOT NULL DEFAULT '';
ALTER TABLE account ADD COLUMN language VARCHAR(8) NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE account DROP COLUMN language;
ALTER TABLE club DROP COLUMN language;
